#include "core/material/resin/clock.h"

#include <algorithm>

#include "core/material/resin/mix.h"

namespace yb {

CureClock clock_of(const Resin& r, double air_c, const Simulated& model, double most_h) {
    CureClock c;
    // A label speaks of 25 °C: at this air all of it takes as many times as long as the gel does.
    const double slower = gel_hours(r, air_c) / std::max(1e-9, gel_hours(r, 25));
    const auto said = [&](const std::optional<double>& h, bool& by_label, double otherwise) {
        by_label = h.has_value();
        return std::clamp(h ? *h * slower : otherwise, 0.0, most_h);
    };
    bool to_by_label = false;
    c.next_from_h = said(r.recoat_from_h, c.next_by_label, model.gel_h);
    c.next_to_h = std::max(c.next_from_h, said(r.recoat_to_h, to_by_label, model.tacky_h.value_or(c.next_from_h)));
    c.shave_from_h = std::min(model.gel_h, most_h);
    c.hard_h = said(r.sand_h, c.hard_by_label, model.cured_h.value_or(most_h));
    // Nothing is hard before it has gelled, nothing cured before it is hard.
    c.hard_h = std::max(c.hard_h, c.shave_from_h);
    c.full_h = std::max(c.hard_h, said(r.cured_h, c.full_by_label, model.cured_h.value_or(most_h)));
    return c;
}

CureClock clock_of_little(const Resin& r, double air_c) {
    const Kinetics k = kinetics_of(r);
    return clock_of(r, air_c, {gel_hours(r, air_c), isothermal_h(k, tacky_alpha, air_c), isothermal_h(k, cured_alpha, air_c)}, 1e9);
}

const Resin& quickest(const std::vector<Resin>& shelf, const Resin& otherwise) {
    const Resin* best = nullptr;
    for (const Resin& r : shelf)
        if (!r.soaks && !r.solid && r.parts_b > 0 && (!best || r.gel_25_h < best->gel_25_h)) best = &r;
    return best ? *best : otherwise;
}

}  // namespace yb
