// Lay: the wanted top on the slab. Does it fit, where is it short, what flaws lie in it, where to cut.
//
// The top's frame (u, v) is placed on the slab by Placement: u along the top, v across it, origin in its
// middle. A kept live edge is not cut: on that side the top runs out to the slab's own edge.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/material/slab/slab.h"
#include "core/steps/lay/choices.h"

namespace yb {

/// Outline of the wanted top in its own frame, counter-clockwise: a rectangle, an ellipse of 120 points, or the free form.
Ring outline_of(const WantedTop& top);

struct LayInputs {
    const Slab& slab;        ///< as laid: already turned over if the placement says so
    const SlabShape& shape;  ///< of that slab
    WantedTop top;
    Placement placement;
};

/// Which side of the top lacks wood: one across, the width as a whole, or an end.
enum class Side { left, right, width, left_end, right_end };
const char* name_of(Side side);
inline bool is_end(Side side) { return side == Side::left_end || side == Side::right_end; }

/// Where wood is missing, and how much.
struct Shortfall {
    double mm = 0;
    Vec2 at;  ///< on the slab
    Vec2 uv;  ///< in the top
    Side side = Side::width;
};

struct FlawInside {
    std::size_t index = 0;  ///< in Slab::flaws
    double area_mm2 = 0;    ///< of it inside the top
    Vec2 at;
};

struct LayPlan : StepPlan {
    bool fits = false;
    std::vector<Shortfall> short_at;                             ///< worst first, at most one per side and end
    Ring outline;                                                ///< the top's outline on the slab, live edges followed
    Ring rectangle;                                              ///< the wanted outline
    Ring region;                                                 ///< between the saw cuts: the rectangle, far open at live edges
    Ring rough;                                                  ///< the piece left after rough-cutting
    std::vector<std::pair<Vec2, Vec2>> finish_cuts, rough_cuts;  ///< lines across the slab
    double width_left_mm = 0, width_right_mm = 0;                ///< finished width at the two ends
    double narrowest_mm = 0, widest_mm = 0, narrowest_u_mm = 0;
    double rough_length_mm = 0;
    std::vector<FlawInside> flaws;
};

/// What is wished about a kind of flaw.
Wish& wish_of(FlawWishes& wishes, FlawKind kind);
Wish wish_of(const FlawWishes& wishes, FlawKind kind);

/// How much of what is to be kept out lies inside an outline on the slab, less half of what is to be had in; cracks count by their length,
/// as if 10 mm wide at least. mm².
double against_wishes(const Slab& slab, const FlawWishes& wishes, const Ring& outline);

/// The flaws of a slab inside an outline on it, and what they mean for a top: one caution each.
/// @param shape of the slab: an end crack is one that begins at its end. @param place the top's frame on the slab. @param top wanted.
std::vector<FlawInside> flaws_inside(const Slab& slab, const Ring& outline);
void flaw_cautions(const Slab& slab, const SlabShape& shape, const std::vector<FlawInside>& flaws, const Frame& place, const WantedTop& top,
                   std::vector<Caution>& out);
/// Where the pith itself lies inside a leaf, between its faces and inside the outline on it: it splits there. Nothing where it is drawn
/// as a flaw already.
void pith_caution(const Slab& slab, const SlabShape& shape, const Ring& outline, std::vector<Caution>& out);

/// How a blank is cut across: lines on the slab from edge to edge of both faces and 20 mm past.
struct BlankCuts {
    std::vector<std::pair<Vec2, Vec2>> finish, rough;  ///< at the top's ends; as far beyond them as the blank is left longer
    double length_mm = 0;                              ///< of the blank
    Ring outline;                                      ///< what is left of the show face, in the top's frame
};
/// @param show,under the slab's faces in the top's frame. @param half_mm of the top's length.
BlankCuts blank_cuts(const Ring& show, const Ring& under, double half_mm, const Placement& placement);

/// Lays the top on the slab. Widths are exact for the polygonal outline: they are compared at every vertex.
LayPlan plan_lay(const LayInputs& in);

/// A placement in the middle of the slab, turned so that the chalk line and the top agree.
Placement middle_of(const SlabShape& shape);

/// Moves and turns the top to where the shortfall is least, and of places that fit to where the slab's flaws lie as they are wished: a
/// coarse grid over places and angles within reach, then halving steps; of two alike the nearer to where it lies. Deterministic.
Placement best_placement(const LayInputs& in);

/// What the step minds, in a few words each.
std::span<const Headline> lay_headlines();

}  // namespace yb
