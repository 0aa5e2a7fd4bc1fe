// Fill as a row of the table.

#include "core/material/resin/mix.h"
#include "core/shop/edit/edits.h"
#include "core/shop/rows/row.h"
#include "core/steps/pour/voids.h"

namespace yb {

namespace of_fill {

void plan(Planning& w) {
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
        auto made = std::make_shared<FillPlan>(plan_fill({w.slab(i).slab, w.slab(i).shape, *l.lay, *l.flat, w.job.fill, w.shop.resins,
                                                          w.air(step_key::fill).day.temp_c, w.job.leaves[i].voids, w.top.get(), i}));
        heat_in_voids(*made, w.shop.resins, w.air(step_key::fill).day.temp_c);
        l.fill = std::move(made);
        fills.push_back(l.fill.get());
        slabs.push_back(&w.slab(i).slab);
        for (const VoidPlan& v : l.fill->voids)
            if (!v.gone && v.volume_l > 0)
                fillings.push_back({i, v.left_open ? "" : v.resin, name_of(v.kind), v.mouth, v.face == Face::a, v.through, v.depth_mm,
                                    v.volume_l, v.left_open ? 0 : 1000 * v.mass_kg / v.volume_l, v.river});
    }
    w.p.fill = w.several() ? std::make_shared<FillPlan>(
                                 plan_whole_fill({fills, slabs, *w.top, w.job.fill, w.shop.resins, w.air(step_key::fill).day.temp_c}))
                           : w.p.leaves[0].fill;
    let_in(*w.top, fillings);
}

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        {"buy_resin", "", {}, {"lay"}, true},
        {"clean", "lay", {}, {"rough", "bark"}, false, true},
        {"soak", "fill", {{"buy_resin", "T41"}}, {"clean"}},
        {"fill", "fill", {{"buy_resin", "T41"}}, {"touchup", "again", "tie_jig"}},
        {"level", "fill", {{"fill"}}},
    };
    return all;
}

/// What has to be cleaned out before anything is flattened, dm² of walls and floors: rot, bark, loose knots.
std::pair<int, double> loose(const FillPlan& f) {
    std::pair<int, double> out;
    for (const VoidPlan& v : f.voids) {
        if (v.gone || (v.kind != FlawKind::pocket && v.kind != FlawKind::soft && v.kind != FlawKind::knot && v.kind != FlawKind::void_))
            continue;
        ++out.first, out.second += (area(v.outline) + girth(v.outline) * v.depth_mm) * 1e-4;
    }
    return out;
}

void operations(const Planning& w, std::vector<Operation>& out) {
    const FillPlan& f = *w.p.fill;
    const Labour& l = w.shop.labour;
    if (const auto [places, dm2] = loose(f); places > 0)
        give(out, f, "clean", "Clean out", step_key::fill,
             Task().set_up(l.clean_set_min).add("dm² of walls and floor", dm2, l.clean_dm2_min), 0);
    const auto soaked = std::count_if(f.voids.begin(), f.voids.end(), [](const VoidPlan& v) { return v.soaked; });
    // Soft wood is soaked before it is planed: what crumbles tears.
    if (soaked > 0) {
        give(out, *w.p.flat, "soak", "Soak", step_key::flat,
             Task().set_up(l.soak_set_min).add("place", static_cast<double>(soaked), l.soak_min), soaked_wait_h);
        waits_with(out, AirWait::cures, w);
    }
    if (f.rounds == 0) return;
    static constexpr const char* names[] = {"Fill",    "Second round", "Third round", "Round 4",  "Round 5",  "Round 6",
                                            "Round 7", "Round 8",      "Round 9",     "Round 10", "Round 11", "Round 12"};
    for (std::size_t k = 0; k < f.each.size(); ++k) {
        const FillRound& round = f.each[k];
        Task task;
        task.set_up(l.fill_set_min).add("resin mixed", round.resins, l.fill_batch_min).add("void", round.places, l.fill_place_min);
        if (k == 0) task.add("void made ready", round.places, l.fill_ready_min).add("void taped below", round.taped, l.fill_tape_min);
        if (k == 0) {
            give(out, f, "fill", names[0], step_key::fill, std::move(task), round.wait_h);
            out.back().in_one_go = true;
        } else if (k < std::size(names)) {
            give_part(out, f, static_cast<int>(k) + 1, names[k], std::move(task), round.wait_h);
        } else {  // more than anybody fills a void in: all of them are in the last
            out.back().hands_on_h += task.hours(), out.back().waiting_h += round.wait_h;
            continue;
        }
        waits_with(out, AirWait::cures, w);
    }
    give(out, f, "level", "Level", step_key::fill, Task().set_up(l.level_set_min).add("void", f.each.front().places, l.level_place_min), 0);
}

