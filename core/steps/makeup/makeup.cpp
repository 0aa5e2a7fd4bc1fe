#include "core/steps/makeup/makeup.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/ground/figure/place.h"
#include "core/steps/lay/place.h"
#include "core/steps/makeup/curve.h"
#include "core/steps/makeup/makeup_told.h"

namespace yb {

std::vector<Joint> joints_of(const MakeUpChoices& choices, std::size_t leaves, double width) {
    std::vector<Joint> out = choices.joints;
    const std::size_t n = leaves > 0 ? leaves - 1 : 0;
    out.resize(std::min(out.size(), n));
    while (out.size() < n)
        out.push_back({-width / 2 + width * static_cast<double>(out.size() + 1) / static_cast<double>(leaves), 0, false});
    return out;
}

std::optional<Span1> wood_at(const LeafPart& leaf, double u, bool both) {
    const auto a = cut_at_x(leaf.show, u);
    if (a.empty()) return {};
    Span1 s{a.front().from, a.back().to};
    if (!both) return s;
    const auto b = cut_at_x(leaf.under, u);
    if (b.empty()) return {};
    return Span1{std::max(s.from, b.front().from), std::min(s.to, b.back().to)};
}

std::vector<Rod> rods_of(const std::vector<Vec2>& right, const std::vector<Vec2>& left, double length, const MakeUpChoices& choices) {
    std::vector<Rod> out;
    if (right.size() < 2 || left.size() < 2) return out;
    const double usable = length - 2 * std::min(length * 0.2, choices.rod_pitch_mm / 2);
    const int n = std::max(2, static_cast<int>(std::round(usable / std::max(20.0, choices.rod_pitch_mm))) + 1);
    for (int i = 0; i < n; ++i) {
        Rod rod;
        rod.u_mm = -usable / 2 + usable * i / (n - 1);
        if (rod.u_mm < std::max(right.front().x, left.front().x) || rod.u_mm > std::min(right.back().x, left.back().x)) continue;
        rod.gap_mm = height_at(left, rod.u_mm) - height_at(right, rod.u_mm);
        rod.length_mm = rod.gap_mm + 2 * choices.rod_depth_mm;
        out.push_back(rod);
    }
    return out;
}

namespace {

constexpr double far = 1e5;

class Planner {
  public:
    explicit Planner(const MakeUpInputs& in)
        : in_(in), n_(in.leaves.size()), hl_(in.top.length_mm / 2), hw_(in.top.width_mm / 2), shape_(outline_of(in.top)) {}

    LaidTogether run() {
        for (const LeafIn& l : in_.leaves)
            if (!l.shape.usable) return out_;
        lay().ready = true;
        leaves();
        joints();
        parts();
        outline();
        widths();
        ends();
        for (std::size_t i = 0; i < n_; ++i) own_lay(i);
        joints_inside();
        lay().fits = lay().short_at.empty() && joints_clean() && all_joints_inside();
        tell_makeup(in_, out_);
        from_left_end();
        return std::move(out_);
    }

  private:
    /// Stations of the whole top are told from its left end.
    void from_left_end() {
        const Vec2 by{hl_, 0};
        LayPlan& p = lay();
        for (Ring* r : {&p.outline, &p.rectangle, &p.region, &p.rough})
            for (Vec2& q : *r) q = q + by;
        for (auto& [a, b] : p.finish_cuts) a = a + by, b = b + by;
        for (Shortfall& s : p.short_at) s.at = s.at + by;
        for (Caution& c : p.cautions)
            if (c.at) show_at(c, *c.at + by);
    }

    LayPlan& lay() { return out_.lay; }
    std::vector<LeafPart>& all() { return out_.plan.leaves; }
    bool rivers() const { return is_river(in_.choices.kind); }
    const LeafPart& leaf(std::size_t i) const { return out_.plan.leaves[i]; }

    void leaves() {
        for (const LeafIn& l : in_.leaves) {
            const Frame f = l.placement.frame();
            all().push_back({f.from_slab(l.shape.ring_a), f.from_slab(l.shape.ring_b), {}, {}, l.placement, {}});
        }
        out_.plan.top = in_.top;
        for (const LeafPart& l : all()) {
            joint_edges_.push_back({profile(l.show, 72), profile(l.under, 72)});
        }
    }

    /// A ring's edges at stations(n).
    EdgeProfile profile(const Ring& ring, std::size_t n) const {
        return edge_profile(ring, -hl_ * (1 - 1e-9), 2 * hl_ / static_cast<double>(n) * (1 - 1e-9), n + 1);
    }

    std::vector<double> stations(int n) const {
        std::vector<double> us;
        for (int i = 0; i <= n; ++i) us.push_back((-hl_ + 2 * hl_ * i / n) * (1 - 1e-9));
        return us;
    }

