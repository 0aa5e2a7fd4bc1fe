#include "tests/files/store/faulty_disk.h"

#include <algorithm>
#include <csignal>
#include <cstring>
#include <map>
#include <string>
#include <vector>

#include <fcntl.h>
#include <sqlite3.h>
#include <unistd.h>

namespace yb {
namespace {

Fault fault = Fault::none;
long fault_at = 0;
long counted = 0;
sqlite3_vfs* real = nullptr;
sqlite3_vfs ours;

/// What a range held before a write that no sync has followed yet.
struct Before {
    sqlite3_int64 at = 0, size_of_file = 0;
    std::string bytes;
};
std::map<std::string, std::vector<Before>> not_durable;  // by path

void cut_power() {
    for (auto& [path, list] : not_durable) {
        const int fd = ::open(path.c_str(), O_RDWR);
        if (fd < 0) continue;
        for (auto it = list.rbegin(); it != list.rend(); ++it) {
            if (!it->bytes.empty() && ::pwrite(fd, it->bytes.data(), it->bytes.size(), it->at) < 0) std::abort();
            if (::ftruncate(fd, it->size_of_file) != 0) std::abort();
        }
        ::close(fd);
    }
}

/// @returns whether this one is refused.
bool next() {
    ++counted;
    if (fault == Fault::none || counted < fault_at) return false;
    if (fault == Fault::full) return true;
    if (fault == Fault::power_cut) cut_power();
    ::kill(::getpid(), SIGKILL);
    return true;
}

struct File {
    sqlite3_file base;
    const char* path;
    sqlite3_file* under() { return reinterpret_cast<sqlite3_file*>(this + 1); }
};
File* of(sqlite3_file* f) { return reinterpret_cast<File*>(f); }
const sqlite3_io_methods* in(sqlite3_file* f) { return of(f)->under()->pMethods; }

void remember(sqlite3_file* f, sqlite3_int64 at, sqlite3_int64 n) {
    if (fault != Fault::power_cut || !of(f)->path) return;
    Before b;
    in(f)->xFileSize(of(f)->under(), &b.size_of_file);
    b.at = at;
    b.bytes.resize(static_cast<std::size_t>(std::max<sqlite3_int64>(0, std::min(n, b.size_of_file - at))));
    if (!b.bytes.empty()) in(f)->xRead(of(f)->under(), b.bytes.data(), static_cast<int>(b.bytes.size()), at);
    not_durable[of(f)->path].push_back(std::move(b));
}

sqlite3_io_methods methods{
    3,
    [](sqlite3_file* f) { return in(f) ? in(f)->xClose(of(f)->under()) : SQLITE_OK; },
    [](sqlite3_file* f, void* p, int n, sqlite3_int64 at) { return in(f)->xRead(of(f)->under(), p, n, at); },
    [](sqlite3_file* f, const void* p, int n, sqlite3_int64 at) {
        if (next()) return SQLITE_FULL;
        remember(f, at, n);
        return in(f)->xWrite(of(f)->under(), p, n, at);
    },
    [](sqlite3_file* f, sqlite3_int64 size) {
        if (next()) return SQLITE_IOERR_TRUNCATE;
        sqlite3_int64 now = 0;
        in(f)->xFileSize(of(f)->under(), &now);
        remember(f, size, now - size);
        return in(f)->xTruncate(of(f)->under(), size);
    },
    [](sqlite3_file* f, int flags) {
        if (next()) return SQLITE_IOERR_FSYNC;
        const int done = in(f)->xSync(of(f)->under(), flags);
        if (done == SQLITE_OK && of(f)->path) not_durable.erase(of(f)->path);
        return done;
    },
    [](sqlite3_file* f, sqlite3_int64* size) { return in(f)->xFileSize(of(f)->under(), size); },
    [](sqlite3_file* f, int lock) { return in(f)->xLock(of(f)->under(), lock); },
    [](sqlite3_file* f, int lock) { return in(f)->xUnlock(of(f)->under(), lock); },
    [](sqlite3_file* f, int* out) { return in(f)->xCheckReservedLock(of(f)->under(), out); },
    [](sqlite3_file* f, int op, void* arg) { return in(f)->xFileControl(of(f)->under(), op, arg); },
    [](sqlite3_file* f) { return in(f)->xSectorSize(of(f)->under()); },
    [](sqlite3_file* f) { return in(f)->xDeviceCharacteristics(of(f)->under()); },
    [](sqlite3_file* f, int page, int size, int extend, void volatile** out) {
        return in(f)->xShmMap(of(f)->under(), page, size, extend, out);
    },
    [](sqlite3_file* f, int offset, int n, int flags) { return in(f)->xShmLock(of(f)->under(), offset, n, flags); },
    [](sqlite3_file* f) { in(f)->xShmBarrier(of(f)->under()); },
    [](sqlite3_file* f, int gone) { return in(f)->xShmUnmap(of(f)->under(), gone); },
    [](sqlite3_file* f, sqlite3_int64 at, int n, void** out) { return in(f)->xFetch(of(f)->under(), at, n, out); },
    [](sqlite3_file* f, sqlite3_int64 at, void* p) { return in(f)->xUnfetch(of(f)->under(), at, p); },
};

int open_file(sqlite3_vfs*, const char* name, sqlite3_file* f, int flags, int* out) {
    of(f)->base.pMethods = nullptr;
    of(f)->path = name;
    const int done = real->xOpen(real, name, of(f)->under(), flags, out);
    if (of(f)->under()->pMethods) of(f)->base.pMethods = &methods;
    return done;
}

}  // namespace

FaultyDisk::FaultyDisk(Fault f, long at) {
    real = sqlite3_vfs_find(nullptr);
    ours = *real;
    ours.zName = "faulty";
    ours.pNext = nullptr;
    ours.szOsFile = static_cast<int>(sizeof(File)) + real->szOsFile;
    ours.xOpen = open_file;
    sqlite3_vfs_register(&ours, 1);
    fault = f, fault_at = at, counted = 0;
    not_durable.clear();
}

FaultyDisk::~FaultyDisk() {
    fault = Fault::none;
    sqlite3_vfs_register(real, 1);
    sqlite3_vfs_unregister(&ours);
}

long FaultyDisk::count() { return counted; }
void FaultyDisk::mend() { fault = Fault::none; }

}  // namespace yb
