// A disk that fails on purpose: it stands between SQLite and the real one and counts what is written.
#pragma once

#include <functional>

namespace yb {

/// What happens at the write, sync or truncation of that number; the first is 1.
enum class Fault {
    none,
    kill,       ///< the program dies (SIGKILL), what was written stays
    power_cut,  ///< … and what no sync has made durable is gone again
    full,       ///< this and every further write is refused for want of room
};

/// While one lives every shop file of this process is read and written through it. One at a time.
class FaultyDisk {
  public:
    FaultyDisk(Fault fault, long at);
    ~FaultyDisk();
    FaultyDisk(const FaultyDisk&) = delete;
    FaultyDisk& operator=(const FaultyDisk&) = delete;
    /// Writes, syncs and truncations so far.
    static long count();
    /// There is room again.
    static void mend();
};

}  // namespace yb
