// Heat and cure against published check values, textbook conduction, hand sums and an explicit scheme of the tests' own.
#include <array>
#include <cmath>
#include <numeric>

#include <boost/numeric/odeint.hpp>

#include <catch2/catch.hpp>

#include "core/ground/cure/cure.h"
#include "tests/ground/cure/plain.h"

using namespace yb;

namespace {

const Kinetics slow{40, 300, 1100};
const Kinetics medium{14, 350, 1100};

Section deep(double mm, double air, double width = 0) {
    Section s;
    s.depth_mm = mm, s.air_c = air, s.width_mm = width;
    return s;
}

}  // namespace

TEST_CASE("pours of the formulas paper come out as it has them", "[cure]") {
    struct Row {
        Kinetics k;
        double depth, air, width, peak_c, peak_h, syrup_h, gel_h, margin_c;
    };
    for (const Row& r : {Row{slow, 50, 20, 0, 51.96, 35.90, 29.18, 36.44, 0.05}, Row{slow, 50, 25, 0, 106.6, 21.01, 18.57, 20.59, 0.15},
                         Row{slow, 25, 20, 0, 24.81, 39.48, 32.57, 49.79, 0.02}, Row{slow, 60, 25, 0, 130.7, 18.99, 17.73, 18.74, 0.2},
                         Row{medium, 13, 20, 0, 30.73, 13.34, 10.52, 14.69, 0.05}, Row{slow, 50, 20, 60, 28.21, 38.78, 31.77, 47.29, 0.08},
                         Row{slow, 50, 20, 120, 35.04, 37.41, 30.30, 42.17, 0.08}}) {
        INFO(r.depth << " mm, " << r.air << " °C, " << r.width << " wide");
        const Cured c = cure(r.k, deep(r.depth, r.air, r.width));
        CHECK(c.peak_c == Approx(r.peak_c).margin(r.margin_c));
        CHECK(c.peak_h == Approx(r.peak_h).margin(0.1));
        CHECK(*c.syrup_h == Approx(r.syrup_h).margin(0.03));
        CHECK(*c.gel_h == Approx(r.gel_h).margin(0.06));
        CHECK(*c.cured_h > *c.gel_h);
        CHECK(c.energy_error_pct < 0.1);
        CHECK(c.rise_c == Approx(r.k.heat_kj_kg * 1000 / 1900));
    }
}

TEST_CASE("the slow class has the A that its gel time asks for", "[cure]") {
    CHECK(slow.per_s() == Approx(1.21172e5).epsilon(1e-4));
    CHECK(isothermal_gel_h(slow, 25) == Approx(40).epsilon(1e-9));
    // Arrhenius by hand: ten degrees colder.
    CHECK(isothermal_gel_h(slow, 15) == Approx(40 * std::exp(55000 / 8.314462618 * (1 / 288.15 - 1 / 298.15))).epsilon(1e-9));
}

TEST_CASE("a pour agrees with an explicit scheme of the plainest kind", "[cure]") {
    for (const auto& [k, depth, air] : {std::tuple(slow, 40.0, 22.0), std::tuple(medium, 12.0, 24.0)}) {
        const Plain p = plainly(k.gel_25_h, k.heat_kj_kg, depth, air, 18, 8);
        const Cured c = cure(k, deep(depth, air));
        INFO(depth);
        CHECK(c.peak_c == Approx(p.peak_c).margin(0.15));
        CHECK(c.peak_h == Approx(p.peak_h).margin(0.15));
        // The quick answer is near enough to choose lifts by.
        CHECK(cure(k, deep(depth, air), {3, 0}).peak_c == Approx(p.peak_c).epsilon(0.02));
    }
}

TEST_CASE("held at a temperature it cures as the equation integrated by itself", "[cure]") {
    // A thin film on nothing, the air as good as water: it stays at the air's temperature.
    Section film = deep(0.5, 25);
    film.board_mm = 0;
    film.h = 500;
    const Cured c = cure(slow, film);
    CHECK(*c.gel_h == Approx(40).epsilon(1e-3));
    CHECK(c.peak_c < 25.1);
    // The syrup by an integral of the tests' own.
    double t = 0;
    for (int i = 0; i < 200000; ++i) {
        const double a = 0.25 * (i + 0.5) / 200000;
        t += 0.25 / 200000 / ((0.02 + std::pow(a, 0.9)) * std::pow(1 - a, 1.6));
    }
    const double whole = 4.0381;
    CHECK(*c.syrup_h == Approx(40 * t / whole).epsilon(2e-3));
}

