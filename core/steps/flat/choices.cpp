#include "core/steps/flat/choices.h"

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
    v.numbers({"shims_mm", "Shim stock", Kind::fine, {0, 100}}, s.shims_mm);
    v.number({"light_mm", "Last light pass", Kind::fine, {0, 5}}, s.light_mm);
    v.number({"tram_feed_mm", "Out of tram along the feed", Kind::fine, {0, 5}}, s.tram_feed_mm);
    v.number({"reach_mm", "Cutter reaches below the base", Kind::fine, {1, 200}}, s.reach_mm);
    v.number({"base_mm", "Router's base", Kind::length, {30, 500}}, s.base_mm);
    v.number({"router_w", "Router draws, W", Kind::number, {50, 10000}}, s.router_w);
    v.number({"edge_m", "Look at the cutter after, m", Kind::number, {1, 100000}}, s.edge_m);
    v.flag({"rails_beside", "Rails stand beside the deck"}, s.rails_beside);
    v.number({"deck_mm", "Deck", Kind::fine, {0, 200}}, s.deck_mm);
    v.flag({"to_build", "The sled has yet to be built"}, s.to_build);
    v.object({"bed", "The bed, gaps under a straightedge"}, s.bed);
    v.object({"tools", "Other ways to flatten"}, s.tools);
    v.numbers({"spacers_mm", "Flat boards at hand", Kind::fine, {0, 300}}, s.spacers_mm);
}

void fields(FieldVisitor& v, FlatRound& r) {
    v.text({"on", "Read on", true}, r.on);
    v.number({"bow_mm", "Gap along", Kind::fine, {-60, 60}}, r.bow_mm);
    v.number({"cup_mm", "Gap across", Kind::fine, {-60, 60}}, r.cup_mm);
    v.number({"twist_mm", "Winding sticks differ", Kind::fine, {-60, 60}}, r.twist_mm);
    v.number({"thickness_mm", "Thick now", Kind::fine, {0, 300}}, r.thickness_mm);
}

void fields(FieldVisitor& v, Bed& b) {
    v.number({"front_mm", "Gap, front", Kind::fine, {-20, 20}}, b.front_mm);
    v.number({"back_mm", "Gap, back", Kind::fine, {-20, 20}}, b.back_mm);
    v.number({"left_mm", "Gap, left end", Kind::fine, {-20, 20}}, b.left_mm);
    v.number({"right_mm", "Gap, right end", Kind::fine, {-20, 20}}, b.right_mm);
    v.number({"rising_mm", "Gap, front left to back right", Kind::fine, {-20, 20}}, b.rising_mm);
    v.number({"falling_mm", "Gap, front right to back left", Kind::fine, {-20, 20}}, b.falling_mm);
}

void fields(FieldVisitor& v, FlatTools& t) {
    v.flag({"has_planer", "A thickness planer is there"}, t.has_planer);
    v.flag({"has_drum", "A drum sander is there"}, t.has_drum);
    v.flag({"has_hand", "A hand power planer is there"}, t.has_hand);
    v.number({"planer_mm", "Planer takes, wide", Kind::length, {50, 2000}}, t.planer_mm);
    v.number({"planer_layer_mm", "Planer takes, deep", Kind::fine, {0.1, 10}}, t.planer_layer_mm);
    v.number({"planer_mm_s", "Planer feeds, mm a second", Kind::number, {1, 1000}}, t.planer_mm_s);
    v.number({"drum_mm", "Drum sander takes, wide", Kind::length, {50, 2500}}, t.drum_mm);
    v.number({"drum_layer_mm", "Drum sander takes, deep", Kind::fine, {0.05, 5}}, t.drum_layer_mm);
    v.number({"drum_mm_s", "Drum sander feeds, mm a second", Kind::number, {1, 500}}, t.drum_mm_s);
    v.number({"hand_mm", "Hand planer, wide", Kind::length, {20, 350}}, t.hand_mm);
    v.number({"hand_layer_mm", "Hand planer takes, deep", Kind::fine, {0.1, 5}}, t.hand_layer_mm);
    v.number({"hand_mm_s", "Hand planer, mm a second", Kind::number, {1, 1000}}, t.hand_mm_s);
    v.number({"machine_m2", "Machine shop, a m²", Kind::number, {0, 10000}}, t.machine_m2);
    v.number({"machine_days", "Machine shop, days until it is back", Kind::number, {0, 365}}, t.machine_days);
    v.number({"machine_long_mm", "Machine shop's table, long", Kind::length, {300, 20000}}, t.machine_long_mm);
    v.number({"machine_wide_mm", "Machine shop's table, wide", Kind::length, {200, 6000}}, t.machine_wide_mm);
    v.number({"bought_m2", "Bought flat, more a m²", Kind::number, {0, 10000}}, t.bought_m2);
}

void fields(FieldVisitor& v, FlatChoices& c) {
    v.school(flat_aims, c);
    v.school(flat_finishes, c);
    v.school(flat_firsts, c);
    v.school(flat_lanes, c);
    v.school(flat_tilts, c);
    v.school(flat_bys, c);
    v.school(flat_helds, c);
    v.number({"rest_h", "Rest between", Kind::hours, {0, 2000}}, c.rest_h);
    v.number({"allowance_mm", "Left for last pass", Kind::fine, {0, 20}}, c.allowance_mm);
    v.school(flat_airs, c);
}

}  // namespace yb
