#include "core/steps/flat/rounds.h"
#include "core/steps/flat/stacks.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/ground/calendar/calendar.h"

namespace yb {

double moved_at(const FlatRound& r, double u, double v) { return r.bow_mm * u * u + r.cup_mm * v * v + r.twist_mm / 4 * u * v; }

namespace {

constexpr double slow_mm_a_day = 0.1;

double value(const FlatRound& r, int what) { return what == 0 ? r.bow_mm : what == 1 ? r.cup_mm : r.twist_mm; }

/// v∞ + c·exp(−t/τ) through readings: for each τ of a row the other two by least squares, the τ that misses least. Days from the
/// last reading until it goes slower than `slow`.
std::optional<double> slows_down(const std::vector<std::pair<double, double>>& at) {
    if (at.size() < 3) return {};
    double best = 1e300;
    double tau_best = 0;
    double c_best = 0;
    for (double tau = 0.3; tau < 60; tau *= 1.04) {
        double n = 0, se = 0, see = 0, sv = 0, sev = 0;
        for (const auto& [t, v] : at) {
            const double e = std::exp(-t / tau);
            n += 1, se += e, see += e * e, sv += v, sev += e * v;
        }
        const double det = n * see - se * se;
        if (std::abs(det) < 1e-12) continue;
        const double c = (n * sev - se * sv) / det;
        const double rest = (sv - c * se) / n;
        double miss = 0;
        for (const auto& [t, v] : at) miss += std::pow(v - rest - c * std::exp(-t / tau), 2);
        if (miss < best) best = miss, tau_best = tau, c_best = c;
    }
    if (best > 1e299) return {};
    const double last = at.back().first;
    const double speed = std::abs(c_best) / tau_best * std::exp(-last / tau_best);
    return speed <= slow_mm_a_day ? 0 : tau_best * std::log(speed / slow_mm_a_day);
}

}  // namespace

std::vector<RoundPlan> plan_rounds(const std::vector<FlatRound>& rounds, const Ring& rough, const std::vector<Support>& supports,
                                   const std::vector<double>& stock) {
    std::vector<RoundPlan> out;
    if (rough.size() < 3) return out;
    const Box box = bounds(rough);
    const auto share = [&](Vec2 p) { return Vec2{2 * (p.x - box.low.x) / box.width() - 1, 2 * (p.y - box.low.y) / box.height() - 1}; };
    for (std::size_t k = 0; k < rounds.size(); ++k) {
        const FlatRound& r = rounds[k];
        RoundPlan plan;
        plan.round = k;
        std::vector<Vec3> top, bottom;
        for (int i = 0; i <= 16; ++i)
            for (int j = 0; j <= 8; ++j) {
                const Vec2 p{box.low.x + box.width() * i / 16, box.low.y + box.height() * j / 8};
                if (!contains(rough, {std::clamp(p.x, box.low.x + 1e-3, box.high.x - 1e-3), p.y}) && j > 0 && j < 8) continue;
                const Vec2 s = share(p);
                const double z = moved_at(r, s.x, s.y);
                top.push_back({p.x, p.y, z + r.thickness_mm});
                bottom.push_back({p.x, p.y, z});
            }
        const Tilt best = best_tilt(top, bottom);
        plan.thickest_mm = std::max(0.0, best.thickness_mm);
        for (const Vec3& p : top) plan.off_show_mm = std::max(plan.off_show_mm, p.z - best.top_at({p.x, p.y}));
        for (const Vec3& p : bottom) plan.off_under_mm = std::max(plan.off_under_mm, best.bottom_at({p.x, p.y}) - p.z);
        double lowest = 1e300;
        for (const Vec3& p : bottom) lowest = std::min(lowest, p.z - best.a * p.x - best.b * p.y);
        for (const Support& s : supports) {
            const Vec2 at{s.x_mm, s.y_mm};
            const Vec2 q = share(at);
            Shim shim{s, std::max(0.0, moved_at(r, q.x, q.y) - best.a * at.x - best.b * at.y - lowest), {}, 0};
            shim.stack_mm = stack_for(shim.height_mm, stock);
            for (const double piece : shim.stack_mm) shim.stands_mm += piece;
            plan.shims.push_back(std::move(shim));
        }
        if (k > 0) {
            const double days = days_between(rounds[k - 1].on, r.on).value_or(0);
            if (days > 0) {
                double fastest = 0;
                int what = 0;
                for (int w = 0; w < 3; ++w)
                    if (const double speed = std::abs(value(r, w) - value(rounds[k - 1], w)) / days; speed > fastest)
                        fastest = speed, what = w;
                plan.mm_a_day = fastest;
                plan.still_moving = fastest > slow_mm_a_day;
                std::vector<std::pair<double, double>> at;
                for (std::size_t i = 0; i <= k; ++i)
                    if (const auto since = days_between(rounds[0].on, rounds[i].on)) at.emplace_back(*since, value(rounds[i], what));
                if (plan.still_moving) plan.days_more = slows_down(at);
            }
        }
        out.push_back(std::move(plan));
    }
    return out;
}

}  // namespace yb
