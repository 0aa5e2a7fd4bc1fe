// The base: what stands under the top, made of bars and panels, with the cut list that makes it.
//
// Frame: u along the top, v across it as in the top, z up from the floor. A part's length is from point to point; its ends are cut off
// square but for the angles told, each measured from square. Lean and mitre follow from plane trigonometry (docs/methods.md, Under).
// Racking, joints' strength and what it carries are not computed: estimates for the maker's judgement, local codes stand above them.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/geometry/geometry.h"
#include "core/steps/labour/labour.h"
#include "core/steps/under/choices.h"

namespace yb {

/// A line of the cut list.
struct BasePart {
    std::string name;
    int count = 1;
    double length_mm = 0, width_mm = 0, thick_mm = 0;  ///< point to point; across the face that carries the angle; through
    double first_deg = 0, second_deg = 0;              ///< its two ends, off square
    int layers = 1;                                    ///< glued up of so many: no stock is that thick
    Phrase note{};                                     ///< half-laps, tenons, how it is marked
};

/// A piece where it stands: its eight corners, those of one end first.
struct BasePiece {
    std::size_t part = 0;
    std::vector<Vec3> corners;
};

struct BaseInputs {
    UnderChoices choices;
    double leg_mm = 0;  ///< from the floor, feet left out, to what carries the top
    Labour labour{};
};

struct BasePlan {
    std::vector<BasePart> parts;
    std::vector<BasePiece> pieces;
    std::vector<Vec2> feet;        ///< where it stands on the floor, outermost, counter-clockwise
    Ring outline;                  ///< of panels: their outer corners at the floor, counter-clockwise
    double diagonal_mm = 0;        ///< of each frame, corner to corner on the outside: both alike, or it is not square; 0 where it has none
    double floor_diagonal_mm = 0;  ///< of the feet, both alike
    double volume_l = 0;           ///< of its wood
    int glue_stages = 0;           ///< for what is laminated: two layers at a time, seams staggered
    Task making;                   ///< to mill, cut, join and clean it up
    double wait_h = 0;             ///< of its glue, a night a stage and one for what is joined
    int glue_faces = 0;            ///< masked, where its parts are finished first
    Task masking;                  ///< … to mask them and put the finish on
    std::vector<Phrase> notes;
};

/// A base of the chosen kind under the plates that are laid. Bought, or without plates: nothing. @throws std::invalid_argument where its
/// bars are thicker than what they stand in – a frame lower than two of its bars, a leg that is not there – or an outline that crosses
/// itself.
BasePlan plan_base(const BaseInputs& in);

/// Where a pedestal's panels are let into the underside, seen from above, one a panel; empty where nothing is.
std::vector<Ring> notches_of(const UnderChoices& choices);

/// The outline that panels stand round: as the maker set it, or a box round the plates.
std::vector<BaseCorner> base_outline(const UnderChoices& choices);

/// A leg that leans by so much along and by so much across: how far it leans in all, degrees, and the length of its axis for a height of
/// one.
struct Lean {
    double tilt_deg = 0;
    double per_height = 1;
};
Lean lean_of(double along_deg, double across_deg);
/// How far from the plumb the bars of an X lean, in a box so wide and high, whose level ends fill it: degrees. @throws
/// std::invalid_argument where the bar is too thick for it.
double cross_lean_deg(double wide_mm, double high_mm, double bar_mm);

}  // namespace yb
