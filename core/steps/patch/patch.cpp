#include "core/steps/patch/patch.h"

#include <algorithm>
#include <cmath>

#include "core/steps/makeup/curve.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

constexpr double below_mm = 8;     ///< wood to be left below a recess
constexpr double spare_mm = 3;     ///< a piece is cut so much thicker than its recess is deep
constexpr double turned_deg = 10;  ///< grain turned further than this shows
constexpr double between_mm = 6;   ///< from a piece to a flaw or to other pieces

/// The patch's outline on the slab it is cut from.
Ring piece_of(const Patch& p) { return on_patch_slab(p).frame().to_slab(p.outline); }

bool inside(const Ring& piece, const Ring& face) {
    return std::all_of(piece.begin(), piece.end(), [&](Vec2 q) { return contains(face, q); });
}

class Teller {
  public:
    Teller(const PatchInputs& in, LayPlan& lay) : in_(in), lay_(lay) {}

    void run() {
        bushings();
        for (std::size_t i = 0; i < patches().size(); ++i) {
            recess(patches()[i]);
            if (patches()[i].slab.empty()) continue;
            if (!in_.slabs.at(i))
                add("lay.patch_slab", Severity::stop, say("The slab that a patch is cut from is not in the shop any more. Choose another."),
                    patches()[i]);
            else piece(i, *in_.slabs[i]);
        }
        sort_by_severity(lay_.cautions);
    }

  private:
    const std::vector<Patch>& patches() const { return in_.choices.patches; }
    Vec2 bench(const Patch& p) const { return in_.top.to_slab(centroid(p.outline)); }

    void add(const char* key, Severity s, Phrase says, const Patch& p) {
        lay_.cautions.push_back({key, s, step_key::lay, std::move(says), bench(p)});
    }

    void bushings() {
        const auto pair = bushings_for(in_.choices.cutter_mm, in_.bushings_mm);
        if (!pair)
            return add("lay.bushings", Severity::watch,
                       say("No two bushings at hand differ by {}, twice the cutter: patch and recess can't be cut from one template.",
                           fine(2 * in_.choices.cutter_mm)),
                       patches().front());
        double sum = 0;
        for (const Patch& p : patches()) sum += area(p.outline);
        lay_.figures.push_back({"lay.patches",
                                "Bushings for the patches",
                                fine(pair->inner_mm),
                                fine(pair->outer_mm),
                                say("{}; corners come out {} round: square them by hand",
                                    counted(static_cast<double>(patches().size()), "patch", "patches"), fine(in_.choices.cutter_mm / 2)),
                                {"recess with the larger bushing, patch with the smaller: larger − smaller = 2 × cutter",
                                 {{"cutter", fine(in_.choices.cutter_mm), "what you set"}, {"patches", square_metres(sum * 1e-6), "drawn"}},
                                 "one template, two bushings; docs/methods.md, Curved joints"}});
    }

    void recess(const Patch& p) {
        const double at = bench(p).x;
        if (p.depth_mm > in_.thickness_mm - below_mm)
            add("lay.patch_deep", Severity::stop,
                say("A patch let in {} leaves {} of wood below it. Let it in less deep.", fine(p.depth_mm),
                    fine(std::max(0.0, in_.thickness_mm - p.depth_mm))),
                p);
        const Ring on = in_.top.to_slab(p.outline);
        if (intersection_area(on, lay_.outline) < area(on) - 1)
            add("lay.patch_out", Severity::watch, say("A patch at {} runs past the edge of the top: it is cut off with it.", along(at)), p);
        for (const Patch& q : patches())
            if (&q < &p && intersection_area(p.outline, q.outline) > 1)
                add("lay.patch_meets", Severity::watch,
                    say("Two patches meet at {}: let the second in after the first is planed.", along(at)), p);
    }

    void piece(std::size_t i, const BothWays& from) {
        const Patch& p = patches()[i];
        const std::string& name = from.up.name;
        const Ring on = piece_of(p);
        if (!inside(on, from.shape_up.ring_a) || !inside(on, from.shape_up.ring_b)) {
            add("lay.patch_off", Severity::stop,
                say("The piece for the patch runs off {} at {}. Move it in, or choose another slab.", name, along(p.at.x)), p);
            return;
        }
        double thin = 1e300;
        for (const Vec2 q : on) thin = std::min(thin, from.shape_up.thickness_at(q));
        if (thin < p.depth_mm + spare_mm)
            add("lay.patch_thin", Severity::stop,
                say("{} is only {} thick there; the patch wants {} and {} to plane off.", name, fine(thin), fine(p.depth_mm),
                    fine(spare_mm)),
                p);
        for (const Flaw& f : from.up.flaws)
            if ((f.face == Face::a || f.through) && f.outline.size() > 2 && intersection_area(on, f.outline) > 1) {
                add("lay.patch_flaw", Severity::watch,
                    say("In the piece for the patch lies {} of {} at {}. Move it past.", a_flaw(f.kind), name, along(p.at.x)), p);
                break;
            }
        if (std::abs(std::remainder(p.turn_deg, 180)) > turned_deg)
            add("lay.patch_grain", Severity::watch,
                say("The grain of a patch is turned by {}: for every 4 % of moisture it moves {} against the top and its edges open. Lay "
                    "it "
                    "along.",
                    degrees(std::round(std::abs(std::remainder(p.turn_deg, 180)))), fine(against_the_top(i))),
                p);
        if (!in_.leaves.empty() && in_.leaves.front().slab.species != from.up.species)
            add("lay.patch_wood", Severity::note,
                say("A patch of {} in {} shows, and is meant to: colours drift apart with the years.", from.up.species,
                    in_.leaves.front().slab.species),
                p);
        used_twice(i, from, on);
    }

