#include "core/steps/makeup/choices.h"

namespace yb {

const char* name_of(MakeUp kind) {
    static constexpr std::array names{"one slab",      "an opened pair", "a slip pair", "three or four boards",
                                      "a resin river", "an open river"};
    return names.at(static_cast<std::size_t>(kind));
}

bool is_river(MakeUp kind) { return kind == MakeUp::river || kind == MakeUp::open_river; }

MakeUp made_of(MakeUp kind, std::size_t leaves) {
    if (leaves < 2) return MakeUp::single;
    if (is_river(kind)) return kind;
    if (leaves == 2) return kind == MakeUp::slip ? MakeUp::slip : MakeUp::book;
    return MakeUp::boards;
}

void fields(FieldVisitor& v, Joint& j) {
    v.number({"v_mm", "Across, at the middle", Kind::length, {-5000, 5000}}, j.v_mm);
    v.number({"angle_deg", "Against the length", Kind::angle, {-45, 45}}, j.angle_deg);
    v.flag({"curved", "Follows the edge"}, j.curved);
}

void fields(FieldVisitor& v, Patch& p) {
    v.text({"id", "Id", true}, p.id);
    v.ring({"outline", "Outline, in the top's frame", true}, p.outline);
    v.number({"depth_mm", "deep", Kind::fine, {0.5, 200}}, p.depth_mm);
    v.text({"slab", "Slab it is cut from"}, p.slab);
    v.point({"at", "Its middle on that slab"}, p.at);
    v.number({"turn_deg", "grain turned", Kind::angle, {-360, 360}}, p.turn_deg);
}

void fields(FieldVisitor& v, MakeUpChoices& c) {
    v.school(make_ups, c);
    v.list({"joints", "Joints, from the right"}, c.joints);
    v.number({"mill_kerf_mm", "Kerf of the mill", Kind::fine, {0, 30}}, c.mill_kerf_mm);
    v.number({"rip_kerf_mm", "Kerf of the rip", Kind::fine, {0, 12}}, c.rip_kerf_mm);
    v.school(rip_lines, c);
    v.school(outer_boards, c);
    v.school(faces_shown, c);
    v.number({"river_mm", "River, on average", Kind::length, {5, 3000}}, c.river_mm);
    v.school(river_colours, c);
    v.number({"least_radius_mm", "Curve, least radius", Kind::length, {20, 20000}}, c.least_radius_mm);
    v.number({"cutter_mm", "Cutter for the template", Kind::fine, {3, 60}}, c.cutter_mm);
    v.number({"rod_mm", "Rods, thick", Kind::fine, {3, 60}}, c.rod_mm);
    v.number({"rod_pitch_mm", "Rods, apart", Kind::length, {40, 3000}}, c.rod_pitch_mm);
    v.number({"rod_depth_mm", "Rods, deep", Kind::length, {10, 500}}, c.rod_depth_mm);
    v.number({"halves_u_mm", "In two halves, cut from the middle", Kind::length, {-10000, 10000}}, c.halves_u_mm);
    v.list({"patches", "Patches"}, c.patches);
    v.flag({"faces_flat", "Both faces of every leaf are flat"}, c.faces_flat);
    v.flag({"ripped", "The joints are ripped"}, c.ripped);
}

}  // namespace yb
