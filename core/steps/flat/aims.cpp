// Other aims than the thickest slab, on the same readings: least off the show face, least wood, one tilt for several slabs.
#include "core/steps/flat/small_lp.h"

namespace yb {

using namespace small_lp;

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

namespace {

/// Wood that two planes take, mm over the weight of all places, and how it changes with the tilt and the upper plane.
struct Taken {
    double mm = 0;
    Vec4 slope = Vec4::Zero();  ///< along a, b, h
};
Taken taken(const Cloud& top, const Cloud& bottom, const std::vector<double>& top_weight, const std::vector<double>& bottom_weight,
            double a, double b, double h, double thickness) {
    Taken out;
    for (std::size_t i = 0; i < top.x.size(); ++i) {
        const double over = top.z[i] - h - a * top.x[i] - b * top.y[i];
        if (over <= 0) continue;
        out.mm += top_weight[i] * over;
        out.slope -= top_weight[i] * Vec4(top.x[i], top.y[i], 1, 0);
    }
    for (std::size_t i = 0; i < bottom.x.size(); ++i) {
        const double under = h - thickness + a * bottom.x[i] + b * bottom.y[i] - bottom.z[i];
        if (under <= 0) continue;
        out.mm += bottom_weight[i] * under;
        out.slope += bottom_weight[i] * Vec4(bottom.x[i], bottom.y[i], 1, 0);
    }
    return out;
}

std::vector<double> shares(std::span<const double> weight) {
    double sum = 0;
    for (const double w : weight) sum += w;
    std::vector<double> out;
    for (const double w : weight) out.push_back(sum > 0 ? w / sum : 0);
    return out;
}

}  // namespace

Tilt least_wood(std::span<const Vec3> top, std::span<const Vec3> bottom, const WeighedFace& all_top, const WeighedFace& all_bottom,
                double thickness) {
    if (all_top.places.size() != all_top.weight.size() || all_bottom.places.size() != all_bottom.weight.size())
        throw std::invalid_argument("each place has a weight");
    const Problem p = Problem::of(top, bottom);
    const Cloud over(all_top.places, p.mid, p.scale);
    const Cloud under(all_bottom.places, p.mid, p.scale);
    const std::vector<double> over_weight = shares(all_top.weight);
    const std::vector<double> under_weight = shares(all_bottom.weight);
    // x = (a, b, h, t): least t with t ≥ what is taken, a convex sum of straight pieces, known by a cut at each place that was
    // tried (Kelley 1960); the planes clear the readings inside the top as before.
    SmallLp lp(Vec4(0, 0, 0, -1), p.box(far_mm));
    double a = 0;
    double b = 0;
    double h = p.top.least(0, 0, 1).first;
    double t = -far_mm;
    Tilt best = best_tilt(top, bottom);
    if (best.thickness_mm * best.slope_factor() <= thickness) return best;
    double least = std::numeric_limits<double>::infinity();
    for (int rounds = 1; rounds <= 1500; ++rounds) {
        const auto [low, i] = p.top.least(a, b, 1);
        const auto [high, j] = p.bottom.least(a, b, -1);
        const double worst = std::max(h - low, thickness - h - high);
        const Taken now = taken(over, under, over_weight, under_weight, a, b, h, thickness);
        if (worst <= close_mm) {
            if (now.mm < least) least = now.mm, best = p.tilt(a, b, h, h - thickness, rounds);
            if (now.mm - t <= 1e-8) return best;
        }
        lp.add({Vec4(p.top.x[i], p.top.y[i], 1, 0), p.top.z[i]});
        lp.add({Vec4(-p.bottom.x[j], -p.bottom.y[j], -1, 0), -p.bottom.z[j] - thickness});
        lp.add({now.slope - Vec4(0, 0, 0, 1), now.slope(0) * a + now.slope(1) * b + now.slope(2) * h - now.mm});
        if (!lp.solve()) break;
        a = lp.x()(0), b = lp.x()(1), h = lp.x()(2), t = lp.x()(3);
    }
    return best;
}

std::vector<Tilt> shared_tilt(std::span<const SlabReadings> slabs) {
    if (slabs.empty()) return {};
    std::vector<Problem> all;
    for (const SlabReadings& s : slabs) all.push_back(Problem::of(s.top, s.bottom));
    // x = (a, b, t): the greatest t with t ≤ what every slab has left; a and b in thousandths, each slab's own readings about its
    // own middle, so that one turn means the same for all.
    const double steep = most_tilt * 1000;
    SmallLp lp(Vec4(0, 0, 1, 0), Vec4(steep, steep, far_mm, 1));
    double a = 0;
    double b = 0;
    double t = far_mm;
    const auto touching = [&](std::size_t k, double at_a, double at_b) {
        return all[k].touching(slabs[k].sign_a * at_a / 1000 * all[k].scale, slabs[k].sign_b * at_b / 1000 * all[k].scale, 1);
    };
    for (int rounds = 1; rounds <= 1000; ++rounds) {
        double least = far_mm;
        for (std::size_t k = 0; k < all.size(); ++k) {
            const double sa = slabs[k].sign_a * a / 1000 * all[k].scale;
            const double sb = slabs[k].sign_b * b / 1000 * all[k].scale;
            const auto [low, i] = all[k].top.least(sa, sb, 1);
            const auto [high, j] = all[k].bottom.least(sa, sb, -1);
            least = std::min(least, low + high);
            const double per = all[k].scale / 1000;
            lp.add({Vec4(slabs[k].sign_a * per * (all[k].top.x[i] - all[k].bottom.x[j]),
                         slabs[k].sign_b * per * (all[k].top.y[i] - all[k].bottom.y[j]), 1, 0),
                    all[k].top.z[i] - all[k].bottom.z[j]});
        }
        if (t - least <= close_mm || !lp.solve()) break;
        a = lp.x()(0), b = lp.x()(1), t = lp.x()(2);
    }
    std::vector<Tilt> out;
    for (std::size_t k = 0; k < all.size(); ++k) out.push_back(touching(k, a, b));
    return out;
}

}  // namespace yb
