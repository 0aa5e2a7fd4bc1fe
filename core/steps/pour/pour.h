// Pour: a river from what it holds to what is mixed – overfill, soak-in, lifts that stay cool, batches for the cups there are, the
// form, what floats up and how it is held.
//
// Places are in the top's frame. Heat: core/ground/cure. Nothing is poured where the top has no river; voids are Fill's.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/ground/card/card.h"
#include "core/ground/cure/cure.h"
#include "core/ground/figure/figure.h"
#include "core/ground/figure/part.h"
#include "core/material/resin/clock.h"
#include "core/material/resin/mix.h"
#include "core/steps/fill/choices.h"
#include "core/steps/pour/choices.h"
#include "core/steps/top/top.h"

namespace yb {

/// The section that a pour so deep is followed in.
Section section_of(double depth_mm, double air_c, const PourChoices& choices);

/// What is expected of one lift, alone in its air.
struct LiftForecast {
    double depth_mm = 0;
    double peak_c = 0, peak_low_c = 0, peak_high_c = 0;  ///< air, air − 1 °C, air + 1 °C
    double peak_h = 0;                                   ///< after it was poured
    double poured_h = 0;                                 ///< after the first
    double syrup_h = 0;                                  ///< after it was poured: a second colour stays where it is put
    Simulated model;                                     ///< … its gel, no longer tacky, cured: alone, in its air
    CureClock clock;                                     ///< after it was poured: the next lift, soft, hard, cured
};
inline constexpr std::size_t most_lifts = 12;
/// Depths of lifts, even ones, each no deeper than the label allows and with the upper end of its forecast peak (air + 1 °C) below the
/// limit; as few as will do, at most most_lifts. With `choices.lifts` so many, whatever comes of it. The answer is kept for the same
/// question.
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
    int part = 0;  ///< of its river, between dividers, from the left end
    enum class Half { none, right, left };
    Half half = Half::none;  ///< of two colours, by which bank
    std::string colour;
    double pigment_g_kg = 0;
    double net_l = 0;    ///< that the finished top holds
    double voids_l = 0;  ///< … and voids that open into it
    double ends_l = 0;   ///< … and what is sawn off with the ends of the blank
    double wedge_l = 0;  ///< more that a form out of level takes
    double pour_l = 0;   ///< all of that, with overfill, soak-in and what is planed off after
    double guess_l = 0;  ///< the usual guess: length × mean width above × thickness
    double depth_mm = 0;
    double width_mm = 0;  ///< mean, half-way down
    double soak_l = 0;
    Ring above;                 ///< of the finished top
    Ring poured, poured_below;  ///< to the ends of the form
};

struct FormPart {
    std::string name;
    int count = 1;
    double length_mm = 0, width_mm = 0;
};
/// A part where it is cut from a panel, from its lower left corner; pieces of one that is longer than the panel are butted.
struct NestedPart {
    std::string name;
    double x_mm = 0, y_mm = 0, length_mm = 0, width_mm = 0;  ///< as it lies: along and across the panel
};
struct Sheet {
    std::vector<NestedPart> parts;
};
/// Lays parts on as few panels as rows of falling height do, a saw kerf between them; parts too long or too wide for a panel in
/// either direction are cut into equal pieces first. @throws std::invalid_argument for a panel of no size.
std::vector<Sheet> nest(const std::vector<FormPart>& parts, double panel_long_mm, double panel_wide_mm, double kerf_mm);

