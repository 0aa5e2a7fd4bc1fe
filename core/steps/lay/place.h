// Where a top of a wanted length lies widest in a slab: over its place along the slab and its angle.
#pragma once

#include "core/ground/geometry/stations.h"
#include "core/steps/lay/lay.h"

namespace yb {

/// What a place is judged by: how wide it is between sawn edges on both faces, between both live edges of the show face, or
/// from one live edge of the show face (the one at +y, the one at −y) to a sawn edge on both faces.
enum class WideBy { sawn, live, live_high, live_low };

struct Widest {
    Placement placement;      ///< the top's middle; width and length are the caller's to set
    double width_mm = 0;      ///< of the widest rectangle, sound wood on both faces; 0 where none lies in the slab
    double narrowest_mm = 0;  ///< edge to edge of the show face there, for tops whose live edges stay
    double one_live_mm = 0;   ///< from the live edge that stays to where the other can be sawn
    double by(WideBy how) const { return how == WideBy::sawn ? width_mm : how == WideBy::live ? narrowest_mm : one_live_mm; }
};

/// Branch and bound over the angle: at one angle the widest place along the slab is found over every station; a span of
/// angles is left out when even the most that turning can gain (half the length at either end, on both edges) does not
/// reach the best found. Ends when no span can better it by more than `close_enough`.
Widest widest_top(const SlabShape& shape, double length_mm, WideBy by = WideBy::sawn, double most_angle_deg = 5,
                  double close_enough = 0.002);

/// The same at one angle only: what widest_top() is checked against. @param step_mm between places tried.
Widest widest_at(const SlabShape& shape, double length_mm, double angle_deg, WideBy by, double step_mm = 5);

/// What a slab gives where a wanted top does not lie in it anywhere.
struct Trade {
    Widest at_length;      ///< the wanted length kept, as wide as it can be had
    double wide_mm = 0;    ///< … with the live edges that stay
    double length_mm = 0;  ///< that the wanted width can be had at, to 1 mm; 0 where it cannot
    Widest at_width;       ///< where it lies then
    bool fits = false;     ///< the wanted size lies in it somewhere
};

/// Width for length and length for width: how wide a top can be is never more the longer it is, so that halving finds the length.
/// @param top a rectangle. @param most_angle_deg either way of the slab's chalk line.
Trade trade_of(const SlabShape& shape, const WantedTop& top, double most_angle_deg = 8);

}  // namespace yb
