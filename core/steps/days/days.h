// Days: the operations of one job in working order, with hands-on hours and waiting, set on a calendar.
//
// Every step gives its own operations (core/shop/job/steps.cpp); here they are put in order and dated. Hands-on work falls into
// working hours; waiting runs day and night. Estimates are starting values.
#pragma once

#include <string>
#include <vector>

#include "core/ground/calendar/calendar.h"
#include "core/ground/figure/figure.h"

namespace yb {

struct Operation {
    std::string key, label;
    Step step{};
    int order = 0;  ///< in the order of work, across steps: rough cuts before flattening, ripping after
    double hands_on_h = 0, waiting_h = 0;
    double start_h = 0;  ///< from midnight of the first day
    double hands_end_h = 0;
    double end_h = 0;                 ///< waiting over
    Severity worst = Severity::note;  ///< of its step's cautions
    bool knot = false;                ///< its step has a caution of watch or stop
    bool unmet = false;               ///< something it needs is missing
    double beside_h = 0;              ///< goes on beside what follows for so long after the hands: something ordered
    std::string waits_for{};          ///< key of an operation whose beside_h is over first; empty: of none
};

struct DaysPlan {
    std::string start;  ///< ISO date; empty where the job's first day can't be read: hours are then counted from a Monday
    std::vector<Operation> operations;
    double end_h = 0;
    bool endless = false;  ///< some of it lies beyond what is planned ahead, and is held there
    std::string ready;     ///< ISO date the last operation ends; empty likewise
    /// The date so many hours after the start; empty where there is none.
    std::string date(double h) const { return start.empty() ? std::string() : date_after(start, h); }
};

/// The worst of a step's cautions lands on its operation as a knot.
void mark(Operation& op, const StepPlan& says);

/// @param start the job's first day, ISO.
DaysPlan plan_days(std::vector<Operation> operations, const std::string& start, const Workday& workday);

}  // namespace yb
