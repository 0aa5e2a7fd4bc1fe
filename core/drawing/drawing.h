// Drawings in and out: outlines as SVG and DXF, 1:1.
//
// SVG is read through pugixml: paths, polygons, polylines, lines, rectangles, circles and ellipses with their
// transforms; curves become chords no further than 0.05 of a unit off. DXF is read through dxflib: lines, arcs,
// circles, polylines with bulges, splines. Lines that meet within 0.01 of a unit are joined.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/geometry.h"
#include "core/slab/slab.h"

namespace yb {

struct DrawnPath {
    Ring points;  ///< y up
    bool closed = false;
    std::string layer;  ///< "face A", "top", …
};

struct Drawing {
    std::vector<DrawnPath> paths;
    std::optional<double> mm_per_unit;  ///< empty: the file does not say
};

/// @throws FormatError.
Drawing read_svg(const std::string& bytes);
/// @throws FormatError.
Drawing read_dxf(const std::string& bytes);

/// In millimetres, 1:1, one group or layer for each layer name.
std::string to_svg(const std::vector<DrawnPath>& paths, const std::string& title);
std::string to_dxf(const std::vector<DrawnPath>& paths);

/// The outline in a drawing: its largest closed path is the slab, closed paths inside it become voids. Laid
/// lengthwise from x = 0, its middle on the chalk line. @throws FormatError when nothing closes, with how far
/// apart the nearest ends are.
struct DrawnSlab {
    TracedOutline outline;
    std::vector<Flaw> flaws;
};
DrawnSlab slab_from_drawing(const Drawing& drawing, double mm_per_unit);

}  // namespace yb
