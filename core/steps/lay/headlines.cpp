// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/lay/lay.h"

namespace yb {

std::span<const Headline> lay_headlines() {
    static constexpr Headline all[] = {
        {"lay.banks_meet", "The banks meet below"},
        {"lay.bark", "Bark falls off later"},
        {"lay.bushings", "No bushing pair for the cutter"},
        {"lay.curve", "The joint turns tighter than asked"},
        {"lay.curve_tight", "Too tight for the bushing"},
        {"lay.drifts", "The figure drifts at the seam"},
        {"lay.end_crack", "An end crack is left in"},
        {"lay.flaw", "Flaws lie in the top"},
        {"lay.joint", "The joint runs through bark"},
        {"lay.joint_flaw", "A flaw lies on the joint"},
        {"lay.joint_out", "A joint runs outside the top"},
        {"lay.kickback", "The saw throws back what pinches"},
        {"lay.leaf_out", "A leaf lies outside the top"},
        {"lay.no_date", "No first day is said"},
        {"lay.not_parted", "Not the faces the saw parted"},
        {"lay.overlap", "The leaves overlap"},
        {"lay.patch_deep", "The patch goes too deep"},
        {"lay.patch_flaw", "A flaw lies in the patch"},
        {"lay.patch_grain", "The patch's grain is turned"},
        {"lay.patch_meets", "Two patches meet"},
        {"lay.patch_off", "The patch runs off its slab"},
        {"lay.patch_out", "The patch runs past the edge"},
        {"lay.patch_slab", "The patch's slab is gone"},
        {"lay.patch_thin", "Too thin for the patch"},
        {"lay.patch_twice", "The same wood twice"},
        {"lay.patch_wood", "A patch of another wood"},
        {"lay.pith", "The pith runs in the top"},
        {"lay.retired", "A retired slab"},
        {"lay.rip_after", "Rip after both faces are flat"},
        {"lay.rip_order", "Ripped before it was flat"},
        {"lay.river_thin", "The river is too narrow"},
        {"lay.river_uneven", "The river runs unevenly"},
        {"lay.river_wide", "The river is wider than the top"},
        {"lay.rod_deep", "A rod leaves too little wood"},
        {"lay.rod_thick", "Rods too thick for the top"},
        {"lay.rods", "Drill every rod parallel"},
        {"lay.short", "Wood is missing"},
        {"lay.slant", "How the live edges slant"},
        {"lay.soft", "Soft wood lies in the top"},
        {"lay.taper", "The ends differ in width"},
        {"lay.trade", "What this slab gives instead"},
        {"lay.trees", "Leaves of two trees"},
        {"lay.twice", "The same wood is used twice"},
        {"lay.unmeasured", "A leaf is not measured yet"},
    };
    return all;
}

}  // namespace yb
