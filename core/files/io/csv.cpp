#include "core/files/io/csv.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <span>
#include <string_view>

#include <fmt/format.h>

#include "core/ground/calendar/calendar.h"

namespace yb {
namespace {

std::string_view trim(std::string_view s) {
    while (!s.empty() && (s.front() == ' ' || s.front() == '\t')) s.remove_prefix(1);
    while (!s.empty() && (s.back() == ' ' || s.back() == '\t' || s.back() == '\r')) s.remove_suffix(1);
    return s;
}

std::string_view next_line(std::string_view& text) {
    const auto end = text.find('\n');
    const auto line = text.substr(0, end);
    text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
    return trim(line);
}

/// The next cell of a line; false past the last.
bool next_cell(std::string_view& line, std::string_view& cell, bool& more) {
    if (!more) return false;
    const auto comma = line.find(',');
    cell = trim(line.substr(0, comma));
    more = comma != std::string_view::npos;
    line.remove_prefix(more ? comma + 1 : line.size());
    return true;
}

/// A table read by its header: columns by their names in any order, others passed over; empty lines and those that begin with # too.
class Table {
  public:
    Table(std::string_view text, std::span<const std::string_view> names) : rest_(text), names_(names) {
        if (rest_.substr(0, 3) == "\xEF\xBB\xBF") rest_.remove_prefix(3);
    }

    /// Reads the header. @returns false for none.
    bool open() {
        if (!next_written()) return false;
        std::string_view cell;
        bool more = true;
        while (next_cell(line_, cell, more))
            column_.push_back(static_cast<std::size_t>(std::find(names_.begin(), names_.end(), cell) - names_.begin()));
        return true;
    }
    /// How often a column stands in the header.
    std::ptrdiff_t times(std::size_t name) const { return std::count(column_.begin(), column_.end(), name); }

    /// The next line's cells. @returns false past the last. @throws FormatError for a line with too few.
    bool next() {
        if (!next_written()) return false;
        cells_.assign(names_.size(), {});
        std::string_view cell;
        bool more = true;
        std::size_t i = 0;
        for (; next_cell(line_, cell, more); ++i)
            if (i < column_.size() && column_[i] < names_.size()) cells_[column_[i]] = cell;
        if (i < column_.size()) fail(fmt::format("{} cells, {} are wanted: the line was cut short", i, column_.size()));
        return true;
    }
    std::string_view cell(std::size_t name) const { return cells_[name]; }
    /// @returns nothing where the cell is no finite number.
    std::optional<double> number(std::size_t name) const {
        double d = 0;
        const std::string_view c = cells_[name];
        const auto [end, error] = std::from_chars(c.data(), c.data() + c.size(), d);
        return error == std::errc{} && end == c.data() + c.size() && std::isfinite(d) ? std::optional(d) : std::nullopt;
    }
    std::size_t line() const { return number_; }
    [[noreturn]] void fail(const std::string& what) const { throw FormatError(fmt::format("line {}", number_), what); }

  private:
    bool next_written() {
        while (!rest_.empty()) {
            line_ = next_line(rest_);
            ++number_;
            if (!line_.empty() && line_.front() != '#') return true;
        }
        return false;
    }

    std::string_view rest_, line_;
    std::span<const std::string_view> names_;
    std::vector<std::size_t> column_;  ///< which of the names stands there; as many as there are for none
    std::vector<std::string_view> cells_;
    std::size_t number_ = 0;
};

}  // namespace

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
        if (!is_date(date)) table.fail(fmt::format("‘{}’ does not begin with a date as 2026-11-26", table.cell(at)));
        for (const Column c : {rh, warm})
            if (!table.number(c)) table.fail(fmt::format("‘{}’ is not a number with a point", table.cell(c)));
        const double h = *table.number(rh);
        const double t = warm == temp_f ? (*table.number(warm) - 32) / 1.8 : *table.number(warm);
        if (t < -40 || t > 60) table.fail(fmt::format("{:.1f} °C is no air of a room: −40 to 60 are taken", t));
        if (h < 0 || h > 100) table.fail(fmt::format("{:.1f} % is no humidity: 0 to 100 are taken", h));
        const auto month = static_cast<std::size_t>(std::stoi(date.substr(5, 2)) - 1);
        temp[month] += t, damp[month] += h, ++count[month], ++log.readings;
    }
    if (log.readings == 0) throw FormatError("the file", "no reading is in it: a header, then a line a reading");
    for (std::size_t m = 0; m < 12; ++m)
        if (count[m] > 0) log.months[m] = Month{temp[m] / static_cast<double>(count[m]), damp[m] / static_cast<double>(count[m])};
    return log;
}

std::vector<std::vector<std::string>> split_table(const std::string& text) {
    std::string_view rest = text;
    const auto first = rest.substr(0, rest.find('\n'));
    char sep = ',';
    for (const char c : {'\t', ';'})
        if (first.find(c) != std::string_view::npos) {
            sep = c;
            break;
        }
    std::vector<std::vector<std::string>> rows;
    while (!rest.empty()) {
        const auto end = rest.find('\n');
        std::string_view line = rest.substr(0, end);
        rest.remove_prefix(end == std::string_view::npos ? rest.size() : end + 1);
        if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
        if (trim(line).empty()) continue;
        std::vector<std::string> cells;
        for (;;) {
            const auto at = line.find(sep);
            cells.emplace_back(trim(line.substr(0, at)));
            if (at == std::string_view::npos) break;
            line.remove_prefix(at + 1);
        }
        rows.push_back(std::move(cells));
    }
    return rows;
}

}  // namespace yb
