// Every school of every step changes the figures that it should, and no others.
#include <cstdio>
#include <map>
#include <set>
#include <string>

#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/how_much.h"

using namespace yb;

namespace {

/// Everything a plan says in figures, and beside them its holes, what is let in, glue-up, lifts and operations.
std::map<std::string, std::string> figures_in(const Plan& p) {
    std::map<std::string, std::string> out;
    const auto number = [](double v) {
        char text[40];
        std::snprintf(text, sizeof text, "%.6g ", v);
        return std::string(text);
    };
    for (const StepRow& row : steps()) {
        if (!row.says(p)) continue;
        for (const Figure& f : row.says(p)->figures) {
            std::string& s = out[f.key];
            s += number(f.value.value);
            if (f.second) s += number(f.second->value);
        }
    }
    for (const Operation& o : p.days->operations) out["days.operations"] += o.key + " " + number(o.hands_on_h) + number(o.waiting_h);
    for (const Slot& s : p.under->slots)
        out["under.holes"] += number(s.uv.y) + number(s.length_mm) + number(s.made.opening_mm) + number(s.made.gap_mm) +
                              number(s.made.drill_mm) + number(s.made.stop_mm) + number(s.made.pull_n.value_or(0)) + number(s.floor_mm);
    for (const BasePart& b : p.under->base.parts) out["under.parts"] += number(b.length_mm) + number(b.width_mm) + b.name;
    for (const Shim& s : p.flat->shims) out["flat.shims"] += number(s.height_mm);
    for (const FacePlan& f : p.flat->faces)
        out["flat.faces"] += number(static_cast<double>(f.face)) + number(f.most_off_mm) + number(f.layers);
    for (const LetIn& l : p.join->let_in) out["join.let_in"] += l.what + number(l.low_mm) + number(l.high_mm) + number(area(l.at));
    for (const GlueStep& s : p.join->steps) out["join.steps"] += number(s.minutes);
    for (const GluedJoint& j : p.join->joints) out["join.joints"] += number(j.spring_n) + number(j.clamps) + number(j.pieces);
    out["join.across"] = number(static_cast<double>(p.join->across_u.size())) + number(static_cast<double>(p.join->cauls.size()));
    out["join.rim"] = number(p.join->rim.above_mm) + number(p.join->rim.litres) + number(static_cast<double>(p.join->carved.size()));
    for (const PourLift& l : p.pour->lifts) out["pour.each"] += number(l.depth_mm) + number(l.peak_c);
    out["pour.batch"] = number(static_cast<double>(p.pour->batches.size()));
    out["under.pct"] = number(p.under->low_pct) + number(p.under->high_pct) + number(p.under->lag_days) + number(p.under->fixed_v_mm);
    return out;
}

std::string family(const std::string& choice) {
    if (choice.rfind("fill.soak.", 0) == 0) return "fill.soak";
    if (choice.rfind("fill.", 0) == 0 && choice != "fill.river") return "fill.void";
    return choice;
}

/// What a school is for, and how far it may reach.
struct Reach {
    const char* choice;
    std::set<std::string> must;   ///< figures that change with it on some job of the demo
    std::set<std::string> rooms;  ///< steps whose figures may
};

const std::vector<Reach>& reaches() {
    const std::set<std::string> wood{"lay", "flat", "fill", "pour", "join", "under", "skin", "days"};  // the top itself is another
    static const std::vector<Reach> all{
        {"fill.river", {"pour.lifts", "pour.wait"}, {"pour", "fill", "under", "days"}},
        {"fill.soak", {"fill.soaks", "days.operations"}, {"fill", "days"}},
        {"fill.void", {"fill.mix", "fill.rounds", "under.mass"}, {"fill", "join", "pour", "under", "skin", "days"}},
        {"flat.aim", {"flat.faces", "flat.off"}, wood},
        {"flat.air", {"flat.settled"}, {"flat"}},
        {"flat.by", {"days.operations"}, {"flat", "skin", "days"}},
        {"flat.finish", {"flat.thickness", "under.leg", "under.mass"}, wood},
        {"flat.first", {"flat.faces"}, {"flat", "days"}},
        {"flat.held", {"days.operations"}, {"days"}},
        {"flat.lanes", {"flat.passes", "flat.hours"}, {"flat", "days"}},
        {"flat.tilts", {"flat.off"}, wood},
        {"join.across", {"join.across", "join.needed"}, {"join", "days"}},
        {"join.bark", {"days.operations"}, {"days"}},
        {"join.cauls", {"join.cauls"}, {"join"}},
        {"join.edge", {"join.rim"}, {"join", "days"}},
        {"join.faces", {"join.glue", "join.needed"}, {"join", "days"}},
        {"join.glue", {"join.needed"}, {"join"}},
        {"join.hands", {"join.needed"}, {"join", "days"}},
        {"join.loose", {"join.let_in", "join.needed"}, {"join", "days"}},
        {"join.spring", {"join.joints"}, {"join"}},
        {"join.stages", {"join.needed"}, {"join", "days"}},
        {"lay.live", {"lay.fit", "under.mass"}, wood},
        {"makeup.colours", {"pour.batches", "pour.each"}, {"pour", "days"}},
        {"makeup.ends", {"lay.ends"}, wood},
        {"makeup.faces",
         {"flat.faces"},
         {"rack", "lay", "flat", "fill", "pour", "join", "under", "skin", "days"}},  // the leaves may change places
        {"makeup.line", {"lay.rip"}, wood},
        {"pour.air", {"pour.peak"}, {"pour", "days"}},
        {"pour.degas", {"days.operations"}, {"pour", "days"}},
        {"skin.before", {"days.operations"}, {"skin", "days"}},
        {"skin.finish", {"skin.mix", "days.operations"}, {"skin", "days"}},
        {"skin.hands", {"skin.sanding"}, {"skin", "days"}},
        {"skin.raise", {"days.operations"}, {"skin", "days"}},
        {"skin.sides", {"days.operations"}, {"skin", "days"}},
        {"under.base", {"under.parts"}, {"under", "skin", "days"}},
        {"under.corners", {"under.parts"}, {"under", "skin", "days"}},
        {"under.covered", {"under.pct"}, {"under"}},
        {"under.fixed", {"under.holes", "under.pct"}, {"under"}},
        {"under.fixing", {"under.holes"}, {"under"}},
        {"under.inserts", {"under.holes", "days.operations"}, {"under", "days"}},
        {"under.let_in", {"under.leg", "join.let_in"}, {"under", "join", "skin", "days"}},
        {"under.parts", {"days.operations"}, {"skin", "days"}},
        {"under.sawn", {"under.travel", "under.holes"}, {"under", "skin", "days"}},
        {"under.waits", {"under.holes", "under.pct"}, {"under", "skin", "days"}},
    };
    return all;
}

/// Ways that say why they change nothing on the demo: its pieces are wider than the planer, and a trestle has no mitres.
const std::set<std::string> said_idle{"flat.by planer"};

std::string step_of(const std::string& figure) { return figure.substr(0, figure.find('.')); }

}  // namespace

