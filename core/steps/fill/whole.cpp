// Fill of a top of several: the voids of its leaves, told as one.
#include <algorithm>
#include <cmath>

#include "core/ground/figure/place.h"
#include "core/steps/fill/fill.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

class Teller {
  public:
    explicit Teller(const WholeFillInputs& in) : in_(in) {}

    FillPlan run() {
        p_.ready = in_.top.ready;
        for (std::size_t i = 0; i < in_.leaves.size(); ++i) leaf(i);
        p_.each = rounds_of(p_.voids);
        for (const FillRound& round : p_.each) p_.wait_h += round.wait_h;
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
            if (auto about = read_void_choice(c.key)) about->id = std::to_string(i + 1) + "/" + about->id, c.key = key_of(*about);
            c.of = in_.slabs[i]->name;
            p_.choices.push_back(std::move(c));
        }
        for (Caution c : f.cautions) {
            if (!c.at) {  // the same for every leaf: told once, of none
                if (!find_caution(p_.cautions, c.key)) p_.cautions.push_back(std::move(c));
                continue;
            }
            c.of = in_.slabs[i]->name;
            show_at(c, on_bench(i, *c.at));
            p_.cautions.push_back(std::move(c));
        }
        p_.volume_l += f.volume_l, p_.mixed_l += f.mixed_l, p_.open_l += f.open_l, p_.mass_kg += f.mass_kg;
        p_.over_l += f.over_l, p_.river_l += f.river_l;
        p_.soak_l += f.soak_l, p_.tape_mm += f.tape_mm, p_.small += f.small, p_.small_l += f.small_l;
        p_.rounds = std::max(p_.rounds, f.rounds);
    }

    const WholeFillInputs& in_;
    FillPlan p_;
};

}  // namespace

FillPlan plan_whole_fill(const WholeFillInputs& in) { return Teller(in).run(); }

}  // namespace yb
