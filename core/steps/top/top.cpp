#include "core/steps/top/top.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/steps/flat/flat.h"

namespace yb {

const char* name_of(RegionKind kind) {
    static constexpr std::array names{"leaf", "resin", "air", "patch"};
    return names.at(static_cast<std::size_t>(kind));
}

std::optional<double> Region::shrinkage(double u, double v0, double v1) const {
    if (!wood()) return 0;
    if (!species || !species->shrink_tangential_pct) return {};
    if (cross_cut) return species->shrink_radial_pct.value_or(*species->shrink_tangential_pct);
    const Frame f = placed.frame();
    const double s = shrinkage_across(*species, pith_mm, f.to_slab({u, v0}).y, f.to_slab({u, v1}).y, sawn);
    if (kind != RegionKind::patch) return s;
    const double c = std::cos(placed.angle_deg * std::numbers::pi / 180);
    return s * c * c;
}

double Top::river_l() const {
    double sum = 0;
    for (const Region& r : regions)
        if (r.kind == RegionKind::resin && !r.let_in) sum += r.volume_l;
    return sum;
}

const Region* Top::at(Vec2 uv, double height) const {
    for (auto r = regions.rbegin(); r != regions.rend(); ++r) {
        if (height < r->low_mm || height > r->high_mm) continue;
        const Ring& ring = r->let_in ? (r->above.empty() ? r->below : r->above) : height > thickness_mm / 2 ? r->above : r->below;
        if (ring.size() > 2 && contains(ring, uv)) return &*r;
    }
    return nullptr;
}

std::vector<Across> Top::across(double u) const {
    std::vector<Across> out;
    for (std::size_t i = 0; i < regions.size(); ++i) {
        const Region& r = regions[i];
        if (r.let_in || r.above.size() < 3) continue;
        for (const Span1 s : cut_at_x(r.above, u)) out.push_back({i, s.from, s.to});
    }
    std::sort(out.begin(), out.end(), [](const Across& a, const Across& b) { return a.from < b.from; });
    return out;
}

double Top::widens(double u, double v0, double v1, const std::vector<double>& leaf_pct, double to_pct) const {
    const double low = std::min(v0, v1);
    const double high = std::max(v0, v1);
    double sum = 0;
    for (const Across& a : across(u)) {
        const Region& r = regions[a.region];
        if (!r.wood()) continue;
        const double from = std::max(low, a.from);
        const double to = std::min(high, a.to);
        if (to <= from) continue;
        const auto s = r.shrinkage(u, from, to);
        if (s && *s > 0) sum += movement(to - from, *s, leaf_pct.at(r.index), to_pct);
    }
    return sum;
}

double Top::widens(double u, double v0, double v1, double from_pct, double to_pct) const {
    return widens(u, v0, v1, std::vector<double>(leaves, from_pct), to_pct);
}

Top::Widest Top::widest() const {
    // Wood across is piecewise linear between the corners of the outlines: the widest is at one of them.
    Widest best;
    const auto try_at = [&](double u) {
        Widest w;
        w.u_mm = u;
        w.low_v = 1e300, w.high_v = -1e300;
        for (const Across& a : across(u)) {
            w.low_v = std::min(w.low_v, a.from), w.high_v = std::max(w.high_v, a.to);
            if (regions[a.region].wood()) w.wood_mm += a.to - a.from;
        }
        if (w.high_v <= w.low_v) return;
        w.width_mm = w.high_v - w.low_v;
        if (w.wood_mm > best.wood_mm) best = w;
    };
    const Box b = bounds(above);
    constexpr double hair = 1e-4;  // a cut exactly on an end may miss it
    for (const double u : {b.low.x + hair, b.high.x - hair}) try_at(u);
    for (std::size_t i = 0; i < leaves; ++i)
        for (const Vec2 p : regions[i].above) try_at(std::clamp(p.x, b.low.x + hair, b.high.x - hair));
    return best;
}

bool Top::cross_cut() const { return leaves > 0 && regions.front().cross_cut; }

std::pair<Ring, Ring> finished_faces(const SlabShape& shape, const Tilt& tilt) {
    std::pair<Ring, Ring> out;
    out.first.reserve(shape.ring_a.size());
    out.second.reserve(shape.ring_b.size());
    for (std::size_t i = 0; i < shape.ring_a.size() && i < shape.ring_b.size(); ++i) {
        const Vec2 a = shape.ring_a[i];
        const Vec2 b = shape.ring_b[i];
        // Along the ruled line the height over a plane changes evenly: its foot is where that is nothing.
        const double za = shape.top.at(a);
        const double zb = shape.bottom.at(b);
        const auto foot = [&](double over_a, double over_b) {
            return std::abs(over_a - over_b) < 1e-9 ? a : lerp(a, b, std::clamp(over_a / (over_a - over_b), 0.0, 1.0));
        };
        out.first.push_back(foot(za - tilt.top_at(a), zb - tilt.top_at(b)));
        out.second.push_back(foot(za - tilt.bottom_at(a), zb - tilt.bottom_at(b)));
    }
    return out;
}

namespace {

/// What is let in takes its litres from a leaf, at its own place.
void take_out(Region& leaf, double litres, Vec2 at) {
    const double left = std::max(0.0, leaf.volume_l - litres);
    if (left > 1e-9) leaf.balance = (leaf.balance * leaf.volume_l - at * (leaf.volume_l - left)) * (1 / left);
    leaf.volume_l = left;
    leaf.mass_kg = left * leaf.kg_m3 / 1000;
}

/// Three levels of a leaf's share: at the upper face, half-way, at the underside.
using Levels = std::array<Ring, 3>;

class Maker {
  public:
    explicit Maker(const TopInputs& in)
        : in_(in), hl_(in.wanted.length_mm / 2), hw_(in.wanted.width_mm / 2), rectangle_(in.wanted.shape == TopShape::rectangle) {
        if (!rectangle_) shape_ = outline_of(in.wanted);
    }

