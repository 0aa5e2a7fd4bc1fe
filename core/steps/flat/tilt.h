// The exact best tilt of a slab for flattening: a linear program over height readings.
//
// With the top readings (x, y, z_t) and bottom readings (x, y, z_b) inside the wanted outline, a tilt (a, b)
// leaves the thickness t(a, b) = min(z_t − a x − b y) − max(z_b − a x − b y): concave, piecewise linear. The
// program keeps a small set of binding readings, solves that by the dual simplex, adds the worst violated
// reading of each face and stops when none is violated by more than 1e-9 mm. True thickness is square to the
// tilted planes: t / sqrt(1 + a² + b²). Derivation in docs/methods.md.
#pragma once

#include <span>
#include <vector>

#include "core/ground/geometry/geometry.h"

namespace yb {

/// A tilt and the two planes z = height + a x + b y that bound the finished top.
struct Tilt {
    double a = 0, b = 0;      ///< rise per mm along x and y
    double top_mm = 0;        ///< height of the upper plane at (0, 0)
    double bottom_mm = 0;     ///< height of the lower plane at (0, 0)
    double thickness_mm = 0;  ///< square to the planes; negative when no wood is left
    int rounds = 0;           ///< how often the readings were gone through
    bool at_bound = false;    ///< it would go on past 1:2, further than tilts are looked for: a reading is wrong
    /// How far apart the tilts along x and along y are that leave as thick a slab; 0 where the readings fix it. Of those the
    /// least is taken: what they don't determine is not tilted.
    double loose_a = 0, loose_b = 0;
    bool fixed() const { return loose_a == 0 && loose_b == 0; }
    double top_at(Vec2 p) const { return top_mm + a * p.x + b * p.y; }
    double bottom_at(Vec2 p) const { return bottom_mm + a * p.x + b * p.y; }
    double slope_factor() const { return std::sqrt(1 + a * a + b * b); }
};

/// The tilt that leaves the thickest slab; of several that do, the least steep. Tilts are bounded to 1:2 either way, far beyond
/// any slab; where thickness would grow with the tilt without end (no readings of the two faces over one another) there is none
/// that way.
/// @throws std::invalid_argument when either face has no readings or a reading is not a number.
Tilt best_tilt(std::span<const Vec3> top, std::span<const Vec3> bottom);

/// The thickness that a given tilt leaves.
Tilt at_tilt(std::span<const Vec3> top, std::span<const Vec3> bottom, double a, double b);

/// The tilt that takes least from the top readings at their worst place, leaving `thickness_mm` (measured
/// along z). When that much cannot be had, returns best_tilt().
Tilt least_off_top(std::span<const Vec3> top, std::span<const Vec3> bottom, double thickness_mm);

/// Places all over a piece with the area that each stands for: what its surface is summed over.
struct WeighedFace {
    std::vector<Vec3> places;
    std::vector<double> weight;
};

/// The tilt that leaves `thickness_mm` (along z) inside the top and takes the least wood off the whole piece, the part beyond
/// the top counted: a linear program again, its sum built up cut by cut (Kelley 1960). When that much cannot be had, returns
/// best_tilt(). @throws std::invalid_argument where a place has no weight.
Tilt least_wood(std::span<const Vec3> top, std::span<const Vec3> bottom, const WeighedFace& all_top, const WeighedFace& all_bottom,
                double thickness_mm);

/// Readings of one of several slabs that are to be tilted alike. The signs turn the shared tilt into its own: a slab that lies
/// turned over about its length has sign_a −1, one that lies end for end both.
struct SlabReadings {
    std::vector<Vec3> top, bottom;
    double sign_a = 1, sign_b = 1;
};

/// One tilt for several slabs: that which leaves the thinnest of them as thick as it can be. @returns each slab's own planes.
std::vector<Tilt> shared_tilt(std::span<const SlabReadings> slabs);

}  // namespace yb
