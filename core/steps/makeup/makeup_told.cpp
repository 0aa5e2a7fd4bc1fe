#include "core/steps/makeup/makeup_told.h"

#include <algorithm>
#include <cmath>

#include "core/ground/figure/place.h"
#include "core/steps/lay/taper.h"
#include "core/steps/makeup/curve.h"

#include "core/ground/figure/choice.h"

namespace yb {

namespace {

class Teller {
  public:
    Teller(const MakeUpInputs& in, LaidTogether& laid)
        : in_(in), out_(laid), n_(in.leaves.size()), hl_(in.top.length_mm / 2), hw_(in.top.width_mm / 2), shape_(outline_of(in.top)) {}

    void run() {
        figures();
        cautions();
        if (!in_.quick) choices();
        sort_by_severity(lay().cautions);
    }

  private:
    LayPlan& lay() { return out_.lay; }
    bool rivers() const { return is_river(in_.choices.kind); }
    const LeafPart& leaf(std::size_t i) const { return out_.plan.leaves[i]; }

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
                 {"left edge − right edge across the top, at every corner of both edges",
                  {{"wanted", mm(t.width_mm), "wanted top"}, {"narrowest", mm(p.narrowest_mm), edges}},
                  "places are told from the top's left end"}});
        else
            p.figures.push_back({"lay.fit",
                                 "Short by",
                                 mm(p.short_at.front().mm),
                                 {},
                                 say("at {}, {}", along(p.short_at.front().uv.x + hl_), name_of(p.short_at.front().side)),
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
        if (!rivers()) rip_figure();
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
                                 out_.plan.joints.size() > 1 ? say("{}, both leaves of each",
                                                                   counted(static_cast<double>(out_.plan.joints.size()), "joint", "joints"))
                                                             : say("both leaves, show face"),
                                 {"mean of show-face edge − joint line, at 73 stations", given, ""}});
    }

    void add(std::string key, Severity s, Phrase says, Vec2 at) {
        lay().cautions.push_back({std::move(key), s, step_key::lay, std::move(says), at});
    }

    void cautions() {
        LayPlan& p = lay();
        for (const Shortfall& s : p.short_at)
            add("lay.short", Severity::stop,
                say("Short by {} at {}, {}. Move the leaves, or make the top smaller.", mm(s.mm), along(s.uv.x + hl_), name_of(s.side)),
                s.uv);
        for (const JointPlan& j : out_.plan.joints) {
            if (j.outside_mm >= 0.05)
                add("lay.joint_out", Severity::stop,
                    say("Joint {} runs outside the top by {} at {}: nothing of a leaf is left there. Drag the joint in.",
                        count(static_cast<double>(j.right) + 1), mm(j.outside_mm), along(j.outside_u_mm + hl_)),
                    {j.outside_u_mm, std::clamp(j.along.empty() ? 0.0 : j.along.front().v, -in_.top.width_mm / 2, in_.top.width_mm / 2)});
            else if (!j.river) joint_cautions(j);
        }
        const double taper = std::abs(p.width_left_mm - p.width_right_mm);
        if (in_.top.shape == TopShape::rectangle && taper_shows(taper, in_.top.width_mm) && in_.top.live != LiveEdges::none)
            add("lay.taper", Severity::watch,
                say("The two ends differ in width by {}. A wedge of that off the wide end, nothing at the other, evens them at {} wide; or "
                    "swap an outer leaf end for end.",
                    mm(taper), mm(std::min(p.width_left_mm, p.width_right_mm))),
                {p.width_left_mm > p.width_right_mm ? -hl_ : hl_, 0});
        same_wood();
        for (std::size_t i = 0; i < n_; ++i) {
            const LeafIn& in = in_.leaves[i];
            std::vector<Caution> own;
            flaw_cautions(in.slab, in.shape, leaf(i).lay.flaws, in.placement.frame(), in_.top, own);
            pith_caution(in.slab, in.shape, leaf(i).lay.outline, own);
            told_together(own);
            for (Caution& c : own) {
                c.of = in.slab.name;
                if (c.at) show_at(c, in.placement.frame().from_slab(*c.at));
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
        own.push_back({"lay.flaw", Severity::note, step_key::lay,
                       say("{} lie in the top, knots, pockets and the like: cut clear, fill, or keep as character.",
                           counted(static_cast<double>(n), "flaw", "flaws")),
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
                        say(weak ? "At {} the joint runs over {}. Glue does not hold there: move the line past it."
                                 : "At {} the joint runs over {} and cuts through.",
                            along(s.u + hl_), a_flaw(flaw.kind)),
                        {s.u, s.v});
                    lay().cautions.back().of = in.slab.name;
                    break;
                }
            }
        }
    }

    /// Leaves of two trees, the same wood twice, a retired slab, a leaf outside.
    void same_wood() {
        for (std::size_t i = 0; i < n_; ++i) {
            const Slab& a = in_.leaves[i].slab;
            const Vec2 mid = leaf(i).part.empty() ? Vec2{0, 0} : centroid(leaf(i).part);
            const bool joint_out = std::any_of(out_.plan.joints.begin(), out_.plan.joints.end(), [&](const JointPlan& j) {
                return j.outside_mm >= 0.05 && (j.right == i || j.left == i);  // told there
            });
            if (!joint_out && (leaf(i).part.empty() || area(leaf(i).part) < 0.02 * area(shape_) / static_cast<double>(n_)))
                add("lay.leaf_out", Severity::stop, say("{} does not lie in the top. Drag it in, or take it off the job.", a.name), mid);
            if (a.retired)
                add("lay.retired", Severity::watch, say("{} is retired from the rack. Choose another, or bring it back.", a.name), mid);
            for (std::size_t k = 0; k < i; ++k) {
                const Slab& b = in_.leaves[k].slab;
                if (!a.id.empty() && a.id == b.id && same_place(i, k))
                    add("lay.twice", Severity::stop, say("{} is used twice: the same wood can't lie in two places.", a.name), mid);
                if (a.tree != b.tree || a.species != b.species) {
                    if (i != k + 1) continue;
                    add("lay.trees", Severity::watch,
                        say("{} and {} are not of one tree: colour varies more inside a wood than the eye forgives at a joint.", a.name,
                            b.name),
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
        if (!c.ripped)
            add("lay.kickback", Severity::note,
                say("At the rip: riving knife in, the true edge to the fence, push sticks, and never in line with the blade – a slab that "
                    "pinches is thrown back. Long ones take two, or a guided saw on the slab that lies."),
                {0, 0});
        if (!c.ripped && !c.faces_flat)
            add("lay.rip_after", Severity::note, say("Rip the joints after both faces are flat, never before: planing moves the edges."),
                {0, 0});
    }

    void choices() {
        std::vector<Phrase> says;
        for (const LiveEdges live : live_edges.values) {
            double narrow = 1e300;
            double wide = 0;
            double lack = 0;
            for (int i = 0; i <= 40; ++i) {
                const double u = (-hl_ + 2 * hl_ * i / 40) * (1 - 1e-9);
                const auto r = wood_at(leaf(0), u, false);
                const auto l = wood_at(leaf(n_ - 1), u, false);
                if (!r || !l) continue;
                const double low = right_live(live) ? r->from : -hw_;
                const double high = left_live(live) ? l->to : hw_;
                narrow = std::min(narrow, high - low);
                wide = std::max(wide, high - low);
                lack = std::max({lack, in_.top.width_mm - (high - low), r->from - low, high - l->to});
            }
            says.push_back(lack > 0.05                              ? say("short by {}", mm(lack))
                           : std::round(narrow) == std::round(wide) ? say("{} wide", mm(wide))
                                                                    : say("{} to {} wide", mm(narrow), mm(wide)));
        }
        lay().choices.push_back(choice_of(live_edges, in_.top, std::move(says)));
    }

    const MakeUpInputs& in_;
    LaidTogether& out_;
    std::size_t n_;
    double hl_, hw_;
    Ring shape_;
};

}  // namespace

void tell_makeup(const MakeUpInputs& in, LaidTogether& laid) { Teller(in, laid).run(); }

namespace {

Figure joint_rods(const JointPlan& j, const MakeUpChoices& c) {
    double longest = 0;
    for (const Rod& r : j.rods) longest = std::max(longest, r.length_mm);
    return {"joint.rods",
            "Rods",
            count(static_cast<double>(j.rods.size())),
            {},
            say("the longest {}", mm(longest)),
            {"gap half-way down + twice the depth", {{"depth", mm(c.rod_depth_mm), "set in Lay"}}, "docs/methods.md, Rivers"}};
}

std::vector<Figure> river_figures(const JointPlan& j, const MakeUpChoices& c, double half) {
    std::vector<Figure> out{
        {"joint.narrowest",
         "Narrowest, above and below",
         mm(j.above.narrowest_mm),
         mm(j.below.narrowest_mm),
         say("at {}", along(j.above.narrowest_x + half)),
         {"bank to bank at every corner of both", {{"wanted", mm(c.river_mm), "set in Lay"}}, "docs/methods.md, Rivers"}},
        {"joint.widest",
         "Widest, above and below",
         mm(j.above.widest_mm),
         mm(j.below.widest_mm),
         say("at {}", along(j.above.widest_x + half)),
         {"bank to bank at every corner of both", {}, "docs/methods.md, Rivers"}},
        {"joint.mean", "Mean width above", mm(j.above.mean_mm), {}, {}, {"area between the banks / length", {}, ""}},
        {"joint.water", "Area half-way down", square_metres(j.area_mm2 * 1e-6), {}, {}, {"between the banks", {}, ""}}};
    if (!j.rods.empty()) out.push_back(joint_rods(j, c));
    return out;
}

std::vector<Figure> rip_figures(const JointPlan& j, double half, const std::optional<double>& drift) {
    std::vector<Figure> out{
        {"joint.lacks",
         j.worst_mm > 0 ? "It lacks" : "Wood to spare",
         mm(std::abs(j.worst_mm)),
         {},
         j.worst_mm > 0 ? say("at {}; {} of it is not clean", along(j.worst_u_mm + half), mm(j.lacking_mm)) : say("clean all along"),
         {"the rip line against the edges of both leaves, both faces", {}, "docs/methods.md, Make-ups"}},
        {"joint.given",
         "The rip takes, right and left",
         mm(j.given_right_mm),
         mm(j.given_left_mm),
         say("of width, on the show face"),
         {"mean distance from the line to the leaf's own edge", {}, ""}}};
    if (drift)
        out.push_back({"joint.drift",
                       "Figure drifts at worst",
                       fine(*drift),
                       {},
                       say("from one leaf to the other"),
                       {"how far knots, rings and taper part along the seam", {}, "docs/methods.md, Likeness"}});
    return out;
}

}  // namespace

std::vector<Thing> joint_things(const MakeUpPlan& plan, const MakeUpChoices& c, const Frame& to_bench,
                                const std::vector<std::optional<double>>& drift) {
    std::vector<Thing> out;
    const double half = plan.top.length_mm / 2;
    const auto nth = [](std::size_t i) { return count(static_cast<double>(i) + 1); };
    for (std::size_t k = 0; k < plan.joints.size(); ++k) {
        const JointPlan& j = plan.joints[k];
        Thing t{"joint " + std::to_string(k + 1), j.river ? "river" : "joint", k,
                j.river ? say("River {}, leaf {} to {}", nth(k), nth(j.right), nth(j.left))
                        : say("Joint {}, leaf {} to {}", nth(k), nth(j.right), nth(j.left))};
        if (j.river) {
            t.area = to_bench.to_slab(j.water);
        } else {
            Ring band;
            for (const JointStation& s : j.along) band.push_back({s.u, s.v - 8});
            for (auto s = j.along.rbegin(); s != j.along.rend(); ++s) band.push_back({s->u, s->v + 8});
            t.area = to_bench.to_slab(band);
        }
        t.figures = j.river ? river_figures(j, c, half) : rip_figures(j, half, k < drift.size() ? drift[k] : std::nullopt);
        out.push_back(std::move(t));
    }
    for (std::size_t i = 0; i < c.patches.size(); ++i) {
        const Patch& patch = c.patches[i];
        Thing t{"patch " + std::to_string(i + 1), "patch", i, say("Patch {}", nth(i))};
        t.area = to_bench.to_slab(patch.outline);
        const Box box = bounds(patch.outline);
        t.figures = {{"patch.size", "Along and across", mm(box.width()), mm(box.height()), {}, {"as drawn", {}, "the maker's"}},
                     {"patch.depth", "Let in", fine(patch.depth_mm), {}, {}, {"as set", {}, "the maker's"}},
                     {"patch.turned", "Grain turned", degrees(patch.turn_deg), {}, {}, {"against the top's length", {}, "the maker's"}}};
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
