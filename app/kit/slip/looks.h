// A checklist that fills: what was looked at and what is still a blank, each a way to where it is written down.
#pragma once

#include <QPushButton>
#include <QWidget>

#include "app/kit/bench/step_view.h"

class QGridLayout;
class QLabel;

namespace yb {

/// One thing to look at: a box, ticked once it is known, and its name.
class LookLine : public QPushButton {
    Q_OBJECT
  public:
    explicit LookLine(QWidget* parent = nullptr);
    void show(const Look& look);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {20, sizeHint().height()}; }

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    bool known_ = false;
    QString label_;
};

class Looks : public QWidget {
    Q_OBJECT
  public:
    explicit Looks(QWidget* parent = nullptr);
    /// None: out of sight.
    void show(std::vector<Look> looks);

  private:
    struct Line {
        LookLine* line;
        QPushButton* none;
    };
    Line make();

    QLabel* heading_;
    QGridLayout* grid_;
    std::vector<Line> lines_;
    std::vector<Look> looks_;
};

}  // namespace yb
