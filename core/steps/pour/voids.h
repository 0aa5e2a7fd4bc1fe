// Voids that are poured: what a lift of them heats up to.
#pragma once

#include <vector>

#include "core/material/resin/resin.h"
#include "core/steps/fill/fill.h"

namespace yb {

/// A void's lift larger than a cup is followed like a river's: a starting value.
inline constexpr double hot_from_l = 0.25;

/// Adds a caution for each void whose lift is larger than a cup and would get hotter than a pour may (PourChoices::peak_limit_c), simulated
/// as a layer of its depth: what lies around it cools it, so that this is the most. Says how many lifts stay below.
void heat_in_voids(FillPlan& fill, const std::vector<Resin>& resins, double shop_c);

}  // namespace yb
