// Voids beside a river, what is poured over, tints, heat in big voids, soaking before the faces are planed.
#include <algorithm>

#include <catch2/catch.hpp>

#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/pour/pour.h"
#include "core/steps/pour/voids.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

const char* river = "job-tarn-river";

/// The river table with a pocket of 60 by 40 whose half lies in the leaf at its bank, half in the water.
struct Bank {
    Documents d = demo_shop();
    std::string slab;
    Bank() {
        Job& j = d.jobs.at(river);
        const Plan p = plan_job(j, d);
        const Region& leaf = p.top->regions.at(0);
        const Sides sides = sides_of(leaf.above);
        const Vec2 at{300, height_at(sides.high, 300)};
        slab = leaf.of;
        Flaw f;
        f.id = "bank", f.kind = FlawKind::pocket, f.depth_mm = 30, f.floor_share = 1;
        f.outline = leaf.placed.frame().to_slab(Ring{at + Vec2{-30, -20}, at + Vec2{30, -20}, at + Vec2{30, 20}, at + Vec2{-30, 20}});
        d.slabs.at(slab).flaws.push_back(f);
    }
    Plan plan() const { return plan_job(d.jobs.at(river), d); }
    static const VoidPlan& it(const Plan& p) {
        return *std::find_if(p.fill->voids.begin(), p.fill->voids.end(), [](const VoidPlan& v) { return v.id.ends_with("bank"); });
    }
};

}  // namespace

TEST_CASE("a void that opens into a poured river is filled by its pour, to the last millilitre", "[fill][pour]") {
    Bank b;
    REQUIRE_FALSE(b.d.jobs.at(river).leaves.at(0).placement.turned_over);
    const Plan p = b.plan();
    const VoidPlan& v = Bank::it(p);
    REQUIRE(v.meets_river);
    REQUIRE(v.river == std::optional<std::size_t>(0));
    CHECK(v.lifts.empty());
    CHECK(v.tape_mm == 0);
    CHECK(v.volume_l > 0.001);
    CHECK(p.fill->river_l == Approx(v.volume_l));
    // Dug out of the slab's record the river takes so much less, and nothing else of it changes.
    Documents without = b.d;
    without.slabs.at(b.slab).flaws.pop_back();
    const Plan q = plan_job(without.jobs.at(river), without);
    CHECK(p.pour->pour_l - q.pour->pour_l == Approx(v.volume_l));
    CHECK(p.pour->compartments[0].voids_l == Approx(v.volume_l));
    double lifts = 0;
    for (const PourLift& l : p.pour->lifts) lifts += l.volume_l;
    CHECK(lifts == Approx(p.pour->pour_l));
    CHECK(p.fill->mixed_l == Approx(q.fill->mixed_l));
    // Filled by itself it is dammed, mixed in Fill, and gone from the river.
    set_choice(b.d.jobs.at(river), "fill." + v.id, "medium");
    const Plan own = b.plan();
    CHECK_FALSE(Bank::it(own).river);
    CHECK_FALSE(Bank::it(own).lifts.empty());
    CHECK(own.pour->pour_l == Approx(q.pour->pour_l));
    const Caution* dam = find_caution(own.fill->cautions, "fill.meets_river");
    REQUIRE(dam);
    CHECK(dam->severity == Severity::watch);
    CHECK(render(dam->says, {}).find("dam it there first") != std::string::npos);
    set_choice(b.d.jobs.at(river), "fill." + v.id, "river");
    CHECK(b.plan().pour->pour_l == Approx(p.pour->pour_l));
}

TEST_CASE("what is poured over is told in litres, and too much of it is minded", "[fill][T10]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    double mouths = 0;
    const Plan p = plan_job(j, d);
    for (const VoidPlan& v : p.fill->voids)
        if (!v.lifts.empty()) mouths += v.holes > 0 ? 0 : area(v.mouth);
    CHECK(p.fill->over_l > 0);
    CHECK(p.fill->over_l < mouths * j.fill.overfill_mm * 1e-6 * 1.05);
    CHECK_FALSE(find_caution(p.fill->cautions, "fill.overfill"));
    j.fill.overfill_mm = 6;
    const Plan more = plan_job(j, d);
    CHECK(more.fill->over_l == Approx(4 * p.fill->over_l));
    const Caution* c = find_caution(more.fill->cautions, "fill.overfill");
    REQUIRE(c);
    CHECK(c->says.value(1) == Approx(more.fill->over_l));
}

TEST_CASE("voids beside a tinted river take its dose, by weight, on every day", "[fill][pour][T8]") {
    Bank b;
    Job& j = b.d.jobs.at(river);
    CHECK_FALSE(find_caution(b.plan().pour->cautions, "pour.tint"));
    Flaw away = b.d.slabs.at(b.slab).flaws.back();
    away.id = "away";
    for (Vec2& q : away.outline) q.y -= 120;
    b.d.slabs.at(b.slab).flaws.push_back(away);
    j.pour.pigment_g_kg = 4, j.pour.colour = "tarn blue";
    const Plan p = b.plan();
    const Caution* c = find_caution(p.pour->cautions, "pour.tint");
    REQUIRE(c);
    const auto mend = mend_of(*c, b.d, river, p);
    REQUIRE(mend);
    mended(b.d, river, *mend);
    const Plan after = b.plan();
    CHECK_FALSE(find_caution(after.pour->cautions, "pour.tint"));
    CHECK(b.d.jobs.at(river).fill.colour == "tarn blue");
    double kg = 0;
    for (const VoidPlan& v : after.fill->voids)
        for (const Lift& l : v.lifts) kg += l.a_kg + l.b_kg;
    const auto tint =
        std::find_if(after.fill->figures.begin(), after.fill->figures.end(), [](const Figure& f) { return f.key == "fill.tint"; });
    REQUIRE(tint != after.fill->figures.end());
    CHECK(tint->value.value == Approx(4 * kg).margin(0.06));
}

