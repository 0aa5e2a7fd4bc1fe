// Flat: how the slab is tilted, shimmed and planed with a router on a sled.
//
// Heights are those of the slab as laid, show face up. The tilt is the best inside the top's outline (see
// tilt.h); shims lift the slab to that tilt for the first face; the second face lies flat on the bench.
// Lanes run across the slab or along it, one router pass each; layers go down by the depth of cut. Only the stretches
// where wood stands above a layer are cut (lanes.h).
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/ground/card/card.h"
#include "core/ground/figure/figure.h"
#include "core/material/slab/slab.h"
#include "core/steps/flat/choices.h"
#include "core/steps/flat/lanes.h"
#include "core/steps/flat/most.h"
#include "core/steps/flat/rounds.h"
#include "core/steps/flat/shims.h"
#include "core/steps/flat/sled.h"
#include "core/steps/flat/stacks.h"
#include "core/steps/flat/tilt.h"
#include "core/steps/lay/lay.h"

namespace yb {

/// What all leaves of a top of several come to, so that they meet.
struct Together {
    double comes_to_mm = 0;  ///< finished
    double most_mm = 0;      ///< that the leaf which gives least could have
    bool operator==(const Together&) const = default;
};

/// What later steps want of the thickness: the deepest of pockets, inserts, channels, and what it is for.
struct Needs {
    double mm = 0;
    std::string what{};
    bool operator==(const Needs&) const = default;
};

/// Where the table goes: what its room settles wood at, in its driest month and its dampest; one face damper than the other by so much.
struct Service {
    double low_pct = 0, high_pct = 0;
    double damper_pct = 2;
    bool operator==(const Service&) const = default;
};

/// A face of which nothing stands further above its finished plane than this is not planed first, mm: a starting value.
inline constexpr double least_planed_mm = 0.3;

struct FlatInputs {
    const Slab& slab;
    const SlabShape& shape;
    const LayPlan& lay;
    WantedTop top;
    FlatChoices choices;
    Sled sled;
    std::vector<Support> supports{};     ///< where the maker set them; empty: four, a fifth in from each end
    std::optional<double> whole_mm{};    ///< of the whole uncut slab, where whole_thickness() was asked before
    std::optional<Together> together{};  ///< of a leaf of several: what it comes to, whatever it could give itself
    std::optional<Vec2> tilt{};          ///< shared with the other leaves: a and b of this one
    std::vector<FlatRound> rounds{};
    Needs needs{};
    std::vector<Ring> plates{};           ///< footprints under the top, on the slab as laid
    std::optional<double> settles_pct{};  ///< what the shop's air settles wood at
    const Solved* solved = nullptr;       ///< of this leaf, where it was solved before
};

/// The work of one face.
struct FacePlan {
    Face face = Face::a;                      ///< of the slab as laid
    int layers = 0;                           ///< roughing and last together
    int last_layers = 0;                      ///< of them after the rest, through what is left for it
    double left_mm = 0;                       ///< above the finished plane for after the rest: the allowance, and what the rest will take
    bool skim = false;                        ///< too little stands above it to be planed first: one layer over all of it after the rest
    int lanes = 0;                            ///< that cover the piece
    int passes_all = 0;                       ///< lanes × layers
    int passes_cut = 0;                       ///< lanes with wood in them
    double cut_mm = 0;                        ///< length cut in all
    double hours = 0;                         ///< all of them
    double last_hours = 0;                    ///< of them after the rest
    double highest_mm = 0;                    ///< highest wood above the bench
    double plane_mm = 0;                      ///< finished plane above the bench (lowest place)
    double stickout_mm = 0;                   ///< needed at the last pass, without a spacer
    double spacer_mm = 0;                     ///< board under the slab; 0 for none, −1 where no board at hand lifts it enough
    double most_off_mm = 0, mean_off_mm = 0;  ///< inside the top
    double removed_l = 0;                     ///< wood planed away, solid
    std::vector<LanePass> passes;
    std::vector<double> levels_mm;  ///< that each layer goes down to, above the finished plane
    std::vector<LayerWork> each;    ///< lanes of each layer
};

/// What it takes to have both faces flat in one of the ways, all estimates.
struct FlatWork {
    FlatBy by = FlatBy::sled;
    bool possible = true;
    bool there = true;  ///< the shop has what it is done with
    double hands_on_h = 0, wait_h = 0;
    double cost = 0;       ///< money, beside the maker's hours
    double leaves_mm = 0;  ///< how far off flat it may leave a face, to be corrected
};

/// What the ways of flattening ask for, of one slab or summed over the leaves of a top.
struct FlatAsks {
    std::array<FlatWork, 6> by{};   ///< in the order of FlatBy
    std::array<int, 2> lanes{};     ///< a layer, across and along
    double path_mm = 0;             ///< of the way that is chosen, both faces
    double points = 0, blocks = 0;  ///< of hot glue; of wedges or hold-downs along the edges
    double plane_mm = 1e9;          ///< the lowest pass over the bench
    void add(const FlatAsks& more);
};

struct FlatPlan : StepPlan {
    FlatAsks asks;
    Tilt tilt;                        ///< planes of the finished top
    double thickness_mm = 0;          ///< finished
    double thickest_mm = 0;           ///< that the best tilt leaves inside the top
    double most_mm = 0;               ///< that the chosen aim's tilt leaves inside the top, what the rest is expected to take taken off
    std::optional<RestTakes> rest{};  ///< what cupping while it rests takes
    double as_it_lies_mm = 0;         ///< without shims, inside the top
    double whole_mm = 0;              ///< best of the whole uncut slab
    std::vector<Shim> shims;
    std::array<FacePlan, 2> faces;  ///< in the order they are cut
    Surface off_top, off_bottom;    ///< what comes off each face, mm, over the slab
    double hours = 0;
    double step_mm = 0;                ///< left by the sled's tram error
    Stacking stacks;                   ///< what the shims are laid together of
    double hangs_mm = 0;               ///< between its supports by its own weight
    bool under_stays = false;          ///< the underside is left as it is: `tilt`'s lower plane is where the thinnest place ends
    double stays_mm = 0, stays_l = 0;  ///< what then stands below that plane at most, and in all
    std::shared_ptr<const Surface>
        stays;  ///< … and at each place, on the slab as laid, negative where the wood ends above the plane; nullptr where nothing stays
    double needs_mm = 0;                   ///< what later steps want of the thickness
    std::optional<double> cup_mm;          ///< expected while the wood settles in the shop, by its rings
    double service_wide_mm = 0;            ///< the widest of the top, as it is told below
    std::optional<double> service_cup_mm;  ///< by its rings, from the driest month to the dampest of the room it goes to
    std::optional<double> one_face_mm;     ///< cup while one face is damper than the other
    FlatWork work;                         ///< in the way that was chosen
    std::vector<RoundPlan> rounds;

