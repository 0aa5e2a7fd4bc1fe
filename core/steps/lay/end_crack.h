// A crack that begins at an end of its slab.
#pragma once

#include "core/material/slab/slab.h"

namespace yb {

/// Which of the slab's ends a crack begins at, within 25 mm of it; a cross-cut has none.
struct EndCrack {
    bool at_first = false, at_last = false;
    explicit operator bool() const { return at_first || at_last; }
};
EndCrack end_crack(const Flaw& flaw, const SlabShape& shape, bool cross_cut);

}  // namespace yb
