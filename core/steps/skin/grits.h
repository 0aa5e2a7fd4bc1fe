// Grits: how coarse each is, how far one may step, the ladder from what the cut left to where a finish stops.
//
// Mean particle sizes of FEPA P grits (ISO 6344), µm; a step takes out the scratches of the one before when the sizes' ratio is at
// most 1.65. Minutes are starting values of a 150 mm orbital sander, a maker's, to be changed and learned.
#pragma once

#include <optional>
#include <vector>

#include "core/steps/skin/choices.h"

namespace yb {

inline constexpr double widest_step = 1.65;  ///< between the sizes of two grits, at most
/// Sanders and abrasives of the shop; a maker's pace, to be changed. docs/methods.md, Skin.
struct Sanding {
    double felt_min_m2 = 40;    ///< the first grit where lanes can be felt
    double planed_min_m2 = 15;  ///< … on a planed face
    double after_min_m2 = 10;   ///< each grit after it
    double resin_times = 2;     ///< resin takes so many times that
    double edge_min_m = 3;      ///< along an edge by hand, a metre and grit
    double disc_m2 = 0.6;       ///< of wood a disc lasts
    bool disc_sander = false;   ///< grits coarser than 80 go by a disc sander
    double disc_times = 0.5;    ///< … in so much of the orbital one's time
    std::optional<double> disc_price{};
    bool operator==(const Sanding&) const = default;
};
void fields(FieldVisitor& v, Sanding& s);
inline constexpr double dries_h = 2;  ///< wetted, before the last grit

/// Mean particle size of a grit, µm; between the table's it is drawn out on log scales. Check: 120 → 125. @throws std::invalid_argument
/// outside 36 to 2000.
double grit_um(double grit);
/// The grits there are to buy, coarse first.
const std::vector<int>& grits_sold();
/// The fewest grits from one to another, both in it, no step wider than `widest_step`. Check: 40 to 240: 40 60 80 120 180 240. A first that
/// is as fine as the last or finer is the last alone. @throws std::invalid_argument outside 36 to 2000.
std::vector<double> ladder(double first, double last);
/// True where no step of it is too wide. @returns false with the place of the first that is in `at`.
bool steps_hold(const std::vector<double>& grits, std::size_t* at = nullptr);

/// Where wood is stopped for a finish: penetrating ones coarser, films finer; figured wood one grit finer.
int wood_stops_at(Finish finish, bool figured);
/// Where resin is: clear under a finish that hides nothing, dull enough for a film to hold on to.
int resin_stops_at(Finish finish);
/// The grit to begin with: lanes of the sled that can be felt (over 0.1 mm), a planed face, sawn edges and end grain one coarser.
int begins_at(double sled_step_mm, bool planed);

struct GritStep {
    double grit = 0;
    double minutes = 0;  ///< of one pair of hands
    double discs = 0;
    bool wetted = false;  ///< the grain is raised and has dried before it
};

}  // namespace yb
