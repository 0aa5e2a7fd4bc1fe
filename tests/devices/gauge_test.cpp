#include <catch2/catch.hpp>

#include "devices/gauge.h"

using namespace yb;
using K = GaugeMessage::Kind;

TEST_CASE("a gauge's lines are read as the protocol has them", "[devices]") {
    CHECK(read_gauge_line("R 3.25 mm").kind == K::reading);
    CHECK(read_gauge_line("R 3.25 mm").value_mm == 3.25);
    CHECK(read_gauge_line("R -0.5 in").value_mm == Approx(-12.7));
    CHECK(read_gauge_line("Z").kind == K::zeroed);
    CHECK(read_gauge_line("H depth probe").words == "depth probe");
    CHECK(read_gauge_line("E battery is low").words == "battery is low");
    for (const char* bad : {"", "R", "R mm", "R 3.25", "R 3.25 m", "R 3,25 mm", "R nan mm", "R inf mm", "X 3 mm", "R 3.25 mm*",
                            "R 3.25 mm*zz", "R 3.25 mm*00"}) {
        INFO(bad);
        CHECK(read_gauge_line(bad).kind == K::not_understood);
        CHECK_FALSE(read_gauge_line(bad).words.empty());
    }
    // Exclusive-or of "R 1 mm", by hand: 52^20^31^20^6D^6D = 63.
    CHECK(read_gauge_line("R 1 mm*63").value_mm == 1);
}

TEST_CASE("bytes come in any pieces and a runaway line is dropped", "[devices]") {
    GaugeReader r;
    CHECK(r.take("R 1").empty());
    CHECK(r.take(".5 m").empty());
    auto m = r.take("m\r\nR 2 mm\n\nZ");
    REQUIRE(m.size() == 2);
    CHECK(m[0].value_mm == 1.5);
    CHECK(m[1].value_mm == 2);
    m = r.take("\n");
    REQUIRE(m.size() == 1);
    CHECK(m[0].kind == K::zeroed);
    m = r.take(std::string(5000, 'x') + "\nR 4 mm\n");
    REQUIRE(m.size() == 2);
    CHECK(m[0].kind == K::not_understood);
    CHECK(m[0].words.find("200 bytes") != std::string::npos);
    CHECK(m[1].value_mm == 4);
    for (const double v : {0.0, -3.14, 125.5}) {
        GaugeReader own;
        const auto back = own.take(gauge_line(v));
        REQUIRE(back.size() == 1);
        CHECK(back[0].value_mm == Approx(v));
    }
}

TEST_CASE("a thermocouple that reads what no pour has is broken, and says so", "[devices]") {
    for (const char* line : {"R 2000 C", "R 260.5 C", "R -41 C", "R 4000 F"}) {
        const GaugeMessage m = read_gauge_line(line);
        INFO(line);
        CHECK(m.kind == GaugeMessage::Kind::trouble);
        CHECK(m.words.find("look at its wire") != std::string::npos);
    }
    CHECK(read_gauge_line("R 64.5 C").kind == GaugeMessage::Kind::temperature);
    CHECK(read_gauge_line("R 212 F").value_mm == Approx(100));
    CHECK(read_gauge_line("R nan C").kind != GaugeMessage::Kind::temperature);
    CHECK(read_gauge_line("R  C").kind != GaugeMessage::Kind::temperature);
}
