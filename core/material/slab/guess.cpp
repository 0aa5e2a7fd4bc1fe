#include "core/material/slab/guess.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <stdexcept>
#include <vector>

#include <Eigen/Dense>

#include "core/ground/work/kept.h"

namespace yb {

namespace {

using Matrix = Eigen::MatrixXd;
using Vector = Eigen::VectorXd;

double matern(double d) {
    const double s = std::sqrt(5.0) * d;
    return (1 + s + s * s / 3) * std::exp(-s);
}

/// The plane's terms at a place, in metres so that sums stay well conditioned.
Eigen::Vector3d terms(Vec2 p) { return {1, p.x / 1000, p.y / 1000}; }

}  // namespace

struct Guess::Solved {
    std::vector<Vec2> at;
    double along = 0, across = 0, noise = 0;  // noise over the field's own variance
    double variance = 0;
    Eigen::LDLT<Matrix> of_cov;
    Vector weights;  // of the readings less the plane
    Eigen::Vector3d plane;
    Matrix cov_x;              // C⁻¹ X
    Eigen::Matrix3d of_plane;  // (Xᵀ C⁻¹ X)⁻¹
    double likelihood = -1e300;

    double covariance(Vec2 a, Vec2 b) const { return matern(std::hypot((a.x - b.x) / along, (a.y - b.y) / across)); }

    bool solve(const std::vector<Vec2>& places, const Vector& z) {
        at = places;
        const auto n = static_cast<Eigen::Index>(at.size());
        Matrix c(n, n);
        Matrix x(n, 3);
        for (Eigen::Index i = 0; i < n; ++i) {
            x.row(i) = terms(at[static_cast<std::size_t>(i)]).transpose();
            for (Eigen::Index j = 0; j <= i; ++j)
                c(i, j) = c(j, i) = covariance(at[static_cast<std::size_t>(i)], at[static_cast<std::size_t>(j)]) + (i == j ? noise : 0);
        }
        of_cov.compute(c);
        if (of_cov.info() != Eigen::Success || (of_cov.vectorD().array() <= 0).any()) return false;
        cov_x = of_cov.solve(x);
        const Eigen::Matrix3d xcx = x.transpose() * cov_x;
        const Eigen::FullPivLU<Eigen::Matrix3d> lu(xcx);
        if (!lu.isInvertible()) return false;
        of_plane = lu.inverse();
        plane = of_plane * (cov_x.transpose() * z);
        const Vector off = z - x * plane;
        weights = of_cov.solve(off);
        const double dof = static_cast<double>(n - 3);
        variance = std::max(1e-8, off.dot(weights) / dof);
        likelihood = -0.5 * (dof * std::log(variance) + of_cov.vectorD().array().log().sum() + std::log(std::abs(xcx.determinant())));
        return true;
    }
};

Guess::Guess(std::span<const Vec3> readings) {
    if (readings.size() < 4) throw std::invalid_argument("four readings at least are wanted");
    const std::size_t stride = (readings.size() + most - 1) / most;
    std::vector<Vec2> places;
    std::vector<double> heights;
    Box box{{1e300, 1e300}, {-1e300, -1e300}};
    for (std::size_t i = 0; i < readings.size(); i += stride) {
        const Vec3& r = readings[i];
        if (!std::isfinite(r.x + r.y + r.z)) throw std::invalid_argument("a reading is not a number");
        places.push_back({r.x, r.y});
        heights.push_back(r.z);
        box.low = {std::min(box.low.x, r.x), std::min(box.low.y, r.y)};
        box.high = {std::max(box.high.x, r.x), std::max(box.high.y, r.y)};
    }
    const double wide = std::max(100.0, box.width());
    const double deep = std::max(60.0, box.height());
    // Candidates are weighed on as many readings as make that quick; the likeliest is then solved with all.
    const std::size_t thin = (places.size() + 119) / 120;
    std::vector<Vec2> some;
    std::vector<double> z_some;
    for (std::size_t i = 0; i < places.size(); i += thin) some.push_back(places[i]), z_some.push_back(heights[i]);
    const Vector z_thin = Eigen::Map<const Vector>(z_some.data(), static_cast<Eigen::Index>(z_some.size()));
    Solved best;
    for (const double along : {0.15, 0.35, 0.8, 1.6})
        for (const double across : {0.25, 0.7, 1.8})
            for (const double noise : {0.0004, 0.004, 0.03, 0.2}) {
                Solved s;
                s.along = along * wide, s.across = across * deep, s.noise = noise;
                if (s.solve(some, z_thin) && s.likelihood > best.likelihood) best = std::move(s);
            }
    if (best.likelihood < -1e299) throw std::invalid_argument("the readings lie in one line or one place");
    auto all = std::make_shared<Solved>();
    all->along = best.along, all->across = best.across, all->noise = best.noise;
    if (!all->solve(places, Eigen::Map<const Vector>(heights.data(), static_cast<Eigen::Index>(heights.size()))))
        throw std::invalid_argument("the readings lie in one line or one place");
    along_ = all->along, across_ = all->across;
    solved_ = std::move(all);
}

double Guess::noise_mm() const { return std::sqrt(solved_->noise * solved_->variance); }

Guess::At Guess::at(Vec2 p) const {
    const Solved& s = *solved_;
    const auto n = static_cast<Eigen::Index>(s.at.size());
    Vector c(n);
    for (Eigen::Index i = 0; i < n; ++i) c(i) = s.covariance(p, s.at[static_cast<std::size_t>(i)]);
    const Eigen::Vector3d x = terms(p);
    const Eigen::Vector3d open = x - s.cov_x.transpose() * c;
    const double spread = 1 - c.dot(s.of_cov.solve(c)) + open.dot(s.of_plane * open);
    return {x.dot(s.plane) + c.dot(s.weights), std::sqrt(std::max(0.0, spread) * s.variance)};
}

std::shared_ptr<const Guess> guess_of(const HeightGrid& grid) {
    static Kept<HeightGrid, std::shared_ptr<const Guess>> kept(8);
    return kept.answer(grid, [&]() -> std::shared_ptr<const Guess> {
        std::vector<Vec3> readings;
        if (grid.gap_mm.size() == grid.x_mm.size() * grid.y_mm.size())
            for (std::size_t i = 0; i < grid.x_mm.size(); ++i)
                for (std::size_t j = 0; j < grid.y_mm.size(); ++j)
                    if (const auto& gap = grid.at(i, j)) readings.push_back({grid.x_mm[i], grid.y_mm[j], -*gap});
        if (readings.size() < 6) return nullptr;
        try {
            return std::make_shared<Guess>(readings);
        } catch (const std::invalid_argument&) {
            return nullptr;  // in one line or one place: there is nothing to say between them
        }
    });
}

}  // namespace yb
