// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/rack/rack.h"

namespace yb {

std::span<const Headline> rack_headlines() {
    static constexpr Headline all[] = {
        {"look.damp", "Damp: seal its ends today"},
        {"rack.crossing", "The outline crosses itself"},
        {"rack.disagree", "Heights and caliper disagree"},
        {"rack.edges", "The edges cross"},
        {"rack.failed", "No shape can be made of it"},
        {"rack.flaw_crossing", "A flaw's outline crosses itself"},
        {"rack.flaw_open", "A flaw has no area"},
        {"rack.heights_missing", "Heights are missing"},
        {"rack.jumps", "A reading jumps"},
        {"rack.kiln_damp", "Kiln-dried, but damp"},
        {"rack.missing", "A reading is missing"},
        {"rack.no_heights", "No heights: thickness is a guess"},
        {"rack.no_wood", "No wood between the readings"},
        {"rack.one_face", "One face has no heights"},
        {"rack.one_line", "Heights on one line only"},
        {"rack.outline", "The two faces don't match"},
        {"rack.outside", "A height lies outside the slab"},
        {"rack.stations", "Too few stations"},
        {"rack.thickness", "No thickness is read"},
        {"rack.thickness_zero", "A thickness of nothing"},
        {"rack.twice", "Two stations at one place"},
    };
    return all;
}

}  // namespace yb
