// Join, what the maker decides: glue and hands, what aligns the joint, bow ties over cracks, the edge. Starting values.
#pragma once

#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"

namespace yb {

namespace step_key {
inline constexpr Step join{"join"};
}

enum class Loose { none, tenons, dowels, biscuits };
/// How the edges are planed before they are glued.
enum class Spring { straight, hollow };
/// Bars across the joints while it is glued, above and below in pairs.
enum class CaulsAcross { none, ends, all };
enum class EdgeShape { square, round_over, chamfer, under_bevel, carved };

/// A bow tie let in across a crack, in the top's frame; its waist lies on the crack.
struct BowTie {
    double u_mm = 0, v_mm = 0;
    double turn_deg = 0;  ///< of its length against the top's, to the left
    double long_mm = 90, wide_mm = 36, deep_mm = 12;
    bool from_above = true;
    bool operator==(const BowTie&) const = default;
};

/// What was read: both edges pushed together dry, or one of them under a straightedge.
enum class EdgeRead { together, right, left };
/// How far apart the edges stand at a place of a joint – or one edge from a straightedge along it: feeler gauge. And how far out of
/// square they are there.
struct GapReading {
    int joint = 1;
    double u_mm = 0, gap_mm = 0;
    EdgeRead edge = EdgeRead::together;
    std::optional<double> square_mm{};  ///< open under the try square's blade, over the thickness: above +, below −
    bool operator==(const GapReading&) const = default;
};

struct JoinChoices {
    Loose loose = Loose::tenons;
    double pitch_mm = 250;                                               ///< of tenons, dowels or biscuits
    double loose_long_mm = 60, loose_wide_mm = 40, loose_thick_mm = 10;  ///< whole length across the joint
    bool both_faces = false;                                             ///< glue on both edges
    double spread_g_m2 = 180, glue_kg_l = 1.08;
    double open_min = 10;        ///< of the glue at 20 °C
    bool slow_glue = false;      ///< a slower one: its open time is three times that
    bool helped = false;         ///< two pairs of hands
    bool two_stages = false;     ///< half of the joints first, the rest when those are dry
    double spread_m2_min = 0.1;  ///< the maker's pace with a roller
    double piece_s = 12;         ///< to glue and set one tenon
    double set_min = 1.5;        ///< to bring a joint together
    double clamp_s = 25;         ///< to set one clamp
    double clamp_n = 4500;       ///< what one gives
    bool cauls = true;           ///< sawn from the offcut's edge for live edges
    EdgeShape edge = EdgeShape::square;
    double edge_mm = 3;
    Spring spring = Spring::straight;
    double spring_mm = 0.4;  ///< hollow in the middle of a spring joint
    double bit_mm = 6;       ///< of the router that lets bow ties in: a corner it leaves is rounded by half of it
    double washer_mm = 1;    ///< under the drilling guide: the rods' holes stand so much apart
    CaulsAcross across = CaulsAcross::ends;
    double caul_mm = 60;     ///< left of a caul at its thinnest
    int connectors = 3;      ///< that draw two halves together where the table stands
    bool bark_kept = false;  ///< on live edges
    std::vector<BowTie> ties;
    std::vector<GapReading> gaps;
    bool operator==(const JoinChoices&) const = default;
};

inline constexpr auto edge_reads =
    school(nullptr, "edge", "Read at", &GapReading::edge, Way{EdgeRead::together, "together", "Both, pushed together"},
           Way{EdgeRead::right, "right", "The right leaf's edge"}, Way{EdgeRead::left, "left", "The left leaf's edge"});
inline constexpr auto join_looses = school("join.loose", "loose", "Aligned by", &JoinChoices::loose, Way{Loose::none, "none", "Nothing"},
                                           Way{Loose::tenons, "tenons", "Loose tenons"}, Way{Loose::dowels, "dowels", "Dowels"},
                                           Way{Loose::biscuits, "biscuits", "Biscuits"});
inline constexpr auto join_faces =
    school("join.faces", "both_faces", "Glue on", &JoinChoices::both_faces, Way{false, "one", "One edge"}, Way{true, "both", "Both edges"});
inline constexpr auto join_glues =
    school("join.glue", "slow_glue", "Glue", &JoinChoices::slow_glue, Way{false, "usual", "The usual"}, Way{true, "slow", "A slower one"});
inline constexpr auto join_hands =
    school("join.hands", "helped", "Hands", &JoinChoices::helped, Way{false, "alone", "Alone"}, Way{true, "helped", "With a helper"});
inline constexpr auto join_stages = school("join.stages", "two_stages", "Glued", &JoinChoices::two_stages, Way{false, "at_once", "At once"},
                                           Way{true, "stages", "In two stages"});
inline constexpr auto join_cauls = school("join.cauls", "cauls", "Live edges clamped", &JoinChoices::cauls,
                                          Way{true, "cauls", "With cauls from the offcut"}, Way{false, "bare", "As they are"});
inline constexpr auto join_acrosses =
    school("join.across", "across", "Cauls across", &JoinChoices::across, Way{CaulsAcross::none, "none", "None"},
           Way{CaulsAcross::ends, "ends", "At both ends"}, Way{CaulsAcross::all, "all", "All along"});
inline constexpr auto join_springs =
    school("join.spring", "spring", "Edges planed", &JoinChoices::spring, Way{Spring::straight, "straight", "Straight"},
           Way{Spring::hollow, "hollow", "A little hollow"});
inline constexpr auto join_barks =
    school("join.bark", "bark_kept", "Bark on live edges", &JoinChoices::bark_kept, Way{false, "off", "Off"}, Way{true, "kept", "Left on"});
inline constexpr auto join_edges =
    school("join.edge", "edge", "Edge", &JoinChoices::edge, Way{EdgeShape::square, "square", "Square, broken by hand"},
           Way{EdgeShape::round_over, "round_over", "Rounded over"}, Way{EdgeShape::chamfer, "chamfer", "Chamfered"},
           Way{EdgeShape::under_bevel, "under_bevel", "Bevelled underneath"}, Way{EdgeShape::carved, "carved", "Carved as a live edge"});

void fields(FieldVisitor& v, BowTie& b);
void fields(FieldVisitor& v, GapReading& g);
void fields(FieldVisitor& v, JoinChoices& c);

}  // namespace yb
