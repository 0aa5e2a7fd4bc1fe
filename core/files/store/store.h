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

#include "core/ground/file/format_error.h"
#include "core/shop/book/book.h"

namespace yb {

struct Documents;

/// A shop file that can't be opened or written. `kind` tells what can be done about it.
class StoreError : public Told {
  public:
    enum class Kind {
        missing,        ///< there is no such file
        not_a_shop,     ///< some other file, a folder, a device: left untouched
        newer,          ///< written by a newer program
        damaged,        ///< does not fit its checksums: left untouched; see newest_backup() and repair_shop()
        full,           ///< the disk is full
        read_only,      ///< file or folder can't be written
        no_permission,  ///< it can't even be read
        busy,           ///< another program holds it
        gone,           ///< taken away while it was open: nothing was written
        replaced,       ///< another file stands in its place, or was laid over it, while it was open: nothing was written
        stray_journal,  ///< beside it lies the journal of another file: left untouched; see set_journal_aside()
        unwritable,     ///< what was to be kept can't be written down: it will never be
        other
    };
    StoreError(Kind kind, const std::string& what) : Told(what), kind_(kind) {}
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

    /// Opens a shop file. Every revision and everything that is read is verified against its checksum; the rest is for
    /// check_shop(), beside the work. An older file is looked through whole and backed up before it is brought up to date.
    /// Where file or folder can't be written or the disk is full the shop opens for reading only, see why_read_only().
    /// Triggers and views that somebody put into the file never run.
    /// @throws StoreError; the file is never changed by a failure.
    static Store open(const std::string& path);

    Store(Store&&) noexcept;
    Store& operator=(Store&&) noexcept;
    ~Store();

    const Documents& documents() const;
    const std::string& path() const;
    bool read_only() const;
    /// A sentence for the maker; empty where it can be written.
    const std::string& why_read_only() const;
    /// Written by a newer program: open for reading only, what is not known here is kept as it is.
    bool newer() const;

    /// Appends a revision that makes `next` the state; only documents that differ are written. A no-op when
    /// nothing differs. Where another program wrote meanwhile, what became of the state here and there is brought together
    /// (merge.h) on top of what it wrote. @returns true then: documents() holds more than `next`.
    /// @throws StoreError and leaves state and file as they were.
    bool append(const std::string& label, const Documents& next);

    /// True when another program has changed the file since this one looked. The path is asked again: a file that was taken away, replaced
    /// or laid over is told, here and before anything is written. @throws StoreError.
    bool changed_beside() const;
    /// Looks at the file anew where another program changed it. @returns whether it had. @throws StoreError.
    bool catch_up();

    /// Keeps bytes (a picture, a point cloud) under a key for ever: documents name attachments by key, and what an earlier
    /// revision names stays what it was. New ones are named by their own hash (attachment_key()). The same bytes again are
    /// no error. @throws StoreError, also for other bytes under a key that is taken.
    void attach(const std::string& key, const std::string& bytes);
    using Attachments = std::vector<std::pair<std::string, std::string>>;
    /// Several in one transaction: all of them or none. @throws StoreError.
    void attach(const Attachments& all);
    /// Bytes kept under a key, on a connection of its own, from any thread. @throws StoreError, also where their hash does
    /// not fit.
    static std::optional<std::string> read_attachment(const std::string& path, const std::string& key);
    /// The file that is open, for writing beside it from any thread.
    class Beside {
        friend class Store;
        struct File;
        std::shared_ptr<File> file_;
    };
    Beside beside() const;
    /// Writes on a connection of its own, from any thread, for what can be made again: not flushed to the disk at once.
    /// @throws StoreError, also where something happened to the file that its store has not looked at yet.
    static void attach_beside(const Beside& file, const Attachments& all);
    /// The bytes kept under a key, or nothing. @throws StoreError, also where their hash does not fit.
    std::optional<std::string> attachment(const std::string& key) const;
    bool has_attachment(const std::string& key) const;

    bool can_undo() const;
    bool can_redo() const;
    /// Labels of what undo and redo would do; empty where they can't.
    std::string undo_label() const;
    std::string redo_label() const;
    /// @throws StoreError when the head can't be written. No-ops where they can't; where another program changed the file
    /// meanwhile they only catch up, so that nobody takes back what he has not seen. @returns true for that.
    bool undo();
    bool redo();

    /// Gives the journal beside a shop file a name of its own, under which nothing reads it. @returns the name. @throws StoreError.
    static std::string set_journal_aside(const std::string& path);
    /// Puts a backup in a shop's place: what stood there is kept beside it under a name of its own with its journal, and is not opened.
    /// Nothing may have it open. @returns that name; empty where nothing stood there. @throws StoreError, with everything as it was.
    static std::string restore_backup(const std::string& path, const std::string& backup);

    /// Revisions from the root to the head.
    std::vector<RevisionInfo> history() const;

    /// Writes the whole file, history and all, to another path. @throws StoreError when it exists or fails.
    void save_copy(const std::string& path) const;

    /// Writes into the book: what happened, which no undo takes back. `at` is now where it is empty. @throws StoreError.
    void write(BookEntry entry);
    /// Several in one transaction, in their order.
    void write(const std::vector<BookEntry>& entries);
    /// The book, oldest first. @param after lines with a greater id alone. @throws StoreError.
    std::vector<BookEntry> book(std::int64_t after = 0) const;

    /// For tests of a full disk: the most pages the file may grow to.
    void limit_pages(int pages);

  private:
    struct Impl;
    struct Standing;
    explicit Store(std::unique_ptr<Impl> impl);
    static void bring_up_to_date(Impl& impl);
    std::unique_ptr<Impl> impl_;
};

}  // namespace yb
