// Rack as a step of a job: its slab, or the slabs of a top of several told as one.
#include "core/steps/rack/whole.h"

#include <algorithm>
#include <array>

#include "core/steps/rack/rack.h"
#include "core/steps/rack/settle.h"

namespace yb {

namespace {

/// When a slab is dry, with the figure that tells it; nothing while it is not measured or was never read.
std::optional<std::pair<DryingForecast, Figure>> dries(const RackInputs& w, const RackSlab& made) {
    if (!made.usable) return {};
    const auto forecast = drying_of(made.slab, made.thickness_mm, w.air, w.dry_pct, made.slab.moisture_on, w.drying_times);
    if (!forecast) return {};
    return std::pair(*forecast, drying_figure(*forecast, made.slab, settles_at(w.room), w.dry_pct));
}

}  // namespace

StepPlan plan_rack(const RackInputs& in) {
    const RackSlab& made = in.slabs.front();
    StepPlan out{made.usable, made.figures, made.cautions, {}};
    if (auto d = dries(in, made)) out.figures.push_back(std::move(d->second));
    if (auto f = settle_figure(made.slab)) out.figures.push_back(std::move(*f));
    if (auto c = kiln_damp(made.slab, in.dry_pct)) out.cautions.push_back(std::move(*c));
    sort_by_severity(out.cautions);
    return out;
}

StepPlan plan_whole_rack(const RackInputs& w) {
    StepPlan out;
    out.ready = std::all_of(w.slabs.begin(), w.slabs.end(), [](const RackSlab& s) { return s.usable; });
    struct Told {
        const char* key;
        const char* label;
        bool summed;
        const char* formula;
    };
    static constexpr std::array told{
        Told{"rack.size", "Shortest and longest slab", false, "the least and the most of the slabs"},
        Told{"rack.width", "Narrowest and widest, all slabs", false, "the least and the most of the slabs"},
        Told{"rack.thickness", "Thickness, all slabs", false, "the least and the most of the slabs"},
        Told{"rack.mass", "The slabs weigh about", true, "Σ of the slabs"},
        Told{"rack.board_feet", "Board feet, all slabs", true, "Σ of the slabs"},
    };
    for (const Told& t : told) {
        Quantity low{1e300, Kind::number};
        Quantity high{-1e300, Kind::number};
        Quantity sum{0, Kind::number};
        Working working{t.formula, {}, ""};
        for (const RackSlab& slab : w.slabs)
            for (const Figure& f : slab.figures) {
                if (f.key != t.key) continue;
                const Quantity most = f.second.value_or(f.value);
                low = {std::min(low.value, f.value.value), f.value.kind};
                high = {std::max(high.value, most.value), f.value.kind};
                sum = {sum.value + f.value.value, f.value.kind};
                working.given.push_back({slab.slab.name, f.value, f.second ? "to " + format(*f.second, w.units) : "on the rack"});
            }
        if (working.given.size() != w.slabs.size()) continue;
        out.figures.push_back({t.key, t.label, t.summed ? sum : low, t.summed ? std::nullopt : std::optional(high), {}, working});
    }
    Working price{"Σ of what was typed for the slabs", {}, ""};
    double cost = 0;
    for (const RackSlab& slab : w.slabs)
        if (slab.slab.price) cost += *slab.slab.price, price.given.push_back({slab.slab.name, number(*slab.slab.price), "what you typed"});
    if (const std::size_t priced = price.given.size(); priced > 0)
        out.figures.push_back({"rack.price",
                               "The slabs cost",
                               number(cost),
                               {},
                               priced < w.slabs.size() ? say("{} of {} have a price", count(static_cast<double>(priced)),
                                                             count(static_cast<double>(w.slabs.size())))
                                                       : Phrase{},
                               price});
    std::optional<std::pair<DryingForecast, Figure>> last;
    std::string whose;
    for (const RackSlab& slab : w.slabs)
        if (auto d = dries(w, slab); d && (!last || d->first.days.value_or(0) > last->first.days.value_or(0) ||
                                           (!d->first.days && !last->first.days && d->first.moisture_pct > last->first.moisture_pct)))
            last = std::move(d), whose = slab.slab.name;
    if (last) {
        last->second.label += ", " + whose;
        out.figures.push_back(last->second);
    }
    // The one that lies longest.
    std::optional<Figure> lies;
    for (const RackSlab& slab : w.slabs)
        if (auto f = settle_figure(slab.slab); f && (!lies || f->value.value > lies->value.value)) lies = std::move(f);
    if (lies) out.figures.push_back(std::move(*lies));
    for (const RackSlab& slab : w.slabs)
        if (auto c = kiln_damp(slab.slab, w.dry_pct)) c->of = slab.slab.name, out.cautions.push_back(std::move(*c));
    for (const RackSlab& slab : w.slabs)
        for (Caution c : slab.cautions) {
            c.of = slab.slab.name;
            c.at.reset();  // places on a slab are told with it on the bench
            out.cautions.push_back(std::move(c));
        }
    sort_by_severity(out.cautions);
    return out;
}

}  // namespace yb
