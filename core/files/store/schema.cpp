#include "core/files/store/schema.h"
#include "core/ground/file/text.h"

#include <algorithm>
#include <filesystem>

#include <fmt/format.h>
#include <sqlite3.h>
#include <unistd.h>

#include "core/files/io/json.h"
#include "core/ground/file/digest.h"
#include "core/ground/file/format_error.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

namespace fs = std::filesystem;

void trust_nothing(SQLite::Database& db) {
    for (const int what : {SQLITE_DBCONFIG_ENABLE_TRIGGER, SQLITE_DBCONFIG_ENABLE_VIEW, SQLITE_DBCONFIG_TRUSTED_SCHEMA})
        sqlite3_db_config(db.getHandle(), what, 0, nullptr);
}

void prepare_connection(SQLite::Database& db) {
    trust_nothing(db);
    db.exec("PRAGMA foreign_keys = ON");
    db.exec("PRAGMA journal_mode = WAL");
    db.exec("PRAGMA synchronous = FULL");
    db.exec("PRAGMA wal_autocheckpoint = 1");
}

FileHeader read_header(SQLite::Database& db) {
    return {db.execAndGet("PRAGMA application_id").getInt(), db.execAndGet("PRAGMA user_version").getInt()};
}

std::string seal_of_change(std::int64_t revision, const std::string& kind, const std::string& id, const std::string& body) {
    return seal_of({"change", std::to_string(revision), kind, id, body});
}

std::string seal_of_changes(const std::string& seals) { return seal_of({"changes", seals}); }

std::string seal_of_revision(std::int64_t id, std::int64_t parent, std::int64_t redo, const std::string& label, const std::string& at,
                             const std::string& changes) {
    return seal_of({"revision", std::to_string(id), std::to_string(parent), std::to_string(redo), label, at, changes});
}

std::string seal_of_head(std::int64_t revision) { return seal_of({"head", std::to_string(schema_version), std::to_string(revision)}); }

std::string seal_of_attachment(const std::string& key, std::string_view bytes) { return seal_of({"attachment", key, bytes}); }

std::string seal_of_entry(const std::string& before, const BookEntry& e) {
    return seal_of({"book", before, std::to_string(e.id), e.at, e.job, e.step, e.kind, e.what, e.value, e.unit, e.of});
}

const std::vector<std::string>& table_statements() {
    static const std::vector<std::string> all{
        "CREATE TABLE revision (id INTEGER PRIMARY KEY, parent INTEGER NOT NULL, redo INTEGER NOT NULL, label TEXT NOT NULL, "
        "at TEXT NOT NULL, changes TEXT NOT NULL, digest TEXT NOT NULL)",
        "CREATE TABLE change (id INTEGER PRIMARY KEY, revision INTEGER NOT NULL REFERENCES revision(id), "
        "kind TEXT NOT NULL CHECK (kind IN ('shop','slab','job')), document TEXT NOT NULL, digest TEXT NOT NULL, body TEXT)",
        // Holds all but the bodies: what hangs on what is read from here.
        "CREATE INDEX change_revision ON change(revision, kind, document, digest)",
        "CREATE TABLE head (one INTEGER PRIMARY KEY CHECK (one = 1), revision INTEGER NOT NULL, digest TEXT NOT NULL)",
        "CREATE TABLE attachment (key TEXT PRIMARY KEY, digest TEXT NOT NULL, bytes BLOB NOT NULL)",
        "CREATE TABLE book (id INTEGER PRIMARY KEY, at TEXT NOT NULL, job TEXT NOT NULL, step TEXT NOT NULL, kind TEXT NOT NULL, "
        "what TEXT NOT NULL, value TEXT NOT NULL, unit TEXT NOT NULL, of_ TEXT NOT NULL, digest TEXT NOT NULL)",
    };
    return all;
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
}

