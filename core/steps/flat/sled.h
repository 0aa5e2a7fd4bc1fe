// The sled: what of it shows in the work – sag, steps and hollows between lanes, how far the bit stands out, what the router can
// take – the bed it runs over, and the parts it is built of.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/steps/flat/choices.h"

namespace yb {

/// The thinnest spacer board that brings the stick-out to the allowed one, or 0 where none is needed; empty
/// when no board at hand does.
std::optional<double> spacer_for(double stickout_mm, const Sled& sled);

/// How far the sled's beams sag at mid-span under the router, mm: F·L³/(48·E·I), Euler and Bernoulli.
double sled_sag_mm(const Sled& sled);

/// From one lane to the next, mm: cutter × (1 − overlap).
double lane_mm(const Sled& sled);
/// Lanes across `cover_mm`: ceil(cover / (d·(1 − overlap))) + 1.
int lanes_for(double cover_mm, const Sled& sled);
/// The step that a cutter out of tram across the lanes leaves between two, mm: s·θ.
double lane_step_mm(const Sled& sled);
/// How hollow a cutter out of tram along the feed leaves each lane, mm: θ·(r − √(r² − s²/4)).
double lane_hollow_mm(const Sled& sled);

/// What a layer takes at the cutter, W: specific energy of cutting 18 N/mm² at a specific gravity of 0.5, in its proportion, times
/// width between lanes, depth and feed; starting value, see docs/methods.md.
double cutting_w(const Sled& sled, double specific_gravity);

/// A bed from six gaps under a straightedge: nine places of it – corners, middles of sides and ends, its middle – stand at
/// heights that follow from them up to a plane, and a plane is all that flatness leaves open (it has to be flat, not level).
struct BedCheck {
    /// What to put under the bed at each place to bring it up to the highest, mm: front row from the left, middle row, back row.
    std::array<double, 9> shim_mm{};
    double worst_mm = 0;  ///< highest over lowest
    double twist_mm = 0;  ///< what tells the two diagonals apart: a corner out of the plane of the other three
    std::size_t lowest = 0;
};
inline constexpr double flat_enough_mm = 0.5;
/// Nothing where a gap was not read.
std::optional<BedCheck> check_bed(const Bed& bed);
/// "front left", "middle", …
const char* name_of_bed_place(std::size_t place);

/// A part of the sled and its rails, to be cut.
struct SledPart {
    const char* name;
    int count = 1;
    double length_mm = 0, width_mm = 0, thick_mm = 0;
};
/// @param piece_long,piece_wide of what is to be flattened, mm: rails run past it by a sled at each end.
std::vector<SledPart> sled_parts(const Sled& sled, double piece_long_mm);

}  // namespace yb
