#include "core/steps/patch/match.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/ground/picture/colour.h"

namespace yb {

namespace {
/// Degrees from flat-sawn, 0 to 90.
double slant(double off_middle, double pith) {
    return std::atan2(std::abs(off_middle), std::max(1.0, std::abs(pith))) * 180 / std::numbers::pi;
}
}  // namespace

namespace {
/// Mean colour of so much of a face about a place; nothing where the picture does not reach.
std::optional<Lab> colour_at(const Slab& slab, const Picture* face, Vec2 at) {
    constexpr double about_mm = 20;
    if (!face || face->empty() || !slab.picture_a || !(slab.picture_a->mm_per_px > 0)) return {};
    const FacePicture& place = *slab.picture_a;
    // A smaller copy of it shows the same wood in fewer points.
    const double mm_per_px = place.mm_per_px * place.width_px / std::max(1, face->width);
    const double down = (place.mirrored ? at.y - place.corner.y : place.corner.y - at.y) / mm_per_px;
    return mean_colour(*face, (at.x - place.corner.x) / mm_per_px, down, std::max(1.0, about_mm / mm_per_px));
}
}  // namespace

PatchMatch patch_match(const Slab& from, Vec2 at, const Slab& under, Vec2 where, const Picture* from_face, const Picture* under_face) {
    PatchMatch m;
    m.same_wood = !from.species.empty() && from.species == under.species;
    m.same_tree = m.same_wood && !from.tree.empty() && from.tree == under.tree;
    m.offcut = !from.cut_from.empty();
    if (from.pith_mm && under.pith_mm) m.rings_deg = std::abs(slant(at.y, *from.pith_mm) - slant(where.y, *under.pith_mm));
    if (from.moisture_pct && under.moisture_pct) m.moisture_pct = std::abs(*from.moisture_pct - *under.moisture_pct);
    m.score = (m.same_wood ? 4 : -6) + (m.same_tree ? 3 : 0) + (m.offcut ? 1 : 0);
    if (m.rings_deg) m.score += 1 - std::min(2.0, *m.rings_deg / 22.5);
    if (m.moisture_pct) m.score += 1 - std::min(2.0, *m.moisture_pct / 2);
    const auto one = colour_at(from, from_face, at);
    const auto other = colour_at(under, under_face, where);
    if (one && other) m.colour = colour_difference(*one, *other);
    if (m.colour) m.score += 2 - std::min(4.0, *m.colour / 4);
    // A disc shows its end grain: never in a face.
    if (from.cross_cut != under.cross_cut) m.score -= 4;
    m.score = std::clamp(m.score, -10.0, 10.0);
    return m;
}

}  // namespace yb
