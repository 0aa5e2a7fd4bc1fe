#include <cmath>
#include <numbers>

#include <fmt/format.h>
#include <catch2/catch.hpp>

#include "core/files/io/json.h"
#include "core/material/drawing/drawing.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;
constexpr double pi = std::numbers::pi;

TEST_CASE("an SVG outline comes in at its size", "[drawing]") {
    const Drawing d = read_svg(R"svg(<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="100mm" viewBox="0 0 600 200">
        <g id="slab" transform="translate(10,10) scale(2)"><path d="M0,0 h200 v50 q-100,20 -200,0 z"/></g>
        <circle cx="200" cy="60" r="20"/><defs><rect width="9999" height="9999"/></defs></svg>)svg");
    REQUIRE(d.mm_per_unit);
    CHECK(*d.mm_per_unit == Approx(0.5));
    const DrawnSlab s = slab_from_drawing(d, *d.mm_per_unit);
    const Box b = bounds(s.outline.a);
    CHECK(b.width() == Approx(200));  // 400 units at half a millimetre
    CHECK(b.low.x == Approx(0).margin(1e-9));
    // Rectangle 200 × 50 and a parabola of 2/3 · 200 · 10, both twice as large, in half millimetres.
    CHECK(area(s.outline.a) == Approx((200 * 50 + 2.0 / 3 * 200 * 10) * 4 * 0.25).epsilon(1e-3));
    CHECK(signed_area(s.outline.a) > 0);
    REQUIRE(s.flaws.size() == 1);
    CHECK(area(s.flaws[0].outline) == Approx(pi * 100).epsilon(2e-3));
}

TEST_CASE("every command of a path", "[drawing]") {
    const auto length_of = [](const char* path) {
        const Drawing d = read_svg(std::string("<svg><path d=\"") + path + "\"/></svg>");
        double sum = 0;
        for (const DrawnPath& p : d.paths)
            for (std::size_t i = 1; i < p.points.size(); ++i) sum += length(p.points[i] - p.points[i - 1]);
        return sum;
    };
    CHECK(length_of("M0 0 L30 40") == Approx(50));
    CHECK(length_of("m10-5l3,4-3-4") == Approx(10));
    CHECK(length_of("M0 0 H10 V20 h-10 v-20") == Approx(60));
    CHECK(length_of("M0 0 A50 50 0 0 1 100 0") == Approx(50 * pi).epsilon(1e-3));
    CHECK(length_of("M0 0 A50 50 0 1 1 50 50") == Approx(1.5 * pi * 50).epsilon(2e-3));
    CHECK(length_of("M0 0a50 50 0 01100 0") == Approx(50 * pi).epsilon(1e-3));  // flags that stand together
    CHECK(length_of("M0 0 C0 0 100 0 100 0 S 200 0 200 0") == Approx(200).epsilon(1e-3));
    CHECK(length_of("M0 0 Q50 0 100 0 T 200 0") == Approx(200).epsilon(1e-3));
    CHECK_FALSE(read_svg("<svg width='200'><path d='M0 0 L1 1'/></svg>").mm_per_unit);  // it does not say
    CHECK(*read_svg("<svg width='10in' viewBox='0 0 254 9'/>").mm_per_unit == Approx(1));
}

TEST_CASE("DXF entities come in", "[drawing]") {
    const Drawing d = read_dxf(
        "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n1\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"
        "0\nLINE\n8\na\n10\n0\n20\n0\n11\n100\n21\n0\n0\nLINE\n8\na\n10\n100\n20\n40\n11\n100\n21\n0\n"
        "0\nLINE\n8\na\n10\n100\n20\n40\n11\n0\n21\n40\n0\nARC\n8\na\n10\n0\n20\n20\n40\n20\n50\n90\n51\n270\n0\nENDSEC\n0\nEOF\n");
    CHECK(*d.mm_per_unit == 25.4);
    CHECK(d.paths.size() == 4);
    const DrawnSlab s = slab_from_drawing(d, 1);
    CHECK(area(s.outline.a) == Approx(100 * 40 + pi * 200).epsilon(2e-3));
    const Drawing bulge = read_dxf(
        "0\nSECTION\n2\nENTITIES\n0\nLWPOLYLINE\n8\n0\n90\n2\n70\n1\n10\n0\n20\n0\n42\n1\n10\n60\n20\n0\n42\n1\n0\nENDSEC\n0\nEOF\n");
    REQUIRE(bulge.paths.size() == 1);
    CHECK_FALSE(bulge.mm_per_unit);
    CHECK(area(slab_from_drawing(bulge, 10).outline.a) == Approx(pi * 300 * 300).epsilon(3e-3));  // two half circles of 30
}

