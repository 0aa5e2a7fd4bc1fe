// Cup: how far a flat board bends across its width when its moisture changes, by its rings or by one face alone.
//
// A strip whose free strain across at depth z is ε(z) bends to κ = (12/t³) ∫ ε(z)·z dz over its thickness, z from its middle
// (docs/methods.md, Flattening). Hollow is positive: the edges stand up seen from the upper face. Lengths in mm.
#pragma once

#include <optional>
#include <vector>

#include "core/material/wood/wood.h"

namespace yb {

/// Change of length over length for a total shrinkage in percent, moisture from one percentage to another (Wood Handbook eq. 13-3).
double strain(double shrinkage_pct, double from_mc, double to_mc);

/// Cup from the rings, both faces at the same moisture: S(φ) with tan φ = y/h differs through the thickness and over the width.
/// @param pith_mm height of the pith above the middle of the board, below it negative. @returns nothing where the species has no
/// figures. @throws std::invalid_argument for a moisture outside 0–30 % or a board without width or thickness.
std::optional<double> ring_cup_mm(const Species& species, double pith_mm, double width_mm, double thickness_mm, double from_mc,
                                  double to_mc);

/// Curvature of a board whose upper face is so many percent damper than its underside, 1/mm, hollow positive: −c·ΔM/t, linear through the
/// thickness. @param mc_pct mean moisture. Tangential shrinkage: the most it can be. Nothing where the species has no figures.
/// @throws std::invalid_argument for a thickness not above 0.
std::optional<double> face_curvature(const Species& species, double thickness_mm, double mc_pct, double damper_pct);

/// A stretch across a top, bent alike all over; resin stays flat.
struct Arc {
    double width_mm = 0, per_mm = 0;  ///< curvature, hollow positive
};
/// How far such stretches, one beside the other, stand out of the straight line between their two ends: the most, hollow positive. One
/// alone: κ·w²/8. @throws std::invalid_argument for a stretch of less than no width.
double hollow_mm(const std::vector<Arc>& across);

/// Cup of a board whose upper face is so many percent damper than its underside, linear through the thickness: κ = c·ΔM/t, hollow
/// κ·w²/8, negative (crowned) for a damper upper face. @param mc_pct mean moisture. Tangential shrinkage: the most it can be.
/// Check: walnut, 2 %, 45 mm thick, 900 mm wide: 12.3 mm.
std::optional<double> face_cup_mm(const Species& species, double width_mm, double thickness_mm, double mc_pct, double damper_pct);

}  // namespace yb
