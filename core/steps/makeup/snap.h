// Where a leaf wants to come to rest while it is dragged: knots that meet across a joint, a joint just clean of bark, a
// river of the wanted width, ends of the slab at the ends of the top, stations of sister slabs side by side.
#pragma once

#include <string>
#include <vector>

#include "core/steps/makeup/makeup.h"

namespace yb {

struct SnapPlace {
    double by_mm = 0;  ///< how far the leaf has to move from where it lies
    std::string what;  ///< "knots meet", "joint just clean", …
};

struct SnapPlaces {
    std::vector<SnapPlace> along, across;
};

/// @param in,plan as the leaf lies before it is moved.
SnapPlaces snap_places(const MakeUpInputs& in, const MakeUpPlan& plan, std::size_t leaf);

/// A movement drawn to the nearest place within reach, each axis for itself. `what` names those taken.
Vec2 snapped(const SnapPlaces& places, Vec2 by, double within_mm, std::string* what = nullptr);

}  // namespace yb
