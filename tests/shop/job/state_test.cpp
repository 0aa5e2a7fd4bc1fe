// Where a job stands, in words, and what the page of jobs does with it.
#include <catch2/catch.hpp>

#include "core/shop/edit/job_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/state.h"
#include "demo/demo.h"
#include "tests/planks.h"

using namespace yb;

namespace {
JobState of(const Documents& d, const Job& j) {
    const Plan p = plan_job(j, d);
    return state_of(j, &p);
}
std::string words(const Phrase& p) { return render(p, Units::metric()); }
}  // namespace

TEST_CASE("a job goes from its slab to ripped joints, and what comes next follows the order of work", "[job][state]") {
    Documents d;
    Slab s = plank("p", 2400, 900, 55, "sycamore, American");
    s.moisture_pct = 9, s.moisture_on = "2026-11-01";
    s.heights_a = {{0, 1200, 2400}, {-400, 400}, std::vector<std::optional<double>>(6, 0.0)};
    s.heights_b = s.heights_a;
    d.slabs[s.id] = s;
    Job j = on(s, {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
    j.start = "2026-11-30";
    CHECK(state_of(j, nullptr).key == "no slab");
    JobState now = of(d, j);
    CHECK(now.key == "laid");
    CHECK(words(now.next) == "Rough-cut");
    CHECK(is_date(now.ready));
    j.cuts_done = true;
    now = of(d, j);
    CHECK(now.key == "rough-cut");
    CHECK(words(now.next) != "Rough-cut");
    j.makeup.faces_flat = true;
    CHECK(of(d, j).key == "flat");
    j.makeup.ripped = true;
    CHECK(of(d, j).key == "ripped");
    // What stops it comes before anything else.
    Job large = on(s, {3000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
    now = of(d, large);
    CHECK(now.key == "does not fit");
    CHECK(now.stops > 0);
    CHECK(now.worst == Severity::stop);
    CHECK(words(now.next) == "Wood is missing");
    Documents blank = d;
    blank.slabs["p"].tape.stations.clear();
    CHECK(of(blank, large).key == "not measured");
    CHECK(words(of(blank, large).next) == "tape the slab");
}

TEST_CASE("the list that the shell prints says the same", "[job][state]") {
    const Documents d = demo_shop();
    for (const JobLine& l : job_lines(d)) CHECK(l.state == of(d, d.jobs.at(l.id)).key);
}

TEST_CASE("a copy is a job of its own with nothing done – put away it stays in the shop", "[job][state]") {
    Documents d = demo_shop();
    const std::size_t before = d.jobs.size();
    Job& was = d.jobs.at("job-reading-table");
    was.cuts_done = was.makeup.faces_flat = true;
    const std::string id = copy_job(d, "job-reading-table");
    REQUIRE(d.jobs.size() == before + 1);
    const Job& copy = d.jobs.at(id);
    CHECK(copy.id == id);
    CHECK(copy.name == d.jobs.at("job-reading-table").name + " (copy)");
    CHECK(copy.top == d.jobs.at("job-reading-table").top);
    CHECK_FALSE(copy.cuts_done);
    CHECK_FALSE(copy.makeup.faces_flat);
    CHECK(copy.runs.empty());
    CHECK(copy_job(d, id) != id);
    CHECK_THROWS_AS(copy_job(d, "no such"), std::out_of_range);
    put_away(d.jobs.at(id), true);
    CHECK(d.jobs.at(id).put_away);
}
