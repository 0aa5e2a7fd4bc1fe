#include "core/steps/lay/lay.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <tuple>

#include "core/ground/figure/choice.h"
#include "core/steps/lay/taper.h"

namespace yb {

const char* name_of(Side side) {
    static constexpr std::array names{"left", "right", "width", "left end", "right end"};
    return names.at(static_cast<std::size_t>(side));
}

Ring outline_of(const WantedTop& top) {
    const double a = top.length_mm / 2;
    const double b = top.width_mm / 2;
    if (top.shape == TopShape::rectangle || (top.shape == TopShape::free && top.free_form.size() < 3))
        return {{-a, -b}, {a, -b}, {a, b}, {-a, b}};
    Ring out;
    if (top.shape == TopShape::free) {
        const Box box = bounds(top.free_form);
        const Vec2 middle = (box.low + box.high) * 0.5;
        const double ku = top.length_mm / std::max(1e-6, box.width());
        const double kv = top.width_mm / std::max(1e-6, box.height());
        for (const Vec2 p : top.free_form) out.push_back({(p.x - middle.x) * ku, (p.y - middle.y) * kv});
        if (signed_area(out) < 0) std::reverse(out.begin(), out.end());
        return out;
    }
    constexpr int n = 120;
    for (int i = 0; i < n; ++i) {
        const double t = 2 * std::numbers::pi * i / n;
        out.push_back({a * std::cos(t), b * std::sin(t)});
    }
    return out;
}

namespace {

Ring rectangle(double u0, double u1, double v0, double v1) { return {{u0, v0}, {u1, v0}, {u1, v1}, {u0, v1}}; }

/// Extent of a ring across at u: the stretch that holds the top's middle line, or the widest one.
std::optional<Span1> reach_at(const Ring& ring, double u) {
    const auto cuts = cut_at_x(ring, u);
    if (cuts.empty()) return {};
    for (const Span1 s : cuts)
        if (s.from <= 0 && s.to >= 0) return s;
    return *std::max_element(cuts.begin(), cuts.end(), [](Span1 a, Span1 b) { return a.to - a.from < b.to - b.from; });
}

/// How the top lies at one station u: what is there to the left and right, and what is missing.
struct AtStation {
    double u = 0, left = 0, right = 0;       ///< edges of the finished top (v)
    double short_left = 0, short_right = 0;  ///< wood missing at each side, mm
};

class Fit {
  public:
    Fit(const SlabShape& shape, const WantedTop& top, const Frame& frame) : top_(top) {
        a_ = frame.from_slab(shape.ring_a);
        b_ = frame.from_slab(shape.ring_b);
        if (top.shape != TopShape::rectangle) wanted_ = outline_of(top);
        Ring swapped = a_;
        for (Vec2& p : swapped) std::swap(p.x, p.y);
        const auto cuts = cut_at_x(swapped, 0);
        if (!cuts.empty()) reach_ = {cuts.front().from, cuts.back().to};
        for (const double u : stations()) cuts_.push_back(cut(u));
    }

    /// The same place with other edges kept: the slab's own edges are not looked up again.
    Fit keeping(LiveEdges live) const {
        Fit f = *this;
        f.top_.live = live;
        return f;
    }

    const Ring& show() const { return a_; }
    const Ring& under() const { return b_; }

    /// Stations at which a piecewise linear outline can have its extremes: ends and every vertex between.
    std::vector<double> stations() const {
        const double half = top_.length_mm / 2;
        std::vector<double> us{-half, half};
        for (const Ring* r : {&a_, &b_, &wanted_})
            for (const Vec2 p : *r)
                if (std::abs(p.x) < half) us.push_back(p.x);
        std::sort(us.begin(), us.end());
        us.erase(std::unique(us.begin(), us.end(), [](double x, double y) { return y - x < 1e-6; }), us.end());
        return us;
    }

    /// The top at every station, in rising order.
    std::vector<AtStation> profile() const {
        std::vector<AtStation> out;
        for (const Cut& c : cuts_) out.push_back(at(c));
        return out;
    }

    AtStation at(double u) const { return at(cut(u)); }

