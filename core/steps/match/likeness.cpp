#include "core/steps/match/likeness.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace yb {

namespace {

constexpr double beside_mm = 160;  ///< knots so near the seam are told

/// Height of the shown face in the log, face A of the lower slab at 0 when it is the reference.
struct Level {
    double height = 0;
    double down = 1;  ///< which way flattening moves it: −1 down for an upper face, +1 up for a lower one
};

double mean_thickness(const SeamSide& s) { return s.thickness_mm > 0 ? s.thickness_mm : means_of(s.shape).thickness_mm; }

bool shows_upper(const SeamSide& s) { return yb::shows_upper(s.slab, s.placement); }

double off_at(const SeamSide& s, Vec2 on_slab) { return s.flat && s.flat->ready ? std::max(0.0, s.flat->off_top.at(on_slab)) : 0; }

Vec2 turned(Vec2 v, double angle_deg) { return Frame{{0, 0}, angle_deg}.from_slab(v); }

}  // namespace

std::vector<KnotDive> knot_dives(const Slab& slab, double thickness) {
    std::vector<KnotDive> out;
    if (thickness <= 0) return out;
    std::vector<bool> taken(slab.flaws.size(), false);
    struct Pair {
        double distance;
        std::size_t a, b;
    };
    std::vector<Pair> pairs;
    for (std::size_t i = 0; i < slab.flaws.size(); ++i) {
        const Flaw& a = slab.flaws[i];
        if (a.kind != FlawKind::knot || a.face != Face::a || a.outline.size() < 3) continue;
        if (a.through) out.push_back({i, {0, 0}});
        for (std::size_t k = 0; k < slab.flaws.size(); ++k) {
            const Flaw& b = slab.flaws[k];
            if (b.kind != FlawKind::knot || b.face != Face::b || b.outline.size() < 3) continue;
            const double d = length(centroid(b.outline) - centroid(a.outline));
            if (d < 3.5 * thickness) pairs.push_back({d, i, k});
        }
    }
    std::sort(pairs.begin(), pairs.end(), [](const Pair& x, const Pair& y) { return x.distance < y.distance; });
    for (const Pair& p : pairs) {
        if (taken[p.a] || taken[p.b]) continue;
        taken[p.a] = taken[p.b] = true;
        out.push_back({p.a, (centroid(slab.flaws[p.b].outline) - centroid(slab.flaws[p.a].outline)) * (1 / thickness)});
    }
    return out;
}

namespace {

/// How high in the log the pith runs. Each slab tells only how far it lies from its middle, not to which side: of the
/// heights that both could mean, those that agree best; of one slab alone, the one further from the shown faces.
std::optional<double> pith_height(std::optional<double> low, double low_middle, std::optional<double> high, double high_middle,
                                  double shown) {
    const auto ways = [](double distance, double middle) { return std::array{middle - distance, middle + distance}; };
    if (low && high) {
        double best = 0;
        double misfit = 1e300;
        for (const double p : ways(std::abs(*low), low_middle))
            for (const double q : ways(std::abs(*high), high_middle))
                if (std::abs(p - q) < misfit) misfit = std::abs(p - q), best = (p + q) / 2;
        return best;
    }
    if (!low && !high) return {};
    const auto [p, q] = low ? ways(std::abs(*low), low_middle) : ways(std::abs(*high), high_middle);
    return std::abs(p - shown) > std::abs(q - shown) ? p : q;
}

}  // namespace

