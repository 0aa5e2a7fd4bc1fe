#include "core/store/schema.h"

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <fstream>

#include <fmt/chrono.h>
#include <fmt/format.h>
#include <sqlite3.h>
#include <unistd.h>

#include "core/io/digest.h"
#include "core/io/format_error.h"
#include "core/store/salvage.h"

namespace yb {

namespace fs = std::filesystem;

void prepare_connection(SQLite::Database& db) {
    db.exec("PRAGMA foreign_keys = ON");
    db.exec("PRAGMA journal_mode = WAL");
    db.exec("PRAGMA synchronous = FULL");
}

std::string digest_of_change(const std::string& kind, const std::string& id, const std::string& body) {
    return digest_of(kind + '\n' + id + '\n' + body);
}

namespace {

/// Version 2: pictures and point clouds, which revisions name by their keys.
void add_attachments(SQLite::Database& db) { db.exec("CREATE TABLE attachment (key TEXT PRIMARY KEY, bytes BLOB NOT NULL)"); }

/// Version 3: every change and attachment with its checksum, and the book, which undo never walks.
void add_digests_and_book(SQLite::Database& db) {
    db.exec("ALTER TABLE change ADD COLUMN digest TEXT");
    db.exec("ALTER TABLE attachment ADD COLUMN digest TEXT");
    db.exec(
        "CREATE TABLE book ("
        " id INTEGER PRIMARY KEY, at TEXT NOT NULL, job TEXT NOT NULL, step TEXT NOT NULL, kind TEXT NOT NULL,"
        " what TEXT NOT NULL, value TEXT NOT NULL, unit TEXT NOT NULL, of_ TEXT NOT NULL)");
    SQLite::Statement changes(db, "SELECT id, kind, document, body FROM change");
    SQLite::Statement set(db, "UPDATE change SET digest = ? WHERE id = ?");
    while (changes.executeStep()) {
        const auto body = changes.getColumn(3);
        set.bind(
            1, digest_of_change(changes.getColumn(1).getString(), changes.getColumn(2).getString(), body.isNull() ? "" : body.getString()));
        set.bind(2, changes.getColumn(0).getInt64());
        set.exec();
        set.reset();
    }
    SQLite::Statement keys(db, "SELECT key, bytes FROM attachment");
    SQLite::Statement name(db, "UPDATE attachment SET digest = ? WHERE key = ?");
    while (keys.executeStep()) {
        name.bind(1, digest_of(keys.getColumn(1).getString()));
        name.bind(2, keys.getColumn(0).getString());
        name.exec();
        name.reset();
    }
}

}  // namespace

void create_schema(SQLite::Database& db) {
    SQLite::Transaction tx(db);
    db.exec(
        "CREATE TABLE revision ("
        " id INTEGER PRIMARY KEY, parent INTEGER NOT NULL, redo INTEGER NOT NULL,"
        " label TEXT NOT NULL, at TEXT NOT NULL)");
    db.exec(
        "CREATE TABLE change ("
        " id INTEGER PRIMARY KEY, revision INTEGER NOT NULL REFERENCES revision(id),"
        " kind TEXT NOT NULL CHECK (kind IN ('shop','slab','job')), document TEXT NOT NULL, body TEXT)");
    db.exec("CREATE INDEX change_revision ON change(revision)");
    db.exec("CREATE TABLE head (one INTEGER PRIMARY KEY CHECK (one = 1), revision INTEGER NOT NULL)");
    db.exec("INSERT INTO head VALUES (1, 0)");
    add_attachments(db);
    add_digests_and_book(db);
    db.exec(fmt::format("PRAGMA application_id = {}", application_id));
    db.exec(fmt::format("PRAGMA user_version = {}", schema_version));
    tx.commit();
}

void migrate(SQLite::Database& db) {
    // Oldest first, each step in a transaction of its own.
    for (int version = db.execAndGet("PRAGMA user_version").getInt(); version < schema_version; ++version) {
        if (version < 1) throw StoreError(StoreError::Kind::damaged, fmt::format("The file says version {}, which never was.", version));
        SQLite::Transaction tx(db);
        version == 1 ? add_attachments(db) : add_digests_and_book(db);
        db.exec(fmt::format("PRAGMA user_version = {}", version + 1));
        tx.commit();
    }
}

std::string backup_folder(const std::string& path) { return path + ".backups"; }

void backup_once_a_day(SQLite::Database& db, const std::string& path) {
    const fs::path folder = backup_folder(path);
    const std::string today = fmt::format("{:%F}", fmt::localtime(std::chrono::system_clock::to_time_t(std::chrono::system_clock::now())));
    const fs::path target = folder / (today + ".shop");
    std::error_code e;
    if (fs::exists(target, e)) return;
    fs::create_directories(folder, e);
    if (e) return;
    // A name of its own: another program may make today's backup at the same moment.
    const fs::path part =
        folder / fmt::format("{}.{}-{}.part", today, ::getpid(), std::chrono::steady_clock::now().time_since_epoch().count());
    try {
        SQLite::Statement q(db, "VACUUM INTO ?");
        q.bind(1, part.string());
        q.exec();
        // One that would not open is none: the older ones stay, and it is tried again at the next opening.
        if (!check_shop(part.string()).ok) {
            fs::remove(part, e);
            return;
        }
        fs::rename(part, target, e);
    } catch (const std::exception&) {  // a full disk, a folder taken away
        fs::remove(part, e);
        return;
    }
    std::vector<fs::path> all;
    for (const auto& entry : fs::directory_iterator(folder, e)) {
        if (entry.path().extension() == ".shop") all.push_back(entry.path());
        // What a program left half-made on an earlier day.
        else if (entry.path().extension() == ".part" && entry.path().filename().string().rfind(today, 0) != 0) fs::remove(entry.path(), e);
    }
    std::sort(all.begin(), all.end());
    for (std::size_t i = 0; i + 14 < all.size(); ++i) fs::remove(all[i], e);
}

bool can_write(const std::string& path) {
    const fs::path folder = fs::absolute(path).parent_path();
    return ::access(path.c_str(), W_OK) == 0 && ::access(folder.c_str(), W_OK) == 0;
}

std::string read_only_uri(const std::string& path) {
    std::string out = "file:";
    for (const char c : fs::absolute(path).string())
        if (c == '?' || c == '#' || c == '%') out += fmt::format("%{:02X}", static_cast<unsigned char>(c));
        else out += c;
    // Without a log beside it nobody is writing: then it can be read without making one.
    std::error_code e;
    return out + (fs::exists(path + "-wal", e) ? "" : "?immutable=1");
}

namespace {

/// Every change against its checksum; attachments are verified when they are read.
void verify(SQLite::Database& db, CheckReport& r) {
    SQLite::Statement q(db, "SELECT kind, document, body, digest FROM change");
    while (q.executeStep()) {
        const auto body = q.getColumn(2);
        const std::string kind = q.getColumn(0).getString();
        const std::string id = q.getColumn(1).getString();
        if (q.getColumn(3).getString() != digest_of_change(kind, id, body.isNull() ? "" : body.getString()))
            r.problems.push_back("a change of " + kind + " ‘" + id + "’ does not fit its checksum");
    }
}

void look_through(SQLite::Database& db, CheckReport& r) {
    if (db.execAndGet("PRAGMA application_id").getInt() != application_id) {
        r.problems.emplace_back("it is not a shop file");
        return;
    }
    r.version = db.execAndGet("PRAGMA user_version").getInt();
    if (r.version < 1) {
        r.problems.push_back(fmt::format("the file says version {}, which never was", r.version));
        return;
    }
    SQLite::Statement integrity(db, "PRAGMA integrity_check(5)");
    while (integrity.executeStep())
        if (const std::string s = integrity.getColumn(0).getString(); s != "ok") r.problems.push_back(s);
    SQLite::Statement keys(db, "PRAGMA foreign_key_check");
    while (keys.executeStep()) r.problems.emplace_back("a change belongs to no revision");
    r.revisions = db.execAndGet("SELECT count(*) FROM revision").getInt64();
    if (db.execAndGet("SELECT count(*) FROM head JOIN revision ON head.revision = revision.id").getInt() != 1)
        r.problems.emplace_back("the head points at no revision");
    if (db.execAndGet("SELECT count(*) FROM revision WHERE parent <> 0 AND parent NOT IN (SELECT id FROM revision)").getInt() != 0)
        r.problems.emplace_back("a revision's parent is missing");
    // Revisions are only ever added: one that follows a later one, or itself, would be walked round and round.
    if (db.execAndGet("SELECT count(*) FROM revision WHERE parent >= id").getInt() != 0)
        r.problems.emplace_back("a revision follows one that is newer than itself");
    if (db.execAndGet("SELECT count(*) FROM revision r WHERE redo <> 0 AND NOT EXISTS (SELECT 1 FROM revision n WHERE n.id = r.redo AND "
                      "n.parent = r.id)")
            .getInt() != 0)
        r.remarks.emplace_back("a redo leads nowhere; it is left out");
    if (r.version >= 3) verify(db, r);
}

}  // namespace

namespace {
/// Reads every document of every revision, as opening reads those of the newest.
void read_every_document(SQLite::Database& db, CheckReport& r) {
    SQLite::Statement q(db, "SELECT revision, kind, document, body FROM change WHERE body IS NOT NULL ORDER BY id");
    while (q.executeStep()) {
        Documents one;
        try {
            apply_document(one, q.getColumn(1).getString(), q.getColumn(2).getString(), q.getColumn(3).getString());
        } catch (const std::exception& e) {
            r.problems.push_back(fmt::format("{} {} of revision {} can't be read: {}", q.getColumn(1).getString(),
                                             q.getColumn(2).getString(), q.getColumn(0).getInt64(), e.what()));
        }
    }
}
}  // namespace

CheckReport check_shop(const std::string& path, CheckDepth depth) {
    if (!fs::exists(path)) throw StoreError(StoreError::Kind::missing, "There is no file " + path + ".");
    CheckReport r;
    try {
        SQLite::Database db(read_only_uri(path), SQLite::OPEN_READONLY | SQLite::OPEN_URI, 2000);
        look_through(db, r);
        if (depth == CheckDepth::every_document && r.problems.empty() && r.version <= schema_version) read_every_document(db, r);
        if (r.problems.empty()) {
            r.slabs = static_cast<std::size_t>(db.execAndGet("SELECT count(DISTINCT document) FROM change WHERE kind = 'slab'").getInt());
            r.jobs = static_cast<std::size_t>(db.execAndGet("SELECT count(DISTINCT document) FROM change WHERE kind = 'job'").getInt());
        }
    } catch (const SQLite::Exception& e) {
        r.problems.emplace_back(e.what());
    }
    r.ok = r.problems.empty();
    return r;
}

StoreError shop_error(const std::string& path, const CheckReport& report) {
    using K = StoreError::Kind;
    const std::string why = report.problems.empty() ? "" : report.problems.front();
    if (why == "it is not a shop file") return {K::not_a_shop, path + " is not a shop file. It was left as it is; choose another."};
    if (report.version > schema_version)
        return {K::newer, path + " was written by a newer program (version " + std::to_string(report.version) +
                              ") and can't be read here: " + why + ". It was left as it is."};
    return {K::damaged, path + " is damaged: " + why + ". It was left as it is."};
}

std::optional<std::string> newest_backup(const std::string& path) {
    std::vector<fs::path> all;
    std::error_code e;
    for (const auto& entry : fs::directory_iterator(backup_folder(path), e))
        if (entry.path().extension() == ".shop") all.push_back(entry.path());
    std::sort(all.rbegin(), all.rend());
    for (const fs::path& p : all)
        if (check_shop(p.string(), CheckDepth::every_document).ok) return p.string();
    return {};
}

Salvage salvage(const std::string& path) {
    Salvage s;
    bool broken = false;
    try {
        SQLite::Database db(read_only_uri(path), SQLite::OPEN_READONLY | SQLite::OPEN_URI, 2000);
        // Lets SQLite read the pages that are there of a file that was cut short; the file itself is read only.
        db.exec("PRAGMA writable_schema = ON");
        std::int64_t last = 0;
        try {
            last = db.execAndGet("SELECT max(id) FROM change").getInt64();
        } catch (const SQLite::Exception&) {
            last = 100000;
            broken = true;
        }
        // Row by row, so that one bad page does not hide the rest.
        int missed = 0;
        for (std::int64_t id = 1; id <= last; ++id) {
            try {
                SQLite::Statement q(db, "SELECT kind, document, body FROM change WHERE id = ?");
                q.bind(1, static_cast<std::int64_t>(id));
                if (!q.executeStep()) continue;
                const auto body = q.getColumn(2);
                apply_document(s.documents, q.getColumn(0).getString(), q.getColumn(1).getString(), body.isNull() ? "" : body.getString());
            } catch (const std::exception&) {
                ++missed;
            }
        }
        if (missed > 0) s.lost.push_back(fmt::format("{} of the changes can't be read; the version before them is shown", missed));
        if (broken) s.lost.emplace_back("the list of changes itself is damaged");
    } catch (const SQLite::Exception& e) {
        s.lost.push_back(std::string("the file can't be read at all: ") + e.what());
    }
    return s;
}

}  // namespace yb
