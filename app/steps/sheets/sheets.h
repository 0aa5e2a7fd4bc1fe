// The sheets there are, a file each: those of steps stand in their rows (app/steps.cpp), what the whole job has comes after them. Each
// writes what it has into the flow.
#pragma once

#include "app/steps/sheets/flow.h"
#include "app/steps/sheets/sheet.h"

namespace yb {

struct FlatChoices;
struct Job;
struct JoinChoices;
struct MakeUpChoices;
struct PourChoices;
struct UnderChoices;
struct WantedTop;
struct Plan;
struct Shop;

/// What a sheet is made from.
struct SheetData {
    const Job& job;
    const Plan& plan;
    const Shop& shop;
    QString say(Quantity q) const;
    QString say(const Phrase& phrase) const;
    // Parts of the job.
    const WantedTop& top() const;
    const MakeUpChoices& makeup() const;
    const FlatChoices& flat() const;
    const PourChoices& pour() const;
    const JoinChoices& join() const;
    const UnderChoices& under() const;
    bool several() const;
    bool face_b_up(std::size_t leaf) const;  ///< face B of its slab is the show face
    QString job_name() const;
};

void write_first_sheet(Flow& flow, const SheetData& d);    ///< the top with its dimensions, its large figures, what is on which page
void write_bench_sheet(Flow& flow, const SheetData& d);    ///< shims, lanes and layers, a leaf a page
void write_pour_sheet(Flow& flow, const SheetData& d);     ///< lifts with their parts
void write_join_sheet(Flow& flow, const SheetData& d);     ///< the glue-up, bow ties
void write_under_sheet(Flow& flow, const SheetData& d);    ///< slots, bolts, pockets
void write_skin_sheet(Flow& flow, const SheetData& d);     ///< grits, coats with their zones, the care card
void write_cut_sheet(Flow& flow, const SheetData& d);      ///< cuts in working order, what goes back to the rack
void write_packing_sheet(Flow& flow, const SheetData& d);  ///< parts, crates, the bag, the way in
void write_mind_sheet(Flow& flow, const SheetData& d);     ///< every caution

/// A place across as a hand follows it: "318 mm to the left of …", or on it. @param left_mm positive to the left of the line.
QString beside_line(const SheetData& d, double left_mm);

}  // namespace yb
