#include "core/lay/makeup.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/lay/curve.h"
#include "core/lay/live.h"
#include "core/lay/place.h"

namespace yb {

const char* name_of(MakeUp kind) {
    static constexpr std::array names{"one slab",      "an opened pair", "a slip pair", "three or four boards",
                                      "a resin river", "an open river"};
    return names.at(static_cast<std::size_t>(kind));
}

bool is_river(MakeUp kind) { return kind == MakeUp::river || kind == MakeUp::open_river; }

MakeUp made_of(MakeUp kind, std::size_t leaves) {
    if (leaves < 2) return MakeUp::single;
    if (is_river(kind)) return kind;
    if (leaves == 2) return kind == MakeUp::slip ? MakeUp::slip : MakeUp::book;
    return MakeUp::boards;
}

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

namespace {

constexpr double far = 1e5;
constexpr double clean_mm = 0.5;  ///< less wood missing at a joint than this is none

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
        lay().fits = lay().short_at.empty() && joints_clean();
        figures();
        cautions();
        if (!in_.quick) choices();
        sort_by_severity(lay().cautions);
        from_left_end();
        return std::move(out_);
    }

  private:
    /// Stations of the whole top are told from its left end.
    void from_left_end() {
        const Vec2 by{hl_, 0};
        LayPlan& p = lay();
        for (Ring* r : {&p.outline, &p.rectangle, &p.region, &p.rough, &out_.under})
            for (Vec2& q : *r) q = q + by;
        for (auto& [a, b] : p.finish_cuts) a = a + by, b = b + by;
        for (Shortfall& s : p.short_at) s.at = s.at + by;
        for (Caution& c : p.cautions)
            if (c.at) c.at = *c.at + by;
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
            outer_edges_.push_back({profile(l.show, 100), profile(l.under, 100)});
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

    /// The water between two banks, both faces counted for its volume.
    void river(JointPlan& j) {
        j.narrowest_mm = 1e300;
        Ring right, left;
        double under = 0;
        int counted = 0;
        const auto us = stations(120);
        for (const double u : us) {
            const auto r = wood_at(leaf(j.right), u, false);
            const auto l = wood_at(leaf(j.left), u, false);
            if (!r || !l) continue;
            const double w = l->from - r->to;
            j.along.push_back({u, (l->from + r->to) / 2, 0, 0});
            right.push_back({u, r->to});
            left.push_back({u, l->from});
            if (w < j.narrowest_mm) j.narrowest_mm = w, j.narrowest_u_mm = u;
            if (w > j.widest_mm) j.widest_mm = w, j.widest_u_mm = u;
            j.mean_mm += w;
            ++counted;
            const auto rb = cut_at_x(leaf(j.right).under, u);
            const auto lb = cut_at_x(leaf(j.left).under, u);
            under += rb.empty() || lb.empty() ? w : lb.front().from - rb.back().to;
        }
        if (counted == 0) {
            j.narrowest_mm = 0;
            return;
        }
        j.mean_mm /= counted;
        j.area_mm2 = 2 * hl_ * (j.mean_mm + under / counted) / 2;
        j.water = right;
        j.water.insert(j.water.end(), left.rbegin(), left.rend());
        out_.plan.water_mm2 += std::max(0.0, j.area_mm2);
        if (in_.choices.kind == MakeUp::open_river) rods(j);
    }

    void rods(JointPlan& j) {
        const double usable = 2 * hl_ - 2 * std::min(hl_ * 0.4, in_.choices.rod_pitch_mm / 2);
        const int n = std::max(2, static_cast<int>(std::round(usable / std::max(20.0, in_.choices.rod_pitch_mm))) + 1);
        for (int i = 0; i < n; ++i) {
            Rod rod;
            rod.u_mm = -usable / 2 + usable * i / (n - 1);
            const auto r = wood_at(leaf(j.right), rod.u_mm, false);
            const auto l = wood_at(leaf(j.left), rod.u_mm, false);
            if (!r || !l) continue;
            rod.gap_mm = l->from - r->to;
            rod.length_mm = rod.gap_mm + 2 * in_.choices.rod_depth_mm;
            j.rods.push_back(rod);
        }
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

    /// Edges of the whole top at one of stations(100): live ones where the outermost leaves end.
    Span1 edges_at(std::size_t i, bool underside = false) const {
        Span1 s{-hw_, hw_};
        const auto face = [&](std::size_t k) -> const EdgeProfile& { return underside ? outer_edges_[k].second : outer_edges_[k].first; };
        if (right_live(in_.top.live) && face(0).there(i)) s.from = face(0).low[i];
        if (left_live(in_.top.live) && face(n_ - 1).there(i)) s.to = face(n_ - 1).high[i];
        return s;
    }

    void outline() {
        const auto face = [&](bool underside) {
            Ring right, left;
            const auto us = stations(100);
            for (std::size_t i = 0; i < us.size(); ++i) {
                const Span1 e = edges_at(i, underside);
                right.push_back({us[i], e.from});
                left.push_back({us[i], e.to});
            }
            right.insert(right.end(), left.rbegin(), left.rend());
            return right;
        };
        lay().rectangle = shape_;
        lay().outline = face(false);
        out_.under = face(true);
        if (in_.top.shape != TopShape::rectangle) {
            lay().outline = largest(intersection(lay().outline, shape_));
            if (lay().outline.empty()) lay().outline = shape_;
            out_.under = lay().outline;
        }
        lay().region = lay().outline;
        lay().rough = lay().outline;
        lay().finish_cuts = {{{-hl_, -hw_ - 20}, {-hl_, hw_ + 20}}, {{hl_, -hw_ - 20}, {hl_, hw_ + 20}}};
    }

    void shortfall(double mm, Vec2 at, const char* side) {
        if (mm < 0.05) return;
        auto& list = lay().short_at;
        const auto it = std::find_if(list.begin(), list.end(), [&](const Shortfall& s) { return s.side == side; });
        if (it == list.end()) list.push_back({mm, at, at, side});
        else if (mm > it->mm) it->mm = mm, it->at = it->uv = at;
    }

    void widths() {
        LayPlan& p = lay();
        p.narrowest_mm = 1e300;
        const bool rectangle = in_.top.shape == TopShape::rectangle;
        const auto us = stations(100);
        const EdgeProfile whole = profile(p.outline, 100);
        for (std::size_t i = 0; i < us.size(); ++i) {
            const double u = us[i];
            if (!whole.there(i)) continue;
            const double w = whole.high[i] - whole.low[i];
            if (w < p.narrowest_mm) p.narrowest_mm = w, p.narrowest_u_mm = u;
            p.widest_mm = std::max(p.widest_mm, w);
            if (!rectangle) continue;
            shortfall(in_.top.width_mm - w, {u, whole.high[i]}, "width");
            const auto& [right_show, right_under] = outer_edges_.front();
            const auto& [left_show, left_under] = outer_edges_.back();
            if (!right_live(in_.top.live) && right_show.there(i) && right_under.there(i))
                shortfall(std::max(right_show.low[i], right_under.low[i]) + hw_, {u, -hw_}, "right");
            if (!left_live(in_.top.live) && left_show.there(i) && left_under.there(i))
                shortfall(hw_ - std::min(left_show.high[i], left_under.high[i]), {u, hw_}, "left");
        }
        if (!rectangle) p.narrowest_mm = p.widest_mm;
        const auto width = [&](std::size_t i) {
            const Span1 e = edges_at(i);
            return e.to - e.from;
        };
        p.width_left_mm = width(0);
        p.width_right_mm = width(100);
    }

    /// Leaves that do not reach the ends of the top.
    void ends() {
        for (std::size_t i = 0; i < n_; ++i) {
            const Ring& part = leaf(i).part;
            if (part.empty()) continue;
            const Box b = bounds(part);
            const Vec2 c = centroid(part);
            if (in_.top.shape != TopShape::rectangle) continue;
            shortfall(b.low.x + hl_, {-hl_, c.y}, "left end");
            shortfall(hl_ - b.high.x, {hl_, c.y}, "right end");
        }
    }

    bool joints_clean() const {
        return std::all_of(out_.plan.joints.begin(), out_.plan.joints.end(),
                           [](const JointPlan& j) { return j.river ? j.narrowest_mm > 0 : j.worst_mm <= clean_mm; });
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
        const double over = std::max(0.0, in.placement.oversize_mm);
        p.rough = f.to_slab(
            largest(intersection({{-hl_ - over, -far}, {hl_ + over, -far}, {hl_ + over, far}, {-hl_ - over, far}}, leaf(i).show)));
        const Box whole = bounds(leaf(i).show);
        p.rough_length_mm = std::max(0.0, std::min(hl_ + over, whole.high.x) - std::max(-hl_ - over, whole.low.x));
        for (const double end : {-1.0, 1.0}) {
            const auto line = [&](double u) { return std::pair(f.to_slab({u, whole.low.y - 20}), f.to_slab({u, whole.high.y + 20})); };
            p.finish_cuts.push_back(line(end * hl_));
            p.rough_cuts.push_back(line(std::clamp(end * (hl_ + over), whole.low.x, whole.high.x)));
        }
        p.widest_mm = b.height();
        p.narrowest_mm = b.height();
        p.flaws = flaws_inside(in.slab, p.outline);
    }

    void figures() {
        LayPlan& p = lay();
        const auto& t = in_.top;
        const std::string edges = "outlines of the leaves as they lie";
        double worst_joint = 0;
        double joint_u = 0;
        for (const JointPlan& j : out_.plan.joints)
            if (!j.river && j.worst_mm > worst_joint) worst_joint = j.worst_mm, joint_u = j.worst_u_mm;
        if (!p.short_at.empty())
            std::stable_sort(p.short_at.begin(), p.short_at.end(), [](const Shortfall& a, const Shortfall& b) { return a.mm > b.mm; });
        if (p.fits || p.short_at.empty())
            p.figures.push_back(
                {"lay.fit",
                 p.fits ? "It fits: narrowest" : "Narrowest",
                 mm(p.narrowest_mm),
                 {},
                 p.fits ? say("{} to spare at {}", mm(std::max(0.0, p.narrowest_mm - t.width_mm)), along(p.narrowest_u_mm + hl_))
                        : say("the joint lacks {} at {}", mm(worst_joint), along(joint_u + hl_)),
                 {"left edge − right edge across the top at 101 stations",
                  {{"wanted", mm(t.width_mm), "wanted top"}, {"narrowest", mm(p.narrowest_mm), edges}},
                  "places are told from the top's left end"}});
        else
            p.figures.push_back({"lay.fit",
                                 "Short by",
                                 mm(p.short_at.front().mm),
                                 {},
                                 say("at {}, " + p.short_at.front().side, along(p.short_at.front().uv.x + hl_)),
                                 {"wanted width or length − wood there",
                                  {{"wanted width", mm(t.width_mm), "wanted top"}, {"wanted length", mm(t.length_mm), "wanted top"}},
                                  "places are told from the top's left end"}});
        if (t.shape == TopShape::rectangle)
            p.figures.push_back({"lay.ends",
                                 "Finished width, both ends",
                                 mm(p.width_left_mm),
                                 mm(p.width_right_mm),
                                 say("differ by {}", mm(std::abs(p.width_left_mm - p.width_right_mm))),
                                 {"left edge − right edge at the two end cuts",
                                  {{"left end", mm(p.width_left_mm), edges}, {"right end", mm(p.width_right_mm), edges}},
                                  "measured across the top"}});
        if (rivers()) river_figures();
        else rip_figure();
        for (const JointPlan& j : out_.plan.joints)
            if (j.curved) curve_figure(j);
    }

    /// What a curved joint is cut with: the pair of guide bushings, and where the template's edge runs.
    void curve_figure(const JointPlan& j) {
        std::vector<Vec2> line;
        for (const JointStation& s : j.along) line.push_back({s.u, s.v});
        const double tightest = least_radius(line, 60);
        const double v = j.along[j.along.size() / 2].v;
        const auto pair = bushings_for(in_.choices.cutter_mm, in_.bushings_mm);
        if (!pair) {
            add("lay.bushings", Severity::watch,
                say("No two bushings at hand differ by {}, twice the cutter: both edges can't be cut from one template. Take another "
                    "cutter, or "
                    "say on the shop's page which bushings there are.",
                    fine(2 * in_.choices.cutter_mm)),
                {0, v});
            return;
        }
        lay().figures.push_back(
            {"lay.bushings",
             "Bushings for the curved joint",
             fine(pair->inner_mm),
             fine(pair->outer_mm),
             say("template {} off the joint; tightest turn {}", fine(pair->template_off_mm), mm(std::min(tightest, 1e5))),
             {"larger − smaller = 2 × cutter; template off = (smaller + cutter) / 2",
              {{"cutter", fine(in_.choices.cutter_mm), "what you set"},
               {"least radius asked for", mm(in_.choices.least_radius_mm), "what you set"},
               {"least radius the pair needs", mm(pair->needs_radius_mm), "larger bushing's radius + its offset"}},
              "one template, two bushings; docs/methods.md, Curved joints"}});
        if (tightest < pair->needs_radius_mm)
            add("lay.curve_tight", Severity::stop,
                say("The joint turns to a radius of {}; the larger bushing can't follow below {}. Ask for a wider curve.", mm(tightest),
                    mm(pair->needs_radius_mm)),
                {0, v});
    }

    void rip_figure() {
        double sum = 0;
        std::vector<Given> given;
        for (const JointPlan& j : out_.plan.joints) {
            sum += j.given_right_mm + j.given_left_mm;
            const std::string k = std::to_string(j.right + 1);
            given.push_back({"joint " + k + ", right leaf", mm(j.given_right_mm), "mean beyond the line"});
            given.push_back({"joint " + k + ", left leaf", mm(j.given_left_mm), "mean beyond the line"});
        }
        lay().figures.push_back({"lay.rip",
                                 "Width given up at the rip",
                                 mm(sum),
                                 {},
                                 out_.plan.joints.size() > 1
                                     ? say("{} joints, both leaves of each", count(static_cast<double>(out_.plan.joints.size())))
                                     : say("both leaves, show face"),
                                 {"mean of show-face edge − joint line, at 73 stations", given, ""}});
    }

    /// Whether the top's ends cut through the water or through wood that has closed over it.
    std::string ends_of_rivers() const {
        const auto open = [&](double u) {
            return std::any_of(out_.plan.joints.begin(), out_.plan.joints.end(), [&](const JointPlan& j) {
                const auto r = wood_at(leaf(j.right), u, false);
                const auto l = wood_at(leaf(j.left), u, false);
                return !r || !l || l->from - r->to > 0.5;
            });
        };
        const bool left = open(-hl_ * (1 - 1e-6));
        const bool right = open(hl_ * (1 - 1e-6));
        return left && right ? "both ends show it"
               : left        ? "the right end stays wood"
               : right       ? "the left end stays wood"
                             : "both ends stay wood";
    }

    void river_figures() {
        const JointPlan* narrow = nullptr;
        double widest = 0;
        double mean = 0;
        std::vector<Given> given;
        for (const JointPlan& j : out_.plan.joints) {
            if (!narrow || j.narrowest_mm < narrow->narrowest_mm) narrow = &j;
            widest = std::max(widest, j.widest_mm);
            mean += j.mean_mm / static_cast<double>(out_.plan.joints.size());
            given.push_back({"river " + std::to_string(j.right + 1) + ", mean", mm(j.mean_mm), "121 stations, show face"});
        }
        if (!narrow) return;
        lay().figures.push_back({"lay.river",
                                 "River, narrowest and widest",
                                 mm(narrow->narrowest_mm),
                                 mm(widest),
                                 say("narrowest at {}; {} on average", along(narrow->narrowest_u_mm + hl_), mm(mean)),
                                 {"left bank − right bank on the show face", given, ""}});
        if (in_.choices.kind == MakeUp::river) {
            const double litres_ = out_.plan.water_mm2 * in_.top.thickness_mm * 1e-6;
            lay().figures.push_back({"lay.resin",
                                     "Resin in the river",
                                     litres(litres_),
                                     {},
                                     say("{} of the top is resin; " + ends_of_rivers(),
                                         percent(100 * out_.plan.water_mm2 / std::max(1.0, area(lay().outline)))),
                                     {"mean width on both faces × length × wanted thickness",
                                      {{"river", square_metres(out_.plan.water_mm2 * 1e-6), "mean of both faces"},
                                       {"thickness", fine(in_.top.thickness_mm), "wanted top"}},
                                      "no overfill, no reserve"}});
        } else {
            std::size_t rods = 0;
            double longest = 0;
            for (const JointPlan& j : out_.plan.joints)
                for (const Rod& r : j.rods) ++rods, longest = std::max(longest, r.length_mm);
            lay().figures.push_back({"lay.rods",
                                     "Rods, and the longest",
                                     count(static_cast<double>(rods)),
                                     mm(longest),
                                     say("square to the joint, {} deep into both leaves", mm(in_.choices.rod_depth_mm)),
                                     {"length = gap at that place + both depths",
                                      {{"pitch wanted", mm(in_.choices.rod_pitch_mm), "what you set"},
                                       {"depth", mm(in_.choices.rod_depth_mm), "what you set"},
                                       {"rod", fine(in_.choices.rod_mm), "what you set"}},
                                      "an even pitch, parallel to each other so that the leaves slide together"}});
        }
    }

    void add(std::string key, Severity s, Phrase says, Vec2 at) {
        lay().cautions.push_back({std::move(key), s, Step::lay, std::move(says), at});
    }

    void cautions() {
        LayPlan& p = lay();
        for (const Shortfall& s : p.short_at)
            add("lay.short", Severity::stop,
                say("Short by {} at {}, " + s.side + ". Move the leaves, or make the top smaller.", mm(s.mm), along(s.uv.x + hl_)), s.uv);
        for (const JointPlan& j : out_.plan.joints) j.river ? river_cautions(j) : joint_cautions(j);
        const double taper = std::abs(p.width_left_mm - p.width_right_mm);
        if (in_.top.shape == TopShape::rectangle && taper > 0.01 * in_.top.width_mm && in_.top.live != LiveEdges::none)
            add("lay.taper", Severity::watch,
                say("The two ends differ in width by {}. A wedge of {} off the wide end, nothing at the other, evens them; or swap an "
                    "outer "
                    "leaf end for end.",
                    mm(taper), mm(taper)),
                {p.width_left_mm > p.width_right_mm ? -hl_ : hl_, 0});
        same_wood();
        for (std::size_t i = 0; i < n_; ++i) {
            const LeafIn& in = in_.leaves[i];
            std::vector<Caution> own;
            flaw_cautions(in.slab, leaf(i).lay.flaws, in.placement.frame(), in_.top.length_mm, own);
            told_together(own);
            for (Caution& c : own) {
                c.says.pattern = in.slab.name + ": " + c.says.pattern;
                if (c.at) c.at = in.placement.frame().from_slab(*c.at);
                p.cautions.push_back(std::move(c));
            }
        }
        rip_order();
        if (in_.top.live != LiveEdges::none)
            add("lay.bark", Severity::note, say("Bark left on a live edge falls off later: take it off now, or know it is a risk."),
                {0, hw_});
    }

    /// Harmless flaws of one leaf are told in one note, at the first of them.
    static void told_together(std::vector<Caution>& own) {
        const auto note = [](const Caution& c) { return c.key == "lay.flaw"; };
        const auto n = std::count_if(own.begin(), own.end(), note);
        if (n < 2) return;
        const Caution first = *std::find_if(own.begin(), own.end(), note);
        own.erase(std::remove_if(own.begin(), own.end(), note), own.end());
        own.push_back(
            {"lay.flaw", Severity::note, Step::lay,
             say("{} knots, pockets and the like lie in the top: cut clear, fill, or keep as character.", count(static_cast<double>(n))),
             first.at});
    }

    void joint_cautions(const JointPlan& j) {
        if (j.worst_mm > clean_mm)
            add("lay.joint", Severity::stop,
                say("Joint {} runs through bark or wane over {}, {} deep at {}. Move it in, or slide a leaf.",
                    count(static_cast<double>(j.left)), mm(j.lacking_mm), mm(j.worst_mm), along(j.worst_u_mm + hl_)),
                {j.worst_u_mm, j.along[j.along.size() / 2].v});
        const auto set = joints_of(in_.choices, n_, in_.top.width_mm)[j.right];
        if (set.curved) {
            std::vector<Vec2> line;
            for (const JointStation& s : j.along) line.push_back({s.u, s.v});
            const double r = least_radius(line);
            if (r < in_.choices.least_radius_mm * 0.98)
                add("lay.curve", Severity::watch,
                    say("The curved joint turns to a radius of {}; {} was asked for. Ask for a wider curve or move the leaves.", mm(r),
                        mm(in_.choices.least_radius_mm)),
                    {0, j.along[j.along.size() / 2].v});
        }
        flaws_on_joint(j);
    }

    /// What lies across a joint would show or not hold there.
    void flaws_on_joint(const JointPlan& j) {
        for (const std::size_t i : {j.right, j.left}) {
            const LeafIn& in = in_.leaves[i];
            const Frame f = in.placement.frame();
            for (const FlawInside& fl : leaf(i).lay.flaws) {
                const Flaw& flaw = in.slab.flaws[fl.index];
                if (flaw.kind == FlawKind::insects || flaw.kind == FlawKind::scar) continue;
                const Ring uv = f.from_slab(flaw.outline);
                for (const JointStation& s : j.along) {
                    const auto cut = cut_at_x(uv, s.u);
                    if (cut.empty() || cut.front().from > s.v + 4 || cut.back().to < s.v - 4) continue;
                    const bool weak = flaw.kind == FlawKind::soft || flaw.kind == FlawKind::pocket || flaw.kind == FlawKind::void_;
                    add("lay.joint_flaw", weak ? Severity::watch : Severity::note,
                        say(in.slab.name + ": a " + name_of(flaw.kind) + " lies on the joint at {}. " +
                                (weak ? "Glue does not hold there: move the line past it." : "It will be cut through."),
                            along(s.u + hl_)),
                        {s.u, s.v});
                    break;
                }
            }
        }
    }

    void river_cautions(const JointPlan& j) {
        if (j.along.empty()) return;
        const Vec2 at{j.narrowest_u_mm, j.along[j.along.size() / 2].v};
        if (j.narrowest_mm < 0)
            add("lay.overlap", Severity::stop,
                say("The leaves overlap by {} at {}. Draw them apart.", mm(-j.narrowest_mm), along(j.narrowest_u_mm + hl_)), at);
        else if (in_.choices.kind == MakeUp::river && j.narrowest_mm < 8)
            add("lay.river_thin", Severity::watch,
                say("The river is only {} wide at {}: resin cracks or does not run in there. Draw the leaves apart, or turn one.",
                    mm(j.narrowest_mm), along(j.narrowest_u_mm + hl_)),
                at);
        if (j.mean_mm > in_.top.width_mm)
            add("lay.river_wide", Severity::stop, say("The river is {} wide, more than the top's {}.", mm(j.mean_mm), mm(in_.top.width_mm)),
                at);
        if (j.narrowest_mm > 0 && j.widest_mm > 2.5 * j.narrowest_mm)
            add("lay.river_uneven", Severity::note,
                say("The river runs from {} to {}. “Even the river” slides and turns the banks.", mm(j.narrowest_mm), mm(j.widest_mm)), at);
        if (in_.choices.kind == MakeUp::open_river) {
            for (const std::size_t i : {j.right, j.left}) {
                double least = 1e300;
                double u = 0;
                for (const Rod& r : j.rods)
                    if (const auto w = wood_at(leaf(i), r.u_mm, true); w && w->to - w->from < least) least = w->to - w->from, u = r.u_mm;
                if (least < in_.choices.rod_depth_mm + 25)
                    add("lay.rod_deep", Severity::stop,
                        say("A rod {} deep leaves {} of wood at {}. Drill shallower, or move the rods.", mm(in_.choices.rod_depth_mm),
                            mm(std::max(0.0, least - in_.choices.rod_depth_mm)), along(u + hl_)),
                        {u, 0});
            }
            if (in_.choices.rod_mm > in_.top.thickness_mm / 2)
                add("lay.rod_thick", Severity::watch,
                    say("Rods of {} take more than half of the {} there is.", fine(in_.choices.rod_mm), fine(in_.top.thickness_mm)), at);
            add("lay.rods", Severity::note,
                say("Drill every rod parallel to the others, square to the joint: rods that follow the bends keep the leaves apart. "
                    "Polish them before assembly."),
                at);
        }
    }

    /// Leaves of two trees, the same wood twice, a retired slab, a leaf outside.
    void same_wood() {
        for (std::size_t i = 0; i < n_; ++i) {
            const Slab& a = in_.leaves[i].slab;
            const Vec2 mid = leaf(i).part.empty() ? Vec2{0, 0} : centroid(leaf(i).part);
            if (leaf(i).part.empty() || area(leaf(i).part) < 0.02 * area(shape_) / static_cast<double>(n_))
                add("lay.leaf_out", Severity::stop, say(a.name + " does not lie in the top. Drag it in, or take it off the job."), mid);
            if (a.retired)
                add("lay.retired", Severity::watch, say(a.name + " is retired from the rack. Choose another, or bring it back."), mid);
            for (std::size_t k = 0; k < i; ++k) {
                const Slab& b = in_.leaves[k].slab;
                if (!a.id.empty() && a.id == b.id && same_place(i, k))
                    add("lay.twice", Severity::stop, say(a.name + " is used twice: the same wood can't lie in two places."), mid);
                if (a.tree != b.tree || a.species != b.species) {
                    if (i != k + 1) continue;
                    add("lay.trees", Severity::watch,
                        say(a.name + " and " + b.name +
                            " are not of one tree: colour varies more inside a wood than the eye forgives at a joint."),
                        mid);
                }
            }
        }
    }

    bool same_place(std::size_t i, std::size_t k) const {
        Ring a = leaf(i).lay.outline;
        const Ring& b = leaf(k).lay.outline;
        if (a.empty() || b.empty()) return false;
        if (in_.leaves[i].placement.turned_over != in_.leaves[k].placement.turned_over)
            for (Vec2& p : a) p.y = -p.y;
        return intersection_area(a, b) > 100;
    }

    void rip_order() {
        const MakeUpChoices& c = in_.choices;
        if (rivers()) return;
        if (c.ripped && !c.faces_flat)
            add("lay.rip_order", Severity::stop,
                say("The joints are marked as ripped before both faces are flat: the edges will not meet. Flatten both faces, then rip "
                    "again, "
                    "{} or so further in.",
                    mm(3)),
                {0, 0});
        else if (!c.faces_flat)
            add("lay.rip_after", Severity::note, say("Rip the joints after both faces are flat, never before: planing moves the edges."),
                {0, 0});
    }

    void choices() {
        Choice c{"lay.live", "Live edges that stay", {}};
        for (const LiveOption& option : live_options) {
            double narrow = 1e300;
            double wide = 0;
            double lack = 0;
            for (const double u : stations(40)) {
                const auto r = wood_at(leaf(0), u, false);
                const auto l = wood_at(leaf(n_ - 1), u, false);
                if (!r || !l) continue;
                const double low = right_live(option.live) ? r->from : -hw_;
                const double high = left_live(option.live) ? l->to : hw_;
                narrow = std::min(narrow, high - low);
                wide = std::max(wide, high - low);
                lack = std::max({lack, in_.top.width_mm - (high - low), r->from - low, high - l->to});
            }
            c.options.push_back({option.key, option.label,
                                 lack > 0.05 ? say("short by {}", mm(lack)) : say("{} to {} wide", mm(narrow), mm(wide)),
                                 in_.top.live == option.live});
        }
        lay().choices.push_back(c);
    }

    const MakeUpInputs& in_;
    std::size_t n_;
    double hl_, hw_;
    Ring shape_;
    /// Show face and underside of each leaf at the stations of joints and of the outline.
    std::vector<std::pair<EdgeProfile, EdgeProfile>> joint_edges_, outer_edges_;
    LaidTogether out_;
};

}  // namespace

LaidTogether plan_makeup(const MakeUpInputs& in) { return Planner(in).run(); }

}  // namespace yb
