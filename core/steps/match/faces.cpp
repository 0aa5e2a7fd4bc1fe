#include "core/steps/match/faces.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

namespace yb {

namespace {

constexpr std::size_t stations = FaceView::stations;
constexpr double cell = FaceView::cell;
constexpr double ends_askew = 0.04;  ///< ends that stand askew are no edges: so much of the width is left out at either

struct Line {
    double offset = 0, slope = 0;
};
/// Least squares through the middles of both faces.
Line middle_line(const Ring& a, const Ring& b, double x0, double x1) {
    double n = 0, sx = 0, sy = 0, sxx = 0, sxy = 0;
    for (std::size_t i = 0; i < stations; ++i) {
        const double x = x0 + (x1 - x0) * (0.5 + 0.485 * (2.0 * static_cast<double>(i) / (stations - 1) - 1));
        for (const Ring* ring : {&a, &b})
            if (const auto c = cut_at_x(*ring, x); !c.empty()) {
                const double y = (c.front().from + c.back().to) / 2;
                n += 1, sx += x, sy += y, sxx += x * x, sxy += x * y;
            }
    }
    const double d = n * sxx - sx * sx;
    if (n < 2 || d <= 0) return {};
    const double slope = (n * sxy - sx * sy) / d;
    return {(sy - slope * sx) / n, slope};
}

/// Where a tape tells the edges: under a chalk line that runs askew the first and the last station cut the end's corner off, and what is
/// read there is no width of the slab. Such an end is left out up to the next station.
Span1 sound_stretch(const Slab& slab, Span1 all) {
    if (slab.outline || slab.tape.stations.size() < 4) return all;
    std::vector<std::pair<double, double>> wide;  // where, and how wide the narrower face is there
    for (const Station& s : slab.tape.stations) {
        if (!s.left_mm || !s.right_mm) continue;
        double w = *s.left_mm + *s.right_mm;
        if (s.other_left_mm && s.other_right_mm) w = std::min(w, *s.other_left_mm + *s.other_right_mm);
        wide.emplace_back(s.x_mm, w);
    }
    if (wide.size() < 4) return all;
    std::sort(wide.begin(), wide.end());
    constexpr double corner = 0.6;  // of the width that the next two would lead to
    const auto cut_off = [&](std::size_t end, std::size_t one, std::size_t two) {
        const auto& [x0, w0] = wide[end];
        const auto& [x1, w1] = wide[one];
        const auto& [x2, w2] = wide[two];
        if (std::abs(x2 - x1) < 1) return false;
        return w0 < corner * (w1 + (w1 - w2) * (x1 - x0) / (x2 - x1));
    };
    const std::size_t n = wide.size();
    Span1 out = all;
    if (cut_off(0, 1, 2)) out.from = std::max(out.from, wide[1].first);
    if (cut_off(n - 1, n - 2, n - 3)) out.to = std::min(out.to, wide[n - 2].first);
    return out.to - out.from > (all.to - all.from) / 3 ? out : all;
}

/// The picture of a face in cells, where the straightened face is `frame`.
void light_of(FaceView& v, const Picture& picture, const FacePicture& place, const Frame& frame, double half_length) {
    double reach = 0;
    for (std::size_t i = 0; i < stations; ++i) reach = std::max({reach, std::abs(v.low[i]), std::abs(v.high[i])});
    v.nx = static_cast<int>(half_length / cell);
    v.ny = static_cast<int>(reach / cell);
    const int w = 2 * v.nx + 1;
    const int h = 2 * v.ny + 1;
    std::vector<float> raw(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), NAN);
    const int samples = std::clamp(static_cast<int>(std::lround(cell / place.mm_per_px)), 1, 4);  // of a cell, each way
    for (int y = -v.ny; y <= v.ny; ++y)
        for (int x = -v.nx; x <= v.nx; ++x) {
            const double at = std::clamp((x * cell / half_length + 1) / 2, 0.0, 1.0) * (stations - 1);
            const auto s = static_cast<std::size_t>(at + 0.5);
            if (y * cell < v.low[s] + 6 || y * cell > v.high[s] - 6) continue;
            double sum = 0;
            int n = 0;
            for (int j = 0; j < samples; ++j)
                for (int i = 0; i < samples; ++i) {
                    const Vec2 q = frame.to_slab({(x + (i + 0.5) / samples - 0.5) * cell, (y + (j + 0.5) / samples - 0.5) * cell});
                    const auto px = static_cast<int>((q.x - place.corner.x) / place.mm_per_px + 0.5);
                    const auto py =
                        static_cast<int>((place.mirrored ? q.y - place.corner.y : place.corner.y - q.y) / place.mm_per_px + 0.5);
                    if (px < 0 || py < 0 || px >= picture.width || py >= picture.height) continue;
                    const std::uint8_t* c = picture.at(px, py);
                    sum += 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2];
                    ++n;
                }
            if (n > 0) raw[static_cast<std::size_t>((y + v.ny) * w + x + v.nx)] = static_cast<float>(sum / n);
        }
    // Sapwood and heartwood differ by more than the figure does: only what differs from its surroundings is compared.
    v.light.assign(raw.size(), NAN);
    constexpr int around = 5;
    std::vector<double> sum(static_cast<std::size_t>((w + 1) * (h + 1)), 0), count(sum.size(), 0);  // running
    const auto id = [&](int x, int y) { return static_cast<std::size_t>(y * (w + 1) + x); };
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const float r = raw[static_cast<std::size_t>(y * w + x)];
            const bool there = std::isfinite(r);
            sum[id(x + 1, y + 1)] = sum[id(x, y + 1)] + sum[id(x + 1, y)] - sum[id(x, y)] + (there ? static_cast<double>(r) : 0);
            count[id(x + 1, y + 1)] = count[id(x, y + 1)] + count[id(x + 1, y)] - count[id(x, y)] + (there ? 1 : 0);
        }
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const float r = raw[static_cast<std::size_t>(y * w + x)];
            if (!std::isfinite(r)) continue;
            const int x0 = std::max(0, x - around);
            const int x1 = std::min(w, x + around + 1);
            const int y0 = std::max(0, y - around);
            const int y1 = std::min(h, y + around + 1);
            const auto box = [&](const std::vector<double>& s) { return s[id(x1, y1)] - s[id(x0, y1)] - s[id(x1, y0)] + s[id(x0, y0)]; };
            v.light[static_cast<std::size_t>(y * w + x)] = static_cast<float>(static_cast<double>(r) - box(sum) / box(count));
        }
}

}  // namespace

