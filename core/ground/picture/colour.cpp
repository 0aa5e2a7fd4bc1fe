#include "core/ground/picture/colour.h"

#include <algorithm>
#include <cmath>

namespace yb {

Lab lab_of(double red, double green, double blue) {
    const auto linear = [](double v) {
        const double s = std::clamp(v / 255, 0.0, 1.0);
        return s <= 0.04045 ? s / 12.92 : std::pow((s + 0.055) / 1.055, 2.4);
    };
    const double r = linear(red);
    const double g = linear(green);
    const double b = linear(blue);
    // To XYZ over the white point of D65.
    const double x = (0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / 0.95047;
    const double y = 0.2126729 * r + 0.7151522 * g + 0.0721750 * b;
    const double z = (0.0193339 * r + 0.1191920 * g + 0.9503041 * b) / 1.08883;
    const auto f = [](double t) { return t > 216.0 / 24389 ? std::cbrt(t) : (24389.0 / 27 * t + 16) / 116; };
    return {116 * f(y) - 16, 500 * (f(x) - f(y)), 200 * (f(y) - f(z))};
}

double colour_difference(const Lab& p, const Lab& q) { return std::hypot(p.l - q.l, p.a - q.a, p.b - q.b); }

std::optional<Lab> mean_colour(const Picture& picture, double x, double y, double r) {
    const int x0 = std::max(0, static_cast<int>(std::ceil(x - r)));
    const int x1 = std::min(picture.width - 1, static_cast<int>(std::floor(x + r)));
    const int y0 = std::max(0, static_cast<int>(std::ceil(y - r)));
    const int y1 = std::min(picture.height - 1, static_cast<int>(std::floor(y + r)));
    if (x0 > x1 || y0 > y1) return {};
    double sum[3]{};
    for (int j = y0; j <= y1; ++j)
        for (int i = x0; i <= x1; ++i)
            for (int k = 0; k < 3; ++k) sum[k] += picture.at(i, j)[k];
    const double n = static_cast<double>(x1 - x0 + 1) * (y1 - y0 + 1);
    return lab_of(sum[0] / n, sum[1] / n, sum[2] / n);
}

}  // namespace yb
