// Looking a slab over: nine things to look at, in any order, each known or still a blank. A blank is no fault; what is known and wrong
// is told as a caution.
#pragma once

#include <string_view>
#include <vector>

#include "core/ground/measure/measure.h"
#include "core/material/slab/slab.h"

namespace yb {

struct LookedAt {
    const char* key;    ///< "edges", "thickness", "moisture", "twist", "faces", "flaws", "pith", "price", "picture"; then "wood", "tree"
    const char* label;  ///< "Length and widths"
    bool known = false;
    Phrase says{};         ///< what is known, short; of a blank what can't be told without it
    bool counted = true;   ///< of the nine; wood and tree are names, asked for beside them
    bool or_none = false;  ///< a blank that can be left with "looked, none" (Slab::no_flaws, no_pith, faces_looked)
};

/// The nine and the two names, in the order a maker goes. @param shape of the slab.
std::vector<LookedAt> looked_at(const Slab& slab, const SlabShape& shape);

/// Whether what a shape says of its slab is only that something is not measured yet: a blank of the list, no caution.
bool only_blank(std::string_view caution_key);

}  // namespace yb
