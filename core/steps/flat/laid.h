// What is read of a shim: the height that is laid there.
#pragma once

#include "core/steps/flat/shims.h"

namespace yb {

/// What to lay under a support: its stack's height, or what the slab wants there where the stock makes none, mm.
inline double laid_mm(const Shim& s) { return s.stack_mm.empty() ? s.height_mm : s.stands_mm; }

}  // namespace yb