Likeness likeness_of(const SeamSide& right, const SeamSide& left, const JointPlan& seam, double kerf) {
    Likeness l;
    l.same_tree = !right.slab.tree.empty() && right.slab.tree == left.slab.tree;
    l.mirrored = shows_upper(right) != shows_upper(left);
    const double tr = mean_thickness(right);
    const double tl = mean_thickness(left);
    if (right.slab.sequence && left.slab.sequence && right.slab.sequence != left.slab.sequence)
        l.slabs_between = std::abs(*right.slab.sequence - *left.slab.sequence) - 1;
    // Where the shown faces lie in the log, upwards from the upper face of the lower slab.
    const bool right_lower = right.slab.sequence.value_or(0) <= left.slab.sequence.value_or(1);
    const SeamSide& low = right_lower ? right : left;
    const SeamSide& high = right_lower ? left : right;
    const int between = l.slabs_between.value_or(0);
    const double gap = (between + 1) * kerf + between * (tr + tl) / 2;
    const double t_low = right_lower ? tr : tl;
    const double t_high = right_lower ? tl : tr;
    const Level a = shows_upper(low) ? Level{0, -1} : Level{-t_low, 1};
    const Level b = shows_upper(high) ? Level{gap + t_high, -1} : Level{gap, 1};
    l.parted = l.slabs_between == 0 && shows_upper(low) && !shows_upper(high);

    const auto dives_r = knot_dives(right.slab, tr);
    const auto dives_l = knot_dives(left.slab, tl);
    const Frame fr = right.placement.frame();
    const Frame fl = left.placement.frame();
    /// `v_low`, `v_high`: where the same place of the log lies on either leaf.
    const auto apart_at = [&](double u, double v_low, double v_high) {
        const double off_low = off_at(low, low.placement.frame().to_slab({u, v_low}));
        const double off_high = off_at(high, high.placement.frame().to_slab({u, v_high}));
        return std::abs((b.height + b.down * off_high) - (a.height + a.down * off_low));
    };
    const auto pith = pith_height(low.slab.pith_mm, -t_low / 2, high.slab.pith_mm, gap + t_high / 2, (a.height + b.height) / 2);
    l.pith_known = pith.has_value();
    const SeamSide& with_pith = right.slab.pith_mm ? right : left;
    for (const JointStation& s : seam.along) {
        SeamStation out{s.u, apart_at(s.u, s.v, s.v), 0};
        if (l.pith_known) {
            const double y = std::abs(with_pith.placement.frame().to_slab({s.u, s.v}).y);
            const double h = std::abs((a.height + b.height) / 2 - *pith);
            out.drift_mm = out.apart_mm * std::min(5.0, h / std::max(1e-6, y));
        }
        l.apart_mm += out.apart_mm / static_cast<double>(seam.along.size());
        l.along.push_back(out);
    }
    const auto seam_v = [&](double u) {
        const JointStation* near = &seam.along.front();
        for (const JointStation& s : seam.along)
            if (std::abs(s.u - u) < std::abs(near->u - u)) near = &s;
        return near->v;
    };
    for (const std::size_t side : {std::size_t{0}, std::size_t{1}}) {
        const SeamSide& s = side == 0 ? right : left;
        const Frame& f = side == 0 ? fr : fl;
        for (const KnotDive& k : side == 0 ? dives_r : dives_l) {
            const Vec2 uv = f.from_slab(centroid(s.slab.flaws[k.flaw].outline));
            if (seam.along.empty() || uv.x < seam.along.front().u || uv.x > seam.along.back().u) continue;
            if (std::abs(uv.y - seam_v(uv.x)) > beside_mm) continue;
            // The mate's shown face lies above the shown one where a parted face looks at it, below where it was turned away.
            const bool mate_above = &s == &low;
            const bool shown_up = shows_upper(s);
            const double mate_v = l.mirrored ? 2 * seam_v(uv.x) - uv.y : uv.y;
            const double apart = &s == &low ? apart_at(uv.x, uv.y, mate_v) : apart_at(uv.x, mate_v, uv.y);
            const double depth = (mate_above == shown_up ? -1 : 1) * apart;  // down from face A as laid
            l.knots.push_back({side, uv, turned(k.slope * depth, s.placement.angle_deg), apart});
        }
    }
    for (const KnotDrift& k : l.knots)
        for (SeamStation& s : l.along)
            if (std::abs(s.u - k.uv.x) < 45) s.drift_mm = std::max(s.drift_mm, k.mm());
    for (const SeamStation& s : l.along) {
        l.drift_mm += s.drift_mm / static_cast<double>(l.along.size());
        if (s.drift_mm > l.worst_mm) l.worst_mm = s.drift_mm, l.worst_u_mm = s.u;
    }
    for (const KnotDrift& k : l.knots)
        if (k.mm() >= l.worst_mm - 1e-9) l.worst_mm = k.mm(), l.worst_u_mm = k.uv.x, l.worst_is_knot = true;

    // The outer edges, mirrored at the seam.
    double sum = 0;
    int n = 0;
    const Ring show_r = fr.from_slab(right.shape.ring_a);
    const Ring show_l = fl.from_slab(left.shape.ring_a);
    for (std::size_t i = 0; l.mirrored && i < seam.along.size(); i += 3) {
        const auto r = cut_at_x(show_r, seam.along[i].u);
        const auto e = cut_at_x(show_l, seam.along[i].u);
        if (r.empty() || e.empty()) continue;
        const double d = (seam.along[i].v - r.front().from) - (e.back().to - seam.along[i].v);
        sum += d * d;
        ++n;
    }
    l.edges_mm = n > 0 ? std::sqrt(sum / n) : 0;
    return l;
}

