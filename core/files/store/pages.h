// Rows read straight from the pages of a SQLite file whose trees are broken.
#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

namespace yb {

/// A value of a row: text and blobs as bytes, numbers written out, null as nothing.
using RawRow = std::vector<std::string>;

/// Calls `one` for every row that stands whole on a leaf page of the file and on the pages it overflows to, whatever tree it
/// belonged to, rows that were given up too: whether a row is true is for its checksum to say. Source: the file format as
/// SQLite documents it. @param one rowid and columns. Reads only; a page that makes no sense is passed over.
void for_rows_on_pages(const std::string& path, const std::function<void(std::int64_t, const RawRow&)>& one);

}  // namespace yb
