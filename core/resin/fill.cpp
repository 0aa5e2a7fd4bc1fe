#include "core/resin/fill.h"

#include <algorithm>
#include <cmath>

namespace yb {

const std::vector<Resin>& starting_resins() {
    static const std::vector<Resin> all{{"slow-deep", "Slow deep casting", 40, 50, 2, 1, 1.12, 0.97, true},
                                        {"medium", "Medium casting", 14, 13, 2, 1, 1.13, 0.98, false},
                                        {"coating", "Coating", 5, 6, 1, 1, 1.15, 0.98, false},
                                        {"quick", "Quick structural", 1, 3, 1, 1, 1.17, 1.02, false}};
    return all;
}

const Resin& river_resin(const std::vector<Resin>& resins) {
    if (resins.empty()) throw std::invalid_argument("there is no resin to pour a river of");
    return *std::max_element(resins.begin(), resins.end(), [](const Resin& a, const Resin& b) { return a.deepest_mm < b.deepest_mm; });
}

double gel_hours(const Resin& r, double temp_c) {
    constexpr double e_over_r = 55000 / 8.314462618;
    return r.gel_25_h * std::exp(e_over_r * (1 / (temp_c + 273.15) - 1 / 298.15));
}

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
    if (through && gap < 12) return "medium";  // thin slow resin would find every gap in the tape
    if (depth <= 6) return "coating";
    if (depth <= 13) return "medium";
    return "slow-deep";
}

