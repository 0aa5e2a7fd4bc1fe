// How wood looks once it is finished: what each class does to the colour of bare wood, and how it shines. Starting values, a maker's eye.
#pragma once

#include <array>

#include "core/steps/skin/choices.h"

namespace yb {

struct FinishLook {
    double darker = 0;  ///< 0 to 1: of the light that bare wood gives back, so much is kept in once it is wet
    double warmer = 0;  ///< −1 to 1: of blue more than of red
    double shine = 0;   ///< 0 matt to 1 a mirror
};
/// @param sheen counts for films; what soaks in stays as its class is.
FinishLook look_of(Finish finish, Sheen sheen);
/// What is left of red, green and blue of bare wood, 0 to 1. Check: nothing darker leaves all.
std::array<double, 3> left_of_light(const FinishLook& look);

}  // namespace yb
