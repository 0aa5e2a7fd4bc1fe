// The maker's own figures in a plan: what each pace that is no operation's changes, what it is beside the starting value, where it is told.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/steps/pace/choices.h"

namespace yb {

struct Job;
struct Shop;

/// Lays the maker's own figures on what a job is planned with; those that are not used change nothing.
void with_rates(Shop& shop, Job& job, const std::vector<PaceFigure>& paces);

/// A pace in the unit of its figure.
struct OwnFigure {
    double value = 0, spread = 0;
};
/// Of a kind that has a unit, beside what shop and job start with; nothing for one that has none, or that starts with nothing.
std::optional<OwnFigure> own_figure(const PaceFigure& pace, const Shop& shop, const Job& job);
/// "yours, from 4 tables: 3.1 ± 0.4 m²/h"; where it has no unit, times the starting value: "× 1.2 ± 0.1".
Phrase yours(const PaceFigure& pace, const Shop& shop, const Job& job);
/// Its figure alone: "3.1 ± 0.4 m²/h".
Phrase figure_of(const PaceFigure& pace, const Shop& shop, const Job& job);

/// Puts what is the maker's own into the workings of the figures it went into. @param figures of a step.
/// @returns true where any was changed.
bool tell_rates(std::vector<Figure>& figures, const std::vector<PaceFigure>& paces, const Shop& shop, const Job& job);

}  // namespace yb
