// Where a caution points, told from where it is read.
#pragma once

#include "core/ground/figure/figure.h"

namespace yb {

/// Moves what a caution points at, mm, to a place in another frame: a place along that its sentence names is the same place
/// still, told from there. What is said of several places keeps the others.
void show_at(Caution& caution, Vec2 place);

}  // namespace yb
