// Fillings of voids that can be worked out by hand, and every caution of the step.
#include <catch2/catch.hpp>

#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// A plank 50 thick finished at 40: 10 come off its underside, nothing off its show face.
struct Pour {
    Slab slab = plank("p", 2000, 600, 50);
    Job job;
    Shop shop;
    Pour() {
        job = on(slab, {1600, 500, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
        for (Month& m : shop.air.months) m = {20, 50};
        job.flat.aim = FlatAim::spare_show;  // the show face keeps its figure: depths are counted from it
    }
    Flaw& flaw(FlawKind kind, Face face, std::optional<double> depth, Ring outline = box(900, -30, 1000, 30)) {
        slab.flaws.push_back({"f" + std::to_string(slab.flaws.size() + 1), kind, face, std::move(outline), false, depth, 1, ""});
        return slab.flaws.back();
    }
    FillPlan plan() const { return *plan_job(job, slab, shop).fill; }
    const VoidPlan only() const {
        const FillPlan p = plan();
        REQUIRE(p.voids.size() == 1);
        return p.voids[0];
    }
    bool says(const char* key) const {
        const FillPlan p = plan();
        return find_caution(p.cautions, key) != nullptr;
    }
};

/// Volume of a void between two depths by slices of a hundredth: its outline shrinks evenly towards its floor.
double by_slices(double mouth, double depth, double floor_share, double from, double to) {
    double sum = 0;
    for (double d = from + 0.005; d < to; d += 0.01) {
        const double k = 1 - d / depth * (1 - floor_share);
        sum += mouth * k * k * 0.01;
    }
    return sum * 1e-6;
}

}  // namespace

TEST_CASE("what flattening takes off is not filled", "[fill]") {
    Pour p;
    p.flaw(FlawKind::void_, Face::a, 30);
    CHECK(p.only().depth_mm == Approx(30).margin(1e-6));
    CHECK(p.only().volume_l == Approx(0.1 * 0.06 * 0.03 * 1000).epsilon(1e-6));
    CHECK_FALSE(p.only().through);
    // Mixed: with 1.5 proud over the mouth, and a tenth that stays in the cup.
    double mixed = 0;
    for (const Lift& l : p.only().lifts) mixed += l.volume_l;
    CHECK(mixed == Approx((0.18 + 6000 * 1.5e-6) * 1.1).epsilon(1e-6));
    p.slab.flaws[0].face = Face::b;
    p.slab.flaws[0].depth_mm = 15;  // 10 of it are planed away
    CHECK(p.only().depth_mm == Approx(5).margin(1e-6));
    CHECK(p.only().volume_l == Approx(6000 * 5e-6).epsilon(1e-6));
    p.slab.flaws[0].depth_mm = 8;
    CHECK(p.only().gone);
    CHECK(p.only().lifts.empty());
    CHECK(p.says("fill.gone"));
    p.slab.flaws[0].face = Face::a;
    p.slab.flaws[0].depth_mm = 45;  // the 10 off the far face open it below
    CHECK(p.only().through);
    CHECK(p.only().depth_mm == Approx(40).margin(1e-6));
    CHECK(p.says("fill.tape"));
}

TEST_CASE("voids that narrow downwards hold what slices add up to", "[fill]") {
    for (const double share : {0.0, 0.3, 0.7, 1.0})
        for (const double from : {0.0, 4.0, 12.5})
            for (const double to : {13.0, 20.0, 33.0})
                CHECK(void_litres(5200, 33, share, from, to) == Approx(by_slices(5200, 33, share, from, to)).epsilon(2e-3));
    Pour p;
    p.flaw(FlawKind::void_, Face::a, 30).floor_share = 0.4;
    CHECK(p.only().volume_l == Approx(by_slices(6000, 30, 0.4, 0, 30)).epsilon(1e-3));
}

TEST_CASE("lifts are as many as the label allows, the last one waits longest", "[fill]") {
    Pour p;
    p.flaw(FlawKind::void_, Face::a, 30);
    for (const Resin& r : p.shop.resins) {
        INFO(r.key);
        set_choice(p.job, "fill.f1", r.key);
        const VoidPlan v = p.only();
        const int n = static_cast<int>(std::ceil(30 / r.deepest_mm));
        REQUIRE(v.lifts.size() == static_cast<std::size_t>(n));
        double deep = 0;
        double kilos = 0;
        for (std::size_t i = 0; i < v.lifts.size(); ++i) {
            const Lift& l = v.lifts[i];
            deep += l.depth_mm;
            CHECK(l.depth_mm <= r.deepest_mm + 1e-9);
            CHECK(l.a_l / l.b_l == Approx(r.parts_a / r.parts_b));
            kilos += l.a_kg + l.b_kg;
            // The next round once it has gelled; levelled once it is hard: the label says neither.
            const Kinetics k = kinetics_of(r);
            CHECK(l.wait_h == Approx(i + 1 == v.lifts.size() ? isothermal_h(k, 0.95, 20) : isothermal_gel_h(k, 20)).epsilon(1e-6));
        }
        CHECK(deep == Approx(30));
        CHECK(kilos == Approx((0.18 + 0.009) * 1.1 * r.mixed_density()).epsilon(1e-6));
        CHECK(v.mass_kg == Approx(0.18 * r.mixed_density()).epsilon(1e-6));
    }
    // Warm air gels sooner, cold air later.
    CHECK(gel_hours(p.shop.resins[0], 30) < gel_hours(p.shop.resins[0], 20));
    // Every class is offered with its lifts and waits; the one taken is marked.
    const FillPlan plan = p.plan();
    REQUIRE(plan.choices.size() == 1);
    // … but what only soaks in fills nothing.
    const auto fills = std::count_if(p.shop.resins.begin(), p.shop.resins.end(), [](const Resin& r) { return !r.soaks; });
    CHECK(plan.choices[0].options.size() == static_cast<std::size_t>(fills) + 1);
    int chosen = 0;
    for (const Option& o : plan.choices[0].options) chosen += o.chosen;
    CHECK(chosen == 1);
    // The deepest pouring class is what a river is poured of.
    CHECK(river_resin(p.shop.resins, {}).key == "slow-deep");
    CHECK_THROWS_AS(river_resin({}, {}), std::invalid_argument);
}

TEST_CASE("a void at the top's edge is cut to it, and dammed where the edge is live", "[fill]") {
    Pour p;
    p.flaw(FlawKind::void_, Face::a, 20, box(1700, -30, 1900, 30));  // the top ends at 1800
    CHECK(p.only().runs_out);
    CHECK(p.only().volume_l == Approx(0.1 * 0.06 * 0.02 * 1000).epsilon(1e-6));
    CHECK_FALSE(p.says("fill.dam"));  // sawn: the wood goes on there while it is filled
    p.slab.flaws.clear();
    p.job.top.live = LiveEdges::both;
    p.flaw(FlawKind::void_, Face::a, 20, box(1700, -30, 1900, 30));
    CHECK(p.only().runs_out);
    CHECK_FALSE(p.says("fill.dam"));  // an end is sawn whatever the sides are
    p.slab.flaws.clear();
    p.flaw(FlawKind::void_, Face::a, 20, box(900, 250, 1000, 330));  // the slab ends at 300
    CHECK(p.only().runs_out);
    CHECK(p.says("fill.dam"));
    p.slab.flaws.clear();
    p.job.top.live = LiveEdges::none;
    p.flaw(FlawKind::void_, Face::a, 20, box(1820, -30, 1900, 30));
    CHECK(p.plan().voids.empty());
}

TEST_CASE("left open, it is counted as air", "[fill]") {
    Pour p;
    p.flaw(FlawKind::void_, Face::a, 30);
    p.flaw(FlawKind::crack, Face::a, 20, box(400, -4, 800, 4));
    set_choice(p.job, "fill.f1", "open");
    const FillPlan plan = p.plan();
    CHECK(plan.open_l == Approx(0.18).epsilon(1e-6));
    CHECK(plan.volume_l == Approx(400 * 8 * 20e-6).epsilon(1e-6));
    CHECK(figure(plan.figures, "fill.open").value.value == Approx(0.18).epsilon(1e-6));
    CHECK(plan_job(p.job, p.slab, p.shop).under->top_kg > 0);
    set_choice(p.job, "fill.f1", "medium");
    CHECK(p.plan().open_l == 0);
}

TEST_CASE("what can go wrong with a filling is said before it is poured", "[fill][T18]") {
    Pour p;
    Flaw& f = p.flaw(FlawKind::void_, Face::a, {});
    CHECK(p.says("fill.no_depth"));
    f.through = true;
    set_choice(p.job, "fill.f1", "slow-deep");
    CHECK(p.says("fill.leak"));  // thin resin through taped gaps
    set_choice(p.job, "fill.f1", "medium");
    CHECK_FALSE(p.says("fill.leak"));
    CHECK(p.says("fill.tape"));
    CHECK(p.says("fill.gloves"));
    f.kind = FlawKind::soft;
    CHECK(p.says("fill.soft"));
    f.kind = FlawKind::crack;
    CHECK(p.says("fill.spring"));  // 37 wide: pulling its debris lets the slab spring
    f.outline = box(900, -5, 1000, 5);
    CHECK_FALSE(p.says("fill.spring"));
    for (Month& m : p.shop.air.months) m = {29, 50};
    CHECK(p.says("fill.warm"));
    for (Month& m : p.shop.air.months) m = {11, 50};
    CHECK(p.says("fill.cold"));
    f.kind = FlawKind::pith;  // nothing to fill, so nothing to warm
    CHECK(p.plan().voids.empty());
    CHECK_FALSE(p.says("fill.cold"));
    CHECK_FALSE(p.says("fill.gloves"));
}

TEST_CASE("a live knot is wood, a dead one wants its depth", "[fill]") {
    Pour p;
    Flaw& f = p.flaw(FlawKind::knot, Face::a, {});
    CHECK(p.plan().voids.empty());
    CHECK_FALSE(p.says("fill.no_depth"));
    f.loose = true;
    CHECK(p.says("fill.no_depth"));
    CHECK_FALSE(p.says("fill.gone"));  // nothing was planed away: it was never probed
    f.depth_mm = 6;
    CHECK(p.only().depth_mm == Approx(6).margin(1e-6));
    f.note.clear();
    CHECK(p.plan().voids.size() == 1);  // probed, it is taken for what was found
}

TEST_CASE("the class advised follows depth, gap and what is below", "[fill]") {
    CHECK(advised_resin(2, 20, false) == "quick");
    CHECK(advised_resin(20, 1, false) == "quick");  // a hairline takes nothing thicker
    CHECK(advised_resin(20, 8, true) == "medium");
    CHECK(advised_resin(20, 80, true) == "medium");  // a slow one creeps under its tape
    CHECK(advised_resin(5, 30, false) == "coating");
    CHECK(advised_resin(12, 30, false) == "medium");
    CHECK(advised_resin(30, 30, false) == "slow-deep");
    // A class that the shop no longer has: its first one stands in.
    Pour p;
    p.flaw(FlawKind::void_, Face::a, 30);
    p.shop.resins = {{"own", "Own", 10, 10, 1, 1, 1.1, 1.0, false}};
    CHECK(p.only().lifts.size() == 3);
}
