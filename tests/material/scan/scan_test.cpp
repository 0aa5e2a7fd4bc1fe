#include <cmath>
#include <cstring>
#include <limits>

#include <catch2/catch.hpp>

#include "core/ground/geometry/noise.h"
#include "core/material/scan/scan.h"
#include "core/material/tree/saw.h"

using namespace yb;

namespace {

/// A scan of a grown slab on its bench: turned in space, with noise, both faces or the upper one.
Cloud scan_of(const SawnSlab& s, std::size_t points, double noise_mm, bool both, double lift_mm) {
    Dice d(5, 1);
    Cloud c;
    const Box box = bounds(s.truth.ring_a);
    const double turn = 0.4;
    const double lean = 0.15;
    const auto put = [&](double x, double y, double z) {
        z += d.normal(noise_mm);
        const double u = std::cos(turn) * x - std::sin(turn) * y;
        const double v = std::sin(turn) * x + std::cos(turn) * y;
        c.points.push_back({static_cast<float>(u * std::cos(lean) - z * std::sin(lean) + 4000), static_cast<float>(v - 900),
                            static_cast<float>(u * std::sin(lean) + z * std::cos(lean) + 250)});
    };
    while (c.points.size() < points) {
        const Vec2 p{d.between(-250, s.truth.x1 + 250), d.between(box.low.y - 250, box.high.y + 250)};
        const bool in = contains(s.truth.ring_a, p);
        if (in) put(p.x, p.y, s.truth.top.at(p) + lift_mm);
        if (both && contains(s.truth.ring_b, p)) put(p.x, p.y, s.truth.bottom.at(p) + lift_mm);
        if (!in && !contains(s.truth.ring_b, p)) put(p.x, p.y, 0);
    }
    return c;
}

SawnSlab grown() {
    const GrownLog log(drawn_recipe(13, "sycamore, American", 1800, 520));
    const auto boards = boards_of(log, {});
    return make_slab(log, boards.at(boards.size() / 2), {}, {}, {});
}

}  // namespace

TEST_CASE("clouds come back as they went", "[scan]") {
    const std::vector<CloudPoint> p{{1, 2, 3}, {-4.5F, 0.25F, 1e-3F}, {1e6F, -1, 0}};
    CHECK(read_cloud(to_ply(p)).points == p);
    CHECK(read_cloud("# a scan\nx y z\n1 2 3\n-4.5, .25; 0.001\n\n1000000\t-1 0 255 0 0\n").points == p);
    const Cloud ascii = read_cloud(
        "ply\nformat ascii 1.0\nelement vertex 2\nproperty uchar red\nproperty float x\nproperty float y\nproperty double "
        "z\nend_header\n255 1 2 3\n0 4 5 nan\n");
    CHECK(ascii.points == std::vector<CloudPoint>{{1, 2, 3}});
    CHECK(ascii.not_numbers == 1);
    const float inf = std::numeric_limits<float>::infinity();
    const Cloud bad = read_cloud(to_ply({{1, 2, 3}, {inf, 0, 0}, {0, NAN, 0}}));
    CHECK(bad.points.size() == 1);
    CHECK(bad.not_numbers == 2);
}

TEST_CASE("a bad cloud says where and what", "[scan]") {
    const std::string whole = to_ply(std::vector<CloudPoint>(100, CloudPoint{1, 2, 3}));
    CHECK_THROWS_WITH(read_cloud(whole.substr(0, whole.size() - 500)), Catch::Contains("100 points are promised and 58 are there"));
    CHECK_THROWS_WITH(read_cloud(whole.substr(0, 40)), Catch::Contains("end_header"));
    CHECK_THROWS_WITH(read_cloud("1 2 3\n4 5\n"), Catch::Contains("line 2: 3 numbers are wanted, 2 are here"));
    CHECK_THROWS_WITH(read_cloud("1 2 3\n4 5x 6\n"), Catch::Contains("line 2: ‘5x’ is not a number"));
    CHECK_THROWS_WITH(read_cloud(""), Catch::Contains("no points"));
    CHECK_THROWS_WITH(read_cloud("ply\nformat binary_big_endian 1.0\nelement vertex 1\nproperty float x\nend_header\n"),
                      Catch::Contains("binary_big_endian"));
    CHECK_THROWS_WITH(read_cloud("ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nproperty float y\nend_header\n1 2\n"),
                      Catch::Contains("no x, y and z"));
    CHECK_THROWS_WITH(
        read_cloud("ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nend_header\n1 2 3\n"),
        Catch::Contains("3 points are promised and 1 are there"));
}

