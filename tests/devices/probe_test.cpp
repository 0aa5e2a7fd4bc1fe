#include <catch2/catch.hpp>

#include "devices/probe.h"

using namespace yb;
using K = ProbeMessage::Kind;

TEST_CASE("a gauge's lines are read as the protocol has them", "[devices]") {
    CHECK(read_probe_line("R 3.25 mm").kind == K::reading);
    CHECK(read_probe_line("R 3.25 mm").value == 3.25);
    CHECK(read_probe_line("R -0.5 in").value == Approx(-12.7));
    CHECK(read_probe_line("Z").kind == K::zeroed);
    CHECK(read_probe_line("H depth probe").words == "depth probe");
    CHECK(read_probe_line("E battery is low").words == "battery is low");
    for (const char* bad : {"", "R", "R mm", "R 3.25", "R 3.25 m", "R 3,25 mm", "R nan mm", "R inf mm", "X 3 mm", "R 3.25 mm*",
                            "R 3.25 mm*zz", "R 3.25 mm*00"}) {
        INFO(bad);
        CHECK(read_probe_line(bad).kind == K::not_understood);
        CHECK_FALSE(read_probe_line(bad).words.empty());
    }
    // Exclusive-or of "R 1 mm", by hand: 52^20^31^20^6D^6D = 63.
    CHECK(read_probe_line("R 1 mm*63").value == 1);
}

TEST_CASE("bytes come in any pieces and a runaway line is dropped", "[devices]") {
    ProbeReader r;
    CHECK(r.take("R 1").empty());
    CHECK(r.take(".5 m").empty());
    auto m = r.take("m\r\nR 2 mm\n\nZ");
    REQUIRE(m.size() == 2);
    CHECK(m[0].value == 1.5);
    CHECK(m[1].value == 2);
    m = r.take("\n");
    REQUIRE(m.size() == 1);
    CHECK(m[0].kind == K::zeroed);
    m = r.take(std::string(5000, 'x') + "\nR 4 mm\n");
    REQUIRE(m.size() == 2);
    CHECK(m[0].kind == K::not_understood);
    CHECK(m[0].words.find("200 bytes") != std::string::npos);
    CHECK(m[1].value == 4);
    for (const double v : {0.0, -3.14, 125.5}) {
        ProbeReader own;
        const auto back = own.take(instrument_line(v, "mm"));
        REQUIRE(back.size() == 1);
        CHECK(back[0].value == Approx(v));
    }
}

TEST_CASE("a thermocouple that reads what no pour has is broken, and says so", "[devices]") {
    for (const char* line : {"R 2000 C", "R 260.5 C", "R -41 C", "R 4000 F"}) {
        const ProbeMessage m = read_probe_line(line);
        INFO(line);
        CHECK(m.kind == ProbeMessage::Kind::trouble);
        CHECK(m.words.find("look at its wire") != std::string::npos);
    }
    CHECK(read_probe_line("R 64.5 C").kind == ProbeMessage::Kind::temperature);
    CHECK(read_probe_line("R 212 F").value == Approx(100));
    CHECK(read_probe_line("R nan C").kind != ProbeMessage::Kind::temperature);
    CHECK(read_probe_line("R  C").kind != ProbeMessage::Kind::temperature);
}

TEST_CASE(
    "meter, air and scale speak the same lines – what no wood and no air has is said – a stand-in's day is whole, its bad one is survived",
    "[probe][hostile]") {
    const auto read = [](const std::string& line) { return read_probe_line(line); };
    CHECK(read("R 11.2 %MC").kind == ProbeMessage::Kind::moisture);
    CHECK(read("R 54 %RH").value == 54);
    CHECK(read("R 0.412 kg").value == Approx(412));
    CHECK(read("R 412 g").kind == ProbeMessage::Kind::mass);
    CHECK(read("R 140 %MC").kind == ProbeMessage::Kind::trouble);
    CHECK(read("R -1 %RH").kind == ProbeMessage::Kind::trouble);
    for (const char* far : {"R 1.51e308 in", "R 1e306 kg", "R -2e9 mm"}) CHECK(read(far).kind == ProbeMessage::Kind::trouble);
    CHECK(read("R 12 %").kind == ProbeMessage::Kind::not_understood);
    for (const char* what : {"gauge", "thermocouple", "meter", "air", "scale"}) {
        INFO(what);
        ProbeReader good, bad;
        std::size_t readings = 0, garbled = 0, kept = 0;
        for (const std::string& l : day_of(what, false))
            for (const ProbeMessage& m : good.take(l)) {
                CHECK((m.kind != ProbeMessage::Kind::not_understood && m.kind != ProbeMessage::Kind::trouble));
                readings += m.kind != ProbeMessage::Kind::hello;
            }
        CHECK(readings >= 96);
        for (const std::string& l : day_of(what, true))
            for (const ProbeMessage& m : bad.take(l)) {
                garbled += m.kind == ProbeMessage::Kind::not_understood;
                kept += m.kind != ProbeMessage::Kind::not_understood && m.kind != ProbeMessage::Kind::trouble;
            }
        CHECK(garbled > 5);
        CHECK(kept > 40);
    }
    CHECK_THROWS_AS(day_of("crystal ball", false), std::invalid_argument);
}
