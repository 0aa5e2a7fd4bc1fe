// Wood and moisture: species data, equilibrium moisture content, movement across the grain, mass.
//
// Sources: Wood Handbook (FPL-GTR-190), tables 4-3 and 5-3a (species), eq. 4-5 (equilibrium moisture),
// eq. 13-3 (change of a dimension). Moisture is percent of the oven-dry mass throughout.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace yb {

/// One row of the species table. An empty optional means that the handbook gives no figure: callers say so.
struct Species {
    std::string name;
    std::string botanical;
    std::optional<double> shrink_radial_pct;      ///< green to oven-dry
    std::optional<double> shrink_tangential_pct;  ///< green to oven-dry
    std::optional<double> specific_gravity_12;    ///< oven-dry mass over volume at 12 %
    std::optional<double> moe_mpa;                ///< along the grain at 12 %
    std::string dust;                             ///< "cancer", "suspected", "sensitises", or nothing beyond what all wood dust does
};

/// All species, in the order of the table.
const std::vector<Species>& all_species();

/// The species of that name, or nullptr.
const Species* find_species(std::string_view name);

/// Equilibrium moisture content in percent of air at `temp_c` (°C) and `rh_pct` (percent).
/// Wood Handbook eq. 4-5. Check: 21.1 °C and 50 % → 9.24 %; 10 °C and 80 % → 16.38 %.
/// @throws std::invalid_argument outside 0–100 % or −40–100 °C.
double equilibrium_moisture(double temp_c, double rh_pct);

/// Moisture of wood from what a pin meter shows, percent: ((R + 0.567 − 0.0260·T + 0.000051·T²)/(0.881·1.0056^T) − b)/a, T the wood's
/// temperature in °C (Pfaff and Garrahan, 1986); a and b of the species as the meter's own booklet has them, 1 and 0 for the one it is made
/// for. Check: 12 % shown at 20 °C → 12.25 %, at 0 °C → 14.26 %. An estimate within the meter's own. @throws std::invalid_argument for a
/// slope of nothing, or what is no number.
double meter_moisture(double shows_pct, double wood_c, double a = 1, double b = 0);

/// Change in mm of a dimension `width_mm` across the grain when moisture goes from `from_mc` to `to_mc`
/// percent, for a total shrinkage of `shrinkage_pct` in that direction. Wood Handbook eq. 13-3, valid below
/// about 30 %; positive is wider. Check: 1000 mm black cherry, tangential, 7 → 11 %: 10.01 mm.
/// @throws std::invalid_argument for a moisture outside 0–30 % or a shrinkage that is not positive.
double movement(double width_mm, double shrinkage_pct, double from_mc, double to_mc);

/// How a board's rings stand in its width, where nobody knows the pith: along it, slanting, or across its thickness.
enum class Sawn { flat, rift, quarter };

/// Shrinkage across the width of a flat slab, in percent, averaged from `y0` to `y1` (mm from the line above
/// the pith), at `pith_mm` from the pith to the middle of the slab. With tan φ = y/h,
/// S(φ) = S_T cos²φ + S_R sin²φ integrates to S_R·y + (S_T − S_R)·h·atan(y/h).
/// Without `pith_mm` it goes by how the slab was sawn: flat tangential – the most it can be –, quarter radial, rift half of each
/// (rings at 45° everywhere).
double shrinkage_across(const Species& species, std::optional<double> pith_mm, double y0, double y1, Sawn sawn = Sawn::flat);

/// Density in kg/m³ at moisture `mc_pct`: 1000·G12·(1 + M/100).
double density(double specific_gravity_12, double mc_pct);

/// Air through a year: mean temperature and relative humidity of each month, January first.
struct Month {
    double temp_c = 20;
    double rh_pct = 50;
    bool operator==(const Month&) const = default;
};
struct Climate {
    std::string name;
    std::array<Month, 12> months{};
    bool operator==(const Climate&) const = default;
    Climate() = default;
    Climate(std::string n, std::array<Month, 12> m) : name(std::move(n)), months(m) {}
};

/// A few made-up generic climates to start from; a maker types their own months over them.
const std::vector<Climate>& generic_climates();

class FieldVisitor;
void fields(FieldVisitor& v, Month& m);
void fields(FieldVisitor& v, Climate& c);

/// What wood settles at in this air, percent: the mean of its months' equilibrium.
double settles_at(const Climate& climate);

/// Driest and dampest month of a climate, as equilibrium moisture.
struct MoistureRange {
    double low_pct = 0, high_pct = 0;
    int low_month = 0, high_month = 0;  ///< 0 is January
};
MoistureRange moisture_range(const Climate& climate);

const char* month_name(int month);

}  // namespace yb
