// Verbs of a job file: plan, gcode, surface.
#include <iostream>

#include <fmt/format.h>
#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "cli/job_alone.h"
#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/ground/fields/walk.h"
#include "core/ground/file/file.h"
#include "core/material/wood/wood.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/flat/machine.h"
#include "core/steps/lay/lay.h"

namespace {

using burl::BadInput;
using burl::JobAlone;
using burl::of_file;
using burl::print;
using burl::read_job_alone;
using yb::Json;

void run_plan(const std::string& path) {
    const JobAlone f = read_job_alone(path);
    print(yb::to_json(yb::plan_job(f.job(), f.docs), f.docs.shop.units));
}

/// What gcode and surface are asked for.
struct SideOrder {
    std::string job, side, when;
    int leaf = 1;
    bool inch = false;
    double step_mm = 0;
};

/// One face of one leaf on the machine, and what the program calls them.
std::pair<yb::MachinedSide, yb::GcodeWords> side_of(const SideOrder& order, const JobAlone& f) {
    const yb::Plan plan = yb::plan_job(f.job(), f.docs);
    if (order.leaf < 1 || static_cast<std::size_t>(order.leaf) > plan.leaves.size())
        throw BadInput(fmt::format("--leaf {}: the top has {}, counted from the right edge", order.leaf, plan.leaves.size()));
    const yb::LeafPlan& leaf = plan.leaves[static_cast<std::size_t>(order.leaf) - 1];
    const bool first = order.side == "first";
    try {
        return {yb::machined_side(*leaf.flat, *leaf.lay, f.docs.shop.sled, f.job().flat, first),
                {f.job().name, leaf.slab().name, first, order.inch}};
    } catch (const std::invalid_argument& e) {
        throw BadInput(e.what());
    }
}

void run_gcode(const SideOrder& order) {
    const JobAlone f = read_job_alone(order.job);
    const auto [side, words] = side_of(order, f);
    std::fputs(yb::to_gcode(side, f.docs.shop.sled, words).c_str(), stdout);
}

void run_surface(const SideOrder& order) {
    const JobAlone f = read_job_alone(order.job);
    const auto [side, words] = side_of(order, f);
    std::string out = "x_mm,y_mm,z_mm\n";
    try {
        for (const yb::Vec3& p : yb::surface_points(side, order.when == "after", order.step_mm))
            fmt::format_to(std::back_inserter(out), "{:.3f},{:.3f},{:.4f}\n", p.x, p.y, p.z);
    } catch (const std::invalid_argument& e) {
        throw BadInput(e.what());
    }
    std::fputs(out.c_str(), stdout);
}

/// The fields of a job file, for --help.
std::string job_fields() {
    yb::Job job;
    return "Fields of the job in its file, with their ranges:\n" + yb::table_of(yb::describe(yb::walk_of(job)));
}

}  // namespace

const yb::Job& JobAlone::job() const { return docs.jobs.at("job"); }
const yb::UnderChoices& JobAlone::under() const { return job().under; }
yb::Plan JobAlone::plan() const { return yb::plan_job(job(), docs); }

JobAlone burl::read_job_alone(const std::string& path) {
    const yb::JobFile f = of_file(path, [](const std::string& p) { return yb::read_job_file(yb::read_file(p, yb::most_json_bytes)); });
    JobAlone out;
    out.docs.shop = f.shop;
    for (const yb::Slab& s : f.slabs) out.docs.slabs[s.id] = s;
    yb::Job& job = out.docs.jobs["job"] = f.job;
    if (job.first().slab.empty()) job.first().slab = f.slabs.front().id;
    for (std::size_t i = 0; i < job.leaves.size(); ++i)
        if (!out.docs.slabs.count(job.leaves[i].slab))
            throw BadInput(
                fmt::format("{}: job.leaves[{}].slab: leaf {} has no slab in the file. Choose one on the rack and export the job again",
                            path, i, i + 1));
    return out;
}

void burl::add_job_verbs(CLI::App& app) {
    static std::string file;
    auto* plan = app.add_subcommand("plan", "plans a job file");
    plan->add_option("job", file, "a job exported as JSON")->required();
    plan->callback([] {
        of_file(file, [](const std::string& path) {
            run_plan(path);
            return 0;
        });
    });

    plan->footer(job_fields);

    static SideOrder side;
    const auto add_side = [](CLI::App* verb) {
        verb->add_option("job", side.job, "a job exported as JSON")->required();
        verb->add_option("--side", side.side, "which face, in the order they are cut")
            ->required()
            ->check(CLI::IsMember({"first", "second"}));
        verb->add_option("--leaf", side.leaf, "of a top of several, counted from the right edge");
    };
    auto* gcode = app.add_subcommand("gcode", "the program that flattens one face on a machine (RS-274)");
    add_side(gcode);
    gcode->add_flag("--inch", side.inch, "in inches");
    gcode->callback([] { run_gcode(side); });
    auto* surface = app.add_subcommand("surface", "one face as it lies on the machine, before or after, as points (CSV)");
    add_side(surface);
    surface->add_option("--when", side.when, "before or after it is cut")->required()->check(CLI::IsMember({"before", "after"}));
    surface->add_option("--step-mm", side.step_mm, "between points")->required();
    surface->callback([] { run_surface(side); });
}
