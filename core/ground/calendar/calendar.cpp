#include "core/ground/calendar/calendar.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <stdexcept>

#include <fmt/format.h>

#include "core/ground/fields/fields.h"

namespace yb {
namespace {

using std::chrono::sys_days;

std::optional<sys_days> read_date(const std::string& iso) {
    int y = 0;
    unsigned m = 0;
    unsigned d = 0;
    int used = 0;
    if (iso.size() != 10 || std::sscanf(iso.c_str(), "%4d-%2u-%2u%n", &y, &m, &d, &used) != 3 || used != 10) return {};
    const std::chrono::year_month_day date{std::chrono::year(y), std::chrono::month(m), std::chrono::day(d)};
    if (!date.ok()) return {};
    return sys_days(date);
}

bool works_on(sys_days day, const Workday& w) {
    const std::chrono::weekday wd(day);
    if (wd == std::chrono::Sunday) return false;
    return wd != std::chrono::Saturday || w.saturdays;
}

}  // namespace

double held_hours(double h) { return std::isnan(h) ? 0 : std::clamp(h, -most_hours, most_hours); }

bool is_date(const std::string& iso) { return read_date(iso).has_value(); }

std::string date_after(const std::string& start, double h) {
    const auto d = read_date(start);
    if (!d) throw std::invalid_argument("‘" + start + "’ is not a date: write it as 2026-11-30");
    const std::chrono::year_month_day date(*d + std::chrono::days(static_cast<int>(std::floor(held_hours(h) / 24))));
    return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(date.year()), static_cast<unsigned>(date.month()),
                       static_cast<unsigned>(date.day()));
}

namespace {
/// Hours that end before they begin are read as open until midnight.
double closing(const Workday& w) { return w.to_h > w.from_h ? w.to_h : 24; }
}  // namespace

double next_working_hour(const std::string& start, double h, const Workday& w) {
    const auto first = read_date(start).value_or(sys_days{});
    h = held_hours(h);
    for (int guard = 0; guard < 30; ++guard) {
        const double day = std::floor(h / 24);
        const double hour = h - day * 24;
        const bool works = works_on(first + std::chrono::days(static_cast<int>(day)), w);
        if (works && hour < w.from_h) return day * 24 + w.from_h;
        if (works && hour < closing(w) - 1e-9) return h;
        h = (day + 1) * 24;
    }
    return h;
}

double after_work(const std::string& start, double h, double left, const Workday& w) {
    h = next_working_hour(start, held_hours(h), w);
    left = held_hours(left);
    while (left > 1e-9) {
        const double until = std::floor(h / 24) * 24 + closing(w);
        const double now = std::min(left, until - h);
        h += now;
        left -= now;
        if (left > 1e-9) h = next_working_hour(start, h, w);
    }
    return h;
}

int month_of(const std::string& iso) { return is_date(iso) ? std::stoi(iso.substr(5, 2)) - 1 : 0; }

std::optional<double> days_between(const std::string& from, const std::string& to) {
    const auto a = read_date(from);
    const auto b = read_date(to);
    if (!a || !b) return {};
    return static_cast<double>((*b - *a).count());
}

void fields(FieldVisitor& v, Workday& w) {
    v.number({"from_h", "Work begins, o'clock", Kind::number, {0, 23}}, w.from_h);
    v.number({"to_h", "Work ends, o'clock", Kind::number, {1, 24}}, w.to_h);
    v.flag({"saturdays", "Saturdays worked"}, w.saturdays);
}

}  // namespace yb
