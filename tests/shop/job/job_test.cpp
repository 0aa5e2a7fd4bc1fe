#include <array>

#include <catch2/catch.hpp>

#include "core/files/io/csv.h"
#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/ground/calendar/workclock.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {
Plan plan_of(const Documents& d, const char* id) { return plan_job(d.jobs.at(id), d); }
}  // namespace

TEST_CASE("the demo job shows a caution of each severity", "[job]") {
    const Plan p = plan_of(demo_shop(), "job-reading-table");
    std::array<int, 3> seen{};
    for (const Caution& c : p.sheets.cautions) ++seen[static_cast<std::size_t>(c.severity)];
    CHECK(seen[0] > 0);
    CHECK(seen[1] > 0);
    CHECK(seen[2] > 0);
    CHECK(p.sheets.cautions.front().severity == Severity::stop);
}

TEST_CASE("every figure shows its working", "[job]") {
    const Documents d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_of(d, id.c_str());
        for (const auto* list : {&p.rack.figures, &p.lay->figures, &p.flat->figures, &p.fill->figures, &p.under->figures})
            for (const Figure& f : *list) {
                INFO(f.key);
                CHECK_FALSE(f.working.formula.empty());
                CHECK_FALSE(f.label.empty());
            }
    }
}

TEST_CASE("voids: volumes by hand", "[fill]") {
    CHECK(void_litres(10000, 50, 1, 0, 50) == Approx(0.5));
    // A cone: a third of mouth times depth.
    CHECK(void_litres(10000, 30, 0, 0, 30) == Approx(0.1));
    // Its lower half holds an eighth.
    CHECK(void_litres(10000, 30, 0, 15, 30) == Approx(0.1 / 8));
    CHECK(void_litres(10000, 30, 0.5, 20, 10) == 0);
}

TEST_CASE("gel times follow Arrhenius and the classes advise as makers do", "[fill]") {
    const Resin& slow = starting_resins().front();
    CHECK(gel_hours(slow, 25) == Approx(40));
    // exp(55000/8.314462618 · (1/288.15 − 1/298.15)) = 2.1596
    CHECK(gel_hours(slow, 15) == Approx(40 * 2.1596).epsilon(1e-3));
    CHECK(advised_resin(45, 60, false) == "slow-deep");
    CHECK(advised_resin(45, 5, true) == "medium");
    CHECK(advised_resin(10, 30, false) == "medium");
    CHECK(advised_resin(2, 30, false) == "quick");
}

TEST_CASE("lifts obey the label and parts add up", "[fill]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    set_choice(j, "fill.void-1", "medium");
    const Plan p = plan_of(d, "job-reading-table");
    for (const VoidPlan& v : p.fill->voids) {
        double sum = 0;
        for (const Lift& l : v.lifts) {
            CHECK(l.a_l + l.b_l == Approx(l.volume_l));
            sum += l.volume_l;
        }
        if (!v.lifts.empty()) CHECK(sum >= v.volume_l * 1.1 - 1e-9);
    }
    const auto& medium = p.fill->voids.at(1);
    CHECK(medium.resin == "medium");
    CHECK(medium.lifts.size() == 4);  // 48 mm in lifts of 13 at most
    set_choice(j, "fill.void-1", "open");
    CHECK(plan_of(d, "job-reading-table").fill->open_l > 0.2);
    const std::vector<Caution> before = plan_of(demo_shop(), "job-reading-table").fill->cautions;
    const Caution* leak = find_caution(before, "fill.leak");
    REQUIRE(leak);
    CHECK(leak->severity == Severity::stop);
}

