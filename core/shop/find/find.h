// Find: from the whole rack and the wanted top, what could be made, ranked by what the maker cares about.
//
// Every slab is tried alone; slabs of one tree are tried as pairs, opened and drawn out, as three or four boards in the order they
// were sawn, and as rivers. Each candidate first gets a bound: the best score it could have, from its means alone. The
// most promising is then laid out exactly (branch and bound over its place and angle), flattened inside the outline (the
// linear program of flat/tilt.h) and scored; the search ends when no bound reaches the worst result kept. Rivers among the
// results are then planned whole: their litres and weight are the real top's.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/ground/work/work.h"
#include "core/steps/flat/choices.h"
#include "core/steps/lay/choices.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/makeup/choices.h"

namespace yb {

struct Documents;
struct Job;
struct Shop;

/// How much each thing matters, 0 not at all to 1 most.
struct FindWeights {
    double thickness = 0.5;  ///< what it finishes at, against what is wanted
    double waste = 0.5;      ///< wood given up
    double likeness = 0.5;   ///< of the figure across a joint
    double flaws = 0.5;      ///< cracks, rot, knots inside
    double resin = 0.3;      ///< to be poured
    double weight = 0.2;
    double moisture = 0.4;  ///< above what the room wants
    double money = 0.4;
};

/// What is dry enough in a job and a shop where nothing was set.
double usual_dry_pct();

struct FindOrder {
    WantedTop top;
    MakeUpChoices choices;
    FindWeights weights;
    bool singles = true, pairs = true, boards = true, rivers = true;
    double dry_pct = usual_dry_pct();   ///< dry enough for the room: see dry_enough_pct()
    FlatChoices flat;                   ///< how long it rests, and what is left for after it
    std::optional<double> settles_pct;  ///< what the shop's air settles wood at when the job begins; empty: not known
    std::string for_job;                ///< slabs reserved for other jobs are left out
    std::size_t keep = 24;              ///< results
    double resin_price_l = 0;           ///< of a litre; 0: not counted as money
};

/// What is looked for in a job of a shop; weights and ways as they start.
FindOrder find_order(const Job& job, const Shop& shop);
/// … without a job.
FindOrder find_order(const Shop& shop);

struct Found {
    MakeUp kind = MakeUp::single;
    std::vector<std::string> slabs;  ///< in order of the leaves
    std::vector<Placement> placements;
    std::vector<Joint> joints;
    double score = 0;  ///< 0 to 1
    bool fits = false;
    double lack_mm = 0;  ///< of width or length, where it does not fit
    double narrowest_mm = 0, thickness_mm = 0;
    double wood_mm2 = 0;  ///< of the slabs, in the top
    double waste_pct = 0;
    double resin_l = 0;  ///< to mix for its river
    double weight_kg = 0, moisture_pct = 0, price = 0, apart_mm = 0;
    int flaws = 0;                     ///< inside the top
    double flaw_weight = 0;            ///< the same, cracks, rot and pith counted twice
    std::vector<Phrase> gains, costs;  ///< three each at most, the weightiest first
};

/// @param so_far told with the ranking whenever it betters, from the thread that works. @throws Cancelled.
/// @returns best first; what does not fit comes after all that does.
std::vector<Found> find_tops(const Documents& docs, const FindOrder& order, const Work& work = {},
                             const std::function<void(const std::vector<Found>&)>& so_far = {});

/// Takes a find into a job: slabs, placements, make-up.
void take_find(Job& job, const Found& found);

}  // namespace yb
