#include "core/files/io/csv.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <span>
#include <string_view>

#include <fmt/format.h>

#include "core/ground/calendar/calendar.h"
#include "core/ground/file/csv.h"

namespace yb {
namespace {

/// A table read by its header: columns by their names in any order, others passed over.
class Table {
  public:
    Table(std::string_view text, std::span<const std::string_view> names) : rows_(text), names_(names) {}

    /// Reads the header. @returns false for none.
    bool open() {
        if (!rows_.next()) return false;
        for (const std::string_view cell : rows_.cells())
            column_.push_back(static_cast<std::size_t>(std::find(names_.begin(), names_.end(), cell) - names_.begin()));
        return true;
    }
    /// How often a column stands in the header.
    std::ptrdiff_t times(std::size_t name) const { return std::count(column_.begin(), column_.end(), name); }

    /// The next line's cells. @returns false past the last. @throws FormatError for a line with too few, or with more than the header has.
    bool next() {
        if (!rows_.next()) return false;
        const auto& row = rows_.cells();
        if (row.size() < column_.size()) fail(fmt::format("{} cells, {} are wanted: the line was cut short", row.size(), column_.size()));
        cells_.assign(names_.size(), {});
        for (std::size_t i = 0; i < row.size(); ++i) {
            if (i < column_.size() && column_[i] < names_.size()) cells_[column_[i]] = row[i];
            if (i >= column_.size() && !row[i].empty()) fail(cells_beyond(row.size(), column_.size(), row[i]));
        }
        return true;
    }
    std::string_view cell(std::size_t name) const { return cells_[name]; }
    /// @returns nothing where the cell is no finite number.
    std::optional<double> number(std::size_t name) const { return number_of_cell(cells_[name], rows_.separator()); }
    std::size_t line() const { return rows_.line(); }
    [[noreturn]] void fail(const std::string& what) const { throw FormatError(fmt::format("line {}", line()), what); }

  private:
    CsvRows rows_;
    std::span<const std::string_view> names_;
    std::vector<std::size_t> column_;  ///< which of the names stands there; as many as there are for none
    std::vector<std::string_view> cells_;
};

}  // namespace

std::string cells_beyond(std::size_t cells, std::size_t columns, std::string_view first) {
    return fmt::format("{} cells under {} columns: ‘{}’ stands beyond the heading. A cell that holds the separator wants quotes round it",
                       cells, columns, first.substr(0, 40));
}

Readings read_readings(const std::string& text) {
    static constexpr std::array<std::string_view, 4> names{"face", "x_mm", "y_mm", "z_mm"};
    Table t(text, names);
    if (!t.open()) throw FormatError("", "the file holds no header; wanted: face,x_mm,y_mm,z_mm");
    for (std::size_t k = 0; k < names.size(); ++k)
        if (t.times(k) != 1) t.fail(fmt::format("the header needs one column ‘{}’; wanted: face,x_mm,y_mm,z_mm", names[k]));
    Readings out;
    while (t.next()) {
        const bool top = t.cell(0) == "top";
        if (!top && t.cell(0) != "bottom") t.fail(fmt::format("the face is ‘{}’; write top or bottom", t.cell(0)));
        std::array<double, 4> v{};
        for (std::size_t k = 1; k < names.size(); ++k) {
            const auto read = t.number(k);
            if (!read) t.fail(fmt::format("‘{}’ is not a number; {} wants millimetres with a point", t.cell(k), names[k]));
            v[k] = *read;
            if (const double most = k < 3 ? farthest_reading_mm : highest_reading_mm; std::abs(v[k]) > most)
                t.fail(fmt::format("{} is {:g} mm: no slab reaches so far. Readings are in mm, within {:g} of 0", names[k], v[k], most));
        }
        (top ? out.top : out.bottom).push_back({v[1], v[2], v[3]});
        (top ? out.top_lines : out.bottom_lines).push_back(t.line());
    }
    return out;
}

Ring read_points(const std::string& text) {
    static constexpr std::array<std::string_view, 2> names{"x_mm", "y_mm"};
    Table t(text, names);
    Ring out;
    if (!t.open()) return out;
    if (t.times(0) != 1 || t.times(1) != 1) t.fail("the header needs one column ‘x_mm’ and one ‘y_mm’");
    while (t.next()) {
        std::array<double, 2> v{};
        for (std::size_t k = 0; k < names.size(); ++k) {
            const auto read = t.number(k);
            if (!read || std::abs(*read) > farthest_reading_mm)
                t.fail(fmt::format("‘{}’ is not a place; {} wants millimetres with a point", t.cell(k), names[k]));
            v[k] = *read;
        }
        out.push_back({v[0], v[1]});
    }
    if (out.size() > 1 && length(out.front() - out.back()) < 1e-9) out.pop_back();  // closed by hand
    return out;
}

AirLog read_air(const std::string& text) {
    static constexpr std::array<std::string_view, 4> names{"at", "rh_pct", "temp_c", "temp_f"};
    enum Column { at, rh, temp_c, temp_f };
    Table table(text, names);
    AirLog log;
    std::array<double, 12> temp{};
    std::array<double, 12> damp{};
    std::array<std::size_t, 12> count{};
    if (table.open() && (table.times(at) != 1 || table.times(rh) != 1 || table.times(temp_c) + table.times(temp_f) != 1))
        table.fail("the header needs the columns ‘at’, ‘temp_c’ (or ‘temp_f’) and ‘rh_pct’, each once");
    const Column warm = table.times(temp_f) == 1 ? temp_f : temp_c;
    while (table.next()) {
        const std::string date(table.cell(at).substr(0, 10));
        const std::string_view behind = table.cell(at).substr(std::min<std::size_t>(10, table.cell(at).size()));
        if (!is_date(date) || (!behind.empty() && behind.front() != 'T' && behind.front() != ' '))
            table.fail(fmt::format("‘{}’ does not begin with a date as 2026-11-26", table.cell(at)));
        for (const Column c : {rh, warm})
            if (!table.number(c)) table.fail(fmt::format("‘{}’ is not a number with a point", table.cell(c)));
        const double h = *table.number(rh);
        const double t = warm == temp_f ? (*table.number(warm) - 32) / 1.8 : *table.number(warm);
        if (t < -40 || t > 60) table.fail(fmt::format("{:.1f} °C is no air of a room: −40 to 60 are taken", t));
        if (h < 0 || h > 100) table.fail(fmt::format("{:.1f} % is no humidity: 0 to 100 are taken", h));
        const auto month = static_cast<std::size_t>(month_of(date));
        temp[month] += t, damp[month] += h, ++count[month], ++log.readings;
    }
    if (log.readings == 0) throw FormatError("the file", "no reading is in it: a header, then a line a reading");
    for (std::size_t m = 0; m < 12; ++m)
        if (count[m] > 0) log.months[m] = Month{temp[m] / static_cast<double>(count[m]), damp[m] / static_cast<double>(count[m])};
    return log;
}

std::vector<std::vector<std::string>> split_table(const std::string& text) {
    std::vector<std::vector<std::string>> out;
    for (CsvRows rows(text); rows.next();) out.emplace_back(rows.cells().begin(), rows.cells().end());
    return out;
}

}  // namespace yb
