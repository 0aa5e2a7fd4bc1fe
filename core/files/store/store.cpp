#include "core/files/store/store_impl.h"

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <set>

#include <fmt/chrono.h>
#include <fmt/format.h>
#include <sqlite3.h>
#include <unistd.h>

#include "core/files/io/json.h"
#include "core/files/store/check.h"
#include "core/files/store/merge.h"
#include "core/ground/file/text.h"
#include "core/ground/work/work.h"
#include "core/shop/job/job.h"

namespace yb {

namespace fs = std::filesystem;

namespace {

/// How long another program that writes is waited for.
constexpr int busy_ms = 2000;

std::string now_utc() { return fmt::format("{:%FT%TZ}", std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now())); }

struct Written {
    std::string kind, id, body;  // an empty body: the document is no longer there
};

/// @throws StoreError(unwritable) for text that no file of ours keeps.
template <class Doc>
std::string written(const Doc& doc, const std::string& kind, const std::string& id) {
    try {
        return to_json(doc).dump();
    } catch (const Json::exception&) {
        throw StoreError(StoreError::Kind::unwritable, "Text of " + document_in_words(kind, plain_text(id)) +
                                                           " is not in UTF-8 and can't be kept. Nothing was changed; type it again.");
    }
}

template <class Map>
void compare(const Map& old, const Map& next, const char* kind, std::vector<Written>& out) {
    for (const auto& [id, doc] : next) {
        const auto it = old.find(id);
        if (it == old.end() || !(it->second == doc)) out.push_back({kind, id, written(doc, kind, id)});
    }
    for (const auto& [id, doc] : old)
        if (!next.count(id)) out.push_back({kind, id, ""});
}

std::vector<Written> changes(const Documents& old, const Documents& next) {
    std::vector<Written> out;
    if (!(old.shop == next.shop)) out.push_back({"shop", "shop", written(next.shop, "shop", "shop")});
    compare(old.jobs, next.jobs, "job", out);
    compare(old.slabs, next.slabs, "slab", out);
    return out;
}

StoreError replaced(const std::string& path) {
    return {StoreError::Kind::replaced, "Another file stands in the place of " + path +
                                            ", or was laid over it, while it was open. Nothing typed is lost here, and nothing is written "
                                            "until you save a copy or take what is there."};
}

}  // namespace

void Store::Impl::load() {
    Skeleton s = read_skeleton(db, newer ? 0 : read_header(db).version);
    if (!s.problems.empty()) throw StoreError(StoreError::Kind::damaged, path + " is damaged: " + s.problems.front() + ".");
    head = s.head;
    std::vector<Stored> stored;
    for (const auto& [key, change] : s.newest(head)) stored.push_back({key.first, key.second, read_body(db, *change, path)});
    docs = read_all(stored);
    revisions = std::move(s.revisions);
}

void Store::Impl::take_later() {
    auto revisions_before = revisions;
    const std::int64_t head_before = head;
    Documents docs_before = docs;
    const auto back = [&] { revisions = std::move(revisions_before), head = head_before, docs = std::move(docs_before); };
    try {
        load();
    } catch (...) {
        back();
        throw;
    }
    for (const auto& [id, row] : revisions_before) {
        const auto it = revisions.find(id);
        if (it != revisions.end() && it->second.label == row.label && it->second.at == row.at && it->second.changes == row.changes)
            continue;
        back();
        throw replaced(path);
    }
}

void Store::Impl::look_at_file() {
    const FileStamp now = stamp_of(path);
    const FileStamp seen = file->seen();
    if (now == seen) return;
    if (!now.there())
        throw StoreError(StoreError::Kind::gone, path +
                                                     " was taken away while it was open: moved, renamed or deleted. Nothing typed is lost "
                                                     "here, and nothing is written until you put it back or save a copy.");
    if (!now.same_file(seen) || !file_is_as_read(db, path)) throw replaced(path);
    file->saw(stamp_of(path));
}

