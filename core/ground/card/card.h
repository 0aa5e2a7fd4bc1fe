// A card to run at the bench: steps in their order, each with the time it takes, what it waits for and until when it has to be
// done. Where a run stands follows from its ticks and the clock alone. Times in s unless a name says otherwise.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/card/run.h"
#include "core/ground/figure/figure.h"

namespace yb {

struct CardStep {
    std::string key;      ///< "mix 1"
    Phrase says;          ///< large: "Mix batch 1: 2.25 L of A, 1.13 L of B"
    Phrase more{};        ///< small
    double takes_s = 0;   ///< at the planned pace
    std::string after{};  ///< the step whose tick starts its clock; empty: the one before
    double from_s = 0;    ///< not before, from that tick
    double until_s = 0;   ///< at latest, from that tick; 0: any time
    Phrase late{};        ///< what to do when it is
    double mixed_l = 0;   ///< planned, where something is mixed
    std::string pace{};   ///< the kind of work whose pace its time tells (core/steps/pace); empty: none
    bool left = false;    ///< what is left over of all that was mixed is asked when it is ticked
};

/// Where a run stands.
struct CardNow {
    std::size_t next = 0;          ///< the step to do; as many as there are steps when all are ticked
    double elapsed_s = 0;          ///< since it was started, by its own clock
    double in_step_s = 0;          ///< since the tick before
    std::optional<double> wait_s;  ///< until the next step may begin; negative never
    std::optional<double> left_s;  ///< until it has to be done; negative: late
    double planned_s = 0;          ///< where the plan would be: Σ of what the ticked steps take, waits counted
};

/// @param now_s seconds since 1970, UTC. @returns nothing for a run whose start can't be read.
std::optional<CardNow> card_now(const std::vector<CardStep>& steps, const CardRun& run, double now_s);
/// What a run's own clock shows, s since it was started.
std::optional<double> card_clock(const CardRun& run, double now_s);
/// When each step would begin by the plan, s from the start.
std::vector<double> planned_starts(const std::vector<CardStep>& steps);

/// Ticks the next step. @returns false where none is left or the start can't be read.
bool tick(const std::vector<CardStep>& steps, CardRun& run, double now_s);
/// Takes the last tick back.
bool untick(CardRun& run);

/// Seconds since 1970 of "2026-11-26T07:12:05Z"; nothing for what is not one.
std::optional<double> utc_seconds(const std::string& iso);
std::string utc_text(double seconds);

}  // namespace yb
