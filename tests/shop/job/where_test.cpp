// What is told has its place: inside what lies on the bench, the same in the sentence as on the plan.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/shop/job/any_job.h"

using namespace yb;

namespace {

/// Looks at every caution of a plan that points somewhere. @param wild things lie anywhere. @returns how many did.
int looked_at(const Job& job, const Documents& docs, bool wild) {
    const Plan p = plan_job(job, docs);
    int seen = 0;
    for (const StepRow& row : steps()) {
        const StepPlan* says = row.says ? row.says(p) : nullptr;
        if (!says) continue;
        for (const Caution& c : says->cautions) {
            if (!c.at) continue;
            ++seen;
            INFO(job.name << " " << c.key << ": " << render(c, Units::metric()) << " at " << c.at->x << ", " << c.at->y);
            // Of a single leaf it is a place on its slab as laid, of a top one from its left end.
            double most = job.top.length_mm;
            for (const LeafPlan& l : p.leaves)
                if (l.shape().usable) most = std::max(most, l.shape().x1);
            if (!wild) {
                CHECK(c.at->x > -150);
                CHECK(c.at->x < most + 150);
            }
            // A sentence with one place along the work names the very one that is shown; where a patch is cut it names its slab.
            int along = 0;
            double told = 0;
            for (const PhraseArg& a : c.says.values)
                if (const Quantity* q = a.quantity(); q && q->kind == Kind::along) ++along, told = q->value;
            const bool on_its_own_slab = c.key == "lay.patch_off" || c.key == "lay.patch_twice" || c.key == "lay.patch_flaw";
            if (along == 1 && !on_its_own_slab) CHECK(told == Approx(c.at->x).margin(1));
        }
    }
    return seen;
}

}  // namespace

TEST_CASE("every caution with a place shows the one it names, on the work", "[cautions][where]") {
    const Documents& d = demo_shop();
    int seen = 0;
    for (const auto& [id, job] : d.jobs) seen += looked_at(job, d, false);
    CHECK(seen > 20);
    Dice dice{std::mt19937(29)};
    int random = 0;
    for (int i = 0; i < 60; ++i) random += looked_at(any_job(dice, d), d, true);
    CHECK(random > 100);
}
