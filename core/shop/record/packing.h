// Packing: what is carried to the client, how it is wrapped, what goes in the bag. Weights are estimates for the maker's judgement.
#pragma once

#include <vector>

#include "core/ground/figure/figure.h"

namespace yb {

struct Job;
struct Plan;

/// A part that is carried by itself.
struct PackedPart {
    Phrase what;
    double long_mm = 0, wide_mm = 0, high_mm = 0;
    double kg = 0;
    int people = 1;                                                  ///< at 25 kg each: a starting value
    double crate_long_mm = 0, crate_wide_mm = 0, crate_high_mm = 0;  ///< outside: foam and boards all round
    double crate_kg = 0;                                             ///< of foam and boards
};
/// So many of something in the bag.
struct PackedSmall {
    Phrase what;
    double count = 0;
};
struct Packing {
    std::vector<PackedPart> parts;
    std::vector<PackedSmall> bag;
    std::vector<Phrase> route;  ///< what doors and stairs ask for
};

inline constexpr double foam_mm = 50, crate_board_mm = 12;  ///< all round a part: starting values
/// Nothing where no top is planned.
Packing packing_of(const Plan& plan, const Job& job);

}  // namespace yb
