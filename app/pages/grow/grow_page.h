// A practice log in end view with its saw pattern: drag turns the log and shifts the cuts, then it is sawn.
#pragma once

#include <memory>

#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/slow.h"
#include "core/material/tree/saw_ways.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace yb {

class MeasureField;

/// The log's end with rings, bark and the boards in it.
class LogEnd : public QWidget {
    Q_OBJECT
  public:
    explicit LogEnd(QWidget* parent = nullptr);
    void show_log(std::shared_ptr<const GrownLog> log, const SawPlan& plan);

  Q_SIGNALS:
    /// Dragged: turned by so many degrees, shifted by so many mm.
    void dragged(double turn_deg, double shift_mm);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;

  private:
    double scale() const;
    QPointF px(double y, double z) const;

    std::shared_ptr<const GrownLog> log_;
    SawPlan plan_;
    std::vector<Board> boards_;
    QPointF from_;
    bool near_middle_ = false;
};

class GrowPage : public QWidget {
    Q_OBJECT
  public:
    explicit GrowPage(Session& session, QWidget* parent = nullptr);

  Q_SIGNALS:
    void back();
    void saw(const yb::LogRecipe& recipe, const yb::SawPlan& plan, const yb::DryPlan& dry);

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    /// What the ways to saw it are asked with.
    struct Asked {
        LogRecipe recipe;
        double kerf_mm = 4, moisture_pct = 10;
        bool operator==(const Asked&) const = default;
    };
    void grow();
    void refresh();
    void show_ways(const std::vector<SawWay>& ways);

    Session& session_;
    std::uint64_t seed_ = 7;
    LogMeasured measured_;
    double moisture_ = 10;
    SawPlan plan_;
    std::shared_ptr<const GrownLog> log_;
    LogEnd* end_;
    QComboBox *wood_, *pattern_, *stem_;
    QLabel* about_;
    QPushButton* saw_;
    std::vector<QPushButton*> ways_;  ///< a line a thickness
    Slow<Asked, std::vector<SawWay>> slow_;
    std::vector<std::pair<MeasureField*, std::function<std::optional<double>()>>> fields_;
};

}  // namespace yb
