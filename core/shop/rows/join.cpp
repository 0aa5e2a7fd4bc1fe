// Join as a row of the table.

#include "core/steps/join/join.h"
#include "core/shop/rows/row.h"

namespace yb {

namespace of_join {

void plan(Planning& w) {
    if (!w.asked(step_key::join)) w.p.join = w.before()->join;
    else if (w.top) {
        JoinInputs in{
            *w.top, *w.p.makeup, w.job.makeup, w.job.join, w.job.under, w.air(step_key::join).day.temp_c, w.job.under.least_above_mm};
        for (const auto& leaf : w.leaves) in.shapes.push_back(&leaf.shape), in.slabs.push_back(&leaf.slab);
        w.p.join = std::make_shared<JoinPlan>(plan_join(in));
    }
}

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        {"glue", "glue", {{"rip", "T1"}, {"rods", "T40"}}, {"form", "last"}},
        {"tie_jig", "ties", {}, {"touchup", "glue"}},
        {"ties", "ties", {{"tie_jig"}}, {"level"}},
        {"inner", "glue", {}, {"ties"}},
        {"edge", "edge", {}, {"cut"}},
    };
    return all;
}

void operations(const Planning& w, std::vector<Operation>& out) {
    const JoinPlan& j = *w.p.join;
    const Labour& l = w.shop.labour;
    // Setting out, cauls, a dry run as long as the glue-up itself; each stage dries for a night, its squeeze-out taken off after an hour.
    const bool two = w.job.join.two_stages && j.joints.size() > 1;
    if (!j.joints.empty()) {
        const auto gluing = [&](double needed) {
            return Task()
                .set_up(l.glue_set_min)
                .add("dry run", 1, needed)
                .add("glue-up", 1, needed)
                .add("squeeze-out taken off", 1, l.glue_wipe_min);
        };
        const auto held = [&] {
            out.back().at = Place::clamps, out.back().keeps = true;
            out.back().in_air = true;  // open time
            out.back().in_one_go = true, out.back().watched_h = 1;
            if (w.job.join.helped) out.back().who = Who::both, out.back().alone_h = gluing(j.alone_min).hours();
        };
        give(out, j, "glue", "Glue", step_key::join, gluing(j.needed_min), 12);
        held();
        if (two) give_part(out, j, 2, "Glue, second stage", gluing(j.needed_min), 12), held();
    }
    // Between the halves nobody reaches once they are on their rods.
    if (!j.rods.empty())
        give(out, j, "inner", "Finish inner edges", step_key::join,
             Task().set_up(l.inner_set_min).add("rod", static_cast<double>(j.rods.size()), l.inner_rod_min), 24);
    if (const double n = static_cast<double>(w.job.join.ties.size()); n > 0) {
        give(out, j, "tie_jig", "Template of the ties", step_key::join, Task().set_up(l.tie_jig_min), 0);
        out.back().aside = true, out.back().after = {"lay"};
        give(out, j, "ties", "Bow ties", step_key::join, Task().add("bow tie", n, l.tie_min), 2);
    }
    if (w.job.join.edge != EdgeShape::square && w.top)
        give(out, j, "edge", "Edge", step_key::join,
             Task()
                 .set_up(l.edge_set_min)
                 .add("m of edge", girth(w.top->above) / 1000, w.job.join.edge == EdgeShape::carved ? l.carve_m_min : l.edge_m_min),
             0);
}

void needs(const ThingsAsk& a, std::vector<Need>& out) {
    const JoinPlan& j = *a.plan.join;
    if (!j.ready) return;
    const Prices& price = a.shop.money.prices;
    out.push_back({NeedKind::glue, "glue", "Glue", j.glue_l, "l", "glue", {}, {}, price.glue_l});
    out.push_back({NeedKind::glue,
                   "glued_piece",
                   "Tenons, dowels, biscuits",
                   static_cast<double>(j.pieces),
                   "pcs",
                   "glue",
                   {},
                   {},
                   price.glued_piece});
}

void things(const ThingsAsk& a, std::vector<Thing>& out) {
    if (a.plan.join->ready) add(out, join_things(*a.plan.join, a.job.join, *a.plan.makeup, a.bench));
}

std::span<const CardRow> cards() {
    static constexpr CardRow all[] = {
        {"glue", "The glue-up", "glue", "",
         [](const CardAsk& a) { return a.plan.join->joints.empty() ? std::vector<CardStep>() : glue_card(*a.plan.join, a.job.join); }},
        {"rods", "The rods", "rods", "", [](const CardAsk& a) {
             if (a.plan.join->rods.empty()) return std::vector<CardStep>();
             return rod_card(*a.plan.join, a.job.join, a.job.makeup, a.job.top.length_mm);
         }}};
    return all;
}

