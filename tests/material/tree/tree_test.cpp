// Grown logs: repeatable, true to their own numbers, and like wood where that can be checked.
#include <cmath>
#include <numbers>

#include <catch2/catch.hpp>

#include "core/material/tree/saw.h"
#include "core/material/wood/wood.h"
#include "tests/everything.h"

using namespace yb;

namespace {

LogRecipe plain(double butt = 600, double top = 600) {
    LogRecipe r;
    r.butt_mm = butt, r.top_mm = top;
    r.sweep_mm = r.wander_mm = r.flare_mm = r.out_of_round = r.spiral_deg = 0;
    r.end_check_mm = 0;
    return r;
}

std::vector<SawnSlab> eight(std::uint64_t seed, FaceOrder faces = {}) {
    const GrownLog log(drawn_recipe(seed, "sycamore, American", 3000, 640));
    SawPlan saw;
    saw.thickness_mm = 56;
    return make_slabs(log, saw, {}, faces);
}

}  // namespace

TEST_CASE("the same seed grows the same slabs bit for bit, on one core or many", "[tree]") {
    const GrownLog log(drawn_recipe(7, "butternut", 1200, 420));
    const auto a = make_slabs(log, {}, {}, {4, true}, {{}, {}, 1});
    const auto b = make_slabs(GrownLog(drawn_recipe(7, "butternut", 1200, 420)), {}, {}, {4, true}, {{}, {}, 3});
    REQUIRE(a.size() > 2);
    REQUIRE(a.size() == b.size());
    for (std::size_t i = 0; i < a.size(); ++i) {
        CHECK(a[i].slab == b[i].slab);
        CHECK(a[i].face_a == b[i].face_a);
        CHECK(a[i].face_b == b[i].face_b);
    }
    const auto c = make_slabs(GrownLog(drawn_recipe(8, "butternut", 1200, 420)), {}, {}, {4, true});
    CHECK_FALSE(a[0].face_a == c[0].face_a);
}

TEST_CASE("growing can be stopped and tells how far it is", "[tree]") {
    const GrownLog log(drawn_recipe(3, "butternut", 1200, 420));
    double told = 0;
    make_slabs(log, {}, {}, {8, true}, {[&](double s) { told = s; }, {}, 2});
    CHECK(told == 1);
    std::stop_source stop;
    stop.request_stop();
    CHECK_THROWS_AS(make_slabs(log, {}, {}, {1, true}, {{}, stop.get_token(), 2}), Cancelled);
}

TEST_CASE("a straight round log has the sections of a cylinder", "[tree]") {
    LogRecipe r = plain();
    const GrownLog log(r);
    double girth = 0;
    for (int i = 0; i < 360; ++i) girth += log.radius(1500, (i - 180) * std::numbers::pi / 180) / 360;
    CHECK(girth == Approx(300).epsilon(0.02));
    const auto boards = boards_of(log, {});
    REQUIRE_FALSE(boards.empty());
    for (const Board& b : boards) {
        const SawnSlab s = make_slab(log, b, {}, {30, 0, 0, 0, 200, 120}, {});  // 30 %: nothing has shrunk yet
        const double h = std::abs(b.origin.z + b.thickness_mm);
        const auto cut = cut_at_x(s.truth.ring_a, 1500);
        REQUIRE(cut.size() == 1);
        CHECK(cut[0].to - cut[0].from == Approx(2 * std::sqrt(300 * 300 - h * h)).epsilon(0.035));  // the bark is never smooth
        CHECK(s.across == Approx(1));
    }
}

TEST_CASE("years rise from pith to bark and a branch is younger where it leaves the pith later", "[tree]") {
    LogRecipe r = plain();
    r.branches.push_back({1500, 90, 20, 10, 0, 0.9, 90, false});
    const GrownLog log(r);
    const Vec2 c = log.pith(700);
    double before = -1;
    for (double d = 0; d < 295; d += 5) {
        const double year = log.at({700, c.x + d, c.y}).year;
        CHECK(year > before);
        before = year;
    }
    CHECK(before > 74);
    // Along the branch's axis its own wood is found.
    const Vec3 d = log.branch_direction(0);
    const Vec3 s = log.branch_start(0);
    const auto h = log.at({s.x + d.x * 220, s.y + d.y * 220, s.z + d.z * 220});
    CHECK(h.branch == 0);
    CHECK(h.branch_year == Approx(10 + 220 / 90.0));
    CHECK(std::hypot(d.x, d.y, d.z) == Approx(1));
    CHECK(d.z > 0.9);  // bearing 90° points up
}

