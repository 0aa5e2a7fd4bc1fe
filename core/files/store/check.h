// Looking a shop file through, its backups, and what of a damaged one is whole.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/ground/work/work.h"

namespace yb {

/// The findings of a check, for `burl check` and for the program beside the work.
struct CheckReport {
    bool ok = false;
    bool hangs_together = false;        ///< its pages, tables and revisions do; what is damaged is a body, a picture or a line of the book
    int version = 0;                    ///< of the file's tables
    std::vector<std::string> problems;  ///< what is damaged, each in words
    std::vector<std::string> remarks;   ///< what is odd and harms nothing
    std::int64_t revisions = 0;
    std::size_t slabs = 0, jobs = 0;
    std::size_t attachments = 0, entries = 0;
};
/// Looks a shop file through without changing it: every page, every revision, every document of every revision, every
/// attachment and every entry of the book against its checksum, and reads every document. Other programs may go on writing:
/// it sees the file as it stood at the beginning. @throws StoreError for what is no file that could be looked through,
/// Cancelled.
CheckReport check_shop(const std::string& path, const Work& work = {});

/// The folder of dated backups beside a shop file.
std::string backup_folder(const std::string& path);
/// The dated backups there are, newest first; whether they are whole is not looked at.
std::vector<std::string> backups_of(const std::string& path);
/// The newest backup of a shop file that passes the check.
std::optional<std::string> newest_backup(const std::string& path);
/// Makes today's backup, one a day: a copy in backup_folder(), kept only where it passes the check itself; the newest 14 are
/// kept. A backup that can't be made is no reason not to work. @returns true when there is one of today. @throws Cancelled.
bool backup_once_a_day(const std::string& path, const Work& work = {});

/// What repair_shop() made.
struct Repair {
    std::int64_t revisions = 0, changes = 0;  ///< kept
    std::size_t attachments = 0, entries = 0;
    std::vector<std::string> lost;  ///< each in words, with the backup that has it where one has
    bool whole() const { return lost.empty(); }
};
/// Everything of a damaged file that is whole into a new one: revisions, changes, attachments and entries that fit their
/// checksums; what hung on a lost revision hangs on the one before it. The damaged file is only read.
/// @throws StoreError where `out` is there or can't be written, or where nothing at all can be read; Cancelled. Then `out`
/// is not there.
Repair repair_shop(const std::string& path, const std::string& out, const Work& work = {});

}  // namespace yb
