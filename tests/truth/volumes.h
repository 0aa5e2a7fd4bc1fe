// Wood, water and resin of a top, summed level by level.
#pragma once

#include "tests/truth/demo_case.h"

namespace yb::truth {

/// Wood of a leaf and water beside it, litres, summed over 24 levels and strips of 2 mm.
struct Volumes {
    std::vector<double> wood;
    std::vector<double> water;
};
inline const Volumes& volumes(const Case& c) {
    static std::map<std::string, Volumes> known;
    if (const auto it = known.find(c.name); it != known.end()) return it->second;
    Volumes v;
    v.wood.resize(c.slabs.size());
    v.water.resize(c.slabs.size() - 1);
    constexpr int levels = 24;
    const double dz = c.plan.flat->thickness_mm / levels;
    for (int n = 0; n < levels; ++n) {
        std::vector<Ring> edges;
        for (std::size_t i = 0; i < c.slabs.size(); ++i) edges.push_back(c.level(i, (n + 0.5) / levels));
        c.along(2, [&](double u, double du) {
            std::optional<Span1> before;
            for (std::size_t i = 0; i < c.slabs.size(); ++i) {
                auto s = c.leaf_across(i, edges[i], u);
                if (!s) continue;
                // Of banks that overlap the left one gives way.
                if (c.river() && before && s->from < before->to) s->from = std::min(s->to, before->to);
                v.wood[i] += (s->to - s->from) * du * dz * 1e-6;
                if (c.river() && before) v.water[i - 1] += std::max(0.0, s->from - before->to) * du * dz * 1e-6;
                before = s;
            }
        });
    }
    return known[c.name] = v;
}

/// What is left of one void after flattening: a hundred slices of a frustum.
inline double left_of_void(const VoidPlan& v, const Flaw& f, double mouth_mm2, double raw_mm, double off_own, double off_far) {
    const double full = f.through ? raw_mm : std::min(f.depth_mm.value_or(0), raw_mm);
    const double floor = std::min(full, raw_mm - off_far);
    if (v.left_open || floor <= off_own) return 0;
    double sum = 0;
    constexpr int n = 400;
    for (int i = 0; i < n; ++i) {
        const double d = off_own + (floor - off_own) * (i + 0.5) / n;
        const double k = 1 - d / full * (1 - f.floor_share);
        sum += mouth_mm2 * k * k * (floor - off_own) / n;
    }
    return sum * 1e-6;
}

/// Resin of a job: what fills it flush and what is mixed, of voids and river, and what it weighs.
struct Resins {
    double flush = 0, mixed = 0, a_l = 0, kg = 0, cost = 0, void_l = 0;
    std::vector<double> out_of_leaf;  ///< what voids take from each leaf, litres
    int rounds = 0;
    double small = 0, small_l = 0;                                         ///< voids of less than a teaspoon
    double soak_l = 0;                                                     ///< that the soft ones drink first
    std::vector<std::pair<std::string, std::pair<double, double>>> parts;  ///< of each resin, as first used: mixed, and of it part A
};
inline const Resins& resins(const Case& c) {
    static std::map<std::string, Resins> known;
    if (const auto it = known.find(c.name); it != known.end()) return it->second;
    const Volumes& v = volumes(c);
    Resins r;
    r.out_of_leaf.resize(c.slabs.size());
    const double over = c.job.fill.overfill_mm;
    const double reserve = 1 + c.job.fill.reserve_pct / 100;
    const auto of = [&](const std::string& key) {
        return *std::find_if(c.docs.shop.resins.begin(), c.docs.shop.resins.end(), [&](const Resin& x) { return x.key == key; });
    };
    const auto pour = [&](double flush, double surface_mm2, const Resin& resin, double depth) {
        if (flush <= 0) return;
        const double mixed = (flush + surface_mm2 * over * 1e-6) * reserve;
        const double share = resin.parts_a / (resin.parts_a + resin.parts_b);
        r.flush += flush, r.mixed += mixed, r.a_l += mixed * share, r.cost += mixed * resin.price_l.value_or(0);
        auto own = std::find_if(r.parts.begin(), r.parts.end(), [&](const auto& one) { return one.first == resin.key; });
        if (own == r.parts.end()) own = r.parts.insert(own, {resin.key, {0, 0}});
        own->second.first += mixed, own->second.second += mixed * share;
        r.kg += flush * (share * resin.density_a + (1 - share) * resin.density_b);
        // Less than a cup goes in at once.
        r.rounds = std::max(r.rounds, flush < 0.02 ? 1 : static_cast<int>(std::ceil(depth / resin.deepest_mm - 1e-9)));
    };
    for (std::size_t i = 0; i < c.slabs.size(); ++i) {
        const Ring outline = share(c, i);
        const Tilt& t = c.plan.leaves[i].flat->tilt;
        for (const VoidPlan& p : c.plan.leaves[i].fill->voids) {
            const Flaw& f = c.slabs[i].flaws[p.flaw];
            const double mouth = raster(f.outline, [&](Vec2 q) { return inside(outline, q); });
            const double top = c.shapes[i].top.at(p.at);
            const double bottom = c.shapes[i].bottom.at(p.at);
            const double off_top = std::max(0.0, top - (t.top_mm + t.a * p.at.x + t.b * p.at.y));
            const double off_bottom = std::max(0.0, t.bottom_mm + t.a * p.at.x + t.b * p.at.y - bottom);
            const double own = f.face == Face::a ? off_top : off_bottom;
            const double far = f.face == Face::a ? off_bottom : off_top;
            const double litres = left_of_void(p, f, mouth, top - bottom, own, far);
            const double full = f.through ? top - bottom : std::min(f.depth_mm.value_or(0), top - bottom);
            const double k = full > 0 ? 1 - std::min(own, full) / full * (1 - f.floor_share) : 1;
            pour(litres, mouth * k * k, of(p.resin), std::min(full, top - bottom - far) - own);
            r.out_of_leaf[i] += litres, r.void_l += litres;
            const double floor = std::min(full, top - bottom - far);
            if (!p.gone && litres < 0.005) r.small += 1, r.small_l += litres;
            if (!p.soaked) continue;
            double around = 0;
            for (std::size_t n = 0; n < f.outline.size(); ++n) {
                const Vec2 q = f.outline[(n + 1) % f.outline.size()];
                around += std::hypot(q.x - f.outline[n].x, q.y - f.outline[n].y);
            }
            double walls = 0;
            for (int n = 0; n < 500; ++n)
                walls += around * (1 - (own + (floor - own) * (n + 0.5) / 500) / full * (1 - f.floor_share)) * (floor - own) / 500;
            const double low = 1 - floor / full * (1 - f.floor_share);
            r.soak_l += (walls + (p.through ? 0 : mouth * low * low)) * 1e-6 * 0.9;
        }
    }
    // A river is Pour's; what it weighs counts here.
    if (c.job.makeup.kind == MakeUp::river) {
        const Resin& deep = *std::max_element(c.docs.shop.resins.begin(), c.docs.shop.resins.end(),
                                              [](const Resin& a, const Resin& b) { return a.deepest_mm < b.deepest_mm; });
        const Resin resin = c.job.fill.river.empty() ? deep : of(c.job.fill.river);
        const double share = resin.parts_a / (resin.parts_a + resin.parts_b);
        for (const double l : v.water) r.kg += l * (share * resin.density_a + (1 - share) * resin.density_b);
    }
    return known[c.name] = r;
}

}  // namespace yb::truth
