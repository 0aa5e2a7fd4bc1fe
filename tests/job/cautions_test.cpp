// Cautions that no other test provokes: each is not there, comes by one change, and goes again by taking it back or by what it advises.
#include <catch2/catch.hpp>

#include <functional>

#include "core/job/documents.h"
#include "core/join/join.h"
#include "core/rack/rack.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// Two planks of one tree in a shop, and jobs on them.
struct Bench {
    Documents d;
    Job j;
    Bench() {
        for (const char* id : {"a", "b"}) {
            d.slabs[id] = plank(id, 2400, 500, 50, "cherry, black");
            d.slabs[id].moisture_pct = 9, d.slabs[id].moisture_on = "2026-11-02";
        }
        j = on(d.slabs.at("a"), {1800, 400, 40, 740, LiveEdges::none, 0, TopShape::rectangle, {}});
        j.start = "2026-11-30";
    }
    Slab& slab(const char* id = "a") { return d.slabs.at(id); }
    void lay(MakeUp kind, double width) {
        j.top.width_mm = width;
        const std::string why = laid_together(j, kind, {d.slabs.at("a"), d.slabs.at("b")});
        INFO(why);
        REQUIRE(why.empty());
    }
    Flaw& flaw(FlawKind kind, Ring outline, const char* id = "a") {
        slab(id).flaws.push_back({"f" + std::to_string(slab(id).flaws.size()), kind, Face::a, std::move(outline), false, 10.0, 1, ""});
        return slab(id).flaws.back();
    }
    void heights(double step, const char* id = "a") {
        // Both faces read on a grid, flat, but for one corner of face A.
        HeightGrid g;
        for (double x = 100; x < 2400; x += 550) g.x_mm.push_back(x);
        g.y_mm = {-200, 0, 200};
        g.gap_mm.assign(g.x_mm.size() * g.y_mm.size(), 5.0);
        slab(id).heights_b = g;
        g.gap_mm.front() = 5.0 + step;
        slab(id).heights_a = g;
    }
    const Caution* says(const char* key) {
        d.jobs["job"] = j;
        last = plan_job(j, d);
        for (const StepRow& row : steps())
            if (row.says(last))
                if (const Caution* c = find_caution(row.says(last)->cautions, key)) return c;
        return nullptr;
    }
    Plan last;
};

struct Case {
    const char* key;
    std::function<void(Bench&)> set;      ///< the bench before it
    std::function<void(Bench&)> provoke;  ///< what brings it
    std::function<void(Bench&)> lift;     ///< what it advises; nothing: the change is taken back
};

