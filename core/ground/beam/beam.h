// A plank on two supports: how far it bends under its own weight and a push. Euler and Bernoulli, E·I(x)·y'' = M(x), for the
// real width at every place. Check values in tests/beam. Lengths in mm, forces in N; downward is positive. Elastic: what years
// of load add is not in it.
#pragma once

#include <vector>

#include "core/ground/geometry/geometry.h"

namespace yb {

/// A plank of one thickness, as wide as its outline at each place along x.
struct Plank {
    std::vector<double> x_mm, width_mm;  ///< rising; two places at least
    double thickness_mm = 0;
    double moe_mpa = 0;  ///< modulus of elasticity along it
    double kg_m3 = 0;    ///< its own weight; 0: none
};

/// The widths of an outline at so many places along it, gaps between parts not counted.
/// @throws std::invalid_argument for an outline without length.
Plank plank_of(const Ring& outline, double thickness_mm, double moe_mpa, double kg_m3, int places = 400);

struct Push {
    double x_mm = 0, n = 0;
};

/// How far a plank has gone down at each of its places.
struct Bent {
    std::vector<double> x_mm, down_mm;
    double at(double x_mm) const;  ///< level beyond the ends
    double most_mm() const;        ///< the largest, its sign kept
};

/// Bends a plank that lies on two supports.
/// @throws std::invalid_argument where the supports are one, or one stands off the wood, or a measure is not above 0.
Bent bend(const Plank& plank, double support_1_mm, double support_2_mm, const std::vector<Push>& pushes = {});

}  // namespace yb
