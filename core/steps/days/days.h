// Days: the operations of one job, each with what must come before it, set on a calendar.
//
// Every step gives its own operations (core/shop/job/steps.cpp); here they are tied into a net and dated (schedule.h). Hands-on work falls
// into working hours; waiting runs day and night. Estimates are starting values.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/ground/calendar/calendar.h"
#include "core/ground/figure/figure.h"
#include "core/ground/figure/part.h"
#include "core/material/wood/wood.h"
#include "core/steps/days/choices.h"
#include "core/steps/labour/labour.h"

namespace yb {

/// How a wait goes with the air of the day it falls on.
enum class AirWait {
    none,   ///< it doesn't
    cures,  ///< resin: as its rate does, exp(−E/(R·T)), E = 55 kJ/mol
    dries   ///< a coat: half as long for 10 °C more
};
/// How much longer a wait is at one air than at another, both °C.
double longer(AirWait how, double at_c, double than_at_c);

/// Of what a shop has one.
enum class Place { none, bench, form, clamps, spray };

struct Operation {
    std::string key, label;
    Step step{};
    int order = 0;  ///< in the order of work, across steps; from the kinds of operations there are (core/shop/job/work_order.h)
    double hands_on_h = 0, waiting_h = 0;
    double start_h = 0;  ///< from midnight of the first day
    double hands_end_h = 0;
    double end_h = 0;                  ///< waiting over
    Severity worst = Severity::note;   ///< of its step's cautions
    bool knot = false;                 ///< its step has a caution of watch or stop
    bool unmet = false;                ///< something it needs is missing
    bool aside = false;                ///< not on the wood of the top: it goes into the waiting of what is
    std::vector<std::string> after{};  ///< keys of what must have ended first, beside what the wood itself asks (tie())
    Who who = Who::maker;
    Place at = Place::none;          ///< taken while hands are on it …
    bool keeps = false;              ///< … and until its waiting is over
    double latest_h = 0;             ///< the last moment to begin without moving the job's end, or the day it is wanted
    bool decides = false;            ///< the job's end hangs on it
    std::optional<double> done_h{};  ///< hands were off it then: it stands there
    double not_before_h = 0;         ///< pinned to a day
    AirWait air = AirWait::none;     ///< waiting_h goes with the air …
    double air_c = 20;               ///< … and is what it is at this one: a schedule that knows the year sets both to that day's
    bool in_air = false;             ///< how it goes hangs on the air it is done in
    double paced = 1;                ///< hands_on_h is the starting value times so much: the maker's pace
    double alone_h = 0;              ///< hands_on_h where one person does what is planned for two; 0: the same
    bool lacks = false;              ///< a second pair of hands is asked for and never there: the maker does it alone
    bool ordered = false;            ///< others bring it
    bool in_one_go = false;          ///< not to be left once it is begun: it is begun only where the day is long enough for all of it …
    double watched_h = 0;            ///< … and for so long after it: somebody has to be there, hands free
    std::shared_ptr<const Task> task{};  ///< what its hours are made of; none: typed, or worked out by its step
    bool implied = false;                ///< OperationKind::implied
    std::string_view pace{};             ///< the kind of work its hours tell the pace of; empty: of none
    /// A further part – a lift, a round, a stage – of the operation of this key; empty: it is the first or only one.
    std::string part_of{};
    double slack_h() const { return latest_h - start_h; }
    /// Whose hands are on it, and are paid: the maker's where nobody else is there, or it is only waited for.
    Who works() const { return lacks || who == Who::outside ? Who::maker : who; }
};

/// What must have ended before an operation begins.
struct Before {
    const char* key;           ///< of a kind of operation; a job that has none of it has no rule
    const char* trouble = "";  ///< "T1": the mistake it keeps from happening; empty: the work cannot be done otherwise
};
/// A kind of operation, as the step that has it tells it.
struct OperationKind {
    const char* key;                     ///< "flat1"; its parts, where it has several, are "pour_2" or "coat_1", "coat_2"
    const char* pace = "";               ///< the kind of work its hours tell the pace of (core/steps/pace); empty: of none
    std::vector<Before> after{};         ///< rules of order: they hold in every net
    std::vector<const char*> follows{};  ///< kinds that stand before it in the order of work, where both are done on the wood of the top
    bool ordered = false;                ///< others bring it: it is told by when it is to be ordered
    bool implied = false;                ///< done where something after it on the wood is ticked: older shops never ticked it
};

/// Ties operations into a net: what is done on the wood of the top follows one another in its order, since there is one top; what is made
/// aside of it waits for what it names. Names of operations that are not there are taken out.
void tie(std::vector<Operation>& operations);

/// An operation of the maker's own is a part of this kind: "own 1".
inline constexpr std::string_view own_operation = "own";

/// What was decided and ticked, laid on the steps' operations: done, pinned, own ones ("own 1") tied in. @param start the job's first day.
void with_choices(std::vector<Operation>& operations, const DaysChoices& choices, const std::string& start);

/// Its ticks and pins, and what the helper does, alone, as hours from midnight of a date; those that were there before are let go.
void tick_and_pin(std::vector<Operation>& operations, const DaysChoices& choices, const std::string& start);

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

/// One job by itself. @param start the job's first day, ISO. @param air the shop's through the year: waits are those of the month they fall
/// into.
DaysPlan plan_days(std::vector<Operation> operations, const std::string& start, const Workday& workday, const Climate* air = nullptr);

}  // namespace yb
