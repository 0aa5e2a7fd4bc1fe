// Join: the glue-up counted against its open time, clamps, what aligns the joints, bow ties, and the clash check between all that is
// let in – in three dimensions. Places are in the top's frame, heights up from the finished underside.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/ground/card/card.h"
#include "core/ground/figure/figure.h"
#include "core/steps/join/choices.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/top/top.h"
#include "core/steps/under/choices.h"

namespace yb {

/// A step of the glue-up and how long it takes.
struct GlueStep {
    const char* what;
    double count = 0;  ///< of what it is done to
    double minutes = 0;
};

/// What comes off an edge at a place, so that both meet: right leaf, left leaf.
struct EdgeTake {
    double u_mm = 0, right_mm = 0, left_mm = 0;
};
/// What comes off along an edge whose hollows were read: down to the straight line that takes least off and leaves none of them. At
/// most one place along is given twice. @param at places along and the gap there, mm. @returns what comes off at each, in their order.
std::vector<double> taken_straight(const std::vector<Vec2>& at);

/// One glued joint.
struct GluedJoint {
    std::size_t joint = 0;
    std::size_t right = 0, left = 1;
    double length_mm = 0;
    double m2 = 0;  ///< of the joint
    double glue_l = 0;
    int pieces = 0;         ///< tenons, dowels or biscuits
    double spacing_mm = 0;  ///< of clamps: the lesser of F/(p·t) and twice the distance from clamp to joint
    int clamps = 0;
    double widest_gap_mm = 0;         ///< as read dry
    double close_n = 0;               ///< force that bends the leaves to close it: 384·E·I·δ/(5·L³)
    double spring_n = 0;              ///< … the hollow of a spring joint
    std::vector<EdgeTake> takes;      ///< where gaps were read: what to plane off, and off which
    double take_mm = 0;               ///< the most of it
    std::optional<double> square_mm;  ///< it stands open above (+) or below by so much, the worst place, both edges together
};

/// A piece sawn from the offcut between clamp and live edge: one side follows the edge, the other is straight.
struct Caul {
    std::size_t leaf = 0;
    bool left = false;  ///< along the left edge of the top
    Ring shape;
    double length_mm = 0, wide_mm = 0;  ///< of the offcut it takes
};
/// Cauls along the live edges of a top of several leaves, no longer than two people handle, joints between them staggered by nature: each
/// ends where the next begins. The side that follows lies on the outermost of both faces, so that it bears there.
/// @param thinnest_mm left of a caul where the edge stands out furthest. @throws std::invalid_argument for one not above 0.
std::vector<Caul> cauls_for(const Top& top, double thinnest_mm, double longest_mm = 900);

/// What shaping the edge does to the rim.
struct ShapedRim {
    double above_mm = 0, below_mm = 0;  ///< the upper face and the underside draw in by
    double flat_mm = 0;                 ///< left of the thickness at the rim, straight up
    double litres = 0;                  ///< taken off
    double kg = 0;                      ///< … weighs
};
/// Where a live edge is carved back into a side that was sawn: a line of the grain, from end to end.
struct CarvedLine {
    bool left = false;
    std::vector<Vec2> line;
    double deepest_mm = 0;
};

/// A top that is brought in two halves and drawn together where it stands.
struct Halves {
    double u_mm = 0;                       ///< the cut, square to the sides
    double left_kg = 0, right_kg = 0;      ///< of the half towards the left end and the other
    std::vector<Vec2> connectors;          ///< middles, underneath, across the cut
    std::vector<Vec2> tenons;              ///< that keep both faces level
    std::vector<std::size_t> not_in_wood;  ///< connectors that meet resin or air
};
/// A connector's recess underneath: so long across the cut, so wide, and this share of the thickness deep.
inline constexpr double connector_long_mm = 110, connector_wide_mm = 35, connector_deep = 0.6;
/// Connectors evenly across the wood at the cut, half a spacing in from both edges, a tenon between each two. Nothing where the cut
/// meets no wood, or for none.
std::optional<Halves> halves_at(const Top& top, double u_mm, int connectors);

/// Something let into the top: a box in the top's frame, turned.
enum class LetInKind { piece, insert, plate, pocket, notch, rod, bow_tie, connector, tenon, patch, filled, open, knot };
struct LetIn {
    LetInKind kind = LetInKind::piece;
    std::string what;                ///< as the maker reads it: "bow tie 2"
    Ring at;                         ///< from above
    double low_mm = 0, high_mm = 0;  ///< heights
    bool cuts = true;                ///< wood is taken for it; resin and flaws are there already
};
struct Clash {
    std::string one, other;
    Vec2 at;
    double deep_mm = 0;  ///< how far they share the height
};

struct JoinPlan : StepPlan {
    std::vector<GluedJoint> joints;
    std::vector<GlueStep> steps;  ///< of the longest stage
    double needed_min = 0, open_min = 0;
    double alone_min = 0;  ///< needed_min with one pair of hands
    double glue_l = 0;
    int clamps = 0, pieces = 0;
    double air_c = 0;
    std::vector<LetIn> let_in;
    std::vector<Clash> clashes;
    std::vector<Vec2> piece_at;  ///< middles of tenons, dowels, biscuits
    double piece_above_mm = 0;   ///< wood above and below them
    ShapedRim rim;
    std::vector<double> across_u;  ///< where a pair of cauls lies across, from the left end; clear of what is let in below
    double bark_mm = 0;            ///< of live edges on its finished faces
    std::vector<CarvedLine> carved;
    std::vector<Rod> rods;  ///< of an open river, from the left end
    std::vector<Caul> cauls;
    std::optional<Halves> halves;
};

struct JoinInputs {
    const Top& top;  ///< ready
    const MakeUpPlan& makeup;
    const MakeUpChoices& how;
    JoinChoices choices;
    UnderChoices under;
    double air_c = 18;
    double least_above_mm = 8;               ///< of wood between what is let in and the upper face
    std::vector<const SlabShape*> shapes{};  ///< of the leaves as laid: a carved edge follows their grain
    std::vector<const Slab*> slabs{};        ///< … as laid: where their knots are
};
JoinPlan plan_join(const JoinInputs& in);

/// The glue-up as a card to run: a dry run, then every step against the open time since the glue was first spread, then a night in
/// clamps. Empty where nothing is glued.
std::vector<CardStep> glue_card(const JoinPlan& p, const JoinChoices& choices);

/// The open river put together on its rods, as a card to run. Empty where there are no rods.
/// @param length_mm of the top: places are told from its left end.
std::vector<CardStep> rod_card(const JoinPlan& p, const JoinChoices& choices, const MakeUpChoices& how, double length_mm);

/// Lines of the grain along the sawn sides of a top: between a slab's two edges the grain runs as they do, each in its share. Of
/// those the one that stays inside the side and is nearest to it. Nothing along a side that keeps its live edge, or for a round top.
/// @param shapes of the leaves as laid.
std::vector<CarvedLine> grain_lines(const Top& top, const std::vector<const SlabShape*>& shapes);

/// Mild steel bends for good at, N/mm².
inline constexpr double rod_yield_mpa = 235;
/// A caul across is so wide.
inline constexpr double across_bar_mm = 50;
/// To draw bark off a metre of edge and brush it, h: a starting value.
inline constexpr double bark_off_h_m = 0.3;

/// Places along a top for cauls across it: 80 mm in from both ends, and – all along – one at least every 450 mm between; each slid along
/// so that a bar so wide lies over none of what is in the way, as far as there is room. @param in_the_way stretches along.
std::vector<double> cauls_across(double length_mm, CaulsAcross how, double bar_mm, const std::vector<Span1>& in_the_way);
/// Minutes of open time at a temperature: doubles for 10 °C colder, halves for 10 °C warmer.
double open_minutes(double at_20_min, double temp_c);
/// What aligns the joint, as sentences and titles call it: "tenon", "tenons", "Tenons"; of nothing loose, tenons too.
const char* piece_name(Loose loose);
const char* pieces_name(Loose loose);
const char* pieces_title(Loose loose);
/// Pressure that closes a joint, N/mm²: 0.7 for hard woods, 0.35 for soft (specific gravity below 0.45).
double clamp_pressure(double specific_gravity);
/// Clamps along an edge, mm apart: the lesser of F/(p·t) and twice the distance from clamp to joint.
/// Check: 45 mm, 0.7 N/mm², 4.5 kN → 143 mm.
double clamp_spacing(double clamp_n, double pressure, double thickness_mm, double distance_mm);

/// Where bow ties would hold a crack: across it, one every so many mm along.
std::vector<BowTie> ties_over(const Ring& crack, double thickness_mm);
/// A bow tie's outline: two wings that meet at a waist of half its width.
Ring outline_of(const BowTie& tie);

/// Each glued joint and bow tie as a thing to be picked. @param to_bench where the top's frame lies on the bench.
std::vector<Thing> join_things(const JoinPlan& p, const JoinChoices& choices, const MakeUpPlan& makeup, const Frame& to_bench);

/// What the step minds, in a few words each.
std::span<const Headline> join_headlines();

}  // namespace yb