    Top run() {
        t_.wanted = in_.wanted;
        t_.bench = in_.bench;
        t_.thickness_mm = in_.thickness_mm;
        if (in_.leaves.empty() || !(in_.thickness_mm > 0)) return std::move(t_);
        for (std::size_t i = 0; i < in_.leaves.size(); ++i) levels_.push_back(leaf(i));
        banks();
        for (std::size_t i = 0; i < in_.leaves.size(); ++i) {
            if (levels_[i][0].size() < 3 || levels_[i][2].size() < 3) return std::move(t_);
            leaf_region(i);
        }
        t_.leaves = in_.leaves.size();
        outlines();
        if (is_river(in_.choices.kind))
            for (std::size_t k = 0; k + 1 < in_.leaves.size(); ++k) between(k);
        if (in_.choices.kind == MakeUp::river) blanks();
        for (std::size_t i = 0; i < in_.choices.patches.size(); ++i) patch(i);
        for (const Region& r : t_.regions) t_.mass_kg += r.mass_kg;
        t_.ready = true;
        return std::move(t_);
    }

  private:
    /// A leaf's face at one level, cut to its share of the top.
    Ring share(std::size_t i, Ring ring) const {
        ring = left_of(ring, {-hl_, 1}, {-hl_, -1});
        ring = left_of(ring, {hl_, -1}, {hl_, 1});
        const std::size_t last = in_.leaves.size() - 1;
        if (rectangle_ && i == 0 && !right_live(in_.wanted.live)) ring = left_of(ring, {-1, -hw_}, {1, -hw_});
        if (rectangle_ && i == last && !left_live(in_.wanted.live)) ring = left_of(ring, {1, hw_}, {-1, hw_});
        if (i > 0) ring = beside(in_.joints[i - 1], std::move(ring), true);
        if (i < last) ring = beside(in_.joints[i], std::move(ring), false);
        if (!rectangle_ && !ring.empty()) ring = largest(intersection(ring, shape_));
        return ring;
    }

    /// The part of a leaf on its side of a joint. @param above the joint lies at its low side.
    Ring beside(const JointPlan& j, Ring ring, bool above) const {
        if (j.river || j.along.size() < 2 || ring.size() < 3) return ring;
        const Vec2 a{j.along.front().u, j.along.front().v};
        const Vec2 b{j.along.back().u, j.along.back().v};
        if (!j.curved) return above ? left_of(ring, a, b) : left_of(ring, b, a);
        constexpr double far = 1e5;
        Ring side;
        for (const JointStation& s : j.along) side.push_back({s.u, s.v});
        side.front().x -= 1, side.back().x += 1;  // past the ends of the top
        side.push_back({side.back().x, above ? far : -far});
        side.push_back({side.front().x, above ? far : -far});
        return largest(intersection(ring, side));
    }

