#pragma once

#include "app/bench/step_view.h"

namespace yb {

/// Lay: the top on the slab, dragged and turned; the strip shows the width along it.
class LayView : public StepView {
  public:
    Step step() const override { return Step::lay; }
    QString strip_title(const Session& s) const override;
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Handle> handles(const BenchMap&, const Session&) const override;
    std::vector<Dimension> dimensions(const BenchMap&, const Session&) const override;
    std::vector<Field> fields() const override;
    std::vector<TextField> texts() const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;
};

}  // namespace yb
