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
