// Flat, Fill, Pour, Join and Under as rows of the table: leaf by leaf, then the whole; in between the top that comes of it.
#include <algorithm>
#include <array>
#include <cmath>

#include "core/job/planning.h"
#include "core/figure/place.h"
#include "core/join/join.h"
#include "core/pour/pour.h"
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
        if (c.at) show_at(c, w.p.placement.frame().to_slab(leaf.frame().from_slab(*c.at)));
        into.push_back(std::move(c));
    }
}

/// The figures of all leaves together, each with what every leaf adds to it, and the choices that are the job's.
void tell_together(const Planning& w, FlatPlan& all) {
    const auto& leaves = w.p.leaves;
    const LeafPlan* least = &leaves.front();
    for (const LeafPlan& l : leaves)
        if (l.flat->most_mm < least->flat->most_mm) least = &l;
    const auto of_each = [&](auto&& value) {
        std::vector<Given> out;
        for (const LeafPlan& l : leaves) out.push_back({l.slab().name, value(*l.flat), "its own figures, with it on the bench"});
        return out;
    };
    auto most = of_each([](const FlatPlan& f) { return fine(f.most_mm); });
    most.push_back({"wanted", fine(w.job.top.thickness_mm), "wanted top"});
    all.figures.push_back({"flat.thickness",
                           "Finishes at",
                           fine(all.thickness_mm),
                           {},
                           say("{} is the most these leaves can have together: {} gives no more", fine(all.most_mm), least->slab().name),
                           {"the least of what each leaf can have, or the wanted thickness", most, "docs/methods.md, Several leaves"}});
    all.figures.push_back({"flat.whole",
                           "Whole slabs would finish at",
                           fine(all.whole_mm),
                           {},
                           say("cutting to length first keeps {} more", fine(all.thickest_mm - all.whole_mm)),
                           {"the least of the whole uncut slabs", of_each([](const FlatPlan& f) { return fine(f.whole_mm); }), ""}});
    const FacePlan& show = all.face(Face::a);
    const FacePlan& low = all.face(Face::b);
    auto off = of_each([](const FlatPlan& f) { return fine(f.face(Face::a).most_off_mm); });
    for (Given& g : of_each([](const FlatPlan& f) { return fine(f.face(Face::b).most_off_mm); })) {
        g.name += ", underside";
        off.push_back(g);
    }
    all.figures.push_back({"flat.off",
                           "Off show face, underside",
                           fine(show.most_off_mm),
                           fine(low.most_off_mm),
                           say("at the worst places of all leaves; {} and {} on average", fine(show.mean_off_mm), fine(low.mean_off_mm)),
                           {"the most of any leaf", off, ""}});
    all.figures.push_back(
        {"flat.passes",
         "Lane passes, both faces",
         count(show.passes_cut + low.passes_cut),
         {},
         say("{}", counted(static_cast<double>(leaves.size()), "leaf", "leaves")),
         {"Σ of the leaves", of_each([](const FlatPlan& f) { return count(f.faces[0].passes_cut + f.faces[1].passes_cut); }), ""}});
    all.figures.push_back(hours_figure(all.hours, show.removed_l + low.removed_l, w.shop.sled,
                                       of_each([](const FlatPlan& f) { return hours(f.hours); }), "Σ of the leaves"));
    // What is decided for the job and says the same whichever leaf is looked at.
    FlatAsks asks = leaves.front().flat->asks;
    for (std::size_t i = 1; i < leaves.size(); ++i) asks.add(leaves[i].flat->asks);
    auto summed = flat_work_choices(asks, w.job.flat);
    for (const Choice& c : leaves.front().flat->choices) {
        if (c.key == flat_aims.choice) continue;
        const auto whole = std::find_if(summed.begin(), summed.end(), [&](const Choice& s) { return s.key == c.key; });
        all.choices.push_back(whole == summed.end() ? c : *whole);
    }
    all.asks = asks;
}

