// Moisture that lags: wood follows the air's settling point the slower, the thicker it is and the better it is covered.
//
// dM/dt = (M_e(t) − M)/τ, τ = L²/(π²·D) + (L/2)·R_f, L the thickness with both faces open, D 1.5e-10 m²/s across the grain, R_f of a
// face: bare 5e6, penetrating oil 2e7, film 1.5e8 s/m – rounded from handbook figures, an estimate. Check values in tests/wood.
#pragma once

#include <array>

namespace yb {

inline constexpr double bare_s_m = 5e6, oiled_s_m = 2e7, filmed_s_m = 1.5e8;

/// τ in days. @param resistance_s_m of a face. @throws std::invalid_argument for a thickness not above 0.
double lag_days(double thickness_mm, double resistance_s_m);

/// How many days later the year's swing comes in the wood: atan(ωτ)/ω, ω one turn a year. Check: τ 54.9 → 44.0.
double comes_later_days(double tau_days);

/// What wood holds in the middle of each month, January first, once years have gone by like this one. The year of settling points is
/// read as a sum of waves through its months (a discrete Fourier series); each wave keeps 1/√(1 + (ωτ)²) and comes atan(ωτ)/ω later.
std::array<double, 12> lagged(const std::array<double, 12>& settles_pct, double lag_days);

}  // namespace yb
