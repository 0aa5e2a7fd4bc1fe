// Patches: pieces let into the show face over a flaw. From one template, a larger bushing cuts the recess and a smaller
// one the piece; the piece comes from a slab of the rack, where its own grain can be chosen.
#pragma once

#include <memory>

#include "core/steps/makeup/arrange.h"
#include "core/steps/makeup/choices.h"
#include "core/steps/makeup/cuts.h"
#include "core/steps/makeup/makeup.h"

namespace yb {

struct Top;

/// The slab a patch is cut from, face A up; nullptr where none was named or it is no longer there.
using PatchSlab = std::shared_ptr<const BothWays>;

/// Where the top's frame lies on the slab a patch is cut from, so that the patch's outline falls on its piece.
Placement on_patch_slab(const Patch& patch);

/// A place for a patch on a slab: clean of flaws, whole on both faces, outside `taken` (rings on the slab), nearest to an
/// end, so that the middle stays whole. @returns where the patch's middle comes to lie; nothing where it finds no place
/// on a grid of 20 mm.
std::optional<Vec2> patch_place(const Patch& patch, const BothWays& slab, const std::vector<Ring>& taken = {});

struct PatchInputs {
    const MakeUpChoices& choices;
    std::vector<PatchSlab> slabs;       ///< of each patch
    const std::vector<LeafIn>& leaves;  ///< of the top, with what of each lies in it
    const std::vector<const LayPlan*>& lays;
    std::vector<double> bushings_mm;  ///< at hand
    double thickness_mm = 0;          ///< of the finished top
    Frame top;                        ///< where the top's frame lies on the bench
    const Top* made = nullptr;        ///< the finished top, where there is one: how patch and leaf move
};

/// What the patches ask for: the bushing pair, square corners by hand, wood left below, what a patch meets, whether its
/// piece lies in its slab, is thick enough, of the same wood and not used twice.
void tell_patches(const PatchInputs& in, LayPlan& lay);

/// Recess and piece of each patch, for the cut list.
void add_patch_cuts(const PatchInputs& in, CutList& list);

}  // namespace yb
