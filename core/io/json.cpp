#include "core/io/json.h"

#include <array>
#include <cmath>

#include <fmt/format.h>

namespace yb {
namespace {

/// A value in a document together with its path.
class Node {
  public:
    Node(const Json& j, std::string path) : j_(j), path_(std::move(path)) {}

    [[noreturn]] void fail(const std::string& what) const { throw FormatError(path_, what); }
    bool has(const char* key) const { return j_.is_object() && j_.contains(key) && !j_.at(key).is_null(); }
    Node operator[](const char* key) const {
        if (!j_.is_object()) fail("an object { } is wanted here");
        if (!j_.contains(key)) fail(fmt::format("the field ‘{}’ is missing", key));
        return {j_.at(key), path_ + "." + key};
    }
    std::size_t size() const {
        if (!j_.is_array()) fail("a list [ ] is wanted here");
        return j_.size();
    }
    Node item(std::size_t i) const { return {j_.at(i), fmt::format("{}[{}]", path_, i)}; }
    bool null() const { return j_.is_null(); }

    void to(double& v) const {
        if (!j_.is_number()) fail("a number is wanted here, not " + shown());
        v = j_.get<double>();
        if (!std::isfinite(v)) fail("the number is too large");
    }
    void to(int& v) const {
        if (!j_.is_number_integer()) fail("a whole number is wanted here, not " + shown());
        v = j_.get<int>();
    }
    void to(bool& v) const {
        if (!j_.is_boolean()) fail("true or false is wanted here, not " + shown());
        v = j_.get<bool>();
    }
    void to(std::string& v) const {
        if (!j_.is_string()) fail("a text in quotes is wanted here, not " + shown());
        v = j_.get<std::string>();
    }
    template <class T>
    void to(std::optional<T>& v) const {
        if (null()) return v.reset();
        T inner{};
        to(inner);
        v = inner;
    }
    template <class T>
    void to(std::vector<T>& v) const {
        v.clear();
        for (std::size_t i = 0; i < size(); ++i) item(i).to(v.emplace_back());
    }
    void to(Vec2& p) const {
        if (size() != 2) fail("a point is two numbers [x, y]");
        item(0).to(p.x);
        item(1).to(p.y);
    }
    /// Reads a field that may be left out: the value keeps its default then.
    template <class T>
    void maybe(const char* key, T& v) const {
        if (has(key)) (*this)[key].to(v);
    }
    template <class E, std::size_t N>
    void choice(const char* key, E& v, const std::array<const char*, N>& names) const {
        if (!has(key)) return;
        std::string s;
        (*this)[key].to(s);
        for (std::size_t i = 0; i < N; ++i)
            if (s == names[i]) {
                v = static_cast<E>(i);
                return;
            }
        (*this)[key].fail(fmt::format("‘{}’ is not known; one of: {}", s, fmt::join(names, ", ")));
    }

    void to(Month& m) const {
        (*this)["temp_c"].to(m.temp_c);
        (*this)["rh_pct"].to(m.rh_pct);
        if (m.rh_pct < 0 || m.rh_pct > 100) (*this)["rh_pct"].fail("relative humidity goes from 0 to 100");
        if (m.temp_c < -40 || m.temp_c > 60) (*this)["temp_c"].fail("a temperature from -40 to 60 °C is wanted");
    }
    void to(Climate& c) const {
        maybe("name", c.name);
        const Node months = (*this)["months"];
        if (months.size() != 12) months.fail("twelve months are wanted");
        for (std::size_t i = 0; i < 12; ++i) months.item(i).to(c.months[i]);
    }
    void to(Station& s) const {
        (*this)["x_mm"].to(s.x_mm);
        maybe("left_mm", s.left_mm), maybe("right_mm", s.right_mm);
        maybe("other_left_mm", s.other_left_mm), maybe("other_right_mm", s.other_right_mm);
        maybe("thickness_mm", s.thickness_mm), maybe("thickness_right_mm", s.thickness_right_mm);
    }
    void to(HeightGrid& g) const {
        (*this)["x_mm"].to(g.x_mm), (*this)["y_mm"].to(g.y_mm), (*this)["gap_mm"].to(g.gap_mm);
        if (g.gap_mm.size() != g.x_mm.size() * g.y_mm.size())
            (*this)["gap_mm"].fail(fmt::format("{} gaps are wanted ({} by {}), {} are here", g.x_mm.size() * g.y_mm.size(), g.x_mm.size(),
                                               g.y_mm.size(), g.gap_mm.size()));
    }
    void to(Flaw& f) const;
    void to(TracedOutline& o) const {
        (*this)["a"].to(o.a), (*this)["b"].to(o.b);
        maybe("error_mm", o.error_mm), maybe("from", o.from);
        if (o.a.size() != o.b.size())
            fail(fmt::format("the rings of the two faces are matched point by point: {} and {} points are here", o.a.size(), o.b.size()));
    }
    void to(MoistureReading& r) const { (*this)["on"].to(r.on), (*this)["pct"].to(r.pct); }
    void to(FacePicture& p) const {
        (*this)["key"].to(p.key), (*this)["mm_per_px"].to(p.mm_per_px), (*this)["corner"].to(p.corner);
        maybe("width_px", p.width_px), maybe("height_px", p.height_px);
        maybe("mirrored", p.mirrored);
        if (!(p.mm_per_px > 0)) (*this)["mm_per_px"].fail("a pixel has to have some size");
    }
    void to(Support& s) const { (*this)["x_mm"].to(s.x_mm), (*this)["y_mm"].to(s.y_mm); }
    void to(VoidFill& v) const {
        (*this)["flaw_id"].to(v.flaw_id);
        maybe("resin", v.resin), maybe("leave_open", v.leave_open);
    }
    void to(LegPlate& p) const {
        (*this)["u_mm"].to(p.u_mm), (*this)["v_mm"].to(p.v_mm);
        maybe("along_mm", p.along_mm), maybe("across_mm", p.across_mm);
        maybe("bolts_across", p.bolts_across), maybe("bolts_along", p.bolts_along);
        if (p.bolts_across < 1 || p.bolts_along < 1) fail("a plate has one bolt at least");
    }
    void to(Channel& c) const {
        (*this)["u_mm"].to(c.u_mm), (*this)["v_mm"].to(c.v_mm);
        maybe("length_mm", c.length_mm), maybe("width_mm", c.width_mm), maybe("depth_mm", c.depth_mm);
        maybe("wall_mm", c.wall_mm), maybe("bolts", c.bolts);
        if (c.bolts < 1) fail("a channel has one bolt at least");
    }
    void to(Resin& r) const {
        (*this)["key"].to(r.key), (*this)["label"].to(r.label);
        (*this)["gel_25_h"].to(r.gel_25_h), (*this)["deepest_mm"].to(r.deepest_mm);
        (*this)["parts_a"].to(r.parts_a), (*this)["parts_b"].to(r.parts_b);
        (*this)["density_a"].to(r.density_a), (*this)["density_b"].to(r.density_b);
        maybe("thin", r.thin);
        if (r.deepest_mm <= 0) (*this)["deepest_mm"].fail("a lift has to have some depth");
        if (r.parts_a <= 0 || r.parts_b < 0) fail("the parts of a mix have to be above nothing");
    }

