// Jobs as JSON, and job files: a job with its slabs and their pictures in one document.
#include <algorithm>

#include "core/io/json_node.h"

namespace yb {
namespace {

constexpr std::array shape_names{"rectangle", "round", "oval", "free"};
constexpr std::array makeup_names{"single", "book", "slip", "boards", "river", "open_river"};

Json of(const Leaf& l) {
    Json supports = Json::array();
    for (const Support& s : l.supports) supports.push_back({{"x_mm", s.x_mm}, {"y_mm", s.y_mm}});
    Json voids = Json::array();
    for (const VoidFill& v : l.voids) voids.push_back({{"flaw_id", v.flaw_id}, {"resin", v.resin}, {"leave_open", v.leave_open}});
    const Placement& p = l.placement;
    return {
        {"slab", l.slab},
        {"placement",
         {{"x_mm", p.x_mm}, {"y_mm", p.y_mm}, {"angle_deg", p.angle_deg}, {"turned_over", p.turned_over}, {"oversize_mm", p.oversize_mm}}},
        {"supports", supports},
        {"voids", voids}};
}

Json of(const MakeUpChoices& c) {
    Json joints = Json::array();
    for (const Joint& j : c.joints) joints.push_back({{"v_mm", j.v_mm}, {"angle_deg", j.angle_deg}, {"curved", j.curved}});
    Json patches = Json::array();
    for (const Patch& p : c.patches)
        patches.push_back({{"id", p.id},
                           {"outline", points(p.outline)},
                           {"depth_mm", p.depth_mm},
                           {"slab", p.slab},
                           {"at", {p.at.x, p.at.y}},
                           {"turn_deg", p.turn_deg}});
    return {{"kind", word(c.kind, makeup_names)}, {"joints", joints},
            {"mill_kerf_mm", c.mill_kerf_mm},     {"rip_kerf_mm", c.rip_kerf_mm},
            {"hollow_mm", c.hollow_mm},           {"same_line", c.same_line},
            {"ends_swapped", c.ends_swapped},     {"river_mm", c.river_mm},
            {"two_colours", c.two_colours},       {"least_radius_mm", c.least_radius_mm},
            {"cutter_mm", c.cutter_mm},           {"rod_mm", c.rod_mm},
            {"rod_pitch_mm", c.rod_pitch_mm},     {"rod_depth_mm", c.rod_depth_mm},
            {"halves_u_mm", opt(c.halves_u_mm)},  {"patches", patches},
            {"faces_flat", c.faces_flat},         {"ripped", c.ripped}};
}

void read(const Node& n, MakeUpChoices& c) {
    n.choice("kind", c.kind, makeup_names);
    n.maybe("joints", c.joints), n.maybe("mill_kerf_mm", c.mill_kerf_mm), n.maybe("rip_kerf_mm", c.rip_kerf_mm);
    n.maybe("hollow_mm", c.hollow_mm), n.maybe("same_line", c.same_line), n.maybe("ends_swapped", c.ends_swapped);
    n.maybe("river_mm", c.river_mm), n.maybe("two_colours", c.two_colours), n.maybe("least_radius_mm", c.least_radius_mm);
    n.maybe("cutter_mm", c.cutter_mm), n.maybe("rod_mm", c.rod_mm), n.maybe("rod_pitch_mm", c.rod_pitch_mm);
    n.maybe("rod_depth_mm", c.rod_depth_mm), n.maybe("halves_u_mm", c.halves_u_mm), n.maybe("patches", c.patches);
    n.maybe("faces_flat", c.faces_flat), n.maybe("ripped", c.ripped);
    if (c.least_radius_mm <= 0) n["least_radius_mm"].fail("a radius has to be above nothing");
    if (c.rod_pitch_mm <= 0) n["rod_pitch_mm"].fail("rods have to stand some way apart");
}

}  // namespace

Json to_json(const Job& j) {
    Json leaves = Json::array();
    for (const Leaf& l : j.leaves) leaves.push_back(of(l));
    Json plates = Json::array();
    for (const LegPlate& p : j.under.plates)
        plates.push_back({{"u_mm", p.u_mm},
                          {"v_mm", p.v_mm},
                          {"along_mm", p.along_mm},
                          {"across_mm", p.across_mm},
                          {"bolts_across", p.bolts_across},
                          {"bolts_along", p.bolts_along}});
    Json channels = Json::array();
    for (const Channel& c : j.under.channels)
        channels.push_back({{"u_mm", c.u_mm},
                            {"v_mm", c.v_mm},
                            {"length_mm", c.length_mm},
                            {"width_mm", c.width_mm},
                            {"depth_mm", c.depth_mm},
                            {"wall_mm", c.wall_mm},
                            {"bolts", c.bolts}});
    const UnderChoices& u = j.under;
    return {{"id", j.id},
            {"name", j.name},
            {"client", j.client},
            {"start", j.start},
            {"notes", j.notes},
            {"cuts_done", j.cuts_done},
            {"top",
             {{"length_mm", j.top.length_mm},
              {"width_mm", j.top.width_mm},
              {"thickness_mm", j.top.thickness_mm},
              {"height_mm", j.top.height_mm},
              {"live", word(j.top.live, live_names)},
              {"seats", j.top.seats},
              {"shape", word(j.top.shape, shape_names)},
              {"free_form", points(j.top.free_form)}}},
            {"leaves", leaves},
            {"makeup", of(j.makeup)},
            {"flat",
             {{"aim", word(j.flat.aim, aim_names)},
              {"finish", word(j.flat.finish, finish_names)},
              {"first", word(j.flat.first, first_names)},
              {"rest_h", j.flat.rest_h},
              {"allowance_mm", j.flat.allowance_mm},
              {"both_faces_to_air", j.flat.both_faces_to_air}}},
            {"fill", {{"overfill_mm", j.fill.overfill_mm}, {"reserve_pct", j.fill.reserve_pct}}},
            {"under",
             {{"plates", plates},
              {"channels", channels},
              {"fixed", word(u.fixed, fixed_names)},
              {"bolt_mm", u.bolt_mm},
              {"play_mm", u.play_mm},
              {"edge_mm", u.edge_mm},
              {"insert_mm", u.insert_mm},
              {"plate_mm", u.plate_mm},
              {"plate_let_in", u.plate_let_in},
              {"feet_mm", u.feet_mm},
              {"day_moisture_pct", opt(u.day_moisture_pct)},
              {"helpers", u.helpers}}},
            {"room", of(j.room)}};
}

Job job_from_json(const Json& j) {
    const Node n(j, "job");
    Job v;
    n["id"].to(v.id);
    n.maybe("name", v.name), n.maybe("client", v.client), n.maybe("start", v.start), n.maybe("notes", v.notes);
    n.maybe("cuts_done", v.cuts_done);
    if (!v.start.empty() && !is_date(v.start)) n["start"].fail("‘" + v.start + "’ is not a date; write it as 2026-11-30");
    if (n.has("top")) {
        const Node t = n["top"];
        t.maybe("length_mm", v.top.length_mm), t.maybe("width_mm", v.top.width_mm), t.maybe("thickness_mm", v.top.thickness_mm);
        t.maybe("height_mm", v.top.height_mm), t.choice("live", v.top.live, live_names), t.maybe("seats", v.top.seats);
        t.choice("shape", v.top.shape, shape_names), t.maybe("free_form", v.top.free_form);
        for (const char* key : {"length_mm", "width_mm", "thickness_mm"})
            if (t.has(key)) {
                double d = 0;
                t[key].to(d);
                if (d <= 0) t[key].fail("has to be above nothing");
            }
    }
    n.maybe("leaves", v.leaves);
    if (v.leaves.empty()) n["leaves"].fail("a top has one leaf at least");
    // Version 1 had one slab, its placement, supports and voids in places of their own.
    if (!n.has("leaves")) {
        n.maybe("slab", v.first().slab), n.maybe("placement", v.first().placement);
        if (n.has("flat")) n["flat"].maybe("supports", v.first().supports);
        if (n.has("fill")) n["fill"].maybe("voids", v.first().voids);
    }
    if (n.has("makeup")) read(n["makeup"], v.makeup);
    if (n.has("flat")) {
        const Node f = n["flat"];
        f.choice("aim", v.flat.aim, aim_names), f.choice("finish", v.flat.finish, finish_names),
            f.choice("first", v.flat.first, first_names);
        f.maybe("rest_h", v.flat.rest_h), f.maybe("allowance_mm", v.flat.allowance_mm);
        f.maybe("both_faces_to_air", v.flat.both_faces_to_air);
    }
    if (n.has("fill")) {
        const Node f = n["fill"];
        f.maybe("overfill_mm", v.fill.overfill_mm), f.maybe("reserve_pct", v.fill.reserve_pct);
    }
    if (n.has("under")) {
        const Node u = n["under"];
        UnderChoices& c = v.under;
        u.maybe("plates", c.plates), u.maybe("channels", c.channels), u.choice("fixed", c.fixed, fixed_names);
        u.maybe("bolt_mm", c.bolt_mm), u.maybe("play_mm", c.play_mm), u.maybe("edge_mm", c.edge_mm), u.maybe("insert_mm", c.insert_mm);
        u.maybe("plate_mm", c.plate_mm), u.maybe("plate_let_in", c.plate_let_in), u.maybe("feet_mm", c.feet_mm);
        u.maybe("day_moisture_pct", c.day_moisture_pct), u.maybe("helpers", c.helpers);
    }
    n.maybe("room", v.room);
    return v;
}

std::string write_job_file(const JobFile& f) {
    Json slabs = Json::array();
    for (const Slab& s : f.slabs) slabs.push_back(to_json(s));
    Json pictures = Json::object();
    for (const auto& [key, bytes] : f.pictures) pictures[key] = bytes;
    return Json{{"format", "young-burl job"}, {"version", 2},           {"job", to_json(f.job)}, {"slabs", slabs},
                {"pictures", pictures},       {"shop", to_json(f.shop)}}
        .dump(1);
}

JobFile read_job_file(const std::string& text) {
    const Json j = parse_json(text);
    if (!j.is_object() || j.value("format", "") != "young-burl job")
        throw FormatError("", "this is not a job file: its first field has to be \"format\": \"young-burl job\"");
    if (!j.contains("version") || !j["version"].is_number_integer() || j["version"] < 1 || j["version"] > 2)
        throw FormatError("version", "only versions 1 and 2 can be read; this file is newer than the program");
    const bool first = j["version"] == 1;
    for (const char* part : {"job", first ? "slab" : "slabs"})
        if (!j.contains(part)) throw FormatError(part, "the file has none");
    JobFile f{job_from_json(j["job"]), {}, {}, j.contains("shop") ? shop_from_json(j["shop"]) : Shop()};
    if (first) {
        f.slabs.push_back(slab_from_json(j["slab"]));
    } else {
        if (!j["slabs"].is_array() || j["slabs"].empty()) throw FormatError("slabs", "a list [ ] of one slab at least is wanted here");
        for (std::size_t i = 0; i < j["slabs"].size(); ++i) {
            try {
                f.slabs.push_back(slab_from_json(j["slabs"][i]));
            } catch (const FormatError& e) {  // its path is told from the file's own field
                const std::string inside = e.where().substr(std::min<std::size_t>(e.where().size(), 4));
                throw FormatError(fmt::format("slabs[{}]{}", i, inside), std::string(e.what()).substr(e.where().size() + 2));
            }
        }
    }
    if (j.contains("pictures")) {
        const Node all(j["pictures"], "pictures");
        for (const auto& [key, value] : j["pictures"].items()) all[key.c_str()].to(f.pictures[key]);
    }
    for (const Leaf& l : f.job.leaves)
        if (!l.slab.empty() && std::none_of(f.slabs.begin(), f.slabs.end(), [&](const Slab& s) { return s.id == l.slab; }))
            throw FormatError("job.leaves", "the slab ‘" + l.slab + "’ of a leaf is not in the file");
    return f;
}

}  // namespace yb
