// The air of the day something happens: one place says it, every room asks it.
#include <catch2/catch.hpp>

#include "core/shop/days/season.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/job/steps.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"
#include "core/steps/skin/skin.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "demo/demo.h"

using namespace yb;

namespace {

/// A shop whose months can't be taken for one another.
Documents odd_year() {
    Documents d = demo_shop();
    for (std::size_t m = 0; m < 12; ++m) d.shop.air.months[m].temp_c = 8 + static_cast<double>(m > 6 ? 12 - m : m) * 2.5;
    return d;
}

const Operation* find(const DaysPlan& days, const std::string& key) {
    const auto it = std::find_if(days.operations.begin(), days.operations.end(), [&](const Operation& o) { return o.key == key; });
    return it == days.operations.end() ? nullptr : &*it;
}

/// The month's temperature of the day an operation begins, by the plan's own schedule.
double of_day(const Documents& d, const Plan& p, const Operation& o) {
    return d.shop.air.months[static_cast<std::size_t>(month_of(date_after(p.days->start, o.start_h)))].temp_c;
}

bool minds(const StepPlan& s, const char* key) {
    return std::any_of(s.cautions.begin(), s.cautions.end(), [&](const Caution& c) { return c.key == key; });
}

}  // namespace

TEST_CASE("what is poured in July is planned for July, whenever the job begins", "[days][pour][air]") {
    Documents d = odd_year();
    Job& job = d.jobs.at("job-tarn-river");
    job.start = "2026-04-20";
    const Plan soon = plan_job(job, d);
    pin(job, "pour", "2026-07-07");
    const Plan later = plan_job(job, d);
    CHECK(later.pour->air_c == d.shop.air.months[6].temp_c);
    CHECK(later.pour->air_c > soon.pour->air_c + 5);
    CHECK((later.pour->lifts.size() > soon.pour->lifts.size() || later.pour->lifts.front().peak_c > soon.pour->lifts.front().peak_c + 5));
    // The same as a job that begins in that month.
    Job july = job;
    july.start = "2026-07-01";
    const Plan there = plan_job(july, d);
    REQUIRE(there.pour->lifts.size() == later.pour->lifts.size());
    for (std::size_t i = 0; i < there.pour->lifts.size(); ++i) CHECK(there.pour->lifts[i].peak_c == later.pour->lifts[i].peak_c);
    // Typed where the maker heats.
    set_air(job, "pour", 24.0);
    const Plan heated = plan_job(job, d);
    CHECK(heated.pour->air_c == 24);
    REQUIRE(find(*heated.days, "pour"));
    CHECK(find(*heated.days, "pour")->waiting_h < find(*later.days, "pour")->waiting_h);
    set_air(job, "pour", {});
    CHECK(plan_job(job, d).pour->air_c == later.pour->air_c);
    CHECK(job.days.changes.empty());
}

TEST_CASE("coats in November under their label's warmth are a stop, whatever month the job begins in", "[days][skin][air]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-reading-table");
    job.start = "2026-09-01";
    for (Month& m : d.shop.air.months) m.temp_c = 19;
    CHECK_FALSE(minds(skin_of(plan_job(job, d)), "skin.cold"));
    d.shop.air.months[10].temp_c = 6;
    pin(job, "coat_1", "2026-11-03");
    const Plan cold = plan_job(job, d);
    CHECK(minds(skin_of(cold), "skin.cold"));
    CHECK(skin_of(cold).air_c == 6);
    // The first coat on a warm day, the second over the month's end.
    d.shop.air.months[10].temp_c = 19, d.shop.air.months[11].temp_c = 6;
    pin(job, "coat_1", "2026-11-26");
    pin(job, "coat_2", "2026-12-02");
    const Plan over = plan_job(job, d);
    CHECK(skin_of(over).air_c == 19);
    CHECK(minds(skin_of(over), "skin.cold"));
}

