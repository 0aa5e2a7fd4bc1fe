// Parts by kind and number, and what only looks like one.
#include <catch2/catch.hpp>

#include "core/ground/figure/part.h"

using namespace yb;

TEST_CASE("a part's name is its kind and its number, and is read back as that alone", "[figure][part]") {
    for (const std::size_t i : {std::size_t{0}, std::size_t{8}, std::size_t{118}})
        for (const char* kind : {"plate", "bow tie", "back slab slab"}) {
            const Part part{kind, i};
            const std::string key = key_of(part);
            REQUIRE(read_part(key));
            CHECK(*read_part(key) == part);
            CHECK(index_of(key, kind) == i);
            CHECK_FALSE(index_of(key, "pla"));
        }
    CHECK(key_of({"plate", 0}) == "plate 1");
    for (const char* none :
         {"", " ", "plate", "plate ", " 1", "plate 0", "plate -1", "plate 1a", "plate 1.5", "plate +1", "plate 99999999999999999999999"}) {
        INFO("‘" << none << "’");
        CHECK_FALSE(read_part(none));
    }
}
