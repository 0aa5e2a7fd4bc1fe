#include "core/steps/flat/rest.h"

#include <cmath>

#include "core/material/wood/cup.h"
#include "core/material/wood/lag.h"

namespace yb {

RestDoes rest_does(Rests how, const Species* species, double width, double thickness, double rest_h) {
    RestDoes out;
    if (!(thickness > 0)) return out;
    if (how == Rests::wrapped) {
        out.cup_mm = 0, out.times = 0;
        return out;
    }
    const double open = lag_days(thickness, bare_s_m);
    const double tau = how == Rests::to_air ? open : lag_days(2 * thickness, bare_s_m);
    out.times = tau / open;
    out.settles = 1 - std::exp(-rest_h / 24 / tau);
    if (how == Rests::to_air) out.cup_mm = 0;
    else if (species) out.cup_mm = face_cup_mm(*species, width, thickness, 10, face_down_pct);
    return out;
}

}  // namespace yb
