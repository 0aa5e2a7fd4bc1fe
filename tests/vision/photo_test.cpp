#include <cmath>

#include <catch2/catch.hpp>

#include "core/ground/geometry/noise.h"
#include "core/material/tree/saw.h"
#include "vision/photo.h"

using namespace yb;

namespace {

/// A slab's face lying on a grey floor, seen askew, with noise and an uneven light. Known exactly.
struct Scene {
    Picture photo;
    SawnSlab slab;
    std::array<Vec2, 4> corners{};  ///< of a square metre and a half around the slab, px
    double wide = 0, high = 0;      ///< its size, mm
    double m[9] = {};               ///< slab mm → photo px

    Vec2 px(Vec2 p) const {
        const double w = m[6] * p.x + m[7] * p.y + m[8];
        return {(m[0] * p.x + m[1] * p.y + m[2]) / w, (m[3] * p.x + m[4] * p.y + m[5]) / w};
    }
};

Scene scene(std::uint64_t seed, double px_per_mm, double noise) {
    Scene s;
    LogRecipe r = drawn_recipe(seed, seed % 2 ? "sycamore, American" : "butternut", 1500, 460);
    r.bark_mm = 0;  // cleaned: the edge is the wood's
    const GrownLog log(r);
    const auto boards = boards_of(log, {});
    s.slab = make_slab(log, boards.at(boards.size() / 2), {}, {}, {1, true});
    const Box b = bounds(s.slab.truth.ring_a);
    const double k = px_per_mm;
    const double c = std::cos(0.12);
    const double t = std::sin(0.12);
    const double margin = 160;
    // Turned a little, then leaning away: further up is smaller. y of the slab points up, of the photo down.
    const double a[9] = {k * c, k * t, k * margin * 1.3, k * t, -k * c, k * (b.high.y + margin * 1.6), 0.00004, 0.00010, 1.0};
    std::copy_n(a, 9, s.m);
    Vec2 high{0, 0};
    for (const Vec2 p : {Vec2{-margin, b.low.y - margin},
                         {b.high.x + margin, b.low.y - margin},
                         {b.high.x + margin, b.high.y + margin},
                         {-margin, b.high.y + margin}})
        high = {std::max(high.x, s.px(p).x), std::max(high.y, s.px(p).y)};
    s.photo = Picture(static_cast<int>(high.x), static_cast<int>(high.y));
    const Vec2 q0{40, b.low.y - 60};
    const Vec2 q1{b.high.x - 40, b.high.y + 60};
    s.wide = q1.x - q0.x, s.high = q1.y - q0.y;
    s.corners = {s.px({q0.x, q1.y}), s.px({q1.x, q1.y}), s.px({q1.x, q0.y}), s.px({q0.x, q0.y})};
    // Inverse by Cramer: where each pixel lies on the slab.
    const double* v = s.m;
    const double inv[9] = {v[4] * v[8] - v[5] * v[7], v[2] * v[7] - v[1] * v[8], v[1] * v[5] - v[2] * v[4],
                           v[5] * v[6] - v[3] * v[8], v[0] * v[8] - v[2] * v[6], v[2] * v[3] - v[0] * v[5],
                           v[3] * v[7] - v[4] * v[6], v[1] * v[6] - v[0] * v[7], v[0] * v[4] - v[1] * v[3]};
    Dice d(seed, 3);
    const FacePicture& at = *s.slab.slab.picture_a;
    for (int y = 0; y < s.photo.height; ++y)
        for (int x = 0; x < s.photo.width; ++x) {
            const double w = inv[6] * x + inv[7] * y + inv[8];
            const Vec2 p{(inv[0] * x + inv[1] * y + inv[2]) / w, (inv[3] * x + inv[4] * y + inv[5]) / w};
            const int i = static_cast<int>(std::lround((p.x - at.corner.x) / at.mm_per_px));
            const int j = static_cast<int>(std::lround((at.corner.y - p.y) / at.mm_per_px));
            const bool wood = i >= 0 && j >= 0 && i < s.slab.face_a.width && j < s.slab.face_a.height && contains(s.slab.truth.ring_a, p);
            const double light = 0.85 + 0.25 * x / s.photo.width;
            for (int k2 = 0; k2 < 3; ++k2) {
                const double floor = 96 + 14 * noise2(p.x / 90, p.y / 90, 4) + (k2 == 2 ? 8 : 0);
                const double base = wood ? s.slab.face_a.at(i, j)[k2] : floor;
                s.photo.at(x, y)[k2] = static_cast<std::uint8_t>(std::clamp(base * light + d.normal(noise), 0.0, 255.0));
            }
        }
    return s;
}

}  // namespace

