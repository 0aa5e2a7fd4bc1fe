#include "core/match/sequence.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>
#include <stdexcept>
#include <unordered_map>

namespace yb {

namespace {

constexpr double cell = 8;  ///< mm, of the pictures compared
constexpr int reach_x = 6;  ///< cells of slide along the log that are tried
constexpr int reach_y = 2;
constexpr std::size_t stations = 41;

/// One face as seen from above face A, told from its own middle.
struct FaceView {
    double half_length = 0;
    std::array<float, stations> low{}, high{};  ///< edges at even stations
    std::vector<Vec2> knots;
    int nx = 0, ny = 0;        ///< cells on either side of the middle: the grid is (2 nx + 1) × (2 ny + 1)
    std::vector<float> light;  ///< its own mean over 11 cells taken out; NaN outside
    float at(int x, int y) const { return light[static_cast<std::size_t>((y + ny) * (2 * nx + 1) + x + nx)]; }
};

FaceView view_of(const SequenceItem& item, Face face) {
    FaceView v;
    const Ring& ring = face == Face::a ? item.shape->ring_a : item.shape->ring_b;
    if (ring.size() < 3) throw std::invalid_argument(item.slab->name + " has no outline yet");
    const Box box = bounds(ring);
    double mid_y = 0;
    v.half_length = box.width() / 2;
    const double mid_x = (box.low.x + box.high.x) / 2;
    std::array<Span1, stations> cut{};
    for (std::size_t i = 0; i < stations; ++i) {
        const double x = mid_x + (-1 + 2.0 * static_cast<double>(i) / (stations - 1)) * v.half_length * 0.985;
        const auto c = cut_at_x(ring, x);
        cut[i] = c.empty() ? Span1{} : Span1{c.front().from, c.back().to};
        mid_y += (cut[i].from + cut[i].to) / 2 / static_cast<double>(stations);
    }
    for (std::size_t i = 0; i < stations; ++i)
        v.low[i] = static_cast<float>(cut[i].from - mid_y), v.high[i] = static_cast<float>(cut[i].to - mid_y);
    for (const Flaw& f : item.slab->flaws)
        if (f.kind == FlawKind::knot && (f.face == face || f.through) && f.outline.size() >= 3)
            v.knots.push_back(centroid(f.outline) - Vec2{mid_x, mid_y});
    const Picture* picture = face == Face::a ? item.face_a : item.face_b;
    const auto& place = face == Face::a ? item.slab->picture_a : item.slab->picture_b;
    if (!picture || picture->empty() || !place) return v;
    v.nx = static_cast<int>(v.half_length / cell);
    v.ny = static_cast<int>(box.height() / 2 / cell);
    std::vector<float> raw(static_cast<std::size_t>((2 * v.nx + 1) * (2 * v.ny + 1)), NAN);
    for (int y = -v.ny; y <= v.ny; ++y)
        for (int x = -v.nx; x <= v.nx; ++x) {
            const Vec2 q{mid_x + x * cell, mid_y + y * cell};
            const auto s =
                static_cast<std::size_t>(std::clamp((q.x - mid_x) / (v.half_length * 0.985) * 0.5 + 0.5, 0.0, 1.0) * (stations - 1) + 0.5);
            if (q.y < cut[s].from + 6 || q.y > cut[s].to - 6) continue;
            // Mean of the picture over the cell.
            const double i0 = (q.x - cell / 2 - place->corner.x) / place->mm_per_px;
            const double i1 = (q.x + cell / 2 - place->corner.x) / place->mm_per_px;
            const double ja = (place->mirrored ? q.y - place->corner.y : place->corner.y - q.y) / place->mm_per_px;
            const double half = cell / 2 / place->mm_per_px;
            double sum = 0;
            int n = 0;
            for (int j = std::max(0, static_cast<int>(ja - half)); j < std::min(picture->height, static_cast<int>(ja + half) + 1); ++j)
                for (int i = std::max(0, static_cast<int>(i0)); i < std::min(picture->width, static_cast<int>(i1) + 1); ++i) {
                    const std::uint8_t* c = picture->at(i, j);
                    sum += 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2];
                    ++n;
                }
            if (n > 0) raw[static_cast<std::size_t>((y + v.ny) * (2 * v.nx + 1) + x + v.nx)] = static_cast<float>(sum / n);
        }
    // Sapwood and heartwood differ by more than the figure does: only what differs from its surroundings is compared.
    v.light.assign(raw.size(), NAN);
    const int w = 2 * v.nx + 1;
    const int h = 2 * v.ny + 1;
    constexpr int around = 5;
    // Running sums of values and counts.
    std::vector<double> sum(static_cast<std::size_t>((w + 1) * (h + 1)), 0), count(sum.size(), 0);
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
            const auto box_of = [&](const std::vector<double>& s) { return s[id(x1, y1)] - s[id(x0, y1)] - s[id(x1, y0)] + s[id(x0, y0)]; };
            v.light[static_cast<std::size_t>(y * w + x)] = static_cast<float>(static_cast<double>(r) - box_of(sum) / box_of(count));
        }
    return v;
}

