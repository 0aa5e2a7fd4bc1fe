// Rip lines: the best straight line along an edge, clean of bark and wane on both faces and of rot, loose knots and
// pockets, with the least width given up.
#pragma once

#include <optional>
#include <vector>

#include "core/steps/makeup/makeup.h"

namespace yb {

/// Where sound wood ends on one side of a slab as laid, at stations along it.
struct EdgeLimit {
    double x = 0;
    double y = 0;     ///< sound wood on both faces, flaws at the edge left out
    double show = 0;  ///< the edge of the show face
};

/// @param high the edge at high y, otherwise that at low y.
/// @param x0,x1 the stretch of the slab that lies in the top.
/// @param bite_mm flaws that begin within so far of the edge are cut off with it.
std::vector<EdgeLimit> edge_limits(const Slab& slab, const SlabShape& shape, bool high, double x0, double x1, double bite_mm = 60);

struct RipLine {
    double y_mm = 0;         ///< at the middle of the stretch
    double slope = 0;        ///< rise over run
    double middle_x_mm = 0;  ///< where y_mm is told
    double given_up_mm = 0;  ///< mean width it takes off the show face
    double at(double x) const { return y_mm + slope * (x - middle_x_mm); }
};

/// The line that keeps the most width: for `high` it stays below every limit, otherwise above. The best line is the
/// edge of the limits' convex hull that spans their middle; steeper than `most_slope` it is held there. Exact.
/// Nothing for fewer than two limits.
std::optional<RipLine> best_rip(const std::vector<EdgeLimit>& limits, bool high, double most_slope = 0.06);

/// The same line for both leaves of a book: limits of the mate told in the frame of the first (see mate_frame()).
std::vector<EdgeLimit> narrower(std::vector<EdgeLimit> a, const std::vector<EdgeLimit>& b, bool high);

/// How a slab lies in the log against its neighbour: a shift along and across and a small turn that lays the outline of
/// `b` on that of `a`, both seen from above as they lay in the log (least squares on both edges).
struct LogShift {
    double dx = 0, dy = 0, angle_deg = 0;
    double misfit_mm = 0;  ///< root mean square of what is left, both edges
    Vec2 apply(Vec2 p) const;
};
/// @param a,b outlines of the faces that the saw parted, seen from above.
LogShift log_shift(const Ring& a, const Ring& b);

}  // namespace yb