TEST_CASE("a dead branch is swallowed, a live one reaches the bark", "[tree]") {
    for (const double died : {0.0, 25.0}) {
        LogRecipe r = plain();
        r.branches.push_back({1500, 0, 5, 3, died, 0.8, 90, false});
        const GrownLog log(r);
        const Vec3 d = log.branch_direction(0);
        const Vec3 s = log.branch_start(0);
        const auto near_bark = log.at({s.x + d.x * 285, s.y + d.y * 285, s.z + d.z * 285});
        INFO(died);
        CHECK((near_bark.branch == 0) == (died == 0));
    }
}

TEST_CASE("boards lie a kerf apart and keep inside the log", "[tree]") {
    for (const SawPattern pattern : {SawPattern::through, SawPattern::quarter, SawPattern::cant, SawPattern::round}) {
        const GrownLog log(drawn_recipe(5, "oak, white", 2000, 560));
        SawPlan saw;
        saw.pattern = pattern;
        saw.turn_deg = 20;
        const auto boards = boards_of(log, saw);
        INFO(static_cast<int>(pattern));
        REQUIRE(boards.size() >= 4);
        for (const Board& b : boards) {
            CHECK(b.ex.x * b.ey.x + b.ex.y * b.ey.y + b.ex.z * b.ey.z == Approx(0).margin(1e-12));
            CHECK(b.thickness_mm == saw.thickness_mm);
            const SawnSlab s = make_slab(log, b, saw, {}, {});
            CHECK(s.truth.usable);
            CHECK(signed_area(s.truth.ring_a) > 0);
            CHECK(s.truth.ring_a.size() == s.truth.ring_b.size());
            CHECK_FALSE(self_crossing(s.truth.ring_a));
            CHECK(shape_of(s.slab).usable);
        }
        if (pattern == SawPattern::through)
            for (std::size_t i = 1; i < boards.size(); ++i) {
                const Vec3 d{boards[i].origin.x - boards[i - 1].origin.x, boards[i].origin.y - boards[i - 1].origin.y,
                             boards[i].origin.z - boards[i - 1].origin.z};
                CHECK(std::hypot(d.x, d.y, d.z) == Approx(saw.thickness_mm + saw.kerf_mm));
            }
    }
}

TEST_CASE("the faces the saw parted look alike, faces further off do not", "[tree]") {
    const auto slabs = eight(11, {4, true});
    REQUIRE(slabs.size() >= 6);
    // Difference of brightness over the middle of two pictures, after taking out each one's mean.
    const auto unlike = [](const Picture& a, const Picture& b) {
        const int w = std::min(a.width, b.width);
        const int h = std::min(a.height, b.height);
        const auto bright = [](const Picture& p, int x, int y) {
            const auto* c = p.at(x + (p.width) / 2, y + p.height / 2);
            return (c[0] + c[1] + c[2]) / 3.0;
        };
        double sa = 0;
        double sb = 0;
        double saa = 0;
        double sbb = 0;
        double sab = 0;
        double n = 0;
        for (int y = -h / 4; y < h / 4; ++y)
            for (int x = -w / 3; x < w / 3; ++x) {
                const double p = bright(a, x, y);
                const double q = bright(b, x, y);
                sa += p, sb += q, saa += p * p, sbb += q * q, sab += p * q, n += 1;
            }
        const double cov = sab / n - sa / n * sb / n;
        return 1 - cov / std::sqrt((saa / n - sa / n * sa / n) * (sbb / n - sb / n * sb / n));
    };
    const double parted = unlike(slabs[1].face_a, slabs[2].face_b);
    const double across = unlike(slabs[2].face_b, slabs[2].face_a);
    CHECK(parted < across);
}

TEST_CASE("a flat-sawn board cups away from the heart, a quartered one does not", "[tree]") {
    const GrownLog log(plain());
    Board flat;
    flat.ex = {1, 0, 0}, flat.ey = {0, 1, 0}, flat.ez = {0, 0, 1};
    flat.x1 = 3000;
    flat.thickness_mm = 50;
    const Vec2 c = log.pith(1500);
    flat.origin = {0, c.x, c.y + 120};  // pith 120 mm below its lower face
    const double up = cup_curvature(log, flat, 1500, 0 + 60, 8);
    CHECK(up > 0);  // edges rise on the bark side
    // By hand at y = 60: s(z) = (S_T − (S_T − S_R)·y²/(y² + h²))·22/30, h = 120 + z, ∫ by fine sums.
    const Species& s = *find_species("sycamore, American");
    double sum = 0;
    constexpr int n = 20000;
    for (int i = 0; i < n; ++i) {
        const double z = 50.0 * (i + 0.5) / n;
        const double h = 120 + z;
        const double radial = 60.0 * 60 / (60 * 60 + h * h);
        sum += (*s.shrink_tangential_pct * (1 - radial) + *s.shrink_radial_pct * radial) / 100 * 22 / 30 * (z - 25) * 50 / n;
    }
    CHECK(up == Approx(12 / std::pow(50.0, 3) * sum).epsilon(1e-4));
    flat.origin = {0, c.x, c.y - 25};  // the pith in its middle
    CHECK(std::abs(cup_curvature(log, flat, 1500, 0, 8)) < 1e-9);
}