    /// The line of a joint, or the middle of a river.
    void joints() {
        const auto set = joints_of(in_.choices, n_, in_.top.width_mm);
        for (std::size_t k = 0; k < set.size(); ++k) {
            JointPlan j;
            j.right = k, j.left = k + 1;
            j.river = rivers();
            if (j.river) river(j);
            else ripped(j, set[k]);
            out_.plan.joints.push_back(std::move(j));
        }
    }

    /// A ripped joint runs between the sides of the top from end to end; of a round or free form somewhere. Joints do not cross.
    void joints_inside() {
        auto& joints = out_.plan.joints;
        const bool rectangle = in_.top.shape == TopShape::rectangle;
        for (std::size_t k = 0; k < joints.size(); ++k) {
            JointPlan& j = joints[k];
            if (j.river) continue;
            double least = 1e300;
            for (std::size_t i = 0; i < j.along.size(); ++i) {
                const JointStation& s = j.along[i];
                const auto cut = cut_at_x(shape_, std::clamp(s.u, -hl_ * (1 - 1e-6), hl_ * (1 - 1e-6)));
                double out = cut.empty() ? 1e300 : std::max(cut.front().from - s.v, s.v - cut.back().to);
                if (k > 0 && !joints[k - 1].river && i < joints[k - 1].along.size()) out = std::max(out, joints[k - 1].along[i].v - s.v);
                if (rectangle && out > j.outside_mm) j.outside_mm = out, j.outside_u_mm = s.u;
                if (!rectangle && out < least) least = out, j.outside_u_mm = s.u;
            }
            if (!rectangle) j.outside_mm = least > 1e299 ? 0 : std::max(0.0, least);
        }
    }
    bool all_joints_inside() const {
        return std::all_of(out_.plan.joints.begin(), out_.plan.joints.end(), [](const JointPlan& j) { return j.outside_mm < 0.05; });
    }

    void ripped(JointPlan& j, const Joint& set) {
        const double slope = std::tan(set.angle_deg * std::numbers::pi / 180);
        std::vector<Vec2> line;
        j.curved = set.curved;
        if (set.curved) {
            std::vector<Vec2> edge;
            for (const double u : stations(160))
                if (const auto w = wood_at(leaf(j.right), u, true)) edge.push_back({u, w->to});
            if (edge.size() > 3) line = fair_curve(edge, in_.choices.least_radius_mm);
        }
        std::size_t k = 0;
        for (const double u : stations(72)) {
            JointStation s{u, set.v_mm + slope * u, 0, 0};
            if (line.size() > 1) {
                while (k + 2 < line.size() && line[k + 1].x < u) ++k;
                const double t = std::clamp((u - line[k].x) / (line[k + 1].x - line[k].x), 0.0, 1.0);
                s.v = line[k].y * (1 - t) + line[k + 1].y * t;
            }
            const auto reach = [&, at = j.along.size()](std::size_t i, bool high) -> std::optional<std::pair<double, double>> {
                const auto& [a, b] = joint_edges_[i];
                if (!a.there(at) || !b.there(at)) return {};
                return high ? std::pair(std::min(a.high[at], b.high[at]), a.high[at])
                            : std::pair(std::max(a.low[at], b.low[at]), a.low[at]);
            };
            if (const auto r = reach(j.right, true)) {
                s.lack_right = s.v - r->first;
                j.given_right_mm += std::max(0.0, r->second - s.v) / 73;
            }
            if (const auto l = reach(j.left, false)) {
                s.lack_left = l->first - s.v;
                j.given_left_mm += std::max(0.0, s.v - l->second) / 73;
            }
            const double lack = std::max(s.lack_right, s.lack_left);
            if (lack > clean_mm) j.lacking_mm += 2 * hl_ / 72;
            if (lack > j.worst_mm) j.worst_mm = lack, j.worst_u_mm = u;
            j.along.push_back(s);
        }
        if (j.worst_mm <= clean_mm) j.worst_mm = 0;
    }

    /// The water between two banks on the faces as they are.
    void river(JointPlan& j) {
        const auto bank = [&](const Ring& ring, bool high) {
            const Sides s = sides_of(ring);
            return stretch(high ? s.high : s.low, -hl_, hl_);
        };
        const auto right = bank(leaf(j.right).show, true);
        const auto left = bank(leaf(j.left).show, false);
        const auto right_below = bank(leaf(j.right).under, true);
        const auto left_below = bank(leaf(j.left).under, false);
        j.above = apart(right, left);
        j.below = apart(right_below, left_below);
        if (j.above.length_mm <= 0) return;
        for (const double u : stations(120)) {
            if (u < std::max(right.front().x, left.front().x) || u > std::min(right.back().x, left.back().x)) continue;
            j.along.push_back({u, (height_at(left, u) + height_at(right, u)) / 2, 0, 0});
        }
        const auto halfway = [](const std::vector<Vec2>& a, const std::vector<Vec2>& b) {
            std::vector<Vec2> mid;
            for (const Vec2 p : a) mid.push_back({p.x, (p.y + (b.empty() ? p.y : height_at(b, p.x))) / 2});
            return mid;
        };
        j.area_mm2 = area_between(halfway(right, right_below), halfway(left, left_below));
        j.water = right;
        j.water.insert(j.water.end(), left.rbegin(), left.rend());
        out_.plan.water_mm2 += j.area_mm2;
        if (in_.choices.kind == MakeUp::open_river)
            j.rods = rods_of(halfway(right, right_below), halfway(left, left_below), in_.top.length_mm, in_.choices);
    }

