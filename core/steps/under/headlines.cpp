// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/under/under.h"

namespace yb {

std::span<const Headline> under_headlines() {
    static constexpr Headline all[] = {
        {"under.all_in_river", "A plate wholly in the river"},
        {"under.base", "This base can't be built"},
        {"under.bolt_place", "Bolts sit off the middle"},
        {"under.bolts_near", "Bolts stand too near"},
        {"under.channel_end", "A channel near the end"},
        {"under.clash", "Steel under steel"},
        {"under.client", "What to tell the client"},
        {"under.cross_cut", "A cross-cut moves both ways"},
        {"under.deep_channel", "A pocket too deep"},
        {"under.density", "Its weight is not known"},
        {"under.door", "The way through the door"},
        {"under.dry", "Drier than any air dries it"},
        {"under.end_grain", "Screws pull out of end grain"},
        {"under.falls", "It falls by itself"},
        {"under.feet_out", "The feet stand past the top"},
        {"under.few_bolts", "Too few bolts in a channel"},
        {"under.floor", "A foot hangs above the floor"},
        {"under.gaps", "Its plates are not in one plane"},
        {"under.hammer_in", "Hammer-in inserts pull out"},
        {"under.held", "The channel's bolts pull hard"},
        {"under.hole_in_resin", "A hole in resin"},
        {"under.hole_in_river", "A hole in the open river"},
        {"under.hole_in_void", "A hole in a void"},
        {"under.knees", "Little room for knees"},
        {"under.leaf_loose", "A half that nothing holds"},
        {"under.leg", "The leg comes out too short"},
        {"under.lift", "Too heavy to lift like this"},
        {"under.metal", "Steel: sparks, fumes, a turning drill"},
        {"under.misses", "The base misses a plate"},
        {"under.looked_late", "Little time to have it made good"},
        {"under.no_fixed", "Nothing holds the fixed line"},
        {"under.no_plates", "No leg plates yet"},
        {"under.outside", "It stands past the edge"},
        {"under.reach", "It is held too short"},
        {"under.rim_crack", "The rim will crack open"},
        {"under.rocks", "A push at the top tips it"},
        {"under.sags", "It goes down between its plates"},
        {"under.slot_off", "A slot runs off its plate"},
        {"under.species", "How it moves is not known"},
        {"under.stair", "The way up the stair"},
        {"under.through", "Too little wood above the insert"},
        {"under.tighten", "Tight on the line, snug outside"},
        {"under.tips", "A push at the rim tips it"},
        {"under.wet", "Too wet for its room"},
    };
    return all;
}

}  // namespace yb
