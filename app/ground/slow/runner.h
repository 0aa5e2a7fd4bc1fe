// The one runner of the program: work beside the interface's thread, its result handed back on it.
#pragma once

#include <atomic>
#include <functional>
#include <memory>

#include <QObject>
#include <QString>

#include "core/ground/work/work.h"

namespace yb {

/// A piece of work under way.
struct Running {
    std::stop_source stop;
    std::atomic<double> share{0};  ///< how far it is
    std::atomic<bool> done{false};
};

/// What work is made of: it runs on a thread of its own and returns what is to be done back on the interface's thread.
using Beside = std::function<std::function<void()>(const Work&)>;

/// Starts work beside. What it returns is called on the interface's thread while `owner` lives and it was not stopped;
/// whatever it throws becomes a sentence for `failed`, a stopped work calls neither.
/// @param owner must live on the interface's thread. The work itself must not touch it.
std::shared_ptr<Running> run_beside(QObject* owner, Beside work, std::function<void(const QString&)> failed);

/// Asks everything that runs to stop and waits for it a while. Nothing of it is handed back.
/// @returns false where something still runs then: what it does is its own, and the program may end without it.
bool stop_all(int wait_ms);

/// Waits until nothing runs any more and all that was handed back is done: for tests and pictures.
void wait_for_all();

/// A sentence for whatever is being thrown just now: for a catch (...).
QString sentence_of_exception();

}  // namespace yb
