#include "core/shop/pace/learned.h"

#include <algorithm>
#include <cmath>

#include "core/ground/calendar/workclock.h"
#include "core/shop/days/season.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/steps/rack/rack.h"

namespace yb {

namespace {

using Plans = std::map<std::string, std::shared_ptr<const Plan>>;

/// Learns what a list holds, kind by kind, and marks in it what lies far off.
void learn_into(Learned& out, bool figures_with_units) {
    for (const PaceKind& k : pace_kinds()) {
        if ((k.unit != nullptr) != figures_with_units) continue;
        std::vector<Took> of;
        for (const Took& t : out.took)
            if (t.kind == k.key) of.push_back(t);
        const PaceFigure f = learn(k.key, of);
        std::size_t i = 0;
        for (Took& t : out.took)
            if (t.kind == k.key) t.outlier = of[i++].outlier;
        if (f.tables > 0) out.figures.push_back(f);
    }
}

/// What cards were ticked, mixed and left over, and how slabs have dried.
Learned figures_of(const Documents& docs, const Plans& plans) {
    Learned out;
    for (const auto& [id, plan] : plans) {
        const Job& job = docs.jobs.at(id);
        for (const CardRun& run : job.runs) {
            const CardRow* card = find_card(run.card);
            if (!card || !plan || run.ticks.empty()) continue;
            auto took = took_of_card(id, card_of(run.card, job, *plan, docs.shop), run, docs.shop.paces, card->mixes);
            out.took.insert(out.took.end(), std::make_move_iterator(took.begin()), std::make_move_iterator(took.end()));
        }
    }
    for (const auto& [id, slab] : docs.slabs) {
        if (slab.moisture_log.size() + (slab.moisture_pct ? 1 : 0) < 3) continue;
        const std::string& last = slab.moisture_pct ? slab.moisture_on : slab.moisture_log.back().on;
        const SlabShape shape = shape_of(slab);
        if (!shape.usable) continue;
        const double thick = means_of(shape, slab.cross_cut).thickness_mm;
        const auto f = drying_of(slab, thick, docs.shop.air, 0, last);
        if (f && f->fitted && f->doubt < 1.5)
            out.took.push_back({"drying", id, "dries", rule_tau_days(thick, slab.cross_cut), f->tau_days, "days", false, false});
    }
    learn_into(out, true);
    return out;
}

void take_in(Learned& all, Learned more) {
    all.figures.insert(all.figures.end(), std::make_move_iterator(more.figures.begin()), std::make_move_iterator(more.figures.end()));
    all.took.insert(all.took.end(), std::make_move_iterator(more.took.begin()), std::make_move_iterator(more.took.end()));
}

}  // namespace

Learned learned_paces(const Documents& docs, const Work& work) {
    std::vector<std::string> ids;
    for (const auto& [id, j] : docs.jobs)
        if (!(j.days.done.empty() && j.runs.empty()) && can_be_planned(docs, j)) ids.push_back(id);
    const auto planned = [&](const Shop* shop) {
        std::vector<std::shared_ptr<const Plan>> all(ids.size());
        in_parallel(
            ids.size(), [&](std::size_t i) { all[i] = std::make_shared<Plan>(plan_job(docs.jobs.at(ids[i]), docs, whole_top, shop)); },
            work);
        Plans plans;
        for (std::size_t i = 0; i < ids.size(); ++i) plans[ids[i]] = all[i];
        return plans;
    };
    Plans plans = planned(nullptr);
    Learned figures = figures_of(docs, plans);
    // Whole operations are learned beside what they come to with those figures: the two are used together.
    Shop shop = docs.shop;
    take_paces(shop, figures.figures);
    const auto other = [&](const PaceFigure& f) { return pace_of(shop.paces, f.key) != pace_of(docs.shop.paces, f.key); };
    if (std::any_of(figures.figures.begin(), figures.figures.end(), other)) plans = planned(&shop);
    Learned out = learned_hours(docs, plans);
    take_in(out, std::move(figures));
    return out;
}

Learned learned_hours(const Documents& docs, const std::map<std::string, std::shared_ptr<const Plan>>& plans) {
    std::string start;
    for (const auto& [id, plan] : plans)
        if (plan && is_date(docs.jobs.at(id).start) && (start.empty() || docs.jobs.at(id).start < start)) start = docs.jobs.at(id).start;
    Learned out;
    if (start.empty()) return out;
    std::vector<DoneJob> jobs;
    for (const auto& [id, plan] : plans) {
        if (!plan || docs.jobs.at(id).days.done.empty()) continue;
        Net net = net_of(id, docs.jobs.at(id), *plan, start);
        // Hours that were typed over are the maker's own guess, not a starting value.
        for (const OpChange& c : docs.jobs.at(id).days.changes)
            if (c.hands_h) std::erase_if(net.operations, [&](const Operation& o) { return o.key == c.key; });
        jobs.push_back({id, std::move(net.operations), docs.jobs.at(id).days.done});
    }
    out.took = took_of(jobs, WorkClock(start, docs.shop.workday));
    learn_into(out, false);
    return out;
}

std::map<std::string, double> hours_taken(const Learned& learned, const std::string& job) {
    std::map<std::string, double> out;
    for (const Took& t : learned.took)
        if (const PaceKind* k = find_pace_kind(t.kind); k && !k->unit && t.job == job && !t.outlier) out[t.operation] = t.took;
    return out;
}

bool take_paces(Shop& shop, const std::vector<PaceFigure>& figures) {
    bool other = false;
    for (const PaceFigure& f : figures) {
        const auto it = std::find_if(shop.paces.begin(), shop.paces.end(), [&](const PaceFigure& p) { return p.key == f.key; });
        if (it == shop.paces.end()) {
            shop.paces.push_back(f);
            other = true;
        } else if (std::abs(it->times - f.times) > 0.01 || it->tables != f.tables) {
            const bool back = it->put_back;
            *it = f;
            it->put_back = back;
            other = true;
        }
    }
    return other;
}

void put_back(Shop& shop, const std::string& kind, bool back) {
    for (PaceFigure& p : shop.paces)
        if (p.key == kind) p.put_back = back;
}

}  // namespace yb
