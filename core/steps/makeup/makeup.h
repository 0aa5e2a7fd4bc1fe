// How leaves make up a top: one slab, an opened pair, a slip pair, three or four boards, a resin river, an open river
// on rods. A leaf is what of a slab lies in the top; its Placement is that of a single slab: where the top's
// middle lies on the slab as laid, and how it is turned. Everything here is in the top's own frame: u along, v across.
//
// Leaves are ordered from the right edge (low v) to the left. Between two of them is a joint: a line to which
// both are ripped, or, for rivers, the water between the live edges that face each other.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/steps/lay/lay.h"
#include "core/steps/makeup/choices.h"

namespace yb {

struct LeafIn {
    const Slab& slab;        ///< as laid
    const SlabShape& shape;  ///< of that slab
    Placement placement;
};

/// True when the face that shows was the upper one in the log.
inline bool shows_upper(const Slab& slab, const Placement& at) { return at.turned_over == slab.face_b_up; }

struct MakeUpInputs {
    std::vector<LeafIn> leaves;
    WantedTop top;
    MakeUpChoices choices;
    bool quick = false;                 ///< while something is dragged: no choices
    std::vector<double> bushings_mm{};  ///< at hand, for curved joints
    /// Of an earlier plan of the same slabs: parts that lie as they did are taken from it. Changes no result.
    const struct MakeUpPlan* before = nullptr;
};

/// A joint or the middle of a river at one station.
struct JointStation {
    double u = 0, v = 0;
    double lack_right = 0, lack_left = 0;  ///< wood missing on either leaf, both faces; below 0: to spare
};

struct Rod {
    double u_mm = 0;
    double gap_mm = 0;     ///< of the open river there, half-way down: where the rod runs
    double length_mm = 0;  ///< gap and both depths
    bool operator==(const Rod&) const = default;
};

struct JointPlan {
    std::size_t right = 0, left = 1;  ///< the leaves it joins
    bool river = false, curved = false;
    std::vector<JointStation> along;
    double worst_mm = 0, worst_u_mm = 0;      ///< most wood missing and where; 0: clean
    double lacking_mm = 0;                    ///< length of the joint that is not clean
    double outside_mm = 0, outside_u_mm = 0;  ///< runs past the side of the top, or past the next joint, by so much there; 0: it does not
    double given_right_mm = 0, given_left_mm = 0;  ///< mean width the rip takes off each leaf, show face
    // of a river: from bank to bank along the top. At the finished planes once the leaves are flattened (core/steps/top), before
    // that on the faces as they are.
    Apart above, below;
    double area_mm2 = 0;  ///< of a level halfway, for the volume
    Ring water;
    std::vector<Rod> rods;
};

/// One slab's share of the top.
struct LeafPart {
    Ring show, under;  ///< its faces in the top's frame
    Ring part;         ///< what of the show face lies in the top
    LayPlan lay;       ///< the same on its own slab, for flattening and filling
    // what it follows from, its slab aside
    Placement placed;
    Ring strip;  ///< between its joints and the sides of the top
};

struct MakeUpPlan {
    std::vector<LeafPart> leaves;
    std::vector<JointPlan> joints;
    double water_mm2 = 0;  ///< of all rivers, half-way down
    WantedTop top;         ///< it was made for
    bool several() const { return leaves.size() > 1; }
};

/// Where a whole top lies on the bench: stations from its left end, its middle line at y = 0.
inline Placement whole_placement(const WantedTop& top) { return {top.length_mm / 2, 0, 0, false, 0}; }

/// Lays the leaves of a top together. The LayPlan is told as if the whole top were one slab lying at
/// whole_placement(); its figures, cautions and choices are the step's. The MakeUpPlan is in the top's own frame.
struct LaidTogether {
    LayPlan lay;
    MakeUpPlan plan;
};
LaidTogether plan_makeup(const MakeUpInputs& in);

/// Where the rods of an open river go, evenly along the top, and how long each is. @param right,left the banks at the rods'
/// height, each from left to right.
std::vector<Rod> rods_of(const std::vector<Vec2>& right, const std::vector<Vec2>& left, double length_mm, const MakeUpChoices& choices);

/// The joints, one fewer than leaves, those not set laid evenly across the width.
std::vector<Joint> joints_of(const MakeUpChoices& choices, std::size_t leaves, double width_mm);

/// Where each leaf's wood ends at a station, both faces for `both`: empty where there is none.
std::optional<Span1> wood_at(const LeafPart& leaf, double u_mm, bool both);

}  // namespace yb
