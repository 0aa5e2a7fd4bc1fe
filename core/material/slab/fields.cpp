// The fields of a slab, each declared once.
#include <fmt/format.h>

#include "core/material/slab/slab.h"

namespace yb {

namespace {

constexpr Range along_slab{-1000, 30000};
constexpr Range across_slab{-5000, 5000};
constexpr Range thick{0.1, 1000};

/// A plain member as a school that is only a pick: kinds of flaw, faces.
constexpr auto kinds =
    school(nullptr, "kind", "Kind", &Flaw::kind, Way{FlawKind::crack, "crack", "crack"}, Way{FlawKind::void_, "void", "void"},
           Way{FlawKind::pocket, "pocket", "pocket"}, Way{FlawKind::knot, "knot", "knot"}, Way{FlawKind::soft, "soft", "soft"},
           Way{FlawKind::insects, "insects", "insects"}, Way{FlawKind::pith, "pith", "pith"}, Way{FlawKind::scar, "scar", "scar"});
constexpr auto drieds = school(nullptr, "dried", "Dried", &Slab::dried, Way{Dried::unknown, "unknown", "not said"},
                               Way{Dried::air, "air", "in the air"}, Way{Dried::kiln, "kiln", "in a kiln"});
constexpr auto faces = school(nullptr, "face", "Face", &Flaw::face, Way{Face::a, "A", "A"}, Way{Face::b, "B", "B"});

}  // namespace

void fields(FieldVisitor& v, Station& s) {
    v.number({"x_mm", "Station", Kind::along, along_slab, true}, s.x_mm);
    v.number({"left_mm", "Left edge", Kind::length, across_slab}, s.left_mm);
    v.number({"right_mm", "Right edge", Kind::length, across_slab}, s.right_mm);
    v.number({"other_left_mm", "Left edge, face B", Kind::length, across_slab}, s.other_left_mm);
    v.number({"other_right_mm", "Right edge, face B", Kind::length, across_slab}, s.other_right_mm);
    v.number({"thickness_mm", "Thickness", Kind::fine, {-1000, 1000}}, s.thickness_mm);
    v.number({"thickness_right_mm", "Thickness, right edge", Kind::fine, {-1000, 1000}}, s.thickness_right_mm);
}

void fields(FieldVisitor& v, Tape& t) {
    v.number({"lean_left_mm", "Lean, left", Kind::fine, {-500, 500}}, t.lean_left_mm);
    v.number({"lean_right_mm", "Lean, right", Kind::fine, {-500, 500}}, t.lean_right_mm);
    v.list({"stations", "Stations"}, t.stations);
}

void fields(FieldVisitor& v, HeightGrid& g) {
    v.numbers({"x_mm", "Lines along", Kind::along, along_slab, true}, g.x_mm);
    v.numbers({"y_mm", "Lines across", Kind::length, across_slab, true}, g.y_mm);
    v.numbers({"gap_mm", "Gaps under the straightedge", Kind::fine, {-500, 500}, true}, g.gap_mm);
    if (g.gap_mm.size() != g.x_mm.size() * g.y_mm.size())
        v.wrong("gap_mm", fmt::format("{} gaps are wanted ({} by {}), {} are here", g.x_mm.size() * g.y_mm.size(), g.x_mm.size(),
                                      g.y_mm.size(), g.gap_mm.size()));
}

void fields(FieldVisitor& v, Flaw& f) {
    v.text({"id", "Id", true}, f.id);
    v.school(kinds, f);
    v.school(faces, f);
    v.ring({"outline", "Outline", true}, f.outline);
    v.flag({"through", "Through"}, f.through);
    v.number({"depth_mm", "Depth", Kind::fine, {0, 1000}}, f.depth_mm);
    v.number({"floor_share", "Floor over mouth", Kind::number, {0, 1}}, f.floor_share);
    v.flag({"loose", "Loose"}, f.loose);
    v.number({"holes", "Holes of insects", Kind::count, {0, 10000}}, f.holes);
    v.number({"hole_mm", "… each wide", Kind::fine, {0.2, 30}}, f.hole_mm);
    v.text({"note", "Note"}, f.note);
}

void fields(FieldVisitor& v, TracedOutline& o) {
    v.ring({"a", "Face A", true}, o.a);
    v.ring({"b", "Face B", true}, o.b);
    v.number({"error_mm", "May be off by", Kind::fine, {0, 1000}}, o.error_mm);
    v.text({"from", "Traced from"}, o.from);
    if (o.a.size() != o.b.size())
        v.wrong("b",
                fmt::format("the rings of the two faces are matched point by point: {} and {} points are here", o.a.size(), o.b.size()));
}

void fields(FieldVisitor& v, FacePicture& p) {
    v.text({"key", "Attachment", true}, p.key);
    v.number({"mm_per_px", "Millimetres a pixel", Kind::number, {0.001, 1000}, true}, p.mm_per_px);
    v.number({"width_px", "Wide, pixels", Kind::count, {0, 100000}}, p.width_px);
    v.number({"height_px", "High, pixels", Kind::count, {0, 100000}}, p.height_px);
    v.point({"corner", "Upper left corner", true}, p.corner);
    v.flag({"mirrored", "Mirrored"}, p.mirrored);
}

void fields(FieldVisitor& v, MoistureReading& r) {
    v.text({"on", "Date", true}, r.on);
    v.number({"pct", "Moisture", Kind::percent, {0, 200}, true}, r.pct);
}

void fields(FieldVisitor& v, Slab& s) {
    v.text({"id", "Id", true}, s.id);
    v.text({"name", "Name"}, s.name);
    v.text({"species", "Species"}, s.species);
    v.text({"tree", "Tree"}, s.tree);
    v.number({"sequence", "Number in the log", Kind::count, {-1000, 100000}}, s.sequence);
    v.flag({"cross_cut", "A cross-cut"}, s.cross_cut);
    v.flag({"face_b_up", "Lay in the log with face B up"}, s.face_b_up);
    v.flag({"ends_swapped", "Lay in the log end for end"}, s.ends_swapped);
    v.number({"pith_mm", "Pith, from the middle of the thickness", Kind::length, {-3000, 3000}}, s.pith_mm);
    v.number({"moisture_pct", "Moisture", Kind::percent, {0, 200}}, s.moisture_pct);
    v.text({"moisture_on", "Read on"}, s.moisture_on);
    v.list({"moisture_log", "Earlier readings"}, s.moisture_log);
    v.text({"sawn_on", "Sawn on"}, s.sawn_on);
    v.school(drieds, s);
    v.text({"came_on", "Came on"}, s.came_on);
    v.number({"settle_days", "Days to settle", Kind::number, {0, 365}}, s.settle_days);
    v.flag({"faces_looked", "Both faces looked at"}, s.faces_looked);
    v.flag({"no_flaws", "No flaws were found"}, s.no_flaws);
    v.flag({"no_pith", "The pith can't be told"}, s.no_pith);
    v.flag({"retired", "Retired"}, s.retired);
    v.text({"cut_from", "Offcut of"}, s.cut_from);
    v.number({"price", "Price", Kind::number, {0, 1e7}}, s.price);
    v.text({"notes", "Notes"}, s.notes);
    v.object({"tape", "Tape table"}, s.tape);
    v.maybe({"outline", "Traced outline"}, s.outline);
    v.maybe({"picture_a", "Picture of face A"}, s.picture_a);
    v.maybe({"picture_b", "Picture of face B"}, s.picture_b);
    v.object({"heights_a", "Heights of face A"}, s.heights_a);
    v.object({"heights_b", "Heights of face B"}, s.heights_b);
    v.maybe({"truth_a", "How face A truly lies"}, s.truth_a);
    v.maybe({"truth_b", "How face B truly lies"}, s.truth_b);
    v.text({"scan", "Point cloud"}, s.scan);
    v.list({"flaws", "Flaws"}, s.flaws);
}

}  // namespace yb
