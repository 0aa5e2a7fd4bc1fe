// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/fill/fill.h"

namespace yb {

std::span<const Headline> fill_headlines() {
    static constexpr Headline all[] = {
        {"fill.cold", "Cold: resin takes days"},
        {"fill.dam", "Runs out at the edge: dam it"},
        {"fill.gloves", "Gloves, air, no skin"},
        {"fill.gone", "Planed away: nothing to fill"},
        {"fill.hot", "A void gets too hot"},
        {"fill.leak", "Thin resin leaks through the tape"},
        {"fill.meets_river", "Opens into the river"},
        {"fill.no_depth", "Nobody probed how deep it is"},
        {"fill.over_joint", "A void runs over the joint"},
        {"fill.overfill", "Poured over for nothing"},
        {"fill.soft", "Soft wood: soak it first"},
        {"fill.spring", "Debris out, the slab may spring"},
        {"fill.tape", "Open below: tape it"},
        {"fill.warm", "Warm: smaller lifts"},
    };
    return all;
}

}  // namespace yb
