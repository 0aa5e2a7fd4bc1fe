// The finished top cut across at the gauge: wood as wood, resin as resin, air as air, a patch as a patch.
#pragma once

#include <QPainter>

#include "app/kit/bench/bench_map.h"

namespace yb {

struct Top;

/// Draws it standing on the line of the bench (height 0 is the finished underside).
void draw_top_section(QPainter& p, const BenchMap& map, const Top& top);

}  // namespace yb
