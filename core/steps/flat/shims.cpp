#include "core/steps/flat/shims.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "core/ground/beam/beam.h"

namespace yb {

std::vector<double> stack_for(double height, const std::vector<double>& stock) {
    std::vector<double> sizes;
    for (const double s : stock)
        if (s >= 0.05) sizes.push_back(s);
    std::sort(sizes.begin(), sizes.end());
    if (sizes.empty() || height < sizes.front() / 2 || height > 1000) return {};
    // Fewest pieces for every sum in twentieths of a millimetre.
    constexpr double per_mm = 20;
    const auto units = [](double mm) { return static_cast<std::size_t>(std::lround(mm * per_mm)); };
    const std::size_t most = units(height + sizes.back());
    constexpr int never = std::numeric_limits<int>::max() / 2;
    std::vector<int> pieces(most + 1, never);
    std::vector<std::size_t> last(most + 1, 0);
    pieces[0] = 0;
    for (std::size_t sum = 1; sum <= most; ++sum)
        for (std::size_t k = 0; k < sizes.size(); ++k)
            if (const std::size_t u = units(sizes[k]); u > 0 && u <= sum && pieces[sum - u] + 1 < pieces[sum])
                pieces[sum] = pieces[sum - u] + 1, last[sum] = k;
    std::size_t best = 0;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t sum = 0; sum <= most; ++sum) {
        if (pieces[sum] >= never) continue;
        // Half a tenth nearer is worth a piece more; past six pieces a tenth is.
        const double cost = std::floor(std::abs(static_cast<double>(sum) / per_mm - height) / 0.05 + 1e-6) + 0.01 * pieces[sum] +
                            2.0 * std::max(0, pieces[sum] - 6);
        if (cost < least) least = cost, best = sum;
    }
    std::vector<double> out;
    while (best > 0) out.push_back(sizes[last[best]]), best -= units(sizes[last[best]]);
    std::sort(out.rbegin(), out.rend());
    return out;
}

bool in_one_line(const std::vector<Shim>& shims) {
    for (std::size_t i = 0; i < shims.size(); ++i)
        for (std::size_t j = i + 1; j < shims.size(); ++j) {
            const Vec2 a{shims[i].at.x_mm, shims[i].at.y_mm};
            const Vec2 along = Vec2{shims[j].at.x_mm, shims[j].at.y_mm} - a;
            if (length(along) < 20) continue;
            double off = 0;
            for (const Shim& s : shims) off = std::max(off, std::abs(cross(along, Vec2{s.at.x_mm, s.at.y_mm} - a)) / length(along));
            if (off > 20) return false;
        }
    return true;
}

double rocks_mm(const std::vector<Shim>& shims, Vec2 balance) {
    if (shims.size() < 4 || in_one_line(shims)) return 0;
    struct Foot {
        Vec2 at;
        double off;  // what it stands higher than the slab wants
    };
    std::vector<Foot> feet;
    for (const Shim& s : shims) feet.push_back({{s.at.x_mm, s.at.y_mm}, s.stands_mm - s.height_mm});
    double best = 0;
    double least_rise = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < feet.size(); ++i)
        for (std::size_t j = i + 1; j < feet.size(); ++j)
            for (std::size_t k = j + 1; k < feet.size(); ++k) {
                const Vec2 u = feet[j].at - feet[i].at;
                const Vec2 v = feet[k].at - feet[i].at;
                const double det = cross(u, v);
                if (std::abs(det) < 1) continue;
                // The plane over three feet.
                const auto plane = [&](Vec2 p) {
                    const Vec2 d = p - feet[i].at;
                    const double s = cross(d, v) / det;
                    const double t = cross(u, d) / det;
                    return feet[i].off + s * (feet[j].off - feet[i].off) + t * (feet[k].off - feet[i].off);
                };
                double gap = 0;
                bool rests = true;
                for (const Foot& f : feet) {
                    const double under = plane(f.at) - f.off;
                    rests = rests && under > -1e-9;
                    gap = std::max(gap, under);
                }
                // Of the planes that lie on all feet the slab takes the one that is lowest at its balance point.
                if (rests && plane(balance) < least_rise) least_rise = plane(balance), best = gap;
            }
    return best;
}

double hangs_through_mm(const Ring& rough, double thickness, double moe, double kg_m3, const std::vector<Shim>& shims) {
    if (rough.size() < 3 || !(thickness > 0) || !(moe > 0)) return 0;
    const Box box = bounds(rough);
    std::vector<double> rows;
    for (const Shim& s : shims) rows.push_back(std::clamp(s.at.x_mm, box.low.x, box.high.x));
    std::sort(rows.begin(), rows.end());
    rows.erase(std::unique(rows.begin(), rows.end(), [](double a, double b) { return b - a < 60; }), rows.end());
    double from = 0;
    double to = 0;
    for (std::size_t i = 1; i < rows.size(); ++i)
        if (rows[i] - rows[i - 1] > to - from) from = rows[i - 1], to = rows[i];
    if (to - from < 1) return 0;
    const Plank plank = plank_of(rough, thickness, moe, kg_m3, 200);
    // What hangs over beyond the two rows is held by the rows after them, where there are any.
    const bool alone = rows.size() == 2;
    if (alone) return std::max(0.0, bend(plank, from, to).at((from + to) / 2));
    Plank span = plank;
    span.x_mm.clear(), span.width_mm.clear();
    for (std::size_t i = 0; i < plank.x_mm.size(); ++i)
        if (plank.x_mm[i] >= from && plank.x_mm[i] <= to) span.x_mm.push_back(plank.x_mm[i]), span.width_mm.push_back(plank.width_mm[i]);
    if (span.x_mm.size() < 2) return 0;
    return std::max(0.0, bend(span, span.x_mm.front(), span.x_mm.back()).at((from + to) / 2));
}

}  // namespace yb
