// A top of several: what every way asks for is the sum of its leaves, and one tilt for all goes only with sharing out.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/days/days.h"
#include "core/steps/flat/holding.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

const Choice& choice(const StepPlan& p, const std::string& key) {
    for (const Choice& c : p.choices)
        if (c.key == key) return c;
    FAIL(key);
    throw 0;
}

}  // namespace

TEST_CASE("hours, money, lanes and points of several leaves are those of all of them", "[flat][leaves]") {
    const Documents& d = demo_shop();
    for (const char* id : {"job-seed-cabinet", "job-tarn-river"}) {
        INFO(id);
        const Job& job = d.jobs.at(id);
        const Plan whole = plan_job(job, d);
        REQUIRE(whole.leaves.size() > 1);
        const Choice& by = choice(*whole.flat, "flat.by");
        for (std::size_t way = 0; way < by.options.size(); ++way) {
            INFO(by.options[way].key);
            double hands = 0;
            double money = 0;
            bool possible = true;
            for (const LeafPlan& l : whole.leaves) {
                const FlatWork w = work_by(static_cast<FlatBy>(way), *l.flat, bounds(l.lay->rough), d.shop.sled);
                hands += w.hands_on_h, money += w.cost, possible = possible && w.possible;
            }
            if (!possible) {
                CHECK(by.options[way].consequence.pattern.find("too large") != std::string::npos);
                continue;
            }
            // What is bought flat costs money and nothing else.
            const bool bought = static_cast<FlatBy>(way) == FlatBy::bought_flat;
            if (!bought) CHECK(by.options[way].consequence.value(0) == Approx(hands));
            if (money > 0) CHECK(by.options[way].consequence.value(bought ? 0 : 2) == Approx(std::round(money)));
        }
        double lanes = 0;
        double points = 0;
        double path = 0;
        for (const LeafPlan& l : whole.leaves) {
            lanes += lanes_for(bounds(l.lay->rough).width(), d.shop.sled);
            points += static_cast<double>(std::max<std::size_t>(4, l.flat->shims.size()));
            path += l.flat->faces[0].cut_mm + l.flat->faces[1].cut_mm;
        }
        const Option& across = choice(*whole.flat, "flat.lanes").options[0];
        CHECK(across.consequence.value(0) == lanes);
        if (across.chosen) CHECK(across.consequence.value(1) == Approx(path));
        CHECK(choice(*whole.flat, "flat.held").options[0].consequence.value(0) == points);
    }
}

TEST_CASE("one tilt for all overrides no aim but sharing out", "[flat][leaves]") {
    const Documents& d = demo_shop();
    Job job = d.jobs.at("job-seed-cabinet");
    for (const FlatAim aim : flat_aims.values) {
        INFO(static_cast<int>(aim));
        job.flat.aim = aim;
        job.flat.tilts = Tilts::own;
        const Plan own = plan_job(job, d);
        job.flat.tilts = Tilts::one;
        const Plan one = plan_job(job, d);
        bool same = true;
        for (std::size_t i = 0; i < own.leaves.size(); ++i)
            same = same && own.leaves[i].flat->tilt.a == one.leaves[i].flat->tilt.a &&
                   own.leaves[i].flat->tilt.b == one.leaves[i].flat->tilt.b;
        CHECK(same == (aim != FlatAim::share_out));
        if (aim == FlatAim::as_it_lies)
            for (const LeafPlan& l : one.leaves) CHECK((l.flat->tilt.a == 0 && l.flat->tilt.b == 0));
    }
}

TEST_CASE("what holds the slab costs its minutes, by hand", "[flat][T11]") {
    // Four points of glue: 4 · 3 minutes a face. Six pairs of wedges: 9 minutes a face. Six hold-downs, each set twice: 18.
    FlatAsks a;
    a.points = 4, a.blocks = 6;
    CHECK(holding_h(a, HeldBy::hot_glue) == Approx(0.4));
    CHECK(holding_h(a, HeldBy::wedges) == Approx(0.3));
    CHECK(holding_h(a, HeldBy::hold_downs) == Approx(0.6));
    // It is in the days, and nothing else of the plan changes by it.
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    const auto face_one = [&](HeldBy held) {
        j.flat.held = held;
        const Plan p = plan_job(j, d);
        for (const Operation& o : p.days->operations)
            if (o.key == "flat1") return std::pair(o.hands_on_h, holding_h(p.flat->asks, held));
        throw 0;
    };
    const auto [glue, glue_h] = face_one(HeldBy::hot_glue);
    const auto [down, down_h] = face_one(HeldBy::hold_downs);
    CHECK(glue - down == Approx((glue_h - down_h) / 2));
    CHECK(down_h > glue_h);
}
