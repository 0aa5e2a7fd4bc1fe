// The edges: what comes off two that do not meet, what shaping the rim does, a live edge carved where it was cut.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/steps/join/join.h"
#include "core/steps/join/told.h"

namespace yb {

std::vector<double> taken_straight(const std::vector<Vec2>& at) {
    if (at.empty()) return {};
    std::vector<Vec2> sorted = at;
    std::sort(sorted.begin(), sorted.end(), [](Vec2 a, Vec2 b) { return a.x != b.x ? a.x < b.x : a.y < b.y; });
    // Of all lines that leave no hollow below them, the one that is lowest half-way takes least off: it lies along the upper hull there.
    std::vector<Vec2> hull;
    for (const Vec2 q : sorted) {
        while (!hull.empty() && hull.back().x >= q.x) hull.pop_back();
        while (hull.size() > 1) {
            const Vec2 a = hull[hull.size() - 2];
            const Vec2 b = hull.back();
            if ((b.x - a.x) * (q.y - a.y) - (b.y - a.y) * (q.x - a.x) < 0) break;
            hull.pop_back();
        }
        hull.push_back(q);
    }
    const double middle = (hull.front().x + hull.back().x) / 2;
    // Where a corner of the hull lies just there, any line between its two sides does: the one that turns the leaf least.
    Vec2 a = hull.front();
    double steepest = 1e300;
    double slope = 0;
    for (std::size_t i = 1; i < hull.size(); ++i) {
        if (hull[i - 1].x > middle + 1e-9 || hull[i].x < middle - 1e-9) continue;
        const double s = (hull[i].y - hull[i - 1].y) / (hull[i].x - hull[i - 1].x);
        if (steepest > 1e299) {
            a = hull[i - 1], slope = steepest = s;
        } else if (steepest * s < 0) {
            a = hull[i - 1], slope = 0;
        } else if (std::abs(s) < std::abs(slope)) {
            a = hull[i - 1], slope = s;
        }
    }
    std::vector<double> out;
    for (const Vec2 q : at) out.push_back(std::max(0.0, a.y + slope * (q.x - a.x) - q.y));
    return out;
}

void take_from_edges(const JoinInputs& in, GluedJoint& g) {
    const auto read = [&](EdgeRead edge) {
        std::vector<Vec2> out;
        for (const GapReading& r : in.choices.gaps)
            if (r.joint == static_cast<int>(g.joint) + 1 && r.edge == edge) out.push_back({r.u_mm, r.gap_mm});
        return out;
    };
    const auto together = read(EdgeRead::together);
    const auto right = read(EdgeRead::right);
    const auto left = read(EdgeRead::left);
    const auto take = [&](const std::vector<Vec2>& at, double EdgeTake::*side) {
        if (at.size() < 2) return;
        const auto off = taken_straight(at);
        for (std::size_t i = 0; i < at.size(); ++i) {
            auto there = std::find_if(g.takes.begin(), g.takes.end(), [&](const EdgeTake& t) { return std::abs(t.u_mm - at[i].x) < 1; });
            if (there == g.takes.end()) there = g.takes.insert(g.takes.end(), EdgeTake{at[i].x, 0, 0});
            (*there).*side = off[i];
        }
    };
    // An edge read by itself is planed by its own readings; of two that were only pushed together, the leaf that is easier to carry.
    if (right.size() > 1 || left.size() > 1) {
        take(right, &EdgeTake::right_mm);
        take(left, &EdgeTake::left_mm);
    } else {
        const bool right_lighter = in.top.regions.at(g.right).mass_kg <= in.top.regions.at(g.left).mass_kg;
        take(together, right_lighter ? &EdgeTake::right_mm : &EdgeTake::left_mm);
    }
    std::sort(g.takes.begin(), g.takes.end(), [](const EdgeTake& a, const EdgeTake& b) { return a.u_mm < b.u_mm; });
    for (const EdgeTake& t : g.takes) g.take_mm = std::max({g.take_mm, t.right_mm, t.left_mm});
    for (const GapReading& r : in.choices.gaps)
        if (r.joint == static_cast<int>(g.joint) + 1 && r.square_mm && (!g.square_mm || std::abs(*r.square_mm) > std::abs(*g.square_mm)))
            g.square_mm = r.square_mm;
}

std::vector<CarvedLine> grain_lines(const Top& top, const std::vector<const SlabShape*>& shapes) {
    std::vector<CarvedLine> out;
    if (!top.ready || top.wanted.shape != TopShape::rectangle || shapes.size() < top.leaves || top.leaves == 0) return out;
    constexpr int stations = 60;
    for (const bool left : {false, true}) {
        if (left ? left_live(top.wanted.live) : right_live(top.wanted.live)) continue;
        const std::size_t leaf = left ? top.leaves - 1 : 0;
        const Ring slab = top.regions[leaf].placed.frame().from_slab(shapes[leaf]->ring_a);
        const double side = (left ? 1 : -1) * top.wanted.width_mm / 2;
        CarvedLine c;
        c.left = left;
        std::vector<std::pair<double, double>> edges;  // the far edge and the near one
        double share = 1;
        for (int i = 0; i <= stations; ++i) {
            const double u = top.wanted.length_mm * (static_cast<double>(i) / stations - 0.5);
            const auto cut = cut_at_x(slab, u);
            if (cut.empty()) break;
            const double far = left ? cut.front().from : cut.back().to;
            const double near = left ? cut.back().to : cut.front().from;
            if (std::abs(near - far) < 1) break;
            edges.emplace_back(far, near);
            share = std::min(share, (side - far) / (near - far));
        }
        if (edges.size() <= stations || share <= 0) continue;
        for (int i = 0; i <= stations; ++i) {
            const auto& [far, near] = edges[static_cast<std::size_t>(i)];
            const double u = top.wanted.length_mm * (static_cast<double>(i) / stations - 0.5);
            const double v = far + share * (near - far);
            c.deepest_mm = std::max(c.deepest_mm, std::abs(side - v));
            c.line.push_back({u, v});
        }
        out.push_back(std::move(c));
    }
    return out;
}

double live_edges_mm(const Top& top) {
    if (top.cross_cut()) return 0;
    const Sides sides = sides_of(top.above);
    double sum = 0;
    for (const auto& [kept, line] : {std::pair{right_live(top.wanted.live), &sides.low}, {left_live(top.wanted.live), &sides.high}})
        if (kept) sum += line_length(*line);
    return sum;
}

void shape_rim(const JoinInputs& in, JoinPlan& p) {
    const auto& c = in.choices;
    const double t = in.top.thickness_mm;
    const double e = c.edge_mm;
    ShapedRim& r = p.rim;
    r.flat_mm = t;
    double section = 0;  // mm² off one edge, both arrises where it is both
    switch (c.edge) {
        case EdgeShape::square: break;
        case EdgeShape::round_over:
            section = 2 * (1 - std::numbers::pi / 4) * e * e;
            r.above_mm = r.below_mm = e, r.flat_mm = t - 2 * e;
            break;
        case EdgeShape::chamfer:
            section = e * e;
            r.above_mm = r.below_mm = e, r.flat_mm = t - 2 * e;
            break;
        case EdgeShape::under_bevel:
            section = e * e;  // twice as wide as high
            r.below_mm = 2 * e, r.flat_mm = t - e;
            break;
        case EdgeShape::carved:
            // Along each sawn side as deep as its grain line lies in, but no deeper than was asked for.
            for (CarvedLine line : grain_lines(in.top, in.shapes)) {
                const double side = (line.left ? 1 : -1) * in.top.wanted.width_mm / 2;
                const double share = line.deepest_mm > e ? e / line.deepest_mm : 1;
                for (Vec2& q : line.line) q.y = side + (q.y - side) * share;
                line.deepest_mm *= share;
                for (std::size_t i = 1; i < line.line.size(); ++i)
                    r.litres += (line.line[i].x - line.line[i - 1].x) *
                                (std::abs(line.line[i].y - side) + std::abs(line.line[i - 1].y - side)) / 2 * t * 1e-6;
                r.above_mm = r.below_mm = std::max(r.above_mm, line.deepest_mm);
                p.carved.push_back(std::move(line));
            }
            break;
    }
    r.litres += girth(in.top.above) * section * 1e-6;
    double kg = 0;
    double litres = 0;
    for (std::size_t i = 0; i < in.top.leaves; ++i) kg += in.top.regions[i].mass_kg, litres += in.top.regions[i].volume_l;
    r.kg = litres > 0 ? r.litres * kg / litres : 0;
}

}  // namespace yb
