#include "core/steps/flat/next_reading.h"

#include <algorithm>

#include <Eigen/Dense>

#include "core/material/slab/guess.h"

namespace yb {

namespace {

struct PlaneFit {
    double c = 0, a = 0, b = 0;
    double at(Vec2 p) const { return c + a * p.x + b * p.y; }
};
/// Least squares.
PlaneFit fit_plane(const std::vector<Vec3>& points) {
    Eigen::MatrixXd x(static_cast<Eigen::Index>(points.size()), 3);
    Eigen::VectorXd z(static_cast<Eigen::Index>(points.size()));
    for (std::size_t i = 0; i < points.size(); ++i) {
        const auto k = static_cast<Eigen::Index>(i);
        x.row(k) << 1, points[i].x / 1000, points[i].y / 1000;
        z(k) = points[i].z;
    }
    const Eigen::Vector3d f = x.colPivHouseholderQr().solve(z);
    return {f(0), f(1) / 1000, f(2) / 1000};
}

}  // namespace

std::optional<double> unsure_mm(const HeightGrid& heights, Vec2 at) {
    const auto guess = heights.has_readings() ? guess_of(heights) : nullptr;
    if (!guess) return {};
    return guess->at(at).sigma_mm;
}

Thing reading_thing(const NextReading& n) {
    Thing t{"reading 1", "reading", 0, say("The reading worth most")};
    t.area = {n.at + Vec2{-35, -35}, n.at + Vec2{35, -35}, n.at + Vec2{35, 35}, n.at + Vec2{-35, 35}};
    t.figures = {{"reading.worth",
                  "Worth up to",
                  fine(n.worth_mm),
                  {},
                  n.face == Face::a ? say("of thickness; on the show face") : say("of thickness; on the underside"),
                  {"1.645 σ − what comes off there: so much thinner if the face lies out there as far as one time in twenty",
                   {{"σ", fine(n.sigma_mm), "kriging of the readings around it"},
                    {"taken as", fine(n.height_mm), "as the readings around it have it"}},
                   "docs/methods.md, The slab's shape"}},
                 {"reading.along", "Measure at", along(n.at.x), {}, {}, {"from the left end", {}, ""}},
                 {"reading.across",
                  n.at.y >= 0 ? "Left of the chalk line" : "Right of the chalk line",
                  mm(std::abs(n.at.y)),
                  {},
                  {},
                  {"across", {}, ""}}};
    return t;
}

std::optional<NextReading> next_reading(const Slab& slab, const SlabShape& shape, const FlatPlan& plan, const Ring& outline) {
    if (!plan.ready || outline.size() < 3) return {};
    std::optional<NextReading> best;
    const Box box = bounds(outline);
    for (const Face face : {Face::a, Face::b}) {
        const HeightGrid& grid = face == Face::a ? slab.heights_a : slab.heights_b;
        const auto guess = grid.has_readings() ? guess_of(grid) : nullptr;
        if (!guess) continue;
        constexpr int along = 36;
        constexpr int across = 12;
        for (int i = 0; i <= along; ++i)
            for (int j = 0; j <= across; ++j) {
                const Vec2 p{box.low.x + box.width() * i / along, box.low.y + box.height() * j / across};
                if (!contains(outline, p)) continue;
                const double sigma = guess->at(p).sigma_mm;
                const double off = face == Face::a ? plan.off_top.at(p) : plan.off_bottom.at(p);
                const double worth = nine_in_ten * sigma - off;
                if (worth < 0.1 || (best && worth <= best->worth_mm)) continue;
                best = NextReading{face, p, face == Face::a ? shape.top.at(p) : shape.bottom.at(p), sigma, worth};
            }
    }
    return best;
}

std::optional<Missed> what_readings_missed(const Slab& slab, const SlabShape& shape, const FlatPlan& plan, const Ring& outline) {
    if (!slab.truth_a || !slab.truth_b || !plan.ready) return {};
    Missed out;
    std::vector<Vec3> top, bottom;
    for (const Face face : {Face::a, Face::b}) {
        const HeightGrid& truth = face == Face::a ? *slab.truth_a : *slab.truth_b;
        const Surface& taken = face == Face::a ? shape.top : shape.bottom;
        const double sign = face == Face::a ? -1 : 1;
        // The same reference up to a height that the readings' own frame hides, and below a plane: the best fit of both.
        std::vector<Vec3> off;
        for (std::size_t i = 0; i < truth.x_mm.size(); ++i)
            for (std::size_t j = 0; j < truth.y_mm.size(); ++j)
                if (const auto& gap = truth.at(i, j); gap && contains(outline, {truth.x_mm[i], truth.y_mm[j]}))
                    off.push_back({truth.x_mm[i], truth.y_mm[j], sign * *gap - taken.at({truth.x_mm[i], truth.y_mm[j]})});
        if (off.size() < 4) return {};
        const PlaneFit plane = fit_plane(off);
        for (const Vec3& p : off) {
            const double d = p.z - plane.at({p.x, p.y});
            const double z = taken.at({p.x, p.y}) + d;
            (face == Face::a ? top : bottom).push_back({p.x, p.y, z});
            // Out from the wood is higher, on either face.
            const double out_of = face == Face::a ? d : -d;
            if (out_of > out.higher_mm) out.higher_mm = out_of, out.at = {p.x, p.y}, out.face = face;
            const double left = (face == Face::a ? plan.off_top : plan.off_bottom).at({p.x, p.y}) + out_of;
            if (-left > out.lower_mm) out.lower_mm = -left, out.lower_at = {p.x, p.y};
        }
    }
    out.true_mm = best_tilt(top, bottom).thickness_mm;
    return out;
}

Thing missed_thing(const Missed& m, const FlatPlan& plan) {
    Thing t{"practice 1", "practice", 0, say("What the readings missed")};
    t.area = {m.at + Vec2{-35, -35}, m.at + Vec2{35, -35}, m.at + Vec2{35, 35}, m.at + Vec2{-35, 35}};
    t.figures = {{"practice.higher",
                  "Truly higher by",
                  fine(m.higher_mm),
                  {},
                  m.face == Face::a ? say("on the show face, at {}", along(m.at.x)) : say("on the underside, at {}", along(m.at.x)),
                  {"how the grown slab lies − how its readings were taken, best fit of the two", {}, "a practice log knows its truth"}},
                 {"practice.hollow",
                  "A hollow is left",
                  fine(m.lower_mm),
                  {},
                  m.lower_mm > 0.05 ? say("below the finished plane at {}: one more reading there would have told", along(m.lower_at.x))
                                    : say("the planed faces come out whole"),
                  {"truth below the finished plane, inside the top", {}, ""}},
                 {"practice.thickness",
                  "Best tilt, truly",
                  fine(m.true_mm),
                  fine(plan.thickest_mm),
                  say("by the truth, and by the readings"),
                  {"the same linear program on the truth", {}, "docs/methods.md, Flattening"}}};
    return t;
}

}  // namespace yb
