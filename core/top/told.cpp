#include "core/top/told.h"

#include <algorithm>

namespace yb {

namespace {

/// How wide the water stands open at a station, all rivers together.
double open_at(const Top& top, double u) {
    double sum = 0;
    for (const Across& a : top.across(u))
        if (!top.regions[a.region].wood()) sum += a.to - a.from;
    return sum;
}

}  // namespace

void tell_river(const Top& top, LayPlan& lay) {
    const double resin = top.river_l();
    double above = 0;
    double below = 0;
    for (const Region& r : top.regions)
        if (r.kind == RegionKind::resin && !r.let_in) above += area(r.above), below += area(r.below);
    if (resin > 0) {
        const double hl = top.wanted.length_mm / 2 - 1;
        const bool left = open_at(top, -hl) > 0.5;
        const bool right = open_at(top, hl) > 0.5;
        const char* ends = left && right ? "{} of the top is resin; both ends show it"
                           : left        ? "{} of the top is resin; the right end stays wood"
                           : right       ? "{} of the top is resin; the left end stays wood"
                                         : "{} of the top is resin; both ends stay wood";
        lay.figures.push_back({"lay.resin",
                               "Resin in the river",
                               litres(resin),
                               {},
                               say(ends, percent(100 * above / std::max(1.0, top.area_mm2()))),
                               {"(area above + 4 × half-way + below) / 6 × finished thickness",
                                {{"upper face", square_metres(above * 1e-6), "bank to bank, finished"},
                                 {"underside", square_metres(below * 1e-6), "bank to bank, finished"},
                                 {"thickness", fine(top.thickness_mm), "Flat"}},
                                "no overfill, no reserve: Fill tells what to mix; docs/methods.md, Rivers"}});
    }
    if (top.banks_meet_mm > 0.5)
        lay.cautions.push_back({"lay.banks_meet", Severity::stop, step_key::lay,
                                say("The banks meet below: at {} they overlap by {} on the finished underside, though the show face stands "
                                    "open. Draw the leaves apart by that.",
                                    along(top.bench.to_slab(top.banks_meet_at).x), fine(top.banks_meet_mm)),
                                top.bench.to_slab(top.banks_meet_at)});
}

}  // namespace yb