const std::vector<Case>& cases() {
    const auto none = [](Bench&) {};
    static const std::vector<Case> all{
        {"flat.rest", [](Bench& b) { b.j.flat.rest_h = 48; b.heights(5); b.slab().heights_a.gap_mm[1] = 12; b.j.top.length_mm = 2200; },
         [](Bench& b) { b.j.flat.rest_h = 0; }, [](Bench& b) { b.j.flat.rest_h = 48; }},
        {"flat.support_off", none,
         [](Bench& b) { b.j.leaves[0].supports = {{400, -100}, {400, 100}, {1800, -100}, {1800, 900}}; },
         [](Bench& b) { b.j.leaves[0].supports.back().y_mm = 100; }},
        {"flat.needs", none, [](Bench& b) { b.j.under.plates = {{0, 0, 100, 300, 3, 1}}; b.j.under.insert_mm = 36; },
         [](Bench& b) { b.j.under.insert_mm = 20; }},
        {"flat.hangs", none,
         [](Bench& b) { b.slab() = plank("a", 5200, 500, 28, "cherry, black"); b.j.leaves[0].placement.x_mm = 2600; b.j.top.length_mm = 4600; b.j.top.thickness_mm = 22; },
         [](Bench& b) {
             b.j.leaves[0].supports.clear();
             for (double x = 300; x < 5200; x += 700)
                 for (const double y : {-150.0, 150.0}) b.j.leaves[0].supports.push_back({x, y});
         }},
        {"join.carved", none, [](Bench& b) { b.j.join.edge = EdgeShape::carved; }, [](Bench& b) { b.j.join.edge = EdgeShape::round_over; }},
        {"join.close", [](Bench& b) { b.lay(MakeUp::book, 700); b.j.join.open_min = 60; },
         [](Bench& b) {
             b.says("join.close");
             b.j.join.open_min = 1;
             b.says("join.close");
             // Nine tenths of the open minutes are needed.
             b.j.join.open_min = b.last.join->needed_min / 0.9 / b.last.join->open_min;
         },
         [](Bench& b) { b.j.join.slow_glue = true; }},
        {"join.dry", [](Bench& b) { b.j.makeup.ripped = true, b.j.makeup.faces_flat = true; b.lay(MakeUp::book, 700); b.j.makeup.ripped = b.j.makeup.faces_flat = true; },
         [](Bench& b) { b.j.makeup.ripped = false; }, [](Bench& b) { b.j.makeup.ripped = true; }},
        {"join.edge", none, [](Bench& b) { b.j.join.edge = EdgeShape::chamfer; b.j.join.edge_mm = 25; }, [](Bench& b) { b.j.join.edge_mm = 5; }},
        {"join.surface", none, [](Bench& b) { b.j.join.ties = {{0, 0, 0, 120, 50, 45, true}}; }, [](Bench& b) { b.j.join.ties[0].deep_mm = 15; }},
        {"lay.rip_after", [](Bench& b) { b.lay(MakeUp::book, 700); b.j.makeup.faces_flat = true; }, [](Bench& b) { b.j.makeup.faces_flat = false; },
         [](Bench& b) { b.j.makeup.faces_flat = true; }},
        {"lay.bark", none, [](Bench& b) { b.j.top.live = LiveEdges::both; }, [](Bench& b) { b.j.top.live = LiveEdges::none; }},
        {"lay.soft", none, [](Bench& b) { b.flaw(FlawKind::soft, box(1000, -50, 1100, 50)); }, [](Bench& b) { b.slab().flaws.clear(); }},
        {"lay.flaw", none, [](Bench& b) { b.flaw(FlawKind::knot, box(1000, -50, 1100, 50)); }, [](Bench& b) { b.slab().flaws.clear(); }},
        {"lay.joint_flaw", [](Bench& b) { b.lay(MakeUp::book, 700); },
         [](Bench& b) {
             const Frame f = b.j.leaves[0].placement.frame();
             b.says("lay.joint_flaw");
             const JointStation s = b.last.makeup->joints.at(0).along.at(30);
             const Vec2 at = f.to_slab(Vec2{s.u, s.v});
             const std::string id = b.j.leaves[0].slab;
             b.flaw(FlawKind::void_, box(at.x - 40, at.y - 40, at.x + 40, at.y + 40), id.c_str());
         },
         [](Bench& b) { for (auto& [id, s] : b.d.slabs) s.flaws.clear(); }},
        {"lay.patch_out", none, [](Bench& b) { b.j.makeup.patches = {{"p", box(850, -20, 950, 20), 6, "b", {500, 0}, 0}}; },
         [](Bench& b) { b.j.makeup.patches[0].outline = box(700, -20, 800, 20); }},
        {"lay.patch_meets", [](Bench& b) { b.j.makeup.patches = {{"p", box(0, -20, 100, 20), 6, "b", {500, 0}, 0}}; },
         [](Bench& b) { b.j.makeup.patches.push_back({"q", box(80, -20, 180, 20), 6, "b", {900, 0}, 0}); },
         [](Bench& b) { b.j.makeup.patches[1].outline = box(200, -20, 300, 20); }},
        {"lay.patch_flaw", [](Bench& b) { b.j.makeup.patches = {{"p", box(0, -20, 100, 20), 6, "b", {500, 0}, 0}}; },
         [](Bench& b) { b.flaw(FlawKind::knot, box(480, -15, 520, 15), "b"); }, [](Bench& b) { b.j.makeup.patches[0].at.x = 1400; }},
        {"lay.bushings", [](Bench& b) { b.j.makeup.patches = {{"p", box(0, -20, 100, 20), 6, "b", {500, 0}, 0}}; },
         [](Bench& b) { b.d.shop.bushings_mm = {30}; }, [](Bench& b) { b.d.shop.bushings_mm = {30, 30 + 2 * b.j.makeup.cutter_mm}; }},
        {"lay.rod_thick", [](Bench& b) { b.lay(MakeUp::open_river, 900); b.j.makeup.rod_mm = 12; }, [](Bench& b) { b.j.makeup.rod_mm = 26; },
         [](Bench& b) { b.j.makeup.rod_mm = 14; }},
        {"join.rods_move", [](Bench& b) { b.lay(MakeUp::book, 700); }, [](Bench& b) { b.lay(MakeUp::open_river, 900); },
         [](Bench& b) { b.lay(MakeUp::book, 700); }},
        {"lay.river_thin", [](Bench& b) { b.lay(MakeUp::river, 900); },
         [](Bench& b) {
             b.says("lay.river_thin");
             const double least = std::min(b.last.top->rivers[0].above.narrowest_mm, b.last.top->rivers[0].below.narrowest_mm);
             b.j.leaves[1].placement.y_mm += least - 4;  // drawn together to four millimetres
             b.says("lay.river_thin");
             if (b.last.top->rivers[0].above.narrowest_mm > 20) b.j.leaves[1].placement.y_mm -= 2 * (least - 4);
         },
         [](Bench& b) { b.lay(MakeUp::river, 900); }},
        {"lay.river_uneven", [](Bench& b) { b.lay(MakeUp::river, 900); },
         [](Bench& b) { b.j.leaves[1].placement.angle_deg += 4; b.j.makeup.river_mm = 100; }, [](Bench& b) { b.lay(MakeUp::river, 900); }},
        {"pour.dam", [](Bench& b) { b.lay(MakeUp::book, 700); }, [](Bench& b) { b.lay(MakeUp::river, 900); },
         [](Bench& b) { b.lay(MakeUp::book, 700); }},
        {"pour.after", [](Bench& b) { b.lay(MakeUp::book, 700); }, [](Bench& b) { b.lay(MakeUp::river, 900); },
         [](Bench& b) { b.lay(MakeUp::book, 700); }},
        {"pour.near", [](Bench& b) { b.lay(MakeUp::river, 900); for (Month& m : b.d.shop.air.months) m = {14, 50}; },
         [](Bench& b) { b.j.pour.lifts = 1; b.j.pour.peak_limit_c = 150; b.j.fill.overfill_mm = 9; for (Month& m : b.d.shop.air.months) m = {21, 50}; },
         [](Bench& b) { b.j.pour.lifts = 3; }},
        {"rack.disagree", [](Bench& b) { b.heights(0); },
         [](Bench& b) {
             for (const double x : {600.0, 1200.0, 1800.0})
                 b.slab().tape.stations.insert(b.slab().tape.stations.end() - 1, Station{x, 250.0, 250.0, {}, {}, x == 1200 ? 66.0 : 50.0, {}});
         },
         [](Bench& b) { b.slab().tape.stations[2].thickness_mm = 50; }},
        {"rack.edges", none, [](Bench& b) { for (Station& s : b.slab().tape.stations) s.left_mm.reset(), s.right_mm.reset(); },
         [](Bench& b) { for (Station& s : b.slab().tape.stations) s.left_mm = s.right_mm = 250; }},
        {"rack.flaw_open", none, [](Bench& b) { b.flaw(FlawKind::crack, {{900, 0}, {1000, 0}}); }, [](Bench& b) { b.slab().flaws[0].outline = box(900, 0, 1000, 9); }},
        {"rack.flaw_crossing", none, [](Bench& b) { b.flaw(FlawKind::crack, {{900, 0}, {1000, 40}, {1000, 0}, {900, 40}}); },
         [](Bench& b) { b.slab().flaws[0].outline = box(900, 0, 1000, 40); }},
        {"rack.heights_missing", [](Bench& b) { b.heights(0); },
         [](Bench& b) { b.slab().heights_a.gap_mm[4].reset(); b.slab().heights_a.gap_mm[7].reset(); },
         [](Bench& b) { b.slab().heights_a.gap_mm[4] = b.slab().heights_a.gap_mm[7] = 5; }},
        {"under.density", none, [](Bench& b) {
             for (const Species& s : all_species())
                 if (!s.specific_gravity_12 && s.shrink_tangential_pct) b.slab().species = s.name;
         }, [](Bench& b) { b.slab().species = "cherry, black"; }},
        {"under.falls", [](Bench& b) { b.j.under.plates = {{0, 0, 300, 300, 3, 1}}; },
         [](Bench& b) { b.j.under.plates[0].u_mm = 600; b.j.under.base_kg = 1; }, [](Bench& b) { b.j.under.plates[0].u_mm = 0; }},
        {"under.held", [](Bench& b) { b.j.under.channels = {{0, 0, 300, 40, 12, 3, 3}}; },
         [](Bench& b) { b.j.under.channels[0] = {0, 0, 360, 80, 18, 8, 3}; b.j.under.damper_pct = 12; }, [](Bench& b) { b.j.under.damper_pct = 1; }},
        {"plan.endless", none, [](Bench& b) { b.d.shop.sled.tools.machine_days = 1e9; b.j.flat.by = FlatBy::machine_shop; },
         [](Bench& b) { b.j.flat.by = FlatBy::sled; }},
        {"plan.many", none, [](Bench& b) { for (int i = 0; i < 400; ++i) b.j.join.ties.push_back({i * 3.0, 0, 0, 60, 20, 8, true}); },
         [](Bench& b) { b.j.join.ties.resize(3); }},
    };
    return all;
}

}  // namespace

