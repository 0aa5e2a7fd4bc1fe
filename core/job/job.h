// Job: what the maker measured and decided. Plan: what follows from it.
//
// Job, Slab and Shop are plain values, inputs only. plan_job() is pure: the same inputs give the same plan.
// Steps feed forward in the order of work: slab, lay, flat, fill, under, days.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/days/days.h"
#include "core/flat/flat.h"
#include "core/lay/lay.h"
#include "core/resin/fill.h"
#include "core/slab/slab.h"
#include "core/under/under.h"

namespace yb {

/// What belongs to the shop and not to one job.
struct Shop {
    std::string name = "The shop";
    Units units;
    Sled sled;
    std::vector<Resin> resins = starting_resins();
    Climate air;  ///< of the shop, through the year
    Workday workday;
    bool letter = false;  ///< sheets on Letter, otherwise A4
    Shop();
    bool operator==(const Shop&) const = default;
};

struct Job {
    std::string id;
    std::string name;
    std::string client;
    std::string slab;   ///< id of its slab; empty until one is chosen
    std::string start;  ///< ISO date of the first working day
    std::string notes;
    bool cuts_done = false;  ///< rough-cut: its offcuts are back on the rack
    WantedTop top;
    Placement placement;
    FlatChoices flat;
    FillChoices fill;
    UnderChoices under;
    Climate room;  ///< where the table will stand
    Job();
    bool operator==(const Job&) const = default;
};

/// Everything one shop file holds, as it stands after a revision.
struct Documents {
    Shop shop;
    std::map<std::string, Slab> slabs;
    std::map<std::string, Job> jobs;
    bool operator==(const Documents&) const = default;
};

/// The month of an ISO date, 0 is January; 0 where the date can't be read.
int month_of(const std::string& iso);

struct Plan {
    Slab slab;        ///< as laid
    SlabShape shape;  ///< of the slab as laid
    StepPlan rack;    ///< figures of the slab, cautions of its measuring
    LayPlan lay;
    FlatPlan flat;
    FillPlan fill;
    UnderPlan under;
    DaysPlan days;
    Month shop_air;               ///< in the month the job starts
    double shop_settles_pct = 0;  ///< equilibrium moisture of that air

    /// What a step says; the sheet says what all of them mind.
    const StepPlan& said(Step step) const;
    StepPlan sheets;
};

/// Plans a whole job. `slab` is as measured; the placement says whether it is turned over.
Plan plan_job(const Job& job, const Slab& slab, const Shop& shop);

/// A slab made ready once (turned and shaped), for planning many placements of the same slab quickly.
struct PreparedSlab {
    Slab slab;
    SlabShape shape;
    std::vector<Figure> figures;
};
std::shared_ptr<const PreparedSlab> prepare(const Slab& slab, bool turned_over);
Plan plan_job(const Job& job, const PreparedSlab& prepared, const Shop& shop);

/// Sets a school of thought by the keys that the plan's choices carry.
/// @throws std::invalid_argument for a choice or option it does not know.
void set_choice(Job& job, const std::string& choice, const std::string& option);

/// Gives a slab to a job: its top goes to the middle, what was set for another slab is forgotten.
void give_slab(Job& job, const Slab& slab);

/// Turns the job's slab over about its long axis; placement, supports and base follow.
void turn_over(Job& job);

/// Turns the top end for end on the slab.
void end_for_end(Job& job);

}  // namespace yb
