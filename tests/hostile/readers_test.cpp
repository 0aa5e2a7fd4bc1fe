// What comes from outside: limits are looked at before memory is asked for, and each refusal says where and what.
#include <chrono>
#include <clocale>
#include <csignal>
#include <filesystem>
#include <fstream>
#include <locale>
#include <random>
#include <thread>

#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>
#include <catch2/catch.hpp>

#include "core/files/io/csv.h"
#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/ground/file/file.h"
#include "core/ground/measure/measure.h"
#include "core/ground/picture/picture.h"
#include "core/material/drawing/drawing.h"
#include "core/material/scan/cloud.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "devices/probe.h"
#include "tests/everything.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

/// The sentence of a refusal; fails where it is taken.
template <class F>
std::string refusal(F f) {
    try {
        f();
    } catch (const FormatError& e) {
        return e.what();
    }
    FAIL("it was taken");
    return {};
}

bool has(const std::string& text, const std::string& part) {
    INFO(text);
    return text.find(part) != std::string::npos;
}

std::string svg(const std::string& inside) {
    return R"(<svg xmlns="http://www.w3.org/2000/svg" width="2000mm" height="600mm" viewBox="0 0 2000 600">)" + inside + "</svg>";
}

std::string dxf(const std::string& inside) { return "0\nSECTION\n2\nENTITIES\n" + inside + "0\nENDSEC\n0\nEOF\n"; }

