#include "core/flat/choices.h"

namespace yb {

void fields(FieldVisitor& v, Support& s) {
    v.number({"x_mm", "Along", Kind::along, {-1000, 30000}, true}, s.x_mm);
    v.number({"y_mm", "Across", Kind::length, {-5000, 5000}, true}, s.y_mm);
}

void fields(FieldVisitor& v, Sled& s) {
    v.number({"cutter_mm", "Cutter", Kind::fine, {3, 300}}, s.cutter_mm);
    v.number({"overlap", "Lanes overlap, share", Kind::number, {0, 0.95}}, s.overlap);
    v.number({"depth_mm", "Depth a layer", Kind::fine, {0.2, 25}}, s.depth_mm);
    v.number({"feed_mm_s", "Feed, mm a second", Kind::number, {1, 1000}}, s.feed_mm_s);
    v.number({"turn_s", "To the next lane, seconds", Kind::number, {0, 600}}, s.turn_s);
    v.number({"layer_s", "To set a layer, seconds", Kind::number, {0, 3600}}, s.layer_s);
    v.number({"floor_mm", "Floor of the sled", Kind::fine, {1, 80}}, s.floor_mm);
    v.number({"rail_mm", "Rails above the bench", Kind::fine, {10, 600}}, s.rail_mm);
    v.number({"stickout_mm", "Bit may stand out", Kind::fine, {1, 120}}, s.stickout_mm);
    v.number({"tram_mm", "Out of tram by", Kind::fine, {0, 5}}, s.tram_mm);
    v.number({"span_mm", "Between the rails", Kind::length, {100, 4000}}, s.span_mm);
    v.number({"beams", "Beams of the sled", Kind::count, {1, 6}}, s.beams);
    v.number({"beam_wide_mm", "Each beam, wide", Kind::fine, {3, 200}}, s.beam_wide_mm);
    v.number({"beam_high_mm", "Each beam, high", Kind::fine, {5, 300}}, s.beam_high_mm);
    v.number({"beam_mpa", "Stiffness of the beams, N/mm²", Kind::number, {1000, 250000}}, s.beam_mpa);
    v.number({"router_n", "Router and hand press, N", Kind::number, {5, 1000}}, s.router_n);
    v.number({"loose", "Loose chips, times the wood", Kind::number, {1, 12}}, s.loose);
    v.number({"bag_l", "A bag holds", Kind::volume, {1, 2000}}, s.bag_l);
    v.numbers({"spacers_mm", "Flat boards at hand", Kind::fine, {0, 300}}, s.spacers_mm);
}

void fields(FieldVisitor& v, FlatChoices& c) {
    v.school(flat_aims, c);
    v.school(flat_finishes, c);
    v.school(flat_firsts, c);
    v.number({"rest_h", "Rest between", Kind::hours, {0, 2000}}, c.rest_h);
    v.number({"allowance_mm", "Left for last pass", Kind::fine, {0, 20}}, c.allowance_mm);
    v.school(flat_airs, c);
}

}  // namespace yb
