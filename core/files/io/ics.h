// A season's operations as a calendar in the open iCalendar format (RFC 5545), written through libical.
#pragma once

#include <string>

#include "core/shop/days/season.h"

namespace yb {

struct IcsAsk {
    std::string stamp;           ///< when it was written, UTC, "2026-11-30T07:00:00Z"
    bool waits_as_days = false;  ///< what waits over a night is a whole-day mark of its own
};
/// One event an operation: hands from start to end on the clock of the wall (floating, no zone), its wait told in words. Lines end in CRLF
/// and are folded at 75 octets. What has no hands on it is a whole-day mark.
std::string to_ics(const Season& season, const IcsAsk& ask);

}  // namespace yb
