// Where the top is held across: the line that everything else travels from.
#pragma once

#include <vector>

#include "core/steps/top/top.h"
#include "core/steps/under/choices.h"

namespace yb {

/// Where the fixed line runs, across the top: in its middle, or through the outermost bolts of plates that stand in wood on that side –
/// at the edge while there are none.
double fixed_at(FixedLine line, const Top& top, const UnderChoices& choices);

/// True where leaves hang together by nothing that holds them at one distance: the wood of each moves by itself, as on an open river,
/// whose rods only line them up.
bool leaves_apart(const Top& top);

/// The line of each leaf: all the same on a top that is one; of leaves that lie apart each through its own bolt nearest to the fixed
/// line, which holds what lies between them as wide as it is. A leaf without a bolt in its wood has the common one.
std::vector<double> fixed_in_leaves(FixedLine line, const Top& top, const UnderChoices& choices);

/// … of the leaf that a place lies in; of a place between leaves the line nearest to it.
double fixed_for(Vec2 uv, const Top& top, const std::vector<double>& of_leaf);

}  // namespace yb
