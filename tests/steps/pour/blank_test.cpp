// The form stands round the blank, and all of the resin in it is mixed: two straight planks with a river between, by hand.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

constexpr double g0 = 9.80665;

struct Planks {
    Documents docs;
    Planks() {
        for (const char* id : {"right", "left"}) docs.slabs[id] = plank(id, 2400, 420, 50);
        Job j;
        j.id = "j";
        j.top = {1600, 700, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}};
        j.makeup.river_mm = 120;
        REQUIRE(laid_together(j, MakeUp::river, {docs.slabs.at("right"), docs.slabs.at("left")}).empty());
        j.pour.soak_ml_m2 = 0;
        docs.jobs["j"] = j;
        for (Month& m : docs.shop.air.months) m = {20, 50};
    }
    Job& job() { return docs.jobs.at("j"); }
    Plan plan() { return plan_job(job(), docs); }
    /// How wide the two planks and the river are, laid as they are.
    double across() {
        double low = 1e9;
        double high = -1e9;
        for (const Leaf& l : job().leaves)
            for (const Vec2 q : l.placement.frame().from_slab(box(0, -210, 2400, 210)))
                low = std::min(low, q.y), high = std::max(high, q.y);
        return high - low;
    }
    double river() { return across() - 2 * 420; }
};

}  // namespace

TEST_CASE("the form's inside is the blank's, not the sawn top's", "[pour][T6]") {
    Planks f;
    const Plan plan = f.plan();
    const Form& form = plan.pour->form;
    CHECK(form.inside_length_mm == Approx(1660));  // 30 beyond either end
    CHECK(form.inside_width_mm == Approx(f.across()));
    CHECK(form.inside_width_mm > 700 + 100);  // its sides are sawn off after the pour
    REQUIRE(plan.top->blanks.size() == 2);
    // Buoyancy of each whole blank: Archimedes.
    const Resin& r = river_resin(f.docs.shop.resins, "");
    for (std::size_t i = 0; i < 2; ++i) {
        const double litres = 1660 * 420 * 40e-6;
        CHECK(plan.top->blanks[i].volume_l == Approx(litres).epsilon(1e-6));
        const double force = (r.mixed_density() * litres - litres * plan.top->regions[i].kg_m3 / 1000) * g0;
        CHECK(plan.pour->floats[i].force_n == Approx(force).epsilon(1e-6));
    }
}

TEST_CASE("all of the resin: the ends of the form, the wedge of a slope, banks that lean the same way", "[pour][T10]") {
    Planks f;
    const PourPlan p = *f.plan().pour;
    REQUIRE(p.compartments.size() == 1);
    const double wide = f.river();
    const double over = f.job().fill.overfill_mm + f.job().pour.after_mm;
    CHECK(p.compartments[0].net_l == Approx(1600 * wide * 40e-6).epsilon(1e-6));
    CHECK(p.compartments[0].ends_l == Approx(60 * wide * 40e-6).epsilon(1e-4));
    CHECK(p.pour_l == Approx(1660 * wide * (40 + over) * 1e-6).epsilon(1e-6));
    double lifts = 0;
    for (const PourLift& l : p.lifts) lifts += l.volume_l;
    CHECK(lifts == Approx(p.pour_l));
    // Out of level by 4 mm a metre the mean stands half of it over half the length deeper: that much more is mixed.
    f.job().pour.slope_mm_m = 4;
    const PourPlan sloped = *f.plan().pour;
    CHECK(sloped.form.wedge_l == Approx(1660 * wide * 0.004 * 830 * 1e-6).epsilon(1e-6));
    CHECK(sloped.pour_l == Approx(p.pour_l + sloped.form.wedge_l).epsilon(1e-6));
    CHECK(sloped.mix_l > p.mix_l);
    f.job().pour.slope_mm_m = 0;
    // Both banks lean to the left below by 20 over the slab's 50, 16 over the 40 that are left: as steep either way.
    f.job().pour.soak_ml_m2 = 100;
    const double upright = f.plan().pour->compartments[0].soak_l;
    CHECK(upright == Approx(2 * 1660 * 40 * 1e-6 * 0.1).epsilon(1e-3));
    for (auto& [id, slab] : f.docs.slabs)
        for (Station& s : slab.tape.stations) s.other_left_mm = *s.left_mm + 20, s.other_right_mm = *s.right_mm - 20;
    const double leaning = f.plan().pour->compartments[0].soak_l;
    CHECK(leaning == Approx(2 * 1660 * std::hypot(40, 16) * 1e-6 * 0.1).epsilon(2e-3));
}

