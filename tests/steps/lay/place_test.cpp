// The widest place for a top, against a brute-force grid; fair curves; bushings; round tops.
#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>

#include "core/material/tree/saw.h"
#include "core/steps/lay/place.h"
#include "core/steps/makeup/curve.h"
#include "tests/everything.h"

using namespace yb;

namespace {
Slab tape_slab(std::initializer_list<std::array<double, 3>> stations, double thick = 50) {
    Slab s;
    s.id = s.name = "s";
    for (const auto& [x, left, right] : stations) s.tape.stations.push_back({x, left, right, {}, {}, thick, {}});
    return s;
}
}  // namespace

TEST_CASE("the widest top in a leaning parallelogram lies along it", "[place]") {
    // A strip 300 wide that climbs 60 in 2000: lying along it a top is 300·cos wide, straight it loses the climb.
    const SlabShape s = shape_of(tape_slab({{0, 150, 150}, {2000, 210, 90}}));
    const Widest w = widest_top(s, 1500);
    const double angle = std::atan(60.0 / 2000);
    CHECK(w.width_mm == Approx(300 * std::cos(angle)).margin(0.6));
    CHECK(w.placement.angle_deg == Approx(angle * 180 / std::numbers::pi).margin(0.1));
    CHECK(widest_at(s, 1500, 0, WideBy::sawn).width_mm == Approx(300 - 1500 * 60.0 / 2000).margin(1));
    CHECK(widest_top(s, 2500).width_mm == 0);
}

TEST_CASE("the widest place is never half a percent worse than a brute-force grid on grown slabs", "[place][grown]") {
    int slabs = 0;
    double worst = 0;
    for (std::uint64_t seed = 100; slabs < 50; ++seed) {
        const GrownLog log(drawn_recipe(seed, "butternut", 1800, 430));
        SawPlan saw;
        saw.thickness_mm = 60;
        for (const SawnSlab& sawn : make_slabs(log, saw, {}, {0, false})) {
            if (slabs == 50) break;
            ++slabs;
            const SlabShape s = shape_of(sawn.slab);
            const double length = 0.6 * (s.x1 - s.x0);
            double brute = 0;
            for (double angle = -5; angle <= 5; angle += 0.05)
                brute = std::max(brute, widest_at(s, length, angle, WideBy::sawn, 4).width_mm);
            const Widest found = widest_top(s, length);
            worst = std::max(worst, (brute - found.width_mm) / brute);
            // And it is truly there: its corners and sides lie in the wood of both faces.
            const double hw = found.width_mm / 2 - 1.5;
            for (int i = 0; i <= 40; ++i)
                for (const double v : {-hw, hw}) {
                    const Vec2 p = found.placement.frame().to_slab({length * (i / 40.0 - 0.5) * 0.999, v});
                    CHECK(contains(s.ring_a, p));
                    CHECK(contains(s.ring_b, p));
                }
        }
    }
    INFO("worst " << 100 * worst << " %");
    CHECK(worst < 0.005);
}

TEST_CASE("a round top fits where its circle clears the bark", "[place]") {
    // A disc of radius 400.
    Slab s;
    s.id = "disc";
    TracedOutline o;
    for (int i = 0; i < 180; ++i) {
        const double t = 2 * std::numbers::pi * i / 180;
        o.a.push_back({400 + 400 * std::cos(t), 400 * std::sin(t)});
    }
    o.b = o.a;
    s.outline = o;
    s.tape.stations = {{100, {}, {}, {}, {}, 60, {}}};
    const SlabShape shape = shape_of(s);
    WantedTop top{700, 700, 50, 740, LiveEdges::none, 0, TopShape::round, {}};
    LayPlan p = plan_lay({s, shape, top, {400, 0, 0, false, 0}});
    CHECK(p.fits);
    CHECK(figure(p.figures, "lay.fit").value.value == Approx(50).margin(0.5));
    CHECK(area(p.outline) == Approx(std::numbers::pi * 350 * 350).epsilon(0.001));
    // Off the middle by 80 it stands 30 out.
    p = plan_lay({s, shape, top, {400, 80, 0, false, 0}});
    CHECK_FALSE(p.fits);
    CHECK(p.short_at.front().mm == Approx(30).margin(0.6));
    // A run of live edge on the rim is welcome where the maker says so.
    top.live = LiveEdges::both;
    p = plan_lay({s, shape, top, {400, 80, 0, false, 0}});
    CHECK(p.fits);
    CHECK(figure(p.figures, "lay.rim").value.value > 300);
    CHECK(area(p.outline) < std::numbers::pi * 350 * 350);
    top.shape = TopShape::free;
    top.free_form = {{0, 0}, {10, 0}, {10, 5}, {5, 8}, {0, 5}};
    const Ring free = outline_of(top);
    CHECK(bounds(free).width() == Approx(700));
    CHECK(bounds(free).height() == Approx(700));
    CHECK(signed_area(free) > 0);
}

TEST_CASE("a fair curve stays below its edge and turns no tighter than asked", "[curve]") {
    std::vector<Vec2> edge;
    for (int i = 0; i <= 200; ++i) edge.push_back({10.0 * i, 40 * std::sin(i / 30.0) + 9 * std::sin(i / 4.0)});
    for (const double radius : {300.0, 800.0}) {
        const auto line = fair_curve(edge, radius);
        CHECK(least_radius(line) >= radius * 0.98);
        double lost = 0;
        for (const Vec2 p : line) {
            const auto i = static_cast<std::size_t>(std::clamp(p.x / 10, 0.0, 199.0));
            const double e = edge[i].y + (edge[i + 1].y - edge[i].y) * (p.x / 10 - static_cast<double>(i));
            CHECK(p.y <= e + 0.8);
            lost += (e - p.y) / static_cast<double>(line.size());
        }
        CHECK(lost < 45);
    }
    // A circle of 500 has a least radius of 500.
    std::vector<Vec2> arc;
    for (int i = 0; i <= 100; ++i) arc.push_back({500 * std::sin(i / 100.0), 500 * std::cos(i / 100.0)});
    CHECK(least_radius(arc) == Approx(500).epsilon(0.002));
    CHECK(least_radius({{0, 0}, {100, 0}, {200, 0}}) > 1e8);
    // Moved out by 50 its radius is 450 or 550.
    CHECK(least_radius(offset_line(arc, 50)) == Approx(550).epsilon(0.01));
}

TEST_CASE("bushings differ by twice the cutter", "[curve]") {
    const auto pair = bushings_for(12, {16, 20, 27, 30, 40, 44});
    REQUIRE(pair);
    CHECK(pair->inner_mm == 16);
    CHECK(pair->outer_mm == 40);
    // Both cuts meet: near side of one, far side of the other.
    CHECK(pair->inner_mm / 2 + 6 == Approx(pair->outer_mm / 2 - 6));
    CHECK(pair->template_off_mm == Approx(14));
    CHECK(pair->needs_radius_mm == Approx(20 + 14));
    CHECK_FALSE(bushings_for(12, {16, 20, 30}));
    CHECK_FALSE(bushings_for(12, {8, 32}));  // the cutter does not pass through the smaller
}
