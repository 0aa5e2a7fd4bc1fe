// Rip lines, the shift between sister outlines, curves and snapping, against slow searches and made-up truth.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/makeup/curve.h"
#include "core/steps/makeup/rip.h"
#include "core/steps/makeup/snap.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// A wavy outline, its two edges drawn by lot.
Ring wavy(std::mt19937& dice, double length) {
    std::uniform_real_distribution<double> phase(0, 6.3);
    const double p[6] = {phase(dice), phase(dice), phase(dice), phase(dice), phase(dice), phase(dice)};
    const auto edge = [&](double x, int k) {
        return 12 * std::sin(x / 190 + p[k]) + 7 * std::sin(x / 83 + p[k + 1]) + 20 * std::sin(x / 700 + p[k + 2]);
    };
    Ring low;
    Ring high;
    for (double x = 0; x <= length; x += 10) low.push_back({x, -250 + edge(x, 0)}), high.push_back({x, 250 + edge(x, 3)});
    low.insert(low.end(), high.rbegin(), high.rend());
    return low;
}

}  // namespace

TEST_CASE("the shift that laid one outline on another is found back", "[rip]") {
    std::mt19937 dice(21);
    std::uniform_real_distribution<double> slide(-80, 80);
    std::uniform_real_distribution<double> turn(-1.5, 1.5);
    for (int round = 0; round < 20; ++round) {
        const Ring a = wavy(dice, 2200);
        const LogShift truth{slide(dice), slide(dice) / 2, turn(dice), 0};
        // b is a seen from its own chalk line: apply() takes it back to a.
        const Frame f{{truth.dx, truth.dy}, truth.angle_deg};
        const LogShift found = log_shift(a, f.from_slab(a));
        INFO(round << ": " << truth.dx << " " << truth.dy << " " << truth.angle_deg);
        CHECK(found.misfit_mm < 2);
        for (const Vec2 p : {Vec2{200, -100}, Vec2{1100, 0}, Vec2{2000, 120}}) CHECK(length(found.apply(f.from_slab(p)) - p) < 6);
    }
}

TEST_CASE("outlines of two trees do not lie on each other", "[rip]") {
    std::mt19937 dice(22);
    for (int round = 0; round < 5; ++round) CHECK(log_shift(wavy(dice, 2200), wavy(dice, 2200)).misfit_mm > 5);
}

TEST_CASE("the narrower of two edges is never more than either", "[rip]") {
    std::mt19937 dice(23);
    std::uniform_real_distribution<double> any(200, 300);
    std::vector<EdgeLimit> a;
    std::vector<EdgeLimit> b;
    for (int i = 0; i <= 40; ++i) a.push_back({i * 50.0, any(dice), 310}), b.push_back({i * 50.0, any(dice), 305});
    const auto high = narrower(a, b, true);
    const auto low = narrower(a, b, false);
    for (std::size_t i = 0; i < a.size(); ++i) {
        CHECK(high[i].y == Approx(std::min(a[i].y, b[i].y)));
        CHECK(low[i].y == Approx(std::max(a[i].y, b[i].y)));
        CHECK(high[i].show == a[i].show);
    }
}

TEST_CASE("limits are those of the narrower face, rot at the edge taken off, rot inside left", "[rip]") {
    Slab s = plank("p", 2000, 600, 50);
    s.tape.lean_left_mm = -15;  // the other face stands in
    const SlabShape shape = shape_of(s);
    for (const EdgeLimit& e : edge_limits(s, shape, true, 100, 1900)) {
        CHECK(e.show == Approx(300));
        CHECK(e.y == Approx(285));
    }
    s.flaws.push_back({"rot", FlawKind::soft, Face::a, box(800, 250, 1000, 310), false, 5.0, 1, ""});
    s.flaws.push_back({"deep", FlawKind::soft, Face::a, box(1300, 0, 1500, 60), false, 5.0, 1, ""});
    for (const EdgeLimit& e : edge_limits(s, shape, true, 100, 1900)) {
        if (e.x > 810 && e.x < 990) CHECK(e.y == Approx(250).margin(0.5));
        if (e.x > 1310 && e.x < 1490) CHECK(e.y == Approx(285));
    }
    CHECK(edge_limits(s, shape, true, 1900, 100).empty());
    CHECK_FALSE(best_rip({}, true));
    CHECK_FALSE(best_rip({{0, 100, 100}}, true));
}

TEST_CASE("a steep edge is ripped no steeper than asked, and stays clean", "[rip]") {
    std::vector<EdgeLimit> edge;
    for (int i = 0; i <= 40; ++i) edge.push_back({i * 50.0, 200 + i * 10.0, 200 + i * 10.0});  // 1 in 5
    const auto rip = best_rip(edge, true, 0.06);
    REQUIRE(rip);
    CHECK(rip->slope == Approx(0.06));
    for (const EdgeLimit& e : edge) CHECK(rip->at(e.x) <= e.y + 1e-9);
}

