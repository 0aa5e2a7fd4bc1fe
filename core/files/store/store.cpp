#include "core/files/store/store.h"

#include <algorithm>
#include <chrono>
#include <ctime>
#include <filesystem>
#include <set>
#include <unordered_map>

#include <unistd.h>

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <sqlite3.h>

#include "core/files/io/json.h"
#include "core/files/store/merge.h"
#include "core/files/store/check.h"
#include "core/files/store/schema.h"
#include "core/ground/work/work.h"
#include "core/shop/job/job.h"

namespace yb {

namespace fs = std::filesystem;

namespace {

/// How long another program that writes is waited for.
constexpr int busy_ms = 2000;

std::string now_utc() { return fmt::format("{:%FT%TZ}", std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now())); }

struct Change {
    std::string kind, id, body;  // an empty body: the document is no longer there
};

template <class Map>
void compare(const Map& old, const Map& next, const char* kind, std::vector<Change>& out) {
    for (const auto& [id, doc] : next) {
        const auto it = old.find(id);
        if (it == old.end() || !(it->second == doc)) out.push_back({kind, id, to_json(doc).dump()});
    }
    for (const auto& [id, doc] : old)
        if (!next.count(id)) out.push_back({kind, id, ""});
}

std::vector<Change> changes(const Documents& old, const Documents& next) {
    std::vector<Change> out;
    if (!(old.shop == next.shop)) out.push_back({"shop", "shop", to_json(next.shop).dump()});
    compare(old.jobs, next.jobs, "job", out);
    compare(old.slabs, next.slabs, "slab", out);
    return out;
}

}  // namespace

struct Store::Impl {
    std::string path;
    bool newer = false;
    SQLite::Database db;
    Documents docs;
    std::int64_t head = 0;
    std::unordered_map<std::int64_t, RevisionRow> revisions;
    std::string why_read_only;

    Impl(SQLite::Database opened, std::string p) : path(std::move(p)), db(std::move(opened)) {}

    /// Reads what the file stands at, everything that is read against its checksum. @throws StoreError(damaged), FormatError.
    void load() {
        Skeleton s = read_skeleton(db, newer ? 0 : read_header(db).version);
        if (!s.problems.empty()) throw StoreError(StoreError::Kind::damaged, path + " is damaged: " + s.problems.front() + ".");
        head = s.head;
        std::vector<Stored> stored;
        for (const auto& [key, change] : s.newest(head)) stored.push_back({key.first, key.second, read_body(db, *change, path)});
        docs = read_all(stored);
        revisions = std::move(s.revisions);
    }

    /// Inside a transaction: reads the file anew where another program moved its head.
    bool catch_up() {
        if (head_in_file() == head) return false;
        load();
        return true;
    }

    /// Inside a transaction, which it commits: undo and redo, to the revision before or behind. Only what differs is read.
    void stand_at(std::int64_t to, SQLite::Transaction& tx) {
        std::set<std::int64_t> on_path;
        for (std::int64_t r = to; r != 0; r = revisions.at(r).parent) on_path.insert(r);
        SQLite::Statement differing(db, "SELECT kind, document FROM change WHERE revision = ?");
        differing.bind(1, std::max(head, to));
        SQLite::Statement older(db,
                                "SELECT id, revision, kind, document, digest FROM change WHERE kind = ? AND document = ? ORDER BY id DESC");
        std::vector<Stored> bodies;
        while (differing.executeStep()) {
            Stored s{differing.getColumn(0).getString(), differing.getColumn(1).getString(), ""};
            older.bind(1, s.kind);
            older.bind(2, s.id);
            while (older.executeStep()) {
                const ChangeRow row{older.getColumn(0).getInt64(), older.getColumn(1).getInt64(), s.kind, s.id,
                                    older.getColumn(4).getString()};
                if (!on_path.count(row.revision)) continue;
                s.body = read_body(db, row, path);
                break;
            }
            older.reset();
            bodies.push_back(std::move(s));
        }
        differing.reset();
        Documents part = read_all(bodies);
        write_head(db, to);
        tx.commit();
        head = to;
        for (const Stored& s : bodies) {
            if (s.kind == "shop") docs.shop = part.shop;
            else if (s.body.empty()) apply_document(docs, s.kind, s.id, "");
            else if (s.kind == "slab") docs.slabs[s.id] = part.slabs.at(s.id);
            else docs.jobs[s.id] = part.jobs.at(s.id);
        }
    }