/// Flattening of all leaves told as one: what they come to, what comes off, passes and hours in all.
std::shared_ptr<FlatPlan> whole_flat(const Planning& w) {
    auto all = std::make_shared<FlatPlan>();
    const auto& leaves = w.p.leaves;
    all->ready = std::all_of(leaves.begin(), leaves.end(), [](const LeafPlan& l) { return l.flat->ready; });
    all->thickness_mm = all->thickest_mm = all->most_mm = all->whole_mm = all->as_it_lies_mm = 1e300;
    std::array<double, 2> weighted{};
    double area_mm2 = 0;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const FlatPlan& f = *leaves[i].flat;
        if (!f.ready) continue;
        all->thickness_mm = std::min(all->thickness_mm, f.thickness_mm);
        all->thickest_mm = std::min(all->thickest_mm, f.thickest_mm);
        all->most_mm = std::min(all->most_mm, f.most_mm);
        all->whole_mm = std::min(all->whole_mm, f.whole_mm);
        all->as_it_lies_mm = std::min(all->as_it_lies_mm, f.as_it_lies_mm);
        all->hours += f.hours;
        all->step_mm = f.step_mm;
        all->work.by = f.work.by;
        all->work.possible = all->work.possible && f.work.possible;
        all->work.hands_on_h += f.work.hands_on_h, all->work.cost += f.work.cost;
        all->work.wait_h = std::max(all->work.wait_h, f.work.wait_h);
        all->work.leaves_mm = std::max(all->work.leaves_mm, f.work.leaves_mm);
        const double own = area(leaves[i].lay->outline);
        area_mm2 += own;
        for (std::size_t k = 0; k < 2; ++k) {
            FacePlan& to = all->faces[k];
            const FacePlan& of = f.faces[k];
            to.face = of.face;
            for (int FacePlan::*sum :
                 {&FacePlan::layers, &FacePlan::last_layers, &FacePlan::lanes, &FacePlan::passes_all, &FacePlan::passes_cut})
                to.*sum += of.*sum;
            for (double FacePlan::*sum : {&FacePlan::hours, &FacePlan::last_hours, &FacePlan::cut_mm, &FacePlan::removed_l})
                to.*sum += of.*sum;
            for (double FacePlan::*most :
                 {&FacePlan::highest_mm, &FacePlan::plane_mm, &FacePlan::stickout_mm, &FacePlan::spacer_mm, &FacePlan::most_off_mm})
                to.*most = std::max(to.*most, of.*most);
            weighted[k] += of.mean_off_mm * own;
        }
        take_cautions(all->cautions, f.cautions, leaves[i].slab().name, w, w.job.leaves[i].placement);
    }
    if (!all->ready) {
        all->thickness_mm = all->thickest_mm = all->most_mm = all->whole_mm = all->as_it_lies_mm = 0;
    } else {
        for (std::size_t k = 0; k < 2; ++k) all->faces[k].mean_off_mm = weighted[k] / std::max(1.0, area_mm2);
        tell_together(w, *all);
    }
    all->tilt.top_mm = all->tilt.thickness_mm = all->thickness_mm;
    sort_by_severity(all->cautions);
    return all;
}

/// One tilt for all leaves as they lay in the log: each leaf's own a and b; empty where each keeps its own.
std::vector<Tilt> one_tilt(const Planning& w) {
    // Every other aim says itself how each slab is tilted, or that none is.
    if (!w.several() || w.job.flat.tilts != Tilts::one || w.job.flat.aim != FlatAim::share_out) return {};
    std::vector<SlabReadings> all;
    for (std::size_t i = 0; i < w.lays.size(); ++i) {
        const SlabShape& shape = w.leaves[i].shape;
        const Slab& slab = w.slab(i).slab;
        SlabReadings r{deciding_points(shape.top, w.lays[i]->outline), deciding_points(shape.bottom, w.lays[i]->outline), 1, 1};
        if (!w.lays[i]->ready || r.top.empty() || r.bottom.empty()) return {};
        // As it lies now against how it lay in the log: turned over about its length a slope along it changes its sign, end for
        // end both do.
        if (w.job.leaves[i].placement.turned_over != slab.face_b_up) r.sign_a = -1;
        if (slab.ends_swapped) r.sign_a = -r.sign_a, r.sign_b = -1;
        all.push_back(std::move(r));
    }
    return shared_tilt(all);
}

/// The most that all leaves can have, by the aim that was chosen, and what they come to.
std::optional<Together> together(const Planning& w, const std::vector<Tilt>& shared) {
    if (!w.several()) return {};
    const double wanted = w.job.top.thickness_mm;
    double most = 1e300;
    for (std::size_t i = 0; i < w.lays.size(); ++i)
        if (!shared.empty()) most = std::min(most, shared[i].thickness_mm);
        else if (w.lays[i]->ready)
            most =
                std::min(most, most_by_aim(w.leaves[i].shape, w.lays[i]->outline, w.lays[i]->rough, w.job.flat.aim, wanted).value_or(most));
    if (most > 1e299 || most <= 0) return {};
    return Together{w.job.flat.finish == FinishTo::thickest ? most : std::min(wanted, most), most};
}

/// What Under will want of the thickness: the deepest insert from its own floor with what is to stay above it, or a channel's pocket
/// twice over.
Needs needs_of(const UnderChoices& u) {
    Needs out;
    const double insert = u.insert_mm + u.least_above_mm;
    for (const LegPlate& p : u.plates) out = {floor_of(p, u) + insert, "An insert"};
    for (const Channel& c : u.channels) {
        const double most = std::max(2 * c.depth_mm, c.bolts > 0 ? floor_of(c, u) + insert : 0);
        if (most > out.mm) out = {most, "A channel"};
    }
    return out;
}

