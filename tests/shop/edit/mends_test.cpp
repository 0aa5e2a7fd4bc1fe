// Mends one by one: the mistake is made in a demo job, the mend that is offered is taken, and the caution is gone or lesser.
#include <catch2/catch.hpp>

#include "core/ground/geometry/geometry.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

/// The first caution of a key that a plan tells.
std::optional<Caution> told(const Plan& plan, const std::string& key) {
    for (const StepRow& row : steps()) {
        if (row.on == StepRow::On::beside) continue;
        for (const Caution& c : row.says(plan)->cautions)
            if (c.key == key) return c;
    }
    return {};
}

int how_often(const Plan& plan, const std::string& key) {
    int n = 0;
    for (const StepRow& row : steps()) {
        if (row.on == StepRow::On::beside) continue;
        for (const Caution& c : row.says(plan)->cautions) n += c.key == key;
    }
    return n;
}

/// Takes the mend of a caution that is told of this job. @returns its edit's name.
std::string take(Documents& docs, const std::string& job, const std::string& key) {
    const Plan before = plan_job(docs.jobs.at(job), docs);
    const auto c = told(before, key);
    INFO(job << " " << key);
    REQUIRE(c);
    const auto mend = mend_of(*c, docs, job, before);
    REQUIRE(mend);
    CHECK_FALSE(mend->label.empty());
    mended(docs, job, *mend);
    CHECK(how_often(plan_job(docs.jobs.at(job), docs), key) < how_often(before, key));
    return mend->edit;
}

}  // namespace

TEST_CASE("a bit that stands out too far: the rails are lowered as far as the wood lets them", "[mends][T12]") {
    Documents docs = demo_shop();
    docs.shop.sled.rail_mm = 160;
    docs.shop.sled.stickout_mm = 40;
    REQUIRE(take(docs, "job-reading-table", "flat.stickout") == "rails");
    const Plan plan = plan_job(docs.jobs.at("job-reading-table"), docs);
    for (const FacePlan& f : plan.flat->faces) {
        CHECK(f.highest_mm <= docs.shop.sled.rail_mm);
        CHECK(f.stickout_mm <= docs.shop.sled.stickout_mm + 1e-9);
    }
}

TEST_CASE("a sled that sags gets beams that hold it", "[mends]") {
    Documents docs = demo_shop();
    docs.shop.sled.span_mm = 1800;
    REQUIRE(sled_sag_mm(docs.shop.sled) > 0.25);
    CHECK(take(docs, "job-reading-table", "flat.sag") == "beam_high");
    CHECK(sled_sag_mm(docs.shop.sled) < 0.15 + 1e-9);
}

TEST_CASE("a pocket too deep is made shallower, a hole in a void moves with its plate", "[mends][T21]") {
    Documents docs = demo_shop();
    const auto now = [&]() -> Job& { return docs.jobs.at("job-reading-table"); };  // a mend makes it anew
    REQUIRE_FALSE(now().under.channels.empty());
    now().under.channels[0].depth_mm = 40;
    CHECK(take(docs, "job-reading-table", "under.deep_channel") == "channel_deep");
    CHECK(now().under.channels[0].depth_mm < 25);

    const Plan plan = plan_job(now(), docs);
    const auto hole = std::max_element(plan.fill->voids.begin(), plan.fill->voids.end(),
                                       [](const VoidPlan& a, const VoidPlan& b) { return area(a.mouth) < area(b.mouth); });
    REQUIRE(hole != plan.fill->voids.end());
    // One bolt, in the middle of the void.
    const Vec2 uv = plan.placement.frame().from_slab(centroid(hole->mouth));
    now().under.plates.at(0) = {uv.x, uv.y, 60, 60, 1, 1};
    CHECK(take(docs, "job-reading-table", "under.hole_in_void") == "plate_to");
    CHECK(now().under.plates.at(0).u_mm != uv.x);
}

TEST_CASE("a patch let in too deep and across the grain is mended twice", "[mends]") {
    Documents docs = demo_shop();
    const auto now = [&]() -> Job& { return docs.jobs.at("job-reading-table"); };
    add_patch(now(), {{-60, -30}, {60, -30}, {60, 30}, {-60, 30}});
    const auto donor = std::find_if(docs.slabs.begin(), docs.slabs.end(),
                                    [&](const auto& s) { return s.first != now().leaves.at(0).slab && !s.second.retired; });
    REQUIRE(donor != docs.slabs.end());
    REQUIRE(cut_patch_from(now(), 0, donor->second, plan_job(now(), docs)));
    now().makeup.patches.at(0).depth_mm = 47;
    CHECK(take(docs, "job-reading-table", "lay.patch_deep") == "patch_depth");
    CHECK(now().makeup.patches.at(0).depth_mm <= 12);
    now().makeup.patches.at(0).turn_deg = 25;
    now().makeup.patches.at(0).at = {1000, 0};  // turned it is wider: away from the slab's end
    CHECK(take(docs, "job-reading-table", "lay.patch_grain") == "patch_along");
    CHECK(now().makeup.patches.at(0).turn_deg == 0);
}
