// The shelf and the form: kits, labels beside the model, sheets that contradict themselves, parts nested on panels; dividers and a
// second colour in a river.
#include <random>

#include <catch2/catch.hpp>

#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/steps/fill/fill.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/demo_job.h"
#include "tests/everything.h"

using namespace yb;

namespace {

std::string text(const Phrase& p) { return render(p, Units::metric()); }

}  // namespace

TEST_CASE("a river between dividers holds what the whole held, each part in its colour [T8]", "[pour][T8]") {
    DemoJob r("job-tarn-river");
    const Plan whole = r.plan();
    const double net = whole.pour->compartments.at(0).net_l;
    r.job().pour.colour = "tarn blue";
    r.job().pour.pigment_g_kg = 4;
    r.job().pour.dividers = {{1, 300, "peat", 9}, {1, -500, "moss", 2}};  // in any order
    const Plan plan = r.plan();
    const PourPlan& p = *plan.pour;
    REQUIRE(p.compartments.size() == 3);
    double sum = 0;
    for (const Compartment& c : p.compartments) sum += c.net_l;
    CHECK(sum == Approx(net).epsilon(1e-6));
    CHECK(p.compartments[0].colour == "tarn blue");
    CHECK(p.compartments[1].colour == "moss");
    CHECK(p.compartments[2].colour == "peat");
    // Where they stand the parts meet and do not overlap.
    CHECK(bounds(p.compartments[0].above).high.x == Approx(-500).margin(0.01));
    CHECK(bounds(p.compartments[1].above).low.x == Approx(-500).margin(0.01));
    CHECK(bounds(p.compartments[2].above).low.x == Approx(300).margin(0.01));
    CHECK(intersection_area(p.compartments[0].above, p.compartments[1].above) < 1);
    // Batches carry the dose of their own part: per kilogram of the mix.
    double mixed = 0;
    for (const Batch& b : p.batches) {
        const Compartment& c = p.compartments.at(p.lifts.at(b.lift).compartment);
        CHECK(b.pigment_g == Approx((b.a_g + b.b_g) / 1000 * c.pigment_g_kg));
        mixed += b.volume_l;
    }
    CHECK(mixed == Approx(p.mix_l));
    // One beside the river is said.
    CHECK_FALSE(find_caution(p.cautions, "pour.divider"));
    r.job().pour.dividers.push_back({1, 5000, "nowhere", 0});
    CHECK(find_caution(r.plan().pour->cautions, "pour.divider"));
    CHECK(r.plan().pour->compartments.size() == 3);
}

TEST_CASE("dividers are set and taken away by edits, two in one place are refused", "[pour][edit]") {
    DemoJob r("job-tarn-river");
    Job j = r.job();
    add_divider(j, 1, 200);
    add_divider(j, 1, -300);
    REQUIRE(j.pour.dividers.size() == 2);
    CHECK(j.pour.dividers[0].u_mm == -300);
    const Job before = j;
    CHECK_THROWS_AS(add_divider(j, 1, 210), Refusal);
    CHECK(j == before);
    drop_divider(j, 0);
    CHECK(j.pour.dividers[0].u_mm == 200);
}

TEST_CASE("a second colour has its window, after the syrup and before the gel [T9]", "[pour][T9]") {
    DemoJob r("job-tarn-river");
    CHECK_FALSE(r.plan().pour->second);
    r.job().pour.second_pct = 15;
    r.job().pour.second_colour = "white";
    const Plan plan = r.plan();
    const PourPlan& p = *plan.pour;
    REQUIRE(p.second);
    const PourLift& last = p.lifts.back();
    CHECK(p.second->litres == Approx(last.mix_l * 0.15));
    CHECK(p.second->from_h == last.syrup_h);
    CHECK(p.second->from_h > 0.2 * last.model.gel_h);
    CHECK(p.second->from_h < p.second->to_h);
    CHECK(p.second->to_h < last.model.gel_h);
    // A quarter cured at 25 °C, kept there: the same window by the rate alone.
    const Kinetics k = kinetics_of(r.docs.shop.resins.front());
    CHECK(isothermal_h(k, 0.25, 25) < isothermal_gel_h(k, 25));
    const Caution* says = find_caution(p.cautions, "pour.syrup");
    REQUIRE(says);
    CHECK(says->severity == Severity::watch);
    CHECK(says->says.value(0) == Approx(p.second->from_h));
    // The card asks for it in that window, and says when it is too late.
    for (const CardStep& s : pour_card(p, r.job().pour, r.docs.shop.resins.front()))
        if (s.key == "second colour") {
            CHECK(s.from_s == Approx(p.second->from_h * 3600));
            CHECK(s.until_s == Approx(p.second->to_h * 3600));
            CHECK(text(s.late).find("too thick") != std::string::npos);
            return;
        }
    FAIL("the card has no step for it");
}

