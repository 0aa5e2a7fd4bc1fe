#include "core/ground/calendar/calendar.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <stdexcept>

#include <fmt/format.h>

#include "core/ground/fields/fields.h"

namespace yb {

using std::chrono::sys_days;

std::optional<sys_days> read_date(const std::string& iso) {
    int y = 0;
    unsigned m = 0;
    unsigned d = 0;
    int used = 0;
    const auto shaped = [&](std::size_t i) { return i == 4 || i == 7 ? iso[i] == '-' : iso[i] >= '0' && iso[i] <= '9'; };
    if (iso.size() != 10) return {};
    for (std::size_t i = 0; i < iso.size(); ++i)
        if (!shaped(i)) return {};  // blanks and signs are read as numbers too
    if (std::sscanf(iso.c_str(), "%4d-%2u-%2u%n", &y, &m, &d, &used) != 3 || used != 10) return {};
    const std::chrono::year_month_day date{std::chrono::year(y), std::chrono::month(m), std::chrono::day(d)};
    if (!date.ok()) return {};
    return sys_days(date);
}

double held_hours(double h) { return std::isnan(h) ? 0 : std::clamp(h, -most_hours, most_hours); }

bool is_date(const std::string& iso) { return read_date(iso).has_value(); }

std::string date_after(const std::string& start, double h) {
    const auto d = read_date(start);
    if (!d) throw std::invalid_argument("‘" + start + "’ is not a date: write it as 2026-11-30");
    const std::chrono::year_month_day date(*d + std::chrono::days(static_cast<int>(std::floor(held_hours(h) / 24))));
    return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(date.year()), static_cast<unsigned>(date.month()),
                       static_cast<unsigned>(date.day()));
}

const char* name_of_day(int day) {
    static constexpr const char* names[] = {"monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"};
    return names[((day % 7) + 7) % 7];
}

int weekday_of(const std::string& iso) {
    const auto d = read_date(iso);
    return d ? static_cast<int>(std::chrono::weekday(*d).iso_encoding()) - 1 : 0;
}

namespace {
using Stretches = std::vector<std::pair<double, double>>;

Stretches of_rows(const std::vector<DayHours>& rows, int day) {
    Stretches all;
    for (const DayHours& r : rows)
        if (r.day == day) all.emplace_back(r.from_h, r.to_h > r.from_h ? r.to_h : 24.0);
    std::sort(all.begin(), all.end());
    Stretches out;
    for (const auto& s : all) {
        if (!out.empty() && s.first <= out.back().second) out.back().second = std::max(out.back().second, s.second);
        else out.push_back(s);
    }
    return out;
}

Stretches of_maker(const Workday& w, int day) {
    if (!w.week.empty()) return of_rows(w.week, day);
    if (day == 6 || (day == 5 && !w.saturdays)) return {};
    return {{w.from_h, w.to_h > w.from_h ? w.to_h : 24.0}};
}
}  // namespace

Stretches stretches_on(const Workday& w, Crew hand, int day) {
    if (hand == Crew::maker) return of_maker(w, day);
    const Stretches helper = of_rows(w.helper, day);
    if (hand == Crew::helper) return helper;
    Stretches out;
    for (const auto& a : of_maker(w, day))
        for (const auto& b : helper)
            if (const double from = std::max(a.first, b.first), to = std::min(a.second, b.second); from < to) out.emplace_back(from, to);
    return out;
}

bool is_off(const Workday& w, const std::string& iso) {
    // ISO dates stand in order as text.
    return std::any_of(w.off.begin(), w.off.end(), [&](const DayOff& o) { return iso >= o.from && iso <= (o.to.empty() ? o.from : o.to); });
}

std::optional<double> hours_to(const std::string& start, const std::string& at) {
    const auto days = days_between(start, at.substr(0, 10));
    if (!days) return {};
    if (at.size() == 10) return *days * 24;
    int h = 0;
    int m = 0;
    int used = 0;
    if (at.size() < 16 || at[10] != 'T' || std::sscanf(at.c_str() + 11, "%2d:%2d%n", &h, &m, &used) != 2 || used != 5 || h > 24 || m > 59 ||
        h < 0 || m < 0)
        return {};
    return *days * 24 + h + m / 60.0;
}

std::string wall_clock(const std::string& start, double h) {
    const double minutes = std::round(held_hours(h) * 60);
    const double day = std::floor(minutes / (24 * 60));
    const int rest = static_cast<int>(minutes - day * 24 * 60);
    return fmt::format("{}T{:02}:{:02}", date_after(start, day * 24), rest / 60, rest % 60);
}

int month_of(const std::string& iso) { return is_date(iso) ? std::stoi(iso.substr(5, 2)) - 1 : 0; }

std::optional<double> days_between(const std::string& from, const std::string& to) {
    const auto a = read_date(from);
    const auto b = read_date(to);
    if (!a || !b) return {};
    return static_cast<double>((*b - *a).count());
}

void fields(FieldVisitor& v, DayHours& d) {
    v.number({"day", "Weekday, 0 is Monday", Kind::count, {0, 6}}, d.day);
    v.number({"from_h", "From, o'clock", Kind::number, {0, 24}}, d.from_h);
    v.number({"to_h", "To, o'clock", Kind::number, {0, 24}}, d.to_h);
}

void fields(FieldVisitor& v, DayOff& d) {
    v.text({"from", "First day off", true}, d.from);
    v.text({"to", "Last day off"}, d.to);
    v.text({"name", "What for"}, d.name);
}

void fields(FieldVisitor& v, Workday& w) {
    v.number({"from_h", "Work begins, o'clock", Kind::number, {0, 23}}, w.from_h);
    v.number({"to_h", "Work ends, o'clock", Kind::number, {1, 24}}, w.to_h);
    v.flag({"saturdays", "Saturdays worked"}, w.saturdays);
    v.list({"week", "The week, stretch by stretch"}, w.week);
    v.list({"helper", "When a helper is there"}, w.helper);
    v.list({"off", "Days off"}, w.off);
}

double longest_day_h(const Workday& w, Crew hand) {
    double longest = 0;
    for (int d = 0; d < 7; ++d) {
        double sum = 0;
        for (const auto& [from, to] : stretches_on(w, hand, d)) sum += to - from;
        longest = std::max(longest, sum);
    }
    return longest;
}

}  // namespace yb
