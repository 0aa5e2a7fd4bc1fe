// What a client agrees to, in the plan's own words; what a change after it breaks.
#pragma once

#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/shop/record/choices.h"

namespace yb {

struct Job;
struct Plan;
struct Shop;

/// What there is to agree to as the plan stands: size, edges, voids, colour, finish, what wood does with the seasons, the day, the price
/// where one is known. Measures in the shop's units; dates ISO.
std::vector<AgreedLine> to_agree(const Plan& plan, const Job& job, const Shop& shop);

/// A line of an agreement that does not hold any more.
struct BrokenLine {
    std::string key, agreed, now;  ///< now: empty where the plan says nothing of it
};
/// Against the last agreement; nothing where there is none.
std::vector<BrokenLine> broken(const Plan& plan, const Job& job, const Shop& shop);

/// What is to be minded of it: flaws that stay and no agreement that says so (T42), an agreement that the plan breaks.
std::vector<Caution> agreement_cautions(const Plan& plan, const Job& job, const Shop& shop);

}  // namespace yb