  private:
    /// The slab's edges on both faces at one station.
    struct Cut {
        double u = 0;
        std::optional<Span1> show, under;
        Span1 want;  ///< the wanted outline there
    };

    /// The wanted outline at a station.
    Span1 wanted_at(double u) const {
        if (wanted_.empty()) return {-top_.width_mm / 2, top_.width_mm / 2};
        const auto cuts = cut_at_x(wanted_, nudge(u));
        return cuts.empty() ? Span1{0, 0} : Span1{cuts.front().from, cuts.back().to};
    }

    Cut cut(double u) const { return {u, reach_at(a_, nudge(u)), reach_at(b_, nudge(u)), wanted_at(u)}; }

    AtStation at(const Cut& c) const {
        const auto& [u, show, under, want] = c;
        // Past the slab's end there is no side to be short at: short_ends() says how far it stands out.
        if (!show || !under || u < reach_.from || u > reach_.to) return {u, want.to, want.from, 0, 0};
        // A sawn edge needs wood on both faces; a live edge ends where the show face ends.
        const double left_wood = std::min(show->to, under->to);
        const double right_wood = std::max(show->from, under->from);
        AtStation s{u, want.to, want.from, 0, 0};
        if (!wanted_.empty()) {
            // On a round or free rim a kept edge is a run of live edge where the slab falls short of the outline.
            (left_live(top_.live) ? s.left : s.short_left) =
                left_live(top_.live) ? std::min(want.to, show->to) : std::max(0.0, want.to - left_wood);
            (right_live(top_.live) ? s.right : s.short_right) =
                right_live(top_.live) ? std::max(want.from, show->from) : std::max(0.0, right_wood - want.from);
            return s;
        }
        if (left_live(top_.live)) s.left = show->to;
        else s.short_left = std::max(0.0, want.to - left_wood);
        if (right_live(top_.live)) s.right = show->from;
        else s.short_right = std::max(0.0, right_wood - want.from);
        const double lack = top_.width_mm - (s.left - s.right);
        if (lack > 1e-9) {
            if (left_live(top_.live) && right_live(top_.live)) s.short_left = s.short_right = lack / 2;
            else if (left_live(top_.live)) s.short_left = lack;
            else if (right_live(top_.live)) s.short_right = lack;
        }
        return s;
    }

  public:
    /// How far the ends of the top stand past the slab along its middle line, at left and right end.
    std::array<double, 2> short_ends() const {
        const double half = top_.length_mm / 2;
        return {std::max(0.0, reach_.from + half), std::max(0.0, half - reach_.to)};
    }

    double total_lack() const {
        double worst = 0;
        for (const AtStation& s : profile()) {
            worst = std::max({worst, s.short_left, s.short_right});
        }
        const auto ends = short_ends();
        return std::max({worst, ends[0], ends[1]});
    }

  private:
    /// A hair inwards at the ends, so that a cut exactly on the slab's end still meets it.
    double nudge(double u) const { return u * (1 - 1e-9); }

    WantedTop top_;
    Ring a_, b_;
    Ring wanted_;  ///< empty for a rectangle
    std::vector<Cut> cuts_;
    Span1 reach_;  ///< of the slab along the top's middle line
};

class Planner {
  public:
    explicit Planner(const LayInputs& in) : in_(in), frame_(in.placement.frame()), fit_(in.shape, in.top, frame_) {}

