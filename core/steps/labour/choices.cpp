#include "core/steps/labour/choices.h"

namespace yb {

void fields(FieldVisitor& v, Labour& l) {
    constexpr Range takes{0, 1000};
    v.number({"lay_min", "Laying out, minutes to begin with", Kind::number, takes}, l.lay_min);
    v.number({"lay_slab_min", "… each slab, minutes", Kind::number, takes}, l.lay_slab_min);
    v.number({"lay_m2_min", "… minutes a m² of top", Kind::number, takes}, l.lay_m2_min);
    v.number({"saw_set_min", "Sawing, setting up each time, minutes", Kind::number, takes}, l.saw_set_min);
    v.number({"saw_m_min", "… minutes a metre of cut", Kind::number, takes}, l.saw_m_min);
    v.number({"bark_m_min", "Bark off, minutes a metre", Kind::number, takes}, l.bark_m_min);
    v.number({"clean_set_min", "Cleaning out, setting up, minutes", Kind::number, takes}, l.clean_set_min);
    v.number({"clean_dm2_min", "… minutes a dm² of walls and floor", Kind::number, takes}, l.clean_dm2_min);
    v.number({"flat_set_min", "Making flat, setting the rails up, minutes", Kind::number, takes}, l.flat_set_min);
    v.number({"turn_min", "… each leaf laid and turned, minutes", Kind::number, takes}, l.turn_min);
    v.number({"rip_set_min", "Ripping, setting up each joint, minutes", Kind::number, takes}, l.rip_set_min);
    v.number({"rip_m_min", "… minutes a metre of edge", Kind::number, takes}, l.rip_m_min);
    v.number({"rod_set_min", "Rods, setting up each joint, minutes", Kind::number, takes}, l.rod_set_min);
    v.number({"rod_min", "… each rod, minutes", Kind::number, takes}, l.rod_min);
    v.number({"form_set_min", "Form, setting up, minutes", Kind::number, takes}, l.form_set_min);
    v.number({"form_panel_min", "… each panel cut and screwed, minutes", Kind::number, takes}, l.form_panel_min);
    v.number({"form_tape_m_min", "… minutes a metre of tape", Kind::number, takes}, l.form_tape_m_min);
    v.number({"form_seam_m_min", "… minutes a metre of caulked seam", Kind::number, takes}, l.form_seam_m_min);
    v.number({"pour_set_min", "Pouring a lift, setting out and cleaning up, minutes", Kind::number, takes}, l.pour_set_min);
    v.number({"pour_batch_min", "… each batch poured and torched, minutes", Kind::number, takes}, l.pour_batch_min);
    v.number({"shave_m_min", "Shaving it warm, minutes a metre of edge", Kind::number, takes}, l.shave_m_min);
    v.number({"unmould_min", "Out of the form, to begin with, minutes", Kind::number, takes}, l.unmould_min);
    v.number({"unmould_panel_min", "… each panel, minutes", Kind::number, takes}, l.unmould_panel_min);
    v.number({"scrape_m_min", "Scraping, minutes a metre of river", Kind::number, takes}, l.scrape_m_min);
    v.number({"little_set_min", "Topping and touching up, setting up, minutes", Kind::number, takes}, l.little_set_min);
    v.number({"little_m_min", "… minutes a metre of river", Kind::number, takes}, l.little_m_min);
    v.number({"bleed_m_min", "Live edges cleaned of resin, minutes a metre", Kind::number, takes}, l.bleed_m_min);
    v.number({"soak_set_min", "Soaking soft wood, setting up, minutes", Kind::number, takes}, l.soak_set_min);
    v.number({"soak_min", "… each place, minutes", Kind::number, takes}, l.soak_min);
    v.number({"fill_set_min", "A round of filling, setting up and cleaning up, minutes", Kind::number, takes}, l.fill_set_min);
    v.number({"fill_batch_min", "… each resin mixed, minutes", Kind::number, takes}, l.fill_batch_min);
    v.number({"fill_place_min", "… each void, minutes", Kind::number, takes}, l.fill_place_min);
    v.number({"fill_ready_min", "… the first time besides, minutes", Kind::number, takes}, l.fill_ready_min);
    v.number({"fill_tape_min", "… open below, besides, minutes", Kind::number, takes}, l.fill_tape_min);
    v.number({"level_set_min", "Levelling, setting up, minutes", Kind::number, takes}, l.level_set_min);
    v.number({"level_place_min", "… each void, minutes", Kind::number, takes}, l.level_place_min);
    v.number({"glue_set_min", "Gluing up, setting out and cleaning up, minutes", Kind::number, takes}, l.glue_set_min);
    v.number({"glue_wipe_min", "… what comes out, after an hour, minutes", Kind::number, takes}, l.glue_wipe_min);
    v.number({"inner_set_min", "Inner edges of halves, setting up, minutes", Kind::number, takes}, l.inner_set_min);
    v.number({"inner_rod_min", "… each rod, minutes", Kind::number, takes}, l.inner_rod_min);
    v.number({"tie_jig_min", "Template of the bow ties, minutes", Kind::number, takes}, l.tie_jig_min);
    v.number({"tie_min", "… each let in, minutes", Kind::number, takes}, l.tie_min);
    v.number({"edge_set_min", "Shaping the edge, setting up, minutes", Kind::number, takes}, l.edge_set_min);
    v.number({"edge_m_min", "… minutes a metre", Kind::number, takes}, l.edge_m_min);
    v.number({"carve_m_min", "… carved, minutes a metre", Kind::number, takes}, l.carve_m_min);
    v.number({"order_min", "Ordering something, minutes", Kind::number, takes}, l.order_min);
    v.number({"look_min", "Looking at what comes, minutes", Kind::number, takes}, l.look_min);
    v.number({"piece_min", "Base, each piece cut and planed, minutes", Kind::number, takes}, l.piece_min);
    v.number({"slant_min", "… each slanted end, minutes", Kind::number, takes}, l.slant_min);
    v.number({"base_joint_min", "… each joint, minutes", Kind::number, takes}, l.base_joint_min);
    v.number({"stage_min", "… each stage glued, minutes", Kind::number, takes}, l.stage_min);
    v.number({"mask_set_min", "… finished first, to begin with, minutes", Kind::number, takes}, l.mask_set_min);
    v.number({"mask_min", "… each glue face masked, minutes", Kind::number, takes}, l.mask_min);
    v.number({"jig_set_min", "Drilling template, setting up, minutes", Kind::number, takes}, l.jig_set_min);
    v.number({"jig_hole_min", "… each hole, minutes", Kind::number, takes}, l.jig_hole_min);
    v.number({"hole_set_min", "Holes under the top, setting up, minutes", Kind::number, takes}, l.hole_set_min);
    v.number({"hole_min", "… each insert or slot, minutes", Kind::number, takes}, l.hole_min);
    v.number({"screw_min", "… each wood screw, minutes", Kind::number, takes}, l.screw_min);
    v.number({"pocket_set_min", "Pockets, setting up each, minutes", Kind::number, takes}, l.pocket_set_min);
    v.number({"pocket_m_min", "… minutes a metre", Kind::number, takes}, l.pocket_m_min);
    v.number({"dryfit_set_min", "Dry fit, to begin with, minutes", Kind::number, takes}, l.dryfit_set_min);
    v.number({"dryfit_bolt_min", "… each bolt or screw, minutes", Kind::number, takes}, l.dryfit_bolt_min);
    v.number({"sample_min", "A sample board, minutes", Kind::number, takes}, l.sample_min);
    v.number({"before_set_min", "Bleach, stain, fume, setting up, minutes", Kind::number, takes}, l.before_set_min);
    v.number({"before_m2_min", "… minutes a m²", Kind::number, takes}, l.before_m2_min);
    v.number({"sand_set_min", "Sanding, setting up, minutes", Kind::number, takes}, l.sand_set_min);
    v.number({"hairline_m2_min", "… pin holes and hairlines closed, minutes a m²", Kind::number, takes}, l.hairline_m2_min);
    v.number({"coat_set_min", "A coat, setting out and cleaning up, minutes", Kind::number, takes}, l.coat_set_min);
    v.number({"rub_set_min", "Rubbed between coats of a film, to begin with, minutes", Kind::number, takes}, l.rub_set_min);
    v.number({"rub_m2_min", "… minutes a m²", Kind::number, takes}, l.rub_m2_min);
    v.number({"buff_set_min", "Buffing, to begin with, minutes", Kind::number, takes}, l.buff_set_min);
    v.number({"buff_m2_min", "… minutes a m²", Kind::number, takes}, l.buff_m2_min);
    v.number({"assemble_set_min", "Putting together, to begin with, minutes", Kind::number, takes}, l.assemble_set_min);
    v.number({"assemble_bolt_min", "… each bolt or screw, minutes", Kind::number, takes}, l.assemble_bolt_min);
    v.number({"level_min", "… levelled on its floor, minutes", Kind::number, takes}, l.level_min);
    v.number({"carry_min", "Carrying, each part in and out, minutes", Kind::number, takes}, l.carry_min);
    v.number({"set_up_min", "Set up at the client's, minutes", Kind::number, takes}, l.set_up_min);
}

}  // namespace yb
