// Calendars out and in, read by a reader of this test's own.
#include <catch2/catch.hpp>

#include <sstream>

#include "core/files/io/ics.h"
#include "core/ground/file/format_error.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"

using namespace yb;

namespace {

/// Lines of a calendar, unfolded; each physical one ends in CRLF and has 75 octets at most.
std::vector<std::string> lines_of(const std::string& text) {
    std::vector<std::string> out;
    std::size_t at = 0;
    while (at < text.size()) {
        const std::size_t end = text.find('\n', at);
        REQUIRE(end != std::string::npos);
        REQUIRE(end > at);
        REQUIRE(text[end - 1] == '\r');
        const std::string line = text.substr(at, end - 1 - at);
        CHECK(line.size() <= 75);
        if (!line.empty() && (line[0] == ' ' || line[0] == '\t')) {
            REQUIRE_FALSE(out.empty());
            out.back() += line.substr(1);
        } else {
            out.push_back(line);
        }
        at = end + 1;
    }
    return out;
}

std::string compact(const std::string& wall) {  // 2026-11-30T08:00 → 20261130T080000
    std::string out;
    for (const char c : wall)
        if (c != '-' && c != ':') out += c;
    return out + "00";
}

}  // namespace

TEST_CASE("a season's calendar: an event an operation, at its hours on the clock of the wall", "[days][ics]") {
    const Documents d = demo_shop();
    const Season s = season_of(d, {"2026-11-30", Rule::ranks, {}});
    const auto lines = lines_of(to_ics(s, {"2026-11-29T18:30:00Z", false}));
    CHECK(lines.front() == "BEGIN:VCALENDAR");
    CHECK(lines.back() == "END:VCALENDAR");
    std::map<std::string, std::map<std::string, std::string>> events;
    std::map<std::string, std::string> now;
    for (const std::string& l : lines) {
        const std::size_t colon = l.find(':');
        REQUIRE(colon != std::string::npos);
        const std::string name = l.substr(0, colon), value = l.substr(colon + 1);
        if (l == "BEGIN:VEVENT") now.clear();
        else if (l == "END:VEVENT") {
            CHECK(events.count(now["UID"]) == 0);
            events[now["UID"]] = now;
        } else {
            now[name] = value;
        }
    }
    std::size_t operations = 0;
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations) {
            ++operations;
            INFO(j.id << " " << o.key);
            const auto it = events.find(j.id + "/" + o.key + "@young-burl");
            REQUIRE(it != events.end());
            CHECK(it->second.at("DTSTAMP") == "20261129T183000Z");
            CHECK(it->second.at("SUMMARY").find(o.label.substr(0, 4)) != std::string::npos);
            if (o.hands_on_h > 0) {
                CHECK(it->second.at("DTSTART") == compact(wall_clock(s.start, o.start_h)));
                CHECK(it->second.at("DTEND") == compact(wall_clock(s.start, o.hands_end_h)));
            } else {
                CHECK(it->second.count("DTSTART;VALUE=DATE") == 1);
            }
        }
    CHECK(events.size() == operations);
    // By choice what waits over a night is a mark of its own.
    std::size_t waits = 0;
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations) waits += o.waiting_h >= 12 && o.hands_on_h > 0;
    std::size_t marks = 0;
    for (const std::string& l : lines_of(to_ics(s, {"2026-11-29T18:30:00Z", true}))) marks += l.rfind("DTSTART;VALUE=DATE", 0) == 0;
    std::size_t bare = 0;
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations) bare += o.hands_on_h <= 0;
    CHECK(marks == waits + bare);
}

TEST_CASE("days off are read from a calendar of holidays: years on end, weeks, and what is no day off", "[days][ics][hostile]") {
    const std::string text =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"
        "BEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:20201225\r\nRRULE:FREQ=YEARLY\r\nSUMMARY:Christmas\r\nEND:VEVENT\r\n"
        "BEGIN:VEVENT\r\nUID:2\r\nDTSTART;VALUE=DATE:20270726\r\nDTEND;VALUE=DATE:20270807\r\nSUMMARY:Summer\r\nEND:VEVENT\r\n"
        "BEGIN:VEVENT\r\nUID:3\r\nDTSTART:20270105T090000\r\nDTEND:20270105T100000\r\nSUMMARY:Dentist\r\nEND:VEVENT\r\n"
        "BEGIN:VEVENT\r\nUID:4\r\nDTSTART;VALUE=DATE:20270104\r\nRRULE:FREQ=WEEKLY;COUNT=3\r\nSUMMARY:Mondays\r\nEND:VEVENT\r\n"
        "END:VCALENDAR\r\n";
    const DaysOffRead r = read_days_off(text, "2026-11-30", 3);
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
    for (const char* bad : {"", "hello", "BEGIN:VEVENT", "\xff\xfe"}) CHECK_THROWS_AS(read_days_off(bad, "2026-11-30"), FormatError);
    CHECK(read_days_off("BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n", "2026-11-30").off.empty());
    // Every day for ever ends somewhere.
    const DaysOffRead ever = read_days_off(
        "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260101\r\nRRULE:FREQ=DAILY\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n", "2026-11-30", 20);
    CHECK(ever.off.size() <= 4000);
    CHECK_FALSE(ever.notes.empty());
}