    LayPlan run() {
        if (!in_.shape.usable) return p_;
        p_.ready = true;
        outline();
        widths();
        cuts();
        flaws();
        figures();
        cautions();
        choices();
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    Ring on_slab(const Ring& uv) const { return frame_.to_slab(uv); }

    void outline() {
        const double hl = in_.top.length_mm / 2;
        const double hw = in_.top.width_mm / 2;
        p_.rectangle = on_slab(outline_of(in_.top));
        if (in_.top.shape != TopShape::rectangle && in_.top.live != LiveEdges::none) {
            p_.outline = largest(intersection(p_.rectangle, in_.shape.ring_a));
            p_.region = p_.rectangle;
            if (p_.outline.empty()) p_.outline = p_.rectangle;
            return;
        }
        if (in_.top.live == LiveEdges::none) {
            p_.outline = p_.region = p_.rectangle;
            return;
        }
        constexpr double far = 1e5;
        const Ring strip = rectangle(-hl, hl, right_live(in_.top.live) ? -far : -hw, left_live(in_.top.live) ? far : hw);
        p_.region = on_slab(strip);
        p_.outline = on_slab(largest(intersection(strip, fit_.show())));
        if (p_.outline.empty()) p_.outline = p_.rectangle;
    }

    void widths() {
        Shortfall left{0, {}, {}, Side::left};
        Shortfall right{0, {}, {}, Side::right};
        p_.narrowest_mm = 1e300;
        for (const AtStation& s : fit_.profile()) {
            const double u = s.u;
            const double w = s.left - s.right;
            if (w < p_.narrowest_mm) p_.narrowest_mm = w, p_.narrowest_u_mm = u;
            p_.widest_mm = std::max(p_.widest_mm, w);
            if (s.short_left > left.mm) left.mm = s.short_left, left.uv = {u, s.left};
            if (s.short_right > right.mm) right.mm = s.short_right, right.uv = {u, s.right};
        }
        if (in_.top.shape != TopShape::rectangle) p_.narrowest_mm = p_.widest_mm, p_.narrowest_u_mm = 0;
        const double hl = in_.top.length_mm / 2;
        const auto width_at = [&](double u) { return fit_.at(u).left - fit_.at(u).right; };
        p_.width_left_mm = width_at(-hl);
        p_.width_right_mm = width_at(hl);
        const auto ends = fit_.short_ends();
        Shortfall left_end{ends[0], {}, {-hl, 0}, Side::left_end};
        Shortfall right_end{ends[1], {}, {hl, 0}, Side::right_end};
        for (Shortfall s : {left, right, left_end, right_end}) {
            if (s.mm < 0.05) continue;
            s.at = frame_.to_slab(s.uv);
            p_.short_at.push_back(s);
        }
        std::stable_sort(p_.short_at.begin(), p_.short_at.end(), [](const Shortfall& a, const Shortfall& b) { return a.mm > b.mm; });
        p_.fits = p_.short_at.empty();
    }

    void cuts() {
        const BlankCuts cuts = blank_cuts(fit_.show(), fit_.under(), in_.top.length_mm / 2, in_.placement);
        p_.finish_cuts = cuts.finish;
        p_.rough_cuts = cuts.rough;
        p_.rough_length_mm = cuts.length_mm;
        p_.rough = on_slab(cuts.outline);
    }

    void flaws() { p_.flaws = flaws_inside(in_.slab, p_.outline); }

    static double station(Vec2 p) { return p.x; }

    void figures() {
        const auto& t = in_.top;
        const std::string edges = "tape, edges as a monotone cubic";
        if (p_.fits && t.shape != TopShape::rectangle) {
            const double clear = clearance();
            p_.figures.push_back({"lay.fit",
                                  clear > 0 ? "It fits: clear of the bark by" : "It fits, live edge on the rim",
                                  mm(clear),
                                  {},
                                  say("{} by {}", mm(t.length_mm), mm(t.width_mm)),
                                  {"least distance from the wanted outline to the edge of either face",
                                   {{"long", mm(t.length_mm), "wanted top"}, {"wide", mm(t.width_mm), "wanted top"}},
                                   "at every point of the outline"}});
        } else if (p_.fits) {
            const double slack = p_.narrowest_mm - t.width_mm;
            p_.figures.push_back(
                {"lay.fit",
                 "It fits: narrowest",
                 mm(p_.narrowest_mm),
                 {},
                 say("{} to spare at {}", mm(std::max(0.0, slack)), along(station(frame_.to_slab({p_.narrowest_u_mm, 0})))),
                 {"left edge − right edge across the top, at every vertex of the outline",
                  {{"wanted", mm(t.width_mm), "wanted top"}, {"narrowest", mm(p_.narrowest_mm), edges}},
                  "exact for the polygon"}});
        } else {
            const Shortfall& s = p_.short_at.front();
            p_.figures.push_back({"lay.fit",
                                  "Short by",
                                  mm(s.mm),
                                  {},
                                  say("at {}, {}", along(station(s.at)), name_of(s.side)),
                                  {"wanted width or length − wood there, both faces for a sawn edge",
                                   {{"wanted width", mm(t.width_mm), "wanted top"},
                                    {"wanted length", mm(t.length_mm), "wanted top"},
                                    {"narrowest", mm(p_.narrowest_mm), edges}},
                                   "exact for the polygon"}});
        }
        if (in_.top.shape != TopShape::rectangle) rim_figure();
        else
            p_.figures.push_back({"lay.ends",
                                  "Finished width, both ends",
                                  mm(p_.width_left_mm),
                                  mm(p_.width_right_mm),
                                  say("differ by {}", mm(std::abs(p_.width_left_mm - p_.width_right_mm))),
                                  {"left edge − right edge at the two end cuts",
                                   {{"left end", mm(p_.width_left_mm), edges}, {"right end", mm(p_.width_right_mm), edges}},
                                   "measured across the top"}});
        p_.figures.push_back(
            {"lay.rough",
             "Rough-cut length",
             mm(p_.rough_length_mm),
             {},
             say("{} over at each end", mm(in_.placement.oversize_mm)),
             {"wanted length + oversize at both ends, within the slab",
              {{"wanted length", mm(t.length_mm), "wanted top"}, {"oversize", mm(in_.placement.oversize_mm), "the maker's"}},
              ""}});
        double inside = 0;
        for (const FlawInside& f : p_.flaws) inside += f.area_mm2;
        p_.figures.push_back(
            {"lay.flaws",
             "Flaws inside",
             count(static_cast<double>(p_.flaws.size())),
             {},
             p_.flaws.empty() ? say("none drawn") : say("{} of the top", percent(100 * inside / area(p_.outline))),
             {"area of each drawn flaw that lies inside the outline",
              {{"flaws", square_metres(inside * 1e-6), "drawn"}, {"top", square_metres(area(p_.outline) * 1e-6), "outline"}},
              "polygon overlay"}});
    }

    /// Least distance from the wanted outline to the edge of either face; 0 where it runs over one.
    double clearance() const {
        double least = 1e300;  // squared
        for (const Vec2 p : p_.rectangle)
            for (const Ring* ring : {&in_.shape.ring_a, &in_.shape.ring_b}) {
                if (!contains(*ring, p)) return 0;
                for (std::size_t i = 0; i < ring->size(); ++i) {
                    const Vec2 a = (*ring)[i];
                    const Vec2 b = (*ring)[(i + 1) % ring->size()];
                    // No nearer than its box is: most sides are left out by that.
                    const double dx = std::max({std::min(a.x, b.x) - p.x, p.x - std::max(a.x, b.x), 0.0});
                    const double dy = std::max({std::min(a.y, b.y) - p.y, p.y - std::max(a.y, b.y), 0.0});
                    if (dx * dx + dy * dy >= least) continue;
                    const double t = std::clamp(dot(p - a, b - a) / std::max(1e-12, dot(b - a, b - a)), 0.0, 1.0);
                    const Vec2 off = p - lerp(a, b, t);
                    least = std::min(least, dot(off, off));
                }
            }
        return std::sqrt(least);
    }

    /// On a round, oval or free rim: how much of it is live edge, and how deep the deepest run.
    void rim_figure() {
        double run = 0;
        double deepest = 0;
        double girth = 0;
        const Ring& r = p_.rectangle;
        constexpr int parts = 8;
        for (std::size_t i = 0; i < r.size(); ++i) {
            const Vec2 a = r[i];
            const Vec2 b = r[(i + 1) % r.size()];
            const double step = length(b - a) / parts;
            girth += step * parts;
            for (int k = 0; k < parts; ++k) {
                const Vec2 p = lerp(a, b, (k + 0.5) / parts);
                if (contains(in_.shape.ring_a, p)) continue;
                run += step;
                double off = 1e300;
                for (const Vec2 q : p_.outline) off = std::min(off, length(q - p));
                deepest = std::max(deepest, off);
            }
        }
        rim_live_mm_ = run;
        p_.figures.push_back(
            {"lay.rim",
             "Live edge on the rim",
             mm(run),
             {},
             run > 0 ? say("of {} around, up to {} deep", mm(girth), mm(deepest)) : say("the rim clears the bark all round"),
             {"length of the wanted outline that lies outside face A",
              {{"around", mm(girth), "wanted top"}, {"deepest", mm(deepest), "outline of face A"}},
              "every eighth of a side of the outline"}});
    }

    void add(std::string key, Severity s, Phrase says, Vec2 at) {
        p_.cautions.push_back({std::move(key), s, step_key::lay, std::move(says), at});
    }

    void cautions() {
        for (const Shortfall& s : p_.short_at)
            add("lay.short", Severity::stop,
                say("Short by {} at {}, {}. Move or turn the top, or make it smaller.", mm(s.mm), along(station(s.at)), name_of(s.side)),
                s.at);
        const double taper = std::abs(p_.width_left_mm - p_.width_right_mm);
        if (in_.top.shape == TopShape::rectangle && taper_shows(taper, in_.top.width_mm) && in_.top.live != LiveEdges::none)
            add("lay.taper", Severity::watch,
                say("The two ends differ in width by {}. It shows at once; a wedge of that off the wide end, nothing at the other, evens "
                    "them at {} wide, or turn the top.",
                    mm(taper), mm(std::min(p_.width_left_mm, p_.width_right_mm))),
                frame_.to_slab({p_.width_left_mm > p_.width_right_mm ? -in_.top.length_mm / 2 : in_.top.length_mm / 2, 0}));
        flaw_cautions(in_.slab, in_.shape, p_.flaws, frame_, in_.top, p_.cautions);
        pith_caution(in_.slab, in_.shape, p_.outline, p_.cautions);
        live_edge_notes();
    }

    void live_edge_notes() {
        if (in_.top.live == LiveEdges::none) return;
        if (in_.top.shape != TopShape::rectangle && rim_live_mm_ <= 0) return;
        add("lay.bark", Severity::note, say("Bark left on a live edge falls off later: take it off now, or know it is a risk."),
            frame_.to_slab({0, fit_.at(0).left}));
        slant();
    }

    /// How the live edges that stay slant with this face up: the wide face up makes a chamfer by itself.
    void slant() {
        double sum = 0;
        double n = 0;
        const double hl = in_.top.length_mm / 2;
        for (int i = 1; i < 40; ++i) {
            const double u = hl * (i / 20.0 - 1);
            const auto show = cut_at_x(fit_.show(), u);
            const auto under = cut_at_x(fit_.under(), u);
            if (show.empty() || under.empty()) continue;
            if (left_live(in_.top.live)) sum += show.back().to - under.back().to, ++n;
            if (right_live(in_.top.live)) sum += under.front().from - show.front().from, ++n;
        }
        constexpr double shows_mm = 6;  // a starting value
        if (n == 0 || std::abs(sum / n) < shows_mm) return;
        add("lay.slant", Severity::note,
            sum > 0
                ? say("The live edges slant in under the show face, {} on the mean: a chamfer by themselves. Turned over they would lean "
                      "out below.",
                      fine(sum / n))
                : say("The live edges lean out below the show face, {} on the mean. Turned over, the wide face up, they make a chamfer by "
                      "themselves.",
                      fine(-sum / n)),
            frame_.to_slab({0, fit_.at(0).left}));
    }

    void choices() {
        std::vector<Phrase> says;
        for (std::size_t i = 0; i < live_edges.values.size(); ++i) {
            const LiveEdges live = live_edges.values[i];
            const Fit f = fit_.keeping(live);
            const double lack = f.total_lack();
            double narrow = 1e300;
            double wide = 0;
            for (const AtStation& s : f.profile()) {
                narrow = std::min(narrow, s.left - s.right);
                wide = std::max(wide, s.left - s.right);
            }
            Phrase fits = in_.top.shape == TopShape::rectangle && std::round(narrow) == std::round(wide) ? say("fits, {} wide", mm(wide))
                          : in_.top.shape == TopShape::rectangle ? say("fits, {} to {} wide", mm(narrow), mm(wide))
                          : live == LiveEdges::none              ? say("clear of the bark all round")
                                                                 : say("the rim may run out over the bark there");
            says.push_back(lack > 0.05 ? say("short by {}", mm(lack)) : std::move(fits));
        }
        p_.choices.push_back(choice_of(live_edges, in_.top, std::move(says)));
    }

    const LayInputs& in_;
    Frame frame_;
    Fit fit_;
    double rim_live_mm_ = 0;
    LayPlan p_;
};

}  // namespace

BlankCuts blank_cuts(const Ring& show, const Ring& under, double half_mm, const Placement& placement) {
    constexpr double past = 20;
    constexpr double far = 1e5;
    const double over = half_mm + std::max(0.0, placement.oversize_mm);
    const Frame f = placement.frame();
    const Box whole = bounds(show);
    const auto line = [&](double u) {
        // From edge to edge of whichever face reaches further there, and a little past both.
        Span1 reach{1e300, -1e300};
        const double inside = std::clamp(u, whole.low.x + 1e-6, std::max(whole.low.x + 1e-6, whole.high.x - 1e-6));
        for (const Ring* ring : {&show, &under})
            for (const Span1 s : cut_at_x(*ring, inside)) reach = {std::min(reach.from, s.from), std::max(reach.to, s.to)};
        if (reach.to < reach.from) reach = {whole.low.y, whole.high.y};
        return std::pair(f.to_slab({u, reach.from - past}), f.to_slab({u, reach.to + past}));
    };
    const double from = std::max(-over, whole.low.x);
    const double to = std::min(over, whole.high.x);
    return {{line(-half_mm), line(half_mm)},
            {line(from), line(to)},
            std::max(0.0, to - from),
            largest(intersection(rectangle(-over, over, -far, far), show))};
}

LayPlan plan_lay(const LayInputs& in) { return Planner(in).run(); }

Placement middle_of(const SlabShape& shape) {
    Placement p;
    const Vec2 c = centroid(shape.ring_a);
    p.x_mm = c.x;
    p.y_mm = c.y;
    return p;
}

Placement best_placement(const LayInputs& in) {
    Placement best = in.placement;
    // First that it fits, then what lies in it, then how near it is to where it lies now.
    struct Score {
        double lack = 0, wishes = 0, away = 0;
        bool operator<(const Score& o) const { return std::tie(lack, wishes, away) < std::tie(o.lack, o.wishes, o.away); }
    };
    const Ring outline = outline_of(in.top);
    const auto rate = [&](const Placement& p, double no_more) {
        Score s;
        const double lack = Fit(in.shape, in.top, p.frame()).total_lack();
        s.lack = lack < 0.05 ? 0 : lack;
        if (s.lack > no_more) return s;
        s.wishes = std::round(against_wishes(in.slab, in.top.flaws, p.frame().to_slab(outline)));
        s.away = std::hypot(p.x_mm - in.placement.x_mm, p.y_mm - in.placement.y_mm) + 20 * std::abs(p.angle_deg - in.placement.angle_deg);
        return s;
    };
    Score score = rate(best, 1e300);
    const Placement start = best;
    const auto offer = [&](double x, double y, double a) {
        Placement p = start;
        p.x_mm = x;
        p.y_mm = y;
        p.angle_deg = a;
        if (const Score s = rate(p, score.lack); s < score) score = s, best = p;
    };
    const double reach_x = std::max(50.0, (in.shape.x1 - in.shape.x0 - in.top.length_mm) / 2);
    const Vec2 mid{(in.shape.x0 + in.shape.x1) / 2, centroid(in.shape.ring_a).y};
    for (int i = -4; i <= 4; ++i)
        for (int j = -4; j <= 4; ++j)
            for (int k = -4; k <= 4; ++k) offer(mid.x + reach_x * i / 4, mid.y + 25.0 * j, 0.75 * k);
    for (double step = 1; step > 0.01; step /= 2) {
        const Placement from = best;
        for (int i = -1; i <= 1; ++i)
            for (int j = -1; j <= 1; ++j)
                for (int k = -1; k <= 1; ++k) offer(from.x_mm + 40 * step * i, from.y_mm + 12 * step * j, from.angle_deg + 0.4 * step * k);
    }
    return best;
}

}  // namespace yb