void flatten_leaf(Planning& w, std::size_t i, const std::optional<Together>& together, const std::vector<Tilt>& shared) {
    LeafPlan& l = w.p.leaves[i];
    const Leaf& leaf = w.job.leaves[i];
    std::vector<Ring> plates;
    const Frame placed = leaf.placement.frame();
    for (const LegPlate& p : w.job.under.plates) plates.push_back(placed.to_slab(footprint(p)));
    const MoistureRange room = moisture_range(w.job.room);
    auto from = std::make_shared<FlatFrom>(FlatFrom{w.slabs.leaves[i],
                                                    l.lay->outline,
                                                    l.lay->rough,
                                                    w.job.top.thickness_mm,
                                                    together,
                                                    shared.empty() ? std::nullopt : std::optional(Vec2{shared[i].a, shared[i].b}),
                                                    w.job.flat,
                                                    w.shop.sled,
                                                    leaf.supports,
                                                    leaf.rounds,
                                                    needs_of(w.job.under),
                                                    w.job.flat.aim == FlatAim::leave_under ? plates : std::vector<Ring>{},
                                                    w.p.shop_settles_pct,
                                                    {room.low_pct, room.high_pct, w.job.under.damper_pct}});
    const Plan* b = w.before();
    if (b && i < b->leaves.size() && b->leaves[i].flat_from && *b->leaves[i].flat_from == *from) {
        l.flat_from = b->leaves[i].flat_from;
        l.flat = b->leaves[i].flat;
        l.finished = b->leaves[i].finished;
        return;
    }
    auto made = std::make_shared<FlatPlan>(
        plan_flat({w.slab(i).slab, w.slab(i).shape, *l.lay, w.job.top, from->choices, from->sled, from->supports, w.slab(i).whole_mm,
                   together, from->tilt, from->rounds, from->needs, from->plates, from->settles_pct, from->service}));
    l.flat = made;
    if (made->ready) l.finished = std::make_shared<std::pair<Ring, Ring>>(finished_faces(w.slab(i).shape, made->tilt));
    l.flat_from = from;
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
                 w.p.shop_settles_pct,
                 w.job.under.sawn};
    for (std::size_t i = 0; i < w.leaves.size(); ++i)
        in.leaves.push_back({w.leaves[i].slab, w.leaves[i].shape, w.leaves[i].placement, w.p.leaves[i].flat->tilt, w.p.leaves[i].finished});
    if (!w.shop.resins.empty()) in.river = &river_resin(w.shop.resins, w.job.fill.river);
    for (const auto& board : w.p.patches) in.patches.push_back(board ? &board->up : nullptr);
    w.top = std::make_shared<Top>(make_top(in));
    w.p.top = w.top;
    if (!w.top->ready || w.top->rivers.empty()) return;
    // From here on rivers are those between the finished planes.
    auto makeup = std::make_shared<MakeUpPlan>(*w.p.makeup);
    makeup->water_mm2 = 0;
    for (const RiverRun& r : w.top->rivers) {
        JointPlan& j = makeup->joints.at(r.joint);
        j.above = r.above, j.below = r.below, j.area_mm2 = r.area_mm2, j.rods = r.rods;
        makeup->water_mm2 += r.area_mm2;
    }
    for (const Region& r : w.top->regions)
        if (!r.let_in && !r.wood() && r.above.size() > 2) makeup->joints.at(r.index).water = r.above;
    w.p.makeup = makeup;
}

}  // namespace

