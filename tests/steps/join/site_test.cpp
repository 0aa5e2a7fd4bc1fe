// Cauls against the edge they are sawn for, halves that are joined on site, rods, spring joints, clamps by stages.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/things.h"
#include "core/steps/join/join.h"
#include "core/steps/top/top.h"
#include "demo/demo.h"
#include "tests/demo_job.h"
#include "tests/everything.h"

using namespace yb;

namespace {

/// The outermost of both faces at a station.
double edge_at(const Top& top, double u, bool left) {
    double v = -1e300;
    for (const Ring* r : {&top.above, &top.below})
        for (const Span1 s : cut_at_x(*r, u)) v = std::max(v, left ? s.to : -s.from);
    return left ? v : -v;
}

}  // namespace

TEST_CASE("a caul fits its edge to two tenths, is thick enough behind it and cuts into nothing [T20]", "[join][cauls][T20]") {
    for (const char* id : {"job-seed-cabinet", "job-opened-pair", "job-drawing-table"}) {
        INFO(id);
        DemoJob f("job-seed-cabinet");
        f.id = id;
        const Plan plan = f.plan();
        const Top& top = *plan.top;
        const auto& cauls = plan.join->cauls;
        REQUIRE_FALSE(cauls.empty());
        for (const Caul& c : cauls) {
            CHECK(c.length_mm <= 900 + 1e-6);
            const Box b = bounds(c.shape);
            CHECK(b.width() == Approx(c.length_mm));
            CHECK(b.height() == Approx(c.wide_mm));
            // It takes nothing of either face: less than a tenth of a millimetre all along.
            CHECK(intersection_area(c.shape, top.above) < 0.1 * c.length_mm);
            CHECK(intersection_area(c.shape, top.below) < 0.1 * c.length_mm);
            // And stands off the outermost of both by no more than two tenths, anywhere.
            double worst = 0;
            double thinnest = 1e300;
            for (int i = 1; i < 400; ++i) {
                const double u = b.low.x + b.width() * i / 400;
                const auto cut = cut_at_x(c.shape, u);
                REQUIRE(cut.size() == 1);
                const double inner = c.left ? cut[0].from : cut[0].to;
                worst = std::max(worst, std::abs(inner - edge_at(top, u, c.left)));
                thinnest = std::min(thinnest, cut[0].to - cut[0].from);
            }
            CHECK(worst < 0.2);
            CHECK(thinnest >= f.job().join.caul_mm - 1e-6);
        }
        // End to end they reach along the whole edge.
        double left = 0;
        for (const Caul& c : cauls) left += c.left ? c.length_mm : 0;
        CHECK(left >= 0.99 * bounds(top.above).width());
    }
    DemoJob bare("job-seed-cabinet");
    bare.job().join.cauls = false;
    CHECK(bare.plan().join->cauls.empty());
    bare.job().join.cauls = true;
    bare.job().top.live = LiveEdges::none;
    CHECK(bare.plan().join->cauls.empty());
    CHECK_THROWS_AS(cauls_for(*bare.plan().top, 0), std::invalid_argument);
}

TEST_CASE("halves weigh what the top weighs, connectors sit evenly across, tenons between [T33]", "[join][halves][T33]") {
    DemoJob f("job-seed-cabinet");
    CHECK_FALSE(f.plan().join->halves);
    f.job().makeup.halves_u_mm = 0;
    f.job().join.connectors = 4;
    const Plan plan = f.plan();
    REQUIRE(plan.join->halves);
    const Halves& h = *plan.join->halves;
    CHECK(h.left_kg + h.right_kg == Approx(plan.top->mass_kg).epsilon(0.01));
    CHECK(h.left_kg > 0.3 * plan.top->mass_kg);
    REQUIRE(h.connectors.size() == 4);
    CHECK(h.tenons.size() == 3);
    for (std::size_t i = 1; i < 4; ++i) CHECK(h.connectors[i].y - h.connectors[i - 1].y == Approx(h.connectors[1].y - h.connectors[0].y));
    CHECK(h.not_in_wood.empty());
    CHECK(find_caution(plan.join->cautions, "join.halves"));
    // Their recesses are among what is let in, and so are clashed.
    CHECK(std::count_if(plan.join->let_in.begin(), plan.join->let_in.end(),
                        [](const LetIn& l) { return l.what.rfind("connector", 0) == 0; }) == 4);
    // Nearer to one end the halves differ by what lies between.
    f.job().makeup.halves_u_mm = -400;
    const Halves other = *f.plan().join->halves;
    CHECK(other.left_kg < h.left_kg);
    f.job().makeup.halves_u_mm = 9000;  // past the end: no cut, no halves
    CHECK_FALSE(f.plan().join->halves);
    // In a river nothing holds one.
    DemoJob river("job-seed-cabinet");
    river.id = "job-tarn-river";
    river.job().makeup.halves_u_mm = 100;
    river.job().join.connectors = 1;
    const Plan poured = river.plan();
    REQUIRE(poured.join->halves);
    CHECK(poured.join->halves->not_in_wood.size() == 1);
    CHECK(find_caution(poured.join->cautions, "join.connector")->severity == Severity::stop);
}

