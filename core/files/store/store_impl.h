// What a store holds open: its file, the revisions in it, the documents they come to. Used by store*.cpp only.
#pragma once

#include <chrono>
#include <cstdint>
#include <memory>
#include <mutex>
#include <new>
#include <string>
#include <type_traits>
#include <unordered_map>
#include <utility>
#include <vector>

#include <SQLiteCpp/SQLiteCpp.h>

#include "core/files/store/beside.h"
#include "core/files/store/schema.h"
#include "core/files/store/store.h"
#include "core/ground/file/format_error.h"
#include "core/shop/job/documents.h"

namespace yb {

/// Now, as the book keeps it.
inline std::string now_local() {
    return local_time(std::chrono::duration_cast<std::chrono::seconds>(std::chrono::system_clock::now().time_since_epoch()).count());
}

/// What is known of a file, for all threads that write into it.
struct Store::Beside::File {
    explicit File(std::string p) : path(std::move(p)), seen_(stamp_of(path)) {}
    const std::string path;
    FileStamp seen() const {
        const std::lock_guard lock(mutex_);
        return seen_;
    }
    void saw(const FileStamp& stamp) {
        const std::lock_guard lock(mutex_);
        seen_ = stamp;
    }

  private:
    mutable std::mutex mutex_;
    FileStamp seen_;
};

struct Store::Impl {
    std::string path;
    bool newer = false;
    SQLite::Database db;
    Documents docs;
    std::int64_t head = 0;
    std::unordered_map<std::int64_t, RevisionRow> revisions;
    std::string why_read_only;

    std::shared_ptr<Beside::File> file;  ///< as this one last saw or left it

    Impl(SQLite::Database opened, std::string p) : path(std::move(p)), db(std::move(opened)), file(std::make_shared<Beside::File>(path)) {}

    /// Asks the path again. @throws StoreError(gone, replaced).
    void look_at_file();

    /// Reads what the file stands at, everything that is read against its checksum. @throws StoreError(damaged), FormatError.
    void load();

    /// Inside a transaction: reads the file anew where another program moved its head.
    bool catch_up() {
        if (head_in_file() == head) return false;
        take_later();
        return true;
    }
    /// load(), of what another program made of this file. @throws StoreError(replaced), with all as it was, where a revision that stood
    /// in it no longer does: revisions are only ever added.
    void take_later();

    /// Inside a transaction, which it commits: undo and redo, to the revision before or behind. Only what differs is read.
    void stand_at(std::int64_t to, SQLite::Transaction& tx);

    std::int64_t head_in_file() { return db.execAndGet("SELECT revision FROM head").getInt64(); }

    struct Stored {
        std::string kind, id, body;
    };
    /// Reading the bodies takes most of the time of opening: done over the cores, a handful at a time.
    static Documents read_all(const std::vector<Stored>& stored);

    template <class F>
    auto guarded(F f) {
        if (newer)
            throw StoreError(StoreError::Kind::newer, path + " was written by a newer program: it can be looked at here, not changed.");
        if (!why_read_only.empty()) throw StoreError(StoreError::Kind::read_only, why_read_only);
        try {
            look_at_file();
            if constexpr (std::is_void_v<decltype(f())>) {
                f();
                file->saw(stamp_of(path));
            } else {
                auto made = f();
                file->saw(stamp_of(path));
                return made;
            }
        } catch (const SQLite::Exception& e) {
            throw sqlite_error(e, path);
        } catch (const FormatError& e) {
            throw StoreError(StoreError::Kind::damaged, path + ": what another program wrote can't be read: " + e.what() + ".");
        } catch (const std::bad_alloc&) {
            throw StoreError(StoreError::Kind::other,
                             "There was no memory left to write " + path + ". Close other programs and try again.");
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

}  // namespace yb
