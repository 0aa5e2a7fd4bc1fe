// The figures of Fill, the same for one leaf and for the whole top.
#include <algorithm>
#include <cmath>
#include <map>

#include "core/ground/measure/shelf.h"
#include "core/steps/fill/fill.h"

namespace yb {

namespace {

template <class F>
void every_lift(const FillPlan& p, F with) {
    for (const VoidPlan& v : p.voids)
        for (const Lift& l : v.lifts) with(v.resin, l);
}

Figure to_mix(const FillPlan& p, const FillChoices& choices) {
    std::vector<Given> given;
    for (const VoidPlan& v : p.voids) {
        if (v.left_open || v.gone) continue;
        given.push_back({std::string(name_of(v.kind)) + " depth left", fine(v.depth_mm), "drawn depth − flattening"});
        given.push_back({std::string(name_of(v.kind)) + " volume", litres(v.volume_l), "outline × depth, Simpson's rule"});
    }
    given.push_back({"overfill", fine(choices.overfill_mm), "the maker's"});
    given.push_back({"reserve", percent(choices.reserve_pct), "the maker's"});
    return {"fill.mix",
            "Resin to mix",
            litres(p.mixed_l),
            {},
            p.over_l >= 0.0001 ? say("{} fills it flush, {} are planed off again", litres(p.volume_l), litres(p.over_l))
                               : say("{} fills it flush", litres(p.volume_l)),
            {"(volume left after flattening + mouth × overfill) × (1 + reserve)", given, "prismatoid, exact; docs/methods.md, Fill"}};
}

void add(Mixed& to, const Mixed& more) {
    to.volume_l += more.volume_l, to.a_l += more.a_l, to.b_l += more.b_l, to.a_kg += more.a_kg, to.b_kg += more.b_kg;
}

/// Part A and part B of one resin; what comes in one part by itself.
Figure parts_figure(std::string key, const Mixed& all, const Resin* resin, bool named) {
    const bool two = !resin || !parts_of(*resin).empty();
    Phrase note = two ? say("by weight {} and {}", kg(all.a_kg), kg(all.b_kg)) : say("by weight {}", kg(all.a_kg + all.b_kg));
    std::vector<Given> given;
    if (resin && two) {
        given = {{"part A, as on the label", number(resin->parts_a), resin->by_mass ? "parts by weight" : "parts by volume"},
                 {"part B, as on the label", number(resin->parts_b), resin->by_mass ? "parts by weight" : "parts by volume"},
                 {"density A, g/mL", number(resin->density_a), resin->label},
                 {"density B, g/mL", number(resin->density_b), resin->label}};
    }
    std::string label = two ? "Part A and part B" : "Of one part";
    if (resin && named) label += ", " + resin->label;
    return {std::move(key),
            std::move(label),
            litres(all.a_l),
            two ? std::optional(litres(all.b_l)) : std::nullopt,
            std::move(note),
            {resin && resin->by_mass ? "A = volume × (a/ρ_A)/(a/ρ_A + b/ρ_B); by weight × density"
                                     : "A = volume × a/(a + b); by weight × density",
             std::move(given), "resin classes, starting values: your label stands above them"}};
}

/// One figure a resin, in the order they are first used: parts of different resins are never added.
std::vector<Figure> in_parts(const FillPlan& p, const std::vector<Resin>& resins) {
    std::vector<std::pair<std::string, Mixed>> each;
    every_lift(p, [&](const std::string& key, const Lift& l) {
        auto it = std::find_if(each.begin(), each.end(), [&](const auto& e) { return e.first == key; });
        if (it == each.end()) it = each.insert(each.end(), {key, {}});
        add(it->second, l);
    });
    std::vector<Figure> out;
    if (each.empty()) out.push_back(parts_figure("fill.parts", {}, nullptr, false));
    for (const auto& [key, all] : each)
        out.push_back(parts_figure(out.empty() ? "fill.parts" : "fill.parts." + key, all, find_resin(resins, key), each.size() > 1));
    return out;
}

std::optional<Figure> cost(const FillPlan& p, const std::vector<Resin>& resins) {
    double price = 0;
    double priced_l = 0;
    std::vector<Given> given;
    std::map<std::string, double> used_l;
    every_lift(p, [&](const std::string& key, const Lift& l) {
        const Resin* r = find_resin(resins, key);
        if (!r || !r->price_l) return;
        price += l.volume_l * *r->price_l;
        priced_l += l.volume_l;
        used_l[key] += l.volume_l;
        if (std::none_of(given.begin(), given.end(), [&](const Given& g) { return g.name == r->label; }))
            given.push_back({r->label, number(*r->price_l), "a litre, shop"});
    });
    if (price <= 0) return {};
    double paid = 0;
    for (const auto& [key, l] : used_l) {
        const Resin& r = *find_resin(resins, key);
        paid += paid_for(l, r.left_l.value_or(0), r.kit_l.value_or(0)) * *r.price_l;
    }
    given.push_back({"paid with what stays over of its kits", number(std::round(paid)), "whole kits, less what is on the shelf"});
    const Phrase of = priced_l < p.mixed_l - 1e-6 ? say("for {} of it; the rest has no price", litres(priced_l)) : say("for all of it");
    return Figure{"fill.cost",
                  "Resin used costs about",
                  number(std::round(price)),
                  {},
                  paid > price + 0.5 ? say("{} with what stays over of its kits", number(std::round(paid))) : of,
                  {"litres mixed × price of a litre", given, "prices on the shop's page"}};
}

}  // namespace

std::vector<Figure> fill_figures(const FillPlan& p, const FillChoices& choices, const std::vector<Resin>& resins, double shop_c) {
    std::vector<Figure> out{to_mix(p, choices)};
    for (Figure& f : in_parts(p, resins)) out.push_back(std::move(f));
    out.push_back({"fill.rounds",
                   "Rounds",
                   count(p.rounds),
                   {},
                   say("{} of waiting", hours(p.wait_h)),
                   {"lifts = ceil(depth left / deepest lift); after each until it has gelled, after the last until it is hard",
                    {{"shop air", celsius(shop_c), "shop"}},
                    "the label, brought to this air; else simulated: gel, 95 % cured"}});
    if (choices.pigment_g_kg > 0 && p.mixed_l > 0) {
        double kg = 0;
        every_lift(p, [&](const std::string&, const Lift& l) { kg += l.a_kg + l.b_kg; });
        out.push_back({"fill.tint",
                       "Tint, all rounds",
                       number(std::round(kg * choices.pigment_g_kg * 10) / 10),
                       {},
                       say("g of {}; weigh the same {} g into every kilogram, on every day", choices.colour.empty() ? "it" : choices.colour,
                           number(choices.pigment_g_kg)),
                       {"mass of the mix × dose",
                        {{"mix", {kg, Kind::mass}, "all rounds"}, {"g in a kg", number(choices.pigment_g_kg), "the maker's"}},
                        "docs/methods.md, Fill"}});
    }
    if (p.river_l > 0)
        out.push_back({"fill.river",
                       "Filled by the river's pour",
                       litres(p.river_l),
                       {},
                       say("mixed with the river, not here"),
                       {"volume of voids that open into a poured river", {}, "Pour counts it"}});
    if (p.soak_l > 0)
        out.push_back({"fill.soaks",
                       "Penetrating resin, first",
                       litres(p.soak_l),
                       {},
                       say("brushed on till the soft wood takes no more"),
                       {"(girth × depth + floor) × what soft wood drinks",
                        {{"drinks, mL a m²", number(soft_drinks_ml_m2), "starting value"}},
                        "docs/methods.md, Fill"}});
    if (p.tape_mm > 0)
        out.push_back({"fill.tape",
                       "Tape underneath",
                       along(p.tape_mm),
                       {},
                       say("in strips over what is open below, pressed down, on a flat board"),
                       {"strips × (length + 200 mm), each over the last by a fifth, 15 mm past its sides",
                        {{"tape, wide", mm(choices.tape_mm), "the maker's"}},
                        "docs/methods.md, Fill"}});
    if (p.small > 1)
        out.push_back({"fill.small",
                       "Small ones, in one lump",
                       count(p.small),
                       litres(p.small_l),
                       say("each less than {}: filled together, in the rounds above", litres(small_void_l)),
                       {"voids below the size, and what they hold together", {}, ""}});
    if (p.open_l > 0) out.push_back({"fill.open", "Left open", litres(p.open_l), {}, {}, {"volume of voids left open", {}, ""}});
    if (const auto c = cost(p, resins)) out.push_back(*c);
    return out;
}

namespace {

/// What one filling takes: the sum of its lifts, how many and how deep, in parts.
void tell_lifts(const std::vector<Lift>& lifts, const std::string& resin, const std::vector<Resin>& resins, double flush_l, Thing& t) {
    Mixed all;
    double wait_h = 0;
    std::vector<Given> given;
    for (const Lift& l : lifts) {
        add(all, l);
        wait_h += l.wait_h;
        given.push_back({"lift", litres(l.volume_l), "its own share, reserve counted"});
    }
    const Resin* of = find_resin(resins, resin);
    t.figures.push_back({t.kind + ".mix",
                         "Resin to mix",
                         litres(all.volume_l),
                         {},
                         of ? say("{} fills it flush · {}", litres(flush_l), of->label) : say("{} fills it flush", litres(flush_l)),
                         {"sum of its lifts: (volume + mouth × overfill) × (1 + reserve)", given, "docs/methods.md, Fill"}});
    t.figures.push_back(parts_figure(t.kind + ".parts", all, of, false));
    t.figures.push_back({t.kind + ".lifts",
                         "Lifts",
                         count(static_cast<double>(lifts.size())),
                         {},
                         lifts.empty() ? Phrase() : say("{} deep each", fine(lifts.front().depth_mm)),
                         {"ceil(depth left / deepest lift of the class)", {}, "the resin's label"}});
    t.figures.push_back({t.kind + ".wait",
                         "Waiting",
                         hours(wait_h),
                         {},
                         {},
                         {"after each lift until it has gelled, after the last until it is hard",
                          {},
                          "the label, brought to this air; else simulated: gel, 95 % cured"}});
}

}  // namespace

std::vector<Thing> fill_things(const FillPlan& p, const std::vector<Resin>& resins) {
    std::vector<Thing> out;
    for (std::size_t i = 0; i < p.voids.size(); ++i) {
        const VoidPlan& v = p.voids[i];
        Thing t{"void " + std::to_string(i + 1), "void", i, say("Void {}: {}", count(static_cast<double>(i) + 1), name_of(v.kind))};
        t.area = v.outline;
        t.choices = {key_of(VoidChoice{false, v.id})};
        if (v.kind == FlawKind::soft || v.kind == FlawKind::pocket) t.choices.push_back(key_of(VoidChoice{true, v.id}));
        if (!v.gone && !v.left_open && !v.lifts.empty()) {
            tell_lifts(v.lifts, v.resin, resins, v.volume_l, t);
        } else {
            t.figures.push_back({"void.flush",
                                 "Holds",
                                 litres(v.volume_l),
                                 {},
                                 v.gone        ? say("flattening takes it away whole")
                                 : v.left_open ? say("left open")
                                               : say("how deep it is was not probed"),
                                 {"outline × depth left, Simpson's rule", {}, "prismatoid, exact"}});
        }
        t.figures.push_back({"void.depth",
                             "Depth left",
                             fine(v.depth_mm),
                             {},
                             v.through ? say("open on both finished faces") : Phrase(),
                             {"drawn depth − what flattening takes off its face", {}, "Flat"}});
        if (v.soaked)
            t.figures.push_back({"void.soak",
                                 "Soaked first with",
                                 litres(v.soak_l),
                                 {},
                                 {},
                                 {"(girth × depth + floor) × what soft wood drinks",
                                  {{"drinks, mL a m²", number(soft_drinks_ml_m2), "starting value"}},
                                  "docs/methods.md, Fill"}});
        if (v.tape_mm > 0)
            t.figures.push_back(
                {"void.tape",
                 "Tape underneath",
                 along(v.tape_mm),
                 {},
                 {},
                 {"strips × (length + 200 mm), each over the last by a fifth, 15 mm past its sides", {}, "docs/methods.md, Fill"}});
        if (v.holes > 0)
            t.figures.push_back({"void.holes",
                                 "Holes, each wide",
                                 count(v.holes),
                                 fine(v.gap_mm),
                                 {},
                                 {"as counted on the rack; volume = holes × π/4·d² × depth left", {}, ""}});
        t.figures.push_back({"void.gap", "Mean width", fine(v.gap_mm), {}, {}, {"2 × area of the mouth / its girth", {}, "outline"}});
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
