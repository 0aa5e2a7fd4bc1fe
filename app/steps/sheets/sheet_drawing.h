// Drawings on the sheets: what lies on the bench with its measures, or paths as templates draw them, in the room a page gives.
#pragma once

#include <optional>
#include <vector>

#include "app/steps/sheets/sheets.h"
#include "core/material/drawing/drawing.h"

namespace yb {

struct LeafPlan;

/// What a drawing of the top shows besides wood and resin.
struct SheetShows {
    bool rough_cuts = false, joints = true, let_in = false, dimensions = true, ties = false;
};

/// As high as the drawing of a box is over the whole width of a page, with room for measures below it.
double drawn_high(const Flow& flow, const Box& box);

/// The whole top, or the one slab with it.
void draw_top_on(QPainter& p, const QRectF& room, const Flow& flow, const SheetData& d, const SheetShows& shows);
Box box_of_top(const SheetData& d);
/// A leaf as it lies on its shims, numbered, its chalk line, the rough cuts. @param over it lies on its show face.
void draw_leaf_on(QPainter& p, const QRectF& room, const Flow& flow, const SheetData& d, const LeafPlan& leaf, bool over);
Box box_of_leaf(const LeafPlan& leaf);
/// Paths by their layers; places numbered from 1 in their order.
void draw_paths_on(QPainter& p, const QRectF& room, const Flow& flow, const std::vector<DrawnPath>& paths,
                   const std::vector<Vec2>& numbered);
Box box_of_paths(const std::vector<DrawnPath>& paths);

}  // namespace yb
