// The small linear programs behind tilt.h and aims.cpp. Used by core/steps/flat only.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>
#include <span>
#include <stdexcept>
#include <vector>

#include <Eigen/Dense>

#include "core/steps/flat/tilt.h"

namespace yb::small_lp {

inline constexpr double most_tilt = 0.5;  ///< 1:2 either way, far beyond any slab
inline constexpr double far_mm = 1e7;
inline constexpr double close_mm = 1e-9;
inline constexpr double slack_mm = 1e-7;  ///< thickness that is as good as another

using Vec4 = Eigen::Vector4d;

/// row · x ≤ limit
struct Constraint {
    Vec4 row;
    double limit = 0;
};

/// Maximises c·x subject to constraints and |x_k| ≤ box_k, x in R⁴, by the dual simplex: start in the corner
/// of the box that c points to, drop in the most violated constraint, push out the one whose multiplier
/// reaches nothing first. After many rounds the lowest index enters instead (Bland), so that it cannot cycle.
class SmallLp {
  public:
    SmallLp(const Vec4& c, const Vec4& box) : c_(c) {
        for (int k = 0; k < 4; ++k)
            for (const double sign : {1.0, -1.0}) add({Vec4::Unit(k) * sign, box(k)});
        for (int k = 0; k < 4; ++k) basis_[static_cast<std::size_t>(k)] = 2 * static_cast<std::size_t>(k) + (c(k) < 0 ? 1U : 0U);
    }

    void add(const Constraint& r) { rows_.push_back(r); }

    /// @returns false when no point satisfies all constraints.
    bool solve() {
        for (int round = 0; round < 10000; ++round) {
            Eigen::Matrix4d m;
            Vec4 rhs;
            for (int k = 0; k < 4; ++k) {
                m.row(k) = rows_[basis_[static_cast<std::size_t>(k)]].row.transpose();
                rhs(k) = rows_[basis_[static_cast<std::size_t>(k)]].limit;
            }
            const Eigen::FullPivLU<Eigen::Matrix4d> lu(m);
            x_ = lu.solve(rhs);
            const auto entering = violated(round > 200);
            if (!entering) {
                // A multiplier of nought, or the box holding the point: others may do as well.
                const Vec4 y = Eigen::FullPivLU<Eigen::Matrix4d>(m.transpose()).solve(c_);
                alone_ = true;
                for (int k = 0; k < 4; ++k) alone_ = alone_ && y(k) > 1e-9 && basis_[static_cast<std::size_t>(k)] >= 8;
                return true;
            }
            // Multipliers y with mᵀ y = c; the entering row is w = mᵀ d.
            const Eigen::FullPivLU<Eigen::Matrix4d> lt(m.transpose());
            const Vec4 y = lt.solve(c_);
            const Vec4 d = lt.solve(rows_[*entering].row);
            int leaving = -1;
            double least = std::numeric_limits<double>::infinity();
            for (int k = 0; k < 4; ++k) {
                if (d(k) <= 1e-11) continue;
                const double ratio = std::max(0.0, y(k)) / d(k);
                const bool better = ratio < least - 1e-13;
                const bool tie = !better && ratio <= least + 1e-13 && leaving >= 0;
                if (better || (tie && (round > 200 ? basis_[static_cast<std::size_t>(k)] < basis_[static_cast<std::size_t>(leaving)]
                                                   : d(k) > d(leaving)))) {
                    least = std::min(least, ratio);
                    leaving = k;
                }
            }
            if (leaving < 0) return false;
            basis_[static_cast<std::size_t>(leaving)] = *entering;
        }
        throw std::runtime_error("the tilt did not settle");
    }

    const Vec4& x() const { return x_; }
    /// True when no other point is as good.
    bool alone() const { return alone_; }

  private:
    std::optional<std::size_t> violated(bool first) const {
        std::optional<std::size_t> worst;
        double most = 1e-10;
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            const double over = rows_[i].row.dot(x_) - rows_[i].limit;
            if (over <= most) continue;
            worst = i;
            if (first) break;
            most = over;
        }
        return worst;
    }

    Vec4 c_;
    Vec4 x_ = Vec4::Zero();
    std::vector<Constraint> rows_;
    std::array<std::size_t, 4> basis_{};
    bool alone_ = false;
};

