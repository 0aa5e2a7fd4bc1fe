#include "core/material/tree/saw.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/ground/geometry/noise.h"
#include "core/material/tree/sawing.h"
#include "core/material/wood/wood.h"

namespace yb {

namespace {

constexpr double pi = std::numbers::pi;

bool is_round(const Board& b) { return b.ez.x > 0.9; }

double shrink_share(const Species* s, double tan_phi_y, double tan_phi_z, double moisture) {
    // Of the direction (y across): cos²φ from the radial direction (dy, dz) at that place.
    if (!s || !s->shrink_tangential_pct || !s->shrink_radial_pct) return 0.04 * std::max(0.0, 30 - moisture) / 30;
    const double d2 = tan_phi_y * tan_phi_y + tan_phi_z * tan_phi_z;
    const double radial = d2 > 1e-9 ? tan_phi_y * tan_phi_y / d2 : 0;
    const double total = *s->shrink_tangential_pct * (1 - radial) + *s->shrink_radial_pct * radial;
    return total / 100 * std::max(0.0, 30 - moisture) / 30;
}

/// Shrinkage across the board (share) at a place in it.
double across_at(const GrownLog& log, const Board& b, const Species* s, double x, double y, double z, double moisture) {
    const Vec3 p = b.in_log(x, y, z);
    const Vec2 c = log.pith(p.x);
    const Vec3 out{0, p.y - c.x, p.z - c.y};
    return shrink_share(s, dot(out, b.ey), dot(out, b.ez), moisture);
}

}  // namespace

double cup_curvature(const GrownLog& log, const Board& b, double x, double y, double moisture) {
    const Species* s = find_species(log.recipe().species);
    constexpr int n = 12;  // Simpson over the thickness
    const double t = b.thickness_mm;
    double sum = 0;
    for (int i = 0; i <= n; ++i) {
        const double z = t * i / n;
        const double weight = i == 0 || i == n ? 1 : i % 2 ? 4 : 2;
        sum += weight * across_at(log, b, s, x, y, z, moisture) * (z - t / 2);
    }
    return 12 / (t * t * t) * sum * t / n / 3;
}

namespace {

class Maker {
  public:
    Maker(const GrownLog& log, const Board& board, const SawPlan& plan, const DryPlan& dry, FaceOrder faces, const Work& work)
        : log_(log),
          b_(board),
          plan_(plan),
          dry_(dry),
          faces_(faces),
          work_(work),
          dice_(log.recipe().seed, 100 + static_cast<std::uint32_t>(board.number)) {}

    SawnSlab run() {
        out_.board = b_;
        name();
        is_round(b_) ? round_outline() : long_outline();
        bend();
        measure();
        flaws();
        if (faces_.mm_per_px > 0) {
            out_.slab.picture_a = place_picture();
            out_.slab.picture_b = out_.slab.picture_a;
            if (faces_.paint) {
                out_.face_a = face(b_.thickness_mm, true);
                out_.face_b = face(0, false);
            }
        }
        return std::move(out_);
    }

  private:
    void name() {
        Slab& s = out_.slab;
        const LogRecipe& r = log_.recipe();
        s.id = "log-" + std::to_string(r.seed) + "-" + std::to_string(b_.number);
        s.name = "Slab " + std::to_string(b_.number);
        s.species = r.species;
        s.tree = "log " + std::to_string(r.seed);
        s.sequence = b_.number;
        s.moisture_pct = dry_.moisture_pct;
        if (is_round(b_)) {
            s.cross_cut = true;
            return;
        }
        const double x = (b_.x0 + b_.x1) / 2;
        const Vec2 c = log_.pith(x);
        const Vec3 mid = b_.in_log(x, 0, b_.thickness_mm / 2);
        s.pith_mm = std::round(std::abs(dot({0, c.x - mid.y, c.y - mid.z}, b_.ez)) * 10) / 10;
    }

    double reach() const { return largest_radius(log_.recipe()); }

