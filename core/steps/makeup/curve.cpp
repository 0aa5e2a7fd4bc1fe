#include "core/steps/makeup/curve.h"

#include <algorithm>
#include <cmath>

namespace yb {

namespace {

/// Values at even stations of a line with rising x.
std::vector<double> resampled(const std::vector<Vec2>& line, std::size_t n) {
    std::vector<double> out(n);
    std::size_t k = 0;
    const double x0 = line.front().x;
    const double step = (line.back().x - x0) / static_cast<double>(n - 1);
    for (std::size_t i = 0; i < n; ++i) {
        const double x = x0 + step * static_cast<double>(i);
        while (k + 2 < line.size() && line[k + 1].x < x) ++k;
        const double t = std::clamp((x - line[k].x) / std::max(1e-9, line[k + 1].x - line[k].x), 0.0, 1.0);
        out[i] = line[k].y * (1 - t) + line[k + 1].y * t;
    }
    return out;
}

/// Height of a disc's upper rim over its middle at a distance.
double rim(double radius, double d) { return std::abs(d) < radius ? std::sqrt(radius * radius - d * d) : -1e300; }

/// What a disc of this radius, rolled along below the line, can reach of it (an opening by a disc).
std::vector<double> opened(const std::vector<double>& y, double step, double radius) {
    const auto n = static_cast<std::ptrdiff_t>(y.size());
    const auto reach = std::min<std::ptrdiff_t>(n, static_cast<std::ptrdiff_t>(radius / step));
    std::vector<double> middle(y.size()), out(y.size(), -1e300);
    const auto at = [&](std::ptrdiff_t i) { return y[static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(i, 0, n - 1))]; };
    for (std::ptrdiff_t i = 0; i < n; ++i) {
        double low = 1e300;
        for (std::ptrdiff_t k = -reach; k <= reach; ++k) low = std::min(low, at(i + k) - rim(radius, static_cast<double>(k) * step));
        middle[static_cast<std::size_t>(i)] = low;
    }
    for (std::ptrdiff_t i = 0; i < n; ++i)
        for (std::ptrdiff_t k = -reach; k <= reach; ++k) {
            const auto j = static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(i + k, 0, n - 1));
            out[static_cast<std::size_t>(i)] =
                std::max(out[static_cast<std::size_t>(i)], middle[j] + rim(radius, static_cast<double>(k) * step));
        }
    return out;
}

}  // namespace

std::vector<Vec2> fair_curve(const std::vector<Vec2>& edge, double least_radius_mm) {
    if (edge.size() < 3) return edge;
    const double span = edge.back().x - edge.front().x;
    const double step = std::max(4.0, span / 400);
    const auto n = static_cast<std::size_t>(std::max(3.0, span / step)) + 1;
    const double even = span / static_cast<double>(n - 1);
    // From below: crests tighter than the radius are cut off. From above (the sign turned): dips are bridged below.
    std::vector<double> y = opened(resampled(edge, n), even, least_radius_mm);
    const std::vector<double> limit = y;
    // A closing from above would rise over the edge in a dip: the dip is widened downwards instead, by smoothing
    // the line and lowering it to where it clears the edge, until it turns wide enough.
    const auto line = [&](const std::vector<double>& v) {
        std::vector<Vec2> out;
        for (std::size_t i = 0; i < n; ++i) out.push_back({edge.front().x + even * static_cast<double>(i), v[i]});
        return out;
    };
    for (int round = 0; round < 400 && least_radius(line(y)) < least_radius_mm; ++round) {
        std::vector<double> next = y;
        for (std::size_t i = 1; i + 1 < n; ++i) next[i] = (y[i - 1] + 2 * y[i] + y[i + 1]) / 4;
        // Half of the way that smoothing went above the limit is taken back everywhere near, so that it stays fair.
        double over = 0;
        for (std::size_t i = 0; i < n; ++i) over = std::max(over, next[i] - limit[i]);
        for (double& v : next) v -= over;
        y = next;
    }
    return line(y);
}

double least_radius(const std::vector<Vec2>& line, double span_mm) {
    double least = 1e9;
    for (std::size_t i = 1; i + 1 < line.size(); ++i) {
        std::size_t a = i;
        std::size_t b = i;
        while (a > 0 && length(line[i] - line[a]) < span_mm) --a;
        while (b + 1 < line.size() && length(line[b] - line[i]) < span_mm) ++b;
        const Vec2 p = line[i] - line[a];
        const Vec2 q = line[b] - line[i];
        const double turn = std::abs(cross(p, q));
        if (turn < 1e-9) continue;
        least = std::min(least, length(p) * length(q) * length(p + q) / (2 * turn));
    }
    return least;
}

std::vector<Vec2> offset_line(const std::vector<Vec2>& line, double by) {
    std::vector<Vec2> out;
    for (std::size_t i = 0; i < line.size(); ++i) {
        const Vec2 t = line[std::min(i + 1, line.size() - 1)] - line[i > 0 ? i - 1 : 0];
        const double l = std::max(1e-9, length(t));
        const Vec2 p = line[i] + Vec2{-t.y / l, t.x / l} * by;
        // A point that comes nearer to the line than the offset belongs to a loop.
        bool loop = false;
        for (const Vec2 q : line) loop = loop || length(q - p) < std::abs(by) - 0.05;
        if (!loop) out.push_back(p);
    }
    return out;
}

std::optional<BushingPair> bushings_for(double cutter_mm, std::vector<double> at_hand) {
    std::sort(at_hand.begin(), at_hand.end());
    for (const double small : at_hand) {
        if (small <= cutter_mm) continue;  // the cutter has to pass through it
        for (const double large : at_hand)
            if (std::abs(large - small - 2 * cutter_mm) < 0.05) {
                // The guide's edge lies (bushing − cutter)/2 from the edge that is cut; both mates meet at the joint.
                const double off = (small + cutter_mm) / 2;
                return BushingPair{small, large, off, large / 2 + (large - cutter_mm) / 2};
            }
    }
    return {};
}

}  // namespace yb
