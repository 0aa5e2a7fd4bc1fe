#include "core/patch/match.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace yb {

namespace {
/// Degrees from flat-sawn, 0 to 90.
double slant(double off_middle, double pith) {
    return std::atan2(std::abs(off_middle), std::max(1.0, std::abs(pith))) * 180 / std::numbers::pi;
}
}  // namespace

PatchMatch patch_match(const Slab& from, Vec2 at, const Slab& under, Vec2 where) {
    PatchMatch m;
    m.same_wood = !from.species.empty() && from.species == under.species;
    m.same_tree = m.same_wood && !from.tree.empty() && from.tree == under.tree;
    m.offcut = !from.cut_from.empty();
    if (from.pith_mm && under.pith_mm) m.rings_deg = std::abs(slant(at.y, *from.pith_mm) - slant(where.y, *under.pith_mm));
    if (from.moisture_pct && under.moisture_pct) m.moisture_pct = std::abs(*from.moisture_pct - *under.moisture_pct);
    m.score = (m.same_wood ? 4 : -6) + (m.same_tree ? 3 : 0) + (m.offcut ? 1 : 0);
    if (m.rings_deg) m.score += 1 - std::min(2.0, *m.rings_deg / 22.5);
    if (m.moisture_pct) m.score += 1 - std::min(2.0, *m.moisture_pct / 2);
    // A disc shows its end grain: never in a face.
    if (from.cross_cut != under.cross_cut) m.score -= 4;
    m.score = std::clamp(m.score, -10.0, 10.0);
    return m;
}

}  // namespace yb