TEST_CASE("kits: enough and no more, what is on the shelf counted first [T10]", "[pour][T10]") {
    Resin r;
    r.kit_l = 6;
    r.left_l = 2.5;
    r.price_l = 20;
    Shopping s = shopping_for(r, 13.5);
    CHECK(s.kits == 2);
    CHECK(s.buys_l == 12);
    CHECK(s.remains_l == Approx(1));
    CHECK(s.cost == 240);
    CHECK(shopping_for(r, 14.5).kits == 2);  // to the last drop
    CHECK(shopping_for(r, 14.6).kits == 3);
    CHECK(shopping_for(r, 2).kits == 0);
    CHECK(shopping_for(r, 2).cost == 0);
    r.kit_l.reset();
    s = shopping_for(r, 13.5);
    CHECK(s.buys_l == Approx(11));
    CHECK(s.remains_l == Approx(0).margin(1e-12));
    DemoJob river("job-tarn-river");
    river.docs.shop.resins.front().kit_l = 5;
    river.docs.shop.resins.front().left_l = 1;
    const Plan plan = river.plan();
    CHECK(plan.pour->shopping.kits == static_cast<int>(std::ceil((plan.pour->mix_l - 1) / 5)));
    CHECK(find_caution(plan.pour->cautions, "pour.buy"));
    CHECK(find_caution(plan.pour->cautions, "pour.short"));
}

TEST_CASE("a label stands beside the model that was fitted to it", "[pour][shelf]") {
    Resin r = starting_resins()[0];
    CHECK(label_against_model(r).empty());  // it gives no times
    r.pot_life_h = 6, r.pot_g = 300;
    r.recoat_from_h = 20, r.recoat_to_h = 40, r.cured_h = 150;
    const auto rows = label_against_model(r);
    REQUIRE(rows.size() == 5);
    CHECK(rows[0].model_h == Approx(6).epsilon(0.002));  // what it was fitted to
    const Kinetics k = kinetics_of(r);
    for (const LabelRow& row : rows) CHECK(row.model_h > 0);
    // By Euler's rule in small steps at 25 °C: how long to α of 0.55 and 0.75.
    for (const auto& [what, alpha] : {std::pair{2, 0.55}, {3, 0.75}}) {
        double a = 0;
        double h = 0;
        while (a < alpha) a += k.rate(a, 25) * 3.6, h += 0.001;
        CHECK(rows[static_cast<std::size_t>(what)].model_h == Approx(h).epsilon(0.01));
    }
}

TEST_CASE("a sheet that contradicts itself is told, each fault in a sentence", "[pour][shelf]") {
    for (const Resin& r : starting_resins()) {
        INFO(r.key);
        CHECK(sheet_faults(r).empty());
    }
    const auto faults = [](auto change) {
        Resin r = starting_resins()[1];
        change(r);
        std::string all;
        for (const Phrase& p : sheet_faults(r)) all += text(p) + "\n";
        return all;
    };
    CHECK(faults([](Resin& r) { r.cured_h = 2; }).find("misread") != std::string::npos);
    CHECK(faults([](Resin& r) { r.parts_a = 0; }).find("part of nothing") != std::string::npos);
    CHECK(faults([](Resin& r) { r.density_b = 0; }).find("density of nothing") != std::string::npos);
    CHECK(faults([](Resin& r) { r.recoat_from_h = 30, r.recoat_to_h = 20; }).find("ends before it opens") != std::string::npos);
    CHECK(faults([](Resin& r) { r.sand_h = 1; }).find("nothing uncured") != std::string::npos);
    CHECK(faults([](Resin& r) { r.low_c = 40; }).find("Exchange them") != std::string::npos);
    DemoJob river("job-tarn-river");
    river.docs.shop.resins.front().cured_h = 1;
    const Plan plan = river.plan();
    const Caution* c = find_caution(plan.pour->cautions, "pour.sheet");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
}

