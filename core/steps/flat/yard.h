// Read at the yard: a straightedge and two winding sticks, six readings, and what the slab would finish at.
#pragma once

#include <optional>

#include "core/ground/figure/figure.h"
#include "core/material/slab/slab.h"

namespace yb {

/// Six readings of face A as it lies: the straightedge along two lines near the edges and across at three stations, gap in its middle; the
/// sticks at the two outer stations. Hollow is positive, a crown negative. Lengths in mm.
struct YardReading {
    double bow_left_mm = 0, bow_right_mm = 0;                  ///< along, near the left and the right edge
    double cup_from_mm = 0, cup_middle_mm = 0, cup_to_mm = 0;  ///< across
    double twist_mm = 0;  ///< the far stick's left end stands so much higher than the near one's, over the lines' distance
    bool operator==(const YardReading&) const = default;
};

/// Where it is read: sticks and outer crosswise readings 50 mm in from the ends, the lines along 40 mm in from the narrowest edges.
/// Nothing of a slab without edges, or too short or narrow for it.
struct YardLines {
    double from_mm = 0, to_mm = 0;     ///< stations of the sticks
    double right_mm = 0, left_mm = 0;  ///< lines along, across the slab
};
std::optional<YardLines> yard_lines(const SlabShape& shape);

/// The readings as heights: a grid of three by three gaps, the highest of them at 0. Six readings and nine heights differ by the plane that
/// nobody knows before it is flattened. @throws std::invalid_argument for sticks on one station or lines on one place, or a reading that is
/// not a number.
HeightGrid yard_grid(const YardLines& at, const YardReading& reading);

/// The readings that a grid of three by three says; nothing of any other, or where a gap was not read.
std::optional<YardReading> yard_reading(const HeightGrid& grid);

/// What the whole slab would finish at, flat on both faces, and the band that holds the truth nine times in ten.
struct YardFinish {
    double thick_mm = 0, low_mm = 0, high_mm = 0;
    YardReading reading;
};
/// The face runs as a parabola along and across between the readings, the other face lies one thickness away; the best tilt of it (tilt.h).
/// The band is of readings to 1 mm, saws that wander and wood that bends otherwise than a parabola: a share of what bends, set by grown
/// slabs (docs/methods.md, Read at the yard). Nothing unless face A was read at three by three places.
std::optional<YardFinish> yard_finish(const Slab& slab, const SlabShape& shape);

/// Bow, cup and twist as the rack tells them, and what it finishes at.
std::vector<Figure> yard_figures(const YardFinish& finish);

}  // namespace yb
