#include "core/steps/join/depth.h"

#include <algorithm>

namespace yb {

namespace {

constexpr double least_mm2 = 4;  ///< what covers less of one another does not meet
constexpr double touching_mm = 0.05;

}  // namespace

bool belong_together(LetInKind a, LetInKind b) {
    using K = LetInKind;
    const auto steel = [](K k) { return k == K::insert || k == K::plate || k == K::pocket; };
    // A pocket or a plate is cut through a knot as through any wood.
    const auto wide = [](K k) { return k == K::plate || k == K::pocket || k == K::patch || k == K::notch; };
    if ((a == K::knot && wide(b)) || (b == K::knot && wide(a))) return true;
    const auto flaw = [](K k) { return k == K::filled || k == K::open; };
    // The two panels of a pedestal cross.
    if (a == K::notch && b == K::notch) return true;
    if (steel(a) && steel(b)) return true;
    if ((steel(a) && flaw(b)) || (steel(b) && flaw(a))) return true;
    return (a == K::bow_tie && flaw(b)) || (b == K::bow_tie && flaw(a));
}

std::vector<WoodLeft> wood_left(const std::vector<LetIn>& all, double thickness, double most) {
    std::vector<WoodLeft> out;
    std::vector<Box> boxes;
    for (const LetIn& l : all) boxes.push_back(bounds(l.at));
    for (std::size_t i = 0; i < all.size(); ++i) {
        const LetIn& low = all[i];
        for (std::size_t j = 0; j < all.size(); ++j) {
            const LetIn& high = all[j];
            const double left = high.low_mm - low.high_mm;
            if (i == j || left < -touching_mm || left > most || (!low.cuts && !high.cuts)) continue;
            if (boxes[i].low.x > boxes[j].high.x || boxes[j].low.x > boxes[i].high.x || boxes[i].low.y > boxes[j].high.y ||
                boxes[j].low.y > boxes[i].high.y)
                continue;
            // An insert stands on the floor of its own pocket.
            if (high.kind == LetInKind::insert && belong_together(low.kind, high.kind)) continue;
            const auto over = intersection(low.at, high.at);
            double shared = 0;
            for (const Ring& r : over) shared += area(r);
            if (shared >= least_mm2) out.push_back({i, j, centroid(largest(over)), std::max(0.0, left)});
        }
        if (low.cuts && low.high_mm < thickness - touching_mm) out.push_back({i, {}, centroid(low.at), thickness - low.high_mm});
    }
    return out;
}

}  // namespace yb
