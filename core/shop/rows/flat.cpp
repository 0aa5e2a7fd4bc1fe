// Flat as a row of the table: leaf by leaf, then the whole, and the top that comes of it.
#include <algorithm>
#include <array>
#include <cmath>

#include "core/ground/work/work.h"
#include "core/material/resin/mix.h"
#include "core/shop/rows/row.h"
#include "core/steps/flat/dragged.h"
#include "core/steps/flat/holding.h"
#include "core/steps/flat/next_reading.h"
#include "core/steps/flat/whole.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"

namespace yb {

namespace of_flat {

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

std::shared_ptr<FlatFrom> from_of(const Planning& w, std::size_t i, const std::vector<Tilt>& shared) {
    const Leaf& leaf = w.job.leaves[i];
    std::vector<Ring> plates;
    const Frame placed = leaf.placement.frame();
    for (const LegPlate& p : w.job.under.plates) plates.push_back(placed.to_slab(footprint(p)));
    return std::make_shared<FlatFrom>(FlatFrom{w.slabs.leaves[i],
                                               w.lays[i]->outline,
                                               w.lays[i]->rough,
                                               w.job.top.thickness_mm,
                                               {},
                                               shared.empty() ? std::nullopt : std::optional(Vec2{shared[i].a, shared[i].b}),
                                               w.job.flat,
                                               w.shop.sled,
                                               leaf.supports,
                                               leaf.rounds,
                                               needs_of(w.job.under),
                                               w.job.flat.aim == FlatAim::leave_under ? plates : std::vector<Ring>{},
                                               w.air(step_key::flat).settles_pct()});
}

FlatInputs inputs_of(const Planning& w, std::size_t i, const FlatFrom& from, const Solved& solved) {
    return {w.slab(i).slab, w.slab(i).shape, *w.lays[i],         w.job.top,        from.choices,
            from.sled,      from.supports,   w.slab(i).whole_mm, from.together,    from.tilt,
            from.rounds,    from.needs,      from.plates,        from.settles_pct, solved.empty() ? nullptr : &solved};
}

/// The most that all leaves can have, by the aim that was chosen and after the rest, and what they come to. @param solved each leaf's
/// tilts.
std::optional<Together> together(const Planning& w, const std::vector<std::shared_ptr<FlatFrom>>& from, std::vector<Solved>& solved) {
    if (!w.several()) return {};
    double most = 1e300;
    std::vector<std::optional<MostOf>> each(w.lays.size());
    in_parallel(w.lays.size(), [&](std::size_t i) {
        if (!w.lays[i]->ready) return;
        solved[i] = solved_inside(w.leaves[i].shape, w.lays[i]->outline);
        each[i] = most_of(inputs_of(w, i, *from[i], solved[i]), solved[i]);
    });
    for (const auto& m : each)
        if (m) most = std::min(most, m->mm);
    if (most > 1e299 || most <= 0) return {};
    return Together{w.job.flat.finish == FinishTo::thickest ? most : std::min(w.job.top.thickness_mm, most), most};
}

void flatten_leaf(Planning& w, std::size_t i, const std::shared_ptr<FlatFrom>& from, const Solved& solved) {
    LeafPlan& l = w.p.leaves[i];
    const Plan* b = w.before();
    if (b && i < b->leaves.size() && b->leaves[i].flat_from && *b->leaves[i].flat_from == *from) {
        l.flat_from = b->leaves[i].flat_from;
        l.flat = b->leaves[i].flat;
        l.finished = b->leaves[i].finished;
        return;
    }
    const FlatInputs in = inputs_of(w, i, *from, solved);
    // Not kept with what it was planned from while something is dragged: at rest it is planned whole.
    const bool whole = w.asked(step_key::flat);
    const auto made = std::make_shared<FlatPlan>(whole ? plan_flat(in) : plan_flat_dragged(in, *b->leaves[i].flat));
    l.flat = made;
    if (made->ready) l.finished = std::make_shared<std::pair<Ring, Ring>>(finished_faces(w.slab(i).shape, made->tilt));
    if (whole) l.flat_from = from;
}

/// What each leaf will do where the table stands, by the width that it has in the top.
void tell_where_it_stands(Planning& w) {
    const MoistureRange room = moisture_range(w.job.room);
    const Service service{room.low_pct, room.high_pct, w.job.under.damper_pct};
    const auto widest = w.top->widest();
    for (std::size_t i = 0; i < w.p.leaves.size(); ++i) {
        LeafPlan& l = w.p.leaves[i];
        // From one of its edges to the other: a void in it that is filled does not part it.
        double from = 1e300, to = -1e300;
        for (const Across& a : w.top->across(widest.u_mm))
            if (a.region == i) from = std::min(from, a.from), to = std::max(to, a.to);
        const double wide = std::max(0.0, to - from);
        const auto told = std::make_shared<FlatPlan>(*l.flat);
        tell_service(*told, w.slab(i).slab, service, wide);
        if (told->service_wide_mm == l.flat->service_wide_mm && told->service_cup_mm == l.flat->service_cup_mm &&
            told->one_face_mm == l.flat->one_face_mm)
            continue;
        if (w.p.flat == l.flat) w.p.flat = told;
        l.flat = told;
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
                 w.air(step_key::under).settles_pct(),
                 w.job.under.sawn};
    for (std::size_t i = 0; i < w.leaves.size(); ++i)
        in.leaves.push_back({w.leaves[i].slab, w.leaves[i].shape, w.leaves[i].placement, w.p.leaves[i].flat->tilt, w.p.leaves[i].finished,
                             w.p.leaves[i].flat->stays});
    if (!w.shop.resins.empty()) in.river = &river_resin(w.shop.resins, w.job.fill.river);
    for (const auto& board : w.p.patches) in.patches.push_back(board ? &board->up : nullptr);
    w.top = std::make_shared<Top>(make_top(in));
    w.p.top = w.top;
    if (w.top->ready && !w.quick) tell_where_it_stands(w);
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

void plan(Planning& w) {
    if (w.lays.empty()) return;
    const std::vector<Tilt> shared = one_tilt(w);
    std::vector<Solved> solved(w.lays.size());
    std::vector<std::shared_ptr<FlatFrom>> from;
    for (std::size_t i = 0; i < w.lays.size(); ++i) from.push_back(from_of(w, i, shared));
    const auto all = together(w, from, solved);
    for (const auto& f : from) f->together = all;
    in_parallel(w.lays.size(), [&](std::size_t i) { flatten_leaf(w, i, from[i], solved[i]); });
    if (w.several() && !w.asked(step_key::flat) && w.before()->flat->ready) {
        auto whole = std::make_shared<FlatPlan>(*w.before()->flat);
        whole->thickness_mm = whole->thickest_mm = whole->most_mm = 1e300;
        for (const LeafPlan& l : w.p.leaves)
            for (double FlatPlan::*least : {&FlatPlan::thickness_mm, &FlatPlan::thickest_mm, &FlatPlan::most_mm})
                (*whole).*least = std::min((*whole).*least, (*l.flat).*least);
        whole->tilt.top_mm = whole->tilt.thickness_mm = whole->thickness_mm;
        w.p.flat = whole;
    } else if (w.several()) {
        WholeFlatInputs in{{}, w.job.top.thickness_mm, w.job.flat, w.shop.sled, w.p.placement.frame(), w.shop.units};
        for (std::size_t i = 0; i < w.p.leaves.size(); ++i)
            in.leaves.push_back({*w.p.leaves[i].flat, w.p.leaves[i].slab(), *w.p.leaves[i].lay, w.job.leaves[i].placement});
        w.p.flat = std::make_shared<FlatPlan>(plan_whole_flat(in));
    } else {
        w.p.flat = w.p.leaves[0].flat;
    }
    if (w.p.flat->ready) make_the_top(w);
}

/// Something comes off it before the rest.
bool roughs(const FacePlan& face) { return face.layers > face.last_layers; }

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        // Two faces with a rest between, the last pass after it.
        {"flat1", "flat", {{"rough"}, {"soak", "T18"}}, {"bark", "clean"}},
        {"flat2", "flat", {{"flat1", "T16"}, {"rough"}, {"soak", "T18"}}},
        {"last", "flat", {{"flat2", "T16"}}},
        {"again", "flat", {{"unmould", "T39"}}, {"scrape", "glue", "last"}, false, true},
    };
    return all;
}

void operations(const Planning& w, std::vector<Operation>& out) {
    const FlatPlan& f = *w.p.flat;
    if (f.work.by == FlatBy::bought_flat) return;  // it came flat
    if (f.work.by != FlatBy::sled && f.work.possible) {
        give(out, f, "flat1", name_of(f.work.by), step_key::flat, f.work.hands_on_h, std::max(f.work.wait_h, w.job.flat.rest_h));
        return;
    }
    // Each leaf is turned, and held again, for each of its faces that is planed.
    const Labour& l = w.shop.labour;
    const double holds_min = 60 * holding_h(f.asks, w.job.flat.held) / 2 / static_cast<double>(w.p.leaves.size());
    const auto work = [&](double turned, double lanes_h) {
        return Task().add("leaf laid and turned", turned, l.turn_min).add("leaf held", turned, holds_min).add("lanes", 1, 60 * lanes_h);
    };
    const auto faces = [&](auto&& counts) {
        double n = 0;
        for (const LeafPlan& leaf : w.p.leaves) n += counts(*leaf.flat);
        return n;
    };
    const double last = f.faces[0].last_hours + f.faces[1].last_hours;
    bool rails = true;
    const auto with_rails = [&](Task task) { return std::exchange(rails, false) ? task.set_up(l.flat_set_min) : task; };
    for (std::size_t k = 0; k < 2; ++k) {
        const double turned = faces([&](const FlatPlan& leaf) { return roughs(leaf.faces[k]) ? 1 : 0; });
        if (turned <= 0) continue;
        // It rests once both faces are roughed, or the one that is.
        const bool then_rests = k == 1 || !roughs(f.faces[1]);
        give(out, f, k == 0 ? "flat1" : "flat2", k == 0 ? "Face one" : "Face two", step_key::flat,
             with_rails(work(turned, f.faces[k].hours - f.faces[k].last_hours)), then_rests ? w.job.flat.rest_h : 0);
    }
    if (last > 0) {
        const double turned = faces([](const FlatPlan& leaf) { return (leaf.faces[0].last_layers > 0) + (leaf.faces[1].last_layers > 0); });
        give(out, f, "last", "Last pass", step_key::flat, with_rails(work(turned, last)), 0);
    }
    // What was poured or glued is flattened again, resin as wood: a layer off each face.
    if (!w.p.pour->lifts.empty() || !w.p.join->joints.empty()) {
        double layer_h = 0, layers = 0;
        for (const FacePlan& face : f.faces) layer_h += face.hours, layers += face.layers;
        if (layers > 0) {
            give(out, f, "again", "Flatten again", step_key::flat,
                 Task().set_up(l.flat_set_min).add("top laid and turned", 2, l.turn_min).add("lanes", 1, 60 * 2 * layer_h / layers), 0);
        }
    }
}

/// What it has settled to counts when the last of it is done.
void give_operations(const Planning& w, std::vector<Operation>& out) {
    const std::size_t before = out.size();
    operations(w, out);
    for (std::size_t i = out.size(); i-- > before;)
        if (out[i].key != "again") {
            out[i].in_air = true;
            break;
        }
}

void needs(const ThingsAsk& a, std::vector<Need>& out) {
    const FlatPlan& f = *a.plan.flat;
    if (!f.ready) return;
    const bool sled = f.work.by == FlatBy::sled || !f.work.possible;
    const char* first = f.work.by == FlatBy::bought_flat ? "rough"
                        : !sled || roughs(f.faces[0])    ? "flat1"
                        : roughs(f.faces[1])             ? "flat2"
                                                         : "last";
    if (f.work.cost > 0) out.push_back({NeedKind::outside, "flat", name_of(f.work.by), 1, "pcs", first, {}, {}, f.work.cost});
    if (f.work.by == FlatBy::machine_shop || f.work.by == FlatBy::bought_flat) return;
    double m2 = 0;
    for (const LeafPlan& l : a.plan.leaves)
        if (l.lay && l.flat)
            for (const FacePlan& face : l.flat->faces)
                if (face.layers > 0) m2 += area(l.lay->rough) * 1e-6;
    if (m2 > 0)
        out.push_back({NeedKind::consumable, "cutter", "Wear of the cutter", m2, "m2", first, {}, {}, a.shop.money.prices.cutter_m2});
}

void things(const ThingsAsk& a, std::vector<Thing>& out) {
    const Plan& plan = a.plan;
    if (!plan.flat->ready || !plan.slab()) return;
    const std::size_t leaf = plan.on_bench < 0 ? 0 : static_cast<std::size_t>(plan.on_bench);
    add(out, flat_things(*plan.flat, a.shop.sled, a.job.leaves.at(std::min(leaf, a.job.leaves.size() - 1)).rounds));
    if (const auto next = next_reading(*plan.slab(), *plan.shape(), *plan.flat, plan.lay->outline)) out.push_back(reading_thing(*next));
    if (const auto missed = what_readings_missed(*plan.slab(), *plan.shape(), *plan.flat, plan.lay->outline))
        out.push_back(missed_thing(*missed, *plan.flat));
}

template <FlatCard which>
std::vector<CardStep> flat_steps(const CardAsk& a) {
    if (a.plan.flat->work.by != FlatBy::sled && a.plan.flat->work.possible) return {};
    std::vector<FlatCardLeaf> leaves;
    for (const LeafPlan& l : a.plan.leaves)
        if (l.flat && l.flat->ready) leaves.push_back({l.flat.get(), a.plan.leaves.size() > 1 ? l.slab().name : std::string()});
    return flat_card(leaves, a.shop.sled, which);
}

std::span<const CardRow> cards() {
    static constexpr CardRow all[] = {{"flat_one", "The first face", "flat1", "", flat_steps<FlatCard::first_face>},
                                      {"flat_two", "The second face", "flat2", "", flat_steps<FlatCard::second_face>},
                                      {"flat_last", "After the rest", "last", "", flat_steps<FlatCard::after_rest>}};
    return all;
}

void fields_of(FieldVisitor& v, Job& j) { v.object({"flat", "Flat"}, j.flat); }

void empty(Plan& p) {
    p.flat = no<FlatPlan>(), p.top = no<Top>();
    for (LeafPlan& l : p.leaves) l.flat = p.flat;
}

std::span<const MendEdit> edits() {
    static constexpr MendEdit all[] = {
        {"thickness", [](Documents&, Job& j, const Takes& n) { j.top.thickness_mm = n.at(0); }},
        {"shared_out", [](Documents&, Job& j, const Takes&) { j.flat.aim = FlatAim::share_out; }},
        {"rested",
         [](Documents&, Job& j, const Takes& n) {
             j.flat.rest_h = n.at(0);
             j.flat.allowance_mm = std::max(1.0, j.flat.allowance_mm);
         }},
        {"air_on_both", [](Documents&, Job& j, const Takes&) { j.flat.rests = Rests::to_air; }},
        {"rails", [](Documents& d, Job&, const Takes& n) { d.shop.sled.rail_mm = n.at(0); }},
        {"usual_supports",
         [](Documents&, Job& j, const Takes&) {
             for (Leaf& l : j.leaves) l.supports.clear();
         }},
        {"beam_high", [](Documents& d, Job&, const Takes& n) { d.shop.sled.beam_high_mm = n.at(0); }},
        {"allowance",
         [](Documents&, Job& j, const Takes& n) {
             j.flat.allowance_mm = n.at(0);
             if (j.flat.rest_h <= 0) j.flat.rest_h = 24;
         }},
        {"by_sled", [](Documents&, Job& j, const Takes&) { j.flat.by = FlatBy::sled; }},
        {"shallow_layers", [](Documents& d, Job&, const Takes& n) { d.shop.sled.depth_mm = n.at(0); }},
    };
    return all;
}

/// What might help, the gentlest first.
void mends(const MendAsk& a) {
    const Caution& c = a.caution;
    if (c.key == "flat.thin" && a.plan.flat->thickness_mm > 5) {
        double least = a.plan.flat->most_mm;
        for (const LeafPlan& l : a.plan.leaves) least = std::min(least, l.flat->most_mm);
        const double agreed = std::floor(least * 2) / 2;
        a.offer("thickness", say("Agree on {} · −{}", fine(agreed), fine(a.job.top.thickness_mm - agreed)), {agreed});
        a.offer("shared_out", say("Share it out with shims"));
    }
    if (c.key == "flat.unshimmed") a.offer("shared_out", say("Shim it: share it out"));
    if (c.key == "flat.rest") a.offer("rested", say("Let it rest · +{}", hours(24 - a.job.flat.rest_h)), {24});
    if (c.key == "flat.airtight" || c.key == "flat.wrapped") a.offer("air_on_both", say("Stand it with air on both faces"));
    if (c.key == "flat.rails") {
        double highest = 0;
        for (const LeafPlan& l : a.plan.leaves)
            for (const FacePlan& f : l.flat->faces) highest = std::max(highest, f.highest_mm);
        a.offer("rails", say("Raise the rails to {}", mm(std::ceil(highest))), {std::ceil(highest)});
    }
    if (c.key == "flat.stickout") {
        double over = 0;
        double highest = 0;
        for (const LeafPlan& l : a.plan.leaves)
            for (const FacePlan& f : l.flat->faces) {
                over = std::max(over, f.stickout_mm - a.docs.shop.sled.stickout_mm);
                highest = std::max(highest, f.highest_mm);
            }
        const double lower = std::floor(a.docs.shop.sled.rail_mm - over);
        if (lower >= highest) a.offer("rails", say("Lower the rails to {}", mm(lower)), {lower});
    }
    if (c.key == "flat.sag") {
        const double high = std::ceil(a.docs.shop.sled.beam_high_mm * std::cbrt(sled_sag_mm(a.docs.shop.sled) / 0.15));
        a.offer("beam_high", say("Build its beams {} high", mm(high)), {high});
    }
    if (const auto leave = c.ask("allowance_mm"); c.key == "flat.moves" && leave)
        a.offer("allowance", say("Leave {} on each face", fine(*leave)), {*leave});
    if (c.key == "flat.way") a.offer("by_sled", say("Take the sled"));
    if (c.key == "flat.deep" || c.key == "flat.power")
        for (const double d : {std::floor(a.docs.shop.sled.cutter_mm / 8), a.docs.shop.sled.depth_mm / 2})
            if (d >= 0.5 && d < a.docs.shop.sled.depth_mm) a.offer("shallow_layers", say("Layers of {}", fine(d)), {d});
    if (c.key == "flat.supports" || c.key == "flat.rocks" || c.key == "flat.support_off")
        a.offer("usual_supports", say("Lay four supports, a fifth in"));
}

}  // namespace of_flat

StepRow flat_row() {
    using namespace of_flat;
    return {
        .step = step_key::flat,
        .name = "Flat",
        .coming = "flatten it",
        .on = StepRow::On::leaf,
        .says = says<&Plan::flat>,
        .own = own<&Plan::flat>,
        .headlines = flat_headlines,
        .empty = empty,
        .plan = plan,
        .operations = give_operations,
        .kinds = kinds,
        .needs = needs,
        .things = things,
        .cards = cards,
        .fields = fields_of,
        .shop = "sled",
        .edits = edits,
        .mends = mends,
    };
}

}  // namespace yb
