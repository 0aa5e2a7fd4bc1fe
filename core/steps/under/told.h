// What Under says: figures, cautions, choices. Used by core/steps/under only.
#pragma once

#include <string>
#include <vector>

#include "core/steps/under/under.h"

namespace yb {

/// Found on the way to the plan.
struct UnderKnown {
    const Species* species = nullptr;  ///< of the first leaf
    std::string day_from;              ///< where the day's moisture is from
    std::string low_from, high_from;   ///< … the driest and the dampest: the room, the store, or the day itself
    std::vector<double> leaf_pct;      ///< moisture of each leaf on the day, 30 % at most
    Top::Widest wide;
};

void tell_under(const UnderInputs& in, const UnderKnown& of, UnderPlan& plan);

}  // namespace yb
