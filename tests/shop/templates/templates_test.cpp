// Drawings 1:1: each one that is offered can be made of the demo, and holds what is cut, drilled and sawn where it belongs.
#include <set>

#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/templates/templates.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

std::vector<DrawnPath> drawn(const Documents& d, const char* job, const char* what) {
    const Job& j = d.jobs.at(job);
    const Plan plan = plan_job(j, d);
    return find_template(what)->draw({plan, &j, d.shop, 0});
}
std::vector<Ring> layer(const std::vector<DrawnPath>& paths, const std::string& name) {
    std::vector<Ring> out;
    for (const DrawnPath& p : paths)
        if (p.layer == name) out.push_back(p.points);
    return out;
}

}  // namespace

TEST_CASE("every drawing has a key of its own, goes out and comes back as DXF and SVG", "[templates]") {
    const Documents& d = demo_shop();
    std::set<std::string> keys;
    for (const TemplateRow& row : templates()) {
        INFO(row.key);
        CHECK(keys.insert(row.key).second);
        CHECK(find_template(row.key)->draw == row.draw);
        CHECK(std::string(row.nothing).back() == '.');
        bool any = false;
        for (const auto& [id, job] : d.jobs) {
            const Plan plan = plan_job(job, d);
            const auto paths = row.draw({plan, &job, d.shop, 0});
            if (paths.empty()) continue;
            any = true;
            const Drawing dxf = read_dxf(to_dxf(paths));
            const Drawing svg = read_svg(to_svg(paths, job.name));
            CHECK(dxf.paths.size() >= 1);
            CHECK(svg.paths.size() == paths.size());
            for (const DrawnPath& p : paths) {
                CHECK(p.points.size() >= 2);
                CHECK_FALSE(p.layer.empty());
            }
        }
        // The demo has neither patches nor bow ties, and nothing in it is held by clips.
        if (const std::string key = row.key; key != "patches" && key != "ties" && key != "fixing") CHECK(any);
    }
    CHECK(find_template("the moon") == std::nullopt);
}

TEST_CASE("the drilling is seen from below: what is left above is right there, each hole in its place", "[templates][under]") {
    const Documents& d = demo_shop();
    const Job& job = d.jobs.at("job-reading-table");
    const Plan plan = plan_job(job, d);
    const auto paths = drawn(d, "job-reading-table", "drilling");
    const auto holes = layer(paths, "drill");
    REQUIRE(holes.size() == plan.under->slots.size());
    for (std::size_t i = 0; i < holes.size(); ++i) {
        const Slot& s = plan.under->slots[i];
        const Box b = bounds(holes[i]);
        CHECK((b.low.x + b.high.x) / 2 == Approx(s.uv.x).margin(0.01));
        CHECK((b.low.y + b.high.y) / 2 == Approx(-s.uv.y).margin(0.01));
        CHECK(b.width() == Approx(s.made.drill_mm).epsilon(0.005));
    }
    const auto pockets = layer(paths, "pocket");
    REQUIRE(pockets.size() == job.under.channels.size());
    for (std::size_t i = 0; i < pockets.size(); ++i) CHECK(bounds(pockets[i]).height() == Approx(plan.under->pockets[i].length_mm));
    CHECK(area(layer(paths, "underside").at(0)) == Approx(area(plan.top->below)));
}

