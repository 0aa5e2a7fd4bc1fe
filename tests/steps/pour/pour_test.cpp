// The pour of a river: volumes that add up, lifts below the limit, batches by hand, Archimedes, the form, and every mistake told.
#include <catch2/catch.hpp>

#include "core/shop/edit/mends.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/demo_job.h"
#include "tests/everything.h"

using namespace yb;

namespace {}  // namespace

TEST_CASE("a pour adds up: net, overfill and soak-in to what is poured, that to lifts, those to batches", "[pour][T10]") {
    DemoJob f("job-tarn-river");
    for (const char* id : {"job-tarn-river", "job-boathouse-counter"}) {
        f.id = id;
        for (const double air : {14.0, 24.0}) {
            f.air(air);
            const Plan plan = f.plan();
            const PourPlan& p = *plan.pour;
            INFO(id << " " << air);
            REQUIRE(p.compartments.size() == 1);
            const Compartment& c = p.compartments.front();
            CHECK(c.net_l == Approx(plan.top->river_l()));
            CHECK(c.pour_l == Approx(c.net_l + c.ends_l + area(c.poured) * f.job().fill.overfill_mm * 1e-6 + c.soak_l));
            CHECK(c.ends_l > 0);
            CHECK(c.soak_l > 0);
            double lifts = 0;
            double mixed = 0;
            double deep = 0;
            for (const PourLift& l : p.lifts) lifts += l.volume_l, mixed += l.mix_l, deep += l.depth_mm;
            CHECK(lifts == Approx(p.pour_l));
            CHECK(mixed == Approx(p.mix_l));
            CHECK(deep == Approx(c.depth_mm + f.job().fill.overfill_mm));
            CHECK(p.mix_l == Approx(p.pour_l * 1.10 * 1.02));
            double batches = 0;
            for (const Batch& b : p.batches) {
                batches += b.volume_l;
                CHECK(b.a_l + b.b_l == Approx(b.volume_l));
                CHECK(b.a_l / b.b_l == Approx(2));
                CHECK(b.a_g == Approx(b.a_l * 1120));
                CHECK(b.b_g == Approx(b.b_l * 970));
                CHECK(b.volume_l <= f.job().pour.cup_l + 1e-9);
            }
            CHECK(batches == Approx(p.mix_l));
            // The banks lean: the wider face has the larger lift.
            const auto river = std::find_if(plan.top->regions.begin(), plan.top->regions.end(),
                                            [](const Region& r) { return r.kind == RegionKind::resin && !r.let_in; });
            if (p.lifts.size() > 1) {
                const bool opens_up = area(river->above) > area(river->below);
                CHECK((p.lifts.back().volume_l > p.lifts.front().volume_l) == opens_up);
            }
        }
    }
}

TEST_CASE("batches for the cups there are, by hand", "[pour][T7][T8]") {
    DemoJob f("job-tarn-river");
    f.job().pour.pigment_g_kg = 5;
    const PourPlan p = *f.plan().pour;
    // 13.5 L in cups of 4 L: four alike.
    REQUIRE(p.mix_l == Approx(14.15).margin(0.05));
    REQUIRE(p.batches.size() == 4);
    for (const Batch& b : p.batches) {
        CHECK(b.volume_l == Approx(p.mix_l / 4));
        CHECK(b.pigment_g == Approx(p.batches.front().pigment_g));
        CHECK(b.pigment_g == Approx(5 * (b.a_g + b.b_g) / 1000));
    }
    REQUIRE(find_caution(p.cautions, "pour.colour"));
    // A pot of 6 L degasses three at most.
    f.job().pour.degas = true;
    f.job().pour.pot_l = 6;
    const PourPlan q = *f.plan().pour;
    CHECK(q.batches.size() == 5);
    for (const Batch& b : q.batches) CHECK(b.volume_l <= 3);
    const Caution* pot = find_caution(q.cautions, "pour.pot");
    REQUIRE(pot);
    CHECK(pot->says.value(0) == Approx(3));
    // By mass: the same parts weigh what the label says.
    f.job().pour.degas = false;
    f.resin("slow-deep").by_mass = true;
    const PourPlan m = *f.plan().pour;
    for (const Batch& b : m.batches) CHECK(b.a_g / b.b_g == Approx(2));
}