    std::int64_t head_in_file() { return db.execAndGet("SELECT revision FROM head").getInt64(); }

    struct Stored {
        std::string kind, id, body;
    };
    /// Reading the bodies takes most of the time of opening: done over the cores, a handful at a time.
    static Documents read_all(const std::vector<Stored>& stored) {
        constexpr std::size_t handful = 16;
        std::vector<Documents> parts((stored.size() + handful - 1) / handful);
        in_parallel(parts.size(), [&](std::size_t p) {
            for (std::size_t i = p * handful; i < std::min(stored.size(), (p + 1) * handful); ++i)
                apply_document(parts[p], stored[i].kind, stored[i].id, stored[i].body);
        });
        Documents all;
        for (std::size_t i = 0; i < stored.size(); ++i)
            if (stored[i].kind == "shop") all.shop = parts[i / handful].shop;
        for (Documents& part : parts) all.slabs.merge(part.slabs), all.jobs.merge(part.jobs);
        return all;
    }

    template <class F>
    auto guarded(F f) {
        if (newer)
            throw StoreError(StoreError::Kind::newer, path + " was written by a newer program: it can be looked at here, not changed.");
        if (!why_read_only.empty()) throw StoreError(StoreError::Kind::read_only, why_read_only);
        try {
            return f();
        } catch (const SQLite::Exception& e) {
            throw sqlite_error(e, path);
        }
    }
};

/// What a store stood at, put back where a write fails half-way: what is tried again then starts from the same.
struct Store::Standing {
    explicit Standing(Impl& of) : impl(of), docs(of.docs), head(of.head) {}
    ~Standing() {
        if (kept) return;
        impl.docs = std::move(docs);
        impl.head = head;
    }
    Standing(const Standing&) = delete;
    Standing& operator=(const Standing&) = delete;
    Impl& impl;
    Documents docs;
    std::int64_t head;
    bool kept = false;
};

Store::Store(std::unique_ptr<Impl> impl) : impl_(std::move(impl)) {}
Store::Store(Store&&) noexcept = default;
Store& Store::operator=(Store&&) noexcept = default;
Store::~Store() = default;

namespace {
/// Whether a new file can be made under that name. @throws StoreError with its own sentence.
void look_at_new(const std::string& path) {
    using K = StoreError::Kind;
    if (fs::exists(path)) throw StoreError(K::other, path + " is there already. Choose another name.");
    const fs::path folder = fs::absolute(path).parent_path();
    std::error_code e;
    if (!fs::is_directory(folder, e))
        throw StoreError(K::missing, "There is no folder " + folder.string() + ". Make it first, or choose another.");
    if (::access(folder.c_str(), W_OK) != 0)
        throw StoreError(K::read_only, "Nothing can be written in " + folder.string() + ". Choose a folder of your own.");
}
}  // namespace

Store Store::create(const std::string& path, const Documents& first, const std::string& label) {
    look_at_new(path);
    try {
        auto impl = std::make_unique<Impl>(SQLite::Database(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, busy_ms), path);
        prepare_connection(impl->db);
        create_schema(impl->db);
        Store store(std::move(impl));
        // An empty shop is compared with, so that even a shop of defaults is written.
        store.impl_->docs.shop.name = first.shop.name + " ";
        store.append(label, first);
        return store;
    } catch (const SQLite::Exception& e) {
        remove_database(path);
        throw sqlite_error(e, path);
    } catch (...) {
        remove_database(path);
        throw;
    }
}

