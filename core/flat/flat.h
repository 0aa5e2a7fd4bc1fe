// Flat: how the slab is tilted, shimmed and planed with a router on a sled.
//
// Heights are those of the slab as laid, show face up. The tilt is the best inside the top's outline (see
// tilt.h); shims lift the slab to that tilt for the first face; the second face lies flat on the bench.
// Lanes run across the slab, one router pass each; layers go down by the depth of cut. Only the stretches
// where wood stands above a layer are cut.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/figure/figure.h"
#include "core/flat/choices.h"
#include "core/flat/tilt.h"
#include "core/lay/lay.h"
#include "core/slab/slab.h"

namespace yb {

/// The thickest that one tilt leaves of a slab inside an outline on it, mm; nothing where there is no outline or no wood.
std::optional<double> thickest_inside(const SlabShape& shape, const Ring& outline);

/// The thickest that one tilt leaves of the whole uncut slab, mm.
double whole_thickness(const SlabShape& shape);

/// What the aim's own tilt leaves of a slab inside an outline on it at most, mm. @param wanted_mm of the top.
std::optional<double> most_by_aim(const SlabShape& shape, const Ring& outline, FlatAim aim, double wanted_mm);

/// What all leaves of a top of several come to, so that they meet.
struct Together {
    double comes_to_mm = 0;  ///< finished
    double most_mm = 0;      ///< that the leaf which gives least could have
};

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
};

struct Shim {
    Support at;
    double height_mm = 0;
};

/// One stretch of one lane at one layer, in the order it is cut.
struct LanePass {
    int layer = 0;
    double x_mm = 0;
    Span1 y;
};

/// The work of one face.
struct FacePlan {
    Face face = Face::a;                      ///< of the slab as laid
    int layers = 0;                           ///< roughing and last together
    int last_layers = 0;                      ///< of them after the rest, through the allowance
    int lanes = 0;                            ///< that cover the piece
    int passes_all = 0;                       ///< lanes × layers
    int passes_cut = 0;                       ///< lanes with wood in them
    double cut_mm = 0;                        ///< length cut in all
    double hours = 0;                         ///< all of them
    double last_hours = 0;                    ///< of them after the rest
    double highest_mm = 0;                    ///< highest wood above the bench
    double plane_mm = 0;                      ///< finished plane above the bench (lowest place)
    double stickout_mm = 0;                   ///< needed at the last pass, without a spacer
    double spacer_mm = 0;                     ///< board under the slab; 0 for none
    double most_off_mm = 0, mean_off_mm = 0;  ///< inside the top
    double removed_l = 0;                     ///< wood planed away, solid
    std::vector<LanePass> passes;
};

struct FlatPlan : StepPlan {
    Tilt tilt;                 ///< planes of the finished top
    double thickness_mm = 0;   ///< finished
    double thickest_mm = 0;    ///< that the best tilt leaves inside the top
    double most_mm = 0;        ///< that the chosen aim's tilt leaves inside the top
    double as_it_lies_mm = 0;  ///< without shims, inside the top
    double whole_mm = 0;       ///< best of the whole uncut slab
    std::vector<Shim> shims;
    std::array<FacePlan, 2> faces;  ///< in the order they are cut
    Surface off_top, off_bottom;    ///< what comes off each face, mm, over the slab
    double hours = 0;
    double step_mm = 0;  ///< left by the sled's tram error

    const FacePlan& face(Face f) const { return faces[0].face == f ? faces[0] : faces[1]; }
};

/// Four supports under the rough piece, a fifth of the length and a sixth of the width in.
std::vector<Support> default_supports(const Ring& rough);

/// Each shim as a thing to be picked.
std::vector<Thing> shim_things(const FlatPlan& p);

/// Plans the flattening. Not ready when the slab's shape or the lay is not.
FlatPlan plan_flat(const FlatInputs& in);

/// The thinnest spacer board that brings the stick-out to the allowed one, or 0 where none is needed; empty
/// when no board at hand does.
std::optional<double> spacer_for(double stickout_mm, const Sled& sled);

/// Time at the router and the loose chips of so much wood. @param given,formula how the time was reached.
Figure hours_figure(double hours, double removed_l, const Sled& sled, std::vector<Given> given, const char* formula);

/// How far the sled's beams sag at mid-span under the router, mm: F·L³/(48·E·I), Euler and Bernoulli.
double sled_sag_mm(const Sled& sled);

/// Wood above a face's finished plane inside a ring, litres: the positive part of the surface, two slices in each sixth of its
/// cells and between the corners of the piece (Gauss), exact across each slice.
double wood_above_l(const Surface& off, const Ring& piece);

/// Lanes across `cover_mm`: ceil(cover / (d·(1 − overlap))) + 1.
int lanes_for(double cover_mm, const Sled& sled);

}  // namespace yb