std::string corpus(const std::string& name) {
    std::ifstream in(fs::path(YB_SOURCE) / "tests/fuzz/corpus" / name, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace

TEST_CASE("JSON: nesting, numbers of values, integers and types out of bounds are told with their place", "[hostile][io]") {
    CHECK(has(refusal([] { parse_json("{\n \"a\": " + std::string(100, '[') + std::string(100, ']') + "}"); }), "line 2, column 70"));
    CHECK(has(refusal([] { parse_json(std::string(5000000, '[')); }), "nested more than 64 deep"));
    CHECK_NOTHROW(parse_json(std::string(64, '[') + std::string(64, ']')));
    CHECK_NOTHROW(parse_json("\"" + std::string(1000, '[') + "\\\"" + std::string(1000, '{') + "\""));
    CHECK(has(refusal([] {
                  std::string many = "[0";
                  for (int i = 0; i < 10000001; ++i) many += ",0";
                  parse_json(many + "]");
              }),
              "more than 10 million values"));
    CHECK(has(
        refusal([] {
            job_from_json(parse_json(
                R"({"v": 3, "id": "j", "leaves": [{"slab": "s"}], "under": {"plates": [{"u_mm": 0, "v_mm": 0, "bolts_across": 4294967297}]}})"));
        }),
        "job.under.plates[0].bolts_across"));
    CHECK(has(refusal([] { read_job_file(R"({"format": 5})"); }), "this is not a job file"));
    CHECK(has(refusal([] { read_job_file(R"({"format": "young-burl job", "version": "two"})"); }), "version"));
    CHECK(has(refusal([] { job_from_json(parse_json(R"({"v": 3, "id": "j", "leaves": [{"slab": "s"}], "name": 5})")); }), "job.name"));
}

TEST_CASE("outlines and heights all in one place or on one line are planned and told, never walked off", "[hostile][slab]") {
    for (const char* name : {"slab/one-place.json", "slab/one-line.json"}) {
        INFO(name);
        const Slab slab = slab_from_json(parse_json(corpus(name)));
        Documents d;
        d.slabs[slab.id] = slab;
        d.jobs["j"].id = "j";
        d.jobs["j"].first().slab = slab.id;
        const SlabShape shape = shape_of(slab);
        CHECK_FALSE(shape.usable);
        CHECK_FALSE(shape.cautions.empty());
        CHECK_NOTHROW(plan_job(d.jobs["j"], d));
    }
}

TEST_CASE("DXF: what it promises is held against what it has – degrees, knots and bytes out of bounds are told", "[hostile][drawing]") {
    CHECK(has(refusal([] { read_dxf(corpus("dxf/spline-promised.dxf")); }), "999999999 knots are promised"));
    CHECK(has(refusal([] { read_dxf(corpus("dxf/degree-600.dxf")); }), "degree 600"));
    CHECK(has(refusal([] { read_dxf(dxf("0\nLWPOLYLINE\n8\n0\n90\n57000000\n70\n1\n10\n0\n20\n0\n")); }), "57000000 vertices"));
    CHECK(has(refusal([] { read_dxf(dxf("0\nLWPOLYLINE\n8\n0\n90\n-3\n70\n1\n")); }), "line 10"));
    CHECK(has(refusal([] { read_dxf(dxf("0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1e300\n21\n0\n")); }), "no place on a drawing"));
    CHECK(has(refusal([] { read_dxf(dxf(std::string("0\nLINE\n8\n\0\n", 11))); }), "bytes in it that no text has"));
    // De Boor's point on a spline of degree 3 with clamped knots is Bézier's: at its middle (P0 + 3 P1 + 3 P2 + P3) / 8.
    const Drawing d = read_dxf(corpus("dxf/spline.dxf"));
    REQUIRE(d.paths.size() == 1);
    const Ring& r = d.paths[0].points;
    CHECK(length(r[r.size() / 2] - Vec2{75, 60}) < 1e-9);
    CHECK(length(r.front() - Vec2{0, 0}) < 1e-9);
    CHECK(length(r.back() - Vec2{150, 0}) < 1e-9);
}

TEST_CASE("loose lines in any order and direction join to their outline, and voids to theirs", "[hostile][drawing]") {
    constexpr int n = 20000;
    std::vector<DrawnPath> lines;
    const auto ring = [&](double rx, double ry, int count) {
        const auto at = [&](int i) {
            const double a = 2 * 3.14159265358979323846 * (i % count) / count;
            return Vec2{rx * std::cos(a), ry * std::sin(a)};
        };
        for (int i = 0; i < count; ++i) lines.push_back({{at(i), at(i + 1)}, false, ""});
    };
    ring(1500, 400, n);
    ring(60, 30, 500);
    std::mt19937 dice(11);
    std::shuffle(lines.begin(), lines.end(), dice);
    for (DrawnPath& l : lines)
        if (dice() % 2) std::reverse(l.points.begin(), l.points.end());
    const DrawnSlab made = slab_from_drawing({lines, 1.0}, 1);
    CHECK(made.outline.a.size() == n);
    CHECK(area(made.outline.a) == Approx(3.14159265358979323846 * 1500 * 400).epsilon(1e-6));
    REQUIRE(made.flaws.size() == 1);
    CHECK(made.flaws[0].outline.size() == 500);
    // One line short it is told where.
    lines.erase(lines.begin() + 77);
    std::erase_if(lines, [](const DrawnPath& p) { return length(p.points[0]) < 100; });
    const std::string said = refusal([&] { slab_from_drawing({lines, 1.0}, 1); });
    if (lines.size() < n) CHECK(has(said, "no line closes to an outline"));
    CHECK(has(refusal([] { slab_from_drawing({{}, 1.0}, 1); }), "there is no line"));
    // Where more than two ends meet it still ends, and the closed part is found.
    std::vector<DrawnPath> tee;
    for (int i = 0; i < 4; ++i) {
        const Vec2 corner[] = {{0, 0}, {1000, 0}, {1000, 300}, {0, 300}};
        tee.push_back({{corner[i], corner[(i + 1) % 4]}, false, ""});
    }
    for (int i = 1; i < 50; ++i) tee.push_back({{{0, 0}, {-10.0 * i, -10}}, false, ""});
    std::shuffle(tee.begin(), tee.end(), dice);
    CHECK_NOTHROW(refusal([&] {
        slab_from_drawing({tee, 1.0}, 1);
        throw FormatError("taken");
    }));
}

TEST_CASE("SVG: a number after Z, deep groups, far places and too many points are told", "[hostile][drawing]") {
    CHECK(has(refusal([] { read_svg(corpus("svg/number-after-z.svg")); }), "a number is wanted"));
    std::string deep;
    for (int i = 0; i < 30000; ++i) deep += "<g>";
    for (int i = 0; i < 30000; ++i) deep += "</g>";
    CHECK(has(refusal([&] { read_svg(svg(deep)); }), "nested more than 256 deep"));
    CHECK(has(refusal([] { read_svg(corpus("svg/huge.svg")); }), "a number is wanted"));
    CHECK(has(refusal([] { read_svg(svg(R"x(<g transform="scale(1e9)"><path d="M0 0L1e8 0L0 1e8Z"/></g>)x")); }), "no place on a drawing"));
    std::string arcs = "M0 0";
    for (int i = 0; i < 12000; ++i) arcs += "a1e8 1e8 0 0 0 9 9a9 1e8 0 1 1-9-9";
    CHECK(has(refusal([&] { read_svg(svg("<path d=\"" + arcs + "\"/>")); }), "million points"));
}

namespace {
std::string dxf_of(const std::string& entities) { return "0\nSECTION\n2\nENTITIES\n" + entities + "0\nENDSEC\n0\nEOF\n"; }
std::string dxf_line(double x0, double y0, double x1, double y1) {
    return fmt::format("0\nLINE\n8\nslab\n10\n{}\n20\n{}\n11\n{}\n21\n{}\n", x0, y0, x1, y1);
}
}  // namespace

TEST_CASE("DXF: lines of any length are read past, a number that long is told", "[hostile][drawing]") {
    const std::string line = dxf_line(0, 0, 100, 0);
    for (const std::size_t n : {1022U, 1023U, 1024U, 1025U, 5000U, 1000000U})
        for (const char* entity : {"MTEXT\n8\n0\n1\n", "TEXT\n8\n0\n1\n", "MTEXT\n8\n0\n3\n", "LINE\n8\n"}) {
            const Drawing d = read_dxf(dxf_of("0\n" + std::string(entity) + std::string(n, 'x') + "\n" + line));
            INFO(entity << n);
            REQUIRE_FALSE(d.paths.empty());
            CHECK(d.paths.back().points.back() == Vec2{100, 0});
        }
    CHECK_THROWS_WITH(read_dxf(dxf_of("0\nLINE\n8\n0\n10\n" + std::string(2000, '1') + "\n" + line)), Catch::Contains("2000 characters"));
    CHECK_THROWS_AS(read_dxf(dxf_of(std::string(2000, ' ') + "0\nLINE\n" + line)), FormatError);
    std::stop_source stop;
    stop.request_stop();
    CHECK_THROWS_AS(read_dxf(dxf_of(line), Work{{}, stop.get_token()}), Cancelled);
}

TEST_CASE("SVG: what is not shown is no outline, a viewBox of nothing says no scale, a size that can't be is asked about",
          "[hostile][drawing]") {
    const auto svg = [](const std::string& inside, const std::string& head = "width=\"100mm\" viewBox=\"0 0 100 100\"") {
        return read_svg("<svg xmlns=\"http://www.w3.org/2000/svg\" " + head + ">" + inside + "</svg>");
    };
    const std::string seen = "<rect width=\"50\" height=\"20\"/>";
    for (const char* hidden :
         {"<g style=\"fill:red; display : none\"><rect width=\"90\" height=\"90\"/></g>",
          "<rect display=\"none\" width=\"90\" height=\"90\"/>",
          "<style>.on{fill:red} .off , .st0 {stroke:#000;display:none}</style><rect class=\"a st0\" width=\"90\" height=\"90\"/>"})
        CHECK(bounds(slab_from_drawing(svg(hidden + seen), 1).outline.a).width() == Approx(50));
    CHECK(svg("<g style=\"inline-display:none-such\">" + seen + "</g>").paths.size() == 1);
    CHECK(svg(seen).mm_per_unit == Approx(1));
    CHECK_FALSE(svg(seen, "width=\"100mm\" viewBox=\"0 0 0 0\"").mm_per_unit);
    CHECK_FALSE(svg(seen, "width=\"100mm\" viewBox=\"\"").mm_per_unit);
    CHECK(svg(seen, "width=\"100mm\"").mm_per_unit == Approx(25.4 / 96));
    CHECK_FALSE(unlikely_length(slab_from_drawing(svg(seen), 40)));
    CHECK(unlikely_length(slab_from_drawing(svg(seen), 40000)) == Approx(2e6));  // two kilometres
    CHECK(unlikely_length(slab_from_drawing(svg(seen), 0.1)) == Approx(5));
}

TEST_CASE("a drawing with eleven thousand holes becomes a slab with as many voids", "[hostile][drawing]") {
    std::string inside = "<rect width=\"2400\" height=\"600\"/>";
    for (int i = 0; i < 11000; ++i)
        inside += fmt::format("<circle cx=\"{}\" cy=\"{}\" r=\"2\"/>", 10 + (i % 220) * 10.8, 15 + (i / 220) * 11.5);
    const DrawnSlab s = slab_from_drawing(
        read_svg("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"2400mm\" viewBox=\"0 0 2400 600\">" + inside + "</svg>"), 1);
    CHECK(s.flaws.size() == 11000);
}

TEST_CASE("pictures that claim more than they hold are refused before memory is asked for", "[hostile][picture]") {
    const std::string huge = corpus("picture/huge.png");
    REQUIRE(huge.size() == 74);
    CHECK(has(refusal([&] { read_picture(huge); }), "50000 x 50000 points, more than 120 million"));
    // A JPEG of 16 bytes that says 60 000 × 60 000.
    std::string jpeg = corpus("picture/small.jpg");
    for (std::size_t i = 0; i + 9 < jpeg.size(); ++i)
        if (static_cast<unsigned char>(jpeg[i]) == 0xFF && static_cast<unsigned char>(jpeg[i + 1]) == 0xC0)
            for (const std::size_t k : {5, 7}) jpeg[i + k] = '\xEA', jpeg[i + k + 1] = '\x60';
    CHECK(has(refusal([&] { read_picture(jpeg); }), "60000 x 60000"));
    CHECK(has(refusal([] { read_picture(std::string("a slab of bread")); }), "neither PNG nor JPEG"));
    CHECK_NOTHROW(read_picture(corpus("picture/small.png")));
}

TEST_CASE("clouds: numbers no float holds and points out of the world are told by their place", "[hostile][scan]") {
    CHECK(has(refusal([] { read_cloud("1 2 3\n1e39 0 0\n"); }), "point 2"));
    CHECK(has(refusal([] { read_cloud("1 2 3\n-1e400 0 0\n"); }), "point 2"));
    CHECK(read_cloud("1 2 3\n1e-50 -1e-400 0\n").points.size() == 2);
    CHECK(has(refusal([] { read_cloud(corpus("cloud/promised.ply")); }), "99999999999 points are promised and 1 are there"));
}

TEST_CASE("folders, devices, pipes and files that are too long each have their sentence", "[hostile][io]") {
    std::string t = (fs::temp_directory_path() / "yb-files-XXXXXX").string();
    const fs::path dir = mkdtemp(t.data());
    const std::string path = (dir / "a").string();
    std::ofstream(path) << std::string(5000, 'x');
    CHECK(read_file(path, 5000).size() == 5000);
    CHECK(has(refusal([&] { read_file(path, 4999); }), "longer than"));
    CHECK(has(refusal([&] { read_file(dir.string(), 10); }), "a folder"));
    CHECK(has(refusal([&] { read_file((dir / "none").string(), 10); }), "no such file"));
    CHECK(has(refusal([] { read_file("/dev/zero", 10); }), "a device"));
    CHECK(refusal([&] { read_file(path, 10); }).rfind(path, 0) == 0);
    // A pipe is read to its end, and no further than the most: whoever writes on then writes to nobody.
    const auto before = std::signal(SIGPIPE, SIG_IGN);
    const std::string pipe = (dir / "pipe").string();
    REQUIRE(mkfifo(pipe.c_str(), 0600) == 0);
    for (const std::uint64_t most : {100000, 50000}) {
        std::thread writer([&] {
            std::ofstream out(pipe);
            out << std::string(100000, 'y');
        });
        std::this_thread::sleep_for(std::chrono::milliseconds(50));
        if (most == 100000) CHECK(read_file(pipe, most).size() == 100000);
        else CHECK(has(refusal([&] { read_file(pipe, most); }), "longer than"));
        writer.join();
    }
    std::signal(SIGPIPE, before);
    fs::remove_all(dir);
}

namespace {
/// Everything that reads or writes numbers, as one text.
std::string all_that_is_read_and_written() {
    std::string out;
    const Readings r = read_readings("face,x_mm,y_mm,z_mm\ntop,0.5,1.25,60.75\nbottom,0.5,1.25,-0.125\n");
    out += fmt::format("{} {} {};", r.top[0].x, r.top[0].z, r.bottom[0].z);
    const Drawing s =
        read_svg(R"x(<svg width="401.5mm" height="100mm" viewBox="0 0 401.5 100"><rect x="0.5" y="0" width="200.75" height="50.25"/>)x"
                 R"x(<circle cx="10.5" cy="9.5" r="4.25"/><path d="M0.5.5L1.5-2.5" transform="translate(1.5) rotate(12.5)"/></svg>)x");
    out += fmt::format("{};", s.mm_per_unit.value_or(-1));
    for (const DrawnPath& p : s.paths)
        for (const Vec2 q : p.points) out += fmt::format("{} {};", q.x, q.y);
    out += to_svg(s.paths, "half") + to_dxf(s.paths);
    for (const DrawnPath& p : read_dxf(to_dxf(s.paths)).paths)
        for (const Vec2 q : p.points) out += fmt::format("{} {};", q.x, q.y);
    for (const CloudPoint& p : read_cloud("0.5 1.25 -2.125\n").points) out += fmt::format("{} {} {};", p.x, p.y, p.z);
    for (const CloudPoint& p : read_cloud("ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nproperty float y\nproperty "
                                          "float z\nend_header\n1.5 2.5 3.5\n")
                                   .points)
        out += fmt::format("{} {} {};", p.x, p.y, p.z);
    out += instrument_line(12.75, "mm");
    out += fmt::format("{};", read_probe_line("R 12.75 mm").value);
    for (const char* text : {"2.5", "86 5/8\"", "7' 2.25\"", "2,5"})
        for (const Units& u : {Units::metric(), Units::imperial()})
            if (const auto v = parse(text, Kind::length, u); std::get_if<double>(&v))
                out += fmt::format("{} {};", *std::get_if<double>(&v), edit_text({*std::get_if<double>(&v), Kind::length}, u));
    const Documents d = demo_shop();
    for (const auto& [id, slab] : d.slabs) out += to_json(slab_from_json(parse_json(to_json(slab).dump()))).dump();
    const Job& j = d.jobs.begin()->second;
    out += write_job_file(read_job_file(write_job_file(job_file(d, j.id, [](const std::string&) { return std::nullopt; }))));
    const Plan plan = plan_job(j, d);
    out += to_json(plan, d.shop.units).dump();
    return out;
}
}  // namespace

TEST_CASE("no number is read or written by the desktop's decimal sign", "[hostile][locale]") {
    const std::string plain = all_that_is_read_and_written();
    REQUIRE(plain.find("201.25") != std::string::npos);
    // A comma locale, made here where the machine has none.
    std::string t = (fs::temp_directory_path() / "yb-locale-XXXXXX").string();
    const fs::path dir = mkdtemp(t.data());
    const std::string make = "localedef -i de_DE -f UTF-8 '" + (dir / "de_DE.UTF-8").string() + "' > /dev/null 2>&1";
    (void)std::system(make.c_str());
    setenv("LOCPATH", dir.c_str(), 1);
    const std::string before = std::setlocale(LC_ALL, nullptr);
    REQUIRE(std::setlocale(LC_ALL, "de_DE.UTF-8"));
    const std::locale old = std::locale::global(std::locale("de_DE.UTF-8"));
    char shown[16];
    std::snprintf(shown, sizeof shown, "%.1f", 0.5);
    const std::string comma = all_that_is_read_and_written();
    std::locale::global(old);
    std::setlocale(LC_ALL, before.c_str());
    unsetenv("LOCPATH");
    fs::remove_all(dir);
    CHECK(std::string(shown) == "0,5");  // it was a comma locale
    // Where the first of the differences is, not all of both.
    const auto at = static_cast<std::size_t>(
        std::mismatch(plain.begin(), plain.begin() + static_cast<std::ptrdiff_t>(std::min(plain.size(), comma.size())), comma.begin())
            .first -
        plain.begin());
    const std::size_t from = at > 80 ? at - 80 : 0;
    INFO(plain.substr(from, 120) << "\n    became\n" << comma.substr(std::min(comma.size(), from), 120));
    CHECK((comma == plain));
}
