// What goes where: soft wood soaked first, insect holes by their count, small ones in one lump, advice that can be taken or not.
#include <catch2/catch.hpp>

#include "core/material/resin/mix.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/fill/fill.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// A plank 50 thick finished at 40: 10 come off its underside, nothing off its show face.
struct Bench {
    Slab slab = plank("p", 2000, 600, 50);
    Job job;
    Shop shop;
    Bench() { job = on(slab, {1600, 500, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}}), job.flat.aim = FlatAim::spare_show; }
    Flaw& flaw(FlawKind kind, std::optional<double> depth, Ring outline = box(900, -30, 1000, 30)) {
        slab.flaws.push_back({"f" + std::to_string(slab.flaws.size() + 1), kind, Face::a, std::move(outline), false, depth, 1, ""});
        return slab.flaws.back();
    }
    FillPlan plan() const { return *plan_job(job, slab, shop).fill; }
};

const std::string advised(FlawKind kind, double depth, double gap, bool through, int holes = 0) {
    return advice_for(kind, depth, gap, through, holes).resin;
}

}  // namespace

TEST_CASE("the class that is advised, and why [T3]", "[fill][T3]") {
    // A taped through-crack: thin slow resin finds the tape.
    const FillAdvice taped = advice_for(FlawKind::crack, 40, 4, true);
    CHECK(taped.resin == "medium");
    CHECK(render(taped.why, Units::metric()).find("taped underneath") != std::string::npos);
    CHECK(advised(FlawKind::crack, 40, 0.3, true) == "thin-glue");
    CHECK(advised(FlawKind::crack, 20, 1.0, false) == "quick");
    CHECK(advised(FlawKind::insects, 10, 2, false, 8) == "thin-glue");
    CHECK(advised(FlawKind::insects, 10, 4, false, 8) == "stick");
    CHECK(advised(FlawKind::soft, 2, 60, false) == "penetrating");
    CHECK(advised(FlawKind::void_, 45, 60, false) == "slow-deep");
    // A void right through is taped below: whatever its size, nothing thin and slow.
    CHECK(advised(FlawKind::void_, 45, 60, true) == "medium");
    // Only soft wood is soaked first, and every advice says why.
    for (const FlawKind kind : {FlawKind::crack, FlawKind::void_, FlawKind::pocket, FlawKind::soft, FlawKind::insects})
        for (const double depth : {1.0, 5.0, 12.0, 30.0, 60.0})
            for (const double gap : {0.2, 1.0, 4.0, 40.0})
                for (const bool through : {false, true}) {
                    const FillAdvice a = advice_for(kind, depth, gap, through, 0);
                    CHECK(a.soak == (kind == FlawKind::soft));
                    CHECK_FALSE(a.why.empty());
                    const Resin* r = find_resin(starting_resins(), a.resin);
                    REQUIRE(r);
                    CHECK_FALSE((through && depth > 3 && r->thin && r->gel_25_h > 0.5));
                }
}

TEST_CASE("soft wood drinks by its walls and its floor, by hand", "[fill][soak]") {
    Bench b;
    b.flaw(FlawKind::soft, 20);
    FillPlan p = b.plan();
    REQUIRE(p.voids.size() == 1);
    CHECK(p.voids[0].soaked);
    // 320 around, 20 deep, 100 × 60 below: 0.0064 + 0.006 m², 900 mL on each.
    CHECK(p.voids[0].soak_l == Approx(0.0124 * 0.9));
    CHECK(p.soak_l == Approx(p.voids[0].soak_l));
    // Against the advice it stays dry, and a pocket is soaked.
    set_choice(b.job, "fill.soak.f1", "dry");
    CHECK(b.plan().soak_l == 0);
    CHECK_THROWS_AS(set_choice(b.job, "fill.soak.f1", "a little"), std::invalid_argument);
    set_choice(b.job, "fill.soak.f1", "first");
    CHECK(b.plan().soak_l > 0);
    b.flaw(FlawKind::pocket, 20, box(1200, -30, 1300, 30));
    CHECK_FALSE(b.plan().voids[1].soaked);
    set_choice(b.job, "fill.soak.f2", "first");
    CHECK(b.plan().voids[1].soaked);
    CHECK(b.plan().soak_l == Approx(2 * 0.0124 * 0.9));
    // The same by the shell's word and the slip's line.
    set_choice(b.job, "fill.soak.f2", "dry");
    CHECK_FALSE(b.plan().voids[1].soaked);
    // Left open nothing drinks.
    set_choice(b.job, "fill.f1", "open");
    CHECK(b.plan().soak_l == 0);
}

