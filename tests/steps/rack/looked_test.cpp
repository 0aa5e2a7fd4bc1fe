// Looking a slab over: blanks that fill in any order, and no cautions for what nobody looked at yet.
#include <catch2/catch.hpp>

#include <algorithm>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/rack/looked.h"
#include "demo/demo.h"
#include "tests/planks.h"

using namespace yb;

namespace {

std::vector<LookedAt> all(const Slab& s) { return looked_at(s, shape_of(s)); }
const LookedAt& at(const std::vector<LookedAt>& list, const std::string& key) {
    return *std::find_if(list.begin(), list.end(), [&](const LookedAt& l) { return l.key == key; });
}
int known(const Slab& s) {
    const auto list = all(s);
    return static_cast<int>(std::count_if(list.begin(), list.end(), [](const LookedAt& l) { return l.counted && l.known; }));
}

}  // namespace

TEST_CASE("a new slab is nine blanks and two names, and no caution", "[rack][looked]") {
    const Slab s;
    const auto list = all(s);
    REQUIRE(list.size() == 11);
    CHECK(std::count_if(list.begin(), list.end(), [](const LookedAt& l) { return l.counted; }) == 9);
    CHECK(std::none_of(list.begin(), list.end(), [](const LookedAt& l) { return l.known; }));
    for (const LookedAt& l : list) CHECK_FALSE(l.says.empty());
    CHECK(prepare(s, false)->cautions.empty());
}

TEST_CASE("each reading fills its own blank, in any order", "[rack][looked]") {
    Slab s;
    s.price = 240;
    CHECK(known(s) == 1);
    s.moisture_pct = 11;
    CHECK(known(s) == 2);
    CHECK(render(at(all(s), "moisture").says, Units::metric()) == "11 %, its day not said");
    s.moisture_on = "2026-11-20";
    CHECK(render(at(all(s), "moisture").says, Units::metric()) == "11 %, read 2026-11-20");
    s.tape.stations = {{0, 200, 210, {}, {}, {}, {}}, {2000, 190, 205, {}, {}, {}, {}}};
    CHECK(at(all(s), "edges").known);
    CHECK_FALSE(at(all(s), "thickness").known);
    CHECK(known(s) == 3);
    s.tape.stations[0].thickness_mm = 52;
    CHECK(known(s) == 4);
    CHECK(at(all(s), "edges").says.value(1) == Approx(395).margin(1));
    s.no_flaws = s.no_pith = s.faces_looked = true;
    CHECK(known(s) == 7);
    CHECK(render(at(all(s), "flaws").says, Units::metric()) == "none found");
    s.heights_a = {{0, 1000, 2000}, {-100, 100}, std::vector<std::optional<double>>(6, 1.0)};
    s.picture_b = FacePicture{};
    CHECK(known(s) == 9);
    CHECK_FALSE(at(all(s), "wood").known);
    s.species = "butternut", s.tree = "by the ferry";
    CHECK(at(all(s), "tree").known);
    // A pith that is drawn, or seen at the end, is known.
    s.no_pith = false;
    CHECK(known(s) == 8);
    s.pith_mm = -80;
    CHECK(at(all(s), "pith").says.value(0) == 80);
    Slab disc = s;
    disc.pith_mm.reset();
    disc.cross_cut = true;
    CHECK(at(all(disc), "pith").known);
    const auto& demo = demo_shop().slabs.at("slab-sycamore-3");
    CHECK(at(looked_at(demo, shape_of(demo)), "flaws").known);
}

TEST_CASE("what a job needs and is still a blank is told where the job needs it", "[rack][looked][lay][flat]") {
    Slab s = plank("p", 2400, 900, 50, "butternut");
    const Job j = on(s, {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
    Plan p = plan_job(j, s, Shop());
    CHECK(find_caution(p.flat->cautions, "flat.guess"));
    CHECK_FALSE(find_caution(p.rack.cautions, "rack.no_heights"));
    s.heights_a = {{0, 1200, 2400}, {-400, 400}, std::vector<std::optional<double>>(6, 0.0)};
    CHECK_FALSE(find_caution(plan_job(j, s, Shop()).flat->cautions, "flat.guess"));
    for (Station& t : s.tape.stations) t.left_mm.reset(), t.right_mm.reset();
    REQUIRE(find_caution(shape_of(s).cautions, "rack.edges"));
    p = plan_job(j, s, Shop());
    CHECK_FALSE(find_caution(p.rack.cautions, "rack.edges"));
    REQUIRE(find_caution(p.lay->cautions, "lay.unmeasured"));
    CHECK(find_caution(p.lay->cautions, "lay.unmeasured")->severity == Severity::stop);
    Slab bare = plank("p", 2400, 900, 50);
    for (Station& t : bare.tape.stations) t.thickness_mm.reset();
    REQUIRE(find_caution(shape_of(bare).cautions, "rack.thickness"));
    CHECK(prepare(bare, false)->cautions.empty());
    // What is known and wrong stays a caution.
    Slab wrong = plank("p", 2400, 900, 50);
    wrong.tape.stations[1].left_mm = -600;
    CHECK_FALSE(prepare(wrong, false)->cautions.empty());
}
