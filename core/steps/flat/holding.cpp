#include "core/steps/flat/holding.h"

namespace yb {

double holding_h(const FlatAsks& a, HeldBy held) {
    constexpr double faces = 2;
    const double minutes = held == HeldBy::hot_glue ? 3 * a.points : held == HeldBy::wedges ? 1.5 * a.blocks : 2 * 1.5 * a.blocks;
    return faces * minutes / 60;
}

}  // namespace yb