TEST_CASE("slots grow with the distance from the fixed line", "[under]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    d.slabs.at(j.first().slab).pith_mm.reset();
    const Plan p = plan_of(d, "job-reading-table");
    REQUIRE(p.under->slots.size() == 12);
    const double s = *find_species("sycamore, American")->shrink_tangential_pct;
    for (const Slot& slot : p.under->slots) {
        const double dist = std::abs(slot.uv.y);
        const double out = dist * (p.under->high_pct - p.under->day_pct) / (3000 / s - 30 + p.under->day_pct);
        const double in = dist * (p.under->day_pct - p.under->low_pct) / (3000 / s - 30 + p.under->day_pct);
        CHECK(slot.travel_out_mm == Approx(out).margin(1e-9));
        CHECK(slot.travel_in_mm == Approx(in).margin(1e-9));
        if (slot.round) continue;
        CHECK(slot.length_mm >= 8 + 1 + in + out - 1e-9);
        CHECK(slot.length_mm < 8 + 1 + in + out + 0.5);
        CHECK(slot.bolt_from_inner_mm == Approx(4 + 0.5 + in));
    }
    CHECK(p.under->leg_mm == Approx(740 - 48 - 5 - 6));
    set_choice(j, "under.let_in", "in");
    CHECK(plan_of(d, "job-reading-table").under->leg_mm == Approx(740 - 48 - 5));
    set_choice(j, "under.fixed", "left");
    double longest = 0;
    const Plan left = plan_of(d, "job-reading-table");
    for (const Slot& slot : left.under->slots) longest = std::max(longest, slot.length_mm);
    CHECK(longest > p.under->slots.front().length_mm);
}

TEST_CASE("clashes, edges and depth underneath are caught", "[under]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-reading-table");
    j.under.channels[0].u_mm = j.under.plates[0].u_mm;
    CHECK(find_caution(plan_of(d, "job-reading-table").under->cautions, "under.clash"));
    j.under.plates[0].v_mm = 400;
    CHECK(find_caution(plan_of(d, "job-reading-table").under->cautions, "under.outside"));
    j.under.insert_mm = 46;
    REQUIRE(find_caution(plan_of(d, "job-reading-table").under->cautions, "under.through"));
    CHECK(find_caution(plan_of(d, "job-reading-table").under->cautions, "under.through")->severity == Severity::stop);
    j.under.day_moisture_pct = 18;
    CHECK(find_caution(plan_of(d, "job-reading-table").under->cautions, "under.wet"));
    d.slabs.at(j.first().slab).species = "driftwood";
    CHECK(find_caution(plan_of(d, "job-reading-table").under->cautions, "under.species"));
}

TEST_CASE("a channel section by hand", "[under]") {
    // 40 × 12 × 3: walls 2·3·12 = 72 mm² at 6, web 34·3 = 102 mm² at 1.5; axis at 3.362 mm.
    const double y = (72 * 6.0 + 102 * 1.5) / 174;
    const double i = 2 * 3 * 12 * 12 * 12 / 12.0 + 72 * (6 - y) * (6 - y) + 34 * 27 / 12.0 + 102 * (y - 1.5) * (y - 1.5);
    CHECK(channel_inertia(40, 12, 3) == Approx(i));
}

TEST_CASE("the weight of a plain top by hand", "[under]") {
    Slab s;
    s.id = "s";
    s.species = "butternut";
    s.moisture_pct = 8;
    for (const double x : {0.0, 2000.0}) s.tape.stations.push_back({x, 300, 300, {}, {}, 50, {}});
    Job j;
    j.top = {1500, 500, 40, 740, LiveEdges::none, 0};
    j.first().placement = {1000, 0, 0, false, 0};
    const Plan p = plan_job(j, s, Shop());
    CHECK(p.under->top_kg == Approx(1.5 * 0.5 * 0.04 * 1000 * 0.38 * 1.08));
}

TEST_CASE("work falls into working hours", "[days]") {
    const Workday w;
    // 2026-11-27 is a Friday.
    CHECK(WorkClock("2026-11-27", w).next(3) == 8);
    CHECK(WorkClock("2026-11-27", w).next(18) == 3 * 24 + 8);
    CHECK(WorkClock("2026-11-27", w).after(15, 4) == 3 * 24 + 10);
    CHECK(date_after("2026-12-30", 50) == "2027-01-01");
    CHECK_FALSE(is_date("2026-02-30"));
    CHECK_THROWS_AS(date_after("soon", 1), std::invalid_argument);
    const DaysPlan days = *plan_of(demo_shop(), "job-reading-table").days;
    double free = 0;  // there is one top: what is done on it follows one another
    for (const Operation& o : days.operations) {
        if (o.aside) continue;
        CHECK(o.start_h >= free);
        free = o.end_h;
    }
}

TEST_CASE("turning over and end for end come back", "[job]") {
    Job j = demo_shop().jobs.at("job-landing-bench");
    const Job before = j;
    turn_over(j);
    CHECK(j.top.live == LiveEdges::right);
    turn_over(j);
    CHECK(j == before);
    end_for_end(j);
    end_for_end(j);
    CHECK(j == before);
    CHECK_THROWS_AS(set_choice(j, "lay.live", "some"), std::invalid_argument);
}

