// What flattening says: figures, cautions, and what each school gains and loses here. Used by core/steps/flat only.
#pragma once

#include <algorithm>

#include "core/steps/flat/flat.h"

namespace yb {

/// Tilts that were tried beside the chosen one, and the places that decide them.
struct Tried : Solved {
    Tilt lies, spare;
    double uneven_mm = 0;  ///< of an underside that stays as it is, under the worst plate
};

/// What a top comes to where a tilt leaves so much at most: the wanted thickness, what all leaves come to, or the most there is.
inline double comes_to_mm(const FlatInputs& in, double most_mm) {
    if (in.choices.finish != FinishTo::wanted && !in.together) return most_mm;
    return std::min(in.together ? in.together->comes_to_mm : in.top.thickness_mm, most_mm);
}

void tell_flat(const FlatInputs& in, const Tried& tried, FlatPlan& plan);

}  // namespace yb
