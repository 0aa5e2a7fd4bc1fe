// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/skin/skin.h"

namespace yb {

std::span<const Headline> skin_headlines() {
    static constexpr Headline all[] = {
        {"skin.before_tie", "Let in before any finish"},
        {"skin.cold", "Too cold for this finish"},
        {"skin.damp", "Too damp to be finished"},
        {"skin.drips", "It drips underneath"},
        {"skin.dust", "Fine dust of this wood"},
        {"skin.early", "The next coat comes too early"},
        {"skin.film_on_oil", "A film over oil"},
        {"skin.grit_gap", "A grit is left out"},
        {"skin.late", "The next coat comes too late"},
        {"skin.no_window", "No time to wipe it"},
        {"skin.one_face", "One face alone is finished"},
        {"skin.order", "Sanding, in its order"},
        {"skin.rags", "Rags can set themselves alight"},
        {"skin.raise", "The grain is not raised"},
        {"skin.release", "Release tape leaves a film"},
        {"skin.resin_coarse", "Resin is left too coarse"},
        {"skin.sample", "No sample is signed"},
        {"skin.sheen", "Build it in gloss"},
        {"skin.spray", "Spraying wants its place"},
        {"skin.too_coarse", "Stopped too coarse"},
        {"skin.too_fine", "Sanded too fine for an oil"},
        {"skin.two_ways", "One face, two treatments"},
        {"skin.warm", "Too warm for this finish"},
        {"skin.window", "Wipe it within its window"},
        {"skin.zone_large", "A zone too large to be wiped"},
    };
    return all;
}

}  // namespace yb
