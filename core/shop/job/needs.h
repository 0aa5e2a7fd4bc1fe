// Needs: what a job takes beside hands – wood, resin, finish, glue, hardware – as its steps know it, with what the shelf has and what must
// be bought.
#pragma once

#include <optional>
#include <string>
#include <vector>
#include "core/ground/measure/shelf.h"

#include "core/shop/job/things.h"
#include "core/steps/days/days.h"

namespace yb {

struct Labour;
/// Where it is bought, and what it counts as.
enum class NeedKind { slab, resin, finish, glue, hardware, form, consumable, base, outside, extra };
const char* name_of(NeedKind kind);  ///< "Slabs", "Resin" …
const char* key_of(NeedKind kind);   ///< "slab", "resin" …

struct Need {
    NeedKind kind = NeedKind::consumable;
    std::string key;                ///< "resin slow-deep", "bolt" …: one line for each over a job
    std::string what;               ///< as people call it
    double amount = 0;              ///< that is used
    const char* unit = "pcs";       ///< "l", "m", "m2", "kg", "pcs"
    std::string before{};           ///< key of the operation that wants it
    std::optional<double> left{};   ///< on the shelf; empty: not said
    std::optional<double> kit{};    ///< sold in so much; empty: as one likes
    std::optional<double> price{};  ///< of a unit; empty: not said
    /// What is to be bought, whole kits.
    double buys() const;
    /// What is said to be on the shelf does not reach.
    bool short_of() const { return left && amount > *left + 1e-9; }
};

/// What the shelf is said not to have enough of is ordered while the work goes on: an operation for each kind that runs short, after the
/// top is laid and before whatever wants it. @param days until it is there.
void order_short(std::vector<Operation>& operations, const std::vector<Need>& needs, double days, const Labour& labour);

/// What all steps of a plan need, in their order; one line for each thing.
std::vector<Need> needs_of(const Plan& plan, const Job& job, const Shop& shop);

}  // namespace yb
