// Lanes and layers of one face by hand: where the sled has wood to cut, and where it would run through air.
#pragma once

#include <functional>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/steps/flat/choices.h"

namespace yb {

/// One stretch of one lane at one layer, in the order it is cut; fed by hand from `from` to `to`: against the cutter, whose
/// next lane lies at the left of it.
struct LanePass {
    int layer = 0;
    Vec2 from, to;
};

/// What layers go down to, mm above the finished plane: roughing in full depths to the allowance, the last of it after the rest,
/// a light pass at the end where the sled has one. @throws std::invalid_argument for a depth that is not above 0.
struct Layers {
    std::vector<double> levels_mm;
    int last = 0;
};
Layers layers_of(double highest_mm, double allowance_mm, const Sled& sled);

/// What a layer comes to.
struct LayerWork {
    int lanes = 0;  ///< with wood in them
    double cut_mm = 0;
};

/// The lanes of a piece at all layers.
struct LanePlan {
    Layers layers;
    double highest_mm = 0;  ///< of the wood above the finished plane along the lanes
    int lanes = 0;          ///< that cover the piece
    int passes_cut = 0;     ///< lanes with wood in them
    double cut_mm = 0;      ///< length cut in all
    double hours = 0, last_hours = 0;
    std::vector<LanePass> passes;
    std::vector<LayerWork> each;  ///< a layer each
};
/// Seconds to run a layer's lanes, without setting its depth.
double lanes_s(const LayerWork& work, const Sled& sled);
/// @param above height of the wood over the finished plane at a place, mm.
LanePlan plan_lanes(const Ring& piece, const Sled& sled, LaneWay way, double allowance_mm, const std::function<double(Vec2)>& above);

}  // namespace yb
