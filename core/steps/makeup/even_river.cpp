#include <algorithm>
#include <cmath>

#include "core/steps/lay/place.h"
#include "core/steps/makeup/arrange.h"

namespace yb {

namespace {

/// How uneven a river is, for a set of banks.
class RiverScore {
  public:
    explicit RiverScore(const MakeUpInputs& in) : in_(in), half_(in.top.length_mm / 2), edges_(in.leaves.size()) {}

    /// The banks of one leaf where it lies, on both faces.
    struct Banks {
        EdgeProfile above, below;
    };
    Banks edges(std::size_t leaf, const Placement& at) const {
        const auto profile = [&](const Ring& ring) {
            return edge_profile(at.frame().from_slab(ring), -half_ * reach, 2 * half_ * reach / n, n + 1);
        };
        return {profile(in_.leaves[leaf].shape.ring_a), profile(in_.leaves[leaf].shape.ring_b)};
    }
    void set(std::size_t leaf, Banks edges) { edges_[leaf] = std::move(edges); }

    /// Lower is better. @param leaf lies with other edges than those set.
    double with(std::size_t leaf, const Banks& other) const {
        const auto of = [&](std::size_t i) -> const Banks& { return i == leaf ? other : edges_[i]; };
        double sum = 0;
        for (std::size_t i = 0; i < edges_.size(); ++i)
            for (std::size_t k = 0; k <= n; ++k)
                if (!of(i).above.there(k)) sum += 400;  // it does not reach the end of the top
        for (std::size_t i = 0; i + 1 < edges_.size(); ++i) sum += uneven(of(i), of(i + 1));
        // Outer edges square: their slope over the length, and what a straight cut would waste.
        sum += 0.5 * std::abs(slope(of(0).above, false)) + 0.5 * std::abs(slope(of(edges_.size() - 1).above, true));
        return sum;
    }
    double now() const { return with(0, edges_[0]); }
    /// The middle between the mean outer edges.
    double middle() const {
        double sum = 0;
        for (std::size_t k = 0; k <= n; ++k) sum += (low(edges_.front().above, k) + high(edges_.back().above, k)) / (n + 1);
        return sum / 2;
    }

  private:
    static constexpr std::size_t n = 40;
    static constexpr double reach = 0.999;  ///< of the half length, so that a leaf as long as the top reaches its ends

    static double low(const EdgeProfile& e, std::size_t k) { return e.there(k) ? e.low[k] : 0; }
    static double high(const EdgeProfile& e, std::size_t k) { return e.there(k) ? e.high[k] : 0; }

    double uneven(const Banks& right, const Banks& left) const {
        double mean = 0;
        double narrowest = 1e300;
        const auto width = [&](std::size_t k) { return low(left.above, k) - high(right.above, k); };
        for (std::size_t k = 0; k <= n; ++k) {
            mean += width(k) / (n + 1);
            narrowest = std::min(narrowest, width(k));
            if (left.below.there(k) && right.below.there(k)) narrowest = std::min(narrowest, left.below.low[k] - right.below.high[k]);
        }
        double spread = 0;
        for (std::size_t k = 0; k <= n; ++k) spread += (width(k) - mean) * (width(k) - mean) / (n + 1);
        return std::sqrt(spread) + 2 * std::abs(mean - in_.choices.river_mm) + (narrowest < 10 ? 3 * (10 - narrowest) : 0);
    }

    static double slope(const EdgeProfile& e, bool upper) {
        double sx = 0;
        double sxx = 0;
        for (std::size_t k = 0; k <= n; ++k) {
            const double u = -1 + 2.0 * static_cast<double>(k) / n;
            sx += u * (upper ? high(e, k) : low(e, k));
            sxx += u * u;
        }
        return sx / sxx;
    }

    const MakeUpInputs& in_;
    double half_;
    std::vector<Banks> edges_;
};

}  // namespace

std::vector<Placement> even_river(const MakeUpInputs& in) {
    std::vector<Placement> out;
    for (const LeafIn& l : in.leaves) out.push_back(l.placement);
    if (!is_river(in.choices.kind) || in.leaves.size() < 2) return out;
    RiverScore score(in);
    std::vector<Vec2> middles;
    for (std::size_t i = 0; i < out.size(); ++i) {
        score.set(i, score.edges(i, out[i]));
        middles.push_back(centroid(in.leaves[i].shape.ring_a));
    }
    double best = score.now();
    for (double step = 1; step > 0.01; step /= 2)
        for (int round = 0; round < 12; ++round) {
            const double before = best;
            for (std::size_t i = 0; i < out.size(); ++i)
                for (int axis = 0; axis < 3; ++axis)
                    for (const double sign : {-1.0, 1.0}) {
                        Placement p = out[i];
                        // Turned about the leaf's own middle, so that it does not swing away.
                        if (axis == 2) turn_about(p, p.frame().from_slab(middles[i]), -sign * step);
                        else move_by(p, axis == 0 ? Vec2{sign * 60 * step, 0} : Vec2{0, sign * 30 * step});
                        RiverScore::Banks edges = score.edges(i, p);
                        const double s = score.with(i, edges);
                        if (s >= best - 1e-9) continue;
                        best = s;
                        out[i] = p;
                        score.set(i, std::move(edges));
                    }
            if (before - best < 1e-3) break;
        }
    const double middle = score.middle();  // the whole of it back to the middle of the top
    for (Placement& p : out) move_by(p, {0, -middle});
    return out;
}

}  // namespace yb