TEST_CASE("what a maker measures adds up to what is so", "[tree]") {
    for (const SawnSlab& s : eight(21)) {
        const SlabShape shape = shape_of(s.slab);
        REQUIRE(shape.usable);
        double worst = 0;
        const Box b = bounds(s.truth.ring_a);
        for (double x = 200; x < s.truth.x1 - 200; x += 150)
            for (double y = b.low.y + 60; y < b.high.y - 60; y += 60)
                if (contains(s.truth.ring_a, {x, y}) && contains(s.truth.ring_b, {x, y}))
                    worst = std::max(worst, std::abs(shape.thickness_at({x, y}) - s.truth.thickness_at({x, y})));
        INFO(s.slab.name);
        CHECK(worst < 2.5);  // readings carry 0.3 mm of noise each, and the grid leaves gaps between them
    }
}

TEST_CASE("volume of a slab from a tape every 300 mm, on twenty grown slabs", "[tree][accuracy]") {
    double sum = 0;
    double worst = 0;
    int n = 0;
    for (const std::uint64_t seed : {1, 2, 3, 4}) {
        const auto all = eight(seed);
        for (std::size_t i = 1; i < all.size() && i < 6; ++i) {
            // The same slab as a tape reads it: both edges on both faces at each station, to the millimetre.
            Slab tape = all[i].slab;
            tape.outline.reset();
            tape.picture_a.reset();
            for (Station& st : tape.tape.stations) {
                const double x = std::clamp(st.x_mm, 1.0, all[i].truth.x1 - 1);
                const auto a = cut_at_x(all[i].truth.ring_a, x);
                const auto b = cut_at_x(all[i].truth.ring_b, x);
                REQUIRE((!a.empty() && !b.empty()));
                st.left_mm = std::round(a.back().to), st.right_mm = std::round(-a.front().from);
                st.other_left_mm = std::round(b.back().to), st.other_right_mm = std::round(-b.front().from);
            }
            const auto volume = [](const SlabShape& s) {
                return (area(s.ring_b) + 4 * area(s.ring_at(0.5)) + area(s.ring_a)) / 6 * means_of(s).thickness_mm;
            };
            const double error = std::abs(volume(shape_of(tape)) / volume(all[i].truth) - 1);
            sum += error;
            worst = std::max(worst, error);
            ++n;
        }
    }
    WARN("tape every 300 mm, " << n << " slabs: volume off by " << 100 * sum / n << " % on average, " << 100 * worst << " % at most");
    CHECK(n == 20);
    CHECK(worst < 0.02);
}

TEST_CASE("knots and cracks are found where they show", "[tree]") {
    LogRecipe r = plain();
    r.branches.push_back({1500, 90, 10, 3, 0, 0.9, 90, false});
    r.end_check_mm = 200;
    const GrownLog log(r);
    SawPlan saw;
    for (const Board& b : boards_of(log, saw)) {
        const SawnSlab s = make_slab(log, b, saw, {}, {});
        const bool above = b.origin.z > 20;  // the branch goes straight up from the pith
        int knots = 0;
        for (const Flaw& f : s.slab.flaws) {
            if (f.kind != FlawKind::knot) continue;
            ++knots;
            CHECK(centroid(f.outline).x == Approx(1500).margin(110));
        }
        INFO(b.number);
        if (above) CHECK(knots >= 1);  // a knot cut by the bark may show on one face only
        if (b.origin.z + b.thickness_mm < -20) CHECK(knots == 0);
    }
}

TEST_CASE("a recipe that grows nothing is refused", "[tree]") {
    LogRecipe r;
    r.length_mm = 0;
    CHECK_THROWS_AS(GrownLog(r), std::invalid_argument);
    r = LogRecipe();
    r.years = 0;
    CHECK_THROWS_AS(GrownLog(r), std::invalid_argument);
    SawPlan saw;
    saw.thickness_mm = 0;
    CHECK_THROWS_AS(boards_of(GrownLog(LogRecipe()), saw), std::invalid_argument);
}
