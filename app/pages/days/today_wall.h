// Today in letters that are read across the room: what there is to do in order, what to set going before going home. Any key closes it.
#pragma once

#include <QWidget>

#include "core/shop/days/season.h"

namespace yb {

class TodayWall : public QWidget {
    Q_OBJECT
  public:
    TodayWall(const Season& season, const Units& units, QWidget* parent);

  protected:
    void paintEvent(QPaintEvent*) override;
    void keyPressEvent(QKeyEvent* e) override;
    void mousePressEvent(QMouseEvent*) override { close(); }

  private:
    /// Shows the day that many days from today.
    void show_day(int by);

    Season season_;
    Units units_;
    Today today_;
    int by_ = 0;
};

}  // namespace yb
