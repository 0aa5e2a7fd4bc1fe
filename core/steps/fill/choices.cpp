#include "core/steps/fill/choices.h"

namespace yb {

void fields(FieldVisitor& v, VoidFill& f) {
    v.text({"flaw_id", "Flaw", true}, f.flaw_id);
    v.text({"resin", "Resin"}, f.resin);
    v.flag({"leave_open", "Left open"}, f.leave_open);
    v.school(soaks, f);
}

void fields(FieldVisitor& v, FillChoices& c) {
    v.number({"overfill_mm", "Overfill", Kind::fine, {0, 20}}, c.overfill_mm);
    v.number({"reserve_pct", "Reserve", Kind::percent, {0, 200}}, c.reserve_pct);
    v.number({"tape_mm", "Tape below, wide", Kind::length, {10, 300}}, c.tape_mm);
    v.number({"pigment_g_kg", "Tint, g in a kg of mix", Kind::number, {0, 200}}, c.pigment_g_kg);
    v.text({"colour", "Tint"}, c.colour);
    v.text({"river", "Resin of a river"}, c.river);
}

}  // namespace yb
