// Which live edges stay: the words of the choice and what they mean. Used by lay and makeup.
#pragma once

#include <array>

#include "core/lay/lay.h"

namespace yb {

inline bool left_live(LiveEdges l) { return l == LiveEdges::both || l == LiveEdges::left; }
inline bool right_live(LiveEdges l) { return l == LiveEdges::both || l == LiveEdges::right; }

struct LiveOption {
    LiveEdges live;
    const char *key, *label;
};
inline constexpr std::array live_options{LiveOption{LiveEdges::both, "both", "Both"}, LiveOption{LiveEdges::left, "left", "Left only"},
                                         LiveOption{LiveEdges::right, "right", "Right only"},
                                         LiveOption{LiveEdges::none, "none", "None, all sawn"}};

}  // namespace yb
