// The calendar against a clock that ticks minute by minute.
#include <catch2/catch.hpp>

#include <ctime>
#include <random>

#include "core/ground/calendar/workclock.h"
#include "core/shop/days/season.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// Weekday of an ISO date by the C library: 0 is Sunday.
int weekday(const std::string& iso, int days_later) {
    std::tm t{};
    t.tm_year = std::stoi(iso.substr(0, 4)) - 1900;
    t.tm_mon = std::stoi(iso.substr(5, 2)) - 1;
    t.tm_mday = std::stoi(iso.substr(8, 2)) + days_later;
    t.tm_hour = 12;
    std::mktime(&t);
    return t.tm_wday;
}

bool works(const std::string& start, int minute, const Workday& w) {
    const int day = minute / (24 * 60);
    const int wd = weekday(start, day);
    if (wd == 0 || (wd == 6 && !w.saturdays)) return false;
    const double hour = minute % (24 * 60) / 60.0;
    return hour >= w.from_h && hour < w.to_h;
}

/// When so many minutes of work begun at a minute are done, counted one by one.
int clock(const std::string& start, int minute, int work, const Workday& w) {
    while (!works(start, minute, w)) ++minute;
    while (work > 0) {
        if (works(start, minute, w)) --work;
        ++minute;
    }
    return minute;
}

}  // namespace

TEST_CASE("work ends when a clock that ticks through it says so", "[days]") {
    std::mt19937 dice(5);
    std::uniform_int_distribution<int> begin(0, 9 * 24 * 60);
    std::uniform_int_distribution<int> work(1, 40 * 60);
    for (int round = 0; round < 200; ++round) {
        Workday w;
        w.from_h = 6 + round % 5;
        w.to_h = 13 + round % 8;
        w.saturdays = round % 2 == 0;
        const std::string start = round % 3 ? "2026-11-27" : "2028-02-28";  // over a leap day too
        const int from = begin(dice);
        const int minutes = work(dice);
        INFO(round << ": " << minutes << " minutes from " << from);
        CHECK(WorkClock(start, w).after(from / 60.0, minutes / 60.0) * 60 == Approx(clock(start, from, minutes, w)).margin(1e-6));
    }
}

TEST_CASE("dates are those of the calendar", "[days]") {
    for (int i = 0; i < 800; i += 13) {
        std::tm t{};
        t.tm_year = 126, t.tm_mon = 10, t.tm_mday = 25 + i, t.tm_hour = 12;
        std::mktime(&t);
        char text[11];
        std::strftime(text, sizeof text, "%Y-%m-%d", &t);
        CHECK(date_after("2026-11-25", i * 24.0 + 23.9) == text);
    }
    for (const char* good : {"2028-02-29", "2026-01-01", "2026-12-31"}) CHECK(is_date(good));
    for (const char* bad : {"2026-02-29", "2026-13-01", "2026-1-01", "26-01-01", "", "2026-04-31", "2026-04-3x"}) CHECK_FALSE(is_date(bad));
}

TEST_CASE("operations follow one another in working hours, waits run through the night", "[days]") {
    const Documents d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        INFO(id);
        if (!job.days.done.empty()) continue;  // what is done stands where it was done
        const DaysPlan p = *plan_job(job, d).days;
        REQUIRE_FALSE(p.operations.empty());
        double free = 0;
        double end = 0;
        for (const Operation& op : p.operations) {
            INFO(op.key);
            if (!op.aside) CHECK(op.start_h >= free - 1e-9);
            CHECK(works(p.start, static_cast<int>(op.start_h * 60 + 1e-6), d.shop.workday));
            // Minute by minute: as many working ones as its hands take.
            int worked = 0;
            for (int m = static_cast<int>(std::lround(op.start_h * 60)); m < op.hands_end_h * 60 - 0.5; ++m)
                worked += works(p.start, m, d.shop.workday);
            CHECK(worked == Approx(op.hands_on_h * 60).margin(1.5));
            CHECK(op.end_h == Approx(op.hands_end_h + op.waiting_h));
            if (!op.aside) free = op.end_h;
            end = std::max(end, op.end_h);
        }
        CHECK(p.end_h == Approx(end));
        CHECK(p.ready == date_after(p.start, end));
    }
}

TEST_CASE("each make-up has its own operations", "[days]") {
    const Documents d = demo_shop();
    const auto keys = [&](const char* id) {
        std::string all;
        const Plan p = plan_job(d.jobs.at(id), d);
        for (const Operation& op : p.days->operations) all += op.key + " ";
        return all;
    };
    CHECK(keys("job-seed-cabinet").find("rip glue") != std::string::npos);
    CHECK(keys("job-tarn-river").find("form pour") != std::string::npos);
    CHECK(keys("job-open-river").find("rods") != std::string::npos);
    for (const char* one : {"job-round-hall", "job-reading-table"})
        for (const char* other : {"rip", "glue", "pour", "rods"}) CHECK(keys(one).find(other) == std::string::npos);
    // What is missing is marked, what is a stop is a knot.
    Job j = on(plank("p", 1000, 400, 50), {1600, 600, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
    const DaysPlan p = *plan_job(j, plank("p", 1000, 400, 50), Shop()).days;
    CHECK(p.operations.front().knot);
    CHECK(p.operations.front().worst == Severity::stop);
    // A start that is no date is none: hours are counted, nothing is dated, and it is said.
    j.start = "soon";
    const Plan undated = plan_job(j, plank("p", 1000, 400, 50), Shop());
    CHECK(undated.days->start.empty());
    CHECK(undated.days->ready.empty());
    CHECK(undated.days->end_h > 8);
    REQUIRE(find_caution(undated.lay->cautions, "lay.no_date"));
    CHECK(find_caution(undated.lay->cautions, "lay.no_date")->field == "start");
}

TEST_CASE("a card that was run to its end is a tick of its operation, one for practice is none", "[days][card]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-hall-table");
    const auto done = [&](double fast, bool over) {
        job.runs = {CardRun{"sand", "2027-01-14T08:00:00Z", fast, over, {{"look", "2027-01-14T12:30:00Z", 16200, {}, {}, ""}}, {}}};
        const Net net = net_of("job-hall-table", job, plan_job(job, d), job.start);
        for (const Operation& o : net.operations)
            if (o.key == "sand") return o.done_h;
        return std::optional<double>();
    };
    REQUIRE(done(1, true));
    CHECK(*done(1, true) == Approx(3 * 24 + 12.5));
    CHECK_FALSE(done(60, true));
    CHECK_FALSE(done(1, false));
}
