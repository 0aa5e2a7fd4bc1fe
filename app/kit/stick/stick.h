// The stick: one strip of wood along the bottom with a mark for each operation of the job, spaced by time.
#pragma once

#include <optional>

#include <QPushButton>
#include <QWidget>

#include "app/ground/session/session.h"

namespace yb {

class Stick : public QWidget {
    Q_OBJECT
  public:
    explicit Stick(Session& session, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {800, 112}; }

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { lay_out(); }

  private:
    struct Mark {
        Step step;
        QString label, day;
        double x = 0, hands_x = 0, end_x = 0;
        bool knot = false, unmet = false;
        Severity worst = Severity::note;
        QPushButton* button = nullptr;
        bool aside = false;                                   ///< not on the wood of the top
        bool main = false;                                    ///< named as its step
        std::optional<std::size_t> operation = std::nullopt;  ///< of the days; none: this job has nothing to do there
    };
    void rebuild();
    void lay_out();

    Session& session_;
    std::vector<Mark> marks_;
    QPushButton* sheets_;
    QRectF wood_;
    QStringList built_for_;
};

}  // namespace yb