SlabView view_of(const Slab& slab, const SlabShape& shape, const Picture* face_a, const Picture* face_b, double kerf) {
    const Ring& a = shape.ring_a;
    const Ring& b = shape.ring_b;
    if (a.size() < 3 || b.size() < 3) throw std::invalid_argument(slab.name + " has no outline yet");
    const auto stretch = [&](const Ring& p, const Ring& q) {
        const Box f = bounds(p);
        const Box g = bounds(q);
        return Span1{std::max(f.low.x, g.low.x), std::min(f.high.x, g.high.x)};
    };
    const Span1 raw = sound_stretch(slab, stretch(a, b));
    const Line line = middle_line(a, b, raw.from, raw.to);
    const double mid_x = (raw.from + raw.to) / 2;
    Frame frame{{mid_x, line.offset + line.slope * mid_x}, std::atan(line.slope) * 180 / std::numbers::pi};
    std::array<Ring, 2> rings{frame.from_slab(a), frame.from_slab(b)};
    Span1 along = stretch(rings[0], rings[1]);
    along.from = std::max(along.from, frame.from_slab(Vec2{raw.from, line.offset + line.slope * raw.from}).x);
    along.to = std::min(along.to, frame.from_slab(Vec2{raw.to, line.offset + line.slope * raw.to}).x);
    // From the middle of the straightened slab.
    const Vec2 shift{(along.from + along.to) / 2, 0};
    frame.origin = frame.to_slab(shift);
    for (Ring& ring : rings)
        for (Vec2& p : ring) p = p - shift;

    SlabView v;
    const double half = (along.to - along.from) / 2;
    v.half_length = half - std::min(half / 4, ends_askew * (bounds(rings[0]).height() + bounds(rings[1]).height()) / 2);
    v.thickness_mm = std::max(1.0, means_of(shape).thickness_mm);
    std::array<std::array<Span1, stations>, 2> cuts;
    for (std::size_t f = 0; f < 2; ++f) {
        Span1 last{};
        for (std::size_t i = 0; i < stations; ++i) {
            const auto c = cut_at_x(rings[f], v.station(i));
            if (!c.empty()) last = {c.front().from, c.back().to};
            cuts[f][i] = last;
        }
    }
    const double beyond = kerf / 2 / v.thickness_mm;
    for (std::size_t i = 0; i < stations; ++i) {
        const double wa = cuts[0][i].to - cuts[0][i].from;
        const double wb = cuts[1][i].to - cuts[1][i].from;
        v.width_mm += (wa + wb) / 2 / static_cast<double>(stations);
        v.height_mm += (wb * wb - wa * wa) / (8 * v.thickness_mm) / static_cast<double>(stations);
        for (std::size_t f = 0; f < 2; ++f) {
            const Span1& own = cuts[f][i];
            const Span1& far = cuts[1 - f][i];
            v.faces[f].low[i] = own.from + (own.from - far.from) * beyond;
            v.faces[f].high[i] = own.to + (own.to - far.to) * beyond;
            v.faces[f].lean[i] = std::hypot(own.from - far.from, own.to - far.to) / v.thickness_mm / std::numbers::sqrt2;
        }
    }
    for (std::size_t f = 0; f < 2; ++f) {
        const Face face = f == 0 ? Face::a : Face::b;
        for (const Flaw& k : slab.flaws)
            if (k.kind == FlawKind::knot && (k.face == face || k.through) && k.outline.size() >= 3)
                v.faces[f].knots.push_back(frame.from_slab(centroid(k.outline)));
        const Picture* picture = f == 0 ? face_a : face_b;
        const auto& place = f == 0 ? slab.picture_a : slab.picture_b;
        if (picture && !picture->empty() && place) light_of(v.faces[f], *picture, *place, frame, v.half_length);
    }
    return v;
}

