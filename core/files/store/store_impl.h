// What a store holds open: its file, the revisions in it, the documents they come to. Used by store*.cpp only.
#pragma once

#include <chrono>
#include <cstdint>
#include <memory>
#include <string>
#include <unordered_map>
#include <utility>
#include <vector>

#include <SQLiteCpp/SQLiteCpp.h>

#include "core/files/store/schema.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"

namespace yb {

/// Now, as the book keeps it.
inline std::string now_local() { return local_time(std::chrono::duration_cast<std::chrono::seconds>(std::chrono::system_clock::now().time_since_epoch()).count()); }

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
    void load();

    /// Inside a transaction: reads the file anew where another program moved its head.
    bool catch_up() {
        if (head_in_file() == head) return false;
        load();
        return true;
    }

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

}  // namespace yb
