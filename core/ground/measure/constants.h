// Constants of nature that more than one room works with.
#pragma once

namespace yb {

inline constexpr double gravity_m_s2 = 9.80665;  ///< standard
inline constexpr double zero_c_k = 273.15;       ///< 0 °C in kelvin
inline constexpr double inch_mm = 25.4;          ///< international
inline constexpr double gas_j_mol_k = 8.314462618;

}  // namespace yb
