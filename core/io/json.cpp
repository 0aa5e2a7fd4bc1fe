#include "core/io/json_node.h"

namespace yb {
namespace {

Json of(const HeightGrid& g) {
    Json gaps = Json::array();
    for (const auto& v : g.gap_mm) gaps.push_back(opt(v));
    return {{"x_mm", g.x_mm}, {"y_mm", g.y_mm}, {"gap_mm", gaps}};
}

Json of(const FacePicture& p) {
    return {{"key", p.key},
            {"mm_per_px", p.mm_per_px},
            {"width_px", p.width_px},
            {"height_px", p.height_px},
            {"corner", {p.corner.x, p.corner.y}},
            {"mirrored", p.mirrored}};
}

Json of(const Station& s) {
    Json j{{"x_mm", s.x_mm}};
    const auto put = [&](const char* key, const std::optional<double>& v) {
        if (v) j[key] = *v;
    };
    put("left_mm", s.left_mm), put("right_mm", s.right_mm);
    put("other_left_mm", s.other_left_mm), put("other_right_mm", s.other_right_mm);
    put("thickness_mm", s.thickness_mm), put("thickness_right_mm", s.thickness_right_mm);
    return j;
}

Json of(const Flaw& f) {
    Json j{{"id", f.id},
           {"kind", word(f.kind, flaw_names)},
           {"face", word(f.face, face_names)},
           {"outline", points(f.outline)},
           {"through", f.through}};
    if (f.depth_mm) j["depth_mm"] = *f.depth_mm;
    j["floor_share"] = f.floor_share;
    if (!f.note.empty()) j["note"] = f.note;
    return j;
}

}  // namespace

Json to_json(const Shop& s) {
    const Sled& d = s.sled;
    Json resins = Json::array();
    for (const Resin& r : s.resins)
        resins.push_back({{"key", r.key},
                          {"label", r.label},
                          {"gel_25_h", r.gel_25_h},
                          {"deepest_mm", r.deepest_mm},
                          {"parts_a", r.parts_a},
                          {"parts_b", r.parts_b},
                          {"density_a", r.density_a},
                          {"density_b", r.density_b},
                          {"thin", r.thin}});
    return {{"name", s.name},
            {"units",
             {{"length", word(s.units.length, length_names)},
              {"litres", s.units.litres},
              {"kilograms", s.units.kilograms},
              {"celsius", s.units.celsius}}},
            {"sled",
             {{"cutter_mm", d.cutter_mm},
              {"overlap", d.overlap},
              {"depth_mm", d.depth_mm},
              {"feed_mm_s", d.feed_mm_s},
              {"turn_s", d.turn_s},
              {"layer_s", d.layer_s},
              {"floor_mm", d.floor_mm},
              {"rail_mm", d.rail_mm},
              {"stickout_mm", d.stickout_mm},
              {"tram_mm", d.tram_mm},
              {"spacers_mm", d.spacers_mm}}},
            {"resins", resins},
            {"air", of(s.air)},
            {"workday", {{"from_h", s.workday.from_h}, {"to_h", s.workday.to_h}, {"saturdays", s.workday.saturdays}}},
            {"bushings_mm", s.bushings_mm},
            {"letter", s.letter}};
}

Json to_json(const Slab& s) {
    const auto picture = [](const std::optional<FacePicture>& p) { return p ? of(*p) : Json(nullptr); };
    Json stations = Json::array();
    for (const Station& st : s.tape.stations) stations.push_back(of(st));
    Json flaws = Json::array();
    for (const Flaw& f : s.flaws) flaws.push_back(of(f));
    Json log = Json::array();
    for (const MoistureReading& r : s.moisture_log) log.push_back({{"on", r.on}, {"pct", r.pct}});
    return {
        {"id", s.id},
        {"name", s.name},
        {"species", s.species},
        {"tree", s.tree},
        {"sequence", opt(s.sequence)},
        {"cross_cut", s.cross_cut},
        {"face_b_up", s.face_b_up},
        {"ends_swapped", s.ends_swapped},
        {"pith_mm", opt(s.pith_mm)},
        {"moisture_pct", opt(s.moisture_pct)},
        {"moisture_on", s.moisture_on},
        {"moisture_log", log},
        {"sawn_on", s.sawn_on},
        {"retired", s.retired},
        {"cut_from", s.cut_from},
        {"price", opt(s.price)},
        {"notes", s.notes},
        {"tape", {{"lean_left_mm", s.tape.lean_left_mm}, {"lean_right_mm", s.tape.lean_right_mm}, {"stations", stations}}},
        {"outline",
         s.outline
             ? Json{{"a", points(s.outline->a)}, {"b", points(s.outline->b)}, {"error_mm", s.outline->error_mm}, {"from", s.outline->from}}
             : Json(nullptr)},
        {"picture_a", picture(s.picture_a)},
        {"picture_b", picture(s.picture_b)},
        {"heights_a", of(s.heights_a)},
        {"heights_b", of(s.heights_b)},
        {"scan", s.scan},
        {"flaws", flaws}};
}

Shop shop_from_json(const Json& j) {
    const Node n(j, "shop");
    Shop s;
    n.maybe("name", s.name);
    if (n.has("units")) {
        const Node u = n["units"];
        u.choice("length", s.units.length, length_names);
        u.maybe("litres", s.units.litres), u.maybe("kilograms", s.units.kilograms), u.maybe("celsius", s.units.celsius);
    }
    if (n.has("sled")) {
        const Node d = n["sled"];
        Sled& v = s.sled;
        d.maybe("cutter_mm", v.cutter_mm), d.maybe("overlap", v.overlap), d.maybe("depth_mm", v.depth_mm);
        d.maybe("feed_mm_s", v.feed_mm_s), d.maybe("turn_s", v.turn_s), d.maybe("layer_s", v.layer_s);
        d.maybe("floor_mm", v.floor_mm), d.maybe("rail_mm", v.rail_mm), d.maybe("stickout_mm", v.stickout_mm);
        d.maybe("tram_mm", v.tram_mm), d.maybe("spacers_mm", v.spacers_mm);
        if (v.cutter_mm <= 0) d["cutter_mm"].fail("a cutter has to have some width");
        if (v.overlap < 0 || v.overlap > 0.95) d["overlap"].fail("lanes overlap by 0 to 0.95 of the cutter");
        if (v.depth_mm <= 0) d["depth_mm"].fail("a layer has to have some depth");
        if (v.feed_mm_s <= 0) d["feed_mm_s"].fail("the router has to move");
    }
    n.maybe("resins", s.resins);
    if (s.resins.empty()) s.resins = starting_resins();
    n.maybe("air", s.air);
    if (n.has("workday")) {
        const Node w = n["workday"];
        w.maybe("from_h", s.workday.from_h), w.maybe("to_h", s.workday.to_h), w.maybe("saturdays", s.workday.saturdays);
        if (s.workday.to_h <= s.workday.from_h) w.fail("the working day ends before it begins");
    }
    n.maybe("bushings_mm", s.bushings_mm);
    n.maybe("letter", s.letter);
    return s;
}

Slab slab_from_json(const Json& j) {
    const Node n(j, "slab");
    Slab s;
    n["id"].to(s.id);
    n.maybe("name", s.name), n.maybe("species", s.species), n.maybe("tree", s.tree), n.maybe("sequence", s.sequence),
        n.maybe("cross_cut", s.cross_cut), n.maybe("face_b_up", s.face_b_up), n.maybe("ends_swapped", s.ends_swapped);
    n.maybe("pith_mm", s.pith_mm), n.maybe("moisture_pct", s.moisture_pct), n.maybe("moisture_on", s.moisture_on);
    n.maybe("moisture_log", s.moisture_log), n.maybe("sawn_on", s.sawn_on), n.maybe("retired", s.retired), n.maybe("cut_from", s.cut_from);
    n.maybe("price", s.price), n.maybe("notes", s.notes);
    if (n.has("tape")) {
        const Node t = n["tape"];
        t.maybe("lean_left_mm", s.tape.lean_left_mm), t.maybe("lean_right_mm", s.tape.lean_right_mm);
        t.maybe("stations", s.tape.stations);
    }
    n.maybe("outline", s.outline), n.maybe("picture_a", s.picture_a), n.maybe("picture_b", s.picture_b);
    n.maybe("heights_a", s.heights_a), n.maybe("heights_b", s.heights_b), n.maybe("flaws", s.flaws), n.maybe("scan", s.scan);
    return s;
}

Json parse_json(const std::string& text) {
    try {
        return Json::parse(text);
    } catch (const Json::parse_error& e) {
        const std::size_t at = e.byte > 0 ? std::min<std::size_t>(e.byte - 1, text.size()) : 0;
        std::size_t line = 1;
        std::size_t column = 1;
        for (std::size_t i = 0; i < at; ++i) text[i] == '\n' ? (++line, column = 1) : ++column;
        throw FormatError(fmt::format("line {}, column {}", line, column),
                          at >= text.size() ? "the file ends too early: it was cut short"
                                            : "this is not JSON; a bracket, comma or quote is missing near here");
    } catch (const Json::exception& e) {  // a number beyond all bounds
        const std::string what = e.what();
        const auto quote = what.find('\'');
        throw FormatError("a number in it is too large to be one" + (quote == std::string::npos ? "" : ": " + what.substr(quote)));
    }
}

}  // namespace yb