void tell_likeness(const Likeness& l, const JointPlan& seam, const MakeUpChoices& choices, LayPlan& lay, double half) {
    if (seam.along.empty()) return;
    const double v = seam.along[seam.along.size() / 2].v;
    const auto add = [&](const char* key, Severity s, Phrase says, double u) {
        lay.cautions.push_back({key, s, step_key::lay, std::move(says), Vec2{u + half, v}});
    };
    if (!l.same_tree) return;
    std::vector<Given> given{
        {"shown faces apart in the log", fine(l.apart_mm), "mill's kerf + what flattening takes off both"},
        {"mill's kerf", fine(choices.mill_kerf_mm), "what you set"},
        {"slabs between", count(l.slabs_between.value_or(0)), l.slabs_between ? "numbers in the log" : "not known: taken as neighbours"},
        {"knots beside the seam", count(static_cast<double>(l.knots.size())), "drawn on both faces of a slab"},
        {"outer edges differ, mirrored", fine(l.edges_mm), "root mean square"}};
    lay.figures.push_back(
        {"lay.drift",
         "Seam drifts, on average",
         fine(l.drift_mm),
         {},
         l.worst_is_knot                    ? say("{} at the knot at {}", fine(l.worst_mm), along(l.worst_u_mm + half))
         : l.pith_known || !l.knots.empty() ? say("{} at most, at {}", fine(l.worst_mm), along(l.worst_u_mm + half))
                                            : say("the pith is not known: only knots are counted"),
         {"d · h/|y| for the rings, no more than 5 d; d · slope of its dive for a knot", given, "docs/methods.md, Likeness"}});
    if (l.mirrored && !l.parted)
        add("lay.not_parted", Severity::watch,
            say(l.slabs_between.value_or(0) > 0
                    ? "These leaves were not neighbours in the log: {} of wood lie between the faces that show."
                    : "The faces that show are not those that the saw parted: {} of wood lie between them. Turn both over.",
                fine(l.apart_mm)),
            0);
    if (l.worst_mm > 8)
        add("lay.drifts", Severity::note,
            say(l.worst_is_knot
                    ? "The knot at {} drifts {} across the seam: it runs steeply through the log. A slide along the joint shifts which "
                      "places suffer."
                    : "At {} the figure drifts {} across the seam: a shallower flattening keeps it nearer.",
                along(l.worst_u_mm + half), fine(l.worst_mm)),
            l.worst_u_mm);
}

