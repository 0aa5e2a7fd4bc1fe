// A plain table of cherry, 2000 by 800 by 40, on two plates and two channels, in a room that swings: for the tests of Under.
#pragma once

#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/under/under.h"
#include "tests/everything.h"
#include "tests/planks.h"

namespace yb {

struct Table {
    Slab slab = plank("p", 2400, 900, 50, "cherry, black");
    Job job;
    Shop shop;
    Table() {
        slab.moisture_pct = 9;
        job = on(slab, {2000, 800, 40, 740, LiveEdges::none, 6, TopShape::rectangle, {}});
        job.under = starting_under(job.top);
        // A room that swings from 7 to 11 % or so.
        for (std::size_t m = 0; m < 12; ++m) job.room.months[m] = {21, m < 6 ? 36.0 : 61.0};
    }
    UnderPlan plan() const { return *plan_job(job, slab, shop).under; }
    const Caution* says(const char* key) {
        last = plan();
        return find_caution(last.cautions, key);
    }
    UnderPlan last;
};

}  // namespace yb