namespace {

/// A knot is filled where it is loose: dead, through, or probed and found to have a depth. A live one is wood.
bool fillable(const Flaw& f) {
    if (f.kind == FlawKind::knot) return f.through || f.depth_mm || f.note.find("dead") != std::string::npos;
    return f.kind != FlawKind::pith && f.kind != FlawKind::scar;
}

double girth(const Ring& r) {
    double g = 0;
    for (std::size_t i = 0; i < r.size(); ++i) g += length(r[(i + 1) % r.size()] - r[i]);
    return g;
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
        figures();
        cautions();
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    const Resin& resin(const std::string& key) const {
        const auto it = std::find_if(in_.resins.begin(), in_.resins.end(), [&](const Resin& r) { return r.key == key; });
        if (it != in_.resins.end()) return *it;
        return in_.resins.empty() ? starting_resins().front() : in_.resins.front();
    }

    void one(const FlawInside& inside) {
        const Flaw& flaw = in_.slab.flaws[inside.index];
        VoidPlan v;
        v.flaw = inside.index;
        v.at = inside.at;
        const double whole = area(flaw.outline);
        const double share = std::min(1.0, inside.area_mm2 / std::max(whole, 1e-9));
        v.runs_out = share < 0.999;
        v.gap_mm = 2 * whole / std::max(girth(flaw.outline), 1e-9);

        const bool above = flaw.face == Face::a;
        const double raw = in_.shape.thickness_at(v.at);
        const double off_own = std::max(0.0, (above ? in_.flat.off_top : in_.flat.off_bottom).at(v.at));
        const double off_far = std::max(0.0, (above ? in_.flat.off_bottom : in_.flat.off_top).at(v.at));
        const double full = flaw.through ? raw : std::min(flaw.depth_mm.value_or(0), raw);
        const double floor = std::min(full, raw - off_far);
        v.through = flaw.through || full > raw - off_far;
        v.depth_mm = std::max(0.0, floor - off_own);
        const bool unknown = !flaw.through && !flaw.depth_mm;
        v.gone = v.depth_mm < 0.05 && !unknown;
        const double mouth = inside.area_mm2;
        v.volume_l = void_litres(mouth, full, flaw.floor_share, off_own, floor);
        v.advised = advised_resin(v.depth_mm, v.gap_mm, v.through);

        const auto chosen = std::find_if(in_.voids.begin(), in_.voids.end(), [&](const VoidFill& c) { return c.flaw_id == flaw.id; });
        const bool mine = chosen != in_.voids.end();
        v.left_open = mine && chosen->leave_open;
        v.resin = mine && !chosen->resin.empty() ? chosen->resin : v.advised;
        v.lifts = lifts(flaw, v, mouth, full, off_own, floor, resin(v.resin));
        v.mass_kg = v.left_open ? 0 : v.volume_l * resin(v.resin).mixed_density();
        choice(flaw, v, mouth, full, off_own, floor);
        p_.voids.push_back(std::move(v));
    }

    std::vector<Lift> lifts(const Flaw& flaw, const VoidPlan& v, double mouth, double full, double from, double floor,
                            const Resin& r) const {
        std::vector<Lift> out;
        if (v.depth_mm < 0.05 || v.left_open) return out;
        const int n = std::max(1, static_cast<int>(std::ceil(v.depth_mm / r.deepest_mm - 1e-9)));
        const double keep = 1 + in_.choices.reserve_pct / 100;
        for (int i = 0; i < n; ++i) {  // from the floor up
            const double deep = floor - v.depth_mm * i / n;
            const double high = floor - v.depth_mm * (i + 1) / n;
            Lift l;
            l.depth_mm = v.depth_mm / n;
            l.volume_l = void_litres(mouth, full, flaw.floor_share, high, deep);
            if (i == n - 1) {
                const double k = 1 - from / std::max(full, 1e-9) * (1 - flaw.floor_share);
                l.volume_l += mouth * k * k * in_.choices.overfill_mm * 1e-6;
            }
            l.volume_l *= keep;
            l.a_l = l.volume_l * r.parts_a / (r.parts_a + r.parts_b);
            l.b_l = l.volume_l - l.a_l;
            l.a_kg = l.a_l * r.density_a;
            l.b_kg = l.b_l * r.density_b;
            // Tacky at about the gel; three times that before it is levelled: starting values.
            l.wait_h = gel_hours(r, in_.shop_c) * (i == n - 1 ? 3 : 1);
            out.push_back(l);
        }
        return out;
    }

    void choice(const Flaw& flaw, const VoidPlan& v, double mouth, double full, double from, double floor) {
        Choice c{"fill." + flaw.id, std::string("The ") + name_of(flaw.kind), {}};
        for (const Resin& r : in_.resins) {
            VoidPlan other = v;
            other.left_open = false;
            const auto l = lifts(flaw, other, mouth, full, from, floor, r);
            double wait = 0;
            for (const Lift& lift : l) wait += lift.wait_h;
            c.options.push_back(
                {r.key, r.label + (r.key == v.advised ? " (advised)" : ""),
                 say(l.size() == 1 ? "{} lift, {} in all" : "{} lifts, {} in all", count(static_cast<double>(l.size())), hours(wait)),
                 !v.left_open && v.resin == r.key});
        }
        c.options.push_back({"open", "Leave it open", say("no resin; {} of air", litres(v.volume_l)), v.left_open});
        if (!v.gone) p_.choices.push_back(std::move(c));
    }

    void totals() {
        for (const VoidPlan& v : p_.voids) {
            if (v.left_open) {
                p_.open_l += v.volume_l;
                continue;
            }
            p_.volume_l += v.volume_l;
            p_.mass_kg += v.mass_kg;
            double wait = 0;
            for (const Lift& l : v.lifts) {
                p_.mixed_l += l.volume_l;
                wait += l.wait_h;
                p_.hands_on_h += 0.4;  // mix, pour, torch: a starting value
            }
            if (!v.lifts.empty()) p_.hands_on_h += v.through ? 0.6 : 0.25;  // clean, tape or brush
            p_.wait_h = std::max(p_.wait_h, wait);
            p_.rounds = std::max(p_.rounds, static_cast<int>(v.lifts.size()));
        }
    }

    void figures() {
        std::vector<Given> given;
        for (const VoidPlan& v : p_.voids) {
            if (v.left_open || v.gone) continue;
            const Flaw& f = in_.slab.flaws[v.flaw];
            given.push_back({std::string(name_of(f.kind)) + " depth left", fine(v.depth_mm), "drawn depth − flattening"});
            given.push_back({std::string(name_of(f.kind)) + " volume", litres(v.volume_l), "outline × depth, Simpson's rule"});
        }
        given.push_back({"overfill", fine(in_.choices.overfill_mm), "the maker's"});
        given.push_back({"reserve", percent(in_.choices.reserve_pct), "the maker's"});
        p_.figures.push_back({"fill.mix",
                              "Resin to mix",
                              litres(p_.mixed_l),
                              {},
                              say("{} fills it flush", litres(p_.volume_l)),
                              {"(volume left after flattening + mouth × overfill) × (1 + reserve)", given, "prismatoid, exact"}});
        double a = 0;
        double b = 0;
        double ak = 0;
        double bk = 0;
        for (const VoidPlan& v : p_.voids)
            for (const Lift& l : v.lifts) a += l.a_l, b += l.b_l, ak += l.a_kg, bk += l.b_kg;
        p_.figures.push_back({"fill.parts",
                              "Part A and part B",
                              litres(a),
                              litres(b),
                              say("by weight {} and {}", kg(ak), kg(bk)),
                              {"A = volume × a/(a + b); by weight × density",
                               {{"A", litres(a), "class"}, {"B", litres(b), "class"}},
                               "resin classes, starting values: your label stands above them"}});
        p_.figures.push_back({"fill.rounds",
                              "Rounds",
                              count(p_.rounds),
                              {},
                              say("{} of waiting", hours(p_.wait_h)),
                              {"lifts = ceil(depth left / deepest lift); wait = gel time at the shop's air, three times for the last",
                               {{"shop air", celsius(in_.shop_c), "shop"}},
                               "Arrhenius, 55 kJ/mol, from gel at 25 °C"}});
        if (p_.open_l > 0)
            p_.figures.push_back({"fill.open", "Left open", litres(p_.open_l), {}, {}, {"volume of voids left open", {}, ""}});
    }

    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> at = {}) {
        p_.cautions.push_back({std::move(key), s, Step::fill, std::move(says), at});
    }

