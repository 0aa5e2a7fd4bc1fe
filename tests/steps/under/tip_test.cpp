// Tipping by hand, the year's moisture, and what the base's figures say before it is built.
#include <catch2/catch.hpp>

#include "core/material/wood/cup.h"
#include "core/material/wood/lag.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/under/tip.h"
#include "core/steps/under/under.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {
Standing table() {
    Standing s;
    s.rim = {{0, 0}, {2000, 0}, {2000, 900}, {0, 900}};
    s.top_kg = 60, s.top_at = {1000, 450};
    s.base_kg = 20, s.base_at = {1000, 450};
    s.feet = {{250, 100}, {1750, 800}, {1750, 100}, {250, 800}};  // in no order
    s.height_mm = 740;
    return s;
}
}  // namespace

TEST_CASE("a table tips as the moments have it", "[under][tip][T31]") {
    const Tipping t = tip(table());
    // 80 kg at 750 mm inside the end's feet, its rim 250 mm past them.
    CHECK(*t.down_n == Approx(80 * 9.80665 * 750 / 250));
    CHECK(t.side_n == Approx(80 * 9.80665 * 350 / 740));
    CHECK(std::abs(t.side_towards.y) == Approx(1));
    CHECK(t.balance.x == Approx(1000));
    CHECK((t.down_at.x == Approx(0) || t.down_at.x == Approx(2000)));
    SECTION("heavy to one side") {
        Standing s = table();
        s.top_at = {1400, 450};
        const Tipping u = tip(s);
        CHECK(u.balance.x == Approx((60 * 1400 + 20 * 1000) / 80.0));
        CHECK(*u.down_n == Approx(80 * 9.80665 * (1750 - 1300) / 250));
        CHECK(u.down_at.x == Approx(2000));
    }
    SECTION("the balance point outside the feet") {
        Standing s = table();
        s.top_at = {2600, 450};
        const Tipping u = tip(s);
        CHECK_FALSE(u.stands);
        CHECK(*u.down_n == 0);
        CHECK(u.side_n == 0);
    }
    SECTION("feet outside the whole rim: nobody can press beyond them") {
        Standing s = table();
        s.feet = {{-100, -100}, {2100, -100}, {2100, 1000}, {-100, 1000}};
        const Tipping u = tip(s);
        CHECK_FALSE(u.down_n);
        CHECK(u.side_n == Approx(80 * 9.80665 * 550 / 740));
    }
    SECTION("three feet") {
        Standing s = table();
        s.feet = {{400, 100}, {1600, 100}, {1000, 800}};
        const Tipping u = tip(s);
        // The corner at the far left stands furthest past the slanting edge.
        const Vec2 edge = Vec2{400, 100} - Vec2{1000, 800};
        const Vec2 out = Vec2{edge.y, -edge.x} * (1 / length(edge));
        const double inside = std::abs(dot(out, Vec2{1000, 450} - Vec2{400, 100}));
        const double past = std::abs(dot(out, Vec2{0, 900} - Vec2{400, 100}));
        CHECK(*u.down_n == Approx(80 * 9.80665 * inside / past));
    }
    SECTION("what can't stand is refused") {
        Standing s = table();
        s.feet.resize(2);
        CHECK_THROWS_AS(tip(s), std::invalid_argument);
        s.feet = {{0, 0}, {500, 0}, {900, 0}};
        CHECK_THROWS_AS(tip(s), std::invalid_argument);
        s = table();
        s.top_kg = s.base_kg = 0;
        CHECK_THROWS_AS(tip(s), std::invalid_argument);
        s = table();
        s.height_mm = 0;
        CHECK_THROWS_AS(tip(s), std::invalid_argument);
    }
}

TEST_CASE("wood follows the year as the table of lags has it", "[wood][lag]") {
    struct Row {
        double mm, bare, oil, film;
    };
    for (const Row& r : {Row{25, 5.6, 7.8, 26.6}, Row{45, 17.1, 21.0, 54.9}, Row{60, 29.9, 35.1, 80.2}}) {
        CHECK(lag_days(r.mm, bare_s_m) == Approx(r.bare).margin(0.06));
        CHECK(lag_days(r.mm, oiled_s_m) == Approx(r.oil).margin(0.06));
        CHECK(lag_days(r.mm, filmed_s_m) == Approx(r.film).margin(0.06));
    }
    // One yearly wave: it keeps 0.727 of itself and comes 44 days late.
    std::array<double, 12> air{};
    for (int m = 0; m < 12; ++m) air[static_cast<std::size_t>(m)] = 10 + 4 * std::cos(2 * M_PI * m / 12);
    const double tau = lag_days(45, filmed_s_m);
    const auto wood = lagged(air, tau);
    const double wt = 2 * M_PI / 365.25 * tau;
    CHECK(1 / std::sqrt(1 + wt * wt) == Approx(0.727).margin(0.001));
    CHECK(std::atan(wt) / (2 * M_PI / 365.25) == Approx(44).margin(0.5));
    for (int m = 0; m < 12; ++m)
        CHECK(wood[static_cast<std::size_t>(m)] ==
              Approx(10 + 4 / std::sqrt(1 + wt * wt) * std::cos(2 * M_PI * m / 12 - std::atan(wt))).margin(1e-9));
    // Against the equation stepped through ten years of a real room.
    const Climate room = generic_climates().front();
    std::array<double, 12> settles{};
    for (std::size_t m = 0; m < 12; ++m) settles[m] = equilibrium_moisture(room.months[m].temp_c, room.months[m].rh_pct);
    const auto told = lagged(settles, 21);
    double held = 8;
    std::array<double, 12> stepped{};
    for (double day = 0; day < 3652.5; day += 0.05) {
        const double month = std::fmod(day / 365.25 * 12, 12);
        const auto k = static_cast<std::size_t>(month);
        const double t = month - static_cast<double>(k);
        held += 0.05 / 21 * (settles[k] * (1 - t) + settles[(k + 1) % 12] * t - held);
        if (day > 3287 && std::abs(month - std::round(month)) < 0.001) stepped[static_cast<std::size_t>(std::lround(month)) % 12] = held;
    }
    for (std::size_t m = 0; m < 12; ++m)
        if (stepped[m] > 0) CHECK(told[m] == Approx(stepped[m]).margin(0.25));
    CHECK_THROWS_AS(lag_days(0, 1), std::invalid_argument);
}

