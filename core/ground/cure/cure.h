// Cure: how a resin sets and how hot it gets – in a cup, and poured between wood on a form's bottom.
//
// dα/dt = A·exp(−E/(R·T))·(α₀ + α^m)(1 − α)^n, heat ρ·H·dα/dt, conduction through resin, wood and form, convection at the faces.
// Constants and check values: docs/methods.md, Pour. A resin is a class fitted to what its label says, not a product; the model has
// no glass transition, so a cold full cure is "at least". Lengths in mm, times in h, temperatures in °C unless a name says otherwise.
#pragma once

#include <optional>
#include <vector>

namespace yb {

/// Syrup: a second colour stays where it is put. Gel: it no longer flows. Tacky until the last: another lift still bonds.
inline constexpr double syrup_alpha = 0.25, gel_alpha = 0.55, tacky_alpha = 0.75, cured_alpha = 0.95;

/// A resin as the model knows it.
struct Kinetics {
    double gel_25_h = 14;     ///< isothermal time to gel at 25 °C: it fixes A
    double heat_kj_kg = 350;  ///< H
    double kg_m3 = 1100;
    bool operator==(const Kinetics&) const = default;
    double per_s() const;                            ///< A, 1/s
    double rate(double alpha, double temp_c) const;  ///< dα/dt, 1/s
    double rise_c() const;                           ///< H/c: with no loss at all
};
/// exp(−E/(R·T)), E = 55 kJ/mol: how fast resin cures at a temperature, beside how fast at another.
double cure_rate_at(double temp_c);
/// Time to gel in h when it is held at a temperature.
double isothermal_gel_h(const Kinetics& k, double temp_c);

/// Time to any degree of cure from 0 to below 1 when it is held at a temperature, h: ∫ dα/rate, Simpson.
/// @throws std::invalid_argument for a degree outside.
double isothermal_h(const Kinetics& k, double alpha, double temp_c);

/// A cup that heats itself: m·c·dT/dt = m·H·dα/dt − h·A·(T − air), h 10 W/m²K, all at the air's temperature to begin with.
struct Cup {
    double mass_g = 500;
    double surface_cm2 = 0;  ///< 0: a cup as high as wide
    double air_c = 25;
};
struct CupLife {
    double pot_life_h = 0;  ///< to gel
    double temp_c = 0;      ///< then
};
/// @throws std::invalid_argument for a mass not above 0.
CupLife pot_life(const Kinetics& k, const Cup& cup);
/// The isothermal gel time at 25 °C with which this cup gels in the time its label says; between 0.05 and 500 h.
double gel_25_for(double pot_life_h, const Cup& cup, double heat_kj_kg, double kg_m3 = 1100);

/// A pour: resin so deep on a board, bare on top; with a width between two wooden banks as high as the resin is deep, the board under
/// all of it. h on top, below and at the outer sides.
struct Section {
    double depth_mm = 50;
    double air_c = 20;
    double width_mm = 0;  ///< 0: one dimension, as wide as you like
    double banks_mm = 200;
    double board_mm = 18;   ///< 0: none
    double h = 8;           ///< W/m²K
    double night_c = 0;     ///< the air is so much colder from 12 h to 24 h after each noon: poured in the morning
    double start_c = -300;  ///< of all there is; below −273: the air's
    double most_h = 600;    ///< how long it is followed
    bool operator==(const Section&) const = default;
};

/// Heat and cure over the section at one time: half of it, from the middle of the resin outward, from the board's underside up.
struct CureFrame {
    double h = 0;
    std::vector<double> temp_c, alpha;  ///< [i · z.size() + j] at (x[i], z[j]); α is 0 in wood
};

struct Cured {
    double peak_c = 0, peak_h = 0;
    double peak_x_mm = 0, peak_z_mm = 0;            ///< where, z from the resin's underside
    std::optional<double> syrup_h, gel_h, tacky_h;  ///< the middle of the top surface gets there
    std::optional<double> cured_h;                  ///< all of the section does
    double rise_c = 0;
    double energy_error_pct = 0;  ///< of heat set free, not found in what is stored and what has gone
    std::vector<double> x, z;     ///< of the frames
    std::vector<CureFrame> frames;
    int steps = 0;
};

/// How fine, and whether frames are kept. 1: converged to the check values; 3 is quick, within 2 %.
struct CureOrder {
    double coarse = 1;
    int frames = 0;  ///< so many at most, evenly over the time until it is cured or followed
};
/// @throws std::invalid_argument for a depth, width, bank or h that is not above 0 (a width of 0 means one dimension).
Cured cure(const Kinetics& k, const Section& s, const CureOrder& order = {});

/// The hottest place of the resin at one of the frames: where a thermocouple is put. @throws std::out_of_range.
double resin_hottest_c(const Cured& cured, const Section& section, std::size_t frame);

/// Lifts one upon the other, in one dimension: each poured when the surface of the one before has gelled.
struct LiftCure {
    double poured_h = 0;            ///< after the first
    double peak_c = 0, peak_h = 0;  ///< in the lift, or in what lies below it since it was poured; hours since it was poured
    std::optional<double> syrup_h, gel_h, tacky_h;  ///< of its surface, since it was poured: the next goes in from gel to tacky
};
std::vector<LiftCure> cure_lifts(const Kinetics& k, const Section& s, const std::vector<double>& depths_mm, const CureOrder& order = {});

/// How far a resin creeps under tape or through a slit before it gels, mm: δ·√(ρ·g·h·t/(6·μ)). An estimate.
/// Check: δ 0.1 mm, head 40 mm, 0.3 Pa·s, 12 h → 322 mm.
double creep_mm(double slit_mm, double head_mm, double pa_s, double gel_h, double kg_m3 = 1100);

}  // namespace yb
