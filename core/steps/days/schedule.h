// When each operation of one or several jobs is done: hands in working hours, nobody in two places, nothing before what it needs, nothing
// held twice.
//
// Operations are placed one after the other, each at the earliest moment that is left (serial schedule generation); the order in which they
// are taken is a job's rank, then the length of what still hangs on them. Where the soonest end of all is wanted, several orders are tried.
#pragma once

#include <string>
#include <vector>

#include "core/ground/calendar/workclock.h"
#include "core/steps/days/days.h"

namespace yb {

/// A job as the schedule sees it.
struct Net {
    std::string job;
    double from_h = 0;  ///< nothing of it begins before, from midnight of the schedule's first day
    std::vector<Operation> operations;
    std::optional<double> wanted_h{};  ///< to be done by
};

/// Who is there when, and the air of the shop on each day.
struct Hands {
    WorkClock maker, helper, both;
    /// @param start midnight of this ISO date is hour 0. @param air none: waits are as long as they are given.
    Hands(const std::string& start, const Workday& week, const Climate* air = nullptr);
    /// Of the month an hour falls into, °C; nothing where the air is not known.
    std::optional<double> air_c(double h) const;
    const WorkClock& of(Who who) const { return who == Who::helper ? helper : who == Who::both ? both : maker; }

  private:
    std::vector<double> by_day_;  ///< four years of days, over and over
};

/// What the order of placing is by.
enum class Rule {
    ranks,   ///< jobs in the order they are given; what hangs on an operation decides within one
    soonest  ///< whatever lets all be done soonest: several orders are tried
};

struct Schedule {
    double end_h = 0;
    bool endless = false;               ///< some of it lies beyond what is planned ahead, and is held there
    std::vector<std::string> circular;  ///< operations that wait for themselves, "job/key": what they wait for is left out
    bool no_hands = false;              ///< somebody is needed who is never there: the maker does it alone
};

/// Sets start_h, hands_end_h, end_h, latest_h and decides of every operation; waits that go with the air become that day's. Operations that
/// are done stand where they were done.
/// @param now_h nothing that is not done begins before. @param jobs in the order of their ranks.
Schedule schedule(std::vector<Net>& jobs, const Hands& hands, double now_h = 0, Rule rule = Rule::ranks);

}  // namespace yb
