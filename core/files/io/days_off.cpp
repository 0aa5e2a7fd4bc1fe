#include "core/files/io/days_off.h"

#include <algorithm>
#include <chrono>
#include <map>
#include <memory>
#include <set>
#include <string_view>

#include <fmt/format.h>
#include <libical/ical.h>

#include "core/ground/file/format_error.h"
#include "core/ground/file/text.h"

namespace yb {

namespace {

constexpr std::size_t most_days_off = 4000;
constexpr std::size_t most_events = 100000;
constexpr std::size_t longest_line = 65536;  ///< of a date or rule, unfolded
constexpr std::size_t longest_name = 200;    ///< octets of a summary that are kept
constexpr int most_instances = 100000;       ///< of one rule that are looked at

struct IcalFreed {
    void operator()(icalcomponent* c) const { icalcomponent_free(c); }
    void operator()(icalrecur_iterator* i) const { icalrecur_iterator_free(i); }
};

/// An event as its lines: those that say when it is, for libical to read.
struct EventText {
    std::size_t line = 0;          ///< where it begins, from 1
    std::string name, uid, moved;  ///< moved: the instance it stands for, as the file has it
    std::string dates;
    bool cancelled = false, too_long = false;
};

bool same_word(std::string_view a, std::string_view b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](unsigned char x, unsigned char y) { return std::toupper(x) == std::toupper(y); });
}

/// A line's name, and its value behind the first colon outside of quotes.
std::pair<std::string_view, std::string_view> parted(std::string_view line) {
    bool quoted = false;
    for (std::size_t i = 0; i < line.size(); ++i) {
        if (line[i] == '"') quoted = !quoted;
        if (line[i] == ':' && !quoted) return {line.substr(0, std::min(i, line.find(';'))), line.substr(i + 1)};
    }
    return {line, {}};
}

std::string unescaped(std::string_view s) {
    std::string out;
    for (std::size_t i = 0; i < s.size() && out.size() < longest_name; ++i) {
        if (s[i] == '\\' && i + 1 < s.size()) out += s[++i] == 'n' || s[i] == 'N' ? ' ' : s[i];
        else out += s[i];
    }
    while (!out.empty() && !is_utf8(out)) out.pop_back();  // a letter that was cut through
    return out;
}

/// The events of a calendar, whatever is nested in them left out.
class Events {
  public:
    Events(const std::string& text, const Work& work) : rest_(text), work_(work) {}

    std::vector<EventText> read(std::vector<std::string>& notes) {
        std::string line;
        while (next(line)) {
            const auto [name, value] = parted(line);
            if (same_word(name, "BEGIN")) begin(value);
            else if (same_word(name, "END")) end(value);
            else if (in_event_ && depth_ == event_depth_) take(name, value, line);
        }
        if (!calendar_) throw FormatError("calendar", "this is no calendar: its first line should be BEGIN:VCALENDAR");
        if (depth_ > 0) notes.push_back("The calendar is cut short; what stands after its last whole event is not known.");
        return std::move(all_);
    }

  private:
    /// The next line with those folded to it (RFC 5545, 3.1).
    bool next(std::string& line) {
        line.clear();
        if (rest_.empty()) return false;
        begun_ = number_ + 1;
        do {
            const auto end = rest_.find('\n');
            std::string_view part = rest_.substr(0, end);
            rest_.remove_prefix(end == std::string_view::npos ? rest_.size() : end + 1);
            if (++number_ % 4096 == 0) work_.check();
            if (!part.empty() && part.back() == '\r') part.remove_suffix(1);
            if (number_ != begun_) part.remove_prefix(1);
            if (line.size() <= longest_line) line += part;
        } while (!rest_.empty() && (rest_.front() == ' ' || rest_.front() == '\t'));
        return true;
    }

    void begin(std::string_view what) {
        ++depth_;
        if (same_word(what, "VCALENDAR")) calendar_ = true;
        if (!same_word(what, "VEVENT") || in_event_ || !calendar_) return;
        if (all_.size() >= most_events)
            throw FormatError("calendar", fmt::format("more than {} events are not read: bring a calendar of holidays alone", most_events));
        in_event_ = true, event_depth_ = depth_;
        all_.emplace_back().line = begun_;
    }

    void end(std::string_view) {
        if (in_event_ && depth_ == event_depth_) in_event_ = false;
        depth_ = std::max(0, depth_ - 1);
    }

