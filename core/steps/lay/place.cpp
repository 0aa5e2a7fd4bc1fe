#include "core/steps/lay/place.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <numbers>
#include <queue>

namespace yb {

namespace {

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

Widest widest_at(const SlabShape& shape, double length, double angle_deg, WideBy by, double step) {
    Widest w;
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
    const double u0 = box.low.x + (box.width() - static_cast<double>(n - 1) * even) / 2;
    const EdgeProfile pa = edge_profile(a, u0, even, n);
    const EdgeProfile pb = edge_profile(b, u0, even, n);
    const bool one = by == WideBy::live_high || by == WideBy::live_low;
    std::vector<double> high(n), low(n), width(n);
    for (std::size_t i = 0; i < n; ++i) {
        const bool there = pa.there(i) && pb.there(i);
        high[i] = there ? std::min(pa.high[i], pb.high[i]) : -1e9;
        low[i] = there ? -std::max(pa.low[i], pb.low[i]) : -1e9;
        // The edge that stays lives on the show face alone.
        if (there && by == WideBy::live_high) high[i] = pa.high[i];
        if (there && by == WideBy::live_low) low[i] = -pa.low[i];
        width[i] = there ? pa.high[i] - pa.low[i] : -1e9;
    }
    const auto high_least = sliding_least(high, span + 1);
    const auto low_least = sliding_least(low, span + 1);
    const auto width_least = sliding_least(width, span + 1);
    double best = -1;
    for (std::size_t i = 0; i < high_least.size(); ++i) {
        const double rect = high_least[i] + low_least[i];
        const double rate = by == WideBy::live ? width_least[i] : rect;
        if (rate <= best) continue;
        best = rate;
        (one ? w.one_live_mm : w.width_mm) = std::max(0.0, rect);
        w.narrowest_mm = std::max(0.0, width_least[i]);
        double v = (high_least[i] - low_least[i]) / 2;
        if (by == WideBy::live) {
            v = 0;
            for (std::size_t k = i; k <= i + span; ++k) v += (pa.high[k] + pa.low[k]) / 2 / static_cast<double>(span + 1);
        }
        const Vec2 at = f.to_slab({u0 + static_cast<double>(i) * even + length / 2, v});
        w.placement.x_mm = at.x;
        w.placement.y_mm = at.y;
        w.placement.angle_deg = angle_deg;
    }
    return w;
}

Widest widest_top(const SlabShape& shape, double length, WideBy by, double most, double close_enough) {
    const auto rate = [&](const Widest& w) { return w.by(by); };
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
        const Widest w = widest_at(shape, length, middle, by, step);
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
    return best;
}

Trade trade_of(const SlabShape& shape, const WantedTop& top, double most) {
    const WideBy by = top.live == LiveEdges::none   ? WideBy::sawn
                      : top.live == LiveEdges::both ? WideBy::live
                      : top.live == LiveEdges::left ? WideBy::live_high
                                                    : WideBy::live_low;
    Trade out;
    out.at_length = widest_top(shape, top.length_mm, by, most);
    out.wide_mm = out.at_length.by(by);
    out.fits = out.wide_mm >= top.width_mm;
    double there = 0;
    double not_there = std::min(top.length_mm, bounds(shape.ring_a).width() + 1);
    if (out.fits) return out;
    const auto look = [&](double length) {
        const Widest w = widest_top(shape, length, by, most);
        if (w.by(by) >= top.width_mm) there = length, out.at_width = w;
        else not_there = length;
    };
    while (there == 0 && not_there > 100) look(not_there / 2);
    while (there > 0 && not_there - there > 1) look((there + not_there) / 2);
    out.length_mm = std::floor(there);
    return out;
}

}  // namespace yb
