// Tables as text, in and out: RFC 4180, and what spreadsheets make of it. All that comes in as cells is read here.
#pragma once

#include <cstddef>
#include <deque>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace yb {

/// A text as a cell of a line: in quotes where it holds a separator, a quote, a line break, blanks at an end or a # at its beginning, its
/// own quotes doubled. What a spreadsheet would take for a formula (=, +, -, @, tab or return at its beginning, a number left as it is)
/// gets an apostrophe before it, which CsvRows takes away again.
std::string csv_field(const std::string& text);

/// A number of a cell: with a point or, where commas do not part the cells, a decimal comma. Nothing where the cell is no finite number.
std::optional<double> number_of_cell(std::string_view cell, char separator);

/// The rows of a table. Cells are parted by tabs, semicolons or commas, by whichever the first line has outside its quotes, in that order;
/// cells in quotes hold separators, doubled quotes and line breaks; blanks round a cell are left out. Empty lines and those that begin with
/// # are passed over, a byte order mark too. The text outlives it.
class CsvRows {
  public:
    explicit CsvRows(std::string_view text);
    /// Goes to the next row. @returns false past the last. @throws FormatError with the line for a quote that never ends or has text behind
    /// it.
    bool next();
    const std::vector<std::string_view>& cells() const { return cells_; }
    /// The line its row begins in, from 1.
    std::size_t line() const { return line_; }
    char separator() const { return separator_; }

  private:
    bool skip_empty();
    std::string_view quoted();
    std::string_view bare();

    std::string_view text_;
    std::size_t at_ = 0;
    std::size_t next_line_ = 1;
    std::size_t line_ = 0;
    char separator_ = ',';
    std::vector<std::string_view> cells_;
    std::deque<std::string> held_;  ///< cells that are not as the text has them
};

}  // namespace yb
