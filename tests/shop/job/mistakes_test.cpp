// Makers' mistakes, each made and told, and silent where it is not made.
#include <catch2/catch.hpp>

#include "core/shop/edit/slab_edits.h"
#include "core/steps/rack/looked.h"
#include "tests/small_shop.h"

using namespace yb;

namespace {

std::string words(const Caution* c) { return c ? render(c->says, Units::metric()) : std::string(); }
bool has(const std::string& text, const char* part) { return text.find(part) != std::string::npos; }

}  // namespace

TEST_CASE("a slow thin resin in a taped crack is stopped, a thicker one is not", "[mistakes][fill][T3]") {
    SmallShop b;
    b.flaw(FlawKind::crack, box(1100, -2, 1400, 2)).through = true;
    b.j.leaves[0].voids = {{b.slab().flaws[0].id, "slow-deep", false, Soak::advised}};
    const Caution* c = b.says("fill.leak");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
    CHECK(words(c) ==
          "A thin slow resin in a taped crack 3.9 mm wide leaks overnight. Take a thicker, faster one in small rounds, or set the slab on "
          "a flat caulked board.");
    b.j.leaves[0].voids[0].resin = "medium";
    CHECK_FALSE(b.says("fill.leak"));
    // The advice by itself never makes the mistake.
    b.j.leaves[0].voids.clear();
    CHECK_FALSE(b.says("fill.leak"));
}

TEST_CASE("a sled out of tram leaves a step between lanes, one in tram none", "[mistakes][flat][T13]") {
    SmallShop b;
    b.heights(0);
    b.d.shop.sled.tram_mm = 0;
    CHECK_FALSE(b.says("flat.tram"));
    b.d.shop.sled.tram_mm = 0.3;  // over the cutter's width: half of it a lane, at half an overlap
    const Caution* c = b.says("flat.tram");
    REQUIRE(c);
    CHECK(b.last.flat->step_mm == Approx(0.15));
    CHECK(words(c) == "The sled is out of tram: every lane leaves a step of 0.1 mm. Shim the sled's base under the low side by 0.3 mm.");
}

TEST_CASE("which bolts are done up hard: on the line, and never those outside it", "[mistakes][under][T23]") {
    SmallShop b;
    b.j.under.plates = {{-600, 0, 100, 300, 3, 1}, {600, 0, 100, 300, 3, 1}};
    const Caution* c = b.says("under.tighten");
    REQUIRE(c);
    CHECK(has(words(c), "outside it snug"));
    int hard = 0;
    for (const Slot& s : b.last.under->slots) {
        CHECK(s.round == (std::abs(s.from_fixed_mm) < 1));
        hard += s.round;
    }
    CHECK(hard == 2);                                                          // the middle one of each plate
    b.j.under.plates = {{-600, 0, 100, 300, 1, 1}, {600, 0, 100, 300, 1, 1}};  // all of them on the line: none to leave snug
    CHECK_FALSE(b.says("under.tighten"));
}

TEST_CASE("a bolt in the middle of its slot in the dampest month is told", "[mistakes][under][T24]") {
    SmallShop b;
    b.j.under.plates = {{-600, 0, 100, 300, 3, 1}, {600, 0, 100, 300, 3, 1}};
    b.says("under.bolt_place");
    const double low = b.last.under->low_pct;
    const double high = b.last.under->high_pct;
    b.slab().moisture_pct.reset();
    b.j.under.day_moisture_pct = high;
    const Caution* damp = b.says("under.bolt_place");
    REQUIRE(damp);
    CHECK(damp->at);
    for (const Slot& s : b.last.under->slots)
        if (!s.round) CHECK(s.travel_out_mm == Approx(0).margin(0.02));  // all of its travel is inward still
    b.j.under.day_moisture_pct = (low + high) / 2;
    CHECK_FALSE(b.says("under.bolt_place"));
}

TEST_CASE("inserts hammered in, and anything that holds in end grain", "[mistakes][under][T25]") {
    SmallShop b;
    b.j.under.plates = {{-600, 0, 100, 300, 3, 1}, {600, 0, 100, 300, 3, 1}};
    CHECK_FALSE(b.says("under.hammer_in"));
    b.j.under.inserts = InsertKind::hammer_in;
    CHECK(b.says("under.hammer_in"));
    b.j.under.inserts = InsertKind::screw_in;
    CHECK_FALSE(b.says("under.hammer_in"));
    CHECK_FALSE(b.says("under.end_grain"));
    b.slab().cross_cut = true;
    const Caution* c = b.says("under.end_grain");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
    b.slab().cross_cut = false;
    CHECK_FALSE(b.says("under.end_grain"));
}

TEST_CASE("a channel under a plate: where, and how far to slide", "[mistakes][under][T27]") {
    SmallShop b;
    b.j.under.plates = {{-600, 0, 100, 300, 3, 1}, {600, 0, 100, 300, 3, 1}};
    b.j.under.channels = {{0, 0, 300, 40, 12, 3, 3}};
    CHECK_FALSE(b.says("under.clash"));
    b.j.under.channels[0].u_mm = 560;
    const Caution* c = b.says("under.clash");
    REQUIRE(c);
    CHECK(has(words(c), "Channel 1 runs under plate 2"));
    CHECK(c->at->x == Approx(1200 + 560));  // on its slab, whose middle is the top's
    b.j.under.channels[0].u_mm = 500;       // 550 is the plate's edge, 520 the channel's
    CHECK_FALSE(b.says("under.clash"));
}

