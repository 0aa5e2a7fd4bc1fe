#include "core/files/store/check.h"

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <map>
#include <mutex>
#include <set>

#include <fmt/chrono.h>
#include <fmt/format.h>
#include <unistd.h>

#include "core/files/store/beside.h"
#include "core/files/store/schema.h"
#include "core/ground/file/digest.h"
#include "core/ground/file/format_error.h"
#include "core/ground/file/text.h"
#include "core/shop/job/documents.h"

namespace yb {

namespace fs = std::filesystem;

namespace {

/// More than this many of one kind are counted, not listed.
constexpr std::size_t most_told = 20;

class Looker {
  public:
    Looker(const std::string& path, CheckReport& report, const Work& work) : path_(path), r_(report), work_(work) {}

    /// Tables, revisions, documents, attachments and the book.
    void look(SQLite::Database& db) {
        const FileHeader header = read_header(db);
        r_.version = header.version;
        if (header.application != application_id) return problem("it is not a shop file");
        if (r_.version < 1) return problem(fmt::format("it says it is of version {}, which never was", r_.version));
        if (r_.version > schema_version) return;  // how that one keeps its rows is not known here
        if (r_.version == schema_version) tables(db);
        const Skeleton s = read_skeleton(db, r_.version);
        for (const std::string& p : s.problems) broken(p);
        r_.remarks = s.remarks;
        r_.remarks.insert(r_.remarks.end(), foreign_.begin(), foreign_.end());
        r_.revisions = static_cast<std::int64_t>(s.revisions.size());
        bodies(db, s);
        if (r_.version >= 2) attachments(db);
        if (r_.version == schema_version) book(db);
    }

    /// Every page, on a connection of its own: beside the rows.
    void look_at_pages(SQLite::Database& db) {
        SQLite::Statement integrity(db, fmt::format("PRAGMA integrity_check({})", most_told));
        while (integrity.executeStep())
            if (const std::string s = integrity.getColumn(0).getString(); s != "ok") broken(s);
        work_.check();
    }

    /// A problem of what holds the file together.
    void broken(std::string text) {
        {
            const std::lock_guard lock(mutex_);
            r_.hangs_together = false;
        }
        problem(std::move(text));
    }

    void problem(std::string text) {
        const std::lock_guard lock(mutex_);
        if (++found_ <= most_told) r_.problems.push_back(std::move(text));
        else if (found_ == most_told + 1) r_.problems.emplace_back("there is more of it");
    }

  private:
    void tables(SQLite::Database& db) {
        std::set<std::string> have;
        const auto& ours = table_statements();
        SQLite::Statement q(db, "SELECT sql, type, name FROM sqlite_master WHERE sql IS NOT NULL");
        while (q.executeStep()) {
            const std::string sql = q.getColumn(0).getString();
            if (std::find(ours.begin(), ours.end(), sql) == ours.end())
                foreign_.push_back(fmt::format("the {} ‘{}’ is not one of ours; it never runs and is left as it is",
                                               q.getColumn(1).getString(), plain_text(q.getColumn(2).getString())));
            have.insert(sql);
        }
        for (const std::string& wanted : table_statements())
            if (!have.count(wanted)) broken("a table is missing or altered: it should be made by " + wanted.substr(0, wanted.find(" (")));
    }

    /// Every document of every revision: in handfuls, over the cores, so that a book of many years fits in memory.
    void bodies(SQLite::Database& db, const Skeleton& s) {
        const char* columns = r_.version >= 3 ? "SELECT revision, kind, document, digest, body FROM change ORDER BY id"
                                              : "SELECT revision, kind, document, '', body FROM change ORDER BY id";
        struct Row {
            ChangeRow change;
            std::string body;
        };
        std::vector<Row> handful;
        std::set<std::string> slabs, jobs;
        double done = 0;
        const auto all = static_cast<double>(std::max<std::size_t>(1, s.changes.size()));
        const auto look = [&] {
            in_parallel(
                handful.size(), [&](std::size_t i) { one_body(handful[i].change, handful[i].body); }, Work{{}, work_.stop, work_.threads});
            done += static_cast<double>(handful.size());
            work_.tell(0.5 * std::min(1.0, done / all));
            handful.clear();
        };
        SQLite::Statement q(db, columns);
        while (q.executeStep()) {
            const auto body = q.getColumn(4);
            handful.push_back(
                {{0, q.getColumn(0).getInt64(), q.getColumn(1).getString(), q.getColumn(2).getString(), q.getColumn(3).getString()},
                 body.isNull() ? "" : body.getString()});
            const ChangeRow& c = handful.back().change;
            if (c.kind == "slab") slabs.insert(c.document);
            if (c.kind == "job") jobs.insert(c.document);
            if (handful.size() >= 256) look();
        }
        look();
        r_.slabs = slabs.size();
        r_.jobs = jobs.size();
    }

    void one_body(const ChangeRow& c, const std::string& body) {
        const std::string which = fmt::format("{} of revision {}", document_in_words(c.kind, c.document), c.revision);
        if (!change_fits(r_.version, c, body)) return problem(which + " does not fit its checksum");
        if (body.empty()) return;
        Documents one;
        try {
            apply_document(one, c.kind, c.document, body);
        } catch (const std::exception& e) {
            return problem(which + " can't be read: " + sentence_of(e));
        }
        const std::lock_guard lock(mutex_);
        for (const auto& [id, slab] : one.slabs)
            for (const std::string& key : attachments_named(slab)) named_[key] = id;
    }

