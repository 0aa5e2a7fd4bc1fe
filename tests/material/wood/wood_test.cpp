#include <cmath>

#include <catch2/catch.hpp>

#include "core/material/wood/meter.h"
#include "core/material/wood/wood.h"

using namespace yb;

TEST_CASE("equilibrium moisture meets the published values", "[wood]") {
    CHECK(equilibrium_moisture(21.1, 50) == Approx(9.24).margin(0.005));
    CHECK(equilibrium_moisture(10, 80) == Approx(16.38).margin(0.005));
    CHECK(equilibrium_moisture(20, 0) == Approx(0).margin(1e-12));
    CHECK_THROWS_AS(equilibrium_moisture(20, 101), std::invalid_argument);
}

TEST_CASE("movement meets the published values", "[wood]") {
    const Species* cherry = find_species("cherry, black");
    REQUIRE(cherry);
    CHECK(movement(1000, *cherry->shrink_tangential_pct, 7, 11) == Approx(10.01).margin(0.005));
    CHECK(movement(1000, *cherry->shrink_radial_pct, 7, 11) == Approx(5.08).margin(0.005));
    CHECK(movement(1000, 7.1, 11, 7) < 0);
    CHECK_THROWS_AS(movement(1000, 7.1, 11, 40), std::invalid_argument);
}

TEST_CASE("the species table is whole and leaves gaps as gaps", "[wood]") {
    CHECK(all_species().size() == 48);
    REQUIRE(find_species("honeylocust"));
    CHECK_FALSE(find_species("honeylocust")->specific_gravity_12);
    CHECK(find_species("sycamore, American")->botanical == "Platanus occidentalis");
    CHECK_FALSE(find_species("plastic"));
}

TEST_CASE("shrinkage across agrees with adding up thin strips", "[wood]") {
    const Species& s = *find_species("beech, American");
    const double h = 90;
    const double y0 = -320;
    const double y1 = 510;
    double sum = 0;
    const int n = 200000;
    for (int i = 0; i < n; ++i) {
        const double y = y0 + (y1 - y0) * (i + 0.5) / n;
        const double c2 = h * h / (h * h + y * y);
        sum += (*s.shrink_tangential_pct * c2 + *s.shrink_radial_pct * (1 - c2)) / n;
    }
    CHECK(shrinkage_across(s, h, y0, y1) == Approx(sum).epsilon(1e-8));
    CHECK(shrinkage_across(s, {}, y0, y1) == *s.shrink_tangential_pct);
    CHECK(shrinkage_across(s, h, 10, 10) == Approx(shrinkage_across(s, h, 9.999, 10.001)).epsilon(1e-6));
}

TEST_CASE("a climate's driest and dampest month", "[wood]") {
    for (const Climate& c : generic_climates()) {
        const MoistureRange r = moisture_range(c);
        CHECK(r.low_pct < r.high_pct);
        CHECK(r.low_pct > 3);
        CHECK(r.high_pct < 22);
    }
    CHECK(density(0.5, 8) == Approx(540));
}

TEST_CASE("a pin meter's reading is brought to the wood's temperature and species", "[wood][meter]") {
    CHECK(meter_moisture(12, 20) == Approx(12.25).margin(0.005));
    CHECK(meter_moisture(12, 0) == Approx(14.26).margin(0.005));
    // The colder the wood, the more there is than the meter shows; straight in the reading.
    for (double c = -10; c < 40; c += 5) CHECK(meter_moisture(12, c) > meter_moisture(12, c + 5));
    CHECK(meter_moisture(14, 20) - meter_moisture(12, 20) == Approx(meter_moisture(12, 20) - meter_moisture(10, 20)));
    CHECK(meter_moisture(12, 20, 1.1, -0.5) == Approx((meter_moisture(12, 20) + 0.5) / 1.1));
    CHECK_THROWS_AS(meter_moisture(12, 20, 0, 0), std::invalid_argument);
    CHECK_THROWS_AS(meter_moisture(std::nan(""), 20), std::invalid_argument);
}

TEST_CASE("a meter's booklet is typed, read again as it was, and what is none is said with its place", "[wood][meter][hostile]") {
    const auto read = read_booklet("hackberry 1.05 -0.3;  sycamore, American 0.98 ;");
    REQUIRE(std::holds_alternative<std::vector<MeterWood>>(read));
    const auto& woods = std::get<0>(read);
    REQUIRE(woods.size() == 2);
    CHECK(meter_wood(woods, "hackberry") == MeterWood{"hackberry", 1.05, -0.3});
    CHECK(meter_wood(woods, "sycamore, American") == MeterWood{"sycamore, American", 0.98, 0});
    CHECK(meter_wood(woods, "butternut") == MeterWood{"butternut", 1, 0});
    CHECK(std::get<0>(read_booklet(booklet_text(woods))) == woods);
    CHECK(std::get<0>(read_booklet("")).empty());
    CHECK(std::get<0>(read_booklet("hackberry 1.1 \u22120.5"))[0].offset == -0.5);
    for (const auto& [text, at, word] : {std::tuple{"hackberry", 0U, "no slope"},
                                         {"hackberry 1; stone 2 1", 12U, "stone"},
                                         {"hackberry 1; hackberry 2", 12U, "twice"},
                                         {"hackberry 0", 0U, "slope of 0"},
                                         {"hackberry nan", 0U, "nan"},
                                         {"1 2", 0U, "no wood"},
                                         {"hackberry 1 400", 0U, "offset"},
                                         {"hackberry 1 2 3", 0U, "hackberry 1"}}) {
        INFO(text);
        const auto wrong = read_booklet(text);
        REQUIRE(std::holds_alternative<ParseError>(wrong));
        CHECK(std::get<1>(wrong).at == at);
        CHECK(std::get<1>(wrong).sentence().find(word) != std::string::npos);
    }
}