TEST_CASE("a lift too deep or too warm is split until it stays below the limit, and told where it is not", "[pour][T4]") {
    DemoJob f("job-tarn-river");
    f.job().top.thickness_mm = 46;
    f.air(26);
    const PourPlan p = *f.plan().pour;
    REQUIRE(p.lifts.size() > 1);
    for (const PourLift& l : p.lifts) {
        CHECK(l.peak_high_c <= f.job().pour.peak_limit_c);
        CHECK(l.peak_low_c <= l.peak_c);
        CHECK(l.peak_c <= l.peak_high_c);
        CHECK(l.clock.next_to_h >= l.clock.next_from_h);
    }
    CHECK_FALSE(find_caution(p.cautions, "pour.hot"));
    f.job().pour.lifts = 1;
    const PourPlan one = *f.plan().pour;
    REQUIRE(one.lifts.size() == 1);
    const Caution* hot = find_caution(one.cautions, "pour.hot");
    REQUIRE(hot);
    CHECK(hot->severity == Severity::stop);
    CHECK(hot->says.value(1) == Approx(one.lifts.front().peak_c));
    // Fans and the cool both help.
    f.job().pour.fans = true;
    CHECK(f.plan().pour->lifts.front().peak_c < one.lifts.front().peak_c - 5);
    f.job().pour.fans = false;
    f.air(18);
    CHECK(f.plan().pour->lifts.front().peak_c < one.lifts.front().peak_c - 20);
    // What the label forbids is a stop whatever the heat.
    f.resin("slow-deep").deepest_mm = 20;
    const PourPlan deep = *f.plan().pour;
    REQUIRE(find_caution(deep.cautions, "pour.label"));
    f.job().pour.lifts = 0;
    const Plan thin = f.plan();
    for (const PourLift& l : thin.pour->lifts) CHECK(l.depth_mm <= 20 + 1e-9);
}

TEST_CASE("what floats up is what Archimedes says, and is held with a margin of two", "[pour][T5]") {
    DemoJob f("job-tarn-river");
    const Plan plan = f.plan();
    const PourPlan& p = *plan.pour;
    const double rho = f.resin("slow-deep").mixed_density();
    REQUIRE(p.floats.size() == 2);
    for (const FloatUp& up : p.floats) {
        const Blank& leaf = plan.top->blanks[up.leaf];
        CHECK(up.force_n == Approx((rho * leaf.volume_l - leaf.mass_kg) * 9.80665).epsilon(1e-9));
        CHECK(up.clamps == static_cast<int>(std::ceil(2 * up.force_n / 1500)));
        CHECK(up.clamps * 1500.0 >= 2 * up.force_n);
    }
    REQUIRE(find_caution(p.cautions, "pour.float"));
    // 10.44 N on each metre of the form's side at 44 mm of 1100 kg/m³.
    CHECK(1100 * 9.80665 * 0.044 * 0.044 / 2 == Approx(10.44).margin(0.01));
    CHECK(p.form.wall_n_m == Approx(rho * 1000 * 9.80665 * std::pow(0.0415, 2) / 2).epsilon(1e-6));
}

TEST_CASE("the form holds the blank, its parts close round it, and its leaks, sag and slope are told", "[pour][T6]") {
    DemoJob f("job-tarn-river");
    const Plan plan = f.plan();
    const Form& form = plan.pour->form;
    CHECK(form.inside_length_mm >= plan.lay->rough_length_mm - 1e-9);
    CHECK(form.inside_width_mm >= f.job().top.width_mm - 1e-6);
    REQUIRE(form.parts.size() == 3);
    CHECK(form.parts[0].length_mm == form.inside_length_mm);
    CHECK(form.parts[1].length_mm == Approx(form.inside_length_mm + 2 * 18));
    CHECK(form.parts[2].length_mm == form.inside_width_mm);
    CHECK(form.caulk_m == Approx((2 * (form.inside_length_mm + form.inside_width_mm) + 4 * form.side_mm) / 1000));
    CHECK(form.tape_m * 0.05 >= form.inside_length_mm * form.inside_width_mm * 1e-6);
    REQUIRE(find_caution(plan.pour->cautions, "pour.leaks"));
    CHECK(plan.pour->dams.size() == 2);
    f.job().pour.bearers_mm = 1200;
    f.job().pour.slope_mm_m = 3;
    const PourPlan p = *f.plan().pour;
    const Caution* sags = find_caution(p.cautions, "pour.sags");
    REQUIRE(sags);
    f.job().pour.bearers_mm = sags->says.value(2);
    CHECK(f.plan().pour->form.sag_mm <= 0.5);
    const Caution* slope = find_caution(p.cautions, "pour.slope");
    REQUIRE(slope);
    CHECK(slope->says.value(1) == Approx(area(p.compartments[0].poured) * 0.003 * p.form.inside_length_mm / 2 * 1e-6));
}