/// Readings as planar arrays, moved to their middle and scaled to ±1, so that one pass is quick and exact.
struct Cloud {
    std::vector<double> x, y, z;

    Cloud(std::span<const Vec3> points, Vec2 mid, double scale) {
        x.reserve(points.size()), y.reserve(points.size()), z.reserve(points.size());
        for (const Vec3& p : points) {
            x.push_back((p.x - mid.x) / scale);
            y.push_back((p.y - mid.y) / scale);
            z.push_back(p.z);
        }
    }

    /// Value and index of the least of sign·(z − a x − b y). Blocks of plain sums let the compiler use
    /// vector instructions; the index is looked for only in the block that holds the least.
    std::pair<double, std::size_t> least(double a, double b, double sign) const {
        constexpr std::size_t block = 1024;
        double best = std::numeric_limits<double>::infinity();
        std::size_t where = 0;
        for (std::size_t start = 0; start < x.size(); start += block) {
            const std::size_t end = std::min(x.size(), start + block);
            std::array<double, 8> low;
            low.fill(std::numeric_limits<double>::infinity());
            std::size_t i = start;
            for (; i + 8 <= end; i += 8)
                for (std::size_t k = 0; k < 8; ++k) {
                    const double v = sign * (z[i + k] - a * x[i + k] - b * y[i + k]);
                    low[k] = v < low[k] ? v : low[k];
                }
            for (; i < end; ++i) low[0] = std::min(low[0], sign * (z[i] - a * x[i] - b * y[i]));
            const double here = *std::min_element(low.begin(), low.end());
            if (here < best) best = here, where = start;
        }
        for (std::size_t i = where; i < std::min(x.size(), where + block); ++i)
            if (sign * (z[i] - a * x[i] - b * y[i]) == best) return {best, i};
        // The compiler may fuse the two sums differently: then the nearest is the one.
        std::size_t nearest = where;
        for (std::size_t i = where; i < std::min(x.size(), where + block); ++i)
            if (sign * (z[i] - a * x[i] - b * y[i]) < sign * (z[nearest] - a * x[nearest] - b * y[nearest])) nearest = i;
        return {best, nearest};
    }
};

struct Problem {
    Vec2 mid;
    double scale = 1;
    Cloud top, bottom;

    static Problem of(std::span<const Vec3> top, std::span<const Vec3> bottom) {
        if (top.empty() || bottom.empty()) throw std::invalid_argument("both faces need at least one height reading");
        Vec2 low{top[0].x, top[0].y};
        Vec2 high = low;
        double sum = 0;
        for (const auto face : {top, bottom})
            for (const Vec3& p : face) {
                sum += p.x + p.y + p.z;
                low = {std::min(low.x, p.x), std::min(low.y, p.y)};
                high = {std::max(high.x, p.x), std::max(high.y, p.y)};
            }
        if (!std::isfinite(sum)) throw std::invalid_argument("a height reading is not a number");
        const Vec2 mid = lerp(low, high, 0.5);
        const double scale = std::max({1.0, (high.x - low.x) / 2, (high.y - low.y) / 2});
        return {mid, scale, Cloud(top, mid, scale), Cloud(bottom, mid, scale)};
    }

    /// Back from the scaled frame; h and g are the planes' heights at the middle.
    Tilt tilt(double a, double b, double h, double g, int rounds) const {
        Tilt t;
        t.a = a / scale;
        t.b = b / scale;
        t.top_mm = h - t.a * mid.x - t.b * mid.y;
        t.bottom_mm = g - t.a * mid.x - t.b * mid.y;
        t.thickness_mm = (h - g) / t.slope_factor();
        t.rounds = rounds;
        t.at_bound = std::max(std::abs(t.a), std::abs(t.b)) >= most_tilt - 1e-9;
        return t;
    }

    /// At a tilt (scaled) the planes touch the readings.
    Tilt touching(double a, double b, int rounds) const {
        return tilt(a, b, top.least(a, b, 1).first, -bottom.least(a, b, -1).first, rounds);
    }

    Vec4 box(double height) const { return {most_tilt * scale, most_tilt * scale, height, height}; }
};

}  // namespace yb::small_lp
