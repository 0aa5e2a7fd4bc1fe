// Fill and Under worked out another way: voids in slices, movement millimetre by millimetre.
#pragma once

#include "tests/truth/volumes.h"

namespace yb::truth {

/// Shrinkage across at one place of a leaf, percent: tan φ = y / h.
inline double shrinkage_at(const Case& c, std::size_t i, double y) {
    const Species* s = nullptr;
    for (const Species& x : all_species())
        if (x.name == c.slabs[i].species) s = &x;
    if (c.slabs[i].cross_cut) return *s->shrink_radial_pct;
    if (!c.slabs[i].pith_mm) return *s->shrink_tangential_pct;
    const double h = std::max(std::abs(*c.slabs[i].pith_mm), 1e-6);
    const double cos2 = h * h / (h * h + y * y);
    return *s->shrink_tangential_pct * cos2 + *s->shrink_radial_pct * (1 - cos2);
}

/// How much the wood between two lines widens at a station, millimetre by millimetre.
inline double widens(const Case& c, double u, double v0, double v1, const std::vector<double>& from_pct, double to_pct) {
    double sum = 0;
    double before = -1e300;
    for (std::size_t i = 0; i < c.slabs.size(); ++i) {
        auto s = c.leaf_across(i, c.level(i, 1), u);
        if (!s) continue;
        if (c.river()) s->from = std::max(s->from, before);
        before = s->to;
        const double low = std::max(s->from, std::min(v0, v1));
        const double high = std::min(s->to, std::max(v0, v1));
        // The rule is not linear in S: a leaf's mean shrinkage is taken first.
        double mean = 0;
        int n = 0;
        for (double v = low + 0.25; v < high; v += 0.5) mean += shrinkage_at(c, i, on_slab(c.at(i), {u, v}).y), ++n;
        if (n == 0) continue;
        mean /= n;
        sum += (high - low) * (to_pct - from_pct[i]) / (3000 / mean - 30 + from_pct[i]);
    }
    return sum;
}

struct Air {
    double low = 1e300, high = -1e300;
    std::vector<double> day;  ///< of each leaf
};
inline Air air(const Case& c) {
    Air a;
    for (const Month& m : c.job.room.months)
        a.low = std::min(a.low, settles(m.temp_c, m.rh_pct)), a.high = std::max(a.high, settles(m.temp_c, m.rh_pct));
    for (const Slab& s : c.slabs) a.day.push_back(std::clamp(c.job.under.day_moisture_pct.value_or(s.moisture_pct.value_or(0)), 0.0, 30.0));
    for (const double d : a.day) a.low = std::min(a.low, d), a.high = std::min(30.0, std::max(a.high, d));
    return a;
}

inline std::map<std::string, Recompute> of_fill_and_under() {
    return {
        {"fill.mix",
         [](const Case& c, const Figure&) {
             return Expected{resins(c).mixed, 0, 0.002, 0.01, 0};
         }},
        {"fill.parts",
         [](const Case& c, const Figure&) {
             const Resins& r = resins(c);
             if (r.parts.empty()) return Expected{0, 0, 0.002, 0.01, 0};
             const auto [mixed, a] = r.parts.front().second;
             return Expected{a, mixed - a, 0.002, 0.01, 0};
         }},
        {"fill.rounds",
         [](const Case& c, const Figure&) {
             return Expected{static_cast<double>(resins(c).rounds), 0, 0, 0, 0};
         }},
        {"fill.small",
         [](const Case& c, const Figure&) {
             return Expected{resins(c).small, resins(c).small_l, 0, 0.01, 1e-4};
         }},
        {"fill.tape",
         [](const Case& c, const Figure&) {
             // Turned by a fiftieth of a degree at a time to where it is narrowest; strips laid one after another until it is covered.
             double sum = 0;
             for (const LeafPlan& l : c.plan.leaves)
                 for (const VoidPlan& v : l.fill->voids) {
                     if (!v.through || v.left_open || v.gone) continue;
                     double narrow = 1e300;
                     double along = 0;
                     for (int i = 0; i < 9000; ++i) {
                         const double a = M_PI * i / 9000;
                         double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
                         for (const Vec2 q : v.mouth) {
                             const double x = q.x * std::cos(a) + q.y * std::sin(a);
                             const double y = q.y * std::cos(a) - q.x * std::sin(a);
                             x0 = std::min(x0, x), x1 = std::max(x1, x), y0 = std::min(y0, y), y1 = std::max(y1, y);
                         }
                         if (y1 - y0 < narrow) narrow = y1 - y0, along = x1 - x0;
                     }
                     int strips = 1;
                     for (double covered = c.job.fill.tape_mm; covered < narrow + 30 - 1e-6; ++strips) covered += 0.8 * c.job.fill.tape_mm;
                     sum += strips * (along + 200);
                 }
             return Expected{sum, 0, 1, 0.01, 0};
         }},
        {"fill.soaks",
         [](const Case& c, const Figure&) {
             return Expected{resins(c).soak_l, 0, 2e-4, 0.01, 0};
         }},
        {"fill.cost",
         [](const Case& c, const Figure&) {
             return Expected{resins(c).cost, 0, 0.6, 0.01, 0};
         }},
        {"under.travel",
         [](const Case& c, const Figure&) {
             const Air a = air(c);
             double best = 0;
             double at = 0;
             for (double u = -c.hl() + 0.01; u < c.hl(); u += 2) {
                 double wood = 0;
                 double before = -1e300;
                 for (std::size_t i = 0; i < c.slabs.size(); ++i)
                     if (auto s = c.leaf_across(i, c.level(i, 1), u)) {
                         if (c.river()) s->from = std::max(s->from, before);
                         before = s->to;
                         wood += std::max(0.0, s->to - s->from);
                     }
                 if (wood > best) best = wood, at = u;
             }
             return Expected{widens(c, at, -1e5, 1e5, std::vector<double>(c.slabs.size(), a.low), a.high), 0, 0.03, 0.01, 0};
         }},
        {"under.slot",
         [](const Case& c, const Figure&) {
             const Air a = air(c);
             const UnderChoices& u = c.job.under;
             const double fixed = u.fixed == FixedLine::middle ? 0 : u.fixed == FixedLine::left ? c.hw() : -c.hw();
             double longest = 0;
             const auto hole = [&](double x, double v) {
                 if (std::abs(v - fixed) < u.bolt_mm) {
                     longest = std::max(longest, u.bolt_mm);
                     return;
                 }
                 const double out = std::max(0.0, widens(c, x, fixed, v, a.day, a.high));
                 const double in = std::max(0.0, -widens(c, x, fixed, v, a.day, a.low));
                 longest = std::max(longest, std::ceil((u.bolt_mm + u.play_mm + out + in) * 2 - 1e-9) / 2);
             };
             for (const LegPlate& p : u.plates)
                 for (int i = 0; i < p.bolts_along; ++i)
                     for (int k = 0; k < p.bolts_across; ++k)
                         hole(p.u_mm + (p.bolts_along > 1 ? (2.0 * i / (p.bolts_along - 1) - 1) * (p.along_mm / 2 - u.edge_mm) : 0),
                              p.v_mm + (p.bolts_across > 1 ? (2.0 * k / (p.bolts_across - 1) - 1) * (p.across_mm / 2 - u.edge_mm) : 0));
             for (const Channel& ch : u.channels)
                 for (int k = 0; k < ch.bolts; ++k)
                     hole(ch.u_mm, ch.v_mm + (ch.bolts > 1 ? (2.0 * k / (ch.bolts - 1) - 1) * (ch.length_mm / 2 - u.edge_mm) : 0));
             return Expected{longest, 0, 0.51, 0, 0};  // it is rounded up to half a millimetre: either side of a step
         }},
        {"under.leg",
         [](const Case& c, const Figure&) {
             const UnderChoices& u = c.job.under;
             return Expected{c.job.top.height_mm - c.plan.flat->thickness_mm - u.feet_mm - (u.plate_let_in ? 0 : u.plate_mm), 0, 1e-6, 0,
                             0};
         }},
        {"under.mass",
         [](const Case& c, const Figure&) {
             const Volumes v = volumes(c);
             const Resins& r = resins(c);
             Expected e{r.kg, 0, 0.02, 0.006, 0};
             for (std::size_t i = 0; i < c.slabs.size(); ++i)
                 e.value += (v.wood[i] - r.out_of_leaf[i]) *
                            kg_a_litre(c.slabs[i], c.job.under.day_moisture_pct.value_or(c.slabs[i].moisture_pct.value_or(0)));
             return e;
         }},
        {"under.channel",
         [](const Case& c, const Figure&) {
             const Channel& ch = c.job.under.channels.front();
             // The section in slices: two walls as deep as the channel, the web between them.
             const auto at = [&](double y) { return y < ch.wall_mm ? ch.width_mm : 2 * ch.wall_mm; };
             double area = 0;
             double first = 0;
             constexpr int n = 200000;
             const double dy = ch.depth_mm / n;
             for (int i = 0; i < n; ++i) area += at((i + 0.5) * dy) * dy, first += at((i + 0.5) * dy) * (i + 0.5) * dy * dy;
             double second = 0;
             for (int i = 0; i < n; ++i) second += at((i + 0.5) * dy) * std::pow((i + 0.5) * dy - first / area, 2) * dy;
             const Species* wood = nullptr;
             for (const Species& s : all_species())
                 if (s.name == c.slabs[0].species) wood = &s;
             const double serves = c.job.top.length_mm / static_cast<double>(c.job.under.channels.size());
             const double of_wood = *wood->moe_mpa / 15 * serves * std::pow(c.plan.flat->thickness_mm, 3) / 12;
             return Expected{100 * 200e3 * second / (200e3 * second + of_wood), 0, 0.01, 1e-4, 0};
         }},
    };
}

}  // namespace yb::truth
