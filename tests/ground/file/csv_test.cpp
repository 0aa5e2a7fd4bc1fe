// Tables as text: quotes, separators, what a spreadsheet would take for a formula.
#include <random>

#include <catch2/catch.hpp>

#include "core/ground/file/csv.h"
#include "core/ground/file/format_error.h"

using namespace yb;

namespace {
using Cells = std::vector<std::vector<std::string>>;
Cells all(const std::string& text) {
    Cells out;
    for (CsvRows rows(text); rows.next();) out.emplace_back(rows.cells().begin(), rows.cells().end());
    return out;
}
}  // namespace

TEST_CASE("cells in quotes hold separators, doubled quotes and line breaks", "[csv]") {
    CHECK(all("\"Oak, 2400\",2400, 600 \n") == Cells{{"Oak, 2400", "2400", "600"}});
    CHECK(all("a;\"say \"\"thick\"\"\";\"two\nlines\"\n1;2;3") == Cells{{"a", "say \"thick\"", "two\nlines"}, {"1", "2", "3"}});
    CHECK(all("24\" wide,b\n") == Cells{{"24\" wide", "b"}});  // inches are no quotes
    CHECK(all("\"a\" ,b\r\n\r\n# a \"note\n,\n") == Cells{{"a", "b"}, {"", ""}});
    CHECK(all("\xEF\xBB\xBF"
              "1,5\t2\n3\t\n") == Cells{{"1,5", "2"}, {"3", ""}});
    CHECK(all("\"a;b\",c\n1;2,3\n") == Cells{{"a;b", "c"}, {"1;2", "3"}});  // what is in quotes parts nothing
    CHECK(all("").empty());
}

TEST_CASE("a row says its line, a quote that goes wrong says where", "[csv]") {
    const std::string text = "a,b\n\n\"x\ny\",1\nlast,2\n";
    CsvRows rows(text);
    std::vector<std::size_t> lines;
    while (rows.next()) lines.push_back(rows.line());
    CHECK(lines == std::vector<std::size_t>{1, 3, 5});
    CHECK_THROWS_WITH(all("a,b\n1,\"never\nends"), Catch::Contains("line 2") && Catch::Contains("never ends"));
    CHECK_THROWS_WITH(all("a,b\n1,\"x\" y\n"), Catch::Contains("line 2") && Catch::Contains("closing quote"));
}

TEST_CASE("numbers are read with a point, or a comma where commas part nothing", "[csv]") {
    CHECK(number_of_cell("-3.5", ',') == -3.5);
    CHECK(number_of_cell("-3,5", ';') == -3.5);
    CHECK(number_of_cell("+2", '\t') == 2);
    for (const char* none : {"", "3,5", "1.2.3", "nan", "inf", "1e999", "12 mm", "--1"}) CHECK_FALSE(number_of_cell(none, ','));
    CHECK_FALSE(number_of_cell("1,234.5", ';'));
}

TEST_CASE("no cell that goes out begins a formula, and all read back as they were", "[csv]") {
    CHECK(csv_field("=1+1") == "'=1+1");
    CHECK(csv_field("@sum") == "'@sum");
    CHECK(csv_field("-3.2") == "-3.2");
    CHECK(csv_field("- not a number") == "'- not a number");
    CHECK(csv_field("'=x") == "''=x");
    CHECK(csv_field("# note") == "\"# note\"");
    // 5 000 cells by lot out of what is hard.
    std::mt19937 lot(7);
    const std::string letters = "=+-@'\",;\t\n #a1.\xC3";
    for (int i = 0; i < 5000; ++i) {
        std::string cell;
        for (std::size_t n = lot() % 7; n > 0; --n) {
            const char c = letters[lot() % letters.size()];
            cell += c == '\xC3' ? std::string("\xC3\xBC") : std::string(1, c);
        }
        const std::string written = csv_field(cell);
        INFO(cell << " as " << written);
        // What a spreadsheet sees in the cell.
        const char first = written.empty() ? 'x' : written[0] != '"' ? written[0] : written[1];
        const bool number = number_of_cell(cell, ',').has_value();
        if (!number) CHECK(std::string("=+-@\t").find(first) == std::string::npos);
        CHECK(all("x," + written + "\n") == Cells{{"x", cell}});
    }
}
