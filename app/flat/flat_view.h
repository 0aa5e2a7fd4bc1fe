#pragma once

#include "app/bench/step_view.h"

namespace yb {

/// Flat: what comes off where as a tint, shims to be moved, lanes; the strip shows both faces and the planes.
class FlatView : public StepView {
  public:
    Step step() const override { return Step::flat; }
    QString strip_title(const Session& s) const override;
    QString end_note(const Session& s) const override;
    double end_rise() const override { return 2; }
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_end(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Handle> handles(const BenchMap&, const Session&) const override;
    std::vector<Figure> answers(const Session& s) const override { return s.plan() ? s.plan()->flat.figures : std::vector<Figure>{}; }
    std::vector<Choice> choices(const Session& s) const override { return s.plan() ? s.plan()->flat.choices : std::vector<Choice>{}; }
    std::vector<Field> fields() const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;
};

}  // namespace yb
