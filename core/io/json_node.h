// Reading JSON with the place of every value, and the words of enumerations: used by core/io only.
#pragma once

#include <array>
#include <cmath>

#include <fmt/format.h>

#include "core/io/json.h"

namespace yb {

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
    void to(Placement& p) const {
        maybe("x_mm", p.x_mm), maybe("y_mm", p.y_mm), maybe("angle_deg", p.angle_deg);
        maybe("turned_over", p.turned_over), maybe("oversize_mm", p.oversize_mm);
    }
    void to(Leaf& l) const {
        maybe("slab", l.slab), maybe("placement", l.placement), maybe("supports", l.supports), maybe("voids", l.voids);
    }
    void to(Joint& v) const { maybe("v_mm", v.v_mm), maybe("angle_deg", v.angle_deg), maybe("curved", v.curved); }
    void to(Patch& p) const {
        (*this)["id"].to(p.id), (*this)["outline"].to(p.outline);
        maybe("depth_mm", p.depth_mm), maybe("slab", p.slab), maybe("at", p.at), maybe("turn_deg", p.turn_deg);
        if (p.depth_mm <= 0) (*this)["depth_mm"].fail("a recess has to have some depth");
    }
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

inline constexpr std::array flaw_names{"crack", "void", "pocket", "knot", "soft", "insects", "pith", "scar"};
inline constexpr std::array face_names{"A", "B"};
inline constexpr std::array live_names{"both", "left", "right", "none"};
inline constexpr std::array aim_names{"share_out", "spare_show", "as_it_lies"};
inline constexpr std::array finish_names{"wanted", "thickest"};
inline constexpr std::array first_names{"show", "underside"};
inline constexpr std::array fixed_names{"middle", "left", "right"};
inline constexpr std::array length_names{"millimetres", "inches_16", "inches_32", "inches_decimal", "feet_inches"};

inline void Node::to(Flaw& f) const {
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

inline Json points(const Ring& r) {
    Json a = Json::array();
    for (const Vec2 p : r) a.push_back({p.x, p.y});
    return a;
}

inline Json of(const Climate& c) {
    Json months = Json::array();
    for (const Month& m : c.months) months.push_back({{"temp_c", m.temp_c}, {"rh_pct", m.rh_pct}});
    return {{"name", c.name}, {"months", months}};
}

}  // namespace yb
