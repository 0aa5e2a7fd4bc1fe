#include "core/job/cards.h"

#include <algorithm>

#include "core/fill/fill.h"
#include "core/job/job.h"
#include "core/job/plan.h"
#include "core/job/shop.h"
#include "core/join/join.h"
#include "core/pour/pour.h"

namespace yb {

std::vector<CardStep> card_of(const std::string& card, const Job& job, const Plan& plan, const Shop& shop) {
    if (card == "pour" && plan.pour && !plan.pour->lifts.empty() && !shop.resins.empty())
        return pour_card(*plan.pour, job.pour, river_resin(shop.resins, job.fill.river));
    if (card == "glue" && plan.join && !plan.join->joints.empty()) return glue_card(*plan.join, job.join);
    if (card == "rods" && plan.join && !plan.join->rods.empty()) return rod_card(*plan.join, job.join, job.makeup, job.top.length_mm);
    return {};
}

int running_card(const Job& job, const std::string& card) {
    for (std::size_t i = job.runs.size(); i-- > 0;)
        if (job.runs[i].card == card && !job.runs[i].over) return static_cast<int>(i);
    return -1;
}

std::size_t start_card(Job& job, const std::string& card, double now, double fast) {
    if (const int i = running_card(job, card); i >= 0) return static_cast<std::size_t>(i);
    CardRun run;
    run.card = card;
    run.started = utc_text(now);
    run.fast = std::max(1.0, fast);
    job.runs.push_back(std::move(run));
    return job.runs.size() - 1;
}

}  // namespace yb
