// A batch weighed on the scale: what is in the cup so far, the second part corrected to the first where too much of it was poured.
#pragma once

#include <optional>

#include "core/steps/pour/pour.h"

namespace yb {

struct Weighed {
    double first_g = 0;    ///< wanted of part A; what was really poured, once B is begun
    double second_g = 0;   ///< wanted of part B, for what is there of A
    double to_go_g = 0;    ///< of the part that is being poured; less than nothing: so much too much
    double stop_at_g = 0;  ///< what the scale shows when the part is in
    bool second = false;   ///< B is being poured
    bool off = false;      ///< B has run over by more than 2 %: the mix no longer holds its ratio
};
/// @param in_cup_g as the scale shows it, the empty cup taken off. @param first_poured_g what was in it when B was begun; empty: A is being
/// poured. Check: A 500 g, B 250 g; 520 g of A poured: B wants 260 g, stop at 780 g. @throws std::invalid_argument for a batch of no part
/// A, or what is no number.
Weighed weighed(const Batch& batch, double in_cup_g, std::optional<double> first_poured_g);

}  // namespace yb
