// Cup where the table stands.
#include <algorithm>
#include <cmath>

#include "core/material/wood/cup.h"
#include "core/steps/flat/flat.h"

namespace yb {

void tell_service(FlatPlan& p, const Slab& slab, const Service& service, double wide) {
    std::erase_if(p.figures, [](const Figure& f) { return f.key == "flat.service"; });
    p.service_wide_mm = wide, p.service_cup_mm.reset(), p.one_face_mm.reset();
    const Species* species = find_species(slab.species);
    if (!species || slab.cross_cut || p.thickness_mm <= 0 || !(wide > 0)) return;
    const double low = std::clamp(service.low_pct, 0.0, 30.0);
    const double high = std::clamp(service.high_pct, 0.0, 30.0);
    if (slab.pith_mm) p.service_cup_mm = ring_cup_mm(*species, *slab.pith_mm, wide, p.thickness_mm, low, high);
    p.one_face_mm = face_cup_mm(*species, wide, p.thickness_mm, (low + high) / 2, service.damper_pct);
    if (!p.one_face_mm) return;
    const Quantity alone = fine(std::abs(*p.one_face_mm));
    Working working{"rings: κ = 12/t³ ∫ ε(z)·z dz, S between radial and tangential by the ring's slope; one face: κ = c·ΔM/t; rise κ·w²/8",
                    {{"room, driest", percent(service.low_pct), "its climate"},
                     {"room, dampest", percent(service.high_pct), "its climate"},
                     {"one face damper by", percent(service.damper_pct), "set in Under"},
                     {"wide", mm(wide), "the top, at its widest"},
                     {"thick", fine(p.thickness_mm), "this plan"}},
                    "docs/methods.md, Flattening: free to move, no base holding it"};
    if (p.service_cup_mm) {
        working.given.push_back({"pith from the middle", mm(*slab.pith_mm), "the slab, on the rack"});
        p.figures.push_back({"flat.service", "Cups in its room, free", fine(std::abs(*p.service_cup_mm)), alone,
                             say("over the year; with one face {} damper", percent(service.damper_pct)), working});
    } else {
        p.figures.push_back({"flat.service",
                             "Cups with one face damper",
                             alone,
                             {},
                             say("by {}; its pith is not known", percent(service.damper_pct)),
                             working});
    }
}

}  // namespace yb
