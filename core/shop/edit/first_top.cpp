#include "core/shop/edit/first_top.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/steps/flat/flat.h"
#include "core/steps/lay/end_crack.h"
#include "core/steps/lay/lay.h"

namespace yb {

namespace {

constexpr double in_from_end_mm = 30, past_crack_mm = 10, clear_of_bark_mm = 10;

double to_ten(double mm) { return std::floor(mm / 10 + 1e-9) * 10; }

/// Between end cracks and clear of both ends.
Span1 sound_length(const Slab& slab, const SlabShape& shape) {
    const double most = (shape.x1 - shape.x0) / 4;
    Span1 out{shape.x0 + in_from_end_mm, shape.x1 - in_from_end_mm};
    for (const Flaw& f : slab.flaws) {
        const EndCrack crack = end_crack(f, shape, slab.cross_cut);
        if (!crack) continue;
        const Box b = bounds(f.outline);
        if (crack.at_first && b.high.x < shape.x0 + most) out.from = std::max(out.from, b.high.x + past_crack_mm);
        if (crack.at_last && b.low.x > shape.x1 - most) out.to = std::min(out.to, b.low.x - past_crack_mm);
    }
    return out;
}

/// Least distance from a place to the edge of either face.
double clear_around(const SlabShape& shape, Vec2 p) {
    double least = 1e300;
    for (const Ring* ring : {&shape.ring_a, &shape.ring_b})
        for (std::size_t i = 0; i < ring->size(); ++i) {
            const Vec2 a = (*ring)[i];
            const Vec2 d = (*ring)[(i + 1) % ring->size()] - a;
            const double t = std::clamp(dot(p - a, d) / std::max(1e-12, dot(d, d)), 0.0, 1.0);
            least = std::min(least, length(p - (a + d * t)));
        }
    return least;
}

}  // namespace

FirstTop first_top(const Slab& slab, std::optional<double> settles_pct) {
    FirstTop out;
    const SlabShape shape = shape_of(slab);
    if (!shape.usable) return out;
    const double over = out.placement.oversize_mm;
    out.placement = middle_of(shape);
    out.placement.oversize_mm = over;
    WantedTop top = out.top;
    if (slab.cross_cut) {
        top.shape = TopShape::round, top.live = LiveEdges::none;
        top.length_mm = top.width_mm = to_ten(2 * (clear_around(shape, centroid(shape.ring_a)) - clear_of_bark_mm));
    } else {
        const Span1 along = sound_length(slab, shape);
        top.length_mm = to_ten(along.to - along.from);
        // Along the middle line between both edges at the two ends.
        const auto middle = [&](double x) {
            const auto cut = cut_at_x(shape.ring_a, x);
            return cut.empty() ? 0 : (cut.front().from + cut.back().to) / 2;
        };
        const double rise = middle(along.to) - middle(along.from);
        out.placement.x_mm = (along.from + along.to) / 2;
        out.placement.y_mm = (middle(along.from) + middle(along.to)) / 2;
        out.placement.angle_deg = std::atan2(rise, along.to - along.from) * 180 / std::numbers::pi;
        top.width_mm = 50;
        if (top.length_mm >= 100) top.width_mm = to_ten(plan_lay({slab, shape, top, out.placement}).narrowest_mm);
    }
    if (top.length_mm < 100 || top.width_mm < 50) return out;
    const LayPlan lay = plan_lay({slab, shape, top, out.placement});
    if (const auto thick = rested_inside(slab, shape, lay.outline, lay.rough, FlatChoices(), settles_pct); thick && *thick >= 4)
        top.thickness_mm = std::floor(*thick + 1e-6);
    out.top = top;
    return out;
}

}  // namespace yb
