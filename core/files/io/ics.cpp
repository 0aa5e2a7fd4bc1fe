#include "core/files/io/ics.h"

#include <cmath>
#include <memory>

#include <fmt/format.h>
#include <libical/ical.h>

namespace yb {

namespace {

struct Freed {
    void operator()(icalcomponent* c) const { icalcomponent_free(c); }
};
using Calendar = std::unique_ptr<icalcomponent, Freed>;

icaltimetype at(const std::string& start, double h, bool whole_day) {
    const std::string day = date_after(start, h);
    icaltimetype t = icaltime_null_time();
    const std::chrono::year_month_day date(read_date(day).value());
    t.year = static_cast<int>(date.year()), t.month = static_cast<int>(static_cast<unsigned>(date.month())),
    t.day = static_cast<int>(static_cast<unsigned>(date.day()));
    t.is_date = whole_day;
    if (whole_day) return t;
    const double minutes = std::round(held_hours(h) * 60);
    const int rest = static_cast<int>(minutes - std::floor(minutes / (24 * 60)) * 24 * 60);
    t.hour = rest / 60, t.minute = rest % 60;
    return t;
}

void event(icalcomponent* into, const std::string& uid, const icaltimetype& stamp, const std::string& summary, const std::string& more,
           const icaltimetype& from, const icaltimetype& to) {
    icalcomponent* e = icalcomponent_new_vevent();
    icalcomponent_add_property(e, icalproperty_new_uid(uid.c_str()));
    icalcomponent_add_property(e, icalproperty_new_dtstamp(stamp));
    icalcomponent_add_property(e, icalproperty_new_summary(summary.c_str()));
    if (!more.empty()) icalcomponent_add_property(e, icalproperty_new_description(more.c_str()));
    icalcomponent_add_property(e, icalproperty_new_dtstart(from));
    icalcomponent_add_property(e, icalproperty_new_dtend(to));
    icalcomponent_add_component(into, e);
}

}  // namespace

std::string to_ics(const Season& s, const IcsAsk& ask) {
    const Calendar cal(icalcomponent_new_vcalendar());
    icalcomponent_add_property(cal.get(), icalproperty_new_version("2.0"));
    icalcomponent_add_property(cal.get(), icalproperty_new_prodid("-//Young Burl//Days//EN"));
    const std::string day = ask.stamp.substr(0, 10);
    icaltimetype stamp = at(is_date(day) ? day : "2000-01-01", hours_to(day, ask.stamp.substr(0, 16)).value_or(0), false);
    stamp.zone = icaltimezone_get_utc_timezone();
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations) {
            const std::string uid = j.id + "/" + o.key;
            const std::string waits = o.waiting_h > 0 ? fmt::format("then it waits {:.0f} h", o.waiting_h) : "";
            if (o.hands_on_h > 0)
                event(cal.get(), uid + "@young-burl", stamp, j.name + ": " + o.label, waits, at(s.start, o.start_h, false),
                      at(s.start, o.hands_end_h, false));
            if (o.hands_on_h <= 0 || (ask.waits_as_days && o.waiting_h >= 12))
                event(cal.get(), uid + (o.hands_on_h > 0 ? "/wait" : "") + "@young-burl", stamp,
                      j.name + ": " + o.label + (o.hands_on_h > 0 ? " (waits)" : ""), {}, at(s.start, o.hands_end_h, true),
                      at(s.start, std::floor(o.end_h / 24) * 24 + 24, true));
        }
    const std::unique_ptr<char, void (*)(void*)> text(icalcomponent_as_ical_string_r(cal.get()), icalmemory_free_buffer);
    return text.get();
}

}  // namespace yb
