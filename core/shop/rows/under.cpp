// Under as a row of the table.
#include <cmath>

#include "core/ground/measure/lift.h"
#include "core/shop/edit/edits.h"
#include "core/shop/rows/row.h"
#include "core/steps/under/under.h"

namespace yb {

namespace of_under {

void plan(Planning& w) {
    if (!w.asked(step_key::under)) w.p.under = w.before()->under;
    else if (w.top)
        w.p.under = std::make_shared<UnderPlan>(plan_under(
            {*w.top, w.job.under, w.job.room, w.air(step_key::under).day, w.job.makeup.halves_u_mm, w.shop.store, w.shop.labour}));
}

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        {"base_order", "", {}, {"lay"}, true},
        {"under_jig", "under", {}, {"edge", "sand_rough"}},
        {"base_look", "", {{"base_order", "T41"}}},
        {"base_make", "base", {}, {"under_jig"}},
        {"base_parts", "base", {{"base_make", "T40"}}},
        {"pockets", "under", {{"base_order", "T41"}, {"base_look", "T41"}, {"under_jig"}}, {"base_parts"}},
        {"dryfit", "under", {{"inner", "T40"}, {"base_parts", "T40"}, {"base_make", "T40"}}, {"pockets"}},
        {"assemble", "end", {}, {"buff"}},
        {"set_up", "end", {}, {"assemble"}},
    };
    return all;
}

void operations(const Planning& w, std::vector<Operation>& out) {
    const UnderPlan& u = *w.p.under;
    const UnderChoices& c = w.job.under;
    if (u.slots.empty() && u.ready) return;
    const Labour& l = w.shop.labour;
    // The base goes into the waiting of the top: once it is laid, its size is known.
    const auto beside = [&](const char* key, const char* label, Task task, double wait) {
        give(out, u, key, label, step_key::under, std::move(task), wait);
        out.back().aside = true;
        out.back().after = {"lay"};
    };
    if (const double days = c.lead_days; days > 0) {
        beside("base_order", "Order the base", Task().set_up(l.order_min), days * 24);
        beside("base_look", "Look at what came", Task().set_up(l.look_min), 0);
    }
    if (u.base.making.hours() > 0) beside("base_make", "Make the base", u.base.making, u.base.wait_h);
    if (u.base.masking.hours() > 0) beside("base_parts", "Finish the base's parts", u.base.masking, 24);
    const double holes = static_cast<double>(u.slots.size());
    const bool screws = c.inserts == InsertKind::wood_screw;
    if ((!u.slots.empty() && !screws) || !u.pockets.empty())
        beside("under_jig", "Drilling template", Task().set_up(l.jig_set_min).add("hole", holes, l.jig_hole_min), 0);
    double pocket_m = 0;
    for (const Channel& k : c.channels) pocket_m += k.length_mm / 1000;
    give(out, u, "pockets", "Under", step_key::under,
         Task()
             .set_up(l.hole_set_min)
             .add(screws ? "screw" : "insert or slot", holes, screws ? l.screw_min : l.hole_min)
             .add("pocket set up", static_cast<double>(u.pockets.size()), l.pocket_set_min)
             .add("m of pocket", u.pockets.empty() ? 0 : pocket_m, l.pocket_m_min),
         0);
    // A plate that is screwed on is marked through and put on once.
    if (!screws)
        give(out, u, "dryfit", "Dry-fit", step_key::under, Task().set_up(l.dryfit_set_min).add("bolt", holes, l.dryfit_bolt_min), 0);
    out.back().in_air = true;  // what the wood holds on the day
    // What one cannot lift alone two put together and carry.
    const bool heavy = u.top_kg > one_lifts_kg;
    const auto together = [&](const char* key, const char* label, Task task) {
        const double hours = task.hours();
        give(out, u, key, label, step_key::under, std::move(task), 0);
        if (heavy) out.back().who = Who::both, out.back().alone_h = 2 * hours;
        out.back().in_one_go = true;
    };
    together("assemble", "Put together",
             Task().set_up(l.assemble_set_min).add(screws ? "screw" : "bolt", holes, l.assemble_bolt_min).add("levelled", 1, l.level_min));
    if (!w.job.days.collected)
        together("set_up", "Carry in, set up", Task().add("top and base carried, each", 2, l.carry_min).set_up(l.set_up_min));
}

