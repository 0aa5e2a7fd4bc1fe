// Leaf: one slab in a top, and what was decided for it alone.
#pragma once

#include <string>
#include <vector>

#include "core/steps/fill/choices.h"
#include "core/steps/flat/choices.h"
#include "core/steps/lay/choices.h"

namespace yb {

struct Leaf {
    std::string slab;  ///< id; empty until one is chosen
    Placement placement;
    std::vector<Support> supports;  ///< shims, on the slab as laid; empty: four, a fifth in from each end
    std::vector<FlatRound> rounds;  ///< what was read after each rest, the earliest first
    std::vector<VoidFill> voids;    ///< flaws not named here take the advice
    bool operator==(const Leaf&) const = default;
};
void fields(FieldVisitor& v, Leaf& l);

}  // namespace yb
