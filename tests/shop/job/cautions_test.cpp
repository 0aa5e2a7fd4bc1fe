// Cautions that no other test provokes: each is not there, comes by one change, and goes again by taking it back or by what it advises.
#include <catch2/catch.hpp>

#include <functional>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/join/join.h"
#include "core/steps/rack/rack.h"
#include "demo/demo.h"
#include "tests/small_shop.h"

using namespace yb;

namespace {

struct Case {
    const char* key;
    std::function<void(SmallShop&)> set;      ///< the bench before it
    std::function<void(SmallShop&)> provoke;  ///< what brings it
    std::function<void(SmallShop&)> lift;     ///< what it advises; nothing: the change is taken back
};

const std::vector<Case>& cases() {
    const auto none = [](SmallShop&) {};
    static const std::vector<Case> all{
        {"flat.rest",
         [](SmallShop& b) {
             b.j.flat.rest_h = 48;
             b.heights(5);
             b.slab().heights_a.gap_mm[1] = 12;
             b.j.top.length_mm = 2200;
         },
         [](SmallShop& b) { b.j.flat.rest_h = 0; }, [](SmallShop& b) { b.j.flat.rest_h = 48; }},
        {"flat.wrapped", [](SmallShop& b) { b.slab().moisture_pct = 18; }, [](SmallShop& b) { b.j.flat.rests = Rests::wrapped; },
         [](SmallShop& b) { b.j.flat.rests = Rests::to_air; }},
        {"flat.support_off", none,
         [](SmallShop& b) {
             b.j.leaves[0].supports = {{400, -100}, {400, 100}, {1800, -100}, {1800, 900}};
         },
         [](SmallShop& b) { b.j.leaves[0].supports.back().y_mm = 100; }},
        {"flat.needs", none,
         [](SmallShop& b) {
             b.j.under.plates = {{0, 0, 100, 300, 3, 1}};
             b.j.under.insert_mm = 36;
         },
         [](SmallShop& b) { b.j.under.insert_mm = 20; }},
        {"flat.hangs", none,
         [](SmallShop& b) {
             b.slab() = plank("a", 5200, 500, 28, "cherry, black");
             b.j.leaves[0].placement.x_mm = 2600;
             b.j.top.length_mm = 4600;
             b.j.top.thickness_mm = 22;
         },
         [](SmallShop& b) {
             b.j.leaves[0].supports.clear();
             for (double x = 300; x < 5200; x += 700)
                 for (const double y : {-150.0, 150.0}) b.j.leaves[0].supports.push_back({x, y});
         }},
        {"join.carved", none, [](SmallShop& b) { b.j.join.edge = EdgeShape::carved; },
         [](SmallShop& b) { b.j.join.edge = EdgeShape::round_over; }},
        {"join.close",
         [](SmallShop& b) {
             b.lay(MakeUp::book, 700);
             b.j.join.open_min = 60;
         },
         [](SmallShop& b) {
             b.says("join.close");
             b.j.join.open_min = 1;
             b.says("join.close");
             // Nine tenths of the open minutes are needed.
             b.j.join.open_min = b.last.join->needed_min / 0.9 / b.last.join->open_min;
         },
         [](SmallShop& b) { b.j.join.slow_glue = true; }},
        {"join.dry",
         [](SmallShop& b) {
             b.j.makeup.ripped = true, b.j.makeup.faces_flat = true;
             b.lay(MakeUp::book, 700);
             b.j.makeup.ripped = b.j.makeup.faces_flat = true;
         },
         [](SmallShop& b) { b.j.makeup.ripped = false; }, [](SmallShop& b) { b.j.makeup.ripped = true; }},
        {"join.edge", none,
         [](SmallShop& b) {
             b.j.join.edge = EdgeShape::chamfer;
             b.j.join.edge_mm = 25;
         },
         [](SmallShop& b) { b.j.join.edge_mm = 5; }},
        {"join.surface", none,
         [](SmallShop& b) {
             b.j.join.ties = {{0, 0, 0, 120, 50, 45, true}};
         },
         [](SmallShop& b) { b.j.join.ties[0].deep_mm = 15; }},
        {"lay.rip_after",
         [](SmallShop& b) {
             b.lay(MakeUp::book, 700);
             b.j.makeup.faces_flat = true;
         },
         [](SmallShop& b) { b.j.makeup.faces_flat = false; }, [](SmallShop& b) { b.j.makeup.faces_flat = true; }},
        {"lay.trade", none, [](SmallShop& b) { b.j.top.length_mm = 9000; }, [](SmallShop& b) { b.j.top.length_mm = 1200; }},
        {"lay.kickback",
         [](SmallShop& b) {
             b.lay(MakeUp::book, 700);
             b.j.makeup.faces_flat = b.j.makeup.ripped = true;
         },
         [](SmallShop& b) { b.j.makeup.ripped = false; }, [](SmallShop& b) { b.j.makeup.ripped = true; }},
        {"flat.dust", none, [](SmallShop& b) { b.slab().species = "oak, white"; }, [](SmallShop& b) { b.slab().species = "hackberry"; }},
        {"under.metal", none, [](SmallShop& b) { b.j.under.channels = {Channel()}; }, [](SmallShop& b) { b.j.under.channels.clear(); }},
        {"lay.bark", none, [](SmallShop& b) { b.j.top.live = LiveEdges::both; }, [](SmallShop& b) { b.j.top.live = LiveEdges::none; }},
        {"lay.soft", none, [](SmallShop& b) { b.flaw(FlawKind::soft, box(1000, -50, 1100, 50)); },
         [](SmallShop& b) { b.slab().flaws.clear(); }},
        {"lay.flaw", none, [](SmallShop& b) { b.flaw(FlawKind::knot, box(1000, -50, 1100, 50)); },
         [](SmallShop& b) { b.slab().flaws.clear(); }},
        {"lay.joint_flaw", [](SmallShop& b) { b.lay(MakeUp::book, 700); },
         [](SmallShop& b) {
             const Frame f = b.j.leaves[0].placement.frame();
             b.says("lay.joint_flaw");
             const JointStation s = b.last.makeup->joints.at(0).along.at(30);
             const Vec2 at = f.to_slab(Vec2{s.u, s.v});
             const std::string id = b.j.leaves[0].slab;
             b.flaw(FlawKind::void_, box(at.x - 40, at.y - 40, at.x + 40, at.y + 40), id.c_str());
         },
         [](SmallShop& b) {
             for (auto& [id, s] : b.d.slabs) s.flaws.clear();
         }},
        {"lay.patch_out", none,
         [](SmallShop& b) {
             b.j.makeup.patches = {{"p", box(850, -20, 950, 20), 6, "b", {500, 0}, 0}};
         },
         [](SmallShop& b) { b.j.makeup.patches[0].outline = box(700, -20, 800, 20); }},
        {"lay.patch_meets",
         [](SmallShop& b) {
             b.j.makeup.patches = {{"p", box(0, -20, 100, 20), 6, "b", {500, 0}, 0}};
         },
         [](SmallShop& b) {
             b.j.makeup.patches.push_back({"q", box(80, -20, 180, 20), 6, "b", {900, 0}, 0});
         },
         [](SmallShop& b) { b.j.makeup.patches[1].outline = box(200, -20, 300, 20); }},
        {"lay.patch_flaw",
         [](SmallShop& b) {
             b.j.makeup.patches = {{"p", box(0, -20, 100, 20), 6, "b", {500, 0}, 0}};
         },
         [](SmallShop& b) { b.flaw(FlawKind::knot, box(480, -15, 520, 15), "b"); },
         [](SmallShop& b) { b.j.makeup.patches[0].at.x = 1400; }},
        {"lay.bushings",
         [](SmallShop& b) {
             b.j.makeup.patches = {{"p", box(0, -20, 100, 20), 6, "b", {500, 0}, 0}};
         },
         [](SmallShop& b) { b.d.shop.bushings_mm = {30}; },
         [](SmallShop& b) {
             b.d.shop.bushings_mm = {30, 30 + 2 * b.j.makeup.cutter_mm};
         }},
        {"lay.rod_thick",
         [](SmallShop& b) {
             b.lay(MakeUp::open_river, 900);
             b.j.makeup.rod_mm = 12;
         },
         [](SmallShop& b) { b.j.makeup.rod_mm = 26; }, [](SmallShop& b) { b.j.makeup.rod_mm = 14; }},
        {"join.rods_move", [](SmallShop& b) { b.lay(MakeUp::book, 700); }, [](SmallShop& b) { b.lay(MakeUp::open_river, 900); },
         [](SmallShop& b) { b.lay(MakeUp::book, 700); }},
        {"lay.river_thin", [](SmallShop& b) { b.lay(MakeUp::river, 900); },
         [](SmallShop& b) {
             b.says("lay.river_thin");
             const double least = std::min(b.last.top->rivers[0].above.narrowest_mm, b.last.top->rivers[0].below.narrowest_mm);
             b.j.leaves[1].placement.y_mm += least - 4;  // drawn together to four millimetres
             b.says("lay.river_thin");
             if (b.last.top->rivers[0].above.narrowest_mm > 20) b.j.leaves[1].placement.y_mm -= 2 * (least - 4);
         },
         [](SmallShop& b) { b.lay(MakeUp::river, 900); }},
        {"lay.river_uneven", [](SmallShop& b) { b.lay(MakeUp::river, 900); },
         [](SmallShop& b) {
             b.j.leaves[1].placement.angle_deg += 4;
             b.j.makeup.river_mm = 100;
         },
         [](SmallShop& b) { b.lay(MakeUp::river, 900); }},
        {"pour.dam", [](SmallShop& b) { b.lay(MakeUp::book, 700); }, [](SmallShop& b) { b.lay(MakeUp::river, 900); },
         [](SmallShop& b) { b.lay(MakeUp::book, 700); }},
        {"pour.after", [](SmallShop& b) { b.lay(MakeUp::book, 700); }, [](SmallShop& b) { b.lay(MakeUp::river, 900); },
         [](SmallShop& b) { b.lay(MakeUp::book, 700); }},
        {"pour.near",
         [](SmallShop& b) {
             b.lay(MakeUp::river, 900);
             for (Month& m : b.d.shop.air.months) m = {14, 50};
         },
         [](SmallShop& b) {
             b.j.pour.lifts = 1;
             b.j.pour.peak_limit_c = 150;
             b.j.fill.overfill_mm = 9;
             for (Month& m : b.d.shop.air.months) m = {21, 50};
         },
         [](SmallShop& b) { b.j.pour.lifts = 3; }},
        {"rack.disagree", [](SmallShop& b) { b.heights(0); },
         [](SmallShop& b) {
             for (const double x : {600.0, 1200.0, 1800.0})
                 b.slab().tape.stations.insert(b.slab().tape.stations.end() - 1,
                                               Station{x, 250.0, 250.0, {}, {}, x == 1200 ? 66.0 : 50.0, {}});
         },
         [](SmallShop& b) { b.slab().tape.stations[2].thickness_mm = 50; }},
        {"lay.unmeasured", none,
         [](SmallShop& b) {
             for (Station& s : b.slab().tape.stations) s.left_mm.reset(), s.right_mm.reset();
         },
         [](SmallShop& b) {
             for (Station& s : b.slab().tape.stations) s.left_mm = s.right_mm = 250;
         }},
        {"rack.flaw_open", none,
         [](SmallShop& b) {
             b.flaw(FlawKind::crack, {{900, 0}, {1000, 0}});
         },
         [](SmallShop& b) { b.slab().flaws[0].outline = box(900, 0, 1000, 9); }},
        {"rack.flaw_crossing", none,
         [](SmallShop& b) {
             b.flaw(FlawKind::crack, {{900, 0}, {1000, 40}, {1000, 0}, {900, 40}});
         },
         [](SmallShop& b) { b.slab().flaws[0].outline = box(900, 0, 1000, 40); }},
        {"rack.heights_missing", [](SmallShop& b) { b.heights(0); },
         [](SmallShop& b) {
             b.slab().heights_a.gap_mm[4].reset();
             b.slab().heights_b.gap_mm[4].reset();
         },  // neither face tells the other's
         [](SmallShop& b) { b.slab().heights_a.gap_mm[4] = 5; }},
        {"under.density", none,
         [](SmallShop& b) {
             for (const Species& s : all_species())
                 if (!s.specific_gravity_12 && s.shrink_tangential_pct) b.slab().species = s.name;
         },
         [](SmallShop& b) { b.slab().species = "cherry, black"; }},
        {"under.falls",
         [](SmallShop& b) {
             b.j.under.plates = {{0, 0, 300, 300, 3, 1}};
         },
         [](SmallShop& b) {
             b.j.under.plates[0].u_mm = 600;
             b.j.under.base_kg = 1;
         },
         [](SmallShop& b) { b.j.under.plates[0].u_mm = 0; }},
        {"under.held",
         [](SmallShop& b) {
             b.j.under.channels = {{0, 0, 300, 40, 12, 3, 3}};
         },
         [](SmallShop& b) {
             b.j.under.channels[0] = {0, 0, 360, 80, 18, 8, 3};
             b.j.under.damper_pct = 12;
         },
         [](SmallShop& b) { b.j.under.damper_pct = 0; }},
        {"plan.endless", [](SmallShop& b) { b.flaw(FlawKind::void_, box(1000, -80, 1200, 80)).depth_mm = 40; },
         [](SmallShop& b) {
             for (Resin& r : b.d.shop.resins) r.gel_25_h = 500;
             for (Month& m : b.d.shop.air.months) m = {-40, 50};
         },
         [](SmallShop& b) {
             for (Month& m : b.d.shop.air.months) m = {20, 50};
         }},
        {"plan.many", none,
         [](SmallShop& b) {
             for (int i = 0; i < 400; ++i) b.j.join.ties.push_back({i * 3.0, 0, 0, 60, 20, 8, true});
         },
         [](SmallShop& b) { b.j.join.ties.resize(3); }},
    };
    return all;
}

}  // namespace

