// The tables of a shop file, their versions, and the checksums of their rows. Used by the store only.
#pragma once

#include <cstdint>
#include <map>
#include <string>
#include <string_view>
#include <unordered_map>
#include <utility>
#include <vector>

#include <SQLiteCpp/SQLiteCpp.h>

#include "core/files/store/store.h"

namespace yb {

struct Slab;

inline constexpr int application_id = 0x59425348;  // "YBSH"
inline constexpr int schema_version = 4;

/// Triggers and views of the file never run, and functions that its tables name neither: a file from outside is data.
void trust_nothing(SQLite::Database& db);
/// Write-ahead log, durable commits, foreign keys. Every commit is brought into the file itself at once, so that damage to
/// the log takes no commit away.
void prepare_connection(SQLite::Database& db);
void create_schema(SQLite::Database& db);

/// Brings an older file forward, one version at a time, in one transaction each.
void migrate(SQLite::Database& db);

/// What a file says of itself. @throws SQLite::Exception.
struct FileHeader {
    int application = 0, version = 0;
};
FileHeader read_header(SQLite::Database& db);

/// Statements that make the tables of this version, as the file keeps them.
const std::vector<std::string>& table_statements();

/// @name Checksums of rows (seal_of): what is stored is found changed by them.
/// @{
std::string seal_of_change(std::int64_t revision, const std::string& kind, const std::string& id, const std::string& body);
/// `changes`: the seal of the revision's changes, seal_of_changes().
std::string seal_of_revision(std::int64_t id, std::int64_t parent, std::int64_t redo, const std::string& label, const std::string& at,
                             const std::string& changes);
/// `seals`: those of a revision's changes in their order, one behind the other.
std::string seal_of_changes(const std::string& seals);
std::string seal_of_head(std::int64_t revision);
std::string seal_of_attachment(const std::string& key, std::string_view bytes);
/// `before`: the seal of the entry before it, empty for the first.
std::string seal_of_entry(const std::string& before, const BookEntry& entry);
/// @}

/// A row of the table of revisions.
struct RevisionRow {
    std::int64_t parent = 0, redo = 0;
    std::string label, at;
    std::string changes;  ///< seal_of_changes(); empty in files before version 4
};
/// A change without its body.
struct ChangeRow {
    std::int64_t id = 0, revision = 0;
    std::string kind, document;
    std::string digest;  ///< empty in files before version 4
};

/// Everything of a shop but the bodies: what hangs on what, verified.
struct Skeleton {
    std::int64_t head = 0;
    std::unordered_map<std::int64_t, RevisionRow> revisions;
    std::vector<ChangeRow> changes;     ///< by id
    std::vector<std::string> problems;  ///< it can't be opened with
    std::vector<std::string> remarks;   ///< no reason not to open it

    /// The newest change of each document on the way from the first revision to `at`. Only where there are no problems.
    std::map<std::pair<std::string, std::string>, const ChangeRow*> newest(std::int64_t at) const;
};
/// @param version the file's; checksums are verified where it is this program's.
Skeleton read_skeleton(SQLite::Database& db, int version);

/// A body as read; empty for a document taken away. @throws StoreError(damaged) where it does not fit its checksum.
std::string read_body(SQLite::Database& db, const ChangeRow& change, const std::string& path);

/// Whether a change, or an attachment, fits the checksum it is kept with in a file of that version; the first two have none.
bool change_fits(int version, const ChangeRow& change, const std::string& body);
bool attachment_fits(int version, const std::string& key, const std::string& digest, std::string_view bytes);

/// The columns of the book that make an entry, and the entry a row of them holds; further columns may follow.
inline constexpr const char* entry_columns = "id, at, job, step, kind, what, value, unit, of_";
BookEntry entry_at(SQLite::Statement& row);

void write_change(SQLite::Database& db, const ChangeRow& row, const std::string& body);
void write_revision(SQLite::Database& db, std::int64_t id, const RevisionRow& row);
void write_head(SQLite::Database& db, std::int64_t revision);
void write_attachment(SQLite::Database& db, const std::string& key, const std::string& bytes);
/// Behind the last one; keeps its id where it has one.
void write_entry(SQLite::Database& db, const BookEntry& entry);

/// @throws StoreError with its own sentence for what is no file that could be read: missing, a folder, a device, empty, a name
/// that isn't UTF-8, no permission.
void look_at_path(const std::string& path);

/// Takes away what was begun of a file: it, its log and what belongs to the log.
void remove_database(const std::string& path);

/// True when the file and the folder it lies in can be written.
bool can_write(const std::string& path);

/// A connection that reads and makes no log beside the file. @throws SQLite::Exception.
SQLite::Database open_to_read(const std::string& path);

StoreError sqlite_error(const SQLite::Exception& e, const std::string& path);

/// Puts one stored document into `docs`; an empty body takes it away. @throws FormatError.
void apply_document(Documents& docs, const std::string& kind, const std::string& id, const std::string& body);

/// Keys of the pictures and the scan that a slab names.
std::vector<std::string> attachments_named(const Slab& slab);

/// A document in words: "slab ‘sycamore-4’".
std::string document_in_words(const std::string& kind, const std::string& id);

}  // namespace yb
