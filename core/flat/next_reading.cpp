#include "core/flat/next_reading.h"

#include <algorithm>

#include "core/slab/guess.h"

namespace yb {

std::optional<double> unsure_mm(const HeightGrid& heights, Vec2 at) {
    const auto guess = heights.has_readings() ? guess_of(heights) : nullptr;
    if (!guess) return {};
    return guess->at(at).sigma_mm;
}

Thing reading_thing(const NextReading& n) {
    Thing t{"reading 1", "reading", 0, say("The reading worth most")};
    t.area = {n.at + Vec2{-35, -35}, n.at + Vec2{35, -35}, n.at + Vec2{35, 35}, n.at + Vec2{-35, 35}};
    t.figures = {{"reading.worth",
                  "Worth up to",
                  fine(n.worth_mm),
                  {},
                  n.face == Face::a ? say("of thickness; on the show face") : say("of thickness; on the underside"),
                  {"1.645 σ − what comes off there: so much thinner if the face lies out there as far as one time in twenty",
                   {{"σ", fine(n.sigma_mm), "kriging of the readings around it"}, {"taken as", fine(n.height_mm), "as the readings around it have it"}},
                   "docs/methods.md, The slab's shape"}},
                 {"reading.along", "Measure at", along(n.at.x), {}, {}, {"from the left end", {}, ""}},
                 {"reading.across", n.at.y >= 0 ? "Left of the chalk line" : "Right of the chalk line", mm(std::abs(n.at.y)), {}, {}, {"across", {}, ""}}};
    return t;
}

std::optional<NextReading> next_reading(const Slab& slab, const SlabShape& shape, const FlatPlan& plan, const Ring& outline) {
    if (!plan.ready || outline.size() < 3) return {};
    std::optional<NextReading> best;
    const Box box = bounds(outline);
    for (const Face face : {Face::a, Face::b}) {
        const HeightGrid& grid = face == Face::a ? slab.heights_a : slab.heights_b;
        const auto guess = grid.has_readings() ? guess_of(grid) : nullptr;
        if (!guess) continue;
        constexpr int along = 36;
        constexpr int across = 12;
        for (int i = 0; i <= along; ++i)
            for (int j = 0; j <= across; ++j) {
                const Vec2 p{box.low.x + box.width() * i / along, box.low.y + box.height() * j / across};
                if (!contains(outline, p)) continue;
                const double sigma = guess->at(p).sigma_mm;
                const double off = face == Face::a ? plan.off_top.at(p) : plan.off_bottom.at(p);
                const double worth = nine_in_ten * sigma - off;
                if (worth < 0.1 || (best && worth <= best->worth_mm)) continue;
                best = NextReading{face, p, face == Face::a ? shape.top.at(p) : shape.bottom.at(p), sigma, worth};
            }
    }
    return best;
}

}  // namespace yb