TEST_CASE("an outline from an askew, noisy photograph of a grown slab", "[vision][accuracy]") {
    for (const std::uint64_t seed : {2, 3, 5, 8}) {
        const Scene s = scene(seed, 1.0, 7);
        PhotoOrder order;
        order.known = KnownRectangle{s.corners, s.wide, s.high};
        const PhotoResult r = slab_from_photo(s.photo, order);
        // Every point of the outline, back in the photograph and from there on the true slab.
        int near = 0;
        int all = 0;
        double worst = 0;
        Ring strewn;  // evenly along the outline, 5 mm apart
        for (std::size_t i = 0; i < r.outline.a.size(); ++i) {
            const Vec2 a = r.outline.a[i];
            const Vec2 b = r.outline.a[(i + 1) % r.outline.a.size()];
            const int n = std::max(1, static_cast<int>(length(b - a) / 5));
            for (int k = 0; k < n; ++k) strewn.push_back(lerp(a, b, static_cast<double>(k) / n));
        }
        for (const Vec2 p : strewn) {
            const auto& h = r.to_photo;
            const double w = h[6] * p.x + h[7] * p.y + h[8];
            const Vec2 px{(h[0] * p.x + h[1] * p.y + h[2]) / w, (h[3] * p.x + h[4] * p.y + h[5]) / w};
            double best = 1e9;
            const Ring& truth = s.slab.truth.ring_a;
            for (std::size_t i = 0; i < truth.size(); ++i) {
                const Vec2 a = truth[i];
                const Vec2 b = truth[(i + 1) % truth.size()];
                const int n = static_cast<int>(length(b - a)) + 1;
                if (length(s.px(a) - px) > 2 * length(s.px(b) - s.px(a)) + 60) continue;
                for (int k = 0; k <= n; ++k) best = std::min(best, length(s.px(lerp(a, b, static_cast<double>(k) / n)) - px));
            }
            near += best <= 3;  // one pixel is one millimetre here
            worst = std::max(worst, best);
            ++all;
        }
        INFO("seed " << seed);
        WARN("seed " << seed << ": " << 100.0 * near / all << " % within 3 mm, worst " << worst << " mm, area off by "
                     << 100 * (area(r.outline.a) / area(s.slab.truth.ring_a) - 1) << " %");
        CHECK(near >= 0.95 * all);
        CHECK(area(r.outline.a) == Approx(area(s.slab.truth.ring_a)).epsilon(0.005));
        CHECK(r.error_mm < 3);
        CHECK(r.place.mm_per_px == 1);
        CHECK(bounds(r.outline.a).low.x == Approx(0).margin(0.01));
    }
}

TEST_CASE("corners in any order, and two known lengths", "[vision]") {
    const Scene s = scene(3, 0.6, 4);
    PhotoOrder order;
    order.mm_per_px = 2;
    order.known = KnownRectangle{{s.corners[2], s.corners[0], s.corners[3], s.corners[1]}, s.wide, s.high};
    const double a = area(slab_from_photo(s.photo, order).outline.a);
    CHECK(a == Approx(area(s.slab.truth.ring_a)).epsilon(0.01));
    order.known = KnownLengths{{s.px({0, 0}), s.px({1400, 0})}, {s.px({700, -150}), s.px({700, 150})}, 1400, 300};
    // Without the perspective it is only near.
    CHECK(area(slab_from_photo(s.photo, order).outline.a) == Approx(a).epsilon(0.15));
}

