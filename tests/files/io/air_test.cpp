// A room's air from a logger: months by their mean, every bad line told by its number.
#include <catch2/catch.hpp>

#include "core/files/io/csv.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/job.h"

using namespace yb;

namespace {
std::string refused(const std::string& text) {
    try {
        read_air(text);
    } catch (const FormatError& e) {
        return e.what();
    }
    return "";
}
}  // namespace

TEST_CASE("a logger's readings become the months of a room", "[io][air]") {
    const AirLog log = read_air(
        "# hall, north wall\n"
        "rh_pct,at,battery,temp_c\r\n"
        "40,2026-01-03T08:00,ok,18\r\n"
        "50,2026-01-20 20:00,ok,20\n"
        "61.5,2026-07-01,low,23.5\n");
    CHECK(log.readings == 3);
    REQUIRE(log.months[0]);
    CHECK(log.months[0]->temp_c == Approx(19));
    CHECK(log.months[0]->rh_pct == Approx(45));
    CHECK(log.months[6]->rh_pct == Approx(61.5));
    for (const std::size_t m : {1, 2, 3, 4, 5, 7, 8, 9, 10, 11}) CHECK_FALSE(log.months[m]);
    CHECK(read_air("at,temp_f,rh_pct\n2026-02-01,68,50\n").months[1]->temp_c == Approx(20));
    Job j;
    const Climate before = j.room;
    set_room_air(j, log, "hall");
    CHECK(j.room.name == "hall");
    CHECK(j.room.months[0].temp_c == Approx(19));
    CHECK(j.room.months[3] == before.months[3]);
}

TEST_CASE("dates that are none and cells in quotes", "[io][air][hostile]") {
    for (const char* date : {"2026-13-01", "2026-02-30", "2026- 1- 1", "+026-01-01", "2026-01-01x", "26-01-01", ""})
        CHECK(refused(std::string("at,temp_c,rh_pct\n") + date + ",20,50\n").find("line 2") != std::string::npos);
    CHECK(read_air("at;temp_c;rh_pct\n\"2026-01-05 07:00\";17,5;31\n").months[0]->temp_c == 17.5);
    CHECK(refused("at,temp_c,rh_pct\n2026-01-05,17,5,31\n").find("beyond the heading") != std::string::npos);
}

TEST_CASE("a logger's file that can't be right is refused with its line", "[io][air]") {
    CHECK(refused("").find("no reading") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n").find("no reading") != std::string::npos);
    CHECK(refused("time,temp\n1,2\n").find("header needs") != std::string::npos);
    CHECK(refused("at,temp_c,temp_f,rh_pct\n").find("each once") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n3.1.2026,20,50\n").find("line 2") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n2026-02-30,20,50\n").find("2026-02-30") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n2026-02-03,\"20,5\",50\n").find("line 2") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n2026-02-03,200,50\n").find("200.0") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n2026-02-03,20,150\n").find("150.0") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n2026-02-03,20\n").find("cut short") != std::string::npos);
    CHECK(refused("at,temp_c,rh_pct\n2026-02-03,nan,40\n").find("not a number") != std::string::npos);
}
