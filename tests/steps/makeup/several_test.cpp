// What a top of several tells: thickness in common, exact widths, rivers where banks cross, rods at their height, all slabs.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// Two planks side by side, 400 wide each, meeting at v = 0.
struct Two {
    Documents docs;
    Job job;
    explicit Two(const Slab& right, const Slab& left, MakeUp kind = MakeUp::slip) {
        docs.slabs[right.id] = right, docs.slabs[left.id] = left;
        job.id = "job";
        job.top = {2000, 700, 60, 740, LiveEdges::both, 0, TopShape::rectangle, {}};
        job.makeup.kind = kind;
        job.makeup.joints = {{0, 0, false}};
        job.leaves.resize(2);
        job.leaves[0].slab = right.id, job.leaves[0].placement = {1100, 200, 0, false, 30};
        job.leaves[1].slab = left.id, job.leaves[1].placement = {1100, -200, 0, false, 30};
    }
    Plan plan(int on_bench = whole_top) const { return plan_job(job, docs, on_bench); }
};

Slab traced(const std::string& id, Ring a, Ring b, double thick) {
    Slab s = plank(id, 2200, 400, thick);
    s.outline = TracedOutline{std::move(a), std::move(b), 0, "drawing"};
    return s;
}

}  // namespace

TEST_CASE("a top of several says that it is too thin, and which leaf is", "[makeup][flat]") {
    Two two(plank("fifty", 2200, 400, 50), plank("fifty-five", 2200, 400, 55));
    Plan p = two.plan();
    CHECK(p.flat->thickness_mm == Approx(50));
    CHECK(figure(p.flat->figures, "flat.thickness").value.value == Approx(50));
    CHECK(p.top->thickness_mm == Approx(50));
    int told = 0;
    for (const Caution& c : p.flat->cautions)
        if (c.key == "flat.thin") {
            ++told;
            CHECK(c.severity == Severity::stop);
            CHECK(c.says.value(0) == Approx(c.of == "fifty" ? 50 : 55));
            CHECK(c.says.value(3) == Approx(50));  // all come to it
        }
    CHECK(told == 2);
    // A leaf on the bench tells the same of itself, and the common thickness as what could be had.
    const Plan leaf = two.plan(1);
    CHECK(leaf.flat->thickness_mm == Approx(50));
    CHECK(leaf.flat->most_mm == Approx(55));
    for (const Choice& c : leaf.flat->choices)
        if (c.key == flat_finishes.choice)
            for (const Option& o : c.options) CHECK(o.consequence.value(0) == Approx(50));
    // Thin enough wanted: nothing is said.
    two.job.top.thickness_mm = 45;
    p = two.plan();
    CHECK(p.flat->thickness_mm == Approx(45));
    CHECK_FALSE(find_caution(p.flat->cautions, "flat.thin"));
    // As thick as it comes is what both have.
    two.job.flat.finish = FinishTo::thickest;
    p = two.plan();
    CHECK(p.flat->thickness_mm == Approx(50));
    for (const LeafPlan& l : p.leaves) CHECK(l.flat->thickness_mm == Approx(50));
}

TEST_CASE("leaves planed as they lie come to what that leaves of the thinnest, not to what shims would", "[makeup][flat]") {
    Slab twisted = plank("twisted", 2200, 400, 50);
    twisted.heights_a.x_mm = twisted.heights_b.x_mm = {100, 2100};
    twisted.heights_a.y_mm = twisted.heights_b.y_mm = {-150, 150};
    twisted.heights_a.gap_mm = {0, 0, 8, 8};  // it rises towards one end, both faces alike
    twisted.heights_b.gap_mm = {8, 8, 0, 0};
    Two two(twisted, plank("straight", 2200, 400, 50));
    two.job.flat.aim = FlatAim::as_it_lies;
    const Plan p = two.plan();
    CHECK(p.leaves[0].flat->thickness_mm == Approx(p.leaves[1].flat->thickness_mm).margin(1e-6));
    CHECK(p.leaves[0].flat->thickness_mm < p.leaves[0].flat->thickest_mm - 4);
    CHECK(p.flat->thickness_mm == Approx(p.leaves[0].flat->most_mm));
}

