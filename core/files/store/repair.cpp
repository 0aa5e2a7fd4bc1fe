// What is whole of a damaged shop file, into a new one.
#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <limits>
#include <map>
#include <set>

#include <fmt/format.h>

#include "core/files/store/beside.h"
#include "core/files/store/check.h"
#include "core/files/store/pages.h"
#include "core/files/store/schema.h"
#include "core/ground/file/digest.h"
#include "core/ground/file/format_error.h"
#include "core/shop/job/documents.h"

namespace yb {

namespace fs = std::filesystem;

namespace {

struct Change {
    ChangeRow row;
    std::string body;
};

/// The rows of a table that its tree leads to: from the first on until one can't be read, then from the last back.
/// @param one called with the statement at every row; the row's id is its first column.
/// @returns whether all of them could be read.
template <class F>
bool rows_of(SQLite::Database& db, const std::string& columns, const std::string& table, const Work& work, F one) {
    std::int64_t last = std::numeric_limits<std::int64_t>::min();
    const auto walk = [&](const char* order, bool back) {
        try {
            SQLite::Statement q(db, fmt::format("SELECT {} FROM {} ORDER BY rowid {}", columns, table, order));
            while (q.executeStep()) {
                work.check();
                const std::int64_t id = q.getColumn(0).getInt64();
                if (back && id <= last) return true;
                if (!back && id <= last) return false;  // a damaged order leads round
                one(q);
                if (!back) last = id;
            }
            return true;
        } catch (const SQLite::Exception&) {
            return false;
        }
    };
    if (walk("", false)) return true;
    walk("DESC", true);
    return false;
}

/// By the tables there are: what the file says of its version may be what is damaged.
int version_of_tables(SQLite::Database& db) {
    const auto has = [&](const char* table, const char* text) {
        SQLite::Statement q(db, "SELECT sql FROM sqlite_master WHERE name = ?");
        q.bind(1, table);
        return q.executeStep() && q.getColumn(0).getString().find(text) != std::string::npos;
    };
    return has("head", "digest") ? 4 : has("book", "of_") ? 3 : has("attachment", "bytes") ? 2 : 1;
}

class Mender {
  public:
    Mender(const std::string& path, const Work& work) : path_(path), work_(work) {}

    void read() {
        SQLite::Database db = open_to_read(path_);
        db.exec("PRAGMA writable_schema = ON");  // lets pages be read of a file that was cut short; it is read only
        version_ = version_of_tables(db);
        read_changes(db);
        work_.tell(0.3);
        read_revisions(db);
        read_head(db);
        if (version_ >= 3) read_book(db);
        if (broken_ && version_ == schema_version) read_pages();
        join_revisions();
        choose_head();
        judge_book();
        if (changes_.empty() || revisions_.empty())
            throw StoreError(StoreError::Kind::damaged, "Nothing in " + path_ + " can be read any more. It was left as it is.");
    }

    /// Attachments are handed over one by one: a shop's pictures need not fit in memory.
    void write(SQLite::Database& out) {
        SQLite::Transaction tx(out);
        std::map<std::int64_t, std::string> seals;
        for (const auto& [id, change] : changes_)
            seals[change.row.revision] += seal_of_change(change.row.revision, change.row.kind, change.row.document, change.body);
        for (auto& [id, row] : revisions_) {
            row.changes = seal_of_changes(seals[id]);
            write_revision(out, id, row);
        }
        for (const auto& [id, change] : changes_) write_change(out, change.row, change.body);
        write_head(out, head_);
        for (const auto& [id, sealed] : book_) write_entry(out, sealed.entry);
        made_.revisions = static_cast<std::int64_t>(revisions_.size());
        made_.changes = static_cast<std::int64_t>(changes_.size());
        made_.entries = book_.size();
        work_.tell(0.5);
        if (version_ >= 2) copy_attachments(out);
        tx.commit();
    }

    Repair told() {
        tell_gaps();
        if (broken_ && made_.lost.empty()) lost("some pages can't be read; what stood on them is not known to be missing");
        return std::move(made_);
    }

  private:
    void lost(std::string text) { made_.lost.push_back(std::move(text)); }

