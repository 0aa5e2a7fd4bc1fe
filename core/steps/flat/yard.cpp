#include "core/steps/flat/yard.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

#include "core/steps/flat/flat.h"

namespace yb {

namespace {

constexpr double in_from_ends_mm = 50, in_from_edges_mm = 40;
constexpr double least_apart_mm = 60;
/// Half the band: of readings and the saw, and a share of what bends. Set by grown slabs: docs/methods.md.
constexpr double band_mm = 1.0, band_share = 0.08;

double parabola(double a, double middle, double b, double s) {  // through −1, 0, 1
    return middle + (b - a) / 2 * s + ((a + b) / 2 - middle) * s * s;
}

/// The heights of a grid of three by three, on the parabolas through them.
struct Face9 {
    const HeightGrid& g;
    double at(double x, double y) const {
        const double s = (x - g.x_mm[1]) / (g.x_mm[2] - g.x_mm[1]);
        const double t = (y - g.y_mm[1]) / (g.y_mm[2] - g.y_mm[1]);
        std::array<double, 3> across{};
        for (std::size_t i = 0; i < 3; ++i) across[i] = parabola(-*g.at(i, 0), -*g.at(i, 1), -*g.at(i, 2), t);
        return parabola(across[0], across[1], across[2], s);
    }
};

}  // namespace

std::optional<YardLines> yard_lines(const SlabShape& shape) {
    if (shape.ring_a.size() < 3) return {};
    YardLines l{shape.x0 + in_from_ends_mm, shape.x1 - in_from_ends_mm, -1e300, 1e300};
    for (const double x : {l.from_mm, (l.from_mm + l.to_mm) / 2, l.to_mm})
        for (const Ring* ring : {&shape.ring_a, &shape.ring_b}) {
            const auto cut = cut_at_x(*ring, x);
            if (cut.empty()) return {};
            l.right_mm = std::max(l.right_mm, cut.front().from), l.left_mm = std::min(l.left_mm, cut.back().to);
        }
    l.right_mm += in_from_edges_mm, l.left_mm -= in_from_edges_mm;
    if (l.to_mm - l.from_mm < least_apart_mm || l.left_mm - l.right_mm < least_apart_mm) return {};
    return l;
}

HeightGrid yard_grid(const YardLines& at, const YardReading& r) {
    if (!(std::abs(at.to_mm - at.from_mm) >= 1))
        throw std::invalid_argument("both winding sticks lie on one station: lay one at either end");
    if (!(std::abs(at.left_mm - at.right_mm) >= 1)) throw std::invalid_argument("both lines along lie on one place: one near either edge");
    for (const double v : {r.bow_left_mm, r.bow_right_mm, r.cup_from_mm, r.cup_middle_mm, r.cup_to_mm, r.twist_mm})
        if (!std::isfinite(v)) throw std::invalid_argument("a reading is not a number");
    HeightGrid g;
    g.x_mm = {at.from_mm, (at.from_mm + at.to_mm) / 2, at.to_mm};
    g.y_mm = {at.right_mm, (at.right_mm + at.left_mm) / 2, at.left_mm};
    // The near stick and the right line lie in the plane that is taken for level.
    std::array<std::array<double, 3>, 3> z{};
    z[2][2] = r.twist_mm;
    z[1][0] = (z[0][0] + z[2][0]) / 2 - r.bow_right_mm;
    z[1][2] = (z[0][2] + z[2][2]) / 2 - r.bow_left_mm;
    const std::array cups{r.cup_from_mm, r.cup_middle_mm, r.cup_to_mm};
    for (std::size_t i = 0; i < 3; ++i) z[i][1] = (z[i][0] + z[i][2]) / 2 - cups[i];
    double highest = -1e300;
    for (const auto& row : z) highest = std::max(highest, *std::max_element(row.begin(), row.end()));
    for (const auto& row : z)
        for (const double v : row) g.gap_mm.emplace_back(std::round((highest - v) * 100) / 100);
    return g;
}

std::optional<YardReading> yard_reading(const HeightGrid& g) {
    if (g.x_mm.size() != 3 || g.y_mm.size() != 3 || g.gap_mm.size() != 9) return {};
    if (std::any_of(g.gap_mm.begin(), g.gap_mm.end(), [](const auto& v) { return !v; })) return {};
    const auto gap = [&](std::size_t i, std::size_t j) { return *g.at(i, j); };
    const auto middle = [](double a, double m, double b) { return m - (a + b) / 2; };
    return YardReading{middle(gap(0, 2), gap(1, 2), gap(2, 2)), middle(gap(0, 0), gap(1, 0), gap(2, 0)),
                       middle(gap(0, 0), gap(0, 1), gap(0, 2)), middle(gap(1, 0), gap(1, 1), gap(1, 2)),
                       middle(gap(2, 0), gap(2, 1), gap(2, 2)), (gap(0, 2) - gap(0, 0)) - (gap(2, 2) - gap(2, 0))};
}

std::optional<YardFinish> yard_finish(const Slab& slab, const SlabShape& shape) {
    const auto reading = yard_reading(slab.heights_a);
    if (!reading || !shape.usable) return {};
    const Face9 face{slab.heights_a};
    // As fine as a parabola needs, out to the slab's ends and edges.
    const Box box = bounds(shape.ring_a);
    Slab fine = slab;
    fine.heights_a = {}, fine.heights_b = {};
    for (int i = 0; i <= 12; ++i) fine.heights_a.x_mm.push_back(box.low.x + box.width() * i / 12);
    for (int j = 0; j <= 6; ++j) fine.heights_a.y_mm.push_back(box.low.y + box.height() * j / 6);
    for (const double x : fine.heights_a.x_mm)
        for (const double y : fine.heights_a.y_mm) fine.heights_a.gap_mm.emplace_back(-face.at(x, y));
    const SlabShape bent = shape_of(fine);
    const auto whole = thickest_inside(bent, largest(intersection(shape.ring_a, shape.ring_b)));
    if (!whole) return {};
    const double thick = means_of(shape, slab.cross_cut).thickness_mm;
    const double half = band_mm + band_share * std::max(0.0, thick - *whole);
    return YardFinish{*whole, std::max(0.0, *whole - half), std::min(thick, *whole + half), *reading};
}

std::vector<Figure> yard_figures(const YardFinish& f) {
    const YardReading& r = f.reading;
    const auto most = [](double a, double b) { return std::abs(a) > std::abs(b) ? a : b; };
    const double bow = most(r.bow_left_mm, r.bow_right_mm);
    const double cup = most(most(r.cup_from_mm, r.cup_to_mm), r.cup_middle_mm);
    return {{"rack.yard",
             "The whole slab finishes at about",
             fine(f.thick_mm),
             {},
             say("{} to {}, nine times in ten", fine(f.low_mm), fine(f.high_mm)),
             {"best tilt of the parabolas through six readings, the other face one thickness away",
              {{"bow, the most", fine(bow), "straightedge along"},
               {"cup, the most", fine(cup), "straightedge across"},
               {"twist", fine(r.twist_mm), "winding sticks"},
               {"band, to either side", fine((f.high_mm - f.low_mm) / 2), "readings to 1 mm and a share of what bends"}},
              "docs/methods.md, Read at the yard"}},
            {"rack.bent",
             "Bow and cup as read",
             fine(bow),
             fine(cup),
             say("twisted by {}", fine(r.twist_mm)),
             {"gap in the middle of the straightedge, hollow positive; how far the sticks differ",
              {{"bow, left", fine(r.bow_left_mm), "read"},
               {"bow, right", fine(r.bow_right_mm), "read"},
               {"cup, left end", fine(r.cup_from_mm), "read"},
               {"cup, middle", fine(r.cup_middle_mm), "read"},
               {"cup, right end", fine(r.cup_to_mm), "read"}},
              ""}}};
}

}  // namespace yb
