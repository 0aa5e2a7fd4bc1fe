// A card that is run: where it stands by its ticks and the clock, what is kept of it, what it takes up again.
#include <catch2/catch.hpp>

#include <set>

#include "core/files/io/json.h"
#include "core/ground/card/card.h"
#include "core/ground/cure/cure.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/steps.h"
#include "core/steps/fill/fill.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

/// Three steps: one by its time, one within ten minutes of it, one not before an hour after it.
std::vector<CardStep> three() {
    CardStep a{"a", say("first"), {}, 120};
    CardStep b{"b", say("second"), {}, 60};
    b.after = "a", b.until_s = 600;
    CardStep c{"c", say("third"), {}, 300};
    c.after = "a", c.from_s = 3600;
    return {a, b, c};
}

CardRun started(double fast = 1) {
    CardRun r;
    r.card = "test";
    r.started = "2026-11-26T07:00:00Z";
    r.fast = fast;
    return r;
}
const double start = *utc_seconds("2026-11-26T07:00:00Z");

}  // namespace

TEST_CASE("a clock on the wall is read and written as UTC", "[card]") {
    CHECK(utc_seconds("1970-01-01T00:00:00Z") == 0.0);
    CHECK(utc_seconds("2000-03-01T00:00:00Z") == 951868800.0);
    CHECK(utc_text(951868799) == "2000-02-29T23:59:59Z");
    for (const double s : {0.0, 1.0, 86399.0, 1795680000.0, 4102444800.0}) CHECK(utc_seconds(utc_text(s)) == s);
    for (const char* bad : {"", "yesterday", "2026-13-01T00:00:00Z", "2026-02-30T00:00:00Z", "2026-11-26", "2026-11-26T25:00:00Z"}) {
        INFO(bad);
        CHECK_FALSE(utc_seconds(bad));
    }
}

TEST_CASE("a run stands where its ticks and the clock say", "[card]") {
    const auto steps = three();
    CardRun run = started();
    auto now = card_now(steps, run, start + 30);
    REQUIRE(now);
    CHECK(now->next == 0);
    CHECK(now->elapsed_s == 30);
    CHECK_FALSE(now->wait_s);
    CHECK_FALSE(now->left_s);
    REQUIRE(tick(steps, run, start + 150));
    CHECK(run.ticks.back().step == "a");
    CHECK(run.ticks.back().at == "2026-11-26T07:02:30Z");
    CHECK(run.ticks.back().after_s == 150);
    // Within ten minutes of that tick.
    now = card_now(steps, run, start + 150 + 400);
    CHECK(now->next == 1);
    CHECK(now->in_step_s == 400);
    REQUIRE(now->left_s);
    CHECK(*now->left_s == 200);
    CHECK(*card_now(steps, run, start + 150 + 700)->left_s == -100);  // late
    REQUIRE(tick(steps, run, start + 900));
    now = card_now(steps, run, start + 1000);
    REQUIRE(now->wait_s);
    CHECK(*now->wait_s == 3600 - 850);
    // It may be ticked before its time, and then all is done.
    REQUIRE(tick(steps, run, start + 1200));
    CHECK(card_now(steps, run, start + 1300)->next == 3);
    CHECK_FALSE(tick(steps, run, start + 1400));
    CHECK(run.ticks.size() == 3);
    // Taken back one by one.
    CHECK(untick(run));
    CHECK(card_now(steps, run, start + 1300)->next == 2);
    CHECK(untick(run));
    CHECK(untick(run));
    CHECK_FALSE(untick(run));
}

TEST_CASE("a practice runs fast, a start nobody can read stops nothing but the clock", "[card]") {
    const auto steps = three();
    CardRun run = started(60);
    CHECK(*card_clock(run, start + 10) == 600);
    CHECK(card_now(steps, run, start + 10)->elapsed_s == 600);
    run.started = "some time ago";
    CHECK_FALSE(card_now(steps, run, start));
    CHECK_FALSE(tick(steps, run, start));
    CHECK(run.ticks.empty());
}

TEST_CASE("planned starts: what a step takes, and what it waits for", "[card]") {
    const auto at = planned_starts(three());
    REQUIRE(at.size() == 3);
    CHECK(at[0] == 0);
    CHECK(at[1] == 120);
    CHECK(at[2] == 120 + 3600);  // a was ticked at 120
    CHECK(planned_starts({}).empty());
}

TEST_CASE("a step that the plan no longer has is passed over, its tick is kept", "[card]") {
    auto steps = three();
    CardRun run = started();
    tick(steps, run, start + 10);
    tick(steps, run, start + 20);
    steps.erase(steps.begin() + 1);  // the plan was changed meanwhile
    CHECK(card_now(steps, run, start + 30)->next == 1);
    CHECK(run.ticks.size() == 2);
    // One that came in before it is asked for.
    steps.insert(steps.begin(), CardStep{"new", say("new"), {}, 5});
    CHECK(card_now(steps, run, start + 40)->next == 0);
}

