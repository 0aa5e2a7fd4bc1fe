// A list of slabs as a yard or a spreadsheet has it: CSV, one slab a line, told by its header.
#pragma once

#include <string>
#include <vector>

#include "core/ground/file/format_error.h"
#include "core/ground/measure/measure.h"
#include "core/material/slab/slab.h"

namespace yb {

/// Reads a list: a header, then a slab a line; cells parted by commas, semicolons or tabs, whichever the header has most of. Known columns,
/// in any order, others passed over: `name`, `wood`, `tree`, `number` (in the log), `length`, `width`, `width_to` (of the other end),
/// `thickness`, `moisture`, `read_on`, `price`, `sawn_on`, `came_on`, `dried` (air or kiln), `notes`. A measure may carry its unit, and so
/// may a column's name, `length_mm` or `width (in)`; else it is taken in `units`. Length and width become a tape of two stations, an even
/// strip; what a line leaves empty stays a blank.
/// @throws FormatError with the line: no header, no known column, a measure or date that is none, a slab with neither name nor measure.
std::vector<Slab> read_stock_list(const std::string& text, const Units& units);

}  // namespace yb
