// Both faces flat in other ways than the sled: what each takes, costs and leaves.
#include <algorithm>
#include <array>
#include <cmath>

#include "core/flat/flat.h"

namespace yb {

const char* name_of(FlatBy by) {
    static constexpr std::array names{"Sled", "Hand planer", "Planer", "Drum sander", "Machine shop", "Bought flat"};
    return names.at(static_cast<std::size_t>(by));
}

FlatWork work_by(FlatBy by, const FlatPlan& plan, const Box& rough, const Sled& sled) {
    const FlatTools& t = sled.tools;
    FlatWork w;
    w.by = by;
    const double m2 = rough.width() * rough.height() * 1e-6;
    const double sides = plan.under_stays ? 1 : 2;
    // Rough heights, worst places: passes over the whole until the last of it is flat.
    const double off = plan.faces[0].most_off_mm + plan.faces[1].most_off_mm;
    const auto passes = [&](double layer) { return std::max(sides, std::ceil(off / layer - 1e-9)); };
    switch (by) {
        case FlatBy::sled:
            w.hands_on_h = plan.hours;
            w.leaves_mm = std::max({0.1, lane_step_mm(sled), sled_sag_mm(sled)});
            break;
        case FlatBy::hand_planer:
            // Half the width of each stroke overlaps, and half the time goes into looking and marking.
            w.hands_on_h = 2 * passes(t.hand_layer_mm) * (rough.height() / (t.hand_mm / 2)) * rough.width() / t.hand_mm_s / 3600;
            w.leaves_mm = 1;
            break;
        case FlatBy::planer:
            w.possible = rough.height() <= t.planer_mm;
            w.hands_on_h = passes(t.planer_layer_mm) * (rough.width() / t.planer_mm_s + 20) / 3600 + 0.5;  // a carrier board and its shims
            w.leaves_mm = 0.2;
            break;
        case FlatBy::drum_sander:
            w.possible = rough.height() <= t.drum_mm;
            w.hands_on_h = passes(t.drum_layer_mm) * (rough.width() / t.drum_mm_s + 15) / 3600 + 0.5;
            w.leaves_mm = 0.2;
            break;
        case FlatBy::machine_shop:
            w.possible = rough.width() <= t.machine_long_mm && rough.height() <= t.machine_wide_mm;
            w.hands_on_h = 2;  // loading, driving, unloading
            w.wait_h = 24 * t.machine_days;
            w.cost = m2 * t.machine_m2 * sides / 2;
            w.leaves_mm = 0.3;
            break;
        case FlatBy::bought_flat:
            w.cost = m2 * t.bought_m2;
            w.leaves_mm = 1;
            break;
    }
    return w;
}

}  // namespace yb