TEST_CASE("each caution comes by what it warns of, and goes by what it advises", "[cautions]") {
    for (const Case& c : cases()) {
        INFO(c.key);
        SmallShop b;
        c.set(b);
        CHECK_FALSE(b.says(c.key));
        c.provoke(b);
        const Caution* said = b.says(c.key);
        INFO("told: " << b.told());
        CHECK(said);
        if (said) CHECK_FALSE(render(*said, {}).empty());
        c.lift(b);
        CHECK_FALSE(b.says(c.key));
    }
}

TEST_CASE("router, spray and standing cautions stand at their step while it is worked there", "[cautions][T47][T48]") {
    SmallShop b;
    CHECK(b.says("flat.feed"));
    b.j.flat.by = FlatBy::bought_flat;
    CHECK(b.says("flat.feed") == nullptr);
}

TEST_CASE("curves tighter than asked for and tighter than the bushing goes", "[cautions][makeup]") {
    const Documents& d = demo_shop();
    Job j = d.jobs.at("job-seed-cabinet");
    const auto says = [&](const char* key) {
        const Plan p = plan_job(j, d);
        return find_caution(p.lay->cautions, key) != nullptr;
    };
    for (Joint& joint : j.makeup.joints) joint.curved = true;
    if (j.makeup.joints.empty()) j.makeup.joints = {{0, 0, true}, {0, 0, true}, {0, 0, true}};
    j.makeup.least_radius_mm = 20;
    CHECK_FALSE(says("lay.curve"));
    // A live edge a metre long does not run fair at a radius of twenty metres, however long it is smoothed.
    j.makeup.least_radius_mm = 20000;
    CHECK(says("lay.curve"));
    j.makeup.least_radius_mm = 20;
    CHECK_FALSE(says("lay.curve"));
}

