#pragma once

#include "app/kit/bench/step_view.h"
#include "core/shop/edit/tape_edits.h"

namespace yb {

class Bench;
class TapePanel;

/// Rack: all slabs standing at one scale, the chosen one on the bench, its tape table below it.
class RackView : public StepView {
  public:
    RackView(Bench& bench, TapePanel& tape) : bench_(bench), tape_(tape) {}
    Step step() const override { return step_key::rack; }
    QString empty_text(const Session& s) const override;
    QString strip_title(const Session& s) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Handle> handles(const BenchMap&, const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<TextField> texts() const override;
    std::vector<PickField> picks(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    std::vector<Look> looks(Session&) override;
    QString about(const Session& s) const override;
    QString help() const override;

  private:
    /// Opens the tape table on a sheet, or on the one it showed last, and gives it the keys.
    void type_tape(std::optional<TapeSheet> sheet = {});

    Bench& bench_;
    TapePanel& tape_;
    mutable FlawKind kind_ = FlawKind::crack;  ///< to be drawn next
};

}  // namespace yb
