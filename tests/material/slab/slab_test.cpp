#include <catch2/catch.hpp>

#include "core/material/slab/slab.h"
#include "core/shop/job/documents.h"
#include "core/steps/flat/tilt.h"
#include "demo/demo.h"

using namespace yb;

namespace {
/// 2 m long, 600 wide, 50 thick, plain as a plank.
Slab plank() {
    Slab s;
    s.id = "plank";
    s.species = "butternut";
    for (const double x : {0.0, 500.0, 1000.0, 1500.0, 2000.0}) s.tape.stations.push_back({x, 300, 300, {}, {}, 50, {}});
    return s;
}
const Caution* named(const SlabShape& s, const char* key) { return find_caution(s.cautions, key); }
}  // namespace

TEST_CASE("a plank has the volume of a box", "[slab]") {
    const SlabShape s = shape_of(plank());
    REQUIRE(s.usable);
    CHECK(area(s.ring_a) == Approx(2000 * 600));
    CHECK(volume_m3(s, s.ring_a, 50) == Approx(0.06));
    CHECK(board_feet(s, means_of(s)) == Approx(0.06 / (25.4e-3 * 25.4e-3 * 25.4e-3 * 144)).epsilon(1e-6));
    CHECK(named(s, "rack.no_heights"));
}

TEST_CASE("leaning edges: the prismoid by hand", "[slab]") {
    Slab p = plank();
    p.tape.lean_left_mm = 30;
    p.tape.lean_right_mm = 10;
    const SlabShape s = shape_of(p);
    // Mean width (600 + 640) / 2 over 2 m by 50 mm.
    const Ring all{{0, -1000}, {2000, -1000}, {2000, 1000}, {0, 1000}};
    CHECK(volume_m3(s, all, 50) == Approx(2.0 * 0.62 * 0.05));
    CHECK(area(s.ring_b) == Approx(2000 * 640));
    // The upper half alone: widths 600 and 620.
    CHECK(volume_m3(s, all, 50, 0.5, 1) == Approx(2.0 * 0.61 * 0.025));
}

TEST_CASE("turning over twice gives the slab back", "[slab]") {
    for (const auto& [id, slab] : demo_shop().slabs) {
        const SlabShape a = shape_of(slab);
        const SlabShape twice = shape_of(turned_over(turned_over(slab)));
        const SlabShape once = shape_of(turned_over(slab));
        INFO(id);
        REQUIRE(a.ring_a.size() == twice.ring_a.size());
        for (std::size_t i = 0; i < a.ring_a.size(); ++i) {
            CHECK(length(a.ring_a[i] - twice.ring_a[i]) < 1e-9);
            CHECK(length(a.ring_b[i] - twice.ring_b[i]) < 1e-9);
        }
        CHECK(area(once.ring_a) == Approx(area(a.ring_b)).epsilon(0.002));
        for (const Vec2 p : {Vec2{500, 100}, Vec2{1000, -120}})
            CHECK(once.thickness_at({p.x, -p.y}) == Approx(a.thickness_at(p)).margin(1.0));
    }
}

TEST_CASE("heights on both faces are tied together by the caliper", "[slab]") {
    Slab p = plank();
    HeightGrid g;
    g.x_mm = {100, 1000, 1900};
    g.y_mm = {-250, 0, 250};
    // Face A is hollow by 4 in the middle; face B was read from a reference tilted by 5 mm over its length.
    for (const double x : g.x_mm)
        for (std::size_t j = 0; j < 3; ++j) g.gap_mm.emplace_back(x == 1000 ? 4.0 : 0.0);
    p.heights_a = g;
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j) g.at(i, j) = 10 + 5 * g.x_mm[i] / 2000;
    p.heights_b = g;
    // Face B's tilt is linear between its readings and level beyond them: the caliper reads where both hold.
    p.tape.stations.resize(3);
    p.tape.stations[0].x_mm = 100, p.tape.stations[1].x_mm = 1000, p.tape.stations[2].x_mm = 1900;
    for (Station& s : p.tape.stations) s.thickness_mm = s.x_mm == 1000 ? 46 : 50;
    const SlabShape s = shape_of(p);
    REQUIRE(s.usable);
    CHECK(s.disagreement_mm < 1e-9);
    CHECK(s.thickness_at({1000, 0}) == Approx(46));
    CHECK(s.thickness_at({100, 200}) == Approx(50));
    CHECK(s.bottom.at({1000, 0}) == Approx(0).margin(1e-6));
}

