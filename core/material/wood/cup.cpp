#include "core/material/wood/cup.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>
#include <vector>

namespace yb {

double strain(double shrinkage_pct, double from_mc, double to_mc) { return movement(1, shrinkage_pct, from_mc, to_mc); }

std::optional<double> ring_cup_mm(const Species& s, double pith, double width, double thick, double from, double to) {
    if (!(width > 0) || !(thick > 0)) throw std::invalid_argument("a board has a width and a thickness");
    if (!s.shrink_tangential_pct || !s.shrink_radial_pct) return {};
    const double st = *s.shrink_tangential_pct;
    const double sr = *s.shrink_radial_pct;
    // Curvature at y: Simpson's rule through the thickness.
    constexpr int through = 20;
    const auto curvature = [&](double y) {
        double sum = 0;
        for (int i = 0; i <= through; ++i) {
            const double z = thick * (static_cast<double>(i) / through - 0.5);
            const double h = pith - z;
            const double r2 = std::max(1.0, h * h + y * y);
            const double shrink = sr + (st - sr) * h * h / r2;
            const double weight = i == 0 || i == through ? 1 : i % 2 ? 4 : 2;
            sum += weight * strain(shrink, from, to) * z;
        }
        return 12 / (thick * thick * thick) * sum * thick / (3 * through);
    };
    // The upper face growing more bends the edges down: w'' = −κ, from the middle outward, both sides alike.
    constexpr int half = 100;
    const double step = width / 2 / half;
    double slope = 0;
    double rise = 0;
    double before = curvature(0);
    for (int i = 1; i <= half; ++i) {
        const double now = curvature(i * step);
        rise += step * slope - step * step * (2 * before + now) / 6;
        slope -= step * (before + now) / 2;
        before = now;
    }
    return rise;
}

std::optional<double> face_curvature(const Species& s, double thick, double mc, double damper) {
    if (!(thick > 0)) throw std::invalid_argument("a board has a thickness");
    if (!s.shrink_tangential_pct) return {};
    const double per_pct = strain(*s.shrink_tangential_pct, mc, mc + 1 <= 30 ? mc + 1 : mc);
    return -(mc + 1 <= 30 ? per_pct : 1 / (3000 / *s.shrink_tangential_pct)) * damper / thick;
}

double hollow_mm(const std::vector<Arc>& across) {
    // Heights and slopes from the first end on; between two corners a parabola, whose furthest from the line is where it runs along it.
    double width = 0;
    double slope = 0;
    double high = 0;
    for (const Arc& b : across) {
        if (!(b.width_mm >= 0)) throw std::invalid_argument("a stretch has a width");
        high += slope * b.width_mm + b.per_mm * b.width_mm * b.width_mm / 2;
        slope += b.per_mm * b.width_mm;
        width += b.width_mm;
    }
    if (width <= 0) return 0;
    const double chord = high / width;
    double most = 0;
    double at = 0;
    slope = high = 0;
    const auto look = [&](double x, double z) {
        const double below = chord * x - z;  // hollow: the middle hangs below the line
        if (std::abs(below) > std::abs(most)) most = below;
    };
    for (const Arc& b : across) {
        if (b.per_mm != 0)
            if (const double s = (chord - slope) / b.per_mm; s > 0 && s < b.width_mm) look(at + s, high + slope * s + b.per_mm * s * s / 2);
        high += slope * b.width_mm + b.per_mm * b.width_mm * b.width_mm / 2;
        slope += b.per_mm * b.width_mm;
        at += b.width_mm;
        look(at, high);
    }
    return most;
}

std::optional<double> face_cup_mm(const Species& s, double width, double thick, double mc, double damper) {
    if (!(width > 0)) throw std::invalid_argument("a board has a width and a thickness");
    const auto bent = face_curvature(s, thick, mc, damper);
    return bent ? std::optional(hollow_mm({{width, *bent}})) : std::nullopt;
}

}  // namespace yb
