// Fill of a top of several: the voids of its leaves and the rivers between them, told as one.
#include <algorithm>
#include <cmath>

#include "core/fill/fill.h"
#include "core/top/top.h"

namespace yb {

namespace {

class Teller {
  public:
    explicit Teller(const WholeFillInputs& in) : in_(in) {}

    FillPlan run() {
        p_.ready = in_.top.ready;
        for (std::size_t i = 0; i < in_.leaves.size(); ++i) leaf(i);
        rivers();
        p_.figures = fill_figures(p_, in_.choices, in_.resins, in_.shop_c);
        sort_by_severity(p_.cautions);
        return std::move(p_);
    }

  private:
    Vec2 on_bench(std::size_t leaf, Vec2 on_slab) const {
        return in_.top.bench.to_slab(in_.top.regions[leaf].placed.frame().from_slab(on_slab));
    }

    void leaf(std::size_t i) {
        const FillPlan& f = *in_.leaves[i];
        p_.ready = p_.ready && f.ready;
        if (i >= in_.top.leaves) return;
        for (VoidPlan v : f.voids) {
            v.leaf = i;
            v.id = std::to_string(i + 1) + "/" + v.id;
            v.at = on_bench(i, v.at);
            for (Vec2& q : v.outline) q = on_bench(i, q);
            p_.voids.push_back(std::move(v));
        }
        for (Choice c : f.choices) {
            c.key = "fill." + std::to_string(i + 1) + "/" + c.key.substr(5);
            c.of = in_.slabs[i]->name;
            p_.choices.push_back(std::move(c));
        }
        for (Caution c : f.cautions) {
            if (!c.at) {  // the same for every leaf: told once, of none
                if (!find_caution(p_.cautions, c.key)) p_.cautions.push_back(std::move(c));
                continue;
            }
            c.of = in_.slabs[i]->name;
            c.at = on_bench(i, *c.at);
            p_.cautions.push_back(std::move(c));
        }
        p_.volume_l += f.volume_l, p_.mixed_l += f.mixed_l, p_.open_l += f.open_l, p_.mass_kg += f.mass_kg;
        p_.hands_on_h += f.hands_on_h, p_.wait_h = std::max(p_.wait_h, f.wait_h), p_.rounds = std::max(p_.rounds, f.rounds);
    }

    void rivers() {
        if (in_.resins.empty()) return;
        const Resin& resin = river_resin(in_.resins, in_.choices.river);
        for (const Region& r : in_.top.regions) {
            if (r.kind != RegionKind::resin || r.let_in) continue;
            RiverFill f{r.index, resin.key, r.volume_l, area(r.above), in_.top.thickness_mm, {}, r.volume_l * resin.mixed_density()};
            f.lifts = in_lifts(resin, f.depth_mm, f.surface_mm2 * in_.choices.overfill_mm * 1e-6, in_.choices, in_.shop_c,
                               [&](double from, double to) { return lift_litres(r, from, to); });
            const auto n = static_cast<int>(f.lifts.size());
            for (const Lift& l : f.lifts) {
                p_.mixed_l += l.volume_l;
                p_.hands_on_h += 1;  // mix, pour, torch: a starting value
            }
            p_.volume_l += f.volume_l;
            p_.mass_kg += f.mass_kg;
            p_.wait_h = std::max(p_.wait_h, waiting_h(f.lifts));
            p_.rounds = std::max(p_.rounds, n);
            if (n > 1)
                p_.cautions.push_back(
                    {"fill.river_lifts", Severity::watch, step_key::fill,
                     say("The river is {} deep and {} takes {} at a time: pour it in {} lifts, each while the one before is "
                         "still tacky. Deeper at once it boils, yellows and cracks.",
                         fine(f.depth_mm), resin.label, fine(resin.deepest_mm), count(n)),
                     in_.top.bench.to_slab(centroid(r.above))});
            p_.rivers.push_back(std::move(f));
        }
        if (p_.rivers.empty()) return;
        for (Caution& c : of_every_pour(in_.shop_c))
            if (!find_caution(p_.cautions, c.key)) p_.cautions.push_back(std::move(c));
        Choice c{"fill.river", "The river", {}};
        for (const Resin& r : in_.resins) {
            const int n = lift_count(r, in_.top.thickness_mm);
            c.options.push_back(
                {r.key, r.label,
                 say(n == 1 ? "{} lift, {} in all" : "{} lifts, {} in all", count(n), hours((n + 2) * gel_hours(r, in_.shop_c))),
                 r.key == resin.key});
        }
        p_.choices.insert(p_.choices.begin(), std::move(c));
    }

    /// Between two heights: the area between the banks changes evenly in width, so it is quadratic only where they lean;
    /// from the upper face and the underside it is taken as linear and brought to the true whole.
    double lift_litres(const Region& r, double from, double to) const {
        const double low = area(r.below);
        const double high = area(r.above);
        const double whole = (low + high) / 2;
        if (whole <= 0) return r.volume_l * (to - from);
        const double part = (to - from) * (low + (high - low) * (from + to) / 2);
        return r.volume_l * part / whole;
    }

    const WholeFillInputs& in_;
    FillPlan p_;
};

}  // namespace

FillPlan plan_whole_fill(const WholeFillInputs& in) { return Teller(in).run(); }

}  // namespace yb
