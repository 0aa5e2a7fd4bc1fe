#include "core/ground/calendar/workclock.h"

#include <algorithm>
#include <cmath>

namespace yb {

namespace {
constexpr double eps = 1e-9;
constexpr int most_days = static_cast<int>(most_hours / 24);
}  // namespace

WorkClock::WorkClock(const std::string& start, const Workday& week, Crew hand)
    : week_(week), hand_(hand), start_(is_date(start) ? start : "2001-01-01"), first_weekday_(weekday_of(start_)) {
    never_ = true;
    for (int d = 0; d < 7 && never_; ++d) never_ = stretches_on(week_, hand_, d).empty();
}

bool WorkClock::add_day() const {
    if (never_ || days_ >= most_days) return false;
    const int d = days_++;
    if (is_off(week_, date_after(start_, d * 24.0))) return true;
    for (const auto& [from, to] : stretches_on(week_, hand_, (first_weekday_ + d) % 7)) {
        stretches_.push_back({d * 24 + from, d * 24 + to, work_});
        work_ += to - from;
    }
    return true;
}

void WorkClock::reach(double h) const {
    while ((stretches_.empty() || stretches_.back().to <= h + eps) && add_day()) {
    }
}

void WorkClock::reach_work(double w) const {
    while (work_ < w - eps && add_day()) {
    }
}

std::size_t WorkClock::at(double h) const {
    reach(h);
    return static_cast<std::size_t>(
        std::partition_point(stretches_.begin(), stretches_.end(), [&](const Stretch& s) { return s.to <= h + eps; }) - stretches_.begin());
}

double WorkClock::next(double h) const {
    h = held_hours(h);
    const std::size_t i = at(h);
    return i < stretches_.size() ? std::max(h, stretches_[i].from) : most_hours;
}

double WorkClock::after(double h, double work) const {
    h = next(h);
    work = std::clamp(held_hours(work), 0.0, most_hours);
    const std::size_t i = at(h);
    if (i >= stretches_.size()) return most_hours;
    if (work <= eps) return h;
    const double goal = stretches_[i].sum + (h - stretches_[i].from) + work;
    reach_work(goal);
    // The first stretch in which the goal is reached.
    const auto it =
        std::partition_point(stretches_.begin(), stretches_.end(), [&](const Stretch& s) { return s.sum + (s.to - s.from) < goal - eps; });
    return it == stretches_.end() ? most_hours : it->from + (goal - it->sum);
}

double WorkClock::before(double h, double work) const {
    h = held_hours(h);
    if (work <= eps) return h;
    reach(h);
    // Work up to h.
    const double goal = between(0, h) - work;
    if (goal < -eps) return goal;
    const auto it =
        std::partition_point(stretches_.begin(), stretches_.end(), [&](const Stretch& s) { return s.sum + (s.to - s.from) <= goal + eps; });
    if (it == stretches_.end()) return h;
    return it->from + std::max(0.0, goal - it->sum);
}

double WorkClock::begun_whole(double h, double work) const {
    const double first = next(h);
    if (first >= most_hours || work <= eps) return first;
    // A stretch that is long enough; then a day.
    for (const bool unbroken : {true, false}) {
        double t = first;
        for (int tries = 0; tries < 60 && t < first + 21 * 24 && t < most_hours; ++tries) {
            const double end = after(t, work);
            const bool fits = unbroken ? end - t <= work + 1e-6 : std::floor(t / 24) == std::floor((end - eps) / 24);
            if (fits) return t;
            // Where this stretch ends, or this day.
            const double over = unbroken ? stretches_[at(t)].to : (std::floor(t / 24) + 1) * 24;
            t = next(over + eps);
        }
    }
    const double morning = next(std::floor(first / 24) * 24);
    return morning >= first - eps ? first : next((std::floor(first / 24) + 1) * 24);
}

double WorkClock::begun_whole_before(double h, double work) const {
    double t = before(h, work);
    for (int tries = 0; tries < 60 && t > 0; ++tries) {
        const double whole = begun_whole(t, work);
        if (after(whole, work) <= h + 1e-6) return whole;
        // The stretch before the one it begins in.
        reach(t);
        const std::size_t i = at(t);
        if (i == 0 || i >= stretches_.size()) break;
        t = std::min(before(stretches_[i].from, std::min(work, stretches_[i - 1].to - stretches_[i - 1].from)), stretches_[i - 1].to - eps);
    }
    return before(h, work);
}

double WorkClock::between(double from, double to) const {
    const auto up_to = [&](double h) {
        const std::size_t i = at(h);
        if (i >= stretches_.size()) return work_;
        return stretches_[i].sum + std::max(0.0, h - stretches_[i].from);
    };
    return std::max(0.0, up_to(held_hours(to)) - up_to(held_hours(from)));
}

}  // namespace yb
