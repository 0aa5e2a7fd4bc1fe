// A ring read at stations along it.
#pragma once

#include <vector>

#include "core/ground/geometry/geometry.h"

namespace yb {

/// Lowest and highest edge of a ring at even stations, by walking its sides once; low above high where there is nothing.
struct EdgeProfile {
    std::vector<double> low, high;
    bool there(std::size_t i) const { return low[i] <= high[i]; }
};
EdgeProfile edge_profile(const Ring& ring, double first, double step, std::size_t stations);

/// The outline read at even stations between two places, right side first and back along the left: as many points whatever
/// the ring has. Stations without wood are left out.
Ring at_stations(const Ring& ring, double from, double to, std::size_t n);

}  // namespace yb
