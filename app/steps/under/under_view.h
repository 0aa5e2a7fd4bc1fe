#pragma once

#include "app/kit/bench/step_view.h"
#include "core/steps/under/choices.h"

namespace yb {

/// Under: plates and channels laid on the underside; every hole with its travel.
class UnderView : public StepView {
  public:
    Step step() const override { return step_key::under; }
    bool end_upright() const override { return true; }
    double strip_share() const override { return 0.72; }
    bool shows_finished() const override { return true; }
    QString strip_title(const Session& s) const override;
    double end_rise() const override { return 1; }
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_end(QPainter&, const BenchMap&, const Session&) const override;
    std::optional<Dial> dial(const Session&) const override;
    std::vector<Handle> handles(const BenchMap&, const Session&) const override;
    std::vector<Dimension> dimensions(const BenchMap&, const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<PickField> picks(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;
};

}  // namespace yb
