#include "core/steps/pour/choices.h"

namespace yb {

void fields(FieldVisitor& v, Divider& d) {
    v.number({"river", "River", Kind::count, {1, 40}}, d.river);
    v.number({"u_mm", "Along, from the middle", Kind::length, {-10000, 10000}, true}, d.u_mm);
    v.text({"colour", "Colour right of it"}, d.colour);
    v.number({"pigment_g_kg", "Its pigment, g a kg", Kind::number, {0, 200}}, d.pigment_g_kg);
}

void fields(FieldVisitor& v, PourChoices& c) {
    v.number({"peak_limit_c", "No hotter than", Kind::temperature, {25, 150}}, c.peak_limit_c);
    v.school(pour_airs, c);
    v.number({"lifts", "Lifts, 0 for as few as will do", Kind::count, {0, 40}}, c.lifts);
    v.number({"after_mm", "Planed off after the pour", Kind::fine, {0, 30}}, c.after_mm);
    v.number({"cup_l", "Largest cup", Kind::volume, {0.05, 100}}, c.cup_l);
    v.school(pour_degas, c);
    v.number({"pot_l", "Vacuum pot", Kind::volume, {0.1, 200}}, c.pot_l);
    v.number({"cup_loss_pct", "Stays in the cup", Kind::percent, {0, 30}}, c.cup_loss_pct);
    v.number({"mix_min", "To mix a batch, minutes", Kind::number, {0.5, 60}}, c.mix_min);
    v.number({"soak_ml_m2", "Soaks in, mL a m²", Kind::number, {0, 2000}}, c.soak_ml_m2);
    v.number({"pigment_g_kg", "Pigment, g a kg", Kind::number, {0, 200}}, c.pigment_g_kg);
    v.text({"colour", "Colour"}, c.colour);
    v.number({"sheet_mm", "Form's sheet", Kind::fine, {1, 60}}, c.sheet_mm);
    v.number({"rim_mm", "Sides above the pour", Kind::fine, {0, 200}}, c.rim_mm);
    v.number({"tape_mm", "Tape, wide", Kind::fine, {5, 300}}, c.tape_mm);
    v.number({"clamp_n", "A clamp presses, N", Kind::number, {20, 20000}}, c.clamp_n);
    v.number({"slope_mm_m", "Form out of level, mm a m", Kind::number, {0, 50}}, c.slope_mm_m);
    v.number({"bearers_mm", "Bearers apart", Kind::length, {50, 3000}}, c.bearers_mm);
    v.number({"overhang_mm", "Form over its bench by", Kind::length, {0, 3000}}, c.overhang_mm);
    v.numbers({"corners_mm", "Form's corners, high by", Kind::fine, {-100, 100}}, c.corners_mm);
    v.number({"night_c", "Colder by night, °C", Kind::number, {0, 40}}, c.night_c);
    v.list({"dividers", "Dividers"}, c.dividers);
    v.text({"second_colour", "Second colour"}, c.second_colour);
    v.number({"second_pct", "Second colour, of the last lift", Kind::percent, {0, 90}}, c.second_pct);
    v.number({"panel_long_mm", "Sheets, long", Kind::length, {300, 6000}}, c.panel_long_mm);
    v.number({"panel_wide_mm", "Sheets, wide", Kind::length, {200, 3000}}, c.panel_wide_mm);
    v.number({"roll_m", "Tape on a roll, m", Kind::number, {1, 1000}}, c.roll_m);
    v.number({"kerf_mm", "Sheets, saw kerf", Kind::fine, {0, 20}}, c.kerf_mm);
}

}  // namespace yb
