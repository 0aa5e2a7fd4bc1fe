#include "app/ground/slow/runner.h"

#include <QCoreApplication>
#include <QPointer>

#include <algorithm>
#include <chrono>
#include <condition_variable>
#include <exception>
#include <mutex>
#include <vector>

#include "core/ground/file/format_error.h"

namespace yb {

namespace {

std::atomic<int> under_way{0};

/// What runs, so that all of it can be told to stop.
struct Started {
    std::mutex guard;
    std::condition_variable ended;
    int running = 0;
    std::vector<std::weak_ptr<Running>> all;
};
Started& started() {
    static Started s;
    return s;
}

}  // namespace

bool stop_all(int wait_ms) {
    std::unique_lock lock(started().guard);
    for (const auto& one : started().all)
        if (const auto r = one.lock()) r->stop.request_stop();
    return started().ended.wait_for(lock, std::chrono::milliseconds(wait_ms), [] { return started().running == 0; });
}

QString sentence_of_exception() {
    try {
        throw;
    } catch (const std::bad_alloc&) {
        return QObject::tr("There is not enough memory for this");
    } catch (const std::exception& e) {
        return QString::fromStdString(sentence_of(e));
    } catch (...) {
        return QObject::tr("Something went wrong that nobody foresaw");
    }
}

std::shared_ptr<Running> run_beside(QObject* owner, Beside work, std::function<void(const QString&)> failed) {
    auto running = std::make_shared<Running>();
    ++under_way;
    {
        const std::lock_guard lock(started().guard);
        std::erase_if(started().all, [](const auto& one) { return one.expired(); });
        started().all.push_back(running);
        ++started().running;
    }
    on_a_thread([running, owner = QPointer<QObject>(owner), work = std::move(work), failed = std::move(failed)]() mutable {
        std::function<void()> back;
        QString wrong;
        try {
            if (running->stop.stop_requested()) throw Cancelled();  // before its turn came
            Work w;
            w.stop = running->stop.get_token();
            w.progress = [&running](double share) { running->share = share; };
            back = work(w);
        } catch (const Cancelled&) {
        } catch (...) {
            wrong = sentence_of_exception();
        }
        QMetaObject::invokeMethod(
            QCoreApplication::instance(),
            [running, owner, back = std::move(back), failed = std::move(failed), wrong] {
                const bool wanted = owner && !running->stop.stop_requested();
                running->done = true;
                --under_way;
                if (!wanted) return;
                if (!wrong.isEmpty()) {
                    if (failed) failed(wrong);
                } else if (back) {
                    back();
                }
            },
            Qt::QueuedConnection);
        const std::lock_guard lock(started().guard);
        --started().running;
        started().ended.notify_all();
    });
    return running;
}

void wait_for_all() {
    // What is handed back may be painted, and painting may ask for more: quiet is when that has had its turns.
    for (int quiet = 0; quiet<5; quiet = under_way> 0 ? 0 : quiet + 1) QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
}

}  // namespace yb
