#include "core/steps/fill/fill.h"

#include "core/material/resin/clock.h"
#include "core/steps/top/top.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

namespace yb {

double void_litres(double mouth, double depth, double floor_share, double from, double to) {
    if (to <= from || depth <= 0) return 0;
    const auto at = [&](double d) {
        const double k = 1 - d / depth * (1 - floor_share);
        return mouth * k * k;
    };
    return (to - from) / 6 * (at(from) + 4 * at((from + to) / 2) + at(to)) * 1e-6;
}

std::string advised_resin(double depth, double gap, bool through) {
    if (depth <= 3 || gap < 1.5) return "quick";
    if (through) return "medium";  // thin slow resin would find every gap in the tape
    if (depth <= 6) return "coating";
    if (depth <= 13) return "medium";
    return "slow-deep";
}

FillAdvice advice_for(FlawKind kind, double depth, double gap, bool through, int holes) {
    const char* what = a_flaw(kind);
    const auto takes = [&](const char* takes_key, Phrase why) { return FillAdvice{takes_key, std::move(why), kind == FlawKind::soft}; };
    if (kind == FlawKind::insects && holes > 0 && gap <= 3)
        return takes("thin-glue", say("holes {} wide: thin glue and dust of the same wood, the accelerator after it", fine(gap)));
    if (kind == FlawKind::insects && holes > 0)
        return takes("stick", say("holes {} wide: a filler stick melts in and is shaved flush", fine(gap)));
    if (kind == FlawKind::soft && depth <= 3)
        return takes("penetrating", say("soft and shallow: what soaks in hardens it, nothing else is wanted"));
    if (gap < 0.6) return takes("thin-glue", say("{} {} wide: only a thin glue goes in", what, fine(gap)));
    const std::string key = advised_resin(depth, gap, through);
    if (gap < 1.5) return takes("quick", say("{} wide: worked in with a blade, a thick quick resin stays where it is put", fine(gap)));
    if (key == "quick") return takes("quick", say("{} deep: a quick resin in one go", fine(depth)));
    if (through)
        return takes("medium", gap < 12
                                   ? say("{} right through, {} wide, taped underneath: a thin slow resin finds the tape, this one in "
                                         "small rounds does not",
                                         what, fine(gap))
                                   : say("{} right through, {} wide, taped underneath: rounds of a thicker resin; a slow one creeps under "
                                         "the tape overnight, unless a caulked board dams it",
                                         what, fine(gap)));
    if (key == "coating") return takes("coating", say("{} deep: a coating resin takes it in one lift and levels itself", fine(depth)));
    if (key == "medium") return takes("medium", say("{} deep: one lift of a medium resin", fine(depth)));
    return takes("slow-deep", say("{} deep: only a slow resin takes so much at once and stays cool", fine(depth)));
}

double tape_under_mm(const Ring& opening, double tape) {
    if (!(tape > 0)) throw std::invalid_argument("the tape has a width");
    if (opening.size() < 3) return 0;
    // Along the way in which it is narrowest across, as tape is laid: one of the directions of its hull's sides.
    const Ring hull = convex_hull(opening);
    double across = 1e300;
    double along = 0;
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Vec2 side = hull[(i + 1) % hull.size()] - hull[i];
        if (length(side) < 1e-9) continue;
        const Vec2 way = side * (1 / length(side));
        Box b{{1e300, 1e300}, {-1e300, -1e300}};
        for (const Vec2 q : hull) {
            const Vec2 turned{dot(q, way), q.y * way.x - q.x * way.y};
            b.low = {std::min(b.low.x, turned.x), std::min(b.low.y, turned.y)};
            b.high = {std::max(b.high.x, turned.x), std::max(b.high.y, turned.y)};
        }
        if (b.height() < across - 1e-9) across = b.height(), along = b.width();
    }
    if (across > 1e299) return 0;
    constexpr double past_side = 15;
    constexpr double past_end = 100;
    const double wide = across + 2 * past_side;
    const double strips = wide <= tape ? 1 : 1 + std::ceil((wide - tape) / (0.8 * tape) - 1e-9);
    return strips * (along + 2 * past_end);
}

