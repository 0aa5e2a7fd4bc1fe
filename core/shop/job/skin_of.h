// Skin's part of a plan, for whoever asks for more of it than every step says.
#pragma once

#include "core/shop/job/plan.h"
#include "core/steps/skin/skin.h"

namespace yb {

/// What was planned of sanding and finish; not ready where the plan has none.
inline const SkinPlan& skin_of(const Plan& plan) {
    static const SkinPlan none;
    const auto it = plan.more.find("skin");
    return it == plan.more.end() ? none : static_cast<const SkinPlan&>(*it->second);
}

}  // namespace yb
