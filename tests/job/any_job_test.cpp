// Whatever a maker types or drags, a plan comes of it: figures are numbers, cautions have places, nothing falls over.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/io/json.h"
#include "core/job/documents.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/sane.h"

using namespace yb;

namespace {

struct Dice {
    std::mt19937 engine;
    double between(double a, double b) { return std::uniform_real_distribution<double>(a, b)(engine); }
    /// Mostly within reason, now and then far out of it.
    double wild(double a, double b) { return one_in(8) ? between(a - 20 * (b - a), b + 20 * (b - a)) : between(a, b); }
    int upto(int n) { return std::uniform_int_distribution<int>(0, n)(engine); }
    bool one_in(int n) { return upto(n - 1) == 0; }
};

Job any_job(Dice& dice, const Documents& d) {
    Job j;
    j.id = "any";
    j.start = dice.one_in(9) ? "whenever" : "2026-12-07";
    std::vector<const Slab*> all;
    for (const auto& [id, s] : d.slabs) all.push_back(&s);
    j.top = {std::max(50.0, dice.wild(300, 2600)), std::max(50.0, dice.wild(200, 1300)),
             std::max(3.0, dice.wild(20, 60)),     std::max(100.0, dice.wild(300, 1000)),
             static_cast<LiveEdges>(dice.upto(3)), dice.upto(10),
             static_cast<TopShape>(dice.upto(3)),  {}};
    if (j.top.shape == TopShape::free)
        for (int i = 0; i < 9; ++i) j.top.free_form.push_back(Vec2{std::cos(i * 0.698), std::sin(i * 0.698)} * dice.between(100, 500));
    const int leaves = 1 + (dice.one_in(2) ? 0 : dice.upto(3));
    j.leaves.resize(static_cast<std::size_t>(leaves));
    for (Leaf& l : j.leaves) {
        l.slab = all[static_cast<std::size_t>(dice.upto(static_cast<int>(all.size()) - 1))]->id;
        l.placement = {dice.wild(200, 2000), dice.wild(-300, 300), dice.wild(-5, 5), dice.one_in(2), std::max(0.0, dice.wild(0, 60))};
        if (dice.one_in(4))
            for (int i = dice.upto(5); i > 0; --i) l.supports.push_back({dice.wild(0, 2000), dice.wild(-300, 300)});
    }
    MakeUpChoices& m = j.makeup;
    m.kind = made_of(static_cast<MakeUp>(dice.upto(5)), j.leaves.size());
    for (int i = dice.upto(leaves); i > 0; --i) m.joints.push_back({dice.wild(-400, 400), dice.wild(-3, 3), dice.one_in(3)});
    m.mill_kerf_mm = std::max(0.0, dice.wild(0, 10));
    m.rip_kerf_mm = std::max(0.0, dice.wild(0, 5));
    m.hollow_mm = dice.one_in(2) ? 0 : dice.between(0, 2);
    m.same_line = dice.one_in(2);
    m.river_mm = std::max(5.0, dice.wild(20, 300));
    m.two_colours = dice.one_in(2);
    m.least_radius_mm = std::max(20.0, dice.wild(100, 2000));
    m.cutter_mm = std::max(3.0, dice.wild(6, 20));
    m.rod_pitch_mm = std::max(40.0, dice.wild(100, 800));
    m.rod_depth_mm = std::max(10.0, dice.wild(30, 150));
    if (dice.one_in(3)) m.halves_u_mm = dice.wild(-500, 500);
    for (int i = dice.upto(2); i > 0; --i) {
        const double u = dice.wild(-400, 400);
        const double v = dice.wild(-200, 200);
        m.patches.push_back({"patch-" + std::to_string(i),
                             {{u, v}, {u + 80, v}, {u + 80, v + 40}, {u, v + 40}},
                             std::max(1.0, dice.wild(2, 20)),
                             dice.one_in(3)   ? ""
                             : dice.one_in(4) ? "gone"
                                              : all[static_cast<std::size_t>(dice.upto(5))]->id,
                             {dice.wild(0, 2000), dice.wild(-200, 200)},
                             dice.wild(-180, 180)});
    }
    m.faces_flat = dice.one_in(2), m.ripped = dice.one_in(2);
    j.flat.aim = static_cast<FlatAim>(dice.upto(2));
    j.flat.finish = static_cast<FinishTo>(dice.upto(1));
    j.flat.first = static_cast<FirstFace>(dice.upto(1));
    j.flat.allowance_mm = dice.between(0, 4);
    j.flat.rest_h = dice.one_in(3) ? 0 : dice.between(1, 100);
    if (!dice.one_in(3)) j.under = starting_under(j.top);
    for (LegPlate& p : j.under.plates) p.u_mm += dice.wild(-100, 100), p.v_mm += dice.wild(-100, 100);
    j.under.fixed = static_cast<FixedLine>(dice.upto(2));
    j.under.plate_let_in = dice.one_in(2);
    if (dice.one_in(3)) j.under.day_moisture_pct = dice.between(0, 60);
    return j;
}

}  // namespace

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
            if (!p.shape()->usable) CHECK_FALSE(p.rack.cautions.empty());
        }
}
