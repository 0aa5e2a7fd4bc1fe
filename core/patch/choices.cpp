#include "core/patch/choices.h"

namespace yb {

void fields(FieldVisitor& v, Patch& p) {
    v.text({"id", "Id", true}, p.id);
    v.ring({"outline", "Outline, in the top's frame", true}, p.outline);
    v.number({"depth_mm", "deep", Kind::fine, {0.5, 200}}, p.depth_mm);
    v.text({"slab", "Slab it is cut from"}, p.slab);
    v.point({"at", "Its middle on that slab"}, p.at);
    v.number({"turn_deg", "grain turned", Kind::angle, {-360, 360}}, p.turn_deg);
}

}  // namespace yb
