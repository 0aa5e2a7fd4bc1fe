// A tour of five stops over the real screens: a note beside what it is about, left at any time.
#pragma once

#include <functional>
#include <vector>

#include <QWidget>

class QLabel;
class QPushButton;

namespace yb {

/// One stop: what it is about and what is said of it.
struct TourStop {
    QString title, text;
    std::function<QWidget*()> about;  ///< it is made ready and shown by this
};

/// Lies over the window; what it speaks of stays clear, the rest is dimmed a little.
class Tour : public QWidget {
    Q_OBJECT
  public:
    Tour(std::vector<TourStop> stops, QWidget* over);
    int stop() const { return stop_; }

  Q_SIGNALS:
    void left();

  protected:
    void paintEvent(QPaintEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    bool eventFilter(QObject* watched, QEvent* e) override;

  private:
    void go_to(int stop);
    void leave();
    void place();

    std::vector<TourStop> stops_;
    int stop_ = -1;
    QWidget* note_;
    QLabel *title_, *text_, *which_;
    QPushButton *next_, *leave_;
};

}  // namespace yb