  private:
    std::string shown() const { return j_.dump().substr(0, 40); }
    const Json& j_;
    std::string path_;
};

constexpr std::array flaw_names{"crack", "void", "pocket", "knot", "soft", "insects", "pith", "scar"};
constexpr std::array face_names{"A", "B"};
constexpr std::array live_names{"both", "left", "right", "none"};
constexpr std::array aim_names{"share_out", "spare_show", "as_it_lies"};
constexpr std::array finish_names{"wanted", "thickest"};
constexpr std::array first_names{"show", "underside"};
constexpr std::array fixed_names{"middle", "left", "right"};
constexpr std::array length_names{"millimetres", "inches_16", "inches_32", "inches_decimal", "feet_inches"};

void Node::to(Flaw& f) const {
    (*this)["id"].to(f.id);
    choice("kind", f.kind, flaw_names);
    choice("face", f.face, face_names);
    (*this)["outline"].to(f.outline);
    maybe("through", f.through), maybe("depth_mm", f.depth_mm), maybe("floor_share", f.floor_share), maybe("note", f.note);
    if (f.floor_share < 0 || f.floor_share > 1) (*this)["floor_share"].fail("a share from 0 to 1 is wanted");
}

template <class E, std::size_t N>
const char* word(E v, const std::array<const char*, N>& names) {
    return names.at(static_cast<std::size_t>(v));
}

template <class T>
Json opt(const std::optional<T>& v) {
    return v ? Json(*v) : Json(nullptr);
}

Json points(const Ring& r) {
    Json a = Json::array();
    for (const Vec2 p : r) a.push_back({p.x, p.y});
    return a;
}

Json of(const Climate& c) {
    Json months = Json::array();
    for (const Month& m : c.months) months.push_back({{"temp_c", m.temp_c}, {"rh_pct", m.rh_pct}});
    return {{"name", c.name}, {"months", months}};
}

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
        {"flaws", flaws}};
}

Json to_json(const Job& j) {
    Json supports = Json::array();
    for (const Support& s : j.flat.supports) supports.push_back({{"x_mm", s.x_mm}, {"y_mm", s.y_mm}});
    Json voids = Json::array();
    for (const VoidFill& v : j.fill.voids) voids.push_back({{"flaw_id", v.flaw_id}, {"resin", v.resin}, {"leave_open", v.leave_open}});
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
            {"slab", j.slab},
            {"start", j.start},
            {"notes", j.notes},
            {"cuts_done", j.cuts_done},
            {"top",
             {{"length_mm", j.top.length_mm},
              {"width_mm", j.top.width_mm},
              {"thickness_mm", j.top.thickness_mm},
              {"height_mm", j.top.height_mm},
              {"live", word(j.top.live, live_names)},
              {"seats", j.top.seats}}},
            {"placement",
             {{"x_mm", j.placement.x_mm},
              {"y_mm", j.placement.y_mm},
              {"angle_deg", j.placement.angle_deg},
              {"turned_over", j.placement.turned_over},
              {"oversize_mm", j.placement.oversize_mm}}},
            {"flat",
             {{"aim", word(j.flat.aim, aim_names)},
              {"finish", word(j.flat.finish, finish_names)},
              {"first", word(j.flat.first, first_names)},
              {"supports", supports},
              {"rest_h", j.flat.rest_h},
              {"allowance_mm", j.flat.allowance_mm},
              {"both_faces_to_air", j.flat.both_faces_to_air}}},
            {"fill", {{"voids", voids}, {"overfill_mm", j.fill.overfill_mm}, {"reserve_pct", j.fill.reserve_pct}}},
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
    n.maybe("letter", s.letter);
    return s;
}