TEST_CASE("on every river of the demo the form holds every leaf, and its litres are more than the sawn top's", "[pour][T6][T10]") {
    const Documents& d = demo_shop();
    int rivers = 0;
    for (const auto& [id, job] : d.jobs) {
        if (job.makeup.kind != MakeUp::river) continue;
        const Plan plan = plan_job(job, d);
        if (plan.pour->compartments.empty()) continue;
        ++rivers;
        INFO(id);
        const Form& form = plan.pour->form;
        for (const Blank& b : plan.top->blanks)
            for (const Ring* ring : {&b.above, &b.below}) {
                const Box box = bounds(*ring);
                CHECK(box.low.y >= form.middle.y - form.inside_width_mm / 2 - 1e-6);
                CHECK(box.high.y <= form.middle.y + form.inside_width_mm / 2 + 1e-6);
                CHECK(box.low.x >= form.middle.x - form.inside_length_mm / 2 - 1e-6);
                CHECK(box.high.x <= form.middle.x + form.inside_length_mm / 2 + 1e-6);
            }
        double net = 0;
        double whole = 0;
        for (const Compartment& c : plan.pour->compartments) net += c.net_l, whole += c.net_l + c.ends_l;
        // The blank's river by slices of a millimetre, along both faces: close to the ruled volume.
        const RiverRun& run = plan.top->rivers.front();
        double slices = 0;
        const Box along = bounds(run.form_above);
        for (double u = along.low.x + 0.5; u < along.high.x; u += 1)
            for (const Ring* ring : {&run.form_above, &run.form_below})
                for (const Span1 s : cut_at_x(*ring, u)) slices += (s.to - s.from) * plan.top->thickness_mm / 2 * 1e-6;
        // Where banks cross one gives way, which no slice between them sees.
        const bool crossed = find_caution(plan.lay->cautions, "lay.banks_meet") != nullptr;
        CHECK(crossed == (id == "job-boathouse-counter"));
        if (plan.pour->compartments.size() == 1 && !crossed) CHECK(whole == Approx(slices).epsilon(0.01));
        CHECK(whole > net);
    }
    CHECK(rivers >= 2);
}

TEST_CASE("an upper lift is a syrup when its own surface is, and gels after that", "[pour][T9]") {
    const Resin slow = starting_resins()[0];
    PourChoices c;
    c.lifts = 2;
    const auto lifts = forecast_lifts(slow, 60, 20, c);
    REQUIRE(lifts.size() == 2);
    // Followed anew with finer steps: where the surface of the second passes a quarter and gels.
    const auto fine = cure_lifts(kinetics_of(slow), section_of(30, 20, c), {30, 30}, {1.5, 0});
    for (std::size_t i = 0; i < 2; ++i) {
        INFO(i);
        CHECK(lifts[i].syrup_h == Approx(*fine[i].syrup_h).epsilon(0.04));
        CHECK(lifts[i].syrup_h < lifts[i].model.gel_h - 1);
    }
    // On what is warm it comes earlier than on the cold board.
    CHECK(lifts[1].syrup_h < lifts[0].syrup_h);
}

TEST_CASE("a pour that no number of lifts cools is told with what would do", "[pour][T4]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at("job-tarn-river");
    for (Month& m : docs.shop.air.months) m.temp_c = 30;
    job.fill.river = "hot";
    Resin hot = starting_resins()[3];
    hot.key = hot.label = "hot";
    hot.deepest_mm = 60;
    docs.shop.resins.push_back(hot);
    const PourPlan p = *plan_job(job, docs).pour;
    const Caution* c = find_caution(p.cautions, "pour.hot");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
    const std::string says = render(*c, {});
    INFO(says);
    CHECK(says.find("would do") != std::string::npos);
    // What it names does it: poured of that resin the stop is gone.
    bool one = false;
    for (const Resin& r : docs.shop.resins) {
        if (r.key == "hot" || says.find(r.label + " would do") == std::string::npos) continue;
        one = true;
        job.fill.river = r.key;
        CHECK_FALSE(find_caution(plan_job(job, docs).pour->cautions, "pour.hot"));
        job.fill.river = "hot";
    }
    CHECK(one);
    // With nothing else on the shelf the lift that stays cool is told, and it does.
    docs.shop.resins = {hot};
    const PourPlan alone = *plan_job(job, docs).pour;
    const Caution* thin = find_caution(alone.cautions, "pour.hot");
    REQUIRE(thin);
    const std::string then = render(*thin, {});
    INFO(then);
    CHECK((then.find("Lifts of") != std::string::npos || then.find("no lift of it stays cool") != std::string::npos));
}
