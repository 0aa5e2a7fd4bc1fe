// Other aims than the thickest slab, against GLPK on random slabs: least off the show face, least wood, one tilt for two.
#include <random>

#include <catch2/catch.hpp>

#include "core/steps/flat/tilt.h"
#include "tests/steps/flat/warped.h"
#include "tests/truth/glpk.h"

using namespace yb;

namespace {

/// The wood that two planes take off a piece, mm over its area: Σ w·max(z − plane, 0) of both faces over Σ w.
double taken_mm(const WeighedFace& top, const WeighedFace& bottom, const Tilt& t) {
    const auto face = [](const WeighedFace& f, auto over) {
        double sum = 0, all = 0;
        for (std::size_t i = 0; i < f.places.size(); ++i) sum += f.weight[i] * std::max(0.0, over(f.places[i])), all += f.weight[i];
        return sum / all;
    };
    return face(top,
                [&](const Vec3& p) {
                    return p.z - t.top_at({p.x, p.y});
                }) +
           face(bottom, [&](const Vec3& p) {
               return t.bottom_at({p.x, p.y}) - p.z;
           });
}

/// A linear program row by row.
class Lp {
  public:
    Lp(int columns, int direction) : lp_(glp_create_prob()) {
        glp_term_out(GLP_OFF);
        glp_set_obj_dir(lp_, direction);
        glp_add_cols(lp_, columns);
        for (int k = 1; k <= columns; ++k) glp_set_col_bnds(lp_, k, GLP_FR, 0, 0);
    }
    ~Lp() { glp_delete_prob(lp_); }
    Lp(const Lp&) = delete;
    Lp& operator=(const Lp&) = delete;
    void bounded(int column, double low, double high) { glp_set_col_bnds(lp_, column, GLP_DB, low, high); }
    void positive(int column) { glp_set_col_bnds(lp_, column, GLP_LO, 0, 0); }
    void objective(int column, double c) { glp_set_obj_coef(lp_, column, c); }
    /// Σ value·x ≤ limit
    void row(std::vector<std::pair<int, double>> terms, double limit) {
        std::vector<int> index{0};
        std::vector<double> value{0};
        for (const auto& [i, v] : terms) index.push_back(i), value.push_back(v);
        const int r = glp_add_rows(lp_, 1);
        glp_set_row_bnds(lp_, r, GLP_UP, 0, limit);
        glp_set_mat_row(lp_, r, static_cast<int>(terms.size()), index.data(), value.data());
    }
    double solve() {
        glp_smcp how;
        glp_init_smcp(&how);
        how.tol_bnd = how.tol_dj = 1e-10;
        glp_scale_prob(lp_, GLP_SF_AUTO);
        REQUIRE(glp_simplex(lp_, &how) == 0);
        REQUIRE(glp_get_status(lp_) == GLP_OPT);
        return glp_get_obj_val(lp_);
    }

  private:
    glp_prob* lp_;
};

// Tilts in thousandths, so that GLPK's numbers stay of one size.
constexpr double k = 1000;

}  // namespace

TEST_CASE("least off the show face is what a general solver finds, on a hundred slabs", "[flat][aims][T11]") {
    for (unsigned seed = 1; seed <= 100; ++seed) {
        const Faces f = warped(seed, 60);
        const Tilt best = best_tilt(f.top, f.bottom);
        const double want = best.thickness_mm * best.slope_factor() - 2;
        Lp lp(4, GLP_MIN);  // a, b, h, m: m − h
        lp.bounded(1, -0.5 * k, 0.5 * k), lp.bounded(2, -0.5 * k, 0.5 * k);
        lp.objective(3, -1), lp.objective(4, 1);
        for (const Vec3& p : f.top) {
            lp.row({{1, p.x / k}, {2, p.y / k}, {3, 1}}, p.z);
            lp.row({{1, -p.x / k}, {2, -p.y / k}, {4, -1}}, -p.z);
        }
        for (const Vec3& p : f.bottom) lp.row({{1, -p.x / k}, {2, -p.y / k}, {3, -1}}, -p.z - want);
        const Tilt mine = least_off_top(f.top, f.bottom, want);
        double most = 0;
        for (const Vec3& p : f.top) most = std::max(most, p.z - mine.top_at({p.x, p.y}));
        INFO("seed " << seed);
        CHECK(most == Approx(lp.solve()).margin(1e-6));
    }
}

