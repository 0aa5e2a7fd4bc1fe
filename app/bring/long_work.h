// Work that takes more than half a second: off the interface thread, with progress and a way to stop it.
#pragma once

#include <atomic>
#include <memory>
#include <thread>

#include <QTimer>
#include <QWidget>

#include "core/work/work.h"

class QLabel;
class QProgressBar;

namespace yb {

/// A line with what is being done, how far it is, and a button to stop it. One work at a time.
class LongWork : public QWidget {
    Q_OBJECT
  public:
    explicit LongWork(QWidget* parent = nullptr);

    /// Does `work` on a thread of its own and `done` back here with what it made. Starting another stops the one
    /// that runs. An exception's sentence goes to trouble(); a stopped work calls neither.
    template <class F, class D>
    void run(const QString& what, F work, D done) {
        begin(what);
        const int mine = ++number_;
        thread_ = std::jthread([this, mine, work, done](const std::stop_token& stop) {
            Work w;
            w.stop = stop;
            w.progress = [this](double share) { share_ = share; };
            try {
                auto made = std::make_shared<decltype(work(w))>(work(w));
                back([this, mine, made, done] {
                    if (end(mine)) done(*made);
                });
            } catch (const Cancelled&) {
                back([this, mine] { end(mine); });
            } catch (const std::exception& e) {
                back([this, mine, text = QString::fromUtf8(e.what())] {
                    if (end(mine)) Q_EMIT trouble(text);
                });
            }
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
    bool end(int number);
    void rest();
    void back(std::function<void()> f);

    QLabel* what_;
    QProgressBar* bar_;
    QTimer tick_;  ///< runs only while there is something to show
    std::atomic<double> share_{0};
    int number_ = 0;
    bool busy_ = false;
    std::jthread thread_;
};

}  // namespace yb
