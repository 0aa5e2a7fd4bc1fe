// The rack: what a maker wants to know of every slab at a glance, to choose by, to sort and to filter.
#pragma once

#include <map>
#include <optional>
#include <span>
#include <string>
#include <variant>
#include <vector>

#include "core/ground/calendar/calendar.h"
#include "core/ground/work/work.h"
#include "core/material/slab/slab.h"
#include "core/material/wood/wood.h"
#include "core/steps/lay/choices.h"

namespace yb {

/// When a slab will have dried. Drying goes towards the air's equilibrium: dM/dt = −(M − Me)/τ. With two readings
/// or more τ is fitted (least squares on the log of M − Me); before that it is a prior of about a year per 25 mm
/// from green to within 2 % of the air, and only that.
struct DryingForecast {
    double moisture_pct = 0;  ///< now, by the model
    double settles_pct = 0;   ///< the air's mean equilibrium through the year
    double tau_days = 0;
    double doubt = 2;                                       ///< τ may be so many times longer or shorter
    bool fitted = false;                                    ///< from this slab's own readings
    bool yours = false;                                     ///< not fitted, but as slabs before it have dried
    std::optional<double> days, soonest_days, latest_days;  ///< from today until dry enough; none: it is, or never will be here
};

inline constexpr double rule_days_25_mm = 365;  ///< from 60 % green to 2 % above the air
/// τ of that rule, days. Water leaves end grain many times as fast: four times is a careful start for a slab cut across the log.
double rule_tau_days(double thickness_mm, bool cross_cut);
/// @param wanted_pct dry enough. @param today ISO date. @param times the rule: how much longer this maker's slabs have taken. Nothing
/// without a reading or a date of it.
std::optional<DryingForecast> drying_of(const Slab& slab, double thickness_mm, const Climate& air, double wanted_pct,
                                        const std::string& today, double times = 1);

/// When it is dry, or what it has come to, with its working. @param room_pct what the room settles at. @param dry_pct dry enough for it.
Figure drying_figure(const DryingForecast& forecast, const Slab& slab, double room_pct, double dry_pct);

struct RackEntry {
    std::string id, name, species, tree;
    Ring outline;  ///< face A, from its left end
    bool measured = false;
    double length_mm = 0, narrowest_mm = 0, widest_mm = 0, thickness_mm = 0;
    std::optional<double> moisture_pct, price, weight_kg, age_days;
    double board_feet = 0, usable_m2 = 0;  ///< usable: see usable_m2()
    int people = 1;                        ///< to lift it, 25 kg each: an estimate
    std::string reserved_for;              ///< name of a job that has it
    bool retired = false;
    bool fits = false;  ///< the wanted top, straight along it, both faces
    std::optional<DryingForecast> drying;
    bool dry = false;  ///< reads dry enough
    std::optional<double> price_per_board_foot() const;
    std::optional<double> price_per_m2() const;
};

/// What the rack is asked with.
struct RackAsk {
    const std::map<std::string, Slab>& slabs;
    const std::map<std::string, std::string>& taken;  ///< slab ids to the name of the job that has them
    const Climate& air;                               ///< they dry in
    double dry_pct = 0;                               ///< dry enough for the room
    const WantedTop* wanted = nullptr;                ///< the top to fit, where there is one
    std::string today;                                ///< ISO date
    double drying_times = 1;                          ///< the rule of thumb
};
/// Every slab of the shop. @throws Cancelled.
std::vector<RackEntry> rack_of(const RackAsk& ask, const Work& work = {});

/// True when a rectangle of the top's size, straight along the slab, lies inside both faces somewhere.
bool fits_straight(const SlabShape& shape, const WantedTop& top);

enum class RackOrder { name, species, tree, length, width, thickness, moisture, price, age, weight };
void sort_rack(std::vector<RackEntry>& entries, RackOrder order);

/// One thing asked of a slab: a word that stands in its name, species or tree, or a measure above or below something.
struct RackTest {
    std::string word;
    RackOrder what = RackOrder::name;
    bool above = true;
    double limit = 0;
};
/// Reads a filter such as `butternut length>2m moisture<10 fits`: words and measures, all of them wanted. The words
/// `fits`, `free`, `dry` ask what they say. Units as anywhere.
std::variant<std::vector<RackTest>, ParseError> read_filter(const std::string& text, const Units& units);
bool passes(const RackEntry& e, const std::vector<RackTest>& tests);

/// The part of a slab between two stations as a slab of its own: outline, readings, flaws and pictures follow, its
/// lineage is kept. Ids and names are the caller's. @throws std::invalid_argument when nothing lies between.
Slab piece_of(const Slab& slab, double from_mm, double to_mm);

/// What the rough cuts leave at both ends, worth keeping: pieces longer than `least_mm`. @param rough what is cut out, on the slab as
/// measured.
std::vector<Slab> offcuts_of(const Slab& slab, const Ring& rough, double least_mm = 200);

/// A slab so damp that its ends crack first: what is done with it today. Nothing where it is not.
std::optional<Caution> too_damp(const Slab& slab);

/// What the step minds, in a few words each.
std::span<const Headline> rack_headlines();

}  // namespace yb
