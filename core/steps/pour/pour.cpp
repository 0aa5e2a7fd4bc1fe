#include "core/steps/pour/pour.h"
#include "core/ground/measure/constants.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/ground/figure/choice.h"
#include "core/ground/work/kept.h"
#include "core/steps/fill/fill.h"
#include "core/steps/pour/told.h"

namespace yb {

namespace {

/// Area of a river at a share of its depth, 0 below: its width changes evenly between the faces.
double area_at(double below, double above, double share) { return below + (above - below) * share; }

class Planner {
  public:
    explicit Planner(const PourInputs& in) : in_(in) {}

    PourPlan run() {
        if (!in_.top.ready) return p_;
        p_.ready = true;
        p_.air_c = in_.air_c;
        if (in_.resins.empty()) return p_;
        const Resin& resin = river_resin(in_.resins, in_.fill.river);
        p_.resin = resin.key;
        inside();
        for (const Region& r : in_.top.regions)
            if (r.kind == RegionKind::resin && !r.let_in) river(r);
        if (p_.compartments.empty()) {
            p_.figures.push_back({"pour.mix",
                                  "Resin to mix",
                                  litres(0),
                                  {},
                                  say("this top has no river; voids are filled in Fill"),
                                  {"no resin between leaves", {}, ""}});
            return p_;
        }
        for (std::size_t i = 0; i < p_.compartments.size(); ++i) lifts(i, resin);
        p_.little = clock_of_little(quickest(in_.resins, resin), in_.air_c);
        mix(resin);
        form(resin);
        floats(resin);
        dams();
        prepare_list(in_, resin, p_);
        tell_pour(in_, resin, p_);
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    /// A river, or each of its parts between dividers, from the left end.
    void river(const Region& r) {
        const RiverRun& run = in_.top.rivers.at(r.index);
        std::vector<const Divider*> across;
        const Box box = bounds(r.above);
        for (const Divider& d : in_.choices.dividers)
            if (static_cast<std::size_t>(std::max(1, d.river)) == r.index + 1 && d.u_mm > box.low.x + 1 && d.u_mm < box.high.x - 1)
                across.push_back(&d);
        std::sort(across.begin(), across.end(), [](const Divider* a, const Divider* b) { return a->u_mm < b->u_mm; });
        const double all = area(r.above) + area(r.below);
        const double all_poured = area(run.form_above) + area(run.form_below);
        double from = -1e6;
        std::vector<Compartment::Half> halves{Compartment::Half::none};
        if (in_.two_colours) halves = {Compartment::Half::right, Compartment::Half::left};
        for (std::size_t k = 0; k <= across.size(); ++k) {
            const double to = k < across.size() ? across[k]->u_mm : 1e6;
            const double begins = std::exchange(from, to);
            for (const Compartment::Half half : halves) {
                const auto part = [&](const Ring& ring) { return half_of(across.empty() ? ring : part_of(ring, begins, to), half); };
                Compartment c;
                c.half = half;
                c.above = part(r.above);
                c.poured = part(run.form_above), c.poured_below = part(run.form_below);
                const double share = area(c.above) + area(part(r.below));
                if (c.above.size() < 3 || share <= 0) continue;
                c.id = "river-" + std::to_string(r.index + 1) + (across.empty() ? "" : "." + std::to_string(k + 1));
                if (half != Compartment::Half::none) c.id += half == Compartment::Half::right ? "-right" : "-left";
                c.joint = r.index;
                c.part = static_cast<int>(k);
                c.colour = k == 0 ? in_.choices.colour : across[k - 1]->colour;
                if (half == Compartment::Half::left) c.colour = in_.choices.second_colour.empty() ? "second" : in_.choices.second_colour;
                c.pigment_g_kg = k == 0 ? in_.choices.pigment_g_kg : across[k - 1]->pigment_g_kg;
                c.net_l = all > 0 ? r.volume_l * share / all : 0;
                const double whole_l = all_poured > 0 ? run.form_l * (area(c.poured) + area(c.poured_below)) / all_poured : c.net_l;
                c.ends_l = std::max(0.0, whole_l - c.net_l);
                for (const Region& v : in_.top.regions)
                    if (v.river == r.index && v.balance.x >= begins && v.balance.x < to)
                        c.voids_l += v.volume_l / static_cast<double>(halves.size());
                const double along = std::max(1.0, bounds(c.above).width());
                c.width_mm = share / 2 / along;
                c.guess_l = along * run.above.mean_mm * in_.top.thickness_mm * 1e-6;
                compartment(std::move(c));
            }
        }
    }

    /// One side of the line midway between both banks.
    static Ring half_of(const Ring& ring, Compartment::Half half) {
        if (half == Compartment::Half::none || ring.size() < 3) return ring;
        const Sides banks = sides_of(ring);
        if (banks.low.size() < 2 || banks.high.size() < 2) return {};
        std::vector<double> at;
        for (const std::vector<Vec2>* side : {&banks.low, &banks.high})
            for (const Vec2 q : *side) at.push_back(q.x);
        std::sort(at.begin(), at.end());
        at.erase(std::unique(at.begin(), at.end()), at.end());
        Ring out =
            half == Compartment::Half::right ? Ring(banks.low.begin(), banks.low.end()) : Ring(banks.high.rbegin(), banks.high.rend());
        if (half == Compartment::Half::right) std::reverse(at.begin(), at.end());
        for (const double x : at) out.push_back({x, (height_at(banks.low, x) + height_at(banks.high, x)) / 2});
        return out;
    }

    static Ring part_of(const Ring& ring, double from, double to) {
        if (ring.size() < 3) return {};
        const Box b = bounds(ring);
        const auto parts = intersection(ring, {{from, b.low.y - 1}, {to, b.low.y - 1}, {to, b.high.y + 1}, {from, b.high.y + 1}});
        return parts.empty()
                   ? Ring{}
                   : *std::max_element(parts.begin(), parts.end(), [](const Ring& x, const Ring& y) { return area(x) < area(y); });
    }

    void compartment(Compartment c) {
        c.depth_mm = in_.top.thickness_mm;
        const double above = area(c.poured);
        const double banks =
            (c.half == Compartment::Half::left ? 0 : bank_mm2(c, false)) + (c.half == Compartment::Half::right ? 0 : bank_mm2(c, true));
        c.soak_l = banks * 1e-6 * in_.choices.soak_ml_m2 / 1000;
        c.wedge_l = above * deeper_mm_ * 1e-6;
        c.pour_l = c.net_l + c.voids_l + c.ends_l + c.wedge_l + above * (in_.fill.overfill_mm + in_.choices.after_mm) * 1e-6 + c.soak_l;
        p_.pour_l += c.pour_l;
        p_.form.wedge_l += c.wedge_l;
        p_.compartments.push_back(std::move(c));
    }

    /// What a bank drinks over: its run × its slant, each bank by its own lean.
    static double bank_mm2(const Compartment& c, bool left) {
        const Sides above = sides_of(c.poured);
        const Sides below = sides_of(c.poured_below.size() > 2 ? c.poured_below : c.poured);
        const auto& a = left ? above.high : above.low;
        const auto& b = left ? below.high : below.low;
        if (a.size() < 2 || b.size() < 2) return 0;
        const double from = std::max(a.front().x, b.front().x);
        const double to = std::min(a.back().x, b.back().x);
        constexpr int stations = 200;
        double slant = 0;
        for (int i = 0; i < stations; ++i) {
            const double u = from + (to - from) * (i + 0.5) / stations;
            slant += std::hypot(c.depth_mm, height_at(a, u) - height_at(b, u)) / stations;
        }
        return (line_length(a) + line_length(b)) / 2 * slant;
    }

    void lifts(std::size_t i, const Resin& resin) {
        const Compartment& c = p_.compartments[i];
        const double above = area(c.poured);
        const double below = area(c.poured_below);
        const double deep = c.depth_mm + in_.fill.overfill_mm + in_.choices.after_mm;
        const auto forecast = forecast_lifts(resin, deep, in_.air_c, in_.choices);
        // Each lift's own share: the banks lean, so upper ones hold more; what soaks in goes by the depth that is wetted.
        double whole = 0;
        std::vector<double> parts;
        double low = 0;
        for (const LiftForecast& f : forecast) {
            const double high = low + f.depth_mm;
            const double from = std::min(1.0, low / c.depth_mm);
            const double to = std::min(1.0, high / c.depth_mm);
            double part = (to - from) * c.depth_mm * (area_at(below, above, from) + area_at(below, above, to)) / 2;
            part += std::max(0.0, high - std::max(low, c.depth_mm)) * above;
            parts.push_back(part);
            whole += part;
            low = high;
        }
        const double over = above * (in_.fill.overfill_mm + in_.choices.after_mm) * 1e-6;
        for (std::size_t k = 0; k < forecast.size(); ++k) {
            PourLift l;
            static_cast<LiftForecast&>(l) = forecast[k];
            l.compartment = i;
            l.volume_l =
                whole > 0 ? (c.net_l + c.voids_l + c.ends_l + c.wedge_l + over) * parts[k] / whole + c.soak_l * forecast[k].depth_mm / deep
                          : 0;
            p_.lifts.push_back(l);
        }
        if (forecast.empty()) return;
        const LiftForecast& last = forecast.back();
        p_.wait_h = std::max(p_.wait_h, last.poured_h + last.clock.hard_h);
        if (last.clock.full_h > p_.clock.full_h) p_.clock = last.clock;
        if (p_.visits.size() < forecast.size()) p_.visits.resize(forecast.size());
        for (std::size_t k = 0; k < forecast.size(); ++k) {
            PourVisit& v = p_.visits[k];
            if (k + 1 < forecast.size()) v.wait_h = std::max(v.wait_h, forecast[k + 1].poured_h - forecast[k].poured_h);
            if (k + 1 < forecast.size())
                v.next_to_h = v.next_to_h > 0 ? std::min(v.next_to_h, forecast[k].clock.next_to_h) : forecast[k].clock.next_to_h;
        }
    }

    /// Which lift of its compartment it is, from 0.
    std::size_t visit_of(std::size_t lift) const {
        std::size_t before = 0;
        while (before < lift && p_.lifts[lift - 1 - before].compartment == p_.lifts[lift].compartment) ++before;
        return before;
    }

    void mix(const Resin& resin) {
        const auto& c = in_.choices;
        const double keep = (1 + in_.fill.reserve_pct / 100) * (1 + c.cup_loss_pct / 100);
        p_.mix_l = p_.pour_l * keep;
        const double most = std::max(0.01, c.degas ? std::min(c.cup_l, c.pot_l / 2) : c.cup_l);
        for (std::size_t i = 0; i < p_.lifts.size(); ++i) {
            PourLift& l = p_.lifts[i];
            l.mix_l = l.volume_l * keep;
            const int n = std::max(1, static_cast<int>(std::ceil(l.mix_l / most - 1e-9)));
            for (int k = 0; k < n; ++k) {
                Batch b;
                b.lift = i;
                const Mixed m = mixed(resin, l.mix_l / n);
                b.volume_l = m.volume_l, b.a_l = m.a_l, b.b_l = m.b_l;
                b.a_g = m.a_kg * 1000, b.b_g = m.b_kg * 1000;
                b.pigment_g = p_.compartments[l.compartment].pigment_g_kg * (b.a_g + b.b_g) / 1000;
                p_.batches.push_back(b);
            }
            p_.visits.at(visit_of(i)).batches += n;
        }
        if (!p_.visits.empty()) {
            double before = 0;
            for (std::size_t k = 0; k + 1 < p_.visits.size(); ++k) before += p_.visits[k].wait_h;
            p_.visits.back().wait_h = std::max(0.0, p_.wait_h - before);
        }
        if (resin.price_l) p_.cost = p_.mix_l * *resin.price_l;
        p_.shopping = shopping_for(resin, p_.mix_l);
        if (c.second_pct > 0 && !p_.lifts.empty()) {
            const PourLift& last = p_.lifts.back();
            p_.second = SecondColour{last.mix_l * c.second_pct / 100, last.syrup_h, (last.syrup_h + last.model.gel_h) / 2};
        }
    }

    /// The form stands round the blank as it is laid: wood over all its width, river and all.
    void inside() {
        const auto& c = in_.choices;
        Form& f = p_.form;
        Box b{{-in_.top.wanted.length_mm / 2, 1e300}, {in_.top.wanted.length_mm / 2, -1e300}};
        for (const Blank& blank : in_.top.blanks)
            for (const Ring* ring : {&blank.above, &blank.below})
                for (const Vec2 q : *ring) {
                    b.low = {std::min(b.low.x, q.x), std::min(b.low.y, q.y)};
                    b.high = {std::max(b.high.x, q.x), std::max(b.high.y, q.y)};
                }
        if (b.high.y < b.low.y) return;
        f.inside_length_mm = b.width();
        f.inside_width_mm = b.height();
        f.middle = lerp(b.low, b.high, 0.5);
        // Everything is filled to where the highest place still has its depth: the rest stands deeper.
        deeper_mm_ = c.slope_mm_m / 1000 * f.inside_length_mm / 2;
        if (c.corners_mm.size() == 4 &&
            std::all_of(c.corners_mm.begin(), c.corners_mm.end(), [](const auto& h) { return h.has_value(); })) {
            double highest = -1e300;
            double mean = 0;
            for (const auto& h : c.corners_mm) highest = std::max(highest, *h), mean += *h / 4;
            deeper_mm_ = highest - mean;
            for (const auto& h : c.corners_mm) f.pack_mm.push_back(highest - *h);
        }
    }

    void form(const Resin& resin) {
        const auto& c = in_.choices;
        Form& f = p_.form;
        const double deep = p_.compartments.front().depth_mm + in_.fill.overfill_mm + c.after_mm;
        f.side_mm = deep + c.rim_mm;
        f.thick_mm = c.sheet_mm;
        const double outside_long = f.inside_length_mm + 2 * c.sheet_mm;
        // Sides stand beside the bottom, the long ones over the ends.
        f.parts = {{"form, bottom", 1, f.inside_length_mm, f.inside_width_mm},
                   {"form, long side", 2, outside_long, f.side_mm + c.sheet_mm},
                   {"form, end", 2, f.inside_width_mm, f.side_mm + c.sheet_mm}};
        const double inner_m2 = (f.inside_length_mm * f.inside_width_mm + 2 * (f.inside_length_mm + f.inside_width_mm) * f.side_mm) * 1e-6;
        f.tape_m = std::ceil(inner_m2 / (c.tape_mm / 1000) * 1.05);
        f.caulk_m = (2 * (f.inside_length_mm + f.inside_width_mm) + 4 * f.side_mm) / 1000;
        const double rho = resin.mixed_density() * 1000;
        f.wall_n_m = rho * gravity_m_s2 * std::pow(deep / 1000, 2) / 2;
        // The bottom hangs between its bearers like a beam that lies free on them: wood and resin press on it alike.
        const double load = rho * gravity_m_s2 * deep / 1000;  // N/m²
        const double inertia = std::pow(c.sheet_mm / 1000, 3) / 12;
        constexpr double sheet_pa = 3.5e9;
        f.sag_mm = 1000 * 5 * load * std::pow(c.bearers_mm / 1000, 4) / (384 * sheet_pa * inertia);
        // Past the bench it hangs like a beam let in at one end.
        f.overhang_sag_mm = 1000 * load * std::pow(c.overhang_mm / 1000, 4) / (8 * sheet_pa * inertia);
        f.sheets = nest(f.parts, c.panel_long_mm, c.panel_wide_mm, c.kerf_mm);
        f.rolls = static_cast<int>(std::ceil(f.tape_m / c.roll_m - 1e-9));
        // A side is a beam between its stiffeners, free on them: what presses on it, on all of its height.
        const double side = std::max(1.0, f.side_mm) / 1000 * inertia;
        f.stiffeners_mm = 1000 * std::pow(384 * sheet_pa * side * 0.0005 / (5 * std::max(0.1, f.wall_n_m)), 0.25);
        f.screws = static_cast<int>(std::ceil(2 * (f.inside_length_mm + f.inside_width_mm) / 150));
    }

    void floats(const Resin& resin) {
        const double rho = resin.mixed_density() * 1000;
        for (std::size_t i = 0; i < in_.top.blanks.size(); ++i) {
            const Blank& leaf = in_.top.blanks[i];
            // Resin gets under it: it is wetted as deep as it stands in the pour.
            FloatUp f;
            f.leaf = i;
            f.force_n = std::max(0.0, (rho * leaf.volume_l * 1e-3 - leaf.mass_kg) * gravity_m_s2);
            f.clamps = static_cast<int>(std::ceil(2 * f.force_n / std::max(1.0, in_.choices.clamp_n) - 1e-9));
            p_.floats.push_back(f);
        }
    }

    /// Where a river leaves the wood at either end.
    void dams() {
        for (const Compartment& c : p_.compartments) {
            const Box box = bounds(c.poured);
            for (const double u : {box.low.x, box.high.x}) {
                const auto cut = cut_at_x(c.poured, std::clamp(u, box.low.x + 0.5, box.high.x - 0.5));
                if (cut.empty()) continue;
                const double from = cut.front().from;
                const double to = cut.back().to;
                p_.dams.push_back({{u, (from + to) / 2}, to - from});
            }
        }
    }

    const PourInputs& in_;
    PourPlan p_;
    double deeper_mm_ = 0;  ///< the mean of what a form out of level holds more
};

/// All that the heat of a pour's lifts hangs on: its answer is made of nothing else.
struct Question {
    Kinetics resin;
    Section whole;          ///< as deep as all lifts together
    double deepest_mm = 0;  ///< by the label
    double limit_c = 0;
    int lifts = 0;  ///< as the maker wants; 0: as few as stay below the limit
    bool operator==(const Question&) const = default;
};

std::vector<LiftForecast> answer(const Question& q) {
    const double depth = q.whole.depth_mm;
    // Coarse, and a little on the safe side for it: the section's own figure is followed finely.
    const CureOrder quick{3, 0};
    const auto one_of = [&](int n, double air) {
        Section s = q.whole;
        s.depth_mm = depth / n, s.air_c = air;
        return s;
    };
    const auto sequence = [&](int n, double air) {
        // The fifth lift and those after it go as the fourth did: what lies that far below no longer warms.
        const auto followed = static_cast<std::size_t>(std::min(n, 4));
        auto out = cure_lifts(q.resin, one_of(n, air), std::vector<double>(followed, depth / n), quick);
        while (out.size() < static_cast<std::size_t>(n)) {
            LiftCure next = out.back();
            next.poured_h += next.gel_h.value_or(0);
            out.push_back(next);
        }
        return out;
    };
    const int fewest = q.lifts > 0 ? q.lifts : std::max(1, static_cast<int>(std::ceil(depth / q.deepest_mm - 1e-9)));
    for (int n = fewest;; ++n) {
        const auto warm = sequence(n, q.whole.air_c + 1);
        double worst = 0;
        for (const LiftCure& l : warm) worst = std::max(worst, l.peak_c);
        if (worst > q.limit_c && q.lifts == 0 && n < static_cast<int>(most_lifts)) continue;
        const auto mean = sequence(n, q.whole.air_c);
        const auto cool = sequence(n, q.whole.air_c - 1);
        const Cured alone = cure(q.resin, one_of(n, q.whole.air_c), quick);
        std::vector<LiftForecast> out;
        for (std::size_t i = 0; i < mean.size(); ++i) {
            LiftForecast f;
            f.depth_mm = depth / n;
            f.peak_c = mean[i].peak_c, f.peak_low_c = cool[i].peak_c, f.peak_high_c = warm[i].peak_c;
            f.peak_h = mean[i].peak_h;
            f.poured_h = mean[i].poured_h;
            f.model = {mean[i].gel_h.value_or(0), mean[i].tacky_h, alone.cured_h};
            f.syrup_h = std::min(f.model.gel_h, mean[i].syrup_h.value_or(f.model.gel_h));
            out.push_back(f);
        }
        return out;
    }
}

}  // namespace

Section section_of(double depth, double air, const PourChoices& c) {
    Section s;
    s.depth_mm = depth;
    s.air_c = air;
    s.board_mm = c.sheet_mm;
    s.h = c.fans ? 15 : 8;
    s.night_c = c.night_c;
    return s;
}

std::vector<LiftForecast> forecast_lifts(const Resin& resin, double depth, double air, const PourChoices& c) {
    if (!(depth > 0)) return {};
    const Question q{kinetics_of(resin), section_of(depth, air, c), resin.deepest_mm, c.peak_limit_c, c.lifts};
    static Kept<Question, std::vector<LiftForecast>> kept(64);
    std::vector<LiftForecast> out = kept.answer(q, [&] { return answer(q); });
    for (std::size_t i = 0; i < out.size(); ++i) {
        out[i].clock = clock_of(resin, air, out[i].model);
        if (i > 0) out[i].poured_h = out[i - 1].poured_h + out[i - 1].clock.next_from_h;
    }
    return out;
}

PourPlan plan_pour(const PourInputs& in) { return Planner(in).run(); }

std::vector<double> widths_along(const PourPlan& plan) {
    double low = 1e9;
    double high = 0;
    for (const Compartment& c : plan.compartments) {
        const Box box = bounds(c.above);
        for (int i = 1; i < 24; ++i)
            for (const Span1 cut : cut_at_x(c.above, box.low.x + box.width() * i / 24))
                low = std::min(low, cut.to - cut.from), high = std::max(high, cut.to - cut.from);
    }
    std::vector<double> out;
    for (int i = 0; i < 4 && high > 0; ++i) out.push_back(std::round(std::max(4.0, low + (high - low) * i / 3)));
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

}  // namespace yb