/// What is bought is looked at a week before it is wanted: a wrong plate or thread takes time to be made good.
void dated(Planning& w) {
    const Operation *look = nullptr, *wanted = nullptr;
    for (const Operation& o : w.p.days->operations) {
        if (o.key == "base_look") look = &o;
        if (o.key == "pockets") wanted = &o;
    }
    if (!look || !wanted || look->done_h || wanted->start_h - look->end_h >= 7 * 24) return;
    StepPlan& says = *own<&Plan::under>(w.p);
    says.cautions.push_back(
        {"under.looked_late", Severity::note, step_key::under,
         say("What is bought comes {} before it is wanted: a wrong plate or thread takes a week to be made good. Order it sooner.",
             hours(wanted->start_h - look->end_h))});
    sort_by_severity(says.cautions);
}

void needs(const ThingsAsk& a, std::vector<Need>& out) {
    const UnderPlan& u = *a.plan.under;
    if (!u.ready) return;
    const UnderChoices& c = a.job.under;
    const Prices& price = a.shop.money.prices;
    const double holes = static_cast<double>(u.slots.size());
    out.push_back({NeedKind::hardware, "bolt", "Bolts with washers", holes, "pcs", "pockets", {}, {}, price.bolt});
    if (c.inserts != InsertKind::wood_screw)
        out.push_back({NeedKind::hardware, "insert", "Inserts", holes, "pcs", "pockets", {}, {}, price.insert});
    double metres = 0;
    for (const Channel& k : c.channels) metres += k.length_mm / 1000;
    out.push_back({NeedKind::hardware, "channel", "Steel channel", metres, "m", "pockets", {}, {}, price.channel_m});
    if (c.base == BaseKind::bought && !c.plates.empty()) {
        out.push_back({NeedKind::base, "base", "The base, bought", 1, "pcs", "dryfit", {}, {}, a.job.money.base_price});
    } else if (c.base != BaseKind::bought) {
        out.push_back({NeedKind::base, "base_wood", "Wood of the base", u.base.volume_l, "l", "base_make", {}, {}, price.base_l});
        out.push_back(
            {NeedKind::hardware, "plate", "Leg plates", static_cast<double>(c.plates.size()), "pcs", "pockets", {}, {}, price.plate});
    }
}

void things(const ThingsAsk& a, std::vector<Thing>& out) {
    if (a.plan.under->ready) add(out, under_things(*a.plan.under, a.job.under, a.job.top, a.bench));
}

void fields_of(FieldVisitor& v, Job& j) {
    v.object({"under", "Under"}, j.under);
    v.object({"room", "Room"}, j.room);
}

void hold(Held& h) {
    h.at_most(h.job.under.plates, 40, counted(0, "plate", "plates"), step_key::under);
    h.at_most(h.job.under.channels, 40, counted(0, "channel", "channels"), step_key::under);
}
void empty(Plan& p) { p.under = no<UnderPlan>(); }

std::span<const MendEdit> edits() {
    static constexpr MendEdit all[] = {
        {"usual_plates", [](Documents&, Job& j, const Takes&) { j.under.plates = starting_under(j.top).plates; }},
        {"channel_to", [](Documents&, Job& j, const Takes& n) { j.under.channels.at(index(n.at(0))).u_mm = n.at(1); }},
        {"channel_long", [](Documents&, Job& j, const Takes& n) { j.under.channels.at(index(n.at(0))).length_mm = n.at(1); }},
        {"plate_across", [](Documents&, Job& j, const Takes& n) { j.under.plates.at(index(n.at(0))).across_mm = n.at(1); }},
        {"channel_bolts",
         [](Documents&, Job& j, const Takes& n) { j.under.channels.at(index(n.at(0))).bolts = static_cast<int>(n.at(1)); }},
        {"plate_bolts",
         [](Documents&, Job& j, const Takes& n) { j.under.plates.at(index(n.at(0))).bolts_across = static_cast<int>(n.at(1)); }},
        {"plate_one_row", [](Documents&, Job& j, const Takes& n) { j.under.plates.at(index(n.at(0))).bolts_along = 1; }},
        {"panels_round_plates", [](Documents&, Job& j, const Takes&) { j.under.outline.clear(); }},
        {"insert", [](Documents&, Job& j, const Takes& n) { j.under.insert_mm = n.at(0); }},
        {"helpers", [](Documents&, Job& j, const Takes& n) { j.under.helpers = static_cast<int>(n.at(0)); }},
        {"odd_bolts",
         [](Documents&, Job& j, const Takes&) {
             for (LegPlate& p : j.under.plates) p.bolts_across |= 1;
             for (Channel& c : j.under.channels) c.bolts |= 1;
         }},
        {"fixed_line", [](Documents&, Job& j, const Takes& n) { j.under.fixed = n.at(0) > 0 ? FixedLine::right : FixedLine::left; }},
        {"channel_deep", [](Documents&, Job& j, const Takes& n) { j.under.channels.at(index(n.at(0))).depth_mm = n.at(1); }},
        {"plate_to", [](Documents&, Job& j, const Takes& n) { j.under.plates.at(index(n.at(0))).u_mm = n.at(1); }},
        {"screw_in", [](Documents&, Job& j, const Takes&) { j.under.inserts = InsertKind::screw_in; }},
    };
    return all;
}

