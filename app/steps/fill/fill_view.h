#pragma once

#include "app/kit/bench/step_view.h"

namespace yb {

/// Fill: the voids inside the top, how deep they are after flattening, and what goes in.
class FillView : public StepView {
  public:
    Step step() const override { return step_key::fill; }
    QString strip_title(const Session& s) const override;
    double end_rise() const override { return 2; }
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Label> labels(const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;
};

}  // namespace yb
