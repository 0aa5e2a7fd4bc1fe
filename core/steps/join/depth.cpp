#include "core/steps/join/depth.h"

#include <algorithm>

namespace yb {

namespace {

constexpr double least_mm2 = 4;  ///< what covers less of one another does not meet
constexpr double touching_mm = 0.05;

bool starts(const std::string& s, const char* what) { return s.rfind(what, 0) == 0; }

}  // namespace

bool belong_together(const std::string& a, const std::string& b) {
    const auto steel = [&](const std::string& s) { return starts(s, "insert") || starts(s, "plate") || starts(s, "pocket"); };
    // A pocket or a plate is cut through a knot as through any wood.
    const auto wide = [&](const std::string& s) {
        return starts(s, "plate") || starts(s, "pocket") || starts(s, "patch") || starts(s, "notch");
    };
    if ((starts(a, "knot") && wide(b)) || (starts(b, "knot") && wide(a))) return true;
    const auto flaw = [&](const std::string& s) { return starts(s, "filled") || starts(s, "open"); };
    // The two panels of a pedestal cross.
    if (starts(a, "notch") && starts(b, "notch")) return true;
    if (steel(a) && steel(b)) return true;
    if ((steel(a) && flaw(b)) || (steel(b) && flaw(a))) return true;
    return (starts(a, "bow tie") && flaw(b)) || (starts(b, "bow tie") && flaw(a));
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
            if (starts(high.what, "insert") && belong_together(low.what, high.what)) continue;
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
