// Text through the door: what code page it is in, and what of it is kept.
#include <catch2/catch.hpp>

#include "core/ground/file/text.h"

using namespace yb;

namespace {
const std::string bueffel =
    "B\xC3\xBC"
    "ffel";

std::vector<UnknownCodePage::Reading> asked(const std::string& bytes) {
    try {
        text_of(bytes);
    } catch (const UnknownCodePage& e) {
        return e.readings();
    }
    FAIL("it was told");
    return {};
}
}  // namespace

TEST_CASE("a byte order mark says how text is written, else it is UTF-8", "[text]") {
    CHECK(text_of("\xEF\xBB\xBF" + bueffel) == bueffel);
    CHECK(text_of(bueffel) == bueffel);
    CHECK(text_of(std::string("\xFF\xFE"
                              "B\0\xFC\0f\0",
                              8)) ==
          "B\xC3\xBC"
          "f");
    CHECK(text_of(std::string("\xFE\xFF"
                              "\0B\0\xFC",
                              6)) == "B\xC3\xBC");
    CHECK(text_of(std::string("\xFF\xFE\0\0"
                              "B\0\0\0",
                              8)) == "B");
    CHECK(text_of("").empty());
}

TEST_CASE("where nothing says the code page it is asked for, each as it would read", "[text]") {
    const auto western = asked(
        "name,length\nB\xFC"
        "ffel,2400\n");
    REQUIRE(western.size() >= 2);
    CHECK(western[0].page.name == std::string("WINDOWS-1252"));
    CHECK(western[0].sample == bueffel + ",2400");
    CHECK(western[1].sample != western[0].sample);
    CHECK(text_of("B\xFC"
                  "ffel",
                  "WINDOWS-1252") == bueffel);
    // The same word from a Mac.
    bool found = false;
    for (const auto& r : asked("B\x9F"
                               "ffel"))
        found = found || (r.page.name == std::string("MACINTOSH") && r.sample == bueffel);
    CHECK(found);
    CHECK(text_of("B\x9F"
                  "ffel",
                  "MACINTOSH") == bueffel);
    CHECK_THROWS_AS(text_of("\x81", "WINDOWS-1252"), FormatError);  // no letter there
    CHECK_THROWS_AS(text_of("\xFC", "no such page"), FormatError);
}

TEST_CASE("lines end alike, control characters become blanks, what is no text is refused", "[text]") {
    CHECK(text_of("a\r\nb\rc\n") == "a\nb\nc\n");
    CHECK(text_of("a\tb\x01"
                  "c\x7F"
                  "d\xC2\x85"
                  "e") == "a\tb c d e");
    CHECK_THROWS_WITH(text_of(std::string("ab\0c", 4)), Catch::Contains("byte 3"));
    CHECK_THROWS_AS(text_of(std::string("\xFF\xFE"
                                        "a",
                                        3)),
                    FormatError);  // half a letter
    CHECK(plain_text("a\xFF"
                     "b\x02"
                     "c") ==
          "a\xEF\xBF\xBD"
          "b c");
}

TEST_CASE("valid UTF-8 is told from what looks like it", "[text]") {
    for (const char* good : {"", "a", "\xC3\xBC", "\xE2\x80\x93", "\xF0\x9F\xAA\xB5", "\xF4\x8F\xBF\xBF"}) CHECK(is_utf8(good));
    for (const char* bad : {"\x80", "\xC3", "\xC0\xAF", "\xE0\x80\x80", "\xED\xA0\x80", "\xF0\x80\x80\x80", "\xF4\x90\x80\x80",
                            "\xF8\x88\x80\x80\x80", "a\xFF"})
        CHECK_FALSE(is_utf8(bad));
}
