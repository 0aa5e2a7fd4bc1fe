// Templates and outlines drawn 1:1 from a plan, to be written as SVG, DXF or tiled PDF.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/material/drawing/drawing.h"

namespace yb {

struct Job;
struct MakeUpChoices;
struct Placement;
struct Plan;
struct Shop;

/// What a drawing is made from.
struct TemplateAsked {
    const Plan& plan;  ///< drawable
    const Job* job;    ///< nullptr while a slab alone is looked at
    const Shop& shop;
    std::size_t leaf = 0;  ///< of a top of several, the one that was picked
};
/// A drawing that can be written: its key in the shell, its words in the menu, what is said where there is nothing to draw.
struct TemplateRow {
    const char* key;
    const char* label;
    const char* nothing;
    std::vector<DrawnPath> (*draw)(const TemplateAsked&);
};
/// Those of all steps, in the order of work (core/shop/rows).
std::vector<TemplateRow> templates();
/// Nothing for a key that none has.
std::optional<TemplateRow> find_template(std::string_view key);

/// Both faces and the flaws of a slab.
std::vector<DrawnPath> drawn_slab(const Slab& slab, const SlabShape& shape);
/// The middle joint of a top of several: its line, the template's edge for one bushing pair, both mates' outlines, in the
/// top's frame. Empty where there is no ripped joint. @param bushings_mm at hand.
std::vector<DrawnPath> drawn_joint(const Plan& plan, const MakeUpChoices& choices, const std::vector<double>& bushings_mm);
/// Each patch in the top's frame: its outline, and the opening of the template that guides both bushings.
std::vector<DrawnPath> drawn_patches(const MakeUpChoices& choices, const std::vector<double>& bushings_mm);
/// The form from above, in the top's frame: bottom, sides as thick as their sheet, rivers, dividers and dams. Empty where nothing is
/// poured.
std::vector<DrawnPath> drawn_form(const Plan& plan, const Job& job);
/// The panels its parts are cut from, one beside the other, each part where it lies.
std::vector<DrawnPath> drawn_panels(const Plan& plan, const Job& job);
/// Bow ties in the top's frame: each outline, and the opening of the template that guides both bushings.
std::vector<DrawnPath> drawn_ties(const Job& job, const std::vector<double>& bushings_mm);
/// Cauls along the live edges, in the top's frame.
std::vector<DrawnPath> drawn_cauls(const Plan& plan);
/// A base made here, from above in the top's frame: its outline where it stands round one, each piece's shadow.
std::vector<DrawnPath> drawn_base(const Plan& plan);
/// The lines of carved edges, in the top's frame, with the top's outline. Empty where nothing is carved.
std::vector<DrawnPath> drawn_carved(const Plan& plan);
/// The drilling of the upturned top, seen from below (left and right exchanged): its outline, what is drilled where, pockets, plates.
std::vector<DrawnPath> drawn_drilling(const Plan& plan, const Job& job);
/// A clip or a button in its kerf as it stands on the day, cut through at the furthest one, 1:1. Empty for other ways to hold it.
std::vector<DrawnPath> drawn_fixing(const Plan& plan, const Job& job);
/// Each plate for the metal shop, one beside the other: outline and the openings that let the top go, seen from below.
std::vector<DrawnPath> drawn_plates(const Plan& plan, const Job& job);
/// The top with its cuts on the slab as laid, or alone in its own frame as a template.
std::vector<DrawnPath> drawn_top(const Plan& plan, const Placement& placement, bool as_template);

}  // namespace yb
