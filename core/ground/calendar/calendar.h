// Dates and working hours: ISO dates in, hours counted from midnight of a first day.
#pragma once

#include <chrono>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace yb {

/// A stretch of a weekday.
struct DayHours {
    int day = 0;  ///< 0 Monday … 6 Sunday
    double from_h = 8, to_h = 17;
    bool operator==(const DayHours&) const = default;
};
/// Days on which nobody works, both counted.
struct DayOff {
    std::string from, to;  ///< ISO dates; an empty end: the one day
    std::string name;
    bool operator==(const DayOff&) const = default;
};
/// When somebody works.
struct Workday {
    double from_h = 8, to_h = 17;
    bool saturdays = false;
    std::vector<DayHours> week;    ///< the maker's week stretch by stretch; empty: as above, Monday to Friday
    std::vector<DayHours> helper;  ///< when a second pair of hands is there
    std::vector<DayOff> off;
    bool operator==(const Workday&) const = default;
};
/// Whose time it is.
enum class Crew { maker, helper, both };
class FieldVisitor;
void fields(FieldVisitor& v, DayHours& d);
void fields(FieldVisitor& v, DayOff& d);
void fields(FieldVisitor& v, Workday& w);

/// A day as it is written, "2026-11-30"; nothing for what is none.
std::optional<std::chrono::sys_days> read_date(const std::string& iso);

/// Hours from midnight of a date to a wall clock "2026-11-30T16:30", or to midnight of a date alone; nothing where one can't be read.
std::optional<double> hours_to(const std::string& start, const std::string& at);
/// The wall clock so many hours after midnight of a date, to the minute. @throws std::invalid_argument for a date it can't read.
std::string wall_clock(const std::string& start, double h);

/// "monday" … "sunday".
const char* name_of_day(int day);
/// 0 Monday … 6 Sunday; 0 where the date can't be read.
int weekday_of(const std::string& iso);
/// Stretches on a weekday, in order, those that meet or overlap as one: of the maker, of the helper, or of both at once. Hours that end
/// before they begin are open until midnight.
std::vector<std::pair<double, double>> stretches_on(const Workday& w, Crew hand, int day);
/// Hours of work of the longest weekday; 0 where nobody is ever there.
double longest_day_h(const Workday& w, Crew hand);
/// Nobody works on that date.
bool is_off(const Workday& w, const std::string& iso);

/// The furthest that is planned ahead, h: twenty years. Hours beyond it are held there by all of these.
inline constexpr double most_hours = 20 * 8766.0;
/// Hours held to that, to either side; what is no number is none.
double held_hours(double h);

/// True for a date that exists, written YYYY-MM-DD.
bool is_date(const std::string& iso);

/// The month of an ISO date, 0 is January; 0 where the date can't be read.
int month_of(const std::string& iso);

/// Days from one ISO date to another; nothing where one can't be read.
std::optional<double> days_between(const std::string& from, const std::string& to);

/// The date `h` hours after midnight of an ISO date. @throws std::invalid_argument for a date it can't read.
std::string date_after(const std::string& start, double h);

}  // namespace yb