    void cautions() {
        bool pours = false;
        for (const VoidPlan& v : p_.voids) {
            const Flaw& f = in_.slab.flaws[v.flaw];
            const std::string what = name_of(f.kind);
            if (v.gone) {
                add("fill.gone", Severity::note, say("The " + what + " at {} is planed away: nothing to fill.", along(v.at.x)), v.at);
                continue;
            }
            if (!f.through && !f.depth_mm && f.kind == FlawKind::knot)
                add("fill.no_depth", Severity::watch,
                    say("The dead knot at {} has no depth. Tap it: if it is loose, probe it and type how deep.", along(v.at.x)), v.at);
            else if (!f.through && !f.depth_mm)
                add("fill.no_depth", Severity::stop,
                    say("The " + what + " at {} has no depth. Probe it with a wire and type it, or call it through.", along(v.at.x)), v.at);
            if (v.left_open) continue;
            pours = true;
            const Resin& r = resin(v.resin);
            if (v.through && r.thin)
                add("fill.leak", v.gap_mm < 12 ? Severity::stop : Severity::watch,
                    say("A thin slow resin in a taped " + what +
                            " {} wide leaks overnight. Take a thicker, faster one "
                            "in small rounds, or set the slab on a flat caulked board.",
                        fine(v.gap_mm)),
                    v.at);
            if (v.through)
                add("fill.tape", Severity::note,
                    say("The " + what + " at {} is open below: tape the underside, press it down, set it on a flat board. Tape: {}.",
                        along(v.at.x), mm(std::ceil(girth(f.outline) / 2 + 100))),
                    v.at);
            if (v.runs_out)
                add("fill.dam", Severity::watch,
                    say("The " + what +
                            " runs out at the top's edge at {}. Dam it there, caulked, before pouring; the "
                            "resin that creeps over a live edge has to come off again.",
                        along(v.at.x)),
                    v.at);
            if (f.kind == FlawKind::soft)
                add("fill.soft", Severity::watch,
                    say("Soft wood at {}: soak it with a penetrating resin first; it seals as well.", along(v.at.x)), v.at);
            if (f.kind == FlawKind::crack && v.gap_mm > 15)
                add("fill.spring", Severity::watch,
                    say("Pulling the debris out of this crack can let the slab spring. Stabilise it first, or plan to flatten twice."),
                    v.at);
        }
        if (!pours) return;
        if (in_.shop_c > 26)
            add("fill.warm", Severity::watch,
                say("At {} a lift warms more than its label says: halve the lifts, move air over it, or pour in the cool.",
                    celsius(in_.shop_c)));
        if (in_.shop_c < 16)
            add("fill.cold", Severity::watch,
                say("At {} resin takes days and traps bubbles. Warm the shop or wait; the waits above count it.", celsius(in_.shop_c)));
        add("fill.gloves", Severity::note,
            say("Resin: gloves, air, no skin. Measure by volume or by weight as the label says, never one for the "
                "other. A hot cup goes outside, never in a closed bin."));
    }

    const FillInputs& in_;
    FillPlan p_;
};

}  // namespace

FillPlan plan_fill(const FillInputs& in) { return Planner(in).run(); }

}  // namespace yb
