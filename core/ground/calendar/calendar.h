// Dates and working hours: ISO dates in, hours counted from midnight of a first day.
#pragma once

#include <optional>
#include <string>

namespace yb {

/// When somebody works.
struct Workday {
    double from_h = 8, to_h = 17;
    bool saturdays = false;
    bool operator==(const Workday&) const = default;
};
class FieldVisitor;
void fields(FieldVisitor& v, Workday& w);

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

/// Moves a time (h from midnight of `start`) to the next working hour. Hours that end before they begin are read as open
/// until midnight.
double next_working_hour(const std::string& start, double h, const Workday& day);

/// When `hands_on_h` of work begun at `h` are done, working hours only.
double after_work(const std::string& start, double h, double hands_on_h, const Workday& day);

}  // namespace yb
