#include "core/ground/geometry/geometry.h"

#include <algorithm>
#include <numbers>
#include <stdexcept>

namespace yb {

double signed_area(std::span<const Vec2> r) {
    double twice = 0;
    for (std::size_t i = 0; i < r.size(); ++i) twice += cross(r[i], r[(i + 1) % r.size()]);
    return twice / 2;
}

double area(std::span<const Vec2> ring) { return std::abs(signed_area(ring)); }

Vec2 centroid(std::span<const Vec2> r) {
    if (r.empty()) return {};
    const Vec2 o = r.front();
    double twice = 0;
    Vec2 sum;
    for (std::size_t i = 0; i < r.size(); ++i) {
        const Vec2 a = r[i] - o;
        const Vec2 b = r[(i + 1) % r.size()] - o;
        const double c = cross(a, b);
        twice += c;
        sum = sum + (a + b) * c;
    }
    if (std::abs(twice) > 1e-9) return o + sum * (1 / (3 * twice));
    Vec2 mean;
    for (const Vec2 p : r) mean = mean + p;
    return mean * (1.0 / static_cast<double>(r.size()));
}

bool contains(std::span<const Vec2> r, Vec2 p) {
    bool inside = false;
    for (std::size_t i = 0, j = r.size() - 1; i < r.size(); j = i++) {
        if ((r[i].y > p.y) == (r[j].y > p.y)) continue;
        if (p.x < r[i].x + (p.y - r[i].y) / (r[j].y - r[i].y) * (r[j].x - r[i].x)) inside = !inside;
    }
    return inside;
}

double line_length(std::span<const Vec2> line) {
    double sum = 0;
    for (std::size_t i = 1; i < line.size(); ++i) sum += length(line[i] - line[i - 1]);
    return sum;
}

double girth(std::span<const Vec2> ring) { return ring.empty() ? 0 : line_length(ring) + length(ring.front() - ring.back()); }

Ring box_ring(Vec2 c, double along, double across) {
    const double u = along / 2;
    const double v = across / 2;
    return {c + Vec2{-u, -v}, c + Vec2{u, -v}, c + Vec2{u, v}, c + Vec2{-u, v}};
}

Ring circle_ring(Vec2 c, double diameter, int corners) {
    Ring out;
    for (int i = 0; i < corners; ++i) {
        const double a = 2 * std::numbers::pi * i / corners;
        out.push_back(c + Vec2{std::cos(a), std::sin(a)} * (diameter / 2));
    }
    return out;
}

Box bounds(std::span<const Vec2> ring) {
    if (ring.empty()) return {};
    Box b{ring.front(), ring.front()};
    for (const Vec2 p : ring) {
        b.low = {std::min(b.low.x, p.x), std::min(b.low.y, p.y)};
        b.high = {std::max(b.high.x, p.x), std::max(b.high.y, p.y)};
    }
    return b;
}

std::vector<Span1> cut_at_x(std::span<const Vec2> r, double x) {
    std::vector<Span1> out;
    if (r.empty()) return out;
    // Asked hundreds of times a frame: nearly always there are two crossings.
    double two[2];
    std::vector<double> more;
    std::size_t n = 0;
    bool before = r.back().x <= x;
    for (std::size_t i = 0; i < r.size(); ++i) {
        // Eight at a time while none of them is on the other side: an outline has hundreds of points.
        while (i + 8 <= r.size()) {
            int over = 0;
            for (std::size_t k = 0; k < 8; ++k) over += static_cast<int>((r[i + k].x <= x) != before);
            if (over != 0) break;
            i += 8;
        }
        if (i == r.size()) break;
        const bool now = r[i].x <= x;
        if (now == before) continue;
        before = now;
        const Vec2 a = r[i > 0 ? i - 1 : r.size() - 1];
        const Vec2 b = r[i];
        const double y = a.y + (x - a.x) / (b.x - a.x) * (b.y - a.y);
        if (n < 2) two[n] = y;
        else more.push_back(y);
        ++n;
    }
    if (n == 2) {
        out.push_back({std::min(two[0], two[1]), std::max(two[0], two[1])});
        return out;
    }
    std::vector<double> ys(two, two + std::min<std::size_t>(n, 2));
    ys.insert(ys.end(), more.begin(), more.end());
    std::sort(ys.begin(), ys.end());
    for (std::size_t i = 0; i + 1 < ys.size(); i += 2) out.push_back({ys[i], ys[i + 1]});
    return out;
}

Vec2 Frame::to_slab(Vec2 p) const {
    const double t = angle_deg * std::numbers::pi / 180;
    const double c = std::cos(t);
    const double s = std::sin(t);
    return {origin.x + c * p.x - s * p.y, origin.y + s * p.x + c * p.y};
}

Vec2 Frame::from_slab(Vec2 xy) const {
    const double t = angle_deg * std::numbers::pi / 180;
    const double c = std::cos(t);
    const double s = std::sin(t);
    const Vec2 d = xy - origin;
    return {c * d.x + s * d.y, -s * d.x + c * d.y};
}

Ring Frame::to_slab(const Ring& uv) const {
    const double t = angle_deg * std::numbers::pi / 180;
    const double c = std::cos(t);
    const double s = std::sin(t);
    Ring out(uv.size());
    for (std::size_t i = 0; i < uv.size(); ++i) out[i] = {origin.x + c * uv[i].x - s * uv[i].y, origin.y + s * uv[i].x + c * uv[i].y};
    return out;
}

Ring Frame::from_slab(const Ring& xy) const {
    const double t = angle_deg * std::numbers::pi / 180;
    const double c = std::cos(t);
    const double s = std::sin(t);
    Ring out(xy.size());
    for (std::size_t i = 0; i < xy.size(); ++i) {
        const Vec2 d = xy[i] - origin;
        out[i] = {c * d.x + s * d.y, -s * d.x + c * d.y};
    }
    return out;
}

Ring largest(const std::vector<Ring>& rings) {
    const auto it = std::max_element(rings.begin(), rings.end(), [](const Ring& a, const Ring& b) { return area(a) < area(b); });
    return it == rings.end() ? Ring{} : *it;
}

MonotoneCubic::MonotoneCubic(std::vector<double> x, std::vector<double> y) : x_(std::move(x)), y_(std::move(y)), slope_(x_.size(), 0.0) {
    const std::size_t n = x_.size();
    if (n < 2) return;
    std::vector<double> d(n - 1);
    for (std::size_t i = 0; i + 1 < n; ++i) d[i] = (y_[i + 1] - y_[i]) / (x_[i + 1] - x_[i]);
    slope_.front() = d.front();
    slope_.back() = d.back();
    // Weighted harmonic mean of the neighbouring slopes keeps every piece monotone.
    for (std::size_t i = 1; i + 1 < n; ++i) {
        if (d[i - 1] * d[i] <= 0) continue;
        const double h0 = x_[i] - x_[i - 1];
        const double h1 = x_[i + 1] - x_[i];
        slope_[i] = 3 * (h0 + h1) / ((2 * h1 + h0) / d[i - 1] + (h1 + 2 * h0) / d[i]);
    }
}

double MonotoneCubic::operator()(double x) const {
    if (x_.empty()) return 0;
    if (x_.size() == 1 || x <= x_.front()) return y_.front();
    if (x >= x_.back()) return y_.back();
    const auto i = static_cast<std::size_t>(std::upper_bound(x_.begin(), x_.end(), x) - x_.begin()) - 1;
    const double h = x_[i + 1] - x_[i];
    const double t = (x - x_[i]) / h;
    const double t2 = t * t;
    const double t3 = t2 * t;
    return (2 * t3 - 3 * t2 + 1) * y_[i] + (t3 - 2 * t2 + t) * h * slope_[i] + (3 * t2 - 2 * t3) * y_[i + 1] +
           (t3 - t2) * h * slope_[i + 1];
}

Surface::Surface(std::vector<double> x, std::vector<double> y, std::vector<double> z)
    : x_(std::move(x)), y_(std::move(y)), z_(std::move(z)) {
    const auto rises = [](const std::vector<double>& v) {
        return !v.empty() && std::adjacent_find(v.begin(), v.end(), std::greater_equal<>()) == v.end();
    };
    if (!rises(x_) || !rises(y_) || z_.size() != x_.size() * y_.size())
        throw std::invalid_argument("Surface: axes must rise and hold one height per crossing");
}

namespace {
/// Cell index and position in it; clamped, so that heights go on level beyond the grid.
std::pair<std::size_t, double> locate(const std::vector<double>& axis, double v) {
    if (axis.size() == 1 || v <= axis.front()) return {0, 0.0};
    if (v >= axis.back()) return {axis.size() - 2, 1.0};
    const auto i = static_cast<std::size_t>(std::upper_bound(axis.begin(), axis.end(), v) - axis.begin()) - 1;
    return {i, (v - axis[i]) / (axis[i + 1] - axis[i])};
}
}  // namespace

double Surface::at(Vec2 p) const {
    if (z_.empty()) return 0;
    const auto [i, s] = locate(x_, p.x);
    const auto [j, t] = locate(y_, p.y);
    const std::size_t n = y_.size();
    const std::size_t i1 = std::min(i + 1, x_.size() - 1);
    const std::size_t j1 = std::min(j + 1, n - 1);
    const double low = z_[i * n + j] * (1 - t) + z_[i * n + j1] * t;
    const double high = z_[i1 * n + j] * (1 - t) + z_[i1 * n + j1] * t;
    return low * (1 - s) + high * s;
}

std::vector<Vec3> deciding_points(const Surface& surface, const Ring& ring) {
    std::vector<Vec3> out;
    const auto add = [&](Vec2 p) { out.push_back({p.x, p.y, surface.at(p)}); };
    for (const double x : surface.x())
        for (const Span1 inside : cut_at_x(ring, x))
            for (const double y : surface.y())
                if (y > inside.from && y < inside.to) add({x, y});
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 a = ring[i];
        const Vec2 b = ring[(i + 1) % ring.size()];
        add(a);
        const auto crossings = [&](const std::vector<double>& axis, double from, double to) {
            const auto [lo, hi] = std::minmax(from, to);
            for (auto it = std::upper_bound(axis.begin(), axis.end(), lo); it != axis.end() && *it < hi; ++it)
                add(lerp(a, b, (*it - from) / (to - from)));
        };
        crossings(surface.x(), a.x, b.x);
        crossings(surface.y(), a.y, b.y);
    }
    return out;
}

