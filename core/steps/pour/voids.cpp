#include "core/steps/pour/voids.h"

#include <algorithm>

#include "core/steps/pour/pour.h"

namespace yb {

void heat_in_voids(FillPlan& fill, const std::vector<Resin>& resins, double shop_c) {
    for (const VoidPlan& v : fill.voids) {
        if (v.lifts.empty() || v.left_open) continue;
        const auto largest =
            std::max_element(v.lifts.begin(), v.lifts.end(), [](const Lift& a, const Lift& b) { return a.volume_l < b.volume_l; });
        const Resin* r = find_resin(resins, v.resin);
        if (largest->volume_l <= hot_from_l || !r) continue;
        PourChoices as_it_is;
        as_it_is.lifts = static_cast<int>(v.lifts.size());
        double peak = 0;
        for (const LiftForecast& l : forecast_lifts(*r, v.depth_mm, shop_c, as_it_is)) peak = std::max(peak, l.peak_high_c);
        if (peak <= as_it_is.peak_limit_c) continue;
        const auto cooler = forecast_lifts(*r, v.depth_mm, shop_c, PourChoices()).size();
        fill.cautions.push_back(
            {"fill.hot", Severity::watch, step_key::fill,
             cooler < most_lifts
                 ? say("{} of {} at {} in one lift reach up to {}; {} is the limit. {} lifts stay below it.", litres(largest->volume_l),
                       r->label, along(v.at.x), celsius(peak), celsius(as_it_is.peak_limit_c), count(static_cast<double>(cooler)))
                 : say("{} of {} at {} in one lift reach up to {}; {} is the limit. Take a slower resin.", litres(largest->volume_l),
                       r->label, along(v.at.x), celsius(peak), celsius(as_it_is.peak_limit_c)),
             v.at});
    }
    sort_by_severity(fill.cautions);
}

}  // namespace yb
