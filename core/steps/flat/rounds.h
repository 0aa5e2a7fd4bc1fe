// Rest and repeat: what a slab has done between two flattenings, what it has left, and whether it is still moving.
#pragma once

#include <optional>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/steps/flat/choices.h"
#include "core/steps/flat/shims.h"
#include "core/steps/flat/tilt.h"

namespace yb {

/// What one reading after a rest comes to.
struct RoundPlan {
    std::size_t round = 0;
    double thickest_mm = 0;                    ///< that flattening both faces once more leaves
    double off_show_mm = 0, off_under_mm = 0;  ///< at the worst places, for that thickness
    std::vector<Shim> shims;                   ///< under the supports, for the show face
    /// How fast the quickest of bow, cup and twist went since the round before; empty for the first.
    std::optional<double> mm_a_day;
    bool still_moving = false;  ///< more than 0.1 mm a day
    /// Days from this reading until it goes slower than that, by the curve that fits three readings or more:
    /// v(t) = v∞ + c·exp(−t/τ), least squares.
    std::optional<double> days_more;
};

/// How high the show face stands off a plane at a place of the piece, mm: u and v run from −1 to 1 along and across;
/// bow·u² + cup·v² + (twist/4)·u·v.
double moved_at(const FlatRound& r, double u, double v);

/// @param rough the piece. @param supports where shims stand. @param stock_mm of shims.
std::vector<RoundPlan> plan_rounds(const std::vector<FlatRound>& rounds, const Ring& rough, const std::vector<Support>& supports,
                                   const std::vector<double>& stock_mm);

}  // namespace yb
