// Job: what the maker decided for one top. Plan (plan.h): what follows from it.
//
// Job, Slab and Shop (shop.h) are plain values, inputs only; each step's choices are a plain struct of its own room. A header
// that only hands a job on declares it and leaves this one out: what is in it changes with every step that comes.
#pragma once

#include <string>
#include <vector>

#include "core/ground/card/run.h"
#include "core/material/slab/slab.h"
#include "core/material/wood/wood.h"
#include "core/shop/job/leaf.h"
#include "core/shop/record/choices.h"
#include "core/steps/days/choices.h"
#include "core/steps/fill/choices.h"
#include "core/steps/flat/choices.h"
#include "core/steps/join/choices.h"
#include "core/steps/lay/choices.h"
#include "core/steps/makeup/choices.h"
#include "core/steps/money/choices.h"
#include "core/steps/pour/choices.h"
#include "core/steps/skin/choices.h"
#include "core/steps/under/choices.h"

namespace yb {

struct Job {
    std::string id;
    std::string name;
    std::string client;
    std::string start;  ///< ISO date of the first working day
    std::string notes;
    bool put_away = false;   ///< it leaves the page of jobs and stays in the shop
    bool cuts_done = false;  ///< rough-cut: its offcuts are back on the rack
    WantedTop top;
    std::vector<Leaf> leaves{1};  ///< one at least, from the right edge of the top to the left
    MakeUpChoices makeup;
    FlatChoices flat;
    FillChoices fill;
    PourChoices pour;
    JoinChoices join;
    UnderChoices under;
    SkinChoices skin;
    DaysChoices days;
    JobMoney money;
    Record record;
    std::string way_of;         ///< id of the job that this is another way of; empty: it stands for itself
    std::string way;            ///< what this way is called: "with the river"
    std::vector<CardRun> runs;  ///< of running cards: what was ticked off at the bench, and when
    Climate room;               ///< where the table will stand
    std::string kept;           ///< fields of a newer program, kept as they came: JSON
    Job();
    bool operator==(const Job&) const = default;
    Leaf& first() { return leaves.front(); }
    const Leaf& first() const { return leaves.front(); }
    bool several() const { return leaves.size() > 1; }
    bool uses(const std::string& slab) const;  ///< as a leaf
    /// Ids of all slabs it takes wood from, each once: the leaves', then those that patches are cut from.
    std::vector<std::string> slabs() const;
};
/// Its own fields and those of every step (core/shop/job/steps.h).
void fields(FieldVisitor& v, Job& j);

}  // namespace yb