TEST_CASE("insect holes are as many as were counted, small ones are told in one lump", "[fill]") {
    Bench b;
    Flaw& f = b.flaw(FlawKind::insects, 12, box(800, -100, 1000, 100));
    f.holes = 14, f.hole_mm = 2;
    const FillPlan p = b.plan();
    REQUIRE(p.voids.size() == 1);
    CHECK(p.voids[0].volume_l == Approx(14 * 3.14159265 / 4 * 4 * 12 * 1e-6).epsilon(1e-6));
    CHECK(p.voids[0].advised == "thin-glue");
    CHECK(p.small == 1);
    for (int i = 0; i < 3; ++i) b.flaw(FlawKind::void_, 4, box(300 + 60 * i, 0, 310 + 60 * i, 10));
    const FillPlan q = b.plan();
    CHECK(q.small == 4);
    CHECK(q.small_l == Approx(p.voids[0].volume_l + 3 * 100 * 4 * 1e-6));
    CHECK(figure(q.figures, "fill.small").value.value == 4);
}

TEST_CASE("what only soaks in is offered to fill nothing, a river is poured of neither it nor a stick", "[fill]") {
    Bench b;
    b.flaw(FlawKind::void_, 20);
    const FillPlan p = b.plan();
    for (const Option& o : p.choices.front().options) CHECK(o.key != "penetrating");
    std::vector<Resin> odd;
    for (const Resin& r : starting_resins())
        if (r.solid || r.soaks || r.key == "medium") odd.push_back(r);
    CHECK(river_resin(odd, {}).key == "medium");
}

TEST_CASE("tape underneath by length: strips over an opening, by hand", "[fill][tape][T6]") {
    // 300 by 12: 42 with both sides, one strip, a hand's width past each end.
    const Ring crack = box(0, 0, 300, 12);
    CHECK(tape_under_mm(crack, 50) == Approx(500));
    // Turned it takes as much.
    CHECK(tape_under_mm(Frame{{40, 90}, 33}.to_slab(crack), 50) == Approx(500));
    // A square of 100: 130 with both sides; 1 + ceil(80 / 40) = 3 strips.
    CHECK(tape_under_mm(box(0, 0, 100, 100), 50) == Approx(3 * 300));
    CHECK(tape_under_mm(box(0, 0, 100, 100), 200) == Approx(300));
    CHECK(tape_under_mm({}, 50) == 0);
    CHECK_THROWS_AS(tape_under_mm(crack, 0), std::invalid_argument);
    Bench b;
    b.flaw(FlawKind::crack, std::nullopt, box(700, -6, 1000, 6)).through = true;
    FillPlan p = b.plan();
    REQUIRE(p.voids.size() == 1);
    CHECK(p.voids[0].tape_mm > 400);
    CHECK(p.tape_mm == Approx(p.voids[0].tape_mm));
    const auto told = std::find_if(p.figures.begin(), p.figures.end(), [](const Figure& f) { return f.key == "fill.tape"; });
    REQUIRE(told != p.figures.end());
    CHECK(told->value.value == Approx(p.tape_mm));
    // Left open it wants none, nor does one that is shut below.
    b.job.leaves.front().voids.push_back({"f1", "", true});
    CHECK(b.plan().tape_mm == 0);
    Bench shut;
    shut.flaw(FlawKind::void_, 12);
    CHECK(shut.plan().tape_mm == 0);
}

TEST_CASE("an end crack is cut off with its end, or cured by the mend of its caution [T35]", "[fill][edit][T35]") {
    for (const bool at_right : {true, false}) {
        INFO(at_right);
        Bench b;
        // The top runs from 200 to 1800; the crack reaches 150 into it.
        b.flaw(FlawKind::crack, 30, at_right ? box(1650, -10, 2000, 10) : box(0, -10, 350, 10));
        Documents docs;
        docs.slabs["p"] = b.slab;
        docs.jobs["job"] = b.job;
        Plan plan = plan_job(b.job, docs);
        const Caution* c = find_caution(plan.lay->cautions, "lay.end_crack");
        REQUIRE(c);
        const auto off = cut_off(plan, b.job, 0);
        REQUIRE(off);
        CHECK(off->by_mm == Approx(155));
        CHECK(off->end == (at_right ? 1 : -1));
        const auto ends = [](const Plan& p) { return bounds(p.lay->outline); };
        const Box before = ends(plan);
        const auto mend = mend_of(*c, docs, "job", plan);
        REQUIRE(mend);
        Documents by_mend = docs;
        mended(by_mend, "job", *mend);
        cut_void_off(b.job, plan, 0);
        for (const Job& j : {b.job, by_mend.jobs.at("job")}) {
            docs.jobs["job"] = j;
            const Plan now = plan_job(j, docs);
            CHECK_FALSE(find_caution(now.lay->cautions, "lay.end_crack"));
            // The other end stays where it was on the wood.
            const Box after = ends(now);
            CHECK((at_right ? after.low.x : after.high.x) == Approx(at_right ? before.low.x : before.high.x).margin(1e-6));
            CHECK(after.width() < before.width() - 140);
        }
    }
    // One in the middle would take half of the top: refused.
    Bench b;
    b.flaw(FlawKind::void_, 30, box(950, -30, 1050, 30));
    const Plan plan = plan_job(b.job, b.slab, b.shop);
    CHECK_FALSE(cut_off(plan, b.job, 0));
    CHECK_THROWS_AS(cut_void_off(b.job, plan, 0), Refusal);
}