TEST_CASE("held at a temperature it cures as another library integrates it", "[cure]") {
    namespace odeint = boost::numeric::odeint;
    using State = std::array<double, 1>;
    for (const Kinetics& k : {slow, medium, Kinetics{2.5, 420, 1150}})
        for (const double air : {10.0, 20.0, 25.0, 35.0}) {
            INFO(k.gel_25_h << " h at 25 °C, held at " << air << " °C");
            // α to where it was wanted: the time is found by halving what Dormand and Prince's steps overshoot.
            const double scale = std::exp(-55000 / 8.314462618 / (air + 273.15));
            const double a = k.per_s();
            const auto slope = [&](const State& y, State& d, double) {
                const double x = std::clamp(y[0], 0.0, 1.0);
                d[0] = a * scale * (0.02 + std::pow(x, 0.9)) * std::pow(1 - x, 1.6);
            };
            for (const double alpha : {syrup_alpha, gel_alpha, tacky_alpha, 0.9}) {
                auto steps = odeint::make_dense_output(1e-10, 1e-10, odeint::runge_kutta_dopri5<State>());
                steps.initialize(State{0}, 0, 60);
                while (steps.current_state()[0] < alpha) steps.do_step(slope);
                double low = steps.previous_time();
                double high = steps.current_time();
                State y{};
                for (int i = 0; i < 60; ++i) {
                    const double mid = (low + high) / 2;
                    steps.calc_state(mid, y);
                    (y[0] < alpha ? low : high) = mid;
                }
                CHECK(isothermal_h(k, alpha, air) == Approx(high / 3600).epsilon(1e-4));
            }
            // And the section itself, a thin film in air as good as water, follows it.
            Section film = deep(0.5, air);
            film.board_mm = 0;
            film.h = 500;
            film.most_h = 2000;
            CHECK(*cure(k, film).gel_h == Approx(isothermal_gel_h(k, air)).epsilon(3e-3));
        }
}

TEST_CASE("at forty below nothing gels and nothing warms", "[cure]") {
    const Cured c = cure(slow, deep(40, -40));
    CHECK_FALSE(c.gel_h);
    CHECK_FALSE(c.cured_h);
    CHECK(c.peak_c < -39);
    CHECK(c.energy_error_pct < 0.1);
    CHECK(std::isfinite(c.peak_c));
}

TEST_CASE("with no loss at all it rises by H·α/c", "[cure]") {
    Section wrapped = deep(30, 20);
    wrapped.board_mm = 0;
    wrapped.h = 1e-6;
    wrapped.most_h = 400;
    const Cured c = cure(slow, wrapped, {1, 60});
    // Everywhere and always: so much warmer as it is cured.
    REQUIRE(c.frames.size() > 4);
    for (const CureFrame& f : c.frames)
        for (std::size_t i = 0; i < f.temp_c.size(); ++i) CHECK(f.temp_c[i] - 20 == Approx(c.rise_c * f.alpha[i]).margin(0.001 * c.rise_c));
    CHECK(c.peak_c == Approx(20 + c.rise_c).epsilon(0.003));
    CHECK(c.energy_error_pct < 0.1);
}

TEST_CASE("without cure heat goes through as the textbook has it", "[cure]") {
    // A slab that starts warm and cools at both faces, Biot number 0.2·… : against its first two series terms.
    Kinetics inert{1e6, 1e-6, 1100};
    Section s = deep(50, 20);
    s.board_mm = 0;
    s.h = 40;
    s.start_c = 60;
    s.most_h = 1;
    const Cured c = cure(inert, s, {1, 60});
    const double half = 0.025;
    const double biot = 40 * half / 0.20;
    // Roots of ζ·tan ζ = Bi by halving.
    const auto root = [&](double low, double high) {
        for (int i = 0; i < 80; ++i) {
            const double mid = (low + high) / 2;
            (mid * std::tan(mid) < biot ? low : high) = mid;
        }
        return (low + high) / 2;
    };
    const CureFrame& last = c.frames.back();
    double series = 0;
    for (int k = 0; k < 4; ++k) {
        const double z = root(k * M_PI + 1e-9, k * M_PI + M_PI / 2 - 1e-9);
        const double fourier = 0.20 / (1100.0 * 1900) * last.h * 3600 / (half * half);
        series += 4 * std::sin(z) / (2 * z + std::sin(2 * z)) * std::exp(-z * z * fourier);
    }
    CHECK(last.temp_c[c.z.size() / 2] == Approx(20 + 40 * series).margin(0.05));
}

TEST_CASE("finer grids and steps change the peak by less than a degree", "[cure]") {
    for (const double air : {20.0, 25.0})
        CHECK(std::abs(cure(slow, deep(50, air)).peak_c - cure(slow, deep(50, air), {0.5, 0}).peak_c) < 1);
    CHECK(std::abs(cure(slow, deep(40, 22, 90)).peak_c - cure(slow, deep(40, 22, 90), {2, 0}).peak_c) < 1);
}

