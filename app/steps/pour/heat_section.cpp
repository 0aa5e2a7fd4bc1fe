#include "app/steps/pour/heat_section.h"

#include <algorithm>
#include <cmath>

#include "app/ground/theme/theme.h"

namespace yb {

std::optional<HeatSection> heat_section(const Cured& c, std::optional<double> at_share, double air, double deep, double bank) {
    if (c.frames.empty()) return {};
    std::size_t k = 0;
    if (at_share) {
        k = static_cast<std::size_t>(std::lround(*at_share * static_cast<double>(c.frames.size() - 1)));
    } else {
        for (std::size_t i = 0; i < c.frames.size(); ++i)
            if (std::abs(c.frames[i].h - c.peak_h) < std::abs(c.frames[k].h - c.peak_h)) k = i;
    }
    const CureFrame& f = c.frames[k];
    const double span = std::max(10.0, c.peak_c - air);
    const double half = c.x.back();
    // Sampled on a grid of its own: the section's is finer where it matters.
    constexpr int w = 121;
    constexpr int h = 30;
    HeatSection out{QImage(w, h, QImage::Format_ARGB32), air, 0};
    const std::size_t nz = c.z.size();
    const auto value = [&](const std::vector<double>& what, double x, double z) {
        const auto i = static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(std::upper_bound(c.x.begin(), c.x.end(), x) - c.x.begin() - 1, 0,
                                                                           static_cast<std::ptrdiff_t>(c.x.size()) - 2));
        const auto j = static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(std::upper_bound(c.z.begin(), c.z.end(), z) - c.z.begin() - 1, 0,
                                                                           static_cast<std::ptrdiff_t>(nz) - 2));
        const double a = (x - c.x[i]) / (c.x[i + 1] - c.x[i]);
        const double b = (z - c.z[j]) / (c.z[j + 1] - c.z[j]);
        const auto at = [&](std::size_t q, std::size_t r) { return what[q * nz + r]; };
        return (at(i, j) * (1 - a) + at(i + 1, j) * a) * (1 - b) + (at(i, j + 1) * (1 - a) + at(i + 1, j + 1) * a) * b;
    };
    double cured = 0;
    double resin = 0;
    std::vector<int> gelled;  // −1 wood
    for (int j = 0; j < h; ++j)
        for (int i = 0; i < w; ++i) {
            const double x = std::min(half, std::abs((i + 0.5) / w * 2 - 1) * half);
            const double z = deep * (1 - (j + 0.5) / h);
            const double t = value(f.temp_c, x, z);
            out.hottest_c = std::max(out.hottest_c, t);
            const bool wood = x > bank;
            const double alpha = value(f.alpha, x, z);
            if (!wood) cured += alpha, resin += 1;
            gelled.push_back(wood ? -1 : alpha >= gel_alpha ? 1 : 0);
            QColor colour = theme::heat((t - air) / span);
            colour.setAlphaF(static_cast<float>(std::clamp(0.15 + 0.75 * (t - air) / span, 0.0, 0.9)));
            out.heat.setPixelColor(i, j, colour);
        }
    out.cured_pct = 100 * cured / std::max(1.0, resin);
    // Where it has gelled ends in a line of ink.
    const auto at = [&](int i, int j) { return i < 0 || j < 0 || i >= w || j >= h ? -1 : gelled[static_cast<std::size_t>(j * w + i)]; };
    for (int j = 0; j < h; ++j)
        for (int i = 0; i < w; ++i)
            if (at(i, j) == 1 && (at(i - 1, j) == 0 || at(i + 1, j) == 0 || at(i, j - 1) == 0 || at(i, j + 1) == 0))
                out.heat.setPixelColor(i, j, theme::colours().ink);
    return out;
}

}  // namespace yb
