// Arranging leaves into a make-up: which way each is turned, which edges meet, where they are ripped. What the maker
// would try first on the floor; every leaf can be moved after.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/steps/makeup/makeup.h"
#include "core/steps/makeup/rip.h"

namespace yb {

/// A slab made ready to be laid either way up.
struct BothWays {
    Slab up, over;  ///< as measured, and turned over
    SlabShape shape_up, shape_over;
    const Slab& slab(bool turned) const { return turned ? over : up; }
    const SlabShape& shape(bool turned) const { return turned ? shape_over : shape_up; }
};
std::shared_ptr<const BothWays> both_ways(const Slab& slab);

/// Moves a leaf in the top.
void move_by(Placement& leaf, Vec2 uv);
/// Turns a leaf in the top by so many degrees, left about, about a place of the top.
void turn_about(Placement& leaf, Vec2 uv, double degrees);

struct Arrangement {
    bool possible = false;
    Phrase why_not{};                ///< a sentence where it is not
    std::vector<std::size_t> order;  ///< which of the given boards is leaf 0, 1, …
    std::vector<Placement> placements;
    std::vector<Joint> joints;
    double given_up_mm = 0;  ///< width the rips take, all leaves
    double width_mm = 0;     ///< mean width that comes of it
    double taper_mm = 0;     ///< between the two ends
};

/// Lays these boards as the kind wants it, in the middle of their common length.
///  - book: the faces that the saw parted are shown (lower slab face A up, upper slab turned over); the seam is the side
///    of the log that gives up less width.
///  - slip: both show face A, drawn out to the side.
///  - boards: the two middle ones opened, the outer ones drawn straight out to a joint parallel to the seam, or turned end
///    for end to a joint along their neighbour's edge: what one loses towards the top of the log the other gains.
///  - rivers: two leaves with a live edge of each towards the water, the evener of the two sides each.
/// Boards with numbers in the log are put in that order. @throws nothing; says why it is not possible.
Arrangement arrange(MakeUp kind, const std::vector<std::shared_ptr<const BothWays>>& boards, const WantedTop& top,
                    const MakeUpChoices& choices);

/// The rip lines of a make-up as it lies, found anew: each joint straight, its leaves turned and slid so that the
/// joint keeps its place in the top. With `choices.same_line` both leaves of an opened pair get the line that suits both.
/// @returns changed placements, in order of the leaves.
std::vector<Placement> best_rips(const MakeUpInputs& in, const MakeUpPlan& plan);

/// Slides and turns the banks of a river until it is as even as it comes on the show face, of the wanted mean width, nowhere
/// under 10 mm on either face, and the outer edges lie square. Give it the faces at the finished planes where they are known. Deterministic
/// coordinate search over slide, distance and turn of both.
std::vector<Placement> even_river(const MakeUpInputs& in);

}  // namespace yb