/// Version 4: every row sealed, a revision over its changes, an entry of the book over the one before it.
void seal_every_row(SQLite::Database& db) {
    db.exec("DROP INDEX change_revision");
    for (const char* table : {"revision", "change", "head", "attachment", "book"})
        db.exec(fmt::format("ALTER TABLE {0} RENAME TO old_{0}", table));
    for (const std::string& statement : table_statements()) db.exec(statement);
    std::unordered_map<std::int64_t, std::string> seals;
    SQLite::Statement revisions(db, "SELECT id, parent, redo, label, at FROM old_revision ORDER BY id");
    while (revisions.executeStep())  // changes hang on them: sealed below
        write_revision(db, revisions.getColumn(0).getInt64(),
                       {revisions.getColumn(1).getInt64(), revisions.getColumn(2).getInt64(), revisions.getColumn(3).getString(),
                        revisions.getColumn(4).getString(), ""});
    SQLite::Statement changes(db, "SELECT id, revision, kind, document, body FROM old_change ORDER BY id");
    while (changes.executeStep()) {
        const auto column = changes.getColumn(4);
        const std::string body = column.isNull() ? "" : column.getString();
        ChangeRow row{changes.getColumn(0).getInt64(), changes.getColumn(1).getInt64(), changes.getColumn(2).getString(),
                      changes.getColumn(3).getString(), ""};
        row.digest = seal_of_change(row.revision, row.kind, row.document, body);
        seals[row.revision] += row.digest;
        write_change(db, row, body);
    }
    revisions.reset();
    while (revisions.executeStep()) {
        const std::int64_t id = revisions.getColumn(0).getInt64();
        write_revision(db, id,
                       {revisions.getColumn(1).getInt64(), revisions.getColumn(2).getInt64(), revisions.getColumn(3).getString(),
                        revisions.getColumn(4).getString(), seal_of_changes(seals[id])});
    }
    write_head(db, db.execAndGet("SELECT revision FROM old_head").getInt64());
    SQLite::Statement attachments(db, "SELECT key, bytes FROM old_attachment ORDER BY rowid");
    while (attachments.executeStep()) write_attachment(db, attachments.getColumn(0).getString(), attachments.getColumn(1).getString());
    SQLite::Statement book(db, fmt::format("SELECT {} FROM old_book ORDER BY id", entry_columns));
    while (book.executeStep()) write_entry(db, entry_at(book));
    for (SQLite::Statement* s : {&revisions, &changes, &attachments, &book}) s->reset();
    for (const char* table : {"change", "revision", "head", "attachment", "book"}) db.exec(fmt::format("DROP TABLE old_{}", table));
}

}  // namespace

BookEntry entry_at(SQLite::Statement& q) {
    const auto text = [&](int i) { return q.getColumn(i).getString(); };
    return {q.getColumn(0).getInt64(), text(1), text(2), text(3), text(4), text(5), text(6), text(7), text(8)};
}

bool change_fits(int version, const ChangeRow& c, const std::string& body) {
    if (version < 3) return true;
    return c.digest ==
           (version == 3 ? digest_of(c.kind + '\n' + c.document + '\n' + body) : seal_of_change(c.revision, c.kind, c.document, body));
}

bool attachment_fits(int version, const std::string& key, const std::string& digest, std::string_view bytes) {
    if (version < 3) return true;
    return digest == (version == 3 ? digest_of(std::string(bytes)) : seal_of_attachment(key, bytes));
}

void write_change(SQLite::Database& db, const ChangeRow& row, const std::string& body) {
    SQLite::Statement q(db, "INSERT INTO change (id, revision, kind, document, digest, body) VALUES (?, ?, ?, ?, ?, ?)");
    if (row.id != 0) q.bind(1, row.id);
    q.bind(2, row.revision);
    q.bind(3, row.kind);
    q.bind(4, row.document);
    q.bind(5, seal_of_change(row.revision, row.kind, row.document, body));
    if (!body.empty()) q.bind(6, body);
    q.exec();
}

void write_revision(SQLite::Database& db, std::int64_t id, const RevisionRow& row) {
    SQLite::Statement q(db,
                        "INSERT INTO revision (id, parent, redo, label, at, changes, digest) VALUES (?, ?, ?, ?, ?, ?, ?) "
                        "ON CONFLICT (id) DO UPDATE SET parent = excluded.parent, redo = excluded.redo, label = excluded.label, "
                        "at = excluded.at, changes = excluded.changes, digest = excluded.digest");
    q.bind(1, id);
    q.bind(2, row.parent);
    q.bind(3, row.redo);
    q.bind(4, row.label);
    q.bind(5, row.at);
    q.bind(6, row.changes);
    q.bind(7, seal_of_revision(id, row.parent, row.redo, row.label, row.at, row.changes));
    q.exec();
}

