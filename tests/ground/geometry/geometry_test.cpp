// Rings, frames, curves and surfaces against definitions worked the slow way.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/ground/geometry/geometry.h"

using namespace yb;

namespace {

Ring star(std::mt19937& dice, int points) {
    std::uniform_real_distribution<double> share(0.3, 1);
    Ring r;
    for (int i = 0; i < points; ++i) {
        const double t = 2 * 3.14159265358979 * i / points;
        r.push_back(Vec2{std::cos(t), std::sin(t)} * (300 * share(dice)));
    }
    return r;
}

/// How often a ring winds around a place, from the angles its sides are seen under.
double windings(const Ring& r, Vec2 p) {
    double sum = 0;
    for (std::size_t i = 0; i < r.size(); ++i) {
        const Vec2 a = r[i] - p;
        const Vec2 b = r[(i + 1) % r.size()] - p;
        sum += std::atan2(cross(a, b), dot(a, b));
    }
    return sum / (2 * 3.14159265358979);
}

}  // namespace

TEST_CASE("inside is where the ring winds around", "[geometry]") {
    std::mt19937 dice(11);
    std::uniform_real_distribution<double> place(-320, 320);
    for (int round = 0; round < 40; ++round) {
        const Ring r = star(dice, 5 + round);
        for (int k = 0; k < 100; ++k) {
            const Vec2 p{place(dice), place(dice)};
            CHECK(contains(r, p) == (std::abs(windings(r, p)) > 0.5));
        }
    }
}

TEST_CASE("area and centre agree with a fine count of places", "[geometry]") {
    std::mt19937 dice(12);
    for (int round = 0; round < 10; ++round) {
        const Ring r = star(dice, 7 + round);
        double n = 0;
        Vec2 sum;
        for (double x = -300; x < 300; x += 2)
            for (double y = -300; y < 300; y += 2)
                if (contains(r, {x + 1, y + 1})) n += 1, sum = sum + Vec2{x + 1, y + 1};
        CHECK(area(r) == Approx(n * 4).epsilon(0.02));
        CHECK(length(centroid(r) - sum * (1 / n)) < 1.5);
        CHECK(signed_area(Ring(r.rbegin(), r.rend())) == Approx(-signed_area(r)));
    }
    CHECK(length(centroid(Ring{{0, 0}, {10, 0}}) - Vec2{5, 0}) < 1e-12);  // no area: the mean of its points
}

TEST_CASE("a cut across a ring is made of the places inside it", "[geometry]") {
    std::mt19937 dice(13);
    std::uniform_real_distribution<double> place(-299, 299);
    for (int round = 0; round < 60; ++round) {
        const Ring r = star(dice, 40);
        const double x = place(dice);
        const auto cut = cut_at_x(r, x);
        for (std::size_t i = 0; i < cut.size(); ++i) {
            CHECK(cut[i].from <= cut[i].to);
            if (i > 0) CHECK(cut[i].from >= cut[i - 1].to);
        }
        for (int k = 0; k < 60; ++k) {
            const double y = place(dice);
            const bool in = std::any_of(cut.begin(), cut.end(), [&](const Span1& s) { return s.from < y && y < s.to; });
            CHECK(in == contains(r, {x, y}));
        }
    }
}

TEST_CASE("a hull holds every point and turns one way only", "[geometry]") {
    std::mt19937 dice(14);
    std::normal_distribution<double> place(0, 80);
    for (int round = 0; round < 30; ++round) {
        std::vector<Vec2> all;
        for (int i = 0; i < 60; ++i) all.push_back({std::round(place(dice)), std::round(place(dice))});  // some in line, some twice
        const Ring hull = convex_hull(all);
        REQUIRE(hull.size() >= 3);
        for (std::size_t i = 0; i < hull.size(); ++i) {
            const Vec2 a = hull[i];
            const Vec2 b = hull[(i + 1) % hull.size()];
            CHECK(cross(b - a, hull[(i + 2) % hull.size()] - b) > 0);
            for (const Vec2 p : all) CHECK(cross(b - a, p - a) >= -1e-9);
        }
    }
}

TEST_CASE("a frame takes places there and back, and turns to the left", "[geometry]") {
    const Frame f{{100, -40}, 30};
    const Vec2 there = f.to_slab(Vec2{200, 0});
    CHECK(there.x == Approx(100 + 200 * std::sqrt(3) / 2));
    CHECK(there.y == Approx(-40 + 100));
    std::mt19937 dice(15);
    std::uniform_real_distribution<double> any(-2000, 2000);
    Ring ring;
    for (int i = 0; i < 50; ++i) {
        const Vec2 p{any(dice), any(dice)};
        CHECK(length(f.from_slab(f.to_slab(p)) - p) < 1e-9);
        ring.push_back(p);
    }
    const Ring on = f.to_slab(ring);
    for (std::size_t i = 0; i < ring.size(); ++i) CHECK(length(on[i] - f.to_slab(ring[i])) < 1e-9);
    CHECK(std::abs(signed_area(on) - signed_area(ring)) < 1e-3);
}

