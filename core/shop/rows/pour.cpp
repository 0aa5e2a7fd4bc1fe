// Pour as a row of the table.

#include "core/steps/pour/pour.h"
#include "core/material/resin/mix.h"
#include "core/shop/rows/row.h"

namespace yb {

namespace of_pour {

void plan(Planning& w) {
    if (!w.asked(step_key::pour)) {
        w.p.pour = w.before()->pour;
        return;
    }
    if (!w.top) return;
    w.p.pour = std::make_shared<PourPlan>(
        plan_pour({*w.top, w.job.pour, w.job.fill, w.shop.resins, w.air(step_key::pour).day.temp_c, w.job.makeup.two_colours}));
}

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        {"form", "form", {{"bark"}}, {"rods"}},
        {"pour", "pour", {{"bark"}, {"form"}, {"buy_resin", "T41"}}, {"glue", "rods"}},
        {"shave", "pour", {}, {"pour"}},
        {"unmould", "pour", {{"pour", "T39"}, {"shave", "T39"}}},
        {"scrape", "pour", {{"unmould", "T39"}}},
        {"topup", "pour", {}, {"scrape", "again"}},
        {"bleed", "pour", {{"unmould", "T39"}}, {"topup"}},
        {"touchup", "pour", {}, {"bleed"}},
    };
    return all;
}

/// How long the rivers are, m: both their banks are twice that.
double river_m(const PourPlan& p) {
    double mm = 0;
    for (const Compartment& c : p.compartments) mm += bounds(c.above).width();
    return mm / 1000;
}

constexpr double a_night_h = 12;  ///< what was topped up is left over night, however quick it is

void operations(const Planning& w, std::vector<Operation>& out) {
    const PourPlan& p = *w.p.pour;
    if (p.lifts.empty()) return;
    const Labour& l = w.shop.labour;
    const double panels = static_cast<double>(p.form.sheets.size()), river = river_m(p);
    // The form is made while the leaves rest; it is taken until what is poured into it is hard.
    give(out, p, "form", "Form", step_key::pour,
         Task()
             .set_up(l.form_set_min)
             .add("panel", panels, l.form_panel_min)
             .add("m of tape", p.form.tape_m, l.form_tape_m_min)
             .add("m of seam", p.form.caulk_m, l.form_seam_m_min),
         0);
    out.back().aside = true, out.back().after = {"lay"};
    // Soft, what stands proud is shaved; until it is hard it stays in its form; what is topped up or touched up has to get hard again.
    const Task shaving = Task().add("m of edge", 2 * river, l.shave_m_min);
    const double last_h = p.visits.back().wait_h;
    const double soft = last_h - p.clock.hard_h + p.clock.shave_from_h;
    const bool shaved = p.clock.hard_h - p.clock.shave_from_h > shaving.hours();
    static constexpr const char* names[] = {"Resin in", "Second lift", "Third lift", "Lift 4",  "Lift 5",  "Lift 6",
                                            "Lift 7",   "Lift 8",      "Lift 9",     "Lift 10", "Lift 11", "Lift 12"};
    static_assert(std::size(names) == most_lifts);
    const Resin* resin = find_resin(w.shop.resins, p.resin);
    for (std::size_t k = 0; k < p.visits.size(); ++k) {
        const PourVisit& v = p.visits[k];
        const double wait = k + 1 < p.visits.size() || !shaved ? v.wait_h : soft;
        Task task;
        task.set_up(l.pour_set_min)
            .add("batch mixed", v.batches, w.job.pour.mix_min)
            .add("batch degassed", w.job.pour.degas ? v.batches : 0, degas_min)
            .add("batch poured", v.batches, l.pour_batch_min);
        if (k == 0) {
            give(out, p, "pour", names[0], step_key::pour, std::move(task), wait);
            out.back().at = Place::form, out.back().keeps = true, out.back().in_one_go = true;
            // What is thin finds every gap in its first two hours.
            out.back().watched_h = resin && resin->thin ? 2 : 0;
        } else {
            give_part(out, p, static_cast<int>(k) + 1, names[k], std::move(task), wait);
        }
        waits_with(out, AirWait::cures, w);
    }
    if (shaved) {
        give(out, p, "shave", "Shave warm", step_key::pour, shaving, last_h - soft - shaving.hours());
        waits_with(out, AirWait::cures, w);
        out.back().at = Place::form, out.back().keeps = true;
    }
    give(out, p, "unmould", "Unmould", step_key::pour, Task().set_up(l.unmould_min).add("panel", panels, l.unmould_panel_min), 0);
    give(out, p, "scrape", "Scrape", step_key::pour, Task().add("m of river", river, l.scrape_m_min), 0);
    const auto little = [&](const char* key, const char* label) {
        give(out, p, key, label, step_key::pour, Task().set_up(l.little_set_min).add("m of river", river, l.little_m_min),
             std::max(a_night_h, p.little.hard_h));
        waits_with(out, AirWait::cures, w);
        out.back().in_one_go = true;
    };
    little("topup", "Top up");
    // What crept over a live edge and was not shaved while it was soft comes off once it is hard: between the two it clogs every disc.
    if (w.job.top.live != LiveEdges::none) {
        const double edges = (w.job.top.live == LiveEdges::both ? 2 : 1) * w.job.top.length_mm / 1000;
        give(out, p, "bleed", "Clean edges", step_key::pour, Task().add("m of live edge", edges, l.bleed_m_min), 0);
    }
    little("touchup", "Touch up");
}

