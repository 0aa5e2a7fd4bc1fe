// What a pour says: figures, cautions, choices. Used by core/pour only.
#pragma once

#include "core/pour/pour.h"

namespace yb {

void tell_pour(const PourInputs& in, const Resin& resin, PourPlan& plan);

}  // namespace yb
