// What other programs do with a shop file without asking it: taken away, another put in its place, laid over, a journal left behind. Used
// by the store only.
#pragma once

#include <cstdint>
#include <string>

#include <SQLiteCpp/SQLiteCpp.h>

namespace yb {

/// What the path leads to now, by the file system. Every writer leaves another one.
struct FileStamp {
    std::uint64_t device = 0, inode = 0, size = 0;
    std::int64_t changed_ns = 0;  ///< when it was last written
    bool operator==(const FileStamp&) const = default;
    bool there() const { return inode != 0; }
    bool same_file(const FileStamp& o) const { return device == o.device && inode == o.inode; }
};
FileStamp stamp_of(const std::string& path);

/// True where what lies in the file is what the open connection takes it for: as many pages, and the seal of the head it reads stands on
/// the head's page. It is not after bytes of another file were laid over it: the connection still goes by what it read before. What its
/// journal holds is brought into the file first, as every commit does. True too while another program keeps it from that: then nothing can
/// be told.
/// @throws SQLite::Exception.
bool file_is_as_read(SQLite::Database& db, const std::string& path);

/// True where a journal lies beside a shop file that holds what the file does not, and the two together are no shop, the file alone is: the
/// journal of another file, left behind. Only reads. @throws SQLite::Exception, StoreError.
bool journal_is_stray(const std::string& path);

/// Makes an empty file for its owner alone (0600). @throws StoreError where it is there or can't be made.
void make_own_file(const std::string& path);

}  // namespace yb
