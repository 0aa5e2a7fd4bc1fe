// Leaves moved, turned, ripped and arranged: what stays where, and that nothing better lies near by.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/lay/place.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

MakeUpInputs inputs(const Job& j, const Plan& p) {
    MakeUpInputs in{{}, j.top, j.makeup, false, {}, nullptr};
    for (std::size_t i = 0; i < p.leaves.size(); ++i) in.leaves.push_back({p.leaves[i].slab(), p.leaves[i].shape(), j.leaves[i].placement});
    return in;
}

}  // namespace

TEST_CASE("a leaf moves in the top's own directions and turns about the place it is held at", "[arrange]") {
    for (const double angle : {0.0, 30.0, 178.0, -91.0}) {
        const Placement before{1200, -40, angle, false, 30};
        const Vec2 mark{333, 71};  // something on the slab
        const Vec2 seen = before.frame().from_slab(mark);
        Placement p = before;
        move_by(p, {50, -20});
        CHECK(length(p.frame().from_slab(mark) - (seen + Vec2{50, -20})) < 1e-9);
        p = before;
        const Vec2 held{-200, 90};
        const Vec2 there = before.frame().to_slab(held);
        turn_about(p, held, 7);
        CHECK(length(p.frame().from_slab(there) - held) < 1e-9);
        // To the left: what lay to the right of the hand goes up.
        const Vec2 right = before.frame().to_slab(held + Vec2{100, 0});
        CHECK(p.frame().from_slab(right).y - held.y == Approx(100 * std::sin(7 * 3.14159265358979 / 180)));
    }
}

TEST_CASE("edges walked once are those cut across one by one", "[arrange]") {
    std::mt19937 dice(31);
    std::uniform_real_distribution<double> share(0.4, 1);
    for (int round = 0; round < 20; ++round) {
        Ring r;
        for (int i = 0; i < 60; ++i) r.push_back(Vec2{std::cos(i * 0.1047) * 900, std::sin(i * 0.1047) * 300} * share(dice));
        const EdgeProfile p = edge_profile(r, -880.3, 17.7, 101);
        for (std::size_t i = 0; i < 101; ++i) {
            const auto cut = cut_at_x(r, -880.3 + 17.7 * static_cast<double>(i));
            REQUIRE(p.there(i) == !cut.empty());
            if (cut.empty()) continue;
            CHECK(p.low[i] == Approx(cut.front().from).margin(1e-9));
            CHECK(p.high[i] == Approx(cut.back().to).margin(1e-9));
        }
    }
    const Ring even = at_stations(box(0, -100, 1000, 200), 100, 900, 8);
    CHECK(even.size() == 18);
    CHECK(area(even) == Approx(800 * 300));
}

TEST_CASE("joints nobody set lie evenly across", "[arrange]") {
    MakeUpChoices c;
    const auto three = joints_of(c, 4, 800);
    REQUIRE(three.size() == 3);
    CHECK(three[0].v_mm == Approx(-200));
    CHECK(three[1].v_mm == Approx(0));
    CHECK(three[2].v_mm == Approx(200));
    c.joints = {{-310, 1, true}, {5, 0, false}, {6, 0, false}, {7, 0, false}};
    CHECK(joints_of(c, 3, 900).size() == 2);
    CHECK(joints_of(c, 3, 900)[0].v_mm == -310);
    CHECK(joints_of(c, 1, 900).empty());
    CHECK(made_of(MakeUp::boards, 1) == MakeUp::single);
    CHECK(made_of(MakeUp::slip, 2) == MakeUp::slip);
    CHECK(made_of(MakeUp::book, 4) == MakeUp::boards);
    CHECK(made_of(MakeUp::river, 3) == MakeUp::river);
}

