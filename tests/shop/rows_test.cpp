// A step of its own, added at run time: what a row alone brings into the house.
#include <catch2/catch.hpp>

#include "core/files/io/json.h"
#include "core/shop/edit/mends.h"
#include "core/shop/rows/row.h"
#include "demo/demo.h"
#include "tests/wax_row.h"

using namespace yb;

TEST_CASE("a step added as one row is planned, dated, told, picked and mended", "[rows]") {
    const Documents& d = demo_shop();
    Job job = d.jobs.at("job-reading-table");
    const std::string before = ready_for();
    const std::size_t rows = steps().size();
    {
        const StepMore more(wax_row());
        REQUIRE(steps().size() == rows + 1);
        CHECK(find_step("wax"));
        CHECK(yb::before(step_key::under, wax));
        CHECK(yb::before(wax, step_key::sheets));
        CHECK(std::string(ready_for()) == "the buffing");
        job.notes = "hot";
        const Plan p = plan_job(job, d);
        CHECK(wax_of(p).grams == Approx(30 * p.top->area_mm2() * 1e-6));
        CHECK(p.said(wax).figures.size() == 1);
        // Days has its operation, last; the sheet minds its caution; JSON has both.
        REQUIRE_FALSE(p.days->operations.empty());
        CHECK(p.days->operations.back().key == "wax");
        CHECK(p.days->operations.back().knot);
        CHECK(find_caution(p.sheets.cautions, "wax.hot"));
        const Json j = to_json(p, d.shop.units);
        CHECK(j.dump().find("wax.hot") != std::string::npos);
        CHECK(j.at("wax").at("figures").size() == 1);
        const auto things = things_of(p, job, d.shop, wax);
        REQUIRE_FALSE(things.empty());
        CHECK(things.back().key == "wax 1");
        Documents docs = d;
        docs.jobs.at(job.id) = job;
        const auto mend = mend_of(*find_caution(p.sheets.cautions, "wax.hot"), docs, job.id, p);
        REQUIRE(mend);
        mended(docs, job.id, *mend);
        CHECK_FALSE(find_caution(plan_job(docs.jobs.at(job.id), docs).sheets.cautions, "wax.hot"));
    }
    CHECK(steps().size() == rows);
    CHECK(std::string(ready_for()) == before);
    CHECK_FALSE(find_step("wax"));
}

TEST_CASE("every row has what the house asks of all, and the shop's fields are told in the step they belong to", "[rows]") {
    for (const StepRow& row : steps()) {
        INFO(row.step.key);
        CHECK_FALSE(std::string(row.name).empty());
        CHECK(row.says);
        CHECK(row.own);
        CHECK((row.on == StepRow::On::beside || row.plan));
        CHECK(static_cast<bool>(row.edits) == static_cast<bool>(row.mends));
        if (&row != &steps().front()) CHECK_FALSE(std::string(row.coming).empty());
    }
    CHECK(step_of_shop_field("sled.rail_mm") == step_key::flat);
    CHECK(step_of_shop_field("resins[2].deepest_mm").key == "fill");
    CHECK(step_of_shop_field("sections[0].width_mm").key == "under");
    CHECK(step_of_shop_field("air.months[1].rh_pct") == step_key::rack);
    Documents d = demo_shop();
    d.shop.resins[0].deepest_mm = 5000;
    const Plan p = plan_job(d.jobs.at("job-tarn-river"), d);
    const Caution* c = find_caution(p.said(Step{"fill"}).cautions, "plan.range");
    REQUIRE(c);
    CHECK(c->field.find("resins") != std::string::npos);
    CHECK_FALSE(find_caution(p.said(step_key::flat).cautions, "plan.range"));
}
