// The classes of resin on the shelf: what their labels say.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"

namespace yb {

/// A class of resin, not a product: what a label says. Starting values, to be typed over.
struct Resin {
    std::string key, label;
    double gel_25_h = 14;                                  ///< isothermal time to gel at 25 °C
    double deepest_mm = 13;                                ///< deepest lift the label allows
    double parts_a = 2, parts_b = 1;                       ///< by volume
    double density_a = 1.14, density_b = 1.0;              ///< g/mL
    bool thin = false;                                     ///< runs through gaps in tape
    std::optional<double> price_l{};                       ///< of a litre mixed; empty: not said
    double heat_kj_kg = 350;                               ///< set free by curing
    double pa_s = 1;                                       ///< viscosity mixed, Pa·s
    std::optional<double> pot_life_h{};                    ///< as the label says; its gel time is fitted to it
    double pot_g = 500;                                    ///< mass it was measured on
    double low_c = 15, high_c = 30;                        ///< air the label allows
    std::optional<double> kit_l{};                         ///< sold in kits of so much mixed
    std::optional<double> left_l{};                        ///< on the shelf
    bool by_mass = false;                                  ///< the label mixes by mass: parts A and B are masses
    std::optional<double> recoat_from_h{}, recoat_to_h{};  ///< another lift bonds without sanding, as the label says
    std::optional<double> sand_h{}, cured_h{};             ///< it can be sanded, it is cured: as the label says
    std::string colour{};                                  ///< as it comes
    bool soaks = false;                                    ///< so thin that it goes into soft wood and hardens it
    bool solid = false;                                    ///< a stick or paste: nothing is mixed, nothing runs
    bool operator==(const Resin&) const = default;
    /// Of the mix, kg/L.
    double mixed_density() const { return (volume_a() * density_a + volume_b() * density_b) / (volume_a() + volume_b()); }
    /// Parts by volume, whichever way the label mixes.
    double volume_a() const { return by_mass ? parts_a / density_a : parts_a; }
    double volume_b() const { return by_mass ? parts_b / density_b : parts_b; }
};

/// The starting classes: slow deep casting, medium casting, coating, quick structural, penetrating, thin glue with accelerator,
/// filler stick, wood filler.
const std::vector<Resin>& starting_resins();

void fields(FieldVisitor& v, Resin& r);

}  // namespace yb
