// What a resin does by itself: rate of cure, gel held at a temperature, a cup that heats itself, the fit to a label.
#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/cure/cure.h"

namespace yb {

namespace {

constexpr double e_over_r = 55000 / 8.314462618;
constexpr double zero_c = 273.15;
constexpr double alpha_0 = 0.02;
constexpr double m = 0.9;
constexpr double n = 1.6;
constexpr double j_kg_k = 1900;

double shape(double a) {
    const double left = std::max(0.0, 1 - a);
    return (alpha_0 + std::pow(std::max(0.0, a), m)) * std::pow(left, n);
}

/// ∫ dα/((α₀ + α^m)(1 − α)^n) from 0 to a degree: Simpson's rule on α = s², which takes the steep start out.
double to_degree(double alpha) {
    constexpr int steps = 4000;
    const double end = std::sqrt(alpha);
    double sum = 0;
    for (int i = 0; i <= steps; ++i) {
        const double s = end * i / steps;
        sum += (i == 0 || i == steps ? 1 : i % 2 ? 4 : 2) * 2 * s / shape(s * s);
    }
    return sum * end / steps / 3;
}

double to_gel() {
    static const double value = to_degree(gel_alpha);
    return value;
}

}  // namespace

double Kinetics::per_s() const { return to_gel() / (gel_25_h * 3600) * std::exp(e_over_r / (25 + zero_c)); }

double Kinetics::rate(double alpha, double temp_c) const { return per_s() * std::exp(-e_over_r / (temp_c + zero_c)) * shape(alpha); }

double Kinetics::rise_c() const { return heat_kj_kg * 1000 / j_kg_k; }

double isothermal_gel_h(const Kinetics& k, double temp_c) {
    return to_gel() / (k.per_s() * std::exp(-e_over_r / (temp_c + zero_c))) / 3600;
}

double isothermal_h(const Kinetics& k, double alpha, double temp_c) {
    if (!(alpha >= 0) || !(alpha < 1)) throw std::invalid_argument("a degree of cure lies from 0 to below 1");
    return to_degree(alpha) / (k.per_s() * std::exp(-e_over_r / (temp_c + zero_c))) / 3600;
}

CupLife pot_life(const Kinetics& k, const Cup& cup) {
    if (!(cup.mass_g > 0) || !(k.gel_25_h > 0)) throw std::invalid_argument("a cup has something in it, and a resin gels");
    const double kg = cup.mass_g / 1000;
    const double d = std::cbrt(4 * kg / k.kg_m3 / std::numbers::pi);
    const double m2 = cup.surface_cm2 > 0 ? cup.surface_cm2 * 1e-4 : 1.5 * std::numbers::pi * d * d;
    const double loss = 10 * m2 / (kg * j_kg_k);  // 1/s
    const double per_s = k.per_s();
    const double rise = k.rise_c();
    // Fourth order Runge and Kutta, no step that cures more than two thousandths.
    double t = 0;
    double temp = cup.air_c;
    double a = 0;
    const auto slope = [&](double alpha, double at) {
        const double r = per_s * std::exp(-e_over_r / (at + zero_c)) * shape(alpha);
        return std::pair(r, rise * r - loss * (at - cup.air_c));
    };
    while (a < gel_alpha && t < 2000 * 3600.0) {
        const auto [r, s] = slope(a, temp);
        const double dt = std::min({0.002 / std::max(r, 1e-12), 0.5 / std::max(std::abs(s), 1e-9), 0.2 / loss});
        const auto [r2, s2] = slope(a + dt / 2 * r, temp + dt / 2 * s);
        const auto [r3, s3] = slope(a + dt / 2 * r2, temp + dt / 2 * s2);
        const auto [r4, s4] = slope(a + dt * r3, temp + dt * s3);
        const double da = dt / 6 * (r + 2 * r2 + 2 * r3 + r4);
        const double ds = dt / 6 * (s + 2 * s2 + 2 * s3 + s4);
        const double share = a + da > gel_alpha ? (gel_alpha - a) / da : 1;
        a += share * da, temp += share * ds, t += share * dt;
        if (share < 1) break;
    }
    return {t / 3600, temp};
}

double gel_25_for(double pot_life_h, const Cup& cup, double heat, double kg_m3) {
    double low = std::log(0.05);
    double high = std::log(500.0);
    for (int i = 0; i < 50; ++i) {
        const double mid = (low + high) / 2;
        (pot_life({std::exp(mid), heat, kg_m3}, cup).pot_life_h < pot_life_h ? low : high) = mid;
    }
    return std::exp((low + high) / 2);
}

double creep_mm(double slit_mm, double head_mm, double pa_s, double gel_h, double kg_m3) {
    constexpr double gravity = 9.80665;
    return slit_mm * std::sqrt(kg_m3 * gravity * head_mm / 1000 * gel_h * 3600 / (6 * pa_s));
}

}  // namespace yb
