// Under: leg plates and channels on the underside, and room for the top to move with the seasons.
//
// Positions are in the top's frame (u along, v across), seen from above. Wood moves across the grain only
// (Wood Handbook eq. 13-3); steel does not. Every hole travels away from the fixed line as the top widens.
#pragma once

#include <array>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/figure/part.h"
#include "core/material/wood/wood.h"
#include "core/steps/top/top.h"
#include "core/steps/under/base.h"
#include "core/steps/under/choices.h"
#include "core/steps/under/fixing.h"
#include "core/steps/under/tip.h"

namespace yb {

struct UnderInputs {
    const Top& top;  ///< ready
    UnderChoices choices;
    Climate room;
    Month shop_air;
    std::optional<double> halves_u_mm{};  ///< brought in two halves, cut there
    Climate store{};                      ///< where it waits, if it does
    Labour labour{};                      ///< of a base that is made
};

struct Slot {
    Part part;                          ///< a "plate" or a "channel"
    Vec2 uv;                            ///< hole in the top
    double held_v_mm = 0;               ///< the line it travels from: the base's fixed line; inside a channel the channel's own middle
    double from_fixed_mm = 0;           ///< from there, signed, positive to the left
    double floor_mm = 0;                ///< of the pocket that it starts in, above the underside: 0 on the wood
    double travel_out_mm = 0;           ///< away from the fixed line, from the day to the dampest
    double travel_in_mm = 0;            ///< towards it, from the day to the driest
    double length_mm = 0;               ///< of the slot, bolt and play counted, up to the next half millimetre
    double bolt_from_inner_mm = 0;      ///< middle of the bolt on the day, from the end nearer the fixed line
    bool round = false;                 ///< on the fixed line: a round hole, done up tight
    Vec2 way{0, 1};                     ///< it travels so away from the fixed line: square to its leaf's grain; a cross-cut's outward
    std::array<double, 12> month_mm{};  ///< travel in each month, January first, away from the fixed line positive, from the day
    HoleMade made;                      ///< how it is drilled, and what holds there
};

/// With the channels, and without: what one face damper than the other does to a top that is free.
struct HeldFlat {
    double free_mm = 0;             ///< cup without them
    double held_mm = 0;             ///< … with them
    double share = 0;               ///< of all channels in the stiffness across the grain
    double bolt_n = 0;              ///< pulls at the middle bolt of the worst of them; of one on two bolts at each
    int bolts = 0;                  ///< of that one
    std::optional<double> holds_n;  ///< what a bolt there holds for years: an estimate
};

/// The way to where it stands: through the narrowest door on it.
struct Passage {
    bool top_alone = true;  ///< flat or on its edge
    bool assembled = true;  ///< end first, upright or on its side
};
/// @param height_mm of the table. A length never turns in a doorway: bends of stairs are the maker's judgement.
Passage through_door(double width_mm, double thick_mm, double height_mm, double door_wide_mm, double door_high_mm);

/// The longest thing so thick that goes round a square bend between two passages, carried level: the least over all angles of
/// (a·cos θ + b·sin θ − t)/(sin θ·cos θ); tilted it gets a little further. 0 where it is thicker than a passage is wide.
/// Check: 1000 by 1000, thickness 0: 2828 mm; 1000 by 1000, 100: 2628 mm. @throws std::invalid_argument for a passage of no width.
double longest_round_bend_mm(double one_mm, double other_mm, double thick_mm);

struct Pocket {
    std::size_t channel = 0;
    double length_mm = 0;        ///< pocket, longer than the channel by the movement
    double stiffness_share = 0;  ///< of the channel in the stiffness across the grain it serves
};

/// A place where the base carries a plate, and how far the nearest of it lies from the plate: 0 where it stands below it. Nothing of a
/// bought base, or where none is built.
struct Carries {
    std::size_t plate = 0;
    double misses_mm = 0;
    Vec2 nearest;  ///< of the base, seen from above
};

struct UnderPlan : StepPlan {
    double day_pct = 0, low_pct = 0, high_pct = 0;  ///< moisture that moves wood: 30 % at most
    double read_pct = 0;                            ///< what was read or typed for the day, of several leaves the dampest
    double shrink_pct = 0;                          ///< mean over the wood of the whole width
    double travel_mm = 0;                           ///< of the wood at its widest, driest to dampest
    double wood_mm = 0;                             ///< how much of the width is wood there
    double fixed_v_mm = 0;
    std::vector<double> leaf_fixed_v_mm;  ///< of leaves that lie apart, the line of each; empty where one line holds all
    std::vector<Slot> slots;
    std::vector<Pocket> pockets;
    double leg_mm = 0;
    double stays_mm = 0;  ///< below the finished underside, under the plate where it stands lowest; 0 where it was made flat
    double top_kg = 0;
    double base_kg = 0;                           ///< of one that is made here its own wood; else as typed
    double wood_left_mm = 0;                      ///< above the inserts
    std::array<double, 12> month_pct{};           ///< the wood's own moisture through the year, lagged behind the air
    double lag_days = 0;                          ///< τ: how late the year comes in the wood is comes_later_days() of it
    std::optional<Tipping> tipping;               ///< with the base under it; nothing while no feet are known
    std::vector<Vec2> feet;                       ///< in the top's frame
    BasePlan base;                                ///< empty for a bought one
    std::vector<Carries> carries;                 ///< one for each plate of a base that is built
    std::string base_wrong;                       ///< why it can't be built, in a sentence; empty where it can
    std::vector<std::array<double, 4>> shims_mm;  ///< of each plate's corners, where its gaps were read; else empty
    double clear_mm = 0;                          ///< for knees: floor to the lowest of what hangs under the top between the plates
    double end_overhang_mm = 0;                   ///< of the top past the outermost plate, the smaller of both ends
    std::optional<HeldFlat> held;                 ///< where channels are laid
    Passage passage;
    std::optional<double> stair_longest_mm;  ///< goes round its landing, carried on edge; nothing without a stair
    double carried_mm = 0;                   ///< the longer of what is carried in: the top, or its longer half
    std::vector<double> foot_out_mm;         ///< of each foot, where its gap to the floor was read: screwed out or packed by so much
    std::optional<double> sag_mm;            ///< between the plates, its own weight and somebody on it, twice over for years of load
};

UnderPlan plan_under(const UnderInputs& in);

/// What holds the top at a hole: a channel has slots whatever holds the plates, but for round ones.
Fixing held_by(const Slot& slot, const UnderChoices& choices);

/// The lines that hold it: one, or one a leaf where leaves lie apart.
std::vector<double> lines_held(const UnderPlan& p);

/// Each plate, channel and hole as a thing to be picked. @param to_bench where the top's frame lies on the bench.
std::vector<Thing> under_things(const UnderPlan& p, const UnderChoices& choices, const WantedTop& top, const Frame& to_bench);

/// Two plates a fifth in from each end and a channel inside each, to start from.
UnderChoices starting_under(const WantedTop& top);

/// Second moment of area in mm⁴ of a channel section (web up, two walls) about its own neutral axis.
double channel_inertia(double width_mm, double depth_mm, double wall_mm);

/// What the step minds, in a few words each.
std::span<const Headline> under_headlines();

}  // namespace yb
