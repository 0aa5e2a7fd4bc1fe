// Lay with several leaves: they are dragged, turned and ripped where they lie together; the strip shows how the figure
// drifts along the seam, or how wide the river runs.
#pragma once

#include "app/kit/bench/step_view.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/match/likeness.h"

namespace yb::leaves {

QString strip_title(const Session& s);
QString end_note(const Session& s);
void draw_plan(QPainter& p, const BenchMap& map, const Session& s);
void add_labels(const BenchMap& map, const Session& s, std::vector<Label>& out);
void draw_strip(QPainter& p, const BenchMap& map, const Session& s);
/// How well the pictures agree in windows along the seam, as bars hanging from the strip's top.
void draw_match(QPainter& p, const BenchMap& map, const Session& s, const SeamMatch& match);
void draw_end(QPainter& p, const BenchMap& map, const Session& s);
std::vector<Handle> handles(const BenchMap& map, const Session& s);
std::vector<Dimension> dimensions(const BenchMap& map, const Session& s, const Field& length, const Field& width);
std::vector<Field> fields(const MakeUpChoices& makeup);

/// The make-up's inputs as the leaves lie. They refer to the plan's slabs and are good while it lives.
MakeUpInputs inputs(const Plan& plan, const std::vector<Leaf>& leaves, const WantedTop& top, const MakeUpChoices& choices);

}  // namespace yb::leaves
