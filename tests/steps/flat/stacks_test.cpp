// Stacks of all shims chosen together: against every set of stacks there is, tried by a plain search of its own.
#include "core/steps/flat/stacks.h"

#include <cmath>
#include <limits>
#include <random>

#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/flat/flat.h"
#include "demo/demo.h"

using namespace yb;

namespace {

std::vector<Shim> four(const std::vector<double>& heights) {
    const Vec2 at[] = {{300, -250}, {300, 250}, {1700, -250}, {1700, 250}};
    std::vector<Shim> out;
    for (std::size_t i = 0; i < heights.size(); ++i) out.push_back({{at[i].x, at[i].y}, heights[i], {}, 0});
    return out;
}

/// Thickness that a top of 2 m by 0.8 m loses when it is turned: the rise from corner to corner.
double askew(Turned t) { return std::abs(t.a) * 2000 + std::abs(t.b) * 800; }

double sum_of(const std::vector<double>& v) {
    double s = 0;
    for (const double x : v) s += x;
    return s;
}

/// Fewest pieces for a sum, by trying every count of every piece.
int fewest(int sum, const std::vector<int>& sizes, std::size_t from = 0) {
    if (sum == 0) return 0;
    if (from == sizes.size()) return 1000;
    int best = 1000;
    for (int n = 0; n * sizes[from] <= sum; ++n) best = std::min(best, n + fewest(sum - n * sizes[from], sizes, from + 1));
    return best;
}

/// The gap and the turn of a slab on four feet that stand in a rectangle: it tips over the diagonal that stands higher.
std::pair<double, Turned> on_four(const std::vector<double>& off) {
    // Feet 0 and 3 face each other, 1 and 2 do. The balance point lies a little towards foot 0's end and side.
    const double high = (off[1] + off[2]) / 2;
    const double low = (off[0] + off[3]) / 2;
    const double gap = 2 * std::abs(high - low);
    std::vector<double> z = off;  // heights of the slab over the four feet
    if (low > high) {             // stands on 0 and 3 and one of the others: that of the two on which its weight lies
        const double lift = 2 * (low - high);
        z[1] += lift;  // foot 1 is loose: the weight lies towards foot 2
    } else if (high > low) {
        z[3] += 2 * (high - low);  // foot 3 is loose: the weight lies towards foot 0
    }
    return {gap, Turned{(z[2] - z[0]) / 1400, (z[1] - z[0]) / 500}};
}

}  // namespace

TEST_CASE("four shims are laid together of few pieces by raising the whole slab a little", "[flat][shims][T11]") {
    // By themselves: 1 + 0.5, or with 0.2 missing of 1.7 five pieces; 4 + 0.5 twice; 1.2 of four veneers.
    auto shims = four({1.7, 4.5, 4.5, 1.2});
    const std::vector<double> stock{0.3, 0.5, 1, 2, 3, 4, 6, 9, 12, 18, 24};
    const Stacking s = lay_stacks(shims, stock, {980, -10}, askew);
    // 0.3 higher: 2, 0.3 + 0.5 + 4, the same, 0.5 + 1 – nine pieces.
    CHECK(s.pieces <= 9);
    CHECK(s.alone > s.pieces);
    CHECK(s.raised_mm <= 2);
    CHECK(s.rocks_mm <= 0.1);
    CHECK(s.loses_mm <= 0.1);
    std::size_t pieces = 0;
    const double wanted[] = {1.7, 4.5, 4.5, 1.2};
    for (std::size_t i = 0; i < 4; ++i) {
        CHECK(sum_of(shims[i].stack_mm) == Approx(shims[i].stands_mm));
        CHECK(shims[i].height_mm == Approx(wanted[i] + s.raised_mm));
        CHECK(std::abs(shims[i].stands_mm - shims[i].height_mm) <= 0.15 + 1e-9);
        pieces += shims[i].stack_mm.size();
    }
    CHECK(static_cast<int>(pieces) == s.pieces);
    CHECK(rest_on(shims, {980, -10}).gap_mm == Approx(s.rocks_mm).margin(1e-12));
}