TEST_CASE("a photograph that gives no slab says why", "[vision]") {
    const Scene s = scene(3, 0.5, 4);
    PhotoOrder order;
    order.mm_per_px = 2;
    order.known = KnownRectangle{{s.corners[0], s.corners[1], (s.corners[0] + s.corners[1]) * 0.5, s.corners[3]}, s.wide, s.high};
    CHECK_THROWS_WITH(slab_from_photo(s.photo, order), Catch::Contains("corners"));
    order.known = KnownRectangle{s.corners, 0, s.high};
    CHECK_THROWS_WITH(slab_from_photo(s.photo, order), Catch::Contains("size"));
    order.known = KnownRectangle{s.corners, s.wide, s.high};
    Picture floor(s.photo.width, s.photo.height);
    Dice d(1, 1);
    for (auto& v : floor.rgb) v = static_cast<std::uint8_t>(100 + d.normal(3));
    CHECK_THROWS_AS(slab_from_photo(floor, order), PhotoError);
    // Two slabs: the same photograph twice, one below the other.
    Picture two(s.photo.width, s.photo.height * 2);
    std::copy(s.photo.rgb.begin(), s.photo.rgb.end(), two.rgb.begin());
    std::copy(s.photo.rgb.begin(), s.photo.rgb.end(), two.rgb.begin() + static_cast<std::ptrdiff_t>(s.photo.rgb.size()));
    order.known = KnownLengths{{Vec2{0, 10}, Vec2{500, 10}}, {Vec2{10, 0}, Vec2{10, 500}}, 1000, 1000};
    CHECK_THROWS_WITH(slab_from_photo(two, order), Catch::Contains("two slabs"));
    CHECK_THROWS_AS(slab_from_photo(Picture(10, 10), order), PhotoError);
}

TEST_CASE("a stroke takes a second slab out", "[vision]") {
    const Scene s = scene(5, 0.5, 4);
    Picture two(s.photo.width, s.photo.height * 2);
    std::copy(s.photo.rgb.begin(), s.photo.rgb.end(), two.rgb.begin());
    std::copy(s.photo.rgb.begin(), s.photo.rgb.end(), two.rgb.begin() + static_cast<std::ptrdiff_t>(s.photo.rgb.size()));
    PhotoOrder order;
    order.mm_per_px = 2;
    order.known = KnownLengths{{Vec2{0, 10}, Vec2{500, 10}}, {Vec2{10, 0}, Vec2{10, 500}}, 1000, 1000};
    const Box b = bounds(s.slab.truth.ring_a);
    const Vec2 down{0, static_cast<double>(s.photo.height)};
    Stroke no;
    no.slab = false;
    no.width_px = 90;
    for (double x = b.low.x; x <= b.high.x; x += 50)
        for (const double y : {b.low.y / 2, 0.0, b.high.y / 2}) no.points_px.push_back(s.px({x, y}) + down);
    order.strokes.push_back(no);
    CHECK(area(slab_from_photo(two, order).outline.a) == Approx(area(s.slab.truth.ring_a)).epsilon(0.15));
}

TEST_CASE("the outlines of both faces are matched, or leant", "[vision]") {
    TracedOutline a;
    a.a = a.b = {{0, -200}, {1000, -180}, {1000, 190}, {0, 210}};
    TracedOutline below;  // the same slab from below: mirrored, 15 mm wider on each side
    below.a = below.b = {{5, -225}, {1005, -205}, {1005, 195}, {5, 215}};
    const TracedOutline both = match_outlines(a, below);
    REQUIRE(both.a.size() == both.b.size());
    const auto at_a = cut_at_x(both.a, 500);
    const auto at_b = cut_at_x(both.b, 500);
    CHECK((at_b[0].to - at_b[0].from) - (at_a[0].to - at_a[0].from) == Approx(30).margin(0.5));
    below.a = {{0, -200}, {900, -180}, {900, 190}, {0, 210}};
    CHECK_THROWS_WITH(match_outlines(a, below), Catch::Contains("1000 and 900 mm long"));
}
