#include "core/steps/under/tip.h"
#include "core/ground/measure/constants.h"

#include <cmath>
#include <limits>
#include <stdexcept>

namespace yb {

Tipping tip(const Standing& s) {
    if (s.feet.size() < 3) throw std::invalid_argument("three feet at least are wanted: on two it falls");
    if (!(s.top_kg + s.base_kg > 0) || s.top_kg < 0 || s.base_kg < 0) throw std::invalid_argument("the mass has to be above 0");
    if (!(s.height_mm > 0)) throw std::invalid_argument("the height has to be above 0");
    const Ring hull = convex_hull(s.feet);
    if (hull.size() < 3 || area(hull) < 1) throw std::invalid_argument("the feet stand in one line: on that it falls");
    Tipping out;
    const double kg = s.top_kg + s.base_kg;
    out.balance = (s.top_at * s.top_kg + s.base_at * s.base_kg) * (1 / kg);
    const double weight = kg * gravity_m_s2;
    double nearest = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Vec2 from = hull[i];
        const Vec2 edge = hull[(i + 1) % hull.size()] - from;
        if (length(edge) < 1e-9) continue;
        const Vec2 outward = Vec2{edge.y, -edge.x} * (1 / length(edge));  // the hull runs counter-clockwise
        const double inside = -dot(outward, out.balance - from);
        if (inside < nearest) nearest = inside, out.side_towards = outward;
        for (const Vec2 p : s.rim) {
            const double past = dot(outward, p - from);
            if (past <= 1e-9) continue;
            const double push = weight * inside / past;
            if (!out.down_n || push < *out.down_n) out.down_n = push, out.down_at = p;
        }
    }
    out.side_n = weight * nearest / s.height_mm;
    if (nearest <= 0) {
        out.stands = false;
        out.side_n = 0;
        if (out.down_n) out.down_n = 0;
    }
    return out;
}

}  // namespace yb