Slab slab_from_json(const Json& j) {
    const Node n(j, "slab");
    Slab s;
    n["id"].to(s.id);
    n.maybe("name", s.name), n.maybe("species", s.species), n.maybe("tree", s.tree), n.maybe("sequence", s.sequence);
    n.maybe("pith_mm", s.pith_mm), n.maybe("moisture_pct", s.moisture_pct), n.maybe("moisture_on", s.moisture_on);
    n.maybe("moisture_log", s.moisture_log), n.maybe("sawn_on", s.sawn_on), n.maybe("retired", s.retired), n.maybe("cut_from", s.cut_from);
    n.maybe("price", s.price), n.maybe("notes", s.notes);
    if (n.has("tape")) {
        const Node t = n["tape"];
        t.maybe("lean_left_mm", s.tape.lean_left_mm), t.maybe("lean_right_mm", s.tape.lean_right_mm);
        t.maybe("stations", s.tape.stations);
    }
    n.maybe("outline", s.outline), n.maybe("picture_a", s.picture_a), n.maybe("picture_b", s.picture_b);
    n.maybe("heights_a", s.heights_a), n.maybe("heights_b", s.heights_b), n.maybe("flaws", s.flaws);
    return s;
}

Job job_from_json(const Json& j) {
    const Node n(j, "job");
    Job v;
    n["id"].to(v.id);
    n.maybe("name", v.name), n.maybe("client", v.client), n.maybe("slab", v.slab), n.maybe("start", v.start), n.maybe("notes", v.notes);
    n.maybe("cuts_done", v.cuts_done);
    if (!v.start.empty() && !is_date(v.start)) n["start"].fail("‘" + v.start + "’ is not a date; write it as 2026-11-30");
    if (n.has("top")) {
        const Node t = n["top"];
        t.maybe("length_mm", v.top.length_mm), t.maybe("width_mm", v.top.width_mm), t.maybe("thickness_mm", v.top.thickness_mm);
        t.maybe("height_mm", v.top.height_mm), t.choice("live", v.top.live, live_names), t.maybe("seats", v.top.seats);
        for (const char* key : {"length_mm", "width_mm", "thickness_mm"})
            if (t.has(key)) {
                double d = 0;
                t[key].to(d);
                if (d <= 0) t[key].fail("has to be above nothing");
            }
    }
    if (n.has("placement")) {
        const Node p = n["placement"];
        p.maybe("x_mm", v.placement.x_mm), p.maybe("y_mm", v.placement.y_mm), p.maybe("angle_deg", v.placement.angle_deg);
        p.maybe("turned_over", v.placement.turned_over), p.maybe("oversize_mm", v.placement.oversize_mm);
    }
    if (n.has("flat")) {
        const Node f = n["flat"];
        f.choice("aim", v.flat.aim, aim_names), f.choice("finish", v.flat.finish, finish_names),
            f.choice("first", v.flat.first, first_names);
        f.maybe("supports", v.flat.supports), f.maybe("rest_h", v.flat.rest_h), f.maybe("allowance_mm", v.flat.allowance_mm);
        f.maybe("both_faces_to_air", v.flat.both_faces_to_air);
    }
    if (n.has("fill")) {
        const Node f = n["fill"];
        f.maybe("voids", v.fill.voids), f.maybe("overfill_mm", v.fill.overfill_mm), f.maybe("reserve_pct", v.fill.reserve_pct);
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
    }
}

std::string write_job_file(const JobFile& f) {
    return Json{{"format", "young-burl job"}, {"version", 1}, {"job", to_json(f.job)}, {"slab", to_json(f.slab)}, {"shop", to_json(f.shop)}}
        .dump(1);
}

JobFile read_job_file(const std::string& text) {
    const Json j = parse_json(text);
    if (!j.is_object() || j.value("format", "") != "young-burl job")
        throw FormatError("", "this is not a job file: its first field has to be \"format\": \"young-burl job\"");
    if (!j.contains("version") || !j["version"].is_number_integer() || j["version"] != 1)
        throw FormatError("version", "only version 1 can be read; this file is newer than the program");
    for (const char* part : {"job", "slab"})
        if (!j.contains(part)) throw FormatError(part, "the file has none");
    return {job_from_json(j["job"]), slab_from_json(j["slab"]), j.contains("shop") ? shop_from_json(j["shop"]) : Shop()};
}

}  // namespace yb