    void long_outline() {
        // Drying takes width; along the grain nothing to speak of.
        const Species* s = find_species(log_.recipe().species);
        const double mid = (b_.x0 + b_.x1) / 2;
        if (const auto w = wood_across(log_, b_, mid, b_.thickness_mm / 2, reach())) {
            double sum = 0;
            for (int i = 0; i < 40; ++i)
                sum +=
                    across_at(log_, b_, s, mid, w->from + (w->to - w->from) * (i + 0.5) / 40, b_.thickness_mm / 2, dry_.moisture_pct) / 40;
            out_.across = 1 - sum;
        }
        const int n = std::max(2, static_cast<int>((b_.x1 - b_.x0) / 25));
        Ring left_a, left_b;
        TracedOutline o;
        Span1 last_a, last_b;
        for (int i = 0; i <= n; ++i) {
            const double x = b_.x0 + (b_.x1 - b_.x0) * i / n;
            last_b = wood_across(log_, b_, x, 0, reach()).value_or(last_b);
            last_a = wood_across(log_, b_, x, b_.thickness_mm, reach()).value_or(last_a);
            const double along = x - b_.x0;
            o.a.push_back({along, last_a.from * out_.across});
            o.b.push_back({along, last_b.from * out_.across});
            left_a.push_back({along, last_a.to * out_.across});
            left_b.push_back({along, last_b.to * out_.across});
        }
        o.a.insert(o.a.end(), left_a.rbegin(), left_a.rend());
        o.b.insert(o.b.end(), left_b.rbegin(), left_b.rend());
        o.from = "grown";
        rounded(o);
        out_.slab.outline = o;
        shift_ = b_.x0;
        length_ = b_.x1 - b_.x0;
    }

    static double rounded(double v) { return std::round(v * 100) / 100; }
    static void rounded(Ring& r) {
        for (Vec2& p : r) p = {rounded(p.x), rounded(p.y)};
    }
    static void rounded(TracedOutline& o) { rounded(o.a), rounded(o.b); }

    void round_outline() {
        TracedOutline o;
        const double k = 1 - 0.6 * shrink_share(find_species(log_.recipe().species), 0, 1, dry_.moisture_pct);
        out_.across = k;
        constexpr int n = 240;
        for (const double z : {b_.thickness_mm, 0.0}) {
            Ring& ring = z > 0 ? o.a : o.b;
            for (int i = 0; i < n; ++i) {
                const double t = 2 * pi * i / n;
                double in = 0;
                double outside = reach() * 1.2;
                while (outside - in > 0.05) {
                    const double mid = (in + outside) / 2;
                    (log_.inside(b_.in_log(mid * std::cos(t), mid * std::sin(t), z)) ? in : outside) = mid;
                }
                ring.push_back({in * std::cos(t) * k, in * std::sin(t) * k});
            }
        }
        // Stations begin at the left end of the disc.
        const Box all = bounds(o.a);
        const double low = std::min(all.low.x, bounds(o.b).low.x);
        for (Ring* ring : {&o.a, &o.b})
            for (Vec2& p : *ring) p.x -= low;
        o.from = "grown";
        rounded(o);
        out_.slab.outline = o;
        shift_ = low / k;
        length_ = std::max(bounds(o.a).high.x, bounds(o.b).high.x);
    }

    /// Slab to board: where a place on the dried slab was in the green board.
    Vec2 green(Vec2 p) const {
        return is_round(b_) ? Vec2{p.x / out_.across + shift_, p.y / out_.across} : Vec2{p.x + shift_, p.y / out_.across};
    }
    Vec2 dried(Vec2 p) const {
        return is_round(b_) ? Vec2{(p.x - shift_) * out_.across, p.y * out_.across} : Vec2{p.x - shift_, p.y * out_.across};
    }