namespace {

constexpr double step_mm = 8;          ///< of the slides tried
constexpr double stray_mm = 40;        ///< ends are not sawn square: so far past what the lengths allow
constexpr double knot_gain = 4;        ///< a pair of knots that lie on one another, in units of log likelihood
constexpr double picture_weight = 30;  ///< independent places that a pair of pictures is worth
constexpr double correlated_mm = 160;  ///< edges wander over about so much
constexpr double height_mm = 0.8;      ///< deviation of a face's height: the saw wanders, wood dries

/// The second face laid on the first at one slide.
struct Laid {
    double slide = 0, dy = 0, turn = 0;  ///< p ↦ (sx p.x + slide, sy p.y + dy + turn · x)
    FaceMatch m;
};

struct Comparer {
    const SlabView& sa;
    const SlabView& sb;
    const FaceView& a;
    const FaceView& b;
    double sx, sy;
    const Trust& trust;

    struct Edges {
        double low = 0, high = 0, lean = 0;
    };
    Edges edges_b(double x) const {  // where it lies, before it is shifted across
        const double t = std::clamp((sx * x / sb.half_length + 1) / 2, 0.0, 1.0) * (stations - 1);
        const auto i = std::min(stations - 2, static_cast<std::size_t>(t));
        const double k = t - static_cast<double>(i);
        const double low = b.low[i] * (1 - k) + b.low[i + 1] * k;
        const double high = b.high[i] * (1 - k) + b.high[i + 1] * k;
        const double lean = b.lean[i] * (1 - k) + b.lean[i + 1] * k;
        return sy > 0 ? Edges{low, high, lean} : Edges{-high, -low, lean};
    }

    /// Edges: the middle line's shift and turn and a difference of the width are free, what is left is the misfit. Where
    /// edges lean, an error of the height moves them sideways: there they count less.
    bool edges(Laid& l) const {
        double n = 0, s = 0, m = 0, mx = 0, mxx = 0, mxm = 0, mm = 0, w = 0, ww = 0, width = 0, lean2 = 0;
        for (std::size_t i = 0; i < stations; ++i) {
            const double x = sa.station(i);
            if (std::abs(x - l.slide) > sb.half_length) continue;
            const Edges e = edges_b(x - l.slide);
            const double mid = (a.low[i] + a.high[i] - e.low - e.high) / 2;
            const double wide = (a.high[i] - a.low[i]) - (e.high - e.low);
            const double lean = (a.lean[i] * a.lean[i] + e.lean * e.lean) / 2;
            const double off = height_mm * height_mm * lean / (trust.edge_mm * trust.edge_mm);
            const double k = 1 / (1 + off);
            n += 1, s += k, m += k * mid, mx += k * x, mxx += k * x * x, mxm += k * x * mid, mm += k * mid * mid;
            w += k * wide, ww += k * wide * wide, width += a.high[i] - a.low[i], lean2 += lean;
        }
        if (n < 0.6 * static_cast<double>(stations)) return false;
        const double d = s * mxx - mx * mx;
        l.turn = d > 0 ? (s * mxm - mx * m) / d : 0;
        l.dy = (m - l.turn * mx) / s;
        const double off_middle = std::max(0.0, mm - l.dy * m - l.turn * mxm) / n;
        const double mean_w = w / s;
        const double off_width = std::max(0.0, ww - mean_w * w) / n / 4;
        l.m.width_mm = mean_w;
        l.m.misfit_mm = std::sqrt(off_middle + off_width);
        const double share = n / static_cast<double>(stations);
        const double independent = 2 * std::max(2.0, 2 * sa.half_length * share / correlated_mm);
        const double q = (off_middle + off_width) / (2 * trust.edge_mm * trust.edge_mm);
        // Drying takes a per cent more or less of each width.
        const double of_width = mean_w / (0.012 * width / n + trust.edge_mm + height_mm * std::sqrt(lean2 / n));
        l.m.cost = independent / 2 * std::log1p(q) + std::log1p(of_width * of_width);
        return true;
    }

