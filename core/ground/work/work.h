// Long work: split over the machine's cores, with progress and a way to stop it.
#pragma once

#include <cstddef>
#include <functional>
#include <stdexcept>
#include <stop_token>

namespace yb {

/// Thrown by long work that was asked to stop; nothing it made is to be used.
struct Cancelled : std::runtime_error {
    Cancelled() : std::runtime_error("stopped") {}
};

struct Work {
    std::function<void(double)> progress{};  ///< told a share from 0 to 1, from any thread but never two at once
    std::stop_token stop{};
    unsigned threads = 0;  ///< 0: as many as the machine has

    /// The same work, its progress told as the stretch from `from` to `to` of the whole.
    Work part(double from, double to) const;
    /// @throws Cancelled when asked to stop.
    void check() const {
        if (stop.stop_requested()) throw Cancelled();
    }
    void tell(double share) const {
        if (progress) progress(share);
    }
};

/// Runs it on one of the program's threads when one is free. What it throws ends the program.
void on_a_thread(std::function<void()> work);

/// Runs `one(i)` for i from 0 to n − 1 over the cores, in no order. The first exception is thrown here again.
/// @throws Cancelled when asked to stop.
void in_parallel(std::size_t n, const std::function<void(std::size_t)>& one, const Work& work = {});

}  // namespace yb
