// What is made beside the glue-up: cauls from the offcut, halves that are joined on site.
#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/steps/join/join.h"

namespace yb {

namespace {

/// The outermost of both faces on one side, at every corner of either.
std::vector<Vec2> outermost(const Top& top, bool left) {
    const Sides above = sides_of(top.above);
    const Sides below = sides_of(top.below.size() > 2 ? top.below : top.above);
    const std::vector<Vec2>& a = left ? above.high : above.low;
    const std::vector<Vec2>& b = left ? below.high : below.low;
    std::vector<double> at;
    for (const std::vector<Vec2>* side : {&a, &b})
        for (const Vec2 q : *side) at.push_back(q.x);
    std::sort(at.begin(), at.end());
    at.erase(std::unique(at.begin(), at.end(), [](double x, double y) { return y - x < 1e-6; }), at.end());
    std::vector<Vec2> out;
    double before = 0;
    for (const double x : at) {
        const double va = height_at(a, x);
        const double vb = height_at(b, x);
        const Vec2 q{x, left ? std::max(va, vb) : std::min(va, vb)};
        // Between two corners the faces may cross: there the outermost turns.
        const double now = va - vb;
        if (before * now < -1e-12) {
            const double u = out.back().x + (x - out.back().x) * before / (before - now);
            out.push_back({u, height_at(a, u)});
        }
        out.push_back(q);
        before = now;
    }
    return out;
}

}  // namespace

std::vector<Caul> cauls_for(const Top& top, double thinnest, double longest) {
    if (!(thinnest > 0) || !(longest > 0)) throw std::invalid_argument("a caul has a width and a length");
    std::vector<Caul> out;
    if (!top.ready || top.above.size() < 3 || top.leaves < 2) return out;
    for (const bool left : {false, true}) {
        if (!(left ? left_live(top.wanted.live) : right_live(top.wanted.live))) continue;
        const std::vector<Vec2> edge = outermost(top, left);
        if (edge.size() < 2) continue;
        const double low = edge.front().x;
        const double high = edge.back().x;
        const int n = std::max(1, static_cast<int>(std::ceil((high - low) / longest - 1e-9)));
        for (int k = 0; k < n; ++k) {
            const double from = low + (high - low) * k / n;
            const double to = low + (high - low) * (k + 1) / n;
            std::vector<Vec2> side{{from, height_at(edge, from)}};
            for (const Vec2 q : edge)
                if (q.x > from + 1e-6 && q.x < to - 1e-6) side.push_back(q);
            side.push_back({to, height_at(edge, to)});
            double furthest = side.front().y;
            double nearest = side.front().y;
            for (const Vec2 q : side) {
                furthest = left ? std::max(furthest, q.y) : std::min(furthest, q.y);
                nearest = left ? std::min(nearest, q.y) : std::max(nearest, q.y);
            }
            const double back = furthest + (left ? thinnest : -thinnest);
            Caul c;
            c.leaf = left ? top.leaves - 1 : 0;
            c.left = left;
            c.length_mm = to - from;
            c.wide_mm = std::abs(back - nearest);
            c.shape = Ring(side.begin(), side.end());
            c.shape.push_back({to, back});
            c.shape.push_back({from, back});
            if (signed_area(c.shape) < 0) std::reverse(c.shape.begin(), c.shape.end());
            out.push_back(std::move(c));
        }
    }
    return out;
}

std::optional<Halves> halves_at(const Top& top, double u, int connectors) {
    if (!top.ready || connectors < 1) return {};
    const Box rim = bounds(top.above);
    if (u <= rim.low.x || u >= rim.high.x) return {};
    const auto across = top.across(u);
    if (across.empty()) return {};
    Halves h;
    h.u_mm = u;
    // By what lies to either side of the cut, region by region.
    for (const Region& r : top.regions) {
        if (r.mass_kg <= 0 || r.above.size() < 3) continue;
        const Ring to_the_left{{rim.low.x - 1, rim.low.y - 1}, {u, rim.low.y - 1}, {u, rim.high.y + 1}, {rim.low.x - 1, rim.high.y + 1}};
        const double share = std::clamp(intersection_area(r.above, to_the_left) / area(r.above), 0.0, 1.0);
        h.left_kg += r.mass_kg * share;
        h.right_kg += r.mass_kg * (1 - share);
    }
    const double from = across.front().from;
    const double to = across.back().to;
    const double step = (to - from) / connectors;
    for (int k = 0; k < connectors; ++k) {
        const double v = from + (k + 0.5) * step;
        h.connectors.push_back({u, v});
        const auto in = std::find_if(across.begin(), across.end(), [&](const Across& a) { return v >= a.from && v <= a.to; });
        if (in == across.end() || !top.regions[in->region].wood()) h.not_in_wood.push_back(static_cast<std::size_t>(k));
        if (k > 0) h.tenons.push_back({u, v - step / 2});
    }
    return h;
}

std::vector<double> cauls_across(double length_mm, CaulsAcross how, double bar, const std::vector<Span1>& in_the_way) {
    if (how == CaulsAcross::none || !(length_mm > 0)) return {};
    constexpr double from_end = 80;
    constexpr double apart = 450;
    const double half = std::max(0.0, length_mm / 2 - from_end);
    const int n = how == CaulsAcross::ends ? 1 : std::max(1, static_cast<int>(std::ceil(2 * half / apart - 1e-9)));
    const auto clear = [&](double u) {
        return std::all_of(in_the_way.begin(), in_the_way.end(),
                           [&](const Span1& s) { return u + bar / 2 <= s.from || u - bar / 2 >= s.to; });
    };
    std::vector<double> out;
    for (int i = 0; i <= n; ++i) {
        const double wanted = -half + 2 * half * i / n;
        double best = wanted;
        for (int k = 0; k <= 80 && !clear(best); ++k)
            best = std::clamp(wanted + (k % 2 ? -1 : 1) * 5.0 * ((k + 1) / 2), -length_mm / 2 + bar / 2, length_mm / 2 - bar / 2);
        out.push_back(clear(best) ? best : wanted);
    }
    return out;
}

}  // namespace yb