    Levels leaf(std::size_t i) {
        const TopLeaf& l = in_.leaves[i];
        const Frame f = l.placement.frame();
        const auto cut = l.finished ? *l.finished : finished_faces(l.shape, l.tilt);
        const Ring a = f.from_slab(cut.first);
        const Ring b = f.from_slab(cut.second);
        Ring mid;
        for (std::size_t k = 0; k < a.size(); ++k) mid.push_back(lerp(a[k], b[k], 0.5));
        faces_.emplace_back(a, b);
        return {share(i, a), share(i, mid), share(i, b)};
    }

    /// How the rivers run; then, of banks that overlap, the left one gives way, so that no two regions lie over each other.
    void banks() {
        if (!is_river(in_.choices.kind)) return;
        for (std::size_t k = 0; k + 1 < levels_.size(); ++k) {
            RiverRun run;
            run.joint = k;
            for (std::size_t level = 0; level < 3; ++level) {
                const auto right = sides_of(levels_[k][level]).high;
                const auto left = sides_of(levels_[k + 1][level]).low;
                const Apart a = apart(right, left);
                if (level == 0) run.above = a;
                if (level == 2) run.below = a;
                if (level == 1) {
                    run.area_mm2 = area_between(right, left);
                    if (in_.choices.kind == MakeUp::open_river) run.rods = rods_of(right, left, 2 * hl_, in_.choices);
                }
                if (a.length_mm <= 0 || a.narrowest_mm >= -1e-6) continue;
                if (const auto rest = without(levels_[k + 1][level], {levels_[k][level]}); !rest.empty())
                    levels_[k + 1][level] = largest(rest);
            }
            t_.rivers.push_back(run);
        }
    }

    /// Simpson over three levels: exact while the edges are ruled and the same sides bound it.
    double litres(double top, double mid, double low) const { return (top + 4 * mid + low) / 6 * in_.thickness_mm * 1e-6; }

    double moisture(const Slab& s) const {
        return std::clamp(in_.moisture_pct.value_or(s.moisture_pct.value_or(in_.settles_pct)), 0.0, 200.0);
    }

    void wood_of(Region& r, const Slab& s, const Placement& placed) {
        r.of = s.id;
        r.name = s.name;
        r.species = find_species(s.species);
        r.placed = placed;
        r.pith_mm = s.pith_mm;
        r.moisture_pct = s.moisture_pct;
        r.sawn = in_.sawn;
        r.cross_cut = s.cross_cut;
        if (r.species && r.species->specific_gravity_12) r.kg_m3 = density(*r.species->specific_gravity_12, moisture(s));
        else t_.mass_known = false;
        r.mass_kg = r.volume_l * r.kg_m3 / 1000;
    }

    /// The balance point of what has these three faces: first moments are cubic in height between ruled sides, so Simpson's rule is exact.
    static Vec2 balance_of(const Ring& top, const Ring& mid, const Ring& low) {
        Vec2 moment;
        double sum = 0;
        for (const auto& [ring, times] : {std::pair{&top, 1.0}, {&mid, 4.0}, {&low, 1.0}}) {
            if (ring->size() < 3) continue;
            const double a = area(*ring) * times;
            moment = moment + centroid(*ring) * a, sum += a;
        }
        return sum > 0 ? moment * (1 / sum) : moment;
    }

    void leaf_region(std::size_t i) {
        Region r;
        r.index = i;
        r.above = levels_[i][0];
        r.below = levels_[i][2];
        r.high_mm = in_.thickness_mm;
        r.volume_l = litres(area(levels_[i][0]), area(levels_[i][1]), area(levels_[i][2]));
        r.balance = balance_of(levels_[i][0], levels_[i][1], levels_[i][2]);
        stays_below(r, in_.leaves[i]);
        wood_of(r, in_.leaves[i].slab, in_.leaves[i].placement);
        t_.regions.push_back(std::move(r));
    }

