// Flat, Fill and Under as rows of the table: leaf by leaf, then the whole; in between the top that comes of it.
#include <algorithm>
#include <cmath>

#include "core/job/planning.h"
#include "core/rack/rack.h"
#include "core/under/under.h"

namespace yb {

namespace {

/// Adds what is said of a leaf to what is said of the whole. What is the same for every leaf is told once, of none.
void take_cautions(std::vector<Caution>& into, const std::vector<Caution>& from, const std::string& name, const Planning& w,
                   const Placement& leaf) {
    for (Caution c : from) {
        const auto told = std::find_if(into.begin(), into.end(), [&](const Caution& e) {
            return !c.at && e.key == c.key && render(e.says, w.shop.units) == render(c.says, w.shop.units);
        });
        if (told != into.end()) {
            told->of.clear();
            continue;
        }
        c.of = name;
        if (c.at) c.at = w.p.placement.frame().to_slab(leaf.frame().from_slab(*c.at));
        into.push_back(std::move(c));
    }
}

/// Flattening of all leaves told as one: the finished thickness, the hours in all.
std::shared_ptr<FlatPlan> whole_flat(const Planning& w) {
    auto all = std::make_shared<FlatPlan>();
    const auto& leaves = w.p.leaves;
    all->ready = std::all_of(leaves.begin(), leaves.end(), [](const LeafPlan& l) { return l.flat->ready; });
    all->thickness_mm = all->thickest_mm = 1e300;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const FlatPlan& f = *leaves[i].flat;
        if (!f.ready) continue;
        all->thickness_mm = std::min(all->thickness_mm, f.thickness_mm);
        all->thickest_mm = std::min(all->thickest_mm, f.thickest_mm);
        all->hours += f.hours;
        for (std::size_t k = 0; k < 2; ++k) {
            all->faces[k].face = f.faces[k].face;
            all->faces[k].hours += f.faces[k].hours;
            all->faces[k].last_hours += f.faces[k].last_hours;
            all->faces[k].passes_cut += f.faces[k].passes_cut;
            all->faces[k].passes_all += f.faces[k].passes_all;
            all->faces[k].most_off_mm = std::max(all->faces[k].most_off_mm, f.faces[k].most_off_mm);
        }
        take_cautions(all->cautions, f.cautions, leaves[i].slab().name, w, w.job.leaves[i].placement);
    }
    if (!all->ready) all->thickness_mm = all->thickest_mm = 0;
    all->tilt.top_mm = all->tilt.thickness_mm = all->thickness_mm;
    sort_by_severity(all->cautions);
    return all;
}

/// What the leaves have in common: all come to what the thinnest can give.
std::pair<WantedTop, FlatChoices> together(const Planning& w) {
    WantedTop top = w.job.top;
    FlatChoices flat = w.job.flat;
    if (!w.several()) return {top, flat};
    double thickest = 1e300;
    for (std::size_t i = 0; i < w.lays.size(); ++i)
        if (w.lays[i]->ready) thickest = std::min(thickest, thickest_inside(w.leaves[i].shape, w.lays[i]->outline).value_or(thickest));
    const double common = flat.finish == FinishTo::thickest ? thickest : std::min(top.thickness_mm, thickest);
    if (thickest < 1e299 && common > 0) {
        top.thickness_mm = common;
        flat.finish = FinishTo::wanted;
    }
    return {top, flat};
}

void flatten_leaf(Planning& w, std::size_t i, const WantedTop& top, const FlatChoices& flat) {
    LeafPlan& l = w.p.leaves[i];
    auto from = std::make_shared<FlatFrom>(
        FlatFrom{w.slabs.leaves[i], l.lay->outline, l.lay->rough, top.thickness_mm, flat, w.shop.sled, w.job.leaves[i].supports});
    const Plan* b = w.before();
    if (b && i < b->leaves.size() && b->leaves[i].flat_from && *b->leaves[i].flat_from == *from) {
        l.flat_from = b->leaves[i].flat_from;
        l.flat = b->leaves[i].flat;
        l.finished = b->leaves[i].finished;
    } else {
        auto made = std::make_shared<FlatPlan>(
            plan_flat({w.slab(i).slab, w.slab(i).shape, *l.lay, top, flat, w.shop.sled, w.job.leaves[i].supports}));
        // Each of several is planned to the common thickness; the school that is chosen stays the job's.
        if (w.several())
            for (Choice& c : made->choices)
                if (c.key == flat_finishes.choice)
                    for (Option& o : c.options) o.chosen = o.key == flat_finishes.options[flat_finishes.index(w.job.flat.finish)].key;
        l.flat = made;
        if (made->ready) l.finished = std::make_shared<std::pair<Ring, Ring>>(finished_faces(w.slab(i).shape, made->tilt));
        l.flat_from = from;
    }
}

void make_the_top(Planning& w) {
    TopInputs in{{},
                 w.job.top,
                 w.job.makeup,
                 w.p.makeup->joints,
                 w.p.placement.frame(),
                 w.p.flat->thickness_mm,
                 nullptr,
                 {},
                 w.job.under.day_moisture_pct,
                 w.p.shop_settles_pct};
    for (std::size_t i = 0; i < w.leaves.size(); ++i)
        in.leaves.push_back({w.leaves[i].slab, w.leaves[i].shape, w.leaves[i].placement, w.p.leaves[i].flat->tilt, w.p.leaves[i].finished});
    if (!w.shop.resins.empty()) in.river = &river_resin(w.shop.resins, w.job.fill.river);
    for (const auto& board : w.p.patches) in.patches.push_back(board ? &board->up : nullptr);
    w.top = std::make_shared<Top>(make_top(in));
    w.p.top = w.top;
}

}  // namespace

