// The cards of a job that can be run at the bench, by their names in files.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/ground/card/card.h"

namespace yb {

struct CardRun;
struct Documents;
struct Job;
struct Plan;
struct Shop;

/// What a card is made from.
struct CardAsk {
    const Job& job;
    const Plan& plan;
    const Shop& shop;
};
/// A card of a step: its key in files, what it is called, its steps; empty where the plan has nothing for it.
struct CardRow {
    const char* key;
    const char* name;
    std::vector<CardStep> (*steps)(const CardAsk&);
};

/// The steps of a card, "pour", "glue" or "rods"; empty where the plan has nothing for it, or for a card nobody knows.
std::vector<CardStep> card_of(const std::string& card, const Job& job, const Plan& plan, const Shop& shop);
/// What a card is called; empty for one nobody knows.
std::string card_name(const std::string& card);
/// Cards of all jobs that are under way: the job's id and the card.
std::vector<std::pair<std::string, std::string>> running_cards(const Documents& docs);
/// The run of that card that is under way: started and not put away; −1 for none.
int running_card(const Job& job, const std::string& card);
/// The same, to be written in; nullptr for none.
CardRun* run_of(Job& job, const std::string& card);
/// Starts a run, or goes on with the one under way. @param fast its clock, times. @returns its place in the job's runs.
std::size_t start_card(Job& job, const std::string& card, double now_s, double fast);

}  // namespace yb