SeamMatch match_seam(const SeamSide& right, const SeamPicture& rp, const SeamSide& left, const SeamPicture& lp, const JointPlan& seam,
                     bool mirrored, double width, const Work& work) {
    SeamMatch m;
    if (!rp.picture || !lp.picture || rp.picture->empty() || lp.picture->empty() || seam.along.size() < 4) return m;
    constexpr double cell = 4;      // mm between samples
    constexpr double window = 160;  // mm along
    constexpr double reach = 60;    // mm of slide tried
    const double u0 = seam.along.front().u;
    const double u1 = seam.along.back().u;
    const auto nu = static_cast<std::size_t>((u1 - u0) / cell);
    const auto nv = static_cast<std::size_t>(width / cell);
    const auto v_at = [&](double u) {
        const double t = std::clamp((u - u0) / (u1 - u0), 0.0, 1.0) * static_cast<double>(seam.along.size() - 1);
        const auto i = std::min(seam.along.size() - 2, static_cast<std::size_t>(t));
        const double k = t - static_cast<double>(i);
        return seam.along[i].v * (1 - k) + seam.along[i + 1].v * k;
    };
    // Mean of the picture over a cell.
    const auto grey = [](const SeamSide& s, const SeamPicture& p, Vec2 uv) -> float {
        const Vec2 q = s.placement.frame().to_slab(uv);
        if (!contains(s.shape.ring_a, q)) return NAN;
        const double i = (q.x - p.place.corner.x) / p.place.mm_per_px;
        const double j = (p.place.mirrored ? q.y - p.place.corner.y : p.place.corner.y - q.y) / p.place.mm_per_px;
        const int half = std::max(0, static_cast<int>(cell / 2 / p.place.mm_per_px));
        const int x = static_cast<int>(i);
        const int y = static_cast<int>(j);
        if (x < half || y < half || x + half >= p.picture->width || y + half >= p.picture->height) return NAN;
        float sum = 0;
        for (int dy = -half; dy <= half; ++dy)
            for (int dx = -half; dx <= half; ++dx) {
                const std::uint8_t* c = p.picture->at(x + dx, y + dy);
                sum += 0.3F * static_cast<float>(c[0]) + 0.59F * static_cast<float>(c[1]) + 0.11F * static_cast<float>(c[2]);
            }
        return sum / static_cast<float>((2 * half + 1) * (2 * half + 1));
    };
    /// Streaks run along the grain for metres and fit at any slide: only what changes along the seam is compared.
    const auto along_only = [nv](std::vector<float>& g) {
        constexpr std::ptrdiff_t around = 14;
        const auto n = static_cast<std::ptrdiff_t>(g.size() / nv);
        std::vector<float> out(g.size(), NAN);
        for (std::size_t k = 0; k < nv; ++k)
            for (std::ptrdiff_t i = 0; i < n; ++i) {
                float sum = 0;
                float count = 0;
                for (std::ptrdiff_t w = std::max<std::ptrdiff_t>(0, i - around); w <= std::min(n - 1, i + around); ++w)
                    if (const float v = g[static_cast<std::size_t>(w) * nv + k]; std::isfinite(v)) sum += v, count += 1;
                const std::size_t at = static_cast<std::size_t>(i) * nv + k;
                if (count > 0) out[at] = g[at] - sum / count;
            }
        g = std::move(out);
    };
    // Samples in from the seam: the left leaf's mirrored for a book, in its own direction for a slip pair.
    const auto pad = static_cast<std::size_t>(reach / cell);
    std::vector<float> r(nu * nv), l((nu + 2 * pad) * nv);
    in_parallel(nu + 2 * pad,
                [&](std::size_t i) {
                    const double u = u0 + (static_cast<double>(i) - static_cast<double>(pad)) * cell;
                    for (std::size_t k = 0; k < nv; ++k) {
                        const double in = 3 + static_cast<double>(k) * cell;
                        if (i >= pad && i < pad + nu) r[(i - pad) * nv + k] = grey(right, rp, {u, v_at(u) - in});
                        const double v = mirrored ? v_at(u) + in : v_at(u) + width + 3 - in;
                        l[i * nv + k] = grey(left, lp, {u, v});
                    }
                },
                {{}, work.stop, work.threads});
    along_only(r);
    along_only(l);
    const auto span = static_cast<std::size_t>(window / cell);
    /// Normalised cross-correlation of a stretch of the right leaf with the left one slid by `by` samples.
    const auto ncc = [&](std::size_t from, std::size_t to, std::ptrdiff_t by) {
        double n = 0, sa = 0, sb = 0, saa = 0, sbb = 0, sab = 0;
        for (std::size_t i = from; i < to; ++i)
            for (std::size_t k = 0; k < nv; ++k) {
                const double a = r[i * nv + k];
                const double b = l[static_cast<std::size_t>(static_cast<std::ptrdiff_t>(i + pad) + by) * nv + k];
                if (!std::isfinite(a) || !std::isfinite(b)) continue;
                n += 1, sa += a, sb += b, saa += a * a, sbb += b * b, sab += a * b;
            }
        if (n < 40) return 0.0;
        const double va = saa - sa * sa / n;
        const double vb = sbb - sb * sb / n;
        return va > 1 && vb > 1 ? (sab - sa * sb / n) / std::sqrt(va * vb) : 0.0;
    };
    const auto most = static_cast<std::ptrdiff_t>(pad);
    std::vector<double> total(2 * pad + 1, 0);
    std::size_t windows = 0;
    for (std::size_t from = 0; from + span <= nu; from += span) {
        work.check();
        SeamStation w{u0 + (static_cast<double>(from) + static_cast<double>(span) / 2) * cell, 0, 0};
        double best = -2;
        for (std::ptrdiff_t by = -most; by <= most; ++by) {
            const double c = ncc(from, from + span, by);
            total[static_cast<std::size_t>(by + most)] += c;
            if (by == 0) w.drift_mm = c;
            if (c > best) best = c, w.apart_mm = static_cast<double>(by) * cell;
        }
        m.windows.push_back(w);
        ++windows;
    }
    if (windows == 0) return m;
    const auto best = std::max_element(total.begin(), total.end());
    m.mean = total[pad] / static_cast<double>(windows);
    m.slid_mean = *best / static_cast<double>(windows);
    // Sampling the left leaf further along means sliding it back by as much.
    m.slide_mm = -static_cast<double>(best - total.begin() - most) * cell;
    return m;
}

}  // namespace yb
