// Tipping: over each edge of what the feet enclose, a push down at the rim and a level push at the top against the weight.
// Estimates for the maker's judgement: racking and what swings are not in them.
#pragma once

#include <optional>
#include <vector>

#include "core/ground/geometry/geometry.h"

namespace yb {

struct Standing {
    Ring rim;  ///< of the top, from above
    double top_kg = 0;
    Vec2 top_at;  ///< its balance point
    double base_kg = 0;
    Vec2 base_at;
    std::vector<Vec2> feet;  ///< on the floor, in any order
    double height_mm = 0;    ///< of the top above the floor
};

struct Tipping {
    Vec2 balance;                  ///< of top and base together
    bool stands = true;            ///< the balance point lies inside the feet
    std::optional<double> down_n;  ///< the least push down on the rim that tips it; none where the rim reaches past no edge
    Vec2 down_at;                  ///< there
    double side_n = 0;             ///< the least level push at the top
    Vec2 side_towards;             ///< … a unit vector, out over the edge it tips over
};
/// @throws std::invalid_argument for fewer than three feet, feet in one line, a mass or height not above 0.
Tipping tip(const Standing& s);

}  // namespace yb
