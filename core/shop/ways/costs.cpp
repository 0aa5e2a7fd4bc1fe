#include "core/shop/ways/costs.h"

#include <cmath>
#include <optional>

#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/days/days.h"

namespace yb {

namespace {
ChoiceCost between(const Money& now, const Plan& was, const Money& then, const Plan& is) {
    return {{}, {}, then.offer - now.offer, (is.days->end_h - was.days->end_h) / 24, then.hands_h - now.hands_h};
}
}  // namespace

ChoiceCost change_between(const Documents& before, const Plan& was, const Documents& after, const Plan& is, const std::string& job) {
    return between(money_of(was, before.jobs.at(job), before.shop), was, money_of(is, after.jobs.at(job), after.shop), is);
}

std::vector<ChoiceCost> choice_costs(const Documents& docs, const std::string& id, const Plan& whole, Step step, const Work& work,
                                     const std::string& only) {
    const Job& job = docs.jobs.at(id);
    std::vector<ChoiceCost> asked;
    for (const Choice& c : whole.said(step).choices)
        for (const Option& o : c.options)
            if (!o.chosen && (only.empty() || c.key == only)) asked.push_back({c.key, o.key});
    const Money now = money_of(whole, job, docs.shop);
    std::vector<std::optional<ChoiceCost>> out(asked.size());
    in_parallel(
        asked.size(),
        [&](std::size_t i) {
            work.check();
            Job other = job;
            try {
                take_choice(other, docs.slabs, asked[i].choice, asked[i].option);
                if (other == job) return;
                const Plan plan = plan_job(other, docs);
                ChoiceCost c = between(now, whole, money_of(plan, other, docs.shop), plan);
                c.choice = asked[i].choice, c.option = asked[i].option;
                out[i] = c;
            } catch (const Cancelled&) {
                throw;
            } catch (const std::exception&) {
                // It can't be taken: nothing is said of it.
            }
        },
        work);
    std::vector<ChoiceCost> all;
    for (auto& c : out)
        if (c) all.push_back(std::move(*c));
    return all;
}

Phrase said_of(const ChoiceCost& c) {
    const bool money = c.money != 0, time = std::abs(c.days) >= 0.05;
    const std::string sum = (c.money > 0 ? "+" : "") + in_decimals(c.money);
    const Quantity by = hours(std::abs(c.days) * 24);
    if (money && time) return c.days > 0 ? say("{} · {} later", sum, by) : say("{} · {} sooner", sum, by);
    if (money) return say("{}", sum);
    if (time) return c.days > 0 ? say("{} later", by) : say("{} sooner", by);
    return {};
}

}  // namespace yb
