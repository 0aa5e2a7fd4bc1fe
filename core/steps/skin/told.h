// What is told of a finish: figures, what is to be minded, what each school gains and loses.
#pragma once

#include "core/steps/skin/skin.h"

namespace yb {

void tell_skin(const SkinInputs& in, SkinPlan& plan);

}  // namespace yb
