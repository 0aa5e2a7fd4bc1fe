// The book as JSON; as CSV (RFC 4180), and back.
#pragma once

#include <string>
#include <vector>

#include "core/files/io/fields_json.h"
#include "core/ground/file/format_error.h"
#include "core/shop/book/book.h"

namespace yb {

/// Columns at,job,step,kind,what,value,unit,of; a header, then a line of the book each.
std::string book_csv(const std::vector<BookEntry>& entries);
/// A list of lines, each an object with these columns as its keys.
Json book_json(const std::vector<BookEntry>& entries);
/// CSV read back; ids count from 1. @throws FormatError with the line: no such header, too few or too many fields, a quote that never ends.
std::vector<BookEntry> read_book_csv(const std::string& text);

}  // namespace yb
