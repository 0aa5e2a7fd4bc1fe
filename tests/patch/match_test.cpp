// Which wood of the rack passes for the wood it is let into.
#include <catch2/catch.hpp>

#include "core/patch/match.h"

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
