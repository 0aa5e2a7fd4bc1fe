#include "core/files/store/beside.h"

#include <array>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <map>
#include <mutex>
#include <unordered_map>
#include <vector>

#include <fcntl.h>
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <sqlite3.h>
#include <sys/stat.h>
#include <unistd.h>
#include <cerrno>

#include "core/files/store/check.h"
#include "core/files/store/schema.h"
#include "core/ground/file/format_error.h"

namespace yb {

namespace fs = std::filesystem;

namespace {

/// The bytes of a file as they lie there, past SQLite. Closing a descriptor would take away the locks that SQLite holds on the same file in
/// this process (POSIX has it so), therefore each file is opened once and stays open until the program ends.
int raw_file(const std::string& path) {
    static std::mutex mutex;
    static std::map<std::pair<std::uint64_t, std::uint64_t>, int> open;
    const std::lock_guard lock(mutex);
    const FileStamp stamp = stamp_of(path);
    if (!stamp.there()) return -1;
    const auto [it, is_new] = open.try_emplace({stamp.device, stamp.inode}, -1);
    // An inode may have gone and come again for another file.
    struct stat s {};
    if (!is_new && it->second >= 0 && ::fstat(it->second, &s) == 0 && s.st_nlink > 0) return it->second;
    return it->second = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
}

std::uint32_t big_endian(const unsigned char* p) {
    return (std::uint32_t{p[0]} << 24) | (std::uint32_t{p[1]} << 16) | (std::uint32_t{p[2]} << 8) | p[3];
}

bool read_at(int fd, std::uint64_t at, std::vector<unsigned char>& into) {
    return fd >= 0 && ::pread(fd, into.data(), into.size(), static_cast<off_t>(at)) == static_cast<ssize_t>(into.size());
}

/// The newest frame of every page in a journal's commits. Source: the format of the write-ahead log as SQLite documents it.
std::unordered_map<std::uint32_t, std::vector<unsigned char>> pages_of_journal(const std::string& wal) {
    std::unordered_map<std::uint32_t, std::vector<unsigned char>> committed, pending;
    std::ifstream in(wal, std::ios::binary);
    std::array<unsigned char, 32> head{};
    if (!in.read(reinterpret_cast<char*>(head.data()), head.size())) return committed;
    const std::uint32_t page = big_endian(&head[8]);
    if (page < 512 || page > 65536) return committed;
    std::array<unsigned char, 24> frame{};
    std::vector<unsigned char> bytes(page);
    while (in.read(reinterpret_cast<char*>(frame.data()), frame.size()) && in.read(reinterpret_cast<char*>(bytes.data()), page)) {
        if (std::memcmp(&frame[8], &head[16], 8) != 0) break;  // of an earlier round of the journal: not read
        pending[big_endian(frame.data())] = bytes;
        if (big_endian(&frame[4]) == 0) continue;
        for (auto& [number, b] : pending) committed[number] = std::move(b);
        pending.clear();
    }
    return committed;
}

bool journal_says_more(const std::string& path) {
    std::error_code e;
    const std::string wal = path + "-wal";
    if (!fs::exists(wal, e) || fs::file_size(wal, e) == 0) return false;
    const int raw = raw_file(path);
    std::vector<unsigned char> there;
    for (const auto& [number, bytes] : pages_of_journal(wal)) {
        there.resize(bytes.size());
        if (!read_at(raw, std::uint64_t{number - 1} * bytes.size(), there) || there != bytes) return true;
    }
    return false;
}

/// Looked through by itself, as if no journal lay beside it: under a name of its own.
bool whole_alone(const std::string& path) {
    const fs::path alone = fs::temp_directory_path() / fmt::format("burl-alone-{}-{}.shop", ::getpid(), stamp_of(path).inode);
    std::error_code e;
    fs::remove(alone, e);
    const auto gone = [&] { remove_database(alone.string()); };
    try {
        make_own_file(alone.string());
        std::ofstream out(alone, std::ios::binary);
        const int raw = raw_file(path);
        std::vector<unsigned char> piece(1U << 20);
        for (std::uint64_t at = 0;;) {
            const ssize_t n = raw < 0 ? -1 : ::pread(raw, piece.data(), piece.size(), static_cast<off_t>(at));
            if (n <= 0) break;
            out.write(reinterpret_cast<const char*>(piece.data()), n);
            at += static_cast<std::uint64_t>(n);
        }
        out.close();
        const bool ok = out && check_shop(alone.string()).ok;
        gone();
        return ok;
    } catch (const std::exception&) {
        gone();
        return false;
    }
}

std::string aside(const std::string& path, const char* why) {
    const std::time_t now = std::chrono::system_clock::to_time_t(std::chrono::system_clock::now());
    const std::string stem = fmt::format("{}.{}-{:%Y-%m-%d-%H%M%S}", path, why, fmt::localtime(now));
    std::string name = stem;
    for (int i = 2; fs::exists(name); ++i) name = fmt::format("{}-{}", stem, i);
    return name;
}

void renamed(const std::string& from, const std::string& to) {
    std::error_code e;
    fs::rename(from, to, e);
    if (e)
        throw StoreError(StoreError::Kind::read_only,
                         fmt::format("{} can't be given another name here. Nothing was changed; look who may write in its folder.", from));
}

}  // namespace

FileStamp stamp_of(const std::string& path) {
    struct stat s {};
    if (::stat(path.c_str(), &s) != 0) return {};
    return {static_cast<std::uint64_t>(s.st_dev), static_cast<std::uint64_t>(s.st_ino), static_cast<std::uint64_t>(s.st_size),
            std::int64_t{s.st_mtim.tv_sec} * 1000000000 + s.st_mtim.tv_nsec};
}

bool file_is_as_read(SQLite::Database& db, const std::string& path) {
    if (sqlite3_db_readonly(db.getHandle(), "main") == 1) return true;  // nothing of ours is written into it
    {
        SQLite::Statement checkpoint(db, "PRAGMA wal_checkpoint(PASSIVE)");
        const bool answered = checkpoint.executeStep();
        if (answered && checkpoint.getColumn(1).getInt() != checkpoint.getColumn(2).getInt()) return true;
    }
    const int raw = raw_file(path);
    std::vector<unsigned char> head(100);
    if (!read_at(raw, 0, head)) return false;
    const auto number = [&](const char* pragma) { return static_cast<std::uint32_t>(db.execAndGet(pragma).getInt64()); };
    if (big_endian(&head[28]) != number("PRAGMA page_count") || big_endian(&head[36]) != number("PRAGMA freelist_count")) return false;
    std::vector<unsigned char> page(number("PRAGMA page_size"));
    const auto root = static_cast<std::uint64_t>(db.execAndGet("SELECT rootpage FROM sqlite_master WHERE name = 'head'").getInt64());
    const std::string seal = db.execAndGet("SELECT digest FROM head").getString();
    if (root == 0 || !read_at(raw, (root - 1) * page.size(), page)) return false;
    return std::string_view(reinterpret_cast<const char*>(page.data()), page.size()).find(seal) != std::string_view::npos;
}

bool journal_is_stray(const std::string& path) {
    if (!journal_says_more(path)) return false;
    try {
        if (check_shop(path).hangs_together) return false;
    } catch (const StoreError&) {  // together they can't even be opened
    }
    return whole_alone(path);
}

std::string Store::set_journal_aside(const std::string& path) {
    const std::string name = aside(path, "journal");
    renamed(path + "-wal", name);
    std::error_code e;
    fs::remove(path + "-shm", e);
    return name;
}

std::string Store::restore_backup(const std::string& path, const std::string& backup) {
    if (!check_shop(backup).ok)
        throw StoreError(StoreError::Kind::damaged, backup + " is damaged itself. Choose another backup; nothing was changed.");
    // Made whole beside it first: a full disk leaves what stands there.
    const std::string part = path + ".restored";
    std::error_code e;
    remove_database(part);
    make_own_file(part);
    fs::copy_file(backup, part, fs::copy_options::overwrite_existing, e);
    if (!e) fs::permissions(part, fs::perms::owner_read | fs::perms::owner_write, e);
    if (e) {
        fs::remove(part, e);
        throw StoreError(StoreError::Kind::full,
                         fmt::format("{} can't be copied to {}. Nothing was changed; free some space and try again.", backup, path));
    }
    std::string before;
    if (stamp_of(path).there()) {
        before = aside(path, "before");
        for (const char* tail : {"-wal", "-shm"})
            if (fs::exists(path + tail, e)) renamed(path + tail, before + tail);
        renamed(path, before);
    } else {
        for (const char* tail : {"-wal", "-shm"}) fs::remove(path + tail, e);
    }
    renamed(part, path);
    return before;
}

void make_own_file(const std::string& path) {
    const int fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0600);
    if (fd >= 0) {
        ::close(fd);
        return;
    }
    if (errno == EEXIST) throw StoreError(StoreError::Kind::other, path + " is there already. Choose another name.");
    if (errno == ENOSPC || errno == EDQUOT)
        throw StoreError(StoreError::Kind::full, "The disk that is to hold " + path + " is full. Free some space and try again.");
    throw StoreError(StoreError::Kind::read_only, path + " can't be made here. Choose a folder of your own.");
}

}  // namespace yb
