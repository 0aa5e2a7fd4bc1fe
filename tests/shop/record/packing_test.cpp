// What is carried in: sizes and weights of the plan, crates worked out by hand.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/record/packing.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "demo/demo.h"

using namespace yb;

TEST_CASE("parts, crates and the bag of a table: every demo job", "[record][packing]") {
    const Documents d = demo_shop();
    int seen = 0;
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        const Packing all = packing_of(p, job);
        INFO(id);
        if (!p.top || !p.top->ready) {
            CHECK(all.parts.empty());
            continue;
        }
        ++seen;
        double kg = 0;
        for (const PackedPart& part : all.parts) {
            const bool base = render(part.what, Units::metric()) == "The base";
            if (!base) kg += part.kg;
            CHECK(part.long_mm >= part.wide_mm);
            CHECK(part.people == std::max(1.0, std::ceil(part.kg / 25 - 1e-9)));
            CHECK(part.crate_long_mm == Approx(part.long_mm + 124));
            CHECK(part.crate_high_mm == Approx(part.high_mm + 124));
            // Foam of 50 mm all round at 20 kg/m³, boards of 12 mm at 550.
            const double bare = part.long_mm * part.wide_mm * part.high_mm,
                         inside = (part.long_mm + 100) * (part.wide_mm + 100) * (part.high_mm + 100),
                         outside = part.crate_long_mm * part.crate_wide_mm * part.crate_high_mm;
            CHECK(part.crate_kg == Approx((inside - bare) * 20e-9 + (outside - inside) * 550e-9));
        }
        CHECK(kg == Approx(p.under->top_kg > 0 ? p.under->top_kg : p.top->mass_kg));
        CHECK(all.parts.front().high_mm == Approx(p.top->thickness_mm + p.under->stays_mm));
        if (!p.under->slots.empty()) {
            REQUIRE(all.bag.size() >= 4);
            CHECK(all.bag.front().count == static_cast<double>(p.under->slots.size()) + 2);
        }
        CHECK_FALSE(all.route.empty());
    }
    CHECK(seen >= 5);
    CHECK(packing_of(Plan(), Job()).parts.empty());
}