    void take(std::string_view name, std::string_view value, const std::string& line) {
        EventText& e = all_.back();
        if (same_word(name, "SUMMARY")) e.name = unescaped(value);
        else if (same_word(name, "UID")) e.uid = std::string(value.substr(0, longest_name));
        else if (same_word(name, "STATUS")) e.cancelled = same_word(value.substr(0, value.find_last_not_of(' ') + 1), "CANCELLED");
        else if (same_word(name, "RECURRENCE-ID")) e.moved = std::string(value.substr(0, 8));
        static constexpr std::string_view dates[] = {"DTSTART", "DTEND", "DURATION", "RRULE", "RDATE", "EXDATE"};
        if (std::none_of(std::begin(dates), std::end(dates), [n = name](std::string_view d) { return same_word(n, d); })) return;
        if (e.dates.size() + line.size() > longest_line) e.too_long = true;
        else e.dates += line + "\r\n";
    }

    std::string_view rest_;
    const Work& work_;
    std::vector<EventText> all_;
    std::size_t number_ = 0, begun_ = 0;
    int depth_ = 0, event_depth_ = 0;
    bool in_event_ = false, calendar_ = false;
};

std::string iso_day(const icaltimetype& t) { return fmt::format("{:04}-{:02}-{:02}", t.year, t.month, t.day); }
icaltimetype day_of(const std::string& date) {
    return icaltime_from_string(fmt::format("{}{}{}", date.substr(0, 4), date.substr(5, 2), date.substr(8, 2)).c_str());
}

class DaysOffReader {
  public:
    DaysOffReader(const DaysOffAsk& ask, const Work& work)
        : from_(ask.from), last_(date_after(ask.from, std::clamp(ask.years, 1, 20) * 8766.0)), seconds_(ask.most_seconds), work_(work) {}

    DaysOffRead read(const std::string& text) {
        const std::vector<EventText> events = Events(text, work_).read(out_.notes);
        for (const EventText& e : events)
            if (!e.moved.empty() && !e.uid.empty()) moved_[e.uid].insert(e.moved);
        const auto begun = std::chrono::steady_clock::now();
        for (std::size_t i = 0; i < events.size(); ++i) {
            work_.check();
            work_.tell(static_cast<double>(i) / static_cast<double>(events.size()));
            if (std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count() > seconds_) {
                out_.notes.push_back(fmt::format("Reading took longer than {:g} s: {} of {} events were left out, from line {} on.",
                                                 seconds_, events.size() - i, events.size(), events[i].line));
                break;
            }
            if (!events[i].cancelled) event(events[i]);
        }
        tell_rest();
        std::stable_sort(out_.off.begin(), out_.off.end(), [](const DayOff& a, const DayOff& b) { return a.from < b.from; });
        return std::move(out_);
    }

  private:
    void left_out(const EventText& e, const std::string& why) {
        if (++left_out_ <= 20)
            out_.notes.push_back(fmt::format("‘{}’ (line {}) was left out: {}.", e.name.empty() ? "An event" : e.name, e.line, why));
    }

    void event(const EventText& e) {
        if (e.too_long) return left_out(e, "its dates are longer than 64 kB");
        const std::unique_ptr<icalcomponent, IcalFreed> c(
            icalparser_parse_string(("BEGIN:VEVENT\r\n" + e.dates + "END:VEVENT\r\n").c_str()));
        if (!c || icalcomponent_isa(c.get()) != ICAL_VEVENT_COMPONENT) return left_out(e, "it can't be read");
        if (icalcomponent_get_first_property(c.get(), ICAL_XLICERROR_PROPERTY))
            return left_out(e, "one of its dates or its rule can't be read");
        const icaltimetype begins = icalcomponent_get_dtstart(c.get());
        if (icaltime_is_null_time(begins)) return left_out(e, "it has no day");
        if (!is_date(iso_day(begins))) return left_out(e, iso_day(begins) + " is not a date");
        if (!begins.is_date) {
            ++with_hours_;
            return;
        }
        icaltimetype ends = icalcomponent_get_dtend(c.get());
        if (!icaltime_is_null_time(ends) && !is_date(iso_day(ends))) return left_out(e, iso_day(ends) + " is not a date");
        const double days = icaltime_is_null_time(ends) ? 1 : std::max(1.0, days_between(iso_day(begins), iso_day(ends)).value_or(1));
        const Instances of{e.name, days, called_off(c.get(), e)};
        for (icalproperty* p = icalcomponent_get_first_property(c.get(), ICAL_RDATE_PROPERTY); p;
             p = icalcomponent_get_next_property(c.get(), ICAL_RDATE_PROPERTY)) {
            const icaldatetimeperiodtype at = icalproperty_get_rdate(p);
            add(iso_day(icaltime_is_null_time(at.time) ? at.period.start : at.time), of);
        }
        icalproperty* rule = icalcomponent_get_first_property(c.get(), ICAL_RRULE_PROPERTY);
        if (!rule) return void(add(iso_day(begins), of));
        by_rule(e, icalproperty_get_rrule(rule), begins, of);
    }

