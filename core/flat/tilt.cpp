#include "core/flat/tilt.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>
#include <stdexcept>

#include <Eigen/Dense>

namespace yb {
namespace {

constexpr double most_tilt = 0.5;  ///< 1:2 either way, far beyond any slab
constexpr double far_mm = 1e7;
constexpr double close_mm = 1e-9;
constexpr double slack_mm = 1e-7;  ///< thickness that is as good as another

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

/// The best tilt within a box of tilts (scaled). @param alone whether no other is as good
Tilt best_within(const Problem& p, double most_a, double most_b, bool& alone) {
    // x = (a, b, h, g): maximise h − g with h + a x + b y ≤ z on top and −(g + a x + b y) ≤ −z below.
    SmallLp lp(Vec4(0, 0, 1, -1), Vec4(most_a, most_b, far_mm, far_mm));
    double a = 0;
    double b = 0;
    double h = far_mm;
    double g = -far_mm;
    for (int rounds = 1;; ++rounds) {
        const auto [low, i] = p.top.least(a, b, 1);
        const auto [high, j] = p.bottom.least(a, b, -1);
        if ((h - low) + (-high - g) <= close_mm || rounds > 500) {
            alone = lp.alone();
            return p.tilt(a, b, low, -high, rounds);
        }
        lp.add({Vec4(p.top.x[i], p.top.y[i], 1, 0), p.top.z[i]});
        lp.add({Vec4(-p.bottom.x[j], -p.bottom.y[j], 0, -1), -p.bottom.z[j]});
        lp.solve();
        a = lp.x()(0), b = lp.x()(1), h = lp.x()(2), g = lp.x()(3);
    }
}

/// The tilts that leave as much as the best: a convex polygon in the plane of tilts, known as far as it was asked about. It
/// begins as the box; each pair of a top and a bottom reading that forbids a tilt cuts a half-plane off it.
class GoodTilts {
  public:
    GoodTilts(const Problem& p, double height, double most_a, double most_b) : p_(p), height_(height - slack_mm) {
        corners_ = {{-most_a, -most_b}, {most_a, -most_b}, {most_a, most_b}, {-most_a, most_b}};
    }

    /// The good tilt that `pick` likes best of the corners and edges there are; nothing where rounding leaves none.
    template <class Pick>
    std::optional<Vec2> find(Pick pick) {
        for (int round = 0; round < 1000 && !corners_.empty(); ++round) {
            const Vec2 t = pick(corners_);
            const auto [low, i] = p_.top.least(t.x, t.y, 1);
            const auto [high, j] = p_.bottom.least(t.x, t.y, -1);
            if (low + high >= height_ - slack_mm) return t;
            cut({p_.top.x[i] - p_.bottom.x[j], p_.top.y[i] - p_.bottom.y[j]}, p_.top.z[i] - p_.bottom.z[j] - height_);
        }
        return {};
    }

  private:
    /// Keeps n · tilt ≤ most.
    void cut(Vec2 n, double most) {
        Ring kept;
        const auto over = [&](Vec2 c) { return n.x * c.x + n.y * c.y - most; };
        for (std::size_t k = 0; k < corners_.size(); ++k) {
            const Vec2 from = corners_[k];
            const Vec2 to = corners_[(k + 1) % corners_.size()];
            const double u = over(from);
            const double v = over(to);
            if (u <= 0) kept.push_back(from);
            if ((u < 0 && v > 0) || (u > 0 && v < 0)) kept.push_back(lerp(from, to, u / (u - v)));
        }
        corners_ = std::move(kept);
    }

