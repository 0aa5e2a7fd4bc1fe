#include "core/steps/pour/weigh.h"

#include <cmath>
#include <stdexcept>

namespace yb {

Weighed weighed(const Batch& b, double in_cup, std::optional<double> first) {
    if (!(b.a_g > 0) || !std::isfinite(in_cup) || (first && !(*first > 0)))
        throw std::invalid_argument("a batch is weighed by its part A, and by what the scale shows");
    constexpr double much = 0.02;
    Weighed w;
    w.second = first.has_value();
    w.first_g = first.value_or(b.a_g);
    // While A is poured B follows what is in the cup, once that is more than was wanted.
    w.second_g = b.b_g / b.a_g * (first ? *first : std::max(b.a_g, in_cup));
    w.stop_at_g = w.second ? w.first_g + w.second_g : w.first_g;
    w.to_go_g = w.stop_at_g - in_cup;
    w.off = w.second && w.to_go_g < -much * w.second_g;
    return w;
}

}  // namespace yb