    /// Everything between a leaf's joints, as a strip of the top.
    Ring strip(std::size_t i) const {
        Ring low, high;
        if (i == 0 || rivers()) {
            const double v = i == 0 && !right_live(in_.top.live) ? -hw_ : -far;
            low = {{-hl_, v}, {hl_, v}};
        } else {
            for (const JointStation& s : out_.plan.joints[i - 1].along) low.push_back({s.u, s.v});
        }
        if (i + 1 == n_ || rivers()) {
            const double v = i + 1 == n_ && !left_live(in_.top.live) ? hw_ : far;
            high = {{-hl_, v}, {hl_, v}};
        } else {
            for (const JointStation& s : out_.plan.joints[i].along) high.push_back({s.u, s.v});
        }
        low.insert(low.end(), high.rbegin(), high.rend());
        return low;
    }

    /// The leaf of the earlier plan, where it lay exactly so.
    const LeafPart* as_before(std::size_t i) const {
        if (!in_.before || in_.before->leaves.size() != n_ || !(in_.before->top == in_.top)) return nullptr;
        const LeafPart& b = in_.before->leaves[i];
        return b.placed == leaf(i).placed && b.strip == leaf(i).strip ? &b : nullptr;
    }

    void parts() {
        for (std::size_t i = 0; i < n_; ++i) {
            all()[i].strip = strip(i);
            if (const LeafPart* same = as_before(i)) {
                all()[i].part = same->part;
                all()[i].lay = same->lay;
                continue;
            }
            Ring part = largest(intersection(leaf(i).strip, leaf(i).show));
            if (in_.top.shape != TopShape::rectangle && !part.empty()) part = largest(intersection(part, shape_));
            all()[i].part = std::move(part);
        }
    }

    /// The two long sides of the top: live ones where the outermost leaves end, the sawn ones straight.
    Sides long_sides() const {
        Sides s{{{-hl_, -hw_}, {hl_, -hw_}}, {{-hl_, hw_}, {hl_, hw_}}};
        if (right_live(in_.top.live))
            if (auto low = stretch(sides_of(leaf(0).show).low, -hl_, hl_); low.size() > 1) s.low = std::move(low);
        if (left_live(in_.top.live))
            if (auto high = stretch(sides_of(leaf(n_ - 1).show).high, -hl_, hl_); high.size() > 1) s.high = std::move(high);
        return s;
    }

    void outline() {
        const Sides s = long_sides();
        lay().rectangle = shape_;
        lay().outline = s.low;
        lay().outline.insert(lay().outline.end(), s.high.rbegin(), s.high.rend());
        if (in_.top.shape != TopShape::rectangle) {
            lay().outline = largest(intersection(lay().outline, shape_));
            if (lay().outline.empty()) lay().outline = shape_;
        }
        lay().region = lay().outline;
        lay().rough = lay().outline;
        lay().finish_cuts = {{{-hl_, -hw_ - 20}, {-hl_, hw_ + 20}}, {{hl_, -hw_ - 20}, {hl_, hw_ + 20}}};
    }

    void shortfall(double mm, Vec2 at, Side side) {
        if (mm < 0.05) return;
        auto& list = lay().short_at;
        const auto it = std::find_if(list.begin(), list.end(), [&](const Shortfall& s) { return s.side == side; });
        if (it == list.end()) list.push_back({mm, at, at, side});
        else if (mm > it->mm) it->mm = mm, it->at = it->uv = at;
    }

    /// Where sound wood on both faces begins (or ends) at its worst along the top.
    Vec2 furthest_in(std::size_t i, bool high) const {
        Vec2 worst{0, high ? 1e300 : -1e300};
        for (const Ring* ring : {&leaf(i).show, &leaf(i).under}) {
            const Sides s = sides_of(*ring);
            for (const Vec2 p : stretch(high ? s.high : s.low, -hl_, hl_))
                if (high ? p.y < worst.y : p.y > worst.y) worst = p;
        }
        return worst;
    }

