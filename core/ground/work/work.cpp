#include "core/ground/work/work.h"

#include <algorithm>
#include <atomic>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace yb {

Work Work::part(double from, double to) const {
    Work w = *this;
    if (progress) w.progress = [p = progress, from, to](double share) { p(from + (to - from) * share); };
    return w;
}

void in_parallel(std::size_t n, const std::function<void(std::size_t)>& one, const Work& work) {
    const unsigned cores = work.threads ? work.threads : std::max(1U, std::thread::hardware_concurrency());
    std::atomic<std::size_t> next{0};
    std::atomic<bool> failed{false};
    std::size_t done = 0;
    std::exception_ptr error;
    std::mutex guard;
    const auto run = [&] {
        for (std::size_t i; !failed && (i = next++) < n;) {
            try {
                work.check();
                one(i);
                const std::lock_guard lock(guard);
                work.tell(static_cast<double>(++done) / static_cast<double>(n));
            } catch (...) {
                const std::lock_guard lock(guard);
                if (!error) error = std::current_exception();
                failed = true;
            }
        }
    };
    {
        std::vector<std::jthread> others;
        for (unsigned t = 1; t < cores && t < n; ++t) others.emplace_back(run);
        run();
    }
    if (error) std::rethrow_exception(error);
}

}  // namespace yb
