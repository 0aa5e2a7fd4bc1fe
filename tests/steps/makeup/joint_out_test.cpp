// A joint outside the top is one clear stop, fits nothing and is never offered.
#include <catch2/catch.hpp>

#include "core/shop/find/find.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

TEST_CASE("a joint outside the top does not fit and is told once", "[makeup][lay]") {
    Documents d;
    for (const char* id : {"a", "b"}) d.slabs[id] = plank(id, 2400, 600, 50);
    Job j;
    j.id = "j";
    j.top = {1800, 800, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}};
    REQUIRE(laid_together(j, MakeUp::book, {d.slabs.at("a"), d.slabs.at("b")}).empty());
    const Plan good = plan_job(j, d);
    CHECK(good.lay->fits);
    CHECK_FALSE(find_caution(good.lay->cautions, "lay.joint_out"));
    for (const auto& [v, angle] : {std::pair{430.0, 0.0}, {-405.0, 0.0}, {380.0, 3.0}}) {
        INFO(v << " " << angle);
        Job out = j;
        REQUIRE(out.makeup.joints.size() == 1);
        out.makeup.joints[0].v_mm = v, out.makeup.joints[0].angle_deg = angle;
        const Plan p = plan_job(out, d);
        CHECK_FALSE(p.lay->fits);
        const Caution* c = find_caution(p.lay->cautions, "lay.joint_out");
        REQUIRE(c);
        CHECK(c->severity == Severity::stop);
        // By how much: the line at the end where it is furthest out.
        const double most = std::abs(v) + std::tan(angle * M_PI / 180) * 900 - 400;
        CHECK(c->says.value(1) == Approx(most).margin(0.2));
        CHECK_FALSE(find_caution(p.lay->cautions, "lay.leaf_out"));
    }
}

TEST_CASE("nothing that Find offers has a joint outside its top", "[find][makeup]") {
    const Documents& d = demo_shop();
    FindOrder order = find_order(d.jobs.at("job-seed-cabinet"), d.shop);
    order.top.width_mm = 420;  // narrow enough for one board of a pair
    int looked = 0;
    for (const Found& f : find_tops(d, order)) {
        if (f.kind == MakeUp::single || is_river(f.kind)) continue;
        Job job = d.jobs.at("job-seed-cabinet");
        job.top = order.top, job.makeup = order.choices;
        take_find(job, f);
        ++looked;
        CHECK_FALSE(find_caution(plan_job(job, d).lay->cautions, "lay.joint_out"));
    }
    CHECK(looked > 0);
}

TEST_CASE("Find turns a top up to eight degrees on its slab", "[find]") {
    // A plank whose taper is lopsided: its best top lies at about five degrees.
    Documents d;
    Slab s = plank("p", 2600, 700, 50);
    s.tape.stations.clear();
    for (int i = 0; i <= 13; ++i) {
        const double x = i * 200.0;
        const double rise = x * std::tan(5.5 * M_PI / 180);
        s.tape.stations.push_back({x, 300 + rise, 300 - rise, {}, {}, 50.0, {}});
    }
    d.slabs["p"] = s;
    FindOrder order;
    order.top = {2200, 560, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}};
    order.pairs = order.boards = order.rivers = false;
    const auto found = find_tops(d, order);
    REQUIRE(found.size() == 1);
    CHECK(found[0].fits);
    CHECK(std::abs(found[0].placements[0].angle_deg) > 4);
}