TEST_CASE("what flattening says of no wood, a steep tilt, hold-downs and shims that rock", "[cautions][flat]") {
    SmallShop b;
    b.heights(0);
    CHECK_FALSE(b.says("flat.no_wood"));
    // Bowed by more than it is thick: wood everywhere, and none between two planes.
    HeightGrid& up = b.slab().heights_a;
    HeightGrid& down = b.slab().heights_b;
    for (std::size_t i = 0; i < up.x_mm.size(); ++i)
        for (std::size_t j = 0; j < up.y_mm.size(); ++j) {
            const double dip = 140 * (1 - std::pow((up.x_mm[i] - 1200) / 1200, 2));
            up.at(i, j) = 1 + dip;
            down.at(i, j) = 141 - dip;
        }
    CHECK(b.says("flat.no_wood"));
    b = SmallShop();
    b.heights(9);
    CHECK_FALSE(b.says("flat.steep"));
    CHECK_FALSE(b.says("flat.hold"));
    // Both faces climb across by 0.6 in 1: no slab lies so, the best tilt is where tilts end.
    for (const double slope : {0.6, 0.4}) {
        b.heights(0);
        for (HeightGrid* g : {&b.slab().heights_a, &b.slab().heights_b})
            for (std::size_t i = 0; i < g->x_mm.size(); ++i)
                for (std::size_t j = 0; j < g->y_mm.size(); ++j)
                    g->at(i, j) = 130 + (g == &b.slab().heights_a ? slope : -slope) * g->y_mm[j];
        INFO(b.told());
        CHECK((b.says("flat.steep") != nullptr) == (slope > 0.5));
    }
    b = SmallShop();
    b.heights(9);
    b.j.flat.held = HeldBy::hold_downs;
    const Caution* hold = b.says("flat.hold");
    INFO("told: " << b.told());
    REQUIRE(hold);
    CHECK(hold->severity == Severity::note);  // the plane runs well above the bench
    b.j.flat.held = HeldBy::hot_glue;
    CHECK_FALSE(b.says("flat.hold"));
    b = SmallShop();
    b.heights(9);
    *b.slab().heights_b.gap_mm.front() += 9;  // one corner stands off the bench
    b.j.leaves[0].supports = {{150, -180}, {150, 180}, {2250, -180}, {2250, 180}};
    CHECK_FALSE(b.says("flat.shims_rock"));
    b.d.shop.sled.shims_mm = {30};
    CHECK(b.says("flat.shims_rock"));
    b.d.shop.sled.shims_mm = Sled().shims_mm;
    CHECK_FALSE(b.says("flat.shims_rock"));
    // On three it never rocks, and lies askew.
    b.j.leaves[0].supports = {{150, -180}, {150, 180}, {2250, 0}};
    CHECK_FALSE(b.says("flat.shims_lose"));
    b.d.shop.sled.shims_mm = {30};
    CHECK(b.says("flat.shims_lose"));
    b.d.shop.sled.shims_mm = Sled().shims_mm;
    CHECK_FALSE(b.says("flat.shims_lose"));
}