struct Match {
    double cost = 1e6;
    double shift_mm = 0;
};

/// How ill the view `b`, flipped across and turned round as told, lies on `a`.
Match compare(const FaceView& a, const FaceView& b, bool flip, bool round) {
    const double sx = round ? -1 : 1;
    const double sy = flip != round ? -1 : 1;
    const auto edge_b = [&](double x) {  // its edges at a station, from its middle
        const double t = std::clamp((sx * x / (b.half_length * 0.985) + 1) / 2, 0.0, 1.0) * (stations - 1);
        const auto i = std::min(stations - 2, static_cast<std::size_t>(t));
        const auto k = static_cast<float>(t - static_cast<double>(i));
        const double low = b.low[i] * (1 - k) + b.low[i + 1] * k;
        const double high = b.high[i] * (1 - k) + b.high[i + 1] * k;
        return sy > 0 ? Span1{low, high} : Span1{-high, -low};
    };
    Match best;
    const double ends = std::abs(a.half_length - b.half_length);
    for (int slide = -reach_x; slide <= reach_x; ++slide) {
        const double dx = slide * cell;
        if (std::abs(dx) > ends + 26) continue;
        // Edges: a shift across and a turn are free, what is left is the misfit.
        double n = 0, s = 0, sxx = 0, sxd = 0, sdd = 0, width = 0;
        for (std::size_t i = 0; i < stations; ++i) {
            const double x = (-1 + 2.0 * static_cast<double>(i) / (stations - 1)) * a.half_length * 0.985;
            if (std::abs(x - dx) > b.half_length * 0.985) continue;
            const Span1 e = edge_b(x - dx);
            for (const double d : {static_cast<double>(a.low[i]) - e.from, static_cast<double>(a.high[i]) - e.to})
                n += 1, s += d, sxx += x * x, sxd += x * d, sdd += d * d;
            width += (a.high[i] - a.low[i]) - (e.to - e.from);
        }
        if (n < 20) continue;
        const double dy = s / n;
        const double turn = sxx > 0 ? sxd / sxx : 0;
        const double misfit = std::sqrt(std::max(0.0, sdd / n - dy * dy - turn * sxd / n));
        double cost = misfit / 8 + std::abs(width / n) / 14;
        // Knots that come out on both: each without a mate speaks against it.
        double unmatched = 0;
        const auto mapped = [&](Vec2 q) { return Vec2{sx * q.x + dx, sy * q.y + dy}; };
        for (const Vec2 q : b.knots) {
            double near = 1e300;
            for (const Vec2 p : a.knots) near = std::min(near, length(p - mapped(q)));
            unmatched += std::min(1.0, near / 30);
        }
        for (const Vec2 p : a.knots) {
            double near = 1e300;
            for (const Vec2 q : b.knots) near = std::min(near, length(p - mapped(q)));
            unmatched += std::min(1.0, near / 30);
        }
        if (!a.knots.empty() || !b.knots.empty()) cost += 1.2 * unmatched / static_cast<double>(a.knots.size() + b.knots.size());
        if (!a.light.empty() && !b.light.empty()) {
            double most = -1;
            const int shift_y = static_cast<int>(std::lround(dy / cell));
            for (int oy = shift_y - reach_y; oy <= shift_y + reach_y; ++oy) {
                double k = 0, va = 0, vb = 0, vab = 0;
                for (int y = -a.ny; y <= a.ny; ++y) {
                    const int yb = static_cast<int>(sy) * (y - oy);
                    if (yb < -b.ny || yb > b.ny) continue;
                    for (int x = -a.nx; x <= a.nx; ++x) {
                        const int xb = static_cast<int>(sx) * (x - slide);
                        if (xb < -b.nx || xb > b.nx) continue;
                        const float p = a.at(x, y);
                        const float q = b.at(xb, yb);
                        if (!std::isfinite(p) || !std::isfinite(q)) continue;
                        k += 1, va += p * p, vb += q * q, vab += p * q;
                    }
                }
                if (k > 200 && va > 0 && vb > 0) most = std::max(most, vab / std::sqrt(va * vb));
            }
            cost += 3 * (1 - most);
        }
        if (cost < best.cost) best = {cost, dx};
    }
    return best;
}

