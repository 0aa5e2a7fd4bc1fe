// Flat while a hand drags in an earlier step: the planes and the thickness follow it, the work on them stands still until it rests.
#pragma once

#include "core/steps/flat/flat.h"

namespace yb {

/// A leaf's plan as it was, with the tilt and the planes that the new inputs ask for: what Lay and Top see of it is exact; lanes, shims,
/// hours and what is said of them are `before`'s. @param before a plan that was ready; as plan_flat() where it was not.
FlatPlan plan_flat_dragged(const FlatInputs& in, const FlatPlan& before);

}  // namespace yb
