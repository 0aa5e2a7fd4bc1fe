// Days: the operations of one job in working order, with hands-on hours and waiting, set on a calendar.
//
// Hands-on work falls into working hours; waiting runs day and night. Estimates are starting values.
#pragma once

#include <string>
#include <vector>

#include "core/figure/figure.h"
#include "core/flat/flat.h"
#include "core/lay/makeup.h"
#include "core/resin/fill.h"
#include "core/under/under.h"

namespace yb {

struct Workday {
    double from_h = 8, to_h = 17;
    bool saturdays = false;
    bool operator==(const Workday&) const = default;
};

struct Operation {
    std::string key, label;
    Step step = Step::rack;
    double hands_on_h = 0, waiting_h = 0;
    double start_h = 0;  ///< from midnight of the first day
    double hands_end_h = 0;
    double end_h = 0;                 ///< waiting over
    Severity worst = Severity::note;  ///< of its step's cautions
    bool knot = false;                ///< its step has a caution of watch or stop
    bool unmet = false;               ///< something it needs is missing
};

struct DaysPlan {
    std::string start;  ///< ISO date
    std::vector<Operation> operations;
    double end_h = 0;
    std::string ready;  ///< ISO date the last operation ends
};

/// Moves a time (h from midnight of `start`) to the next working hour.
double next_working_hour(const std::string& start, double h, const Workday& day);

/// When `hands_on_h` of work begun at `h` are done, working hours only.
double after_work(const std::string& start, double h, double hands_on_h, const Workday& day);

/// The date `h` hours after midnight of an ISO date. @throws std::invalid_argument for a date it can't read.
std::string date_after(const std::string& start, double h);

/// True for a date that exists, written YYYY-MM-DD.
bool is_date(const std::string& iso);

struct DaysInputs {
    const LayPlan& lay;
    const FlatPlan& flat;
    const FillPlan& fill;
    const UnderPlan& under;
    FlatChoices flat_choices;
    std::string start;
    Workday workday;
    MakeUp kind = MakeUp::single;
    std::size_t joints = 0;  ///< to rip and glue, or rivers to pour
};

DaysPlan plan_days(const DaysInputs& in);

}  // namespace yb