class Solver {
  public:
    Solver(const std::vector<SequenceItem>& items, const Work& work) : items_(items), work_(work), n_(items.size()) {}

    Sequence run() {
        Sequence out;
        if (n_ == 0) return out;
        if (n_ > 60) throw std::invalid_argument("no more than 60 slabs can be put in order at once");
        check_pins();
        views_.resize(2 * n_);
        in_parallel(
            2 * n_, [&](std::size_t i) { views_[i] = view_of(items_[i / 2], i % 2 ? Face::b : Face::a); }, work_.part(0, 0.3));
        pairs();
        solve(out);
        return out;
    }

  private:
    void check_pins() {
        std::vector<bool> taken(n_, false);
        for (const SequenceItem& i : items_) {
            if (!i.position) continue;
            if (*i.position < 0 || *i.position >= static_cast<int>(n_))
                throw std::invalid_argument(i.slab->name + " is pinned to a place that there is not");
            if (taken[static_cast<std::size_t>(*i.position)]) throw std::invalid_argument("two slabs are pinned to one place");
            taken[static_cast<std::size_t>(*i.position)] = true;
        }
    }

    /// Faces: 2 i is face A of slab i, 2 i + 1 its face B.
    Match& pair(std::size_t upper_of, std::size_t lower_of, bool round) {
        return match_[(upper_of * 2 * n_ + lower_of) * 2 + (round ? 1 : 0)];
    }

    void pairs() {
        match_.resize(2 * n_ * 2 * n_ * 2);
        std::vector<std::pair<std::size_t, std::size_t>> all;
        for (std::size_t i = 0; i < 2 * n_; ++i)
            for (std::size_t j = 0; j < 2 * n_; ++j)
                if (i / 2 != j / 2) all.emplace_back(i, j);
        in_parallel(
            all.size(),
            [&](std::size_t k) {
                const auto [i, j] = all[k];
                // The upper face of slab i is its face A, or B when it lies turned over; the lower one of j is B, or A.
                const bool over_i = i % 2 == 1;
                const bool over_j = j % 2 == 0;
                for (const bool round : {false, true}) pair(i, j, round) = compare(views_[i], views_[j], over_i != over_j, round);
            },
            work_.part(0.3, 0.95));
    }

    static std::size_t upper(std::size_t item, int o) { return 2 * item + ((o & 1) ? 1 : 0); }
    static std::size_t lower(std::size_t item, int o) { return 2 * item + ((o & 1) ? 0 : 1); }
    const Match& joint(std::size_t below, int ob, std::size_t above, int oa) {
        return pair(upper(below, ob), lower(above, oa), ((ob ^ oa) & 2) != 0);
    }

    bool allowed(std::size_t item, int o, std::size_t place) const {
        const SequenceItem& i = items_[item];
        if (i.position && *i.position != static_cast<int>(place)) return false;
        if (i.over && *i.over != ((o & 1) != 0)) return false;
        if (i.ended && *i.ended != ((o & 2) != 0)) return false;
        return true;
    }

    struct State {
        std::uint64_t mask = 0;
        std::size_t last = 0;
        int o = 0;
        double cost = 0;
        std::size_t from = 0;  ///< index in the level before
    };