TEST_CASE("a leaf that is not measured, an outline of one point, a shape nobody can make", "[cautions][lay][rack]") {
    SmallShop b;
    b.lay(MakeUp::book, 700);
    CHECK_FALSE(b.says("lay.unmeasured"));
    const Tape read = b.slab("b").tape;
    b.slab("b").tape.stations.clear();
    const Caution* c = b.says("lay.unmeasured");
    REQUIRE(c);
    CHECK(render(c->says, Units::metric()).rfind("b is not measured yet", 0) == 0);
    b.slab("b").tape = read;
    CHECK_FALSE(b.says("lay.unmeasured"));
    b = SmallShop();
    b.slab().outline = TracedOutline{{{0, 0}, {10, 0}}, {{0, 0}, {10, 0}}, 0, "traced"};
    REQUIRE(b.says("rack.outline"));
    CHECK(render(b.says("rack.outline")->says, Units::metric()).find("2 points on face A and 2 on face B") != std::string::npos);
    b.slab().outline = TracedOutline{box(0, 0, 900, 0), box(0, 0, 900, 0), 0, "traced"};
    CHECK(b.says("rack.outline"));
    b.slab().outline = TracedOutline{box(0, -250, 2400, 250), box(0, -250, 2400, 250), 0, "traced"};
    CHECK_FALSE(b.says("rack.outline"));
}

