// Pace: what a maker's own hours teach. For each kind of work the factor between hours taken and those of the starting values, robustly.
//
// x = ln(taken / starting value) of each operation is a Student-t about the maker's own μ (ν = 4: one tick in ten forgotten over night
// hardly moves it), μ itself is normal about 0 with σ = 0.4 (how far makers lie from a starting value). μ and the noise are found by
// reweighting (an expectation – maximisation of the t); what is told is the mean and nine tenths of where μ may lie, tables differing by
// half of the noise. docs/methods.md, Pace.
#pragma once

#include <string>
#include <vector>

#include "core/ground/calendar/workclock.h"
#include "core/ground/card/card.h"
#include "core/steps/days/days.h"
#include "core/steps/pace/choices.h"

namespace yb {

inline constexpr double pace_prior = 0.4, pace_noise = 0.25, pace_freedom = 4;
inline constexpr double between_tables = 0.5;  ///< tables of one maker differ by so much of the noise

/// A kind of work that has a pace of its own: whole operations (OperationKind::pace), by their hours; or a figure of it, by a card's ticks,
/// what was mixed and left over, or slabs that dry. A figure has a unit, and says in it what is the maker's own.
struct PaceKind {
    const char* key;
    const char* label;
    const char* unit = nullptr;  ///< "m²/h", "min"; none: times the starting value
    bool per_hour = false;       ///< the figure is an hour's: who takes longer has less of it
    double prior = pace_prior,
           noise = pace_noise;  ///< how far makers lie from the starting value, and each time from the maker's own; of the logarithm
};
const std::vector<PaceKind>& pace_kinds();
/// nullptr for one nobody knows.
const PaceKind* find_pace_kind(const std::string& key);

/// What was done, beside what was expected of it.
struct Took {
    std::string kind;
    std::string job;        ///< or the slab that dried
    std::string operation;  ///< or the step of a card: "sand: sand 1 at 80"
    double starting = 0;    ///< by the starting values
    double took = 0;
    std::string unit = "h";  ///< of both: "h", "l", "days"
    bool by_clock = false;   ///< worked out from ticks, not typed
    bool outlier = false;    ///< set by learn(): so far off that it is hardly counted
};

inline constexpr int least_tables = 3;  ///< a pace is used from so many on whatever its spread

/// The pace of one kind of work. Nothing learned: times 1, tables 0. What took no time, or was expected to take none, is left out.
/// @param took of that kind; outliers are marked in it.
PaceFigure learn(const std::string& kind, std::vector<Took>& took);

/// True where it is worth more than the starting value and used instead of it: from enough tables, or where that lies outside of what it
/// may be; and not put back.
bool is_used(const PaceFigure& figure);

/// How many times the starting value holds: the maker's own where it is used, else 1.
double pace_of(const std::vector<PaceFigure>& paces, std::string_view kind);

/// Hands-on hours as this maker takes them. Operations say what they were multiplied by.
void with_pace(std::vector<Operation>& operations, const std::vector<PaceFigure>& paces);

/// Hours taken, from ticks: those that were typed, else the hours of work from the tick before (of any of them, or since the operation
/// could begin) to its own.
/// @param jobs the operations of each job, planned, with what is done. @param clock the maker's. Hours from the same midnight.
struct DoneJob {
    std::string job;
    std::vector<Operation> operations;
    std::vector<OpDone> done;
};
std::vector<Took> took_of(const std::vector<DoneJob>& jobs, const WorkClock& clock);

/// What a run of a card tells: of each ticked step that has a kind the time since the tick before, waits left out; of all that was mixed,
/// once the last of it is, what was really mixed and not left over. A run for practice tells nothing. @param paces those the steps were
/// planned with: they are taken out.
/// @param mixing the kind of what is mixed; empty: nothing is told of that.
std::vector<Took> took_of_card(const std::string& job, const std::vector<CardStep>& steps, const CardRun& run,
                               const std::vector<PaceFigure>& paces, const std::string& mixing);

}  // namespace yb
