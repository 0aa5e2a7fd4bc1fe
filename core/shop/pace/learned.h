// What the shop's own jobs teach of the maker's pace: each planned as it stands, its ticks beside it.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/ground/work/work.h"
#include "core/steps/pace/pace.h"

namespace yb {

struct Documents;
struct Plan;
struct Shop;

struct Learned {
    std::vector<PaceFigure> figures;  ///< one for each kind something is known of
    std::vector<Took> took;           ///< what they rest on
};
/// Of all jobs, put away ones too. @throws Cancelled.
Learned learned_paces(const Documents& docs, const Work& work = {});
/// Hours of whole operations alone, of the jobs whose plans are given.
Learned learned_hours(const Documents& docs, const std::map<std::string, std::shared_ptr<const Plan>>& plans);

/// Hours a job really took, by operation; ticks far off, forgotten over night, are left out.
std::map<std::string, double> hours_taken(const Learned& learned, const std::string& job);

/// Keeps them in the shop; what was put back stays put back. @returns whether anything changed by more than a hundredth.
bool take_paces(Shop& shop, const std::vector<PaceFigure>& figures);
/// The starting value again, or the maker's own.
void put_back(Shop& shop, const std::string& kind, bool back);

}  // namespace yb