TEST_CASE("each caution comes by what it warns of, and goes by what it advises", "[cautions]") {
    for (const Case& c : cases()) {
        INFO(c.key);
        Bench b;
        c.set(b);
        CHECK_FALSE(b.says(c.key));
        c.provoke(b);
        const Caution* said = b.says(c.key);
        CHECK(said);
        if (said) CHECK_FALSE(render(*said, {}).empty());
        c.lift(b);
        CHECK_FALSE(b.says(c.key));
    }
}

TEST_CASE("what is not known of a slab yet is a blank to fill, each by itself", "[cautions][rack]") {
    Bench b;
    const auto blank = [&](const char* key) {
        const auto all = look_over(b.slab(), shape_of(b.slab()));
        return std::any_of(all.begin(), all.end(), [&](const Caution& c) { return c.key == key; });
    };
    CHECK_FALSE(blank("look.moisture_date"));
    b.slab().moisture_on = "last week";
    CHECK(blank("look.moisture_date"));
    CHECK_FALSE(blank("look.thickness"));
    for (Station& s : b.slab().tape.stations) s.thickness_mm.reset();
    CHECK(blank("look.thickness"));
}

TEST_CASE("router, spray and standing cautions stand at their step while it is worked there", "[cautions][T47][T48]") {
    Bench b;
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
    j.makeup.least_radius_mm = 20000;
    CHECK((says("lay.curve") || !says("lay.curve_tight")));
    j.makeup.least_radius_mm = 20;
    CHECK_FALSE(says("lay.curve"));
}
