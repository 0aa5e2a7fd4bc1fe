#include "core/lay/place.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <numbers>
#include <queue>

namespace yb {

namespace {

/// Lower and upper edge of a ring at even stations, by walking its sides once.
void edges(const Ring& ring, double u0, double step, std::vector<double>& low, std::vector<double>& high) {
    const auto n = static_cast<std::ptrdiff_t>(low.size());
    for (std::size_t i = 0; i < ring.size(); ++i) {
        Vec2 a = ring[i];
        Vec2 b = ring[(i + 1) % ring.size()];
        if (a.x > b.x) std::swap(a, b);
        const auto first = std::max<std::ptrdiff_t>(0, static_cast<std::ptrdiff_t>(std::ceil((a.x - u0) / step)));
        const auto last = std::min<std::ptrdiff_t>(n - 1, static_cast<std::ptrdiff_t>(std::floor((b.x - u0) / step)));
        for (std::ptrdiff_t k = first; k <= last; ++k) {
            const double t = b.x > a.x ? (u0 + static_cast<double>(k) * step - a.x) / (b.x - a.x) : 0;
            const double v = a.y * (1 - t) + b.y * t;
            auto& l = low[static_cast<std::size_t>(k)];
            auto& h = high[static_cast<std::size_t>(k)];
            l = std::min(l, v);
            h = std::max(h, v);
        }
    }
}

/// Least of a sliding window.
std::vector<double> sliding_least(const std::vector<double>& v, std::size_t window) {
    std::vector<double> out;
    std::deque<std::size_t> q;
    for (std::size_t i = 0; i < v.size(); ++i) {
        while (!q.empty() && v[q.back()] >= v[i]) q.pop_back();
        q.push_back(i);
        if (q.front() + window <= i) q.pop_front();
        if (i + 1 >= window) out.push_back(v[q.front()]);
    }
    return out;
}

}  // namespace

Widest widest_at(const SlabShape& shape, double length, double angle_deg, bool live, double step) {
    Widest w;
    w.looked_at = 1;
    if (shape.ring_a.size() < 3) return w;
    const Vec2 c = centroid(shape.ring_a);
    const Frame f{c, angle_deg};
    const Ring a = f.from_slab(shape.ring_a);
    const Ring b = f.from_slab(shape.ring_b);
    const Box box = bounds(a);
    if (box.width() < length) return w;
    // Stations so that the window is a whole number of them; both end lines of the slab count.
    const auto span = static_cast<std::size_t>(std::ceil(length / step));
    const double even = length / static_cast<double>(span);
    const auto n = static_cast<std::size_t>(box.width() / even) + 1;
    constexpr double none = 1e9;
    std::vector<double> low_a(n, none), high_a(n, -none), low_b(n, none), high_b(n, -none);
    const double u0 = box.low.x + (box.width() - static_cast<double>(n - 1) * even) / 2;
    edges(a, u0, even, low_a, high_a);
    edges(b, u0, even, low_b, high_b);
    std::vector<double> high(n), low(n), width(n);
    for (std::size_t i = 0; i < n; ++i) {
        const bool there = high_a[i] > -none && high_b[i] > -none;
        high[i] = there ? std::min(high_a[i], high_b[i]) : -none;
        low[i] = there ? -std::max(low_a[i], low_b[i]) : -none;
        width[i] = there ? high_a[i] - low_a[i] : -none;
    }
    const auto high_least = sliding_least(high, span + 1);
    const auto low_least = sliding_least(low, span + 1);
    const auto width_least = sliding_least(width, span + 1);
    double best = -1;
    for (std::size_t i = 0; i < high_least.size(); ++i) {
        const double rect = high_least[i] + low_least[i];
        const double rate = live ? width_least[i] : rect;
        if (rate <= best) continue;
        best = rate;
        w.width_mm = std::max(0.0, rect);
        w.narrowest_mm = std::max(0.0, width_least[i]);
        double v = (high_least[i] - low_least[i]) / 2;
        if (live) {
            v = 0;
            for (std::size_t k = i; k <= i + span; ++k) v += (high_a[k] + low_a[k]) / 2 / static_cast<double>(span + 1);
        }
        const Vec2 at = f.to_slab({u0 + static_cast<double>(i) * even + length / 2, v});
        w.placement.x_mm = at.x;
        w.placement.y_mm = at.y;
        w.placement.angle_deg = angle_deg;
    }
    return w;
}

Widest widest_top(const SlabShape& shape, double length, bool live, double most, double close_enough) {
    const auto rate = [&](const Widest& w) { return live ? w.narrowest_mm : w.width_mm; };
    const double step = std::clamp(length / 300, 4.0, 12.0);
    struct Span {
        double bound, middle, half;
        bool operator<(const Span& o) const { return bound < o.bound; }
    };
    Widest best;
    int looked = 0;
    const double across = bounds(shape.ring_a).height();
    std::priority_queue<Span> open;
    const auto look = [&](double middle, double half) {
        const Widest w = widest_at(shape, length, middle, live, step);
        ++looked;
        if (rate(w) > rate(best)) best = w;
        // Turning by d moves each end of the window by d · length/2, on both edges, and lengthens nothing; an edge
        // that itself slopes gives a little more.
        const double gain = half * std::numbers::pi / 180 * (length + 0.3 * across);
        open.push({(rate(w) > 0 ? rate(w) : 0) + gain, middle, half});
    };
    look(0, most / 4);
    for (const double m : {-3 * most / 4, -most / 2, most / 2, 3 * most / 4}) look(m, most / 4);
    while (!open.empty() && looked < 400) {
        const Span s = open.top();
        open.pop();
        if (s.bound <= rate(best) * (1 + close_enough) + 0.05) break;
        look(s.middle - s.half / 2, s.half / 2);
        look(s.middle + s.half / 2, s.half / 2);
    }
    best.looked_at = looked;
    return best;
}

}  // namespace yb
