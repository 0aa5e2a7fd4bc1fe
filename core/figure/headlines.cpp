// Headlines of cautions: at most seven words for each key. A key without one is a mistake that tests/figure finds.
#include <algorithm>
#include <map>

#include "core/figure/figure.h"

namespace yb {

namespace {

const std::map<std::string, const char*>& all() {
    static const std::map<std::string, const char*> table{
        {"fill.cold", "Cold: resin takes days"},
        {"fill.dam", "Runs out at the edge: dam it"},
        {"fill.gloves", "Gloves, air, no skin"},
        {"fill.gone", "Planed away: nothing to fill"},
        {"fill.leak", "Thin resin leaks through the tape"},
        {"fill.meets_river", "Opens into the river"},
        {"fill.no_depth", "Nobody probed how deep it is"},
        {"fill.over_joint", "A void runs over the joint"},
        {"fill.river_lifts", "Too deep for one pour"},
        {"fill.soft", "Soft wood: soak it first"},
        {"fill.spring", "Debris out, the slab may spring"},
        {"fill.tape", "Open below: tape it"},
        {"fill.warm", "Warm: smaller lifts"},
        {"flat.airtight", "One face airtight: it cups"},
        {"flat.feed", "Feed against the cutter"},
        {"flat.no_wood", "No wood left between the planes"},
        {"flat.rails", "The wood stands above the rails"},
        {"flat.rest", "Let it rest before the last pass"},
        {"flat.rocks", "It tips on its supports"},
        {"flat.steep", "No slab lies as steep as this"},
        {"flat.stickout", "The bit stands out too far"},
        {"flat.support_off", "A support stands beside the wood"},
        {"flat.sag", "The sled sags: hollow in the middle"},
        {"flat.supports", "Too few supports"},
        {"flat.thin", "It finishes too thin"},
        {"flat.tram", "The sled is out of tram"},
        {"flat.unshimmed", "No shims: one corner gives everything"},
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
        {"lay.soft", "Soft wood lies in the top"},
        {"lay.taper", "The ends differ in width"},
        {"lay.trees", "Leaves of two trees"},
        {"lay.twice", "The same wood is used twice"},
        {"lay.unmeasured", "A leaf is not measured yet"},
        {"look.edges", "No edges yet"},
        {"look.flaws", "No flaws are marked"},
        {"look.heights", "No heights yet"},
        {"look.moisture", "No moisture yet"},
        {"look.moisture_date", "The moisture has no date"},
        {"look.pith", "Where the pith lies is not said"},
        {"look.species", "The wood is not named"},
        {"look.thickness", "No thickness yet"},
        {"look.tree", "No tree is named"},
        {"plan.failed", "This step can't be planned"},
        {"plan.range", "A number no shop could meet"},
        {"rack.crossing", "The outline crosses itself"},
        {"rack.disagree", "Heights and caliper disagree"},
        {"rack.edges", "The edges cross"},
        {"rack.failed", "No shape can be made of it"},
        {"rack.flaw_crossing", "A flaw's outline crosses itself"},
        {"rack.flaw_open", "A flaw has no area"},
        {"rack.heights_missing", "Heights are missing"},
        {"rack.jumps", "A reading jumps"},
        {"rack.missing", "A reading is missing"},
        {"rack.no_heights", "No heights: thickness is a guess"},
        {"rack.no_wood", "No wood between the readings"},
        {"rack.one_line", "Heights on one line only"},
        {"rack.one_face", "One face has no heights"},
        {"rack.outline", "The two faces don't match"},
        {"rack.outside", "A height lies outside the slab"},
        {"rack.stations", "Too few stations"},
        {"rack.thickness", "No thickness is read"},
        {"rack.thickness_zero", "A thickness of nothing"},
        {"rack.twice", "Two stations at one place"},
        {"under.bolt_place", "Bolts sit off the middle"},
        {"under.channel_end", "A channel near the end"},
        {"under.clash", "Steel under steel"},
        {"under.cross_cut", "A cross-cut moves both ways"},
        {"under.deep_channel", "A pocket too deep"},
        {"under.density", "Its weight is not known"},
        {"under.end_grain", "Screws pull out of end grain"},
        {"under.hole_in_resin", "A hole in resin"},
        {"under.hole_in_river", "A hole in the open river"},
        {"under.hole_in_void", "A hole in a void"},
        {"under.leg", "The leg comes out too short"},
        {"under.lift", "Too heavy to lift like this"},
        {"under.no_fixed", "Nothing holds the fixed line"},
        {"under.no_plates", "No leg plates yet"},
        {"under.outside", "It stands past the edge"},
        {"under.rim_crack", "The rim will crack open"},
        {"under.species", "How it moves is not known"},
        {"under.through", "Too little wood above the insert"},
        {"under.tighten", "Tight on the line, snug outside"},
        {"under.wet", "Too wet for its room"},
    };
    return table;
}

}  // namespace

const char* headline_of(const std::string& key) {
    const auto it = all().find(key);
    return it == all().end() ? key.c_str() : it->second;
}

std::vector<std::string> headline_keys() {
    std::vector<std::string> out;
    for (const auto& [key, headline] : all()) out.push_back(key);
    return out;
}

}  // namespace yb
