// Flattening on a machine: one face of a piece as it lies there, the strips that its cutter goes over, and the program for it.
//
// Frame: x along the slab from the left end of the box around the rough piece, y across it away from the maker, z up from the
// finished face. With the underside up the piece is turned over about its length: x stays, y is mirrored. Heights are those of
// FlatPlan::off_top and off_bottom.
//
// Between its axes' lines a bilinear surface has its highest place at a corner; each strip is cut up at the surface's own lines,
// so that what stands above a level is found exactly. Words of the program: RS-274 (ISO 6983-1), see docs/formats.md.
#pragma once

#include <string>
#include <vector>

#include "core/steps/flat/flat.h"

namespace yb {

/// One face of a piece on the machine.
struct MachinedSide {
    Face face = Face::a;
    Box rough;                      ///< around the rough piece, on the slab as laid
    Ring piece;                     ///< the rough piece, machine frame
    Surface off;                    ///< height above the finished face, on the slab
    double highest_mm = 0;          ///< of the piece above the finished face
    double below_mm = 0;            ///< from the finished face down to the bed
    std::vector<double> levels_mm;  ///< that each layer goes down to, in their order; the last is 0. None: nothing stands above it
    int last_layers = 0;            ///< of them after the rest
    bool skim = false;              ///< all of it is run over, whatever stands there
    LaneWay lanes = LaneWay::across;

    Vec2 to_machine(Vec2 on_slab) const;
    Vec2 to_slab(Vec2 on_machine) const;
    /// Height of the wood before and after, mm above the finished face.
    double before(Vec2 on_machine) const { return off.at(to_slab(on_machine)); }
    double after(Vec2 on_machine) const;
};

/// @param plan,lay of one leaf. @param first the face that is cut first.
/// @throws std::invalid_argument where nothing is planned, or the cutter is wider than the piece.
MachinedSide machined_side(const FlatPlan& plan, const LayPlan& lay, const Sled& sled, const FlatChoices& choices, bool first);

/// One run of the cutter's middle along a lane, machine frame.
struct MachinePass {
    int layer = 0;
    double lane_mm = 0;  ///< where the lane lies: x of lanes across, y of lanes along
    double from_mm = 0, to_mm = 0;
};
/// Only where wood stands above the layer; lanes in turn up and down.
std::vector<MachinePass> machine_passes(const MachinedSide& side, const Sled& sled);

/// The fastest a cutter of that diameter turns at 35 m/s at its rim, rounded down to hundreds, 18 000 at most: a starting
/// value, what is stamped on the cutter stands above it. 1/min.
double most_rpm(double cutter_mm);

struct GcodeWords {
    std::string job, piece;  ///< told in the first lines
    bool first = true;       ///< the side that is cut first
    bool inch = false;
};
/// The program of one side. Coordinates with three decimals of a millimetre or four of an inch; lines end with \n.
std::string to_gcode(const MachinedSide& side, const Sled& sled, const GcodeWords& words);

/// The face as points of one grid over the piece, before it is cut or after, machine frame; only where there is wood.
/// @throws std::invalid_argument for a step not above 0, or one that makes more than 20 million points.
std::vector<Vec3> surface_points(const MachinedSide& side, bool after, double step_mm);

}  // namespace yb
