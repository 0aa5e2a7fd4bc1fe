#include <catch2/catch.hpp>

#include "core/beam/beam.h"

using namespace yb;

namespace {
Plank board() { return plank_of({{0, -450}, {2000, -450}, {2000, 450}, {0, 450}}, 45, 11600, 610); }
}  // namespace

TEST_CASE("a plank on two supports bends as the handbooks have it", "[beam]") {
    const Plank plain = board();
    SECTION("the check values of a rectangle") {
        const Bent b = bend(plain, 400, 1600, {{1000, 1000}});
        CHECK(b.at(1000) == Approx(0.4926).margin(1e-4));
        CHECK(b.at(0) == Approx(-0.4737).margin(1e-4));
        CHECK(b.at(2000) == Approx(-0.4737).margin(1e-4));
        CHECK(bend(plain, 400, 1600).at(1000) == Approx(0.0385).margin(1e-4));
        CHECK(bend(plain, 200, 1800, {{1000, 1000}}).at(1000) == Approx(1.3177).margin(2e-4));
    }
    SECTION("5wL⁴/384EI and PL³/48EI") {
        Plank p{{0, 1000}, {500, 500}, 30, 10000, 600};
        const double inertia = 500 * 27000 / 12.0;
        const double w = 600e-9 * 9.80665 * 500 * 30;
        CHECK(bend(p, 0, 1000).at(500) == Approx(5 * w * 1e12 / (384 * 10000 * inertia)).epsilon(1e-5));
        p.kg_m3 = 0;
        CHECK(bend(p, 0, 1000, {{500, 700}}).at(500) == Approx(700 * 1e9 / (48 * 10000 * inertia)).epsilon(1e-5));
        // Off the middle at a: P·a²·b²/(3·E·I·L) under the load.
        CHECK(bend(p, 0, 1000, {{300, 700}}).at(300) == Approx(700.0 * 300 * 300 * 700 * 700 / (3 * 10000 * inertia * 1000)).epsilon(1e-5));
        // An overhang: P at its end a beyond the support, P·a²(L+a)/(3EI).
        CHECK(bend(p, 0, 700, {{1000, 100}}).at(1000) == Approx(100.0 * 300 * 300 * (700 + 300) / (3 * 10000 * inertia)).epsilon(1e-5));
        CHECK(bend(p, 700, 0, {{1000, 100}}).at(1000) == Approx(100.0 * 300 * 300 * 1000 / (3 * 10000 * inertia)).epsilon(1e-5));
    }
    SECTION("a width that tapers") {
        const Plank p = plank_of({{0, -500}, {2000, -400}, {2000, 400}, {0, 500}}, 45, 11600, 610);
        CHECK(bend(p, 300, 1700, {{1000, 1000}}).at(1000) == Approx(0.8408).margin(2e-4));
    }
    SECTION("two pushes are the sum of each") {
        Plank p = plain;
        p.kg_m3 = 0;
        const Bent both = bend(p, 300, 1500, {{700, 400}, {1900, 300}});
        for (const double x : {0.0, 500.0, 1100.0, 1990.0})
            CHECK(both.at(x) == Approx(bend(p, 300, 1500, {{700, 400}}).at(x) + bend(p, 300, 1500, {{1900, 300}}).at(x)).margin(1e-9));
        CHECK(both.at(300) == Approx(0).margin(1e-12));
        CHECK(both.at(1500) == Approx(0).margin(1e-12));
        CHECK(std::abs(both.most_mm()) > 0.01);
    }
}

TEST_CASE("what can't be bent is refused", "[beam]") {
    CHECK_THROWS_AS(bend(board(), 500, 500), std::invalid_argument);
    CHECK_THROWS_AS(bend(board(), -10, 500), std::invalid_argument);
    CHECK_THROWS_AS(bend(board(), 10, 2500), std::invalid_argument);
    CHECK_THROWS_AS(bend(board(), 10, 500, {{3000, 1}}), std::invalid_argument);
    CHECK_THROWS_AS(bend(Plank{{0}, {1}, 10, 10, 0}, 0, 1), std::invalid_argument);
    CHECK_THROWS_AS(plank_of({{0, 0}, {0, 1}, {0, 2}}, 1, 1, 1), std::invalid_argument);
    Plank thin = board();
    thin.thickness_mm = 0;
    CHECK_THROWS_AS(bend(thin, 10, 500), std::invalid_argument);
}
