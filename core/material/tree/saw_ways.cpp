#include "core/material/tree/saw_ways.h"

#include <algorithm>
#include <cmath>

#include "core/material/tree/sawing.h"
#include "core/material/wood/wood.h"

namespace yb {

LogRecipe measured_recipe(std::uint64_t seed, const std::string& species, const LogMeasured& log) {
    LogRecipe r = drawn_recipe(seed, species, log.length_mm, log.butt_mm);
    if (log.top_mm) r.top_mm = std::min(*log.top_mm, log.butt_mm);
    if (log.sweep_mm) r.sweep_mm = *log.sweep_mm;
    if (log.pith_off_mm) r.pith_off_mm = *log.pith_off_mm, r.pith_bearing_deg = r.sweep_bearing_deg;
    return r;
}

namespace {

/// The widest straight strip along the whole of a board, both faces: 0 where there is none.
double straight_width(const GrownLog& log, const Board& b, double reach) {
    constexpr int stations = 16;
    double low = -1e300;
    double high = 1e300;
    for (int i = 0; i <= stations; ++i)
        for (const double z : {0.0, b.thickness_mm}) {
            const auto wood = wood_across(log, b, b.x0 + (b.x1 - b.x0) * (0.01 + 0.98 * i / stations), z, reach);
            if (!wood) return 0;
            low = std::max(low, wood->from), high = std::min(high, wood->to);
        }
    return std::max(0.0, high - low);
}

/// The pith lies between its faces somewhere along it.
bool holds_pith(const GrownLog& log, const Board& b) {
    for (int i = 0; i <= 20; ++i) {
        const double x = b.x0 + (b.x1 - b.x0) * i / 20;
        const Vec2 c = log.pith(x);
        const double z = dot(Vec3{x - b.origin.x, c.x - b.origin.y, c.y - b.origin.z}, b.ez);
        if (z > 0 && z < b.thickness_mm) return true;
    }
    return false;
}

/// What is left of a board's thickness once it is dry and both faces are flat over such a width.
double finishes(const GrownLog& log, const Board& b, double wide, double moisture) {
    const Species* s = find_species(log.recipe().species);
    const double dries = std::max(0.0, 30 - moisture) / 30;
    const double shrinks = s && s->shrink_radial_pct && s->shrink_tangential_pct
                               ? (*s->shrink_radial_pct + *s->shrink_tangential_pct) / 200 * dries
                               : 0.06 * dries;
    const double cups = std::abs(cup_curvature(log, b, (b.x0 + b.x1) / 2, 0, moisture)) * wide * wide / 8;
    return std::max(0.0, b.thickness_mm * (1 - shrinks) - cups);
}

}  // namespace

std::vector<SawWay> saw_ways(const GrownLog& log, const std::vector<double>& thicknesses, double kerf, double moisture, const Work& work) {
    const double reach = largest_radius(log.recipe());
    std::vector<SawWay> out;
    for (const double thick : thicknesses) {
        SawWay best;
        for (const bool lies : {true, false})
            for (const bool boxed : {true, false}) {
                work.check();
                SawWay way;
                way.plan.thickness_mm = thick, way.plan.kerf_mm = kerf;
                way.plan.turn_deg = log.recipe().sweep_bearing_deg + (lies ? 0 : 90);
                way.plan.shift_mm = boxed ? 0 : (thick + kerf) / 2;
                way.pith_boxed = boxed, way.sweep_lies = lies;
                for (const Board& b : boards_of(log, way.plan)) {
                    ++way.boards;
                    way.with_pith += holds_pith(log, b);
                    const double wide = straight_width(log, b, reach);
                    if (wide >= way.plan.least_width_mm) way.usable_m2 += wide * (b.x1 - b.x0) * 1e-6;
                    if (wide > way.straight_mm) way.straight_mm = wide, way.finishes_mm = finishes(log, b, wide, moisture);
                }
                if (way.usable_m2 > best.usable_m2 || best.boards == 0) best = way;
            }
        out.push_back(best);
    }
    return out;
}

}  // namespace yb