Store Store::open(const std::string& path) {
    using K = StoreError::Kind;
    look_at_path(path);
    const auto read = [&](SQLite::Database db, std::string why_read_only) {
        auto impl = std::make_unique<Impl>(std::move(db), path);
        const FileHeader header = read_header(impl->db);
        if (header.application != application_id)
            throw StoreError(K::not_a_shop, path + " is not a shop file. It was left as it is; choose another.");
        if (header.version < 1)
            throw StoreError(K::damaged, fmt::format("{} is damaged: it says it is of version {}, which never was. It was left as it is.",
                                                     path, header.version));
        impl->newer = header.version > schema_version;
        impl->why_read_only =
            impl->newer ? path + " was written by a newer program: it can be looked at here, not changed." : std::move(why_read_only);
        if (impl->why_read_only.empty()) {
            if (header.version < schema_version) bring_up_to_date(*impl);
            prepare_connection(impl->db);
        }
        const SQLite::Transaction moment(impl->db);  // revisions and bodies of one moment
        impl->load();
        return Store(std::move(impl));
    };
    const auto read_only = [&](const std::string& why) { return read(open_to_read(path), why); };
    try {
        if (!can_write(path))
            return read_only(path + " or its folder can't be written: open for reading only. Save a copy in a folder of your own.");
        try {
            {
                // Who wrote it is looked at before a byte may change.
                SQLite::Database db = open_to_read(path);
                if (const FileHeader h = read_header(db); h.application != application_id || h.version < 1 || h.version > schema_version)
                    return read(std::move(db), "");
            }
            return read(SQLite::Database(path, SQLite::OPEN_READWRITE, busy_ms), "");
        } catch (const SQLite::Exception& e) {
            // On a disk without room no log can be made beside it: it can still be read.
            if (const StoreError told = sqlite_error(e, path); told.kind() == K::full || told.kind() == K::read_only)
                return read_only(path + " is open for reading only: " +
                                 (told.kind() == K::full ? "its disk is full. Free some space and open it again."
                                                         : "nothing can be written beside it."));
            throw;
        }
    } catch (const SQLite::Exception& e) {
        const StoreError told = sqlite_error(e, path);
        if (told.kind() == K::other) throw StoreError(K::damaged, path + " is damaged: " + e.what() + ". It was left as it is.");
        throw told;
    } catch (const FormatError& e) {
        throw StoreError(K::damaged, path + " is damaged: " + e.what() + ". It was left as it is.");
    }
}

void Store::bring_up_to_date(Impl& impl) {
    const CheckReport report = check_shop(impl.path);
    if (!report.ok)
        throw StoreError(StoreError::Kind::damaged, impl.path + " is damaged: " + report.problems.front() + ". It was left as it is.");
    backup_once_a_day(impl.path);
    prepare_connection(impl.db);
    migrate(impl.db);
}

const Documents& Store::documents() const { return impl_->docs; }
const std::string& Store::path() const { return impl_->path; }
bool Store::read_only() const { return !impl_->why_read_only.empty(); }
const std::string& Store::why_read_only() const { return impl_->why_read_only; }
bool Store::newer() const { return impl_->newer; }

