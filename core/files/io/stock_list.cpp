#include "core/files/io/stock_list.h"

#include <algorithm>
#include <cctype>
#include <map>

#include <fmt/format.h>

#include "core/files/io/csv.h"
#include "core/ground/calendar/calendar.h"
#include "core/ground/file/csv.h"
#include "core/material/wood/wood.h"

namespace yb {

namespace {

std::string lowered(std::string s) {
    std::transform(s.begin(), s.end(), s.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    const auto first = s.find_first_not_of(" \t\r");
    if (first == std::string::npos) return {};
    return s.substr(first, s.find_last_not_of(" \t\r") - first + 1);
}

/// A column's name and the unit it carries: `length_mm`, `length (mm)`, `length mm`.
std::pair<std::string, std::string> named(const std::string& head) {
    const std::string s = lowered(head);
    static const std::vector<std::string> units{"mm", "cm", "m", "in", "ft", "pct", "%"};
    for (const std::string& u : units)
        for (const std::string& tail : {"_" + u, " (" + u + ")", " " + u})
            if (s.size() > tail.size() && s.compare(s.size() - tail.size(), tail.size(), tail) == 0)
                return {lowered(s.substr(0, s.size() - tail.size())), u == "pct" ? "%" : u};
    return {s, {}};
}

class List {
  public:
    List(const std::string& text, const Units& units) : rows_(text), units_(units) {}

    std::vector<Slab> read() {
        static const std::vector<std::string> known{"name",     "wood",    "tree",  "number",  "length",  "width", "width_to", "thickness",
                                                    "moisture", "read_on", "price", "sawn_on", "came_on", "dried", "notes"};
        if (!rows_.next()) throw FormatError("line 1", "the list is empty: a header is wanted, such as name,wood,length,width,thickness");
        columns_ = rows_.cells().size();
        for (std::size_t i = 0; i < columns_; ++i) {
            const auto [name, unit] = named(std::string(rows_.cells()[i]));
            if (std::find(known.begin(), known.end(), name) == known.end()) continue;
            if (column_.count(name)) fail(fmt::format("the column ‘{}’ stands twice", name));
            column_[name] = i, unit_[name] = unit;
        }
        if (column_.empty()) fail("no column is known here: name them name, wood, tree, length, width, thickness, moisture, price");
        std::vector<Slab> out;
        while (rows_.next()) {
            const auto& row = rows_.cells();
            if (std::all_of(row.begin(), row.end(), [](std::string_view c) { return c.empty(); })) continue;
            for (std::size_t i = columns_; i < row.size(); ++i)
                if (!row[i].empty()) fail(cells_beyond(row.size(), columns_, row[i]));
            out.push_back(slab());
        }
        return out;
    }

  private:
    [[noreturn]] void fail(const std::string& what) const { throw FormatError(fmt::format("line {}", rows_.line()), what); }

    std::string text(const char* name) const {
        const auto it = column_.find(name);
        return it == column_.end() || it->second >= rows_.cells().size() ? std::string() : std::string(rows_.cells()[it->second]);
    }

    std::optional<double> measure(const char* name, Kind kind, double low, double high) const {
        const std::string typed = text(name);
        if (typed.empty()) return {};
        const std::string& unit = unit_.at(name);
        const bool bare = typed.find_first_not_of("0123456789.,- ") == std::string::npos;
        const auto read = parse(bare && !unit.empty() ? typed + " " + unit : typed, kind, units_);
        if (const auto* e = std::get_if<ParseError>(&read)) fail(fmt::format("{} ‘{}’: {}", name, typed, e->sentence()));
        const double v = std::get<double>(read);
        if (v < low || v > high) fail(fmt::format("{} ‘{}’ is more or less than a slab can have", name, typed));
        return v;
    }

    std::string date(const char* name) const {
        const std::string d = text(name);
        if (!d.empty() && !is_date(d)) fail(fmt::format("‘{}’ is not a date: write it as 2026-11-30", d));
        return d;
    }

    Slab slab() const {
        Slab s;
        s.name = text("name"), s.tree = text("tree"), s.notes = text("notes");
        if (const std::string wood = text("wood"); !wood.empty()) {
            s.species = species(wood);
            if (s.species.empty()) s.notes += (s.notes.empty() ? "" : " ") + fmt::format("Wood as listed: {}.", wood);
        }
        if (const auto n = measure("number", Kind::count, -1000, 100000)) s.sequence = static_cast<int>(*n);
        const auto length = measure("length", Kind::length, 50, 30000);
        const auto width = measure("width", Kind::length, 10, 5000);
        const auto other = measure("width_to", Kind::length, 10, 5000);
        const auto thick = measure("thickness", Kind::fine, 2, 1000);
        s.moisture_pct = measure("moisture", Kind::percent, 0, 200);
        s.price = measure("price", Kind::number, 0, 1e7);
        s.moisture_on = date("read_on"), s.sawn_on = date("sawn_on"), s.came_on = date("came_on");
        const std::string dried = lowered(text("dried"));
        if (dried == "air" || dried == "kiln") s.dried = dried == "air" ? Dried::air : Dried::kiln;
        else if (!dried.empty()) fail(fmt::format("dried ‘{}’: write air or kiln, or leave it empty", dried));
        if (length) {
            const auto station = [&](double x, std::optional<double> w) {
                Station t;
                t.x_mm = x, t.thickness_mm = thick;
                if (w) t.left_mm = t.right_mm = *w / 2;
                return t;
            };
            s.tape.stations = {station(0, width), station(*length, other ? other : width)};
        }
        if (s.name.empty() && !length && !thick && !s.price) fail("a slab wants a name or a measure");
        return s;
    }

    /// As the table names it, in any case, or the one wood whose name begins so; empty where it is none or several.
    static std::string species(const std::string& wood) {
        const std::string asked = lowered(wood);
        std::string found;
        for (const Species& s : all_species()) {
            const std::string name = lowered(s.name);
            if (name == asked) return s.name;
            if (name.rfind(asked, 0) != 0) continue;
            if (!found.empty()) return {};
            found = s.name;
        }
        return found;
    }

    CsvRows rows_;
    std::size_t columns_ = 0;
    const Units& units_;
    std::map<std::string, std::size_t> column_;
    std::map<std::string, std::string> unit_;
};

}  // namespace

std::vector<Slab> read_stock_list(const std::string& text, const Units& units) { return List(text, units).read(); }

}  // namespace yb