void write_head(SQLite::Database& db, std::int64_t revision) {
    SQLite::Statement q(db, "INSERT OR REPLACE INTO head (one, revision, digest) VALUES (1, ?, ?)");
    q.bind(1, revision);
    q.bind(2, seal_of_head(revision));
    q.exec();
}

void write_attachment(SQLite::Database& db, const std::string& key, const std::string& bytes) {
    SQLite::Statement q(db, "INSERT INTO attachment (key, digest, bytes) VALUES (?, ?, ?)");
    q.bind(1, key);
    q.bind(2, seal_of_attachment(key, bytes));
    q.bind(3, bytes.data(), static_cast<int>(bytes.size()));
    q.exec();
}

void write_entry(SQLite::Database& db, const BookEntry& given) {
    BookEntry e = given;
    std::string before;
    {
        SQLite::Statement last(db, "SELECT id, digest FROM book ORDER BY id DESC LIMIT 1");
        const bool any = last.executeStep();
        if (any) before = last.getColumn(1).getString();
        if (e.id == 0) e.id = any ? last.getColumn(0).getInt64() + 1 : 1;
    }
    SQLite::Statement q(db,
                        "INSERT INTO book (id, at, job, step, kind, what, value, unit, of_, digest) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)");
    int i = 0;
    q.bind(++i, e.id);
    for (const std::string& v : {e.at, e.job, e.step, e.kind, e.what, e.value, e.unit, e.of, seal_of_entry(before, e)}) q.bind(++i, v);
    q.exec();
}

void create_schema(SQLite::Database& db) {
    SQLite::Transaction tx(db);
    for (const std::string& statement : table_statements()) db.exec(statement);
    write_head(db, 0);
    db.exec(fmt::format("PRAGMA application_id = {}", application_id));
    db.exec(fmt::format("PRAGMA user_version = {}", schema_version));
    tx.commit();
}

void migrate(SQLite::Database& db) {
    db.exec("PRAGMA legacy_alter_table = ON");  // renamed tables take no references along
    db.exec("PRAGMA foreign_keys = OFF");
    for (int version = read_header(db).version; version < schema_version; ++version) {
        SQLite::Transaction tx(db);
        version == 1 ? add_attachments(db) : version == 2 ? add_digests_and_book(db) : seal_every_row(db);
        db.exec(fmt::format("PRAGMA user_version = {}", version + 1));
        tx.commit();
    }
    db.exec("PRAGMA legacy_alter_table = OFF");
    db.exec("PRAGMA foreign_keys = ON");
}

std::map<std::pair<std::string, std::string>, const ChangeRow*> Skeleton::newest(std::int64_t at) const {
    std::vector<bool> on_path;
    for (std::int64_t r = at; r != 0; r = revisions.at(r).parent) {
        if (on_path.size() <= static_cast<std::size_t>(r)) on_path.resize(static_cast<std::size_t>(r) + 1);
        on_path[static_cast<std::size_t>(r)] = true;
    }
    std::map<std::pair<std::string, std::string>, const ChangeRow*> out;
    for (const ChangeRow& c : changes)
        if (c.revision > 0 && static_cast<std::size_t>(c.revision) < on_path.size() && on_path[static_cast<std::size_t>(c.revision)])
            out[{c.kind, c.document}] = &c;
    return out;
}

