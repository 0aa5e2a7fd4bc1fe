#include "core/shop/ways/ways.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/shop/days/season.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/lay/lay.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"

namespace yb {

std::string first_of_ways(const Documents& docs, const std::string& job) {
    const auto it = docs.jobs.find(job);
    return it != docs.jobs.end() && !it->second.way_of.empty() && docs.jobs.count(it->second.way_of) ? it->second.way_of : job;
}

std::vector<std::string> ways_of_job(const Documents& docs, const std::string& job) {
    const std::string first = first_of_ways(docs, job);
    std::vector<std::string> out{first};
    for (const auto& [id, j] : docs.jobs)
        if (id != first && j.way_of == first && !j.put_away) out.push_back(id);
    return out;
}

std::string name_of_way(const Documents& docs, const std::string& job) {
    const Job& j = docs.jobs.at(job);
    return j.way.empty() ? "as first laid out" : j.way;
}

std::string add_way(Documents& docs, const std::string& job, const std::string& name) {
    const std::string first = first_of_ways(docs, job);
    Job way = docs.jobs.at(job);
    way.id = fresh_id(first.c_str(), docs);
    way.way_of = first;
    way.way = name;
    way.put_away = false;
    way.record = {};
    way.runs.clear();
    way.days.done.clear();
    way.cuts_done = false;
    docs.jobs[way.id] = way;
    return way.id;
}

void take_way(Documents& docs, const std::string& job) {
    const std::string first = first_of_ways(docs, job);
    if (first == job) return;
    Job& was = docs.jobs.at(first);
    Job& is = docs.jobs.at(job);
    // What happened, and who it is for, belongs to the piece and not to a way of it.
    std::swap(was, is);
    std::swap(was.id, is.id);
    std::swap(was.name, is.name), std::swap(was.client, is.client);
    std::swap(was.record, is.record), std::swap(was.runs, is.runs), std::swap(was.days.done, is.days.done);
    std::swap(was.cuts_done, is.cuts_done);
    was.way_of.clear(), is.way_of = first;
    if (is.way.empty()) is.way = "as first laid out";
}

void put_way_away(Documents& docs, const std::string& job, bool away) {
    if (Job& j = docs.jobs.at(job); !j.way_of.empty()) j.put_away = away;
}

WayLine way_line(const Documents& docs, const std::string& job, const Plan* plan) {
    const Job& j = docs.jobs.at(job);
    WayLine w;
    w.job = job, w.name = name_of_way(docs, job);
    w.length_mm = j.top.length_mm, w.width_mm = j.top.width_mm;
    const std::vector<std::string> own = j.slabs();
    for (const std::string& other : ways_of_job(docs, job)) {
        if (other == job) continue;
        for (const std::string& s : docs.jobs.at(other).slabs())
            if (std::find(own.begin(), own.end(), s) != own.end() && docs.slabs.count(s)) {
                const std::string& name = docs.slabs.at(s).name;
                if (std::find(w.shares.begin(), w.shares.end(), name) == w.shares.end()) w.shares.push_back(name);
            }
    }
    if (!plan || !plan->drawable() || !plan->top) return w;
    w.planned = true;
    w.thickness_mm = plan->top->thickness_mm;
    w.weight_kg = plan->top->mass_kg;
    w.days = plan->days->end_h / 24;
    w.ready = plan->days->ready;
    const Money m = money_of(*plan, j, docs.shop);
    w.offer = m.offer, w.cost = m.cost, w.missing = m.missing.size(), w.hands_h = m.hands_h;
    w.resin_l = plan->pour->mix_l + plan->fill->mixed_l;
    for (const Caution& c : plan->sheets.cautions) w.stops += c.severity == Severity::stop, w.watches += c.severity == Severity::watch;
    double whole = 0, kept = 0;
    for (std::size_t i = 0; i < plan->leaves.size(); ++i) {
        const LeafPlan& l = plan->leaves[i];
        if (!l.made || !l.lay) continue;
        whole += std::abs(area(l.shape().ring_a));
        kept += std::abs(area(l.lay->outline));
    }
    for (const MoneyLine& l : m.lines)
        if (l.kind == key_of(NeedKind::slab) && l.amount < 0 && plan->leaves.size() == 1) kept += -l.amount * whole;
    w.waste_pct = whole > 0 ? std::clamp(100 * (1 - kept / whole), 0.0, 100.0) : 0;
    return w;
}

std::vector<WayLine> compare_ways(const Documents& docs, const std::string& job, const Work& work) {
    const auto ids = ways_of_job(docs, job);
    std::vector<WayLine> out(ids.size());
    in_parallel(
        ids.size(),
        [&](std::size_t i) {
            if (!can_be_planned(docs, docs.jobs.at(ids[i]))) {
                out[i] = way_line(docs, ids[i], nullptr);
                return;
            }
            const Plan plan = plan_job(docs.jobs.at(ids[i]), docs);
            out[i] = way_line(docs, ids[i], &plan);
        },
        work);
    return out;
}

}  // namespace yb
