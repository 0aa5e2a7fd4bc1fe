#include <array>
#include <random>

#include <catch2/catch.hpp>
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/tilt.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/steps/flat/warped.h"
#include "tests/truth/glpk.h"

using namespace yb;

TEST_CASE("the best tilt agrees with a general solver", "[flat]") {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        const Faces f = warped(seed, seed % 3 == 0 ? 12 : 250);
        INFO("seed " << seed);
        CHECK(best_tilt(f.top, f.bottom).thickness_mm == Approx(by_glpk(f.top, f.bottom)).margin(1e-6));
    }
}

TEST_CASE("tilts that can be seen by eye", "[flat]") {
    std::vector<Vec3> top, bottom;
    for (const double x : {0.0, 1000.0, 2000.0})
        for (const double y : {-400.0, 0.0, 400.0}) {
            top.push_back({x, y, 50 + 0.01 * x});
            bottom.push_back({x, y, 0.01 * x});
        }
    // A plain wedge under a plain slab: all of it can be had by tilting.
    const Tilt t = best_tilt(top, bottom);
    CHECK(t.a == Approx(0.01).margin(1e-9));
    CHECK(t.thickness_mm == Approx(50 / std::sqrt(1.0001)));
    CHECK(at_tilt(top, bottom, 0, 0).thickness_mm == Approx(30));
    CHECK(t.top_at({1000, 0}) == Approx(60));
    // Pure twist cannot be tilted away.
    for (std::size_t i = 0; i < top.size(); ++i) {
        const double w = 0.00001 * (top[i].x - 1000) * top[i].y;
        top[i].z = 50 + w;
        bottom[i].z = w;
    }
    CHECK(best_tilt(top, bottom).thickness_mm == Approx(50 - 8).margin(1e-6));
}

TEST_CASE("sparing the show face takes less from it", "[flat]") {
    for (unsigned seed = 1; seed <= 20; ++seed) {
        const Faces f = warped(seed, 120);
        const Tilt best = best_tilt(f.top, f.bottom);
        const double want = best.thickness_mm * best.slope_factor() - 3;
        const Tilt spare = least_off_top(f.top, f.bottom, want);
        const auto most = [&](const Tilt& t) {
            double m = 0;
            for (const Vec3& p : f.top) m = std::max(m, p.z - t.top_at({p.x, p.y}));
            return m;
        };
        CHECK(most(spare) <= most(best) + 1e-6);
        for (const Vec3& p : f.top) REQUIRE(p.z >= spare.top_at({p.x, p.y}) - 1e-6);
        for (const Vec3& p : f.bottom) REQUIRE(p.z <= spare.bottom_at({p.x, p.y}) + 1e-6);
        CHECK(spare.top_mm - spare.bottom_mm == Approx(want));
    }
    const Faces f = warped(3, 50);
    CHECK(least_off_top(f.top, f.bottom, 500).thickness_mm == Approx(best_tilt(f.top, f.bottom).thickness_mm));
}

TEST_CASE("readings that are none are refused", "[flat]") {
    const std::vector<Vec3> one{{0, 0, 1}};
    const std::vector<Vec3> bad{{0, 0, std::nan("")}};
    CHECK_THROWS_AS(best_tilt(one, {}), std::invalid_argument);
    CHECK_THROWS_AS(best_tilt(bad, one), std::invalid_argument);
    CHECK(best_tilt(one, std::vector<Vec3>{{0, 0, 0}}).thickness_mm == Approx(1).margin(1e-9));
}

