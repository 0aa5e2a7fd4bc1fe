#include "core/ground/beam/beam.h"
#include "core/ground/measure/constants.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace yb {

namespace {

/// Linear between the points of a rising axis, level beyond.
double between(const std::vector<double>& x, const std::vector<double>& y, double at) {
    if (at <= x.front()) return y.front();
    if (at >= x.back()) return y.back();
    const auto k = static_cast<std::size_t>(std::upper_bound(x.begin(), x.end(), at) - x.begin());
    return y[k - 1] + (y[k] - y[k - 1]) * (at - x[k - 1]) / (x[k] - x[k - 1]);
}

}  // namespace

Plank plank_of(const Ring& outline, double thickness, double moe, double kg_m3, int places) {
    const Box box = bounds(outline);
    if (outline.size() < 3 || !(box.width() > 0)) throw std::invalid_argument("an outline of three points at least is wanted");
    Plank p;
    p.thickness_mm = thickness, p.moe_mpa = moe, p.kg_m3 = kg_m3;
    for (int i = 0; i < places; ++i) {
        const double x = box.low.x + box.width() * i / (places - 1);
        double wide = 0;
        for (const Span1 s : cut_at_x(outline, std::clamp(x, box.low.x + 1e-6, box.high.x - 1e-6))) wide += s.to - s.from;
        p.x_mm.push_back(x);
        p.width_mm.push_back(wide);
    }
    return p;
}

double Bent::at(double x) const { return x_mm.empty() ? 0 : between(x_mm, down_mm, x); }

double Bent::most_mm() const {
    double most = 0;
    for (const double d : down_mm)
        if (std::abs(d) > std::abs(most)) most = d;
    return most;
}

Bent bend(const Plank& p, double s1, double s2, const std::vector<Push>& pushes) {
    if (p.x_mm.size() < 2 || p.x_mm.size() != p.width_mm.size()) throw std::invalid_argument("a plank has two places at least");
    if (!(p.thickness_mm > 0) || !(p.moe_mpa > 0) || p.kg_m3 < 0) throw std::invalid_argument("thickness and stiffness have to be above 0");
    if (s1 > s2) std::swap(s1, s2);
    const double from = p.x_mm.front();
    const double to = p.x_mm.back();
    if (!(s2 - s1 > 1e-6)) throw std::invalid_argument("two supports at different places are wanted");
    if (s1 < from - 1e-9 || s2 > to + 1e-9) throw std::invalid_argument("a support stands off the wood");
    for (const Push& q : pushes)
        if (q.x_mm < from - 1e-9 || q.x_mm > to + 1e-9) throw std::invalid_argument("a push lies off the wood");

    // Places close enough that a step of either integral is as good as exact; supports and pushes are places of their own.
    std::vector<double> x;
    constexpr int fine = 1000;
    for (int i = 0; i <= fine; ++i) x.push_back(from + (to - from) * i / fine);
    x.push_back(s1), x.push_back(s2);
    for (const Push& q : pushes) x.push_back(std::clamp(q.x_mm, from, to));
    std::sort(x.begin(), x.end());
    x.erase(std::unique(x.begin(), x.end(), [](double a, double b) { return b - a < 1e-9; }), x.end());
    const std::size_t n = x.size();
    const double per_mm2 = p.kg_m3 * 1e-9 * gravity_m_s2 * p.thickness_mm;  // N per mm of length and mm of width
    std::vector<double> width(n);
    for (std::size_t i = 0; i < n; ++i) width[i] = between(p.x_mm, p.width_mm, x[i]);

    // Shear and moment of the own weight from the left end: both exact for a width that is straight between places.
    std::vector<double> shear(n, 0), moment(n, 0);
    for (std::size_t i = 1; i < n; ++i) {
        const double h = x[i] - x[i - 1];
        const double a = width[i - 1] * per_mm2;
        const double b = width[i] * per_mm2;
        shear[i] = shear[i - 1] + h * (a + b) / 2;
        moment[i] = moment[i - 1] + h * shear[i - 1] + h * h * (2 * a + b) / 6;
    }
    double weight = shear.back();
    double about_s1 = shear.back() * (to - s1) - moment.back();  // Σ q·(x − s1)
    for (const Push& q : pushes) weight += q.n, about_s1 += q.n * (q.x_mm - s1);
    const double r2 = about_s1 / (s2 - s1);
    const double r1 = weight - r2;

    // y'' = −M/(E·I), sagging moments positive.
    std::vector<double> bending(n);
    for (std::size_t i = 0; i < n; ++i) {
        double m = -moment[i] + r1 * std::max(0.0, x[i] - s1) + r2 * std::max(0.0, x[i] - s2);
        for (const Push& q : pushes) m -= q.n * std::max(0.0, x[i] - q.x_mm);
        const double inertia = std::max(1e-6, width[i]) * std::pow(p.thickness_mm, 3) / 12;
        bending[i] = -m / (p.moe_mpa * inertia);
    }
    Bent out;
    out.x_mm = x;
    out.down_mm.assign(n, 0);
    double slope = 0;
    for (std::size_t i = 1; i < n; ++i) {
        const double h = x[i] - x[i - 1];
        out.down_mm[i] = out.down_mm[i - 1] + h * slope + h * h * (2 * bending[i - 1] + bending[i]) / 6;
        slope += h * (bending[i - 1] + bending[i]) / 2;
    }
    // Both supports stay where they are.
    const double d1 = out.at(s1);
    const double d2 = out.at(s2);
    for (std::size_t i = 0; i < n; ++i) out.down_mm[i] -= d1 + (d2 - d1) * (x[i] - s1) / (s2 - s1);
    return out;
}

}  // namespace yb