/// A lift that falls to where the one before has lost its tack no longer bonds to it by itself.
void dated(Planning& w) {
    const std::vector<PourVisit>& visits = w.p.pour->visits;
    const auto op = [&](std::size_t k) {
        const std::string key = k == 0 ? "pour" : "pour_" + std::to_string(k + 1);
        const auto& all = w.p.days->operations;
        const auto it = std::find_if(all.begin(), all.end(), [&](const Operation& o) { return o.key == key; });
        return it == all.end() ? nullptr : &*it;
    };
    for (std::size_t k = 1; k < visits.size(); ++k) {
        const Operation *before = op(k - 1), *o = op(k);
        if (!before || !o || o->done_h) continue;
        const double after_h = o->start_h - before->hands_end_h;
        if (after_h <= visits[k - 1].next_to_h + 1e-6) continue;
        StepPlan& says = *own<&Plan::pour>(w.p);
        says.cautions.push_back(
            {"pour.no_tack", Severity::watch, step_key::pour,
             say("{} comes {} after the one before, by the hours hands are there; it bonds by itself until {}. Begin the pour on another "
                 "day, or let it harden, sand it matt and wipe it before the next.",
                 o->label, hours(after_h), hours(visits[k - 1].next_to_h))});
        sort_by_severity(says.cautions);
        return;
    }
}

void needs(const ThingsAsk& a, std::vector<Need>& out) {
    const PourPlan& p = *a.plan.pour;
    if (!p.ready || p.lifts.empty()) return;
    const Prices& price = a.shop.money.prices;
    if (const Resin* r = find_resin(a.shop.resins, p.resin)) need_resin(out, *r, p.mix_l, "pour");
    double grams = 0;
    for (const Batch& b : p.batches) grams += b.pigment_g;
    out.push_back({NeedKind::consumable, "pigment", "Pigment", grams / 1000, "kg", "pour", {}, {}, price.pigment_kg});
    out.push_back(
        {NeedKind::form, "panel", "Panels of the form", static_cast<double>(p.form.sheets.size()), "pcs", "form", {}, {}, price.panel});
    out.push_back({NeedKind::consumable,
                   "tape",
                   "Tape, rolls",
                   p.form.tape_m / std::max(1.0, a.job.pour.roll_m),
                   "pcs",
                   "form",
                   {},
                   1.0,
                   price.tape_roll});
    out.push_back({NeedKind::form, "caulk", "Caulk", p.form.caulk_m, "m", "form", {}, {}, price.caulk_m});
}

void things(const ThingsAsk& a, std::vector<Thing>& out) {
    if (a.plan.pour->ready) add(out, pour_things(*a.plan.pour, find_resin(a.shop.resins, a.plan.pour->resin), a.bench));
}

