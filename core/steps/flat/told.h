// What flattening says: figures, cautions, and what each school gains and loses here. Used by core/steps/flat only.
#pragma once

#include "core/steps/flat/flat.h"

namespace yb {

/// Tilts that were tried beside the chosen one, and the places that decide them.
struct Tried : Solved {
    Tilt lies, spare;
    double uneven_mm = 0;  ///< of an underside that stays as it is, under the worst plate
};

void tell_flat(const FlatInputs& in, const Tried& tried, FlatPlan& plan);

}  // namespace yb
