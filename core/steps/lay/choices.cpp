#include "core/steps/lay/choices.h"

namespace yb {

void fields(FieldVisitor& v, FlawWishes& w) {
    v.school(wish_crack, w);
    v.school(wish_void, w);
    v.school(wish_pocket, w);
    v.school(wish_knot, w);
    v.school(wish_soft, w);
    v.school(wish_insects, w);
    v.school(wish_pith, w);
    v.school(wish_scar, w);
}

void fields(FieldVisitor& v, WantedTop& t) {
    v.number({"length_mm", "Length", Kind::length, {50, 20000}}, t.length_mm);
    v.number({"width_mm", "Width", Kind::length, {50, 5000}}, t.width_mm);
    v.number({"thickness_mm", "Thickness", Kind::fine, {3, 400}}, t.thickness_mm);
    v.number({"height_mm", "Table height", Kind::length, {100, 2000}}, t.height_mm);
    v.school(live_edges, t);
    v.number({"seats", "Seats", Kind::count, {0, 60}}, t.seats);
    v.school(top_shapes, t);
    v.ring({"free_form", "Outline of a free form"}, t.free_form);
    v.object({"flaws", "Flaws in it"}, t.flaws);
}

void fields(FieldVisitor& v, Placement& p) {
    v.number({"x_mm", "Middle, along", Kind::length, {-30000, 30000}}, p.x_mm);
    v.number({"y_mm", "Middle, across", Kind::length, {-30000, 30000}}, p.y_mm);
    v.number({"angle_deg", "Turned", Kind::angle, {-3600, 3600}}, p.angle_deg);
    v.flag({"turned_over", "Turned over"}, p.turned_over);
    v.number({"oversize_mm", "Over, each end", Kind::length, {0, 500}}, p.oversize_mm);
}

}  // namespace yb
