// Plan: what follows from a job. plan_job() is pure: the same inputs give the same plan.
//
// Steps are planned in the order of the table in core/shop/job/steps.h. A plan holds shared pointers to the steps' own plans,
// whose types are declared here and defined in their rooms: what stands still while something is dragged is a pointer
// copied, and a header of one step is seen only by those that use it.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/material/wood/wood.h"
#include "core/steps/lay/choices.h"

namespace yb {

struct BothWays;
struct CutList;
struct DaysPlan;
struct Documents;
struct FillPlan;
struct FlatPlan;
struct Job;
struct JoinPlan;
struct LayPlan;
struct Likeness;
struct MakeUpPlan;
struct PourPlan;
struct Shop;
struct Slab;
struct SlabShape;
struct Top;
struct UnderPlan;

/// What lies on the bench: one leaf by its number, or the whole top.
inline constexpr int whole_top = -1;

struct PreparedSlab;
struct FlatFrom;

/// One leaf's own plans.
struct LeafPlan {
    std::shared_ptr<const PreparedSlab> made;  ///< its slab as laid
    std::shared_ptr<const LayPlan> lay;
    std::shared_ptr<const FlatPlan> flat;
    std::shared_ptr<const FillPlan> fill;
    /// What the flattening was planned from: while nothing of it changes it is not planned again.
    std::shared_ptr<const FlatFrom> flat_from;
    /// Its faces cut at the finished planes, in the slab's frame.
    std::shared_ptr<const std::pair<Ring, Ring>> finished;

    const Slab& slab() const;        ///< as laid
    const SlabShape& shape() const;  ///< of it
};

/// The shop's air while a step is done: of the month its days fall into, by the schedule of its own job, or as it was typed for one of its
/// operations.
struct StepAir {
    Month day;                            ///< of the first of its operations that the air matters to
    double coldest_c = 0, warmest_c = 0;  ///< of all of them
    /// What wood settles at in it, %.
    double settles_pct() const;
    bool operator==(const StepAir&) const = default;
};
/// By a step's key; a step that is not there is done in the air the job starts in.
using Airs = std::map<std::string, StepAir, std::less<>>;

/// A plan shows what lies on the bench: a leaf on its slab, or the whole top. With one slab they are the same.
struct Plan {
    int on_bench = whole_top;
    std::vector<LeafPlan> leaves;              ///< one for each of the job, from the right edge of the top
    std::shared_ptr<const PreparedSlab> on;    ///< the slab on the bench; none while the whole of several lies there
    Placement placement;                       ///< of the top on what lies on the bench
    Phrase title;                              ///< what lies there: a slab's name, or "2 leaves, tree"
    StepPlan rack;                             ///< figures of the slab, cautions of its measuring
    std::shared_ptr<const LayPlan> lay;        ///< what it says is the whole's, where it lies is what the bench shows
    std::shared_ptr<const MakeUpPlan> makeup;  ///< how several leaves lie together
    std::shared_ptr<const FlatPlan> flat;      ///< of what the bench shows
    std::shared_ptr<const Top> top;            ///< what is really there; asked by every step after Flat
    std::shared_ptr<const FillPlan> fill;      ///< of what the bench shows
    std::shared_ptr<const PourPlan> pour;      ///< of the whole top
    std::shared_ptr<const JoinPlan> join;      ///< of the whole top
    std::shared_ptr<const UnderPlan> under;
    std::shared_ptr<const DaysPlan> days;
    std::map<std::string, std::shared_ptr<const StepPlan>, std::less<>> more;  ///< of steps without a member of their own, by key
    std::shared_ptr<const std::vector<Likeness>> seams;                        ///< one for each ripped joint
    std::shared_ptr<const CutList> cuts;
    std::vector<std::shared_ptr<const BothWays>> patches;  ///< the slabs that the patches are cut from, one for each
    StepPlan sheets;                                       ///< all that is to be minded
    Month shop_air;                                        ///< in the month the job starts; of a step: air_of()
    Airs airs;                                             ///< of what is done in other air than that

    const Slab* slab() const;        ///< on the bench, as laid; nullptr for the whole of several
    const SlabShape* shape() const;  ///< of it
    bool whole() const { return !on; }
    /// True when there is something to draw: the slab has an outline, or leaves are laid.
    bool drawable() const;
    /// Stations of what lies on the bench, from its left end.
    Span1 stations() const;
    /// The air that a step is done in.
    StepAir air_of(Step step) const;
    /// What a step says; the sheet says what all of them mind.
    const StepPlan& said(Step step) const;
};

/// Plans a whole job on one slab. `slab` is as measured; the placement says whether it is turned over.
Plan plan_job(const Job& job, const Slab& slab, const Shop& shop);
/// Plans a whole job with the slabs of a shop. @param shop in place of theirs; nullptr: theirs. @throws std::out_of_range when one of its
/// slabs is not there.
Plan plan_job(const Job& job, const Documents& docs, int on_bench = whole_top, const Shop* shop = nullptr);

/// A job as a list names it.
struct JobLine {
    std::string id, name;
    std::string state;  ///< "no slab", "not measured", "does not fit", "laid", "rough-cut", "flat", "ripped", "delivered"
    std::string start;  ///< its first day
    std::vector<std::string> slabs;
};
/// Every job of a shop, planned where its state asks for it.
std::vector<JobLine> job_lines(const Documents& docs);

std::shared_ptr<const PreparedSlab> prepare(const Slab& slab, bool turned_over);
/// Both ways up of a prepared slab.
std::shared_ptr<const BothWays> ways_of(const PreparedSlab& slab);
/// The slabs of a job made ready: its leaves, and of each patch the slab it is cut from.
struct JobSlabs {
    std::vector<std::shared_ptr<const PreparedSlab>> leaves;
    std::vector<std::shared_ptr<const BothWays>> patches{};
};
/// What a plan is wanted for.
struct PlanFor {
    int on_bench = whole_top;
    /// While something is dragged in a step: what only choices and advice need is left out, and later steps stay as they
    /// were `before`, until the hand is still.
    std::optional<Step> dragged_in{};
    /// An earlier plan of the same job: what follows from the same inputs is taken from it, and is the same.
    const Plan* before = nullptr;
    /// The air of each step, where it is known: it is planned in that and no other. Empty: by the job's own schedule.
    const Airs* airs = nullptr;
    bool slab_alone = false;  ///< only looked at, in no job: nothing but the rack is planned
};
/// Numbers out of their range are held at its ends for the plan, each told as a caution that names the field. Whatever a
/// step can't plan is a caution too: `plan.failed`.
Plan plan_job(const Job& job, const JobSlabs& slabs, const Shop& shop, const PlanFor& wanted = {});

}  // namespace yb
