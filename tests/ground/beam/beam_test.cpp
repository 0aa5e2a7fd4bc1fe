#include <functional>

#include <Eigen/Sparse>
#include <catch2/catch.hpp>

#include "core/ground/beam/beam.h"

using namespace yb;

namespace {
Plank board() { return plank_of({{0, -450}, {2000, -450}, {2000, 450}, {0, 450}}, 45, 11600, 610); }
}  // namespace

TEST_CASE("a plank on two supports bends as the handbooks have it", "[beam]") {
    const Plank plain = board();
    SECTION("the check values of a rectangle") {
        const Bent b = bend(plain, 400, 1600, {{1000, 1000}});
        CHECK(b.at(1000) == Approx(0.4926).margin(1e-4));
        CHECK(b.at(0) == Approx(-0.4737).margin(1e-4));
        CHECK(b.at(2000) == Approx(-0.4737).margin(1e-4));
        CHECK(bend(plain, 400, 1600).at(1000) == Approx(0.0385).margin(1e-4));
        CHECK(bend(plain, 200, 1800, {{1000, 1000}}).at(1000) == Approx(1.3177).margin(2e-4));
    }
    SECTION("5wL⁴/384EI and PL³/48EI") {
        Plank p{{0, 1000}, {500, 500}, 30, 10000, 600};
        const double inertia = 500 * 27000 / 12.0;
        const double w = 600e-9 * 9.80665 * 500 * 30;
        CHECK(bend(p, 0, 1000).at(500) == Approx(5 * w * 1e12 / (384 * 10000 * inertia)).epsilon(1e-5));
        p.kg_m3 = 0;
        CHECK(bend(p, 0, 1000, {{500, 700}}).at(500) == Approx(700 * 1e9 / (48 * 10000 * inertia)).epsilon(1e-5));
        // Off the middle at a: P·a²·b²/(3·E·I·L) under the load.
        CHECK(bend(p, 0, 1000, {{300, 700}}).at(300) == Approx(700.0 * 300 * 300 * 700 * 700 / (3 * 10000 * inertia * 1000)).epsilon(1e-5));
        // An overhang: P at its end a beyond the support, P·a²(L+a)/(3EI).
        CHECK(bend(p, 0, 700, {{1000, 100}}).at(1000) == Approx(100.0 * 300 * 300 * (700 + 300) / (3 * 10000 * inertia)).epsilon(1e-5));
        CHECK(bend(p, 700, 0, {{1000, 100}}).at(1000) == Approx(100.0 * 300 * 300 * 1000 / (3 * 10000 * inertia)).epsilon(1e-5));
    }
    SECTION("a width that tapers") {
        const Plank p = plank_of({{0, -500}, {2000, -400}, {2000, 400}, {0, 500}}, 45, 11600, 610);
        CHECK(bend(p, 300, 1700, {{1000, 1000}}).at(1000) == Approx(0.8408).margin(2e-4));
    }
    SECTION("two pushes are the sum of each") {
        Plank p = plain;
        p.kg_m3 = 0;
        const Bent both = bend(p, 300, 1500, {{700, 400}, {1900, 300}});
        for (const double x : {0.0, 500.0, 1100.0, 1990.0})
            CHECK(both.at(x) == Approx(bend(p, 300, 1500, {{700, 400}}).at(x) + bend(p, 300, 1500, {{1900, 300}}).at(x)).margin(1e-9));
        CHECK(both.at(300) == Approx(0).margin(1e-12));
        CHECK(both.at(1500) == Approx(0).margin(1e-12));
        CHECK(std::abs(both.most_mm()) > 0.01);
    }
}

