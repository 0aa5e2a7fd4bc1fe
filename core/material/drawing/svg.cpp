#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <cstring>
#include <numbers>
#include <set>
#include <sstream>
#include <string_view>

#include <fmt/format.h>
#include <pugixml.hpp>

#include "core/ground/file/format_error.h"
#include "core/ground/file/text.h"
#include "core/material/drawing/drawing.h"

namespace yb {
namespace {

constexpr double chord_error = 0.05;

/// Numbers of an attribute, one after the other: blanks and commas part them, and so does a sign.
class Numbers {
  public:
    explicit Numbers(const char* text) : at_(text), begin_(text) {}
    bool more() {
        while (*at_ == ' ' || *at_ == ',' || *at_ == '\n' || *at_ == '\t' || *at_ == '\r') ++at_;
        return *at_ != 0;
    }
    bool is_number() { return more() && (std::strchr("+-.0123456789", *at_) != nullptr); }
    char letter() {
        more();
        return *at_++;
    }
    /// An arc's flag is one digit and may stand against the next.
    bool flag() {
        if (!more() || (*at_ != '0' && *at_ != '1')) fail();
        return *at_++ == '1';
    }
    double next() {
        if (!is_number()) fail();
        double v = 0;
        const char* from = *at_ == '+' ? at_ + 1 : at_;
        const auto [p, error] = std::from_chars(from, from + std::strlen(from), v);
        if (error != std::errc() || !(std::abs(v) <= farthest_place)) fail();
        at_ = p;
        return v;
    }
    [[noreturn]] void fail() const {
        throw FormatError(
            fmt::format("SVG: a number is wanted at ‘{}’ (character {} of the path)", std::string(at_).substr(0, 12), at_ - begin_ + 1));
    }