TEST_CASE("plates past the edge, and over an open river", "[mistakes][under][T32]") {
    SmallShop b;
    b.j.under.plates = {{-600, 0, 100, 380, 3, 1}, {600, 0, 100, 380, 3, 1}};
    CHECK_FALSE(b.says("under.outside"));
    b.j.under.plates[1].across_mm = 420;  // the top is 400 wide
    const Caution* c = b.says("under.outside");
    REQUIRE(c);
    CHECK(has(words(c), "late 2"));
    b.j.under.plates[1].across_mm = 380;
    CHECK_FALSE(b.says("under.outside"));
    b.lay(MakeUp::open_river, 1000);
    b.j.under.plates = {{0, 0, 100, 700, 3, 1}};
    const Caution* open = b.says("under.hole_in_river");
    REQUIRE(open);
    CHECK(open->severity == Severity::stop);
    b.j.under.plates[0].bolts_across = 2;  // one at each end, both in wood
    CHECK_FALSE(b.says("under.hole_in_river"));
}

TEST_CASE("what the rough cuts leave goes back on the rack with its tree, and what was read of it", "[mistakes][lay][T46]") {
    SmallShop b;
    b.slab().tree = "the one by the tarn";
    b.flaw(FlawKind::knot, box(100, -40, 180, 40)).depth_mm = 20;
    b.says("lay.flaw");
    const std::size_t before = b.d.slabs.size();
    make_rough_cuts(b.d, "job", b.last);
    int pieces = 0;
    bool knot = false;
    for (const auto& [id, s] : b.d.slabs) {
        if (id == "a" || id == "b") continue;
        ++pieces;
        INFO(s.name);
        CHECK(s.tree == "the one by the tarn");
        CHECK(s.species == b.slab().species);
        CHECK(s.moisture_pct == b.slab().moisture_pct);
        CHECK(s.tape.stations.back().x_mm - s.tape.stations.front().x_mm > 100);
        for (const Flaw& f : s.flaws) knot |= f.kind == FlawKind::knot;
    }
    CHECK(pieces == 2);
    CHECK(knot);  // it lay in the left one
    CHECK(b.d.slabs.size() == before + 2);
    // One that came without a tree says so on the rack.
    Slab lost = b.slab();
    lost.tree.clear();
    const auto asked = [](const Slab& s) {
        const auto all = looked_at(s, shape_of(s));
        return std::any_of(all.begin(), all.end(), [](const LookedAt& l) { return l.key == std::string("tree") && !l.known; });
    };
    CHECK(asked(lost));
    CHECK_FALSE(asked(b.slab()));
}

TEST_CASE("every lane is fed against the cutter, and the caution says so while a router does it", "[mistakes][flat][T47]") {
    SmallShop b;
    b.heights(0);
    const Caution* c = b.says("flat.feed");
    REQUIRE(c);
    CHECK(has(words(c), "against the cutter's turning"));
    // Every lane next to one already cut in its layer has what is still to cut on the left of its feed, whichever way it runs.
    for (const LaneWay way : {LaneWay::across, LaneWay::along}) {
        b.j.flat.lanes = way;
        b.says("flat.feed");
        int beside = 0;
        for (const FacePlan& f : b.last.flat->faces)
            for (std::size_t i = 1; i < f.passes.size(); ++i) {
                const LanePass& one = f.passes[i - 1];
                const LanePass& next = f.passes[i];
                if (one.layer != next.layer) continue;
                const double left = cross(one.to - one.from, next.from - one.from);
                if (std::abs(left) < 1) continue;  // the same lane goes on past a hollow
                CHECK(left > 0);
                ++beside;
            }
        CHECK(beside > 10);
    }
    b.j.flat.by = FlatBy::bought_flat;
    CHECK_FALSE(b.says("flat.feed"));
}

TEST_CASE("dust, a hot cup and lifting alone are said where they arise", "[mistakes][T48]") {
    SmallShop b;
    CHECK(has(words(b.says("flat.feed")), "Dust: extraction and a respirator"));
    CHECK_FALSE(b.says("pour.cup"));
    b.lay(MakeUp::river, 1000);
    b.j.fill.river = "quick";
    CHECK(b.says("pour.cup"));
    b.j.fill.river = "slow-deep";
    b.j.pour.cup_l = 0.5;
    CHECK_FALSE(b.says("pour.cup"));
    b = SmallShop();
    b.j.top = {2300, 490, 48, 740, LiveEdges::none, 0, TopShape::rectangle, {}};
    const Caution* alone = b.says("under.lift");
    REQUIRE(alone);
    CHECK(b.last.under->top_kg > 25);
    CHECK(has(words(alone), "An estimate; your judgement and local rules stand above it"));
    b.j.under.helpers = 2;
    CHECK_FALSE(b.says("under.lift"));
}