TEST_CASE("a line moved sideways keeps its distance", "[curve]") {
    std::vector<Vec2> line;
    for (int i = 0; i <= 200; ++i) line.push_back({i * 10.0, 30 * std::sin(i / 25.0)});
    for (const double by : {-20.0, 12.0}) {
        const auto moved = offset_line(line, by);
        REQUIRE(moved.size() > 100);
        for (const Vec2 p : moved) {
            double nearest = 1e300;
            for (std::size_t i = 0; i + 1 < line.size(); ++i) {
                const Vec2 side = line[i + 1] - line[i];
                const double t = std::clamp(dot(p - line[i], side) / dot(side, side), 0.0, 1.0);
                nearest = std::min(nearest, length(p - line[i] - side * t));
            }
            CHECK(nearest == Approx(std::abs(by)).margin(0.3));
        }
        // To the left of its direction for positive.
        CHECK((moved[moved.size() / 2].y > line[line.size() / 2].y) == (by > 0));
    }
    // A circle's radius is what it is.
    std::vector<Vec2> arc;
    for (int i = 0; i <= 90; ++i) arc.push_back(Vec2{std::cos(i * 3.14159265 / 180), std::sin(i * 3.14159265 / 180)} * 750);
    CHECK(least_radius(arc) == Approx(750).epsilon(0.01));
    CHECK(least_radius({{0, 0}, {100, 0}, {200, 0}}) > 1e8);
}

TEST_CASE("one template cuts both edges: the pair of bushings meets on the joint", "[curve]") {
    for (const double cutter : {6.0, 8.0, 12.0, 12.7}) {
        const auto pair = bushings_for(cutter, {16, 20, 24, 27, 28.4, 30, 40, 44, 51, 17.4});
        if (!pair) continue;
        INFO(cutter);
        CHECK(pair->outer_mm - pair->inner_mm == Approx(2 * cutter));
        // From the template's edge: one cut's far side and the other's near side are the same line.
        CHECK(pair->outer_mm / 2 - cutter / 2 == Approx(pair->inner_mm / 2 + cutter / 2));
        CHECK(pair->template_off_mm == Approx(pair->outer_mm / 2 - cutter / 2));
    }
    CHECK_FALSE(bushings_for(12, {20, 30}));
    CHECK_FALSE(bushings_for(12, {}));
    // A bushing no wider than its cutter lets it through nowhere: the smaller must be larger than the cutter.
    const auto small = bushings_for(12, {10, 34, 16, 40});
    REQUIRE(small);
    CHECK(small->inner_mm > 12);
}

TEST_CASE("a dragged leaf rests at the nearest place within reach, each way for itself", "[snap]") {
    SnapPlaces places;
    places.along = {{-40, "left end"}, {12, "knots meet"}, {15, "right end"}};
    places.across = {{7, "just clean"}};
    std::string what;
    Vec2 by = snapped(places, {13, 30}, 4, &what);
    CHECK(by.x == 12);
    CHECK(by.y == 30);  // too far from any
    CHECK(what == "knots meet");
    what.clear();
    by = snapped(places, {14, 5}, 4, &what);
    CHECK(by.x == 15);
    CHECK(by.y == 7);
    CHECK(what == "right end, just clean");
    CHECK(snapped({}, {3, 4}, 10).x == 3);
}

TEST_CASE("a river's leaf snaps to the wanted width, an end to the top's end", "[snap]") {
    Documents d;
    for (const char* id : {"a", "b"}) d.slabs[id] = plank(id, 2200, 300, 50);
    Job j;
    j.top = {2000, 800, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}};
    j.makeup.kind = MakeUp::river;
    j.makeup.river_mm = 120;
    REQUIRE(laid_together(j, MakeUp::river, {d.slabs["a"], d.slabs["b"]}).empty());
    move_by(j.leaves[1].placement, {30, 25});  // 25 further out than wanted, 30 along
    const Plan p = plan_job(j, d);
    MakeUpInputs in{{}, j.top, j.makeup, false, {}, nullptr};
    for (std::size_t i = 0; i < 2; ++i) in.leaves.push_back({p.leaves[i].slab(), p.leaves[i].shape(), j.leaves[i].placement});
    const SnapPlaces places = snap_places(in, *p.makeup, 1);
    REQUIRE(places.across.size() == 1);
    CHECK(places.across[0].by_mm == Approx(-25).margin(1));
    // Both ends of the 2200 long slab at those of the 2000 long top, from where it lies.
    REQUIRE(places.along.size() >= 2);
    CHECK(places.along[0].by_mm == Approx(100 - 30).margin(1));
    CHECK(places.along[1].by_mm == Approx(-100 - 30).margin(1));
    CHECK(snap_places(in, *p.makeup, 9).along.empty());
}
