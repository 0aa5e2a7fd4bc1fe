// Height readings and tape tables as text: CSV with a header, or what a spreadsheet puts on the clipboard.
#pragma once

#include <array>
#include <iosfwd>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/ground/file/format_error.h"
#include "core/ground/geometry/geometry.h"
#include "core/material/wood/air_log.h"

namespace yb {

/// Height readings of both faces, mm.
struct Readings {
    std::vector<Vec3> top, bottom;
    std::vector<std::size_t> top_lines, bottom_lines;  ///< where in the file each stands, from 1
};

/// @name What a reading of a slab can be, mm; beyond it the line is refused.
/// @{
inline constexpr double farthest_reading_mm = 30000;  ///< x and y, from nought
inline constexpr double highest_reading_mm = 3000;    ///< z, up or down
/// @}

/// Reads `face,x_mm,y_mm,z_mm` lines, face `top` or `bottom`, columns in any order; `#` begins a comment.
/// @throws FormatError with the line and what is wrong in it.
Readings read_readings(const std::string& text);

/// Points of an outline or of feet: a header with x_mm and y_mm, then a point a line. @throws FormatError with the line.
Ring read_points(const std::string& text);

/// Reads `at,temp_c,rh_pct` lines, columns in any order, others passed over; `at` begins with a date `2026-11-26`, a time after it is
/// not looked at; `temp_f` instead of `temp_c` is taken too; `#` begins a comment.
/// @throws FormatError with the line: no header, a date or number that is none, −40 to 60 °C, 0 to 100 %.
AirLog read_air(const std::string& text);

/// What is said of a line with more cells than its heading has. @param first of those beyond it.
std::string cells_beyond(std::size_t cells, std::size_t columns, std::string_view first);

/// Pasted text as rows of cells (core/ground/file/csv.h). @throws FormatError for a quote that never ends.
std::vector<std::vector<std::string>> split_table(const std::string& text);

}  // namespace yb
