// What a row of the table of steps is written with. A file a row; steps.cpp has them in their order. Used here only.
#pragma once

#include <algorithm>
#include <iterator>
#include <memory>
#include <span>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/shop/edit/mending.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/held.h"
#include "core/shop/job/needs.h"
#include "core/shop/job/planning.h"
#include "core/shop/job/steps.h"
#include "core/shop/job/things.h"
#include "core/shop/templates/templates.h"
#include "core/steps/days/days.h"

namespace yb {

/// A row's says and own for what is kept in a member of Plan: a StepPlan itself, or a shared plan.
template <auto member>
const StepPlan* says(const Plan& p) {
    if constexpr (std::is_same_v<decltype(member), StepPlan Plan::*>) return &(p.*member);
    else return (p.*member).get();
}
template <auto member>
StepPlan* own(Plan& p) {
    if constexpr (std::is_same_v<decltype(member), StepPlan Plan::*>) {
        return &(p.*member);
    } else {
        using P = std::remove_const_t<typename std::remove_reference_t<decltype(p.*member)>::element_type>;
        auto copy = std::make_shared<P>(*(p.*member));
        p.*member = copy;
        return copy.get();
    }
}

/// A plan that says nothing, one for all.
template <class P>
const std::shared_ptr<const P>& no() {
    static const auto none = std::make_shared<const P>();
    return none;
}

inline void add(std::vector<Thing>& to, std::vector<Thing> more) { std::move(more.begin(), more.end(), std::back_inserter(to)); }

/// An operation of a step, with what it minds.
inline void give(std::vector<Operation>& out, const StepPlan& says, const char* key, const char* label, Step step, double hands,
                 double wait) {
    Operation op;
    op.key = key, op.label = label, op.step = step, op.hands_on_h = hands, op.waiting_h = wait;
    mark(op, says);
    out.push_back(std::move(op));
}

/// The same, its hours made of parts.
inline void give(std::vector<Operation>& out, const StepPlan& says, const char* key, const char* label, Step step, Task task, double wait) {
    give(out, says, key, label, step, task.hours(), wait);
    out.back().task = std::make_shared<const Task>(std::move(task));
}

/// A further part of the operation that was given before it – a second lift, round, stage: its hands fall when it does. @param part from 2.
inline void give_part(std::vector<Operation>& out, const StepPlan& says, int part, const char* label, Task task, double wait) {
    const Operation first = out.back();
    const std::string of = first.part_of.empty() ? first.key : first.part_of;
    Operation op;
    op.key = of + "_" + std::to_string(part), op.label = label, op.step = first.step, op.hands_on_h = task.hours(), op.waiting_h = wait;
    op.task = std::make_shared<const Task>(std::move(task));
    op.part_of = of, op.at = first.at, op.keeps = first.keeps, op.who = first.who, op.in_air = first.in_air;
    op.in_one_go = first.in_one_go, op.watched_h = first.watched_h;
    mark(op, says);
    out.push_back(std::move(op));
}

/// The last operation's waiting goes with the shop's air: it was worked out at that of its step.
inline void waits_with(std::vector<Operation>& out, AirWait how, const Planning& w) {
    out.back().air = how, out.back().in_air = true, out.back().air_c = w.air(out.back().step).day.temp_c;
}

/// So much of a resin, mixed.
inline void need_resin(std::vector<Need>& out, const Resin& r, double litres, const char* before) {
    out.push_back({NeedKind::resin, "resin " + r.key, r.label, litres, "l", before, r.left_l, r.kit_l, r.price_l});
}

}  // namespace yb
