// How a log could be sawn, against slabs that are really sawn from it.
#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>

#include "core/material/tree/saw_ways.h"

using namespace yb;

namespace {

/// A cylinder but for nothing: what chords tell by hand.
LogRecipe cylinder(double diameter, double length) {
    LogRecipe r;
    r.length_mm = length, r.butt_mm = r.top_mm = diameter;
    r.sweep_mm = r.wander_mm = r.flare_mm = r.out_of_round = r.spiral_deg = 0;
    r.end_check_mm = 0;
    return r;
}

}  // namespace

TEST_CASE("ways to saw a straight round log are its chords", "[tree][saw_ways]") {
    const GrownLog log(cylinder(600, 2500));
    const auto all = saw_ways(log, {60, 100}, 5, 10);
    REQUIRE(all.size() == 2);
    for (const SawWay& way : all) {
        const double t = way.plan.thickness_mm;
        // The slab nearest to the middle: its narrower face lies a thickness off, or half of it where the pith is boxed.
        const double z = way.pith_boxed ? t / 2 : t + 2.5;
        const double chord = 2 * std::sqrt(300.0 * 300 - z * z);
        CHECK(way.straight_mm == Approx(chord).epsilon(0.06));  // bark wobbles by some per cent
        CHECK(way.straight_mm < chord * 1.02);
        CHECK((way.with_pith == 1) == way.pith_boxed);
        CHECK(way.finishes_mm < t);
        CHECK(way.finishes_mm > 0.8 * t);
    }
    CHECK(all[0].boards > all[1].boards);
}

TEST_CASE("what is told of a way is what the slabs sawn so give", "[tree][saw_ways]") {
    LogMeasured m;
    m.length_mm = 2400, m.butt_mm = 560, m.top_mm = 500, m.sweep_mm = 60;
    const LogRecipe recipe = measured_recipe(11, "sycamore, American", m);
    CHECK(recipe.top_mm == 500);
    CHECK(recipe.sweep_mm == 60);
    const GrownLog log(recipe);
    const SawWay way = saw_ways(log, {65}, 4, 10).front();
    SawPlan plan = way.plan;
    plan.thickness_error_mm = 0;
    double widest = 0;
    int n = 0;
    for (const SawnSlab& s : make_slabs(log, plan, DryPlan{}, FaceOrder{})) {
        ++n;
        // A straight strip along it, of the dried slab as measured: between the largest low edge and the smallest high one.
        double low = -1e9;
        double high = 1e9;
        const Box b = bounds(s.truth.ring_a);
        for (int i = 0; i <= 40; ++i)
            for (const Ring* ring : {&s.truth.ring_a, &s.truth.ring_b}) {
                const auto cut = cut_at_x(*ring, b.low.x + b.width() * (0.01 + 0.98 * i / 40));
                REQUIRE_FALSE(cut.empty());
                low = std::max(low, cut.front().from), high = std::min(high, cut.back().to);
            }
        widest = std::max(widest, (high - low) / s.across);
    }
    CHECK(n == way.boards);
    CHECK(way.straight_mm == Approx(widest).epsilon(0.02));
    // It is the best of the four: the others give no more face.
    CHECK(way.usable_m2 > 0);
}

TEST_CASE("sweep is weighed lying and standing – a pith off the middle widens one side", "[tree][saw_ways]") {
    LogMeasured m;
    m.length_mm = 3000, m.butt_mm = 600, m.top_mm = 580, m.sweep_mm = 200;
    const SawWay swept = saw_ways(GrownLog(measured_recipe(3, "sycamore, American", m)), {60}, 4, 10).front();
    CHECK_FALSE(swept.sweep_lies);  // 200 mm of sweep lying is 200 mm of width lost
    m.sweep_mm = 0;
    const SawWay straight = saw_ways(GrownLog(measured_recipe(3, "sycamore, American", m)), {60}, 4, 10).front();
    CHECK(straight.straight_mm > swept.straight_mm - 1);
    LogRecipe off = cylinder(600, 2000);
    off.pith_off_mm = 60, off.pith_bearing_deg = 0;
    const GrownLog log(off);
    CHECK(log.radius(1000, 0) == Approx(360).epsilon(0.08));
    CHECK(log.radius(1000, std::numbers::pi) == Approx(240).epsilon(0.08));
    CHECK_THROWS_AS(saw_ways(log, {3}, 4, 10), std::invalid_argument);
    std::stop_source stop;
    stop.request_stop();
    CHECK_THROWS_AS(saw_ways(log, {60}, 4, 10, {{}, stop.get_token(), 1}), Cancelled);
}