    /// How far leaf and patch part over the patch's width while moisture changes by 4 %.
    double against_the_top(std::size_t i) const {
        if (!in_.made) return 0;
        const Box b = bounds(patches()[i].outline);
        const Region* patch = nullptr;
        for (const Region& r : in_.made->regions)
            if (r.kind == RegionKind::patch && r.index == i) patch = &r;
        const double u = (b.low.x + b.high.x) / 2;
        const auto own = patch ? patch->shrinkage(lerp(b.low, b.high, 0.5).x, b.low.y, b.high.y) : std::nullopt;
        if (!own || !in_.made->ready) return 0;
        const double leaf = in_.made->widens(u, b.low.y, b.high.y, 8, 12);
        return std::abs(leaf - (*own > 1e-6 ? movement(b.height(), *own, 8, 12) : 0));
    }

    void used_twice(std::size_t i, const BothWays& from, const Ring& on) {
        const Patch& p = patches()[i];
        for (std::size_t k = 0; k < in_.leaves.size(); ++k) {
            if (in_.leaves[k].slab.id != from.up.id || in_.lays[k]->outline.empty()) continue;
            const Ring& laid = in_.lays[k]->outline;
            const Ring used = in_.leaves[k].placement.turned_over ? seen_from_below(laid) : laid;
            if (intersection_area(on, used) > 1)
                add("lay.patch_twice", Severity::stop,
                    say("The piece for a patch at {} of {} lies in the top itself: the same wood can't lie in two places.", along(p.at.x),
                        from.up.name),
                    p);
        }
        for (std::size_t k = 0; k < i; ++k)
            if (patches()[k].slab == p.slab && intersection_area(on, piece_of(patches()[k])) > 1)
                add("lay.patch_twice", Severity::stop,
                    say("Two patches are cut from the same place of {}, at {}. Move one.", from.up.name, along(p.at.x)), p);
    }

    const PatchInputs& in_;
    LayPlan& lay_;
};

}  // namespace

Placement on_patch_slab(const Patch& patch) {
    const Vec2 back = Frame{{0, 0}, patch.turn_deg}.to_slab(centroid(patch.outline));
    return {patch.at.x - back.x, patch.at.y - back.y, patch.turn_deg, false, 0};
}

std::optional<Vec2> patch_place(const Patch& patch, const BothWays& slab, const std::vector<Ring>& taken) {
    const SlabShape& shape = slab.shape_up;
    if (!shape.usable || patch.outline.size() < 3) return {};
    std::vector<Box> blocked;
    const auto block = [&](const Ring& r) {
        if (r.size() < 3) return;
        const Box b = bounds(r);
        blocked.push_back({b.low - Vec2{between_mm, between_mm}, b.high + Vec2{between_mm, between_mm}});
    };
    for (const Flaw& f : slab.up.flaws)
        if (f.face == Face::a || f.through) block(f.outline);
    const Box all = bounds(shape.ring_a);
    constexpr double step = 20;
    const double middle = (all.low.x + all.high.x) / 2;
    std::optional<Vec2> best;
    Patch tried = patch;
    for (double x = all.low.x + step; x < all.high.x; x += step)
        for (double y = all.low.y + step; y < all.high.y; y += step) {
            if (best && std::abs(x - middle) <= std::abs(best->x - middle)) continue;
            tried.at = {x, y};
            const Ring on = piece_of(tried);
            if (!inside(on, shape.ring_a) || !inside(on, shape.ring_b)) continue;
            const Box b = bounds(on);
            if (std::any_of(blocked.begin(), blocked.end(), [&](const Box& k) {
                    return b.low.x < k.high.x && k.low.x < b.high.x && b.low.y < k.high.y && k.low.y < b.high.y;
                }))
                continue;
            if (std::any_of(taken.begin(), taken.end(), [&](const Ring& r) { return intersection_area(on, r) > 0; })) continue;
            best = tried.at;
        }
    return best;
}

void tell_patches(const PatchInputs& in, LayPlan& lay) {
    if (!in.choices.patches.empty()) Teller(in, lay).run();
}

void add_patch_cuts(const PatchInputs& in, CutList& list) {
    for (std::size_t i = 0; i < in.choices.patches.size(); ++i) {
        const Patch& p = in.choices.patches[i];
        const Box b = bounds(p.outline);
        Cut c{CutKind::patch,
              0,
              "the top",
              in.top.to_slab(b.low),
              in.top.to_slab(b.high),
              b.width(),
              say("recess {} deep, {} by {}, at {}", fine(p.depth_mm), mm(b.width()), mm(b.height()),
                  along(in.top.to_slab(centroid(p.outline)).x)),
              true};
        if (i < in.slabs.size() && in.slabs[i]) {
            c.set.then.push_back(say("; its piece from {} at {}, {} {} of the chalk line, {} thick", in.slabs[i]->up.name, along(p.at.x),
                                     mm(std::abs(p.at.y)), p.at.y < 0 ? "right" : "left", fine(p.depth_mm + spare_mm)));
        }
        list.cuts.push_back(std::move(c));
    }
}

}  // namespace yb