namespace {

const char* title_of(FlawKind kind) {
    static constexpr std::array titles{"The crack",     "The void",         "The bark pocket", "The knot",
                                       "The soft wood", "The insect holes", "The pith",        "The saw scar"};
    return titles.at(static_cast<std::size_t>(kind));
}

/// A knot is filled where it is loose: dead, through, or probed and found to have a depth. A live one is wood.
bool fillable(const Flaw& f) {
    if (f.kind == FlawKind::knot) return f.through || f.depth_mm || f.loose;
    return f.kind != FlawKind::pith && f.kind != FlawKind::scar;
}

class Planner {
  public:
    explicit Planner(const FillInputs& in) : in_(in) {}

    FillPlan run() {
        if (!in_.flat.ready) return p_;
        p_.ready = true;
        for (const FlawInside& f : in_.lay.flaws)
            if (fillable(in_.slab.flaws[f.index])) one(f);
        totals();
        p_.figures = fill_figures(p_, in_.choices, in_.resins, in_.shop_c);
        cautions();
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    const Resin& resin(const std::string& key) const {
        if (const Resin* r = find_resin(in_.resins, key)) return *r;
        return in_.resins.empty() ? starting_resins().front() : in_.resins.front();
    }

    void one(const FlawInside& inside) {
        const Flaw& flaw = in_.slab.flaws[inside.index];
        VoidPlan v;
        v.leaf = in_.leaf;
        v.flaw = inside.index;
        v.id = flaw.id;
        v.kind = flaw.kind;
        v.face = flaw.face;
        v.floor_share = flaw.floor_share;
        v.outline = flaw.outline;
        v.at = inside.at;
        const double whole = area(flaw.outline);
        const double share = std::min(1.0, inside.area_mm2 / std::max(whole, 1e-9));
        v.runs_out = share < 0.999;
        if (v.runs_out) beyond(flaw, v);
        // Between the saw cuts the top is open at its live edges: what lies there and not in the top is past one.
        const Ring& open = in_.lay.region;
        if (v.runs_out)
            v.over_live =
                open.size() < 3 || intersection_area(flaw.outline, open) > intersection_area(flaw.outline, in_.lay.outline) + 0.001 * whole;
        v.gap_mm = 2 * whole / std::max(girth(flaw.outline), 1e-9);
        // Counted holes of insects: straight bores, not the outline around them.
        v.holes = flaw.kind == FlawKind::insects ? std::max(0, flaw.holes.value_or(0)) : 0;
        const double bores = std::min(whole, v.holes * std::numbers::pi / 4 * flaw.hole_mm * flaw.hole_mm);
        if (v.holes > 0) v.gap_mm = flaw.hole_mm;

        const bool above = flaw.face == Face::a;
        const double raw = in_.shape.thickness_at(v.at);
        const double off_own = std::max(0.0, (above ? in_.flat.off_top : in_.flat.off_bottom).at(v.at));
        const double off_far = std::max(0.0, (above ? in_.flat.off_bottom : in_.flat.off_top).at(v.at));
        const double full = flaw.through ? raw : std::min(flaw.depth_mm.value_or(0), raw);
        const double floor = std::min(full, raw - off_far);
        v.through = flaw.through || full > raw - off_far;
        v.depth_mm = std::max(0.0, floor - off_own);
        const bool unknown = v.unprobed = !flaw.through && !flaw.depth_mm;
        v.gone = v.depth_mm < 0.05 && !unknown;
        const double mouth = v.holes > 0 ? bores * share : inside.area_mm2;
        const double floor_share = v.holes > 0 ? 1 : flaw.floor_share;
        v.floor_share = floor_share;
        v.volume_l = void_litres(mouth, full, floor_share, off_own, floor);
        const double k = full > 0 ? 1 - std::min(off_own, full) / full * (1 - floor_share) : 1;
        const Vec2 middle = centroid(flaw.outline);
        for (const Vec2 p : flaw.outline) v.mouth.push_back(middle + (p - middle) * k);
        FillAdvice advice = advice_for(flaw.kind, v.depth_mm, v.gap_mm, v.through, v.holes);
        if (!find_resin(in_.resins, advice.resin))
            advice = {advised_resin(v.depth_mm, v.gap_mm, v.through), say("the nearest that is on the shelf"), advice.soak};
        // Nobody mixes a batch of casting resin for a spoonful: what is under a cup goes together with the quick one.
        v.under_cup = v.volume_l < under_cup_l && !unknown && v.volume_l > 0;
        const Resin* deep = find_resin(in_.resins, advice.resin);
        const Resin& quick = quickest(in_.resins, deep ? *deep : starting_resins().front());
        if (v.under_cup && deep && deep->gel_25_h > quick.gel_25_h && !deep->soaks && !deep->solid && deep->parts_b > 0)
            advice.resin = quick.key, advice.why = say("under a cup: with the others of its kind, from one mix of the quick resin");
        if (unknown) advice.why = say("how deep it is was not probed: the choice is safe only once it is");
        v.advised = advice.resin;
        v.why = advice.why;

        const auto chosen = std::find_if(in_.voids.begin(), in_.voids.end(), [&](const VoidFill& c) { return c.flaw_id == flaw.id; });
        const bool mine = chosen != in_.voids.end();
        v.left_open = mine && chosen->leave_open;
        v.resin = mine && !chosen->resin.empty() ? chosen->resin : v.advised;
        const Soak soak = mine ? chosen->soak : Soak::advised;
        // What opens into a poured river fills with it, unless it is to be filled by itself, dammed there.
        const bool could_be_poured = v.river.has_value();
        if (v.left_open || v.gone || (mine && !chosen->resin.empty())) v.river.reset();
        if (v.river) v.resin = river_resin(in_.resins, in_.choices.river).key;
        v.soaked = !v.left_open && !v.gone && (soak == Soak::first || (soak == Soak::advised && advice.soak));
        if (v.soaked) {
            // Its walls and its floor drink: from what is left of its mouth down to its floor it narrows evenly.
            const double low = full > 0 ? 1 - std::min(floor, full) / full * (1 - floor_share) : 1;
            const double floor_m2 = v.through ? 0 : mouth * low * low * 1e-6;
            v.soak_l = (girth(flaw.outline) * (k + low) / 2 * v.depth_mm * 1e-6 + floor_m2) * soft_drinks_ml_m2 / 1000;
        }
        v.small = v.volume_l < small_void_l && !v.gone;
        if (v.through && !v.left_open && !v.gone && !v.river) v.tape_mm = tape_under_mm(v.mouth, in_.choices.tape_mm);
        if (!v.river) v.lifts = lifts(v, mouth, full, off_own, floor, resin(v.resin));
        if (!v.lifts.empty()) p_.over_l += mouth * k * k * in_.choices.overfill_mm * 1e-6;
        v.mass_kg = v.left_open ? 0 : v.volume_l * resin(v.resin).mixed_density();
        choice(flaw, v, could_be_poured, mouth, full, off_own, floor);
        soaking(flaw, v, advice.soak);
        p_.voids.push_back(std::move(v));
    }

    /// A void that leaves its leaf: into the water beside it, over the joint, or past the edge of the top.
    void beyond(const Flaw& flaw, VoidPlan& v) const {
        if (!in_.top || in_.leaf >= in_.top->leaves) return;
        const Ring uv = in_.top->regions[in_.leaf].placed.frame().from_slab(flaw.outline);
        for (std::size_t i = 0; i < in_.top->regions.size(); ++i) {
            const Region& r = in_.top->regions[i];
            if (r.let_in || i == in_.leaf) continue;
            const Ring& face = flaw.face == Face::a ? r.above : r.below;
            if (face.size() < 3 || intersection_area(uv, face) < 1) continue;
            (r.kind == RegionKind::leaf ? v.meets_joint : v.meets_river) = true;
            if (r.kind == RegionKind::resin) v.river = r.index;
        }
        // What is left over once the neighbours are counted runs out at the edge of the top.
        const Ring& edge = flaw.face == Face::a ? in_.top->above : in_.top->below;
        v.runs_out = intersection_area(uv, edge) < 0.999 * area(flaw.outline);
    }

    std::vector<Lift> lifts(const VoidPlan& v, double mouth, double full, double from, double floor, const Resin& r) const {
        if (v.depth_mm < 0.05 || v.left_open) return {};
        const double k = 1 - from / std::max(full, 1e-9) * (1 - v.floor_share);
        // So little keeps the air's temperature however deep it stands: one lift.
        Resin so_little = r;
        if (v.under_cup) so_little.deepest_mm = std::max(r.deepest_mm, v.depth_mm);
        return in_lifts(so_little, v.depth_mm, mouth * k * k * in_.choices.overfill_mm * 1e-6, in_.choices, in_.shop_c,
                        [&](double low, double high) {
                            return void_litres(mouth, full, v.floor_share, floor - v.depth_mm * high, floor - v.depth_mm * low);
                        });
    }

    void choice(const Flaw& flaw, const VoidPlan& v, bool could_be_poured, double mouth, double full, double from, double floor) {
        Choice c{key_of(VoidChoice{false, v.id}), title_of(flaw.kind), {}};
        if (could_be_poured)
            c.options.push_back({"river", "With the river's pour", say("{} more of it, no dam and no tape here", litres(v.volume_l)),
                                 v.river.has_value(), true});
        for (const Resin& r : in_.resins) {
            VoidPlan other = v;
            other.left_open = false;
            if (r.soaks && !(flaw.kind == FlawKind::soft && v.depth_mm <= 3)) continue;  // it fills nothing
            const auto l = lifts(other, mouth, full, from, floor, r);
            Phrase gains = say("{}, {} in all", counted(static_cast<double>(l.size()), "lift", "lifts"), hours(waiting_h(l)));
            if (r.key == v.advised) gains.then.push_back(v.why);
            c.options.push_back(
                {r.key, r.label, std::move(gains), !v.left_open && !v.river && v.resin == r.key, r.key == v.advised && !could_be_poured});
        }
        c.options.push_back({"open", "Leave it open", say("no resin; {} of air", litres(v.volume_l)), v.left_open});
        if (!v.gone) p_.choices.push_back(std::move(c));
    }

    /// Whether it is soaked first, of what can be.
    void soaking(const Flaw& flaw, const VoidPlan& v, bool advised) {
        if (v.gone || v.left_open || (flaw.kind != FlawKind::soft && flaw.kind != FlawKind::pocket)) return;
        const double floor_l = v.soaked ? v.soak_l : 0;
        Choice c{key_of(VoidChoice{true, v.id}), "Soaked before", {}};
        c.options.push_back({"first", "Soaked first",
                             v.soaked
                                 ? say("{} of a penetrating resin; it seals, and no bubbles come out of the wood later", litres(floor_l))
                                 : say("it seals, and no bubbles come out of the wood later"),
                             v.soaked, advised});
        c.options.push_back(
            {"dry", "Filled dry", say("a round less; soft wood drinks of the pour and lets bubbles go"), !v.soaked, !advised});
        p_.choices.push_back(std::move(c));
    }

    void totals() {
        for (const VoidPlan& v : p_.voids) {
            if (v.left_open) {
                p_.open_l += v.volume_l;
                continue;
            }
            p_.soak_l += v.soak_l;
            if (v.river) {
                p_.river_l += v.volume_l, p_.mass_kg += v.mass_kg;
                continue;
            }
            p_.volume_l += v.volume_l;
            p_.tape_mm += v.tape_mm;
            if (v.small) ++p_.small, p_.small_l += v.volume_l;
            p_.mass_kg += v.mass_kg;
            for (const Lift& l : v.lifts) {
                p_.mixed_l += l.volume_l;
            }
        }
        p_.each = rounds_of(p_.voids);
        p_.rounds = static_cast<int>(p_.each.size());
        for (const FillRound& round : p_.each) p_.wait_h += round.wait_h;
    }

    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> at = {}) {
        p_.cautions.push_back({std::move(key), s, step_key::fill, std::move(says), at});
    }

