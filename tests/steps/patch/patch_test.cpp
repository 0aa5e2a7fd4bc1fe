// Patches: where their pieces come from, and what is wrong with a place.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

/// A board of 2000 by 500, 50 thick, straight and sound, along x from 0, its middle on the chalk line.
Slab board(const char* id, double thick = 50) {
    Slab s;
    s.id = s.name = id;
    s.species = "sycamore, American";
    s.tree = "one tree";
    s.tape.stations = {{0, 250, 250, {}, {}, thick, {}}, {2000, 250, 250, {}, {}, thick, {}}};
    return s;
}

struct Bench {
    Documents docs;
    Job job;
    Bench() {
        for (const Slab& s : {board("top"), board("spare", 20), board("thin", 9)}) docs.slabs[s.id] = s;
        job.top = {1600, 400, 40, 740, LiveEdges::none, 4, TopShape::rectangle, {}};
        give_slab(job, docs.slabs.at("top"));
        job.makeup.patches.push_back({"patch-1", {{-60, -20}, {60, -20}, {60, 20}, {-60, 20}}, 8, "", {}, 0});
        docs.jobs["job"] = job;
    }
    Patch& patch() { return job.makeup.patches[0]; }
    Plan plan() const { return plan_job(job, docs); }
    bool cut_from(const char* id) { return cut_patch_from(job, 0, docs.slabs.at(id), plan()); }
    const Caution* says(const char* key) {
        last = plan();
        return find_caution(last.lay->cautions, key);
    }
    Plan last;
};

}  // namespace

TEST_CASE("a patch falls on its place on the slab it is cut from", "[patch]") {
    Patch p{"p", {{100, 50}, {220, 50}, {220, 90}, {100, 90}}, 8, "spare", {700, -30}, 90};
    const Ring on = on_patch_slab(p).frame().to_slab(p.outline);
    CHECK(centroid(on).x == Approx(700));
    CHECK(centroid(on).y == Approx(-30));
    CHECK(bounds(on).width() == Approx(40));  // turned by 90°, its length lies across
    CHECK(bounds(on).height() == Approx(120));
}

TEST_CASE("its piece is found clean, whole and from an end", "[patch]") {
    Bench b;
    REQUIRE(b.cut_from("spare"));
    CHECK(b.patch().at.x == Approx(80).margin(21));  // half its length from an end, on a grid of 20 mm
    CHECK_FALSE(b.says("lay.patch_off"));
    CHECK_FALSE(b.says("lay.patch_thin"));
    // A knot there sends it on; a second patch does not take the same wood.
    const Vec2 first = b.patch().at;
    Flaw knot{"k", FlawKind::knot, Face::a, {{0, -260}, {300, -260}, {300, 260}, {0, 260}}, false, 5.0, 1, ""};
    b.docs.slabs.at("spare").flaws.push_back(knot);
    REQUIRE(b.cut_from("spare"));
    CHECK(b.patch().at.x > 1900);  // the other end
    b.docs.slabs.at("spare").flaws.clear();
    b.patch().at = first;
    b.job.makeup.patches.push_back({"patch-2", {{300, -20}, {420, -20}, {420, 20}, {300, 20}}, 8, "", {}, 0});
    REQUIRE(cut_patch_from(b.job, 1, b.docs.slabs.at("spare"), b.plan()));
    CHECK_FALSE(b.says("lay.patch_twice"));
    b.job.makeup.patches[1].at = b.job.makeup.patches[0].at + Vec2{30, 0};
    REQUIRE(b.says("lay.patch_twice"));
    CHECK(b.says("lay.patch_twice")->severity == Severity::stop);
}

