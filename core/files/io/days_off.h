// Days off out of calendars of others, in the open iCalendar format (RFC 5545).
#pragma once

#include <string>
#include <vector>

#include "core/ground/calendar/calendar.h"
#include "core/ground/work/work.h"

namespace yb {

struct DaysOffRead {
    std::vector<DayOff> off;         ///< in order
    std::vector<std::string> notes;  ///< what was left out, and why, a sentence each
};

struct DaysOffAsk {
    std::string from;          ///< ISO date: days off that end before it are left out
    int years = 3;             ///< 1 to 20: what comes back for ever is taken for so many
    double most_seconds = 10;  ///< events that come after so long are left out, and said to be
};

/// Whole days on which nobody works: events without hours, once or by a rule of days, weeks, months or years (RRULE, RDATE, EXDATE, an
/// instance that was moved or called off); cancelled ones are none. The calendar is taken apart line by line here, so that neither nesting
/// nor a long line costs anything; a date or rule is libical's to read, event by event: one that can't be read costs that event, and is
/// named.
/// @param text UTF-8. @throws FormatError where it is no calendar; Cancelled.
DaysOffRead read_days_off(const std::string& text, const DaysOffAsk& ask, const Work& work = {});

}  // namespace yb
