// Whole jobs as makers report them: hands, days and amounts of the plan lie within a factor of one and a half.
#include <catch2/catch.hpp>

#include "core/ground/fields/walk.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/skin_of.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/join/join.h"
#include "core/steps/skin/skin.h"
#include "demo/demo.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// A shop like the demo's, with a slab and a job on it.
struct Report {
    Documents d;
    Job job;
    Report(const Slab& slab, WantedTop top) {
        d.shop = demo_shop().shop;
        d.shop.paces.clear();
        d.slabs[slab.id] = slab;
        job = on(slab, top);
        job.id = "report";
        job.start = "2026-06-01";
    }
    Plan plan() {
        d.jobs[job.id] = job;
        return plan_job(job, d);
    }
};

/// Hours of hands over some operations, of everybody who has hands on them; all where none are named.
double hands_h(const Plan& p, std::initializer_list<const char*> keys = {}) {
    double h = 0;
    for (const Operation& o : p.days->operations) {
        const bool asked =
            keys.size() == 0 || std::any_of(keys.begin(), keys.end(), [&](const char* k) { return o.key == k || o.part_of == k; });
        if (asked) h += o.hands_on_h * (o.works() == Who::both ? 2 : 1);
    }
    return h;
}

std::string told(const Plan& p) {
    std::string out;
    for (const Operation& o : p.days->operations)
        out += o.key + " " + std::to_string(static_cast<int>(std::lround(o.hands_on_h * 60))) + " min, waits " +
               std::to_string(static_cast<int>(std::lround(o.waiting_h))) + " h\n";
    return out;
}

void about(double is, double low, double high) {
    CHECK(is >= low / 1.5);
    CHECK(is <= high * 1.5);
}

}  // namespace

TEST_CASE("a ready-flattened slab on bought steel legs: two hours of hands, about four days", "[truth][labour][days]") {
    WantedTop top;
    top.length_mm = 1270, top.width_mm = 430, top.thickness_mm = 30, top.live = LiveEdges::both;
    Report r(plank("flat", 1346, 430, 30.5, "hackberry"), top);
    r.job.join.bark_kept = true;
    r.job.flat.by = FlatBy::bought_flat;
    r.job.flat.rest_h = 0;
    r.job.under.plates = {{-450, 0, 120, 300, 8, 1}, {450, 0, 120, 300, 8, 1}};
    r.job.under.inserts = InsertKind::wood_screw;
    r.job.skin.finish = Finish::wiping, r.job.skin.coats = 5, r.job.skin.grits = {120, 180}, r.job.skin.raise_grain = false;
    r.job.skin.wait_h = 8;  // one in the morning, one in the evening
    r.job.days.collected = true;
    const Plan p = r.plan();
    INFO(told(p));
    REQUIRE(p.under->ready);
    about(hands_h(p), 2, 2);
    about(p.days->end_h / 24, 4, 4);
}

TEST_CASE("two leaves with loose tenons, glued alone: twelve minutes from the first glue to the last clamp", "[truth][labour][join]") {
    Documents d = demo_shop();
    Job job = d.jobs.at("job-opened-pair");
    job.join.helped = false, job.join.loose = Loose::tenons;
    const Plan p = plan_job(job, d);
    INFO(told(p));
    REQUIRE(p.join->joints.size() == 1);
    about(p.join->needed_min, 12, 12);
}

TEST_CASE("small voids of a slab: an evening for all of them, then a night", "[truth][labour][fill]") {
    WantedTop top;
    top.length_mm = 1800, top.width_mm = 700, top.thickness_mm = 40, top.live = LiveEdges::none;
    Slab slab = plank("holes", 2000, 760, 52, "hackberry");
    for (int i = 0; i < 12; ++i) {
        Flaw f;
        f.id = "f" + std::to_string(i), f.kind = i % 3 == 0 ? FlawKind::crack : FlawKind::void_;
        const double x = 250 + 120 * i, y = i % 2 ? 120 : -150, wide = i % 3 == 0 ? 2.5 : 9, lengthwise = i % 3 == 0 ? 60 : 12;
        f.outline = box(x, y, x + lengthwise, y + wide);
        f.depth_mm = 18;
        slab.flaws.push_back(f);
    }
    Report r(slab, top);
    const Plan p = r.plan();
    INFO(told(p));
    REQUIRE(p.fill->voids.size() == 12);
    CHECK(p.fill->rounds == 1);
    about(hands_h(p, {"fill"}), 1, 3);
    double wait = 0;
    for (const Operation& o : p.days->operations) wait += o.key == "fill" ? o.waiting_h : 0;
    about(wait, 10, 16);
}