TEST_CASE("a second colour's hour, a cup left standing, too little on the shelf, odd air", "[pour][T9][T48]") {
    DemoJob f("job-tarn-river");
    const PourPlan p = *f.plan().pour;
    REQUIRE(find_caution(p.cautions, "pour.syrup"));
    REQUIRE(find_caution(p.cautions, "pour.safe"));
    f.resin("slow-deep").left_l = 5;
    const Plan bare = f.plan();
    const Caution* few = find_caution(bare.pour->cautions, "pour.short");
    REQUIRE(few);
    CHECK(few->says.value(2) == Approx(p.mix_l - 5));
    f.air(32);
    CHECK(find_caution(f.plan().pour->cautions, "pour.air"));
    f.job().fill.river = "quick";
    CHECK(find_caution(f.plan().pour->cautions, "pour.cup"));
    f.job().pour.night_c = 9;
    CHECK(find_caution(f.plan().pour->cautions, "pour.night"));
}

TEST_CASE("a top without a river has nothing to pour, and a label's pot life is what its resin is fitted to", "[pour]") {
    Documents docs = demo_shop();
    const Plan plan = plan_job(docs.jobs.at("job-reading-table"), docs);
    CHECK(plan.pour->ready);
    CHECK(plan.pour->compartments.empty());
    CHECK(plan.pour->mix_l == 0);
    CHECK(plan.pour->cautions.empty());
    Resin r = starting_resins()[1];
    CHECK(kinetics_of(r).gel_25_h == 14);
    r.pot_life_h = 7.405;
    r.pot_g = 500;
    CHECK(kinetics_of(r).gel_25_h == Approx(14).epsilon(0.06));  // its cup here is as high as wide
    r.pot_life_h = 3;
    CHECK(kinetics_of(r).gel_25_h < 10);
}

TEST_CASE("each compartment and lift is a thing with its figures", "[pour]") {
    DemoJob f("job-tarn-river");
    const Plan plan = f.plan();
    const Resin slow = starting_resins()[0];
    const auto things = pour_things(*plan.pour, &slow, plan.placement.frame());
    REQUIRE(things.size() == 3 + plan.pour->lifts.size());
    // The form is one, as large as what it goes around, its cut list in its working.
    const Thing& form = things[things.size() - 2];
    CHECK(form.kind == "form");
    CHECK(bounds(form.area).width() == Approx(plan.pour->form.inside_length_mm + 2 * f.job().pour.sheet_mm).epsilon(1e-6));
    CHECK(figure(form.figures, "form.panels").value.value == Approx(static_cast<double>(plan.pour->form.sheets.size())));
    CHECK(figure(form.figures, "form.tape").second->value == plan.pour->form.rolls);
    CHECK(figure(things.back().figures, "resin.label").working.given.empty());  // its label gave no times
    CHECK(figure(things.back().figures, "resin.buy").value.value == Approx(plan.pour->shopping.buys_l));
    CHECK(pour_things(*plan.pour, nullptr, plan.placement.frame()).size() + 1 == things.size());
    CHECK(things[0].kind == "river");
    CHECK(figure(things[0].figures, "river.pour").value.value == Approx(plan.pour->pour_l));
    CHECK(things[1].kind == "lift");
    CHECK(figure(things[1].figures, "lift.mix").value.value == Approx(plan.pour->lifts[0].mix_l));
}

TEST_CASE("forty below and a top with no room for its river are told, and the plan stands", "[pour][hostile]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-tarn-river");
    for (Month& m : d.shop.air.months) m = {-40, 40};
    Plan plan = plan_job(job, d);
    REQUIRE_FALSE(plan.pour->lifts.empty());
    CHECK(find_caution(plan.pour->cautions, "pour.air"));
    for (const PourLift& l : plan.pour->lifts) CHECK(std::isfinite(l.peak_c));
    CHECK(std::isfinite(plan.pour->wait_h));
    // A top so narrow that nothing of the river is left has nothing to pour, and says so.
    d = demo_shop();
    Job& none = d.jobs.at("job-tarn-river");
    none.top.width_mm = 20;
    plan = plan_job(none, d);
    CHECK(plan.pour->lifts.empty());
    CHECK(plan.pour->form.parts.empty());
}

