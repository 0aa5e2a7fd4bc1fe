// Edits of a slab by typing into its tape table: a cell at a time.
#pragma once

#include <cstddef>
#include <optional>
#include <string>

namespace yb {

struct Slab;

/// The tape table's sheets; rows and columns are counted from 0.
enum class TapeSheet {
    edges,      ///< a row a station: where, left and right on A, left and right on B, thickness left and right
    heights_a,  ///< a row a station of the grid: where, then a column a place across
    heights_b,
    flaws  ///< a row a flaw: what, face, depth, floor's share of its mouth, its middle along and left of the chalk line, how long, how wide
};

/// A figure typed into a cell; nothing where it was emptied. A station further on than the last one is made, those between
/// too, each `every_mm` from the one before. The other face's edge follows the lean of the station before, until it is
/// measured. A height typed by hand cuts the tie to a scan. @throws Refusal where there is no room for it, or where it can't be.
void type_reading(Slab& slab, TapeSheet sheet, std::size_t row, std::size_t column, std::optional<double> value, double every_mm);
/// A word typed into a flaw's row: the first letters of a kind (column 0), the face (column 1). In the row after the last one a kind
/// makes a flaw, in the middle of the slab.
/// @throws Refusal for another word.
void type_flaw_word(Slab& slab, std::size_t row, std::size_t column, const std::string& word);
/// This station and those after it stand so far apart. @throws Refusal beyond 10 mm to 3 m.
void space_stations(Slab& slab, std::size_t from_row, double every_mm);

}  // namespace yb
