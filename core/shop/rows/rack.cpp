// Rack as a row of the table.
#include <algorithm>

#include "core/material/slab/slab.h"
#include "core/shop/rows/row.h"
#include "core/steps/pace/pace.h"
#include "core/steps/rack/rack.h"
#include "core/steps/rack/settle.h"
#include "core/steps/rack/whole.h"

namespace yb {

namespace of_rack {

void plan(Planning& w) {
    const auto of = [](const PreparedSlab& s) { return RackSlab{s.slab, s.shape.usable, s.thickness_mm, s.figures, s.cautions}; };
    RackInputs in{{}, w.shop.air, w.job.room, dry_enough_pct(w.job.room, w.shop), w.shop.units, pace_of(w.shop.paces, "drying")};
    if (w.several() && w.wanted.on_bench == whole_top) {
        for (const auto& s : w.slabs.leaves) in.slabs.push_back(of(*s));
        w.p.rack = plan_whole_rack(in);
        return;
    }
    const auto i = static_cast<std::size_t>(std::max(0, w.wanted.on_bench));
    in.slabs.push_back(of(w.slab(std::min(i, w.slabs.leaves.size() - 1))));
    w.p.rack = plan_rack(in);
}

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        {"dry"},
        {"settle", "", {{"dry"}}},
    };
    return all;
}

void operations(const Planning& w, std::vector<Operation>& out) {
    // Until it is dry enough, by the slab's own readings: what a prior says of it is no date.
    double dries = 0;
    for (std::size_t i = 0; i < w.slabs.leaves.size(); ++i)
        if (const auto f = drying_of(w.slab(i).slab, w.slab(i).thickness_mm, w.shop.air, dry_enough_pct(w.job.room, w.shop), w.job.start);
            f && f->fitted)
            dries = std::max(dries, f->days.value_or(0));
    if (dries > 0) give(out, w.p.rack, "dry", "Dry in the shop", step_key::rack, 0, dries * 24);
    double days = 0;
    for (std::size_t i = 0; i < w.slabs.leaves.size(); ++i) days = std::max(days, settle_left_days(w.slab(i).slab, w.job.start));
    if (days > 0) give(out, w.p.rack, "settle", "Settle in the shop", step_key::rack, 0, days * 24);
}

/// Each slab once: what of it goes back to the rack is money's to say.
void needs(const ThingsAsk& a, std::vector<Need>& out) {
    for (std::size_t i = 0; i < a.plan.leaves.size(); ++i) {
        const LeafPlan& l = a.plan.leaves[i];
        if (!l.made) continue;
        const Slab& slab = l.slab();
        out.push_back({NeedKind::slab, "slab " + slab.id, slab.name, 1, "pcs", "lay", {}, {}, slab.price});
    }
}

void things(const ThingsAsk& a, std::vector<Thing>& out) {
    if (a.plan.slab()) add(out, flaw_things(*a.plan.slab(), *a.plan.shape()));
}

std::span<const TemplateRow> drawings() {
    using Asked = const TemplateAsked&;
    static constexpr TemplateRow all[] = {
        {"slab", "The outline of the slab", "The slab has no outline yet: there is nothing to draw.",
         [](Asked a) {
             if (a.plan.slab()) return drawn_slab(*a.plan.slab(), *a.plan.shape());
             const LeafPlan& leaf = a.plan.leaves.at(a.leaf);
             return drawn_slab(leaf.slab(), leaf.shape());
         }},
    };
    return all;
}

}  // namespace of_rack

StepRow rack_row() {
    using namespace of_rack;
    return {
        .step = step_key::rack,
        .name = "Rack",
        .on = StepRow::On::leaf,
        .says = says<&Plan::rack>,
        .own = own<&Plan::rack>,
        .headlines = rack_headlines,
        .plan = plan,
        .operations = operations,
        .kinds = kinds,
        .needs = needs,
        .things = things,
        .shop = "air store dry_allowed_pct workday",
        .drawings = drawings,
    };
}

}  // namespace yb
