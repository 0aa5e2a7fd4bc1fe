#include "core/steps/rack/settle.h"

#include <algorithm>

#include "core/ground/calendar/calendar.h"

namespace yb {

std::optional<double> settle_days_of(const Slab& s) {
    if (s.settle_days) return s.settle_days;
    if (s.dried == Dried::unknown) return {};
    return s.dried == Dried::kiln ? settle_kiln_days : settle_air_days;
}

double settle_left_days(const Slab& s, const std::string& on) {
    const double all = settle_days_of(s).value_or(0);
    const auto lain = days_between(s.came_on, on);
    return lain ? std::clamp(all - *lain, 0.0, all) : all;
}

std::optional<Figure> settle_figure(const Slab& s) {
    const auto days = settle_days_of(s);
    if (!days) return {};
    const bool typed = s.settle_days.has_value();
    return Figure{"rack.settle",
                  "Lies in the shop, days",
                  count(*days),
                  {},
                  is_date(s.came_on) ? say("until {}", date_after(s.came_on, *days * 24)) : say("when it came is not said"),
                  {"until its moisture has evened out from middle to face",
                   {{"days", count(*days),
                     typed                    ? "the maker's"
                     : s.dried == Dried::kiln ? "from the kiln: a starting value"
                                              : "from the open air: a starting value"}},
                   "a maker's: change it for this slab"}};
}

std::optional<Caution> kiln_damp(const Slab& s, double dry_pct) {
    constexpr double band_pct = 2;
    if (s.dried != Dried::kiln || !s.moisture_pct || *s.moisture_pct <= dry_pct + band_pct) return {};
    return Caution{
        "rack.kiln_damp", Severity::watch, Step{"rack"},
        say("Said to come from the kiln, and reads {}: it has drawn damp, or was taken out too soon. Read it in the middle and at "
            "the ends, and let it come down to {}.",
            percent(*s.moisture_pct), percent(dry_pct))};
}

}  // namespace yb