TEST_CASE("jobs go out as JSON and come back the same", "[io]") {
    const Documents d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        std::vector<Slab> slabs;
        for (const Leaf& l : job.leaves) slabs.push_back(d.slabs.at(l.slab));
        const JobFile f = read_job_file(write_job_file({job, slabs, {}, d.shop}));
        CHECK(f.job == job);
        CHECK(f.slabs == slabs);
        CHECK(f.shop == d.shop);
    }
}

TEST_CASE("a wrong file says where and what", "[io]") {
    const auto message = [](const std::string& text) -> std::string {
        try {
            read_job_file(text);
        } catch (const FormatError& e) {
            return e.what();
        }
        return "";
    };
    const Documents d = demo_shop();
    const Job& job = d.jobs.begin()->second;
    std::string good = write_job_file({job, {d.slabs.at(job.first().slab)}, {}, d.shop});
    CHECK(message(good.substr(0, good.size() / 2)).find("cut short") != std::string::npos);
    CHECK(message("{}").find("not a job file") != std::string::npos);
    CHECK(message("{\n \"format\": nope }").find("line 2") != std::string::npos);
    Json j = parse_json(good);
    j["slabs"][0]["tape"]["stations"][1]["left_mm"] = "wide";
    CHECK(message(j.dump()).find("slabs[0].tape.stations[1].left_mm") != std::string::npos);
    j = parse_json(good);
    j["job"]["top"]["live"] = "most";
    CHECK(message(j.dump()).find("one of: both, left, right, none") != std::string::npos);
    j = parse_json(good);
    j["job"].erase("id");
    CHECK(message(j.dump()).find("‘id’ is missing") != std::string::npos);
    j = parse_json(good);
    j["slabs"][0]["heights_a"]["gap_mm"].erase(0);
    CHECK(message(j.dump()).find("gap_mm") != std::string::npos);
}

TEST_CASE("readings as CSV", "[io]") {
    const Readings r = read_readings("# by hand\nface,x_mm,y_mm,z_mm\ntop,0,0,50.5\r\nbottom, 1 ,2,-3e-1\n");
    REQUIRE(r.top.size() == 1);
    CHECK(r.bottom.at(0).z == -0.3);
    const auto wrong = [](const char* text) -> std::string {
        try {
            read_readings(text);
        } catch (const FormatError& e) {
            return e.what();
        }
        return "";
    };
    CHECK(wrong("face,x_mm,y_mm,z_mm\nside,0,0,1\n").find("line 2: the face is ‘side’") == 0);
    CHECK(wrong("face,x_mm,y_mm,z_mm\ntop,0,zero,1\n").find("‘zero’ is not a number") != std::string::npos);
    CHECK(wrong("face,x_mm,y_mm,z_mm\ntop,0\n").find("cut short") != std::string::npos);
    CHECK(wrong("x,y,z\n").find("one column ‘face’") != std::string::npos);
    CHECK(wrong("").find("no header") != std::string::npos);
    const auto t = split_table("1,5\t2\n\n3\t\n");
    REQUIRE(t.size() == 2);
    CHECK(t[0][0] == "1,5");
    CHECK(t[1] == std::vector<std::string>{"3", ""});
}

