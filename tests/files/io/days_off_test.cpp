// Days off out of calendars of others: rules, exceptions, what is spoilt.
#include <fmt/format.h>
#include <catch2/catch.hpp>

#include "core/files/io/days_off.h"
#include "core/ground/file/format_error.h"

using namespace yb;

namespace {
DaysOffRead read(const std::vector<std::string>& events, int years = 3) {
    std::string text = "BEGIN:VCALENDAR\nVERSION:2.0\n";
    for (const std::string& e : events) text += "BEGIN:VEVENT\n" + e + "END:VEVENT\n";
    return read_days_off(text + "END:VCALENDAR\n", {"2026-11-30", years});
}
std::vector<std::string> days(const DaysOffRead& r) {
    std::vector<std::string> out;
    for (const DayOff& d : r.off) out.push_back(d.to.empty() ? d.from : d.from + "/" + d.to);
    return out;
}
using Days = std::vector<std::string>;
bool noted(const DaysOffRead& r, const std::string& words) {
    return std::any_of(r.notes.begin(), r.notes.end(), [&](const std::string& n) { return n.find(words) != std::string::npos; });
}
}  // namespace

TEST_CASE("days off are read from a calendar of holidays: years on end, weeks, and what is no day off", "[days][ics][hostile]") {
    const std::string text =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"
        "BEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:20201225\r\nRRULE:FREQ=YEARLY\r\nSUMMARY:Christmas\r\nEND:VEVENT\r\n"
        "BEGIN:VEVENT\r\nUID:2\r\nDTSTART;VALUE=DATE:20270726\r\nDTEND;VALUE=DATE:20270807\r\nSUMMARY:Summer\r\nEND:VEVENT\r\n"
        "BEGIN:VEVENT\r\nUID:3\r\nDTSTART:20270105T090000\r\nDTEND:20270105T100000\r\nSUMMARY:Dentist\r\nEND:VEVENT\r\n"
        "BEGIN:VEVENT\r\nUID:4\r\nDTSTART;VALUE=DATE:20270104\r\nRRULE:FREQ=WEEKLY;COUNT=3\r\nSUMMARY:Mondays\r\nEND:VEVENT\r\n"
        "END:VCALENDAR\r\n";
    const DaysOffRead r = read_days_off(text, {"2026-11-30", 3});
    std::vector<std::string> christmas;
    for (const DayOff& o : r.off)
        if (o.name == "Christmas") christmas.push_back(o.from);
    CHECK(christmas == std::vector<std::string>{"2026-12-25", "2027-12-25", "2028-12-25"});
    Workday w;
    w.off = r.off;
    CHECK(is_off(w, "2027-07-26"));
    CHECK(is_off(w, "2027-08-06"));
    CHECK_FALSE(is_off(w, "2027-08-07"));  // an event ends before its last day
    CHECK_FALSE(is_off(w, "2027-01-05"));
    CHECK(is_off(w, "2027-01-18"));
    CHECK_FALSE(is_off(w, "2027-01-25"));
    REQUIRE(r.notes.size() == 2);
    CHECK(r.notes[0].find("Christmas") != std::string::npos);
    CHECK(r.notes[1].find("hours") != std::string::npos);
    for (const char* bad : {"", "hello", "BEGIN:VEVENT", "\xff\xfe"}) CHECK_THROWS_AS(read_days_off(bad, {"2026-11-30"}), FormatError);
    CHECK(read_days_off("BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n", {"2026-11-30"}).off.empty());
    // Every day for ever ends somewhere.
    const DaysOffRead ever = read_days_off(
        "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260101\r\nRRULE:FREQ=DAILY\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n",
        {"2026-11-30", 20});
    CHECK(ever.off.size() <= 4000);
    CHECK_FALSE(ever.notes.empty());
}

TEST_CASE("an instance is taken out, put in, moved or called off", "[days][ics]") {
    const std::string mondays = "UID:m\nDTSTART;VALUE=DATE:20261207\nRRULE:FREQ=WEEKLY;COUNT=4\n";
    CHECK(days(read({mondays})) == Days{"2026-12-07", "2026-12-14", "2026-12-21", "2026-12-28"});
    CHECK(days(read({mondays + "EXDATE;VALUE=DATE:20261214,20261228\n"})) == Days{"2026-12-07", "2026-12-21"});
    CHECK(days(read({mondays + "RDATE;VALUE=DATE:20270104\n"})) ==
          Days{"2026-12-07", "2026-12-14", "2026-12-21", "2026-12-28", "2027-01-04"});
    CHECK(days(read({mondays, "UID:m\nRECURRENCE-ID;VALUE=DATE:20261214\nDTSTART;VALUE=DATE:20261215\n"})) ==
          Days{"2026-12-07", "2026-12-15", "2026-12-21", "2026-12-28"});
    CHECK(days(read({mondays, "UID:m\nRECURRENCE-ID;VALUE=DATE:20261214\nSTATUS:CANCELLED\nDTSTART;VALUE=DATE:20261214\n"})) ==
          Days{"2026-12-07", "2026-12-21", "2026-12-28"});
    CHECK(days(read({"DTSTART;VALUE=DATE:20261224\nSTATUS:CANCELLED\n", "DTSTART;VALUE=DATE:20261226\n"})) == Days{"2026-12-26"});
}