    /// Cup from the rings, bow and twist by lot, along a grid fine enough to be the truth.
    void bend() {
        const Box box = bounds(out_.slab.outline->a);
        const Box box_b = bounds(out_.slab.outline->b);
        const double y0 = std::min(box.low.y, box_b.low.y) - 20;
        const double y1 = std::max(box.high.y, box_b.high.y) + 20;
        std::vector<double> xs, ys, w;
        const int nx = std::max(2, static_cast<int>(length_ / 60));
        const int ny = std::max(4, static_cast<int>((y1 - y0) / 20));
        for (int i = 0; i <= nx; ++i) xs.push_back(length_ * i / nx);
        for (int j = 0; j <= ny; ++j) ys.push_back(y0 + (y1 - y0) * j / ny);
        const double bow = dice_.between(-1, 1) * dry_.bow_mm;
        const double twist = dice_.between(-1, 1) * dry_.twist_deg * pi / 180;
        const double dy = (y1 - y0) / ny;
        for (const double x : xs) {
            std::vector<double> cup(ys.size(), 0.0);
            if (!is_round(b_)) {
                double slope = 0;
                for (std::size_t j = 1; j < ys.size(); ++j) {
                    slope += cup_curvature(log_, b_, x + shift_, (ys[j] - dy / 2) / out_.across, dry_.moisture_pct) * dy;
                    cup[j] = cup[j - 1] + slope * dy;
                }
                // Only the shape is a cup: its mean tilt is taken out.
                const double tilt = (cup.back() - cup.front()) / (ys.back() - ys.front());
                for (std::size_t j = 0; j < ys.size(); ++j) cup[j] -= tilt * (ys[j] - ys.front());
            }
            const double s = x / length_;
            for (std::size_t j = 0; j < ys.size(); ++j) w.push_back(cup[j] + bow * 4 * s * (1 - s) + twist * (s - 0.5) * ys[j]);
        }
        out_.warp = Surface(xs, ys, w);
        const double shrunk = 1 - shrink_share(find_species(log_.recipe().species), 1, 0.5, dry_.moisture_pct);
        const std::uint32_t seed = static_cast<std::uint32_t>(log_.recipe().seed) + static_cast<std::uint32_t>(b_.number) * 7919;
        const double err = plan_.thickness_error_mm;
        SlabShape& t = out_.truth;
        t.ring_a = out_.slab.outline->a;
        t.ring_b = out_.slab.outline->b;
        t.x0 = 0;
        t.x1 = length_;
        t.bottom = out_.warp.mapped([&](double x, double y, double z) { return z + err * 0.5 * noise(x / 700, y / 300, seed); });
        t.top = out_.warp.mapped(
            [&](double x, double y, double z) { return z + b_.thickness_mm * shrunk + err * 0.5 * noise(x / 700, y / 300, seed + 5); });
        double low = 1e300;
        for (const Vec3& p : deciding_points(t.bottom, t.ring_b)) low = std::min(low, p.z);
        t.top = t.top.mapped([&](double, double, double z) { return z - low; });
        t.bottom = t.bottom.mapped([&](double, double, double z) { return z - low; });
        t.heights_a = t.heights_b = t.usable = true;
    }

    /// Straightedge gaps and caliper readings, each with its noise.
    void measure() {
        Slab& s = out_.slab;
        const SlabShape& t = out_.truth;
        const Box box = bounds(t.ring_a);
        const auto axis = [](double from, double to, double every) {
            std::vector<double> out;
            const int n = std::max(2, static_cast<int>(std::ceil((to - from) / every)));
            for (int i = 0; i <= n; ++i) out.push_back(std::round((from + (to - from) * i / n) / 5) * 5);
            return out;
        };
        HeightGrid g;
        g.x_mm = axis(25, length_ - 25, dry_.every_x_mm);
        g.y_mm = axis(box.low.y + 15, box.high.y - 15, dry_.every_y_mm);
        g.gap_mm.assign(g.x_mm.size() * g.y_mm.size(), std::nullopt);
        s.heights_a = s.heights_b = g;
        double high = -1e300;
        for (const double z : t.top.z()) high = std::max(high, z);
        if (dry_.keep_truth) {
            HeightGrid fine;
            fine.x_mm = axis(10, length_ - 10, 60);
            fine.y_mm = axis(box.low.y + 5, box.high.y - 5, 40);
            fine.y_mm.erase(std::unique(fine.y_mm.begin(), fine.y_mm.end()), fine.y_mm.end());
            fine.gap_mm.assign(fine.x_mm.size() * fine.y_mm.size(), std::nullopt);
            s.truth_a = s.truth_b = fine;
            for (std::size_t i = 0; i < fine.x_mm.size(); ++i)
                for (std::size_t j = 0; j < fine.y_mm.size(); ++j) {
                    const Vec2 p{fine.x_mm[i], fine.y_mm[j]};
                    if (contains(t.ring_a, p)) s.truth_a->at(i, j) = std::round((high - t.top.at(p)) * 100) / 100;
                    if (contains(t.ring_b, p)) s.truth_b->at(i, j) = std::round(t.bottom.at(p) * 100) / 100;
                }
        }
        const auto read = [&](double v) { return std::round((v + dice_.normal(dry_.reading_noise_mm)) * 10) / 10; };
        for (std::size_t i = 0; i < g.x_mm.size(); ++i)
            for (std::size_t j = 0; j < g.y_mm.size(); ++j) {
                const Vec2 p{g.x_mm[i], g.y_mm[j]};
                if (contains(t.ring_a, p)) s.heights_a.at(i, j) = read(high - t.top.at(p));
                if (contains(t.ring_b, p)) s.heights_b.at(i, j) = read(t.bottom.at(p));
            }
        const int n = std::max(1, static_cast<int>(std::round(length_ / 300)));
        for (int i = 0; i <= n; ++i) {
            Station st;
            st.x_mm = rounded(length_ * i / n);
            const double x = std::clamp(st.x_mm, 2.0, length_ - 2.0);
            const auto a = cut_at_x(t.ring_a, x);
            const auto b = cut_at_x(t.ring_b, x);
            if (a.empty() || b.empty()) continue;
            // The caliper reaches in from the edge that both faces share.
            const double left = std::min(a.back().to, b.back().to) - 8;
            const double right = std::max(a.front().from, b.front().from) + 8;
            st.thickness_mm = read(t.thickness_at({x, left}));
            st.thickness_right_mm = read(t.thickness_at({x, right}));
            s.tape.stations.push_back(st);
        }
    }