    void read_changes(SQLite::Database& db) {
        const char* columns = version_ >= 3 ? "id, revision, kind, document, digest, body" : "id, revision, kind, document, '', body";
        broken_ |= !rows_of(db, columns, "change", work_, [&](SQLite::Statement& q) {
            take_change({q.getColumn(0).getInt64(), q.getColumn(1).getInt64(), q.getColumn(2).getString(), q.getColumn(3).getString(),
                         q.getColumn(4).getString()},
                        q.getColumn(5).isNull() ? "" : q.getColumn(5).getString());
        });
    }

    void take_change(ChangeRow row, std::string body) {
        const std::int64_t id = row.id;
        if (changes_.count(id) || unreadable_.count(id)) return;
        if (!change_fits(version_, row, body)) {
            bad_changes_[id] = std::move(row);
            return;
        }
        Documents one;
        try {
            apply_document(one, row.kind, row.document, body);
        } catch (const FormatError& e) {
            if (!body.empty()) {
                lost(fmt::format("{} of revision {} fits its checksum and can't be read: {}", document_in_words(row.kind, row.document),
                                 row.revision, e.what()));
                unreadable_.insert(id);
                return;
            }
        }
        for (const auto& [slab_id, slab] : one.slabs)
            for (const std::string& key : attachments_named(slab)) named_[key] = slab_id;
        changes_.emplace(id, Change{std::move(row), std::move(body)});
    }

    /// What the trees no longer lead to and still stands on its page: only rows that fit their checksums are taken.
    void read_pages() {
        for_rows_on_pages(path_, [&](std::int64_t id, const RawRow& r) {
            const auto number = [](const std::string& s) { return static_cast<std::int64_t>(std::strtoll(s.c_str(), nullptr, 10)); };
            if (r.size() == 6 && r[4] == seal_of_change(number(r[1]), r[2], r[3], r[5])) {
                take_change({id, number(r[1]), r[2], r[3], r[4]}, r[5]);
            } else if (r.size() == 7 && r[6] == seal_of_revision(id, number(r[1]), number(r[2]), r[3], r[4], r[5])) {
                if (id > 0 && number(r[1]) < id) revisions_.try_emplace(id, RevisionRow{number(r[1]), number(r[2]), r[3], r[4], r[5]});
            } else if (r.size() == 10) {
                book_.try_emplace(id, SealedEntry{{id, r[1], r[2], r[3], r[4], r[5], r[6], r[7], r[8]}, r[9]});
            } else if (r.size() == 3 && number(r[0]) == 1 && r[2] == seal_of_head(number(r[1]))) {
                // Pages that were let go keep older ones: none of them stands above the table's own.
                if (!head_read_ && number(r[1]) > head_) head_ = number(r[1]);
            }
        });
    }

    void read_revisions(SQLite::Database& db) {
        const bool sealed = version_ == schema_version;
        broken_ |= !rows_of(
            db, sealed ? "id, parent, redo, label, at, changes, digest" : "id, parent, redo, label, at, '', ''", "revision", work_,
            [&](SQLite::Statement& q) {
                const std::int64_t id = q.getColumn(0).getInt64();
                RevisionRow row{q.getColumn(1).getInt64(), q.getColumn(2).getInt64(), q.getColumn(3).getString(),
                                q.getColumn(4).getString(), q.getColumn(5).getString()};
                if (id <= 0 || row.parent >= id) return;
                if (sealed && q.getColumn(6).getString() != seal_of_revision(id, row.parent, row.redo, row.label, row.at, row.changes))
                    return;
                revisions_.emplace(id, std::move(row));
            });
    }

    /// Revisions that are lost are made up from their changes and follow the one before them.
    void join_revisions() {
        for (const auto& [change, c] : changes_) {
            const std::int64_t id = c.row.revision;
            if (id <= 0 || revisions_.count(id)) continue;
            revisions_[id] = {before(id), 0, "Repaired", "", ""};
            lost(fmt::format("the label and time of revision {}; its changes are kept behind the revision before it", id));
        }
        std::erase_if(changes_, [&](const auto& c) { return !revisions_.count(c.second.row.revision); });
        for (auto& [id, row] : revisions_) {
            if (row.parent != 0 && !revisions_.count(row.parent)) {
                lost(fmt::format("revision {}; the one after it ({}) hangs on the one before it", row.parent, id));
                row.parent = before(id);
            }
            const auto to = revisions_.find(row.redo);
            if (row.redo != 0 && (to == revisions_.end() || to->second.parent != id)) row.redo = 0;
        }
    }

