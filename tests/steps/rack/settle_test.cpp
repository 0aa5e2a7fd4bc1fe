// Days in the shop before a slab is worked.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/rack/settle.h"
#include "tests/planks.h"

using namespace yb;

TEST_CASE("a slab settles by how it was dried, from the day it came, or as long as the maker says", "[rack][settle][days]") {
    Slab s = plank("p", 2400, 900, 50, "sycamore, American");
    CHECK_FALSE(settle_days_of(s));
    CHECK_FALSE(settle_figure(s));
    CHECK(settle_left_days(s, "2026-11-30") == 0);
    s.dried = Dried::kiln;
    CHECK(settle_days_of(s) == settle_kiln_days);
    CHECK(settle_left_days(s, "2026-11-30") == settle_kiln_days);  // when it came is not said: all of them
    s.came_on = "2026-11-27";
    CHECK(settle_left_days(s, "2026-11-30") == 4);
    CHECK(settle_left_days(s, "2027-01-30") == 0);
    CHECK(settle_left_days(s, "2026-01-30") == settle_kiln_days);  // it comes later: never more than all
    CHECK(settle_left_days(s, "no date") == settle_kiln_days);
    CHECK(render(settle_figure(s)->note, Units::metric()) == "until 2026-12-04");
    s.dried = Dried::air;
    CHECK(settle_left_days(s, "2026-11-30") == 11);
    s.settle_days = 30;
    CHECK(settle_left_days(s, "2026-11-30") == 27);

    Job j = on(s, {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
    j.start = "2026-11-30";
    Plan p = plan_job(j, s, Shop());
    REQUIRE(p.days->operations.front().key == "settle");
    CHECK(p.days->operations.front().waiting_h == 27 * 24);
    CHECK(p.days->operations[1].start_h >= 27 * 24);
    s.settle_days = 0;
    p = plan_job(j, s, Shop());
    CHECK(p.days->operations.front().key != "settle");
}

TEST_CASE("kiln-dried wood that reads damp is told", "[rack][settle]") {
    Slab s = plank("p", 2400, 900, 50, "sycamore, American");
    s.moisture_pct = 16;
    CHECK_FALSE(kiln_damp(s, 10));
    s.dried = Dried::kiln;
    REQUIRE(kiln_damp(s, 10));
    CHECK(kiln_damp(s, 10)->severity == Severity::watch);
    CHECK_FALSE(kiln_damp(s, 14));  // 16 is within what its room asks and a little
    s.moisture_pct.reset();
    CHECK_FALSE(kiln_damp(s, 10));
    s.moisture_pct = 19;
    Job j = on(s, {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
    CHECK(find_caution(plan_job(j, s, Shop()).rack.cautions, "rack.kiln_damp"));
}
