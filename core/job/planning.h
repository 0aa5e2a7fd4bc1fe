// A plan while it is being made: what the rows of the table (steps.cpp) work on. Used by core/job only.
#pragma once

#include "core/fill/fill.h"
#include "core/flat/flat.h"
#include "core/job/job.h"
#include "core/job/plan.h"
#include "core/job/prepared.h"
#include "core/job/shop.h"
#include "core/makeup/makeup.h"
#include "core/top/top.h"

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
    Service service;
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

    const Plan* before() const { return wanted.before; }
    bool several() const { return slabs.leaves.size() > 1; }
    bool asked(Step step) const;
    const PreparedSlab& slab(std::size_t i) const { return *slabs.leaves.at(i); }
};

// What the rows do: lay.cpp and flat.cpp of core/job join what several rooms make.
void plan_rack_step(Planning& w);
void plan_lay_step(Planning& w);
void tell_lay_step(Planning& w);
void plan_flat_step(Planning& w);
void plan_fill_step(Planning& w);
void plan_pour_step(Planning& w);
void plan_join_step(Planning& w);
void plan_under_step(Planning& w);

}  // namespace yb