TEST_CASE("cup from one damp face and from the rings", "[wood][cup][T17]") {
    const Species* walnut = find_species("walnut, black");
    REQUIRE(walnut);
    // 0.00274 per %, 2 %, 45 mm, 900 mm: 12.3 mm.
    CHECK(std::abs(*face_cup_mm(*walnut, 900, 45, 9, 2)) == Approx(12.3).margin(0.15));
    CHECK(*face_cup_mm(*walnut, 900, 45, 9, 2) < 0);  // the damper face swells: its edges go down
    // Drying, a board cups away from its pith; the pith below, its upper face shrinks more: edges up.
    const double below = *ring_cup_mm(*walnut, -80, 400, 40, 12, 8);
    CHECK(below > 0.2);
    CHECK(*ring_cup_mm(*walnut, 80, 400, 40, 12, 8) == Approx(-below).epsilon(1e-9));
    CHECK(*ring_cup_mm(*walnut, -80, 400, 40, 8, 12) < 0);
    CHECK(std::abs(*ring_cup_mm(*walnut, -2000, 400, 40, 12, 8)) < 0.2 * below);  // far from the pith rings are as good as flat
    // The middle by hand: far out of the centre S changes by (S_T − S_R)·2y²/h³ a millimetre of depth … at the middle line not at all.
    CHECK(*ring_cup_mm(*walnut, -80, 400, 40, 9, 9) == Approx(0).margin(1e-12));
    CHECK_THROWS_AS(ring_cup_mm(*walnut, -80, 0, 40, 12, 8), std::invalid_argument);
}

TEST_CASE("holes travel through the year and stay inside their slots", "[under][T22][T24]") {
    const Documents& docs = demo_shop();
    for (const auto& [id, job] : docs.jobs) {
        const Plan plan = plan_job(job, docs);
        if (!plan.under->ready) continue;
        INFO(id);
        for (const Slot& s : plan.under->slots) {
            for (const double t : s.month_mm) {
                if (s.round) {
                    CHECK(t == 0);
                    continue;
                }
                const double bolt = job.under.bolt_mm;
                CHECK(s.bolt_from_inner_mm - bolt / 2 + std::min(0.0, t) > -1e-6);
                CHECK(s.length_mm - s.bolt_from_inner_mm - bolt / 2 - std::max(0.0, t) > -1e-6);
            }
        }
        // The wood swings less than the air does.
        const MoistureRange room = moisture_range(job.room);
        for (const double pct : plan.under->month_pct) {
            CHECK(pct >= room.low_pct - 0.3);
            CHECK(pct <= room.high_pct + 0.3);
        }
    }
}

TEST_CASE("a base too narrow, hammered inserts and a top that goes down are told", "[under][T25][T31]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at("job-reading-table");
    const Plan fair = plan_job(job, docs);
    REQUIRE(fair.under->tipping);
    CHECK(fair.under->tipping->stands);
    CHECK(fair.under->feet.size() == 4);
    job.under.foot_along_mm = 500;
    job.under.foot_across_mm = 200;
    const Plan narrow = plan_job(job, docs);
    REQUIRE(find_caution(narrow.under->cautions, "under.tips"));
    REQUIRE(find_caution(narrow.under->cautions, "under.rocks"));
    CHECK(find_caution(narrow.under->cautions, "under.rocks")->says.value(0) == Approx(std::round(narrow.under->tipping->side_n)));
    job.under.inserts = InsertKind::hammer_in;
    CHECK(find_caution(plan_job(job, docs).under->cautions, "under.hammer_in"));
    job.under.base_kg = 0;
    job.top.thickness_mm = 12;
    CHECK(find_caution(plan_job(job, docs).under->cautions, "under.sags"));
}

TEST_CASE("a base that is made here holds the table down with its own wood, by hand", "[under][base][T31]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at("job-reading-table");
    job.under.base = BaseKind::trestle;
    job.under.base_kg = 500;  // typed for another one
    const Plan p = plan_job(job, docs);
    REQUIRE(p.under->base.volume_l > 1);
    const double dry = *find_species(docs.slabs.at(job.first().slab).species)->specific_gravity_12;
    CHECK(p.under->base_kg == Approx(p.under->base.volume_l * dry * (1 + p.under->day_pct / 100)));
    double litres = 0;
    for (const BasePart& part : p.under->base.parts) litres += part.count * part.length_mm * part.width_mm * part.thick_mm * 1e-6;
    CHECK(p.under->base.volume_l == Approx(litres));
    // A bought one weighs what was typed.
    job.under.base = BaseKind::bought;
    CHECK(plan_job(job, docs).under->base_kg == 500);
}
