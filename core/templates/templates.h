// Templates and outlines drawn 1:1 from a plan, to be written as SVG, DXF or tiled PDF.
#pragma once

#include <vector>

#include "core/drawing/drawing.h"

namespace yb {

struct MakeUpChoices;
struct Placement;
struct Plan;

/// Both faces and the flaws of a slab.
std::vector<DrawnPath> drawn_slab(const Slab& slab, const SlabShape& shape);
/// The middle joint of a top of several: its line, the template's edge for one bushing pair, both mates' outlines, in the
/// top's frame. Empty where there is no ripped joint. @param bushings_mm at hand.
std::vector<DrawnPath> drawn_joint(const Plan& plan, const MakeUpChoices& choices, const std::vector<double>& bushings_mm);
/// Each patch in the top's frame: its outline, and the opening of the template that guides both bushings.
std::vector<DrawnPath> drawn_patches(const MakeUpChoices& choices, const std::vector<double>& bushings_mm);
/// The top with its cuts on the slab as laid, or alone in its own frame as a template.
std::vector<DrawnPath> drawn_top(const Plan& plan, const Placement& placement, bool as_template);

}  // namespace yb
