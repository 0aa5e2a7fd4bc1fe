// Fill: cracks and voids after flattening. What volume is left, which class of resin, how many lifts, how
// much of each part.
//
// A void has the outline drawn on its face and narrows straight towards its floor, whose width is
// `floor_share` of its mouth; the area at a depth is then quadratic and Simpson's rule exact. Flattening
// takes the mouth away down to the finished plane.
#pragma once

#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>
#include "core/steps/fill/choices.h"

#include "core/ground/figure/figure.h"
#include "core/material/resin/mix.h"
#include "core/steps/flat/flat.h"

namespace yb {

struct Top;

struct FillInputs {
    const Slab& slab;
    const SlabShape& shape;
    const LayPlan& lay;
    const FlatPlan& flat;
    FillChoices choices;
    std::vector<Resin> resins;
    double shop_c = 18;
    std::vector<VoidFill> voids{};  ///< what the maker chose; flaws not named here take the advice
    const Top* top = nullptr;       ///< what lies beside the leaf, where it is one of several
    std::size_t leaf = 0;           ///< which of the top's leaves it is
};

/// What is mixed for it has the reserve, the last one's the overfill too.
struct Lift : Mixed {
    double depth_mm = 0;
    double wait_h = 0;  ///< until the next, or until it can be levelled
};

/// One round over all voids that take it.
struct FillRound {
    int places = 0, taped = 0, resins = 0;  ///< voids, those open below, and resins that are mixed; taped and made ready in the first
    double wait_h = 0;  ///< of the slowest void that is filled again: until then; of the last round until all can be levelled
};

struct VoidPlan {
    std::size_t leaf = 0;  ///< of the top
    std::size_t flaw = 0;  ///< index in its slab's flaws
    std::string id;        ///< what choices call it: the flaw's id, of several leaves with the leaf's number before it
    FlawKind kind = FlawKind::void_;
    Face face = Face::a;
    double floor_share = 1;
    Ring outline;  ///< as drawn, where the plan shows it
    Ring mouth;    ///< at its finished face, on the leaf's slab as laid
    Vec2 at;
    double depth_mm = 0;               ///< left after flattening
    double gap_mm = 0;                 ///< mean width of the mouth: area over half its girth
    double volume_l = 0;               ///< to fill flush, no reserve
    bool through = false;              ///< open on both finished faces
    bool runs_out = false;             ///< leaves the top at its edge
    bool over_live = false;            ///< … and that edge is live: it needs a dam; past a sawn one the wood goes on while it is filled
    bool meets_river = false;          ///< opens into the water beside its leaf
    std::optional<std::size_t> river;  ///< … is poured and fills it: nothing of it is mixed here
    bool meets_joint = false;          ///< runs over a joint to the next leaf
    bool gone = false;                 ///< flattening takes it away whole
    bool unprobed = false;             ///< its depth is not known
    bool left_open = false;
    std::string advised, resin;  ///< keys
    Phrase why;                  ///< the advice
    bool soaked = false;         ///< with a penetrating resin before
    double soak_l = 0;           ///< of it
    int holes = 0;               ///< of insects, where they were counted
    bool under_cup = false;      ///< filled with the others of its kind from one mix, in one lift
    bool small = false;          ///< told in one lump with its like
    double tape_mm = 0;          ///< of tape to shut it below, in strips; 0 where nothing runs out there
    std::vector<Lift> lifts;
    double mass_kg = 0;  ///< of resin that stays in the top
};

/// Choices have the key `fill.<void's id>`, one for each void.
struct FillPlan : StepPlan {
    std::vector<VoidPlan> voids;  ///< one for each flaw inside the top that can be filled
    double volume_l = 0;          ///< flush, all voids
    double soak_l = 0;            ///< of penetrating resin, first
    int small = 0;                ///< voids of less than 5 mL
    double small_l = 0;           ///< … all of them
    double mixed_l = 0;           ///< to mix, with overfill and reserve
    double open_l = 0;            ///< of voids left open
    double tape_mm = 0;           ///< under all that are open below
    double over_l = 0;            ///< poured over the mouths: planed off again
    double river_l = 0;           ///< of voids that rivers fill
    double mass_kg = 0;           ///< resin that stays in the top
    double wait_h = 0;            ///< rounds one after another; voids side by side
    int rounds = 0;
    std::vector<FillRound> each;  ///< round by round: without soaking, theirs are these in all
};

/// The rounds of all voids that are filled here: the k-th lift of each is one, a void that is full waits beside the others.
std::vector<FillRound> rounds_of(const std::vector<VoidPlan>& voids);

FillPlan plan_fill(const FillInputs& in);

/// The fillings of all leaves told as one: what Fill shows of a top of several.
struct WholeFillInputs {
    const std::vector<const FillPlan*>& leaves;
    const std::vector<const Slab*>& slabs;
    const Top& top;
    FillChoices choices;
    const std::vector<Resin>& resins;
    double shop_c = 18;
};
FillPlan plan_whole_fill(const WholeFillInputs& in);

/// What is to be mixed, in parts, rounds and money: of a leaf's voids or of the whole top.
std::vector<Figure> fill_figures(const FillPlan& p, const FillChoices& choices, const std::vector<Resin>& resins, double shop_c);

/// Each void and each river as a thing to be picked: what it takes, how deep it is, its lifts. @param top where rivers lie.
std::vector<Thing> fill_things(const FillPlan& p, const std::vector<Resin>& resins);

/// How many lifts a depth is poured in.
int lift_count(const Resin& resin, double depth_mm);

/// Lifts of even depth from the floor up, each with the reserve, the last with what is poured over besides. Each waits as the
/// resin's clock has it (core/material/resin/clock.h): the next once the last has gelled, levelled once it is hard.
/// @param over_l litres on top of the last. @param flush_l litres between two shares of the depth, 0 at the floor.
std::vector<Lift> in_lifts(const Resin& resin, double depth_mm, double over_l, const FillChoices& choices, double shop_c,
                           const std::function<double(double, double)>& flush_l);

/// Waiting of lifts one after another, h.
double waiting_h(const std::vector<Lift>& lifts);

/// What every pour is told: a shop that is too warm or too cold for it, then gloves and air, never a closed bin.
std::vector<Caution> of_every_pour(double shop_c);

/// Volume in litres of a void with mouth area `mouth_mm2`, full depth `depth_mm` and floor share, between
/// two depths below its face. Prismatoid, exact.
double void_litres(double mouth_mm2, double depth_mm, double floor_share, double from_mm, double to_mm);

/// The class to take for a void, and why; whether soft wood is soaked first.
struct FillAdvice {
    std::string resin;
    Phrase why;
    bool soak = false;
};
/// By depth, width and openness alone, of the four classes that every shelf has.
std::string advised_resin(double depth_mm, double gap_mm, bool through);
FillAdvice advice_for(FlawKind kind, double depth_mm, double gap_mm, bool through, int holes = 0);

/// Soft wood drinks so much of a penetrating resin, mL on a square metre: a starting value.
inline constexpr double soft_drinks_ml_m2 = 900;
/// Tape that shuts an opening below, mm: strips along it with a hand's width past each end, each over the last by a fifth, 15 mm past
/// its sides. @param tape_mm width of the tape. @throws std::invalid_argument for a tape of no width.
double tape_under_mm(const Ring& opening, double tape_mm);

/// Brushed on till it takes no more, h a void; hard again after: starting values.
inline constexpr double soaked_wait_h = 24;
/// Poured over by more, a void is planed for nothing: a starting value, mm.
inline constexpr double most_overfill_mm = 3;
/// Voids smaller than that are told in one lump.
/// Less than that is a cup between all of them, not a batch: a starting value.
inline constexpr double under_cup_l = 0.02;
inline constexpr double small_void_l = 0.005;

/// What the step minds, in a few words each.
std::span<const Headline> fill_headlines();

}  // namespace yb
