// The stacks of all shims together: heights and pieces chosen so that few pieces do it.
#pragma once

#include <functional>
#include <vector>

#include "core/steps/flat/shims.h"

namespace yb {

/// Pieces of the stock whose sum comes nearest to a height; of sums within 0.05 mm of one another that of the fewest pieces.
/// Several of each are at hand. Empty for a height below half the thinnest, or an empty stock.
std::vector<double> stack_for(double height_mm, const std::vector<double>& stock_mm);

/// What laying the shims together from the stock came to.
struct Stacking {
    double raised_mm = 0;  ///< the whole slab above where it would just touch the bench
    double rocks_mm = 0;   ///< on them
    double loses_mm = 0;   ///< of the finished thickness, by the tilt that the stacks leave
    int pieces = 0;        ///< in all
    int alone = 0;         ///< that the nearest stack of every shim by itself would take
    bool operator==(const Stacking&) const = default;
};

/// A plane that the slab is turned by: rise per mm along and across.
struct Turned {
    double a = 0, b = 0;
};

/// How the slab rests on what stands under it: on three feet with its balance point between them, the gap above the lowest of the
/// others, and by how much it is turned against what it wants.
struct Rest {
    double gap_mm = 0;
    Turned by;
};
/// @param shims with `height_mm` wanted and `stands_mm` there. Nothing of either with fewer than three, or all in one line.
Rest rest_on(const std::vector<Shim>& shims, Vec2 balance);

/// Lays stacks of the stock under all supports: of the ways to raise the slab by up to 2 mm and to be off by up to 0.15 mm at each
/// shim, the fewest pieces with which it rocks by 0.1 mm at most and loses 0.1 mm at most; then the least raised. Where none holds:
/// each shim's nearest stack, and what that comes to. Heights grow by what the slab is raised.
/// @param shims with the heights that bring the slab's lowest place to the bench. @param loses thickness lost when it is turned so.
Stacking lay_stacks(std::vector<Shim>& shims, const std::vector<double>& stock_mm, Vec2 balance,
                    const std::function<double(Turned)>& loses);

}  // namespace yb
