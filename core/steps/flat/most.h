// The most that a slab or leaf gives: the tilt of each aim, and what a rest between roughing and the last pass takes of it.
//
// Roughed, a piece stands its allowance outside the finished planes, and nothing outside them where it was that thin from the start. While
// it rests it bends by its cup, both faces alike (cup·v², v from −1 to 1 across the piece); planed flat again by the best tilt it gives
// what is left (docs/methods.md, Flattening).
#pragma once

#include <optional>
#include <vector>

#include "core/material/slab/slab.h"
#include "core/steps/flat/choices.h"
#include "core/steps/flat/tilt.h"

namespace yb {

/// The thickest that one tilt leaves of a slab inside an outline on it, mm; nothing where there is no outline or no wood.
std::optional<double> thickest_inside(const SlabShape& shape, const Ring& outline);

/// The thickest that one tilt leaves of the whole uncut slab, mm.
double whole_thickness(const SlabShape& shape);

/// The places of both faces that decide the tilts of a slab inside an outline on it, and the best of them. Empty where there is no
/// outline or no wood.
struct Solved {
    std::vector<Vec3> top, bottom;
    Tilt best;
    bool empty() const { return top.empty() || bottom.empty(); }
};
Solved solved_inside(const SlabShape& shape, const Ring& outline);

/// The tilt of an aim, both planes as far out as it lets them. @param wanted_mm of the top. @param rough the piece.
/// @throws std::invalid_argument where nothing is solved.
Tilt tilt_of(FlatAim aim, const Solved& solved, double wanted_mm, const SlabShape& shape, const Ring& rough);

/// Two planes brought nearer to each other, to so many mm: shared out between both faces, from the show face where the underside stays,
/// from underneath for every other aim.
Tilt thinned(Tilt planes, FlatAim aim, double to_mm);

/// How far a piece is expected to cup across by its rings while it settles in the shop, mm, hollow positive; nothing where its species, its
/// pith, its moisture or the shop's air is not known, or it is a cross-cut. @param thickness_mm nothing is expected of one without.
std::optional<double> settling_cup_mm(const Slab& slab, std::optional<double> settles_pct, double wide_mm, double thickness_mm);

/// What is left of a piece that was roughed to an allowance outside two planes, cupped so far across and planed flat again, mm, inside an
/// outline; nothing where there is no wood. @param rough the piece, that cups over its whole width.
std::optional<double> after_cupping_mm(const SlabShape& shape, const Ring& outline, const Ring& rough, const Tilt& planes,
                                       double allowance_mm, double cup_mm);

/// What a rest takes of a piece.
struct RestTakes {
    double mm = 0;       ///< of the thickness that the tilt leaves; never more than all of it
    double cup_mm = 0;   ///< that it cups by; 1 where it is not known
    bool known = false;  ///< the cup is expected by the rings, and `mm` is taken off
};
/// @param planes of the thickest that the chosen tilt leaves. @param known_only a cup that is not known is not followed. @returns nothing
/// where nothing is planed flat after a rest.
std::optional<RestTakes> rest_takes(const Slab& slab, const SlabShape& shape, const Ring& outline, const Ring& rough, const Tilt& planes,
                                    const FlatChoices& choices, std::optional<double> settles_pct, bool known_only = false);

/// The thickest that one tilt leaves of a slab inside an outline on it, what its expected cup takes while it rests taken off, mm; nothing
/// where there is no outline or no wood.
std::optional<double> rested_inside(const Slab& slab, const SlabShape& shape, const Ring& outline, const Ring& rough,
                                    const FlatChoices& choices, std::optional<double> settles_pct);

}  // namespace yb