    Vec2 lie(Vec2 q, const Laid& l) const {
        const double x = sx * q.x + l.slide;
        return {x, sy * q.y + l.dy + l.turn * x};
    }

    void knots(Laid& l) const {
        struct Pair {
            double d;
            std::size_t i, k;
        };
        std::vector<Pair> near;
        for (std::size_t i = 0; i < b.knots.size(); ++i) {
            const Vec2 q = lie(b.knots[i], l);
            for (std::size_t k = 0; k < a.knots.size(); ++k)
                if (const double d = length(a.knots[k] - q); d < 3 * trust.knot_mm) near.push_back({d, i, k});
        }
        std::sort(near.begin(), near.end(), [](const Pair& p, const Pair& q) { return p.d < q.d; });
        std::vector<bool> of_a(a.knots.size()), of_b(b.knots.size());
        for (const Pair& p : near) {
            if (of_b[p.i] || of_a[p.k]) continue;
            of_b[p.i] = of_a[p.k] = true;
            const double gain = knot_gain - p.d * p.d / (2 * trust.knot_mm * trust.knot_mm);
            if (gain <= 0) continue;
            l.m.cost -= gain;
            ++l.m.knots;
        }
    }

    void pictures(Laid& l) const {
        double most = -1;
        const int slide = static_cast<int>(std::lround(l.slide / cell));
        for (int oy = -1; oy <= 1; ++oy) {
            double k = 0;
            float va = 0, vb = 0, vab = 0;
            for (int x = -a.nx; x <= a.nx; ++x) {
                const int xb = static_cast<int>(sx) * (x - slide);
                if (xb < -b.nx || xb > b.nx) continue;
                const int shift = static_cast<int>(std::lround((l.dy + l.turn * x * cell) / cell)) + oy;
                for (int y = std::max(-a.ny, -b.ny + shift); y <= std::min(a.ny, b.ny + shift); ++y) {
                    const float p = a.at(x, y);
                    const float q = b.at(xb, static_cast<int>(sy) * (y - shift));
                    if (!std::isfinite(p) || !std::isfinite(q)) continue;
                    k += 1, va += p * p, vb += q * q, vab += p * q;
                }
            }
            if (k > 200 && va > 0 && vb > 0)
                most = std::max(most, static_cast<double>(vab) / std::sqrt(static_cast<double>(va) * static_cast<double>(vb)));
        }
        l.m.likeness = std::max(0.0, most);
        l.m.cost += picture_weight / 2 * std::log(1.0001 - l.m.likeness * l.m.likeness);
    }
};

}  // namespace

FaceMatch lay_on(const SlabView& sa, int a, const SlabView& sb, int b, bool mirrored, bool round, const Trust& trust, bool pictures) {
    if (sb.half_length < sa.half_length) {  // the shorter one's stations are looked at
        FaceMatch m = lay_on(sb, b, sa, a, mirrored, round, trust, pictures);
        if (!round) m.shift_mm = -m.shift_mm;
        return m;
    }
    const FaceView& fa = sa.faces[static_cast<std::size_t>(a)];
    const FaceView& fb = sb.faces[static_cast<std::size_t>(b)];
    const Comparer c{sa, sb, fa, fb, round ? -1.0 : 1.0, mirrored != round ? -1.0 : 1.0, trust};
    const double reach = std::abs(sa.half_length - sb.half_length) + stray_mm;
    std::vector<Laid> all;
    const int steps = static_cast<int>(reach / step_mm);
    for (int k = -steps; k <= steps; ++k) {
        Laid l;
        l.slide = k * step_mm;
        if (!c.edges(l)) continue;
        c.knots(l);
        l.m.shift_mm = l.slide;
        all.push_back(l);
    }
    FaceMatch best;
    best.cost = 1e6;
    if (all.empty()) return best;
    pictures = pictures && !fa.light.empty() && !fb.light.empty();
    double least = 1e300;
    for (const Laid& l : all) least = std::min(least, l.m.cost);
    for (Laid& l : all) {
        if (pictures && l.m.cost < least + 8) c.pictures(l);
        if (l.m.cost < best.cost) best = l.m;
    }
    return best;
}

}  // namespace yb
