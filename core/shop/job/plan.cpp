#include "core/shop/job/plan.h"

#include "core/shop/job/needs.h"
#include "core/steps/pace/pace.h"

#include <algorithm>
#include <cmath>
#include <span>
#include <stdexcept>

#include "core/ground/fields/walk.h"
#include "core/ground/file/format_error.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/held.h"
#include "core/shop/job/planning.h"
#include "core/shop/job/rates.h"
#include "core/shop/job/state.h"
#include "core/shop/job/steps.h"
#include "core/shop/job/work_order.h"
#include "core/steps/days/days.h"
#include "core/steps/flat/yard.h"
#include "core/steps/join/join.h"
#include "core/steps/makeup/cuts.h"
#include "core/steps/match/likeness.h"
#include "core/steps/pour/pour.h"
#include "core/steps/rack/looked.h"
#include "core/steps/rack/rack.h"
#include "core/steps/under/under.h"

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

std::shared_ptr<const PreparedSlab> prepare(const Slab& slab, bool over) {
    auto p = std::make_shared<PreparedSlab>();
    Slab held = slab;
    const auto out = hold_in_range(walk_of(held));
    try {
        p->ways = both_ways(held);
    } catch (const std::exception& e) {
        // What can't be shaped is told, and the slab opens without a shape.
        auto ways = std::make_shared<BothWays>();
        ways->up = held;
        ways->over = turned_over(held);
        p->ways = ways;
        p->cautions.push_back(
            {"rack.failed", Severity::stop, step_key::rack,
             say("The slab's shape can't be made of these readings ({}). Look its tape table and outline over.", sentence_of(e))});
    }
    p->slab = p->ways->slab(over);
    p->shape = p->ways->shape(over);
    if (p->shape.usable) {
        const SlabMeans means = means_of(p->shape, p->slab.cross_cut);
        p->thickness_mm = means.thickness_mm;
        p->whole_mm = whole_thickness(p->shape);
        p->figures = figures_of(p->slab, p->shape, means);
        if (const auto f = yard_finish(p->slab, p->shape))
            for (Figure& figure : yard_figures(*f)) p->figures.push_back(std::move(figure));
    }
    for (const Caution& c : p->shape.cautions)
        if (!only_blank(c.key)) p->cautions.push_back(c);
    if (auto damp = too_damp(p->slab)) p->cautions.push_back(std::move(*damp));
    for (const OutOfRange& o : out) p->cautions.push_back(out_of_range(o, step_key::rack));
    sort_by_severity(p->cautions);
    return p;
}

std::shared_ptr<const BothWays> ways_of(const PreparedSlab& slab) { return slab.ways; }

Plan plan_job(const Job& job, const Slab& slab, const Shop& shop) {
    return plan_job(job, JobSlabs{{prepare(slab, job.first().placement.turned_over)}}, shop);
}

Plan plan_job(const Job& job, const Documents& docs, int on_bench, const Shop* shop) {
    JobSlabs slabs;
    for (const Leaf& l : std::span(job.leaves).first(std::min(job.leaves.size(), most_leaves)))
        slabs.leaves.push_back(prepare(docs.slabs.at(l.slab), l.placement.turned_over));
    for (const Patch& p : job.makeup.patches) {
        const auto it = docs.slabs.find(p.slab);
        slabs.patches.push_back(it == docs.slabs.end() ? nullptr : prepare(it->second, false)->ways);
    }
    return plan_job(job, slabs, shop ? *shop : docs.shop, {on_bench, {}, nullptr});
}