TEST_CASE("a sample cup of each colour is kept with its label, the first batch's [T8]", "[pour][card][T8]") {
    DemoJob f("job-tarn-river");
    f.job().pour.pigment_g_kg = 4;
    f.job().pour.colour = "tarn green";
    add_divider(f.job(), 1, 100);
    f.job().pour.dividers[0].colour = "bog oak";
    f.job().pour.dividers[0].pigment_g_kg = 9;
    const Plan plan = f.plan();
    const auto steps = card_of("pour", f.job(), plan, f.docs.shop);
    std::vector<std::string> labels;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (steps[i].key.rfind("sample ", 0) != 0) continue;
        labels.push_back(render(steps[i].more, Units::metric()));
        CHECK(steps[i - 1].key.rfind("pour ", 0) == 0);
    }
    REQUIRE(labels.size() == 2);
    CHECK(labels[0].find("tarn green, 4 g in each kg") != std::string::npos);
    CHECK(labels[1].find("bog oak, 9 g in each kg") != std::string::npos);
    const Resin& resin = river_resin(f.docs.shop.resins, f.job().fill.river);
    CHECK(labels[0].find(resin.label) != std::string::npos);
    CHECK(labels[0].find("2 to 1 by volume") != std::string::npos);
    // Without pigment it says so.
    f.job().pour.dividers.clear();
    f.job().pour.pigment_g_kg = 0;
    CHECK(render(label_of(*f.plan().pour, 0, resin), Units::metric()).find("no pigment") != std::string::npos);
}

TEST_CASE("what the pour leaves behind is in the days, after it is cured [T39]", "[pour][days][T39]") {
    DemoJob f("job-tarn-river");
    f.job().top.live = LiveEdges::both;
    const Plan plan = f.plan();
    const auto op = [&](const char* key) {
        for (const Operation& o : plan.days->operations)
            if (o.key == key) return o;
        FAIL(key);
        return Operation{};
    };
    // Scraped, topped up, edges cleaned, touched up – in that order, none before the last lift can be levelled.
    CHECK(op("scrape").start_h >= op("pour").end_h);
    CHECK(op("topup").start_h >= op("scrape").hands_end_h);
    CHECK(op("bleed").start_h >= op("topup").end_h);
    CHECK(op("touchup").start_h >= op("bleed").hands_end_h);
    // Where no edge is live there is nothing to clean.
    f.job().top.live = LiveEdges::none;
    const Plan sawn = f.plan();
    CHECK(std::none_of(sawn.days->operations.begin(), sawn.days->operations.end(), [](const Operation& o) { return o.key == "bleed"; }));
}

TEST_CASE("a form's corners as read: what the low ones cost, what packs them – an end past its bench [T6]", "[pour][form][T6]") {
    DemoJob f("job-tarn-river");
    Plan plan = f.plan();
    CHECK(plan.pour->form.wedge_l == 0);
    double surface = 0;
    for (const Compartment& c : plan.pour->compartments) surface += area(c.poured);
    // Level across, 4 mm higher at the right: the mean lies 2 below the highest, as a slope of 4 over the length has it.
    f.job().pour.corners_mm = {0, 4, 4, 0};
    plan = f.plan();
    CHECK(plan.pour->form.wedge_l == Approx(surface * 2 * 1e-6));
    CHECK(plan.pour->form.pack_mm == std::vector<double>{4, 0, 0, 4});
    const Caution* c = find_caution(plan.pour->cautions, "pour.level");
    REQUIRE(c);
    CHECK(c->severity == Severity::watch);
    f.job().pour.corners_mm = {};
    f.job().pour.slope_mm_m = 4000 / plan.pour->form.inside_length_mm;
    CHECK(f.plan().pour->form.wedge_l == Approx(surface * 2 * 1e-6));
    // Three of four read say nothing yet.
    f.job().pour.slope_mm_m = 0;
    for (std::size_t k = 0; k < 3; ++k) set_form_corner(f.job(), k, 3.0 * static_cast<double>(k));
    CHECK(f.plan().pour->form.pack_mm.empty());
    set_form_corner(f.job(), 3, 1);
    CHECK(f.plan().pour->form.pack_mm == std::vector<double>{6, 3, 0, 5});
    // Past its bench by 400 it hangs by q·L⁴/(8·E·I), the load of resin as deep as it is poured, its own strip of sheet.
    f.job().pour.overhang_mm = 400;
    plan = f.plan();
    const Resin& resin = river_resin(f.docs.shop.resins, f.job().fill.river);
    const double deep = plan.top->thickness_mm + f.job().fill.overfill_mm + f.job().pour.after_mm;
    const double q = resin.mixed_density() * 1000 * 9.80665 * deep / 1000;
    CHECK(plan.pour->form.overhang_sag_mm ==
          Approx(1000 * q * std::pow(0.4, 4) / (8 * 3.5e9 * std::pow(f.job().pour.sheet_mm / 1000, 3) / 12)));
    f.job().pour.overhang_mm = 900;
    plan = f.plan();
    c = find_caution(plan.pour->cautions, "pour.overhang");
    REQUIRE(c);
    const auto mend = mend_of(*c, f.docs, "job-tarn-river", plan);
    REQUIRE(mend);
    mended(f.docs, "job-tarn-river", *mend);
    CHECK_FALSE(find_caution(f.plan().pour->cautions, "pour.overhang"));
}