Skeleton read_skeleton(SQLite::Database& db, int version) {
    Skeleton s;
    const bool sealed = version == schema_version;
    const auto problem = [&](std::string text) { s.problems.push_back(std::move(text)); };
    std::unordered_map<std::int64_t, std::string> seals;
    {
        SQLite::Statement q(db, sealed ? "SELECT id, revision, kind, document, digest FROM change ORDER BY revision"
                                       : "SELECT id, revision, kind, document, '' FROM change ORDER BY id");
        while (q.executeStep()) {
            s.changes.push_back({q.getColumn(0).getInt64(), q.getColumn(1).getInt64(), q.getColumn(2).getString(),
                                 q.getColumn(3).getString(), q.getColumn(4).getString()});
        }
        std::sort(s.changes.begin(), s.changes.end(), [](const ChangeRow& a, const ChangeRow& b) { return a.id < b.id; });
        for (const ChangeRow& c : s.changes)
            if (sealed) seals[c.revision] += c.digest;
    }
    SQLite::Statement q(db, sealed ? "SELECT id, parent, redo, label, at, changes, digest FROM revision"
                                   : "SELECT id, parent, redo, label, at, '', '' FROM revision");
    while (q.executeStep()) {
        const std::int64_t id = q.getColumn(0).getInt64();
        RevisionRow row{q.getColumn(1).getInt64(), q.getColumn(2).getInt64(), q.getColumn(3).getString(), q.getColumn(4).getString(),
                        q.getColumn(5).getString()};
        if (sealed && q.getColumn(6).getString() != seal_of_revision(id, row.parent, row.redo, row.label, row.at, row.changes))
            problem(fmt::format("revision {} does not fit its checksum", id));
        if (sealed && row.changes != seal_of_changes(seals[id])) problem(fmt::format("changes of revision {} are missing or altered", id));
        s.revisions[id] = std::move(row);
    }
    for (const auto& [id, row] : s.revisions) {
        if (id <= 0) problem(fmt::format("a revision has the number {}", id));
        // Revisions are only ever added: one that follows a later one, or itself, would be walked round and round.
        if (row.parent >= id) problem(fmt::format("revision {} follows one that is newer than itself", id));
        else if (row.parent != 0 && !s.revisions.count(row.parent)) problem(fmt::format("the parent of revision {} is missing", id));
        if (row.redo != 0) {
            const auto to = s.revisions.find(row.redo);
            if (to == s.revisions.end() || to->second.parent != id)
                s.remarks.push_back(fmt::format("the redo of revision {} leads nowhere; it is left out", id));
        }
    }
    for (const ChangeRow& c : s.changes)
        if (!s.revisions.count(c.revision))
            problem(fmt::format("a change of {} belongs to no revision", document_in_words(c.kind, c.document)));
    SQLite::Statement head(db, sealed ? "SELECT revision, digest FROM head" : "SELECT revision, '' FROM head");
    if (!head.executeStep()) {
        problem("it does not say where it stands: its head is missing");
    } else {
        s.head = head.getColumn(0).getInt64();
        if (sealed && head.getColumn(1).getString() != seal_of_head(s.head)) problem("its head does not fit its checksum");
        else if (!s.revisions.count(s.head)) problem("the head points at no revision");
    }
    return s;
}

std::string read_body(SQLite::Database& db, const ChangeRow& change, const std::string& path) {
    SQLite::Statement q(db, "SELECT body FROM change WHERE id = ?");
    q.bind(1, change.id);
    std::string body;
    if (q.executeStep() && !q.getColumn(0).isNull()) body = q.getColumn(0).getString();
    if (!change.digest.empty() && change.digest != seal_of_change(change.revision, change.kind, change.document, body))
        throw StoreError(StoreError::Kind::damaged,
                         path + " is damaged: " + document_in_words(change.kind, change.document) + " does not fit its checksum.");
    return body;
}

void look_at_path(const std::string& path) {
    using K = StoreError::Kind;
    if (!is_utf8(path)) {
        std::string shown;
        for (const char d : path) shown += static_cast<unsigned char>(d) < 0x80 ? d : '?';
        throw StoreError(K::other, "The name of " + shown +
                                       " is not in UTF-8, which this program writes names in. Give the file or "
                                       "its folder another name and open it again.");
    }
    std::error_code e;
    const fs::file_status status = fs::status(path, e);
    if (status.type() == fs::file_type::not_found) throw StoreError(K::missing, "There is no file " + path + ".");
    if (e == std::errc::permission_denied || (status.type() != fs::file_type::directory && ::access(path.c_str(), R_OK) != 0))
        throw StoreError(K::no_permission, path +
                                               " can't be read: you have no permission to. Ask whoever owns it, or copy it to a folder of "
                                               "your own.");
    if (status.type() == fs::file_type::directory)
        throw StoreError(K::not_a_shop, path + " is a folder, not a shop file. Choose the file in it.");
    if (status.type() != fs::file_type::regular)
        throw StoreError(K::not_a_shop, path + " is a device or a pipe, not a shop file. Choose a file.");
    if (fs::file_size(path, e) == 0) throw StoreError(K::not_a_shop, path + " is empty: there is no shop in it. It was left as it is.");
}

