// The law of cure: dα/dt = A·exp(−E/(R·T))·(α₀ + α^m)(1 − α)^n. Used by this room only.
#pragma once

#include <algorithm>
#include <cmath>

#include "core/ground/measure/constants.h"

namespace yb::cure_law {

inline constexpr double e_over_r = 55000 / gas_j_mol_k;  ///< K
inline constexpr double alpha_0 = 0.02, m = 0.9, n = 1.6;
inline constexpr double j_kg_k = 1900;  ///< heat capacity of resin

/// exp(−E/(R·T)) at so many °C.
inline double warmth(double temp_c) { return std::exp(-e_over_r / (temp_c + zero_c_k)); }
/// (α₀ + α^m)(1 − α)^n, a degree outside of 0 … 1 held there.
inline double shape(double alpha) { return (alpha_0 + std::pow(std::max(0.0, alpha), m)) * std::pow(std::max(0.0, 1 - alpha), n); }

}  // namespace yb::cure_law
