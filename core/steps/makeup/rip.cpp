#include "core/steps/makeup/rip.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/steps/lay/place.h"

namespace yb {

namespace {

bool must_go(FlawKind kind) { return kind == FlawKind::soft || kind == FlawKind::pocket || kind == FlawKind::void_; }

std::optional<Span1> across(const Ring& ring, double x) {
    const auto cuts = cut_at_x(ring, x);
    if (cuts.empty()) return {};
    return Span1{cuts.front().from, cuts.back().to};
}

}  // namespace

std::vector<EdgeLimit> edge_limits(const Slab& slab, const SlabShape& shape, bool high, double x0, double x1, double bite) {
    std::vector<EdgeLimit> out;
    x0 = std::max(x0, shape.x0 + 0.5);
    x1 = std::min(x1, shape.x1 - 0.5);
    if (x1 <= x0) return out;
    const auto n = static_cast<std::size_t>(std::clamp((x1 - x0) / 12, 8.0, 400.0));
    const double step = (x1 - x0) / static_cast<double>(n);
    const EdgeProfile a = edge_profile(shape.ring_a, x0, step * (1 - 1e-12), n + 1);
    const EdgeProfile b = edge_profile(shape.ring_b, x0, step * (1 - 1e-12), n + 1);
    for (std::size_t i = 0; i <= n; ++i) {
        if (!a.there(i) || !b.there(i)) continue;
        const double x = x0 + step * static_cast<double>(i);
        EdgeLimit e{x, high ? std::min(a.high[i], b.high[i]) : std::max(a.low[i], b.low[i]), high ? a.high[i] : a.low[i]};
        for (const Flaw& f : slab.flaws) {
            const bool loose = f.kind == FlawKind::knot && f.loose;
            if (!must_go(f.kind) && !loose) continue;
            if (f.outline.size() < 3) continue;
            if (std::none_of(f.outline.begin(), f.outline.end(), [&](Vec2 p) { return std::abs(p.x - x) < 400; })) continue;
            const auto cut = across(f.outline, x);
            if (!cut) continue;
            if (high && cut->to > e.y - bite) e.y = std::min(e.y, cut->from);
            if (!high && cut->from < e.y + bite) e.y = std::max(e.y, cut->to);
        }
        out.push_back(e);
    }
    return out;
}

std::optional<RipLine> best_rip(const std::vector<EdgeLimit>& limits, bool high, double most_slope) {
    if (limits.size() < 2) return {};
    const double sign = high ? 1 : -1;
    // Lower hull of (x, limit), the low side turned upside down.
    std::vector<Vec2> hull;
    for (const EdgeLimit& e : limits) {
        const Vec2 p{e.x, sign * e.y};
        if (!hull.empty() && p.x <= hull.back().x) {
            hull.back().y = std::min(hull.back().y, p.y);
            continue;
        }
        while (hull.size() >= 2 && cross(hull.back() - hull[hull.size() - 2], p - hull.back()) <= 0) hull.pop_back();
        hull.push_back(p);
    }
    if (hull.size() < 2) return {};
    RipLine r;
    r.middle_x_mm = (hull.front().x + hull.back().x) / 2;
    std::size_t k = 0;
    while (k + 2 < hull.size() && hull[k + 1].x < r.middle_x_mm) ++k;
    double slope = (hull[k + 1].y - hull[k].y) / (hull[k + 1].x - hull[k].x);
    slope = std::clamp(slope, -most_slope, most_slope);
    double y = 1e300;
    for (const Vec2 p : hull) y = std::min(y, p.y - slope * (p.x - r.middle_x_mm));
    r.y_mm = sign * y;
    r.slope = sign * slope;
    for (const EdgeLimit& e : limits) r.given_up_mm += sign * (e.show - r.at(e.x)) / static_cast<double>(limits.size());
    return r;
}

std::vector<EdgeLimit> narrower(std::vector<EdgeLimit> a, const std::vector<EdgeLimit>& b, bool high) {
    if (b.size() < 2) return a;
    for (EdgeLimit& e : a) {
        std::size_t k = 0;
        while (k + 2 < b.size() && b[k + 1].x < e.x) ++k;
        const double t = std::clamp((e.x - b[k].x) / std::max(1e-9, b[k + 1].x - b[k].x), 0.0, 1.0);
        const double y = b[k].y * (1 - t) + b[k + 1].y * t;
        e.y = high ? std::min(e.y, y) : std::max(e.y, y);
    }
    return a;
}

Vec2 LogShift::apply(Vec2 p) const { return Frame{{dx, dy}, angle_deg}.to_slab(p); }

LogShift log_shift(const Ring& a, const Ring& b) {
    LogShift best;
    best.misfit_mm = 1e300;
    const Box ba = bounds(a);
    const Box bb = bounds(b);
    constexpr int n = 48;
    const auto at = [&](double dx) {
        // Differences of both edges at even stations of what they share, then a line through them.
        const double x0 = std::max(ba.low.x, bb.low.x + dx) + 30;
        const double x1 = std::min(ba.high.x, bb.high.x + dx) - 30;
        LogShift s;
        s.dx = dx;
        if (x1 - x0 < 0.5 * std::min(ba.width(), bb.width())) {
            s.misfit_mm = 1e300;
            return s;
        }
        const double mid = (x0 + x1) / 2;
        double count = 0;
        double sum = 0;
        double sum_x = 0;
        double sum_xx = 0;
        std::vector<std::pair<double, double>> all;
        for (int i = 0; i <= n; ++i) {
            const double x = x0 + (x1 - x0) * i / n;
            const auto p = across(a, x);
            const auto q = across(b, x - dx);
            if (!p || !q) continue;
            for (const double d : {p->from - q->from, p->to - q->to}) {
                all.emplace_back(x - mid, d);
                count += 1, sum += d, sum_x += d * (x - mid), sum_xx += (x - mid) * (x - mid);
            }
        }
        if (count < 8) {
            s.misfit_mm = 1e300;
            return s;
        }
        const double shift = sum / count;
        const double turn = sum_xx > 0 ? sum_x / sum_xx : 0;
        double rest = 0;
        for (const auto& [x, d] : all) rest += (d - shift - turn * x) * (d - shift - turn * x);
        s.misfit_mm = std::sqrt(rest / count);
        s.angle_deg = turn * 180 / std::numbers::pi;
        s.dy = shift - turn * mid;
        return s;
    };
    // Straight edges fit at any slide: then the ends stay together.
    const double level = (ba.low.x + ba.high.x - bb.low.x - bb.high.x) / 2;
    const auto cost = [&](const LogShift& s) { return s.misfit_mm + 0.004 * std::abs(s.dx - level); };
    for (double dx = -120; dx <= 120; dx += 10)
        if (const LogShift s = at(dx + level); cost(s) < cost(best)) best = s;
    for (double step = 5; step > 0.2; step /= 2)
        for (const double d : {-step, step})
            if (const LogShift s = at(best.dx + d); cost(s) < cost(best)) best = s;
    return best;
}

}  // namespace yb