/// What might help, the gentlest first.
void mends(const MendAsk& a) {
    const Caution& c = a.caution;
    const UnderChoices& u = a.job.under;
    if (c.key == "under.deep_channel")
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (const double half = std::floor(a.plan.top->thickness_mm / 2); u.channels[i].depth_mm > half && half > 5)
                a.offer("channel_deep", say("Take one {} deep", fine(half)), {static_cast<double>(i), half});
    if ((c.key == "under.hole_in_resin" || c.key == "under.hole_in_river" || c.key == "under.hole_in_void") && a.uv)
        for (const double by : {30.0, 60.0, 90.0, 130.0, 180.0})
            for (const double side : {-1.0, 1.0}) {
                for (std::size_t i = 0; i < u.plates.size(); ++i)
                    if (contains(footprint(u.plates[i]), *a.uv))
                        a.offer("plate_to", say("Move the plate {} along", mm(by)), {static_cast<double>(i), u.plates[i].u_mm + side * by});
                for (std::size_t i = 0; i < u.channels.size(); ++i)
                    if (contains(footprint(u.channels[i]), *a.uv))
                        a.offer("channel_to", say("Slide the channel {} along", mm(by)),
                                {static_cast<double>(i), u.channels[i].u_mm + side * by});
            }
    if (c.key == "under.hammer_in") a.offer("screw_in", say("Take screw-in inserts"));
    if (c.key == "under.no_plates") a.offer("usual_plates", say("Lay two plates, a fifth in"));
    if (c.key == "under.no_fixed") {
        a.offer("odd_bolts", say("Take an odd number of bolts"));
        a.offer("fixed_line", say("Fix it at its left bolts"), {0});
        a.offer("fixed_line", say("Fix it at its right bolts"), {1});
    }
    if (c.key == "under.few_bolts")
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (u.channels[i].bolts < 3) a.offer("channel_bolts", say("Take three bolts"), {static_cast<double>(i), 3});
    if (c.key == "under.bolts_near") {
        const auto fewer = [&](const char* edit, std::size_t i, int now) {
            for (int n = now - 1; n >= 1; --n)
                a.offer(edit, say("Take {} across", counted(n, "bolt", "bolts")), {static_cast<double>(i), double(n)});
        };
        for (std::size_t i = 0; i < u.plates.size(); ++i)
            if (a.uv && contains(footprint(u.plates[i]), *a.uv)) {
                fewer("plate_bolts", i, u.plates[i].bolts_across);
                if (u.plates[i].bolts_along > 1) a.offer("plate_one_row", say("Take one row of bolts"), {static_cast<double>(i)});
            }
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (a.uv && contains(footprint(u.channels[i]), *a.uv)) fewer("channel_bolts", i, u.channels[i].bolts);
    }
    if (c.key == "under.misses") {
        if (u.base == BaseKind::panels && !u.outline.empty()) a.offer("panels_round_plates", say("Stand the panels round the plates"));
        for (const Carries& k : a.plan.under->carries)
            if (k.misses_mm > 1)
                a.offer("plate_to", say("Move plate {} over the base", count(static_cast<double>(k.plate) + 1)),
                        {static_cast<double>(k.plate), k.nearest.x});
    }
    if (c.key == "under.channel_end")
        for (std::size_t i = 0; i < u.channels.size(); ++i) {
            const double most = a.job.top.length_mm / 2 - 200;
            if (std::abs(u.channels[i].u_mm) <= most || most < 0) continue;
            a.offer("channel_to", say("Move it in to {} from the end", mm(200)),
                    {static_cast<double>(i), std::copysign(most, u.channels[i].u_mm)});
        }
    if (c.key == "under.clash")
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            for (const LegPlate& p : u.plates)
                for (const double side : {-1.0, 1.0}) {
                    const double to = p.u_mm + side * (p.along_mm / 2 + u.channels[i].width_mm / 2 + 20);
                    if (intersection_area(footprint(u.channels[i]), footprint(p)) < 1) continue;
                    a.offer("channel_to", say("Slide the channel {} along", mm(std::abs(to - u.channels[i].u_mm))),
                            {static_cast<double>(i), to});
                }
    if (c.key == "under.outside")
        for (int k = 1; k <= 10; ++k) {
            for (std::size_t i = 0; i < u.plates.size(); ++i)
                if (intersection_area(footprint(u.plates[i]), a.plan.top->below) < area(footprint(u.plates[i])) - 1)
                    a.offer("plate_across", say("Take a plate {} across", mm(std::floor(u.plates[i].across_mm * (1 - 0.07 * k)))),
                            {static_cast<double>(i), std::floor(u.plates[i].across_mm * (1 - 0.07 * k))});
            for (std::size_t i = 0; i < u.channels.size(); ++i)
                if (intersection_area(footprint(u.channels[i]), a.plan.top->below) < area(footprint(u.channels[i])) - 1)
                    a.offer("channel_long", say("Take a channel {} long", mm(std::floor(u.channels[i].length_mm * (1 - 0.07 * k)))),
                            {static_cast<double>(i), std::floor(u.channels[i].length_mm * (1 - 0.07 * k))});
        }
    if (c.key == "under.through") {
        // From the highest floor that one starts at.
        double floor = 0;
        for (const Slot& s : a.plan.under->slots) floor = std::max(floor, s.floor_mm);
        const double deep = std::floor(a.plan.top->thickness_mm - u.least_above_mm - floor);
        if (deep >= u.bolt_mm) a.offer("insert", say("Take an insert {} deep", fine(deep)), {deep});
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (const double pocket = std::floor(a.plan.top->thickness_mm - u.least_above_mm - u.insert_mm);
                pocket >= 5 && pocket < u.channels[i].depth_mm)
                a.offer("channel_deep", say("Take a channel {} deep", fine(pocket)), {static_cast<double>(i), pocket});
    }
    if (c.key == "under.lift") {
        const double people = people_to_lift(a.plan.under->top_kg);
        a.offer("helpers", say("Have {} there", counted(people, "person", "people")), {people});
    }
}