    void widths() {
        LayPlan& p = lay();
        if (in_.top.shape != TopShape::rectangle) {
            const Sides s = sides_of(p.outline);
            const Apart wide = apart(s.low, s.high);
            p.narrowest_mm = p.widest_mm = wide.widest_mm;
            p.narrowest_u_mm = wide.widest_x;
            const auto at_end = [&](double u) { return height_at(s.high, u) - height_at(s.low, u); };
            p.width_left_mm = at_end(-hl_), p.width_right_mm = at_end(hl_);
            return;
        }
        const Sides s = long_sides();
        const Apart wide = apart(s.low, s.high);
        p.narrowest_mm = wide.narrowest_mm, p.narrowest_u_mm = wide.narrowest_x;
        p.widest_mm = wide.widest_mm;
        p.width_left_mm = height_at(s.high, -hl_) - height_at(s.low, -hl_);
        p.width_right_mm = height_at(s.high, hl_) - height_at(s.low, hl_);
        shortfall(in_.top.width_mm - wide.narrowest_mm, {wide.narrowest_x, height_at(s.high, wide.narrowest_x)}, Side::width);
        // A sawn side is to lie in wood on both faces; what the place has there is what could be had.
        const bool right = !right_live(in_.top.live);
        const bool left = !left_live(in_.top.live);
        const Vec2 low = furthest_in(0, false);
        const Vec2 high = furthest_in(n_ - 1, true);
        if (right) shortfall(low.y + hw_, {low.x, -hw_}, Side::right);
        if (left) shortfall(hw_ - high.y, {high.x, hw_}, Side::left);
        const bool known = low.y > -1e200 && high.y < 1e200;
        if (right && left && known) p.narrowest_mm = high.y - low.y, p.narrowest_u_mm = -low.y > high.y ? high.x : low.x;
        else if (right && !left && known) {
            const Apart has = apart({{-hl_, low.y}, {hl_, low.y}}, s.high);
            p.narrowest_mm = has.narrowest_mm, p.narrowest_u_mm = has.narrowest_x;
        } else if (left && !right && known) {
            const Apart has = apart(s.low, {{-hl_, high.y}, {hl_, high.y}});
            p.narrowest_mm = has.narrowest_mm, p.narrowest_u_mm = has.narrowest_x;
        }
    }

    /// Leaves that do not reach the ends of the top.
    void ends() {
        for (std::size_t i = 0; i < n_; ++i) {
            const Ring& part = leaf(i).part;
            if (part.empty()) continue;
            const Box b = bounds(part);
            const Vec2 c = centroid(part);
            if (in_.top.shape != TopShape::rectangle) continue;
            shortfall(b.low.x + hl_, {-hl_, c.y}, Side::left_end);
            shortfall(hl_ - b.high.x, {hl_, c.y}, Side::right_end);
        }
    }

    bool joints_clean() const {
        return std::all_of(out_.plan.joints.begin(), out_.plan.joints.end(),
                           [](const JointPlan& j) { return j.river ? j.above.narrowest_mm > 0 : j.worst_mm <= clean_mm; });
    }

    /// A leaf on its own slab: what flattening and filling work on.
    void own_lay(std::size_t i) {
        if (!as_before(i)) lay_alone(i);
        lay().rough_length_mm = std::max(lay().rough_length_mm, leaf(i).lay.rough_length_mm);
    }

    void lay_alone(std::size_t i) {
        const LeafIn& in = in_.leaves[i];
        const Frame f = in.placement.frame();
        LayPlan& p = all()[i].lay;
        const Ring& part = leaf(i).part;
        if (part.size() < 3) return;
        p.ready = true;
        p.fits = true;
        const Box b = bounds(part);
        p.rectangle = f.to_slab(Ring{b.low, {b.high.x, b.low.y}, b.high, {b.low.x, b.high.y}});
        p.outline = f.to_slab(part);
        p.region = f.to_slab(leaf(i).strip);
        const BlankCuts cuts = blank_cuts(leaf(i).show, leaf(i).under, hl_, in.placement);
        p.rough = f.to_slab(cuts.outline);
        p.rough_length_mm = cuts.length_mm;
        p.finish_cuts = cuts.finish, p.rough_cuts = cuts.rough;
        p.widest_mm = b.height();
        p.narrowest_mm = b.height();
        p.flaws = flaws_inside(in.slab, p.outline);
    }

    const MakeUpInputs& in_;
    std::size_t n_;
    double hl_, hw_;
    Ring shape_;
    /// Show face and underside of each leaf at the stations of joints.
    std::vector<std::pair<EdgeProfile, EdgeProfile>> joint_edges_;
    LaidTogether out_;
};

}  // namespace

LaidTogether plan_makeup(const MakeUpInputs& in) { return Planner(in).run(); }

}  // namespace yb
