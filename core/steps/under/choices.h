// Under, what the maker decides: plates, channels, bolts. Positions are in the top's frame (u along, v across), seen from
// above.
#pragma once

#include <optional>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"
#include "core/material/wood/wood.h"

namespace yb {

namespace step_key {
inline constexpr Step under{"under"};
}

enum class FixedLine { middle, left, right };
/// What covers the wood: how slowly moisture goes through it.
enum class Covered { bare, oil, film };
/// What holds the top to its base.
enum class Fixing { slots, oversize, figure_eight, clips, buttons };
/// What stands under the top.
enum class BaseKind { bought, frames, legs, trestle, pedestal, cross, panels };
/// How the bars of a base meet at its corners.
enum class BarJoint { mitre, half_lap, tenon };
enum class InsertKind { screw_in, hammer_in, wood_screw };

/// A steel plate on top of a leg or pair of legs, bolted up into the top.
struct LegPlate {
    double u_mm = 0, v_mm = 0;               ///< its middle
    double along_mm = 100, across_mm = 500;  ///< its size
    int bolts_across = 3, bolts_along = 1;
    /// How far the plate hangs below the top at its four corners, from the left near one the way round, when the base is stood
    /// under it; empty: not read.
    std::vector<std::optional<double>> gaps_mm{};
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

/// A corner of the outline that panels stand round, in the top's frame.
struct BaseCorner {
    double u_mm = 0, v_mm = 0;
    bool operator==(const BaseCorner&) const = default;
};

/// A section of channel on the maker's list.
struct ChannelSection {
    double width_mm = 40, depth_mm = 12, wall_mm = 3;
    bool operator==(const ChannelSection&) const = default;
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
    Covered covered = Covered::oil;
    Fixing fixing = Fixing::slots;
    InsertKind inserts = InsertKind::screw_in;
    double least_above_mm = 8;                            ///< of wood that stays above insert and bolt
    double base_kg = 20;                                  ///< the base with its plates; an estimate
    std::optional<double> foot_along_mm, foot_across_mm;  ///< feet on the floor, outside to outside; empty: as the plates stand
    double person_n = 1000;                               ///< who sits on it
    double push_n = 200;                                  ///< … or leans against it
    BaseKind base = BaseKind::bought;
    double leg_wide_mm = 70, leg_thick_mm = 70;      ///< section of legs and bars, across and along
    double splay_deg = 0;                            ///< legs lean outward
    double stock_mm = 45;                            ///< thickest stock at hand: what is thicker is laminated
    double knee_mm = 620;                            ///< clear height that somebody sitting wants
    double door_wide_mm = 800, door_high_mm = 2000;  ///< the narrowest on its way
    double damper_pct = 2;                           ///< one face damper than the other, for what channels hold back
    Sawn sawn = Sawn::flat;                          ///< of leaves whose pith nobody knows
    bool waits = false;                              ///< in the store, before it goes to its room
    BarJoint corners = BarJoint::mitre;
    std::vector<BaseCorner> outline;  ///< of a base of panels, the way round; empty: round its plates
    std::optional<double> stair_mm;   ///< clear width of the narrowest stair and its landing; empty: none on the way
    double stair_high_mm = 2000;      ///< clear height above it
    double feet_travel_mm = 0;        ///< feet screw out by so much; 0: they are fixed
    /// How far each foot hangs above the floor it stands on, from the left near one the way round; empty: not read.
    std::vector<std::optional<double>> floor_gaps_mm{};
    double notch_mm = 0;             ///< a pedestal's panels are let into the top by so much; 0: they end below it
    bool parts_first = false;        ///< parts of the base are finished before they are glued, their glue faces masked
    double lead_days = 0;            ///< until a bought base, a fabricator or a coating brings it; 0: it is there
    std::optional<double> insert_n;  ///< an insert's own force, as its maker gives it; empty: the wood alone decides
    /// From the floor to the top's plates' feet: feet that screw stand half-way out.
    double feet_high_mm() const { return feet_mm + feet_travel_mm / 2; }
    bool operator==(const UnderChoices&) const = default;
};

inline constexpr auto fixed_lines =
    school("under.fixed", "fixed", "Fixed line", &UnderChoices::fixed, Way{FixedLine::middle, "middle", "In the middle: both edges move"},
           Way{FixedLine::left, "left", "Left edge: it stays at a wall"}, Way{FixedLine::right, "right", "Right edge: it stays at a wall"});
inline constexpr auto plate_places = school("under.let_in", "plate_let_in", "Plates", &UnderChoices::plate_let_in,
                                            Way{false, "on", "Under the wood"}, Way{true, "in", "Let in flush"});

inline constexpr auto covereds = school("under.covered", "covered", "Finish", &UnderChoices::covered, Way{Covered::bare, "bare", "Bare"},
                                        Way{Covered::oil, "oil", "Penetrating oil"}, Way{Covered::film, "film", "A film"});
inline constexpr auto fixings =
    school("under.fixing", "fixing", "Held by", &UnderChoices::fixing, Way{Fixing::slots, "slots", "Slotted plates"},
           Way{Fixing::oversize, "oversize", "Oversize round holes"}, Way{Fixing::figure_eight, "figure_eight", "Figure-of-eight plates"},
           Way{Fixing::clips, "clips", "Offset clips in a kerf"}, Way{Fixing::buttons, "buttons", "Buttons"});
inline constexpr auto base_kinds =
    school("under.base", "base", "Base", &UnderChoices::base, Way{BaseKind::bought, "bought", "Bought, with its plates"},
           Way{BaseKind::frames, "frames", "Two closed frames"}, Way{BaseKind::legs, "legs", "Four legs on plates"},
           Way{BaseKind::trestle, "trestle", "A trestle"}, Way{BaseKind::pedestal, "pedestal", "A pedestal of two panels"},
           Way{BaseKind::cross, "cross", "Crossed legs"}, Way{BaseKind::panels, "panels", "Panels round an outline of your own"});
inline constexpr auto bar_joints =
    school("under.corners", "corners", "Bars joined by", &UnderChoices::corners, Way{BarJoint::mitre, "mitre", "Mitres"},
           Way{BarJoint::half_lap, "half_lap", "Half-laps"}, Way{BarJoint::tenon, "tenon", "Wedged tenons"});
inline constexpr auto waitings =
    school("under.waits", "waits", "When it is done", &UnderChoices::waits, Way{false, "straight", "It goes straight to its room"},
           Way{true, "store", "It waits in the store"});
inline constexpr auto sawns =
    school("under.sawn", "sawn", "Sawn, pith unknown", &UnderChoices::sawn, Way{Sawn::flat, "flat", "Flat: the most it can move"},
           Way{Sawn::rift, "rift", "Rift: rings at a slant"}, Way{Sawn::quarter, "quarter", "On the quarter: the least"});
inline constexpr auto parts_finished =
    school("under.parts", "parts_first", "Parts of the base", &UnderChoices::parts_first, Way{false, "after", "Finished when it stands"},
           Way{true, "before", "Finished first, glue faces masked"});
inline constexpr auto insert_kinds =
    school("under.inserts", "inserts", "In the wood", &UnderChoices::inserts, Way{InsertKind::screw_in, "screw_in", "Screw-in inserts"},
           Way{InsertKind::hammer_in, "hammer_in", "Hammer-in inserts"}, Way{InsertKind::wood_screw, "wood_screw", "Screws with washers"});

/// Holes of a plate and of a channel in the top's frame.
std::vector<Vec2> holes_of(const LegPlate& plate, const UnderChoices& choices);
std::vector<Vec2> holes_of(const Channel& channel, const UnderChoices& choices);

/// How far above the underside a hole in it starts: at the floor of its plate's or channel's pocket, mm.
double floor_of(const LegPlate& plate, const UnderChoices& choices);
double floor_of(const Channel& channel, const UnderChoices& choices);

Ring footprint(const LegPlate& plate);
Ring footprint(const Channel& channel);

void fields(FieldVisitor& v, LegPlate& p);
void fields(FieldVisitor& v, Channel& c);
void fields(FieldVisitor& v, BaseCorner& c);
void fields(FieldVisitor& v, ChannelSection& c);
void fields(FieldVisitor& v, UnderChoices& c);

}  // namespace yb
