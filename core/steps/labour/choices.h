// Labour: what hands take for the work between the computed steps – an amount of the plan times a rate, and setting up.
//
// Rates are starting values in minutes, of makers' reports of whole jobs (docs/methods.md, Labour): numbers of the shop, typed over or
// learned by its pace.
#pragma once

#include "core/ground/fields/fields.h"

namespace yb {

struct Labour {
    double lay_min = 3;       ///< a place cleared, the paper, the chalk
    double lay_slab_min = 5;  ///< carried up, looked at, turned
    double lay_m2_min = 5;
    double saw_set_min = 5;  ///< guide rail, blade, cables
    double saw_m_min = 4;
    double bark_m_min = 18;  ///< drawknife, chisel, brush
    double clean_set_min = 5;
    double clean_dm2_min = 8;  ///< rot, bark, loose fibre: picks, brushes, air
    double flat_set_min = 15;  ///< once a job
    double turn_min = 20;      ///< with wedges and time to look
    double rip_set_min = 10;
    double rip_m_min = 6;     ///< two edges each joint
    double rod_set_min = 30;  ///< a guide, a stop
    double rod_min = 15;      ///< two holes bored in line
    double form_set_min = 20;
    double form_panel_min = 10;
    double form_tape_m_min = 1;
    double form_seam_m_min = 4;
    double pour_set_min = 30;
    double pour_batch_min = 8;  ///< beside mixing it
    double shave_m_min = 4;
    double unmould_min = 20;
    double unmould_panel_min = 6;
    double scrape_m_min = 10;    ///< what stands proud of both faces
    double little_set_min = 10;  ///< a cup, a torch
    double little_m_min = 3;
    double bleed_m_min = 6;
    double soak_set_min = 5;
    double soak_min = 8;  ///< again and again until it takes no more
    double fill_set_min = 10;
    double fill_batch_min = 6;
    double fill_place_min = 3;  ///< poured, torched
    double fill_ready_min = 3;  ///< blown out, edges sealed
    double fill_tape_min = 8;   ///< taped and pressed down
    double level_set_min = 5;
    double level_place_min = 2;
    double glue_set_min = 30;  ///< clamps, cauls, paper; the dry run takes as long as the glue-up itself
    double glue_wipe_min = 10;
    double inner_set_min = 45;  ///< sanded and finished where nobody reaches later
    double inner_rod_min = 6;
    double tie_jig_min = 30;
    double tie_min = 45;
    double edge_set_min = 10;
    double edge_m_min = 5;    ///< router or plane
    double carve_m_min = 40;  ///< by grinder and scraper
    double order_min = 15;    ///< asked, compared, ordered
    double look_min = 15;     ///< holes, plates in one plane, threads, height
    double piece_min = 12;
    double slant_min = 6;
    double base_joint_min = 24;
    double stage_min = 45;
    double mask_set_min = 15;
    double mask_min = 6;
    double jig_set_min = 10;
    double jig_hole_min = 2;
    double hole_set_min = 5;
    double hole_min = 6;   ///< marked, drilled, set
    double screw_min = 1;  ///< marked, drilled
    double pocket_set_min = 20;
    double pocket_m_min = 40;
    double dryfit_set_min = 5;
    double dryfit_bolt_min = 0.5;
    double sample_min = 30;
    double before_set_min = 20;
    double before_m2_min = 15;
    double sand_set_min = 5;
    double hairline_m2_min = 25;  ///< thin glue and its accelerator, scraped and sanded back
    double coat_set_min = 4;
    double rub_set_min = 3;
    double rub_m2_min = 2;  ///< 320 to 600, then dusted off
    double buff_set_min = 5;
    double buff_m2_min = 8;  ///< once it is hard
    double assemble_set_min = 10;
    double assemble_bolt_min = 0.5;
    double level_min = 5;
    double carry_min = 10;   ///< wrapped, loaded, carried in
    double set_up_min = 30;  ///< bolted, levelled, wiped, told how it is kept
    bool operator==(const Labour&) const = default;
};
void fields(FieldVisitor& v, Labour& l);

}  // namespace yb
