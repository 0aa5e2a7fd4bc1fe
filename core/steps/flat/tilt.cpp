#include "core/steps/flat/small_lp.h"

namespace yb {

using namespace small_lp;

namespace {

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

}  // namespace yb
