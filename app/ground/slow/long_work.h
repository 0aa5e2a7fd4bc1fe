// Work that takes more than half a second: off the interface thread, with progress and a way to stop it.
#pragma once

#include <memory>

#include <QTimer>
#include <QWidget>

#include "app/ground/slow/runner.h"

class QLabel;
class QProgressBar;

namespace yb {

/// A line with what is being done, how far it is, and a button to stop it. One work at a time.
class LongWork : public QWidget {
    Q_OBJECT
  public:
    explicit LongWork(QWidget* parent = nullptr);

    /// Does `work` beside and `done` back here with what it made. Starting another stops the one that runs. An exception's
    /// sentence goes to trouble(); a stopped work calls neither.
    template <class F, class D>
    void run(const QString& what, F work, D done) {
        begin(what);
        running_ = run_beside(
            this,
            [this, work, done](const Work& w) -> std::function<void()> {
                auto made = std::make_shared<decltype(work(w))>(work(w));
                return [this, made, done] {
                    rest();
                    done(*made);
                };
            },
            [this](const QString& sentence) {
                rest();
                Q_EMIT trouble(sentence);
            });
    }
    void stop();
    bool busy() const { return busy_; }
    /// Waits for the work and its `done`: for tests.
    void wait();

  Q_SIGNALS:
    void trouble(const QString& sentence);

  private:
    void begin(const QString& what);
    void rest();

    QLabel* what_;
    QProgressBar* bar_;
    QTimer tick_;  ///< runs only while there is something to show
    std::shared_ptr<Running> running_;
    bool busy_ = false;
};

}  // namespace yb