void plan_rack_step(Planning& w) {
    const auto i = static_cast<std::size_t>(std::max(0, w.wanted.on_bench));
    const PreparedSlab& made = w.slab(std::min(i, w.slabs.leaves.size() - 1));
    w.p.rack = {made.shape.usable, made.figures, made.cautions, {}};
    if (made.shape.usable)
        if (const auto dry = drying_of(made.slab, means_of(made.shape).thickness_mm, w.shop.air, dry_enough_pct(w.job.room, w.shop),
                                       made.slab.moisture_on))
            w.p.rack.figures.push_back(drying_figure(*dry, made.slab, dry_enough_pct(w.job.room, w.shop)));
}

void plan_flat_step(Planning& w) {
    if (w.lays.empty()) return;
    const auto [top, flat] = together(w);
    for (std::size_t i = 0; i < w.lays.size(); ++i) flatten_leaf(w, i, top, flat);
    w.p.flat = w.several() ? std::shared_ptr<const FlatPlan>(whole_flat(w)) : w.p.leaves[0].flat;
    if (w.p.flat->ready) make_the_top(w);
}

void plan_fill_step(Planning& w) {
    if (!w.asked(step_key::fill)) {
        w.p.fill = w.before()->fill;
        for (std::size_t i = 0; i < w.p.leaves.size(); ++i) w.p.leaves[i].fill = w.before()->leaves[i].fill;
        return;
    }
    if (w.lays.empty() || !w.top) return;
    std::vector<const FillPlan*> fills;
    std::vector<const Slab*> slabs;
    std::vector<Filling> fillings;
    for (std::size_t i = 0; i < w.lays.size(); ++i) {
        LeafPlan& l = w.p.leaves[i];
        l.fill = std::make_shared<FillPlan>(plan_fill({w.slab(i).slab, w.slab(i).shape, *l.lay, *l.flat, w.job.fill, w.shop.resins,
                                                       w.p.shop_air.temp_c, w.job.leaves[i].voids, w.top.get(), i}));
        fills.push_back(l.fill.get());
        slabs.push_back(&w.slab(i).slab);
        for (const VoidPlan& v : l.fill->voids)
            if (!v.gone && v.volume_l > 0)
                fillings.push_back({i, v.left_open ? "" : v.resin, name_of(v.kind), v.mouth, v.face == Face::a, v.through, v.depth_mm,
                                    v.volume_l, v.left_open ? 0 : 1000 * v.mass_kg / v.volume_l});
    }
    w.p.fill = w.several()
                   ? std::make_shared<FillPlan>(plan_whole_fill({fills, slabs, *w.top, w.job.fill, w.shop.resins, w.p.shop_air.temp_c}))
                   : w.p.leaves[0].fill;
    let_in(*w.top, fillings);
}

void plan_under_step(Planning& w) {
    if (!w.asked(step_key::under)) w.p.under = w.before()->under;
    else if (w.top) w.p.under = std::make_shared<UnderPlan>(plan_under({*w.top, w.job.under, w.job.room, w.p.shop_air}));
}

}  // namespace yb
