// Drawings in and out: outlines as SVG and DXF, 1:1.
//
// SVG is read through pugixml: paths, polygons, polylines, lines, rectangles, circles and ellipses with their
// transforms; curves become chords no further than 0.05 of a unit off. DXF is read through dxflib: lines, arcs,
// circles, polylines with bulges, splines. Lines that meet within 0.01 of a unit are joined.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/ground/work/work.h"
#include "core/material/slab/slab.h"

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

/// @name The most a drawing may hold (docs/formats.md).
/// @{
inline constexpr std::size_t most_drawing_points = 4000000;
inline constexpr int most_svg_depth = 256;
inline constexpr int most_spline_degree = 25;
inline constexpr double farthest_place = 1e9;                              ///< of a point from the drawing's nought, in its units
inline constexpr double shortest_drawn_mm = 50, longest_drawn_mm = 15000;  ///< of a slab; beyond them its unit is asked for
/// @}

/// @throws FormatError where a point is no place on a drawing: not a number, or farther off than farthest_place.
void check_places(const Drawing& drawing, const char* format);

/// Numbers are read with a point whatever the desktop's decimal sign is. @throws FormatError with the place; nothing is asked
/// of memory that the file does not hold.
/// What is not shown (display:none, by attribute, style or class) is no line. @throws Cancelled.
Drawing read_svg(const std::string& bytes, const Work& work = {});
/// @throws FormatError, Cancelled.
Drawing read_dxf(const std::string& bytes, const Work& work = {});

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
DrawnSlab slab_from_drawing(const Drawing& drawing, double mm_per_unit, const Work& work = {});

/// How long it is drawn where no slab is so long or so short, mm: the unit is another, then. Nothing where it can be.
std::optional<double> unlikely_length(const DrawnSlab& slab);

}  // namespace yb