bool Store::append(const std::string& label, const Documents& next) {
    auto list = changes(impl_->docs, next);
    if (list.empty()) return false;
    return impl_->guarded([&] {
        auto& db = impl_->db;
        SQLite::Transaction tx(db, SQLite::TransactionBehavior::IMMEDIATE);  // from here on nobody else writes
        std::optional<Standing> before;
        std::optional<Documents> together;
        if (impl_->head_in_file() != impl_->head) {
            before.emplace(*impl_);
            impl_->load();
            together = merged(before->docs, next, impl_->docs);
            list = changes(impl_->docs, *together);
            if (list.empty()) return before->kept = true;
        }
        const std::string at = now_utc();
        const std::int64_t id = db.execAndGet("SELECT coalesce(max(id), 0) FROM revision").getInt64() + 1;
        std::string seals;
        for (const Change& c : list) seals += seal_of_change(id, c.kind, c.id, c.body);
        const RevisionRow row{impl_->head, 0, label, at, seal_of_changes(seals)};
        write_revision(db, id, row);
        for (const Change& c : list) write_change(db, {0, id, c.kind, c.id, ""}, c.body);
        write_head(db, id);
        tx.commit();
        impl_->revisions[id] = row;
        impl_->head = id;
        impl_->docs = together ? std::move(*together) : next;
        if (before) before->kept = true;
        return before.has_value();
    });
}

bool Store::changed_beside() const {
    try {
        return impl_->head_in_file() != impl_->head;
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, impl_->path);
    }
}

bool Store::catch_up() {
    if (!changed_beside()) return false;
    try {
        SQLite::Transaction tx(impl_->db);  // revisions and bodies of one moment
        return impl_->catch_up();
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, impl_->path);
    } catch (const FormatError& e) {
        throw StoreError(StoreError::Kind::damaged, impl_->path + ": what another program wrote can't be read: " + e.what() + ".");
    }
}

namespace {

/// @param again other bytes under a key that is taken are left out instead of refused: for what can be made again.
void write_attachments(SQLite::Database& db, const Store::Attachments& all, bool again) {
    SQLite::Transaction tx(db, SQLite::TransactionBehavior::IMMEDIATE);
    SQLite::Statement taken(db, "SELECT digest FROM attachment WHERE key = ?");
    for (const auto& [key, bytes] : all) {
        taken.bind(1, key);
        const bool there = taken.executeStep();
        const bool same = there && taken.getColumn(0).getString() == seal_of_attachment(key, bytes);
        taken.reset();
        if (there && !same && !again)
            throw StoreError(StoreError::Kind::other, "There is another picture or scan under the name " + key + ". It was kept.");
        if (!there) write_attachment(db, key, bytes);
    }
    tx.commit();
}

std::optional<std::string> read_verified(SQLite::Database& db, const std::string& key, const std::string& path) {
    const bool sealed = read_header(db).version == schema_version;
    SQLite::Statement q(db, sealed ? "SELECT bytes, digest FROM attachment WHERE key = ?" : "SELECT bytes FROM attachment WHERE key = ?");
    q.bind(1, key);
    if (!q.executeStep()) return {};
    std::string bytes = q.getColumn(0).getString();
    if (sealed && q.getColumn(1).getString() != seal_of_attachment(key, bytes))
        throw StoreError(StoreError::Kind::damaged,
                         "The picture or scan " + key + " in " + path + " is damaged: it does not fit its checksum.");
    return bytes;
}

}  // namespace

void Store::attach(const std::string& key, const std::string& bytes) { attach(Attachments{{key, bytes}}); }

void Store::attach(const Attachments& all) {
    impl_->guarded([&] { write_attachments(impl_->db, all, false); });
}

std::optional<std::string> Store::read_attachment(const std::string& path, const std::string& key) {
    try {
        SQLite::Database db = open_to_read(path);
        return read_verified(db, key, path);
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, path);
    }
}

void Store::attach_beside(const std::string& path, const Attachments& all) {
    try {
        SQLite::Database db(path, SQLite::OPEN_READWRITE, 5000);
        db.exec("PRAGMA synchronous = NORMAL");
        write_attachments(db, all, true);
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, path);
    }
}

std::optional<std::string> Store::attachment(const std::string& key) const {
    try {
        return read_verified(impl_->db, key, impl_->path);
    } catch (const SQLite::Exception& e) {
        // A shop of version 1 on a disk that can't be written has none.
        if (read_only() && e.getErrorCode() == SQLITE_ERROR) return {};
        throw sqlite_error(e, impl_->path);
    }
}

