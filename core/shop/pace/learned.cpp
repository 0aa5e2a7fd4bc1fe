#include "core/shop/pace/learned.h"

#include <algorithm>
#include <cmath>

#include "core/ground/calendar/workclock.h"
#include "core/shop/days/season.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"

namespace yb {

Learned learned_paces(const Documents& docs, const Work& work) {
    std::vector<std::string> ids;
    for (const auto& [id, j] : docs.jobs)
        if (!j.days.done.empty() && can_be_planned(docs, j)) ids.push_back(id);
    std::vector<std::shared_ptr<const Plan>> all(ids.size());
    in_parallel(ids.size(), [&](std::size_t i) { all[i] = std::make_shared<Plan>(plan_job(docs.jobs.at(ids[i]), docs)); }, work);
    std::map<std::string, std::shared_ptr<const Plan>> plans;
    for (std::size_t i = 0; i < ids.size(); ++i) plans[ids[i]] = all[i];
    return learned_paces(docs, plans);
}

Learned learned_paces(const Documents& docs, const std::map<std::string, std::shared_ptr<const Plan>>& plans) {
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
    for (const PaceKind& k : pace_kinds()) {
        std::vector<Took> of;
        for (const Took& t : out.took)
            if (t.kind == k.key) of.push_back(t);
        const PaceFigure f = learn(k.key, of);
        std::size_t i = 0;
        for (Took& t : out.took)
            if (t.kind == k.key) t.outlier = of[i++].outlier;
        if (f.tables > 0) out.figures.push_back(f);
    }
    return out;
}

std::map<std::string, double> hours_taken(const Learned& learned, const std::string& job) {
    std::map<std::string, double> out;
    for (const Took& t : learned.took)
        if (t.job == job && !t.outlier) out[t.operation] = t.took_h;
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
