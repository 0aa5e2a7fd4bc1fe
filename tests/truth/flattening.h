// Flat worked out another way: the tilt by GLPK, lanes and layers counted anew.
#pragma once

#include "tests/truth/demo_case.h"
#include "tests/truth/glpk.h"

namespace yb::truth {

/// Points of a leaf's share of the top (or of the whole slab) on a grid of 7 mm and along its rim.
inline std::vector<Vec2> places(const Ring& ring) {
    std::vector<Vec2> out;
    const auto [x0, x1] = x_range(ring);
    for (double x = x0 + 1e-6; x < x1; x += 7) {
        const auto c = crossings(ring, x);
        for (std::size_t i = 0; i + 1 < c.size(); i += 2)
            for (double y = c[i]; y < c[i + 1]; y += 7) out.push_back({x, y});
    }
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 a = ring[i];
        const Vec2 b = ring[(i + 1) % ring.size()];
        const int n = 1 + static_cast<int>(std::hypot(b.x - a.x, b.y - a.y) / 4);
        for (int k = 0; k < n; ++k) out.push_back({a.x + (b.x - a.x) * k / n, a.y + (b.y - a.y) * k / n});
    }
    return out;
}

/// The thickest between a face over one ring and the other over another, by GLPK over more and more of the places: those that
/// stick out most come in.
inline double thickest(const SlabShape& s, const Ring& above, const Ring& below) {
    const auto heights = [](const std::vector<Vec2>& at, const Surface& face) {
        std::vector<Vec3> out;
        for (const Vec2 p : at) out.push_back({p.x, p.y, face.at(p)});
        return out;
    };
    const auto tops = heights(places(above), s.top);
    const auto bottoms = heights(places(below), s.bottom);
    std::vector<Vec3> top, bottom;
    for (std::size_t i = 0; i < tops.size(); i += 1 + tops.size() / 40) top.push_back(tops[i]);
    for (std::size_t i = 0; i < bottoms.size(); i += 1 + bottoms.size() / 40) bottom.push_back(bottoms[i]);
    double t = 0;
    for (int round = 0; round < 40; ++round) {
        Tilt tilt;
        t = by_glpk(top, bottom, &tilt);
        const auto over = [&](const Vec3& p) { return p.z - tilt.a * p.x - tilt.b * p.y; };
        const auto less = [&](const Vec3& p, const Vec3& q) { return over(p) < over(q); };
        const Vec3 low = *std::min_element(tops.begin(), tops.end(), less);
        const Vec3 high = *std::max_element(bottoms.begin(), bottoms.end(), less);
        if (over(low) > tilt.top_mm - 1e-4 && over(high) < tilt.bottom_mm + 1e-4) break;
        top.push_back(low), bottom.push_back(high);
    }
    return t;
}

