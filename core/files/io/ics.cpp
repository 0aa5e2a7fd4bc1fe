#include "core/files/io/ics.h"

#include <algorithm>
#include <cmath>
#include <memory>

#include <fmt/format.h>
#include <libical/ical.h>

#include "core/ground/file/format_error.h"

namespace yb {

namespace {

struct Freed {
    void operator()(icalcomponent* c) const { icalcomponent_free(c); }
};
using Calendar = std::unique_ptr<icalcomponent, Freed>;

icaltimetype at(const std::string& start, double h, bool whole_day) {
    const std::string day = date_after(start, h);
    icaltimetype t = icaltime_null_time();
    t.year = std::stoi(day.substr(0, 4)), t.month = std::stoi(day.substr(5, 2)), t.day = std::stoi(day.substr(8, 2));
    t.is_date = whole_day;
    if (whole_day) return t;
    const double minutes = std::round(held_hours(h) * 60);
    const int rest = static_cast<int>(minutes - std::floor(minutes / (24 * 60)) * 24 * 60);
    t.hour = rest / 60, t.minute = rest % 60;
    return t;
}

std::string iso(const icaltimetype& t) { return fmt::format("{:04}-{:02}-{:02}", t.year, t.month, t.day); }

void event(icalcomponent* into, const std::string& uid, const icaltimetype& stamp, const std::string& summary, const std::string& more, const icaltimetype& from,
           const icaltimetype& to) {
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
                event(cal.get(), uid + "@young-burl", stamp, j.name + ": " + o.label, waits, at(s.start, o.start_h, false), at(s.start, o.hands_end_h, false));
            if (o.hands_on_h <= 0 || (ask.waits_as_days && o.waiting_h >= 12))
                event(cal.get(), uid + (o.hands_on_h > 0 ? "/wait" : "") + "@young-burl", stamp, j.name + ": " + o.label + (o.hands_on_h > 0 ? " (waits)" : ""), {},
                      at(s.start, o.hands_end_h, true), at(s.start, std::floor(o.end_h / 24) * 24 + 24, true));
        }
    const std::unique_ptr<char, void (*)(void*)> text(icalcomponent_as_ical_string_r(cal.get()), icalmemory_free_buffer);
    return text.get();
}

DaysOffRead read_days_off(const std::string& text, const std::string& from, int years) {
    DaysOffRead out;
    const Calendar cal(icalparser_parse_string(text.c_str()));
    if (!cal || (icalcomponent_isa(cal.get()) != ICAL_VCALENDAR_COMPONENT && icalcomponent_isa(cal.get()) != ICAL_XROOT_COMPONENT))
        throw FormatError("calendar", "this is no calendar: its first line should be BEGIN:VCALENDAR");
    const std::string last = date_after(from, std::clamp(years, 1, 20) * 8766.0);
    int with_hours = 0;
    constexpr std::size_t most = 4000;
    const std::function<void(icalcomponent*)> walk = [&](icalcomponent* c) {
        for (icalcomponent* e = icalcomponent_get_first_component(c, ICAL_ANY_COMPONENT); e; e = icalcomponent_get_next_component(c, ICAL_ANY_COMPONENT)) {
            if (icalcomponent_isa(e) == ICAL_VCALENDAR_COMPONENT) walk(e);
            if (icalcomponent_isa(e) != ICAL_VEVENT_COMPONENT) continue;
            const icaltimetype begins = icalcomponent_get_dtstart(e);
            if (icaltime_is_null_time(begins)) {
                out.notes.push_back("An event without a day was left out.");
                continue;
            }
            if (!begins.is_date) {
                ++with_hours;
                continue;
            }
            icaltimetype ends = icalcomponent_get_dtend(e);
            if (icaltime_is_null_time(ends) || icaltime_compare(ends, begins) <= 0) ends = begins, icaltime_adjust(&ends, 1, 0, 0, 0);
            const int days = std::clamp(static_cast<int>(days_between(iso(begins), iso(ends)).value_or(1)), 1, 366);
            const char* name = icalcomponent_get_summary(e);
            const auto add = [&](const icaltimetype& day) {
                const std::string first = iso(day);
                const std::string to = date_after(first, (days - 1) * 24.0);
                if (to >= from && first <= last && out.off.size() < most) out.off.push_back({first, days > 1 ? to : std::string(), name ? name : ""});
                return first <= last && out.off.size() < most;
            };
            icalproperty* rule = icalcomponent_get_first_property(e, ICAL_RRULE_PROPERTY);
            if (!rule) {
                add(begins);
                continue;
            }
            const icalrecurrencetype how = icalproperty_get_rrule(rule);
            icalrecur_iterator* it = icalrecur_iterator_new(how, begins);
            bool more = it != nullptr;
            int guard = 0;
            for (icaltimetype t = it ? icalrecur_iterator_next(it) : icaltime_null_time(); !icaltime_is_null_time(t) && more && ++guard < 20000;
                 t = icalrecur_iterator_next(it))
                more = add(t);
            if (it) icalrecur_iterator_free(it);
            if (!more && how.count == 0 && icaltime_is_null_time(how.until))
                out.notes.push_back(fmt::format("‘{}’ comes back for ever: it is taken until {}.", name ? name : "a day off", last));
        }
    };
    walk(cal.get());
    if (with_hours > 0) out.notes.push_back(fmt::format("{} with hours are no days off and were left out.", with_hours == 1 ? "1 event" : std::to_string(with_hours) + " events"));
    if (out.off.size() >= most) out.notes.push_back(fmt::format("Only the first {} days off were taken.", most));
    std::stable_sort(out.off.begin(), out.off.end(), [](const DayOff& a, const DayOff& b) { return a.from < b.from; });
    return out;
}

}  // namespace yb
