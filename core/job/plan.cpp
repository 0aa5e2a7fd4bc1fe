#include "core/job/plan.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/days/days.h"
#include "core/fields/walk.h"
#include "core/job/documents.h"
#include "core/job/planning.h"
#include "core/job/steps.h"
#include "core/join/join.h"
#include "core/makeup/cuts.h"
#include "core/match/likeness.h"
#include "core/pour/pour.h"
#include "core/rack/rack.h"
#include "core/under/under.h"

namespace yb {

const Slab& LeafPlan::slab() const { return made->slab; }
const SlabShape& LeafPlan::shape() const { return made->shape; }
const Slab* Plan::slab() const { return on ? &on->slab : nullptr; }
const SlabShape* Plan::shape() const { return on ? &on->shape : nullptr; }

bool Plan::drawable() const { return on ? !on->shape.ring_a.empty() : lay->ready; }

Span1 Plan::stations() const {
    if (on) return {on->shape.x0, on->shape.x1};
    return {0, 2 * placement.x_mm};
}

const StepPlan& Plan::said(Step step) const { return *row_of(step).says(*this); }

bool Planning::asked(Step step) const { return !still || !yb::before(*wanted.dragged_in, step); }

namespace {

/// One caution a field that lies out of its range.
Caution out_of_range(const OutOfRange& o, Step step) {
    const auto q = [&](double v) { return Quantity{v, o.kind}; };
    return {"plan.range",
            Severity::watch,
            step,
            say("{} is {}: from {} to {} can be planned. It is planned with {}; type it anew.", o.label, q(o.value), q(o.range.low),
                q(o.range.high), q(o.held)),
            {},
            {},
            {},
            o.path};
}

}  // namespace

std::shared_ptr<const PreparedSlab> prepare(const Slab& slab, bool over) {
    auto p = std::make_shared<PreparedSlab>();
    Slab held = slab;
    const auto out = hold_in_range(walk_of(held));
    try {
        p->ways = both_ways(held);
    } catch (const std::exception& e) {
        // What can't be shaped is told, and the slab opens without a shape.
        auto ways = std::make_shared<Board2>();
        ways->up = held;
        ways->over = turned_over(held);
        p->ways = ways;
        p->cautions.push_back(
            {"rack.failed", Severity::stop, step_key::rack,
             say("The slab's shape can't be made of these readings ({}). Look its tape table and outline over.", e.what())});
    }
    p->slab = p->ways->slab(over);
    p->shape = p->ways->shape(over);
    if (p->shape.usable) {
        p->thickness_mm = means_of(p->shape).thickness_mm;
        p->whole_mm = whole_thickness(p->shape);
    }
    p->figures = figures_of(p->slab, p->shape);
    const auto take = [&](const std::vector<Caution>& all) { p->cautions.insert(p->cautions.end(), all.begin(), all.end()); };
    take(p->shape.cautions);
    for (const Caution& c : look_over(p->slab, p->shape))
        if (!find_caution(p->cautions, "rack" + c.key.substr(4))) p->cautions.push_back(c);
    for (const OutOfRange& o : out) p->cautions.push_back(out_of_range(o, step_key::rack));
    sort_by_severity(p->cautions);
    return p;
}

std::shared_ptr<const Board2> ways_of(const PreparedSlab& slab) { return slab.ways; }

Plan plan_job(const Job& job, const Slab& slab, const Shop& shop) {
    return plan_job(job, JobSlabs{{prepare(slab, job.first().placement.turned_over)}}, shop);
}

Plan plan_job(const Job& job, const Documents& docs, int on_bench) {
    JobSlabs slabs;
    for (const Leaf& l : job.leaves) slabs.leaves.push_back(prepare(docs.slabs.at(l.slab), l.placement.turned_over));
    for (const Patch& p : job.makeup.patches) {
        const auto it = docs.slabs.find(p.slab);
        slabs.patches.push_back(it == docs.slabs.end() ? nullptr : prepare(it->second, false)->ways);
    }
    return plan_job(job, slabs, docs.shop, {on_bench, {}, nullptr});
}

namespace {

/// Empty plans, so that nobody meets a null pointer where a step has nothing to say.
void start_empty(Plan& p) {
    static const auto lay = std::make_shared<const LayPlan>();
    static const auto makeup = std::make_shared<const MakeUpPlan>();
    static const auto flat = std::make_shared<const FlatPlan>();
    static const auto top = std::make_shared<const Top>();
    static const auto fill = std::make_shared<const FillPlan>();
    static const auto pour = std::make_shared<const PourPlan>();
    static const auto join = std::make_shared<const JoinPlan>();
    static const auto under = std::make_shared<const UnderPlan>();
    static const auto days = std::make_shared<const DaysPlan>();
    static const auto seams = std::make_shared<const std::vector<Likeness>>();
    static const auto cuts = std::make_shared<const CutList>();
    p.lay = lay, p.makeup = makeup, p.flat = flat, p.top = top, p.fill = fill, p.pour = pour, p.join = join, p.under = under, p.days = days;
    p.seams = seams, p.cuts = cuts;
    for (LeafPlan& l : p.leaves) l.lay = lay, l.flat = flat, l.fill = fill;
}

/// The job and shop as they are planned: every number in its range; each that was not is told.
struct Held {
    Job job;
    Shop shop;
    std::vector<std::pair<Step, Caution>> cautions;

