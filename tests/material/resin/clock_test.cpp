// The one clock of a resin: by hand, and that nothing on any job is dated before its cure.
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <random>

#include "core/material/resin/clock.h"
#include "core/material/resin/mix.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/pour/pour.h"
#include "tests/demo_job.h"
#include "tests/everything.h"
#include "tests/how_much.h"
#include "tests/shop/job/any_job.h"

using namespace yb;

namespace {

/// 18 °C against 25: exp(55000/8.314462618 · (1/291.15 − 1/298.15)) = exp(0.53344) = 1.7048, worked by hand.
constexpr double slower_18 = 1.7048;

const Operation* operation(const Plan& p, const char* key) {
    for (const Operation& o : p.days->operations)
        if (o.key == key) return &o;
    return nullptr;
}

}  // namespace

TEST_CASE("a label's hours stand above the model, brought to the air of those days", "[clock][resin]") {
    Resin r = starting_resins().front();
    const Simulated model{80, 120, 263};
    const CureClock bare = clock_of(r, 18, model);
    CHECK(bare.next_from_h == 80);
    CHECK(bare.next_to_h == 120);
    CHECK(bare.shave_from_h == 80);
    CHECK(bare.hard_h == 263);
    CHECK(bare.full_h == 263);
    CHECK_FALSE(bare.hard_by_label);
    r.recoat_from_h = 36, r.recoat_to_h = 72, r.sand_h = 96, r.cured_h = 168;
    const CureClock said = clock_of(r, 18, model);
    CHECK(said.next_from_h == Approx(36 * slower_18).epsilon(1e-4));
    CHECK(said.next_to_h == Approx(72 * slower_18).epsilon(1e-4));
    CHECK(said.hard_h == Approx(96 * slower_18).epsilon(1e-4));
    CHECK(said.full_h == Approx(168 * slower_18).epsilon(1e-4));
    CHECK(said.hard_by_label);
    // At the label's own temperature they are the label's own.
    CHECK(clock_of(r, 25, model).hard_h == Approx(96));
    // A label that calls it hard before it gels is held at the gel; cured is never before hard.
    r.sand_h = 1, r.cured_h = 2;
    const CureClock odd = clock_of(r, 25, model);
    CHECK(odd.hard_h == 80);
    CHECK(odd.full_h == 80);
    // What never cures while it is followed is held at the end of it.
    CHECK(clock_of(starting_resins().front(), 5, {90, {}, {}}).hard_h == 600);
}

TEST_CASE("so little that it keeps the air's temperature gels and cures as the law alone has it", "[clock][resin]") {
    for (const Resin& r : starting_resins()) {
        INFO(r.key);
        const CureClock c = clock_of_little(r, 20);
        CHECK(c.shave_from_h == Approx(gel_hours(r, 20)));
        CHECK(c.hard_h == Approx(isothermal_h(kinetics_of(r), 0.95, 20)));
        CHECK(c.shave_from_h <= c.next_to_h);
        CHECK(c.next_to_h <= c.hard_h);
        CHECK(clock_of_little(r, 12).hard_h >= c.hard_h);
    }
}

TEST_CASE("nothing of a pour is dated before its cure, in Days, on the card and in what is said [T39]", "[clock][pour][T39]") {
    int pours = 0;
    for (const auto& [id, job] : demo_shop().jobs) {
        if (!job.days.done.empty()) continue;  // what is done stands where it was done
        DemoJob f(id.c_str());
        for (const double air : {14.0, 19.0, 26.0})
            for (const bool label : {false, true}) {
                f.air(air);
                for (Resin& r : f.docs.shop.resins) r.sand_h = label && !r.solid ? std::optional(r.gel_25_h * 2.4) : std::nullopt;
                const Plan p = f.plan();
                if (p.pour->lifts.empty()) continue;
                INFO(id << " " << air << " " << label);
                ++pours;
                const PourLift& last = p.pour->lifts.back();
                const double hard = last.poured_h + p.pour->clock.hard_h;
                CHECK(p.pour->clock.hard_by_label == label);
                const Operation* pour = operation(p, "pour");
                const Operation* out = operation(p, "unmould");
                REQUIRE(pour);
                REQUIRE(out);
                CHECK(out->start_h >= pour->hands_end_h + hard - 1e-6);
                // While it is soft it is shaved, and the form stays on until it is hard.
                const Operation* shave = operation(p, "shave");
                REQUIRE(shave);
                CHECK(shave->start_h >= pour->hands_end_h + last.poured_h + p.pour->clock.shave_from_h - 1e-6);
                CHECK(shave->start_h < out->start_h);
                for (const char* later : {"scrape", "topup", "bleed", "touchup", "level"})
                    if (const Operation* o = operation(p, later)) CHECK(o->start_h >= out->start_h);
                const Operation* up = operation(p, "topup");
                REQUIRE(up);
                for (const char* later : {"bleed", "touchup"})
                    if (const Operation* o = operation(p, later)) CHECK(o->start_h >= up->hands_end_h + p.pour->little.hard_h - 1e-6);
                for (const CardStep& s : pour_card(*p.pour, f.job().pour, river_resin(f.docs.shop.resins, f.job().fill.river))) {
                    if (s.key == "unmould") CHECK(s.from_s == Approx(p.pour->clock.hard_h * 3600));
                    if (s.key == "gelled") CHECK(s.from_s == Approx(last.clock.shave_from_h * 3600));
                }
                const Caution* after = find_caution(p.pour->cautions, "pour.after");
                REQUIRE(after);
                CHECK(after->says.value(1) == Approx(p.pour->clock.hard_h));
            }
    }
    CHECK(pours >= 12);
}

