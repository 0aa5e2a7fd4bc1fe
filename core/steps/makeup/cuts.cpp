#include "core/steps/makeup/cuts.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace yb {

const char* name_of(CutKind kind) {
    static constexpr std::array names{"Rough-cut", "Rip", "Cut the ends", "Cut the sides", "Let in a patch"};
    return names.at(static_cast<std::size_t>(kind));
}

namespace {

/// Where a line across a slab meets its two edges, told from the chalk line at station 0.
Phrase stations_of(Vec2 a, Vec2 b) {
    return say("from {} on one edge to {} on the other", along(std::min(a.x, b.x)), along(std::max(a.x, b.x)));
}

Phrase from_edge(const SlabShape& shape, Vec2 a, Vec2 b, bool high) {
    const auto in = [&](Vec2 p) {
        const auto cut = cut_at_x(shape.ring_a, std::clamp(p.x, shape.x0 + 1, shape.x1 - 1));
        if (cut.empty()) return 0.0;
        return high ? cut.back().to - p.y : p.y - cut.front().from;
    };
    if (a.x > b.x) std::swap(a, b);
    return say("rail {} in from the edge at {}, {} in at {}", mm(in(a)), along(a.x), mm(in(b)), along(b.x));
}

}  // namespace

CutList cuts_of(const std::vector<LeafIn>& slabs, const std::vector<const LayPlan*>& lays, const MakeUpPlan& plan, const WantedTop& top,
                const MakeUpChoices& choices, double hollow_mm) {
    CutList out;
    const double hl = top.length_mm / 2;
    for (std::size_t i = 0; i < slabs.size(); ++i) {
        const LayPlan& lay = *lays[i];
        if (!lay.ready) continue;
        const SlabShape& shape = slabs[i].shape;
        for (const auto& [a, b] : lay.rough_cuts) {
            const double past = std::min(a.x, b.x);
            if (std::max(a.x, b.x) < shape.x0 + 2 || past > shape.x1 - 2) continue;  // at the slab's own end there is nothing to cut
            out.cuts.push_back({CutKind::rough, i, slabs[i].slab.name, a, b, length(b - a) - 40, stations_of(a, b), false});
        }
        // What falls off at both ends.
        const Box rough = bounds(lay.rough);
        for (const bool left : {true, false}) {
            const double free = left ? rough.low.x - shape.x0 : shape.x1 - rough.high.x;
            if (free - choices.rip_kerf_mm < 200) continue;
            const double x = left ? shape.x0 + free / 2 : shape.x1 - free / 2;
            const auto cut = cut_at_x(shape.ring_a, x);
            out.offcuts.push_back({i, slabs[i].slab.name + (left ? ", left end" : ", right end"), free - choices.rip_kerf_mm,
                                   cut.empty() ? 0 : cut.back().to - cut.front().from});
        }
    }
    const auto dust = [&](const Cut& c) { out.kerf_m2 += c.length_mm * choices.rip_kerf_mm * 1e-6; };
    for (const JointPlan& j : plan.joints) {
        if (j.river || j.along.size() < 2) continue;
        for (const bool right : {true, false}) {
            const std::size_t i = right ? j.right : j.left;
            const Frame f = slabs[i].placement.frame();
            const Vec2 a = f.to_slab({j.along.front().u, j.along.front().v});
            const Vec2 b = f.to_slab({j.along.back().u, j.along.back().v});
            // Turned end for end, the leaf's high side in the top is its low side on the slab.
            const bool high = right == (std::cos(slabs[i].placement.angle_deg * std::numbers::pi / 180) > 0);
            Cut c{CutKind::rip, i, slabs[i].slab.name, a, b, length(b - a), from_edge(slabs[i].shape, a, b, high), true};
            if (hollow_mm > 0) c.set.then.push_back(say("; hollow by {} in the middle", fine(hollow_mm / 2)));
            out.cuts.push_back(c);
            // The strip that falls off beyond the line.
            const double wide = (right ? j.given_right_mm : j.given_left_mm) - choices.rip_kerf_mm;
            if (wide > 60) out.offcuts.push_back({i, slabs[i].slab.name + ", rip", length(b - a), wide});
        }
    }
    const bool whole = slabs.size() > 1;
    const Frame f = whole ? Frame{{hl, 0}, 0} : slabs[0].placement.frame();
    const std::string name = whole ? "the top" : slabs.empty() ? "" : slabs[0].slab.name;
    if (top.shape != TopShape::rectangle) {
        const Vec2 c = f.to_slab({0, 0});
        out.cuts.push_back({CutKind::sides, 0, name, c, c, 0,
                            top.shape == TopShape::round
                                ? say("round: compass at {} on the middle line, radius {}", along(c.x), mm(top.length_mm / 2))
                                : say("along the template, drawn 1:1"),
                            true});
    } else {
        const double reach = top.width_mm / 2 + 40;
        for (const double u : {-hl, hl}) {
            const Vec2 a = f.to_slab({u, -reach});
            const Vec2 b = f.to_slab({u, reach});
            out.cuts.push_back({CutKind::ends, 0, name, a, b, 2 * reach,
                                u < 0 ? say("square to the middle line, at {}", along(f.to_slab({u, 0}).x))
                                      : say("{} from the other end, at {}", mm(top.length_mm), along(f.to_slab({u, 0}).x)),
                                true});
        }
        for (const bool left : {true, false}) {
            const bool live = left ? left_live(top.live) : right_live(top.live);
            if (live) continue;
            const double v = left ? top.width_mm / 2 : -top.width_mm / 2;
            const Vec2 a = f.to_slab({-hl, v});
            const Vec2 b = f.to_slab({hl, v});
            out.cuts.push_back({CutKind::sides, 0, name, a, b, length(b - a),
                                say("{} from the middle line, {}", mm(top.width_mm / 2), left ? "left" : "right"), true});
        }
    }
    if (choices.halves_u_mm && std::abs(*choices.halves_u_mm) < hl) {
        const Vec2 a = f.to_slab({*choices.halves_u_mm, -top.width_mm / 2 - 40});
        const Vec2 b = f.to_slab({*choices.halves_u_mm, top.width_mm / 2 + 40});
        out.cuts.push_back({CutKind::ends, 0, name, a, b, length(b - a),
                            say("across in two halves, at {}; joined on site", along(f.to_slab({*choices.halves_u_mm, 0}).x)), true});
    }
    for (const Cut& c : out.cuts) dust(c);
    std::stable_sort(out.cuts.begin(), out.cuts.end(),
                     [](const Cut& a, const Cut& b) { return static_cast<int>(a.kind) < static_cast<int>(b.kind); });
    return out;
}

}  // namespace yb
