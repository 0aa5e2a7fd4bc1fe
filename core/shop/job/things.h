// What can be picked on the bench in a step, and what is to be said of it.
#pragma once

#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/geometry/geometry.h"

namespace yb {

struct Job;
struct Plan;
struct Shop;

/// What a step is asked for its things with. The plan is drawable.
struct ThingsAsk {
    const Plan& plan;
    const Job& job;
    const Shop& shop;
    Frame bench;  ///< of the top on what lies on the bench
};

/// The things of a step, in the order the hand goes through them. Leaves come first where there are several; where a leaf
/// lies on the bench alone they have no figures of their own: the step's are the leaf's.
std::vector<Thing> things_of(const Plan& plan, const Job& job, const Shop& shop, Step step);

}  // namespace yb