TEST_CASE("outer boards turned end for end even out a taper", "[arrange]") {
    Documents d;
    for (int i = 1; i <= 4; ++i) {
        Slab s = plank("b" + std::to_string(i), 2400, 400, 55);
        s.sequence = i;
        s.tape.stations[0].left_mm = s.tape.stations[0].right_mm = 220;  // wide at the butt
        s.tape.stations[1].left_mm = s.tape.stations[1].right_mm = 170;
        d.slabs[s.id] = s;
    }
    std::vector<std::shared_ptr<const BothWays>> boards;
    for (const auto& [id, s] : d.slabs) boards.push_back(both_ways(s));
    const WantedTop top{2200, 1200, 40, 740, LiveEdges::both, 8, TopShape::rectangle, {}};
    MakeUpChoices c;
    const Arrangement straight = arrange(MakeUp::boards, boards, top, c);
    c.ends_swapped = true;
    const Arrangement swapped = arrange(MakeUp::boards, boards, top, c);
    REQUIRE(straight.possible);
    REQUIRE(swapped.possible);
    CHECK(straight.taper_mm > 150);
    CHECK(swapped.taper_mm < 10);
    CHECK(swapped.given_up_mm < straight.given_up_mm);  // nothing is ripped off to make the joints parallel
    Job j = on(d.slabs.at("b1"), top);
    j.makeup.ends_swapped = true;
    REQUIRE(laid_together(j, MakeUp::boards, {d.slabs.at("b1"), d.slabs.at("b2"), d.slabs.at("b3"), d.slabs.at("b4")}).empty());
    const Plan p = plan_job(j, d);
    for (const JointPlan& k : p.makeup->joints) CHECK(k.worst_mm <= 0.5);  // clean on both leaves
    CHECK(std::abs(p.lay->width_left_mm - p.lay->width_right_mm) < 10);
    CHECK(p.lay->narrowest_mm > 1500);
    // In the order of the log, whatever order they were given in.
    CHECK(straight.order.size() == 4);
    std::reverse(boards.begin(), boards.end());
    const Arrangement back = arrange(MakeUp::boards, boards, top, c);
    CHECK(back.width_mm == Approx(swapped.width_mm));
    // Too few, too many, not measured: a sentence.
    boards.pop_back();
    CHECK(arrange(MakeUp::book, boards, top, c).why_not == say("{} wants {}", "an opened pair", "two leaves"));
    boards.push_back(both_ways(Slab{}));
    CHECK_FALSE(arrange(MakeUp::boards, boards, top, c).possible);
}

TEST_CASE("rip lines found anew are clean, and give up no more than lines near by that are clean too", "[arrange]") {
    const Documents d = demo_shop();
    Job j = d.jobs.at("job-seed-cabinet");
    std::mt19937 dice(32);
    std::uniform_real_distribution<double> away(-40, 40);
    for (Leaf& l : j.leaves) move_by(l.placement, {0, away(dice)});
    j.makeup.same_line = false;
    Plan p = plan_job(j, d);
    const auto best = best_rips(inputs(j, p), *p.makeup);
    REQUIRE(best.size() == j.leaves.size());
    for (std::size_t i = 0; i < best.size(); ++i) j.leaves[i].placement = best[i];
    p = plan_job(j, d);
    double given = 0;
    for (const JointPlan& k : p.makeup->joints) {
        CHECK(k.worst_mm <= 0.5);
        given += k.given_right_mm + k.given_left_mm;
    }
    // Shifted and turned a little by lot: what is clean gives up more.
    std::uniform_real_distribution<double> little(-6, 6);
    int clean = 0;
    for (int round = 0; round < 150; ++round) {
        Job other = j;
        const double far = (1 + round % 15) / 15.0;  // near ones too: far ones are hardly ever clean on every leaf
        for (Leaf& l : other.leaves) {
            move_by(l.placement, {0, far * far * little(dice)});
            turn_about(l.placement, {0, 0}, far * far * little(dice) / 60);
        }
        const Plan q = plan_job(other, d);
        double now = 0;
        bool all = true;
        for (const JointPlan& k : q.makeup->joints) all = all && k.worst_mm <= 0.5, now += k.given_right_mm + k.given_left_mm;
        if (!all) continue;
        ++clean;
        CHECK(now > given - 3);
    }
    CHECK(clean > 5);
}

TEST_CASE("no small move of either bank makes an evened river more even", "[arrange]") {
    const Documents d = demo_shop();
    Job j = d.jobs.at("job-tarn-river");
    Plan p = plan_job(j, d);
    const auto even = evened_river(inputs(j, p), p);
    for (std::size_t i = 0; i < even.size(); ++i) j.leaves[i].placement = even[i];
    const auto spread = [&](const Job& job) {
        const Plan q = plan_job(job, d);
        const JointPlan& r = q.makeup->joints.at(0);
        double sum = 0;
        for (const JointStation& s : r.along) {
            const auto right = wood_at(q.makeup->leaves[0], s.u, false);
            const auto left = wood_at(q.makeup->leaves[1], s.u, false);
            if (right && left) sum += std::pow(left->from - right->to - r.above.mean_mm, 2);
        }
        return std::sqrt(sum / static_cast<double>(r.along.size())) + 2 * std::abs(r.above.mean_mm - job.makeup.river_mm);
    };
    const double best = spread(j);
    CHECK(plan_job(j, d).makeup->joints[0].above.mean_mm == Approx(140).margin(2));
    std::mt19937 dice(33);
    std::uniform_real_distribution<double> any(-1, 1);
    for (int round = 0; round < 80; ++round) {
        Job other = j;
        for (Leaf& l : other.leaves) {
            move_by(l.placement, Vec2{any(dice) * 10, any(dice) * 3});
            turn_about(l.placement, {0, 0}, any(dice) * 0.3);
        }
        CHECK(spread(other) > best - 2.5);  // the outer edges' squareness weighs a little against it
    }
}