std::span<const CardRow> cards() {
    static constexpr CardRow all[] = {{"pour", "The pour", "pour", "resin_lost",
                                       [](const CardAsk& a) {
                                           if (a.plan.pour->lifts.empty() || a.shop.resins.empty()) return std::vector<CardStep>();
                                           return pour_card(*a.plan.pour, a.job.pour, river_resin(a.shop.resins, a.job.fill.river));
                                       },
                                       true}};
    return all;
}

void fields_of(FieldVisitor& v, Job& j) { v.object({"pour", "Pour"}, j.pour); }
void hold(Held& h) { h.at_most(h.job.pour.dividers, 60, counted(0, "divider", "dividers"), step_key::pour); }
void empty(Plan& p) { p.pour = no<PourPlan>(); }

std::span<const MendEdit> edits() {
    static constexpr MendEdit all[] = {
        {"lifts_as_needed", [](Documents&, Job& j, const Takes&) { j.pour.lifts = 0; }},
        {"fans", [](Documents&, Job& j, const Takes&) { j.pour.fans = true; }},
        {"bearers", [](Documents&, Job& j, const Takes& n) { j.pour.bearers_mm = n.at(0); }},
        {"level_form", [](Documents&, Job& j, const Takes&) { j.pour.slope_mm_m = 0, j.pour.corners_mm.clear(); }},
        {"bench_to_the_end", [](Documents&, Job& j, const Takes&) { j.pour.overhang_mm = 0; }},
        {"tint_of_river", [](Documents&, Job& j, const Takes& n) { j.fill.pigment_g_kg = n.at(0), j.fill.colour = j.pour.colour; }},
        {"smaller_cups", [](Documents&, Job& j, const Takes& n) { j.pour.cup_l = n.at(0); }},
    };
    return all;
}

/// What might help, the gentlest first.
void mends(const MendAsk& a) {
    const Caution& c = a.caution;
    if (c.key == "pour.hot" || c.key == "pour.near" || c.key == "pour.label") {
        if (a.job.pour.lifts > 0) a.offer("lifts_as_needed", say("As many lifts as it needs"));
        if (!a.job.pour.fans) a.offer("fans", say("Set fans over it"));
    }
    if (const auto apart = c.ask("bearers_mm"); c.key == "pour.sags" && apart)
        a.offer("bearers", say("Bearers {} apart", mm(*apart)), {*apart});
    if (c.key == "pour.slope" || c.key == "pour.level") a.offer("level_form", say("Level the form"));
    if (const auto dose = c.ask("pigment_g_kg"); c.key == "pour.tint" && dose)
        a.offer("tint_of_river", say("The voids like the river"), {*dose});
    if (c.key == "pour.overhang") a.offer("bench_to_the_end", say("Let its end lie on the bench"));
    if (c.key == "pour.pot" || c.key == "pour.cup") {
        const double l = c.key == "pour.pot" ? a.job.pour.pot_l / 2 : a.job.pour.cup_l / 2;
        for (const double cup : {l, l / 2, l / 4}) a.offer("smaller_cups", say("Batches of {}", litres(cup)), {cup});
    }
}

std::span<const TemplateRow> drawings() {
    using Asked = const TemplateAsked&;
    static constexpr TemplateRow all[] = {
        {"form", "The form of the pour", "Nothing is poured in this top: it needs no form.",
         [](Asked a) { return a.job ? drawn_form(a.plan, *a.job) : std::vector<DrawnPath>(); }},
        {"panels", "The panels the form is cut from", "Nothing is poured in this top: it needs no form.",
         [](Asked a) { return a.job ? drawn_panels(a.plan, *a.job) : std::vector<DrawnPath>(); }},
    };
    return all;
}

}  // namespace of_pour

StepRow pour_row() {
    using namespace of_pour;
    return {
        .step = step_key::pour,
        .name = "Pour",
        .coming = "the pour",
        .on = StepRow::On::top,
        .says = says<&Plan::pour>,
        .own = own<&Plan::pour>,
        .headlines = pour_headlines,
        .empty = empty,
        .plan = plan,
        .operations = operations,
        .kinds = kinds,
        .dated = dated,
        .needs = needs,
        .things = things,
        .cards = cards,
        .fields = fields_of,
        .hold = hold,
        .edits = edits,
        .mends = mends,
        .drawings = drawings,
    };
}

}  // namespace yb
