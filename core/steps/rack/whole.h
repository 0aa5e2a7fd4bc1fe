// Rack as a step of a job: what its slab is, or its slabs together.
#pragma once

#include <vector>

#include "core/ground/figure/figure.h"
#include "core/material/slab/slab.h"
#include "core/material/wood/wood.h"

namespace yb {

/// A slab as it was measured and looked over.
struct RackSlab {
    const Slab& slab;
    bool usable = false;      ///< it has a shape
    double thickness_mm = 0;  ///< mean
    const std::vector<Figure>& figures;
    const std::vector<Caution>& cautions;
};
struct RackInputs {
    std::vector<RackSlab> slabs;  ///< one at least
    const Climate& air;           ///< they dry in
    const Climate& room;          ///< where the table will stand
    double dry_pct = 0;           ///< moisture that is dry enough for it
    const Units& units;
    double drying_times = 1;  ///< the rule of thumb
};

/// The first of them alone, with when it will be dry.
StepPlan plan_rack(const RackInputs& in);
/// What they are together: ranges and sums, each with what every slab adds, and the one that dries longest.
StepPlan plan_whole_rack(const RackInputs& in);

}  // namespace yb
