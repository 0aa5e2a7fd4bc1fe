// Which wood of the rack passes for the wood it is let into.
#include <catch2/catch.hpp>

#include "core/ground/picture/colour.h"
#include "core/steps/patch/match.h"

using namespace yb;

namespace {
Slab of(const char* species, const char* tree) {
    Slab s;
    s.species = species;
    s.tree = tree;
    return s;
}
}  // namespace

TEST_CASE("the same tree comes before the same wood, that before any other [T43]", "[patch][T43]") {
    const Slab under = of("butternut", "ferry lane");
    const double tree = patch_match(of("butternut", "ferry lane"), {}, under, {}).score;
    const double wood = patch_match(of("butternut", "mill"), {}, under, {}).score;
    const double other = patch_match(of("hackberry", "ferry lane"), {}, under, {}).score;
    CHECK(tree > wood);
    CHECK(wood > other);
    CHECK_FALSE(patch_match(of("hackberry", "ferry lane"), {}, under, {}).same_tree);  // a name alone makes no tree
    CHECK_FALSE(patch_match(of("", ""), {}, of("", ""), {}).same_wood);
    // An offcut spoils nothing whole.
    Slab offcut = of("butternut", "mill");
    offcut.cut_from = "slab-3";
    CHECK(patch_match(offcut, {}, under, {}).score > wood);
    // End grain in a face never.
    Slab disc = of("butternut", "ferry lane");
    disc.cross_cut = true;
    CHECK(patch_match(disc, {}, under, {}).score < wood);
}

TEST_CASE("rings that run alike and wood as dry count, by hand", "[patch]") {
    Slab from = of("sycamore", "a");
    Slab under = of("sycamore", "a");
    from.pith_mm = 100;
    under.pith_mm = 100;
    // At the pith's own line flat-sawn, as far out as the pith is deep 45°.
    CHECK(*patch_match(from, {0, 0}, under, {0, 100}).rings_deg == Approx(45));
    CHECK(*patch_match(from, {0, -100}, under, {500, 100}).rings_deg == Approx(0).margin(1e-9));
    CHECK(patch_match(from, {0, 100}, under, {0, 100}).score > patch_match(from, {0, 0}, under, {0, 100}).score);
    from.moisture_pct = 8, under.moisture_pct = 11;
    CHECK(*patch_match(from, {}, under, {}).moisture_pct == Approx(3));
    from.moisture_pct.reset();
    CHECK_FALSE(patch_match(from, {}, under, {}).moisture_pct);
}

TEST_CASE("colours are told apart as the tables have it", "[patch][colour]") {
    const Lab white = lab_of(255, 255, 255);
    CHECK(white.l == Approx(100).margin(1e-3));
    CHECK(white.a == Approx(0).margin(0.02));
    CHECK(white.b == Approx(0).margin(0.02));
    const Lab red = lab_of(255, 0, 0);
    CHECK(red.l == Approx(53.24).margin(0.02));
    CHECK(red.a == Approx(80.09).margin(0.05));
    CHECK(red.b == Approx(67.20).margin(0.05));
    CHECK(lab_of(119, 119, 119).l == Approx(50.03).margin(0.05));
    CHECK(colour_difference(white, lab_of(0, 0, 0)) == Approx(100).margin(0.05));
    Picture p(40, 20);
    for (int y = 0; y < 20; ++y)
        for (int x = 0; x < 40; ++x) std::fill_n(p.at(x, y), 3, static_cast<std::uint8_t>(x < 20 ? 119 : 255));
    CHECK(mean_colour(p, 8, 10, 5)->l == Approx(50.03).margin(0.05));
    CHECK(mean_colour(p, 30, 10, 5)->l == Approx(100).margin(1e-3));
    CHECK_FALSE(mean_colour(p, 90, 10, 5));
    CHECK_FALSE(mean_colour({}, 0, 0, 5));
}

TEST_CASE("of two pieces of one tree the one that looks like the wood under it comes first [T43]", "[patch][colour][T43]") {
    // 400 by 200 mm at 2 mm a point: dark on its left half, light on its right.
    const auto face = [] {
        Picture p(200, 100);
        for (int y = 0; y < 100; ++y)
            for (int x = 0; x < 200; ++x) {
                const bool dark = x < 100;
                p.at(x, y)[0] = dark ? 130 : 205, p.at(x, y)[1] = dark ? 90 : 170, p.at(x, y)[2] = dark ? 60 : 130;
            }
        return p;
    }();
    Slab under = of("butternut", "ferry lane");
    under.picture_a = FacePicture{"k", 2, 200, 100, {0, 100}, false};
    const auto at = [&](double x) { return patch_match(under, {x, 0}, under, {60, 0}, &face, &face); };
    REQUIRE(at(60).colour);
    CHECK(*at(60).colour == Approx(0).margin(1e-9));
    CHECK(*at(300).colour > 20);
    CHECK(at(60).score > at(300).score);
    // A thumbnail half as fine shows the same.
    Picture small(face.width / 2, face.height / 2);
    for (int y = 0; y < small.height; ++y)
        for (int x = 0; x < small.width; ++x)
            for (int c = 0; c < 3; ++c) {
                const auto of = [&](int i, int j) { return static_cast<int>(face.at(2 * x + i, 2 * y + j)[c]); };
                small.at(x, y)[c] = static_cast<std::uint8_t>((of(0, 0) + of(1, 0) + of(0, 1) + of(1, 1) + 2) / 4);
            }
    CHECK(*patch_match(under, {300, 0}, under, {60, 0}, &small, &face).colour == Approx(*at(300).colour).margin(0.5));
    // Without a picture, or off it, nothing is said of it.
    CHECK_FALSE(patch_match(under, {60, 0}, under, {60, 0}).colour);
    CHECK_FALSE(at(900).colour);
}