    const Problem& p_;
    double height_;
    Ring corners_;
};

/// The point of a convex polygon nearest to nought.
Vec2 nearest_to_nought(const Ring& corners) {
    bool inside = corners.size() > 2;
    Vec2 best = corners.front();
    for (std::size_t k = 0; k < corners.size(); ++k) {
        const Vec2 from = corners[k];
        const Vec2 along = corners[(k + 1) % corners.size()] - from;
        inside = inside && cross(along, Vec2{} - from) > 0;
        const double square = dot(along, along);
        const Vec2 q = square > 0 ? from + along * std::clamp(-dot(from, along) / square, 0.0, 1.0) : from;
        if (dot(q, q) < dot(best, best)) best = q;
    }
    return inside ? Vec2{} : best;
}

/// Of all tilts that leave as much as `best`, the least steep, and how far apart they lie.
Tilt least_tilt(const Problem& p, const Tilt& best, double most_a, double most_b) {
    GoodTilts good(p, best.thickness_mm * best.slope_factor(), most_a, most_b);
    Tilt t = best;
    if (const auto least = good.find(nearest_to_nought)) t = p.touching(least->x, least->y, best.rounds);
    for (const bool along : {true, false}) {
        const auto at = [along](Vec2 v) { return along ? v.x : v.y; };
        const auto end = [&](double sign) {
            return good.find([&](const Ring& r) {
                return *std::max_element(r.begin(), r.end(), [&](Vec2 u, Vec2 v) { return sign * at(u) < sign * at(v); });
            });
        };
        const auto high = end(1);
        const auto low = end(-1);
        const double loose = high && low ? (at(*high) - at(*low)) / p.scale : 0;
        (along ? t.loose_a : t.loose_b) = loose > 1e-6 ? loose : 0;  // what the tolerance alone gives is none
    }
    return t;
}

}  // namespace

Tilt at_tilt(std::span<const Vec3> top, std::span<const Vec3> bottom, double a, double b) {
    const Problem p = Problem::of(top, bottom);
    return p.touching(a * p.scale, b * p.scale, 1);
}

Tilt best_tilt(std::span<const Vec3> top, std::span<const Vec3> bottom) {
    const Problem p = Problem::of(top, bottom);
    double most_a = most_tilt * p.scale;
    double most_b = most_a;
    bool alone = false;
    Tilt best = best_within(p, most_a, most_b, alone);
    bool open_a = false;
    bool open_b = false;
    if (best.at_bound) {
        // Steep, or held by the box alone – or is there no end to it, because no readings of the two faces hold each other? Then
        // that way is not tilted.
        const auto endless = [&](double times_a, double times_b) {
            bool ignored = false;
            const Tilt further = best_within(p, times_a * most_a, times_b * most_b, ignored);
            return std::abs(times_a > 1 ? further.a : further.b) > 99 * most_tilt &&
                   further.thickness_mm * further.slope_factor() > best.thickness_mm * best.slope_factor() + slack_mm;
        };
        open_a = endless(100, 1);
        open_b = endless(1, 100);
        if (open_a) most_a = 0;
        if (open_b) most_b = 0;
        if (open_a || open_b) best = best_within(p, most_a, most_b, alone);
    }
    // A few readings, or readings in one line or place, leave tilts that do as well: the least of them is taken.
    if (!alone) best = least_tilt(p, best, most_a, most_b);
    if (open_a) best.loose_a = 2 * most_tilt;
    if (open_b) best.loose_b = 2 * most_tilt;
    const Tilt level = p.touching(0, 0, 1);
    if (level.thickness_mm < best.thickness_mm) return best;
    best.a = best.b = 0;
    best.top_mm = level.top_mm, best.bottom_mm = level.bottom_mm, best.thickness_mm = level.thickness_mm;
    best.at_bound = false;
    return best;
}

Tilt least_off_top(std::span<const Vec3> top, std::span<const Vec3> bottom, double thickness) {
    const Problem p = Problem::of(top, bottom);
    // x = (a, b, h, m): h the upper plane, m the highest wood above it; the lower plane is h − thickness.
    SmallLp lp(Vec4(0, 0, 1, -1), p.box(far_mm));
    double a = 0;
    double b = 0;
    double h = far_mm;
    double m = -far_mm;
    for (int rounds = 1; rounds <= 500; ++rounds) {
        const auto [low, i] = p.top.least(a, b, 1);
        const auto [crest, k] = p.top.least(a, b, -1);
        const auto [high, j] = p.bottom.least(a, b, -1);
        const double worst = std::max({h - low, -crest - m, thickness - h - high});
        if (worst <= close_mm) return p.tilt(a, b, h, h - thickness, rounds);
        lp.add({Vec4(p.top.x[i], p.top.y[i], 1, 0), p.top.z[i]});
        lp.add({Vec4(-p.top.x[k], -p.top.y[k], 0, -1), -p.top.z[k]});
        lp.add({Vec4(-p.bottom.x[j], -p.bottom.y[j], -1, 0), -p.bottom.z[j] - thickness});
        if (!lp.solve()) break;
        a = lp.x()(0), b = lp.x()(1), h = lp.x()(2), m = lp.x()(3);
    }
    return best_tilt(top, bottom);
}

}  // namespace yb