TEST_CASE("lines that do not close say where and by how much", "[drawing]") {
    const Drawing d = read_svg("<svg><path d='M0 0 L100 0 L100 50'/><path d='M98 53 L0 50 L0 0.2'/></svg>");
    CHECK_THROWS_WITH(slab_from_drawing(d, 1), Catch::Contains("no line closes") && Catch::Contains("0.20 apart"));
    CHECK_THROWS_WITH(slab_from_drawing(read_svg("<svg/>"), 1), Catch::Contains("no line in the drawing"));
    CHECK_THROWS_WITH(slab_from_drawing(read_svg("<svg><path d='M0 0 L100 100 L100 0 L0 100 L-50 50 Z'/></svg>"), 1),
                      Catch::Contains("crosses itself"));
    CHECK_THROWS_WITH(read_svg("<svg><path d='M0 0 L1"), Catch::Contains("SVG"));
    CHECK_THROWS_WITH(read_svg("<svg><path d='M0 0 L1 x'/></svg>"), Catch::Contains("a number is wanted at ‘x’"));
    CHECK_THROWS_WITH(read_svg("<html/>"), Catch::Contains("no SVG"));
    CHECK_THROWS_WITH(read_dxf("hello"), Catch::Contains("no DXF"));
    CHECK_THROWS_WITH(read_dxf("0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n"), Catch::Contains("cut short"));
}

TEST_CASE("slabs, tops and templates go out 1:1 and come back", "[drawing]") {
    const Documents d = demo_shop();
    const Job& job = d.jobs.at("job-reading-table");
    const Slab& slab = d.slabs.at(job.first().slab);
    const Plan plan = plan_job(job, slab, d.shop);
    const auto paths = drawn_slab(slab, shape_of(slab));
    for (const bool dxf : {false, true}) {
        INFO(dxf);
        const Drawing back = dxf ? read_dxf(to_dxf(paths)) : read_svg(to_svg(paths, "Sycamore <3> & more"));
        REQUIRE(back.mm_per_unit);
        CHECK(*back.mm_per_unit == Approx(1));
        REQUIRE(back.paths.size() == paths.size());
        const DrawnSlab s = slab_from_drawing(back, 1);
        CHECK(area(s.outline.a) == Approx(std::max(area(paths[0].points), area(paths[1].points))).epsilon(1e-5));
        const Drawing top = dxf ? read_dxf(to_dxf(drawn_top(plan, job.first().placement, true)))
                                : read_svg(to_svg(drawn_top(plan, job.first().placement, true), "top"));
        REQUIRE(top.paths.size() == 1);
        CHECK(bounds(top.paths[0].points).width() == Approx(job.top.length_mm).epsilon(1e-4));
        const Drawing cuts = dxf ? read_dxf(to_dxf(drawn_top(plan, job.first().placement, false)))
                                 : read_svg(to_svg(drawn_top(plan, job.first().placement, false), "cuts"));
        CHECK(cuts.paths.size() == 2 + plan.lay->rough_cuts.size() + plan.lay->finish_cuts.size());
    }
}

TEST_CASE("DXF ellipses, whole and in part, and splines given by control points alone are read", "[drawing]") {
    const auto dxf = [](const std::string& inside) { return "0\nSECTION\n2\nENTITIES\n" + inside + "0\nENDSEC\n0\nEOF\n"; };
    // Half axes 1000 and 300, turned by 30 degrees: its area is pi a b.
    const std::string axis = "11\n866.0254037844386\n21\n500\n31\n0\n40\n0.3\n";
    const Drawing whole = read_dxf(dxf("0\nELLIPSE\n8\n0\n10\n50\n20\n60\n30\n0\n" + axis + "41\n0\n42\n6.283185307179586\n"));
    REQUIRE(whole.paths.size() == 1);
    CHECK(whole.paths[0].closed);
    CHECK(area(whole.paths[0].points) == Approx(3.14159265 * 1000 * 300).epsilon(1e-3));
    CHECK(length(centroid(whole.paths[0].points) - Vec2{50, 60}) < 1e-6);
    const Drawing half = read_dxf(dxf("0\nELLIPSE\n8\n0\n10\n0\n20\n0\n30\n0\n" + axis + "41\n0\n42\n3.141592653589793\n"));
    REQUIRE(half.paths.size() == 1);
    CHECK_FALSE(half.paths[0].closed);
    CHECK(length(half.paths[0].points.front() + half.paths[0].points.back()) < 1e-6);  // opposite ends of the long axis
    CHECK(slab_from_drawing(whole, 1).outline.a.size() > 50);
    const auto spline = [&](int flags, const std::vector<Vec2>& control) {
        std::string s = fmt::format("0\nSPLINE\n8\n0\n70\n{}\n71\n3\n72\n0\n73\n{}\n74\n0\n", flags, control.size());
        for (const Vec2 p : control) s += fmt::format("10\n{}\n20\n{}\n30\n0\n", p.x, p.y);
        return read_dxf(dxf(s));
    };
    const Drawing open = spline(8, {{0, 0}, {50, 80}, {100, 80}, {150, 0}});
    REQUIRE(open.paths.size() == 1);
    CHECK(length(open.paths[0].points[open.paths[0].points.size() / 2] - Vec2{75, 60}) < 1e-9);  // Bézier's middle
    CHECK(length(open.paths[0].points.back() - Vec2{150, 0}) < 1e-9);
    // A closed one over a square's corners: at a knot it is at (P0 + 4 P1 + P2) / 6.
    const Drawing round = spline(9, {{0, 0}, {600, 0}, {600, 600}, {0, 600}});
    REQUIRE(round.paths.size() == 1);
    CHECK(round.paths[0].closed);
    CHECK(length(round.paths[0].points.front() - Vec2{500, 100}) < 1e-9);
    CHECK(slab_from_drawing(round, 1).outline.a.size() > 20);
}