    /// The wood that an underside left as sawn keeps below the plane: its volume, and where it weighs.
    void stays_below(Region& r, const TopLeaf& leaf) {
        const Frame frame = leaf.placement.frame();
        t_.stays.emplace_back(frame, leaf.stays);
        if (!leaf.stays || r.below.size() < 3) return;
        const Ring on_slab = frame.to_slab(r.below);
        const double litres = wood_above_l(*leaf.stays, on_slab);
        for (const Vec3& q : deciding_points(*leaf.stays, on_slab)) t_.most_stays_mm = std::max(t_.most_stays_mm, q.z);
        constexpr int n = 40;
        const Box box = bounds(on_slab);
        Vec2 moment;
        double sum = 0;
        for (int k = 0; k < n * n; ++k) {
            const Vec2 q{box.low.x + box.width() * (k % n + 0.5) / n, box.low.y + box.height() * (k / n + 0.5) / n};
            const double h = contains(on_slab, q) ? std::max(0.0, leaf.stays->at(q)) : 0;
            moment = moment + q * h, sum += h;
        }
        if (sum <= 0 || litres <= 0) return;
        r.balance = (r.balance * r.volume_l + frame.from_slab(moment * (1 / sum)) * litres) * (1 / (r.volume_l + litres));
        r.volume_l += litres;
    }

    /// Where the top ends: at the outermost leaves' own edges where those stay, at the sawn sides otherwise.
    Ring outline(std::size_t level) const {
        if (!rectangle_ && in_.wanted.live == LiveEdges::none) return shape_;
        if (!rectangle_) return levels_.front()[level];
        Sides s{sides_of(levels_.front()[level]).low, sides_of(levels_.back()[level]).high};
        if (!right_live(in_.wanted.live)) s.low = {{-hl_, -hw_}, {hl_, -hw_}};
        if (!left_live(in_.wanted.live)) s.high = {{-hl_, hw_}, {hl_, hw_}};
        Ring out = std::move(s.low);
        out.insert(out.end(), s.high.rbegin(), s.high.rend());
        return out;
    }

    void outlines() {
        t_.above = outline(0);
        t_.below = outline(2);
    }

    /// The water between two banks, from the ruled edges at the finished planes.
    void between(std::size_t k) {
        Region r;
        const bool poured = in_.choices.kind == MakeUp::river;
        r.kind = poured ? RegionKind::resin : RegionKind::air;
        r.index = k;
        r.high_mm = in_.thickness_mm;
        std::array<double, 3> areas{};
        Ring mid;
        for (std::size_t level = 0; level < 3; ++level) {
            const Sides right = sides_of(levels_[k][level]);
            const Sides left = sides_of(levels_[k + 1][level]);
            areas[level] = area_between(right.high, left.low);
            if (areas[level] <= 0) continue;
            Ring& water = level == 0 ? r.above : level == 1 ? mid : r.below;
            water = water_ring(right.high, left.low);
            if (!rectangle_) water = largest(intersection(water, shape_));
        }
        r.balance = balance_of(r.above, mid, r.below);
        if (!rectangle_)  // what of the water lies in the round or free form
            for (std::size_t level = 0; level < 3; ++level) {
                const Ring water = water_ring(sides_of(levels_[k][level]).high, sides_of(levels_[k + 1][level]).low);
                areas[level] = water.empty() ? 0 : intersection_area(water, shape_);
            }
        if (areas[0] <= 0 && areas[1] <= 0 && areas[2] <= 0) return;
        const RiverRun& run = t_.rivers.at(k);
        const bool cross = std::min(run.above.narrowest_mm, run.below.narrowest_mm) < 0;
        r.volume_l = cross && rectangle_ ? crossing_litres(k) : litres(areas[0], areas[1], areas[2]);
        r.name = poured ? "the river" : "the open river";
        if (poured && in_.river) {
            r.of = in_.river->key;
            r.kg_m3 = in_.river->mixed_density() * 1000;
            r.mass_kg = r.volume_l * r.kg_m3 / 1000;
        }
        t_.regions.push_back(std::move(r));
    }

    /// A leaf's whole face, so far down from the upper one: 0 there, 1 at the underside.
    Ring face_at(std::size_t i, double down) const {
        const auto& [a, b] = faces_[i];
        Ring ring;
        for (std::size_t n = 0; n < a.size(); ++n) ring.push_back(lerp(a[n], b[n], down));
        return ring;
    }

    /// Litres of what has such an area so far down, where the area is not quadratic: many levels are summed.
    template <class Area>
    double summed_litres(Area area_at) const {
        constexpr std::size_t levels = 32;
        double sum = 0;
        for (std::size_t n = 0; n < levels; ++n) sum += area_at((static_cast<double>(n) + 0.5) / levels) / levels;
        return sum * in_.thickness_mm * 1e-6;
    }