    /// Read and verified over the cores, each handful on a connection of its own: attachments are only ever added.
    void attachments(SQLite::Database& db) {
        std::vector<std::int64_t> rows;
        std::set<std::string> there;
        {
            SQLite::Statement q(db, "SELECT rowid, key FROM attachment");
            while (q.executeStep()) {
                rows.push_back(q.getColumn(0).getInt64());
                there.insert(q.getColumn(1).getString());
            }
        }
        r_.attachments = rows.size();
        constexpr std::size_t handful = 8;
        if (r_.version >= 3)
            in_parallel((rows.size() + handful - 1) / handful,
                        [&](std::size_t h) {
                            SQLite::Database own = open_to_read(path_);
                            SQLite::Statement q(own, "SELECT key, digest, bytes FROM attachment WHERE rowid = ?");
                            for (std::size_t i = h * handful; i < std::min(rows.size(), (h + 1) * handful); ++i) {
                                work_.check();
                                q.bind(1, rows[i]);
                                if (!q.executeStep() || !fits(q))
                                    problem("the picture or scan " + q.getColumn(0).getString() + " does not fit its checksum");
                                q.reset();
                            }
                        },
                        work_.part(0.5, 1));
        for (const auto& [key, slab] : named_)
            if (is_content_key(key) && !there.count(key))
                r_.remarks.push_back("slab ‘" + slab + "’ names a picture or scan that is not in the file: " + key);
    }

    bool fits(SQLite::Statement& attachment) const {
        const auto blob = attachment.getColumn(2);
        return attachment_fits(r_.version, attachment.getColumn(0).getString(), attachment.getColumn(1).getString(),
                               {static_cast<const char*>(blob.getBlob()), static_cast<std::size_t>(blob.getBytes())});
    }

    void book(SQLite::Database& db) {
        std::string before;
        SQLite::Statement q(db, fmt::format("SELECT {}, digest FROM book ORDER BY id", entry_columns));
        while (q.executeStep()) {
            ++r_.entries;
            const BookEntry e = entry_at(q);
            const std::string digest = q.getColumn(9).getString();
            if (digest != seal_of_entry(before, e))
                problem(fmt::format("entry {} of the book, or one before it, does not fit its checksum", e.id));
            before = digest;
        }
    }

    const std::string& path_;
    CheckReport& r_;
    const Work& work_;
    std::mutex mutex_;
    std::size_t found_ = 0;
    std::vector<std::string> foreign_;          ///< triggers, views, tables that somebody put into the file
    std::map<std::string, std::string> named_;  ///< pictures and scans, and a slab that names each
};

}  // namespace

CheckReport check_shop(const std::string& path, const Work& work) {
    look_at_path(path);
    CheckReport r;
    r.hangs_together = true;
    Looker looker(path, r, work);
    in_parallel(
        2,
        [&](std::size_t part) {
            try {
                SQLite::Database db = open_to_read(path);
                SQLite::Transaction tx(db);  // one moment of the file
                part == 0 ? looker.look_at_pages(db) : looker.look(db);
            } catch (const SQLite::Exception&) {
                looker.broken("its pages can't be read to their end");
            }
        },
        Work{{}, work.stop, work.threads});
    r.ok = r.problems.empty();
    return r;
}

std::string backup_folder(const std::string& path) { return path + ".backups"; }

std::vector<std::string> backups_of(const std::string& path) {
    std::vector<std::string> all;
    std::error_code e;
    for (const auto& entry : fs::directory_iterator(backup_folder(path), e))
        if (entry.path().extension() == ".shop") all.push_back(entry.path().string());
    std::sort(all.rbegin(), all.rend());
    return all;
}

namespace {
bool whole(const std::string& path, const Work& work) {
    try {
        return check_shop(path, work).ok;
    } catch (const StoreError&) {
        return false;
    }
}
}  // namespace

std::optional<std::string> newest_backup(const std::string& path) {
    for (const std::string& p : backups_of(path))
        if (whole(p, {})) return p;
    return {};
}

bool backup_once_a_day(const std::string& path, const Work& work) {
    const fs::path folder = backup_folder(path);
    const std::string today = fmt::format("{:%F}", fmt::localtime(std::chrono::system_clock::to_time_t(std::chrono::system_clock::now())));
    const fs::path target = folder / (today + ".shop");
    std::error_code e;
    if (fs::exists(target, e)) return true;
    if (fs::create_directories(folder, e)) fs::permissions(folder, fs::perms::owner_all, e);
    if (e) return false;
    // A name of its own: another program may make today's backup at the same moment.
    const fs::path part =
        folder / fmt::format("{}.{}-{}.part", today, ::getpid(), std::chrono::steady_clock::now().time_since_epoch().count());
    try {
        make_own_file(part.string());
        {
            // Only read: another file may have come into its place a moment ago, beside a journal that is not its own.
            SQLite::Database db = open_to_read(path);
            SQLite::Statement q(db, "VACUUM INTO ?");
            q.bind(1, part.string());
            q.exec();
        }
        work.check();
        // One that would not open is none: the older ones stay, and it is tried again at the next opening.
        if (!whole(part.string(), work)) {
            fs::remove(part, e);
            return false;
        }
        fs::rename(part, target);
    } catch (const Cancelled&) {
        fs::remove(part, e);
        throw;
    } catch (const std::exception&) {  // a full disk, a folder taken away
        fs::remove(part, e);
        return false;
    }
    for (const auto& entry : fs::directory_iterator(folder, e))  // what a program left half-made on an earlier day
        if (entry.path().extension() == ".part" && entry.path().filename().string().rfind(today, 0) != 0) fs::remove(entry.path(), e);
    const std::vector<std::string> all = backups_of(path);
    for (std::size_t i = 14; i < all.size(); ++i)
        if (all[i] != target) fs::remove(all[i], e);  // a clock set back makes today's the oldest
    return true;
}

}  // namespace yb