Ring seen_from_below(Ring ring) {
    for (Vec2& q : ring) q.y = -q.y;
    return ring;
}

Ring to_tenths(Ring ring) {
    for (Vec2& q : ring) q = {std::round(q.x * 10) / 10, std::round(q.y * 10) / 10};
    return ring;
}

Sides sides_of(const Ring& ring) {
    Sides out;
    if (ring.size() < 3) return out;
    const Ring r = signed_area(ring) < 0 ? Ring(ring.rbegin(), ring.rend()) : ring;
    const Box b = bounds(r);
    const double near = 1e-6;
    // Where the low side begins and ends, and the high one: at upright ends they are two points.
    std::size_t ll = r.size();
    std::size_t lh = r.size();
    std::size_t rl = r.size();
    std::size_t rh = r.size();
    for (std::size_t i = 0; i < r.size(); ++i) {
        if (r[i].x <= b.low.x + near) {
            if (ll == r.size() || r[i].y < r[ll].y) ll = i;
            if (lh == r.size() || r[i].y > r[lh].y) lh = i;
        }
        if (r[i].x >= b.high.x - near) {
            if (rl == r.size() || r[i].y < r[rl].y) rl = i;
            if (rh == r.size() || r[i].y > r[rh].y) rh = i;
        }
    }
    const auto walk = [&](std::size_t from, std::size_t to) {
        std::vector<Vec2> all;
        for (std::size_t i = from;; i = (i + 1) % r.size()) {
            all.push_back(r[i]);
            if (i == to) break;
        }
        return all;
    };
    const auto rising = [](std::vector<Vec2> all) {
        std::vector<Vec2> kept;
        constexpr double hair = 1e-7;
        for (const Vec2 p : all) {
            if (kept.empty() || p.x > kept.back().x + 1e-9) kept.push_back(p);
            else if (kept.size() > 1 && std::abs(p.x - kept.back().x) <= 1e-9) kept.push_back({kept.back().x + hair, p.y});
        }
        return kept;
    };
    out.low = rising(walk(ll, rl));
    std::vector<Vec2> high = walk(rh, lh);
    std::reverse(high.begin(), high.end());
    out.high = rising(std::move(high));
    return out;
}

