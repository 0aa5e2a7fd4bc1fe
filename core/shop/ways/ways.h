// Ways of one job: it laid out otherwise, each whole, held side by side. A way is a job that names the one it is another way of; only that
// one is on the rule of dates and has its slabs.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/work/work.h"
#include "core/shop/money/money.h"

namespace yb {

struct Documents;

/// The job that a way belongs to: itself where it is none, or where that job has gone.
std::string first_of_ways(const Documents& docs, const std::string& job);
/// Ids of all ways of a job, it first; put away ones are left out.
std::vector<std::string> ways_of_job(const Documents& docs, const std::string& job);
/// What a way is called: its own word, or "as first laid out".
std::string name_of_way(const Documents& docs, const std::string& job);

/// Copies a job as it stands as another way of it; what was done, agreed and photographed stays with the first. @returns its id.
/// @throws std::out_of_range for a job that is not there.
std::string add_way(Documents& docs, const std::string& job, const std::string& name);
/// This way is made: it trades places with the first, which is kept as a way. Where it is the first already nothing happens.
void take_way(Documents& docs, const std::string& job);
/// Puts a way away, or takes it up again; the first can't be.
void put_way_away(Documents& docs, const std::string& job, bool away);

/// A way beside others.
struct WayLine {
    std::string job, name;
    bool planned = false;  ///< its slabs are there
    double length_mm = 0, width_mm = 0, thickness_mm = 0;
    double days = 0;    ///< from its first day
    std::string ready;  ///< ISO date, by itself
    Cents offer = 0, cost = 0;
    std::size_t missing = 0;  ///< things without a price
    double weight_kg = 0, hands_h = 0, resin_l = 0;
    double waste_pct = 0;  ///< of its slabs, what is neither in the top nor goes back to the rack
    int stops = 0, watches = 0;
    std::vector<std::string> shares;  ///< names of slabs that another way of it takes too: one of them at most is made
};
/// All ways of a job, it first. @throws Cancelled.
std::vector<WayLine> compare_ways(const Documents& docs, const std::string& job, const Work& work = {});
WayLine way_line(const Documents& docs, const std::string& job, const Plan* plan);

}  // namespace yb
