// A batch on the scale, by hand.
#include <catch2/catch.hpp>

#include "core/steps/pour/weigh.h"

using namespace yb;

TEST_CASE("a batch is weighed: B follows what was poured of A, too much of B says so", "[pour][weigh]") {
    Batch b;
    b.a_g = 500, b.b_g = 250;
    Weighed w = weighed(b, 412, {});
    CHECK_FALSE(w.second);
    CHECK(w.to_go_g == Approx(88));
    CHECK(w.second_g == Approx(250));
    w = weighed(b, 520, {});  // too much of A
    CHECK(w.to_go_g == Approx(-20));
    CHECK(w.second_g == Approx(260));
    w = weighed(b, 700, 520.0);
    CHECK(w.second);
    CHECK(w.stop_at_g == Approx(780));
    CHECK(w.to_go_g == Approx(80));
    CHECK_FALSE(w.off);
    CHECK_FALSE(weighed(b, 784, 520.0).off);  // within 2 % of B
    CHECK(weighed(b, 790, 520.0).off);
    CHECK_THROWS_AS(weighed({}, 10, {}), std::invalid_argument);
    CHECK_THROWS_AS(weighed(b, 10, 0.0), std::invalid_argument);
}