/// Passes and hours of one leaf, its two faces lane by lane.
struct Work2 {
    double passes = 0, hours = 0;
};
inline Work2 router(const Case& c, std::size_t i) {
    const Sled& sled = c.docs.shop.sled;
    const FlatChoices& choices = c.job.flat;
    const SlabShape& s = c.shapes[i];
    const LayPlan& lay = *c.plan.leaves[i].lay;
    const Tilt& t = c.plan.leaves[i].flat->tilt;
    const double allowance = choices.rest_h > 0 ? choices.allowance_mm : 0;
    const auto [x0, x1] = x_range(lay.rough);
    const double step = sled.cutter_mm * (1 - sled.overlap);
    const int lanes = static_cast<int>(std::ceil((x1 - x0) / step - 1e-9)) + 1;
    Work2 w;
    for (const bool show : {true, false}) {
        const auto above = [&](Vec2 p) {
            const double plane = (show ? t.top_mm : t.bottom_mm) + t.a * p.x + t.b * p.y;
            return show ? s.top.at(p) - plane : plane - s.bottom.at(p);
        };
        double most = 0;
        std::vector<std::vector<std::pair<double, double>>> profile;  // of each lane: y and height
        for (int k = 0; k < lanes; ++k) {
            const double x = std::clamp(x0 + k * step, x0 + 1e-6, x1 - 1e-6);
            auto& lane = profile.emplace_back();
            const auto cut = crossings(lay.rough, x);
            for (std::size_t q = 0; q + 1 < cut.size(); q += 2)
                for (int n = 0; n <= 200; ++n) {
                    const double y = cut[q] + (cut[q + 1] - cut[q]) * n / 200;
                    lane.emplace_back(y, above({x, y}));
                    most = std::max(most, lane.back().second);
                }
        }
        std::vector<double> levels;  // below each layer, from the top down
        const double rough = std::max(0.0, most - allowance);
        for (double l = std::ceil(rough / sled.depth_mm - 1e-6) - 1; l >= 0; --l) levels.push_back(allowance + l * sled.depth_mm);
        for (double l = std::ceil(std::min(allowance, most) / sled.depth_mm - 1e-6) - 1; l >= 0; --l) levels.push_back(l * sled.depth_mm);
        for (const double level : levels) {
            double seconds = sled.layer_s;
            for (const auto& lane : profile) {
                double cut = 0;
                double until = -1e300;
                for (const auto& [y, h] : lane) {
                    if (h <= level + 1e-6) continue;
                    const double from = std::max(until, y - sled.cutter_mm / 2);
                    cut += y + sled.cutter_mm / 2 - from;
                    until = y + sled.cutter_mm / 2;
                }
                if (cut <= 0) continue;
                w.passes += 1;
                seconds += sled.turn_s + cut / sled.feed_mm_s;
            }
            w.hours += seconds / 3600;
        }
    }
    return w;
}

/// The rise of a cup between the edges, by the plainest sums: bending of thin layers, then a circle for each little step.
inline double cups(const std::function<double(double y, double z)>& strain, double wide, double thick) {
    constexpr int layers = 400;
    constexpr int steps = 1000;
    double slope = 0;
    double rise = 0;
    for (int i = 0; i < steps; ++i) {
        const double y = (i + 0.5) * wide / 2 / steps;
        double moment = 0;
        for (int k = 0; k < layers; ++k) {
            const double z = thick * ((k + 0.5) / layers - 0.5);
            moment += strain(y, z) * z * thick / layers;
        }
        const double bend = moment * 12 / (thick * thick * thick) * wide / 2 / steps;
        rise += (slope + bend / 2) * wide / 2 / steps;
        slope += bend;
    }
    return std::abs(rise);
}

