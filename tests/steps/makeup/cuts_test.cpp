// The cut list: what the rail is set to, told again from the list alone by laying it on the slab.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

std::vector<Cut> of(const CutList& list, CutKind kind) {
    std::vector<Cut> out;
    for (const Cut& c : list.cuts)
        if (c.kind == kind) out.push_back(c);
    return out;
}

}  // namespace

TEST_CASE("one slab: ends, sides and what falls off", "[cuts]") {
    const Slab s = plank("p", 2600, 900, 50);
    Job j = on(s, {2000, 800, 40, 740, LiveEdges::left, 6, TopShape::rectangle, {}});
    const CutList list = *plan_job(j, s, Shop()).cuts;
    // Rough: 30 beyond each end of a top in the middle of 2600.
    const auto rough = of(list, CutKind::rough);
    REQUIRE(rough.size() == 2);
    CHECK(rough[0].from.x == Approx(270));
    CHECK(rough[1].from.x == Approx(2330));
    CHECK(rough[0].length_mm >= 900);
    const auto ends = of(list, CutKind::ends);
    REQUIRE(ends.size() == 2);
    CHECK(length(ends[0].from - ends[0].to) == Approx(ends[0].length_mm));
    CHECK(ends[1].from.x - ends[0].from.x == Approx(2000));
    CHECK(render(ends[1].set, {}).find("2000 mm from the other end") != std::string::npos);
    // One live edge stays: one side is cut, half the width from the middle line.
    const auto sides = of(list, CutKind::sides);
    REQUIRE(sides.size() == 1);
    CHECK(sides[0].from.y == Approx(-400));
    CHECK(of(list, CutKind::rip).empty());
    // 270 fall off at both ends, less the kerf.
    REQUIRE(list.offcuts.size() == 2);
    for (const Offcut& o : list.offcuts) {
        CHECK(o.length_mm == Approx(270 - j.makeup.rip_kerf_mm));
        CHECK(o.width_mm == Approx(900).margin(0.5));
    }
    double dust = 0;
    for (const Cut& c : list.cuts) dust += c.length_mm * j.makeup.rip_kerf_mm * 1e-6;
    CHECK(list.kerf_m2 == Approx(dust));
    // Where the top ends with the slab there is nothing to rough-cut.
    j.top.length_mm = 2600;
    j.first().placement.oversize_mm = 0;
    CHECK(of(*plan_job(j, s, Shop()).cuts, CutKind::rough).empty());
}

TEST_CASE("a top in two halves is cut across where it was said", "[cuts]") {
    const Slab s = plank("p", 2600, 900, 50);
    Job j = on(s, {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
    j.makeup.halves_u_mm = -200;
    const auto ends = of(*plan_job(j, s, Shop()).cuts, CutKind::ends);
    REQUIRE(ends.size() == 3);
    CHECK(ends[2].from.x == Approx(1300 - 200));
    CHECK(render(ends[2].set, {}).find("two halves") != std::string::npos);
    j.makeup.halves_u_mm = 1200;  // beyond the end: no cut
    CHECK(of(*plan_job(j, s, Shop()).cuts, CutKind::ends).size() == 2);
}

TEST_CASE("rounds and free forms are cut by compass and template", "[cuts]") {
    const Slab s = plank("p", 2600, 900, 50);
    Job j = on(s, {800, 800, 40, 740, LiveEdges::none, 4, TopShape::round, {}});
    auto sides = of(*plan_job(j, s, Shop()).cuts, CutKind::sides);
    REQUIRE(sides.size() == 1);
    CHECK(render(sides[0].set, {}).find("radius 400 mm") != std::string::npos);
    CHECK(of(*plan_job(j, s, Shop()).cuts, CutKind::ends).empty());
    set_free_form(j, box(-300, -200, 300, 200));
    sides = of(*plan_job(j, s, Shop()).cuts, CutKind::sides);
    CHECK(render(sides[0].set, {}).find("template") != std::string::npos);
}

TEST_CASE("every rip of the demo's make-ups lies on its leaf, as long and as far in as the list says", "[cuts]") {
    const Documents d = demo_shop();
    int rips = 0;
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        for (const Cut& c : of(*p.cuts, CutKind::rip)) {
            INFO(id << " " << c.slab);
            ++rips;
            CHECK(c.after_flat);
            CHECK(length(c.to - c.from) == Approx(c.length_mm));
            CHECK(c.length_mm == Approx(job.top.length_mm).epsilon(0.001));
            const LeafPlan& leaf = p.leaves.at(c.leaf);
            CHECK(leaf.slab().name == c.slab);
            // Clean joints: the line lies in the wood of both faces all along, less half a millimetre.
            for (double t = 0.02; t < 1; t += 0.03) {
                const Vec2 at = lerp(c.from, c.to, t);
                const auto a = cut_at_x(leaf.shape().ring_a, at.x);
                REQUIRE_FALSE(a.empty());
                CHECK(at.y > a.front().from - 0.6);
                CHECK(at.y < a.back().to + 0.6);
            }
            // What the rail is set to: the distance in from the edge at both of its ends.
            REQUIRE(c.set.values.size() >= 4);
            Vec2 first = c.from;
            Vec2 second = c.to;
            if (first.x > second.x) std::swap(first, second);
            for (const auto& [at, in] : {std::pair(first, c.set.value(0)), std::pair(second, c.set.value(2))}) {
                const auto cut = cut_at_x(leaf.shape().ring_a, std::clamp(at.x, leaf.shape().x0 + 1, leaf.shape().x1 - 1));
                const double low = at.y - cut.front().from;
                const double high = cut.back().to - at.y;
                CHECK((std::abs(in - low) < 1e-6 || std::abs(in - high) < 1e-6));
            }
        }
    }
    CHECK(rips == 10);  // three joints of the four boards, both leaves of each
}

TEST_CASE("no cut comes before what it needs", "[cuts]") {
    const Documents d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        INFO(id);
        const CutList list = *plan_job(job, d).cuts;
        bool flat = false;
        for (const Cut& c : list.cuts) {
            flat = flat || c.after_flat;
            CHECK((c.after_flat || !flat));  // once flat is needed nothing rough follows
            CHECK_FALSE(render(c.set, {}).empty());
        }
        for (const Offcut& o : list.offcuts) {
            CHECK(o.length_mm > 60);
            CHECK_FALSE(o.name.empty());
        }
    }
}
