#include "core/store/store.h"

#include <algorithm>
#include <chrono>
#include <ctime>
#include <filesystem>
#include <set>
#include <unordered_map>

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <sqlite3.h>

#include "core/io/json.h"
#include "core/store/merge.h"
#include "core/store/salvage.h"
#include "core/store/schema.h"
#include "core/work/work.h"

namespace yb {

namespace fs = std::filesystem;

StoreError sqlite_error(const SQLite::Exception& e, const std::string& path) {
    using K = StoreError::Kind;
    switch (e.getErrorCode()) {
        case SQLITE_FULL: return {K::full, "The disk that holds " + path + " is full. Free some space and try again."};
        case SQLITE_READONLY:
        case SQLITE_PERM:
        case SQLITE_CANTOPEN: return {K::read_only, path + " can't be written here. Save a copy in a folder of your own."};
        case SQLITE_BUSY:
        case SQLITE_LOCKED: return {K::busy, path + " is open in another program. Close it there and try again."};
        case SQLITE_CORRUPT: return {K::damaged, path + " is damaged: " + e.getErrorStr() + "."};
        case SQLITE_NOTADB: return {K::damaged, path + " is damaged or no shop file: its first page can't be read."};
        case SQLITE_IOERR:
            return {K::full, "Writing to " + path +
                                 " failed: the disk is full or was taken out. Nothing typed is lost here; "
                                 "free some space and try again."};
        default: return {K::other, path + ": " + e.what()};
    }
}

namespace {

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

void apply_document(Documents& docs, const std::string& kind, const std::string& id, const std::string& body) {
    if (kind == "shop") docs.shop = shop_from_json(parse_json(body));
    else if (kind == "slab" && body.empty()) docs.slabs.erase(id);
    else if (kind == "slab") docs.slabs[id] = slab_from_json(parse_json(body));
    else if (kind == "job" && body.empty()) docs.jobs.erase(id);
    else if (kind == "job") docs.jobs[id] = job_from_json(parse_json(body));
}

struct Store::Impl {
    std::string path;
    bool read_only = false, newer = false;
    SQLite::Database db;
    Documents docs;
    std::int64_t head = 0;
    struct Row {
        std::int64_t parent = 0, redo = 0;
        std::string label, at;
    };
    std::unordered_map<std::int64_t, Row> revisions;

    Impl(std::string p, int flags) : path(std::move(p)), read_only((flags & SQLite::OPEN_READONLY) != 0), db(path, flags, 2000) {}

    void load() {
        SQLite::Statement q(db, "SELECT id, parent, redo, label, at FROM revision");
        while (q.executeStep())
            revisions[q.getColumn(0).getInt64()] = {q.getColumn(1).getInt64(), q.getColumn(2).getInt64(), q.getColumn(3).getString(),
                                                    q.getColumn(4).getString()};
        head = head_in_file();
        read_state();
    }

    /// Inside a transaction: reads the file anew where another program moved its head.
    bool catch_up() {
        if (head_in_file() == head) return false;
        load();
        return true;
    }

    std::int64_t head_in_file() { return db.execAndGet("SELECT revision FROM head").getInt64(); }

    /// The state at the head: for every document its newest change on the way from the root.
    void read_state() {
        std::set<std::int64_t> on_path;
        for (std::int64_t r = head; r != 0; r = revisions.at(r).parent) on_path.insert(r);
        std::map<std::pair<std::string, std::string>, std::int64_t> newest;  // change row of each document
        SQLite::Statement q(db, "SELECT id, revision, kind, document FROM change ORDER BY id");
        while (q.executeStep())
            if (on_path.count(q.getColumn(1).getInt64()))
                newest[{q.getColumn(2).getString(), q.getColumn(3).getString()}] = q.getColumn(0).getInt64();
        std::vector<Stored> stored;
        SQLite::Statement body(db, "SELECT body FROM change WHERE id = ?");
        for (const auto& [key, row] : newest) {
            body.bind(1, static_cast<std::int64_t>(row));
            if (body.executeStep()) {
                const auto column = body.getColumn(0);
                stored.push_back({key.first, key.second, column.isNull() ? "" : column.getString()});
            }
            body.reset();
        }
        docs = read_all(stored);
    }

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

    void move_head(std::int64_t to) {
        SQLite::Statement q(db, "UPDATE head SET revision = ?");
        q.bind(1, static_cast<std::int64_t>(to));
        q.exec();
    }