TEST_CASE("what the readings don't determine is not tilted, and is told", "[flat][tilt]") {
    const auto along = [](double x, double y, double z) { return Vec3{x, y, z}; };
    SECTION("in one line along the slab") {
        std::vector<Vec3> top, bottom;
        for (double x = 0; x <= 2000; x += 250) top.push_back(along(x, 30, 50 + 0.01 * x)), bottom.push_back(along(x, 30, 0.01 * x));
        const Tilt t = best_tilt(top, bottom);
        CHECK(t.a == Approx(0.01).margin(1e-8));
        CHECK(t.b == Approx(0).margin(1e-6));
        CHECK(t.thickness_mm == Approx(50 / std::sqrt(1.0001)).margin(1e-5));
        CHECK(t.loose_a == 0);
        CHECK(t.loose_b == Approx(1).margin(1e-3));  // any tilt across, 1:2 either way
        CHECK_FALSE(t.fixed());
    }
    SECTION("in one skew line: tilted along it") {
        std::vector<Vec3> top, bottom;
        for (double s = 0; s <= 1000; s += 100) {
            const double x = s / std::sqrt(2.0);
            top.push_back(along(x, x, 50 + 0.02 * s)), bottom.push_back(along(x, x, 0.02 * s));
        }
        const Tilt t = best_tilt(top, bottom);
        CHECK(std::hypot(t.a, t.b) == Approx(0.02).margin(5e-5));
        CHECK(t.a == Approx(0.02 / std::sqrt(2.0)).margin(1e-3));
        CHECK(t.b == Approx(0.02 / std::sqrt(2.0)).margin(1e-3));
        CHECK_FALSE(t.fixed());
    }
    SECTION("at one place, and fewer than three") {
        const Tilt one = best_tilt(std::vector<Vec3>{along(500, 100, 50)}, std::vector<Vec3>{along(500, 100, 0)});
        CHECK(one.a == Approx(0).margin(1e-6));
        CHECK(one.b == Approx(0).margin(1e-6));
        CHECK(one.thickness_mm == Approx(50).margin(1e-5));
        CHECK(one.loose_a > 0.9);
        CHECK(one.loose_b > 0.9);
        const std::vector<Vec3> two_top{along(0, 0, 52), along(1000, 0, 50)};
        const std::vector<Vec3> two_bottom{along(0, 0, 2), along(1000, 0, 0)};
        const Tilt two = best_tilt(two_top, two_bottom);
        CHECK(two.a == Approx(-0.002).margin(1e-7));
        CHECK(two.b == Approx(0).margin(1e-6));
    }
    SECTION("faces that were read at different ends") {
        std::vector<Vec3> top, bottom;
        for (const double y : {-400.0, 0.0, 400.0})
            for (double x = 0; x <= 400; x += 100)
                top.push_back(along(x, y, 50 + 0.005 * y)), bottom.push_back(along(x + 1200, y, 0.005 * y));
        const Tilt t = best_tilt(top, bottom);
        CHECK(t.a == Approx(0).margin(1e-9));
        CHECK(t.b == Approx(0.005).margin(1e-6));
        CHECK(t.thickness_mm == Approx(50 / std::sqrt(1 + 0.005 * 0.005)).margin(1e-4));
        CHECK(t.loose_a > 0.9);
        CHECK_FALSE(t.at_bound);
    }
    SECTION("no lesser tilt leaves as much, on readings with many ways") {
        // Rounded to the whole millimetre a slab has many.
        for (unsigned seed = 1; seed <= 20; ++seed) {
            Faces f = warped(seed, 9);
            for (auto* face : {&f.top, &f.bottom})
                for (Vec3& p : *face) p.z = std::round(p.z / 4) * 4, p.x = std::round(p.x / 600) * 600, p.y = std::round(p.y / 300) * 300;
            const Tilt t = best_tilt(f.top, f.bottom);
            CHECK(t.thickness_mm * t.slope_factor() ==
                  Approx(by_glpk(f.top, f.bottom) * t.slope_factor()).margin(1e-2));  // the general solver may sit at a steeper one
            const double r = std::hypot(t.a, t.b);
            for (int k = 0; k < 360; ++k)
                for (const double share : {0.0, 0.5, 0.9, 0.99}) {
                    const double a = share * r * std::cos(k * 0.0174532925);
                    const double b = share * r * std::sin(k * 0.0174532925);
                    const Tilt other = at_tilt(f.top, f.bottom, a, b);
                    REQUIRE((r < 1e-9 || other.thickness_mm * other.slope_factor() <= t.thickness_mm * t.slope_factor() - 1e-8 * r));
                }
        }
    }
    SECTION("a slab that is read well has one best tilt") {
        for (unsigned seed = 1; seed <= 20; ++seed) {
            const Faces f = warped(seed, 250);
            CHECK(best_tilt(f.top, f.bottom).fixed());
        }
    }
}

TEST_CASE("lanes and spacers by hand", "[flat]") {
    Sled s;
    s.cutter_mm = 40;
    s.overlap = 0.5;
    CHECK(lanes_for(2000, s) == 101);
    CHECK(lanes_for(2001, s) == 102);
    s.spacers_mm = {18, 6, 12};
    s.stickout_mm = 25;
    CHECK(spacer_for(25, s) == 0.0);
    CHECK(spacer_for(30, s) == 6.0);
    CHECK(spacer_for(43, s) == 18.0);
    CHECK_FALSE(spacer_for(44, s));
}