TEST_CASE("the pour's and the glue-up's cards of the demo can be followed from start to end [T8]", "[card][T8]") {
    const Documents& d = demo_shop();
    int pours = 0;
    int glues = 0;
    for (const auto& [id, job] : d.jobs) {
        const Plan plan = plan_job(job, d);
        for (const char* card : {"pour", "glue"}) {
            INFO(id << " " << card);
            const auto steps = card_of(card, job, plan, d.shop);
            if (steps.empty()) continue;
            (std::string(card) == "pour" ? pours : glues) += 1;
            std::set<std::string> keys;
            for (const CardStep& s : steps) {
                CHECK(keys.insert(s.key).second);
                CHECK_FALSE(s.says.empty());
                CHECK(s.takes_s > 0);
                CHECK((s.until_s == 0 || s.until_s > s.from_s));
                if (s.until_s > 0) CHECK_FALSE(s.late.empty());
                if (!s.after.empty()) CHECK(keys.count(s.after) == 1);  // it waits for one that comes before it
            }
            // Gone through at its own pace it is never late, and never asked to begin before it may.
            CardRun run = started();
            const auto begins = planned_starts(steps);
            for (std::size_t i = 0; i < steps.size(); ++i) {
                const auto now = card_now(steps, run, start + begins[i]);
                REQUIRE(now);
                CHECK(now->next == i);
                if (now->wait_s) CHECK(*now->wait_s <= 1e-6);
                tick(steps, run, start + begins[i] + steps[i].takes_s);
            }
            CHECK(card_now(steps, run, start + 1e6)->next == steps.size());
        }
        CHECK(card_of("no such card", job, plan, d.shop).empty());
    }
    CHECK(pours >= 2);
    CHECK(glues >= 2);
    // What the pour's card mixes is what the plan mixes, and the pigment is of one dose.
    const Job& job = d.jobs.at("job-tarn-river");
    const Plan plan = plan_job(job, d);
    double mixed = 0;
    for (const CardStep& s : card_of("pour", job, plan, d.shop)) mixed += s.mixed_l;
    CHECK(mixed == Approx(plan.pour->mix_l));
}

TEST_CASE("a card is started once, put away, started anew – all of it goes through the file", "[card]") {
    const Documents& d = demo_shop();
    Job job = d.jobs.at("job-tarn-river");
    const Plan plan = plan_job(job, d);
    CHECK(running_card(job, "pour") < 0);
    const std::size_t at = start_card(job, "pour", start, 1);
    CHECK(running_card(job, "pour") == static_cast<int>(at));
    CHECK(start_card(job, "pour", start + 50, 1) == at);  // it goes on
    CHECK(job.runs.size() == 1);
    const auto steps = card_of("pour", job, plan, d.shop);
    tick(steps, job.runs[at], start + 60);
    job.runs[at].ticks.back().air_c = 17.5;
    job.runs[at].ticks.back().note = "tape lifted at a corner";
    job.runs[at].readings = {{100, 18.25}, {200, 18.5}};
    const Job back = job_from_json(to_json(job));
    CHECK(back.runs == job.runs);
    job.runs[at].over = true;
    CHECK(running_card(job, "pour") < 0);
    CHECK(start_card(job, "pour", start + 900, 60) == 1);
    CHECK(job.runs[1].fast == 60);
    // Running a card changes no figure of the plan.
    CHECK(plan_job(job, d).pour->mix_l == plan.pour->mix_l);
}

TEST_CASE("a thermocouple in the pour corrects the model, of readings made by a known one", "[card][cure]") {
    Resin resin;
    for (const Resin& r : starting_resins())
        if (r.key == "medium") resin = r;
    PourChoices c;
    // Shallow: it warms gently. A deep one shoots up so steeply that a second's shift reads as degrees.
    constexpr double deep = 14;
    const Section section = section_of(deep, 21, c);
    // The truth: it gels a quarter sooner than its label says.
    Kinetics truth = kinetics_of(resin);
    truth.gel_25_h *= 0.75;
    const Cured real = cure(truth, section, {2, 400});
    std::vector<CardReading> read;
    for (std::size_t i = 0; i < real.frames.size() && real.frames[i].h <= 14; ++i)
        read.push_back({real.frames[i].h * 3600, std::round(resin_hottest_c(real, section, i) * 10) / 10});
    REQUIRE(read.size() > 10);
    const auto got = corrected_by(read, resin, section);
    REQUIRE(got);
    CHECK(got->gel_25_h == Approx(kinetics_of(resin).gel_25_h * 0.75).epsilon(0.03));
    CHECK(got->misses_c < 0.4);
    REQUIRE(got->gel_h);
    REQUIRE(real.gel_h);
    CHECK(*got->gel_h == Approx(*real.gel_h).epsilon(0.05));
    // Too few, or long after: nothing is said.
    CHECK_FALSE(corrected_by({{10, 20}, {20, 20}}, resin, section));
    CHECK_FALSE(corrected_by({{60 * 3600, 20}, {61 * 3600, 20}, {62 * 3600, 20}}, resin, section));
}

TEST_CASE("at another pace what waits for the cure waits longer, a cup does not", "[card]") {
    const Documents& d = demo_shop();
    const Job& job = d.jobs.at("job-tarn-river");
    const Plan plan = plan_job(job, d);
    const auto steps = card_of("pour", job, plan, d.shop);
    const auto slow = at_pace(steps, 1.5);
    REQUIRE(slow.size() == steps.size());
    int longer = 0;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (steps[i].key == "gelled" || steps[i].key == "unmould") {
            CHECK(slow[i].from_s == Approx(1.5 * steps[i].from_s));
            ++longer;
        }
        if (steps[i].key.rfind("pour ", 0) == 0) CHECK(slow[i].until_s == steps[i].until_s);
        CHECK(slow[i].takes_s == steps[i].takes_s);
    }
    CHECK(longer == 2);
}
