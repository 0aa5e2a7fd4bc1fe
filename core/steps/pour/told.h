// What a pour says: figures, cautions, choices. Used by core/steps/pour only.
#pragma once

#include "core/steps/pour/pour.h"

namespace yb {

/// What is set out and where to look for leaks, before the first cup is opened.
void prepare_list(const PourInputs& in, const Resin& resin, PourPlan& plan);
void tell_pour(const PourInputs& in, const Resin& resin, PourPlan& plan);

}  // namespace yb