TEST_CASE("a plate's slots let every bolt go from its driest to its dampest place [T24]", "[templates][under][T24]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-reading-table");
    const Plan plan = plan_job(job, d);
    const auto paths = drawn(d, "job-reading-table", "plates");
    for (std::size_t k = 0; k < job.under.plates.size(); ++k) {
        const std::string part = "plate " + std::to_string(k + 1);
        const Ring rim = layer(paths, part).at(0);
        const auto openings = layer(paths, part + ", opening");
        std::vector<Slot> slots;
        for (const Slot& s : plan.under->slots)
            if (s.part == Part{"plate", k}) slots.push_back(s);
        REQUIRE(openings.size() == slots.size());
        const Vec2 middle = lerp(bounds(rim).low, bounds(rim).high, 0.5);
        for (std::size_t i = 0; i < slots.size(); ++i) {
            const Slot& s = slots[i];
            const Box b = bounds(openings[i]);
            CHECK(intersection_area(openings[i], rim) == Approx(area(openings[i])));
            if (s.round) {
                CHECK(b.height() == Approx(job.under.bolt_mm).epsilon(0.005));
                continue;
            }
            // As long as it is told, the way its leaf's grain asks for; from below that is turned over.
            double low = 1e300;
            double high = -1e300;
            for (const Vec2 q : openings[i])
                low = std::min(low, dot(q, Vec2{s.way.x, -s.way.y})), high = std::max(high, dot(q, Vec2{s.way.x, -s.way.y}));
            CHECK(high - low == Approx(s.length_mm).epsilon(1e-4));
            CHECK(b.width() == Approx(job.under.bolt_mm).epsilon(0.02));
            // The bolt, as it goes with the wood: from below it moves the other way round.
            const double day = middle.y - (s.uv.y - job.under.plates[k].v_mm);
            const double away = s.from_fixed_mm > 0 ? -1 : 1;
            const double r = job.under.bolt_mm / 2;
            for (const double at : {day + away * s.travel_out_mm, day - away * s.travel_in_mm}) {
                CHECK(at - r >= b.low.y - 1e-6);
                CHECK(at + r <= b.high.y + 1e-6);
            }
        }
    }
    // Oversize holes stand round the bolt.
    job.under.fixing = Fixing::oversize;
    for (const Ring& hole : layer(drawn(d, "job-reading-table", "plates"), "plate 1, opening"))
        CHECK(bounds(hole).width() == Approx(bounds(hole).height()).epsilon(0.005));
}

TEST_CASE("form and panels as the pour has them", "[templates][pour]") {
    const Documents& d = demo_shop();
    const Plan plan = plan_job(d.jobs.at("job-tarn-river"), d);
    const Form& f = plan.pour->form;
    const auto form = drawn(d, "job-tarn-river", "form");
    CHECK(area(layer(form, "form, bottom").at(0)) == Approx(f.inside_length_mm * f.inside_width_mm));
    CHECK(layer(form, "form, long side").size() == 2);
    for (const Ring& side : layer(form, "form, long side")) CHECK(intersection_area(side, layer(form, "form, bottom")[0]) < 1);
    CHECK(layer(form, "river").size() == 1);
    const auto panels = drawn(d, "job-tarn-river", "panels");
    CHECK(layer(panels, "panel").size() == f.sheets.size());
    double parts = 0;
    for (const DrawnPath& p : panels)
        if (p.layer != "panel") parts += area(p.points);
    double wanted = 0;
    for (const FormPart& p : f.parts) wanted += p.count * p.length_mm * p.width_mm;
    CHECK(parts == Approx(wanted));
    CHECK(drawn(d, "job-reading-table", "form").empty());
}

TEST_CASE("a bow tie's template guides the larger bushing round it", "[templates][join]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-reading-table");
    BowTie t;
    t.u_mm = 200;
    job.join.ties = {t};
    d.shop.bushings_mm = {18, 30};  // differ by twice a cutter of 6
    job.join.bit_mm = 6;
    const auto paths = drawn(d, "job-reading-table", "ties");
    REQUIRE(paths.size() == 2);
    CHECK(bounds(paths[1].points).width() == Approx(bounds(paths[0].points).width() + 30 - 6).margin(0.5));
    d.shop.bushings_mm = {18};
    CHECK(drawn(d, "job-reading-table", "ties").size() == 1);
}

TEST_CASE("a base's outline and a carved line are drawn as they are cut", "[templates][under][join]") {
    Documents d = demo_shop();
    Job& hall = d.jobs.at("job-hall-table");
    const auto base = drawn(d, "job-hall-table", "base");
    const Ring outline = layer(base, "base, outside").at(0);
    CHECK(outline.size() == hall.under.outline.size());
    for (const BaseCorner& c : hall.under.outline)
        CHECK(std::any_of(outline.begin(), outline.end(), [&](Vec2 q) { return length(q - Vec2{c.u_mm, c.v_mm}) < 1e-6; }));
    CHECK(base.size() == 1 + hall.under.outline.size());
    hall.join.edge = EdgeShape::square;
    CHECK(drawn(d, "job-hall-table", "carved").empty());
    hall.join.edge = EdgeShape::carved;
    hall.join.edge_mm = 30;
    const auto carved = drawn(d, "job-hall-table", "carved");
    CHECK(layer(carved, "carved, left").size() == 1);
    CHECK(layer(carved, "carved, right").size() == 1);
    CHECK(layer(carved, "top").size() == 1);
}
