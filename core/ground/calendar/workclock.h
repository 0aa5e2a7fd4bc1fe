// Working time as stretches on an axis of hours from midnight of a first day: the maker's week, days off, a second pair of hands.
#pragma once

#include <string>
#include <vector>

#include "core/ground/calendar/calendar.h"

namespace yb {

/// When somebody works, day after day, worked out as far as it is asked for; twenty years at most. Hours are wall clock: a day has 24,
/// whatever summer time does to its night.
class WorkClock {
  public:
    /// @param start midnight of this ISO date is hour 0; one that can't be read counts as a Monday.
    WorkClock(const std::string& start, const Workday& week, Crew hand = Crew::maker);

    /// True where nobody of that hand works on any day.
    bool never() const { return never_; }
    /// The next working moment from an hour on. Where nobody works: most_hours.
    double next(double h) const;
    /// When so many hours of work begun at an hour are done, in working time alone; it begins at the next working moment.
    double after(double h, double work_h) const;
    /// The latest moment at which so many hours can be begun so that they are done by an hour: after(before(h, w), w) ≤ h. Where the
    /// stretches before it have less, as far back as the first day, less than nothing.
    double before(double h, double work_h) const;
    /// The first moment from an hour on at which so much work can be begun and done without leaving it: in one stretch, or where none is
    /// long enough within one day. Longer than any day of the next three weeks: the first morning.
    double begun_whole(double h, double work_h) const;
    /// The last such moment, so that it is done by an hour.
    double begun_whole_before(double h, double work_h) const;
    /// Hours of work from one hour to another.
    double between(double from, double to) const;

  private:
    struct Stretch {
        double from = 0, to = 0;
        double sum = 0;  ///< of all before it
    };
    void reach(double h) const;       ///< until a stretch ends after h, or there are no more days
    void reach_work(double w) const;  ///< until so much has been summed
    bool add_day() const;
    std::size_t at(double h) const;  ///< the first stretch that ends after h

    Workday week_;
    Crew hand_;
    std::string start_;
    int first_weekday_ = 0;  ///< 0 Monday
    bool never_ = false;
    mutable std::vector<Stretch> stretches_;
    mutable int days_ = 0;
    mutable double work_ = 0;
};

}  // namespace yb
