// The air of a room as a logger kept it.
#pragma once

#include <array>
#include <cstddef>
#include <optional>

#include "core/material/wood/wood.h"

namespace yb {

/// What an air logger kept, month by month: the mean of its readings, nothing for a month it did not stand there.
struct AirLog {
    std::array<std::optional<Month>, 12> months{};
    std::size_t readings = 0;
};

}  // namespace yb
