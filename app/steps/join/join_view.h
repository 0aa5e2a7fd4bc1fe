#pragma once

#include "app/kit/bench/step_view.h"

namespace yb {

/// Join: joints with their tenons and clamps, bow ties to be moved, what meets what; the strip shows how far the joints stand open.
class JoinView : public StepView {
  public:
    Step step() const override { return step_key_; }
    QString strip_title(const Session& s) const override;
    double end_rise() const override { return 2; }
    bool shows_finished() const override { return true; }
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_end(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Label> labels(const BenchMap&, const Session&) const override;
    std::vector<Handle> handles(const BenchMap&, const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;

  private:
    Step step_key_{"join"};
};

}  // namespace yb