TEST_CASE("a monotone curve meets its readings and never overshoots", "[geometry]") {
    std::mt19937 dice(16);
    std::uniform_real_distribution<double> step(20, 400);
    std::normal_distribution<double> wobble(300, 40);
    for (int round = 0; round < 50; ++round) {
        std::vector<double> x{0};
        std::vector<double> y{wobble(dice)};
        for (int i = 0; i < 8; ++i) x.push_back(x.back() + step(dice)), y.push_back(wobble(dice));
        const MonotoneCubic c(x, y);
        for (std::size_t i = 0; i < x.size(); ++i) CHECK(c(x[i]) == Approx(y[i]));
        for (std::size_t i = 0; i + 1 < x.size(); ++i) {
            double last = y[i];
            const double sign = y[i + 1] >= y[i] ? 1 : -1;
            for (int k = 1; k <= 20; ++k) {
                const double here = c(x[i] + (x[i + 1] - x[i]) * k / 20);
                CHECK(sign * (here - last) >= -1e-9);
                last = here;
            }
        }
    }
    CHECK(MonotoneCubic({5}, {7})(100) == 7);
}

TEST_CASE("a surface is bilinear between its nodes and level beyond them", "[geometry]") {
    const Surface s({0, 100, 300}, {-50, 50}, {0, 10, 20, 40, 5, 7});
    CHECK(s.at({0, -50}) == 0);
    CHECK(s.at({100, 50}) == 40);
    CHECK(s.at({50, 0}) == Approx((0 + 10 + 20 + 40) / 4.0));
    CHECK(s.at({200, -50}) == Approx(12.5));
    CHECK(s.at({-500, 0}) == Approx(5));
    CHECK(s.at({900, 900}) == Approx(7));
    CHECK(s.mapped([](double, double, double z) { return 2 * z; }).at({50, 0}) == Approx(35));
    CHECK_THROWS_AS(Surface({0, 0}, {0, 1}, {0, 0, 0, 0}), std::invalid_argument);
    CHECK_THROWS_AS(Surface({0, 1}, {0, 1}, {0, 0, 0}), std::invalid_argument);
    CHECK(Surface({3}, {4}, {9}).at({77, -1}) == 9);
    CHECK(Surface().at({1, 1}) == 0);
}

TEST_CASE("the deciding points hold a surface's extremes inside a ring", "[geometry]") {
    std::mt19937 dice(17);
    std::normal_distribution<double> height(0, 5);
    std::uniform_real_distribution<double> slope(-0.02, 0.02);
    std::vector<double> xs;
    std::vector<double> ys;
    for (int i = -6; i <= 6; ++i) xs.push_back(i * 60), ys.push_back(i * 55);
    for (int round = 0; round < 10; ++round) {
        std::vector<double> z;
        for (std::size_t i = 0; i < xs.size() * ys.size(); ++i) z.push_back(height(dice));
        const Surface s(xs, ys, z);
        const Ring r = star(dice, 24);
        const double a = slope(dice);
        const double b = slope(dice);
        double most = -1e300;
        for (const Vec3& p : deciding_points(s, r)) {
            CHECK(s.at({p.x, p.y}) == Approx(p.z).margin(1e-9));
            most = std::max(most, p.z - a * p.x - b * p.y);
        }
        for (double x = -300; x < 300; x += 4)
            for (double y = -300; y < 300; y += 4)
                // Along the ring's own edges it may stray by the twist of a cell: a fraction of a millimetre here.
                if (contains(r, {x, y})) CHECK(s.at({x, y}) - a * x - b * y <= most + 1.2);
    }
}

TEST_CASE("a ring is widened all round", "[geometry]") {
    const Ring square{{0, 0}, {100, 0}, {100, 60}, {0, 60}};
    // Steiner: A + P d + π d², its arcs in chords.
    CHECK(area(widened(square, 12)) == Approx(6000 + 320 * 12 + 3.14159 * 144).epsilon(0.001));
    const Box b = bounds(widened(square, 12));
    CHECK(b.low.x == Approx(-12));
    CHECK(b.high.y == Approx(72));
    // A pen's line: its length times its width, and its two half rounds.
    const Ring pen = pen_outline(Ring{{0, 0}, {100, 0}, {100, 80}}, 3);
    CHECK(area(pen) == Approx(180 * 6 + 3.14159 * 9).epsilon(0.01));
    CHECK(pen_outline(Ring{}, 3).empty());
}

TEST_CASE("where a ring crosses itself is told", "[geometry]") {
    const auto at = self_crossing({{0, 0}, {20, 20}, {20, 0}, {0, 20}});
    REQUIRE(at);
    CHECK(at->x == Approx(10));
    CHECK(at->y == Approx(10));
    CHECK_FALSE(self_crossing({{0, 0}, {20, 0}, {20, 20}, {0, 20}}));
    CHECK(largest({Ring{{0, 0}, {1, 0}, {0, 1}}, Ring{{0, 0}, {9, 0}, {0, 9}}}).at(1).x == 9);
    CHECK(largest({}).empty());
}
