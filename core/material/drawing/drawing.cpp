#include "core/material/drawing/drawing.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>
#include <sstream>
#include <unordered_map>

#include <fmt/format.h>
#include <pugixml.hpp>

#include "core/ground/file/format_error.h"

namespace yb {
namespace {

constexpr double join_within = 0.01;

bool meet(Vec2 a, Vec2 b) { return length(a - b) <= join_within; }

/// Open ends by where they lie: those near a place are found without looking at all others.
class Ends {
  public:
    explicit Ends(const std::vector<DrawnPath>& paths) {
        for (std::size_t i = 0; i < paths.size(); ++i) {
            if (paths[i].closed || paths[i].points.size() < 2) continue;
            add(paths[i].points.front(), {i, false});
            add(paths[i].points.back(), {i, true});
        }
    }
    struct End {
        std::size_t path = 0;
        bool back = false;
    };
    /// An end of another path that meets `p`; its path is taken out.
    std::optional<End> take(Vec2 p, const std::vector<DrawnPath>& paths, std::vector<bool>& taken) {
        for (int dx = -1; dx <= 1; ++dx)
            for (int dy = -1; dy <= 1; ++dy) {
                const auto it = cells_.find(cell(p, dx, dy));
                if (it == cells_.end()) continue;
                std::vector<End>& here = it->second;
                for (std::size_t i = 0; i < here.size();) {
                    const End e = here[i];
                    if (taken[e.path]) {  // joined already: not looked at again
                        here[i] = here.back();
                        here.pop_back();
                        continue;
                    }
                    const Ring& r = paths[e.path].points;
                    if (meet(p, e.back ? r.back() : r.front())) {
                        taken[e.path] = true;
                        return e;
                    }
                    ++i;
                }
            }
        return {};
    }

  private:
    static std::uint64_t cell(Vec2 p, int dx, int dy) {
        const auto at = [](double v, int d) {
            return static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(v / join_within)) + d);
        };
        return at(p.x, dx) * 0x9E3779B97F4A7C15U ^ at(p.y, dy) * 0xC2B2AE3D27D4EB4FU;
    }
    void add(Vec2 p, End e) { cells_[cell(p, 0, 0)].push_back(e); }
    std::unordered_map<std::uint64_t, std::vector<End>> cells_;
};

/// Joins open paths end to end where they meet, and closes those that come back to where they began.
void join(std::vector<DrawnPath>& paths) {
    Ends ends(paths);
    std::vector<bool> taken(paths.size(), false);
    std::vector<DrawnPath> out;
    for (std::size_t i = 0; i < paths.size(); ++i) {
        if (taken[i]) continue;
        taken[i] = true;
        DrawnPath p = std::move(paths[i]);
        const auto round = [&] { return p.points.size() > 3 && meet(p.points.front(), p.points.back()); };
        // On from its back, then, turned round, from what was its front.
        for (int side = 0; side < 2 && !p.closed && p.points.size() > 1; ++side) {
            while (!round()) {
                const auto e = ends.take(p.points.back(), paths, taken);
                if (!e) break;
                const Ring& next = paths[e->path].points;
                if (e->back) p.points.insert(p.points.end(), next.rbegin() + 1, next.rend());
                else p.points.insert(p.points.end(), next.begin() + 1, next.end());
            }
            if (round()) break;
            std::reverse(p.points.begin(), p.points.end());
        }
        if (!p.closed && round()) p.closed = true;
        if (p.closed && p.points.size() > 1 && meet(p.points.front(), p.points.back())) p.points.pop_back();
        out.push_back(std::move(p));
    }
    paths = std::move(out);
}

