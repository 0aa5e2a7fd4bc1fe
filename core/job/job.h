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
#include "core/lay/arrange.h"
#include "core/lay/cuts.h"
#include "core/lay/likeness.h"
#include "core/lay/makeup.h"
#include "core/lay/patch.h"
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
    std::vector<double> bushings_mm{16, 20, 24, 27, 30, 40, 44, 51};  ///< guide bushings at hand, outer diameters
    bool letter = false;                                              ///< sheets on Letter, otherwise A4
    Shop();
    bool operator==(const Shop&) const = default;
};

/// One slab in a top, and what was decided for it alone.
struct Leaf {
    std::string slab;  ///< id; empty until one is chosen
    Placement placement;
    std::vector<Support> supports;  ///< shims, on the slab as laid; empty: four, a fifth in from each end
    std::vector<VoidFill> voids;    ///< flaws not named here take the advice
    bool operator==(const Leaf&) const = default;
};

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
    Climate room;  ///< where the table will stand
    Job();
    bool operator==(const Job&) const = default;
    Leaf& first() { return leaves.front(); }
    const Leaf& first() const { return leaves.front(); }
    bool several() const { return leaves.size() > 1; }
    bool uses(const std::string& slab) const;  ///< as a leaf
    /// Ids of all slabs it takes wood from, each once: the leaves', then those that patches are cut from.
    std::vector<std::string> slabs() const;
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

/// What lies on the bench: one leaf by its number, or the whole top.
inline constexpr int whole_top = -1;

struct PreparedSlab;

/// One leaf's own plans.
struct LeafPlan {
    Slab slab;  ///< as laid
    SlabShape shape;
    LayPlan lay;
    FlatPlan flat;
    FillPlan fill;
    /// What the flattening was planned from: while nothing of it changes it need not be planned again.
    struct FlatFrom {
        std::shared_ptr<const PreparedSlab> slab;
        Ring outline, rough;
        double thickness_mm = 0;
        FlatChoices choices;
        Sled sled;
        std::vector<Support> supports;
        bool operator==(const FlatFrom&) const = default;
    } flat_from;
};

/// A plan shows what lies on the bench: a leaf on its slab, or the whole top. With one slab they are the same. The whole
/// of several leaves is told as one slab at whole_placement(): its outline is the top's, its thickness the finished one.
struct Plan {
    Slab slab;            ///< as laid
    SlabShape shape;      ///< of the slab as laid
    Placement placement;  ///< of the top on it
    StepPlan rack;        ///< figures of the slab, cautions of its measuring
    LayPlan lay;
    FlatPlan flat;
    FillPlan fill;
    UnderPlan under;
    DaysPlan days;
    int on_bench = whole_top;
    std::vector<LeafPlan> leaves;  ///< of a top of several; empty for a single slab
    MakeUpPlan makeup;             ///< how they lie together
    std::vector<Likeness> seams;   ///< one for each ripped joint
    CutList cuts;
    std::vector<PatchSlab> patches;  ///< the slabs that the patches are cut from, one for each
    Month shop_air;                  ///< in the month the job starts
    double shop_settles_pct = 0;     ///< equilibrium moisture of that air

    /// What a step says; the sheet says what all of them mind.
    const StepPlan& said(Step step) const;
    StepPlan sheets;
};

/// Plans a whole job on one slab. `slab` is as measured; the placement says whether it is turned over.
Plan plan_job(const Job& job, const Slab& slab, const Shop& shop);
/// Plans a whole job with the slabs of a shop. @throws std::out_of_range when one of its slabs is not there.
Plan plan_job(const Job& job, const Documents& docs, int on_bench = whole_top);

/// A slab made ready once (turned and shaped), for planning many placements of the same slab quickly.
struct PreparedSlab {
    std::shared_ptr<const Board2> ways;  ///< both ways up, for trying make-ups
    Slab slab;
    SlabShape shape;
    double thickness_mm = 0;  ///< mean
    std::vector<Figure> figures;
};
std::shared_ptr<const PreparedSlab> prepare(const Slab& slab, bool turned_over);
/// The slabs of a job made ready: its leaves, and of each patch the slab it is cut from.
struct JobSlabs {
    std::vector<std::shared_ptr<const PreparedSlab>> leaves;
    std::vector<PatchSlab> patches{};
};
/// What a plan is wanted for.
struct PlanFor {
    int on_bench = whole_top;
    /// While something is dragged in a step: what only choices and advice need is left out, and later steps stay as they
    /// were `before`, until the hand is still.
    std::optional<Step> dragged_in{};
    /// An earlier plan of the same job: what follows from the same inputs is taken from it, and is the same.
    const Plan* before = nullptr;
};
Plan plan_job(const Job& job, const JobSlabs& slabs, const Shop& shop, const PlanFor& wanted = {});

/// Sets a school of thought by the keys that the plan's choices carry.
/// `leaf` is the one on the bench, where the choice is one of its own.
/// @throws std::invalid_argument for a choice or option it does not know.
void set_choice(Job& job, const std::string& choice, const std::string& option, int leaf = 0);

/// Gives a slab to a job as its only one: its top goes to the middle, what was set for another slab is forgotten.
void give_slab(Job& job, const Slab& slab);

/// Lays slabs together as a make-up (see arrange.h). Returns a sentence where it is not possible; the job stays then.
std::string make_up(Job& job, MakeUp kind, const std::vector<Slab>& slabs);

/// Makes the top a free form of this outline, in the top's frame as it lies; the middle of its box becomes the top's, the
/// wood stays where it lies under it. Its live edges go.
void set_free_form(Job& job, Ring outline);

/// Cuts a patch from a slab, at the first clean place from its ends (patch_place); in its middle where there is none.
/// @param plan of the job: what of the slab lies in the top is taken. @returns whether a clean place was found.
bool cut_patch_from(Job& job, std::size_t patch, const Slab& slab, const Plan& plan);

/// Turns a slab of the job over about its long axis; placement, supports and base follow. One of several leaves is
/// turned about a line of the top at `about_v_mm`, so that it stays where it lies.
void turn_over(Job& job, int leaf = 0, double about_v_mm = 0);

/// Turns a single top end for end on its slab, or one leaf of several end for end about (0, about_v_mm) of the top.
void end_for_end(Job& job, int leaf = 0, double about_v_mm = 0);

}  // namespace yb