void remove_database(const std::string& path) {
    std::error_code e;
    for (const char* tail : {"", "-wal", "-shm", "-journal"}) fs::remove(path + tail, e);
}

bool can_write(const std::string& path) {
    const fs::path folder = fs::absolute(path).parent_path();
    return ::access(path.c_str(), W_OK) == 0 && ::access(folder.c_str(), W_OK) == 0;
}

SQLite::Database open_to_read(const std::string& path) {
    std::string uri = "file:";
    for (const char c : fs::absolute(path).string())
        if (c == '?' || c == '#' || c == '%') uri += fmt::format("%{:02X}", static_cast<unsigned char>(c));
        else uri += c;
    // Without a log beside it nobody is writing: then it can be read without making one.
    std::error_code e;
    if (!fs::exists(path + "-wal", e)) uri += "?immutable=1";
    SQLite::Database db(uri, SQLite::OPEN_READONLY | SQLite::OPEN_URI, 2000);
    trust_nothing(db);
    return db;
}

StoreError sqlite_error(const SQLite::Exception& e, const std::string& path) {
    using K = StoreError::Kind;
    const auto full = [&] {
        return StoreError{K::full, "The disk that holds " + path + " is full. Nothing typed is lost here; free some space and try again."};
    };
    switch (e.getErrorCode()) {
        case SQLITE_FULL: return full();
        case SQLITE_READONLY:
        case SQLITE_PERM: return {K::read_only, path + " can't be written here. Save a copy in a folder of your own."};
        case SQLITE_CANTOPEN:
        case SQLITE_IOERR: {
            // What lies beneath: a disk without room, or one that was taken out or fails.
            std::error_code error;
            const auto room = fs::space(fs::absolute(path).parent_path(), error);
            if (!error && room.available < 64 * 1024) return full();
            if (e.getErrorCode() == SQLITE_CANTOPEN && !can_write(path))
                return {K::read_only, path + " can't be written here. Save a copy in a folder of your own."};
            return {K::full, "Writing to " + path +
                                 " failed: the disk is full or was taken out. Nothing typed is lost here; "
                                 "free some space and try again."};
        }
        case SQLITE_BUSY:
        case SQLITE_LOCKED: return {K::busy, path + " is held by another program just now. Close it there and try again."};
        case SQLITE_CORRUPT: return {K::damaged, path + " is damaged: its pages do not hang together."};
        case SQLITE_NOTADB: return {K::damaged, path + " is damaged or no shop file: its first page can't be read."};
        default:
            return {K::other, fmt::format("{} could not be read or written (the database says {}). Nothing typed is lost here; try again.",
                                          path, e.getExtendedErrorCode())};
    }
}

std::vector<std::string> attachments_named(const Slab& slab) {
    std::vector<std::string> out;
    for (const auto* picture : {&slab.picture_a, &slab.picture_b})
        if (*picture) out.push_back((*picture)->key);
    if (!slab.scan.empty()) out.push_back(slab.scan);
    return out;
}

std::string document_in_words(const std::string& kind, const std::string& id) {
    return kind == "shop" ? "the shop's own page" : kind + " ‘" + id + "’";
}

void apply_document(Documents& docs, const std::string& kind, const std::string& id, const std::string& body) {
    if (kind == "shop") docs.shop = shop_from_json(parse_json(body));
    else if (kind == "slab" && body.empty()) docs.slabs.erase(id);
    else if (kind == "slab") docs.slabs[id] = slab_from_json(parse_json(body));
    else if (kind == "job" && body.empty()) docs.jobs.erase(id);
    else if (kind == "job") docs.jobs[id] = job_from_json(parse_json(body));
}

}  // namespace yb
