// Job: what the maker measured and decided. Plan (plan.h): what follows from it.
//
// Job, Slab and Shop are plain values, inputs only; each step's choices are a plain struct of its own room.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/calendar/calendar.h"
#include "core/fill/choices.h"
#include "core/flat/choices.h"
#include "core/lay/choices.h"
#include "core/makeup/choices.h"
#include "core/slab/slab.h"
#include "core/under/choices.h"
#include "core/wood/wood.h"

namespace yb {

/// What belongs to the shop and not to one job.
struct Shop {
    std::string name = "The shop";
    Units units;
    Sled sled;
    std::vector<Resin> resins = starting_resins();
    Climate air;                 ///< of the shop, through the year
    double dry_allowed_pct = 2;  ///< moisture above what the room settles at that still counts as dry enough
    Workday workday;
    std::vector<double> bushings_mm{16, 20, 24, 27, 30, 40, 44, 51};  ///< guide bushings at hand, outer diameters
    bool letter = false;                                              ///< sheets on Letter, otherwise A4
    std::string kept;                                                 ///< fields of a newer program, kept as they came: JSON
    Shop();
    bool operator==(const Shop&) const = default;
};
void fields(FieldVisitor& v, Units& u);
void fields(FieldVisitor& v, Shop& s);

/// One slab in a top, and what was decided for it alone.
struct Leaf {
    std::string slab;  ///< id; empty until one is chosen
    Placement placement;
    std::vector<Support> supports;  ///< shims, on the slab as laid; empty: four, a fifth in from each end
    std::vector<VoidFill> voids;    ///< flaws not named here take the advice
    bool operator==(const Leaf&) const = default;
};
void fields(FieldVisitor& v, Leaf& l);

struct Job {
    std::string id;
    std::string name;
    std::string client;
    std::string start;  ///< ISO date of the first working day
    std::string notes;
    bool cuts_done = false;  ///< rough-cut: its offcuts are back on the rack
    WantedTop top;
    std::vector<Leaf> leaves{1};  ///< one at least, from the right edge of the top to the left
    MakeUpChoices makeup;
    FlatChoices flat;
    FillChoices fill;
    UnderChoices under;
    Climate room;      ///< where the table will stand
    std::string kept;  ///< fields of a newer program, kept as they came: JSON
    Job();
    bool operator==(const Job&) const = default;
    Leaf& first() { return leaves.front(); }
    const Leaf& first() const { return leaves.front(); }
    bool several() const { return leaves.size() > 1; }
    bool uses(const std::string& slab) const;  ///< as a leaf
    /// Ids of all slabs it takes wood from, each once: the leaves', then those that patches are cut from.
    std::vector<std::string> slabs() const;
};
/// Its own fields and those of every step (core/job/steps.h).
void fields(FieldVisitor& v, Job& j);

/// Everything one shop file holds, as it stands after a revision.
struct Documents {
    Shop shop;
    std::map<std::string, Slab> slabs;
    std::map<std::string, Job> jobs;
    bool operator==(const Documents&) const = default;
};

/// Every slab that a job takes wood from, and the name of that job. @param but a job's id to leave out.
std::map<std::string, std::string> taken_slabs(const Documents& docs, const std::string& but = {});

/// Moisture that counts as dry enough for a room: what its air settles wood at, and what the maker allows above it.
double dry_enough_pct(const Climate& room, const Shop& shop);

}  // namespace yb
