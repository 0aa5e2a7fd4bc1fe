#include "core/steps/makeup/snap.h"

#include <algorithm>
#include <cmath>

namespace yb {

SnapPlaces snap_places(const MakeUpInputs& in, const MakeUpPlan& plan, std::size_t leaf) {
    SnapPlaces out;
    if (leaf >= plan.leaves.size()) return out;
    const double half = in.top.length_mm / 2;
    const LeafIn& me = in.leaves[leaf];
    const Frame f = me.placement.frame();
    const Box box = bounds(plan.leaves[leaf].show);
    out.along.push_back({-half - box.low.x, "its left end at the top's"});
    out.along.push_back({half - box.high.x, "its right end at the top's"});
    const auto knots = [](const LeafIn& l) {
        std::vector<Vec2> all;
        for (const Flaw& k : l.slab.flaws)
            if (k.kind == FlawKind::knot && (k.face == Face::a || k.through) && k.outline.size() > 2)
                all.push_back(l.placement.frame().from_slab(centroid(k.outline)));
        return all;
    };
    for (const JointPlan& j : plan.joints) {
        if (j.right != leaf && j.left != leaf) continue;
        const bool right = j.right == leaf;
        const LeafIn& mate = in.leaves[right ? j.left : j.right];
        if (j.along.empty()) continue;
        const double v = j.along[j.along.size() / 2].v;
        if (j.river) {
            out.across.push_back({(right ? 1 : -1) * (j.above.mean_mm - in.choices.river_mm), "the river as wide as wanted"});
        } else {
            double most = -1e300;
            for (const JointStation& s : j.along) most = std::max(most, right ? s.lack_right : s.lack_left);
            out.across.push_back({right ? most : -most, "the joint just clean"});
        }
        // Stations side by side, where both come from one tree and lie the same way round.
        const double turn = std::remainder(me.placement.angle_deg - mate.placement.angle_deg, 360);
        if (!me.slab.tree.empty() && me.slab.tree == mate.slab.tree && std::abs(turn) < 90)
            out.along.push_back({f.to_slab({0, v}).x - mate.placement.frame().to_slab({0, v}).x, "stations side by side"});
        const bool book = shows_upper(me.slab, me.placement) != shows_upper(mate.slab, mate.placement);
        for (const Vec2 a : knots(me))
            for (const Vec2 b : knots(mate)) {
                // Mirrored at the joint for a book, at the same distance in from it for a slip pair's own edge.
                const double across = book ? std::abs((a.y - v) + (b.y - v)) : std::abs(std::abs(a.y - v) - std::abs(b.y - v));
                if (across < 60) out.along.push_back({b.x - a.x, "knots meet"});
            }
    }
    return out;
}

Vec2 snapped(const SnapPlaces& places, Vec2 by, double within, std::string* what) {
    const auto nearest = [&](const std::vector<SnapPlace>& list, double v) {
        const SnapPlace* best = nullptr;
        for (const SnapPlace& p : list)
            if (std::abs(p.by_mm - v) <= within && (!best || std::abs(p.by_mm - v) < std::abs(best->by_mm - v))) best = &p;
        if (!best) return v;
        if (what) *what += (what->empty() ? "" : ", ") + best->what;
        return best->by_mm;
    };
    return {nearest(places.along, by.x), nearest(places.across, by.y)};
}

}  // namespace yb