std::span<const TemplateRow> drawings() {
    using Asked = const TemplateAsked&;
    static constexpr TemplateRow all[] = {
        {"base", "The base from above", "No base is made here: in Under, choose one.",
         [](Asked a) { return a.job ? drawn_base(a.plan) : std::vector<DrawnPath>(); }},
        {"drilling", "The drilling of the underside", "No plate or channel is laid: in Under, lay them first.",
         [](Asked a) { return a.job ? drawn_drilling(a.plan, *a.job) : std::vector<DrawnPath>(); }},
        {"fixing", "A clip or button in its kerf", "Nothing is held by clips or buttons: in Under, choose them.",
         [](Asked a) { return a.job ? drawn_fixing(a.plan, *a.job) : std::vector<DrawnPath>(); }},
        {"plates", "The plates, for a metal shop", "No plate is laid: in Under, lay them first.",
         [](Asked a) { return a.job ? drawn_plates(a.plan, *a.job) : std::vector<DrawnPath>(); }},
    };
    return all;
}

}  // namespace of_under

StepRow under_row() {
    using namespace of_under;
    return {
        .step = step_key::under,
        .name = "Under",
        .coming = "the underside",
        .on = StepRow::On::top,
        .says = says<&Plan::under>,
        .own = own<&Plan::under>,
        .headlines = under_headlines,
        .empty = empty,
        .plan = plan,
        .operations = operations,
        .kinds = kinds,
        .dated = dated,
        .needs = needs,
        .things = things,
        .fields = fields_of,
        .shop = "sections",
        .hold = hold,
        .edits = edits,
        .mends = mends,
        .drawings = drawings,
        .done = "the finish",
    };
}

}  // namespace yb
