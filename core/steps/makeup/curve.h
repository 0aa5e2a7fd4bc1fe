// Curved joints: a fair curve along an edge, the template it is cut from, and the pair of guide bushings.
//
// One template cuts both edges: one with the cutter inside the guide line, the other outside it. The bushings'
// diameters must then differ by twice the cutter's. The curve may nowhere turn tighter than the larger bushing's radius
// plus the offset of the edge cut with it, or the bushing no longer follows.
#pragma once

#include <optional>
#include <vector>

#include "core/ground/geometry/geometry.h"

namespace yb {

/// A fair line below a wavy edge: as near to it as it comes without crossing it or turning tighter than
/// `least_radius_mm`. @param edge rising x. @returns as many points, evenly spread over the same x.
/// Each point of the edge is rolled over by a circle of that radius from below (a morphological opening of the
/// wood below the edge and of the air above the line), then smoothed.
std::vector<Vec2> fair_curve(const std::vector<Vec2>& edge, double least_radius_mm);

/// Least radius of curvature of a line of points, mm; 1e9 for a straight one. Circle through each point and those
/// about `span_mm` away on either side.
double least_radius(const std::vector<Vec2>& line, double span_mm = 40);

/// The line moved sideways by so many mm, to the left of its direction for positive. Loops are cut off.
std::vector<Vec2> offset_line(const std::vector<Vec2>& line, double by_mm);

struct BushingPair {
    double inner_mm = 0, outer_mm = 0;  ///< diameters: of the edge cut near the guide and of its mate
    double template_off_mm = 0;         ///< the template's edge lies so far from the joint, towards the right leaf
    double needs_radius_mm = 0;         ///< the least radius that the curve may have
};
/// The smallest pair at hand whose diameters differ by twice the cutter's; nothing when there is none.
std::optional<BushingPair> bushings_for(double cutter_mm, std::vector<double> at_hand_mm);

}  // namespace yb
