// Likeness: how nearly two leaves show the same figure along their seam.
//
// Two faces that the saw parted lie a kerf apart in the log; flattening takes more off each, and faces that were
// not neighbours have whole slabs between them. With that distance d the figure drifts: a ring that stands at
// distance y from the line above the pith and at height h over it is met d·h/|y| further in or out, to first order
// (y² + h² = r²); near the middle of a flat-sawn face, where |y| is small, a cathedral changes its shape instead, and
// no more than five times d is told. A knot drifts by d times the slope of its dive, read from where it comes out
// on both faces of its slab.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/picture/picture.h"
#include "core/ground/work/work.h"
#include "core/steps/flat/flat.h"
#include "core/steps/makeup/makeup.h"

namespace yb {

/// One leaf at a seam.
struct SeamSide {
    const Slab& slab;                ///< as laid
    const SlabShape& shape;          ///< of it
    const FlatPlan* flat = nullptr;  ///< what flattening takes off; nullptr: nothing yet
    Placement placement;
    double thickness_mm = 0;  ///< mean of the slab; 0: not known yet, found from its shape
};

/// A knot beside the seam and where flattening and saw have carried it.
struct KnotDrift {
    std::size_t leaf = 0;  ///< 0 the right leaf, 1 the left one
    Vec2 uv;               ///< its middle on the shown face, top's frame
    Vec2 by;               ///< from there to where the other leaf shows it, mirrored back
    double apart_mm = 0;   ///< of the shown faces in the log, at this place
    double mm() const { return length(by); }
};

struct SeamStation {
    double u = 0;
    double apart_mm = 0;  ///< of the shown faces in the log
    double drift_mm = 0;
};

struct Likeness {
    bool same_tree = false;
    bool mirrored = false;             ///< the leaves show opposite faces: a book; otherwise a slip pair
    std::optional<int> slabs_between;  ///< of the log, whole ones; none: their numbers in the log are not known
    bool parted = false;               ///< the shown faces are those that the saw parted
    double apart_mm = 0;               ///< mean distance of the shown faces in the log
    double drift_mm = 0;               ///< mean along the seam
    double worst_mm = 0, worst_u_mm = 0;
    bool worst_is_knot = false;
    bool pith_known = false;
    double edges_mm = 0;  ///< root mean square difference of the outer edges, mirrored
    std::vector<SeamStation> along;
    std::vector<KnotDrift> knots;
};

/// @param seam the joint's line, top's frame. @param mill_kerf_mm of the saw that parted the slabs.
Likeness likeness_of(const SeamSide& right, const SeamSide& left, const JointPlan& seam, double mill_kerf_mm);

/// A slope of a knot's dive across the slab, in mm sideways per mm of depth: from its outlines on both faces, paired
/// by being near. In the slab's frame as laid, going down from face A.
struct KnotDive {
    std::size_t flaw = 0;  ///< on face A
    Vec2 slope;
};
std::vector<KnotDive> knot_dives(const Slab& slab, double thickness_mm);

/// Figure, caution and working of a seam, added to the lay's.
void tell_likeness(const Likeness& l, const JointPlan& seam, const MakeUpChoices& choices, LayPlan& lay, double half_length_mm);

/// A face's picture where it lies on the slab as laid.
struct SeamPicture {
    const Picture* picture = nullptr;
    FacePicture place;
};

/// Correlation of both leaves' pictures in windows along the seam, mirrored (a book) or side by side.
struct SeamMatch {
    std::vector<SeamStation> windows;  ///< drift_mm holds the correlation, −1 to 1; apart_mm the window's best slide
    double mean = 0;                   ///< of the windows
    double slide_mm = 0;               ///< of the left leaf along the seam that betters it most
    double slid_mean = 0;              ///< with that slide
};
/// @param width_mm how far in from the seam to look. @throws Cancelled.
SeamMatch match_seam(const SeamSide& right, const SeamPicture& right_face, const SeamSide& left, const SeamPicture& left_face,
                     const JointPlan& seam, bool mirrored, double width_mm = 120, const Work& work = {});

}  // namespace yb
