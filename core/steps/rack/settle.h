// Settling: the days a slab lies in the shop before it is worked, so that its moisture evens out from middle to face.
//
// Starting values, a maker's, to be changed slab by slab: a week from the kiln, two from the open air.
#pragma once

#include <optional>
#include <string>

#include "core/ground/figure/figure.h"
#include "core/material/slab/slab.h"

namespace yb {

inline constexpr double settle_kiln_days = 7, settle_air_days = 14;

/// Days it lies: as typed, else by how it was dried. Nothing where neither is said.
std::optional<double> settle_days_of(const Slab& slab);

/// Days of it still to come on a day, from the day it came; all of them where that is not known. @param on ISO date; where it can't be
/// read, all of them.
double settle_left_days(const Slab& slab, const std::string& on);

/// Until when it lies, or for how long, with its working. Nothing where nothing is said.
std::optional<Figure> settle_figure(const Slab& slab);

/// Said to come from the kiln, and reads damper than a kiln leaves it: nothing where that is not so. @param dry_pct dry enough for its
/// room.
std::optional<Caution> kiln_damp(const Slab& slab, double dry_pct);

}  // namespace yb