TEST_CASE("the whole's faces and hours are the sums of its leaves'", "[makeup][flat]") {
    const Two two(plank("a", 2200, 400, 66), plank("b", 2200, 400, 64));
    const Plan p = two.plan();
    for (std::size_t k = 0; k < 2; ++k) {
        const auto sum = [&](auto member) { return p.leaves[0].flat->faces[k].*member + p.leaves[1].flat->faces[k].*member; };
        CHECK(p.flat->faces[k].cut_mm == Approx(sum(&FacePlan::cut_mm)));
        CHECK(p.flat->faces[k].layers == sum(&FacePlan::layers));
        CHECK(p.flat->faces[k].hours == Approx(sum(&FacePlan::hours)));
        CHECK(p.flat->faces[k].passes_cut == sum(&FacePlan::passes_cut));
    }
    CHECK(p.flat->faces[0].cut_mm + p.flat->faces[1].cut_mm > 0);
    // Two leaves are turned twice as often as one.
    const auto turning = [](const Plan& plan) {
        for (const Operation& o : plan.days->operations)
            if (o.key == "flat1") return o.hands_on_h - (plan.flat->faces[0].hours - plan.flat->faces[0].last_hours);
        return 0.0;
    };
    const Slab alone = plank("alone", 2200, 800, 66);
    const Job one = on(alone, two.job.top);
    const double rails = Shop().labour.flat_set_min / 60;  // set up once
    CHECK(turning(p) - rails == Approx(2 * (turning(plan_job(one, alone, Shop())) - rails)));
}

TEST_CASE("the narrowest place is found at a corner between all stations", "[makeup]") {
    // A nick 3 mm wide and 30 deep in the outer edge, at a place no even division meets.
    const double at = 777.7;
    const Ring nicked{{0, -200}, {at, -200}, {at + 1.5, -170}, {at + 3, -200}, {2200, -200}, {2200, 200}, {0, 200}};
    const Ring straight{{0, -200}, {at, -200}, {at + 1.5, -200}, {at + 3, -200}, {2200, -200}, {2200, 200}, {0, 200}};
    const Two two(traced("nicked", nicked, straight, 70), plank("b", 2200, 400, 70));
    const Plan p = two.plan();
    CHECK(p.lay->narrowest_mm == Approx(770).margin(1e-6));
    CHECK(p.lay->narrowest_u_mm == Approx(at + 1.5 - 1100).margin(1e-6));
    CHECK(p.lay->widest_mm == Approx(800).margin(1e-6));
    CHECK(p.lay->width_left_mm == Approx(800).margin(1e-6));
    CHECK(p.lay->width_right_mm == Approx(800).margin(1e-6));
    CHECK(p.lay->fits);
}

TEST_CASE("sawn sides of several are told as wide as the place has, and what lacks on both", "[makeup]") {
    Two two(plank("a", 2200, 400, 70), plank("b", 2200, 400, 70));
    two.job.top.live = LiveEdges::none;
    CHECK(two.plan().lay->narrowest_mm == Approx(800));
    two.job.top.width_mm = 860;
    const Plan p = two.plan();
    CHECK_FALSE(p.lay->fits);
    REQUIRE(p.lay->short_at.size() == 2);
    CHECK(p.lay->short_at[0].mm == Approx(30));
    CHECK(p.lay->short_at[1].mm == Approx(30));
    CHECK(p.lay->narrowest_mm == Approx(800));
    two.job.top.live = LiveEdges::left;  // from the live edge on the left to where the right can be sawn
    CHECK(two.plan().lay->narrowest_mm == Approx(800));
}

TEST_CASE("banks that cross above, below, both and neither", "[makeup][top]") {
    // The right leaf's bank leans: below it reaches `lean` further than above. Planed 50 to 40, all of it underneath.
    const auto river = [](double open, double lean) {
        Slab right = plank("a", 2200, 400, 50);
        right.tape.lean_left_mm = lean;
        Two two(right, plank("b", 2200, 400, 50), MakeUp::river);
        two.job.top.thickness_mm = 40;
        two.job.flat.aim = FlatAim::as_it_lies;
        two.job.leaves[0].placement.y_mm = 200 + open / 2;
        two.job.leaves[1].placement.y_mm = -200 - open / 2;
        return two.plan();
    };
    const auto says = [](const Plan& p) {
        return std::pair(find_caution(p.lay->cautions, "lay.overlap") != nullptr,
                         find_caution(p.lay->cautions, "lay.banks_meet") != nullptr);
    };
    Plan p = river(60, 20);
    CHECK(says(p) == std::pair(false, false));
    CHECK(p.lay->fits);
    CHECK(p.makeup->joints[0].above.narrowest_mm == Approx(60).margin(0.01));
    CHECK(p.makeup->joints[0].below.narrowest_mm == Approx(60 - 16).margin(0.01));
    p = river(10, 20);  // below: 10 − 16
    CHECK(says(p) == std::pair(false, true));
    CHECK_FALSE(p.lay->fits);
    CHECK(p.makeup->joints[0].below.narrowest_mm == Approx(-6).margin(0.01));
    // From 10 wide down to nothing at 10/16 of the depth.
    CHECK(p.top->river_l() == Approx(2000 * 10 * 40 * 10 / 16 / 2 * 1e-6).epsilon(0.003));
    p = river(-10, -20);  // above: 10 over one another, below: 6 open
    CHECK(says(p) == std::pair(true, false));
    CHECK_FALSE(p.lay->fits);
    CHECK(p.makeup->joints[0].below.narrowest_mm == Approx(6).margin(0.01));
    p = river(-10, 20);
    CHECK(says(p) == std::pair(true, true));
    CHECK(p.makeup->joints[0].above.narrowest_mm == Approx(-10).margin(0.01));
    CHECK(p.makeup->joints[0].below.narrowest_mm == Approx(-26).margin(0.01));
}

