#pragma once

#include "app/kit/bench/step_view.h"

namespace yb {

class Pictures;
struct SkinChoices;
struct SkinPlan;

/// Skin: zones of a coat in their order on the plan, the ladder of grits and the coats in hours on the strip, the edge with its coats at
/// the gauge.
class SkinView : public StepView {
  public:
    explicit SkinView(Pictures& pictures) : pictures_(pictures) {}
    Step step() const override;
    QString strip_title(const Session& s) const override;
    QString end_note(const Session& s) const override;
    bool shows_finished() const override { return true; }
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Label> labels(const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_end(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Handle> handles(const BenchMap& map, const Session& s) const override;
    QString side_thing(const BenchMap& map, const Session& s, QPointF at) const override;
    std::optional<Dial> dial(const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<PickField> picks(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;

  private:
    static const SkinPlan* plan_of(const Session& s);
    /// The coat that the dial stands at, from 1.
    static int coat_shown(const Session& s, const SkinPlan& plan);
    /// The face that is looked at: the one that is picked where it has zones, otherwise the upper one.
    static QString face_shown(const Session& s, const SkinPlan& plan);
    void draw_sample(QPainter& p, const BenchMap& map, const SkinChoices& skin) const;

    Pictures& pictures_;
};

}  // namespace yb
