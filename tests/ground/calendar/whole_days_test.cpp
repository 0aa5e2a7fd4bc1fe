// Work that can't be left: begun where a stretch, or a day, holds all of it; minute by minute against it.
#include <cmath>
#include <random>

#include <catch2/catch.hpp>

#include "core/ground/calendar/workclock.h"

using namespace yb;

namespace {

/// True where all of the work fits in one stretch from a moment on; in one day, where breaks count as nothing.
bool fits(const WorkClock& clock, double t, double work, bool unbroken) {
    if (std::abs(clock.next(t) - t) > 1e-9) return false;
    const double end = clock.after(t, work);
    return unbroken ? end - t <= work + 1e-6 : std::floor(t / 24) == std::floor((end - 1e-9) / 24);
}

}  // namespace

TEST_CASE("what can't be left begins at the first moment at which all of it fits", "[calendar][whole]") {
    const std::string monday = "2026-11-30";
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> any(0, 1);
    int broken = 0, whole_stretch = 0, too_long = 0;
    for (int round = 0; round < 300; ++round) {
        Workday w;
        for (int d = 0; d < 6; ++d) {
            if (any(dice) < 0.25) continue;
            const double noon = 11 + std::floor(any(dice) * 8) / 4;
            w.week.push_back({d, 8, noon});
            if (any(dice) < 0.7) w.week.push_back({d, noon + 0.75, noon + 1 + std::floor(any(dice) * 16) / 4});
        }
        if (w.week.empty()) continue;
        const WorkClock clock(monday, w);
        const double from = std::floor(any(dice) * 120 * 12) / 12, work = (1 + std::floor(any(dice) * 32)) / 4;
        const double begun = clock.begun_whole(from, work);
        double longest = 0, longest_day = 0;
        for (int d = 0; d < 7; ++d) {
            double day = 0;
            for (const auto& [a, b] : stretches_on(w, Crew::maker, d)) longest = std::max(longest, b - a), day += b - a;
            longest_day = std::max(longest_day, day);
        }
        CHECK(longest_day == longest_day_h(w, Crew::maker));
        INFO("round " << round << ": " << work << " h from " << from << " begins at " << begun);
        CHECK(begun >= from - 1e-9);
        if (work > longest_day + 1e-9) {
            ++too_long;  // a morning
            CHECK(std::abs(clock.next(std::floor(begun / 24) * 24) - begun) < 1e-6);
            continue;
        }
        const bool unbroken = work <= longest + 1e-9;
        (unbroken ? whole_stretch : broken) += 1;
        CHECK(fits(clock, begun, work, unbroken));
        // No five minutes before it would do.
        for (double t = std::ceil(from * 12 - 1e-6) / 12; t < begun - 1e-6; t += 1.0 / 12) CHECK_FALSE(fits(clock, t, work, unbroken));
        const double by = clock.begun_whole_before(begun + work + 100, work);
        CHECK(clock.after(by, work) <= begun + work + 100 + 1e-6);
    }
    CHECK(whole_stretch > 100);
    CHECK(broken > 10);
    CHECK(too_long > 10);
    CHECK(WorkClock(monday, Workday(), Crew::helper).begun_whole(5, 2) == most_hours);  // nobody helps
}
