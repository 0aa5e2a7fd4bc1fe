// Calendars in the open iCalendar format (RFC 5545), written and read through libical: a season's operations out, days off in.
#pragma once

#include <string>
#include <vector>

#include "core/shop/days/season.h"

namespace yb {

struct IcsAsk {
    std::string stamp;           ///< when it was written, UTC, "2026-11-30T07:00:00Z"
    bool waits_as_days = false;  ///< what waits over a night is a whole-day mark of its own
};
/// One event an operation: hands from start to end on the clock of the wall (floating, no zone), its wait told in words. Lines end in CRLF and are folded
/// at 75 octets. What has no hands on it is a whole-day mark.
std::string to_ics(const Season& season, const IcsAsk& ask);

struct DaysOffRead {
    std::vector<DayOff> off;           ///< in order
    std::vector<std::string> notes;    ///< what was cut short or left out, a sentence each
};
/// Whole days on which nobody works, from a calendar of holidays. What comes back for ever is taken for so many years.
/// @param from ISO date: earlier days are left out. @param years 1 to 20.
/// @throws FormatError where it is no calendar, with its line where libical names one.
DaysOffRead read_days_off(const std::string& text, const std::string& from, int years = 3);

}  // namespace yb