    void cautions() {
        bool pours = false;
        for (const VoidPlan& v : p_.voids) {
            const Flaw& f = in_.slab.flaws[v.flaw];
            const char* what = name_of(f.kind);
            if (v.gone) {
                add("fill.gone", Severity::note,
                    say(f.kind == FlawKind::insects ? "The {} at {} are planed away: nothing to fill."
                                                    : "The {} at {} is planed away: nothing to fill.",
                        what, along(v.at.x)),
                    v.at);
                continue;
            }
            if (!f.through && !f.depth_mm && f.kind == FlawKind::knot)
                add("fill.no_depth", Severity::watch,
                    say("The dead knot at {} has no depth. Tap it: if it is loose, probe it and type how deep.", along(v.at.x)), v.at);
            else if (!f.through && !f.depth_mm)
                add("fill.no_depth", Severity::stop,
                    say("The {} at {} has no depth. Probe it with a wire and type it, or call it through.", what, along(v.at.x)), v.at);
            if (v.left_open) continue;
            pours = pours || !v.river;
            const Resin& r = resin(v.resin);
            // A glue that an accelerator sets at once runs nowhere.
            if (v.through && !v.river && r.thin && r.gel_25_h > 0.5)
                add("fill.leak", v.gap_mm < 12 ? Severity::stop : Severity::watch,
                    say("A thin slow resin in a taped {} {} wide leaks overnight. Take a thicker, faster one in small rounds, or set the "
                        "slab on "
                        "a flat caulked board.",
                        what, fine(v.gap_mm)),
                    v.at);
            if (v.through && !v.river)
                add("fill.tape", Severity::note,
                    say(f.kind == FlawKind::insects
                            ? "The {} at {} are open below: tape the underside, press it down, set it on a flat board. Tape: {}."
                            : "The {} at {} is open below: tape the underside, press it down, set it on a flat board. Tape: {}.",
                        what, along(v.at.x), mm(std::ceil(v.tape_mm))),
                    v.at);
            if (v.river)
                add("fill.meets_river", Severity::note,
                    say("The {} at {} opens into the river and fills with its pour, {} of it: nothing to dam or tape there. Brush it clean "
                        "and coat it first.",
                        what, along(v.at.x), litres(v.volume_l)),
                    v.at);
            else if (v.meets_river)
                add("fill.meets_river", Severity::watch,
                    say("The {} at {} opens into the river and is filled by itself: dam it there first, or what is poured runs out.", what,
                        along(v.at.x)),
                    v.at);
            if (v.meets_joint)
                add("fill.over_joint", Severity::watch,
                    say("The {} at {} runs over a joint: fill it after the glue-up, or the joint glues only beside it.", what,
                        along(v.at.x)),
                    v.at);
            if (v.over_live)
                add("fill.dam", Severity::watch,
                    say("The {} runs out at the live edge at {}. Dam it there, caulked, before pouring; the resin that creeps over the "
                        "edge has to come off again.",
                        what, along(v.at.x)),
                    v.at);
            if (f.kind == FlawKind::soft)
                add("fill.soft", Severity::watch,
                    say("Soft wood at {}: soak it with a penetrating resin first; it seals as well.", along(v.at.x)), v.at);
            if (f.kind == FlawKind::crack && v.gap_mm > 15)
                add("fill.spring", Severity::watch,
                    say("Pulling the debris out of this crack can let the slab spring. Stabilise it first, or plan to flatten twice."),
                    v.at);
        }
        if (in_.choices.overfill_mm > most_overfill_mm && p_.over_l > 0)
            add("fill.overfill", Severity::watch,
                say("Poured over by {}, {} are planed off again; 1 to 2 mm cover what it shrinks.", fine(in_.choices.overfill_mm),
                    litres(p_.over_l)));
        if (!pours) return;
        for (Caution& c : of_every_pour(in_.shop_c)) p_.cautions.push_back(std::move(c));
    }