namespace {
struct Bowed {
    Slab slab;
    SlabShape shape;
    LayPlan lay;
    WantedTop top{1600, 500, 40, 740, LiveEdges::none, 0};
    FlatInputs in(FlatChoices c = {}, Sled s = {}) const { return {slab, shape, lay, top, c, s}; }
    Bowed() {
        slab.id = "b";
        for (const double x : {0.0, 1000.0, 2000.0}) slab.tape.stations.push_back({x, 300, 300, {}, {}, 50, {}});
        HeightGrid g{{0, 1000, 2000}, {-300, 300}, {}};
        // Left end 10 mm low on face A, straight along: a wedge that a shim takes out.
        for (const double gap : {10.0, 10.0, 5.0, 5.0, 0.0, 0.0}) g.gap_mm.emplace_back(gap);
        slab.heights_a = g;
        shape = shape_of(slab);
        lay = plan_lay({slab, shape, top, {1000, 0, 0, false, 0}});
    }
};
}  // namespace

TEST_CASE("a tilted slab is shimmed level and keeps its thickness", "[flat]") {
    const Bowed b;
    const FlatPlan p = plan_flat(b.in());
    REQUIRE(p.ready);
    CHECK(p.thickest_mm == Approx(50).margin(0.001));
    CHECK(p.as_it_lies_mm == Approx(42).margin(0.001));  // 5 mm/m over 1.6 m of top
    CHECK(p.thickness_mm == Approx(40));
    for (const Shim& s : p.shims) CHECK(s.height_mm == Approx(0).margin(1e-6));
    // Shared out: of the 10 mm that are too thick each face gives 5, at 3 mm a layer two and one after the rest.
    const int lanes = lanes_for(1600, Sled());
    for (const FacePlan& f : p.faces) {
        CHECK(f.most_off_mm == Approx(5).margin(0.001));
        CHECK(f.layers == 3);
        CHECK(f.last_layers == 1);
        CHECK(f.lanes == lanes);
        CHECK(f.passes_cut == 3 * lanes);
    }
    // Taken from underneath the show face keeps its figure.
    FlatChoices under;
    under.aim = FlatAim::spare_show;
    const FlatPlan u = plan_flat(b.in(under));
    CHECK(u.face(Face::a).most_off_mm == Approx(0).margin(1e-3));
    CHECK(u.face(Face::b).most_off_mm == Approx(10).margin(1e-3));
    FlatChoices lies;
    lies.aim = FlatAim::as_it_lies;
    lies.finish = FinishTo::thickest;
    const FlatPlan q = plan_flat(b.in(lies));
    CHECK(q.thickness_mm == Approx(42).margin(0.001));
    CHECK(find_caution(q.cautions, "flat.unshimmed"));
    CHECK(q.face(Face::a).passes_cut < q.face(Face::a).passes_all);  // air is skipped at the low end
}

TEST_CASE("the sled's reach is watched", "[flat]") {
    const Bowed b;
    Sled s;
    s.rail_mm = 45;
    CHECK(find_caution(plan_flat(b.in({}, s)).cautions, "flat.rails"));
    s.rail_mm = 120;
    s.spacers_mm = {6};
    const FlatPlan p = plan_flat(b.in({}, s));
    REQUIRE(find_caution(p.cautions, "flat.stickout"));
    CHECK(find_caution(p.cautions, "flat.stickout")->severity == Severity::stop);
    CHECK(p.faces[0].stickout_mm == Approx(12 + 120 - 45).margin(0.01));  // of 50 mm on the bench 5 come off first
    s.tram_mm = 0.4;
    CHECK(find_caution(plan_flat(b.in({}, s)).cautions, "flat.tram"));
    FlatInputs two = b.in();
    two.supports = {{300, 0}, {500, 0}};
    CHECK(find_caution(plan_flat(two).cautions, "flat.supports"));
    two.supports = {{300, -100}, {400, 100}, {500, -100}, {600, 100}};
    CHECK(find_caution(plan_flat(two).cautions, "flat.rocks"));
}

TEST_CASE("a slab too thin is said before it is cut", "[flat]") {
    Bowed b;
    b.top.thickness_mm = 55;
    const FlatPlan p = plan_flat(b.in());
    REQUIRE(find_caution(p.cautions, "flat.thin"));
    CHECK(find_caution(p.cautions, "flat.thin")->severity == Severity::stop);
    CHECK(p.thickness_mm == Approx(50).margin(0.001));
}

