#include <catch2/catch.hpp>

#include "core/steps/lay/lay.h"
#include "tests/everything.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "tests/planks.h"

using namespace yb;

namespace {
/// Left edge at 400, right edge running from 400 in to 300 at the right end.
struct Wedge {
    Slab slab;
    SlabShape shape;
    Wedge() {
        slab.id = "wedge";
        slab.tape.stations = {{0, 400, 400, {}, {}, 50, {}}, {2000, 400, 300, {}, {}, 50, {}}};
        shape = shape_of(slab);
    }
    LayPlan lay(WantedTop t, Placement p) const { return plan_lay({slab, shape, t, p}); }
};
}  // namespace

TEST_CASE("a top that fits says what is to spare", "[lay]") {
    const Wedge w;
    const LayPlan p = w.lay({1600, 600, 40, 740, LiveEdges::none, 0}, {1000, 0, 0, false, 30});
    CHECK(p.fits);
    CHECK(p.rough_length_mm == Approx(1660));
    CHECK(p.width_left_mm == Approx(600));
    CHECK(area(p.outline) == Approx(1600 * 600));
}

TEST_CASE("the shortfall has its place and size", "[lay]") {
    const Wedge w;
    // The right edge stands at -(400 - x/20): at x = 1800 it is 310 from the line; 330 is wanted.
    const LayPlan p = w.lay({1600, 660, 40, 740, LiveEdges::none, 0}, {1000, 0, 0, false, 30});
    REQUIRE_FALSE(p.fits);
    CHECK(p.short_at.front().mm == Approx(20).margin(1e-6));
    CHECK(p.short_at.front().at.x == Approx(1800));
    CHECK(p.short_at.front().side == Side::right);
    REQUIRE(find_caution(p.cautions, "lay.short"));
    CHECK(find_caution(p.cautions, "lay.short")->severity == Severity::stop);
}

TEST_CASE("past the end is short too", "[lay]") {
    const Wedge w;
    const LayPlan p = w.lay({1600, 300, 40, 740, LiveEdges::none, 0}, {1250, 0, 0, false, 30});
    REQUIRE_FALSE(p.fits);
    CHECK(p.short_at.front().mm == Approx(50));
    CHECK(p.short_at.front().side == Side::right_end);
}

TEST_CASE("live edges: widths at both ends and the taper", "[lay][T2]") {
    const Wedge w;
    const LayPlan p = w.lay({1600, 650, 40, 740, LiveEdges::both, 0}, {1000, 0, 0, false, 30});
    CHECK(p.fits);
    CHECK(p.width_left_mm == Approx(790));
    CHECK(p.width_right_mm == Approx(710));
    CHECK(p.narrowest_mm == Approx(710));
    CHECK(find_caution(p.cautions, "lay.taper"));
    CHECK(area(p.outline) == Approx(1600 * 750));
    const LayPlan one = w.lay({1600, 650, 40, 740, LiveEdges::left, 0}, {1000, 0, 0, false, 30});
    // The sawn side runs at -325 where the slab ends at -310.
    CHECK(one.short_at.front().mm == Approx(15));
    // Four schools, each with its consequence, one of them chosen.
    REQUIRE(one.choices.size() == 1);
    int chosen = 0;
    for (const Option& o : one.choices[0].options) chosen += o.chosen;
    CHECK(one.choices[0].options.size() == 4);
    CHECK(chosen == 1);
}

TEST_CASE("flaws inside are cut to the outline", "[lay]") {
    Wedge w;
    w.slab.flaws.push_back({"c", FlawKind::crack, Face::a, {{0, -5}, {300, -5}, {300, 5}, {0, 5}}, true, {}, 1, ""});
    const LayPlan p = w.lay({1600, 600, 40, 740, LiveEdges::none, 0}, {1000, 0, 0, false, 30});
    REQUIRE(p.flaws.size() == 1);
    CHECK(p.flaws[0].area_mm2 == Approx(100 * 10));
    const Caution* c = find_caution(p.cautions, "lay.end_crack");
    REQUIRE(c);
    CHECK(render(c->says, Units::metric()).find("100 mm further in clears it and leaves 1500 mm") != std::string::npos);
}

TEST_CASE("sliding to the best fit mends what can be mended", "[lay]") {
    const Wedge w;
    const WantedTop t{1600, 660, 40, 740, LiveEdges::none, 0};
    const Placement best = best_placement({w.slab, w.shape, t, {1000, -60, 0, false, 30}});
    CHECK(w.lay(t, best).fits);
}

TEST_CASE("a pith that lies inside the leaf is told with how far it is from a face [T44]", "[lay][T44]") {
    Slab s = plank("p", 2000, 600, 50);
    const auto says = [&](WantedTop top, double y = 0) {
        Job j = on(s, top);
        j.leaves.front().placement.y_mm = y;
        const LayPlan p = *plan_job(j, s, Shop()).lay;
        const Caution* c = find_caution(p.cautions, "lay.pith");
        return c ? std::optional(c->says.value(0)) : std::nullopt;
    };
    const WantedTop wide{1600, 500, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}};
    CHECK_FALSE(says(wide));
    s.pith_mm = 80;  // of another board
    CHECK_FALSE(says(wide));
    s.pith_mm = 10;
    REQUIRE(says(wide));
    CHECK(*says(wide) == Approx(15));
    s.pith_mm = -10;
    CHECK(*says(wide) == Approx(15));
    // A narrow top beside it is clear of it.
    CHECK_FALSE(says({1600, 200, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}}, 150));
    // Drawn as a flaw it is told once, as it was drawn.
    s.flaws.push_back({"pith", FlawKind::pith, Face::a, box(300, -5, 1700, 5), false, {}, 1, ""});
    Job j = on(s, wide);
    const LayPlan p = *plan_job(j, s, Shop()).lay;
    CHECK(std::count_if(p.cautions.begin(), p.cautions.end(), [](const Caution& c) { return c.key == "lay.pith"; }) == 1);
}
