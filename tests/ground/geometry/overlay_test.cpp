// Overlays with their shortcuts against slow ways that share nothing with them.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/ground/geometry/geometry.h"

using namespace yb;

namespace {

/// A star-shaped ring: simple by construction.
Ring star(std::mt19937& dice, Vec2 middle, double radius, int points) {
    std::uniform_real_distribution<double> share(0.5, 1);
    Ring r;
    for (int i = 0; i < points; ++i) {
        const double t = 2 * 3.14159265358979 * i / points;
        r.push_back(middle + Vec2{std::cos(t), std::sin(t)} * (radius * share(dice)));
    }
    return r;
}

/// Area of both rings' overlap by columns: exact widths every so many mm.
double by_columns(const Ring& a, const Ring& b, double step) {
    const Box box = bounds(a);
    double sum = 0;
    for (double x = box.low.x + step / 2; x < box.high.x; x += step)
        for (const Span1 s : cut_at_x(a, x))
            for (const Span1 t : cut_at_x(b, x)) sum += std::max(0.0, std::min(s.to, t.to) - std::max(s.from, t.from)) * step;
    return sum;
}

}  // namespace

TEST_CASE("an overlap's area is that of a count by columns, whether inside, across or apart", "[geometry]") {
    std::mt19937 dice(4);
    std::uniform_real_distribution<double> place(-260, 260);
    int inside = 0;
    int apart = 0;
    int across = 0;
    for (int round = 0; round < 300; ++round) {
        const Ring big = star(dice, {0, 0}, 200, 90);
        const Ring small = star(dice, {place(dice), place(dice)}, 40, 11);
        const double got = intersection_area(small, big);
        const double sum = by_columns(small, big, 0.05);
        INFO(round);
        CHECK(got == Approx(sum).margin(0.004 * area(small) + 0.5));
        CHECK(got == Approx(intersection_area(big, small)).margin(1e-6));  // the other way round takes no shortcut
        double parts = 0;
        for (const Ring& r : intersection(small, big)) {
            CHECK(signed_area(r) > 0);
            parts += area(r);
        }
        CHECK(parts == Approx(got).margin(1e-6));
        (got == 0 ? apart : got > area(small) - 1e-6 ? inside : across) += 1;
    }
    CHECK(inside > 20);
    CHECK(apart > 20);
    CHECK(across > 20);
}

TEST_CASE("a small ring that crosses itself is not taken at its word", "[geometry]") {
    const Ring big{{-100, -100}, {100, -100}, {100, 100}, {-100, 100}};
    const Ring bow{{0, 0}, {20, 20}, {20, 0}, {0, 20}};  // two triangles of 100 mm² each; its signed area is nothing
    CHECK(signed_area(bow) == Approx(0).margin(1e-9));
    CHECK(intersection_area(bow, big) == Approx(200));
}

TEST_CASE("a ring is simplified within its tolerance", "[geometry]") {
    Ring circle;
    for (int i = 0; i < 720; ++i) circle.push_back(Vec2{std::cos(i * 3.14159265 / 360), std::sin(i * 3.14159265 / 360)} * 300);
    const Ring few = simplified(circle, 0.25);
    CHECK(few.size() < 150);
    CHECK(few.size() > 20);
    for (const Vec2 p : circle) {
        double nearest = 1e300;
        for (std::size_t i = 0, j = few.size() - 1; i < few.size(); j = i++) {
            const Vec2 side = few[i] - few[j];
            const double t = std::clamp(dot(p - few[j], side) / dot(side, side), 0.0, 1.0);
            nearest = std::min(nearest, length(p - few[j] - side * t));
        }
        CHECK(nearest <= 0.25 + 1e-9);
    }
    const Ring bow{{0, 0}, {20, 20}, {20, 0}, {0, 20}};  // a ring that crosses itself keeps all its corners
    CHECK(simplified(bow, 0.1).size() == 4);
    CHECK(simplified({{0, 0}, {1, 0}, {1, 1}}, 5).size() == 3);
}