TEST_CASE("a tilt steeper than 1:2 is held there, and the misread height behind it is told as a stop", "[flat][tilt]") {
    // A face that climbs 8 in 10: no slab lies so.
    std::vector<Vec3> top;
    std::vector<Vec3> bottom;
    for (double x = 0; x <= 100; x += 10)
        for (double y = -50; y <= 50; y += 10) top.push_back({x, y, 50 + 0.8 * x}), bottom.push_back({x, y, 0.8 * x});
    const Tilt steep = best_tilt(top, bottom);
    CHECK(steep.at_bound);
    CHECK(std::abs(steep.a) <= 0.5 + 1e-9);
    for (Vec3& p : top) p.z = 50 + 0.3 * p.x;
    for (Vec3& p : bottom) p.z = 0.3 * p.x;
    const Tilt fair = best_tilt(top, bottom);
    CHECK_FALSE(fair.at_bound);
    CHECK(fair.a == Approx(0.3).margin(1e-6));
    CHECK(fair.thickness_mm == Approx(50 / std::sqrt(1 + 0.09)).epsilon(1e-6));
}

TEST_CASE("the sled sags as a beam does, and a sagging one is told", "[flat][sled]") {
    // 60 N on two beams of 18 by 60 mm and 10 000 N/mm² over 900 mm: 0.141 mm.
    Sled sled;
    sled.router_n = 60, sled.span_mm = 900, sled.beams = 2, sled.beam_wide_mm = 18, sled.beam_high_mm = 60, sled.beam_mpa = 10000;
    CHECK(sled_sag_mm(sled) == Approx(0.1406).margin(5e-5));
    sled.span_mm = 1800;
    CHECK(sled_sag_mm(sled) == Approx(8 * 0.140625));
    Documents docs = demo_shop();
    CHECK_FALSE(find_caution(plan_job(docs.jobs.at("job-reading-table"), docs).flat->cautions, "flat.sag"));
    docs.shop.sled.span_mm = 1500;
    const Plan plan = plan_job(docs.jobs.at("job-reading-table"), docs);
    const Caution* sag = find_caution(plan.flat->cautions, "flat.sag");
    REQUIRE(sag);
    // Beams as high as it says hold it.
    docs.shop.sled.beam_high_mm = sag->says.value(2);
    CHECK(sled_sag_mm(docs.shop.sled) <= 0.15 + 1e-9);
}

TEST_CASE("wood above a plane is the integral, wherever it crosses nought", "[flat][sled]") {
    const Ring piece{{0, 0}, {1000, 0}, {1000, 400}, {0, 400}};
    CHECK(wood_above_l(Surface({0, 1000}, {0, 400}, {5, 5, 5, 5}), piece) == Approx(2.0));
    // A wedge from −5 to 5 along: half of it stands up to 5 high, 500 · 400 · 2.5 mm³.
    CHECK(wood_above_l(Surface({0, 1000}, {0, 400}, {-5, -5, 5, 5}), piece) == Approx(0.5).epsilon(0.001));
    // Across it is exact: triangles.
    CHECK(wood_above_l(Surface({0, 1000}, {0, 400}, {-5, 5, -5, 5}), piece) == Approx(0.5).epsilon(1e-9));
    CHECK(wood_above_l(Surface({0, 1000}, {0, 400}, {-1, -1, -1, -1}), piece) == 0);
    CHECK(wood_above_l(Surface(), piece) == 0);
    CHECK(wood_above_l(Surface({0, 1000}, {0, 400}, {5, 5, 5, 5}), {}) == 0);
    // A twisted face in a leaning piece, against a fine grid.
    const Surface twisted({0, 300, 1000}, {0, 150, 400}, {3, -2, 4, -1, 2, -3, 5, 1, -4});
    const Ring leaning{{40, 20}, {930, 90}, {880, 380}, {120, 330}};
    double fine_grid = 0;
    for (double x = 0.5; x < 1000; x += 1)
        for (double y = 0.5; y < 400; y += 1)
            if (contains(leaning, {x, y})) fine_grid += std::max(0.0, twisted.at({x, y})) * 1e-6;
    CHECK(wood_above_l(twisted, leaning) == Approx(fine_grid).epsilon(0.001));  // its nought runs askew through cells of 300 and 700 mm
}
