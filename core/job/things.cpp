#include "core/job/things.h"

#include <algorithm>
#include <iterator>

#include "core/fill/fill.h"
#include "core/fill/resin.h"
#include "core/flat/flat.h"
#include "core/flat/next_reading.h"
#include "core/job/job.h"
#include "core/job/plan.h"
#include "core/job/planning.h"
#include "core/job/shop.h"
#include "core/job/steps.h"
#include "core/join/join.h"
#include "core/lay/lay.h"
#include "core/makeup/makeup_told.h"
#include "core/match/likeness.h"
#include "core/pour/pour.h"
#include "core/top/top.h"
#include "core/under/under.h"

namespace yb {

namespace {

void add(std::vector<Thing>& to, std::vector<Thing> more) { std::move(more.begin(), more.end(), std::back_inserter(to)); }

/// What a leaf brings to the whole top.
std::vector<Figure> leaf_figures(const Plan& plan, std::size_t i) {
    const LeafPlan& leaf = plan.leaves[i];
    const LeafPart& part = plan.makeup->leaves[i];
    const Sides sides = sides_of(part.part);
    std::vector<Figure> out;
    if (!sides.low.empty() && !sides.high.empty()) {
        const Apart width = apart(sides.low, sides.high);
        out.push_back({"leaf.width",
                       "Its share of the width",
                       mm(width.mean_mm),
                       {},
                       say("{} to {}", mm(width.narrowest_mm), mm(width.widest_mm)),
                       {"between its rip lines or edges inside the top; mean over its length",
                        {{"length", mm(width.length_mm), "inside the top"}},
                        "at every corner of both sides"}});
    }
    out.push_back(
        {"leaf.area", "Face in the top", square_metres(area(part.part) * 1e-6), {}, {}, {"what of its show face lies in the top", {}, ""}});
    if (leaf.flat && leaf.flat->ready)
        out.push_back({"leaf.thickness",
                       "Comes to, could be",
                       fine(leaf.flat->thickness_mm),
                       fine(leaf.flat->most_mm),
                       {},
                       {"all leaves come to what the thinnest gives; what the chosen tilt would leave of this one", {}, "Flat"}});
    const Slab& slab = leaf.slab();
    out.push_back({"leaf.slab",
                   "Its slab is long",
                   mm(leaf.shape().x1 - leaf.shape().x0),
                   {},
                   slab.tree.empty() ? say("{}", slab.species) : say("{}, {}", slab.species, slab.tree),
                   {"last station − first", {}, "tape table"}});
    if (slab.moisture_pct)
        out.push_back({"leaf.moisture",
                       "Reads",
                       percent(*slab.moisture_pct),
                       {},
                       slab.moisture_on.empty() ? Phrase() : say("on {}", slab.moisture_on),
                       {"the meter", {}, "Rack"}});
    return out;
}

std::vector<Thing> leaf_things(const Plan& plan, bool whole) {
    std::vector<Thing> out;
    const Frame bench = plan.placement.frame();
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) {
        const Slab& slab = plan.leaves[i].slab();
        Thing t{"leaf " + std::to_string(i + 1), "leaf", i, say("Leaf {}: {}", count(static_cast<double>(i) + 1), slab.name)};
        t.of = slab.name;
        if (whole && plan.makeup && i < plan.makeup->leaves.size()) {
            t.area = bench.to_slab(plan.makeup->leaves[i].part);
            t.figures = leaf_figures(plan, i);
        }
        out.push_back(std::move(t));
    }
    return out;
}

std::vector<std::optional<double>> drifts(const Plan& plan) {
    std::vector<std::optional<double>> out;
    if (!plan.makeup || !plan.seams) return out;
    std::size_t seam = 0;
    for (const JointPlan& j : plan.makeup->joints)
        out.push_back(j.river || seam >= plan.seams->size() ? std::nullopt : std::optional((*plan.seams)[seam++].worst_mm));
    return out;
}

}  // namespace

std::vector<Thing> things_of(const Plan& plan, const Job& job, const Shop& shop, Step step) {
    std::vector<Thing> out;
    if (!plan.drawable()) return out;
    if (step == step_key::rack) return plan.slab() ? flaw_things(*plan.slab(), *plan.shape()) : out;
    if (plan.leaves.size() > 1 && step != step_key::sheets) add(out, leaf_things(plan, plan.whole()));
    const Frame bench = plan.placement.frame();
    if (step == step_key::lay && !plan.whole()) add(out, flaw_things(*plan.slab(), *plan.shape()));
    if (step == step_key::lay && plan.makeup) add(out, joint_things(*plan.makeup, job.makeup, bench, drifts(plan)));
    if (step == step_key::flat && plan.flat->ready && plan.slab()) {
        const std::size_t leaf = plan.on_bench < 0 ? 0 : static_cast<std::size_t>(plan.on_bench);
        add(out, flat_things(*plan.flat, shop.sled, job.leaves.at(std::min(leaf, job.leaves.size() - 1)).rounds));
        if (const auto next = next_reading(*plan.slab(), *plan.shape(), *plan.flat, plan.lay->outline)) out.push_back(reading_thing(*next));
        if (const auto missed = what_readings_missed(*plan.slab(), *plan.shape(), *plan.flat, plan.lay->outline))
            out.push_back(missed_thing(*missed, *plan.flat));
    }
    if (step == step_key::fill && plan.fill->ready) add(out, fill_things(*plan.fill, shop.resins));
    if (step == step_key::pour && plan.pour->ready) add(out, pour_things(*plan.pour, find_resin(shop.resins, plan.pour->resin), bench));
    if (step == step_key::join && plan.join->ready) add(out, join_things(*plan.join, job.join, *plan.makeup, bench));
    if (step == step_key::under && plan.under->ready) add(out, under_things(*plan.under, job.under, job.top, bench));
    return out;
}

}  // namespace yb
