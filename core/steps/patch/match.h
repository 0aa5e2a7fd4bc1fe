// How well a piece of one slab would pass for the wood of another: same wood, same tree, rings that run alike, as dry.
#pragma once

#include <optional>

#include "core/ground/geometry/geometry.h"
#include "core/ground/picture/picture.h"
#include "core/material/slab/slab.h"

namespace yb {

struct PatchMatch {
    bool same_wood = false, same_tree = false;
    bool offcut = false;                 ///< of a slab that was cut before: nothing whole is spoilt
    std::optional<double> rings_deg;     ///< how far the rings' slants differ, where both piths are known
    std::optional<double> moisture_pct;  ///< how far their readings differ
    std::optional<double> colour;        ///< how far their pictures' colours differ there (CIE 1976 ΔE); 2 is seen by a good eye
    double score = 0;                    ///< the better the higher, from −10 to 10
};

/// @param from the slab it would be cut from, `at` there; @param under the slab it is let into, `where` there. Both in their own frames.
/// Rings' slant at a place: tan φ = distance off the middle line / distance to the pith.
/// @param from_face,under_face pictures of their faces A, nullptr for none: colours are means of 40 mm about the place. Pictures taken
/// in another light differ for that alone: hold the pieces side by side.
PatchMatch patch_match(const Slab& from, Vec2 at, const Slab& under, Vec2 where, const Picture* from_face = nullptr,
                       const Picture* under_face = nullptr);

}  // namespace yb
