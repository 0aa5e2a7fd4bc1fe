// Shop: what belongs to the shop and not to one job.
#pragma once

#include <string>
#include <vector>

#include "core/ground/calendar/calendar.h"
#include "core/ground/measure/measure.h"
#include "core/material/resin/resin.h"
#include "core/material/wood/meter.h"
#include "core/material/wood/wood.h"
#include "core/steps/flat/choices.h"
#include "core/steps/labour/choices.h"
#include "core/steps/money/choices.h"
#include "core/steps/pace/choices.h"
#include "core/steps/skin/coats.h"
#include "core/steps/skin/grits.h"
#include "core/steps/under/choices.h"

namespace yb {

/// What belongs to the shop and not to one job.
/// A job in the order of jobs.
struct JobRank {
    std::string id;
    bool operator==(const JobRank&) const = default;
};
void fields(FieldVisitor& v, JobRank& r);

struct Shop {
    std::string name = "The shop";
    Units units;
    Sled sled;
    std::vector<Resin> resins = starting_resins();
    FinishShelf finishes;
    Sanding sanding;
    Labour labour;               ///< what hands take for the work between the computed steps
    Climate air;                 ///< of the shop, through the year
    Climate store;               ///< … of the place where finished tops wait
    double dry_allowed_pct = 2;  ///< moisture above what the room settles at that still counts as dry enough
    Workday workday;
    bool all_soonest = false;        ///< not in that order but so that all are done soonest
    std::vector<JobRank> job_order;  ///< who comes first where two want the same hands; those that are not named come after
    std::vector<double> bushings_mm{16, 20, 24, 27, 30, 40, 44, 51};                           ///< guide bushings at hand, outer diameters
    std::vector<ChannelSection> sections{{30, 10, 2}, {40, 12, 3}, {50, 15, 3}, {60, 20, 4}};  ///< of steel channel that can be had
    ShopMoney money;
    std::vector<MeterWood> meter;   ///< its booklet
    std::vector<PaceFigure> paces;  ///< of the maker, as the tables that were made have taught
    bool letter = false;            ///< sheets on Letter, otherwise A4
    std::string kept;               ///< fields of a newer program, kept as they came: JSON
    Shop();
    /// What its air settles wood at in the month of an ISO date, %.
    double settles_pct(const std::string& on) const;
    bool operator==(const Shop&) const = default;
};
void fields(FieldVisitor& v, Units& u);
void fields(FieldVisitor& v, Shop& s);

/// Moisture that counts as dry enough for a room: what its air settles wood at, and what the maker allows above it.
double dry_enough_pct(const Climate& room, const Shop& shop);

}  // namespace yb