    std::int64_t before(std::int64_t id) const {
        const auto it = revisions_.lower_bound(id);
        return it == revisions_.begin() ? 0 : std::prev(it)->first;
    }

    void read_head(SQLite::Database& db) {
        head_ = 0;
        try {
            SQLite::Statement q(db, version_ == schema_version ? "SELECT revision, digest FROM head" : "SELECT revision, '' FROM head");
            if (q.executeStep() && (version_ < schema_version || q.getColumn(1).getString() == seal_of_head(q.getColumn(0).getInt64())))
                head_ = q.getColumn(0).getInt64(), head_read_ = true;
        } catch (const SQLite::Exception&) {
            broken_ = true;
        }
    }

    void choose_head() {
        if (revisions_.empty()) return;
        if (revisions_.count(head_)) {
            if (!head_read_)
                lost(fmt::format("where the shop stood; a page that may be older tells revision {}, the newest that is left is {}", head_,
                                 revisions_.rbegin()->first));
            return;
        }
        head_ = revisions_.rbegin()->first;
        lost(fmt::format("where the shop stood; the newest revision that is left ({}) is taken", head_));
    }

    void read_book(SQLite::Database& db) {
        const std::string columns = std::string(entry_columns) + (version_ == schema_version ? ", digest" : ", ''");
        broken_ |= !rows_of(db, columns, "book", work_, [&](SQLite::Statement& q) {
            const BookEntry e = entry_at(q);
            book_[e.id] = {e, q.getColumn(9).getString()};
        });
    }

    /// An entry is sealed over the one before it: behind a lost one it can't be verified; it is kept, and told.
    void judge_book() {
        std::string previous;
        std::int64_t last = 0;
        for (const auto& [id, sealed] : book_) {
            const bool chained = version_ < schema_version || sealed.digest == seal_of_entry(previous, sealed.entry);
            if (id != last + 1) lost(fmt::format("entries {} to {} of the book", last + 1, id - 1));
            else if (!chained)
                lost(
                    fmt::format("entry {} of the book, or the one before it, does not fit its checksum; it is kept as it can be read: ‘{}’",
                                id, sealed.entry.what));
            previous = sealed.digest;
            last = id;
        }
    }

    void copy_attachments(SQLite::Database& out) {
        SQLite::Database db = open_to_read(path_);
        db.exec("PRAGMA writable_schema = ON");
        const auto take = [&](const std::string& key, const std::string& digest, const std::string& bytes) {
            if (copied_.count(key)) return;
            if (!attachment_fits(version_, key, digest, bytes)) {
                bad_keys_.insert(key);
                return;
            }
            write_attachment(out, key, bytes);
            copied_.insert(key);
        };
        const bool all = rows_of(
            db, version_ >= 3 ? "rowid, key, digest, bytes" : "rowid, key, '', bytes", "attachment", work_,
            [&](SQLite::Statement& q) { take(q.getColumn(1).getString(), q.getColumn(2).getString(), q.getColumn(3).getString()); });
        if (!all && version_ == schema_version)
            for_rows_on_pages(path_, [&](std::int64_t, const RawRow& r) {
                if (r.size() == 3 && r[1] == seal_of_attachment(r[0], r[2])) take(r[0], r[1], r[2]);
            });
        broken_ |= !all;
        made_.attachments = copied_.size();
    }

