#include "core/shop/edit/mends.h"
#include "core/shop/job/job.h"

#include <algorithm>
#include <span>
#include <vector>

#include "core/ground/fields/walk.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/mending.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"

namespace yb {

namespace {

/// Of no step by itself.
constexpr MendEdit for_all[] = {
    {"in_range",
     [](Documents& d, Job& j, const Takes&) {
         hold_in_range(walk_of(j));
         hold_in_range(walk_of(d.shop));
     }},
};

const MendEdit* find_edit(const std::string& key) {
    const auto among = [&](std::span<const MendEdit> all) {
        const auto it = std::find_if(all.begin(), all.end(), [&](const MendEdit& e) { return key == e.key; });
        return it == all.end() ? nullptr : &*it;
    };
    for (const StepRow& row : steps())
        if (const MendEdit* e = row.edits ? among(row.edits()) : nullptr) return e;
    return among(for_all);
}

/// What might help, the gentlest first.
std::vector<Mend> ways(const Caution& c, const Documents& docs, const Job& job, const Plan& plan) {
    std::vector<Mend> out;
    const MendAsk ask{c, docs, job, plan, c.at ? std::optional(plan.placement.frame().from_slab(*c.at)) : std::nullopt, out};
    for (const StepRow& row : steps())
        if (row.mends) row.mends(ask);
    if (c.key == "plan.range") ask.offer("in_range", say("Take what it is planned with"));
    return out;
}

/// What a plan says of one key, and its stops in all.
struct Weight {
    int worst = -1, told = 0, stops = 0;
};
Weight weigh(const Plan& plan, const std::string& key) {
    Weight w;
    for (const StepRow& row : steps()) {
        if (row.on == StepRow::On::beside) continue;
        for (const Caution& c : row.says(plan)->cautions) {
            w.stops += c.severity == Severity::stop;
            if (c.key != key) continue;
            ++w.told, w.worst = std::max(w.worst, static_cast<int>(c.severity));
        }
    }
    return w;
}

}  // namespace

void mended(Documents& docs, const std::string& job, const Mend& mend) {
    const MendEdit* edit = find_edit(mend.edit);
    const auto it = docs.jobs.find(job);
    if (!edit || it == docs.jobs.end()) throw Refusal(say("This can't be mended any more. Look the job over; nothing was changed."));
    Documents tried = docs;  // half a mend is none
    try {
        edit->make(tried, tried.jobs.at(job), mend.takes);
    } catch (const std::exception&) {
        throw Refusal(say("This can't be mended any more: what it was about is gone. Nothing was changed."));
    }
    docs = std::move(tried);
}

std::optional<Mend> mend_of(const Caution& caution, const Documents& docs, const std::string& job, const Plan& plan, const Work& work) {
    const auto it = docs.jobs.find(job);
    if (it == docs.jobs.end()) return {};
    const auto all = ways(caution, docs, it->second, plan);
    if (all.empty()) return {};
    const Weight now = weigh(plan, caution.key);
    for (const Mend& m : all) {
        work.check();
        Documents tried;  // only what the plan needs
        tried.shop = docs.shop;
        tried.jobs[job] = it->second;
        for (const std::string& id : it->second.slabs())
            if (const auto s = docs.slabs.find(id); s != docs.slabs.end()) tried.slabs[id] = s->second;
        try {
            mended(tried, job, m);
            const Weight then = weigh(plan_job(tried.jobs.at(job), tried, plan.on_bench), caution.key);
            if ((then.worst < now.worst || then.told < now.told) && then.stops <= now.stops) return m;
        } catch (const std::exception&) {
            continue;
        }
    }
    return {};
}

}  // namespace yb
