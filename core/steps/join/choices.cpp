#include "core/steps/join/choices.h"

namespace yb {

namespace {
constexpr Range place{-10000, 10000};
}

void fields(FieldVisitor& v, BowTie& b) {
    v.number({"u_mm", "Along, from the middle", Kind::length, place, true}, b.u_mm);
    v.number({"v_mm", "Across, from the middle", Kind::length, place, true}, b.v_mm);
    v.number({"turn_deg", "Turned", Kind::angle, {-360, 360}}, b.turn_deg);
    v.number({"long_mm", "Bow tie, long", Kind::length, {10, 600}}, b.long_mm);
    v.number({"wide_mm", "Bow tie, wide", Kind::length, {5, 300}}, b.wide_mm);
    v.number({"deep_mm", "Bow tie, deep", Kind::fine, {1, 100}}, b.deep_mm);
    v.flag({"from_above", "Let in from above"}, b.from_above);
}

void fields(FieldVisitor& v, GapReading& g) {
    v.number({"joint", "Joint", Kind::count, {1, 40}}, g.joint);
    v.number({"u_mm", "Along, from the middle", Kind::length, place, true}, g.u_mm);
    v.number({"gap_mm", "Gap", Kind::fine, {0, 30}}, g.gap_mm);
    v.school(edge_reads, g);
    v.number({"square_mm", "Out of square", Kind::fine, {-10, 10}}, g.square_mm);
}

void fields(FieldVisitor& v, JoinChoices& c) {
    v.school(join_looses, c);
    v.number({"pitch_mm", "One every", Kind::length, {40, 2000}}, c.pitch_mm);
    v.number({"loose_long_mm", "Tenon, long", Kind::fine, {5, 300}}, c.loose_long_mm);
    v.number({"loose_wide_mm", "Tenon, wide", Kind::fine, {3, 300}}, c.loose_wide_mm);
    v.number({"loose_thick_mm", "Tenon, thick", Kind::fine, {2, 60}}, c.loose_thick_mm);
    v.school(join_faces, c);
    v.number({"spread_g_m2", "Glue, g a m²", Kind::number, {20, 1000}}, c.spread_g_m2);
    v.number({"glue_kg_l", "Glue weighs, kg/L", Kind::number, {0.5, 2}}, c.glue_kg_l);
    v.number({"open_min", "Open time at 20 °C, minutes", Kind::number, {0.5, 600}}, c.open_min);
    v.school(join_glues, c);
    v.school(join_hands, c);
    v.school(join_stages, c);
    v.number({"spread_m2_min", "Spread, m² a minute", Kind::number, {0.005, 5}}, c.spread_m2_min);
    v.number({"piece_s", "A tenon, seconds", Kind::number, {0, 300}}, c.piece_s);
    v.number({"set_min", "A joint together, minutes", Kind::number, {0, 60}}, c.set_min);
    v.number({"clamp_s", "A clamp, seconds", Kind::number, {0, 600}}, c.clamp_s);
    v.number({"clamp_n", "A clamp presses, N", Kind::number, {50, 50000}}, c.clamp_n);
    v.school(join_cauls, c);
    v.school(join_edges, c);
    v.school(join_barks, c);
    v.school(join_acrosses, c);
    v.number({"edge_mm", "Edge, by", Kind::fine, {0, 60}}, c.edge_mm);
    v.school(join_springs, c);
    v.number({"spring_mm", "Hollow in the middle", Kind::fine, {0, 5}}, c.spring_mm);
    v.number({"bit_mm", "Bit for bow ties", Kind::fine, {1, 30}}, c.bit_mm);
    v.number({"washer_mm", "Washer under the drilling guide", Kind::fine, {0, 10}}, c.washer_mm);
    v.number({"caul_mm", "Cauls, thinnest", Kind::fine, {10, 300}}, c.caul_mm);
    v.number({"connectors", "Connectors", Kind::count, {1, 20}}, c.connectors);
    v.list({"ties", "Bow ties"}, c.ties);
    v.list({"gaps", "Gaps of joints, dry"}, c.gaps);
}

}  // namespace yb
