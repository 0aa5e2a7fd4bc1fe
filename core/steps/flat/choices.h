// Flat, what the maker decides, and the sled that it is done with.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"

namespace yb {

namespace step_key {
inline constexpr Step flat{"flat"};
}

enum class FlatAim {
    share_out,    ///< the tilt that leaves the thickest slab
    spare_show,   ///< least off the show face, the wanted thickness kept: take from underneath
    least_wood,   ///< the wanted thickness with the least wood planed off the whole piece
    leave_under,  ///< the underside stays as it is: the show face alone is planed
    as_it_lies    ///< no shims
};
enum class FinishTo { wanted, thickest };
enum class FirstFace { show, underside };
enum class LaneWay { across, along };
enum class Tilts { own, one };
/// What keeps the slab where it lies while it is planed.
enum class HeldBy { hot_glue, wedges, hold_downs };
/// How the faces are left while it rests.
enum class Rests { to_air, wrapped, face_down };
/// How the faces are made flat.
enum class FlatBy { sled, hand_planer, planer, drum_sander, machine_shop, bought_flat };

struct Support {
    double x_mm = 0, y_mm = 0;  ///< on the slab as laid
    bool operator==(const Support&) const = default;
};

/// Gaps under a straightedge in the middle of six lines over the bed, mm, hollow positive: its sides, its ends, both diagonals.
struct Bed {
    std::optional<double> front_mm, back_mm, left_mm, right_mm;
    std::optional<double> rising_mm, falling_mm;  ///< from the front left corner, from the front right one
    bool operator==(const Bed&) const = default;
};

/// What else the shop has to make a face flat with, and what it costs to have it done. Starting values.
struct FlatTools {
    double planer_mm = 330, planer_layer_mm = 2, planer_mm_s = 110;  ///< widest board, depth and feed of the thickness planer
    double drum_mm = 900, drum_layer_mm = 0.6, drum_mm_s = 45;       ///< … of the drum sander
    double hand_mm = 82, hand_layer_mm = 1.5, hand_mm_s = 120;       ///< … of the hand power planer
    double machine_m2 = 55;                                          ///< price of both faces at a machine shop, a square metre
    double machine_days = 10;                                        ///< until it is back
    double machine_long_mm = 3000, machine_wide_mm = 1300;           ///< its table
    double bought_m2 = 90;                                           ///< a flattened slab costs so much more a square metre
    bool has_planer = true, has_drum = true, has_hand = true;        ///< of the shop's own; what is not there is no way to flatten
    bool operator==(const FlatTools&) const = default;
};

/// The maker's sled, cutter and pace. Every number is a starting value to be changed.
struct Sled {
    double cutter_mm = 38;                                         ///< diameter of the surfacing cutter
    double overlap = 0.5;                                          ///< of neighbouring lanes, share of the cutter
    double depth_mm = 3;                                           ///< per layer
    double feed_mm_s = 60;                                         ///< along a lane
    double turn_s = 3;                                             ///< from one lane to the next
    double layer_s = 90;                                           ///< to set the next depth
    double floor_mm = 12;                                          ///< thickness of the sled's floor
    double rail_mm = 95;                                           ///< top of the rails above the bench
    double stickout_mm = 25;                                       ///< how far the bit may stand out (25 mm on a 12.7 mm shank)
    double tram_mm = 0;                                            ///< rise over the cutter's width, when the sled is out of tram
    double span_mm = 1000;                                         ///< between the rails, that the sled bridges
    double beams = 2;                                              ///< that stiffen the sled
    double beam_wide_mm = 18, beam_high_mm = 60;                   ///< each
    double beam_mpa = 10000;                                       ///< modulus of elasticity of their wood
    double router_n = 60;                                          ///< weight of the router and the hand on it
    double loose = 4;                                              ///< loose chips fill so many times the wood they were: a starting value
    double bag_l = 60;                                             ///< that a bag of the extraction holds
    std::vector<double> spacers_mm{6, 9, 12, 18, 24, 30, 36, 48};  ///< flat boards at hand
    std::vector<double> shims_mm{0.3, 0.5, 1, 2, 3, 4, 6, 9, 12, 18, 24};  ///< of the shim stock, several of each
    double light_mm = 0;                                                   ///< depth of a last light pass over each face; 0: none
    double tram_feed_mm = 0;                                               ///< rise over the cutter's width along the feed
    double reach_mm = 75;       ///< how far the cutter's edge comes below the router's base at most
    double base_mm = 160;       ///< the router's base, across
    double router_w = 1600;     ///< power it draws
    double edge_m = 400;        ///< cut before somebody looks at the cutter's edges
    bool rails_beside = false;  ///< rails stand beside the deck, not on it
    double deck_mm = 18;        ///< of the bench that the rails stand on or beside
    bool to_build = false;      ///< the sled has yet to be built: its parts are on the cut list
    Bed bed;
    FlatTools tools;
    bool operator==(const Sled&) const = default;
};

struct FlatChoices {
    FlatAim aim = FlatAim::share_out;
    FinishTo finish = FinishTo::wanted;
    FirstFace first = FirstFace::show;
    LaneWay lanes = LaneWay::across;
    Tilts tilts = Tilts::own;
    FlatBy by = FlatBy::sled;
    HeldBy held = HeldBy::hot_glue;
    double rest_h = 24;       ///< between the faces and the last passes
    double allowance_mm = 1;  ///< left on each face for the last pass after the rest
    Rests rests = Rests::to_air;
    bool operator==(const FlatChoices&) const = default;
};

/// What was read after a rest: what the wood has done since its faces were roughed.
struct FlatRound {
    std::string on;           ///< ISO date
    double bow_mm = 0;        ///< gap in the middle under a straightedge laid along, on the show face; a crown is negative
    double cup_mm = 0;        ///< the same across
    double twist_mm = 0;      ///< how far winding sticks at the ends differ over the width
    double thickness_mm = 0;  ///< caliper, between the roughed faces
    bool operator==(const FlatRound&) const = default;
};

inline constexpr auto flat_aims =
    school("flat.aim", "aim", "Where the twist goes", &FlatChoices::aim, Way{FlatAim::share_out, "share_out", "Share it out"},
           Way{FlatAim::spare_show, "spare_show", "Take from underneath"}, Way{FlatAim::least_wood, "least_wood", "Least wood off"},
           Way{FlatAim::leave_under, "leave_under", "Leave the underside"}, Way{FlatAim::as_it_lies, "as_it_lies", "No shims"});
inline constexpr auto flat_lanes = school("flat.lanes", "lanes", "Lanes run", &FlatChoices::lanes, Way{LaneWay::across, "across", "Across"},
                                          Way{LaneWay::along, "along", "Along"});
inline constexpr auto flat_tilts = school("flat.tilts", "tilts", "Tilt of several slabs", &FlatChoices::tilts,
                                          Way{Tilts::own, "own", "Each its own"}, Way{Tilts::one, "one", "One for all"});
inline constexpr auto flat_bys =
    school("flat.by", "by", "Made flat by", &FlatChoices::by, Way{FlatBy::sled, "sled", "A router sled"},
           Way{FlatBy::hand_planer, "hand_planer", "A hand power planer"}, Way{FlatBy::planer, "planer", "A thickness planer"},
           Way{FlatBy::drum_sander, "drum_sander", "A drum sander"}, Way{FlatBy::machine_shop, "machine_shop", "A machine shop"},
           Way{FlatBy::bought_flat, "bought_flat", "Bought flat"});
inline constexpr auto flat_helds =
    school("flat.held", "held", "Held by", &FlatChoices::held, Way{HeldBy::hot_glue, "hot_glue", "Hot glue at the shims"},
           Way{HeldBy::wedges, "wedges", "Wedges against blocks"}, Way{HeldBy::hold_downs, "hold_downs", "Hold-downs at the edges"});
inline constexpr auto flat_finishes =
    school("flat.finish", "finish", "How thick", &FlatChoices::finish, Way{FinishTo::wanted, "wanted", "To the wanted thickness"},
           Way{FinishTo::thickest, "thickest", "As thick as it comes"});
inline constexpr auto flat_firsts =
    school("flat.first", "first", "First face", &FlatChoices::first, Way{FirstFace::show, "show", "Show face first"},
           Way{FirstFace::underside, "underside", "Underside first"});
inline constexpr auto flat_airs =
    school("flat.air", "rests", "While it rests", &FlatChoices::rests, Way{Rests::to_air, "to_air", "Air on both faces"},
           Way{Rests::wrapped, "wrapped", "Both faces wrapped"}, Way{Rests::face_down, "face_down", "One face down"});

void fields(FieldVisitor& v, Support& s);
void fields(FieldVisitor& v, FlatRound& r);
void fields(FieldVisitor& v, Bed& b);
void fields(FieldVisitor& v, FlatTools& t);
void fields(FieldVisitor& v, Sled& s);
void fields(FieldVisitor& v, FlatChoices& c);

}  // namespace yb
