// Pour, what the maker decides: how hot it may get, cups, form, colour. Every number is a starting value to be changed.
#pragma once

#include <string>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"

namespace yb {

namespace step_key {
inline constexpr Step pour{"pour"};
}

/// A divider across a river: what lies right of it (further along) is poured in a colour of its own.
struct Divider {
    int river = 1;    ///< counted from the right edge of the top
    double u_mm = 0;  ///< along the top, from its middle
    std::string colour;
    double pigment_g_kg = 0;
    bool operator==(const Divider&) const = default;
};

struct PourChoices {
    double peak_limit_c = 60;  ///< the upper end of the forecast stays below it
    bool fans = false;         ///< moving air over the form
    int lifts = 0;             ///< so many, whatever the heat; 0: as few as stay below the limit
    double after_mm = 0;       ///< planed off after the pour: it stands so much higher
    double cup_l = 4;          ///< the largest cup
    bool degas = false;        ///< in a vacuum pot, filled to half at most
    double pot_l = 10;         ///< of it
    double cup_loss_pct = 2;   ///< stays in each cup
    double mix_min = 6;        ///< to mix a batch
    double soak_ml_m2 = 80;    ///< drunk by the banks and the wood below
    double pigment_g_kg = 0;   ///< of the mix
    std::string colour;        ///< what it is called
    double sheet_mm = 18;      ///< bottom and sides of the form
    double rim_mm = 15;        ///< sides stand above the pour
    double tape_mm = 50;       ///< width of the tape that releases the form
    double clamp_n = 1500;     ///< what a clamp presses
    double slope_mm_m = 0;     ///< the form stands out of level
    double bearers_mm = 500;   ///< under the form's bottom, apart
    double overhang_mm = 0;    ///< the form hangs over its bench by so much at an end
    /// How high the form stands at its corners, from the left near one the way round, over any level; empty: not read. They stand above
    /// the slope.
    std::vector<std::optional<double>> corners_mm{};
    double night_c = 0;  ///< colder by night, the heater off
    std::vector<Divider> dividers;
    std::string second_colour;                          ///< stirred in when the first is a syrup
    double second_pct = 0;                              ///< of the last lift
    double panel_long_mm = 2500, panel_wide_mm = 1250;  ///< sheets that the form is cut from
    double roll_m = 50;                                 ///< tape on a roll
    double kerf_mm = 4;                                 ///< of the saw that cuts the sheets
    bool operator==(const PourChoices&) const = default;
};

inline constexpr auto pour_airs =
    school("pour.air", "fans", "Air over the form", &PourChoices::fans, Way{false, "still", "Still"}, Way{true, "fans", "Fans"});
inline constexpr auto pour_degas = school("pour.degas", "degas", "Bubbles", &PourChoices::degas,
                                          Way{false, "torch", "Slow resin and a torch"}, Way{true, "vacuum", "Vacuum pot"});

void fields(FieldVisitor& v, Divider& d);
void fields(FieldVisitor& v, PourChoices& c);

}  // namespace yb
