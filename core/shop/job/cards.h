// The cards of a job that can be run at the bench, by their names in files.
#pragma once

#include <initializer_list>
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
/// A card of a step: its key in files, what it is called, the operation it is run for, its steps; empty where the plan has nothing for it.
struct CardRow {
    const char* key;
    const char* name;
    const char* operation;
    const char* mixes;  ///< what is mixed in it and left over tells of this kind of pace; empty: of none
    std::vector<CardStep> (*steps)(const CardAsk&);
    bool all_parts = false;  ///< it runs through every lift, round or stage of its operation
};

/// The steps of a card, "pour", "glue", "sand", as the maker's pace has them; empty where the plan has nothing for it, or for a card nobody
/// knows.
std::vector<CardStep> card_of(const std::string& card, const Job& job, const Plan& plan, const Shop& shop);
/// The card of that key; nullptr for one nobody knows.
const CardRow* find_card(const std::string& card);
/// The card an operation is run with; nullptr for none.
const CardRow* card_for(const std::string& operation);
/// The step a card belongs to; empty for one nobody knows.
std::string step_of_card(const std::string& card);
/// What a card is called; empty for one nobody knows.
std::string card_name(const std::string& card);
/// Cards of all jobs that are under way: the job's id and the card.
std::vector<std::pair<std::string, std::string>> running_cards(const Documents& docs);
/// The run of that card that is under way: started and not put away; −1 for none.
int running_card(const Job& job, const std::string& card);
/// The same, to be written in; nullptr for none.
CardRun* run_of(Job& job, const std::string& card);
/// Put away after a tick at least, and not for practice.
bool run_to_its_end(const CardRun& run);
/// The first of some cards that was not run to its end; the last of them where all were.
std::string next_card(const Job& job, std::initializer_list<const char*> cards);
/// Starts a run, or goes on with the one under way. @param fast its clock, times. @returns its place in the job's runs.
std::size_t start_card(Job& job, const std::string& card, double now_s, double fast);

}  // namespace yb
