#include "core/material/wood/lag.h"

#include <cmath>
#include <complex>
#include <numbers>
#include <stdexcept>

namespace yb {

double lag_days(double thickness_mm, double resistance) {
    if (!(thickness_mm > 0)) throw std::invalid_argument("a thickness above 0 is wanted");
    constexpr double diffusion = 1.5e-10;
    const double l = thickness_mm / 1000;
    return (l * l / (std::numbers::pi * std::numbers::pi * diffusion) + l / 2 * resistance) / 86400;
}

double comes_later_days(double tau) {
    constexpr double omega = 2 * std::numbers::pi / 365.25;
    return std::atan(omega * tau) / omega;
}

std::array<double, 12> lagged(const std::array<double, 12>& air, double tau_days) {
    using Complex = std::complex<double>;
    constexpr int months = 12;
    std::array<double, 12> out{};
    for (int n = -5; n <= 6; ++n) {
        Complex wave = 0;
        for (int m = 0; m < months; ++m)
            wave += air[static_cast<std::size_t>(m)] * std::exp(Complex(0, -2 * std::numbers::pi * n * m / months)) / double(months);
        const double omega = 2 * std::numbers::pi * n / 365.25;
        const Complex kept = wave / Complex(1, omega * tau_days);
        for (int m = 0; m < months; ++m)
            out[static_cast<std::size_t>(m)] += (kept * std::exp(Complex(0, 2 * std::numbers::pi * n * m / months))).real();
    }
    return out;
}

}  // namespace yb
