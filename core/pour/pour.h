// Pour: a river from what it holds to what is mixed – overfill, soak-in, lifts that stay cool, batches for the cups there are, the
// form, what floats up and how it is held.
//
// Places are in the top's frame. Heat: core/cure. Nothing is poured where the top has no river; voids are Fill's.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/cure/cure.h"
#include "core/figure/figure.h"
#include "core/fill/choices.h"
#include "core/pour/choices.h"
#include "core/top/top.h"

namespace yb {

/// How a resin of the shelf cures: its gel time, or the one its pot life is fitted with.
Kinetics kinetics_of(const Resin& resin);

/// The section that a pour so deep is followed in.
Section section_of(double depth_mm, double air_c, const PourChoices& choices);

/// Depths of lifts, even ones, each no deeper than the label allows and with the upper end of its forecast peak (air + 1 °C) below the
/// limit; as few as will do, at most 12. With `choices.lifts` so many, whatever comes of it. The answer is kept for the same question.
struct LiftForecast {
    double depth_mm = 0;
    double peak_c = 0, peak_low_c = 0, peak_high_c = 0;  ///< air, air − 1 °C, air + 1 °C
    double peak_h = 0;                                   ///< after it was poured
    double poured_h = 0;                                 ///< after the first
    double next_from_h = 0, next_to_h = 0;               ///< after it was poured: the surface gels, and is no longer tacky
};
std::vector<LiftForecast> forecast_lifts(const Resin& resin, double depth_mm, double air_c, const PourChoices& choices);

struct PourLift : LiftForecast {
    std::size_t compartment = 0;
    double volume_l = 0;  ///< its share of what is poured
    double mix_l = 0;     ///< … of what is mixed
};

struct Batch {
    std::size_t lift = 0;
    double volume_l = 0, a_l = 0, b_l = 0, a_g = 0, b_g = 0, pigment_g = 0;
};

struct Compartment {
    std::string id;
    std::size_t joint = 0;
    double net_l = 0;    ///< that the finished top holds
    double pour_l = 0;   ///< with overfill, soak-in and what is planed off after
    double guess_l = 0;  ///< the usual guess: length × mean width above × thickness
    double depth_mm = 0;
    double width_mm = 0;  ///< mean, half-way down
    double soak_l = 0;
    Ring above;
};

struct FormPart {
    std::string name;
    int count = 1;
    double length_mm = 0, width_mm = 0;
};
struct Form {
    Vec2 middle;  ///< of its inside
    double inside_length_mm = 0, inside_width_mm = 0, side_mm = 0;
    std::vector<FormPart> parts;
    double tape_m = 0, caulk_m = 0;
    double wall_n_m = 0;  ///< the pour presses on each metre of its sides: ρ·g·h²/2
    double sag_mm = 0;    ///< of the bottom between its bearers
    double wedge_l = 0;   ///< more that a form out of level takes
};

struct FloatUp {
    std::size_t leaf = 0;
    double force_n = 0;  ///< (ρ_resin·V_wet − ρ_wood·V)·g; 0 where it stays down by itself
    int clamps = 0;      ///< with a margin of two
};

struct Dam {
    Vec2 at;
    double length_mm = 0;
};

struct PourPlan : StepPlan {
    std::string resin;  ///< key
    double air_c = 0;
    std::vector<Compartment> compartments;
    double pour_l = 0, mix_l = 0;
    std::vector<PourLift> lifts;
    std::vector<Batch> batches;
    Form form;
    std::vector<FloatUp> floats;
    std::vector<Dam> dams;
    double cost = 0;
    double hands_on_h = 0, wait_h = 0;  ///< until the last lift can be levelled
    double cured_h = 0;                 ///< … is cured: at least
};

struct PourInputs {
    const Top& top;  ///< ready
    PourChoices choices;
    FillChoices fill;
    const std::vector<Resin>& resins;
    double air_c = 18;
    double rough_length_mm = 0;  ///< of the blank; 0: the wanted length
};
PourPlan plan_pour(const PourInputs& in);

/// Each compartment and lift as a thing to be picked. @param to_bench where the top's frame lies on the bench.
std::vector<Thing> pour_things(const PourPlan& p, const Frame& to_bench);

/// The cured section at a station, in two dimensions: resin as wide as the river there, its banks beside it. For the end view; takes
/// up to a second. Nothing where no river runs there.
std::optional<Cured> cure_at(const Top& top, const PourPlan& plan, const Resin& resin, const PourChoices& choices, double u_mm, int frames);

}  // namespace yb