TEST_CASE("a void bigger than a cup is followed like a river: how hot it gets, and in how many lifts it stays cool", "[fill][T4]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    Slab& s = d.slabs.at(j.leaves[0].slab);
    const Vec2 at{j.leaves[0].placement.x_mm, j.leaves[0].placement.y_mm};
    Flaw f;
    f.id = "big", f.kind = FlawKind::void_, f.depth_mm = 40, f.floor_share = 1;
    f.outline = {at + Vec2{-150, -80}, at + Vec2{150, -80}, at + Vec2{150, 80}, at + Vec2{-150, 80}};
    s.flaws.push_back(f);
    // A quick resin in lifts as deep as a wrong label allows.
    for (Resin& r : d.shop.resins)
        if (r.key == "medium") r.deepest_mm = 60;
    set_choice(j, "fill.big", "medium");
    const Plan p = plan_job(j, d);
    const auto c = std::find_if(p.fill->cautions.begin(), p.fill->cautions.end(),
                                [&](const Caution& told) { return told.key == "fill.hot" && length(*told.at - at) < 60; });
    REQUIRE(c != p.fill->cautions.end());
    CHECK(c->says.value(0) > hot_from_l);
    const Resin& medium = *find_resin(d.shop.resins, "medium");
    const VoidPlan& v = *std::find_if(p.fill->voids.begin(), p.fill->voids.end(), [](const VoidPlan& one) { return one.id == "big"; });
    CHECK(c->says.value(3) > 60);
    // As many lifts as it says do stay below, in the river's own simulation.
    PourChoices so_many;
    so_many.lifts = static_cast<int>(c->says.value(5));
    for (const LiftForecast& l : forecast_lifts(medium, v.depth_mm, p.air_of(step_key::fill).day.temp_c, so_many))
        CHECK(l.peak_high_c <= 60);
    // A cupful is not followed.
    s.flaws.back().outline = {at + Vec2{-30, -30}, at + Vec2{30, -30}, at + Vec2{30, 30}, at + Vec2{-30, 30}};
    const Plan little = plan_job(j, d);
    for (const Caution& told : little.fill->cautions)
        if (told.key == "fill.hot") CHECK(length(*told.at - at) > 60);
}

TEST_CASE("soft wood is soaked, and hard again, before its faces are planed", "[fill][days]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    Slab& s = d.slabs.at(j.leaves[0].slab);
    const Vec2 at{j.leaves[0].placement.x_mm, j.leaves[0].placement.y_mm};
    s.flaws.push_back({"rot", FlawKind::soft, Face::a, {at, at + Vec2{60, 0}, at + Vec2{60, 60}, at + Vec2{0, 60}}, false, 30, 1, ""});
    const Plan p = plan_job(j, d);
    const auto at_of = [&](const char* key) {
        const auto& all = p.days->operations;
        const auto it = std::find_if(all.begin(), all.end(), [&](const Operation& o) { return o.key == key; });
        REQUIRE(it != all.end());
        return *it;
    };
    CHECK(at_of("soak").end_h <= at_of("flat1").start_h);
    CHECK(at_of("soak").waiting_h == soaked_wait_h);
}

TEST_CASE("two colours are two compartments, each by its own bank, half the river each", "[pour]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at(river);
    const Plan one = plan_job(j, d);
    j.makeup.two_colours = true;
    j.pour.colour = "clear", j.pour.second_colour = "tarn blue";
    const Plan two = plan_job(j, d);
    REQUIRE(one.pour->compartments.size() == 1);
    REQUIRE(two.pour->compartments.size() == 2);
    const Compartment& whole = one.pour->compartments[0];
    const Compartment& right = two.pour->compartments[0];
    const Compartment& left = two.pour->compartments[1];
    CHECK(right.colour == "clear");
    CHECK(left.colour == "tarn blue");
    CHECK(area(right.above) == Approx(area(left.above)).epsilon(1e-9));
    CHECK(right.net_l + left.net_l == Approx(whole.net_l).epsilon(1e-6));
    CHECK(right.ends_l + left.ends_l == Approx(whole.ends_l).margin(1e-3));
    CHECK(right.soak_l + left.soak_l == Approx(whole.soak_l).epsilon(0.02));
    CHECK(two.pour->pour_l == Approx(one.pour->pour_l).epsilon(0.002));
    CHECK(intersection_area(right.above, left.above) < 1);
    // Each has its own lifts and batches.
    for (const std::size_t i : {0U, 1U})
        CHECK(std::any_of(two.pour->lifts.begin(), two.pour->lifts.end(), [&](const PourLift& l) { return l.compartment == i; }));
}
