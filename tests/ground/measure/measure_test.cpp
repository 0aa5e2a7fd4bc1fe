#include <random>

#include <catch2/catch.hpp>

#include "core/ground/measure/measure.h"

using namespace yb;

namespace {
double read(const char* text, Kind kind = Kind::length, Units u = Units::metric()) {
    const auto r = parse(text, kind, u);
    INFO(text);
    if (const auto* e = std::get_if<ParseError>(&r)) FAIL(e->sentence());
    return std::get<double>(r);
}
ParseError fails(const char* text, Kind kind = Kind::length, Units u = Units::metric()) {
    const auto r = parse(text, kind, u);
    INFO(text);
    REQUIRE(std::holds_alternative<ParseError>(r));
    return std::get<ParseError>(r);
}
}  // namespace

TEST_CASE("lengths are read in any unit", "[measure]") {
    CHECK(read("7' 6 1/2\"") == Approx(2298.7));
    CHECK(read("90.5in") == Approx(2298.7));
    CHECK(read("2.3 m") == Approx(2300));
    CHECK(read("5/8", Kind::length, Units::imperial()) == 15.875);
    CHECK(read("2 1/16\"") == Approx(52.3875));
    CHECK(read("2-1/16 in") == Approx(52.3875));
    CHECK(read("2½\"") == 63.5);
    CHECK(read("2200") == 2200);
    CHECK(read("2200", Kind::length, Units::imperial()) == Approx(2200 * 25.4));
    CHECK(read("7'6", Kind::length, Units::imperial()) == Approx(2286));
    CHECK(read("2 m 30 cm") == Approx(2300));
    CHECK(read("-12,5") == -12.5);
    CHECK(read("5′ 3″") == Approx(1600.2));
}

TEST_CASE("other measures are read too", "[measure]") {
    CHECK(read("12 L", Kind::volume) == 12);
    CHECK(read("3 gal", Kind::volume) == Approx(11.356235352));
    CHECK(read("300 ml", Kind::volume) == Approx(0.3));
    CHECK(read("3 lb 4 oz", Kind::mass) == Approx(3.25 * 0.45359237));
    CHECK(read("68 F", Kind::temperature) == Approx(20));
    CHECK(read("68", Kind::temperature, Units::imperial()) == Approx(20));
    CHECK(read("36 h", Kind::hours) == 36);
    CHECK(read("1 d 6 h", Kind::hours) == 30);
    CHECK(read("8.5 %", Kind::percent) == 8.5);
}

TEST_CASE("a wrong text gives its place and a hint", "[measure]") {
    CHECK(fails("2x4").at == 1);
    CHECK(fails("12 bananas").at == 3);
    CHECK(fails("").what == "nothing is written here");
    CHECK(fails("1/0").what.find("over 0") != std::string::npos);
    CHECK(fails("3/").at == 1);
    CHECK(fails("1,200").what.find("thousands") != std::string::npos);
    CHECK(fails("abc").at == 0);
    CHECK(fails("12 5").at == 3);
    CHECK(fails("12 kg").sentence().find("Try") != std::string::npos);
    CHECK(fails(std::string(500, '1').c_str()).at == 200);
}

TEST_CASE("fractions print as a maker reads them", "[measure]") {
    const Units in = Units::imperial();
    CHECK(format(mm(15.875), in) == "5/8″");
    CHECK(format(mm(52.3875), in) == "2 1/16″");
    CHECK(format(fine(25.4 / 32), in) == "1/32″");
    CHECK(format(along(2298.7), in) == "7′ 6 1/2″");
    CHECK(format(along(1620), Units::metric()) == "1.62 m");
    CHECK(format(mm(-0.2), Units::metric()) == "0 mm");
    CHECK(format(litres(0.309), Units::metric()) == "309 mL");
    CHECK(format(celsius(20), in) == "68 °F");
    CHECK(format(hours(0.5), in) == "30 min");
    CHECK(render(say("short by {} at {}", mm(14), along(1620)), Units::metric()) == "short by 14 mm at 1.62 m");
}

TEST_CASE("what is printed reads back exactly", "[measure]") {
    for (int n = -400; n <= 4000; ++n) {
        const double v = n * 25.4 / 16;
        for (const LengthStyle style : {LengthStyle::inches_16, LengthStyle::inches_32, LengthStyle::feet_inches}) {
            Units u = Units::imperial();
            u.length = style;
            const std::string text = format(mm(v), u);
            INFO(text);
            REQUIRE(read(text.c_str(), Kind::length, u) == Approx(v).margin(1e-9));
            REQUIRE(format(mm(read(text.c_str(), Kind::length, u)), u) == text);
        }
        REQUIRE(read(format(mm(n), Units::metric()).c_str()) == n);
    }
}

TEST_CASE("an edit text never loses the value", "[measure]") {
    std::mt19937 random(5);
    for (int i = 0; i < 3000; ++i) {
        const double v = static_cast<double>(random() % 5000000) / 1000 - 1000;
        for (const LengthStyle style :
             {LengthStyle::millimetres, LengthStyle::inches_16, LengthStyle::inches_decimal, LengthStyle::feet_inches}) {
            Units u;
            u.length = style;
            const std::string text = edit_text(mm(v), u);
            INFO(text);
            REQUIRE(read(text.c_str(), Kind::length, u) == Approx(v).epsilon(1e-8).margin(1e-8));
        }
        for (const Kind k : {Kind::volume, Kind::mass, Kind::temperature})
            for (const Units& u : {Units::metric(), Units::imperial()}) {
                const std::string text = edit_text({v, k}, u);
                INFO(text);
                REQUIRE(read(text.c_str(), k, u) == Approx(v).epsilon(1e-8).margin(1e-8));
            }
    }
}

TEST_CASE("no text makes the reader fall over", "[measure]") {
    std::mt19937 random(17);
    const std::string letters = "0123456789 /.,'\"-+mincftlkgLoz°½x\xC2\xB0";
    for (int i = 0; i < 20000; ++i) {
        std::string s;
        for (auto n = random() % 12; n > 0; --n) s += letters[random() % letters.size()];
        const auto r = parse(s, static_cast<Kind>(random() % 12), random() % 2 ? Units::metric() : Units::imperial());
        if (const auto* e = std::get_if<ParseError>(&r)) REQUIRE(e->at <= s.size());
    }
}

TEST_CASE("a temperature below nought keeps its sign through its unit", "[measure]") {
    const auto celsius_of = [](const char* text) { return std::get<double>(parse(text, Kind::temperature, Units::metric())); };
    CHECK(celsius_of("-40 F") == Approx(-40));
    CHECK(celsius_of("−4 F") == Approx(-20));
    CHECK(celsius_of("-5") == -5);
    CHECK(std::get<double>(parse("-7' 2\"", Kind::length, Units::imperial())) == Approx(-86 * 25.4));
}

TEST_CASE("phrases that follow one another are parted as they want it", "[measure][words]") {
    const auto with = [](Phrase first, Phrase next) {
        first.then.push_back(std::move(next));
        return render(first, Units::metric());
    };
    CHECK(with(say("2 to 1 by volume"), say("no pigment")) == "2 to 1 by volume · no pigment");
    CHECK(with(say("Lower it."), say("For the hall it is higher.")) == "Lower it. For the hall it is higher.");
    CHECK(with(say("ripped straight"), say("; hollow by {} in the middle", fine(0.4))) ==
          "ripped straight; hollow by 0.4 mm in the middle");
    CHECK(with(say("24 mm"), say("+ {}", fine(3))) == "24 mm + 3.0 mm");
}
