// Read at the yard: by hand, and against grown slabs whose faces are known.
#include <algorithm>
#include <random>
#include <stdexcept>

#include <catch2/catch.hpp>

#include "core/material/tree/saw.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/yard.h"
#include "tests/how_much.h"
#include "tests/planks.h"

using namespace yb;

TEST_CASE("six readings become nine heights and are read back from them", "[flat][yard]") {
    const YardLines lines{50, 2450, -300, 300};
    const YardReading r{6, 4, 1, 3, 2, 9};
    const HeightGrid g = yard_grid(lines, r);
    CHECK(g.x_mm == std::vector<double>{50, 1250, 2450});
    CHECK(g.y_mm == std::vector<double>{-300, 0, 300});
    // By hand, near stick and right line level at 0: far left corner 9, middle of the left line 4.5 − 6, of the right −4.
    const auto height = [&](std::size_t i, std::size_t j) { return *g.at(0, 0) - *g.at(i, j); };
    CHECK(height(2, 2) == Approx(9));
    CHECK(height(1, 2) == Approx(-1.5));
    CHECK(height(1, 0) == Approx(-4));
    CHECK(height(0, 1) == Approx(-1));
    CHECK(height(1, 1) == Approx((-1.5 - 4) / 2 - 3));
    CHECK(height(2, 1) == Approx(4.5 - 2));
    CHECK(*std::min_element(g.gap_mm.begin(), g.gap_mm.end()) == 0.0);
    const auto back = yard_reading(g);
    REQUIRE(back);
    CHECK(back->bow_left_mm == Approx(6));
    CHECK(back->bow_right_mm == Approx(4));
    CHECK(back->cup_from_mm == Approx(1));
    CHECK(back->cup_middle_mm == Approx(3));
    CHECK(back->cup_to_mm == Approx(2));
    CHECK(back->twist_mm == Approx(9));
    // Two sticks on one station say nothing of twist.
    CHECK_THROWS_WITH(yard_grid({400, 400, -300, 300}, r), Catch::Contains("one station"));
    CHECK_THROWS_WITH(yard_grid({50, 2450, 100, 100}, r), Catch::Contains("one place"));
    CHECK_THROWS_AS(yard_grid(lines, {std::nan(""), 0, 0, 0, 0, 0}), std::invalid_argument);
    CHECK_FALSE(yard_reading(HeightGrid()));
}

TEST_CASE("bow, cup and twist by themselves cost what they are by hand", "[flat][yard]") {
    Slab s = plank("y", 2000, 600, 50);
    const SlabShape flat = shape_of(s);
    const auto lines = yard_lines(flat);
    REQUIRE(lines);
    const auto finish = [&](YardReading r) {
        s.heights_a = yard_grid(*lines, r);
        const auto f = yard_finish(s, shape_of(s));
        REQUIRE(f);
        return f->thick_mm;
    };
    CHECK(finish({}) == Approx(50).margin(0.01));
    // A parabola of 8 over 1900 is 8·(2000/1900)² over the whole length; both faces alike, it all comes off.
    CHECK(finish({8, 8, 0, 0, 0, 0}) == Approx(50 - 8 * std::pow(2000.0 / 1900, 2)).margin(0.1));
    CHECK(finish({0, 0, 3, 3, 3, 0}) == Approx(50 - 3 * std::pow(600.0 / 520, 2)).margin(0.1));
    // A twist of 10 over the lines: tilted evenly a corner stands out by a quarter of it to either side of the plane.
    const double corner = 10 * (2000.0 / 1900) * (600.0 / 520) / 4;
    CHECK(finish({0, 0, 0, 0, 0, 10}) == Approx(50 - 2 * corner).margin(0.1));
    CHECK_FALSE(yard_finish(plank("n", 2000, 600, 50), flat));  // nothing was read
}

TEST_CASE("what grown slabs finish at lies in the band of six readings to a millimetre nine times in ten", "[flat][yard][truth]") {
    const int wanted = so_many(100, 300);
    int inside = 0;
    int asked = 0;
    double wide = 0;
    double off = 0;
    for (std::uint64_t seed = 1; asked < wanted; ++seed) {
        const GrownLog log(drawn_recipe(seed, seed % 2 ? "sycamore, American" : "maple, bigleaf",
                                        1800 + 100.0 * static_cast<double>(seed % 12), 480 + 10.0 * static_cast<double>(seed % 15)));
        SawPlan saw;
        saw.thickness_mm = 52 + static_cast<double>(seed % 20);
        saw.least_width_mm = 300;
        DryPlan dry;
        dry.bow_mm = 3 + static_cast<double>(seed % 9), dry.twist_deg = 0.3 + 0.2 * static_cast<double>(seed % 6);
        const auto boards = boards_of(log, saw);
        std::mt19937 dice(static_cast<unsigned>(seed) * 7 + 1);
        const auto to_a_mm = [&](double v) { return std::round(v + (static_cast<double>(dice()) / 4294967296.0 - 0.5)); };
        for (std::size_t k = 0; k < boards.size() && asked < wanted; k += 3) {
            SawnSlab made = make_slab(log, boards[k], saw, dry, {0, false});
            made.slab.heights_a = made.slab.heights_b = {};
            const auto lines = yard_lines(shape_of(made.slab));
            if (!lines) continue;
            const Surface& top = made.truth.top;
            const auto gap = [&](Vec2 a, Vec2 b) { return to_a_mm((top.at(a) + top.at(b)) / 2 - top.at(lerp(a, b, 0.5))); };
            const auto across = [&](double x) { return gap({x, lines->right_mm}, {x, lines->left_mm}); };
            const auto rises = [&](double x) { return top.at({x, lines->left_mm}) - top.at({x, lines->right_mm}); };
            const double mid = (lines->from_mm + lines->to_mm) / 2;
            made.slab.heights_a =
                yard_grid(*lines, {gap({lines->from_mm, lines->left_mm}, {lines->to_mm, lines->left_mm}),
                                   gap({lines->from_mm, lines->right_mm}, {lines->to_mm, lines->right_mm}), across(lines->from_mm),
                                   across(mid), across(lines->to_mm), to_a_mm(rises(lines->to_mm) - rises(lines->from_mm))});
            const auto f = yard_finish(made.slab, shape_of(made.slab));
            const auto truth = thickest_inside(made.truth, largest(intersection(made.truth.ring_a, made.truth.ring_b)));
            if (!f || !truth) continue;
            ++asked;
            inside += *truth >= f->low_mm && *truth <= f->high_mm;
            wide += (f->high_mm - f->low_mm) / 2;
            off += f->thick_mm - *truth;
            if (in_full())
                std::printf("%llu/%zu said %.1f (%.1f to %.1f), truth %.1f\n", static_cast<unsigned long long>(seed), k, f->thick_mm,
                            f->low_mm, f->high_mm, *truth);
        }
    }
    INFO(inside << " of " << asked << " inside, band ±" << wide / asked << " mm, off by " << off / asked << " on the mean");
    CHECK(inside >= asked * 9 / 10);
    CHECK(inside <= asked * 98 / 100);  // and is no wider than it says
    CHECK(wide / asked < 2);
    CHECK(std::abs(off / asked) < 1);
}