    /// Water between banks that cross somewhere between the faces.
    double crossing_litres(std::size_t k) const {
        return summed_litres([&](double down) {
            return area_between(sides_of(share(k, face_at(k, down))).high, sides_of(share(k + 1, face_at(k + 1, down))).low);
        });
    }

    /// What stands in the form, and the rivers between it. A bank that ends short of the form's end goes on level to it.
    void blanks() {
        const auto cut = [&](std::size_t i, double down) {
            const double half = hl_ + std::max(0.0, in_.leaves[i].placement.oversize_mm);
            return left_of(left_of(face_at(i, down), {-half, 1}, {-half, -1}), {half, -1}, {half, 1});
        };
        double low = -hl_;
        double high = hl_;
        // Of banks that overlap the left one gives way, as in the finished top.
        std::vector<Levels> stand;
        for (std::size_t i = 0; i < in_.leaves.size(); ++i) {
            stand.push_back({cut(i, 0), cut(i, 0.5), cut(i, 1)});
            for (std::size_t level = 0; i > 0 && level < 3; ++level)
                if (intersection_area(stand[i][level], stand[i - 1][level]) > 1e-3)
                    if (const auto rest = without(stand[i][level], {stand[i - 1][level]}); !rest.empty()) stand[i][level] = largest(rest);
            Blank b;
            b.above = stand[i][0], b.below = stand[i][2];
            b.volume_l = litres(area(b.above), area(stand[i][1]), area(b.below));
            b.mass_kg = b.volume_l * t_.regions[i].kg_m3 / 1000;
            for (const Ring* ring : {&b.above, &b.below})
                for (const Vec2 q : *ring) low = std::min(low, q.x), high = std::max(high, q.x);
            t_.blanks.push_back(std::move(b));
        }
        const auto to_the_ends = [&](std::vector<Vec2> bank) {
            if (bank.empty()) return bank;
            if (bank.front().x > low + 1e-9) bank.insert(bank.begin(), {low, bank.front().y});
            if (bank.back().x < high - 1e-9) bank.push_back({high, bank.back().y});
            return bank;
        };
        for (RiverRun& run : t_.rivers) {
            const auto banks = [&](double down) {
                return std::pair(to_the_ends(sides_of(cut(run.joint, down)).high), to_the_ends(sides_of(cut(run.joint + 1, down)).low));
            };
            const auto water = [&](double down) {
                const auto [right, left] = banks(down);
                return area_between(right, left);
            };
            const bool cross = std::min(run.above.narrowest_mm, run.below.narrowest_mm) < 0;
            run.form_l = cross ? summed_litres(water) : litres(water(0), water(0.5), water(1));
            for (const std::size_t level : {std::size_t{0}, std::size_t{2}}) {
                auto right = to_the_ends(sides_of(stand[run.joint][level]).high);
                auto left = to_the_ends(sides_of(stand[run.joint + 1][level]).low);
                if (right.size() < 2 || left.size() < 2) continue;
                Ring ring = std::move(right);
                ring.insert(ring.end(), left.rbegin(), left.rend());
                if (self_crossing(ring)) ring = largest(without(ring, {}));
                (level == 0 ? run.form_above : run.form_below) = std::move(ring);
            }
        }
    }

    /// The ring between two banks; where they cross it is the stretch with the largest area.
    Ring water_ring(std::vector<Vec2> low, std::vector<Vec2> high) const {
        if (low.size() < 2 || high.size() < 2) return {};
        if (!rectangle_) {
            // Leaves end at the rim: the banks are drawn out level past it, the rim cuts them.
            low.insert(low.begin(), {-hl_, low.front().y}), low.push_back({hl_, low.back().y});
            high.insert(high.begin(), {-hl_, high.front().y}), high.push_back({hl_, high.back().y});
        }
        Ring out = std::move(low);
        out.insert(out.end(), high.rbegin(), high.rend());
        return self_crossing(out) ? largest(without(out, {})) : out;
    }