TEST_CASE("rods are as long as the gap half-way down and both depths", "[makeup][top]") {
    Slab right = plank("a", 2200, 400, 50);
    right.tape.lean_left_mm = 20;
    Two two(right, plank("b", 2200, 400, 50), MakeUp::open_river);
    two.job.top.thickness_mm = 40;
    two.job.flat.aim = FlatAim::as_it_lies;
    two.job.leaves[0].placement.y_mm = 240;
    two.job.leaves[1].placement.y_mm = -240;
    const Plan p = two.plan();
    REQUIRE(p.makeup->joints[0].rods.size() > 2);
    // Open 80 above; half-way down the 40 that are left the right bank stands 8 mm further in.
    for (const Rod& r : p.makeup->joints[0].rods) {
        CHECK(r.gap_mm == Approx(72).margin(0.01));
        CHECK(r.length_mm == Approx(72 + 2 * two.job.makeup.rod_depth_mm).margin(0.01));
    }
}

TEST_CASE("rough cuts are as long as the wood there, on whichever face it reaches further", "[makeup]") {
    // Tapering from 400 to 300, face B 15 wider on either side.
    const auto taper = [](double more) { return Ring{{0, -200 - more}, {2200, -150 - more}, {2200, 150 + more}, {0, 200 + more}}; };
    Two two(traced("a", taper(0), taper(15), 60), plank("b", 2200, 400, 60));
    const Plan p = two.plan();
    std::vector<double> lengths;
    for (const Cut& c : p.cuts->cuts)
        if (c.kind == CutKind::rough && c.leaf == 0) lengths.push_back(c.length_mm);
    REQUIRE(lengths.size() == 2);
    const auto wide = [](double x) { return 400 - 100 * x / 2200 + 30; };
    CHECK(lengths[0] == Approx(wide(70)).margin(0.01));
    CHECK(lengths[1] == Approx(wide(2130)).margin(0.01));
}

TEST_CASE("the rack of a top of several tells all its slabs, each with its name", "[makeup][rack]") {
    Slab a = plank("a", 2200, 400, 50);
    Slab b = plank("b", 2400, 380, 60);
    a.price = 100, b.price = 150;
    a.moisture_pct = 9, b.moisture_pct = 14;
    a.moisture_on = b.moisture_on = "2026-11-20";
    const Two two(a, b);
    const Plan whole = two.plan();
    const auto of = [&](const char* key) { return figure(whole.rack.figures, key); };
    CHECK(of("rack.size").value.value == Approx(2200));
    CHECK(of("rack.size").second->value == Approx(2400));
    CHECK(of("rack.thickness").second->value == Approx(60));
    CHECK(of("rack.price").value.value == Approx(250));
    const auto weighs = [](double l, double w, double t, double pct) {
        return l * w * t * 1e-9 * density(*find_species("butternut")->specific_gravity_12, pct);
    };
    CHECK(of("rack.mass").value.value == Approx(weighs(2200, 400, 50, 9) + weighs(2400, 380, 60, 14)));
    REQUIRE(of("rack.mass").working.given.size() == 2);
    CHECK(of("rack.mass").working.given[1].name == "b");
    CHECK(of("rack.drying").label.find(", b") != std::string::npos);  // the damper one
    for (const Caution& c : whole.rack.cautions) CHECK((c.of == "a" || c.of == "b"));
    // With a leaf on the bench the figures are its own.
    CHECK(figure(two.plan(1).rack.figures, "rack.size").value.value == Approx(2400));
}

TEST_CASE("a slab with no pith among leaves that have one moves as flat-sawn, the most it can", "[makeup][under]") {
    Slab a = plank("a", 2200, 400, 60);
    Slab b = plank("b", 2200, 400, 60);
    a.moisture_pct = b.moisture_pct = 9;
    a.pith_mm = b.pith_mm = 80;
    const double both = Two(a, b).plan().under->travel_mm;
    b.pith_mm.reset();
    const double one = Two(a, b).plan().under->travel_mm;
    a.pith_mm.reset();
    const double none = Two(a, b).plan().under->travel_mm;
    CHECK(both < one);
    CHECK(one < none);
    CHECK(one == Approx((both + none) / 2).epsilon(0.002));
}