struct Form {
    Vec2 middle;  ///< of its inside
    double inside_length_mm = 0, inside_width_mm = 0, side_mm = 0;
    double thick_mm = 0;  ///< of its sheets
    std::vector<FormPart> parts;
    double tape_m = 0, caulk_m = 0;
    double wall_n_m = 0;          ///< the pour presses on each metre of its sides: ρ·g·h²/2
    double sag_mm = 0;            ///< of the bottom between its bearers
    double wedge_l = 0;           ///< more that a form out of level takes: mixed with the rest
    double overhang_sag_mm = 0;   ///< of its end past the bench
    std::vector<double> pack_mm;  ///< under each corner, where all four were read, so that it stands level
    std::vector<Sheet> sheets;    ///< what is cut from each panel
    int rolls = 0;                ///< of tape
    double stiffeners_mm = 0;     ///< along its sides, apart: their bottoms press out by half a millimetre at most
    int screws = 0;               ///< around the bottom, one every 150 mm
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

/// What is to be bought of a resin.
struct Shopping {
    double wanted_l = 0, left_l = 0;
    int kits = 0;          ///< 0 where it is not sold in kits, or enough is there
    double buys_l = 0;     ///< of it
    double remains_l = 0;  ///< on the shelf, afterwards
    double cost = 0;       ///< of what is bought; 0 without a price
};
Shopping shopping_for(const Resin& resin, double wanted_l);

/// What a label says beside what the fitted model says, at 25 °C.
struct LabelRow {
    const char* what;
    double label_h = 0, model_h = 0;
};
std::vector<LabelRow> label_against_model(const Resin& resin);
/// What on a resin's sheet contradicts itself, or can't be: a sentence each.
std::vector<Phrase> sheet_faults(const Resin& resin);

inline constexpr double degas_min = 10;  ///< a pot under vacuum

/// Steps of the pour's card: of each batch, counted through.
inline constexpr std::string_view mix_step = "mix", pour_step = "pour";

/// A second colour, stirred in when the first is a syrup.
struct SecondColour {
    double litres = 0;
    double from_h = 0, to_h = 0;  ///< after the last lift is poured
};

/// The k-th lift of every compartment, poured one after the other.
struct PourVisit {
    int batches = 0;
    double wait_h = 0;     ///< until the next, or until the last lift is hard
    double next_to_h = 0;  ///< the next bonds unsanded until so long after it
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
    Shopping shopping;
    std::optional<SecondColour> second;
    std::vector<Phrase> set_out;    ///< before the first cup is opened
    std::vector<Phrase> leaks;      ///< where to look, in order
    double wait_h = 0;              ///< until the last lift is hard: it comes out of its form
    std::vector<PourVisit> visits;  ///< their hands and waits are these, in all
    CureClock clock;                ///< of the slowest compartment's last lift, after it was poured
    CureClock little;               ///< of what is topped up afterwards
};

struct PourInputs {
    const Top& top;  ///< ready
    PourChoices choices;
    FillChoices fill;
    const std::vector<Resin>& resins;
    double air_c = 18;
    bool two_colours = false;  ///< a divider down the middle of each river: two compartments, each by its own bank
};
PourPlan plan_pour(const PourInputs& in);

/// The day of the pour as a card to run: set out, mix, pour, watch, the next lift, unmould. Hours by the simulated state; a cup
/// is to be poured before it would gel in itself.
std::vector<CardStep> pour_card(const PourPlan& p, const PourChoices& choices, const Resin& resin);

/// How the model is to be turned so that it goes through what a thermocouple read: its gel time, and what that makes of the hours.
struct Corrected {
    double gel_25_h = 0;                            ///< that fits best, between half and twice the resin's
    double misses_c = 0;                            ///< root mean square
    std::optional<double> gel_h, tacky_h, cured_h;  ///< of the section, after it was poured
    double peak_c = 0, peak_h = 0;
};
/// A run's readings since its first pour, s after it, those not kept yet after them; in tens, so that a fit a minute is asked for.
/// Nothing while nothing is poured.
std::optional<std::vector<CardReading>> readings_since_pour(const CardRun& run, const std::vector<CardReading>& unkept);
/// @param readings s after the pour, in the middle of the resin. Nothing for fewer than three, or none in the first 48 h.
std::optional<Corrected> corrected_by(const std::vector<CardReading>& readings, const Resin& resin, const Section& section);

/// Up to four widths from the narrowest of the rivers to their widest, mm: where heat is followed. None where nothing is poured.
std::vector<double> widths_along(const PourPlan& plan);

/// What the label of a compartment's sample cup says: resin, parts, tint and its dose.
Phrase label_of(const PourPlan& p, std::size_t compartment, const Resin& resin);

/// The card with the hours that a thermocouple asks for: what waits for the cure waits longer or shorter by the factor, cups as they were.
std::vector<CardStep> at_pace(std::vector<CardStep> steps, double factor);

/// Each compartment, each lift, the form and the resin as a thing to be picked. @param resin what is poured, nullptr where the shop has
/// none of that key. @param to_bench where the top's frame lies on the bench.
std::vector<Thing> pour_things(const PourPlan& p, const Resin* resin, const Frame& to_bench);

/// What the step minds, in a few words each.
std::span<const Headline> pour_headlines();

}  // namespace yb