    void solve(Sequence& out) {
        constexpr std::size_t exact_to = 12;
        constexpr std::size_t kept = 4000;
        std::vector<std::vector<State>> levels(n_);
        for (std::size_t i = 0; i < n_; ++i)
            for (int o = 0; o < 4; ++o)
                if (allowed(i, o, 0)) levels[0].push_back({std::uint64_t{1} << i, i, o, 0, 0});
        for (std::size_t place = 1; place < n_; ++place) {
            work_.check();
            std::unordered_map<std::uint64_t, std::size_t> seen;
            auto& now = levels[place];
            const auto& before = levels[place - 1];
            for (std::size_t s = 0; s < before.size(); ++s)
                for (std::size_t i = 0; i < n_; ++i) {
                    if (before[s].mask >> i & 1) continue;
                    for (int o = 0; o < 4; ++o) {
                        if (!allowed(i, o, place)) continue;
                        const State next{before[s].mask | std::uint64_t{1} << i, i, o,
                                         before[s].cost + joint(before[s].last, before[s].o, i, o).cost, s};
                        // Up to 60 slabs: mask and last slab with its turn in one key, a level at a time.
                        const std::uint64_t key =
                            next.mask * 0x9E3779B97F4A7C15ULL ^
                            (static_cast<std::uint64_t>(i * 4) + static_cast<std::uint64_t>(o)) * 0xC2B2AE3D27D4EB4FULL;
                        const auto [it, fresh] = seen.emplace(key, now.size());
                        if (fresh) now.push_back(next);
                        else if (next.cost < now[it->second].cost) now[it->second] = next;
                    }
                }
            if (now.empty()) throw std::invalid_argument("what is pinned leaves no order: take a pin away");
            if (n_ > exact_to && now.size() > kept) {
                std::nth_element(now.begin(), now.begin() + kept, now.end(),
                                 [](const State& a, const State& b) { return a.cost < b.cost; });
                now.resize(kept);
                out.exact = false;
            }
        }
        const auto best =
            std::min_element(levels.back().begin(), levels.back().end(), [](const State& a, const State& b) { return a.cost < b.cost; });
        out.cost = best->cost;
        std::vector<State> path{*best};
        for (std::size_t place = n_ - 1; place > 0; --place) path.push_back(levels[place - 1][path.back().from]);
        std::reverse(path.begin(), path.end());
        if (!pinned()) canonical(path);
        out.confidence = 1;
        for (std::size_t k = 0; k < n_; ++k) {
            SequencePlace p{path[k].last, (path[k].o & 1) != 0, (path[k].o & 2) != 0, 1, 0};
            if (k > 0) {
                const Match& m = joint(path[k - 1].last, path[k - 1].o, path[k].last, path[k].o);
                p.shift_mm = m.shift_mm;
                p.confidence = sure(path[k - 1], path[k], m.cost);
                out.confidence = std::min(out.confidence, p.confidence);
            }
            out.places.push_back(p);
        }
    }

    bool pinned() const {
        return std::any_of(items_.begin(), items_.end(), [](const SequenceItem& i) { return i.position || i.over || i.ended; });
    }

    /// The whole log upside down or end for end tells the same: the first slab keeps its own way.
    static void canonical(std::vector<State>& path) {
        const auto first = std::find_if(path.begin(), path.end(), [](const State& s) { return s.last == 0; });
        const int o = first->o;
        for (State& s : path) s.o ^= o & 2;
        if (o & 1) {
            // Upside down about the log's length: the order turns round, every slab is turned over.
            std::reverse(path.begin(), path.end());
            for (State& s : path) s.o ^= 1;
        }
    }

    /// How much better this joint is than the best that either of its two faces could have instead.
    double sure(const State& below, const State& above, double cost) {
        double other = 1e6;
        const std::size_t u = upper(below.last, below.o);
        const std::size_t l = lower(above.last, above.o);
        for (std::size_t f = 0; f < 2 * n_; ++f)
            for (const bool round : {false, true}) {
                const bool same = round == (((below.o ^ above.o) & 2) != 0);
                if (f / 2 != u / 2 && !(f == l && same)) other = std::min(other, pair(u, f, round).cost);
                if (f / 2 != l / 2 && !(f == u && same)) other = std::min(other, pair(f, l, round).cost);
            }
        return other >= 1e6 ? 1 : std::clamp((other - cost) / std::max(1e-9, 0.35 * other), 0.0, 1.0);
    }

    const std::vector<SequenceItem>& items_;
    const Work& work_;
    std::size_t n_;
    std::vector<FaceView> views_;
    std::vector<Match> match_;
};

}  // namespace

Sequence put_in_order(const std::vector<SequenceItem>& items, const Work& work) { return Solver(items, work).run(); }

}  // namespace yb
