// The rest between roughing and the last pass: what it does by how the faces are left.
#pragma once

#include <optional>

#include "core/material/wood/wood.h"
#include "core/steps/flat/choices.h"

namespace yb {

/// One face damper by so many percent, left down on a bench overnight: a starting value.
inline constexpr double face_down_pct = 2;

struct RestDoes {
    std::optional<double> cup_mm;  ///< how far it cups by the rest alone; nothing where the species has no figures
    double settles = 0;            ///< share of what the wood still has to lose or take up that goes in the rest, 0 to 1
    double times = 1;              ///< so many times as long for the same as with air on both faces; 0: never
};

/// Bare wood follows the air with τ of its thickness (lag.h); one face shut it dries like a board twice as thick; wrapped not at all.
/// @param species of the slab, nullptr where it is not named. @param width_mm,thickness_mm of the piece as it lies; nothing is told of one
/// without thickness.
RestDoes rest_does(Rests how, const Species* species, double width_mm, double thickness_mm, double rest_h);

}  // namespace yb
