// One job of the demo's shop, to be changed and planned.
#pragma once

#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "demo/demo.h"

namespace yb {

struct DemoJob {
    explicit DemoJob(const char* which) : id(which) {}
    Documents docs = demo_shop();
    const char* id;
    Job& job() { return docs.jobs.at(id); }
    Plan plan() { return plan_job(job(), docs); }
    Resin& resin(const char* key) {
        for (Resin& r : docs.shop.resins)
            if (r.key == key) return r;
        FAIL(key);
        return docs.shop.resins.front();
    }
    /// The shop's air all the year.
    void air(double c) {
        for (Month& m : docs.shop.air.months) m.temp_c = c;
    }
};

}  // namespace yb
