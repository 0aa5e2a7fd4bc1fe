// Sawing a grown log into slabs, drying them, and measuring them as a maker would.
//
// A board has a frame of its own: x along it, y across, z up from its lower face; that is the slab's frame.
// Slabs sawn through and through follow one another upwards: the lower face of one and the upper face of the
// one below it were parted by the saw and lie a kerf apart.
#pragma once

#include <vector>

#include "core/ground/picture/picture.h"
#include "core/ground/work/work.h"
#include "core/material/tree/log.h"

namespace yb {

enum class SawPattern { through, quarter, cant, round };

struct SawPlan {
    SawPattern pattern = SawPattern::through;
    double thickness_mm = 65;
    double kerf_mm = 4;
    double turn_deg = 0;              ///< of the log on the mill
    double shift_mm = 0;              ///< of the first cut, up
    double tilt_deg = 0;              ///< of the saw against the log's axis
    double thickness_error_mm = 0.8;  ///< how far the saw wanders, to either side
    double least_width_mm = 150;      ///< narrower boards are slabwood and not kept
    bool operator==(const SawPlan&) const = default;
};

/// One board before it dries: frame and extents in the log.
struct Board {
    int number = 1;
    Vec3 origin, ex, ey, ez;  ///< orthonormal; the origin lies on the lower face
    double x0 = 0, x1 = 0;    ///< extents along ex
    double thickness_mm = 0;
    double y_low = -1e9, y_high = 1e9;  ///< edges that an earlier cut made
    Vec3 in_log(double x, double y, double z) const;
};

/// All boards of a pattern that are worth keeping, numbered from the lowest. @throws std::invalid_argument.
std::vector<Board> boards_of(const GrownLog& log, const SawPlan& plan);

struct DryPlan {
    double moisture_pct = 10;
    double bow_mm = 4, twist_deg = 0.6;         ///< at most, over the length; drawn by lot
    double reading_noise_mm = 0.3;              ///< deviation of a straightedge reading
    double every_x_mm = 200, every_y_mm = 120;  ///< grid of the readings
    bool keep_truth = false;                    ///< the slab keeps how its faces truly lie: practice
};

/// A slab with its pictures, and what is truly so.
struct SawnSlab {
    Slab slab;               ///< as a maker would have measured it: readings carry noise
    Picture face_a, face_b;  ///< as slab.picture_a and picture_b place them; empty when none were asked for
    Board board;
    double across = 1;  ///< dry width over green
    SlabShape truth;    ///< exact
    /// Height of the bent board above its flat one, mm.
    Surface warp;
};

/// Curvature in 1/mm that drying gives a strip across the width at y: κ = (12/t³) ∫ s(z) (z − t/2) dz, s the
/// shrinkage across at depth z; positive bends the edges up. Derivation in docs/methods.md.
double cup_curvature(const GrownLog& log, const Board& board, double x_mm, double y_mm, double moisture_pct);

/// What pictures to make of the faces: how fine (0: none), and whether to paint them or only to place them.
struct FaceOrder {
    double mm_per_px = 0;
    bool paint = true;
};

/// Saws, dries and measures one board. @throws Cancelled.
SawnSlab make_slab(const GrownLog& log, const Board& board, const SawPlan& plan, const DryPlan& dry, FaceOrder faces,
                   const Work& work = {});

/// All of a log, over the cores. @throws Cancelled.
std::vector<SawnSlab> make_slabs(const GrownLog& log, const SawPlan& plan, const DryPlan& dry, FaceOrder faces, const Work& work = {});

}  // namespace yb
