// A step of its own for tests: waxing, with a plan, a figure, a caution and its mend, an operation and a thing.
#pragma once

#include <memory>
#include <span>

#include "core/shop/rows/row.h"

namespace yb {

inline constexpr Step wax{"wax"};

struct WaxPlan : StepPlan {
    double grams = 0;
};

inline const WaxPlan& wax_of(const Plan& p) { return static_cast<const WaxPlan&>(*p.more.at("wax")); }

inline StepPlan* own_wax(Plan& p) {
    const auto copy = std::make_shared<WaxPlan>(wax_of(p));
    p.more["wax"] = copy;
    return copy.get();
}

inline void plan_wax(Planning& w) {
    const auto made = std::make_shared<WaxPlan>();
    made->ready = w.top != nullptr;
    made->grams = w.top ? 30 * w.top->area_mm2() * 1e-6 : 0;
    made->figures.push_back(
        {"wax.grams", "Wax for this top", Quantity{made->grams / 1000, Kind::mass}, {}, {}, {"30 g a square metre", {}, ""}});
    if (w.job.notes == "hot") made->cautions.push_back({"wax.hot", Severity::watch, wax, say("Too hot to wax.")});
    w.p.more["wax"] = made;
}

inline constexpr MendEdit wax_edits[] = {{"wax_cooler", [](Documents&, Job& j, const Takes&) { j.notes = "cool"; }}};

inline StepRow wax_row() {
    StepRow row;
    row.step = wax;
    row.name = "Wax";
    row.coming = "wax it";
    row.says = [](const Plan& p) -> const StepPlan* { return p.more.at("wax").get(); };
    row.own = own_wax;
    row.empty = [](Plan& p) { p.more["wax"] = std::make_shared<WaxPlan>(); };
    row.plan = plan_wax;
    row.operations = [](const Planning& w, std::vector<Operation>& out) { give(out, wax_of(w.p), "wax", "Wax", wax, 1.5, 12); };
    row.kinds = [] {
        static const std::vector<OperationKind> all{{"wax", "coats", {}, {"coat"}}};
        return std::span<const OperationKind>(all);
    };
    row.things = [](const ThingsAsk& a, std::vector<Thing>& out) {
        Thing t{"wax 1", "wax", 0, say("The wax")};
        t.figures = a.plan.more.at("wax")->figures;
        out.push_back(std::move(t));
    };
    row.edits = [] { return std::span<const MendEdit>(wax_edits); };
    row.mends = [](const MendAsk& a) {
        if (a.caution.key == "wax.hot") a.offer("wax_cooler", say("Wait for the evening"));
    };
    row.done = "the buffing";
    return row;
}

}  // namespace yb
