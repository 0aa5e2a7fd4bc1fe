// What comes next where something is missing: a slab, its measures, a job. It makes what is missing.
#pragma once

#include <optional>

#include "app/kit/bench/step_view.h"

namespace yb {

/// @param at the step the slip speaks of. Nothing where the step's own next thing can be done, and in Rack, which has its own.
std::optional<Action> next_missing(Session& session, Step at);

}  // namespace yb