    const FillInputs& in_;
    FillPlan p_;
};

}  // namespace

int lift_count(const Resin& resin, double depth_mm) { return std::max(1, static_cast<int>(std::ceil(depth_mm / resin.deepest_mm - 1e-9))); }

std::vector<Lift> in_lifts(const Resin& resin, double depth_mm, double over_l, const FillChoices& choices, double shop_c,
                           const std::function<double(double, double)>& flush_l) {
    std::vector<Lift> out;
    const int n = lift_count(resin, depth_mm);
    const double keep = 1 + choices.reserve_pct / 100;
    const CureClock clock = clock_of_little(resin, shop_c);
    for (int i = 0; i < n; ++i) {
        const bool last = i == n - 1;
        const double flush = flush_l(static_cast<double>(i) / n, static_cast<double>(i + 1) / n);
        Lift l{mixed(resin, (flush + (last ? over_l : 0)) * keep)};
        l.depth_mm = depth_mm / n;
        l.wait_h = last ? clock.hard_h : clock.next_from_h;
        out.push_back(l);
    }
    return out;
}

std::vector<FillRound> rounds_of(const std::vector<VoidPlan>& voids) {
    std::vector<FillRound> out;
    std::vector<std::set<std::string>> mixed;
    for (const VoidPlan& v : voids) {
        if (v.left_open || v.river) continue;
        if (out.size() < v.lifts.size()) out.resize(v.lifts.size()), mixed.resize(v.lifts.size());
        for (std::size_t k = 0; k < v.lifts.size(); ++k) {
            ++out[k].places, out[k].taped += k == 0 && v.through;
            mixed[k].insert(v.resin);
            if (k + 1 < v.lifts.size()) out[k].wait_h = std::max(out[k].wait_h, v.lifts[k].wait_h);
        }
    }
    for (std::size_t k = 0; k < out.size(); ++k) out[k].resins = static_cast<int>(mixed[k].size());
    if (out.empty()) return out;
    // Hours from the first round to each, then to when the slowest of all can be levelled.
    std::vector<double> at{0};
    for (std::size_t k = 0; k + 1 < out.size(); ++k) at.push_back(at.back() + out[k].wait_h);
    double level = 0;
    for (const VoidPlan& v : voids)
        if (!v.left_open && !v.river && !v.lifts.empty()) level = std::max(level, at[v.lifts.size() - 1] + v.lifts.back().wait_h);
    out.back().wait_h = level - at.back();
    return out;
}

double waiting_h(const std::vector<Lift>& lifts) {
    double sum = 0;
    for (const Lift& l : lifts) sum += l.wait_h;
    return sum;
}

std::vector<Caution> of_every_pour(double shop_c) {
    std::vector<Caution> out;
    if (shop_c > 26)
        out.push_back(
            {"fill.warm", Severity::watch, step_key::fill,
             say("At {} a lift warms more than its label says: halve the lifts, move air over it, or pour in the cool.", celsius(shop_c))});
    if (shop_c < 16)
        out.push_back(
            {"fill.cold", Severity::watch, step_key::fill,
             say("At {} resin takes days and traps bubbles. Warm the shop or wait; the hours told here count it.", celsius(shop_c))});
    out.push_back({"fill.gloves", Severity::note, step_key::fill,
                   say("Resin: gloves, air, no skin. Measure by volume or by weight as the label says, never one for the "
                       "other. A hot cup goes outside, never in a closed bin.")});
    return out;
}

FillPlan plan_fill(const FillInputs& in) { return Planner(in).run(); }

}  // namespace yb
