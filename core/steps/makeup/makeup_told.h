// What a make-up says, once its geometry stands: figures with their workings, cautions with their places, choices.
#pragma once

#include "core/steps/makeup/makeup.h"

namespace yb {

/// Each joint, river and patch as a thing to be picked. @param drift_mm of each ripped joint along its seam, where it is known.
std::vector<Thing> joint_things(const MakeUpPlan& plan, const MakeUpChoices& choices, const Frame& to_bench,
                                const std::vector<std::optional<double>>& drift_mm);

inline constexpr double clean_mm = 0.5;  ///< less wood missing at a joint than this is none

/// Fills figures, cautions and, unless quick, choices of `laid.lay`; places in the top's own frame.
void tell_makeup(const MakeUpInputs& in, LaidTogether& laid);

}  // namespace yb
