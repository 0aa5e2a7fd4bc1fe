// Flattening of a top of several leaves, told as one.
#pragma once

#include <string>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/steps/flat/flat.h"

namespace yb {

struct WholeFlatInputs {
    /// A leaf as it is flattened by itself.
    struct Of {
        const FlatPlan& flat;
        const Slab& slab;
        const LayPlan& lay;
        Placement placement;
    };
    std::vector<Of> leaves;  ///< one at least
    double wanted_mm = 0;    ///< thickness
    const FlatChoices& choices;
    const Sled& sled;
    Frame bench;  ///< of the whole top, where cautions of a leaf are shown
    const Units& units;
};

/// What they come to, what comes off, passes and hours in all; a caution that is the same for every leaf is told once.
FlatPlan plan_whole_flat(const WholeFlatInputs& in);

}  // namespace yb
