#pragma once

#include "app/kit/bench/step_view.h"
#include "core/steps/match/likeness.h"

namespace yb {

class Bench;
class LongWork;

/// Lay: the top on the slab, dragged and turned; the strip shows the width along it.
/// With several leaves, those are dragged under the top; the strip shows the seam or the river (leaves.h).
class LayView : public StepView {
  public:
    LayView(Bench& bench, LongWork& work, Pictures& pictures) : bench_(bench), work_(work), pictures_(pictures) {}
    Step step() const override { return step_key::lay; }
    QString strip_title(const Session& s) const override;
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Label> labels(const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_end(QPainter&, const BenchMap&, const Session&) const override;
    QString end_note(const Session& s) const override;
    bool shows_leaves() const override;
    std::vector<Handle> handles(const BenchMap&, const Session&) const override;
    std::vector<Dimension> dimensions(const BenchMap&, const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<PickField> picks(const Session& s) const override;
    std::vector<TextField> texts() const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;

  private:
    Bench& bench_;
    LongWork& work_;
    Pictures& pictures_;
    mutable FlawKind wished_ = FlawKind::knot;  ///< whose wish is shown
    /// The faces' likeness in windows along the seam, while the leaves lie as they did.
    struct Matched {
        SeamMatch match;
        std::vector<Leaf> leaves;
    };
    std::optional<Matched> matched_;
};

}  // namespace yb
