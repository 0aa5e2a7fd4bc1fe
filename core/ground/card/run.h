// A running card as it was run: what was ticked off at the bench, and when. Kept in its job, so that a window closed or a power
// cut in the middle of it loses nothing.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"

namespace yb {

struct CardTick {
    std::string step;               ///< its key
    std::string at;                 ///< the clock on the wall, UTC, "2026-11-26T07:12:05Z"
    double after_s = 0;             ///< since the card was started, by the card's own clock
    std::optional<double> air_c;    ///< of the shop, as typed
    std::optional<double> mixed_l;  ///< what was really mixed
    std::string note;
    std::optional<double> left_l{};  ///< what was left over of all of it
    bool operator==(const CardTick&) const = default;
};

/// A thermocouple in the pour.
struct CardReading {
    double after_s = 0;
    double temp_c = 0;
    bool operator==(const CardReading&) const = default;
};

struct CardRun {
    std::string card;     ///< "pour", "glue", "rods"
    std::string started;  ///< UTC
    double fast = 1;      ///< its clock runs so many times as fast: for practice
    bool over = false;    ///< put away
    std::vector<CardTick> ticks;
    std::vector<CardReading> readings;
    bool operator==(const CardRun&) const = default;
};

void fields(FieldVisitor& v, CardTick& t);
void fields(FieldVisitor& v, CardReading& r);
void fields(FieldVisitor& v, CardRun& r);

}  // namespace yb
