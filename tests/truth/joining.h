// Join worked out another way: joints from the lines they were laid as, the glue-up added up anew.
#pragma once

#include "core/steps/join/join.h"
#include "tests/truth/demo_case.h"
#include "tests/truth/rack_lay.h"

namespace yb::truth {

struct Glued {
    double m2 = 0, clamps = 0, pieces = 0, spacing = 0, n = 0;
};
inline Glued glued(const Case& c) {
    Glued g;
    if (c.river() || c.slabs.size() < 2) return g;
    const double t = c.plan.flat->thickness_mm;
    for (std::size_t k = 0; k + 1 < c.slabs.size(); ++k) {
        const double long_mm = 2 * c.hl() / std::cos(c.job.makeup.joints.at(k).angle_deg * pi / 180);
        const auto leaf = [&](std::size_t i) {
            double wide = 0;
            double n = 0;
            c.along(10, [&](double u, double) {
                if (const auto s = c.leaf_across(i, c.level(i, 1), u)) wide += s->to - s->from, n += 1;
            });
            return wide / n;
        };
        double p = 0.35;
        for (const std::size_t i : {k, k + 1})
            for (const Species& s : all_species())
                if (s.name == c.slabs[i].species && *s.specific_gravity_12 >= 0.45) p = 0.7;
        const double spacing = std::min(c.job.join.clamp_n / (p * t), 2 * std::min(leaf(k), leaf(k + 1)));
        if (k == 0) g.spacing = spacing;
        g.m2 += long_mm * t * 1e-6;
        g.pieces += std::floor(long_mm / c.job.join.pitch_mm + 1e-9);
        g.clamps += std::ceil(long_mm / spacing - 1e-9);
        g.n += 1;
    }
    return g;
}

inline std::map<std::string, Recompute> of_join() {
    return {
        {"join.needed",
         [](const Case& c, const Figure&) {
             const Glued g = glued(c);
             const JoinChoices& j = c.job.join;
             // Cauls across: at both ends, or one every 450 mm between places 80 mm in; a clamp at either end of each.
             const double bars = g.n == 0 || j.across == CaulsAcross::none ? 0
                                 : j.across == CaulsAcross::ends           ? 2
                                                                           : std::ceil((c.job.top.length_mm - 160) / 450) + 1;
             const double minutes = g.m2 / j.spread_m2_min + g.pieces * j.piece_s / 60 + g.n * j.set_min + g.clamps * j.clamp_s / 60 +
                                    bars * 2 * j.clamp_s / 60;
             return Expected{minutes / 60, j.open_min * std::pow(2, (20 - c.plan.air_of(step_key::join).day.temp_c) / 10) / 60, 0.02, 0.02,
                             1e-6};
         }},
        {"join.glue",
         [](const Case& c, const Figure&) {
             return Expected{glued(c).m2 * c.job.join.spread_g_m2 / 1000 / c.job.join.glue_kg_l, 0, 1e-6, 0.01, 0};
         }},
        {"join.clamps",
         [](const Case& c, const Figure&) {
             return Expected{glued(c).clamps, glued(c).spacing, 1.01, 1e-9, 2};
         }},
        {"join.cauls",
         [](const Case& c, const Figure&) {
             // Walked in fine steps along both live edges: pieces of 900 at most, 60 left behind where the edge stands out furthest.
             double n = 0;
             double widest = 0;
             for (const bool left : {false, true}) {
                 if (!(left ? c.left_stays() : c.right_stays())) continue;
                 double low = 1e300;
                 double high = -1e300;
                 const Ring& above = c.plan.top->above;
                 const Ring& below = c.plan.top->below;
                 for (const Ring* r : {&above, &below})
                     for (const Vec2 q : *r) low = std::min(low, q.x), high = std::max(high, q.x);
                 const double pieces = std::ceil((high - low) / 900 - 1e-9);
                 n += pieces;
                 for (int k = 0; k < pieces; ++k) {
                     double out = -1e300;
                     double in = 1e300;
                     for (int i = 0; i <= 2000; ++i) {
                         const double u = low + (high - low) / pieces * (k + std::clamp(i / 2000.0, 1e-7, 1 - 1e-7));
                         double edge = -1e300;
                         for (const Ring* r : {&above, &below})
                             for (const double v : crossings(*r, u)) edge = std::max(edge, left ? v : -v);
                         out = std::max(out, edge), in = std::min(in, edge);
                     }
                     widest = std::max(widest, out - in + c.job.join.caul_mm);
                 }
             }
             return Expected{n, widest, 1e-9, 1e-9, 0.5};
         }},
        {"join.rim",
         [](const Case& c, const Figure&) {
             // Carved: millimetre by millimetre along, the grain in its share between the slab's edges, as deep as was asked for at most.
             const double t = c.plan.flat->thickness_mm;
             double litres = 0;
             for (const double way : {-1.0, 1.0}) {
                 if (way < 0 ? c.right_stays() : c.left_stays()) continue;
                 const Ring face = c.show(way < 0 ? 0 : c.slabs.size() - 1);
                 std::vector<std::pair<double, double>> edges;
                 double share = 1;
                 for (int i = 0; i <= static_cast<int>(2 * c.hl()); ++i) {
                     double low = 1e300;
                     double high = -1e300;
                     const double u = std::clamp(i - c.hl(), -c.hl() + 1e-6, c.hl() - 1e-6);
                     for (std::size_t k = 0; k < face.size(); ++k) {
                         const Vec2 a = face[k];
                         const Vec2 b = face[(k + 1) % face.size()];
                         if ((a.x - u) * (b.x - u) > 0 || a.x == b.x) continue;
                         const double v = a.y + (b.y - a.y) * (u - a.x) / (b.x - a.x);
                         low = std::min(low, v), high = std::max(high, v);
                     }
                     edges.emplace_back(way > 0 ? low : high, way > 0 ? high : low);
                     share = std::min(share, (way * c.hw() - edges.back().first) / (edges.back().second - edges.back().first));
                 }
                 double deepest = 0;
                 double sum = 0;
                 for (const auto& [far, near] : edges) {
                     const double in = std::abs(way * c.hw() - far - share * (near - far));
                     deepest = std::max(deepest, in);
                     sum += in;
                 }
                 litres += sum * std::min(1.0, c.job.join.edge_mm / deepest) * t * 1e-6;
             }
             return Expected{t, litres, 0.01, 0.02, 1e-3};
         }},
        {"join.across",
         [](const Case& c, const Figure&) {
             // Two at the ends; between them so many that none lies further than 450 from the next.
             if (c.job.join.across == CaulsAcross::none) return Expected{0, 0, 0, 0, 0};
             int n = 2;
             if (c.job.join.across == CaulsAcross::all)
                 while ((2 * c.hl() - 160) / (n - 1) > 450) ++n;
             return Expected{static_cast<double>(n), 0, 0, 0, 0};
         }},
        {"join.rods_carry",
         [](const Case& c, const Figure&) {
             // The moment at each bank by a fixed beam whose ends are pushed apart: F·gap/2; stress at the rim of a round bar.
             const double r = c.job.makeup.rod_mm / 2;
             const double inertia = M_PI / 4 * r * r * r * r;
             double sum = 0;
             for (const JointPlan& j : c.plan.makeup->joints)
                 for (const Rod& rod : j.rods) sum += 235 * inertia / r / (rod.gap_mm / 2);
             return Expected{sum, 0, 51, 0.01, 0};
         }},
        {"join.rods", of_rack_and_lay().at("lay.rods")},
        {"join.pieces",
         [](const Case& c, const Figure&) {
             return Expected{glued(c).pieces, (c.plan.flat->thickness_mm - c.job.join.loose_thick_mm) / 2, 0.01, 1e-9, 1e-6};
         }},
    };
}

}  // namespace yb::truth
