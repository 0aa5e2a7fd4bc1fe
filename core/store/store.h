// The shop file: one SQLite database, every edit a revision, nothing overwritten.
//
// A revision has a parent, a label and a time, and the documents it changed as JSON. The file's state is
// what the revisions from the root to the head add up to. Undo moves the head to its parent, redo to the
// child it was last moved back from; both hold across restarts. A revision made after an undo starts a new
// branch; the old one stays in the file. Written durably: when append() returns, the revision survives a
// killed program (write-ahead log, synchronous FULL). Layout in docs/formats.md.
#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <stdexcept>
#include <string>
#include <vector>

#include "core/job/job.h"

namespace yb {

/// A shop file that can't be opened or written. `kind` tells what can be done about it.
class StoreError : public std::runtime_error {
  public:
    enum class Kind {
        missing,     ///< there is no such file
        not_a_shop,  ///< some other file: left untouched
        newer,       ///< written by a newer program
        damaged,     ///< fails the integrity check: left untouched; see newest_backup() and salvage()
        full,        ///< the disk is full
        read_only,   ///< file or folder can't be written
        busy,        ///< another program holds it
        other
    };
    StoreError(Kind kind, const std::string& what) : std::runtime_error(what), kind_(kind) {}
    Kind kind() const { return kind_; }

  private:
    Kind kind_;
};

struct RevisionInfo {
    std::int64_t id = 0;
    std::string label;
    std::string at;  ///< UTC, ISO 8601
};

class Store {
  public:
    /// Makes a new shop file. @throws StoreError when the file exists or can't be made.
    static Store create(const std::string& path, const Documents& first, const std::string& label);

    /// Opens a shop file after an integrity check; makes a dated backup beside it, one a day, 14 kept.
    /// When the folder can't be written the shop opens for reading only.
    /// @throws StoreError; the file is never changed by a failure.
    static Store open(const std::string& path);

    Store(Store&&) noexcept;
    Store& operator=(Store&&) noexcept;
    ~Store();

    const Documents& documents() const;
    const std::string& path() const;
    bool read_only() const;

    /// Appends a revision that makes `next` the state; only documents that differ are written. A no-op when
    /// nothing differs. @throws StoreError and leaves state and file as they were.
    void append(const std::string& label, const Documents& next);

    /// Keeps bytes (a picture, a point cloud) under a key; the same key again replaces them. Documents name
    /// attachments by key; undo leaves them. @throws StoreError.
    void attach(const std::string& key, const std::string& bytes);
    using Attachments = std::vector<std::pair<std::string, std::string>>;
    /// Several in one transaction: all of them or none. @throws StoreError.
    void attach(const Attachments& all);
    /// Bytes kept under a key, on a connection of its own, from any thread. @throws StoreError.
    static std::optional<std::string> read_attachment(const std::string& path, const std::string& key);
    /// Writes on a connection of its own, from any thread, for what can be made again: not flushed to the disk at once.
    /// @throws StoreError.
    static void attach_beside(const std::string& path, const Attachments& all);
    /// The bytes kept under a key, or nothing. @throws StoreError.
    std::optional<std::string> attachment(const std::string& key) const;
    bool has_attachment(const std::string& key) const;

    bool can_undo() const;
    bool can_redo() const;
    /// Labels of what undo and redo would do; empty where they can't.
    std::string undo_label() const;
    std::string redo_label() const;
    /// @throws StoreError when the head can't be written. No-ops where they can't.
    void undo();
    void redo();

    /// Revisions from the root to the head.
    std::vector<RevisionInfo> history() const;

    /// Writes the whole file, history and all, to another path. @throws StoreError when it exists or fails.
    void save_copy(const std::string& path) const;

    /// For tests of a full disk: the most pages the file may grow to.
    void limit_pages(int pages);

  private:
    struct Impl;
    explicit Store(std::unique_ptr<Impl> impl);
    std::unique_ptr<Impl> impl_;
};

/// The findings of an integrity check, for `burl check` and for opening.
struct CheckReport {
    bool ok = false;
    std::vector<std::string> problems;
    std::int64_t revisions = 0;
    std::size_t slabs = 0, jobs = 0;
};
/// Looks a shop file through without changing it. @throws StoreError(missing) only.
CheckReport check_shop(const std::string& path);

/// The newest backup of a shop file that passes the check.
std::optional<std::string> newest_backup(const std::string& path);

/// What can still be read of a damaged file: the last good version of each document. Reads only.
struct Salvage {
    Documents documents;
    std::vector<std::string> lost;  ///< what could not be read, in words
};
Salvage salvage(const std::string& path);

/// The folder of dated backups beside a shop file.
std::string backup_folder(const std::string& path);

}  // namespace yb
