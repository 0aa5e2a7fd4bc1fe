#include <catch2/catch.hpp>

#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/lay/lay.h"
#include "tests/everything.h"
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

TEST_CASE("an end crack is one that begins at the slab's end, and one that runs far in says what it costs", "[lay][T35]") {
    Wedge w;  // 2 m long
    const WantedTop top{1600, 600, 40, 740, LiveEdges::none, 0};
    const auto crack = [&](double from, double to) {
        w.slab.flaws = {{"c", FlawKind::crack, Face::a, {{from, -5}, {to, -5}, {to, 5}, {from, 5}}, true, {}, 1, ""}};
    };
    const auto said = [&](const char* key) -> std::string {
        const LayPlan p = w.lay(top, {1000, 0, 0, false, 30});
        const Caution* c = find_caution(p.cautions, key);
        return c ? render(c->says, Units::metric()) : std::string();
    };
    // Near the top's end and not at the slab's: a crack like any other, and one that is not wanted.
    crack(220, 340);
    CHECK(said("lay.end_crack").empty());
    CHECK(said("lay.flaw").find("you want none") != std::string::npos);
    // From the right end it runs 600 mm into a top that ends at 1800.
    crack(1200, 2000);
    CHECK(said("lay.end_crack").find("To cut it off costs 600 mm of length and leaves 1000 mm") != std::string::npos);
    // A top that lies end for end on the slab has the same crack at its other end.
    const LayPlan turned = w.lay(top, {1000, 0, 180, false, 30});
    const Caution* c = find_caution(turned.cautions, "lay.end_crack");
    REQUIRE(c);
    CHECK(c->ask("further_in_mm") == Approx(600));
}

TEST_CASE("the search for a place keeps out what is not wanted and takes in what is sought", "[lay]") {
    // 2.6 m by 700 for a top of 1.4 m by 500: rot in the middle third, a fine knot at the right end.
    Slab s = plank("w", 2600, 700, 50);
    const auto square = [](const char* id, FlawKind kind, double x, double y, double half) {
        return Flaw{id,    kind, Face::a, {{x - half, y - half}, {x + half, y - half}, {x + half, y + half}, {x - half, y + half}},
                    false, 10,   1,       ""};
    };
    s.flaws = {square("rot", FlawKind::soft, 900, 0, 120), square("knot", FlawKind::knot, 1500, 200, 60)};
    const SlabShape shape = shape_of(s);
    WantedTop top{1400, 500, 40, 740, LiveEdges::none, 0};
    const auto inside = [&](const Placement& p) {
        std::vector<FlawKind> out;
        for (const FlawInside& f : plan_lay({s, shape, top, p}).flaws) out.push_back(s.flaws[f.index].kind);
        return out;
    };
    const Placement start{1300, 0, 0, false, 30};
    REQUIRE(inside(start).size() == 2);
    Placement p = best_placement({s, shape, top, start});
    CHECK(plan_lay({s, shape, top, p}).fits);
    for (const FlawKind k : inside(p)) CHECK(k != FlawKind::soft);
    // By hand: right of the rot there are 1580 mm, so a top of 1400 lies there; with the knot kept out too nothing is free of both.
    top.flaws.knot = Wish::avoid;
    p = best_placement({s, shape, top, start});
    CHECK(plan_lay({s, shape, top, p}).fits);
    CHECK(against_wishes(s, top.flaws, p.frame().to_slab(outline_of(top))) <= 120 * 120 + 1);
    // Sought instead, the whole knot is in it.
    top.flaws.knot = Wish::seek;
    p = best_placement({s, shape, top, start});
    CHECK(against_wishes(s, top.flaws, p.frame().to_slab(outline_of(top))) == Approx(-0.5 * 120 * 120 * 1.0).margin(1.0));
    // As they come, nothing moves a top that fits where it lies.
    top.flaws = {Wish::allow, Wish::allow, Wish::allow, Wish::allow, Wish::allow, Wish::allow, Wish::allow, Wish::allow};
    CHECK(best_placement({s, shape, top, start}) == start);
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

TEST_CASE("the face with the wide side up makes its own chamfer, and the other is told", "[lay]") {
    Slab s = plank("slant", 2000, 600, 50);
    s.tape.lean_left_mm = s.tape.lean_right_mm = -15;  // face B is narrower by 15 on each side
    const auto said = [&](LiveEdges live) -> std::string {
        const SlabShape shape = shape_of(s);
        const LayPlan p = plan_lay({s, shape, {1600, 500, 40, 740, live, 0}, {1000, 0, 0, false, 30}});
        const Caution* c = find_caution(p.cautions, "lay.slant");
        return c ? render(c->says, Units::metric()) : std::string();
    };
    CHECK(said(LiveEdges::both).find("15.0 mm on the mean: a chamfer by themselves") != std::string::npos);
    CHECK(said(LiveEdges::none).empty());
    s.tape.lean_left_mm = s.tape.lean_right_mm = 15;
    CHECK(said(LiveEdges::left).find("lean out below the show face, 15.0 mm on the mean. Turned over") != std::string::npos);
    s.tape.lean_left_mm = s.tape.lean_right_mm = 2;
    CHECK(said(LiveEdges::both).empty());
}
