// The story sticks of all jobs, one below the other on one rule of dates; below them the maker's hours, day by day.
#pragma once

#include <functional>

#include <QPixmap>
#include <QWidget>

#include "core/shop/days/season.h"

namespace yb {

class DaysSticks : public QWidget {
    Q_OBJECT
  public:
    explicit DaysSticks(QWidget* parent = nullptr);
    /// @param season stands as long as it is shown.
    void show_season(const Season* season);
    /// "job/key"; empty: nothing.
    void pick(const QString& operation);
    QString picked() const { return picked_; }
    /// Where an operation's hands lie, px; empty where it is not shown.
    QRectF place(const QString& operation) const;
    /// Where the date of an hour stands, px.
    double x_of(double h) const;
    /// Where a day's number stands on the rule.
    QRectF date_place(const QString& iso) const;

  Q_SIGNALS:
    void picked_changed(const QString& operation);
    /// An operation is drawn to a day: while it is dragged, and when it is let go.
    void dragged(const QString& operation, const QString& iso, bool let_go);
    void date_clicked(const QString& iso);
    void tick_wanted(const QString& operation);
    void turn_wanted(int by);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    void wheelEvent(QWheelEvent* e) override;
    bool event(QEvent* e) override;
    QSize sizeHint() const override;

  private:
    struct Lane {
        QRectF wood;
        const JobDays* job = nullptr;
    };
    void lay_out();
    void draw_rule(QPainter& p) const;
    void draw_lane(QPainter& p, const Lane& lane) const;
    void draw_stick(QPainter& p, const Lane& lane) const;
    void draw_hours(QPainter& p) const;
    void draw_today(QPainter& p) const;
    QString at(QPointF where) const;
    void step(int jobs, int operations);

    const Season* season_ = nullptr;
    std::vector<DayLoad> loads_;
    std::vector<Lane> lanes_;
    QRectF rule_, hours_;
    /// Shows more days or fewer, an hour staying where it is.
    void zoom(double times, double about_h);
    void show_span(double from, double to);

    double from_h_ = 0, to_h_ = 24;          ///< shown
    double all_from_h_ = 0, all_to_h_ = 24;  ///< there are
    double pan_x_ = 0;
    bool panning_ = false;
    QString picked_;
    QString held_;        ///< under the mouse's button
    double held_at_ = 0;  ///< so many px right of its beginning
    bool moved_ = false;
};

}  // namespace yb
