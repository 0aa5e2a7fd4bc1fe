#pragma once

#include <QObject>
#include <QTimer>

#include "app/ground/slow/slow.h"
#include "app/kit/bench/step_view.h"
#include "app/steps/pour/heat_section.h"
#include "core/ground/cure/cure.h"

namespace yb {

class Bench;

/// Pour: the river in its form, held down and dammed; the strip shows how hot it gets along the pour, the end view heat or cure at
/// the gauge through the hours. Sections are followed beside the work, shown as they come.
class PourView : public StepView {
  public:
    explicit PourView(Bench& bench);
    Step step() const override { return step_key_; }
    QString strip_title(const Session& s) const override;
    QString end_note(const Session& s) const override;
    double end_rise() const override { return 2; }
    bool shows_finished() const override { return true; }
    void draw_plan(QPainter&, const BenchMap&, const Session&) const override;
    std::vector<Label> labels(const BenchMap&, const Session&) const override;
    void draw_strip(QPainter&, const BenchMap&, const Session&) const override;
    void draw_end(QPainter&, const BenchMap&, const Session&) const override;
    std::optional<Dial> dial(const Session&) const override;
    std::vector<Field> fields(const Session&) const override;
    std::vector<Action> actions(Session&) override;
    QString help() const override;

  private:
    /// What a section is followed for.
    struct Asked {
        Kinetics kinetics;
        Section section;
        bool operator==(const Asked&) const = default;
    };
    struct Row {
        Kinetics kinetics;
        Section section;
        std::vector<double> widths;
        bool operator==(const Row&) const = default;
    };
    std::optional<Asked> section_here(const Session& s) const;
    const Cured* here(const Session& s) const;
    /// The section at the gauge, at the dial's hour; nothing while it is followed.
    std::optional<HeatSection> heat(const Session& s) const;
    /// Peaks of a few widths, between which those of the stations lie.
    std::optional<Row> row(const Session& s) const;

    Step step_key_;
    Bench& bench_;
    QObject owner_;
    mutable QTimer soon_;
    mutable std::optional<Asked> wanted_;
    mutable Slow<Asked, Cured> section_;
    mutable Slow<Row, std::vector<double>> peaks_;
};

}  // namespace yb
