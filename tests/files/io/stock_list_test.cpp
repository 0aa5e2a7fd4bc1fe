// Lists of slabs, as yards and spreadsheets write them.
#include <catch2/catch.hpp>

#include "core/files/io/stock_list.h"

using namespace yb;

namespace {
std::string why(const std::string& text) {
    try {
        read_stock_list(text, Units::metric());
    } catch (const FormatError& e) {
        return e.what();
    }
    return {};
}
bool says(const std::string& text, const std::string& what) { return why(text).find(what) != std::string::npos; }
}  // namespace

TEST_CASE("a list becomes slabs that can be laid on at once, blanks stay blanks", "[io][stock]") {
    const auto all = read_stock_list(
        "name;wood;length;width;width_to;thickness;moisture;price;dried;shelf\n"
        "Long one;Sycamore, American;2400;620;580;54;11;310;kiln;B2\n"
        "# a note\n"
        "\n"
        ";butternut;8 ft;22 in;;2 1/4 in;;;air;\n"
        "Unread;larchwood;;;;;;120;;\n",
        Units::metric());
    REQUIRE(all.size() == 3);
    CHECK(all[0].name == "Long one");
    CHECK(all[0].species == "sycamore, American");
    CHECK(all[0].dried == Dried::kiln);
    CHECK(all[0].price == 310);
    const SlabShape shape = shape_of(all[0]);
    REQUIRE(shape.usable);
    CHECK(means_of(shape).narrowest_mm == Approx(580).margin(1));
    CHECK(means_of(shape).widest_mm == Approx(620).margin(1));
    CHECK(all[1].species == "butternut");
    CHECK(all[1].tape.stations[1].x_mm == Approx(2438.4));
    CHECK(*all[1].tape.stations[0].left_mm == Approx(279.4));
    CHECK(*all[1].tape.stations[0].thickness_mm == Approx(57.15));
    CHECK_FALSE(all[1].moisture_pct);
    CHECK(all[2].species.empty());  // no such wood in the table: kept in words
    CHECK(all[2].notes == "Wood as listed: larchwood.");
    CHECK(all[2].tape.stations.empty());
}

TEST_CASE("a column's name may carry its unit – a file may begin with a mark of its bytes", "[io][stock]") {
    const auto all =
        read_stock_list("\xEF\xBB\xBFlength_cm,width (in),thickness mm,Name\n240,24,50,a\n1 m,300 mm,2 in,b\n", Units::imperial());
    REQUIRE(all.size() == 2);
    CHECK(all[0].tape.stations[1].x_mm == Approx(2400));
    CHECK(*all[0].tape.stations[0].left_mm == Approx(304.8));
    CHECK(*all[0].tape.stations[0].thickness_mm == Approx(50));
    CHECK(all[1].tape.stations[1].x_mm == Approx(1000));
    CHECK(*all[1].tape.stations[0].thickness_mm == Approx(50.8));
    CHECK(all[0].name == "a");
}

TEST_CASE("a list that can't be read says where, what and how to mend it", "[io][stock]") {
    CHECK(says("", "a header is wanted"));
    CHECK(says("colour,shelf\nred,2\n", "no column is known"));
    CHECK(says("name,name\na,b\n", "stands twice"));
    CHECK(says("name,length\na,2400\nb,long\n", "line 3"));
    CHECK(says("name,length\nb,long\n", "long"));
    CHECK(says("name,length\nb,-200\n", "more or less"));
    CHECK(says("name,sawn_on\nb,last spring\n", "2026-11-30"));
    CHECK(says("name,dried\nb,in the sun\n", "air or kiln"));
    CHECK(says("name,notes\n,just words\n", "name or a measure"));
    CHECK(read_stock_list("name,length\n", Units::metric()).empty());
}

TEST_CASE("cells in quotes are read as they are meant, those beyond the heading are told", "[io][stock][hostile]") {
    const auto all = read_stock_list("name,length,width,thickness,moisture\n\"Oak, 2400\",2400,600,50,12\n", Units::metric());
    REQUIRE(all.size() == 1);
    CHECK(all[0].name == "Oak, 2400");
    CHECK(all[0].tape.stations[1].x_mm == 2400);
    CHECK(*all[0].tape.stations[0].left_mm == 300);
    CHECK(*all[0].tape.stations[0].thickness_mm == 50);
    CHECK(all[0].moisture_pct == 12);
    CHECK(says("name,length,width\nOak, 2400,2400,600\n", "line 2"));
    CHECK(says("name,length,width\nOak, 2400,2400,600\n", "beyond the heading"));
    CHECK(says("name,notes\na,\"never ends\n", "never ends"));
    CHECK(read_stock_list("name;price\na;310,50\n", Units::metric())[0].price == 310.5);
}
