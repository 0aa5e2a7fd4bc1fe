// Under: leg plates and channels on the underside, and room for the top to move with the seasons.
//
// Positions are in the top's frame (u along, v across), seen from above. Wood moves across the grain only
// (Wood Handbook eq. 13-3); steel does not. Every hole travels away from the fixed line as the top widens.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/figure/figure.h"
#include "core/flat/flat.h"
#include "core/resin/fill.h"
#include "core/wood/wood.h"

namespace yb {

enum class FixedLine { middle, left, right };

/// A steel plate on top of a leg or pair of legs, bolted up into the top.
struct LegPlate {
    double u_mm = 0, v_mm = 0;               ///< its middle
    double along_mm = 100, across_mm = 500;  ///< its size
    int bolts_across = 3, bolts_along = 1;
    bool operator==(const LegPlate&) const = default;
};

/// A steel channel let into the underside across the grain, to keep the top flat.
struct Channel {
    double u_mm = 0, v_mm = 0;
    double length_mm = 500;  ///< across the top
    double width_mm = 40, depth_mm = 12, wall_mm = 3;
    int bolts = 3;
    bool operator==(const Channel&) const = default;
};

struct UnderChoices {
    std::vector<LegPlate> plates;  ///< none: nothing is laid yet
    std::vector<Channel> channels;
    FixedLine fixed = FixedLine::middle;
    double bolt_mm = 8;
    double play_mm = 1;     ///< beyond the bolt and the travel, over the slot's length
    double edge_mm = 30;    ///< outermost bolt to the end of its plate or channel
    double insert_mm = 20;  ///< how deep insert and bolt go into the wood
    double plate_mm = 6;    ///< plate thickness
    bool plate_let_in = false;
    double feet_mm = 5;
    std::optional<double> day_moisture_pct;  ///< of the top on assembly day; empty: the slab's reading
    int helpers = 1;                         ///< people there to lift, the maker counted
    bool operator==(const UnderChoices&) const = default;
};

struct UnderInputs {
    const Slab& slab;
    const SlabShape& shape;
    const LayPlan& lay;
    const FlatPlan& flat;
    const FillPlan& fill;
    WantedTop top;
    Placement placement;
    UnderChoices choices;
    Climate room;
    Month shop_air;
    std::vector<Ring> gaps{};  ///< open rivers, on the slab: nothing to screw into
};

struct Slot {
    std::string part;               ///< "plate 1", "channel 2"
    Vec2 uv;                        ///< hole in the top
    double from_fixed_mm = 0;       ///< signed, positive to the left
    double travel_out_mm = 0;       ///< away from the fixed line, from the day to the dampest
    double travel_in_mm = 0;        ///< towards it, from the day to the driest
    double length_mm = 0;           ///< of the slot, bolt and play counted, up to the next half millimetre
    double bolt_from_inner_mm = 0;  ///< middle of the bolt on the day, from the end nearer the fixed line
    bool round = false;             ///< on the fixed line: a round hole, done up tight
};

struct Pocket {
    std::size_t channel = 0;
    double length_mm = 0;        ///< pocket, longer than the channel by the movement
    double stiffness_share = 0;  ///< of the channel in the stiffness across the grain it serves
};

struct UnderPlan : StepPlan {
    double day_pct = 0, low_pct = 0, high_pct = 0;
    double shrink_pct = 0;  ///< mean over the whole width
    double travel_mm = 0;   ///< of the whole width, driest to dampest
    double fixed_v_mm = 0;
    std::vector<Slot> slots;
    std::vector<Pocket> pockets;
    double leg_mm = 0;
    double top_kg = 0;
    double wood_left_mm = 0;  ///< above the inserts
};

UnderPlan plan_under(const UnderInputs& in);

/// Holes of a plate and of a channel in the top's frame.
std::vector<Vec2> holes_of(const LegPlate& plate, const UnderChoices& choices);
std::vector<Vec2> holes_of(const Channel& channel, const UnderChoices& choices);

Ring footprint(const LegPlate& plate);
Ring footprint(const Channel& channel);

/// Two plates a fifth in from each end and a channel inside each, to start from.
UnderChoices starting_under(const WantedTop& top);

/// Second moment of area in mm⁴ of a channel section (web up, two walls) about its own neutral axis.
double channel_inertia(double width_mm, double depth_mm, double wall_mm);

}  // namespace yb
