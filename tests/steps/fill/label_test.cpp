// One label, one mix and one cure, in Fill as in Pour; parts of different resins are never added.
#include <catch2/catch.hpp>

#include "core/ground/cure/cure.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/pour/pour.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

struct Voids {
    Slab slab = plank("p", 2000, 600, 50);
    Job job = on(slab, {1600, 500, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
    Shop shop;
    Voids() {
        for (Month& m : shop.air.months) m = {20, 50};
        job.flat.aim = FlatAim::spare_show;  // depths are counted from the show face
    }
    void add(double depth, double x, double y0 = -30, double y1 = 30) {
        slab.flaws.push_back(
            {"f" + std::to_string(slab.flaws.size() + 1), FlawKind::void_, Face::a, box(x, y0, x + 100, y1), false, depth, 1, ""});
    }
    Resin& resin(const char* key) {
        for (Resin& r : shop.resins)
            if (r.key == key) return r;
        throw std::logic_error(key);
    }
    FillPlan plan() const { return *plan_job(job, slab, shop).fill; }
};

}  // namespace

TEST_CASE("a label by mass is mixed by mass in Fill too, and its words say so", "[fill][T10]") {
    Voids f;
    f.add(30, 900);
    Resin& r = f.resin("slow-deep");
    r.by_mass = true, r.parts_a = 100, r.parts_b = 45, r.density_a = 1.12, r.density_b = 0.97;
    const FillPlan p = f.plan();
    REQUIRE(p.voids.size() == 1);
    REQUIRE(p.voids[0].resin == "slow-deep");
    for (const Lift& l : p.voids[0].lifts) {
        CHECK(l.a_kg / l.b_kg == Approx(100.0 / 45));
        CHECK(l.a_l + l.b_l == Approx(l.volume_l));
        CHECK(l.a_l == Approx(l.a_kg / 1.12));
    }
    // By hand: a litre of mix weighs (100 + 45)/(100/1.12 + 45/0.97) g/mL.
    CHECK(mixed(r, 1).a_kg + mixed(r, 1).b_kg == Approx(145 / (100 / 1.12 + 45 / 0.97)));
    const auto says = [&](const Figure& f2) {
        std::string out = f2.working.formula;
        for (const Given& g : f2.working.given) out += "\n" + g.name + " " + g.from;
        return out;
    };
    CHECK(says(figure(p.figures, "fill.parts")).find("by weight") != std::string::npos);
    CHECK(says(figure(p.figures, "fill.parts")).find("by volume") == std::string::npos);
    const auto things = fill_things(p, f.shop.resins);
    CHECK(says(figure(things[0].figures, "void.parts")).find("by volume") == std::string::npos);
    CHECK(render(parts_of(r), {}) == "100 to 45 by weight");
    PourPlan pour;
    pour.compartments.resize(1);
    CHECK(render(label_of(pour, 0, r), {}).find("100 to 45 by weight") != std::string::npos);
}

TEST_CASE("a pot life on the label sets Fill's clock as it sets the pour's", "[fill]") {
    Voids f;
    f.add(30, 900);
    Resin& r = f.resin("slow-deep");
    const double before = f.plan().wait_h;
    r.pot_life_h = 16;
    // The cup that the label speaks of, with the gel time that Fill counts with, comes to the label's pot life.
    Kinetics k;
    k.heat_kj_kg = r.heat_kj_kg;
    k.gel_25_h = gel_hours(r, 25);
    CHECK(pot_life(k, {r.pot_g, 0, 25}).pot_life_h == Approx(16).epsilon(1e-4));
    CHECK(gel_hours(r, 20) / gel_hours(r, 25) == Approx(std::exp(55000 / 8.314462618 * (1 / 293.15 - 1 / 298.15))));
    CHECK(f.plan().wait_h < before * 0.7);
}

TEST_CASE("parts of two resins are two figures, and small masses are told apart", "[fill][T8]") {
    Voids f;
    f.add(30, 700);
    f.add(5, 1100);
    const FillPlan p = f.plan();
    REQUIRE(p.voids.size() == 2);
    REQUIRE(p.voids[0].resin != p.voids[1].resin);
    double sum = 0;
    int figures = 0;
    for (const Figure& one : p.figures)
        if (one.key.rfind("fill.parts", 0) == 0) ++figures, sum += one.value.value + (one.second ? one.second->value : 0);
    CHECK(figures == 2);
    CHECK(sum == Approx(p.mixed_l));
    for (const VoidPlan& v : p.voids) {
        double a = 0;
        for (const Lift& l : v.lifts) a += l.a_l;
        const std::string key = v.resin == p.voids[0].resin ? "fill.parts" : "fill.parts." + v.resin;
        CHECK(figure(p.figures, key).value.value == Approx(a));
        CHECK(figure(p.figures, key).label == "Part A and part B, " + find_resin(f.shop.resins, v.resin)->label);
    }
    CHECK(format(kg(0.0011), {}) == "1.1 g");
    CHECK(format(kg(0.0006), {}) == "0.6 g");
    CHECK(format(kg(0.012), {}) == "12 g");
}

TEST_CASE("a knot that nobody probed is not advised by a depth of nothing", "[fill]") {
    Voids f;
    f.slab.flaws.push_back({"k", FlawKind::knot, Face::a, box(900, -20, 940, 20), false, {}, 1, ""});
    f.slab.flaws.back().loose = true;
    const FillPlan p = f.plan();
    REQUIRE(p.voids.size() == 1);
    CHECK(render(p.voids[0].why, {}).find("not probed") != std::string::npos);
}