bool Store::has_attachment(const std::string& key) const {
    try {
        SQLite::Statement q(impl_->db, "SELECT 1 FROM attachment WHERE key = ?");
        q.bind(1, key);
        return q.executeStep();
    } catch (const SQLite::Exception&) {
        return false;
    }
}

bool Store::can_undo() const { return impl_->head != 0 && impl_->revisions.at(impl_->head).parent != 0; }
bool Store::can_redo() const {
    if (impl_->head == 0) return false;
    const auto to = impl_->revisions.find(impl_->revisions.at(impl_->head).redo);
    return to != impl_->revisions.end() && to->second.parent == impl_->head;
}
std::string Store::undo_label() const { return can_undo() ? impl_->revisions.at(impl_->head).label : ""; }
std::string Store::redo_label() const { return can_redo() ? impl_->revisions.at(impl_->revisions.at(impl_->head).redo).label : ""; }

bool Store::undo() {
    if (!can_undo()) return false;
    return impl_->guarded([&] {
        auto& db = impl_->db;
        SQLite::Transaction tx(db, SQLite::TransactionBehavior::IMMEDIATE);
        if (impl_->catch_up()) return true;
        const std::int64_t from = impl_->head;
        const std::int64_t to = impl_->revisions.at(from).parent;
        RevisionRow row = impl_->revisions.at(to);
        row.redo = from;
        write_revision(db, to, row);
        impl_->stand_at(to, tx);
        impl_->revisions.at(to).redo = from;
        return false;
    });
}

bool Store::redo() {
    if (!can_redo()) return false;
    return impl_->guarded([&] {
        SQLite::Transaction tx(impl_->db, SQLite::TransactionBehavior::IMMEDIATE);
        if (impl_->catch_up()) return true;
        const std::int64_t to = impl_->revisions.at(impl_->head).redo;
        impl_->stand_at(to, tx);
        return false;
    });
}

std::vector<RevisionInfo> Store::history() const {
    std::vector<RevisionInfo> out;
    for (std::int64_t r = impl_->head; r != 0; r = impl_->revisions.at(r).parent)
        out.push_back({r, impl_->revisions.at(r).label, impl_->revisions.at(r).at});
    std::reverse(out.begin(), out.end());
    return out;
}

void Store::save_copy(const std::string& path) const {
    if (fs::exists(path)) throw StoreError(StoreError::Kind::other, path + " is there already. Choose another name.");
    try {
        SQLite::Statement q(impl_->db, "VACUUM INTO ?");
        q.bind(1, path);
        q.exec();
    } catch (const SQLite::Exception& e) {
        std::error_code ignored;
        fs::remove(path, ignored);
        throw sqlite_error(e, path);
    }
}

namespace {

/// Local time with its offset, as the book keeps it.
std::string now_local() {
    const std::time_t t = std::chrono::system_clock::to_time_t(std::chrono::system_clock::now());
    std::string at = fmt::format("{:%FT%T%z}", fmt::localtime(t));
    return at.insert(at.size() - 2, ":");
}

}  // namespace

void Store::write(BookEntry e) {
    impl_->guarded([&] {
        SQLite::Transaction tx(impl_->db, SQLite::TransactionBehavior::IMMEDIATE);
        e.id = 0;
        if (e.at.empty()) e.at = now_local();
        write_entry(impl_->db, e);
        tx.commit();
    });
}

std::vector<BookEntry> Store::book() const {
    std::vector<BookEntry> out;
    try {
        if (read_header(impl_->db).version < 3) return out;  // on a disk that can't be written
        SQLite::Statement q(impl_->db, fmt::format("SELECT {} FROM book ORDER BY id", entry_columns));
        while (q.executeStep()) out.push_back(entry_at(q));
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, impl_->path);
    }
    return out;
}

void Store::limit_pages(int pages) { impl_->db.exec(fmt::format("PRAGMA max_page_count = {}", pages)); }

}  // namespace yb
