// Plans as JSON for the shell: values in the program's units, the unit in the key.
#include "core/files/io/json.h"
#include "core/shop/job/headlines.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/makeup/cuts.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

namespace yb {
namespace {

const char* unit_key(Kind kind) {
    switch (kind) {
        case Kind::length:
        case Kind::fine:
        case Kind::along: return "mm";
        case Kind::area: return "m2";
        case Kind::volume: return "l";
        case Kind::mass: return "kg";
        case Kind::temperature: return "c";
        case Kind::percent: return "pct";
        case Kind::hours: return "h";
        case Kind::angle: return "deg";
        case Kind::count:
        case Kind::number: break;
    }
    return "";
}

std::string with_unit(const std::string& name, Kind kind) {
    const std::string u = unit_key(kind);
    return u.empty() ? name : name + "_" + u;
}

Json figures(const std::vector<Figure>& list, const Units& units) {
    Json a = Json::array();
    for (const Figure& f : list) a.push_back(to_json(f, units));
    return a;
}

Json choices(const std::vector<Choice>& list, const Units& units) {
    Json a = Json::array();
    for (const Choice& c : list) {
        Json options = Json::array();
        for (const Option& o : c.options)
            options.push_back({{"key", o.key},
                               {"label", o.label + (o.advised ? " (advised)" : "")},
                               {"consequence", render(o.consequence, units)},
                               {"chosen", o.chosen}});
        a.push_back({{"key", c.key}, {"label", (c.of.empty() ? "" : c.of + ": ") + c.label}, {"options", options}});
    }
    return a;
}

Json ring_json(const Ring& r) {
    Json out = Json::array();
    for (const Vec2 p : r) out.push_back({p.x, p.y});
    return out;
}

/// What of a region is left where others are let in comes as pieces: volume and mass are shared by their area.
Json top_json(const Top& t) {
    Json regions = Json::array();
    const auto pieces = cover(t);
    const auto area_of = [&](const Region* r) {
        double sum = 0;
        for (const CoverPiece& p : pieces)
            if (p.region == r) sum += area(p.ring);
        return sum;
    };
    const auto put = [&](const char* kind, const std::string& of, double mm2, double litres, double mass, Json ring) {
        regions.push_back({{"kind", kind},
                           {"of", of.empty() ? Json(nullptr) : Json(of)},
                           {"area_mm2", mm2},
                           {"volume_l", litres},
                           {"mass_kg", mass},
                           {"ring", std::move(ring)}});
    };
    for (const Region& r : t.regions) {
        const double whole = area_of(&r);
        if (whole <= 0) {  // it shows on the underside only
            put(name_of(r.kind), r.of, 0, r.volume_l, r.mass_kg, Json::array());
            continue;
        }
        for (const CoverPiece& p : pieces)
            if (const double a = area(p.ring); p.region == &r)
                put(name_of(r.kind), r.of, a, r.volume_l * a / whole, r.mass_kg * a / whole, ring_json(p.ring));
    }
    for (const CoverPiece& p : pieces)
        if (!p.region) put("air", "", area(p.ring), 0, 0, ring_json(p.ring));
    // What is in the mass is what is known: wood whose density nobody knows is named.
    Json lacks = Json::array();
    for (const Region& r : t.regions)
        if (r.wood() && r.kg_m3 <= 0) lacks.push_back(r.name);
    return {{"area_mm2", t.ready ? t.area_mm2() : 0},
            {"mass_kg", t.mass_kg},
            {"mass_lacks", lacks},
            {"thickness_mm", t.thickness_mm},
            {"regions", regions}};
}

template <class P>
Json step(const P& p, const Units& units) {
    return {{"ready", p.ready}, {"figures", figures(p.figures, units)}, {"choices", choices(p.choices, units)}};
}

}  // namespace

Json to_json(const Figure& f, const Units& units) {
    Json given = Json::array();
    for (const Given& g : f.working.given)
        given.push_back({{"name", g.name}, {with_unit("value", g.value.kind), g.value.value}, {"from", g.from}});
    Json j{{"key", f.key}, {"label", f.label}, {with_unit("value", f.value.kind), f.value.value}};
    if (f.second) j[with_unit("second", f.second->kind)] = f.second->value;
    j["reads"] = format(f.value, units) + (f.second ? " / " + format(*f.second, units) : "");
    if (!f.note.empty()) j["note"] = render(f.note, units);
    j["working"] = {{"formula", f.working.formula}, {"given", given}, {"source", f.working.source}};
    return j;
}

Json to_json(const Caution& c, const Units& units) {
    Json j{{"key", c.key}, {"severity", name_of(c.severity)}, {"step", name_of(c.step)}, {"says", render(c, units)}};
    if (!c.field.empty()) j["field"] = c.field;
    j["headline"] = headline_of(c.key);
    if (c.at) j["at_mm"] = {c.at->x, c.at->y};
    return j;
}

Json to_json(const Plan& p, const Units& units) {
    Json cautions = Json::array();
    for (const Caution& c : p.sheets.cautions) cautions.push_back(to_json(c, units));
    Json shims = Json::array();
    for (const Shim& s : p.flat->shims) shims.push_back({{"x_mm", s.at.x_mm}, {"y_mm", s.at.y_mm}, {"height_mm", s.height_mm}});
    Json faces = Json::array();
    if (p.flat->ready)
        for (const FacePlan& f : p.flat->faces)
            faces.push_back({{"face", f.face == Face::a ? "show" : "underside"},
                             {"layers", f.layers},
                             {"layers_after_rest", f.last_layers},
                             {"lanes", f.lanes},
                             {"passes_cut", f.passes_cut},
                             {"passes_skipped", f.passes_all - f.passes_cut},
                             {"cut_mm", f.cut_mm},
                             {"time_h", f.hours},
                             {"time_after_rest_h", f.last_hours},
                             {"stickout_mm", f.stickout_mm},
                             {"spacer_mm", f.spacer_mm < 0 ? Json(nullptr) : Json(f.spacer_mm)}});
    Json lifts = Json::array();
    const auto put_lifts = [&](const char* what, const Json& which, const std::string& resin, const std::vector<Lift>& all) {
        for (std::size_t i = 0; i < all.size(); ++i) {
            const Lift& l = all[i];
            lifts.push_back({{what, which},
                             {"resin", resin},
                             {"lift", i + 1},
                             {"depth_mm", l.depth_mm},
                             {"volume_l", l.volume_l},
                             {"a_l", l.a_l},
                             {"b_l", l.b_l},
                             {"a_kg", l.a_kg},
                             {"b_kg", l.b_kg},
                             {"wait_h", l.wait_h}});
        }
    };
    for (const VoidPlan& v : p.fill->voids) put_lifts("flaw", v.id, v.resin, v.lifts);
    for (std::size_t i = 0; i < p.pour->lifts.size(); ++i) {
        const PourLift& l = p.pour->lifts[i];
        lifts.push_back({{"river", p.pour->compartments.at(l.compartment).joint + 1},
                         {"resin", p.pour->resin},
                         {"lift", i + 1},
                         {"depth_mm", l.depth_mm},
                         {"volume_l", l.mix_l},
                         {"peak_c", l.peak_c},
                         {"wait_h", l.clock.next_from_h}});
    }
    Json slots = Json::array();
    for (const Slot& s : p.under->slots)
        slots.push_back({{"part", key_of(s.part)},
                         {"u_mm", s.uv.x},
                         {"v_mm", s.uv.y},
                         {"round", s.round},
                         {"length_mm", s.length_mm},
                         {"travel_out_mm", s.travel_out_mm},
                         {"travel_in_mm", s.travel_in_mm},
                         {"bolt_from_inner_mm", s.bolt_from_inner_mm}});
    Json operations = Json::array();
    for (const Operation& o : p.days->operations)
        operations.push_back({{"key", o.key},
                              {"label", o.label},
                              {"hands_on_h", o.hands_on_h},
                              {"waiting_h", o.waiting_h},
                              {"begins", p.days->start.empty() ? Json(nullptr) : Json(p.days->date(o.start_h))}});
    Json leaves = Json::array();
    for (const LeafPlan& l : p.leaves.size() > 1 ? p.leaves : std::vector<LeafPlan>{})
        leaves.push_back({{"slab", l.slab().id}, {"flat", step(*l.flat, units)}, {"fill", step(*l.fill, units)}});
    Json joints = Json::array();
    for (const JointPlan& k : p.makeup->joints) {
        Json rods = Json::array();
        for (const Rod& r : k.rods) rods.push_back({{"u_mm", r.u_mm}, {"gap_mm", r.gap_mm}, {"length_mm", r.length_mm}});
        joints.push_back({{"river", k.river},
                          {"wood_missing_mm", k.worst_mm},
                          {"given_up_mm", k.given_right_mm + k.given_left_mm},
                          {"river_mean_mm", k.above.mean_mm},
                          {"river_narrowest_mm", k.above.narrowest_mm},
                          {"river_widest_mm", k.above.widest_mm},
                          {"river_below_mean_mm", k.below.mean_mm},
                          {"river_below_narrowest_mm", k.below.narrowest_mm},
                          {"river_below_widest_mm", k.below.widest_mm},
                          {"river_area_mm2", k.area_mm2},
                          {"rods", rods}});
    }
    Json cuts = Json::array();
    for (const Cut& c : p.cuts->cuts)
        cuts.push_back({{"kind", name_of(c.kind)},
                        {"slab", c.slab},
                        {"from_mm", {c.from.x, c.from.y}},
                        {"to_mm", {c.to.x, c.to.y}},
                        {"length_mm", c.length_mm},
                        {"set", render(c.set, units)},
                        {"after_flattening", c.after_flat}});
    Json out{{"top", top_json(*p.top)},
             {"slab", {{"ready", p.rack.ready}, {"figures", figures(p.rack.figures, units)}}},
             {"shims", shims},
             {"faces", faces},
             {"lifts", lifts},
             {"slots", slots},
             {"leaves", leaves},
             {"joints", joints},
             {"cuts", cuts},
             {"days", {{"start", p.days->start}, {"ready", p.days->ready}, {"operations", operations}}},
             {"cautions", cautions}};
    for (const StepRow& row : steps())
        if (row.on != StepRow::On::beside && row.step != step_key::rack) out[std::string(row.step.key)] = step(*row.says(p), units);
    return out;
}

}  // namespace yb
