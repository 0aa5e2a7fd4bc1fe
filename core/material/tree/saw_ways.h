// How a log could be sawn: for each thickness the slabs that come of it, how wide a straight top they give, what they finish at.
//
// A log is known by its two diameters, its sweep and where its pith lies; the rest of it is grown by lot (log.h), so that what is told
// is an estimate for the maker's judgement.
#pragma once

#include <optional>
#include <vector>

#include "core/ground/work/work.h"
#include "core/material/tree/saw.h"

namespace yb {

/// What is measured of a log before it is sawn; what is empty is drawn by lot.
struct LogMeasured {
    double length_mm = 3000, butt_mm = 620;               ///< diameter under bark
    std::optional<double> top_mm, sweep_mm, pith_off_mm;  ///< at the other end; bow over the length; pith from the middle of the butt
};

/// The recipe of such a log. @param seed of what is drawn by lot.
LogRecipe measured_recipe(std::uint64_t seed, const std::string& species, const LogMeasured& log);

struct SawWay {
    SawPlan plan;
    bool pith_boxed = true;  ///< one slab holds the pith in its middle; else a cut runs along it
    bool sweep_lies = true;  ///< in the plane of the cuts: slabs bend edgewise; else it stands, and they bow
    int boards = 0, with_pith = 0;
    double straight_mm = 0;  ///< widest straight top, the length of the log, both faces, of any slab
    double usable_m2 = 0;    ///< Σ length × straight width, of those not narrower than the plan's least
    double finishes_mm = 0;  ///< the widest one, dried and both faces flattened: what shrinks in thickness and what it cups taken off
};

/// Through and through, for each thickness the two ways to lie and the two places of the pith: the one that gives most usable
/// face, the first of equals. @param moisture_pct dried to. @throws Cancelled, std::invalid_argument (boards_of).
std::vector<SawWay> saw_ways(const GrownLog& log, const std::vector<double>& thicknesses_mm, double kerf_mm, double moisture_pct,
                             const Work& work = {});

}  // namespace yb