/// How far the nearest ends that do not meet are apart, and where; nothing where there is no line.
std::optional<std::pair<double, Vec2>> nearest_gap(const std::vector<DrawnPath>& paths) {
    struct End {
        Vec2 at;
        std::size_t path;
    };
    std::vector<End> ends;
    for (std::size_t i = 0; i < paths.size(); ++i)
        if (paths[i].points.size() > 1) ends.push_back({paths[i].points.back(), i}), ends.push_back({paths[i].points.front(), i});
    std::sort(ends.begin(), ends.end(), [](const End& a, const End& b) { return a.at.x < b.at.x; });
    std::optional<std::pair<double, Vec2>> best;
    for (std::size_t i = 0; i < ends.size(); ++i)  // a sweep: farther along x than the best is farther off
        for (std::size_t k = i + 1; k < ends.size() && (!best || ends[k].at.x - ends[i].at.x < best->first); ++k) {
            const double d = length(ends[i].at - ends[k].at);
            if ((d > join_within || ends[i].path != ends[k].path) && (!best || d < best->first)) best = {d, ends[i].at};
        }
    return best;
}

}  // namespace

void check_places(const Drawing& drawing, const char* format) {
    for (const DrawnPath& p : drawing.paths)
        for (const Vec2 q : p.points)
            if (!(std::abs(q.x) <= farthest_place && std::abs(q.y) <= farthest_place))
                throw FormatError(
                    fmt::format("{}: a point of the layer ‘{}’ lies at {}, {}, which is no place on a drawing", format, p.layer, q.x, q.y));
}

std::optional<double> unlikely_length(const DrawnSlab& slab) {
    const Box box = bounds(slab.outline.a);
    const double longest = std::max(box.width(), box.height());
    return longest < shortest_drawn_mm || longest > longest_drawn_mm ? std::optional(longest) : std::nullopt;
}

DrawnSlab slab_from_drawing(const Drawing& drawing, double mm_per_unit, const Work& work) {
    std::vector<DrawnPath> paths = drawing.paths;
    join(paths);
    const DrawnPath* best = nullptr;
    for (const DrawnPath& p : paths)
        if (p.closed && p.points.size() >= 3 && (!best || area(p.points) > area(best->points))) best = &p;
    if (!best || area(best->points) < 1e-6) {
        const auto gap = nearest_gap(paths);
        if (!gap) throw FormatError("there is no line in the drawing");
        throw FormatError(
            fmt::format("no line closes to an outline; the nearest open ends are {:.2f} apart, at {:.1f}, {:.1f} of the drawing. Join them "
                        "and try again",
                        gap->first, gap->second.x, gap->second.y));
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
        work.check();
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
    pugi::xml_document document;
    pugi::xml_node declaration = document.append_child(pugi::node_declaration);
    declaration.append_attribute("version") = "1.0";
    declaration.append_attribute("encoding") = "UTF-8";
    pugi::xml_node root = document.append_child("svg");
    root.append_attribute("xmlns") = "http://www.w3.org/2000/svg";
    root.append_attribute("width") = fmt::format("{:.3f}mm", w).c_str();
    root.append_attribute("height") = fmt::format("{:.3f}mm", h).c_str();
    root.append_attribute("viewBox") = fmt::format("0 0 {:.3f} {:.3f}", w, h).c_str();
    root.append_child("title").text() = title.c_str();
    pugi::xml_node group;
    std::string layer;
    for (const DrawnPath& p : paths) {
        if (p.points.empty()) continue;
        if (!group || p.layer != layer) {
            layer = p.layer;
            group = root.append_child("g");
            group.append_attribute("id") = layer.c_str();
            group.append_attribute("fill") = "none";
            group.append_attribute("stroke") = "black";
            group.append_attribute("stroke-width") = "0.3";
        }
        std::string way;
        for (std::size_t i = 0; i < p.points.size(); ++i)
            way += fmt::format("{}{:.3f} {:.3f}", i ? " L" : "M", p.points[i].x - b.low.x + margin, b.high.y - p.points[i].y + margin);
        if (p.closed) way += " Z";
        group.append_child("path").append_attribute("d") = way.c_str();
    }
    std::ostringstream out;
    document.save(out, "", pugi::format_default, pugi::encoding_utf8);
    return out.str();
}

}  // namespace yb