  private:
    const char *at_, *begin_;
};

struct Matrix {
    double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;
    Vec2 operator()(Vec2 p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f}; }
    Matrix then(const Matrix& m) const {
        return {a * m.a + c * m.b, b * m.a + d * m.b, a * m.c + c * m.d, b * m.c + d * m.d, a * m.e + c * m.f + e, b * m.e + d * m.f + f};
    }
};

Matrix read_transform(const char* text) {
    Matrix all;
    std::string s(text);
    std::size_t at = 0;
    while (true) {
        const std::size_t open = s.find('(', at);
        if (open == std::string::npos) return all;
        const std::size_t close = s.find(')', open);
        if (close == std::string::npos) throw FormatError("SVG: the transform ‘" + s + "’ is not closed");
        std::string name = s.substr(at, open - at);
        std::erase_if(name, [](char c) { return c == ' ' || c == ',' || c == '\n' || c == '\t'; });
        const std::string inside = s.substr(open + 1, close - open - 1);
        Numbers n(inside.c_str());
        std::vector<double> v;
        while (n.more()) v.push_back(n.next());
        const auto get = [&](std::size_t i, double other) { return i < v.size() ? v[i] : other; };
        Matrix m;
        if (name == "matrix" && v.size() == 6) m = {v[0], v[1], v[2], v[3], v[4], v[5]};
        else if (name == "translate") m.e = get(0, 0), m.f = get(1, 0);
        else if (name == "scale") m.a = get(0, 1), m.d = get(1, get(0, 1));
        else if (name == "rotate") {
            const double r = get(0, 0) * std::numbers::pi / 180;
            const Matrix turn{std::cos(r), std::sin(r), -std::sin(r), std::cos(r), 0, 0};
            Matrix to;
            to.e = get(1, 0), to.f = get(2, 0);
            Matrix back;
            back.e = -to.e, back.f = -to.f;
            m = to.then(turn).then(back);
        } else if (name == "skewX") m.c = std::tan(get(0, 0) * std::numbers::pi / 180);
        else if (name == "skewY") m.b = std::tan(get(0, 0) * std::numbers::pi / 180);
        else throw FormatError("SVG: the transform ‘" + name + "’ is not known");
        all = all.then(m);
        at = close + 1;
    }
}

/// Points of a curve from 0 to 1 (its beginning left out) so close that chords keep to it.
template <class F>
void curve(Ring& out, double size, F at) {
    const double wanted = std::ceil(std::sqrt(size / chord_error));
    const int n = wanted < 400 ? std::max(4, static_cast<int>(wanted)) : 400;
    for (int i = 1; i <= n; ++i) out.push_back(at(static_cast<double>(i) / n));
}

/// Elliptical arc from end points to centre (SVG 1.1, appendix F.6.5).
void arc(Ring& out, Vec2 from, double rx, double ry, double turn_deg, bool large, bool sweep, Vec2 to) {
    rx = std::abs(rx), ry = std::abs(ry);
    if (rx < 1e-12 || ry < 1e-12 || length(to - from) < 1e-12) {
        out.push_back(to);
        return;
    }
    const double turn = turn_deg * std::numbers::pi / 180;
    const double c = std::cos(turn);
    const double s = std::sin(turn);
    const Vec2 half = (from - to) * 0.5;
    const Vec2 p{c * half.x + s * half.y, -s * half.x + c * half.y};
    const double fit = p.x * p.x / (rx * rx) + p.y * p.y / (ry * ry);
    if (fit > 1) rx *= std::sqrt(fit), ry *= std::sqrt(fit);
    const double num = rx * rx * ry * ry - rx * rx * p.y * p.y - ry * ry * p.x * p.x;
    const double k = (large == sweep ? -1 : 1) * std::sqrt(std::max(0.0, num / (rx * rx * p.y * p.y + ry * ry * p.x * p.x)));
    const Vec2 m{k * rx * p.y / ry, -k * ry * p.x / rx};
    const Vec2 centre{c * m.x - s * m.y + (from.x + to.x) / 2, s * m.x + c * m.y + (from.y + to.y) / 2};
    const double a0 = std::atan2((p.y - m.y) / ry, (p.x - m.x) / rx);
    double sweep_angle = std::atan2((-p.y - m.y) / ry, (-p.x - m.x) / rx) - a0;
    if (sweep && sweep_angle < 0) sweep_angle += 2 * std::numbers::pi;
    if (!sweep && sweep_angle > 0) sweep_angle -= 2 * std::numbers::pi;
    curve(out, std::max(rx, ry) * std::abs(sweep_angle) * std::abs(sweep_angle), [&](double t) {
        const double a = a0 + sweep_angle * t;
        const Vec2 e{rx * std::cos(a), ry * std::sin(a)};
        return t == 1 ? to : Vec2{c * e.x - s * e.y + centre.x, s * e.x + c * e.y + centre.y};
    });
}

FormatError too_many() {
    return FormatError(fmt::format("SVG: more than {} million points are not read. Draw it with fewer", most_drawing_points / 1000000));
}

/// @param most points.
std::vector<DrawnPath> read_path(const char* d, std::size_t most) {
    std::vector<DrawnPath> out;
    const DrawnPath* counted = nullptr;
    std::size_t total = 0;
    std::size_t before = 0;
    Numbers n(d);
    Vec2 here, start, handle;
    char last = 0;
    const auto path = [&]() -> DrawnPath& {
        if (out.empty() || out.back().closed) out.push_back({{here}, false, ""});
        return out.back();
    };
    while (n.more()) {
        char op = n.is_number() ? (last == 'M' ? 'L' : last == 'm' ? 'l' : last) : n.letter();
        if (op == 0 || (n.is_number() && (last | 32) == 'z')) n.fail();
        const bool relative = op >= 'a';
        const auto point = [&] {
            const double x = n.next();
            const double y = n.next();
            return relative ? here + Vec2{x, y} : Vec2{x, y};
        };
        const bool smooth_cubic = last && std::strchr("CcSs", last);
        const bool smooth_square = last && std::strchr("QqTt", last);
        switch (op | 32) {
            case 'm':
                here = start = point();
                out.push_back({{here}, false, ""});
                break;
            case 'l': here = point(), path().points.push_back(here); break;
            case 'h': here.x = n.next() + (relative ? here.x : 0), path().points.push_back(here); break;
            case 'v': here.y = n.next() + (relative ? here.y : 0), path().points.push_back(here); break;
            case 'c':
            case 's': {
                const Vec2 p0 = here;
                const Vec2 p1 = (op | 32) == 'c' ? point() : smooth_cubic ? here * 2 - handle : here;
                const Vec2 p2 = point();
                const Vec2 p3 = point();
                curve(path().points, length(p1 - p0) + length(p2 - p1) + length(p3 - p2), [&](double t) {
                    const double u = 1 - t;
                    return p0 * (u * u * u) + p1 * (3 * u * u * t) + p2 * (3 * u * t * t) + p3 * (t * t * t);
                });
                handle = p2, here = p3;
                break;
            }
            case 'q':
            case 't': {
                const Vec2 p0 = here;
                const Vec2 p1 = (op | 32) == 'q' ? point() : smooth_square ? here * 2 - handle : here;
                const Vec2 p2 = point();
                curve(path().points, length(p1 - p0) + length(p2 - p1),
                      [&](double t) { return p0 * ((1 - t) * (1 - t)) + p1 * (2 * t * (1 - t)) + p2 * (t * t); });
                handle = p1, here = p2;
                break;
            }
            case 'a': {
                const double rx = n.next();
                const double ry = n.next();
                const double turn = n.next();
                const bool large = n.flag();
                const bool sweep = n.flag();
                const Vec2 to = point();
                arc(path().points, here, rx, ry, turn, large, sweep, to);
                here = to;
                break;
            }
            case 'z':
                if (!out.empty()) out.back().closed = true;
                here = start;
                break;
            default: throw FormatError(fmt::format("SVG: ‘{}’ is no command of a path", op));
        }
        last = op;
        if (!out.empty()) {
            if (&out.back() != counted) counted = &out.back(), before = total;
            total = before + out.back().points.size();
        }
        if (total > most) throw too_many();
    }
    return out;
}

std::optional<double> unit_of(const char* text) {
    double v = 0;
    while (*text == ' ') ++text;
    const auto [end, error] = std::from_chars(text, text + std::strlen(text), v);
    if (error != std::errc() || !(v > 0) || v > farthest_place) return {};
    const std::string unit(end);
    if (unit == "mm") return v;
    if (unit == "cm") return v * 10;
    if (unit == "in") return v * 25.4;
    if (unit == "pt") return v * 25.4 / 72;
    if (unit == "pc") return v * 25.4 / 6;
    return {};  // px and plain numbers say nothing about the size of a slab
}

/// A number at the beginning of an attribute, whatever the desktop's decimal sign; 0 where there is none.
double number_in(const pugi::xml_attribute& a) {
    Numbers n(a.value());
    return n.is_number() ? n.next() : 0;
}

struct Walked {
    Drawing& out;
    const Work& work;
    std::set<std::string> hidden{};  ///< classes that a style sheet does not show
    std::size_t points = 0;
};

/// A declaration of CSS without its blanks: `display:none`, whatever follows.
bool hides(std::string style) {
    std::erase_if(style, [](unsigned char c) { return std::isspace(c) != 0; });
    std::transform(style.begin(), style.end(), style.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    for (std::size_t at = style.find("display:none"); at != std::string::npos; at = style.find("display:none", at + 1))
        if (at == 0 || style[at - 1] == ';' || style[at - 1] == '{') return true;
    return false;
}

/// The classes that a style sheet hides: `.off { display: none }`, several of them parted by commas.
void read_hidden(const std::string& sheet, std::set<std::string>& hidden) {
    for (std::size_t at = 0;;) {
        const std::size_t open = sheet.find('{', at);
        const std::size_t close = open == std::string::npos ? open : sheet.find('}', open);
        if (close == std::string::npos) return;
        if (hides(sheet.substr(open + 1, close - open - 1))) {
            const std::string names = sheet.substr(at, open - at);
            for (std::size_t dot = names.find('.'); dot != std::string::npos; dot = names.find('.', dot + 1))
                hidden.insert(names.substr(dot + 1, names.find_first_of(" ,.\n\r\t:>", dot + 1) - dot - 1));
        }
        at = close + 1;
    }
}

bool is_hidden(const pugi::xml_node& n, const Walked& to) {
    if (std::string_view(n.attribute("display").value()) == "none" || hides(n.attribute("style").value())) return true;
    if (to.hidden.empty()) return false;
    std::istringstream classes(n.attribute("class").value());
    for (std::string one; classes >> one;)
        if (to.hidden.count(one)) return true;
    return false;
}

std::string_view local(const pugi::xml_node& n) {
    const std::string_view full = n.name();
    return full.substr(full.find(':') == std::string_view::npos ? 0 : full.find(':') + 1);
}

void read_sheets(const pugi::xml_node& node, Walked& to, int depth) {
    if (depth > most_svg_depth) return;
    for (const pugi::xml_node& n : node.children()) {
        if (local(n) == "style") read_hidden(n.text().get(), to.hidden);
        else read_sheets(n, to, depth + 1);
    }
}

void walk(const pugi::xml_node& node, const Matrix& outer, Walked& to, int depth) {
    if (depth > most_svg_depth) throw FormatError(fmt::format("SVG: groups are nested more than {} deep", most_svg_depth));
    for (const pugi::xml_node& n : node.children()) {
        const std::string_view name = local(n);
        if (name == "defs" || name == "clipPath" || name == "symbol" || name == "pattern" || name == "marker" || name == "mask" ||
            is_hidden(n, to))
            continue;
        if (to.out.paths.size() % 256 == 0) to.work.check();
        const Matrix m = outer.then(read_transform(n.attribute("transform").value()));
        const auto v = [&](const char* key) { return number_in(n.attribute(key)); };
        std::vector<DrawnPath> made;
        const auto ellipse = [&](double rx, double ry) {
            Ring r;
            const Vec2 c{v("cx"), v("cy")};
            curve(r, std::max(rx, ry) * 40, [&](double t) {
                return c + Vec2{rx * std::cos(2 * std::numbers::pi * t), ry * std::sin(2 * std::numbers::pi * t)};
            });
            if (rx > 0 && ry > 0) made.push_back({r, true, ""});
        };
        if (name == "path") made = read_path(n.attribute("d").value(), most_drawing_points - to.points);
        else if (name == "polygon" || name == "polyline") {
            DrawnPath p{{}, name == "polygon", ""};
            Numbers numbers(n.attribute("points").value());
            while (numbers.more()) {
                const double x = numbers.next();
                p.points.push_back({x, numbers.next()});
            }
            made.push_back(p);
        } else if (name == "line") made.push_back({{{v("x1"), v("y1")}, {v("x2"), v("y2")}}, false, ""});
        else if (name == "rect") {
            const Vec2 a{v("x"), v("y")};
            const Vec2 b = a + Vec2{v("width"), v("height")};
            made.push_back({{a, {b.x, a.y}, b, {a.x, b.y}}, true, ""});
        } else if (name == "circle") ellipse(v("r"), v("r"));
        else if (name == "ellipse") ellipse(v("rx"), v("ry"));
        for (DrawnPath& p : made) {
            for (Vec2& q : p.points) {
                q = m(q);
                q.y = -q.y;  // down the page is towards the maker
            }
            p.layer = plain_text(node.attribute("id").value());
            to.points += p.points.size();
            if (to.points > most_drawing_points) throw too_many();
            if (p.points.size() > 1) to.out.paths.push_back(std::move(p));
        }
        walk(n, m, to, depth + 1);
    }
}

}  // namespace

Drawing read_svg(const std::string& bytes, const Work& work) {
    pugi::xml_document doc;
    const auto result = doc.load_buffer(bytes.data(), bytes.size());
    if (!result)
        throw FormatError(
            fmt::format("SVG: it is not well-formed XML from character {} on. It was cut short or is damaged", result.offset + 1));
    pugi::xml_node root;
    for (const auto& n : doc.children()) {
        const std::string name = n.name();
        if (name == "svg" || (name.size() > 4 && name.substr(name.size() - 4) == ":svg")) root = n;
    }
    if (!root) throw FormatError("this is no SVG drawing");
    Drawing d;
    const auto width = unit_of(root.attribute("width").value());
    if (width) {
        Numbers n(root.attribute("viewBox").value());
        double box[4] = {0, 0, 0, 0};
        for (int i = 0; i < 4 && n.more(); ++i) box[i] = n.next();
        // Without a viewBox a unit is a pixel of 1/96 inch; one of nothing says nothing.
        if (box[2] > 0) d.mm_per_unit = *width / box[2];
        else if (!root.attribute("viewBox")) d.mm_per_unit = 25.4 / 96;
    }
    Walked to{d, work};
    read_sheets(root, to, 0);
    walk(root, {}, to, 0);
    check_places(d, "SVG");
    return d;
}

}  // namespace yb