TEST_CASE("rods are told with their lengths and their order – they are polished before they go in [T40]", "[join][rods][T40]") {
    DemoJob f("job-seed-cabinet");
    f.id = "job-open-river";
    const Plan plan = f.plan();
    const Figure& rods = figure(plan.join->figures, "join.rods");
    std::size_t n = 0;
    double longest = 0;
    for (const RiverRun& r : plan.top->rivers)
        for (const Rod& rod : r.rods) {
            n += 1, longest = std::max(longest, rod.length_mm);
            CHECK(rod.length_mm == Approx(rod.gap_mm + 2 * f.job().makeup.rod_depth_mm));
        }
    CHECK(rods.value.value == static_cast<double>(n));
    CHECK(rods.second->value == longest);
    const Caution* order = find_caution(plan.join->cautions, "join.rods");
    REQUIRE(order);
    CHECK(render(order->says, Units::metric()).find("polish the rods before they go in") != std::string::npos);
    CHECK_FALSE(find_caution(DemoJob("job-seed-cabinet").plan().join->cautions, "join.rods"));
    // A glued top says what can't be reached after.
    const Plan glued = DemoJob("job-seed-cabinet").plan();
    REQUIRE(find_caution(glued.join->cautions, "join.before"));
}

TEST_CASE("a spring joint takes the force that bends its leaves, by the beam", "[join][spring]") {
    DemoJob f("job-seed-cabinet");
    CHECK(f.plan().join->joints[0].spring_n == 0);
    f.job().join.spring = Spring::hollow;
    f.job().join.spring_mm = 0.5;
    const Plan plan = f.plan();
    for (const GluedJoint& j : plan.join->joints) CHECK(j.spring_n > 0);
    // Twice as hollow, twice the force; a gap of the same depth takes the same.
    f.job().join.spring_mm = 1;
    CHECK(f.plan().join->joints[0].spring_n == Approx(2 * plan.join->joints[0].spring_n));
    f.job().join.gaps = {{1, 0, 1.0}};
    const Plan gap = f.plan();
    CHECK(gap.join->joints[0].close_n == Approx(gap.join->joints[0].spring_n));
    f.job().join.spring_mm = 3;
    CHECK(find_caution(f.plan().join->cautions, "join.spring"));
}

TEST_CASE("in two stages the second one takes the first one's clamps", "[join][stages]") {
    DemoJob f("job-seed-cabinet");
    const Plan once = f.plan();
    REQUIRE(once.join->joints.size() == 3);
    f.job().join.two_stages = true;
    const Plan twice = f.plan();
    const auto& j = twice.join->joints;
    CHECK(twice.join->clamps == std::max(j[0].clamps + j[1].clamps, j[2].clamps));
    CHECK(twice.join->clamps < once.join->clamps);
}

TEST_CASE("cauls across lie near both ends, close enough between, and on no pocket", "[join][cauls]") {
    CHECK(cauls_across(2000, CaulsAcross::none, 50, {}).empty());
    CHECK(cauls_across(2000, CaulsAcross::ends, 50, {}) == std::vector<double>{-920, 920});
    const auto all = cauls_across(2000, CaulsAcross::all, 50, {});
    REQUIRE(all.size() == 6);  // 1840 / 450 = 4.1 spans
    CHECK(all[1] - all[0] == Approx(368));
    // One slides off the pocket it would lie on, by no more than it has to within 5 mm.
    const auto slid = cauls_across(2000, CaulsAcross::all, 50, {{all[2] - 30, all[2] + 10}});
    CHECK(std::abs(slid[2] - all[2]) <= 40);
    CHECK((slid[2] - 25 >= all[2] + 10 - 1e-9 || slid[2] + 25 <= all[2] - 30 + 1e-9));
    CHECK(slid[1] == all[1]);
    // In every demo job that is glued they lie clear of every channel, inside the top.
    const Documents docs = demo_shop();
    int glued = 0;
    for (const auto& [id, job] : docs.jobs) {
        Job all_along = job;
        all_along.join.across = CaulsAcross::all;
        const Plan plan = plan_job(all_along, docs);
        if (plan.join->joints.empty()) {
            CHECK(plan.join->across_u.empty());
            continue;
        }
        ++glued;
        for (const double u : plan.join->across_u) {
            CHECK(std::abs(u) <= job.top.length_mm / 2 - 25 + 1e-9);
            for (const Channel& c : job.under.channels) CHECK(std::abs(u - c.u_mm) >= (50 + c.width_mm) / 2 - 1e-9);
        }
    }
    CHECK(glued >= 3);
}

TEST_CASE("one hollow for the cut list and for the clamps", "[join][cuts]") {
    Documents docs = demo_shop();
    Job& job = docs.jobs.at("job-seed-cabinet");
    const auto rips_say = [&] {
        const Plan p = plan_job(job, docs);
        std::string out;
        for (const Cut& c : p.cuts->cuts)
            if (c.kind == CutKind::rip) out += render(c.set, Units::metric()) + "\n";
        return out;
    };
    CHECK(rips_say().find("hollow") == std::string::npos);
    job.join.spring = Spring::hollow, job.join.spring_mm = 0.6;
    CHECK(rips_say().find("hollow by 0.3 mm in the middle") != std::string::npos);
    for (const GluedJoint& j : plan_job(job, docs).join->joints) CHECK(j.spring_n > 0);
}

TEST_CASE("inner edges of an open river are finished before its rods go in", "[join][days][T40]") {
    Documents docs = demo_shop();
    const Plan p = plan_job(docs.jobs.at("job-open-river"), docs);
    const auto& all = p.days->operations;
    const auto inner = std::find_if(all.begin(), all.end(), [](const Operation& o) { return o.key == "inner"; });
    REQUIRE(inner != all.end());
    CHECK(inner->waiting_h >= 24);
    CHECK(std::none_of(all.begin(), all.end(), [&](const Operation& o) { return o.key == "dryfit" && o.start_h < inner->end_h; }));
}
