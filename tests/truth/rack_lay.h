// Rack and Lay worked out another way.
#pragma once

#include "tests/truth/demo_case.h"
#include "tests/truth/volumes.h"

namespace yb::truth {

inline double slab_litres(const SlabShape& s) {
    double sum = 0;
    const auto [x0, x1] = x_range(s.ring_a);
    constexpr int levels = 12;
    std::vector<Ring> rings;
    for (int n = 0; n < levels; ++n) {
        Ring r;
        for (std::size_t k = 0; k < s.ring_a.size(); ++k) {
            const double f = (n + 0.5) / levels;
            r.push_back({s.ring_b[k].x + (s.ring_a[k].x - s.ring_b[k].x) * f, s.ring_b[k].y + (s.ring_a[k].y - s.ring_b[k].y) * f});
        }
        rings.push_back(r);
    }
    const double dx = (x1 - x0) / 700;
    for (double x = x0 + dx / 2; x < x1; x += dx)
        for (const Ring& r : rings) {
            const auto c = crossings(r, x);
            for (std::size_t i = 0; i + 1 < c.size(); i += 2)
                for (int k = 0; k < 30; ++k) {
                    const Vec2 p{x, c[i] + (c[i + 1] - c[i]) * (k + 0.5) / 30};
                    sum += (s.top.at(p) - s.bottom.at(p)) / levels * (c[i + 1] - c[i]) / 30 * dx;
                }
        }
    return sum * 1e-6;
}

inline double feet_of(const SlabShape& s) { return slab_litres(s) * 1e6 / (25.4 * 25.4 * 25.4) / 144; }

/// Edges of the whole top at a station, as the show faces are.
inline Span1 edges(const Case& c, double u) {
    Span1 s{-c.hw(), c.hw()};
    if (c.right_stays()) s.from = lowest(c.show(0), u, s.from);
    if (c.left_stays()) s.to = highest(c.show(c.slabs.size() - 1), u, s.to);
    return s;
}

inline std::map<std::string, Recompute> of_rack_and_lay() {
    return {
        {"rack.size",
         [](const Case& c, const Figure& f) {
             auto e = least_and_most(
                 c,
                 [&](std::size_t i) {
                     const auto [a, b] = x_range(c.shapes[i].ring_a);
                     const auto [p, q] = x_range(c.shapes[i].ring_b);
                     return std::pair(std::max(b, q) - std::min(a, p), std::max(b, q) - std::min(a, p));
                 },
                 1);
             if (!f.second) e.second = 0;
             return e;
         }},
        {"rack.width",
         [](const Case& c, const Figure&) {
             return least_and_most(
                 c,
                 [&](std::size_t i) {
                     const Ring& r = c.shapes[i].ring_a;
                     double low = 1e300;
                     double high = 0;
                     const auto look = [&](const Ring& ring, double x) {
                         const auto k = crossings(ring, x);
                         if (k.size() < 2) return;
                         low = std::min(low, k.back() - k.front()), high = std::max(high, k.back() - k.front());
                     };
                     const auto [x0, x1] = x_range(r);
                     if (!c.slabs[i].cross_cut)
                         for (double x = x0 + (x1 - x0) / 100; x < x1 - (x1 - x0) / 100; x += (x1 - x0) / 20000) look(r, x);
                     else
                         for (double t = 0; t < 180; t += 0.5) {
                             Vec2 mid{0, 0};
                             double n = 0;
                             for (double x = x0 + 1; x < x1; x += 2)  // centre of area by strips
                                 for (const auto k = crossings(r, x); k.size() > 1;) {
                                     const double w = k.back() - k.front();
                                     mid.x += x * w, mid.y += (k.back() + k.front()) / 2 * w, n += w;
                                     break;
                                 }
                             look(in_top({mid.x / n, mid.y / n, t, false, 0}, r), 0);
                         }
                     return std::pair(low, high);
                 },
                 c.slabs[0].cross_cut ? 1.0 : 0.1);
         }},
        {"rack.thickness",
         [](const Case& c, const Figure&) {
             return least_and_most(
                 c,
                 [&](std::size_t i) {
                     double low = 1e300;
                     double high = 0;
                     const auto [x0, x1] = x_range(c.shapes[i].ring_a);
                     for (double x = x0 + 1; x < x1; x += (x1 - x0) / 300)
                         for (const auto k = crossings(c.shapes[i].ring_a, x); k.size() > 1;) {
                             for (int n = 0; n < 60; ++n) {
                                 const Vec2 p{x, k.front() + (k.back() - k.front()) * (n + 0.5) / 60};
                                 const double t = c.shapes[i].top.at(p) - c.shapes[i].bottom.at(p);
                                 low = std::min(low, t), high = std::max(high, t);
                             }
                             break;
                         }
                     return std::pair(low, high);
                 },
                 0.5);  // the figure looks at 540 places
         }},
        {"rack.mass",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0, 0.004, 0};
             for (std::size_t i = 0; i < c.slabs.size(); ++i)
                 e.value += slab_litres(c.shapes[i]) * kg_a_litre(c.slabs[i], c.slabs[i].moisture_pct.value_or(12));
             return e;
         }},
        {"rack.board_feet",
         [](const Case& c, const Figure&) {
             // The trade's mean width is the show face's: between the volume's own and what the wider face would give.
             Expected e{0, 0, 0.06 * static_cast<double>(c.slabs.size()), 0.004, 0};
             for (const SlabShape& s : c.shapes) {
                 SlabShape upright = s;
                 upright.ring_b = s.ring_a;
                 e.value += feet_of(upright);
             }
             return e;
         }},
        {"rack.price",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0.011, 0.004, 0.02};
             if (c.several()) {
                 for (const Slab& s : c.slabs) e.value += s.price.value_or(0);
                 return e;
             }
             SlabShape upright = c.shapes[0];
             upright.ring_b = upright.ring_a;
             e.value = *c.slabs[0].price / feet_of(upright);
             const auto [x0, x1] = x_range(c.shapes[0].ring_a);
             double narrow = 1e300;
             for (double x = x0 + (x1 - x0) / 100; x < x1 - (x1 - x0) / 100; x += 0.5)
                 if (const auto k = crossings(c.shapes[0].ring_a, x); k.size() > 1) narrow = std::min(narrow, k.back() - k.front());
             const double usable =
                 c.slabs[0].cross_cut ? std::min(ring_area(c.shapes[0].ring_a), ring_area(c.shapes[0].ring_b)) : (x1 - x0) * narrow;
             e.second = *c.slabs[0].price / usable * 1e6;
             e.second_margin = 0.2;
             return e;
         }},
        {"rack.drying",
         [](const Case& c, const Figure& f) {
             // Asked on the day of the reading it is the reading, of one of the slabs, or the days until it is dry.
             Expected e{-1, 0, 0.01, 1e-6, 0};
             double room = 0;
             for (const Month& m : c.job.room.months) room += settles(m.temp_c, m.rh_pct) / 12;
             for (const Slab& s : c.slabs)
                 if (s.moisture_pct && (e.value < 0 || *s.moisture_pct > e.value)) e.value = *s.moisture_pct;
             if (f.value.kind != Kind::percent) {
                 double tau = 0;
                 for (std::size_t i = 0; i < c.slabs.size(); ++i)
                     tau =
                         365.0 * slab_litres(c.shapes[i]) * 1e6 / ring_area(c.shapes[i].ring_a) / 25 / 3.1 / (c.slabs[i].cross_cut ? 4 : 1);
                 double shop = 0;
                 for (const Month& m : c.docs.shop.air.months) shop += settles(m.temp_c, m.rh_pct) / 12;
                 const double dry = room + c.docs.shop.dry_allowed_pct;
                 e.value = tau * std::log((e.value - shop) / (dry - shop));
                 e.epsilon = 0.03, e.margin = 1;
             }
             return e;
         }},
        {"lay.fit",
         [](const Case& c, const Figure& f) {
             Expected e{1e300, 0, 0.15, 1e-6, 0};
             const std::size_t last = c.slabs.size() - 1;
             if (c.job.top.shape != TopShape::rectangle) {  // clear of the bark
                 for (double t = 0; t < 360; t += 0.5) {
                     const Vec2 p = on_slab(c.at(0), {c.hl() * std::cos(t * pi / 180), c.hw() * std::sin(t * pi / 180)});
                     for (const Ring* r : {&c.shapes[0].ring_a, &c.shapes[0].ring_b}) {
                         if (!inside(*r, p)) e.value = 0;
                         for (std::size_t i = 0; i < r->size(); ++i)
                             e.value = std::min(e.value, segment_distance(p, (*r)[i], (*r)[(i + 1) % r->size()]));
                     }
                 }
                 e.margin = 0.3;
                 return e;
             }
             const Ring low_show = c.show(0);
             const Ring low_under = c.under(0);
             const Ring high_show = c.show(last);
             const Ring high_under = c.under(last);
             double low = -1e300;
             double high = 1e300;
             double both = 1e300;
             double from_low = 1e300;
             double to_high = -1e300;
             for (int i = 0; i <= 20000; ++i) {
                 const double u = -c.hl() + 1e-4 + (2 * c.hl() - 2e-4) * i / 20000;
                 const double ls = lowest(low_show, u, 0);
                 const double hs = highest(high_show, u, 0);
                 low = std::max({low, ls, lowest(low_under, u, -1e300)});
                 high = std::min({high, hs, highest(high_under, u, 1e300)});
                 both = std::min(both, hs - ls);
                 from_low = std::min(from_low, hs);
                 to_high = std::max(to_high, ls);
             }
             const bool right = c.right_stays();
             const bool left = c.left_stays();
             // One slab whose sides are both sawn is told as wide as it is cut.
             const double has = right && left ? both : left ? from_low - low : right ? high - to_high : high - low;
             if (f.label == "Short by") {
                 e.value = std::max({0.0, right ? 0 : low + c.hw(), left ? 0 : c.hw() - high, left || right ? 2 * c.hw() - has : 0});
                 if (left != right) e.value = std::max(left ? low + c.hw() : c.hw() - high, left ? c.hw() - from_low : to_high + c.hw());
             } else {
                 e.value = c.several() || right || left ? has : 2 * c.hw();
                 if (!c.several() && left != right) e.value = left ? from_low + c.hw() : c.hw() - to_high;
             }
             return e;
         }},
        {"lay.ends",
         [](const Case& c, const Figure&) {
             const Span1 a = edges(c, -c.hl() + 1e-6);
             const Span1 b = edges(c, c.hl() - 1e-6);
             return Expected{a.to - a.from, b.to - b.from, 0.02, 1e-6, 0};
         }},
        {"lay.rough",
         [](const Case& c, const Figure&) {
             const auto [x0, x1] = x_range(c.show(0));
             const double over = c.at(0).oversize_mm;
             return Expected{std::min(x1, c.hl() + over) - std::max(x0, -c.hl() - over), 0, 0.01, 1e-6, 0};
         }},
        {"lay.flaws",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0, 0, 0};
             const Ring outline = share(c, 0);
             for (const Flaw& f : c.slabs[0].flaws) e.value += raster(f.outline, [&](Vec2 p) { return inside(outline, p); }) > 1;
             return e;
         }},
        {"lay.rim",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 3, 0.01, 0};
             const Ring show = c.show(0);
             for (double t = 0; t < 360; t += 0.1)
                 e.value +=
                     inside(c.show(0), {c.hl() * std::cos(t * pi / 180), c.hw() * std::sin(t * pi / 180)}) ? 0 : 2 * pi * c.hl() / 3600;
             return e;
         }},
        {"lay.river",
         [](const Case& c, const Figure&) {
             Expected e{1e300, -1e300, 0.15, 1e-6, 0};
             for (const double level : {0.0, 1.0})
                 for (std::size_t k = 0; k + 1 < c.slabs.size(); ++k) {
                     const Ring right = c.level(k, level);
                     const Ring left = c.level(k + 1, level);
                     for (int i = 0; i <= 20000; ++i) {
                         const double u = -c.hl() + 1e-4 + (2 * c.hl() - 2e-4) * i / 20000;
                         const double w = lowest(left, u, 0) - highest(right, u, 0);
                         e.value = std::min(e.value, w), e.second = std::max(e.second, w);
                     }
                 }
             return e;
         }},
        {"lay.resin",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0.01, 0.004, 0};
             for (const double l : volumes(c).water) e.value += l;
             return e;
         }},
        {"lay.rods",
         [](const Case& c, const Figure&) {
             const double pitch = c.job.makeup.rod_pitch_mm;
             const double usable = 2 * c.hl() - 2 * std::min(0.4 * c.hl(), pitch / 2);
             const int n = std::max(2, static_cast<int>(std::lround(usable / pitch)) + 1);
             Expected e{static_cast<double>(n), 0, 0, 0, 0.2};
             // Half-way between the faces is the middle of each ruled line between the planes.
             const Ring right_a = c.level(0, 1);
             const Ring right_b = c.level(0, 0);
             const Ring left_a = c.level(1, 1);
             const Ring left_b = c.level(1, 0);
             const auto middle = [](const Ring& a, const Ring& b) {
                 Ring m;
                 for (std::size_t i = 0; i < a.size(); ++i) m.push_back({(a[i].x + b[i].x) / 2, (a[i].y + b[i].y) / 2});
                 return m;
             };
             for (int i = 0; i < n; ++i) {
                 const double u = -usable / 2 + usable * i / (n - 1);
                 e.second = std::max(e.second, lowest(middle(left_a, left_b), u, 0) - highest(middle(right_a, right_b), u, 0) +
                                                   2 * c.job.makeup.rod_depth_mm);
             }
             return e;
         }},
        {"lay.rip",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0.3, 0.01, 0};
             for (std::size_t k = 0; k + 1 < c.slabs.size(); ++k) {
                 const Ring right = c.show(k);
                 const Ring left = c.show(k + 1);
                 constexpr int n = 1000;
                 for (int i = 0; i < n; ++i) {
                     const double u = -c.hl() + 2 * c.hl() * (i + 0.5) / n;
                     e.value += std::max(0.0, highest(right, u, -1e9) - c.joint(k, u)) / n;
                     e.value += std::max(0.0, c.joint(k, u) - lowest(left, u, 1e9)) / n;
                 }
             }
             return e;
         }},
        {"lay.drift",
         [](const Case& c, const Figure&) {
             // d · h/|y| at the middle joint, no more than 5 d; beside a knot that of its dive.
             const std::size_t k = (c.slabs.size() - 1) / 2;
             const bool lower_right = *c.slabs[k].sequence < *c.slabs[k + 1].sequence;
             const std::size_t lo = lower_right ? k : k + 1;
             const std::size_t hi = lower_right ? k + 1 : k;
             const auto thick = [&](std::size_t i) { return c.plan.leaves[i].made->thickness_mm; };
             const auto shows_upper_face = [&](std::size_t i) { return c.at(i).turned_over == c.slabs[i].face_b_up; };
             const int between = std::abs(*c.slabs[k].sequence - *c.slabs[k + 1].sequence) - 1;
             const double kerf = c.job.makeup.mill_kerf_mm;
             const double gap = (between + 1) * kerf + between * (thick(lo) + thick(hi)) / 2;
             const double low_face = shows_upper_face(lo) ? 0 : -thick(lo);
             const double high_face = shows_upper_face(hi) ? gap + thick(hi) : gap;
             const auto off = [&](std::size_t i, Vec2 uv) {
                 const Vec2 p = on_slab(c.at(i), uv);
                 const Tilt& t = c.plan.leaves[i].flat->tilt;
                 return std::max(0.0, c.shapes[i].top.at(p) - t.top_mm - t.a * p.x - t.b * p.y);
             };
             const auto apart = [&](Vec2 low_uv, Vec2 high_uv) {
                 return std::abs(high_face + (shows_upper_face(hi) ? -1 : 1) * off(hi, high_uv) - low_face -
                                 (shows_upper_face(lo) ? -1 : 1) * off(lo, low_uv));
             };
             // Of the heights that both slabs' piths could mean, the two that agree best.
             double pith = 0;
             double best = 1e300;
             for (const double a : {-1.0, 1.0})
                 for (const double b : {-1.0, 1.0}) {
                     const double p = -thick(lo) / 2 + a * std::abs(*c.slabs[lo].pith_mm);
                     const double q = gap + thick(hi) / 2 + b * std::abs(*c.slabs[hi].pith_mm);
                     if (std::abs(p - q) < best) best = std::abs(p - q), pith = (p + q) / 2;
                 }
             struct Knot {
                 double u, mm;
             };
             std::vector<Knot> knots;
             for (const std::size_t i : {k, k + 1}) {
                 struct Pair {
                     double d;
                     std::size_t a, b;
                 };
                 std::vector<Pair> pairs;
                 const auto& flaws = c.slabs[i].flaws;
                 const auto middle = [&](std::size_t q) {
                     Vec2 m{0, 0};
                     double sum = 0;
                     const Ring& r = flaws[q].outline;
                     for (std::size_t n = 0; n < r.size(); ++n) {
                         const Vec2 a = r[n];
                         const Vec2 b = r[(n + 1) % r.size()];
                         const double x = a.x * b.y - b.x * a.y;
                         m.x += (a.x + b.x) * x / 6, m.y += (a.y + b.y) * x / 6, sum += x / 2;
                     }
                     return Vec2{m.x / sum, m.y / sum};
                 };
                 for (std::size_t a = 0; a < flaws.size(); ++a)
                     for (std::size_t b = 0; b < flaws.size(); ++b)
                         if (flaws[a].kind == FlawKind::knot && flaws[b].kind == FlawKind::knot && flaws[a].face == Face::a &&
                             flaws[b].face == Face::b) {
                             const Vec2 m = middle(a);
                             const Vec2 n = middle(b);
                             if (const double d = std::hypot(m.x - n.x, m.y - n.y); d < 3.5 * thick(i)) pairs.push_back({d, a, b});
                         }
                 std::sort(pairs.begin(), pairs.end(), [](const Pair& x, const Pair& y) { return x.d < y.d; });
                 std::set<std::size_t> taken;
                 for (const Pair& p : pairs) {
                     if (taken.count(p.a) || taken.count(1000 + p.b)) continue;
                     taken.insert(p.a), taken.insert(1000 + p.b);
                     const Vec2 uv = in_top(c.at(i), middle(p.a));
                     if (std::abs(uv.x) > c.hl() || std::abs(uv.y - c.joint(k, uv.x)) > 160) continue;
                     const Vec2 mate{uv.x, shows_upper_face(k) != shows_upper_face(k + 1) ? 2 * c.joint(k, uv.x) - uv.y : uv.y};
                     knots.push_back({uv.x, p.d / thick(i) * (i == lo ? apart(uv, mate) : apart(mate, uv))});
                 }
             }
             Expected e{0, 0, 0.3, 0.04, 0};
             constexpr int n = 730;
             for (int i = 0; i < n; ++i) {
                 const double u = -c.hl() + 2 * c.hl() * (i + 0.5) / n;
                 const Vec2 uv{u, c.joint(k, u)};
                 const double d = apart(uv, uv);
                 const double h = std::abs((low_face + high_face) / 2 - pith);
                 double drift = d * std::min(5.0, h / std::max(1e-6, std::abs(on_slab(c.at(k), uv).y)));
                 for (const Knot& q : knots)
                     if (std::abs(q.u - u) < 45) drift = std::max(drift, q.mm);
                 e.value += drift / n;
             }
             return e;
         }},
        {"lay.cuts",
         [](const Case& c, const Figure&) {
             Expected e{0, 0, 0, 0, 0};
             for (std::size_t i = 0; i < c.slabs.size(); ++i) {
                 const double over = std::max(0.0, c.at(i).oversize_mm);
                 const Ring show = c.show(i);
                 const auto [u0, u1] = x_range(show);
                 const auto [x0, x1] = x_range(c.shapes[i].ring_a);
                 double low = 1e300;
                 double high = -1e300;
                 for (const double end : {-1.0, 1.0}) {
                     const double u = std::clamp(end * (c.hl() + over), u0, u1);
                     double far_low = 1e300;
                     double far_high = -1e300;
                     for (const Ring& face : {show, c.under(i)})
                         for (const double v : crossings(face, std::clamp(u, u0 + 1e-6, u1 - 1e-6)))
                             far_low = std::min(far_low, v), far_high = std::max(far_high, v);
                     const double a = on_slab(c.at(i), {u, far_low - 20}).x;
                     const double b = on_slab(c.at(i), {u, far_high + 20}).x;
                     e.value += std::max(a, b) >= x0 + 2 && std::min(a, b) <= x1 - 2;
                 }
                 // What falls off at both ends of the slab.
                 for (double u = -c.hl() - over; u <= c.hl() + over; u += 2 * (c.hl() + over) / 2000)
                     for (const double v : crossings(show, std::clamp(u, u0 + 1e-6, u1 - 1e-6))) {
                         const double x = on_slab(c.at(i), {std::clamp(u, u0, u1), v}).x;
                         low = std::min(low, x), high = std::max(high, x);
                     }
                 const double kerf = c.job.makeup.rip_kerf_mm;
                 e.second += (low - x0 - kerf >= 200) + (x1 - high - kerf >= 200);
                 // And beside the rips.
                 for (std::size_t k = 0; !c.river() && k + 1 < c.slabs.size(); ++k) {
                     double mean = 0;
                     for (int n = 0; n < 400; ++n) {
                         const double u = -c.hl() + 2 * c.hl() * (n + 0.5) / 400;
                         if (k == i) mean += std::max(0.0, highest(show, u, -1e9) - c.joint(k, u)) / 400;
                         if (k + 1 == i) mean += std::max(0.0, c.joint(k, u) - lowest(show, u, 1e9)) / 400;
                     }
                     e.second += mean - kerf > 60;
                 }
             }
             if (!c.river()) e.value += 2.0 * static_cast<double>(c.slabs.size() - 1);
             if (c.job.top.shape != TopShape::rectangle) e.value += 1;
             else e.value += 2 + !c.right_stays() + !c.left_stays();
             return e;
         }},
    };
}

}  // namespace yb::truth
