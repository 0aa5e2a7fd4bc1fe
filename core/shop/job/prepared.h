// A slab made ready once, turned and shaped, for planning many placements of the same slab quickly.
#pragma once

#include <memory>

#include "core/steps/makeup/arrange.h"

namespace yb {

struct PreparedSlab {
    std::shared_ptr<const BothWays> ways;  ///< both ways up, for trying make-ups
    Slab slab;
    SlabShape shape;
    double thickness_mm = 0;  ///< mean
    double whole_mm = 0;      ///< that the best tilt leaves of the whole uncut slab
    std::vector<Figure> figures;
    std::vector<Caution> cautions;  ///< of its measuring, and what is missing for the steps ahead
};

}  // namespace yb