void Store::Impl::stand_at(std::int64_t to, SQLite::Transaction& tx) {
    std::set<std::int64_t> on_path;
    for (std::int64_t r = to; r != 0; r = revisions.at(r).parent) on_path.insert(r);
    SQLite::Statement differing(db, "SELECT kind, document FROM change WHERE revision = ?");
    differing.bind(1, std::max(head, to));
    SQLite::Statement older(db, "SELECT id, revision, kind, document, digest FROM change WHERE kind = ? AND document = ? ORDER BY id DESC");
    std::vector<Stored> bodies;
    while (differing.executeStep()) {
        Stored s{differing.getColumn(0).getString(), differing.getColumn(1).getString(), ""};
        older.bind(1, s.kind);
        older.bind(2, s.id);
        while (older.executeStep()) {
            const ChangeRow row{older.getColumn(0).getInt64(), older.getColumn(1).getInt64(), s.kind, s.id, older.getColumn(4).getString()};
            if (!on_path.count(row.revision)) continue;
            s.body = read_body(db, row, path);
            break;
        }
        older.reset();
        bodies.push_back(std::move(s));
    }
    differing.reset();
    Documents part = read_all(bodies);
    Documents then = docs;
    for (const Stored& s : bodies) {
        if (s.kind == "shop") then.shop = part.shop;
        else if (s.body.empty()) apply_document(then, s.kind, s.id, "");
        else if (s.kind == "slab") then.slabs[s.id] = part.slabs.at(s.id);
        else then.jobs[s.id] = part.jobs.at(s.id);
    }
    write_head(db, to);
    for (const BookEntry& e : happened(docs, then, now_local())) write_entry(db, e);
    tx.commit();
    head = to;
    docs = std::move(then);
}

Documents Store::Impl::read_all(const std::vector<Stored>& stored) {
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

namespace {
/// @throws StoreError(stray_journal).
void look_at_journal(const std::string& path) {
    try {
        if (!journal_is_stray(path)) return;
    } catch (const SQLite::Exception&) {
        return;  // what it is tells the one who opens it
    }
    throw StoreError(StoreError::Kind::stray_journal, "Beside " + path + " lies a journal (" + path +
                                                          "-wal) that belongs to another file, as when a copy was laid over a shop. "
                                                          "Nothing was changed: set the journal aside and open it again.");
}
}  // namespace

Store Store::create(const std::string& path, const Documents& first, const std::string& label) {
    look_at_new(path);
    make_own_file(path);
    try {
        auto impl = std::make_unique<Impl>(SQLite::Database(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, busy_ms), path);
        prepare_connection(impl->db);
        create_schema(impl->db);
        Store store(std::move(impl));
        // An empty shop is compared with, so that even a shop of defaults is written.
        store.impl_->docs.shop.name = first.shop.name + " ";
        store.append(label, first);
        store.impl_->file->saw(stamp_of(path));
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
    look_at_journal(path);
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
        impl->file->saw(stamp_of(path));
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
        if (told.kind() == K::other) throw StoreError(K::damaged, path + " is damaged: its tables can't be read. It was left as it is.");
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
            impl_->take_later();
            together = merged(before->docs, next, impl_->docs);
            list = changes(impl_->docs, *together);
            if (list.empty()) return before->kept = true;
        }
        const std::string at = now_utc();
        const std::int64_t id = db.execAndGet("SELECT coalesce(max(id), 0) FROM revision").getInt64() + 1;
        std::string seals;
        for (const Written& c : list) seals += seal_of_change(id, c.kind, c.id, c.body);
        const RevisionRow row{impl_->head, 0, label, at, seal_of_changes(seals)};
        write_revision(db, id, row);
        for (const Written& c : list) write_change(db, {0, id, c.kind, c.id, ""}, c.body);
        write_head(db, id);
        // What happened goes into the book in one breath with it; a shop that is made begins with an empty one.
        if (impl_->head != 0)
            for (const BookEntry& e : happened(impl_->docs, together ? *together : next, now_local())) write_entry(db, e);
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
        impl_->look_at_file();
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
    make_own_file(path);
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

void Store::limit_pages(int pages) { impl_->db.exec(fmt::format("PRAGMA max_page_count = {}", pages)); }

}  // namespace yb
