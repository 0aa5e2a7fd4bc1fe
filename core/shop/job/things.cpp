#include "core/shop/job/things.h"

#include <algorithm>
#include <iterator>

#include "core/shop/job/plan.h"
#include "core/shop/job/prepared.h"
#include "core/shop/job/steps.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/makeup_told.h"

namespace yb {

namespace {

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

}  // namespace

std::vector<Thing> things_of(const Plan& plan, const Job& job, const Shop& shop, Step step) {
    std::vector<Thing> out;
    const StepRow* row = find_step(step.key);
    if (!row || !plan.drawable()) return out;
    if (plan.leaves.size() > 1 && step != step_key::rack && row->on != StepRow::On::beside) out = leaf_things(plan, plan.whole());
    if (row->things) row->things({plan, job, shop, plan.placement.frame()}, out);
    return out;
}

}  // namespace yb
