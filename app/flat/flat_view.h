#pragma once

#include "app/bench/step_view.h"

namespace yb {

/// Flat: what comes off where as a tint, shims to be moved, lanes; the strip shows both faces and the planes.
class FlatView : public StepView {
  public:
    Step step() const override { return step_key::flat; }
    QString strip_title(const Session& s) const override;
    QString end_note(const Session& s) const override;
    double end_rise() const override { return 2; }
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_end(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Handle> handles(const BenchMap&, const Session&) const override;
    std::vector<Dimension> dimensions(const BenchMap&, const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;
};

}  // namespace yb