TEST_CASE("a scan of both faces gives the slab back within its noise", "[scan][accuracy]") {
    const SawnSlab s = grown();
    const double noise = 0.4;
    const ScanResult r = slab_from_scan(scan_of(s, 300000, noise, true, 40));
    CHECK(r.both_faces);
    CHECK(r.mm_per_unit == 1);
    CHECK(r.bench_noise_mm == Approx(noise).epsilon(0.25));
    const SlabShape shape = shape_of(r.slab);
    REQUIRE(shape.usable);
    CHECK(shape.x1 - shape.x0 == Approx(s.truth.x1).margin(4));
    CHECK(area(shape.ring_a) == Approx(area(s.truth.ring_a)).epsilon(0.006));
    CHECK(area(shape.ring_b) == Approx(area(s.truth.ring_b)).epsilon(0.006));
    // Thickness does not mind which way round the slab was turned: compare what is spread over it.
    const SlabMeans a = means_of(shape);
    const SlabMeans t = means_of(s.truth);
    CHECK(a.thickness_mm == Approx(t.thickness_mm).margin(noise));
    CHECK(a.thinnest_mm == Approx(t.thinnest_mm).margin(4 * noise));
    // Heights: the frame may be turned by half a turn against the truth; take the better of the two.
    double best = 1e9;
    for (const bool turned : {false, true}) {
        double sum = 0;
        double n = 0;
        const double middle_x = s.truth.x1 / 2;
        const Vec2 c = centroid(s.truth.ring_a);
        const Vec2 d = centroid(shape.ring_a);
        for (double x = -0.4; x <= 0.4; x += 0.05)
            for (double y = -100; y <= 100; y += 25) {
                const Vec2 here{d.x + x * s.truth.x1, d.y + y};
                const Vec2 there{c.x + (turned ? -1 : 1) * x * s.truth.x1, c.y + (turned ? -1 : 1) * y};
                const double e = shape.thickness_at(here) - s.truth.thickness_at(there);
                sum += e * e, n += 1;
            }
        best = std::min(best, std::sqrt(sum / n));
        CHECK(middle_x > 0);
    }
    CHECK(best < noise);
}

TEST_CASE("a scan from above says that the other face is a guess", "[scan]") {
    const SawnSlab s = grown();
    const ScanResult r = slab_from_scan(scan_of(s, 120000, 0.3, false, 0));
    CHECK_FALSE(r.both_faces);
    REQUIRE_FALSE(r.notes.empty());
    CHECK(r.notes.back().find("one face") != std::string::npos);
    const SlabShape shape = shape_of(r.slab);
    CHECK(shape.usable);
    CHECK(find_caution(shape.cautions, "rack.one_face"));
    CHECK(area(shape.ring_a) == Approx(area(s.truth.ring_a)).epsilon(0.012));
}

TEST_CASE("units are told from the size, and said", "[scan]") {
    Cloud c = scan_of(grown(), 60000, 0.3, false, 0);
    for (CloudPoint& p : c.points) p = {p.x / 1000, p.y / 1000, p.z / 1000};
    const ScanResult r = slab_from_scan(c);
    CHECK(r.mm_per_unit == 1000);
    CHECK(r.notes.front().find("metres") != std::string::npos);
    CHECK(means_of(shape_of(r.slab)).thickness_mm == Approx(65).margin(5));
}

TEST_CASE("no slab, two slabs, no bench", "[scan]") {
    Dice d(3, 3);
    Cloud bench;
    for (int i = 0; i < 20000; ++i)
        bench.points.push_back(
            {static_cast<float>(d.between(0, 2000)), static_cast<float>(d.between(0, 900)), static_cast<float>(d.normal(0.3))});
    CHECK_THROWS_WITH(slab_from_scan(bench, {1.0, 20, 12, 1}), Catch::Contains("there is no slab"));
    Cloud two = bench;
    for (int i = 0; i < 20000; ++i) {
        const bool right = i % 2;
        two.points.push_back({static_cast<float>(d.between(100, 1800)), static_cast<float>(d.between(50, 350) + (right ? 450 : 0)),
                              static_cast<float>(60 + d.normal(0.3))});
    }
    CHECK_THROWS_WITH(slab_from_scan(two, {1.0, 20, 12, 1}), Catch::Contains("two slabs"));
    Cloud mist;
    for (int i = 0; i < 20000; ++i)
        mist.points.push_back(
            {static_cast<float>(d.between(0, 2000)), static_cast<float>(d.between(0, 900)), static_cast<float>(d.between(0, 900))});
    CHECK_THROWS_WITH(slab_from_scan(mist, {1.0, 20, 12, 1}), Catch::Contains("no flat bench"));
    CHECK_THROWS_WITH(slab_from_scan(Cloud{{{0, 0, 0}}, 0}), Catch::Contains("too few"));
}
