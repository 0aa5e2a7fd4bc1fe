// Shims, where they stand, and how far a slab hangs through between them. What is laid together for each: stacks.h.
#pragma once

#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/steps/flat/choices.h"

namespace yb {

struct Shim {
    Support at;
    double height_mm = 0;          ///< that the slab wants there
    std::vector<double> stack_mm;  ///< of the stock, the thickest first; empty: nothing is laid there
    double stands_mm = 0;          ///< what the stack comes to
};

/// True when all supports stand within 20 mm of one line.
bool in_one_line(const std::vector<Shim>& shims);

/// How far the piece hangs through between the two neighbouring rows of supports that lie furthest apart, by its own weight, mm.
/// Supports closer along than 60 mm are one row. 0 with fewer than two rows.
double hangs_through_mm(const Ring& rough, double thickness_mm, double moe_mpa, double kg_m3, const std::vector<Shim>& shims);

}  // namespace yb
