// A pour by the plainest scheme there is: cells of about a millimetre, explicit steps of two seconds, everything typed anew.
#pragma once

#include <cmath>
#include <vector>

namespace yb {

/// The same pour by the plainest scheme there is: cells of 1 mm, explicit steps of 5 s.
struct Plain {
    double peak_c = 0, peak_h = 0;
    double gel_h = 0;    ///< of the upper surface
    double cured_h = 0;  ///< all of it to 95 %
};
inline Plain plainly(double gel_25_h, double heat_kj, double depth, double air, double board, double h, double hours = 80) {
    constexpr double r = 8.314462618;
    // A by the same definition, its integral summed anew.
    double integral = 0;
    for (int i = 0; i < 400000; ++i) {
        const double a = 0.55 * (i + 0.5) / 400000;
        integral += 0.55 / 400000 / ((0.02 + std::pow(a, 0.9)) * std::pow(1 - a, 1.6));
    }
    const double a_s = integral / (gel_25_h * 3600 * std::exp(-55000 / (r * 298.15)));
    const int nb = static_cast<int>(board);
    const int nr = static_cast<int>(depth);
    const double cell = depth / nr / 1000;  // of the resin; the board's are a millimetre
    const int n = nb + nr;
    const auto size = [&](int i) { return i < nb ? 1e-3 : cell; };
    std::vector<double> t(n, air), a(n, 0.0), next(n);
    Plain out{air, 0, 0};
    const double dt = 2;
    for (double s = 0; s < hours * 3600; s += dt) {
        for (int i = 0; i < n; ++i) {
            const bool wood = i < nb;
            const double k = wood ? 0.12 : 0.20;
            const double c = wood ? 600.0 * 1600 : 1100.0 * 1900;
            const auto to = [&](int j) {
                const double kj = j < nb ? 0.12 : 0.20;
                return (t[j] - t[i]) / (size(i) / 2 / k + size(j) / 2 / kj);  // one half after the other
            };
            double flux = 0;
            flux += i > 0 ? to(i - 1) : (air - t[i]) / (1 / h + size(i) / 2 / k);
            flux += i + 1 < n ? to(i + 1) : (air - t[i]) / (1 / h + size(i) / 2 / k);
            next[i] = t[i] + dt * flux / (c * size(i));
            if (!wood) {
                const double rate = a_s * std::exp(-55000 / (r * (t[i] + 273.15))) * (0.02 + std::pow(a[i], 0.9)) * std::pow(1 - a[i], 1.6);
                a[i] += dt * rate;
                next[i] += heat_kj * 1000 / 1900 * dt * rate;
            }
        }
        t.swap(next);
        if (out.gel_h == 0 && a[n - 1] >= 0.55) out.gel_h = s / 3600;
        bool cured = out.cured_h == 0;
        for (int i = nb; cured && i < n; ++i) cured = a[i] >= 0.95;
        if (cured) out.cured_h = s / 3600;
        for (int i = nb; i < n; ++i)
            if (t[i] > out.peak_c) out.peak_c = t[i], out.peak_h = s / 3600;
    }
    return out;
}

}  // namespace yb
