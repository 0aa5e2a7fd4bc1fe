#include "core/steps/under/fixing.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

namespace yb {

namespace {

constexpr double rest_mm = 3;   ///< a washer lies on so much to either side
constexpr double tip_mm = 2;    ///< the drill goes deeper than what is put in
constexpr double spare_mm = 1;  ///< of a clip's gap

/// Outer diameter of what turns or is driven into the wood, and the hole for it.
struct InWood {
    double outer_mm = 0, drill_mm = 0;
};
InWood in_wood(InsertKind kind, double bolt) {
    switch (kind) {
        case InsertKind::screw_in: return {bolt * 1.5 + 1, bolt * 1.5 - 0.5};
        case InsertKind::hammer_in: return {bolt * 1.5, bolt * 1.5 - 1};
        case InsertKind::wood_screw: return {bolt, bolt * 0.7};
    }
    return {};
}

double up_to_half(double mm) { return std::ceil(mm * 2 - 1e-9) / 2; }

}  // namespace

HoleMade make_hole(const HoleAsked& h, const UnderChoices& c) {
    if (!(h.thickness_mm > 0)) throw std::invalid_argument("a hole goes into wood that is there: its thickness is not above 0");
    HoleMade m;
    const InWood wood = in_wood(c.inserts, c.bolt_mm);
    m.drill_mm = wood.drill_mm;
    // The drill's tip runs ahead as far as the wood above allows.
    const double most = std::max(0.0, h.thickness_mm - h.let_in_mm - c.least_above_mm);
    m.stop_mm = std::max(c.insert_mm, std::min(c.insert_mm + tip_mm, most));
    m.above_mm = h.thickness_mm - h.let_in_mm - m.stop_mm;
    const double further = std::max(h.travel_out_mm, h.travel_in_mm);
    if (h.on_fixed_line) {
        // Nothing moves here: a round hole, done up tight, whatever holds it elsewhere.
        m.opening_mm = c.bolt_mm;
    } else {
        switch (c.fixing) {
            case Fixing::slots:
                m.opening_mm = up_to_half(c.bolt_mm + c.play_mm + h.travel_in_mm + h.travel_out_mm);
                m.washer_mm = up_to_half(c.bolt_mm + c.play_mm + 2 * rest_mm);  // a slot is only as wide as the bolt
                m.lets_go_mm = further;
                break;
            case Fixing::oversize:
                m.opening_mm = up_to_half(c.bolt_mm + c.play_mm + 2 * further);
                // At the end of its way it still covers the hole.
                m.washer_mm = up_to_half(m.opening_mm + 2 * further + 2 * rest_mm);
                m.lets_go_mm = further;
                break;
            case Fixing::figure_eight:
                m.opening_mm = c.bolt_mm;
                m.lets_go_mm = eight_mm * std::sin(std::numbers::pi / 4);
                m.fits = further <= m.lets_go_mm;
                break;
            case Fixing::clips:
            case Fixing::buttons:
                m.opening_mm = c.bolt_mm;
                // Set back by what the top comes in; going out it draws the tongue that far out of its kerf.
                m.gap_mm = up_to_half(h.travel_in_mm + spare_mm);
                m.lets_go_mm = tongue_mm - tongue_holds_mm - m.gap_mm;
                m.fits = m.lets_go_mm >= h.travel_out_mm;
                break;
        }
    }
    if (h.specific_gravity) {
        const double g = *h.specific_gravity;
        m.pull_n = c.inserts == InsertKind::wood_screw ? 108.25 * g * g * c.bolt_mm * c.insert_mm
                                                       : 125.4 * std::pow(g, 1.5) * std::pow(wood.outer_mm, 0.75) * c.insert_mm;
        if (c.inserts == InsertKind::hammer_in) *m.pull_n /= 4;  // barbs, no thread
    }
    if (c.insert_n && c.inserts != InsertKind::wood_screw) {
        m.insert_decides = !m.pull_n || *c.insert_n < *m.pull_n;
        if (m.insert_decides) m.pull_n = c.insert_n;
    }
    return m;
}

}  // namespace yb
