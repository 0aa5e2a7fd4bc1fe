// A plan while it is being made: what the rows of the table (core/shop/rows) work on. Used by them and by plan_job only.
#pragma once

#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/prepared.h"
#include "core/shop/job/shop.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/top/top.h"

namespace yb {

/// What a leaf's flattening was planned from.
struct FlatFrom {
    std::shared_ptr<const PreparedSlab> slab;
    Ring outline, rough;
    double wanted_mm = 0;
    std::optional<Together> together;
    std::optional<Vec2> tilt;
    FlatChoices choices;
    Sled sled;
    std::vector<Support> supports;
    std::vector<FlatRound> rounds;
    Needs needs;
    std::vector<Ring> plates;
    double settles_pct = 0;
    bool operator==(const FlatFrom&) const = default;
};

struct Planning {
    const Job& job;
    const JobSlabs& slabs;
    const Shop& shop;
    const PlanFor& wanted;
    Plan& p;
    bool quick = false;                  ///< something is dragged: no choices
    bool still = false;                  ///< … and later steps stay as they were
    std::shared_ptr<LayPlan> lay{};      ///< of the whole, while it is being told
    std::vector<LeafIn> leaves{};        ///< as laid; empty while nothing can be
    std::vector<const LayPlan*> lays{};  ///< of each on its own slab
    std::shared_ptr<Top> top{};

    StepAir air(Step step) const { return p.air_of(step); }
    const Plan* before() const { return wanted.before; }
    bool several() const { return slabs.leaves.size() > 1; }
    bool asked(Step step) const;
    const PreparedSlab& slab(std::size_t i) const { return *slabs.leaves.at(i); }
};

}  // namespace yb
