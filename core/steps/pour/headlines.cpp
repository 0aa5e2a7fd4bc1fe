// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/pour/pour.h"

namespace yb {

std::span<const Headline> pour_headlines() {
    static constexpr Headline all[] = {
        {"pour.after", "What comes after the pour"},
        {"pour.air", "Air outside what the label wants"},
        {"pour.buy", "Resin to be bought"},
        {"pour.colour", "Every batch the same"},
        {"pour.cup", "A cup left standing runs away"},
        {"pour.dam", "The river runs out at the end"},
        {"pour.divider", "A divider stands beside the river"},
        {"pour.float", "A leaf floats up"},
        {"pour.form", "The form is too small"},
        {"pour.hot", "Too hot for the limit"},
        {"pour.label", "Deeper than the label allows"},
        {"pour.leaks", "Every seam, before you mix"},
        {"pour.level", "The form is not level"},
        {"pour.near", "Near to running away"},
        {"pour.night", "Cold nights stretch the cure"},
        {"pour.no_tack", "The next lift comes too late"},
        {"pour.overhang", "The form hangs past its bench"},
        {"pour.pot", "The mix rises under vacuum"},
        {"pour.safe", "Gloves, air, away from what burns"},
        {"pour.sags", "The form hangs between its bearers"},
        {"pour.sheet", "The resin's sheet contradicts itself"},
        {"pour.short", "Not enough on the shelf"},
        {"pour.slope", "The form stands out of level"},
        {"pour.syrup", "When a second colour goes in"},
        {"pour.tint", "Voids and river differ in tint"},
    };
    return all;
}

}  // namespace yb
