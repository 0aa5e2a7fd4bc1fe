// `burl cure` and `burl pour`.
#include <map>

#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "cli/job_alone.h"
#include "core/ground/cure/cure.h"
#include "core/shop/job/plan.h"
#include "core/steps/fill/fill.h"
#include "core/steps/pour/pour.h"

namespace burl {

namespace {

using yb::Json;

Json or_null(const std::optional<double>& v) { return v ? Json(*v) : Json(nullptr); }

struct CureOrder {
    std::string kind = "slow-deep";
    yb::Section section;
};

void run_cure(const CureOrder& o) {
    for (const yb::Resin& r : yb::starting_resins()) {
        if (r.key != o.kind) continue;
        const yb::Cured c = yb::cure(yb::kinetics_of(r), o.section);
        print({{"class", o.kind},
               {"depth_mm", o.section.depth_mm},
               {"ambient_c", o.section.air_c},
               {"width_mm", o.section.width_mm > 0 ? Json(o.section.width_mm) : Json(nullptr)},
               {"peak_c", c.peak_c},
               {"peak_h", c.peak_h},
               {"syrup_h", or_null(c.syrup_h)},
               {"gel_h", or_null(c.gel_h)},
               {"cured_h", or_null(c.cured_h)},
               {"adiabatic_rise_c", c.rise_c},
               {"energy_error_pct", c.energy_error_pct},
               {"label_deepest_mm", r.deepest_mm},
               {"deeper_than_label", o.section.depth_mm > r.deepest_mm}});
        return;
    }
    throw BadInput("there is no class ‘" + o.kind + "’");
}

void run_pour(const std::string& path) {
    const JobAlone f = read_job_alone(path);
    const yb::Plan plan = f.plan();
    const yb::PourPlan& p = *plan.pour;
    Json compartments = Json::array();
    for (const yb::Compartment& c : p.compartments)
        compartments.push_back({{"id", c.id},
                                {"colour", c.colour},
                                {"net_l", c.net_l},
                                {"pour_l", c.pour_l},
                                {"guess_l", c.guess_l},
                                {"depth_mm", c.depth_mm},
                                {"width_mm", c.width_mm}});
    Json lifts = Json::array();
    for (const yb::PourLift& l : p.lifts)
        lifts.push_back({{"compartment", p.compartments.at(l.compartment).id},
                         {"depth_mm", l.depth_mm},
                         {"volume_l", l.volume_l},
                         {"peak_c", l.peak_c},
                         {"peak_low_c", l.peak_low_c},
                         {"peak_high_c", l.peak_high_c},
                         {"peak_h", l.peak_h},
                         {"poured_h", l.poured_h},
                         {"next_from_h", l.clock.next_from_h},
                         {"next_to_h", l.clock.next_to_h}});
    Json batches = Json::array();
    for (const yb::Batch& b : p.batches)
        batches.push_back({{"lift", b.lift + 1},
                           {"volume_l", b.volume_l},
                           {"a_l", b.a_l},
                           {"b_l", b.b_l},
                           {"a_g", b.a_g},
                           {"b_g", b.b_g},
                           {"pigment_g", b.pigment_g}});
    Json parts = Json::array();
    for (const yb::FormPart& part : p.form.parts)
        parts.push_back({{"name", part.name}, {"count", part.count}, {"length_mm", part.length_mm}, {"width_mm", part.width_mm}});
    Json floats = Json::array();
    for (const yb::FloatUp& up : p.floats) floats.push_back({{"leaf", up.leaf + 1}, {"force_n", up.force_n}, {"clamps", up.clamps}});
    Json dams = Json::array();
    for (const yb::Dam& d : p.dams) dams.push_back({{"at_mm", {d.at.x, d.at.y}}, {"length_mm", d.length_mm}});
    print({{"resin", p.resin},
           {"air_c", p.air_c},
           {"compartments", compartments},
           {"pour_l", p.pour_l},
           {"mix_l", p.mix_l},
           {"lifts", lifts},
           {"batches", batches},
           {"form",
            {{"inside_length_mm", p.form.inside_length_mm},
             {"inside_width_mm", p.form.inside_width_mm},
             {"side_mm", p.form.side_mm},
             {"parts", parts},
             {"tape_m", p.form.tape_m},
             {"caulk_m", p.form.caulk_m}}},
           {"floats", floats},
           {"dams", dams}});
}

}  // namespace

void add_pour_verbs(CLI::App& app) {
    auto* cure = app.add_subcommand("cure", "how hot a pour gets, and when it has gelled and cured");
    auto order = std::make_shared<CureOrder>();
    yb::Section& s = order->section;
    cure->add_option("--class", order->kind, "of the resin")->required()->check(CLI::IsMember({"slow-deep", "medium", "coating", "quick"}));
    cure->add_option("--depth-mm", s.depth_mm, "of the pour")->required()->check(CLI::Range(0.5, 500.0));
    cure->add_option("--ambient-c", s.air_c, "the air, and all there is to begin with")->required()->check(CLI::Range(-20.0, 60.0));
    cure->add_option("--width-mm", s.width_mm, "between two wooden banks; without it the pour is as wide as you like")
        ->check(CLI::Range(2.0, 3000.0));
    cure->add_option("--banks-mm", s.banks_mm, "each bank, wide")->check(CLI::Range(5.0, 2000.0));
    cure->add_option("--board-mm", s.board_mm, "under all of it; 0 for none")->check(CLI::Range(0.0, 200.0));
    cure->add_option("--h", s.h, "W/m²K on top, below and at the outer sides")->check(CLI::Range(0.1, 500.0));
    cure->callback([order] { run_cure(*order); });

    auto* pour = app.add_subcommand("pour", "the pour of a job's river: lifts, batches, form, clamps");
    auto path = std::make_shared<std::string>();
    pour->add_option("job", *path, "a job exported as JSON")->required();
    pour->callback([path] { run_pour(*path); });
}

}  // namespace burl
