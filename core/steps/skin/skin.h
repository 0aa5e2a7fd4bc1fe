// Skin: sanding and finishing – the faces there are, the ladder of grits on each, coats with what to mix, zones that can be wiped in time.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/ground/card/card.h"
#include "core/ground/figure/figure.h"
#include "core/material/wood/wood.h"
#include "core/steps/skin/coats.h"
#include "core/steps/skin/faces.h"
#include "core/steps/skin/grits.h"

namespace yb {

struct SkinPlan;
struct SkinInputs {
    const Top& top;  ///< ready
    SkinChoices choices;
    Month shop_air;  ///< of the first coat's day
    Climate room;
    std::vector<std::pair<Ring, double>> pockets{};  ///< cut from below
    BasePlan base{};
    bool base_first = false;           ///< its parts were finished before they were glued
    double sled_step_mm = 0;           ///< between lanes, as the sled leaves them
    bool planed = false;               ///< the last cut was not the sled's
    bool quick = false;                ///< something is dragged: no choices
    bool zoned = true;                 ///< the large faces are cut into zones; an option that is only told needs none
    const SkinPlan* before = nullptr;  ///< while something of Skin itself is dragged: the faces stand as they were
    std::vector<LetInTie> ties{};
    double moisture_pct = 0;                         ///< of the wood on the day; 0: not known
    std::optional<double> coldest_c{}, warmest_c{};  ///< of all coats' days; empty: as the first's
    FinishShelf shelf{};                             ///< what the shop's labels say
    Sanding sanding{};                               ///< how fast its sanders are
};

/// A coat on a face.
struct SkinCoat {
    int coat = 1;
    double ml = 0;              ///< on the wood
    double mix_ml = 0;          ///< with what rags and pot keep
    double a_ml = 0, b_ml = 0;  ///< of it, where there are two parts
    int zones = 1;
    double minutes = 0;
    double recoat_h = 0;  ///< from then on the next, at the shop's air
};

struct SkinFacePlan {
    SkinFace face;
    bool left_out = false, sealed = false;
    Finish finish = Finish::hardwax;  ///< what goes on it …
    FinishClass label;                ///< … as the shop has it
    std::vector<GritStep> grits;
    std::vector<SkinCoat> coats;
    double sanding_min = 0;
};

struct SkinPlan : StepPlan {
    std::string now_face;  ///< that is finished first of what is mixed now: the upper face, or the underside; empty: neither is finished
    Finish finish = Finish::hardwax;  ///< what goes on it …
    FinishClass label;                ///< … as the shop has it: what is mixed now, its window and its zones are told by it
    std::vector<Finish> used;         ///< what goes on any face, that of the most first
    double faces_alone_min = 0, edges_alone_min = 0;  ///< of sanding, as one takes it with one sander
    std::vector<SkinFacePlan> faces;
    std::vector<Zone> zones;  ///< of every coat of the upper face and the underside
    double zone_most_m2 = 0;  ///< what can be wiped in time; 0: nothing can
    double m2 = 0;            ///< treated in all
    double sanding_min = 0;   ///< of the maker's clock, hands counted
    double coating_min = 0;
    double ml_in_all = 0;                                            ///< to mix, all coats of all faces
    double now_ml = 0, now_a_ml = 0, now_b_ml = 0;                   ///< for the first zone
    double now_m2 = 0;                                               ///< of that zone
    double usable_min = 0;                                           ///< once mixed, at the shop's air
    double window_min = 0;                                           ///< from the first of a zone to the last wiped, likewise
    int coats = 0;                                                   ///< of the face that gets most
    double recoat_h = 0, recoat_to_h = 0, handle_h = 0, cure_h = 0;  ///< at the shop's air
    double air_c = 20;
    double discs = 0;
    std::optional<double> cup_mm;                                                        ///< of one face finished alone, over a damp season
    double days() const { return (recoat_h * std::max(0, coats - 1) + handle_h) / 24; }  ///< from the first coat to handling
};

SkinPlan plan_skin(const SkinInputs& in);
/// The face of that key that is treated; nullptr where there is none or it is left out.
const SkinFacePlan* treated(const SkinPlan& plan, const std::string& key);

/// Where the zones of a face meet, along the top, from the left.
std::vector<double> seams_of(const SkinPlan& plan, const std::string& face);

/// The finish day as a card: zone by zone, each with its window. @param coat from 1.
std::vector<CardStep> finish_card(const SkinPlan& plan, int coat);
/// The sanding as a card: face by face and grit by grit, the underside first; before the last grit wetted and dried.
std::vector<CardStep> sand_card(const SkinPlan& plan);
/// For the client: what it is finished with, what it stands, how to clean it, when to oil it again.
std::vector<Phrase> care_of(const SkinPlan& plan);

/// Each face, zone and coat as a thing to be picked.
std::vector<Thing> skin_things(const SkinPlan& plan, const Frame& to_bench);

/// What the step minds, in a few words each.
std::span<const Headline> skin_headlines();

}  // namespace yb
