// What a resin does by itself: rate of cure, gel held at a temperature, a cup that heats itself, the fit to a label.
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include <boost/numeric/odeint/stepper/controlled_runge_kutta.hpp>
#include <boost/numeric/odeint/stepper/dense_output_runge_kutta.hpp>
#include <boost/numeric/odeint/stepper/generation.hpp>
#include <boost/numeric/odeint/stepper/runge_kutta_dopri5.hpp>

#include "core/ground/cure/cure.h"
#include "core/ground/cure/law.h"
#include "core/ground/work/kept.h"

namespace yb {

using namespace cure_law;

namespace {

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

double Kinetics::per_s() const { return to_gel() / (gel_25_h * 3600) / warmth(25); }

double Kinetics::rate(double alpha, double temp_c) const { return per_s() * warmth(temp_c) * shape(alpha); }

double Kinetics::rise_c() const { return heat_kj_kg * 1000 / j_kg_k; }

double cure_rate_at(double temp_c) { return warmth(temp_c); }

double isothermal_gel_h(const Kinetics& k, double temp_c) { return to_gel() / (k.per_s() * warmth(temp_c)) / 3600; }

double isothermal_h(const Kinetics& k, double alpha, double temp_c) {
    if (!(alpha >= 0) || !(alpha < 1)) throw std::invalid_argument("a degree of cure lies from 0 to below 1");
    static Kept<double, double> known(32);  // the same few degrees are asked for again and again
    return known.answer(alpha, [&] { return to_degree(alpha); }) / (k.per_s() * warmth(temp_c)) / 3600;
}

CupLife pot_life(const Kinetics& k, const Cup& cup) {
    if (!(cup.mass_g > 0) || !(k.gel_25_h > 0)) throw std::invalid_argument("a cup has something in it, and a resin gels");
    const double kg = cup.mass_g / 1000;
    const double d = std::cbrt(4 * kg / k.kg_m3 / std::numbers::pi);
    const double m2 = cup.surface_cm2 > 0 ? cup.surface_cm2 * 1e-4 : 1.5 * std::numbers::pi * d * d;
    const double loss = 10 * m2 / (kg * j_kg_k);  // 1/s
    const double per_s = k.per_s();
    const double rise = k.rise_c();
    // The degree of cure and the temperature, followed by Dormand and Prince's method with its dense output; gel is found within a step.
    using State = std::array<double, 2>;
    namespace odeint = boost::numeric::odeint;
    const auto slope = [&](const State& x, State& dx, double) {
        dx[0] = per_s * warmth(x[1]) * shape(x[0]);
        dx[1] = rise * dx[0] - loss * (x[1] - cup.air_c);
    };
    constexpr double longest_s = 2000 * 3600.0;
    auto way = odeint::make_dense_output(1e-9, 1e-9, odeint::runge_kutta_dopri5<State>());
    way.initialize(State{0, cup.air_c}, 0, 1);
    while (way.current_state()[0] < gel_alpha && way.current_time() < longest_s) way.do_step(slope);
    double low = way.previous_time();
    double high = way.current_time();
    State at = way.current_state();
    for (int i = 0; i < 60 && at[0] >= gel_alpha; ++i) {
        const double mid = (low + high) / 2;
        State there;
        way.calc_state(mid, there);
        (there[0] < gel_alpha ? low : high) = mid;
    }
    way.calc_state(high, at);
    const double t = std::min(high, longest_s);
    const double temp = at[1];
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
    return slit_mm * std::sqrt(kg_m3 * gravity_m_s2 * head_mm / 1000 * gel_h * 3600 / (6 * pa_s));
}

}  // namespace yb
