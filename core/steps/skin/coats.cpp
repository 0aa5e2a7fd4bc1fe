#include "core/steps/skin/coats.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace yb {

const FinishClass& class_of(Finish finish) {
    // A maker's starting values and what labels of such classes commonly say; change them by your own label.
    static const std::array<FinishClass, 10> all{{
        {Finish::hardwax, 35, 15, 2, 3, 1, 5, 15, 2.5, 4, 36, 0, 36, 168, 12, 28, true, false, true, false, 0, 12, 12},
        {Finish::tinted, 35, 15, 2, 3, 1, 5, 15, 2.5, 4, 36, 0, 36, 168, 12, 28, true, false, true, false, 0, 12, 12},
        {Finish::drying_oil, 55, 30, 3, 1, 0, 20, 45, 2.5, 4, 24, 0, 48, 720, 10, 30, true, false, true, false, 0, 20, 6},
        {Finish::wiping, 40, 30, 4, 1, 0, 0, 12, 3, 0, 12, 48, 24, 504, 12, 28, false, true, true, false, 400, 0, 0},
        {Finish::brushed, 90, 90, 3, 1, 0, 0, 12, 6, 0, 8, 36, 48, 168, 12, 28, false, true, false, false, 400, 0, 0},
        {Finish::sprayed, 160, 160, 3, 10, 1, 0, 20, 2, 0, 2, 24, 24, 168, 15, 28, false, true, false, false, 400, 0, 0},
        {Finish::flood, 1600, 1600, 2, 2, 1, 0, 30, 5, 0, 4, 24, 72, 168, 18, 28, false, true, false, true, 0, 0, 0},
        {Finish::oil_hardcoat, 35, 90, 3, 3, 1, 5, 15, 2.5, 4, 72, 0, 72, 336, 15, 28, true, true, true, false, 400, 0, 0},
        {Finish::soap, 80, 60, 3, 1, 0, 3, 15, 2, 2, 6, 0, 12, 72, 10, 30, true, false, false, false, 0, 60, 3},
        {Finish::shellac, 60, 60, 4, 1, 0, 0, 5, 4, 0, 2, 0, 12, 72, 12, 28, false, true, false, false, 400, 0, 0},
    }};
    return all.at(static_cast<std::size_t>(finish));
}

double stretched(double air_c) { return std::clamp(std::pow(2.0, (20 - air_c) / 10), 0.25, 8.0); }

double zone_m2(double s, double w, double p, double q) {
    if (!(p > 0) || q < 0) throw std::invalid_argument("what is put on takes some minutes a square metre");
    if (!(w > 0)) return 0;
    if (q == 0) return w / p;
    if (w <= s) return 0;
    const double soaking = (w - s) / q;
    return p * soaking <= s ? soaking : w / (p + q);
}

std::vector<ZonePiece> zones_of(const std::vector<Ring>& face, double m2, double most) {
    std::vector<ZonePiece> out;
    double whole = 0;
    Box box{{1e300, 1e300}, {-1e300, -1e300}};
    for (const Ring& r : face) {
        whole += area(r) * 1e-6;
        const Box b = bounds(r);
        box.low = {std::min(box.low.x, b.low.x), std::min(box.low.y, b.low.y)};
        box.high = {std::max(box.high.x, b.high.x), std::max(box.high.y, b.high.y)};
    }
    if (!(whole > 0) || !(m2 > 0)) return out;
    constexpr int too_many = 400;
    const int n = most > 0 ? std::clamp(static_cast<int>(std::ceil(m2 / most - 1e-9)), 1, too_many) : 1;
    if (n == 1) {
        for (const Ring& r : face) out.push_back({1, r});
        return out;
    }
    // Lines across, so that each stretch has the same share: areas left of a line rise with it.
    const auto left_of = [&](double u) {
        double sum = 0;
        for (const Ring& r : face) sum += intersection_area(r, {{box.low.x - 1, box.low.y - 1}, {u, box.low.y - 1}, {u, box.high.y + 1}, {box.low.x - 1, box.high.y + 1}});
        return sum * 1e-6;
    };
    std::vector<double> at{box.low.x - 1};
    for (int k = 1; k < n; ++k) {
        double low = at.back();
        double high = box.high.x;
        for (int i = 0; i < 40 && high - low > 0.01; ++i) {
            const double mid = (low + high) / 2;
            (left_of(mid) < whole * k / n ? low : high) = mid;
        }
        at.push_back((low + high) / 2);
    }
    at.push_back(box.high.x + 1);
    for (int k = 0; k < n; ++k)
        for (const Ring& r : face)
            for (Ring& part : intersection(r, {{at[static_cast<std::size_t>(k)], box.low.y - 1},
                                               {at[static_cast<std::size_t>(k) + 1], box.low.y - 1},
                                               {at[static_cast<std::size_t>(k) + 1], box.high.y + 1},
                                               {at[static_cast<std::size_t>(k)], box.high.y + 1}}))
                out.push_back({k + 1, std::move(part)});
    return out;
}

}  // namespace yb