TEST_CASE("a job of several leaves survives its file, and a version 1 file is still read", "[job][json]") {
    const Documents d = demo_shop();
    for (const char* id : {"job-seed-cabinet", "job-tarn-river", "job-open-river", "job-round-hall"}) {
        Job job = d.jobs.at(id);
        job.makeup.patches.push_back({"patch-1", {{0, 0}, {50, 0}, {50, 30}}, 7.5, "slab-x", {120, -30}, 15});
        job.makeup.halves_u_mm = -120;
        job.leaves.back().supports = {{100, 20}, {900, -20}};
        job.leaves.back().voids = {{"flaw-1", "medium", false}};
        JobFile file{job, {}, {{"key/a", "aGVsbG8="}}, d.shop};
        for (const Leaf& l : job.leaves) file.slabs.push_back(d.slabs.at(l.slab));
        const JobFile back = read_job_file(write_job_file(file));
        CHECK(back.job == job);
        CHECK(back.slabs == file.slabs);
        CHECK(back.pictures == file.pictures);
    }
    const Job& job = d.jobs.at("job-hall-table");
    Json old = parse_json(write_job_file({job, {d.slabs.at(job.first().slab)}, {}, d.shop}));
    old["version"] = 1;
    old["slab"] = old["slabs"][0];
    old.erase("slabs");
    Json& j = old["job"];
    j["slab"] = j["leaves"][0]["slab"];
    j["placement"] = j["leaves"][0]["placement"];
    j["flat"]["supports"] = Json::array({{{"x_mm", 300}, {"y_mm", 10}}});
    j["fill"]["voids"] = Json::array({{{"flaw_id", "soft-1"}, {"resin", "slow-deep"}}});
    j.erase("leaves");
    j.erase("v");  // it did not say so then
    const JobFile back = read_job_file(old.dump());
    CHECK(back.job.first().slab == job.first().slab);
    CHECK(back.job.first().placement == job.first().placement);
    CHECK(back.job.first().supports.size() == 1);
    CHECK(back.job.first().voids.at(0).resin == "slow-deep");
}

TEST_CASE("while a leaf is dragged its step is planned as at rest – later steps stand still", "[job]") {
    const Documents d = demo_shop();
    for (const char* id : {"job-seed-cabinet", "job-tarn-river", "job-reading-table"}) {
        INFO(id);
        Job j = d.jobs.at(id);
        JobSlabs slabs;
        for (const Leaf& l : j.leaves) slabs.leaves.push_back(prepare(d.slabs.at(l.slab), l.placement.turned_over));
        const Plan before = plan_job(j, slabs, d.shop);
        j.leaves.back().placement.x_mm += 23;
        j.leaves.back().placement.angle_deg += 0.2;
        const Plan full = plan_job(j, slabs, d.shop);
        const Plan dragged = plan_job(j, slabs, d.shop, {whole_top, step_key::lay, &before});
        REQUIRE(dragged.lay->figures.size() == full.lay->figures.size());
        for (std::size_t i = 0; i < full.lay->figures.size(); ++i) {
            CHECK(dragged.lay->figures[i].key == full.lay->figures[i].key);
            CHECK(dragged.lay->figures[i].value.value == full.lay->figures[i].value.value);
        }
        CHECK(dragged.lay->outline == full.lay->outline);
        CHECK(dragged.flat->thickness_mm == full.flat->thickness_mm);
        CHECK(dragged.lay->cautions.size() == full.lay->cautions.size());
        REQUIRE(dragged.makeup->leaves.size() == full.makeup->leaves.size());
        for (std::size_t i = 0; i < full.makeup->leaves.size(); ++i) CHECK(dragged.makeup->leaves[i].part == full.makeup->leaves[i].part);
        CHECK(dragged.under->top_kg == before.under->top_kg);
        CHECK(dragged.days->ready == before.days->ready);
        // Dragged in Under, all of it is planned.
        const Plan under = plan_job(j, slabs, d.shop, {whole_top, step_key::under, &before});
        CHECK(under.under->top_kg == full.under->top_kg);
        CHECK(under.fill->volume_l == full.fill->volume_l);
    }
}

TEST_CASE("a river alone is told of a shop that is too cold or too warm to pour in", "[job][T4]") {
    Documents d = demo_shop();
    Job& j = d.jobs.at("job-tarn-river");
    for (auto& [id, s] : d.slabs) s.flaws.clear();  // no void that would say it
    for (const auto& [temp, key] : {std::pair(12.0, "fill.cold"), std::pair(29.0, "pour.air")}) {
        for (Month& m : d.shop.air.months) m.temp_c = temp;
        const Plan p = plan_job(j, d);
        REQUIRE(p.fill->voids.empty());
        REQUIRE_FALSE(p.pour->compartments.empty());
        INFO(key);
        REQUIRE(find_caution(p.pour->cautions, key));
        CHECK(find_caution(p.pour->cautions, key)->says.value(0) == temp);
        CHECK(find_caution(p.pour->cautions, "pour.safe"));
    }
    for (Month& m : d.shop.air.months) m.temp_c = 20;
    const Plan p = plan_job(j, d);
    CHECK_FALSE(find_caution(p.pour->cautions, "fill.cold"));
    CHECK_FALSE(find_caution(p.pour->cautions, "pour.air"));
}
