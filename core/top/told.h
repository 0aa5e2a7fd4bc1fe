// What a top says to Lay: its rivers, measured where they are finished.
#pragma once

#include "core/lay/lay.h"
#include "core/top/top.h"

namespace yb {

/// Litres between the finished planes, what of the top is resin, where banks meet at the underside.
void tell_river(const Top& top, LayPlan& lay);

}  // namespace yb