TEST_CASE("parts are nested on panels: none over another, none past the edge, all of them there", "[pour][form]") {
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> size(20, 3200);
    std::uniform_int_distribution<int> several(1, 5);
    for (int round = 0; round < 200; ++round) {
        std::vector<FormPart> parts;
        double wanted = 0;
        for (int i = several(dice); i > 0; --i) {
            parts.push_back({"part", several(dice), size(dice), size(dice) / 3});
            wanted += parts.back().count * parts.back().length_mm * parts.back().width_mm;
        }
        const double kerf = round % 7;
        const auto sheets = nest(parts, 2500, 1250, kerf);
        double laid = 0;
        for (const Sheet& s : sheets) {
            CHECK_FALSE(s.parts.empty());
            for (std::size_t i = 0; i < s.parts.size(); ++i) {
                const NestedPart& a = s.parts[i];
                laid += a.length_mm * a.width_mm;
                CHECK(a.x_mm >= 0);
                CHECK(a.y_mm >= 0);
                CHECK(a.x_mm + a.length_mm <= 2500 + 1e-6);
                CHECK(a.y_mm + a.width_mm <= 1250 + 1e-6);
                for (std::size_t j = 0; j < i; ++j) {
                    const NestedPart& b = s.parts[j];
                    const bool clear = a.x_mm + a.length_mm + kerf <= b.x_mm + 1e-6 || b.x_mm + b.length_mm + kerf <= a.x_mm + 1e-6 ||
                                       a.y_mm + a.width_mm + kerf <= b.y_mm + 1e-6 || b.y_mm + b.width_mm + kerf <= a.y_mm + 1e-6;
                    CHECK(clear);
                }
            }
        }
        CHECK(laid == Approx(wanted));
        CHECK(static_cast<double>(sheets.size()) >= wanted / (2500.0 * 1250));
    }
    // By hand: four of 1200 by 600 lie on one panel of 2500 by 1250 with a kerf of 4.
    CHECK(nest({{"a", 4, 1200, 600}}, 2500, 1250, 4).size() == 1);
    CHECK(nest({{"a", 5, 1200, 600}}, 2500, 1250, 4).size() == 2);
    CHECK(nest({}, 2500, 1250, 4).empty());
    CHECK_THROWS_AS(nest({{"a", 1, 10, 10}}, 0, 1250, 4), std::invalid_argument);
}

TEST_CASE("the form: stiffeners by hand, what is set out, where it leaks [T6]", "[pour][form][T6]") {
    DemoJob r("job-tarn-river");
    const Plan plan = r.plan();
    const Form& f = plan.pour->form;
    // A side between its stiffeners sags by half a millimetre: 5·w·L⁴/(384·E·I).
    const double i = f.side_mm / 1000 * std::pow(0.018, 3) / 12;
    CHECK(5 * f.wall_n_m * std::pow(f.stiffeners_mm / 1000, 4) / (384 * 3.5e9 * i) == Approx(0.0005).epsilon(1e-6));
    CHECK(f.rolls == static_cast<int>(std::ceil(f.tape_m / 50)));
    CHECK(f.screws == static_cast<int>(std::ceil(2 * (f.inside_length_mm + f.inside_width_mm) / 150)));
    std::string out;
    for (const Phrase& p : plan.pour->set_out) out += text(p) + "\n";
    CHECK(out.find("4 cups of") != std::string::npos);
    CHECK(out.find("gloves") != std::string::npos);
    std::string leaks;
    for (const Phrase& p : plan.pour->leaks) leaks += text(p) + "\n";
    CHECK(leaks.find("corners") != std::string::npos);
    CHECK(leaks.find("runs out") != std::string::npos);  // a river that runs through has two ends
    CHECK(leaks.find("divider") == std::string::npos);
}