    void add_flaw(FlawKind kind, Face face, Ring outline, bool through, std::optional<double> depth, const std::string& note = {}) {
        rounded(outline);
        if (signed_area(outline) < 0) std::reverse(outline.begin(), outline.end());
        out_.slab.flaws.push_back({"flaw-" + std::to_string(out_.slab.flaws.size() + 1), kind, face, std::move(outline), through, depth,
                                   0.8, note, note == "dead"});
    }

    /// What a look over both faces finds.
    void flaws() {
        for (const Face f : {Face::a, Face::b}) {
            const double z = f == Face::a ? b_.thickness_mm : 0;
            const Ring& ring = f == Face::a ? out_.truth.ring_a : out_.truth.ring_b;
            std::vector<std::vector<Vec2>> of_branch(log_.recipe().branches.size());
            std::vector<std::vector<Vec2>> of_pocket(log_.recipe().pockets.size());
            const Box box = bounds(ring);
            constexpr double grid = 6;
            for (double x = box.low.x + 2; x < box.high.x; x += grid)
                for (const Span1& s : cut_at_x(ring, x))
                    for (double y = s.from + 2; y < s.to; y += grid) {
                        const Vec2 q = green({x, y});
                        const Vec3 p = b_.in_log(q.x, q.y, z);
                        const GrownLog::Here h = log_.at(p);
                        if (h.branch >= 0 && !log_.recipe().branches[static_cast<std::size_t>(h.branch)].fork)
                            of_branch[static_cast<std::size_t>(h.branch)].push_back({x, y});
                        if (const int k = log_.pocket_at(p, h); k >= 0) of_pocket[static_cast<std::size_t>(k)].push_back({x, y});
                    }
            for (std::size_t i = 0; i < of_branch.size(); ++i)
                if (of_branch[i].size() >= 4)
                    add_flaw(FlawKind::knot, f, hull(of_branch[i], grid / 2), false, std::nullopt,
                             log_.recipe().branches[i].died > 0 ? "dead" : "live");
            for (std::size_t i = 0; i < of_pocket.size(); ++i) {
                const PocketRecipe& k = log_.recipe().pockets[i];
                if (k.kind != FlawKind::insects && of_pocket[i].size() >= 3)
                    add_flaw(k.kind, f, hull(of_pocket[i], grid / 2), false, std::min(b_.thickness_mm * 0.6, 2 * k.half_radial_mm));
            }
            if (!is_round(b_)) bored(f, z, ring), cracks(f, z, ring), scar(f, ring);
        }
        if (!is_round(b_)) return;
        // A disc dries fastest around its rim and opens there.
        const double a = dice_.between(-pi, pi);
        const Vec2 rim{std::cos(a) * reach() * 1.5, std::sin(a) * reach() * 1.5};
        const Vec2 pith = dried({0, 0});
        const Vec2 side{-std::sin(a) * 5, std::cos(a) * 5};
        const auto wedge = intersection(out_.truth.ring_a, {pith + rim - side * 3, pith + rim + side * 3, pith + rim * 0.12});
        if (!wedge.empty()) add_flaw(FlawKind::crack, Face::a, largest(wedge), true, std::nullopt);
    }

