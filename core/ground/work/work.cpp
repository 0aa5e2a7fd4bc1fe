#include "core/ground/work/work.h"

#include <algorithm>
#include <atomic>
#include <condition_variable>
#include <exception>
#include <memory>
#include <mutex>
#include <thread>

#include <unistd.h>

#include <boost/asio/post.hpp>
#include <boost/asio/thread_pool.hpp>

namespace yb {

namespace {

/// The program's threads, more than the cores: long work must not keep a picture waiting. Kept until the process ends, so that nothing
/// is waited for then. A forked child has none of its parent's threads, only what they held: it gets a pool of its own.
boost::asio::thread_pool& pool() {
    struct Pool {
        pid_t of = getpid();
        boost::asio::thread_pool threads{std::max(6U, 2 * std::thread::hardware_concurrency())};
    };
    static std::atomic<Pool*> all{nullptr};
    Pool* now = all;
    if (!now || now->of != getpid()) {
        auto* made = new Pool;
        if (all.compare_exchange_strong(now, made)) now = made;
        else delete made;  // another thread was first
    }
    return now->threads;
}

/// A loop that several threads take from.
struct Loop {
    std::size_t n = 0;
    const std::function<void(std::size_t)>* one = nullptr;
    const Work* work = nullptr;
    std::atomic<std::size_t> next{0};
    std::atomic<bool> failed{false};
    std::mutex guard;
    std::condition_variable left;
    std::size_t done = 0;
    std::exception_ptr error;
    int inside = 0;
    bool closed = false;  ///< a helper that comes now finds nothing: its turn never came

    void run() {
        for (std::size_t i; !failed && (i = next++) < n;) {
            try {
                work->check();
                (*one)(i);
                const std::lock_guard lock(guard);
                work->tell(static_cast<double>(++done) / static_cast<double>(n));
            } catch (...) {
                const std::lock_guard lock(guard);
                if (!error) error = std::current_exception();
                failed = true;
            }
        }
    }
    void help() {
        {
            const std::lock_guard lock(guard);
            if (closed) return;
            ++inside;
        }
        run();
        const std::lock_guard lock(guard);
        --inside;
        left.notify_all();
    }
    void close() {
        std::unique_lock lock(guard);
        closed = true;
        left.wait(lock, [this] { return inside == 0; });
    }
};

}  // namespace

Work Work::part(double from, double to) const {
    Work w = *this;
    if (progress) w.progress = [p = progress, from, to](double share) { p(from + (to - from) * share); };
    return w;
}

void on_a_thread(std::function<void()> work) { boost::asio::post(pool(), std::move(work)); }

void in_parallel(std::size_t n, const std::function<void(std::size_t)>& one, const Work& work) {
    const unsigned cores = work.threads ? work.threads : std::max(1U, std::thread::hardware_concurrency());
    const auto loop = std::make_shared<Loop>();
    loop->n = n, loop->one = &one, loop->work = &work;
    for (unsigned t = 1; t < cores && t < n; ++t) on_a_thread([loop] { loop->help(); });
    loop->run();
    loop->close();
    if (loop->error) std::rethrow_exception(loop->error);
}

}  // namespace yb
