// The top that a slab suggests, for a job to begin with.
#pragma once

#include <optional>

#include "core/material/slab/slab.h"
#include "core/steps/lay/choices.h"

namespace yb {

struct FirstTop {
    WantedTop top;
    Placement placement;
};

/// The largest sensible one: both live edges, between the slab's end cracks and 30 mm in from its ends, as wide as its narrowest place
/// there, both to 10 mm; as thick as it comes after its rest, to the millimetre below. Of a disc the largest round about the middle of its
/// face, clear of the bark. Cracks that run further in than a quarter of the slab are left in: they are for the maker to judge. A slab
/// without a shape gives the usual top. @param settles_pct what the shop's air settles wood at; empty: not known, and it is taken to stay
/// flat.
FirstTop first_top(const Slab& slab, std::optional<double> settles_pct = {});

}  // namespace yb
