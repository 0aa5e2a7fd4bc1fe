// What each choice costs: every option of a step's choices planned whole, beside the plan as it stands.
#pragma once

#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/work/work.h"
#include "core/shop/money/money.h"

namespace yb {

struct Documents;

/// What an option of a step's choices does to money and days, by planning it whole.
struct ChoiceCost {
    std::string choice, option;
    Cents money = 0;     ///< more on the offer
    double days = 0;     ///< later
    double hands_h = 0;  ///< more of the maker's
};
/// Of every option of every choice of a step but those that are taken. Options that can't be taken are left out. @param whole the job's
/// plan as it stands.
/// @throws Cancelled.
/// @param only the key of one choice; empty: all of them.
std::vector<ChoiceCost> choice_costs(const Documents& docs, const std::string& job, const Plan& whole, Step step, const Work& work = {},
                                     const std::string& only = {});

/// What lies between two plans of a job.
ChoiceCost change_between(const Documents& before, const Plan& was, const Documents& after, const Plan& is, const std::string& job);

/// "+84.00 · 1 day later", in the shop's words; empty where nothing changes.
Phrase said_of(const ChoiceCost& cost);

}  // namespace yb