TEST_CASE("a river of four metres: fourteen hours of sanding before the base, six by two after", "[truth][labour][skin]") {
    Documents d = demo_shop();
    Job job = d.jobs.at("job-tarn-river");
    const Plan p = plan_job(job, d);
    INFO(told(p));
    // Per square metre of both faces: 4.2 × 1.5 twice.
    const double faces_m2 = 2 * area(p.top->above) * 1e-6, reported = 2 * 4.2 * 1.5;
    about(hands_h(p, {"sand_rough"}) / faces_m2, 14 / reported, 15 / reported);
    about(hands_h(p, {"sand", "last_grit"}) / faces_m2, 12 / reported, 14 / reported);
}

TEST_CASE("base and top at the client's: an hour for two to bolt up and level", "[truth][labour][under]") {
    Documents d = demo_shop();
    d.shop.workday.helper = {{0, 8, 17}, {1, 8, 17}, {2, 8, 17}, {3, 8, 17}, {4, 8, 17}};
    const Plan p = plan_job(d.jobs.at("job-reading-table"), d);
    INFO(told(p));
    double together = 0;
    for (const Operation& o : p.days->operations) together += o.key == "assemble" || o.key == "set_up" ? o.hands_on_h : 0;
    about(together, 1, 1);
}

TEST_CASE("all rates times a factor move what they are of, and nothing else", "[labour][days]") {
    Documents d = demo_shop();
    d.shop.paces.clear();
    for (auto& [id, job] : d.jobs) {
        job.days.changes.clear(), job.days.own.clear();
        const Plan one = plan_job(job, d);
        Documents twice = d;
        for (const FieldLine& line : describe(walk_of(twice.shop.labour)))
            set_number(walk_of(twice.shop.labour), line.path, 2 * *number_at(walk_of(d.shop.labour), line.path).value);
        const Plan two = plan_job(job, twice);
        INFO(id);
        REQUIRE(one.days->operations.size() == two.days->operations.size());
        for (const Operation& o : one.days->operations) {
            const auto it =
                std::find_if(two.days->operations.begin(), two.days->operations.end(), [&](const Operation& t) { return t.key == o.key; });
            REQUIRE(it != two.days->operations.end());
            INFO(o.key << ": " << o.hands_on_h << " and " << it->hands_on_h);
            if (!o.task) {
                CHECK(it->hands_on_h == Approx(o.hands_on_h));
                continue;
            }
            // What other rooms know of – mixing, gluing, lanes, the sander, the brush – stays.
            double theirs = 0;
            for (const LabourTerm& t : o.task->terms())
                for (const char* known :
                     {"batch mixed", "batch degassed", "dry run", "glue-up", "lanes", "leaf held", "at the sander", "putting it on"})
                    if (std::string(t.what) == known) theirs += t.minutes() / 60;
            CHECK(it->hands_on_h == Approx(2 * o.hands_on_h - theirs).margin(1e-9));
        }
    }
}

TEST_CASE("every operation's hours are made of terms, and no row has a literal for them", "[labour][days]") {
    const Documents d = demo_shop();
    int seen = 0;
    for (const auto& [id, job] : d.jobs)
        for (const Plan p = plan_job(job, d); const Operation& o : p.days->operations) {
            INFO(id << " " << o.key);
            const bool typed = std::any_of(job.days.changes.begin(), job.days.changes.end(),
                                           [&](const OpChange& c) { return c.key == o.key && c.hands_h; });
            const bool own = std::any_of(job.days.own.begin(), job.days.own.end(), [&](const OwnOp& w) { return w.name == o.label; });
            if (o.hands_on_h <= 0 || own || typed || !o.task || o.lacks) continue;
            CHECK(o.hands_on_h == Approx(o.task->hours() * o.paced).margin(1e-9));
            ++seen;
        }
    CHECK(seen > 80);
}