    const FacePlan& face(Face f) const { return faces[0].face == f ? faces[0] : faces[1]; }
};

/// Four supports under the rough piece, a fifth of the length and a sixth of the width in.
std::vector<Support> default_supports(const Ring& rough);

/// What the stacks of all shims come to, in a sentence; nothing where nothing is laid.
Phrase stacks_say(const Stacking& stacks);
/// Each shim, face, and reading after a rest as a thing to be picked.
std::vector<Thing> flat_things(const FlatPlan& p, const Sled& sled, const std::vector<FlatRound>& rounds);

/// A way in two words at most, for the story stick.
const char* name_of(FlatBy by);
/// What it takes in one of the ways.
/// Choices between lanes, ways and holding, told by what they ask for.
std::vector<Choice> flat_work_choices(const FlatAsks& asks, const FlatChoices& choices);
FlatWork work_by(FlatBy by, const FlatPlan& plan, const Box& rough, const Sled& sled);

/// Plans the flattening. Not ready when the slab's shape or the lay is not.
FlatPlan plan_flat(const FlatInputs& in);

/// What a leaf gives at most by its aim, or the tilt it shares, as plan_flat() has it.
struct MostOf {
    double mm = 0;  ///< what an expected cup takes taken off
    std::optional<RestTakes> rest{};
};
/// @param solved of the leaf. @returns nothing where there is no wood inside the outline.
std::optional<MostOf> most_of(const FlatInputs& in, const Solved& solved);

/// What the rings and a face that dries alone will do where the table stands: known once there is a top, told among the leaf's figures.
/// @param wide_mm of the leaf's wood at its widest in the top, between its finished faces; 0: nothing is told.
void tell_service(FlatPlan& plan, const Slab& slab, const Service& service, double wide_mm);

/// The lanes as a card: face by face and layer by layer the depth to set and the lanes to run.
enum class FlatCard { first_face, second_face, after_rest };
struct FlatCardLeaf {
    const FlatPlan* plan;
    std::string name;  ///< empty: it is the only one
};
std::vector<CardStep> flat_card(const std::vector<FlatCardLeaf>& leaves, const Sled& sled, FlatCard which);

/// Time at the router and the loose chips of so much wood. @param given,formula how the time was reached.
Figure hours_figure(double hours, double removed_l, const Sled& sled, std::vector<Given> given, const char* formula);

/// Wood above a face's finished plane inside a ring, litres: the positive part of the surface, two slices in each sixth of its
/// cells and between the corners of the piece (Gauss), exact across each slice.
double wood_above_l(const Surface& off, const Ring& piece);

/// What the step minds, in a few words each.
std::span<const Headline> flat_headlines();

}  // namespace yb
