#include "core/io/csv.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <string_view>

#include <fmt/format.h>

#include "core/calendar/calendar.h"

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

}  // namespace

Readings read_readings(const std::string& text) {
    std::string_view rest = text;
    if (rest.substr(0, 3) == "\xEF\xBB\xBF") rest.remove_prefix(3);
    std::size_t number = 0;
    constexpr std::array<std::string_view, 4> names{"face", "x_mm", "y_mm", "z_mm"};
    std::vector<std::size_t> column;  // column[i]: which of the names stands in cell i, 4 for none
    Readings out;
    while (!rest.empty()) {
        std::string_view line = next_line(rest);
        ++number;
        if (line.empty() || line.front() == '#') continue;
        std::string_view cell;
        bool more = true;
        if (column.empty()) {
            while (next_cell(line, cell, more))
                column.push_back(static_cast<std::size_t>(std::find(names.begin(), names.end(), cell) - names.begin()));
            for (std::size_t k = 0; k < 4; ++k)
                if (std::count(column.begin(), column.end(), k) != 1)
                    throw FormatError(fmt::format("line {}", number),
                                      fmt::format("the header needs one column ‘{}’; wanted: face,x_mm,y_mm,z_mm", names[k]));
            continue;
        }
        const auto fail = [&](const std::string& what) { throw FormatError(fmt::format("line {}", number), what); };
        std::array<double, 4> v{};
        int face = 0;
        std::size_t i = 0;
        for (; next_cell(line, cell, more); ++i) {
            if (i >= column.size() || column[i] == 4) continue;
            if (column[i] == 0) {
                face = cell == "top" ? 1 : cell == "bottom" ? 2 : 0;
                if (!face) fail(fmt::format("the face is ‘{}’; write top or bottom", cell));
                continue;
            }
            double& d = v[column[i]];
            const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), d);
            if (error != std::errc{} || end != cell.data() + cell.size() || !std::isfinite(d))
                fail(fmt::format("‘{}’ is not a number; {} wants millimetres with a point", cell, names[column[i]]));
        }
        if (i < column.size()) fail(fmt::format("{} cells, {} are wanted: the line was cut short", i, column.size()));
        for (std::size_t k = 1; k < 4; ++k)
            if (const double most = k < 3 ? farthest_reading_mm : highest_reading_mm; std::abs(v[k]) > most)
                fail(fmt::format("{} is {:g} mm: no slab reaches so far. Readings are in mm, within {:g} of 0", names[k], v[k], most));
        (face == 1 ? out.top : out.bottom).push_back({v[1], v[2], v[3]});
        (face == 1 ? out.top_lines : out.bottom_lines).push_back(number);
    }
    if (column.empty()) throw FormatError("", "the file holds no header; wanted: face,x_mm,y_mm,z_mm");
    return out;
}

Ring read_points(const std::string& text) {
    std::string_view rest = text;
    if (rest.substr(0, 3) == "\xEF\xBB\xBF") rest.remove_prefix(3);
    std::size_t number = 0;
    std::vector<int> column;  // 0 x, 1 y, 2 neither
    Ring out;
    while (!rest.empty()) {
        std::string_view line = next_line(rest);
        ++number;
        if (line.empty() || line.front() == '#') continue;
        std::string_view cell;
        bool more = true;
        if (column.empty()) {
            while (next_cell(line, cell, more)) column.push_back(cell == "x_mm" ? 0 : cell == "y_mm" ? 1 : 2);
            if (std::count(column.begin(), column.end(), 0) != 1 || std::count(column.begin(), column.end(), 1) != 1)
                throw FormatError(fmt::format("line {}", number), "the header needs one column ‘x_mm’ and one ‘y_mm’");
            continue;
        }
        std::array<double, 2> v{};
        std::size_t i = 0;
        for (; next_cell(line, cell, more); ++i) {
            if (i >= column.size() || column[i] == 2) continue;
            double& d = v[static_cast<std::size_t>(column[i])];
            const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), d);
            if (error != std::errc{} || end != cell.data() + cell.size() || !std::isfinite(d) || std::abs(d) > farthest_reading_mm)
                throw FormatError(fmt::format("line {}", number), fmt::format("‘{}’ is not a place; {} wants millimetres with a point",
                                                                              cell, column[i] == 0 ? "x_mm" : "y_mm"));
        }
        if (i < column.size())
            throw FormatError(fmt::format("line {}", number),
                              fmt::format("{} cells, {} are wanted: the line was cut short", i, column.size()));
        out.push_back({v[0], v[1]});
    }
    if (out.size() > 1 && length(out.front() - out.back()) < 1e-9) out.pop_back();  // closed by hand
    return out;
}

AirLog read_air(const std::string& text) {
    std::string_view rest = text;
    if (rest.substr(0, 3) == "\xEF\xBB\xBF") rest.remove_prefix(3);
    enum Column { at, temp_c, temp_f, rh, other };
    std::vector<Column> columns;
    AirLog log;
    std::array<double, 12> temp{};
    std::array<double, 12> damp{};
    std::array<std::size_t, 12> count{};
    std::size_t number = 0;
    while (!rest.empty()) {
        std::string_view line = next_line(rest);
        ++number;
        if (line.empty() || line.front() == '#') continue;
        const std::string where = fmt::format("line {}", number);
        std::string_view cell;
        bool more = true;
        if (columns.empty()) {
            while (next_cell(line, cell, more))
                columns.push_back(cell == "at"       ? at
                                  : cell == "temp_c" ? temp_c
                                  : cell == "temp_f" ? temp_f
                                  : cell == "rh_pct" ? rh
                                                     : other);
            const auto n = [&](Column c) { return std::count(columns.begin(), columns.end(), c); };
            if (n(at) != 1 || n(rh) != 1 || n(temp_c) + n(temp_f) != 1)
                throw FormatError(where, "the header needs the columns ‘at’, ‘temp_c’ (or ‘temp_f’) and ‘rh_pct’, each once");
            continue;
        }
        std::size_t month = 12;
        double t = 0;
        double h = 0;
        std::size_t i = 0;
        for (; next_cell(line, cell, more); ++i) {
            if (i >= columns.size() || columns[i] == other) continue;
            if (columns[i] == at) {
                const std::string date(cell.substr(0, 10));
                if (!is_date(date)) throw FormatError(where, fmt::format("‘{}’ does not begin with a date as 2026-11-26", cell));
                month = static_cast<std::size_t>(std::stoi(date.substr(5, 2)) - 1);
                continue;
            }
            double v = 0;
            const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), v);
            if (error != std::errc{} || end != cell.data() + cell.size() || !std::isfinite(v))
                throw FormatError(where, fmt::format("‘{}’ is not a number with a point", cell));
            if (columns[i] == rh) h = v;
            else t = columns[i] == temp_f ? (v - 32) / 1.8 : v;
        }
        if (i < columns.size()) throw FormatError(where, fmt::format("{} cells, {} are wanted: the line was cut short", i, columns.size()));
        if (t < -40 || t > 60) throw FormatError(where, fmt::format("{:.1f} °C is no air of a room: −40 to 60 are taken", t));
        if (h < 0 || h > 100) throw FormatError(where, fmt::format("{:.1f} % is no humidity: 0 to 100 are taken", h));
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
