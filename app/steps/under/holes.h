// How a hole is drawn on the underside: a slot, a round hole under its washer, a figure-eight, a clip's kerf with its tongue.
#pragma once

#include "app/kit/bench/step_view.h"

namespace yb {

struct Slot;

/// With its arrow: the way it truly goes. With the year's dial, where it stands in that month, its way drawn twelve times over.
void draw_hole(QPainter& p, const BenchMap& map, const Session& s, const Slot& slot);

}  // namespace yb
