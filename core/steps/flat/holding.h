// How long it takes to hold a slab while it is planed, in each of the ways.
#pragma once

#include "core/steps/flat/flat.h"

namespace yb {

/// Hours to set and take away what holds it, for both faces; of a top of several all its leaves. Starting values: a point of hot glue
/// 1 minute and 2 to prise and clean; a pair of wedges 1.5 minutes; a hold-down 1.5 minutes, set twice, for it is moved for its lanes.
double holding_h(const FlatAsks& asks, HeldBy held);

}  // namespace yb
