// A step of its own, added at run time: what a row alone brings into the house.
#include <catch2/catch.hpp>

#include "core/files/io/json.h"
#include "core/shop/edit/mends.h"
#include "core/shop/rows/row.h"
#include "demo/demo.h"

using namespace yb;

namespace {

constexpr Step wax{"wax"};

struct WaxPlan : StepPlan {
    double grams = 0;
};

const WaxPlan& wax_of(const Plan& p) { return static_cast<const WaxPlan&>(*p.more.at("wax")); }

StepPlan* own_wax(Plan& p) {
    const auto copy = std::make_shared<WaxPlan>(wax_of(p));
    p.more["wax"] = copy;
    return copy.get();
}

void plan_wax(Planning& w) {
    const auto made = std::make_shared<WaxPlan>();
    made->ready = w.top != nullptr;
    made->grams = w.top ? 30 * w.top->area_mm2() * 1e-6 : 0;
    made->figures.push_back({"wax.grams", "Wax", Quantity{made->grams / 1000, Kind::mass}, {}, {}, {"30 g a square metre", {}, ""}});
    if (w.job.notes == "hot") made->cautions.push_back({"wax.hot", Severity::watch, wax, say("Too hot to wax.")});
    w.p.more["wax"] = made;
}

constexpr MendEdit wax_edits[] = {{"wax_cooler", [](Documents&, Job& j, const Takes&) { j.notes = "cool"; }}};

StepRow wax_row() {
    StepRow row;
    row.step = wax;
    row.name = "Wax";
    row.coming = "wax it";
    row.says = [](const Plan& p) -> const StepPlan* { return p.more.at("wax").get(); };
    row.own = own_wax;
    row.empty = [](Plan& p) { p.more["wax"] = std::make_shared<WaxPlan>(); };
    row.plan = plan_wax;
    row.operations = [](const Planning& w, std::vector<Operation>& out) { give(out, wax_of(w.p), "wax", "Wax", wax, 90, 1.5, 12); };
    row.things = [](const ThingsAsk& a, std::vector<Thing>& out) {
        Thing t{"wax 1", "wax", 0, say("The wax")};
        t.figures = a.plan.more.at("wax")->figures;
        out.push_back(std::move(t));
    };
    row.edits = [] { return std::span<const MendEdit>(wax_edits); };
    row.mends = [](const MendAsk& a) {
        if (a.caution.key == "wax.hot") a.offer("wax_cooler", say("Wait for the evening"));
    };
    row.done = "the buffing";
    return row;
}

}  // namespace

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