inline std::map<std::string, Recompute> of_flat() {
    return {
        {"flat.service",
         [](const Case& c, const Figure&) {
             const Species* wood = nullptr;
             for (const Species& s : all_species())
                 if (s.name == c.slabs[0].species) wood = &s;
             double low = 1e300;
             double high = -1e300;
             for (const Month& m : c.job.room.months)
                 low = std::min(low, settles(m.temp_c, m.rh_pct)), high = std::max(high, settles(m.temp_c, m.rh_pct));
             const double t = c.plan.flat->thickness_mm;
             // The leaf at its widest station between the finished faces, looked for a millimetre at a time.
             const Ring& face = c.plan.top->regions.front().above;
             const Box box = bounds(face);
             double wide = 0;
             for (double x = box.low.x + 0.5; x < box.high.x; x += 1) wide = std::max(wide, highest(face, x, 0) - lowest(face, x, 0));
             const double st = *wood->shrink_tangential_pct;
             const double mean = (low + high) / 2;
             const double damp = cups([&](double, double z) { return 2 * (z / t) / (3000 / st - 30 + mean); }, wide, t);
             if (!c.slabs[0].pith_mm) return Expected{damp, 0, 0.02, 0.01, 0};
             const double sr = *wood->shrink_radial_pct;
             const double rings = cups(
                 [&](double y, double z) {
                     const double h = *c.slabs[0].pith_mm - z;
                     const double s = sr + (st - sr) * h * h / (h * h + y * y);
                     return (high - low) / (3000 / s - 30 + low);
                 },
                 wide, t);
             return Expected{rings, damp, 0.02, 0.01, 0.05};
         }},
        {"flat.thickness",
         [](const Case& c, const Figure&) {
             double most = 1e300;
             for (std::size_t i = 0; i < c.slabs.size(); ++i) most = std::min(most, thickest(c.shapes[i], share(c, i), share(c, i)));
             return Expected{std::min(most, c.job.top.thickness_mm), 0, 0.05, 1e-6, 0};
         }},
        {"flat.whole",
         [](const Case& c, const Figure&) {
             double most = 1e300;
             for (const SlabShape& s : c.shapes) most = std::min(most, thickest(s, s.ring_a, s.ring_b));
             return Expected{most, 0, 0.1, 1e-6, 0};
         }},
        {"flat.off",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0.1, 1e-6, 0};
             for (std::size_t i = 0; i < c.slabs.size(); ++i) {
                 const Tilt& t = c.plan.leaves[i].flat->tilt;
                 for (const Vec2 p : places(share(c, i))) {
                     e.value = std::max(e.value, c.shapes[i].top.at(p) - t.top_mm - t.a * p.x - t.b * p.y);
                     e.second = std::max(e.second, t.bottom_mm + t.a * p.x + t.b * p.y - c.shapes[i].bottom.at(p));
                 }
             }
             return e;
         }},
        {"flat.gain",
         [](const Case& c, const Figure&) {
             double low = 1e300;
             double high = -1e300;
             for (const Vec2 p : places(share(c, 0)))
                 low = std::min(low, c.shapes[0].top.at(p)), high = std::max(high, c.shapes[0].bottom.at(p));
             return Expected{thickest(c.shapes[0], share(c, 0), share(c, 0)) - (low - high), 0, 0.05, 1e-6, 0};
         }},
        {"flat.passes",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 2, 0.01, 0};
             for (std::size_t i = 0; i < c.slabs.size(); ++i) e.value += router(c, i).passes;
             return e;
         }},
        {"flat.settled",
         [](const Case& c, const Figure&) {
             // τ of bare faces in seconds, D 1.5e-10 m²/s, R 5e6 s/m; one face shut it is twice as thick.
             const double l = c.plan.flat->thickness_mm / 1000 * (c.job.flat.rests == Rests::face_down ? 2 : 1);
             const double tau = l * l / (9.8696044 * 1.5e-10) + l / 2 * 5e6;
             return Expected{c.job.flat.rests == Rests::wrapped ? 0 : 100 * (1 - std::exp(-c.job.flat.rest_h * 3600 / tau)), 0, 0.01, 0,
                             1e-6};
         }},
        {"flat.hours",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0.02, 0.01, 0};
             for (std::size_t i = 0; i < c.slabs.size(); ++i) e.value += router(c, i).hours;
             // The wood above each plane counted on a fine grid, to 0.1 %.
             constexpr double step = 2.5;
             for (std::size_t i = 0; i < c.slabs.size(); ++i) {
                 const Tilt& t = c.plan.leaves[i].flat->tilt;
                 const Ring& rough = c.plan.leaves[i].lay->rough;
                 const auto [x0, x1] = x_range(rough);
                 for (double x = x0 + step / 2; x < x1; x += step) {
                     const auto cut = crossings(rough, x);
                     for (std::size_t q = 0; q + 1 < cut.size(); q += 2) {
                         const int n = std::max(1, static_cast<int>((cut[q + 1] - cut[q]) / step));
                         for (int k = 0; k < n; ++k) {
                             const Vec2 p{x, cut[q] + (cut[q + 1] - cut[q]) * (k + 0.5) / n};
                             const double rise = t.a * p.x + t.b * p.y;
                             const double above = std::max(0.0, c.shapes[i].top.at(p) - t.top_mm - rise);
                             const double below = std::max(0.0, t.bottom_mm + rise - c.shapes[i].bottom.at(p));
                             e.second += (above + below) * (cut[q + 1] - cut[q]) / n * step * 1e-6 * c.docs.shop.sled.loose;
                         }
                     }
                 }
             }
             double planed_l = 0;
             for (const LeafPlan& l : c.plan.leaves)
                 for (const FacePlan& face : l.flat->faces) planed_l += face.removed_l;
             CHECK(planed_l * c.docs.shop.sled.loose == Approx(e.second).epsilon(0.001));
             e.second_margin = 0.51;  // told in whole litres
             return e;
         }},
    };
}

}  // namespace yb::truth