double height_at(const std::vector<Vec2>& side, double x) {
    if (x <= side.at(0).x) return side.front().y;
    if (x >= side.back().x) return side.back().y;
    const auto it = std::upper_bound(side.begin(), side.end(), x, [](double v, Vec2 p) { return v < p.x; });
    const Vec2 a = *(it - 1);
    const Vec2 b = *it;
    return a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x);
}

namespace {

/// Calls `at` with every place where either side has a point, and their distance there, over the stretch that both have.
template <class At>
void along_both(const std::vector<Vec2>& low, const std::vector<Vec2>& high, At at) {
    if (low.size() < 2 || high.size() < 2) return;
    const double from = std::max(low.front().x, high.front().x);
    const double to = std::min(low.back().x, high.back().x);
    if (to <= from) return;
    std::size_t i = 0;  // of the pieces looked at
    std::size_t k = 0;
    const auto on = [](const std::vector<Vec2>& side, std::size_t& piece, double x) {
        while (piece + 2 < side.size() && side[piece + 1].x < x) ++piece;
        const Vec2 a = side[piece];
        const Vec2 b = side[piece + 1];
        return a.y + (b.y - a.y) * std::clamp((x - a.x) / (b.x - a.x), 0.0, 1.0);
    };
    const auto next = [](const std::vector<Vec2>& side, std::size_t piece, double x) {
        std::size_t p = piece;
        while (p < side.size() && side[p].x <= x) ++p;
        return p < side.size() ? side[p].x : 1e300;
    };
    for (double x = from;; x = std::min({to, next(low, i, x), next(high, k, x)})) {
        const double l = on(low, i, x);
        const double h = on(high, k, x);
        at(x, h - l);
        if (x >= to) return;
    }
}

}  // namespace