void fields_of(FieldVisitor& v, Job& j) { v.object({"join", "Join"}, j.join); }
void hold(Held& h) {
    h.at_most(h.job.join.ties, 300, counted(0, "bow tie", "bow ties"), step_key::join);
    h.at_most(h.job.join.gaps, 600, counted(0, "gap", "gaps"), step_key::join);
}
void empty(Plan& p) { p.join = no<JoinPlan>(); }

std::span<const MendEdit> edits() {
    static constexpr MendEdit all[] = {
        {"helped", [](Documents&, Job& j, const Takes&) { j.join.helped = true; }},
        {"slow_glue", [](Documents&, Job& j, const Takes&) { j.join.slow_glue = true; }},
        {"two_stages", [](Documents&, Job& j, const Takes&) { j.join.two_stages = true; }},
        {"thin_tenon", [](Documents&, Job& j, const Takes& n) { j.join.loose_thick_mm = n.at(0); }},
        {"pitch", [](Documents&, Job& j, const Takes& n) { j.join.pitch_mm = n.at(0); }},
        {"cauls", [](Documents&, Job& j, const Takes&) { j.join.cauls = true; }},
        {"tie_to",
         [](Documents&, Job& j, const Takes& n) {
             j.join.ties.at(index(n.at(0))).u_mm = n.at(1);
             j.join.ties.at(index(n.at(0))).v_mm = n.at(2);
         }},
        {"tie_across", [](Documents&, Job& j, const Takes& n) { j.join.ties.at(index(n.at(0))).turn_deg = 90; }},
        {"tie_deep", [](Documents&, Job& j, const Takes& n) { j.join.ties.at(index(n.at(0))).deep_mm = n.at(1); }},
    };
    return all;
}

/// What might help, the gentlest first.
void mends(const MendAsk& a) {
    const Caution& c = a.caution;
    if (c.key == "join.skins" || c.key == "join.close") {
        a.offer("helped", say("Get a helper"));
        a.offer("two_stages", say("Glue in two stages · +{}", hours(12)));
        a.offer("slow_glue", say("Take a slower glue"));
    }
    if (c.key == "join.cauls") a.offer("cauls", say("Saw cauls from the offcut"));
    if (c.key == "join.through" || c.key == "join.thick")
        for (const double t : {8.0, 6.0, 5.0, 4.0})
            if (t < a.job.join.loose_thick_mm) a.offer("thin_tenon", say("Take {} {} thick", pieces_name(a.job.join.loose), fine(t)), {t});
    if (c.key == "join.clash" && a.uv) {
        for (std::size_t i = 0; i < a.job.join.ties.size(); ++i)
            if (contains(outline_of(a.job.join.ties[i]), *a.uv))
                for (const double by : {30.0, 60.0, 100.0})
                    for (const double side : {-1.0, 1.0})
                        a.offer("tie_to", say("Move the bow tie {} along", mm(by)),
                                {static_cast<double>(i), a.job.join.ties[i].u_mm + side * by, a.job.join.ties[i].v_mm});
        for (const double by : {20.0, -20.0, 45.0, -45.0, 80.0})
            if (a.job.join.pitch_mm + by > 60)
                a.offer("pitch", say("One every {}", mm(a.job.join.pitch_mm + by)), {a.job.join.pitch_mm + by});
    }
    for (std::size_t i = 0; i < a.job.join.ties.size(); ++i) {
        const double which = static_cast<double>(i);
        if (c.key == "join.tie_along") a.offer("tie_across", say("Turn the bow tie across"), {which});
        if (const double third = std::round(a.plan.top->thickness_mm / 3);
            c.key == "join.tie_shallow" && a.job.join.ties[i].deep_mm < third)
            a.offer("tie_deep", say("Let it in {}", fine(third)), {which, third});
    }
}

std::span<const TemplateRow> drawings() {
    using Asked = const TemplateAsked&;
    static constexpr TemplateRow all[] = {
        {"ties", "The templates of bow ties", "There is no bow tie in this top: in Join, lay some over a crack.",
         [](Asked a) { return a.job ? drawn_ties(*a.job, a.shop.bushings_mm) : std::vector<DrawnPath>(); }},
        {"cauls", "The cauls", "No caul is needed: nothing is glued, or no edge is live, or they are not chosen in Join.",
         [](Asked a) { return a.job ? drawn_cauls(a.plan) : std::vector<DrawnPath>(); }},
        {"carved", "The line of a carved edge", "No edge is carved: in Join, choose a carved edge for a side that was sawn.",
         [](Asked a) { return a.job ? drawn_carved(a.plan) : std::vector<DrawnPath>(); }},
    };
    return all;
}

}  // namespace of_join

StepRow join_row() {
    using namespace of_join;
    return {
        .step = step_key::join,
        .name = "Join",
        .coming = "join",
        .on = StepRow::On::top,
        .says = says<&Plan::join>,
        .own = own<&Plan::join>,
        .headlines = join_headlines,
        .empty = empty,
        .plan = plan,
        .operations = operations,
        .kinds = kinds,
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
