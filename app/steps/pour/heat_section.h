// A section of a pour at one moment, drawn: heat in one ramp, and a line where it has gelled.
#pragma once

#include <QImage>

#include "core/ground/cure/cure.h"

namespace yb {

struct HeatSection {
    QImage heat;           ///< the whole section, its middle in the middle, its bottom below
    double hottest_c = 0;  ///< of it all
    double cured_pct = 0;  ///< of the resin, on average
};

/// @param at share of the way through the cure, 0 to 1; nothing: where it is hottest. @param air_c of the shop. @param deep_mm of the
/// lift. @param bank_mm half of the river's width: beyond it is wood. Nothing where nothing was followed.
std::optional<HeatSection> heat_section(const Cured& cured, std::optional<double> at, double air_c, double deep_mm, double bank_mm);

}  // namespace yb
