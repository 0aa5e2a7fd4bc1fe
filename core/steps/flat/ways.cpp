// Both faces flat in other ways than the sled: what each takes, costs and leaves.
#include <algorithm>
#include <array>
#include <cmath>

#include "core/ground/figure/choice.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/holding.h"

namespace yb {

const char* name_of(FlatBy by) {
    static constexpr std::array names{"Sled", "Hand planer", "Planer", "Drum sander", "Machine shop", "Bought flat"};
    return names.at(static_cast<std::size_t>(by));
}

void FlatAsks::add(const FlatAsks& more) {
    for (std::size_t i = 0; i < by.size(); ++i) {
        by[i].by = more.by[i].by;
        by[i].possible = by[i].possible && more.by[i].possible;
        by[i].there = by[i].there && more.by[i].there;
        by[i].hands_on_h += more.by[i].hands_on_h, by[i].cost += more.by[i].cost;
        by[i].wait_h = std::max(by[i].wait_h, more.by[i].wait_h);  // they go away together
        by[i].leaves_mm = std::max(by[i].leaves_mm, more.by[i].leaves_mm);
    }
    for (std::size_t i = 0; i < lanes.size(); ++i) lanes[i] += more.lanes[i];
    path_mm += more.path_mm, points += more.points, blocks += more.blocks;
    plane_mm = std::min(plane_mm, more.plane_mm);
}

std::vector<Choice> flat_work_choices(const FlatAsks& a, const FlatChoices& c) {
    const auto lanes = [&](LaneWay way, const char* other) {
        const auto n = count(a.lanes[static_cast<std::size_t>(way)]);
        return way == c.lanes ? say("{} lanes a layer, {} of path", n, along(a.path_mm)) : say(other, n);
    };
    std::vector<Phrase> by;
    for (const FlatWork& w : a.by)
        by.push_back(!w.there && c.by != w.by     ? Phrase()  // the shop has none
                     : !w.there                   ? say("the shop has none")
                     : !w.possible                ? say("the piece is too large for it")
                     : w.cost > 0 && w.wait_h > 0 ? say("{} hands-on, {} away, costs {}; leaves {}", hours(w.hands_on_h), hours(w.wait_h),
                                                        number(std::round(w.cost)), fine(w.leaves_mm))
                     : w.cost > 0                 ? say("costs {} more; leaves {}", number(std::round(w.cost)), fine(w.leaves_mm))
                                                  : say("{} hands-on; leaves {}", hours(w.hands_on_h), fine(w.leaves_mm)));
    return {choice_of(flat_lanes, c,
                      {lanes(LaneWay::across, "{} lanes a layer, each as long as the piece is wide"),
                       lanes(LaneWay::along, "{} lanes a layer, each as long as the piece: a longer sled")}),
            choice_of(flat_bys, c, by),
            choice_of(flat_helds, c,
                      {say("{}, one at each shim, {} in all; peels off, nothing stands in the way", counted(a.points, "point", "points"),
                           hours(holding_h(a, HeldBy::hot_glue))),
                       say("{} against blocks screwed to the bench, {} in all, lower than the last pass",
                           counted(a.blocks, "pair", "pairs"), hours(holding_h(a, HeldBy::wedges))),
                       say("{} along the edges, {} in all, no higher than {}: moved for the lanes they stand in", count(a.blocks),
                           hours(holding_h(a, HeldBy::hold_downs)), fine(std::max(0.0, a.plane_mm - 3)))})};
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
            w.there = t.has_hand;
            // Half the width of each stroke overlaps, and half the time goes into looking and marking.
            w.hands_on_h = 2 * passes(t.hand_layer_mm) * (rough.height() / (t.hand_mm / 2)) * rough.width() / t.hand_mm_s / 3600;
            w.leaves_mm = 1;
            break;
        case FlatBy::planer:
            w.there = t.has_planer;
            w.possible = rough.height() <= t.planer_mm;
            w.hands_on_h = passes(t.planer_layer_mm) * (rough.width() / t.planer_mm_s + 20) / 3600 + 0.5;  // a carrier board and its shims
            w.leaves_mm = 0.2;
            break;
        case FlatBy::drum_sander:
            w.there = t.has_drum;
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
