// Shims: what is laid together from the stock for each support, whether the slab still stands without rocking, and how far it
// hangs through between its supports.
#pragma once

#include <vector>

#include "core/steps/flat/choices.h"
#include "core/ground/geometry/geometry.h"

namespace yb {

struct Shim {
    Support at;
    double height_mm = 0;
    std::vector<double> stack_mm;  ///< of the stock, the thickest first; empty: nothing is laid there
    double stands_mm = 0;          ///< what the stack comes to
};

/// Pieces of the stock whose sum comes nearest to a height; of sums within 0.05 mm of one another that of the fewest pieces.
/// Several of each are at hand. Empty for a height below half the thinnest, or an empty stock.
std::vector<double> stack_for(double height_mm, const std::vector<double>& stock_mm);

/// How far the slab rocks on its shims: it rests on three, with its balance point between them, and this is the gap above the
/// lowest of the others. 0 for fewer than four. Supports in one line hold nothing: nothing is told of them.
double rocks_mm(const std::vector<Shim>& shims, Vec2 balance);

/// True when all supports stand within 20 mm of one line.
bool in_one_line(const std::vector<Shim>& shims);

/// How far the piece hangs through between the two neighbouring rows of supports that lie furthest apart, by its own weight, mm.
/// Supports closer along than 60 mm are one row. 0 with fewer than two rows.
double hangs_through_mm(const Ring& rough, double thickness_mm, double moe_mpa, double kg_m3, const std::vector<Shim>& shims);

}  // namespace yb