    Held(const Job& j, const Shop& s) : job(j), shop(s) {
        for (const StepRow& row : steps()) {
            if (!row.fields) continue;
            for (const OutOfRange& o : hold_in_range([&](FieldVisitor& v) { row.fields(v, job); })) told(o, row.step);
        }
        for (const OutOfRange& o : hold_in_range(walk_of(shop))) told(o, step_key::flat);
        // So many as no top has: laid over one another they would be planned for minutes.
        at_most(job.makeup.patches, 60, counted(0, "patch", "patches"), step_key::lay);
        at_most(job.pour.dividers, 60, counted(0, "divider", "dividers"), step_key::pour);
        at_most(job.join.ties, 300, counted(0, "bow tie", "bow ties"), step_key::join);
        at_most(job.join.gaps, 600, counted(0, "gap", "gaps"), step_key::join);
        at_most(job.under.plates, 40, counted(0, "plate", "plates"), step_key::under);
        at_most(job.under.channels, 40, counted(0, "channel", "channels"), step_key::under);
        for (Patch& patch : job.makeup.patches) fewer_points(patch.outline, "A patch", step_key::lay);
        fewer_points(job.top.free_form, "The top's free form", step_key::lay);
        if (job.leaves.empty()) job.leaves.emplace_back();
    }
    void told(const OutOfRange& o, Step step) { cautions.emplace_back(step, out_of_range(o, step)); }
    template <class T>
    void at_most(std::vector<T>& list, std::size_t most, Counted what, Step step) {
        if (list.size() <= most) return;
        what.n = static_cast<double>(list.size());
        cautions.emplace_back(step, Caution{"plan.many", Severity::watch, step,
                                            say("The job has {}: the plan is made with the first {}, all are kept.", what,
                                                count(static_cast<double>(most)))});
        list.resize(most);
    }
    void fewer_points(Ring& ring, const char* what, Step step) {
        if (tangled(ring)) {
            cautions.emplace_back(step, Caution{"plan.many", Severity::watch, step,
                                                say("{} has an outline that crosses itself hundreds of times: the hull round it is planned "
                                                    "with. Draw it anew.",
                                                    what)});
            ring = convex_hull(ring);
        }
        if (ring.size() <= most_ring_points) return;
        cautions.emplace_back(step, Caution{"plan.many", Severity::watch, step,
                                            say("{} has an outline of {}: the plan is made with every few of them, all are kept.", what,
                                                counted(static_cast<double>(ring.size()), "point", "points"))});
        ring = thinned(ring);
    }
};

/// Puts on the bench what is looked at: a leaf by its number, the only slab, or the whole.
void lay_on_bench(Planning& w) {
    Plan& p = w.p;
    const auto leaf = static_cast<std::size_t>(std::max(0, w.wanted.on_bench));
    if (!w.several()) {
        p.on = w.slabs.leaves[0];
        p.title = named(p.on->slab.name);
        return;
    }
    if (w.wanted.on_bench == whole_top || leaf >= p.leaves.size()) {
        p.title = say("{}, {}", counted(static_cast<double>(p.leaves.size()), "leaf", "leaves"), p.leaves.front().slab().tree);
        return;
    }
    const LeafPlan& l = p.leaves[leaf];
    p.on = l.made;
    p.title = named(l.slab().name);
    if (!w.lay->ready) return;
    p.placement = w.job.leaves[leaf].placement;
    p.flat = l.flat, p.fill = l.fill;
    // What the lay says stays that of the whole; where it lies is the leaf's own.
    auto own = std::make_shared<LayPlan>(*l.lay);
    static_cast<StepPlan&>(*own) = static_cast<const StepPlan&>(*p.lay);
    p.lay = own;
}

}  // namespace

Plan plan_job(const Job& given_job, const JobSlabs& slabs, const Shop& given_shop, const PlanFor& wanted) {
    Held held(given_job, given_shop);
    const Job& job = held.job;
    const Shop& shop = held.shop;
    Plan p;
    p.on_bench = wanted.on_bench;
    p.leaves.resize(slabs.leaves.size());
    start_empty(p);
    for (std::size_t i = 0; i < slabs.leaves.size(); ++i) p.leaves[i].made = slabs.leaves.at(i);
    p.patches = slabs.patches;
    p.patches.resize(job.makeup.patches.size());
    p.shop_air = shop.air.months[static_cast<std::size_t>(month_of(job.start))];
    p.shop_settles_pct = equilibrium_moisture(p.shop_air.temp_c, p.shop_air.rh_pct);
    Planning w{job, slabs, shop, wanted, p};
    w.quick = wanted.dragged_in.has_value();
    // While something is dragged, later steps stand still.
    const Plan* before = wanted.before;
    w.still = w.quick && before && before->on_bench == wanted.on_bench && before->lay->ready && before->leaves.size() == p.leaves.size();
    const auto guarded = [&](const StepRow& row, auto&& work) {
        try {
            work();
        } catch (const std::exception& e) {
            held.cautions.emplace_back(
                row.step, Caution{"plan.failed", Severity::stop, row.step,
                                  say("{} can't be planned with what is given ({}). Look over what was typed last.", row.name, e.what())});
        }
    };
    for (const StepRow& row : steps())
        if (row.plan) guarded(row, [&] { row.plan(w); });
    for (const StepRow& row : steps())
        if (row.told) guarded(row, [&] { row.told(w); });
    if (w.still) {
        p.days = before->days;
    } else {
        std::vector<Operation> all;
        for (const StepRow& row : steps())
            if (row.operations) guarded(row, [&] { row.operations(w, all); });
        p.days = std::make_shared<DaysPlan>(plan_days(std::move(all), job.start, shop.workday));
        if (p.days->endless)
            held.cautions.emplace_back(step_key::lay,
                                       Caution{"plan.endless", Severity::watch, step_key::lay,
                                               say("Hands and waiting add up to more than twenty years: the days are held there. Look for "
                                                   "hours that were typed too large.")});
    }
    lay_on_bench(w);
    for (const StepRow& row : steps()) {
        std::vector<Caution> more;
        for (const auto& [step, caution] : held.cautions)
            if (step == row.step) more.push_back(caution);
        if (more.empty()) continue;
        StepPlan& says = *row.own(p);
        says.cautions.insert(says.cautions.end(), more.begin(), more.end());
        sort_by_severity(says.cautions);
    }
    for (const StepRow& row : steps()) {
        if (row.on == StepRow::On::beside) continue;
        const auto& list = row.says(p)->cautions;
        p.sheets.cautions.insert(p.sheets.cautions.end(), list.begin(), list.end());
    }
    sort_by_severity(p.sheets.cautions);
    return p;
}

}  // namespace yb