    static Ring hull(std::vector<Vec2> p, double grow) {
        const std::size_t n = p.size();
        for (std::size_t i = 0; i < n; ++i)
            for (const Vec2 d : {Vec2{grow, 0}, Vec2{-grow, 0}, Vec2{0, grow}, Vec2{0, -grow}}) p.push_back(p[i] + d);
        return convex_hull(std::move(p));
    }

    void bored(Face f, double z, const Ring& ring) {
        for (const PocketRecipe& k : log_.recipe().pockets) {
            if (k.kind != FlawKind::insects) continue;
            const double a = k.bearing_deg * pi / 180;
            const Vec2 c = log_.pith(k.x_mm);
            const Vec3 from{k.x_mm, c.x, c.y};
            const Vec3 dir{0, std::cos(a), std::sin(a)};
            const Vec3 rel{from.x - b_.origin.x, from.y - b_.origin.y, from.z - b_.origin.z};
            const double rise = dot(dir, b_.ez);
            if (std::abs(rise) < 1e-3) continue;
            const double r = (z - dot(rel, b_.ez)) / rise;
            if (std::abs(r - k.depth_mm) > k.half_radial_mm) continue;
            const Vec2 at = dried({dot(rel, b_.ex) + r * dot(dir, b_.ex), dot(rel, b_.ey) + r * dot(dir, b_.ey)});
            if (!contains(ring, at)) continue;
            Ring hole;
            for (int i = 0; i < 8; ++i) hole.push_back(at + Vec2{std::cos(i * pi / 4), std::sin(i * pi / 4)} * k.half_across_mm);
            add_flaw(FlawKind::insects, f, hole, false, std::min(b_.thickness_mm * 0.7, k.half_radial_mm));
        }
    }

    /// Where the saw stood still for a moment it bit deeper: on about a third of the faces, a line across.
    std::optional<double> scar_at(Face f) const {
        const auto seed = static_cast<std::uint32_t>(log_.recipe().seed);
        if (is_round(b_) || hash01(b_.number, f == Face::a ? 11 : 12, seed) > 0.3) return {};
        return b_.x0 + (b_.x1 - b_.x0) * (0.1 + 0.8 * hash01(b_.number, f == Face::a ? 13 : 14, seed));
    }

    void scar(Face f, const Ring& ring) {
        const auto x = scar_at(f);
        if (!x) return;
        const double dry_x = dried({*x, 0}).x;
        const auto cut = cut_at_x(ring, dry_x);
        if (cut.empty()) return;
        const double low = cut.front().from + 2;
        const double high = cut.back().to - 2;
        add_flaw(FlawKind::scar, f, {{dry_x - 2, low}, {dry_x + 2, low}, {dry_x + 2, high}, {dry_x - 2, high}}, false, 1.2);
    }

    void cracks(Face f, double z, const Ring& ring) {
        for (const bool far : {false, true}) {
            const double end = far ? b_.x1 : b_.x0;
            for (const double angle : log_.check_angles()) {
                const double depth = log_.check_depth(angle, far) - (far ? log_.recipe().length_mm - b_.x1 : b_.x0);
                if (depth < 30) continue;
                const auto trace = [&](double level) -> std::optional<double> {
                    const Vec2 c = log_.pith(end);
                    const Vec3 rel{0, c.x - b_.origin.y, c.y - b_.origin.z};
                    const Vec3 dir{0, std::cos(angle), std::sin(angle)};
                    const double rise = dot(dir, b_.ez);
                    if (std::abs(rise) < 0.05) return {};
                    const double r = (level - dot(rel, b_.ez)) / rise;
                    if (r < 3 || r > reach()) return {};
                    return dot(rel, b_.ey) + r * dot(dir, b_.ey);
                };
                const auto y = trace(z);
                if (!y) continue;
                const Vec2 mouth = dried({end, *y});
                const double into = far ? -1 : 1;
                if (!contains(ring, mouth + Vec2{into * 5, 0})) continue;
                const bool through = trace(f == Face::a ? 0 : b_.thickness_mm).has_value();
                if (through && f == Face::b) continue;  // told on face A already
                add_flaw(FlawKind::crack, f, {mouth + Vec2{0, -1.8}, mouth + Vec2{into * depth, 0}, mouth + Vec2{0, 1.8}}, through,
                         through ? std::nullopt : std::optional<double>(b_.thickness_mm * 0.5));
            }
        }
    }