TEST_CASE("bad tape is named with its place", "[slab]") {
    Slab p = plank();
    SECTION("crossing edges") {
        p.tape.stations[2].left_mm = -350;
        const SlabShape s = shape_of(p);
        REQUIRE(named(s, "rack.crossing"));
        CHECK_FALSE(s.usable);
        CHECK(named(s, "rack.crossing")->at->x == 1000);
    }
    SECTION("a missing edge is bridged and said") {
        p.tape.stations[1].right_mm.reset();
        const SlabShape s = shape_of(p);
        CHECK(s.usable);
        REQUIRE(named(s, "rack.missing"));
        CHECK(named(s, "rack.missing")->at->x == 500);
        CHECK(area(s.ring_a) == Approx(2000 * 600));
    }
    SECTION("a thickness of nothing") {
        p.tape.stations[3].thickness_mm = 0;
        CHECK(named(shape_of(p), "rack.thickness_zero"));
        CHECK_FALSE(shape_of(p).usable);
    }
    SECTION("a reading outside the slab") {
        p.heights_a = {{500, 1500}, {0, 900}, {1.0, 2.0, 1.0, 2.0}};
        const SlabShape s = shape_of(p);
        REQUIRE(named(s, "rack.outside"));
        CHECK(named(s, "rack.outside")->at->y == 900);
        CHECK(s.top.at({500, 900}) == Approx(s.top.at({500, 0})));
    }
    SECTION("nothing typed yet") {
        CHECK(named(shape_of(Slab()), "rack.stations"));
        p.tape.stations.resize(1);
        CHECK_FALSE(shape_of(p).usable);
    }
    SECTION("a station typed twice") {
        p.tape.stations.push_back(p.tape.stations[1]);
        CHECK(named(shape_of(p), "rack.twice"));
        CHECK(shape_of(p).usable);
    }
    SECTION("readings that leave no wood") {
        p.heights_a = {{500, 1500}, {-200, 200}, {0.0, 0.0, 0.0, 0.0}};
        p.heights_b = {{500, 1500}, {-200, 200}, {0.0, 0.0, 0.0, 200.0}};
        CHECK(named(shape_of(p), "rack.no_wood"));
    }
}

TEST_CASE("heights on one line or at one place are taken as level beside it, and told", "[slab][flat]") {
    const auto told = [](std::vector<double> xs, std::vector<double> ys) {
        Slab s;
        s.id = "p";
        s.tape.stations = {{0, 300, 300, {}, {}, 50, {}}, {2000, 300, 300, {}, {}, 50, {}}};
        s.heights_a.x_mm = xs, s.heights_a.y_mm = ys;
        // It climbs 10 mm along the slab and 6 across: what is not read is not known.
        for (const double x : xs)
            for (const double y : ys) s.heights_a.gap_mm.push_back(20 - x / 200 - y / 100);
        const SlabShape shape = shape_of(s);
        const Caution* c = find_caution(shape.cautions, "rack.one_line");
        const Tilt t = best_tilt(deciding_points(shape.top, shape.ring_a), deciding_points(shape.bottom, shape.ring_b));
        return std::tuple(c ? render(*c, {}) : std::string(), t.a, t.b);
    };
    const auto [one, a1, b1] = told({1000}, {0});
    CHECK(one.find("at one place only") != std::string::npos);
    CHECK(a1 == Approx(0).margin(1e-9));
    CHECK(b1 == Approx(0).margin(1e-9));
    const auto [along, a2, b2] = told({0, 1000, 2000}, {0});
    CHECK(along.find("one line along") != std::string::npos);
    CHECK(std::abs(a2) == Approx(0.005).margin(1e-4));
    CHECK(b2 == Approx(0).margin(1e-9));
    const auto [across, a3, b3] = told({1000}, {-300, 0, 300});
    CHECK(across.find("one line across") != std::string::npos);
    CHECK(a3 == Approx(0).margin(1e-9));
    CHECK(std::abs(b3) == Approx(0.01).margin(1e-4));
    CHECK(std::get<0>(told({100, 1900}, {-200, 200})).empty());
}
