// Length for width where a wanted top does not lie in a slab: what is told can be laid, and no more can be had.
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/prepared.h"
#include "core/steps/lay/place.h"
#include "demo/demo.h"

using namespace yb;

namespace {

WideBy by_of(LiveEdges live) {
    return live == LiveEdges::none   ? WideBy::sawn
           : live == LiveEdges::both ? WideBy::live
           : live == LiveEdges::left ? WideBy::live_high
                                     : WideBy::live_low;
}

/// The widest of a grid of angles, each with every place along the slab.
double widest_of_a_grid(const SlabShape& shape, double length, WideBy by) {
    double best = 0;
    for (double angle = -8; angle <= 8; angle += 0.5) best = std::max(best, widest_at(shape, length, angle, by, 6).by(by));
    return best;
}

}  // namespace

TEST_CASE("a slab that is too small trades length for width, and both can be laid", "[lay][place]") {
    const Documents d = demo_shop();
    int told = 0;
    for (const auto& [id, slab] : d.slabs) {
        const SlabShape shape = shape_of(slab);
        if (!shape.usable) continue;
        const double long_mm = shape.x1 - shape.x0;
        for (const LiveEdges live : {LiveEdges::none, LiveEdges::both, LiveEdges::right}) {
            INFO(id << " " << static_cast<int>(live));
            WantedTop top;
            top.live = live;
            top.length_mm = std::round(long_mm * 0.8);
            const double have = widest_of_a_grid(shape, top.length_mm, by_of(live));
            top.width_mm = std::round(have * 1.12);
            const Trade t = trade_of(shape, top);
            CHECK_FALSE(t.fits);
            CHECK(t.wide_mm >= have * 0.995);
            CHECK(t.wide_mm <= have * 1.01 + 2);
            const auto fits = [&](double length, double width, const Placement& at) {
                WantedTop w = top;
                w.length_mm = length, w.width_mm = width;
                return plan_lay({slab, shape, w, at}).fits;
            };
            CHECK(fits(top.length_mm, std::floor(t.wide_mm - 3), t.at_length.placement));
            if (t.length_mm <= 0) continue;
            ++told;
            CHECK(fits(t.length_mm - 5, top.width_mm - 1, t.at_width.placement));
            CHECK(widest_of_a_grid(shape, t.length_mm + 40, by_of(live)) < top.width_mm * 1.005);
            // A size that lies somewhere is said to.
            top.width_mm = std::floor(have * 0.97);
            CHECK(trade_of(shape, top).fits);
        }
    }
    CHECK(told > 10);
}

TEST_CASE("what a slab gives instead is told with both numbers, and its mend lays it", "[lay][mends]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    j.top.width_mm = 1000;
    const Plan p = plan_job(j, d);
    REQUIRE(find_caution(p.lay->cautions, "lay.short"));
    const Caution* c = find_caution(p.lay->cautions, "lay.trade");
    REQUIRE(c);
    INFO(render(c->says, {}));
    const Trade t = trade_of(p.on->shape, j.top);
    CHECK(c->says.value(0) == j.top.length_mm);
    CHECK(c->says.value(1) == j.top.width_mm);
    CHECK(c->says.value(3) < j.top.width_mm);
    CHECK(c->says.value(5) == t.length_mm);
    const auto mend = mend_of(*c, d, "job-reading-table", p);
    REQUIRE(mend);
    mended(d, "job-reading-table", *mend);
    const Plan after = plan_job(d.jobs.at("job-reading-table"), d);
    CHECK(after.lay->fits);
    CHECK_FALSE(find_caution(after.lay->cautions, "lay.trade"));
}
