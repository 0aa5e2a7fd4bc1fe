#include "core/drawing/drawing.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

#include "core/io/format_error.h"

namespace yb {
namespace {

constexpr double join_within = 0.01;

/// Joins open paths end to end where they meet, and closes those that come back to where they began.
void join(std::vector<DrawnPath>& paths) {
    const auto meet = [](Vec2 a, Vec2 b) { return length(a - b) <= join_within; };
    for (bool joined = true; joined;) {
        joined = false;
        for (std::size_t i = 0; i < paths.size() && !joined; ++i) {
            if (paths[i].closed || paths[i].points.empty()) continue;
            for (std::size_t k = 0; k < paths.size() && !joined; ++k) {
                if (k == i || paths[k].closed || paths[k].points.empty()) continue;
                Ring& a = paths[i].points;
                Ring b = paths[k].points;
                if (meet(a.back(), b.back())) std::reverse(b.begin(), b.end());
                else if (meet(a.front(), b.front())) std::reverse(a.begin(), a.end());
                else if (meet(a.front(), b.back())) std::reverse(a.begin(), a.end()), std::reverse(b.begin(), b.end());
                if (!meet(a.back(), b.front())) continue;
                a.insert(a.end(), b.begin() + 1, b.end());
                paths.erase(paths.begin() + static_cast<std::ptrdiff_t>(k));
                joined = true;
            }
        }
    }
    for (DrawnPath& p : paths) {
        if (!p.closed && p.points.size() > 3 && meet(p.points.front(), p.points.back())) p.closed = true;
        if (p.closed && p.points.size() > 1 && meet(p.points.front(), p.points.back())) p.points.pop_back();
    }
}

std::string escaped(const std::string& s) {
    std::string out;
    for (const char c : s) out += c == '&' ? "&amp;" : c == '<' ? "&lt;" : c == '"' ? "&quot;" : std::string(1, c);
    return out;
}

}  // namespace

DrawnSlab slab_from_drawing(const Drawing& drawing, double mm_per_unit) {
    std::vector<DrawnPath> paths = drawing.paths;
    join(paths);
    const DrawnPath* best = nullptr;
    for (const DrawnPath& p : paths)
        if (p.closed && p.points.size() >= 3 && (!best || area(p.points) > area(best->points))) best = &p;
    if (!best || area(best->points) < 1e-6) {
        double gap = 1e300;
        Vec2 at;
        for (const DrawnPath& p : paths)
            for (const DrawnPath& q : paths) {
                if (p.points.size() < 2 || q.points.size() < 2) continue;
                const double d = length(p.points.back() - q.points.front());
                if (d < gap && (d > join_within || &p != &q)) gap = d, at = p.points.back();
            }
        if (gap > 1e299) throw FormatError("there is no line in the drawing");
        throw FormatError(
            fmt::format("no line closes to an outline; the nearest open ends are {:.2f} apart, at {:.1f}, {:.1f} of the drawing. Join them "
                        "and try again",
                        gap, at.x, at.y));
    }
    if (const auto x = self_crossing(best->points))
        throw FormatError(
            fmt::format("the outline crosses itself at {:.1f}, {:.1f} of the drawing. Mend it there and try again", x->x, x->y));
    const Box box = bounds(best->points);
    const bool upright = box.height() > box.width();
    const auto place = [&](Ring r) {
        for (Vec2& p : r) {
            p = upright ? Vec2{p.y - box.low.y, (box.low.x + box.high.x) / 2 - p.x}
                        : Vec2{p.x - box.low.x, p.y - (box.low.y + box.high.y) / 2};
            p = p * mm_per_unit;
        }
        if (signed_area(r) < 0) std::reverse(r.begin(), r.end());
        return r;
    };
    DrawnSlab out;
    out.outline.a = place(best->points);
    out.outline.b = out.outline.a;
    out.outline.from = "drawing";
    for (const DrawnPath& p : paths) {
        if (&p == best || !p.closed || p.points.size() < 3 || !contains(best->points, centroid(p.points))) continue;
        Flaw f;
        f.id = "flaw-" + std::to_string(out.flaws.size() + 1);
        f.kind = FlawKind::void_;
        f.outline = place(p.points);
        f.through = true;
        out.flaws.push_back(f);
    }
    return out;
}

std::string to_svg(const std::vector<DrawnPath>& paths, const std::string& title) {
    Ring all;
    for (const DrawnPath& p : paths) all.insert(all.end(), p.points.begin(), p.points.end());
    const Box b = bounds(all);
    constexpr double margin = 10;
    const double w = b.width() + 2 * margin;
    const double h = b.height() + 2 * margin;
    std::string out = fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0:.3f}mm\" height=\"{1:.3f}mm\" "
        "viewBox=\"0 0 {0:.3f} {1:.3f}\">\n<title>{2}</title>\n",
        w, h, escaped(title));
    std::string layer;
    bool open = false;
    for (const DrawnPath& p : paths) {
        if (p.points.empty()) continue;
        if (!open || p.layer != layer) {
            if (open) out += "</g>\n";
            layer = p.layer;
            out += fmt::format("<g id=\"{}\" fill=\"none\" stroke=\"black\" stroke-width=\"0.3\">\n", escaped(layer));
            open = true;
        }
        out += "<path d=\"";
        for (std::size_t i = 0; i < p.points.size(); ++i)
            out += fmt::format("{}{:.3f} {:.3f}", i ? " L" : "M", p.points[i].x - b.low.x + margin, b.high.y - p.points[i].y + margin);
        out += p.closed ? " Z\"/>\n" : "\"/>\n";
    }
    if (open) out += "</g>\n";
    return out + "</svg>\n";
}

std::string to_dxf(const std::vector<DrawnPath>& paths) {
    // R12 as the open reference has it; every reader takes it.
    std::string out =
        "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n9\n$INSUNITS\n70\n4\n9\n$MEASUREMENT\n70\n1\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
    for (const DrawnPath& p : paths) {
        if (p.points.size() < 2) continue;
        std::string layer = p.layer.empty() ? "0" : p.layer;
        for (char& c : layer)
            if (c == ' ') c = '_';
        out += fmt::format("0\nPOLYLINE\n8\n{}\n66\n1\n70\n{}\n10\n0\n20\n0\n30\n0\n", layer, p.closed ? 1 : 0);
        for (const Vec2 q : p.points) out += fmt::format("0\nVERTEX\n8\n{}\n10\n{:.4f}\n20\n{:.4f}\n30\n0\n", layer, q.x, q.y);
        out += fmt::format("0\nSEQEND\n8\n{}\n", layer);
    }
    return out + "0\nENDSEC\n0\nEOF\n";
}

}  // namespace yb
