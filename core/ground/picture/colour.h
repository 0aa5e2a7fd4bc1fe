// Colours as the eye tells them apart: CIE 1976 L*a*b* of sRGB, D65 (IEC 61966-2-1, CIE 15).
#pragma once

#include <optional>

#include "core/ground/picture/picture.h"

namespace yb {

struct Lab {
    double l = 0, a = 0, b = 0;
};
/// Of sRGB, 0 to 255. Checks: white 100, 0, 0; pure red 53.24, 80.09, 67.20.
Lab lab_of(double red, double green, double blue);
/// ΔE, CIE 1976: about 2 is the least that is seen.
double colour_difference(const Lab& one, const Lab& other);
/// Mean colour of the square of half-width `r` about a place, points from the top left; nothing where it lies outside.
std::optional<Lab> mean_colour(const Picture& picture, double x, double y, double r);

}  // namespace yb