namespace {

/// Empty plans, so that nobody meets a null pointer where a step has nothing to say.
void start_empty(Plan& p) {
    static const auto days = std::make_shared<const DaysPlan>();
    p.days = days;
    for (const StepRow& row : steps())
        if (row.empty) row.empty(p);
}

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

double StepAir::settles_pct() const { return equilibrium_moisture(day.temp_c, day.rh_pct); }

StepAir Plan::air_of(Step step) const {
    const auto it = airs.find(step.key);
    return it == airs.end() ? StepAir{shop_air, shop_air.temp_c, shop_air.temp_c} : it->second;
}

namespace {

/// What the schedule says of the air: of each step's operations that it matters to, the first's month and the extremes of all.
Airs airs_of(const Plan& p, const Job& job, const Climate& shop) {
    Airs out;
    std::map<std::string, double, std::less<>> first_h;
    const DaysPlan& days = *p.days;
    if (days.start.empty()) return out;
    for (const Operation& o : days.operations) {
        if (o.aside || !o.in_air) continue;
        Month air = shop.months[static_cast<std::size_t>(month_of(date_after(days.start, o.start_h)))];
        for (const OpChange& c : job.days.changes)
            if (c.key == o.key && c.air_c) air.temp_c = *c.air_c;
        const auto [it, is_new] = out.try_emplace(std::string(o.step.key), StepAir{air, air.temp_c, air.temp_c});
        StepAir& s = it->second;
        s.coldest_c = std::min(s.coldest_c, air.temp_c), s.warmest_c = std::max(s.warmest_c, air.temp_c);
        const auto [h, first] = first_h.try_emplace(it->first, o.start_h);
        if (!first && o.start_h < h->second) h->second = o.start_h, s.day = air;
    }
    const StepAir at_start{p.shop_air, p.shop_air.temp_c, p.shop_air.temp_c};
    std::erase_if(out, [&](const auto& one) { return one.second == at_start; });
    return out;
}

/// @param[out] says_air what its days say of the air.
Plan plan_once(const Job& given_job, const JobSlabs& slabs, const Shop& given_shop, const PlanFor& wanted, Airs& says_air) {
    Held held(given_job, given_shop);
    with_rates(held.shop, held.job, given_shop.paces);
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
    if (wanted.airs) p.airs = *wanted.airs;
    else if (wanted.dragged_in && wanted.before) p.airs = wanted.before->airs;
    Planning w{job, slabs, shop, wanted, p};
    w.quick = wanted.dragged_in.has_value();
    // While something is dragged, later steps stand still.
    const Plan* before = wanted.before;
    w.still = w.quick && before && before->on_bench == wanted.on_bench && before->lay->ready && before->leaves.size() == p.leaves.size();
    const auto guarded = [&](const StepRow& row, auto&& work) {
        try {
            work();
        } catch (const std::exception& e) {
            held.cautions.emplace_back(row.step, Caution{"plan.failed", Severity::stop, row.step,
                                                         say("{} can't be planned with what is given ({}). Look over what was typed last.",
                                                             row.name, sentence_of(e))});
        }
    };
    const auto in_it = [&](const StepRow& row) { return !wanted.slab_alone || row.step == step_key::rack; };
    for (const StepRow& row : steps())
        if (row.plan && in_it(row)) guarded(row, [&] { row.plan(w); });
    for (const StepRow& row : steps())
        if (row.told && in_it(row)) guarded(row, [&] { row.told(w); });
    if (w.still) {
        p.days = before->days;
    } else if (!wanted.slab_alone) {
        std::vector<Operation> all;
        for (const StepRow& row : steps())
            if (row.operations) guarded(row, [&] { row.operations(w, all); });
        const WorkOrder order;
        for (Operation& o : all) order.place(o);
        const std::size_t given = all.size();
        order_short(all, needs_of(p, job, shop), shop.money.order_days, shop.labour);
        for (std::size_t i = given; i < all.size(); ++i) order.place(all[i]);
        with_pace(all, shop.paces);
        with_choices(all, job.days, job.start);
        p.days = std::make_shared<DaysPlan>(plan_days(std::move(all), job.start, shop.workday, &shop.air));
        says_air = airs_of(p, job, shop.air);
        for (const Operation& o : p.days->operations) {
            const double day = longest_day_h(shop.workday, o.works() == Who::both     ? Crew::both
                                                           : o.works() == Who::helper ? Crew::helper
                                                                                      : Crew::maker);
            if (!o.in_one_go || o.done_h || day <= 0 || o.hands_on_h <= day + 1e-6) continue;
            held.cautions.emplace_back(
                o.step, Caution{"plan.long_day", Severity::watch, o.step,
                                say("‘{}’ takes {} and can't be left once it is begun; the longest day has {}. A second pair of hands, "
                                    "stages, fewer batches or a longer day make it fit.",
                                    o.label, hours(o.hands_on_h), hours(day))});
        }
        if (p.days->endless)
            held.cautions.emplace_back(step_key::lay,
                                       Caution{"plan.endless", Severity::watch, step_key::lay,
                                               say("Hands and waiting add up to more than twenty years: the days are held there. Look for "
                                                   "hours that were typed too large.")});
    }
    if (!w.quick && !wanted.slab_alone && w.top)
        for (const StepRow& row : steps())
            if (row.dated) guarded(row, [&] { row.dated(w); });
    lay_on_bench(w);
    if (!w.quick && !given_shop.paces.empty())
        for (const StepRow& row : steps())
            if (auto figures = row.says(p)->figures; tell_rates(figures, given_shop.paces, given_shop, given_job))
                row.own(p)->figures = std::move(figures);
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

}  // namespace

Plan plan_job(const Job& job, const JobSlabs& slabs, const Shop& shop, const PlanFor& wanted) {
    if (slabs.leaves.size() > most_leaves) {
        JobSlabs first = slabs;
        first.leaves.resize(most_leaves);
        return plan_job(job, first, shop, wanted);
    }
    Airs airs, next;
    Plan p = plan_once(job, slabs, shop, wanted, next);
    if (wanted.dragged_in || wanted.slab_alone || wanted.airs) return p;
    // The days say which air it is done in, and that air how long it takes: planned again until they agree.
    for (int again = 0; again < 3 && next != airs; ++again) {
        airs = next;
        const Plan before = std::move(p);
        PlanFor ask = wanted;
        ask.before = &before, ask.airs = &airs;
        p = plan_once(job, slabs, shop, ask, next);
    }
    return p;
}

namespace {

std::string word_of_state(const Job& job, const Documents& docs) {
    for (const Leaf& l : job.leaves)
        if (!docs.slabs.count(l.slab)) return state_of(job, nullptr).key;
    const Plan plan = plan_job(job, docs);
    return state_of(job, &plan).key;
}

}  // namespace

std::vector<JobLine> job_lines(const Documents& docs) {
    std::vector<JobLine> out;
    for (const auto& [id, j] : docs.jobs) out.push_back({id, j.name, word_of_state(j, docs), j.start, j.slabs()});
    return out;
}

}  // namespace yb