TEST_CASE("no set of stacks that holds has fewer pieces", "[flat][shims][T11]") {
    std::mt19937 dice(20261129);
    const auto upto = [&](double most) { return most * static_cast<double>(dice()) / 4294967296.0; };
    const std::vector<std::vector<double>> stocks{{0.3, 1, 4}, {0.5, 2, 5}, {0.2, 0.5, 3}};
    int raised = 0;
    int held = 0;
    for (int round = 0; round < 12; ++round) {
        INFO("round " << round);
        const auto& stock = stocks[static_cast<std::size_t>(round) % stocks.size()];
        std::vector<int> sizes;
        for (const double mm : stock) sizes.push_back(static_cast<int>(std::lround(mm * 20)));
        std::vector<double> heights;
        for (int i = 0; i < 4; ++i) heights.push_back(upto(7));
        std::vector<int> known(400, -1);
        const auto pieces = [&](int sum) {
            int& k = known[static_cast<std::size_t>(sum)];
            return k < 0 ? k = fewest(sum, sizes) : k;
        };
        int best = 1000;
        for (int by = 0; by <= 40; ++by)
            for (int code = 0; code < 7 * 7 * 7 * 7; ++code) {
                int all = 0;
                std::vector<double> off;
                for (int i = 0, rest = code; i < 4; ++i, rest /= 7) {
                    const double height = heights[static_cast<std::size_t>(i)] + by / 20.0;
                    const int sum = static_cast<int>(std::lround(height * 20)) + rest % 7 - 3;
                    all += sum < 0 ? 1000 : pieces(sum);
                    off.push_back(sum / 20.0 - height);
                }
                if (all >= best) continue;
                const auto [gap, turned] = on_four(off);
                if (gap <= 0.1 && askew(turned) <= 0.1) best = all;
            }
        auto shims = four(heights);
        const Stacking s = lay_stacks(shims, stock, {980, -10}, askew);
        if (best == 1000) {  // none holds: each its nearest
            CHECK(s.pieces == s.alone);
            CHECK((s.rocks_mm > 0.1 || s.loses_mm > 0.1));
            continue;
        }
        ++held;
        CHECK(s.pieces == best);
        raised += s.raised_mm > 0;
    }
    CHECK(held >= 6);
    CHECK(raised > 0);
}

TEST_CASE("where no stacks hold each shim has its nearest, and what it comes to is told", "[flat][shims]") {
    auto shims = four({1.2, 3.1, 4.4, 0.2});
    const Stacking s = lay_stacks(shims, {5}, {980, -10}, askew);
    CHECK(s.raised_mm == 0);
    CHECK(s.pieces == 2);
    CHECK(s.rocks_mm == Approx(rest_on(shims, {980, -10}).gap_mm));
    CHECK(s.rocks_mm > 0.1);
    CHECK(s.loses_mm > 0.1);
    for (const Shim& shim : shims) CHECK((shim.stack_mm.empty() || shim.stack_mm == std::vector<double>{5}));
    auto bare = four({1.2, 3.1, 4.4, 0.2});
    CHECK(lay_stacks(bare, {}, {980, -10}, askew).pieces == 0);
}

TEST_CASE("on every demo job the stacks hold, and what they lose is lost by the plan's own planes", "[flat][shims]") {
    const Documents d = demo_shop();
    int several = 0;
    for (const auto& [id, job] : d.jobs) {
        INFO(id);
        const Plan p = plan_job(job, d);
        for (const LeafPlan& l : p.leaves) {
            if (!l.flat->ready || l.flat->shims.size() < 3) continue;
            const Stacking& s = l.flat->stacks;
            CHECK(s.rocks_mm <= 0.1 + 1e-9);
            CHECK(s.loses_mm <= 0.1 + 1e-9);
            CHECK(s.pieces <= s.alone);
            several += s.pieces < s.alone;
            // Planed on its stacks: both planes turned by what the feet are off, the readings inside the top decide what is left.
            const Rest rest = rest_on(l.flat->shims, centroid(l.lay->rough));
            const double way = job.flat.first == FirstFace::show || l.flat->under_stays ? -1 : 1;
            double top = 1e300;
            double low = -1e300;
            const double a = l.flat->tilt.a + way * rest.by.a;
            const double b = l.flat->tilt.b + way * rest.by.b;
            for (const Vec3& q : deciding_points(l.shape().top, l.lay->outline)) top = std::min(top, q.z - a * q.x - b * q.y);
            for (const Vec3& q : deciding_points(l.shape().bottom, l.lay->outline)) low = std::max(low, q.z - a * q.x - b * q.y);
            CHECK(s.loses_mm == Approx(std::max(0.0, l.flat->thickness_mm - (top - low) / std::sqrt(1 + a * a + b * b))).margin(1e-6));
        }
    }
    CHECK(several > 3);
}
