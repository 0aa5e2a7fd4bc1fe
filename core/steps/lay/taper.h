// When two ends that differ in width are told: one limit for a slab and for leaves laid together.
#pragma once

namespace yb {

/// More than a hundredth of the wanted width is seen from the end of the room.
inline bool taper_shows(double taper_mm, double width_mm) { return taper_mm > 0.01 * width_mm; }

}  // namespace yb
