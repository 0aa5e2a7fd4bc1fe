// A new job starts from what its slab gives.
#include <catch2/catch.hpp>

#include "core/shop/edit/first_top.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

TEST_CASE("a new job's top is the largest sensible one, by hand", "[edit][first]") {
    Slab s = plank("p", 1200, 430, 50);
    CHECK(first_top(s).top.length_mm == 1140);  // 30 mm in from both ends
    CHECK(first_top(s).top.width_mm == 430);
    CHECK(first_top(s).top.thickness_mm == 50);
    CHECK(first_top(s).top.live == LiveEdges::both);
    CHECK(first_top(s).placement.x_mm == Approx(600));
    // A crack of 150 at the left end: it begins behind it. One that runs to the middle is left to the maker.
    s.flaws = {{"c", FlawKind::crack, Face::a, {{0, -3}, {150, 0}, {0, 3}}, true, {}, 1, ""}};
    CHECK(first_top(s).top.length_mm == 1010);
    CHECK(first_top(s).placement.x_mm == Approx((160 + 1170) / 2.0));
    s.flaws[0].outline = {{0, -3}, {700, 0}, {0, 3}};
    CHECK(first_top(s).top.length_mm == 1140);
    CHECK(first_top(Slab()).top == WantedTop());  // nothing is measured yet
}

TEST_CASE("of every slab of the demo the first top fits, comes out as thick as it says, and nothing larger is lost by much",
          "[edit][first]") {
    const Documents demo = demo_shop();
    for (const auto& [id, slab] : demo.slabs) {
        INFO(id);
        Documents d = demo;
        const std::string job = add_job_on(d, slab, "2026-12-01");
        const Plan p = plan_job(d.jobs.at(job), d);
        if (!p.shape()->usable) continue;
        CHECK(p.lay->fits);
        CHECK_FALSE(find_caution(p.flat->cautions, "flat.thin"));
        CHECK(p.flat->most_mm - d.jobs.at(job).top.thickness_mm < 1.01);  // what a rest is expected to take is off it
        const WantedTop& top = d.jobs.at(job).top;
        if (slab.cross_cut) {
            CHECK(top.shape == TopShape::round);
            continue;
        }
        CHECK(top.length_mm > 0.7 * (p.shape()->x1 - p.shape()->x0));
        CHECK(p.lay->narrowest_mm - top.width_mm < 10.01);
    }
}
