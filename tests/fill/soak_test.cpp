// What goes where: soft wood soaked first, insect holes by their count, small ones in one lump, advice that can be taken or not.
#include <catch2/catch.hpp>

#include "core/edit/edits.h"
#include "core/fill/fill.h"
#include "core/job/job.h"
#include "core/job/shop.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// A plank 50 thick finished at 40: 10 come off its underside, nothing off its show face.
struct Bench {
    Slab slab = plank("p", 2000, 600, 50);
    Job job;
    Shop shop;
    Bench() { job = on(slab, {1600, 500, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}}); }
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
    // Only soft wood is soaked first, and every advice says why.
    for (const FlawKind kind : {FlawKind::crack, FlawKind::void_, FlawKind::pocket, FlawKind::soft, FlawKind::insects})
        for (const double depth : {1.0, 5.0, 12.0, 30.0, 60.0})
            for (const double gap : {0.2, 1.0, 4.0, 40.0})
                for (const bool through : {false, true}) {
                    const FillAdvice a = advice_for(kind, depth, gap, through, 0);
                    CHECK(a.soak == (kind == FlawKind::soft));
                    CHECK_FALSE(a.why.empty());
                    CHECK(
                        std::any_of(starting_resins().begin(), starting_resins().end(), [&](const Resin& r) { return r.key == a.resin; }));
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