    /// What is missing between what is kept, and which backup has it.
    void tell_gaps() {
        std::map<std::int64_t, std::string> changes;  // missing, in words
        const std::int64_t last =
            std::max(changes_.empty() ? 0 : changes_.rbegin()->first, bad_changes_.empty() ? 0 : bad_changes_.rbegin()->first);
        for (std::int64_t id = 1; id <= last; ++id) {
            if (changes_.count(id) || unreadable_.count(id)) continue;
            const auto bad = bad_changes_.find(id);
            changes[id] =
                bad == bad_changes_.end()
                    ? fmt::format("change {}", id)
                    : fmt::format("{} of revision {}", document_in_words(bad->second.kind, bad->second.document), bad->second.revision);
        }
        std::map<std::string, std::string> pictures;
        for (const std::string& key : bad_keys_)
            if (!copied_.count(key)) pictures[key] = "the picture or scan " + key;
        for (const auto& [key, slab] : named_)  // others than those named by their content can be made again
            if (pictures.count(key) || (!copied_.count(key) && is_content_key(key)))
                pictures[key] = "the picture or scan " + key + " of slab ‘" + slab + "’";
        const auto say = [&](const std::string& what, const std::string& backup) {
            lost(what + (backup.empty() ? "; no backup has it" : "; the backup " + fs::path(backup).filename().string() + " has it"));
        };
        for (const std::string& backup : backups_of(path_)) {
            if (changes.empty() && pictures.empty()) break;
            try {
                SQLite::Database db = open_to_read(backup);
                if (read_header(db).version != schema_version) continue;
                for (auto it = changes.begin(); it != changes.end();) {
                    SQLite::Statement q(db, "SELECT revision, kind, document, digest, body FROM change WHERE id = ?");
                    q.bind(1, it->first);
                    const auto text = [&](int i) { return q.getColumn(i).getString(); };
                    if (q.executeStep() && text(3) == seal_of_change(q.getColumn(0).getInt64(), text(1), text(2), text(4))) {
                        say(fmt::format("{} of revision {}", document_in_words(text(1), text(2)), q.getColumn(0).getInt64()), backup);
                        it = changes.erase(it);
                    } else ++it;
                }
                for (auto it = pictures.begin(); it != pictures.end();) {
                    SQLite::Statement q(db, "SELECT digest, bytes FROM attachment WHERE key = ?");
                    q.bind(1, it->first);
                    if (q.executeStep() && q.getColumn(0).getString() == seal_of_attachment(it->first, q.getColumn(1).getString())) {
                        say(it->second, backup);
                        it = pictures.erase(it);
                    } else ++it;
                }
            } catch (const SQLite::Exception&) {  // that one is damaged too: the next
            }
        }
        for (const auto& [id, what] : changes) say(what, "");
        for (const auto& [key, what] : pictures) say(what, "");
    }

    const std::string& path_;
    const Work& work_;
    int version_ = 0;
    std::int64_t head_ = 0;
    bool head_read_ = false;  ///< from its table, and it fits its checksum
    std::map<std::int64_t, Change> changes_;
    std::map<std::int64_t, ChangeRow> bad_changes_;
    std::map<std::int64_t, RevisionRow> revisions_;
    std::set<std::int64_t> unreadable_;
    struct SealedEntry {
        BookEntry entry;
        std::string digest;
    };
    std::map<std::int64_t, SealedEntry> book_;
    bool broken_ = false;  ///< a tree does not lead everywhere
    std::map<std::string, std::string> named_;
    std::set<std::string> copied_, bad_keys_;
    Repair made_;
};

}  // namespace

Repair repair_shop(const std::string& path, const std::string& out, const Work& work) {
    look_at_path(path);
    if (fs::exists(out)) throw StoreError(StoreError::Kind::other, out + " is there already. Choose another name.");
    Mender mender(path, work);
    try {
        mender.read();
    } catch (const SQLite::Exception&) {
        throw StoreError(StoreError::Kind::damaged, "Nothing in " + path + " can be read any more. It was left as it is.");
    }
    try {
        make_own_file(out);
        {
            SQLite::Database db(out, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, 2000);
            create_schema(db);
            mender.write(db);
        }
        Repair made = mender.told();
        if (!made.lost.empty()) return made;
        // Everything was found, and still something was wrong with the file: that is told too.
        try {
            for (const std::string& problem : check_shop(path, work).problems)
                made.lost.push_back("nothing of it that could be read, but in the damaged file: " + problem);
        } catch (const StoreError&) {  // it can't even be opened as a shop: what was read is what there is
            made.lost.emplace_back("nothing of it that could be read, but the damaged file can't be opened as a shop");
        }
        return made;
    } catch (const SQLite::Exception& e) {
        remove_database(out);
        throw sqlite_error(e, out);
    } catch (...) {
        remove_database(out);
        throw;
    }
}

}  // namespace yb