void needs(const ThingsAsk& a, std::vector<Need>& out) {
    const FillPlan& f = *a.plan.fill;
    for (const VoidPlan& v : f.voids) {
        double mixed_l = 0;
        for (const Lift& l : v.lifts) mixed_l += l.volume_l;
        if (v.left_open || v.river || !(mixed_l > 0)) continue;
        if (const Resin* r = find_resin(a.shop.resins, v.resin)) need_resin(out, *r, mixed_l, "fill");
    }
    for (const Resin& r : a.shop.resins)
        if (r.soaks && f.soak_l > 0) {
            need_resin(out, r, f.soak_l, "soak");
            break;
        }
    if (f.tape_mm > 0)
        out.push_back({NeedKind::consumable,
                       "tape",
                       "Tape, rolls",
                       f.tape_mm / 1000 / std::max(1.0, a.job.pour.roll_m),
                       "pcs",
                       "fill",
                       {},
                       1.0,
                       a.shop.money.prices.tape_roll});
    if (const double dose = a.job.fill.pigment_g_kg; dose > 0)
        out.push_back(
            {NeedKind::consumable, "pigment", "Pigment", f.mass_kg * dose / 1000, "kg", "fill", {}, {}, a.shop.money.prices.pigment_kg});
}

void things(const ThingsAsk& a, std::vector<Thing>& out) {
    if (a.plan.fill->ready) add(out, fill_things(*a.plan.fill, a.shop.resins));
}

void fields_of(FieldVisitor& v, Job& j) { v.object({"fill", "Fill"}, j.fill); }

void empty(Plan& p) {
    p.fill = no<FillPlan>();
    for (LeafPlan& l : p.leaves) l.fill = p.fill;
}

std::span<const MendEdit> edits() {
    static constexpr MendEdit all[] = {
        {"void_resin",
         [](Documents& d, Job& j, const Takes& n) {
             const Flaw& flaw = d.slabs.at(j.leaves.at(index(n.at(0))).slab).flaws.at(index(n.at(1)));
             set_choice(j, key_of(VoidChoice{false, flaw.id}), d.shop.resins.at(index(n.at(2))).key, static_cast<int>(n.at(0)));
         }},
    };
    return all;
}

/// What might help, the gentlest first.
void mends(const MendAsk& a) {
    const Caution& c = a.caution;
    if (c.key == "fill.leak" && c.at)
        for (std::size_t i = 0; i < a.plan.leaves.size(); ++i)
            for (const VoidPlan& v : a.plan.leaves[i].fill->voids)
                for (std::size_t k = 0; k < a.docs.shop.resins.size(); ++k)
                    if (v.through && a.docs.shop.resins[k].key == v.advised && v.resin != v.advised)
                        a.offer("void_resin", say("Take {} · as advised", a.docs.shop.resins[k].label),
                                {static_cast<double>(i), static_cast<double>(v.flaw), static_cast<double>(k)});
}

}  // namespace of_fill

StepRow fill_row() {
    using namespace of_fill;
    return {
        .step = step_key::fill,
        .name = "Fill",
        .coming = "fill the voids",
        .on = StepRow::On::top,
        .says = says<&Plan::fill>,
        .own = own<&Plan::fill>,
        .headlines = fill_headlines,
        .empty = empty,
        .plan = plan,
        .operations = operations,
        .kinds = kinds,
        .needs = needs,
        .things = things,
        .fields = fields_of,
        .shop = "resins",
        .edits = edits,
        .mends = mends,
    };
}

}  // namespace yb