    FacePicture place_picture() const {
        const Box a = bounds(out_.truth.ring_a);
        const Box b = bounds(out_.truth.ring_b);
        const double margin = log_.recipe().bark_mm + 6;
        FacePicture p;
        p.mm_per_px = faces_.mm_per_px;
        p.corner = {rounded(std::min(a.low.x, b.low.x) - (is_round(b_) ? margin : 0)), rounded(std::max(a.high.y, b.high.y) + margin)};
        const double x_end = std::max(a.high.x, b.high.x) + (is_round(b_) ? margin : 0);
        const double y_end = std::min(a.low.y, b.low.y) - margin;
        p.width_px = std::max(1, static_cast<int>((x_end - p.corner.x) / p.mm_per_px));
        p.height_px = std::max(1, static_cast<int>((p.corner.y - y_end) / p.mm_per_px));
        return p;
    }

    Picture face(double z, bool upper) const {
        const FacePicture at = *out_.slab.picture_a;
        Picture p(at.width_px, at.height_px);
        const Vec3 normal = upper ? b_.ez : b_.ez * -1;
        const auto bark = look_of(log_.recipe().species).bark;
        const double bark_mm = log_.recipe().bark_mm;
        const std::uint32_t seed = static_cast<std::uint32_t>(log_.recipe().seed);
        // The saw leaves arcs across the face.
        const double pitch = 7 + 3 * hash01(b_.number, upper, seed);
        std::array<double, 256> arcs{};
        for (std::size_t k = 0; k < arcs.size(); ++k)
            arcs[k] = 1 + 0.012 * std::sin(2 * pi * static_cast<double>(k) / static_cast<double>(arcs.size()));
        const double scar_x = scar_at(upper ? Face::a : Face::b).value_or(-1e9);
        for (int j = 0; j < p.height; ++j) {
            work_.check();
            GrownLog::Walk walk;
            for (int i = 0; i < p.width; ++i) {
                const Vec2 q = green({at.corner.x + i * faces_.mm_per_px, at.corner.y - j * faces_.mm_per_px});
                std::uint8_t* out = p.at(i, j);
                const Vec3 place = b_.in_log(q.x, q.y, z);
                const GrownLog::Here h = log_.at(place);
                if (!log_.inside(h) || q.y < b_.y_low || q.y > b_.y_high) {
                    const double beyond = h.r - h.radius;
                    const bool is_bark = beyond < bark_mm && beyond > -40 && q.y > b_.y_low && q.y < b_.y_high;
                    const double rough = 0.85 + 0.3 * noise3(place.x / 14, place.y / 5, place.z / 5, seed + 60);
                    for (std::size_t k = 0; k < 3; ++k)
                        out[k] =
                            static_cast<std::uint8_t>(is_bark ? std::clamp(bark[k] * rough, 0.0, 255.0) : std::array{228, 220, 203}[k]);
                    continue;
                }
                const auto colour = log_.colour(place, h, normal, walk);
                const double bitten = std::abs(q.x - scar_x) < 2 ? 0.72 : 1;
                const double sawn = bitten * arcs[static_cast<std::size_t>((q.x + q.y * q.y / 900 + 1e5) / pitch * 256) & 255];
                for (std::size_t k = 0; k < 3; ++k) out[k] = static_cast<std::uint8_t>(std::clamp(colour[k] * sawn, 0.0, 255.0));
            }
        }
        return p;
    }

    const GrownLog& log_;
    const Board& b_;
    const SawPlan& plan_;
    const DryPlan& dry_;
    FaceOrder faces_;
    const Work& work_;
    Dice dice_;
    SawnSlab out_;
    double shift_ = 0, length_ = 0;
};

}  // namespace

SawnSlab make_slab(const GrownLog& log, const Board& board, const SawPlan& plan, const DryPlan& dry, FaceOrder faces, const Work& work) {
    return Maker(log, board, plan, dry, faces, work).run();
}

std::vector<SawnSlab> make_slabs(const GrownLog& log, const SawPlan& plan, const DryPlan& dry, FaceOrder faces, const Work& work) {
    const auto boards = boards_of(log, plan);
    std::vector<SawnSlab> out(boards.size());
    in_parallel(
        boards.size(),
        [&](std::size_t i) {
            out[i] = make_slab(log, boards[i], plan, dry, faces, {{}, work.stop, 1});
        },
        work);
    return out;
}

}  // namespace yb