Apart apart(const std::vector<Vec2>& low, const std::vector<Vec2>& high) {
    Apart out;
    double before_x = 0;
    double before = 0;
    double sum = 0;
    bool first = true;
    along_both(low, high, [&](double x, double d) {
        if (first) {
            out.narrowest_mm = out.widest_mm = d;
            out.narrowest_x = out.widest_x = x;
        } else {
            sum += (x - before_x) * (before + d) / 2;
            out.length_mm += x - before_x;
            if (d < out.narrowest_mm) out.narrowest_mm = d, out.narrowest_x = x;
            if (d > out.widest_mm) out.widest_mm = d, out.widest_x = x;
        }
        first = false, before_x = x, before = d;
    });
    if (out.length_mm > 0) out.mean_mm = sum / out.length_mm;
    return out;
}

Ring thinned(const Ring& ring) {
    if (ring.size() <= most_ring_points) return ring;
    Ring out;
    out.reserve(most_ring_points);
    for (std::size_t i = 0; i < most_ring_points; ++i) out.push_back(ring[i * ring.size() / most_ring_points]);
    return out;
}

std::vector<Vec2> stretch(const std::vector<Vec2>& side, double from, double to) {
    if (side.size() < 2 || side.front().x > to || side.back().x < from) return {};
    std::vector<Vec2> out;
    const double a = std::max(from, side.front().x);
    const double b = std::min(to, side.back().x);
    out.push_back({a, height_at(side, a)});
    for (const Vec2 p : side)
        if (p.x > a && p.x < b) out.push_back(p);
    out.push_back({b, height_at(side, b)});
    return out;
}

double area_between(const std::vector<Vec2>& low, const std::vector<Vec2>& high) {
    double sum = 0;
    double before_x = 0;
    double before = 0;
    bool first = true;
    along_both(low, high, [&](double x, double now) {
        const double dx = x - before_x;
        if (!first && before >= 0 && now >= 0) sum += dx * (before + now) / 2;
        else if (!first && (before > 0 || now > 0))
            sum += dx * std::max(before, now) * std::max(before, now) / (2 * std::abs(now - before));
        first = false, before_x = x, before = now;
    });
    return sum;
}

}  // namespace yb