TEST_CASE("what a section hangs on goes the way a maker knows it to", "[cure][T4]") {
    const auto peak = [](Section s) { return cure(slow, s, {2, 0}).peak_c; };
    const double plain = peak(deep(50, 20));
    CHECK(plain == Approx(52).margin(0.5));
    Section s = deep(50, 20);
    s.h = 7;
    CHECK(peak(s) == Approx(62.9).margin(0.5));
    s.h = 10;
    CHECK(peak(s) == Approx(41.1).margin(0.4));
    s = deep(50, 20);
    s.board_mm = 0;
    CHECK(peak(s) == Approx(33).margin(0.5));
    s.board_mm = 25;
    CHECK(peak(s) == Approx(60).margin(0.7));
    CHECK(peak(deep(50, 21)) - peak(deep(50, 20)) > 5);  // near running away
    CHECK(peak(deep(50, 20, 60)) < peak(deep(50, 20, 120)));
    CHECK(peak(deep(50, 20, 120)) < plain);
    // Cold nights stretch it.
    s = deep(30, 20);
    const double warm = *cure(slow, s, {2, 0}).gel_h;
    s.night_c = 8;
    CHECK(*cure(slow, s, {2, 0}).gel_h > warm + 5);
}

TEST_CASE("frames run through the hours and hold heat and cure", "[cure]") {
    const Cured c = cure(slow, deep(40, 22, 80), {3, 40});
    REQUIRE(c.frames.size() > 10);
    CHECK(c.frames.size() <= 80);
    CHECK(c.frames.front().h == 0);
    double hottest = 0;
    for (std::size_t i = 0; i < c.frames.size(); ++i) {
        REQUIRE(c.frames[i].temp_c.size() == c.x.size() * c.z.size());
        if (i > 0) CHECK(c.frames[i].h > c.frames[i - 1].h);
        for (const double t : c.frames[i].temp_c) hottest = std::max(hottest, t);
    }
    CHECK(hottest == Approx(c.peak_c).margin(1));
    CHECK(c.z.front() == Approx(-18));
    CHECK(c.z.back() == Approx(40));
}

TEST_CASE("two lifts stay cooler than one, and the first warms under the second", "[cure][T4]") {
    const auto one = cure_lifts(slow, deep(50, 22), {50});
    const auto two = cure_lifts(slow, deep(25, 22), {25, 25});
    REQUIRE(two.size() == 2);
    CHECK(one[0].peak_c == Approx(cure(slow, deep(50, 22)).peak_c).margin(1.5));
    CHECK(two[0].peak_c < one[0].peak_c);
    CHECK(two[1].peak_c < one[0].peak_c);
    CHECK(two[0].poured_h == 0);
    CHECK(two[1].poured_h == Approx(*two[0].gel_h).margin(0.5));
    CHECK(*two[0].tacky_h > *two[0].gel_h);
}

TEST_CASE("a cup gels in the pot life of the formulas paper, and a label's is fitted by turning A", "[cure]") {
    struct Row {
        Kinetics k;
        double mass_g, cm2, hours, temp_c;
    };
    for (const Row& r : {Row{slow, 1000, 550, 33.34, 28.5}, Row{medium, 500, 350, 7.405, 62.6}, Row{{5, 400, 1100}, 200, 190, 1.808, 115.9},
                         Row{{2.5, 420, 1100}, 100, 120, 0.792, 132}}) {
        const Cup cup{r.mass_g, r.cm2, 25};
        const CupLife life = pot_life(r.k, cup);
        CHECK(life.pot_life_h == Approx(r.hours).epsilon(1e-3));
        CHECK(life.temp_c == Approx(r.temp_c).margin(0.15));
        CHECK(gel_25_for(life.pot_life_h, cup, r.k.heat_kj_kg) == Approx(r.k.gel_25_h).epsilon(1e-3));
    }
    CHECK(pot_life(medium, {2000, 0, 25}).pot_life_h < pot_life(medium, {200, 0, 25}).pot_life_h);
    CHECK_THROWS_AS(pot_life(medium, {0, 0, 25}), std::invalid_argument);
}

TEST_CASE("how far a resin creeps before it gels", "[cure][T3]") {
    CHECK(creep_mm(0.1, 40, 0.3, 12) == Approx(322).margin(0.5));
    CHECK(creep_mm(0.1, 40, 1, 2) == Approx(72).margin(0.5));
    CHECK(creep_mm(0.1, 40, 10, 0.3) == Approx(9).margin(0.5));
}

TEST_CASE("a section of nothing is refused", "[cure]") {
    CHECK_THROWS_AS(cure(slow, deep(0, 20)), std::invalid_argument);
    CHECK_THROWS_AS(cure(slow, deep(10, 200)), std::invalid_argument);
    CHECK_THROWS_AS(cure({0, 300, 1100}, deep(10, 20)), std::invalid_argument);
    Section s = deep(10, 20, 50);
    s.banks_mm = 0;
    CHECK_THROWS_AS(cure(slow, s), std::invalid_argument);
    s = deep(10, 20);
    s.h = 0;
    CHECK_THROWS_AS(cure(slow, s), std::invalid_argument);
}
