// Fill: cracks and voids after flattening. What volume is left, which class of resin, how many lifts, how
// much of each part.
//
// A void has the outline drawn on its face and narrows straight towards its floor, whose width is
// `floor_share` of its mouth; the area at a depth is then quadratic and Simpson's rule exact. Flattening
// takes the mouth away down to the finished plane.
#pragma once

#include <string>
#include <vector>

#include "core/figure/figure.h"
#include "core/flat/flat.h"

namespace yb {

/// A class of resin, not a product: what a label says. Starting values, to be typed over.
struct Resin {
    std::string key, label;
    double gel_25_h = 14;                      ///< isothermal time to gel at 25 °C
    double deepest_mm = 13;                    ///< deepest lift the label allows
    double parts_a = 2, parts_b = 1;           ///< by volume
    double density_a = 1.14, density_b = 1.0;  ///< g/mL
    bool thin = false;                         ///< runs through gaps in tape
    bool operator==(const Resin&) const = default;
    double mixed_density() const { return (parts_a * density_a + parts_b * density_b) / (parts_a + parts_b); }
};

/// The four starting classes: slow deep casting, medium casting, coating, quick structural.
const std::vector<Resin>& starting_resins();

/// The class a river is poured of: the one that takes the deepest lift. @throws std::invalid_argument for none.
const Resin& river_resin(const std::vector<Resin>& resins);

/// Time to gel in h at `temp_c`: gel_25 · exp(E/R · (1/T − 1/298.15)), E = 55 kJ/mol (Arrhenius).
double gel_hours(const Resin& resin, double temp_c);

/// What is done with one flaw.
struct VoidFill {
    std::string flaw_id;
    std::string resin;  ///< a resin's key; empty takes the advice
    bool leave_open = false;
    bool operator==(const VoidFill&) const = default;
};

struct FillChoices {
    double overfill_mm = 1.5;  ///< stands proud for shrinkage and levelling
    double reserve_pct = 10;   ///< stays in the cup and soaks in
    bool operator==(const FillChoices&) const = default;
};

struct FillInputs {
    const Slab& slab;
    const SlabShape& shape;
    const LayPlan& lay;
    const FlatPlan& flat;
    FillChoices choices;
    std::vector<Resin> resins;
    double shop_c = 18;
    std::vector<VoidFill> voids{};  ///< what the maker chose; flaws not named here take the advice
};

struct Lift {
    double depth_mm = 0;
    double volume_l = 0;        ///< with reserve; the last with the overfill too
    double a_l = 0, b_l = 0;    ///< parts by volume
    double a_kg = 0, b_kg = 0;  ///< parts by mass
    double wait_h = 0;          ///< until the next, or until it can be levelled
};

struct VoidPlan {
    std::size_t flaw = 0;  ///< index in Slab::flaws
    Vec2 at;
    double depth_mm = 0;    ///< left after flattening
    double gap_mm = 0;      ///< mean width of the mouth: area over half its girth
    double volume_l = 0;    ///< to fill flush, no reserve
    bool through = false;   ///< open on both finished faces
    bool runs_out = false;  ///< leaves the top at its edge: needs a dam
    bool gone = false;      ///< flattening takes it away whole
    bool left_open = false;
    std::string advised, resin;  ///< keys
    std::vector<Lift> lifts;
    double mass_kg = 0;  ///< of resin that stays in the top
};

/// Choices have the key `fill.<flaw id>`, one for each void.
struct FillPlan : StepPlan {
    std::vector<VoidPlan> voids;        ///< one for each flaw inside the top that can be filled
    double volume_l = 0;                ///< flush, all voids
    double mixed_l = 0;                 ///< to mix, with overfill and reserve
    double open_l = 0;                  ///< of voids left open
    double mass_kg = 0;                 ///< resin that stays in the top
    double hands_on_h = 0, wait_h = 0;  ///< rounds one after another; voids side by side
    int rounds = 0;
};

FillPlan plan_fill(const FillInputs& in);

/// Volume in litres of a void with mouth area `mouth_mm2`, full depth `depth_mm` and floor share, between
/// two depths below its face. Prismatoid, exact.
double void_litres(double mouth_mm2, double depth_mm, double floor_share, double from_mm, double to_mm);

/// The class to take for a void of this depth, gap and openness.
std::string advised_resin(double depth_mm, double gap_mm, bool through);

}  // namespace yb
