// A resin as it is used: what its label's parts come to, how it sets, which one a river is poured of. Fill and Pour ask here, so
// that one label gives one mix and one cure.
#pragma once

#include <string>
#include <vector>

#include "core/ground/cure/cure.h"
#include "core/ground/figure/figure.h"
#include "core/material/resin/resin.h"

namespace yb {

/// So many litres of mix in parts, for a lift or a batch.
struct Mixed {
    double volume_l = 0;
    double a_l = 0, b_l = 0;    ///< parts by volume
    double a_kg = 0, b_kg = 0;  ///< parts by mass
};
/// A : B by volume, whichever way the label mixes: r_v : 1 by volume is r_v·ρ_A/ρ_B : 1 by mass.
/// Check: 100 : 45 by mass is 2.222 : 1 by mass.
Mixed mixed(const Resin& resin, double volume_l);

/// The label's parts as the label has them: "100 to 45 by weight", "2 to 1 by volume"; empty for what comes in one part.
Phrase parts_of(const Resin& resin);

/// How a resin of the shelf cures: its gel time, or the one its pot life is fitted with.
Kinetics kinetics_of(const Resin& resin);

/// Time to gel in h at `temp_c`: that at 25 °C · exp(E/R · (1/T − 1/298.15)), E = 55 kJ/mol (Arrhenius), of kinetics_of().
double gel_hours(const Resin& resin, double temp_c);

/// The resin a river is poured of: the one chosen, otherwise the class that takes the deepest lift.
/// @throws std::invalid_argument for no resins.
const Resin& river_resin(const std::vector<Resin>& resins, const std::string& chosen);

/// The resin of that key; nullptr where the shelf has none.
const Resin* find_resin(const std::vector<Resin>& resins, const std::string& key);

}  // namespace yb