TEST_CASE("a plank of any width goes down as finite elements have it, to a hundredth", "[beam]") {
    // Hermite elements, two unknowns a node, each with the width half-way along it.
    const auto elements = [](const auto& width, double length, double thick, double moe, double kg_m3, double s1, double s2, double at,
                             double push) {
        constexpr int n = 400;
        const double h = length / n;
        Eigen::SparseMatrix<double> k(2 * (n + 1), 2 * (n + 1));
        Eigen::VectorXd f = Eigen::VectorXd::Zero(2 * (n + 1));
        std::vector<Eigen::Triplet<double>> all;
        for (int e = 0; e < n; ++e) {
            const double w = width((e + 0.5) * h);
            const double ei = moe * w * std::pow(thick, 3) / 12 / (h * h * h);
            const double m[4][4] = {{12, 6 * h, -12, 6 * h},
                                    {6 * h, 4 * h * h, -6 * h, 2 * h * h},
                                    {-12, -6 * h, 12, -6 * h},
                                    {6 * h, 2 * h * h, -6 * h, 4 * h * h}};
            for (int i = 0; i < 4; ++i)
                for (int j = 0; j < 4; ++j) all.emplace_back(2 * e + i, 2 * e + j, ei * m[i][j]);
            const double load = kg_m3 * 1e-9 * 9.80665 * w * thick * h;
            const double part[4] = {load / 2, load * h / 12, load / 2, -load * h / 12};
            for (int i = 0; i < 4; ++i) f[2 * e + i] += part[i];
        }
        const auto node = [&](double x) { return static_cast<int>(std::lround(x / h)); };
        f[2 * node(at)] += push;
        for (const double s : {s1, s2}) all.emplace_back(2 * node(s), 2 * node(s), 1e12);  // held
        k.setFromTriplets(all.begin(), all.end());
        Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solve(k);
        const Eigen::VectorXd y = solve.solve(f);
        std::vector<double> out;
        for (int i = 0; i <= n; ++i) out.push_back(y[2 * i]);
        return out;
    };
    // An edge that waves, a waist, and a taper.
    const std::vector<std::function<double(double)>> shapes{[](double x) { return 800 + 90 * std::sin(x / 190) + 40 * std::sin(x / 61); },
                                                            [](double x) { return 900 - 350 * std::exp(-std::pow((x - 900) / 220, 2)); },
                                                            [](double x) { return 500 + 0.2 * x; }};
    for (const auto& width : shapes) {
        Plank p;
        for (int i = 0; i <= 400; ++i) p.x_mm.push_back(5.0 * i), p.width_mm.push_back(width(5.0 * i));
        p.thickness_mm = 42, p.moe_mpa = 10200, p.kg_m3 = 640;
        const Bent b = bend(p, 300, 1650, {{1000, 1000}});
        const auto y = elements(width, 2000, 42, 10200, 640, 300, 1650, 1000, 1000);
        double most = 0;
        for (const double d : y) most = std::max(most, std::abs(d));
        for (int i = 0; i <= 400; i += 10) CHECK(b.at(5.0 * i) == Approx(y[static_cast<std::size_t>(i)]).margin(0.01 * most));
        CHECK(b.at(1000) == Approx(y[200]).epsilon(0.01));
    }
}

TEST_CASE("what can't be bent is refused", "[beam]") {
    CHECK_THROWS_AS(bend(board(), 500, 500), std::invalid_argument);
    CHECK_THROWS_AS(bend(board(), -10, 500), std::invalid_argument);
    CHECK_THROWS_AS(bend(board(), 10, 2500), std::invalid_argument);
    CHECK_THROWS_AS(bend(board(), 10, 500, {{3000, 1}}), std::invalid_argument);
    CHECK_THROWS_AS(bend(Plank{{0}, {1}, 10, 10, 0}, 0, 1), std::invalid_argument);
    CHECK_THROWS_AS(plank_of({{0, 0}, {0, 1}, {0, 2}}, 1, 1, 1), std::invalid_argument);
    Plank thin = board();
    thin.thickness_mm = 0;
    CHECK_THROWS_AS(bend(thin, 10, 500), std::invalid_argument);
}