TEST_CASE("what is wrong with a patch's piece is said", "[patch]") {
    Bench b;
    b.cut_from("spare");
    b.patch().at = {30, 0};  // half of it is off the end
    REQUIRE(b.says("lay.patch_off"));
    CHECK(render(b.says("lay.patch_off")->says, {}).find("spare at 0.03 m") != std::string::npos);
    b.cut_from("thin");  // 9 mm, the recess is 8 deep and 3 are planed off
    REQUIRE(b.says("lay.patch_thin"));
    b.cut_from("spare");
    b.patch().at = {1000, 0};
    b.patch().turn_deg = 40;
    CHECK(b.says("lay.patch_grain"));
    b.patch().turn_deg = 180;  // end for end runs the grain along again
    CHECK_FALSE(b.says("lay.patch_grain"));
    b.patch().depth_mm = 35;
    CHECK(b.says("lay.patch_deep"));
    b.patch().slab = "gone";
    REQUIRE(b.says("lay.patch_slab"));
    CHECK(b.says("lay.patch_slab")->severity == Severity::stop);
    // The slab of the top itself has only its two ends left.
    b.patch().depth_mm = 8;
    REQUIRE(b.cut_from("top"));
    CHECK_FALSE(b.says("lay.patch_twice"));
    b.patch().at = {1000, 0};
    CHECK(b.says("lay.patch_twice"));
}

TEST_CASE("a slab with no room for the patch says so, and takes it in its middle", "[patch]") {
    Bench b;
    b.patch().outline = {{-60, -300}, {60, -300}, {60, 300}, {-60, 300}};  // wider than the board
    CHECK_FALSE(b.cut_from("spare"));
    CHECK(b.patch().at.x == Approx(1000));
    CHECK(b.says("lay.patch_off"));
}

TEST_CASE("the cut list tells recess and piece – the slab counts as taken", "[patch]") {
    Bench b;
    b.cut_from("spare");
    const Plan p = b.plan();
    REQUIRE_FALSE(p.cuts->cuts.empty());
    const Cut& c = p.cuts->cuts.back();
    CHECK(c.kind == CutKind::patch);
    const std::string set = render(c.set, {});
    CHECK(set.find("recess 8.0 mm deep, 120 mm by 40 mm") != std::string::npos);
    CHECK(set.find("from spare") != std::string::npos);
    CHECK(set.find("11.0 mm thick") != std::string::npos);
    CHECK(b.job.slabs() == std::vector<std::string>{"top", "spare"});
    CHECK_FALSE(b.job.uses("spare"));
}

TEST_CASE("a cross-cut moves from its pith, opens at the rim and holds no screws", "[under]") {
    const Documents d = demo_shop();
    Job j = d.jobs.at("job-round-hall");
    const Slab& disc = d.slabs.at(j.first().slab);
    REQUIRE(disc.cross_cut);
    j.under.day_moisture_pct = 12;
    const Plan p = plan_job(j, d);
    const Species& maple = *find_species(disc.species);
    CHECK(p.under->shrink_pct == Approx(*maple.shrink_radial_pct));
    const Caution* rim = find_caution(p.under->cautions, "under.rim_crack");
    REQUIRE(rim);
    // Round the rim: circumference × (tangential − radial), both by the handbook's equation.
    const double round = 3.14159265 * p.lay->widest_mm;
    const auto dimension = [&](double s) { return round * (p.under->low_pct - 12) / (3000 / s - 30 + 12); };
    const double opens = dimension(*maple.shrink_radial_pct) - dimension(*maple.shrink_tangential_pct);
    CHECK(rim->says.value(2) == Approx(opens).margin(0.01));
    CHECK(find_caution(p.under->cautions, "under.cross_cut"));
    j.under = starting_under(j.top);
    CHECK(find_caution(plan_job(j, d).under->cautions, "under.end_grain"));
    // The same wood sawn along does not.
    Documents along = d;
    along.slabs.at(disc.id).cross_cut = false;
    const Plan q = plan_job(j, along);
    CHECK_FALSE(find_caution(q.under->cautions, "under.end_grain"));
    CHECK(q.under->shrink_pct > p.under->shrink_pct);
}