namespace {

/// When a slab is dry, with the figure that tells it; nothing while it is not measured or was never read.
std::optional<std::pair<DryingForecast, Figure>> dries(const Planning& w, const PreparedSlab& made) {
    if (!made.shape.usable) return {};
    const double dry = dry_enough_pct(w.job.room, w.shop);
    const auto forecast = drying_of(made.slab, made.thickness_mm, w.shop.air, dry, made.slab.moisture_on);
    if (!forecast) return {};
    return std::pair(*forecast, drying_figure(*forecast, made.slab, settles_at(w.job.room), dry));
}

/// What the slabs of a top of several are together: ranges and sums, each with what every slab adds, and the one that dries
/// longest.
StepPlan whole_rack(const Planning& w) {
    StepPlan out;
    out.ready = std::all_of(w.slabs.leaves.begin(), w.slabs.leaves.end(), [](const auto& s) { return s->shape.usable; });
    struct Told {
        const char* key;
        const char* label;
        bool summed;
        const char* formula;
    };
    static constexpr std::array told{
        Told{"rack.size", "Shortest and longest slab", false, "the least and the most of the slabs"},
        Told{"rack.width", "Narrowest and widest, all slabs", false, "the least and the most of the slabs"},
        Told{"rack.thickness", "Thickness, all slabs", false, "the least and the most of the slabs"},
        Told{"rack.mass", "The slabs weigh about", true, "Σ of the slabs"},
        Told{"rack.board_feet", "Board feet, all slabs", true, "Σ of the slabs"},
    };
    for (const Told& t : told) {
        Quantity low{1e300, Kind::number};
        Quantity high{-1e300, Kind::number};
        Quantity sum{0, Kind::number};
        Working working{t.formula, {}, ""};
        for (const auto& slab : w.slabs.leaves)
            for (const Figure& f : slab->figures) {
                if (f.key != t.key) continue;
                const Quantity most = f.second.value_or(f.value);
                low = {std::min(low.value, f.value.value), f.value.kind};
                high = {std::max(high.value, most.value), f.value.kind};
                sum = {sum.value + f.value.value, f.value.kind};
                working.given.push_back({slab->slab.name, f.value, f.second ? "to " + format(*f.second, w.shop.units) : "on the rack"});
            }
        if (working.given.size() != w.slabs.leaves.size()) continue;
        out.figures.push_back({t.key, t.label, t.summed ? sum : low, t.summed ? std::nullopt : std::optional(high), {}, working});
    }
    Working price{"Σ of what was typed for the slabs", {}, ""};
    double cost = 0;
    for (const auto& slab : w.slabs.leaves)
        if (slab->slab.price)
            cost += *slab->slab.price, price.given.push_back({slab->slab.name, number(*slab->slab.price), "what you typed"});
    if (const std::size_t priced = price.given.size(); priced > 0)
        out.figures.push_back({"rack.price",
                               "The slabs cost",
                               number(cost),
                               {},
                               priced < w.slabs.leaves.size() ? say("{} of {} have a price", count(static_cast<double>(priced)),
                                                                    count(static_cast<double>(w.slabs.leaves.size())))
                                                              : Phrase{},
                               price});
    std::optional<std::pair<DryingForecast, Figure>> last;
    std::string whose;
    for (const auto& slab : w.slabs.leaves)
        if (auto d = dries(w, *slab); d && (!last || d->first.days.value_or(0) > last->first.days.value_or(0) ||
                                            (!d->first.days && !last->first.days && d->first.moisture_pct > last->first.moisture_pct)))
            last = std::move(d), whose = slab->slab.name;
    if (last) {
        last->second.label += ", " + whose;
        out.figures.push_back(last->second);
    }
    for (const auto& slab : w.slabs.leaves)
        for (Caution c : slab->cautions) {
            c.of = slab->slab.name;
            c.at.reset();  // places on a slab are told with it on the bench
            out.cautions.push_back(std::move(c));
        }
    sort_by_severity(out.cautions);
    return out;
}

}  // namespace

void plan_rack_step(Planning& w) {
    if (w.several() && w.wanted.on_bench == whole_top) {
        w.p.rack = whole_rack(w);
        return;
    }
    const auto i = static_cast<std::size_t>(std::max(0, w.wanted.on_bench));
    const PreparedSlab& made = w.slab(std::min(i, w.slabs.leaves.size() - 1));
    w.p.rack = {made.shape.usable, made.figures, made.cautions, {}};
    if (auto d = dries(w, made)) w.p.rack.figures.push_back(std::move(d->second));
}

void plan_flat_step(Planning& w) {
    if (w.lays.empty()) return;
    const std::vector<Tilt> shared = one_tilt(w);
    const auto all = together(w, shared);
    for (std::size_t i = 0; i < w.lays.size(); ++i) flatten_leaf(w, i, all, shared);
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

void plan_pour_step(Planning& w) {
    if (!w.asked(step_key::pour)) {
        w.p.pour = w.before()->pour;
        return;
    }
    if (!w.top) return;
    w.p.pour = std::make_shared<PourPlan>(plan_pour({*w.top, w.job.pour, w.job.fill, w.shop.resins, w.p.shop_air.temp_c}));
}

void plan_join_step(Planning& w) {
    if (!w.asked(step_key::join)) w.p.join = w.before()->join;
    else if (w.top) {
        JoinInputs in{*w.top, *w.p.makeup, w.job.makeup, w.job.join, w.job.under, w.p.shop_air.temp_c, w.job.under.least_above_mm};
        for (const auto& leaf : w.leaves) in.shapes.push_back(&leaf.shape), in.slabs.push_back(&leaf.slab);
        w.p.join = std::make_shared<JoinPlan>(plan_join(in));
    }
}

void plan_under_step(Planning& w) {
    if (!w.asked(step_key::under)) w.p.under = w.before()->under;
    else if (w.top)
        w.p.under = std::make_shared<UnderPlan>(
            plan_under({*w.top, w.job.under, w.job.room, w.p.shop_air, w.job.makeup.halves_u_mm, w.shop.store}));
}

}  // namespace yb