TEST_CASE("least wood off the whole piece is what a general solver finds, on a hundred slabs", "[flat][aims]") {
    for (unsigned seed = 1; seed <= 100; ++seed) {
        Faces f = warped(seed, 30);
        // The piece reaches beyond the top: places there count for the wood, not for the cleaning.
        WeighedFace top{f.top, {}};
        WeighedFace bottom{f.bottom, {}};
        std::mt19937 random(seed + 1000);
        const auto u = [&] { return static_cast<double>(random()) / 4294967296.0; };
        for (int i = 0; i < 20; ++i) {
            top.places.push_back({2400 * u() + (i % 2 ? 300 : -300), 900 * (u() - 0.5), 52 + 8 * u()});
            bottom.places.push_back({2400 * u(), 1200 * (u() - 0.5), 4 * u() - 2});
        }
        for (std::size_t i = 0; i < top.places.size(); ++i) top.weight.push_back(0.5 + u());
        for (std::size_t i = 0; i < bottom.places.size(); ++i) bottom.weight.push_back(0.5 + u());
        const Tilt best = best_tilt(f.top, f.bottom);
        const double want = best.thickness_mm * best.slope_factor() - 3;
        const auto n = static_cast<int>(top.places.size());
        const auto m = static_cast<int>(bottom.places.size());
        double wt = 0;
        double wb = 0;
        for (const double w : top.weight) wt += w;
        for (const double w : bottom.weight) wb += w;
        Lp lp(3 + n + m, GLP_MIN);
        lp.bounded(1, -0.5 * k, 0.5 * k), lp.bounded(2, -0.5 * k, 0.5 * k);
        for (int i = 0; i < n; ++i) {
            const Vec3& p = top.places[static_cast<std::size_t>(i)];
            lp.positive(4 + i);
            lp.objective(4 + i, top.weight[static_cast<std::size_t>(i)] / wt);
            lp.row({{1, -p.x / k}, {2, -p.y / k}, {3, -1}, {4 + i, -1}}, -p.z);  // over ≥ z − h − ax − by
        }
        for (int i = 0; i < m; ++i) {
            const Vec3& p = bottom.places[static_cast<std::size_t>(i)];
            lp.positive(4 + n + i);
            lp.objective(4 + n + i, bottom.weight[static_cast<std::size_t>(i)] / wb);
            lp.row({{1, p.x / k}, {2, p.y / k}, {3, 1}, {4 + n + i, -1}}, p.z + want);
        }
        for (const Vec3& p : f.top) lp.row({{1, p.x / k}, {2, p.y / k}, {3, 1}}, p.z);
        for (const Vec3& p : f.bottom) lp.row({{1, -p.x / k}, {2, -p.y / k}, {3, -1}}, -p.z - want);
        const Tilt mine = least_wood(f.top, f.bottom, top, bottom, want);
        INFO("seed " << seed << ", " << mine.rounds << " rounds");
        CHECK(taken_mm(top, bottom, mine) == Approx(lp.solve()).margin(1e-6));
        CHECK(mine.top_mm - mine.bottom_mm == Approx(want));
        for (const Vec3& p : f.top) REQUIRE(p.z >= mine.top_at({p.x, p.y}) - 1e-6);
        for (const Vec3& p : f.bottom) REQUIRE(p.z <= mine.bottom_at({p.x, p.y}) + 1e-6);
    }
    const Faces f = warped(3, 30);
    const WeighedFace top{f.top, std::vector<double>(f.top.size(), 1)};
    const WeighedFace bottom{f.bottom, std::vector<double>(f.bottom.size(), 1)};
    CHECK(least_wood(f.top, f.bottom, top, bottom, 500).thickness_mm == Approx(best_tilt(f.top, f.bottom).thickness_mm));
    CHECK_THROWS_AS(least_wood(f.top, f.bottom, {f.top, {}}, bottom, 40), std::invalid_argument);
}

TEST_CASE("one tilt for a pair is what a general solver finds, on a hundred pairs", "[flat][aims]") {
    for (unsigned seed = 1; seed <= 100; ++seed) {
        const Faces one = warped(seed, 40);
        const Faces two = warped(seed + 500, 40);
        const double sa = seed % 2 ? -1 : 1;
        const double sb = seed % 3 ? 1 : -1;
        const std::vector<SlabReadings> pair{{one.top, one.bottom, 1, 1}, {two.top, two.bottom, sa, sb}};
        Lp lp(7, GLP_MAX);  // a, b, h1, g1, h2, g2, t
        lp.bounded(1, -0.5 * k, 0.5 * k), lp.bounded(2, -0.5 * k, 0.5 * k);
        lp.objective(7, 1);
        int column = 3;
        for (const SlabReadings& s : pair) {
            for (const Vec3& p : s.top) lp.row({{1, s.sign_a * p.x / k}, {2, s.sign_b * p.y / k}, {column, 1}}, p.z);
            for (const Vec3& p : s.bottom) lp.row({{1, -s.sign_a * p.x / k}, {2, -s.sign_b * p.y / k}, {column + 1, -1}}, -p.z);
            lp.row({{7, 1}, {column, -1}, {column + 1, 1}}, 0);
            column += 2;
        }
        const auto mine = shared_tilt(pair);
        REQUIRE(mine.size() == 2);
        INFO("seed " << seed);
        const double least = std::min(mine[0].top_mm - mine[0].bottom_mm, mine[1].top_mm - mine[1].bottom_mm);
        CHECK(least == Approx(lp.solve()).margin(1e-6));
        CHECK(mine[1].a == Approx(sa * mine[0].a).margin(1e-12));
        CHECK(mine[1].b == Approx(sb * mine[0].b).margin(1e-12));
    }
    CHECK(shared_tilt({}).empty());
}