    /// A piece let into the show face: the leaves below lose its wood.
    void patch(std::size_t i) {
        const Patch& p = in_.choices.patches[i];
        if (p.outline.size() < 3 || p.depth_mm <= 0) return;
        const double depth = std::min(p.depth_mm, in_.thickness_mm);
        Region r;
        r.kind = RegionKind::patch;
        r.index = i;
        r.let_in = true;
        r.low_mm = in_.thickness_mm - depth;
        r.high_mm = in_.thickness_mm;
        double covered = 0;
        for (std::size_t k = 0; k < t_.leaves; ++k) {
            const auto parts = intersection(p.outline, t_.regions[k].above);
            double a = 0;
            for (const Ring& part : parts) a += area(part);
            if (a <= 0) continue;
            covered += a;
            take_out(t_.regions[k], a * depth * 1e-6, centroid(largest(parts)));
        }
        if (covered <= 0) return;
        r.above = largest(intersection(p.outline, t_.above));
        r.balance = r.above.size() > 2 ? centroid(r.above) : centroid(p.outline);
        r.volume_l = covered * depth * 1e-6;
        const Slab* s = i < in_.patches.size() ? in_.patches[i] : nullptr;
        Placement placed = in_.leaves.front().placement;
        placed.angle_deg = p.turn_deg;
        if (s) {
            wood_of(r, *s, placed);
        } else {
            // Nobody said what it is cut from: like the wood it lies in.
            wood_of(r, in_.leaves.front().slab, placed);
            r.of.clear();
            r.name = "a patch";
        }
        r.pith_mm.reset();  // cut from anywhere: the most it can move
        t_.regions.push_back(std::move(r));
    }

    const TopInputs& in_;
    double hl_, hw_;
    bool rectangle_;
    Ring shape_;
    std::vector<Levels> levels_;
    std::vector<std::pair<Ring, Ring>> faces_;  ///< of each leaf at the finished planes, in the top's frame, not cut to its share
    Top t_;
};

}  // namespace

double Top::stays_mm(Vec2 uv) const {
    for (std::size_t i = 0; i < std::min(leaves, stays.size()); ++i)
        if (stays[i].second && contains(regions[i].below, uv)) return std::max(0.0, stays[i].second->at(stays[i].first.to_slab(uv)));
    return 0;
}

Top make_top(const TopInputs& in) { return Maker(in).run(); }

void let_in(Top& top, const std::vector<Filling>& fillings) {
    if (!top.ready) return;
    for (const Filling& f : fillings) {
        if (f.leaf >= top.leaves || f.volume_l <= 0) continue;
        Region r;
        r.kind = f.resin.empty() ? RegionKind::air : RegionKind::resin;
        r.of = f.resin;
        r.name = f.name;
        r.index = f.leaf;
        r.let_in = true;
        r.river = f.river;
        const double depth = std::min(f.depth_mm, top.thickness_mm);
        r.low_mm = f.through ? 0 : f.from_above ? top.thickness_mm - depth : 0;
        r.high_mm = f.through || f.from_above ? top.thickness_mm : depth;
        Region& leaf = top.regions[f.leaf];
        const Ring mouth = leaf.placed.frame().from_slab(f.mouth);
        if (f.from_above || f.through) r.above = largest(intersection(mouth, leaf.above));
        if (!f.from_above || f.through) r.below = largest(intersection(mouth, leaf.below));
        if (r.above.empty() && r.below.empty()) continue;
        r.volume_l = f.volume_l;
        r.kg_m3 = f.kg_m3;
        r.mass_kg = f.volume_l * f.kg_m3 / 1000;
        r.balance = centroid(r.above.size() > 2 ? r.above : r.below);
        top.mass_kg -= leaf.mass_kg;
        take_out(leaf, f.volume_l, r.balance);
        top.mass_kg += leaf.mass_kg + r.mass_kg;
        top.regions.push_back(std::move(r));
    }
}

std::vector<CoverPiece> cover(const Top& top) {
    std::vector<CoverPiece> out;
    std::vector<Ring> taken;
    const auto take = [&](const Region* region, const Ring& ring) {
        for (Ring& piece : without(ring, taken)) out.push_back({region, std::move(piece)});
        taken.push_back(ring);
    };
    // What is let in lies on top: it comes first and the leaves get what is left.
    for (auto r = top.regions.rbegin(); r != top.regions.rend(); ++r)
        if (r->above.size() > 2) take(&*r, r->above);
    for (Ring& piece : without(top.above, taken)) out.push_back({nullptr, std::move(piece)});
    std::stable_sort(out.begin(), out.end(), [&](const CoverPiece& a, const CoverPiece& b) {
        const auto place = [&](const CoverPiece& p) { return p.region ? p.region - top.regions.data() : std::ptrdiff_t{1} << 40; };
        return place(a) < place(b);
    });
    return out;
}

}  // namespace yb
