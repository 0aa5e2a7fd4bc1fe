// The cards of a job that can be run at the bench, by their names in files.
#pragma once

#include <string>
#include <vector>

#include "core/card/card.h"

namespace yb {

struct Job;
struct Plan;
struct Shop;

/// The steps of a card, "pour", "glue" or "rods"; empty where the plan has nothing for it, or for a card nobody knows.
std::vector<CardStep> card_of(const std::string& card, const Job& job, const Plan& plan, const Shop& shop);
/// The run of that card that is under way: started and not put away; −1 for none.
int running_card(const Job& job, const std::string& card);
/// Starts a run, or goes on with the one under way. @param fast its clock, times. @returns its place in the job's runs.
std::size_t start_card(Job& job, const std::string& card, double now_s, double fast);

}  // namespace yb