    struct Instances {
        const std::string& name;
        double days;
        std::set<std::string> not_on;
    };

    /// Instances that are not, as ISO dates.
    std::set<std::string> called_off(icalcomponent* c, const EventText& e) const {
        std::set<std::string> out;
        for (icalproperty* p = icalcomponent_get_first_property(c, ICAL_EXDATE_PROPERTY); p;
             p = icalcomponent_get_next_property(c, ICAL_EXDATE_PROPERTY))
            out.insert(iso_day(icalproperty_get_exdate(p)));
        const auto moved = moved_.find(e.uid);
        if (!e.moved.empty() || moved == moved_.end()) return out;
        for (const std::string& d : moved->second)
            if (d.size() == 8) out.insert(fmt::format("{}-{}-{}", d.substr(0, 4), d.substr(4, 2), d.substr(6, 2)));
        return out;
    }

    void by_rule(const EventText& e, icalrecurrencetype how, const icaltimetype& begins, const Instances& of) {
        if (how.freq == ICAL_SECONDLY_RECURRENCE || how.freq == ICAL_MINUTELY_RECURRENCE || how.freq == ICAL_HOURLY_RECURRENCE)
            return left_out(e, "it comes back by the hour, which no whole day does");
        // A rule that never comes is walked to its end, thousands of years on: it ends with the days that are asked for.
        const bool for_ever = how.count == 0 && icaltime_is_null_time(how.until);
        if (how.count == 0 && (for_ever || iso_day(how.until) > last_)) how.until = day_of(date_after(last_, 48));
        const std::unique_ptr<icalrecur_iterator, IcalFreed> it(icalrecur_iterator_new(how, begins));
        if (!it) return left_out(e, "its rule never comes, or can't be read");
        if (how.count == 0) {
            const std::string first = date_after(from_, -(of.days + 1) * 24);
            if (first > iso_day(begins)) icalrecur_iterator_set_start(it.get(), day_of(first));
        }
        int looked_at = 0;
        bool more = true;
        for (icaltimetype t = icalrecur_iterator_next(it.get()); more && !icaltime_is_null_time(t); t = icalrecur_iterator_next(it.get())) {
            more = add(iso_day(t), of) && ++looked_at < most_instances;
            if (looked_at % 1024 == 0) work_.check();
        }
        if (for_ever) ++for_ever_, for_ever_name_ = of.name;
    }

    /// @returns whether later ones may still be wanted.
    bool add(const std::string& first, const Instances& of) {
        if (!is_date(first)) return true;
        const std::string to = date_after(first, (of.days - 1) * 24);
        const bool room = out_.off.size() < most_days_off;
        if (to >= from_ && first <= last_ && room && !of.not_on.count(first))
            out_.off.push_back({first, of.days > 1 ? to : std::string(), of.name});
        return first <= last_ && room;
    }

    void tell_rest() {
        if (left_out_ > 20) out_.notes.push_back(fmt::format("{} more events were left out for the like.", left_out_ - 20));
        if (for_ever_ == 1)
            out_.notes.push_back(fmt::format("‘{}’ comes back for ever: it is taken until {}.",
                                             for_ever_name_.empty() ? "A day off" : for_ever_name_, last_));
        if (for_ever_ > 1) out_.notes.push_back(fmt::format("{} days off come back for ever: they are taken until {}.", for_ever_, last_));
        if (with_hours_ > 0)
            out_.notes.push_back(with_hours_ == 1 ? "1 event with hours is no day off and was left out."
                                                  : fmt::format("{} events with hours are no days off and were left out.", with_hours_));
        if (out_.off.size() >= most_days_off) out_.notes.push_back(fmt::format("Only the first {} days off were taken.", most_days_off));
    }

    const std::string from_, last_;
    const double seconds_;
    const Work& work_;
    DaysOffRead out_;
    std::map<std::string, std::set<std::string>> moved_;  ///< by UID: instances that an event of their own stands for
    int left_out_ = 0, with_hours_ = 0, for_ever_ = 0;
    std::string for_ever_name_;
};

}  // namespace

DaysOffRead read_days_off(const std::string& text, const DaysOffAsk& ask, const Work& work) { return DaysOffReader(ask, work).read(text); }

}  // namespace yb
