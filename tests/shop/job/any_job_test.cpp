// Whatever a maker types or drags, a plan comes of it: figures are numbers, cautions have places, nothing falls over.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/files/io/json.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/sane.h"
#include "tests/shop/job/any_job.h"

using namespace yb;

TEST_CASE("any job on any slabs is planned, every figure a number and every caution a sentence", "[job][any]") {
    const Documents d = demo_shop();
    for (unsigned seed = 0; seed < 250; ++seed) {
        Dice dice{std::mt19937(seed)};
        const Job j = any_job(dice, d);
        INFO("seed " << seed);
        Plan p;
        REQUIRE_NOTHROW(p = plan_job(j, d, j.several() && dice.one_in(2) ? dice.upto(static_cast<int>(j.leaves.size()) - 1) : whole_top));
        for (const StepRow& row : steps()) sane(p.said(row.step), row.name);
        CHECK(std::isfinite(p.days->end_h));
        CHECK((is_date(p.days->ready) || !is_date(j.start)));
        for (const Cut& c : p.cuts->cuts) CHECK_NOTHROW(render(c.set, {}));
        // It goes out as JSON and its job comes back the same.
        if (is_date(j.start)) CHECK(job_from_json(to_json(j)) == j);
        CHECK_FALSE(to_json(p, Units::metric()).dump().empty());
        // The same inputs give the same plan.
        const Plan q = plan_job(j, d, p.on_bench);
        REQUIRE(q.lay->figures.size() == p.lay->figures.size());
        for (std::size_t i = 0; i < p.lay->figures.size(); ++i) CHECK(q.lay->figures[i].value == p.lay->figures[i].value);
    }
}

TEST_CASE("every option of every choice can be taken, and is then the one marked", "[job][any]") {
    const Documents d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d, job.several() ? 0 : whole_top);
        for (const StepRow& row : steps())
            for (const Choice& c : p.said(row.step).choices)
                for (const Option& o : c.options) {
                    if (c.key == "lay.makeup") continue;  // lays the leaves anew: tested with the make-ups
                    INFO(id << " " << c.key << " " << o.key);
                    Job j = job;
                    REQUIRE_NOTHROW(set_choice(j, c.key, o.key, 0));
                    const Plan q = plan_job(j, d, job.several() ? 0 : whole_top);
                    bool marked = false;
                    for (const Choice& k : q.said(row.step).choices)
                        if (k.key == c.key)
                            for (const Option& other : k.options) marked = marked || (other.key == o.key && other.chosen);
                    CHECK(marked);
                }
    }
    Job j;
    CHECK_THROWS_AS(set_choice(j, "lay.makeup", "heap"), std::invalid_argument);
    CHECK_THROWS_AS(set_choice(j, "soup", "hot"), std::invalid_argument);
}

TEST_CASE("slabs with half their readings missing still make a plan or say what is missing", "[job][any]") {
    const Documents d = demo_shop();
    std::mt19937 dice(3);
    for (const auto& [id, slab] : d.slabs)
        for (int round = 0; round < 4; ++round) {
            INFO(id << " " << round);
            Slab s = slab;
            for (Station& st : s.tape.stations)
                for (auto* v : {&st.left_mm, &st.right_mm, &st.other_left_mm, &st.other_right_mm, &st.thickness_mm, &st.thickness_right_mm})
                    if (dice() % 2) v->reset();
            for (HeightGrid* g : {&s.heights_a, &s.heights_b})
                for (auto& gap : g->gap_mm)
                    if (dice() % 2) gap.reset();
            if (round > 1) s.outline.reset();
            if (round > 2) s.species.clear(), s.moisture_pct.reset(), s.pith_mm.reset();
            Job j;
            j.top = {900, 300, 35, 740, LiveEdges::both, 2, TopShape::rectangle, {}};
            Plan p;
            REQUIRE_NOTHROW(give_slab(j, s));
            REQUIRE_NOTHROW(p = plan_job(j, s, d.shop));
            sane(p.rack, "rack");
            sane(*p.lay, "lay");
            if (!p.shape()->usable) CHECK(find_caution(p.lay->cautions, "lay.unmeasured"));
        }
}
