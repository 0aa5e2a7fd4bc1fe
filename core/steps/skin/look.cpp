#include "core/steps/skin/look.h"

#include <algorithm>

namespace yb {

FinishLook look_of(Finish finish, Sheen sheen) {
    const double film = sheen == Sheen::gloss ? 0.9 : sheen == Sheen::satin ? 0.45 : 0.12;
    switch (finish) {
        case Finish::hardwax: return {0.16, 0.35, 0.18};
        case Finish::tinted: return {0.30, 0.45, 0.18};
        case Finish::drying_oil: return {0.22, 0.55, 0.12};
        case Finish::wiping: return {0.17, 0.40, std::max(0.2, film)};
        case Finish::brushed: return {0.14, 0.25, film};
        case Finish::sprayed: return {0.12, 0.15, film};
        case Finish::flood: return {0.18, 0.20, 1};
        case Finish::oil_hardcoat: return {0.20, 0.45, film};
        case Finish::soap: return {-0.06, -0.25, 0.05};
        case Finish::shellac: return {0.18, 0.60, std::max(0.35, film)};
    }
    return {};
}

std::array<double, 3> left_of_light(const FinishLook& look) {
    const auto left = [&](double share) { return std::clamp(1 - look.darker * share, 0.0, 1.2); };
    return {left(1 - 0.45 * look.warmer), left(1), left(1 + 0.6 * look.warmer)};
}

}  // namespace yb
