// How well a piece of one slab would pass for the wood of another: same wood, same tree, rings that run alike, as dry.
#pragma once

#include <optional>

#include "core/geometry/geometry.h"
#include "core/slab/slab.h"

namespace yb {

struct PatchMatch {
    bool same_wood = false, same_tree = false;
    bool offcut = false;                 ///< of a slab that was cut before: nothing whole is spoilt
    std::optional<double> rings_deg;     ///< how far the rings' slants differ, where both piths are known
    std::optional<double> moisture_pct;  ///< how far their readings differ
    double score = 0;                    ///< the better the higher, from −10 to 10
};

/// @param from the slab it would be cut from, `at` there; @param under the slab it is let into, `where` there. Both in their own frames.
/// Rings' slant at a place: tan φ = distance off the middle line / distance to the pith. Colour is not looked at: hold them side by side.
PatchMatch patch_match(const Slab& from, Vec2 at, const Slab& under, Vec2 where);

}  // namespace yb
