// Skin worked out another way: faces in strips, edges stretch by stretch, windows by trying.
#pragma once

#include "core/shop/job/skin_of.h"
#include "tests/truth/volumes.h"

namespace yb::truth {

struct Skins {
    double upper = 0, lower = 0, edges = 0, ends = 0, base = 0, pockets = 0, upper_wood = 0;
    double all() const { return upper + lower + edges + ends + base - pockets; }
};

/// A stretch of an edge from four corners: half the cross product of its diagonals.
inline double stretch_mm2(Vec2 a, Vec2 b, Vec2 below_b, Vec2 below_a, double deep) {
    const double x1 = below_b.x - a.x, y1 = below_b.y - a.y, z1 = -deep;
    const double x2 = below_a.x - b.x, y2 = below_a.y - b.y, z2 = -deep;
    const double nx = y1 * z2 - z1 * y2, ny = z1 * x2 - x1 * z2, nz = x1 * y2 - y1 * x2;
    return std::sqrt(nx * nx + ny * ny + nz * nz) / 2;
}

inline const Skins& skins(const Case& c) {
    static std::map<std::string, Skins> known;
    if (const auto it = known.find(c.name); it != known.end()) return it->second;
    Skins s;
    const double deep = c.plan.flat->thickness_mm;
    const bool open = c.job.makeup.kind == MakeUp::open_river;
    struct Station {
        double u = 0, low[2]{}, high[2]{}, wood[2]{};
    };
    std::vector<Station> stations;
    c.along(1, [&](double u, double) {
        Station t;
        t.u = u;
        for (int face = 0; face < 2; ++face) {
            double low = 1e300, high = -1e300, wood = 0, before = -1e300;
            for (std::size_t i = 0; i < c.slabs.size(); ++i) {
                auto l = c.leaf_across(i, c.level(i, face), u);
                if (!l) continue;
                if (c.river()) l->from = std::min(l->to, std::max(l->from, before));
                before = l->to;
                low = std::min(low, l->from), high = std::max(high, l->to), wood += l->to - l->from;
            }
            if (high < low) return;
            t.low[face] = low, t.high[face] = high, t.wood[face] = wood;
        }
        stations.push_back(t);
    });
    for (const Station& t : stations) {
        s.lower += (open ? t.wood[0] : t.high[0] - t.low[0]) * 1e-6;
        s.upper += (open ? t.wood[1] : t.high[1] - t.low[1]) * 1e-6;
        s.upper_wood += t.wood[1] * 1e-6;
    }
    for (std::size_t k = 1; k < stations.size(); ++k) {
        const Station& a = stations[k - 1];
        const Station& b = stations[k];
        s.edges += (stretch_mm2({a.u, a.low[1]}, {b.u, b.low[1]}, {b.u, b.low[0]}, {a.u, a.low[0]}, deep) +
                    stretch_mm2({a.u, a.high[1]}, {b.u, b.high[1]}, {b.u, b.high[0]}, {a.u, a.high[0]}, deep)) *
                   1e-6;
    }
    if (c.job.top.shape == TopShape::rectangle && !stations.empty())
        for (const Station* t : {&stations.front(), &stations.back()})
            s.ends += (t->high[0] - t->low[0] + t->high[1] - t->low[1]) / 2 * deep * 1e-6;
    if (!c.job.under.parts_first)
        for (const BasePart& p : c.plan.under->base.parts) {
            // All sides of a box, as the growth of its volume when every side is moved out by a hair.
            const double h = 1e-4;
            s.base += p.count *
                      ((p.length_mm + 2 * h) * (p.width_mm + 2 * h) * (p.thick_mm + 2 * h) - p.length_mm * p.width_mm * p.thick_mm) / h *
                      1e-6;
        }
    for (const Pocket& p : c.plan.under->pockets) {
        const Channel& k = c.job.under.channels.at(p.channel);
        s.pockets += p.length_mm * k.width_mm * 1e-6;
    }
    if (c.job.under.plate_let_in)
        for (const LegPlate& p : c.job.under.plates) s.pockets += area(footprint(p)) * 1e-6;
    for (const Ring& notch : notches_of(c.job.under)) s.pockets += area(notch) * 1e-6;
    return known[c.name] = s;
}

inline const SkinPlan& skin(const Case& c) { return skin_of(c.plan); }
inline double times_at(const Case& c) { return std::clamp(std::pow(2, (20 - c.plan.air_of(step_key::skin).day.temp_c) / 10), 0.25, 8.0); }

/// How large a zone may be: tried in growing sizes, the time walked for each.
inline double zone_by_trying(const Case& c) {
    const FinishClass& f = c.docs.shop.finishes.of(c.job.skin.finish);
    const double hands = c.job.skin.hands == SkinHands::two_people ? 2 : 1;
    double best = 0;
    for (double a = 0.0005; a < 60; a += 0.0005) {
        const double on = f.on_min_m2 / hands * a;
        const double begins_to_wipe = f.off_min_m2 > 0 ? std::max(on, f.soak_min * times_at(c)) : on;
        if (begins_to_wipe + f.off_min_m2 / hands * a > f.window_min * times_at(c)) break;
        best = a;
    }
    return best;
}

inline std::map<std::string, Recompute> of_skin() {
    return {
        {"skin.area",
         [](const Case& c, const Figure&) {
             return Expected{skins(c).all(), 0, 0.01, 0.01, 0};
         }},
        {"skin.zones",
         [](const Case& c, const Figure&) {
             return Expected{std::ceil(skins(c).upper_wood / zone_by_trying(c)),
                             c.docs.shop.finishes.of(c.job.skin.finish).window_min * times_at(c) / 60, 1e-6, 1e-6, 0};
         }},
        {"skin.mix",
         [](const Case& c, const Figure&) {
             const FinishClass& f = c.docs.shop.finishes.of(c.job.skin.finish);
             const double zones = std::ceil(skins(c).upper_wood / zone_by_trying(c));
             return Expected{skins(c).upper_wood / zones * f.first_ml_m2 / 1000 * c.job.skin.thirst * (1 + c.job.skin.rags_pct / 100), 0,
                             0.002, 0.02, 0};
         }},
        {"skin.sanding",
         [](const Case& c, const Figure&) {
             double minutes = 0;
             for (const SkinFacePlan& f : skin(c).faces) {
                 if (f.left_out || f.sealed || f.grits.empty()) continue;
                 const auto grits = static_cast<double>(f.grits.size());
                 const bool resin = f.face.key.rfind("resin", 0) == 0;
                 const bool along = f.face.long_mm > 0;
                 minutes += along ? 3 * f.face.long_mm / 1000 * grits
                                  : ((f.grits[0].grit < 80 ? 40 : 15) + 10 * (grits - 1)) * f.face.m2 * (resin ? 2 : 1);
             }
             return Expected{minutes / (c.job.skin.hands == SkinHands::alone ? 1 : 2) / 60, 0, 0.01, 1e-6, 0};
         }},
        {"skin.cost",
         [](const Case& c, const Figure&) {
             const FinishClass& f = c.docs.shop.finishes.of(c.job.skin.finish);
             double m2 = 0;
             double discs = 0;
             for (const SkinFacePlan& face : skin(c).faces) {
                 if (face.left_out) continue;
                 const bool resin = face.face.key.rfind("resin", 0) == 0;
                 const bool end = face.face.key.rfind("end", 0) == 0;
                 m2 += face.face.m2 * (resin ? (f.film ? 1 : 0.3) : end && !f.film ? 1.5 : 1);
                 if (face.face.long_mm <= 0) discs += face.face.m2 / 0.6 * static_cast<double>(face.grits.size());
             }
             const double l = m2 * (f.first_ml_m2 + f.more_ml_m2 * (f.coats - 1)) / 1000 * (1 + c.job.skin.rags_pct / 100);
             return Expected{l * f.price_l.value_or(0) + std::ceil(discs) * c.docs.shop.sanding.disc_price.value_or(0), 0, 0.51, 1e-6, 0};
         }},
        {"skin.recoat",
         [](const Case& c, const Figure&) {
             return Expected{c.docs.shop.finishes.of(c.job.skin.finish).recoat_h * times_at(c), 0, 1e-6, 1e-6, 0};
         }},
        {"skin.handle",
         [](const Case& c, const Figure&) {
             const FinishClass& f = c.docs.shop.finishes.of(c.job.skin.finish);
             return Expected{f.handle_h * times_at(c), f.cure_h * times_at(c), 1e-6, 1e-6, 0};
         }},
    };
}

}  // namespace yb::truth
