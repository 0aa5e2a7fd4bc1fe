// Pace: what a maker's own hours teach. For each kind of work the factor between hours taken and those of the starting values, robustly.
//
// x = ln(taken / starting value) of each operation is a Student-t about the maker's own μ (ν = 4: one tick in ten forgotten over night hardly moves
// it), μ itself is normal about 0 with σ = 0.4 (how far makers lie from a starting value). μ and the noise are found by reweighting (an expectation –
// maximisation of the t); what is told is the mean and nine tenths of where μ may lie. docs/methods.md, Pace.
#pragma once

#include <string>
#include <vector>

#include "core/ground/calendar/workclock.h"
#include "core/steps/days/days.h"
#include "core/steps/pace/choices.h"

namespace yb {

/// A kind of work that has a pace of its own.
struct PaceKind {
    const char* key;
    const char* label;
    std::vector<const char*> operations;  ///< keys; one that ends in an underscore stands for all that begin so
};
const std::vector<PaceKind>& pace_kinds();
/// The kind an operation belongs to; nullptr for none: own ones, waits, ordering.
const PaceKind* pace_kind_of(const std::string& operation);

/// An operation that was done, beside what was expected of it.
struct Took {
    std::string kind, job, operation;
    double starting_h = 0;  ///< by the starting values
    double took_h = 0;
    bool by_clock = false;  ///< worked out from ticks, not typed
    bool outlier = false;   ///< set by learn(): so far off that it is hardly counted
};

inline constexpr int least_tables = 3;  ///< a pace is used from so many on whatever its spread
inline constexpr double pace_prior = 0.4, pace_noise = 0.25, pace_freedom = 4;

/// The pace of one kind of work. Nothing learned: times 1, tables 0. What took no time, or was expected to take none, is left out.
/// @param took of that kind; outliers are marked in it.
PaceFigure learn(const std::string& kind, std::vector<Took>& took);

/// True where it is worth more than the starting value and used instead of it: from enough tables, or where that lies outside of what it may be; and not
/// put back.
bool is_used(const PaceFigure& figure);

/// Hands-on hours as this maker takes them. Operations say what they were multiplied by.
void with_pace(std::vector<Operation>& operations, const std::vector<PaceFigure>& paces);

/// Hours taken, from ticks: those that were typed, else the hours of work from the tick before (of any of them, or since the operation could begin) to its own.
/// @param jobs the operations of each job, planned, with what is done. @param clock the maker's. Hours from the same midnight.
struct DoneJob {
    std::string job;
    std::vector<Operation> operations;
    std::vector<OpDone> done;
};
std::vector<Took> took_of(const std::vector<DoneJob>& jobs, const WorkClock& clock);

}  // namespace yb
