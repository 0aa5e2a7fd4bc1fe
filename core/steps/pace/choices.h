// Pace: how long this maker takes beside the starting values, as it was learned, and whether it is used.
#pragma once

#include <string>

#include "core/ground/fields/fields.h"

namespace yb {

/// Of a kind of work.
struct PaceFigure {
    std::string key;        ///< pace_kinds()
    double times = 1;       ///< hours taken, beside those of the starting value
    double spread = 0;      ///< of it, one standard deviation
    int tables = 0;         ///< it rests on
    bool put_back = false;  ///< the starting value is used all the same
    bool operator==(const PaceFigure&) const = default;
};
void fields(FieldVisitor& v, PaceFigure& p);

}  // namespace yb
