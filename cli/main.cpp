// `burl`: the core from a shell. JSON on standard output with units in the key names; errors on standard
// error; exit 2 for bad input, 1 for a fault.
#include <array>
#include <cmath>
#include <fstream>
#include <filesystem>
#include <iostream>
#include <map>
#include <sstream>
#include <tuple>

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include "cli/common.h"
#include "core/tree/saw.h"
#include "core/find/find.h"
#include "core/flat/machine.h"
#include "core/flat/tilt.h"
#include "core/io/csv.h"
#include "core/file/file.h"
#include "core/io/job_file.h"
#include "core/io/json.h"
#include "core/fields/walk.h"
#include "core/job/documents.h"
#include "core/job/job.h"
#include "core/job/plan.h"
#include "core/lay/lay.h"
#include "core/makeup/arrange.h"
#include "core/match/sequence.h"
#include "core/store/check.h"
#include "core/store/store.h"
#include "core/wood/wood.h"
#include "demo/demo.h"

namespace {

using burl::BadInput;
using burl::JobAlone;
using burl::of_file;
using burl::print;
using burl::read_job_alone;
using yb::Json;

/// Words, nan and infinities are no measure.
std::string finite_number(const std::string& text) {
    double v = 0;
    return CLI::detail::lexical_cast(text, v) && std::isfinite(v) ? std::string() : "‘" + text + "’ is no number that can be measured";
}

void run_emc(double temp_c, double rh_pct) {
    print({{"temp_c", temp_c},
           {"rh_pct", rh_pct},
           {"emc_pct", yb::equilibrium_moisture(temp_c, rh_pct)},
           {"source", "Wood Handbook FPL-GTR-190, eq. 4-5"}});
}

void run_movement(const std::string& name, double width, double from, double to, double ring_deg) {
    const yb::Species* s = yb::find_species(name);
    if (!s) {
        std::string near;
        for (const auto& one : yb::all_species())
            if (one.name.find(name.substr(0, name.find_first_of(", "))) != std::string::npos) near += " “" + one.name + "”";
        throw BadInput("‘" + name + "’ is not in the species table" + (near.empty() ? "" : ". Near it:" + near));
    }
    if (!s->shrink_tangential_pct || !s->shrink_radial_pct) throw BadInput("the table has no shrinkage for " + name);
    const double t = ring_deg * 3.14159265358979323846 / 180;
    const double shrink = *s->shrink_tangential_pct * std::cos(t) * std::cos(t) + *s->shrink_radial_pct * std::sin(t) * std::sin(t);
    print({{"species", name},
           {"width_mm", width},
           {"from_mc_pct", from},
           {"to_mc_pct", to},
           {"ring_angle_deg", ring_deg},
           {"shrinkage_pct", shrink},
           {"movement_mm", yb::movement(width, shrink, from, to)},
           {"source", "Wood Handbook FPL-GTR-190, eq. 13-3, table 4-3"}});
}

void run_flatten(const std::string& path, const std::string& within) {
    yb::Readings r = yb::read_readings(yb::read_file(path, yb::most_csv_bytes));
    if (!within.empty()) {
        std::array<double, 4> w{};
        std::istringstream in(within);
        char comma = ',';
        for (std::size_t i = 0; i < 4; ++i)
            if ((i > 0 && !(in >> comma && comma == ',')) || !(in >> w[i]))
                throw BadInput("--within wants X0,Y0,X1,Y1 in mm, as 0,-300,1800,300");
        if (w[0] > w[2] || w[1] > w[3]) throw BadInput("--within: X0,Y0 has to be the lower corner, X1,Y1 the upper one");
        for (auto [face, lines] : {std::pair(&r.top, &r.top_lines), std::pair(&r.bottom, &r.bottom_lines)}) {
            std::size_t kept = 0;
            for (std::size_t i = 0; i < face->size(); ++i) {
                const yb::Vec3& p = (*face)[i];
                if (p.x < w[0] || p.x > w[2] || p.y < w[1] || p.y > w[3]) continue;
                (*face)[kept] = p, (*lines)[kept++] = (*lines)[i];
            }
            face->resize(kept), lines->resize(kept);
        }
    }
    if (r.top.empty() || r.bottom.empty())
        throw BadInput(fmt::format("{} top and {} bottom readings {}; each face needs one at least", r.top.size(), r.bottom.size(),
                                   within.empty() ? "in the file" : "within"));
    const yb::Tilt best = yb::best_tilt(r.top, r.bottom);
    const yb::Tilt lies = yb::at_tilt(r.top, r.bottom, 0, 0);
    if (best.thickness_mm <= 0) {
        const auto by_height = [](const yb::Vec3& a, const yb::Vec3& b) { return a.z < b.z; };
        const auto low = std::min_element(r.top.begin(), r.top.end(), by_height);
        const auto high = std::max_element(r.bottom.begin(), r.bottom.end(), by_height);
        throw BadInput(
            fmt::format("no tilt leaves any wood between the faces: the lowest of the top, line {}, reads {:g} mm, the highest of "
                        "the bottom, line {}, {:g} mm. Are the faces exchanged, or is one of them misread?",
                        r.top_lines[static_cast<std::size_t>(low - r.top.begin())], low->z,
                        r.bottom_lines[static_cast<std::size_t>(high - r.bottom.begin())], high->z));
    }
    Json said = Json::array();
    for (const auto& [loose, way, reads] : {std::tuple(best.loose_a, "along", "x"), std::tuple(best.loose_b, "across", "y")})
        if (loose > 0)
            said.push_back(
                fmt::format("the readings don't fix the tilt {0}: tilts within {1:.0f} mm/m of one another leave as much. It is taken as "
                            "little as will do; read both faces at more places in {2}",
                            way, loose * 1000, reads));
    if (best.at_bound) said.push_back("the best tilt would be steeper than 1:2, further than any slab lies: a height is misread");
    print({{"top_readings", r.top.size()},
           {"bottom_readings", r.bottom.size()},
           {"thickness_mm", best.thickness_mm},
           {"tilt_along_mm_per_m", best.a * 1000},
           {"tilt_across_mm_per_m", best.b * 1000},
           {"top_plane_mm", best.top_mm},
           {"bottom_plane_mm", best.bottom_mm},
           {"thickness_without_tilt_mm", lies.thickness_mm},
           {"gain_mm", best.thickness_mm - lies.thickness_mm},
           {"rounds", best.rounds},
           {"at_bound", best.at_bound},
           {"tilt_fixed", best.fixed()},
           {"loose_along_mm_per_m", best.loose_a * 1000},
           {"loose_across_mm_per_m", best.loose_b * 1000},
           {"said", said}});
}

void run_plan(const std::string& path) {
    const JobAlone f = read_job_alone(path);
    print(yb::to_json(yb::plan_job(f.job, f.docs), f.docs.shop.units));
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
    const yb::Plan plan = yb::plan_job(f.job, f.docs);
    if (order.leaf < 1 || static_cast<std::size_t>(order.leaf) > plan.leaves.size())
        throw BadInput(fmt::format("--leaf {}: the top has {}, counted from the right edge", order.leaf, plan.leaves.size()));
    const yb::LeafPlan& leaf = plan.leaves[static_cast<std::size_t>(order.leaf) - 1];
    const bool first = order.side == "first";
    try {
        return {yb::machined_side(*leaf.flat, *leaf.lay, f.docs.shop.sled, f.job.flat, first),
                {f.job.name, leaf.slab().name, first, order.inch}};
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

void run_demo(const std::string& path) {
    const yb::Documents demo = yb::demo_shop();
    yb::Store::create(path, demo, "New shop");
    print({{"shop", path}, {"slabs", demo.slabs.size()}, {"jobs", demo.jobs.size()}});
}

/// How far a job has come, in a word.
std::string state_of(const yb::Job& job, const yb::Documents& docs) {
    for (const yb::Leaf& l : job.leaves)
        if (!docs.slabs.count(l.slab)) return "no slab";
    if (job.makeup.ripped) return "ripped";
    if (job.makeup.faces_flat) return "flat";
    if (job.cuts_done) return "rough-cut";
    const yb::Plan plan = yb::plan_job(job, docs);
    return !plan.lay->ready ? "not measured" : plan.lay->fits ? "laid" : "does not fit";
}

void run_jobs(const std::string& path) {
    const yb::Store store = yb::Store::open(path);
    Json list = Json::array();
    for (const auto& [id, j] : store.documents().jobs)
        list.push_back({{"id", id}, {"name", j.name}, {"state", state_of(j, store.documents())}, {"start", j.start}, {"slabs", j.slabs()}});
    print(list);
}

void run_export(const std::string& path, const std::string& job) {
    const yb::Store store = yb::Store::open(path);
    const yb::Documents& docs = store.documents();
    if (!docs.jobs.count(job)) {
        std::string known;
        for (const auto& [id, j] : docs.jobs) known += " " + id;
        throw BadInput("there is no job ‘" + job + "’ in " + path + ". There are:" + known);
    }
    for (const yb::Leaf& l : docs.jobs.at(job).leaves)
        if (!docs.slabs.count(l.slab)) throw BadInput("the job ‘" + job + "’ has no slab yet: there is nothing to export");
    std::cout << yb::write_job_file(yb::job_file(docs, job, [&](const std::string& key) { return store.attachment(key); })) << '\n';
}

/// The fields of a job file, for --help.
std::string job_fields() {
    yb::Job job;
    return "Fields of the job in its file, with their ranges:\n" + yb::table_of(yb::describe(yb::walk_of(job)));
}

struct WantOrder {
    std::string shop, live = "both";
    double length_mm = 1800, width_mm = 800, thickness_mm = 40, river_mm = 120;
    int keep = 10;
};

void run_find(const WantOrder& o) {
    static const std::map<std::string, yb::LiveEdges> live{
        {"both", yb::LiveEdges::both}, {"left", yb::LiveEdges::left}, {"right", yb::LiveEdges::right}, {"none", yb::LiveEdges::none}};
    const yb::Store store = yb::Store::open(o.shop);
    yb::FindOrder order = yb::find_order(yb::Job(), store.documents().shop);
    order.top.length_mm = o.length_mm, order.top.width_mm = o.width_mm, order.top.thickness_mm = o.thickness_mm;
    order.top.live = live.at(o.live);
    order.choices.river_mm = o.river_mm;
    order.keep = static_cast<std::size_t>(o.keep);
    const yb::Units& units = store.documents().shop.units;
    Json list = Json::array();
    for (const yb::Found& f : yb::find_tops(store.documents(), order)) {
        Json gains = Json::array();
        Json costs = Json::array();
        for (const yb::Phrase& p : f.gains) gains.push_back(yb::render(p, units));
        for (const yb::Phrase& p : f.costs) costs.push_back(yb::render(p, units));
        Json placements = Json::array();
        Json joints = Json::array();
        for (yb::Placement at : f.placements) placements.push_back(yb::write_fields(yb::walk_of(at)));
        for (yb::Joint j : f.joints) joints.push_back(yb::write_fields(yb::walk_of(j)));
        list.push_back({{"made_as", yb::name_of(f.kind)},
                        {"slabs", f.slabs},
                        {"placements", placements},
                        {"joints", joints},
                        {"fits", f.fits},
                        {"lack_mm", f.lack_mm},
                        {"narrowest_mm", f.narrowest_mm},
                        {"thickness_mm", f.thickness_mm},
                        {"waste_pct", f.waste_pct},
                        {"resin_l", f.resin_l},
                        {"weight_kg", f.weight_kg},
                        {"moisture_pct", f.moisture_pct},
                        {"price", f.price},
                        {"faces_apart_mm", f.apart_mm},
                        {"flaws", f.flaws},
                        {"score", f.score},
                        {"for", gains},
                        {"against", costs}});
    }
    print({{"length_mm", o.length_mm}, {"width_mm", o.width_mm}, {"thickness_mm", o.thickness_mm}, {"found", list}});
}

/// A slab as `burl grow` writes it, with its pictures beside it.
struct SlabFile {
    yb::Slab slab;
    yb::SlabShape shape;
    yb::Picture a, b;
};

void run_sequence(const std::vector<std::string>& paths) {
    std::vector<SlabFile> files(paths.size());
    yb::in_parallel(paths.size(), [&](std::size_t i) {
        SlabFile& f = files[i];
        f.slab = of_file(paths[i],
                         [&](const std::string& p) { return yb::slab_from_json(yb::parse_json(yb::read_file(p, yb::most_json_bytes))); });
        if (f.slab.name.empty()) f.slab.name = paths[i];
        f.shape = yb::shape_of(f.slab);
        const auto picture = [&](const std::optional<yb::FacePicture>& p) -> yb::Picture {
            if (!p) return {};
            const auto path = std::filesystem::path(paths[i]).parent_path() / p->key;
            if (!std::filesystem::exists(path)) return {};
            return of_file(path.string(), [](const std::string& s) { return yb::read_picture(yb::read_file(s, yb::most_picture_bytes)); });
        };
        f.a = picture(f.slab.picture_a);
        f.b = picture(f.slab.picture_b);
    });
    std::vector<yb::SequenceItem> items;
    for (const SlabFile& f : files)
        items.push_back({&f.slab, &f.shape, f.a.empty() ? nullptr : &f.a, f.b.empty() ? nullptr : &f.b, {}, {}, {}});
    const yb::Sequence s = yb::put_in_order(items);
    Json list = Json::array();
    Json strangers = Json::array();
    for (const yb::SequencePlace& p : s.places) {
        list.push_back({{"file", paths[p.item]},
                        {"turned_over", p.over},
                        {"end_for_end", p.ended},
                        {"confidence", p.confidence},
                        {"shift_mm", p.shift_mm},
                        {"parted", p.parted},
                        {"stranger", p.stranger}});
        if (p.stranger) strangers.push_back(paths[p.item]);
    }
    print({{"confidence", s.confidence}, {"exact", s.exact}, {"strangers", strangers}, {"from_the_lowest", list}});
}

int run_check(const std::string& path) {
    const yb::CheckReport r = yb::check_shop(path);
    Json problems = Json::array();
    for (const auto& p : r.problems) problems.push_back(p);
    const auto backup = yb::newest_backup(path);
    print({{"shop", path},
           {"ok", r.ok},
           {"revisions", r.revisions},
           {"slabs", r.slabs},
           {"jobs", r.jobs},
           {"attachments", r.attachments},
           {"book_entries", r.entries},
           {"problems", problems},
           {"remarks", r.remarks},
           {"newest_backup", backup ? Json(*backup) : Json(nullptr)}});
    return r.ok ? 0 : 2;
}

void run_repair(const std::string& path, const std::string& out) {
    const yb::Repair r = yb::repair_shop(path, out);
    const auto backup = yb::newest_backup(path);
    print({{"shop", path},
           {"repaired", out},
           {"whole", r.whole()},
           {"revisions", r.revisions},
           {"changes", r.changes},
           {"attachments", r.attachments},
           {"book_entries", r.entries},
           {"lost", r.lost},
           {"newest_backup", backup ? Json(*backup) : Json(nullptr)}});
}

struct GrowOrder {
    std::uint64_t seed = 1;
    std::string out, species = "sycamore, American", pattern = "through";
    double length_mm = 3000, butt_mm = 620, thickness_mm = 65, kerf_mm = 4, moisture_pct = 10, mm_per_px = 1;
    bool fork = false;
};

void run_grow(const GrowOrder& o) {
    static const std::map<std::string, yb::SawPattern> patterns{{"through", yb::SawPattern::through},
                                                                {"quarter", yb::SawPattern::quarter},
                                                                {"cant", yb::SawPattern::cant},
                                                                {"round", yb::SawPattern::round}};
    if (!yb::find_species(o.species)) throw BadInput("‘" + o.species + "’ is not in the species table");
    yb::LogRecipe recipe = yb::drawn_recipe(o.seed, o.species, o.length_mm, o.butt_mm);
    if (o.fork) yb::add_fork(recipe);
    const yb::GrownLog log(recipe);
    yb::SawPlan saw;
    saw.pattern = patterns.at(o.pattern);
    saw.thickness_mm = o.thickness_mm;
    saw.kerf_mm = o.kerf_mm;
    yb::DryPlan dry;
    dry.moisture_pct = o.moisture_pct;
    const auto slabs = yb::make_slabs(log, saw, dry, {o.mm_per_px, true});
    std::filesystem::create_directories(o.out);
    Json list = Json::array();
    const auto write = [&](const std::string& name, const std::string& bytes) {
        const auto path = std::filesystem::path(o.out) / name;
        std::ofstream f(path, std::ios::binary);
        f.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
        if (!f.flush()) throw BadInput(path.string() + " can't be written here. Choose another folder with --out");
    };
    std::vector<std::string> names(slabs.size());
    yb::in_parallel(slabs.size(), [&](std::size_t i) {
        yb::Slab slab = slabs[i].slab;
        const std::string stem = "slab-" + std::to_string(i + 1);
        if (slab.picture_a) {
            slab.picture_a->key = stem + "-a.png", slab.picture_b->key = stem + "-b.png";
            write(slab.picture_a->key, yb::to_png(slabs[i].face_a));
            write(slab.picture_b->key, yb::to_png(slabs[i].face_b));
        }
        write(stem + ".json", yb::to_json(slab).dump(1));
        names[i] = stem + ".json";
    });
    for (const auto& n : names) list.push_back(n);
    print({{"seed", o.seed}, {"species", o.species}, {"years", log.recipe().years}, {"folder", o.out}, {"slabs", list}});
}

}  // namespace

JobAlone burl::read_job_alone(const std::string& path) {
    const yb::JobFile f = of_file(path, [](const std::string& p) { return yb::read_job_file(yb::read_file(p, yb::most_json_bytes)); });
    JobAlone out{f.job, {}};
    out.docs.shop = f.shop;
    for (const yb::Slab& s : f.slabs) out.docs.slabs[s.id] = s;
    if (out.job.first().slab.empty()) out.job.first().slab = f.slabs.front().id;
    for (std::size_t i = 0; i < out.job.leaves.size(); ++i)
        if (!out.docs.slabs.count(out.job.leaves[i].slab))
            throw BadInput(
                fmt::format("{}: job.leaves[{}].slab: leaf {} has no slab in the file. Choose one on the rack and export the job again",
                            path, i, i + 1));
    return out;
}

int main(int argc, char** argv) {
    CLI::App app{"burl – slabs into tables, from a shell. JSON on standard output, units in the key names."};
    app.set_version_flag("--version", "burl " YB_VERSION, "what version this is");
    app.require_subcommand(1);
    int code = 0;

    double temp_c = 0;
    double rh = 0;
    auto* emc = app.add_subcommand("emc", "what wood settles to in this air");
    emc->add_option("--temp-c", temp_c, "air temperature, °C")->required();
    emc->add_option("--rh", rh, "relative humidity, %")->required();
    emc->callback([&] { run_emc(temp_c, rh); });

    std::string species;
    double width = 0;
    double from = 0;
    double to = 0;
    double ring = 0;
    auto* move = app.add_subcommand("movement", "how much a width of wood moves between two moistures");
    move->add_option("--species", species, "a name of the species table")->required();
    move->add_option("--width-mm", width, "width across the grain")->required()->check(CLI::PositiveNumber);
    move->add_option("--from-mc", from, "moisture it starts from, %")->required();
    move->add_option("--to-mc", to, "moisture it goes to, %")->required();
    move->add_option("--ring-angle-deg", ring, "between ring tangent and width: 0 flat-sawn, 90 quarter-sawn")
        ->check(CLI::Range(0.0, 90.0));
    move->callback([&] { run_movement(species, width, from, to, ring); });

    std::string file;
    std::string within;
    auto* flatten = app.add_subcommand("flatten", "the tilt that leaves the thickest slab");
    flatten->add_option("readings", file, "CSV with face,x_mm,y_mm,z_mm; face is top or bottom")->required();
    flatten->add_option("--within", within, "X0,Y0,X1,Y1: only readings in this rectangle, mm");
    flatten->callback([&] { run_flatten(file, within); });

    GrowOrder order;
    auto* grow = app.add_subcommand("grow", "grows a practice log, saws it and writes its slabs as JSON with PNG faces");
    grow->add_option("--seed", order.seed, "the same seed grows the same log");
    grow->add_option("--out", order.out, "folder to write to")->required();
    grow->add_option("--species", order.species, "a name of the species table");
    grow->add_option("--pattern", order.pattern, "through, quarter, cant or round")
        ->check(CLI::IsMember({"through", "quarter", "cant", "round"}));
    grow->add_option("--length-mm", order.length_mm, "of the log")->check(CLI::Range(500.0, 12000.0));
    grow->add_option("--butt-mm", order.butt_mm, "diameter at the butt, under bark")->check(CLI::Range(120.0, 2500.0));
    grow->add_option("--thickness-mm", order.thickness_mm, "of the slabs, green")->check(CLI::Range(10.0, 300.0));
    grow->add_option("--kerf-mm", order.kerf_mm, "of the saw")->check(CLI::Range(0.0, 20.0));
    grow->add_flag("--fork", order.fork, "with a second stem and the crotch figure between the two");
    grow->add_option("--moisture", order.moisture_pct, "they are dried to, %")->check(CLI::Range(4.0, 30.0));
    grow->add_option("--mm-per-px", order.mm_per_px, "of the pictures; 0 for none")->check(CLI::Range(0.0, 20.0));
    grow->callback([&] { run_grow(order); });

    WantOrder want;
    auto* find = app.add_subcommand("find", "what could be made of a shop's slabs, best first");
    find->add_option("shop", want.shop, "a shop file")->required();
    find->add_option("--length-mm", want.length_mm, "of the top")->check(CLI::Range(50.0, 20000.0));
    find->add_option("--width-mm", want.width_mm, "of the top")->check(CLI::Range(50.0, 5000.0));
    find->add_option("--thickness-mm", want.thickness_mm, "of the top")->check(CLI::Range(3.0, 400.0));
    find->add_option("--live", want.live, "live edges that stay")->check(CLI::IsMember({"both", "left", "right", "none"}));
    find->add_option("--river-mm", want.river_mm, "mean width of a river")->check(CLI::Range(5.0, 3000.0));
    find->add_option("--keep", want.keep, "results")->check(CLI::Range(1, 500));
    find->callback([&] { run_find(want); });

    std::vector<std::string> slab_files;
    auto* sequence = app.add_subcommand("sequence", "the order in which the slabs of a log were sawn, from edges, knots and pictures");
    sequence->add_option("slabs", slab_files, "slabs as JSON, their pictures beside them")->required();
    sequence->callback([&] { run_sequence(slab_files); });

    auto* plan = app.add_subcommand("plan", "plans a job file");
    plan->add_option("job", file, "a job exported as JSON")->required();
    plan->callback([&] { run_plan(file); });

    plan->footer(job_fields);

    SideOrder side;
    const auto add_side = [&](CLI::App* verb) {
        verb->add_option("job", side.job, "a job exported as JSON")->required();
        verb->add_option("--side", side.side, "which face, in the order they are cut")
            ->required()
            ->check(CLI::IsMember({"first", "second"}));
        verb->add_option("--leaf", side.leaf, "of a top of several, counted from the right edge");
    };
    auto* gcode = app.add_subcommand("gcode", "the program that flattens one face on a machine (RS-274)");
    add_side(gcode);
    gcode->add_flag("--inch", side.inch, "in inches");
    gcode->callback([&] { run_gcode(side); });
    auto* surface = app.add_subcommand("surface", "one face as it lies on the machine, before or after, as points (CSV)");
    add_side(surface);
    surface->add_option("--when", side.when, "before or after it is cut")->required()->check(CLI::IsMember({"before", "after"}));
    surface->add_option("--step-mm", side.step_mm, "between points")->required();
    surface->callback([&] { run_surface(side); });

    burl::add_pour_verbs(app);
    burl::add_base_verbs(app);

    auto* demo = app.add_subcommand("demo", "writes the demo shop");
    demo->add_option("file", file, "the shop file to make")->required();
    demo->callback([&] { run_demo(file); });

    auto* jobs = app.add_subcommand("jobs", "the jobs of a shop: id, name and state of each");
    jobs->add_option("shop", file, "a shop file")->required();
    jobs->callback([&] { run_jobs(file); });

    std::string job;
    auto* exporting = app.add_subcommand("export", "a job of a shop with its slabs, as the job file that other verbs read");
    exporting->add_option("shop", file, "a shop file")->required();
    exporting->add_option("job", job, "the job's id")->required();
    exporting->callback([&] { run_export(file, job); });

    auto* check = app.add_subcommand("check", "looks a shop file through");
    check->add_option("shop", file, "a shop file")->required();
    check->callback([&] { code = run_check(file); });

    std::string out;
    auto* repair = app.add_subcommand("repair", "everything of a damaged shop file that is whole, into a new one");
    repair->add_option("shop", file, "the damaged shop file; it is only read")->required();
    repair->add_option("out", out, "the shop file to make")->required();
    repair->callback([&] { run_repair(file, out); });

    for (auto* verb : app.get_subcommands({}))
        for (auto* option : verb->get_options())
            if (option->get_type_name().rfind("FLOAT", 0) == 0) option->check(finite_number);

    try {
        app.parse(argc, argv);
        std::cout.flush();
        if (!std::cout) {
            std::cerr << "burl: standard output can't be written: the disk is full, or nobody reads\n";
            return 1;
        }
    } catch (const CLI::ParseError& e) {
        return app.exit(e) == 0 ? 0 : 2;
    } catch (const BadInput& e) {
        std::cerr << "burl: " << e.what() << '\n';
        return 2;
    } catch (const yb::FormatError& e) {
        const bool named = file.empty() || std::string(e.what()).rfind(file, 0) == 0;
        std::cerr << "burl: " << (named ? "" : file + ": ") << e.what() << '\n';
        return 2;
    } catch (const std::filesystem::filesystem_error& e) {
        std::cerr << "burl: " << e.path1().string() << ": " << e.code().message() << '\n';
        return 2;
    } catch (const yb::StoreError& e) {
        std::cerr << "burl: " << e.what() << '\n';
        return 2;
    } catch (const std::invalid_argument& e) {
        std::cerr << "burl: " << e.what() << '\n';
        return 2;
    } catch (const std::exception& e) {
        std::cerr << "burl: " << e.what() << '\n';
        return 1;
    }
    return code;
}
