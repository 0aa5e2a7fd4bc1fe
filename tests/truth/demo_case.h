// One demo job with its slabs as they lie, asked in fine strips and levels. For tests/truth only.
#pragma once

#include <map>
#include <optional>
#include <string>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/everything.h"
#include "tests/truth/other_way.h"

namespace yb::truth {

struct Case {
    std::string name;
    const Documents& docs;
    const Job& job;
    Plan plan;                ///< the whole top on the bench
    std::vector<Slab> slabs;  ///< as laid
    std::vector<SlabShape> shapes;

    bool several() const { return slabs.size() > 1; }
    double hl() const { return job.top.length_mm / 2; }
    double hw() const { return job.top.width_mm / 2; }
    const Placement& at(std::size_t i) const { return job.leaves[i].placement; }
    bool right_stays() const { return job.top.live == LiveEdges::both || job.top.live == LiveEdges::right; }
    bool left_stays() const { return job.top.live == LiveEdges::both || job.top.live == LiveEdges::left; }
    bool river() const { return job.makeup.kind == MakeUp::river || job.makeup.kind == MakeUp::open_river; }

    /// Both faces of a leaf in the top's frame, as they are.
    Ring show(std::size_t i) const { return in_top(at(i), shapes[i].ring_a); }
    Ring under(std::size_t i) const { return in_top(at(i), shapes[i].ring_b); }
    /// Its edge at a share of the finished thickness, 0 the underside: found on every ruled line by halving.
    const Ring& level(std::size_t i, double share) const {
        const auto key = std::pair(i, share);
        if (const auto it = levels.find(key); it != levels.end()) return it->second;
        return levels[key] = found_level(i, share);
    }
    mutable std::map<std::pair<std::size_t, double>, Ring> levels{};

    Ring found_level(std::size_t i, double share) const {
        const SlabShape& s = shapes[i];
        const Tilt& t = plan.leaves[i].flat->tilt;
        Ring out;
        for (std::size_t k = 0; k < s.ring_a.size(); ++k) {
            const Vec2 a = s.ring_a[k];
            const Vec2 b = s.ring_b[k];
            const double za = s.top.at(a);
            const double zb = s.bottom.at(b);
            const auto foot = [&](double share_of_planes) {
                double in = 0;
                double outside = 1;
                const auto over = [&](double f) {
                    const Vec2 p{a.x + (b.x - a.x) * f, a.y + (b.y - a.y) * f};
                    const double plane = t.bottom_mm + (t.top_mm - t.bottom_mm) * share_of_planes + t.a * p.x + t.b * p.y;
                    return za + (zb - za) * f - plane;
                };
                if (over(0) <= 0) return 0.0;
                if (over(1) >= 0) return 1.0;
                for (int n = 0; n < 60; ++n) {
                    const double mid = (in + outside) / 2;
                    (over(mid) > 0 ? in : outside) = mid;
                }
                return in;
            };
            const double f = foot(share);
            out.push_back(in_top(at(i), {a.x + (b.x - a.x) * f, a.y + (b.y - a.y) * f}));
        }
        return out;
    }
    /// The line of a joint at a place: straight ones only, as the demo has them.
    double joint(std::size_t k, double u) const {
        const Joint& j = job.makeup.joints.at(k);
        return j.v_mm + std::tan(j.angle_deg * pi / 180) * u;
    }
    /// What of a leaf lies in the top at a station and a height: from low v to high v; empty for nothing.
    std::optional<Span1> leaf_across(std::size_t i, const Ring& edge, double u) const {
        const auto c = crossings(edge, u);
        if (c.size() < 2) return {};
        Span1 s{c.front(), c.back()};
        if (job.top.shape != TopShape::rectangle) {
            const double half = std::sqrt(std::max(0.0, hl() * hl() - u * u)) * hw() / hl();
            s = {std::max(s.from, -half), std::min(s.to, half)};
        }
        if (i == 0 && !right_stays()) s.from = std::max(s.from, -hw());
        if (i + 1 == slabs.size() && !left_stays()) s.to = std::min(s.to, hw());
        if (!river() && i > 0) s.from = std::max(s.from, joint(i - 1, u));
        if (!river() && i + 1 < slabs.size()) s.to = std::min(s.to, joint(i, u));
        if (s.to <= s.from) return {};
        return s;
    }
    template <class F>
    void along(double step, F f) const {
        for (double u = -hl() + step / 2; u < hl(); u += step) f(u, step);
    }
};

/// A leaf's share of the top on its slab: fine strips, not an overlay.
inline Ring share(const Case& c, std::size_t i) {
    Ring low, high;
    const Ring show = c.show(i);
    for (double u = -c.hl() + 1e-6; u <= c.hl(); u += (2 * c.hl() - 2e-6) / 600)
        if (const auto s = c.leaf_across(i, show, u))
            low.push_back(on_slab(c.at(i), {u, s->from})), high.push_back(on_slab(c.at(i), {u, s->to}));
    low.insert(low.end(), high.rbegin(), high.rend());
    return low;
}

struct Expected {
    double value = 0, second = 0;
    double margin = 0.05, epsilon = 1e-6;
    double second_margin = 0;  ///< 0: as the first
};
using Recompute = std::function<Expected(const Case&, const Figure&)>;

/// Slab by slab: the least and the most of what is asked, or its sum.
template <class F>
Expected least_and_most(const Case& c, F of, double margin) {
    Expected e{1e300, -1e300, margin, 1e-6, 0};
    for (std::size_t i = 0; i < c.slabs.size(); ++i) {
        const auto [low, high] = of(i);
        e.value = std::min(e.value, low), e.second = std::max(e.second, high);
    }
    return e;
}

}  // namespace yb::truth
