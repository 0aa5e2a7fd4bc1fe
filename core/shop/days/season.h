// All jobs of a shop on one rule of dates: who does what when, what decides, what could give.
#pragma once

#include <cstdint>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/work/work.h"
#include "core/steps/days/schedule.h"

namespace yb {

struct Climate;
struct Documents;
struct Job;
struct Plan;
struct Shop;

/// A job on the rule.
struct JobDays {
    std::string id, name;
    std::vector<Operation> operations;  ///< hours from midnight of the season's first day, in the order they begin
    double ready_h = 0;
    std::optional<double> wanted_h;  ///< the evening of the day it is wanted
    double late_h() const { return wanted_h ? ready_h - *wanted_h : 0; }
};

struct Season {
    std::string start;  ///< ISO date of hour 0: the first day of any of its jobs, or today
    std::string today;
    double now_h = 0;
    Workday week;
    std::vector<JobDays> jobs;  ///< in the order of their ranks
    double end_h = 0;
    Schedule said;
    std::vector<Caution> cautions;  ///< a job that will be late, a helper who is never there, a circle
    std::string date(double h) const { return date_after(start, h); }
};

/// A job's operations as its plan gives them, what was ticked and pinned laid on them. @param start the rule's first day: hours count from
/// there.
Net net_of(const std::string& id, const Job& job, const Plan& plan, const std::string& start);

/// The air an operation is done in on the rule, °C: typed, or of the month its day falls into.
double air_of(const Season& season, const Job& job, const Operation& operation, const Climate& shop);

/// True where all of its slabs are there.
bool can_be_planned(const Documents& docs, const Job& job);

/// Jobs in the order of the shop, other ways of one left out; those it does not name after them by their first day; put away ones are left
/// out.
std::vector<std::string> job_order(const Documents& docs);

struct SeasonAsk {
    std::string today;  ///< ISO date: nothing that is not done begins before it
    Rule rule = Rule::ranks;
    std::vector<std::string> only;  ///< ids; none: all that are not put away
};
/// Plans each job and lays them all on one rule. Jobs whose slab is missing have no operations. @throws Cancelled.
Season season_of(const Documents& docs, const SeasonAsk& ask, const Work& work = {});
/// The same with plans that are there already, by job.
Season season_of(const Documents& docs, const std::map<std::string, const Plan*>& plans, const SeasonAsk& ask);

/// A job whose end moved from one season to another, by an hour at least.
struct MovedJob {
    std::string id, name;
    double by_h = 0;    ///< later; negative: sooner
    std::string since;  ///< label of the first operation that lasts otherwise, came, went, was ticked or pinned; empty: others come before
                        ///< it or went
};
/// In the order of the jobs now. Jobs that are in one of them only are left out.
std::vector<MovedJob> moved_between(const Season& before, const Season& now);

/// What hands come to next over all jobs; no job: nothing is left.
struct NextUp {
    const JobDays* job = nullptr;
    const Operation* operation = nullptr;
};
NextUp next_up(const Season& season);

/// What somebody has to do on a day.
struct TodayLine {
    std::string job, key, label;
    double from_h = 0, to_h = 0;  ///< of that day, in working hours
    double hands_h = 0;           ///< of that day
    double waits_h = 0;           ///< then it waits
    Who who = Who::maker;
    bool goes_on = false;  ///< begun on an earlier day
    std::string by{};      ///< of what is ordered: at the latest on this day
};
struct Today {
    std::string date;
    std::vector<TodayLine> hands;      ///< in order
    std::vector<TodayLine> set_going;  ///< long waits that begin that day: last thing before going home
    std::vector<TodayLine> order_by;   ///< what somebody else brings: to be ordered by a day, within a week
    double hands_h = 0;
};
/// @param day ISO date.
Today today_of(const Season& season, const std::string& day);

/// Hours of the maker's hands on each day of the rule, and how many there are.
struct DayLoad {
    std::string date;
    double hands_h = 0, there_h = 0;
};
std::vector<DayLoad> loads_of(const Season& season, double to_h);

/// What could be otherwise.
struct WhatIf {
    std::string key;
    Phrase says;
    double end_h = 0;                       ///< of all jobs
    std::map<std::string, double> ready_h;  ///< by job
    double gains_h = 0;                     ///< of the job that is asked about, or of all
    double hands_h = 0;                     ///< more of the maker's hours
    std::int64_t money = 0;                 ///< more on the offers, hundredths, where prices are known
};
/// Each tried by planning it: a helper on Saturdays, a helper every day, a warmer shop, a colder one, faster resin, no rest between the
/// faces, a machine shop for the flattening, another order of jobs, a kiln. Those that change nothing are left out; what gains most first,
/// what loses last.
/// @param job the one that must be sooner; empty: all of them.
/// @param plans of all jobs as they stand: what a change does not touch is not planned again.
std::vector<WhatIf> what_ifs(const Documents& docs, const std::map<std::string, const Plan*>& plans, const SeasonAsk& ask,
                             const std::string& job, const Work& work = {});
/// One of them, or several at once ("saturdays+quicker_resin"), whatever it gains. @throws std::invalid_argument for a change that nobody
/// knows.
WhatIf what_if(const Documents& docs, const std::map<std::string, const Plan*>& plans, const SeasonAsk& ask, const std::string& job,
               const std::string& key, const Work& work = {});
/// Changes the documents as a what-if has it. @param job as of the asking. @throws std::invalid_argument for a change that nobody knows.
void take_what_if(Documents& docs, const std::string& key, const std::string& job);
/// Plans of the jobs that are on the rule, by job; those without a slab are left out. @param only ids; none: all. @throws Cancelled.
std::map<std::string, std::shared_ptr<const Plan>> plans_of(const Documents& docs, const std::vector<std::string>& only = {},
                                                            const Work& work = {});

}  // namespace yb