TEST_CASE("on pours and fillings by lot nothing is dated before its cure", "[clock][pour][fill][any]") {
    int pours = 0;
    int shaved = 0;
    int fills = 0;
    for (unsigned seed = 0; seed < so_many(60U, 600U); ++seed) {
        Dice dice{std::mt19937(seed)};
        const char* ids[] = {"job-tarn-river", "job-boathouse-counter", "job-reading-table", "job-hall-table"};
        DemoJob f(ids[seed % 4]);
        f.air(dice.between(8, 30));
        Job& j = f.job();
        j.top.thickness_mm = dice.between(22, 55);
        j.fill.river = dice.one_in(2) ? "slow-deep" : "medium";
        j.pour.lifts = dice.upto(4);
        j.pour.fans = dice.one_in(2);
        for (Leaf& l : j.leaves) l.placement.x_mm += dice.between(-20, 20);
        for (Resin& r : f.docs.shop.resins) {
            r.sand_h = dice.one_in(2) ? std::optional(dice.between(1, 200)) : std::nullopt;
            r.recoat_from_h = dice.one_in(2) ? std::optional(dice.between(1, 60)) : std::nullopt;
            r.cured_h = dice.one_in(3) ? std::optional(dice.between(50, 400)) : std::nullopt;
        }
        const Plan p = f.plan();
        INFO(ids[seed % 4] << ", seed " << seed);
        if (const Operation* pour = operation(p, "pour")) {
            ++pours;
            const Operation* out = operation(p, "unmould");
            REQUIRE(out);
            // Of the last lift of any compartment; a lift before it lies below one that came once it had gelled.
            const PourLift& last = *std::max_element(p.pour->lifts.begin(), p.pour->lifts.end(), [](const PourLift& a, const PourLift& b) {
                return a.poured_h + a.clock.hard_h < b.poured_h + b.clock.hard_h;
            });
            CHECK(out->start_h >= pour->hands_end_h + last.poured_h + last.clock.hard_h - 1e-6);
            if (const Operation* shave = operation(p, "shave")) {
                ++shaved;
                for (const PourLift& l : p.pour->lifts)
                    CHECK(shave->start_h >= pour->hands_end_h + l.poured_h + l.clock.shave_from_h - 1e-6);
                CHECK(shave->start_h < out->start_h);
            }
            const Operation* up = operation(p, "topup");
            REQUIRE(up);
            CHECK(up->start_h >= out->hands_end_h);
            for (const char* later : {"bleed", "touchup"})
                if (const Operation* o = operation(p, later)) CHECK(o->start_h >= up->hands_end_h + p.pour->little.hard_h - 1e-6);
        }
        const Operation* fill = operation(p, "fill");
        const Operation* level = operation(p, "level");
        if (!fill || !level) continue;
        for (const VoidPlan& v : p.fill->voids) {
            if (v.lifts.empty() || v.left_open || v.gone) continue;
            ++fills;
            const Resin* resin = find_resin(f.docs.shop.resins, v.resin);
            REQUIRE(resin);
            const CureClock clock = clock_of_little(*resin, p.air_of(step_key::fill).day.temp_c);
            const double rounds = static_cast<double>(v.lifts.size() - 1) * clock.next_from_h;
            CHECK(level->start_h >= fill->hands_end_h + rounds + clock.hard_h - 1e-6);
        }
    }
    CHECK(pours >= 20);
    CHECK(shaved >= 10);
    CHECK(fills >= 30);
}
