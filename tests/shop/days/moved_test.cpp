// Why a date moved, and what comes next: worked out from two seasons.
#include <catch2/catch.hpp>

#include "core/shop/days/season.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"

using namespace yb;

TEST_CASE("what moved a job is the first of its operations that lasts otherwise, came, went, was ticked or pinned", "[days][moved]") {
    Documents d = demo_shop();
    const std::string id = "job-reading-table";
    for (auto& [other, job] : d.jobs) job.put_away = other != id;
    Job& job = d.jobs.at(id);
    job.days.done.clear(), job.days.own.clear(), job.days.changes.clear(), job.days.pins.clear();
    const SeasonAsk ask{"2026-11-30", Rule::ranks, {}};
    const Season before = season_of(d, ask);
    REQUIRE(before.jobs.size() == 1);
    CHECK(moved_between(before, before).empty());
    const auto label = [&](const Season& s, const std::string& key) {
        for (const Operation& o : s.jobs.front().operations)
            if (o.key == key) return o.label;
        return std::string("none");
    };
    const Job as_it_was = job;
    set_hours(job, "cut", 30, {});
    const Season after = season_of(d, ask);
    const auto moved = moved_between(before, after);
    REQUIRE(moved.size() == 1);
    CHECK(moved[0].id == id);
    CHECK(moved[0].by_h == Approx(after.jobs[0].ready_h - before.jobs[0].ready_h));
    CHECK(moved[0].by_h > 0);
    CHECK(moved[0].since == label(after, "cut"));
    // Back again it is sooner, by the same.
    const auto back = moved_between(after, before);
    REQUIRE(back.size() == 1);
    CHECK(back[0].by_h == Approx(-moved[0].by_h));
    // One that came, in the way of all that follows.
    job = as_it_was;
    add_own(job, {"draw with the client", "lay", "rough", 40, 0, Who::maker});
    const auto came = moved_between(before, season_of(d, ask));
    REQUIRE(came.size() == 1);
    CHECK(came[0].since == "draw with the client");
    // The first with hands on it that is not done.
    const NextUp next = next_up(before);
    REQUIRE(next.operation);
    for (const Operation& o : before.jobs[0].operations)
        if (!o.done_h && o.hands_on_h > 0) CHECK(o.start_h >= next.operation->start_h);
    CHECK_FALSE(next_up(Season()).job);
}
