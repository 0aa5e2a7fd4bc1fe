#pragma once

#include <QTimer>

#include "app/kit/bench/step_view.h"

namespace yb {

struct FlatPlan;

/// Flat: what comes off where as a tint, shims to be moved, lanes and their feed; the dial cuts layer after layer.
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
    std::optional<Dial> dial(const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;

  private:
    /// How high a face stands over its finished plane, a byte a place; while nothing changes only its colours do.
    const QImage& heights_of(const FlatPlan& plan, const Ring& rough, std::size_t face, const BenchMap& map, const QRectF& box) const;
    void draw_removal(QPainter&, const BenchMap&, const Session&, std::size_t face) const;
    mutable QImage heights_, removal_;
    mutable std::pair<const void*, QString> heights_for_;
    mutable double highest_ = 1;
    QTimer play_;
};

}  // namespace yb