TEST_CASE("a rule that began long ago gives this year's days, a long event is not cut", "[days][ics]") {
    const auto daily = read({"DTSTART;VALUE=DATE:19700101\nRRULE:FREQ=DAILY\nSUMMARY:always\n"}, 1);
    REQUIRE_FALSE(daily.off.empty());
    CHECK(daily.off.front().from == "2026-11-30");
    CHECK(daily.off.back().from == "2027-11-30");
    CHECK(daily.off.size() == 366);
    // Against counting by hand: 25 December, the second Monday of each month, every fifth week.
    CHECK(days(read({"DTSTART;VALUE=DATE:19701225\nRRULE:FREQ=YEARLY\n"}, 2)) == Days{"2026-12-25", "2027-12-25"});
    CHECK(days(read({"DTSTART;VALUE=DATE:19700112\nRRULE:FREQ=MONTHLY;BYDAY=2MO;UNTIL=20270301\n"})) ==
          Days{"2026-12-14", "2027-01-11", "2027-02-08"});
    CHECK(days(read({"DTSTART;VALUE=DATE:20200106\nRRULE:FREQ=WEEKLY;INTERVAL=5;UNTIL=20270301\n"})) ==
          Days{"2026-11-30", "2027-01-04", "2027-02-08"});  // 2 520 days are 72 times five weeks
    CHECK(days(read({"DTSTART;VALUE=DATE:20250101\nDTEND;VALUE=DATE:20290101\n"})) == Days{"2025-01-01/2028-12-31"});
    CHECK(days(read({"DTSTART;VALUE=DATE:20261224\nDURATION:P3D\n"})) == Days{"2026-12-24/2026-12-26"});
    CHECK(days(read({"DTSTART;VALUE=DATE:20261128\nDTEND;VALUE=DATE:20261202\nRRULE:FREQ=YEARLY;COUNT=1\n"})) ==
          Days{"2026-11-28/2026-12-01"});
}

TEST_CASE("rules that never come, or come by the hour, cost one event and are named", "[days][ics][hostile]") {
    const auto r = read({"DTSTART;VALUE=DATE:20260101\nRRULE:FREQ=HOURLY;BYMONTH=2;BYMONTHDAY=30\nSUMMARY:never\n",
                         "DTSTART;VALUE=DATE:20260101\nRRULE:FREQ=SECONDLY\nSUMMARY:ticking\n",
                         "DTSTART;VALUE=DATE:20260101\nRRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30\n",
                         "DTSTART;VALUE=DATE:20260101\nRRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30\nSUMMARY:leap\n",
                         "DTSTART;VALUE=DATE:20261224\nSUMMARY:Eve\n"});
    CHECK(days(r) == Days{"2026-12-24"});
    for (const char* name : {"never", "ticking", "leap"}) CHECK(noted(r, name));
    CHECK(noted(r, "line 3"));
}

TEST_CASE("one bad date costs its event, not the file", "[days][ics][hostile]") {
    const auto r = read({"DTSTART;VALUE=DATE:20269999\nSUMMARY:Off the year\n", "SUMMARY:No day at all\n",
                         "DTSTART;VALUE=DATE:20261224\nDTEND;VALUE=DATE:yesterday\nSUMMARY:Odd end\n",
                         "DTSTART;VALUE=DATE:20261226\nSUMMARY:Boxing day\\, by the tarn\n"});
    REQUIRE(r.off.size() == 1);
    CHECK(r.off[0].name == "Boxing day, by the tarn");
    for (const char* name : {"Off the year", "No day at all", "Odd end"}) CHECK(noted(r, name));
}

TEST_CASE("depth, long lines and thousands of events cost nothing", "[days][ics][hostile]") {
    std::string deep;
    for (int i = 0; i < 30000; ++i) deep += "BEGIN:VCALENDAR\n";
    deep += "BEGIN:VEVENT\nDTSTART;VALUE=DATE:20261224\nBEGIN:VALARM\nDTSTART;VALUE=DATE:20270101\nEND:VALARM\nEND:VEVENT\n";
    for (int i = 0; i < 30000; ++i) deep += "END:VCALENDAR\n";
    CHECK(days(read_days_off(deep, {"2026-11-30"})) == Days{"2026-12-24"});
    CHECK(days(read({"DTSTART;VALUE=DATE:20261224\nDESCRIPTION:" + std::string(5'000'000, 'x') +
                     "\nSUMMARY:" + std::string(5'000'000, 'y') + "\n"})) == Days{"2026-12-24"});
    const auto many = read({"DTSTART;VALUE=DATE:20261224\nEXDATE;VALUE=DATE:" + std::string(100'000, '1') + "\nSUMMARY:long\n",
                            "DTSTART;VALUE=DATE:20261226\n"});
    CHECK(days(many) == Days{"2026-12-26"});
    CHECK(noted(many, "long"));
    std::vector<std::string> events;
    for (int i = 0; i < 5000; ++i) events.push_back(fmt::format("DTSTART;VALUE=DATE:20{}0101\n", 27 + i % 60));
    CHECK(read(events, 20).off.size() <= 4000);
    // Time runs out: the rest is left out and said; a stop is one.
    const std::string text = "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:20261224\nEND:VEVENT\nEND:VCALENDAR\n";
    const auto none = read_days_off(text, {"2026-11-30", 3, -1});
    CHECK(none.off.empty());
    CHECK(noted(none, "1 of 1 events were left out, from line 2 on"));
    std::stop_source stop;
    stop.request_stop();
    CHECK_THROWS_AS(read_days_off(text, {"2026-11-30"}, Work{{}, stop.get_token()}), Cancelled);
    CHECK(noted(read_days_off("BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:20261224\n", {"2026-11-30"}), "cut short"));
}