TEST_CASE("every room plans with the air of its day: all demo jobs, begun in every month", "[days][air]") {
    Documents d = odd_year();
    int other = 0, looked = 0;
    for (auto& [id, job] : d.jobs)
        for (int month = 1; month <= 12; ++month) {
            job.start = "2026-" + std::string(month < 10 ? "0" : "") + std::to_string(month) + "-20";
            const Plan p = plan_job(job, d);
            if (!p.drawable() || p.days->start.empty()) continue;
            INFO(id << " from " << job.start);
            std::map<std::string_view, const Operation*> first;
            for (const Operation& o : p.days->operations)
                if (o.in_air && !o.aside && (!first.count(o.step.key) || o.start_h < first[o.step.key]->start_h)) first[o.step.key] = &o;
            for (const auto& [step, o] : first) {
                INFO(step << " " << o->key);
                const double there = of_day(d, p, *o);
                if (step == "pour") CHECK(p.pour->air_c == there);
                else if (step == "join") CHECK(p.join->air_c == there);
                else if (step == "skin") CHECK(skin_of(p).air_c == there);
                CHECK(p.air_of(o->step).day.temp_c == there);
                other += there != p.shop_air.temp_c, ++looked;
            }
        }
    CHECK(looked > 200);
    CHECK(other > 50);
}

TEST_CASE("what a slab settles to is asked of the air of its last pass, what the wood holds of the day of its base",
          "[days][flat][under][air]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-reading-table");
    Slab& slab = d.slabs.at(job.leaves.front().slab);
    job.start = "2026-04-20", job.flat.rest_h = 60 * 24;
    slab.moisture_pct = 13, slab.pith_mm = slab.pith_mm.value_or(60), slab.cross_cut = false;
    for (std::size_t m = 0; m < 12; ++m) d.shop.air.months[m] = {18, 40 + 3 * static_cast<double>(m)};
    const Plan p = plan_job(job, d);
    const Operation *last = find(*p.days, "last"), *base = find(*p.days, "dryfit");
    REQUIRE((last && base));
    const int flat_month = month_of(date_after(p.days->start, last->start_h)),
              base_month = month_of(date_after(p.days->start, base->start_h));
    REQUIRE(flat_month > 3);
    CHECK(p.air_of(step_key::flat).day == d.shop.air.months[static_cast<std::size_t>(flat_month)]);
    // All the year as that month is: nothing of Flat changes; as April is: its cup does.
    const auto all_year = [&](int month) {
        Documents same = d;
        same.shop.air.months.fill(d.shop.air.months[static_cast<std::size_t>(month)]);
        return plan_job(same.jobs.at(job.id), same);
    };
    const Plan there = all_year(flat_month), april = all_year(3);
    REQUIRE(p.flat->cup_mm);
    CHECK(*p.flat->cup_mm == *there.flat->cup_mm);
    CHECK(p.flat->most_mm == there.flat->most_mm);
    CHECK(std::abs(*p.flat->cup_mm - *april.flat->cup_mm) > 0.05);
    // The wood was not read: on the day of its base it holds what that day's air gives.
    slab.moisture_pct.reset();
    const Plan unread = plan_job(job, d), that_day = all_year(base_month);
    CHECK(unread.under->day_pct == that_day.under->day_pct);
    CHECK(unread.top->mass_kg == Approx(that_day.top->mass_kg));
    CHECK(std::abs(unread.under->day_pct - all_year(3).under->day_pct) > 0.2);
}

TEST_CASE("a job that others move into another month's air says so", "[days][air]") {
    Documents d = odd_year();
    for (auto& [id, job] : d.jobs) job.put_away = id != "job-tarn-river" && id != "job-landing-bench";
    Job &river = d.jobs.at("job-tarn-river"), &bench = d.jobs.at("job-landing-bench");
    river.start = bench.start = "2026-02-02";
    d.shop.job_order = {{"job-landing-bench"}, {"job-tarn-river"}};
    const auto cautions = [&] {
        std::vector<std::string> out;
        for (const Caution& c : season_of(d, {"2026-02-02", Rule::ranks, {}}).cautions)
            if (c.key == "days.air") out.push_back(render(c.says, Units::metric()));
        return out;
    };
    bench.days.own.push_back({"a week's work", "", "", 8, 0});
    CHECK(cautions().empty());
    bench.days.own.back().hands_h = 600;
    const auto moved = cautions();
    REQUIRE_FALSE(moved.empty());
    CHECK(moved.front().find(river.name) == 0);
    CHECK(moved.front().find("°C") != std::string::npos);
}
