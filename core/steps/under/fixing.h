// How a hole is made for what holds the top there: what is drilled into the wood and how deep, what is cut into plate, clip or
// button, how far it lets the top go.
//
// Starting values, to be set against the hardware at hand. Withdrawal: Wood Handbook FPL-GTR-190, eq. 8-9 (lag screws) and 8-3 (wood
// screws); inserts like lag screws of their outer diameter: an estimate.
#pragma once

#include <optional>

#include "core/steps/under/choices.h"

namespace yb {

struct HoleAsked {
    double travel_out_mm = 0, travel_in_mm = 0;  ///< away from the fixed line and towards it, from the day
    bool on_fixed_line = false;
    double thickness_mm = 0;                 ///< finished, at the hole
    double let_in_mm = 0;                    ///< a plate's pocket that it starts in
    std::optional<double> specific_gravity;  ///< of the wood at 12 %
};

struct HoleMade {
    double drill_mm = 0;           ///< into the wood
    double stop_mm = 0;            ///< so deep, from the face that is drilled
    double above_mm = 0;           ///< of wood that stays above
    double opening_mm = 0;         ///< across, in plate, clip or button: its slot's length, or its diameter
    double washer_mm = 0;          ///< covers the opening wherever the bolt stands; 0: none needed
    double gap_mm = 0;             ///< left open on the day, between tongue and the end of its kerf; 0 for plates
    double lets_go_mm = 0;         ///< the way it lets the top go to either side, at least
    bool fits = true;              ///< … which is as far as the top goes
    std::optional<double> pull_n;  ///< pulls out at about, wood or insert, whichever gives first: an estimate
    bool insert_decides = false;   ///< … the insert, by its own force
};

/// A figure-of-eight plate's two holes lie so far apart, mm; it may swing half a right angle to each side.
inline constexpr double eight_mm = 22;
/// The tongue of a clip or a button goes so deep into its kerf, and holds with this much of it at least, mm.
inline constexpr double tongue_mm = 10, tongue_holds_mm = 4;

/// What pulls for years is held by a share of what pulls out in a test: a starting value.
inline constexpr double lasting_share = 0.2;

/// @throws std::invalid_argument for a thickness that is not above 0.
HoleMade make_hole(const HoleAsked& hole, const UnderChoices& choices);

}  // namespace yb
