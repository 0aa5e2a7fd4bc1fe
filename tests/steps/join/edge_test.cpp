// Edges: what comes off two that do not meet, how square they are, what shaping the rim does, a live edge carved along the grain, and the
// card of an open river's rods.
#include <random>

#include <catch2/catch.hpp>

#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/things.h"
#include "core/steps/join/join.h"
#include "core/steps/top/top.h"
#include "demo/demo.h"
#include "tests/demo_job.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// A plank of 2000 by 600 by 50 with a sawn top of 1600 by 500 by 40, its edge shaped.
struct Plain {
    Slab slab = plank("p", 2000, 600, 50);
    Job job;
    Shop shop;
    Plain(EdgeShape edge, double mm) {
        job = on(slab, {1600, 500, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
        job.join.edge = edge;
        job.join.edge_mm = mm;
    }
    JoinPlan plan() const { return *plan_job(job, slab, shop).join; }
};

double told(const std::vector<Figure>& figures, const char* key) {
    for (const Figure& f : figures)
        if (f.key == key) return f.value.value;
    FAIL(key);
    return 0;
}

}  // namespace

TEST_CASE("what is planed off leaves no hollow and takes as little as any line can", "[join][edge]") {
    SECTION("by hand") {
        // Hollow in the middle by 0.6: both ends come down to it.
        const auto off = taken_straight({{-500, 0}, {0, 0.6}, {500, 0}});
        CHECK(off == std::vector<double>{0.6, 0, 0.6});
        // Open at one end only: the leaf turns, nothing but that is planed.
        for (const double mm : taken_straight({{-500, 0}, {0, 0.4}, {500, 0.8}})) CHECK(mm == Approx(0).margin(1e-12));
        // Proud in the middle: the middle goes.
        const auto proud = taken_straight({{-500, 0.5}, {0, 0}, {500, 0.5}});
        CHECK(proud[1] == Approx(0.5));
        CHECK(proud[0] == Approx(0));
        CHECK(taken_straight({}).empty());
        CHECK(taken_straight({{3, 1}}) == std::vector<double>{0});
        CHECK(taken_straight({{3, 1}, {3, 2}}) == std::vector<double>{1, 0});
    }
    SECTION("against every line through two readings") {
        std::mt19937 dice(11);
        std::uniform_real_distribution<double> gap(0, 2);
        for (int trial = 0; trial < 200; ++trial) {
            std::vector<Vec2> at;
            for (int i = 0; i < 4 + trial % 9; ++i) at.push_back({-900 + 200.0 * i + 40 * gap(dice), gap(dice)});
            const auto off = taken_straight(at);
            const double middle = (at.front().x + at.back().x) / 2;
            // Mean of what comes off, over the length: the line's height half-way less a constant.
            double best = 1e300;
            for (std::size_t i = 0; i < at.size(); ++i)
                for (std::size_t j = i + 1; j < at.size(); ++j) {
                    const double slope = (at[j].y - at[i].y) / (at[j].x - at[i].x);
                    const auto line = [&](double x) { return at[i].y + slope * (x - at[i].x); };
                    if (std::all_of(at.begin(), at.end(), [&](Vec2 q) { return line(q.x) >= q.y - 1e-9; }))
                        best = std::min(best, line(middle));
                }
            // What was found is a line too: through the first and last place.
            const double first = at.front().y + off.front();
            const double last = at.back().y + off.back();
            CHECK((first + last) / 2 == Approx(best).margin(1e-9));
            for (std::size_t i = 0; i < at.size(); ++i) {
                CHECK(off[i] >= 0);
                const double share = (at[i].x - at.front().x) / (at.back().x - at.front().x);
                CHECK(at[i].y + off[i] == Approx(first + (last - first) * share).margin(1e-9));
            }
        }
    }
}

TEST_CASE("gaps read say which edge loses how much, and where", "[join][edge]") {
    DemoJob f("job-opened-pair");
    for (const auto& [u, gap] : {std::pair{-800.0, 0.0}, {0.0, 0.7}, {800.0, 0.0}}) read_gap(f.job(), 1, u, gap);
    SECTION("pushed together, the leaf that is lighter is planed") {
        const JoinPlan p = *f.plan().join;
        const GluedJoint& g = p.joints.front();
        REQUIRE(g.takes.size() == 3);
        CHECK(g.take_mm == Approx(0.7));
        const Plan whole = plan_job(f.job(), f.docs);
        const bool right = whole.top->regions[0].mass_kg <= whole.top->regions[1].mass_kg;
        CHECK((right ? g.takes[0].right_mm : g.takes[0].left_mm) == Approx(0.7));
        CHECK((right ? g.takes[0].left_mm : g.takes[0].right_mm) == 0);
        CHECK(find_caution(p.cautions, "join.take"));
    }
    SECTION("each edge under its own straightedge loses its own") {
        for (const auto& [u, gap] : {std::pair{-800.0, 0.0}, {0.0, 0.2}, {800.0, 0.0}}) read_gap(f.job(), 1, u, gap, EdgeRead::right);
        for (const auto& [u, gap] : {std::pair{-800.0, 0.5}, {0.0, 0.0}, {800.0, 0.5}}) read_gap(f.job(), 1, u, gap, EdgeRead::left);
        const GluedJoint g = f.plan().join->joints.front();
        REQUIRE(g.takes.size() == 3);
        CHECK(g.takes[0].right_mm == Approx(0.2));
        CHECK(g.takes[1].right_mm == Approx(0).margin(1e-12));
        CHECK(g.takes[1].left_mm == Approx(0.5));
        CHECK(g.takes[0].left_mm == Approx(0).margin(1e-12));
        // The widest gap is still that of both together.
        CHECK(g.widest_gap_mm == Approx(0.7));
    }
    SECTION("out of square is a roof or a valley") {
        read_square(f.job(), 1, 0, 0.6);
        JoinPlan p = *f.plan().join;
        CHECK(*p.joints.front().square_mm == Approx(0.6));
        const Caution* c = find_caution(p.cautions, "join.square");
        REQUIRE(c);
        CHECK(c->severity == Severity::stop);
        CHECK(render(c->says, Units::metric()).find("roof") != std::string::npos);
        read_square(f.job(), 1, 0, -0.2);
        p = *f.plan().join;
        c = find_caution(p.cautions, "join.square");
        REQUIRE(c);
        CHECK(c->severity == Severity::watch);
        CHECK(render(c->says, Units::metric()).find("sags") != std::string::npos);
        // Taken back the gap that was read there stays.
        read_square(f.job(), 1, 0, {});
        p = *f.plan().join;
        CHECK_FALSE(find_caution(p.cautions, "join.square"));
        CHECK(p.joints.front().widest_gap_mm == Approx(0.7));
    }
    SECTION("readings stay in the order of their places, and one place is read once") {
        read_gap(f.job(), 1, 400, 0.3);
        read_gap(f.job(), 1, 400.4, 0.5);
        const auto& gaps = f.job().join.gaps;
        REQUIRE(gaps.size() == 4);
        for (std::size_t i = 1; i < gaps.size(); ++i) CHECK(gaps[i - 1].u_mm < gaps[i].u_mm);
        CHECK(gaps[2].gap_mm == 0.5);
    }
}

TEST_CASE("a shaped edge: what it takes, what it leaves of the rim, by hand", "[join][edge]") {
    // Butternut at 12 %: the plank's own density.
    const double girth = 2 * (1600 + 500);
    SECTION("rounded over") {
        const JoinPlan p = Plain(EdgeShape::round_over, 8).plan();
        CHECK(p.rim.litres == Approx(girth * 2 * (1 - M_PI / 4) * 64 * 1e-6));
        CHECK(p.rim.flat_mm == Approx(24));
        CHECK(p.rim.above_mm == 8);
        CHECK(told(p.figures, "join.rim") == Approx(24));
    }
    SECTION("bevelled underneath") {
        const JoinPlan p = Plain(EdgeShape::under_bevel, 15).plan();
        CHECK(p.rim.litres == Approx(girth * 15 * 30 / 2 * 1e-6));
        CHECK(p.rim.flat_mm == Approx(25));
        CHECK(p.rim.above_mm == 0);
        CHECK(p.rim.below_mm == 30);
    }
    SECTION("it weighs what its wood does") {
        Plain f(EdgeShape::chamfer, 10);
        const Plan whole = plan_job(f.job, f.slab, f.shop);
        const Region& leaf = whole.top->regions.front();
        CHECK(whole.join->rim.kg == Approx(girth * 100 * 1e-6 * leaf.mass_kg / leaf.volume_l));
    }
    SECTION("a rim that gets thin is told [T34]") {
        CHECK(find_caution(Plain(EdgeShape::chamfer, 18).plan().cautions, "join.rim_thin"));
        CHECK_FALSE(find_caution(Plain(EdgeShape::chamfer, 8).plan().cautions, "join.rim_thin"));
        CHECK_FALSE(find_caution(Plain(EdgeShape::square, 18).plan().cautions, "join.rim_thin"));
    }
    SECTION("what is let in near the rim is met by the bevel") {
        Plain f(EdgeShape::under_bevel, 15);
        f.job.under.plates = {{0, 0, 100, 400, 3, 1}};
        f.job.under.edge_mm = 20;
        CHECK_FALSE(find_caution(f.plan().cautions, "join.edge_meets"));
        // The outermost insert 180 out: 250 − 30 is where the bevel begins.
        f.job.under.plates[0].v_mm = 45;
        const JoinPlan p = f.plan();
        const Caution* c = find_caution(p.cautions, "join.edge_meets");
        REQUIRE(c);
        CHECK(c->severity == Severity::stop);
        CHECK(render(c->says, Units::metric()).find("insert of plate 1") != std::string::npos);
    }
    SECTION("a live edge that runs out thin is told with its place [T34]") {
        Slab s = plank("p", 2000, 600, 50);
        // Underneath the wood is 120 narrower on one side than above.
        for (auto& station : s.tape.stations) station.other_left_mm = *station.left_mm - 120;
        Job j = on(s, {1600, 700, 40, 740, LiveEdges::both, 0, TopShape::rectangle, {}});
        const JoinPlan p = *plan_job(j, s, Shop()).join;
        const Caution* c = find_caution(p.cautions, "join.feather");
        REQUIRE(c);
        CHECK(c->at);
    }
}

TEST_CASE("a carved edge follows the grain of its slab, inside the side, touching it", "[join][edge][carved]") {
    Documents docs = demo_shop();
    Job job = docs.jobs.at("job-reading-table");
    job.top.live = LiveEdges::none;
    job.top.width_mm = 800;
    job.join.edge = EdgeShape::carved;
    job.join.edge_mm = 100;
    Plan plan = plan_job(job, docs);
    REQUIRE(plan.join->carved.size() == 2);
    const Ring slab = plan.top->regions[0].placed.frame().from_slab(plan.shape()->ring_a);
    for (const CarvedLine& c : plan.join->carved) {
        const double side = c.left ? 400 : -400;
        double nearest = 1e300;
        double low = 1e300;
        double high = -1e300;
        for (const Vec2 q : c.line) {
            const double inside = c.left ? side - q.y : q.y - side;
            CHECK(inside >= -1e-6);
            nearest = std::min(nearest, inside);
            // The same share of the way from the far edge to the near one, everywhere.
            const auto cut = cut_at_x(slab, q.x);
            REQUIRE_FALSE(cut.empty());
            const double share = (q.y - cut.front().from) / (cut.back().to - cut.front().from);
            low = std::min(low, share), high = std::max(high, share);
        }
        CHECK(nearest == Approx(0).margin(1e-6));
        CHECK(high - low < 1e-6);
        CHECK(c.deepest_mm > 1);
    }
    // No deeper than asked for.
    job.join.edge_mm = 6;
    plan = plan_job(job, docs);
    for (const CarvedLine& c : plan.join->carved) CHECK(c.deepest_mm <= 6 + 1e-9);
    CHECK(plan.join->rim.litres > 0);
    // A side that keeps its bark is not carved; where both do nothing is, and that is told.
    job.top.live = LiveEdges::left;
    CHECK(plan_job(job, docs).join->carved.size() == 1);
    job.top.live = LiveEdges::both;
    plan = plan_job(job, docs);
    CHECK(plan.join->carved.empty());
    CHECK(find_caution(plan.join->cautions, "join.carved_nothing"));
}

TEST_CASE("the rods of an open river are a card from the polish to the blocks out [T40]", "[join][rods][card][T40]") {
    const Documents docs = demo_shop();
    const Job& job = docs.jobs.at("job-open-river");
    const Plan plan = plan_job(job, docs);
    const auto steps = card_of("rods", job, plan, docs.shop);
    REQUIRE_FALSE(plan.join->rods.empty());
    std::vector<std::string> keys;
    for (const CardStep& s : steps) keys.push_back(s.key);
    const auto place = [&](const std::string& key) { return std::find(keys.begin(), keys.end(), key) - keys.begin(); };
    // Polished and finished before anything is drilled or glued; dry before it is glued.
    CHECK(place("polish") < place("drill 1"));
    CHECK(place("banks") < place("glue"));
    CHECK(place("dry run") < place("glue"));
    CHECK(place("glue") < place("slide"));
    CHECK(place("set") == static_cast<std::ptrdiff_t>(keys.size()) - 1);
    std::size_t drilled = 0;
    for (const std::string& key : keys) drilled += key.rfind("drill ", 0) == 0;
    CHECK(drilled == plan.join->rods.size());
    // Each place is told from the left end, in the top.
    for (const CardStep& step : steps)
        if (step.key.rfind("drill ", 0) == 0) {
            CHECK(step.says.value(1) > 0);
            CHECK(step.says.value(1) < job.top.length_mm);
        }
    // Rods from the left, each as long as its gap and both depths; every step's name is its own.
    for (std::size_t i = 0; i < plan.join->rods.size(); ++i) {
        CHECK(plan.join->rods[i].length_mm == Approx(plan.join->rods[i].gap_mm + 2 * job.makeup.rod_depth_mm));
        if (i > 0) CHECK(plan.join->rods[i].u_mm > plan.join->rods[i - 1].u_mm);
    }
    std::sort(keys.begin(), keys.end());
    CHECK(std::adjacent_find(keys.begin(), keys.end()) == keys.end());
    // What waits, waits for a step that is there.
    for (const CardStep& s : steps)
        if (!s.after.empty()) CHECK(std::binary_search(keys.begin(), keys.end(), s.after));
    // A glued top has no such card, and no glue-up's card is made of rods.
    CHECK(card_of("rods", docs.jobs.at("job-opened-pair"), plan_job(docs.jobs.at("job-opened-pair"), docs), docs.shop).empty());
    CHECK(card_of("glue", job, plan, docs.shop).empty());
}

TEST_CASE("bark is kept or drawn off, each with what it brings [T45]", "[join][edge][T45]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at("job-reading-table");
    const auto hours_of = [&](const char* key) {
        const Plan plan = plan_job(job, docs);
        for (const Operation& op : plan.days->operations)
            if (op.key == key) return op.hands_on_h;
        return 0.0;
    };
    Plan plan = plan_job(job, docs);
    // Both long edges as they run: no shorter than the top, no longer by a tenth.
    CHECK(plan.join->bark_mm > 2 * 2200);
    CHECK(plan.join->bark_mm < 2.2 * 2200);
    CHECK_FALSE(find_caution(plan.join->cautions, "join.bark"));
    CHECK(hours_of("bark") == Approx(plan.join->bark_mm / 1000 * bark_off_h_m));
    const auto choice =
        std::find_if(plan.join->choices.begin(), plan.join->choices.end(), [](const Choice& c) { return c.key == "join.bark"; });
    REQUIRE(choice != plan.join->choices.end());
    CHECK(choice->options.size() == 2);
    set_choice(job, "join.bark", "kept");
    plan = plan_job(job, docs);
    const Caution* c = find_caution(plan.join->cautions, "join.bark");
    REQUIRE(c);
    CHECK(render(c->says, Units::metric()).find("falls off") != std::string::npos);
    CHECK(hours_of("bark") == 0);
    // No live edge, no bark.
    job.top.live = LiveEdges::none;
    plan = plan_job(job, docs);
    CHECK(plan.join->bark_mm == 0);
    CHECK_FALSE(find_caution(plan.join->cautions, "join.bark"));
}

TEST_CASE("what is drilled into a live knot is told, a pocket across one is not [T21]", "[join][clash][T21]") {
    Plain f(EdgeShape::square, 3);
    f.job.under.plates = {{0, 0, 100, 400, 3, 1}};
    f.slab.flaws.push_back({"k", FlawKind::knot, Face::a, box(990, -10, 1010, 10), false, {}, 1, ""});
    const JoinPlan p = f.plan();
    const Caution* c = find_caution(p.cautions, "join.knot");
    REQUIRE(c);
    CHECK(c->severity == Severity::watch);
    CHECK(render(c->says, Units::metric()).find("insert of plate 1") != std::string::npos);
    // A dead one is a void and Fill's, and Under tells of holes in it.
    f.slab.flaws[0].depth_mm = 12;
    CHECK_FALSE(find_caution(f.plan().cautions, "join.knot"));
    f.slab.flaws[0].depth_mm.reset();
    f.job.under.plates.clear();
    f.job.under.channels = {{0, 60, 300, 40, 12, 3, 2}};
    CHECK_FALSE(find_caution(f.plan().cautions, "join.knot"));
}
