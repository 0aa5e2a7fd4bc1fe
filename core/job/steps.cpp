// One row a step.
#include "core/job/steps.h"

#include <algorithm>
#include <stdexcept>

#include "core/calendar/calendar.h"
#include "core/days/days.h"
#include "core/fill/fill.h"
#include "core/flat/flat.h"
#include "core/job/planning.h"
#include "core/join/join.h"
#include "core/pour/pour.h"
#include "core/under/under.h"

namespace yb {

namespace {

void give(std::vector<Operation>& out, const StepPlan& says, const char* key, const char* label, Step step, int order, double hands,
          double wait) {
    Operation op{key, label, step, order, hands, wait, 0, 0, 0, Severity::note, false, false};
    mark(op, says);
    out.push_back(std::move(op));
}

constexpr double turn_slab_h = 0.5;  ///< with a helper, wedges and time to look: a starting value

void lay_operations(const Planning& w, std::vector<Operation>& out) {
    const StepPlan& says = *w.p.lay;
    give(out, says, "lay", "Lay", step_key::lay, 10, 2, 0);
    give(out, says, "rough", "Rough-cut", step_key::lay, 20, 0.5, 0);
    if (const double bark = w.p.join ? w.p.join->bark_mm : 0; bark > 0 && !w.job.join.bark_kept)
        give(out, says, "bark", "Bark off", step_key::lay, 25, bark / 1000 * bark_off_h_m, 0);
    // Starting values, until joining and pouring are planned step by step.
    const std::size_t joints = w.p.makeup->joints.size();
    const double n = static_cast<double>(joints);
    if (joints > 0 && !is_river(w.job.makeup.kind)) {
        give(out, says, "rip", "Rip", step_key::lay, 40, 0.5 * n, 0);
    } else if (joints > 0 && w.job.makeup.kind != MakeUp::river) {
        give(out, says, "rods", "Rods", step_key::lay, 40, 2 * n, 0);
    }
    give(out, says, "cut", "To size", step_key::lay, 60, 1, 0);
}

void flat_operations(const Planning& w, std::vector<Operation>& out) {
    const FlatPlan& f = *w.p.flat;
    if (f.work.by != FlatBy::sled && f.work.possible) {
        give(out, f, "flat1", name_of(f.work.by), step_key::flat, 30, f.work.hands_on_h, std::max(f.work.wait_h, w.job.flat.rest_h));
        return;
    }
    const double turn_h = turn_slab_h * static_cast<double>(w.slabs.leaves.size());  // each leaf is turned
    give(out, f, "flat1", "Face one", step_key::flat, 30, turn_h + f.faces[0].hours - f.faces[0].last_hours, 0);
    give(out, f, "flat2", "Face two", step_key::flat, 31, turn_h + f.faces[1].hours - f.faces[1].last_hours, w.job.flat.rest_h);
    if (const double last = f.faces[0].last_hours + f.faces[1].last_hours; last > 0)
        give(out, f, "last", "Last pass", step_key::flat, 32, 2 * turn_h + last, 0);
}

void fill_operations(const Planning& w, std::vector<Operation>& out) {
    const FillPlan& f = *w.p.fill;
    if (f.rounds == 0) return;
    give(out, f, "fill", "Fill", step_key::fill, 50, f.hands_on_h, f.wait_h);
    give(out, f, "level", "Level", step_key::fill, 51, 1, 0);
}

void pour_operations(const Planning& w, std::vector<Operation>& out) {
    const PourPlan& p = *w.p.pour;
    if (p.lifts.empty()) return;
    give(out, p, "form", "Form", step_key::pour, 41, 3, 0);
    give(out, p, "pour", "Resin in", step_key::pour, 42, p.hands_on_h, p.wait_h);
    give(out, p, "unmould", "Unmould", step_key::pour, 43, 1, 0);
    // What stands proud comes off; what shrank is topped up and has to set again.
    give(out, p, "scrape", "Scrape, plane", step_key::pour, 44, 1, 0);
    give(out, p, "topup", "Top up", step_key::pour, 45, 0.5, p.lifts.back().next_from_h);
    // What crept over a live edge comes off once it is hard, not before: a soft resin clogs every disc.
    if (w.job.top.live != LiveEdges::none) give(out, p, "bleed", "Clean edges", step_key::pour, 46, 0.75, 0);
    give(out, p, "touchup", "Touch up", step_key::pour, 47, 0.5, p.lifts.back().next_from_h);
}

void join_operations(const Planning& w, std::vector<Operation>& out) {
    const JoinPlan& j = *w.p.join;
    // Setting out, cauls, a dry run; each stage dries for a night.
    const double stages = w.job.join.two_stages && j.joints.size() > 1 ? 2 : 1;
    if (!j.joints.empty()) give(out, j, "glue", "Glue", step_key::join, 41, stages * (1 + j.needed_min / 60), 12 * stages);
    if (const double n = static_cast<double>(w.job.join.ties.size()); n > 0)
        give(out, j, "ties", "Bow ties", step_key::join, 52, 0.75 * n, 2);
    if (w.job.join.edge != EdgeShape::square)
        give(out, j, "edge", "Edge", step_key::join, 61, w.job.join.edge == EdgeShape::carved ? 4 : 0.75, 0);
}

void under_operations(const Planning& w, std::vector<Operation>& out) {
    const UnderPlan& u = *w.p.under;
    if (u.slots.empty() && u.ready) return;
    give(out, u, "pockets", "Under", step_key::under, 70,
         0.15 * static_cast<double>(u.slots.size()) + 0.75 * static_cast<double>(u.pockets.size()), 0);
    give(out, u, "dryfit", "Dry-fit", step_key::under, 71, 1, 0);
}

void lay_fields(FieldVisitor& v, Job& j) {
    v.object({"top", "Wanted top"}, j.top);
    v.list({"leaves", "Leaves, from the right"}, j.leaves);
    v.object({"makeup", "Make-up"}, j.makeup);
}

void under_fields(FieldVisitor& v, Job& j) {
    v.object({"under", "Under"}, j.under);
    v.object({"room", "Room"}, j.room);
}

constexpr auto leaf = StepRow::On::leaf;
constexpr auto top = StepRow::On::top;
constexpr auto beside = StepRow::On::beside;

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

const StepRow table[] = {
    {step_key::rack, "Rack", leaf, says<&Plan::rack>, own<&Plan::rack>, plan_rack_step, nullptr, nullptr, nullptr},
    {step_key::lay, "Lay", top, says<&Plan::lay>, own<&Plan::lay>, plan_lay_step, tell_lay_step, lay_operations, lay_fields},
    {step_key::flat, "Flat", leaf, says<&Plan::flat>, own<&Plan::flat>, plan_flat_step, nullptr, flat_operations,
     [](FieldVisitor& v, Job& j) {
         v.object({"flat", "Flat"}, j.flat);
     }},
    {step_key::fill, "Fill", top, says<&Plan::fill>, own<&Plan::fill>, plan_fill_step, nullptr, fill_operations,
     [](FieldVisitor& v, Job& j) {
         v.object({"fill", "Fill"}, j.fill);
     }},
    {step_key::pour, "Pour", top, says<&Plan::pour>, own<&Plan::pour>, plan_pour_step, nullptr, pour_operations,
     [](FieldVisitor& v, Job& j) {
         v.object({"pour", "Pour"}, j.pour);
     }},
    {step_key::join, "Join", top, says<&Plan::join>, own<&Plan::join>, plan_join_step, nullptr, join_operations,
     [](FieldVisitor& v, Job& j) {
         v.object({"join", "Join"}, j.join);
     }},
    {step_key::under, "Under", top, says<&Plan::under>, own<&Plan::under>, plan_under_step, nullptr, under_operations, under_fields},
    {step_key::sheets, "Sheets", beside, says<&Plan::sheets>, own<&Plan::sheets>, nullptr, nullptr, nullptr, nullptr},
};

}  // namespace

std::span<const StepRow> steps() { return table; }

const StepRow* find_step(std::string_view key) {
    const auto it = std::find_if(std::begin(table), std::end(table), [&](const StepRow& r) { return r.step.key == key; });
    return it == std::end(table) ? nullptr : it;
}

const StepRow& row_of(Step step) {
    if (const StepRow* r = find_step(step.key)) return *r;
    throw std::out_of_range("there is no step ‘" + std::string(step.key) + "’");
}

const char* name_of(Step step) {
    const StepRow* r = find_step(step.key);
    return r ? r->name : "";
}

bool before(Step a, Step b) { return find_step(a.key) < find_step(b.key); }

}  // namespace yb