    template <class F>
    auto guarded(F f) {
        if (newer)
            throw StoreError(StoreError::Kind::newer, path + " was written by a newer program: it can be looked at here, not changed.");
        if (read_only)
            throw StoreError(StoreError::Kind::read_only, path + " is open for reading only. Save a copy in a folder of your own.");
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

Store Store::create(const std::string& path, const Documents& first, const std::string& label) {
    if (fs::exists(path)) throw StoreError(StoreError::Kind::other, path + " is there already. Choose another name.");
    try {
        auto impl = std::make_unique<Impl>(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        prepare_connection(impl->db);
        create_schema(impl->db);
        Store store(std::move(impl));
        // An empty shop is compared with, so that even a shop of defaults is written.
        store.impl_->docs.shop.name = first.shop.name + " ";
        store.append(label, first);
        return store;
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, path);
    }
}

Store Store::open(const std::string& path) {
    if (!fs::exists(path)) throw StoreError(StoreError::Kind::missing, "There is no file " + path + ".");
    const CheckReport report = check_shop(path);
    if (!report.ok) throw shop_error(path, report);
    int flags = SQLite::OPEN_READWRITE;
    const bool newer = report.version > schema_version;
    if (newer || !can_write(path)) flags = SQLite::OPEN_READONLY;
    try {
        auto impl = std::make_unique<Impl>(flags == SQLite::OPEN_READONLY ? read_only_uri(path) : path,
                                           flags == SQLite::OPEN_READONLY ? flags | SQLite::OPEN_URI : flags);
        impl->path = path;
        impl->newer = newer;
        if (!impl->read_only) {
            prepare_connection(impl->db);
            migrate(impl->db);
            backup_once_a_day(impl->db, path);
        }
        impl->load();
        return Store(std::move(impl));
    } catch (const SQLite::Exception& e) {
        if (newer)
            throw StoreError(StoreError::Kind::newer, path + " was written by a newer program and can't be read here (" + e.what() + ").");
        throw sqlite_error(e, path);
    } catch (const FormatError& e) {
        if (newer)
            throw StoreError(StoreError::Kind::newer, path + " was written by a newer program and can't be read here: " + e.what() + ".");
        throw StoreError(StoreError::Kind::damaged, path + " is damaged: " + e.what() + ".");
    } catch (const std::out_of_range&) {
        throw StoreError(StoreError::Kind::damaged, path + " is damaged: a revision is missing.");
    }
}

const Documents& Store::documents() const { return impl_->docs; }
const std::string& Store::path() const { return impl_->path; }
bool Store::read_only() const { return impl_->read_only; }
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
        SQLite::Statement rev(db, "INSERT INTO revision (parent, redo, label, at) VALUES (?, 0, ?, ?)");
        rev.bind(1, static_cast<std::int64_t>(impl_->head));
        rev.bind(2, label);
        rev.bind(3, at);
        rev.exec();
        const std::int64_t id = db.getLastInsertRowid();
        SQLite::Statement change(db, "INSERT INTO change (revision, kind, document, body, digest) VALUES (?, ?, ?, ?, ?)");
        for (const Change& c : list) {
            change.bind(1, static_cast<std::int64_t>(id));
            change.bind(2, c.kind);
            change.bind(3, c.id);
            if (c.body.empty()) change.bind(4);
            else change.bind(4, c.body);
            change.bind(5, digest_of_change(c.kind, c.id, c.body));
            change.exec();
            change.reset();
        }
        impl_->move_head(id);
        tx.commit();
        impl_->revisions[id] = {impl_->head, 0, label, at};
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
    SQLite::Statement q(db, "INSERT INTO attachment (key, bytes, digest) VALUES (?, ?, ?)");
    for (const auto& [key, bytes] : all) {
        const std::string digest = digest_of(bytes);
        taken.bind(1, key);
        const bool there = taken.executeStep();
        const bool same = there && taken.getColumn(0).getString() == digest;
        taken.reset();
        if (there && !same && !again)
            throw StoreError(StoreError::Kind::other, "There is another picture or scan under the name " + key + ". It was kept.");
        if (there) continue;
        q.bind(1, key);
        q.bind(2, bytes.data(), static_cast<int>(bytes.size()));
        q.bind(3, digest);
        q.exec();
        q.reset();
    }
    tx.commit();
}

std::optional<std::string> read_verified(SQLite::Database& db, const std::string& key, const std::string& path) {
    const bool digests = db.execAndGet("PRAGMA user_version").getInt() >= 3;
    SQLite::Statement q(db, digests ? "SELECT bytes, digest FROM attachment WHERE key = ?" : "SELECT bytes FROM attachment WHERE key = ?");
    q.bind(1, key);
    if (!q.executeStep()) return {};
    std::string bytes = q.getColumn(0).getString();
    if (digests && q.getColumn(1).getString() != digest_of(bytes))
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
        SQLite::Database db(path, SQLite::OPEN_READONLY, 5000);
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
        if (impl_->read_only && e.getErrorCode() == SQLITE_ERROR) return {};
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
        SQLite::Statement q(db, "UPDATE revision SET redo = ? WHERE id = ?");
        q.bind(1, static_cast<std::int64_t>(from));
        q.bind(2, static_cast<std::int64_t>(to));
        q.exec();
        impl_->move_head(to);
        tx.commit();
        impl_->revisions.at(to).redo = from;
        impl_->head = to;
        impl_->read_state();
        return false;
    });
}

bool Store::redo() {
    if (!can_redo()) return false;
    return impl_->guarded([&] {
        SQLite::Transaction tx(impl_->db, SQLite::TransactionBehavior::IMMEDIATE);
        if (impl_->catch_up()) return true;
        const std::int64_t to = impl_->revisions.at(impl_->head).redo;
        impl_->move_head(to);
        tx.commit();
        impl_->head = to;
        impl_->read_state();
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
        SQLite::Statement q(impl_->db, "INSERT INTO book (at, job, step, kind, what, value, unit, of_) VALUES (?, ?, ?, ?, ?, ?, ?, ?)");
        int i = 0;
        for (const std::string& v : {e.at.empty() ? now_local() : e.at, e.job, e.step, e.kind, e.what, e.value, e.unit, e.of})
            q.bind(++i, v);
        q.exec();
        tx.commit();
    });
}

std::vector<BookEntry> Store::book() const {
    std::vector<BookEntry> out;
    try {
        if (impl_->db.execAndGet("PRAGMA user_version").getInt() < 3) return out;  // on a disk that can't be written
        SQLite::Statement q(impl_->db, "SELECT id, at, job, step, kind, what, value, unit, of_ FROM book ORDER BY id");
        const auto text = [&](int i) { return q.getColumn(i).getString(); };
        while (q.executeStep())
            out.push_back({q.getColumn(0).getInt64(), text(1), text(2), text(3), text(4), text(5), text(6), text(7), text(8)});
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, impl_->path);
    }
    return out;
}

void Store::limit_pages(int pages) { impl_->db.exec(fmt::format("PRAGMA max_page_count = {}", pages)); }

}  // namespace yb
