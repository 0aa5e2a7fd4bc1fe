// What people lift: an estimate for the maker's judgement.
#pragma once

#include <cmath>

namespace yb {

inline constexpr double one_lifts_kg = 25;  ///< a starting value
/// How many it takes to lift a weight.
inline double people_to_lift(double kg) { return std::ceil(kg / one_lifts_kg); }

}  // namespace yb
