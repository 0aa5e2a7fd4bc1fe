// Geometry and wood worked out another way than the core does: rings walked side by side, turns by hand, the handbook's formulas
// typed anew. For tests/truth only.
#pragma once

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>
#include <vector>

#include "core/material/slab/slab.h"
#include "core/material/wood/wood.h"
#include "core/steps/lay/choices.h"

namespace yb::truth {

constexpr double pi = std::numbers::pi;

// --- Geometry of its own: a turn by hand, crossings by walking the sides.

inline Vec2 on_slab(const Placement& at, Vec2 uv) {
    const double c = std::cos(at.angle_deg * pi / 180);
    const double s = std::sin(at.angle_deg * pi / 180);
    return {at.x_mm + c * uv.x - s * uv.y, at.y_mm + s * uv.x + c * uv.y};
}
inline Vec2 in_top(const Placement& at, Vec2 p) {
    const double c = std::cos(at.angle_deg * pi / 180);
    const double s = std::sin(at.angle_deg * pi / 180);
    const Vec2 d{p.x - at.x_mm, p.y - at.y_mm};
    return {c * d.x + s * d.y, -s * d.x + c * d.y};
}
inline Ring in_top(const Placement& at, Ring r) {
    for (Vec2& p : r) p = in_top(at, p);
    return r;
}

/// Where the line x = const crosses a ring, low to high.
inline std::vector<double> crossings(const Ring& r, double x) {
    std::vector<double> out;
    for (std::size_t i = 0; i < r.size(); ++i) {
        const Vec2 a = r[i];
        const Vec2 b = r[(i + 1) % r.size()];
        if ((a.x <= x) == (b.x <= x)) continue;
        out.push_back(a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x));
    }
    std::sort(out.begin(), out.end());
    return out;
}
inline double lowest(const Ring& r, double x, double none) {
    const auto c = crossings(r, x);
    return c.empty() ? none : c.front();
}
inline double highest(const Ring& r, double x, double none) {
    const auto c = crossings(r, x);
    return c.empty() ? none : c.back();
}
inline bool inside(const Ring& r, Vec2 p) {
    const auto c = crossings(r, p.x);
    return std::count_if(c.begin(), c.end(), [&](double y) { return y < p.y; }) % 2 == 1;
}
inline double ring_area(const Ring& r) {
    double sum = 0;
    for (std::size_t i = 0; i < r.size(); ++i) {
        const Vec2 a = r[i];
        const Vec2 b = r[(i + 1) % r.size()];
        sum += (a.x * b.y - b.x * a.y) / 2;
    }
    return std::abs(sum);
}
inline std::pair<double, double> x_range(const Ring& r) {
    double low = 1e300;
    double high = -1e300;
    for (const Vec2 p : r) low = std::min(low, p.x), high = std::max(high, p.x);
    return {low, high};
}
inline double segment_distance(Vec2 p, Vec2 a, Vec2 b) {
    const Vec2 d{b.x - a.x, b.y - a.y};
    const double n = d.x * d.x + d.y * d.y;
    const double t = n > 0 ? std::clamp(((p.x - a.x) * d.x + (p.y - a.y) * d.y) / n, 0.0, 1.0) : 0;
    return std::hypot(p.x - a.x - t * d.x, p.y - a.y - t * d.y);
}

// --- Wood of its own.

/// Wood Handbook eq. 4-5.
inline double settles(double t, double rh) {
    const double h = rh / 100;
    const double w = 349 + 1.29 * t + 0.0135 * t * t;
    const double k = 0.805 + 0.000736 * t - 0.00000273 * t * t;
    const double k1 = 6.27 - 0.00938 * t - 0.000303 * t * t;
    const double k2 = 1.91 + 0.0407 * t - 0.000293 * t * t;
    return 1800 / w * (k * h / (1 - k * h) + (k1 * k * h + 2 * k1 * k2 * k * k * h * h) / (1 + k1 * k * h + k1 * k2 * k * k * h * h));
}

inline double raster(const Ring& a, const std::function<bool(Vec2)>& also) {
    double sum = 0;
    const auto [x0, x1] = x_range(a);
    const double dx = std::max(0.05, (x1 - x0) / 300);
    for (double x = x0 + dx / 2; x < x1; x += dx) {
        const auto c = crossings(a, x);
        for (std::size_t i = 0; i + 1 < c.size(); i += 2) {
            const int n = 30;
            for (int k = 0; k < n; ++k)
                if (also({x, c[i] + (c[i + 1] - c[i]) * (k + 0.5) / n})) sum += dx * (c[i + 1] - c[i]) / n;
        }
    }
    return sum;
}

inline double kg_a_litre(const Slab& s, double moisture) {
    for (const Species& x : all_species())
        if (x.name == s.species) return *x.specific_gravity_12 * (1 + moisture / 100);
    return 0;
}

}  // namespace yb::truth
