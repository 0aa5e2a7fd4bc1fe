#include "core/ground/geometry/stations.h"

#include <algorithm>
#include <cmath>
#include <cstddef>

namespace yb {

EdgeProfile edge_profile(const Ring& ring, double first, double step, std::size_t stations) {
    EdgeProfile p{std::vector<double>(stations, 1e9), std::vector<double>(stations, -1e9)};
    const auto n = static_cast<std::ptrdiff_t>(stations);
    for (std::size_t i = 0; i < ring.size(); ++i) {
        Vec2 a = ring[i];
        Vec2 b = ring[(i + 1) % ring.size()];
        if (a.x > b.x) std::swap(a, b);
        const auto from = std::max<std::ptrdiff_t>(0, static_cast<std::ptrdiff_t>(std::ceil((a.x - first) / step)));
        const auto to = std::min<std::ptrdiff_t>(n - 1, static_cast<std::ptrdiff_t>(std::floor((b.x - first) / step)));
        for (std::ptrdiff_t k = from; k <= to; ++k) {
            const double t = b.x > a.x ? (first + static_cast<double>(k) * step - a.x) / (b.x - a.x) : 0;
            const double v = a.y * (1 - t) + b.y * t;
            p.low[static_cast<std::size_t>(k)] = std::min(p.low[static_cast<std::size_t>(k)], v);
            p.high[static_cast<std::size_t>(k)] = std::max(p.high[static_cast<std::size_t>(k)], v);
        }
    }
    return p;
}

Ring at_stations(const Ring& ring, double from, double to, std::size_t n) {
    Ring right, left;
    for (std::size_t i = 0; i <= n; ++i) {
        const double x = from + (to - from) * static_cast<double>(i) / static_cast<double>(n);
        const auto cut = cut_at_x(ring, std::clamp(x, from + 0.01, to - 0.01));
        if (cut.empty()) continue;
        right.push_back({x, cut.front().from});
        left.push_back({x, cut.back().to});
    }
    right.insert(right.end(), left.rbegin(), left.rend());
    return right;
}

}  // namespace yb
