// A slow result keyed by equal inputs: made beside the work, shown when it comes, a quick answer in the meantime.
#pragma once

#include <optional>

#include "app/ground/slow/runner.h"

namespace yb {

/// In must be comparable; both are passed by value between threads.
template <class In, class Out>
class Slow {
  public:
    using Make = std::function<Out(const In&, const Work&)>;

    /// @param make the result; it must not touch `owner`. @param came on the interface's thread, with what was made.
    /// @param failed a sentence for whatever was thrown.
    Slow(QObject* owner, Make make, std::function<void(const In&, const Out&)> came, std::function<void(const QString&)> failed = {})
        : owner_(owner), make_(std::move(make)), came_(std::move(came)), failed_(std::move(failed)) {}
    ~Slow() { stop(); }
    Slow(const Slow&) = delete;
    Slow& operator=(const Slow&) = delete;

    /// Asks for the result. Nothing happens where it is there already, on its way, or failed for the very same; what else is on its
    /// way is stopped.
    void ask(In in) {
        if (asked_ && *asked_ == in && (busy() || out_ || wrong_)) return;
        stop();
        asked_ = std::move(in);
        out_.reset();
        wrong_ = false;
        running_ = run_beside(
            owner_,
            [this, make = make_, in = *asked_](const Work& w) -> std::function<void()> {
                auto out = std::make_shared<Out>(make(in, w));
                // Never after stop(), and so never after this is gone: run_beside() drops what was stopped.
                return [this, in, out] {
                    out_ = *out;
                    running_.reset();
                    came_(in, *out);
                };
            },
            [this](const QString& sentence) {
                wrong_ = true;
                running_.reset();
                if (failed_) failed_(sentence);
            });
    }
    /// Stops what is on its way; nothing of it comes any more.
    void stop() {
        if (running_) running_->stop.request_stop();
        running_.reset();
    }
    bool busy() const { return running_ && !running_->done; }
    double share() const { return running_ ? running_->share.load() : 0; }
    /// What was made for equal inputs; nullptr while there is nothing.
    const Out* at_hand(const In& in) const { return asked_ && out_ && *asked_ == in ? &*out_ : nullptr; }

  private:
    QObject* owner_;
    Make make_;
    std::function<void(const In&, const Out&)> came_;
    std::function<void(const QString&)> failed_;
    std::optional<In> asked_;
    std::optional<Out> out_;
    bool wrong_ = false;  ///< it was thrown out of
    std::shared_ptr<Running> running_;
};

}  // namespace yb