TEST_CASE("faces that were not neighbours, and a figure that drifts at the seam", "[cautions][lay]") {
    SmallShop b;
    b.slab("a").sequence = 1, b.slab("b").sequence = 2;
    b.lay(MakeUp::book, 700);
    const bool right = b.says("lay.not_parted") == nullptr;
    CHECK(right);
    b.slab("b").sequence = 4;  // two of them between
    const Caution* c = b.says("lay.not_parted");
    REQUIRE(c);
    CHECK(render(c->says, Units::metric()).find("were not neighbours") != std::string::npos);
    b.slab("b").sequence = 2;
    CHECK_FALSE(b.says("lay.not_parted"));
    CHECK_FALSE(b.says("lay.drifts"));
    // Far from the pith, rings lie flat at the seam and run far from face to face; near it they stand.
    b.j.makeup.mill_kerf_mm = 30;
    for (const char* id : {"a", "b"}) b.slab(id).pith_mm = 12;
    CHECK_FALSE(b.says("lay.drifts"));
    for (const char* id : {"a", "b"}) b.slab(id).pith_mm = 200;
    CHECK(b.says("lay.drifts"));
    for (const char* id : {"a", "b"}) b.slab(id).pith_mm = 12;
    CHECK_FALSE(b.says("lay.drifts"));
}