TEST_CASE("every school of every step changes the plan, where it should and nowhere else", "[truth][schools]") {
    Documents d = demo_shop();
    // What takes longer moves what follows into another month's air: here all months are alike, so that a change is the school's own.
    for (Month& m : d.shop.air.months) m = d.shop.air.months[0];
    std::map<std::string, std::set<std::string>> changed;  // by choice: figures that changed on any job
    std::set<std::string> moves;                           // ways that changed something on some job
    std::map<std::string, std::set<std::string>> ways;     // all there are
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        for (const StepRow& row : steps())
            for (const Choice& c : p.said(row.step).choices)
                for (const Option& o : c.options) {
                    const std::string of = family(c.key);
                    if (c.key == "lay.makeup" || o.chosen) continue;
                    Job j = job;
                    set_choice(j, c.key, o.key, 0);
                    if (c.key == "makeup.ends" || c.key == "makeup.line" ||
                        c.key == "makeup.faces") {  // the leaves are laid anew with it, as the window does
                        std::vector<Slab> slabs;
                        for (const Leaf& l : j.leaves) slabs.push_back(d.slabs.at(l.slab));
                        if (!laid_together(j, j.makeup.kind, slabs).empty()) continue;
                    }
                    const auto before = figures_in(p);
                    const auto after = figures_in(plan_job(j, d));
                    std::set<std::string> here;
                    for (const auto& [key, value] : after)
                        if (const auto it = before.find(key); it == before.end() || it->second != value) here.insert(key);
                    for (const auto& [key, value] : before)
                        if (!after.count(key)) here.insert(key);
                    const std::string way = of == "fill.void" || of == "fill.river" ? of : of + " " + o.key;
                    ways[of].insert(way);
                    if (!here.empty()) moves.insert(way);
                    changed[of].insert(here.begin(), here.end());
                }
    }
    if (in_full())
        for (const auto& [of, keys] : changed) {
            std::printf("%s:", of.c_str());
            for (const std::string& k : keys) std::printf(" %s", k.c_str());
            for (const std::string& w : ways[of])
                if (!moves.count(w)) std::printf(" IDLE:%s", w.c_str());
            std::printf("\n");
        }
    for (const auto& [of, all] : ways)
        for (const std::string& way : all) {
            INFO(way << " changes nothing");
            CHECK((moves.count(way) == 0) == (said_idle.count(way) == 1));
        }
    std::set<std::string> listed;
    for (const Reach& r : reaches()) {
        listed.insert(r.choice);
        INFO(r.choice);
        REQUIRE(changed.count(r.choice) == 1);
        for (const std::string& key : r.must) {
            INFO("should change " << key);
            CHECK(changed[r.choice].count(key) == 1);
        }
        for (const std::string& key : changed[r.choice]) {
            INFO("changes " << key);
            CHECK(r.rooms.count(step_of(key)) == 1);
        }
    }
    for (const auto& [of, keys] : changed) {
        INFO(of << " is not in the list");
        CHECK(listed.count(of) == 1);
    }
}
