// Verbs of logs and racks: grow, find, sequence.
#include <cmath>
#include <filesystem>
#include <fstream>
#include <map>

#include <fmt/format.h>
#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "core/files/io/json.h"
#include "core/files/store/store.h"
#include "core/ground/fields/walk.h"
#include "core/ground/file/file.h"
#include "core/ground/file/text.h"
#include "core/material/tree/saw.h"
#include "core/material/wood/wood.h"
#include "core/shop/find/find.h"
#include "core/shop/job/documents.h"
#include "core/steps/lay/lay.h"
#include "core/steps/match/sequence.h"
#include "demo/demo.h"

namespace {

using burl::BadInput;
using burl::of_file;
using burl::print;
using yb::Json;

struct WantOrder {
    std::string shop, live = "both";
    double length_mm = 1800, width_mm = 800, thickness_mm = 40, river_mm = 120;
    int keep = 10;
};

void run_find(const WantOrder& o) {
    static const std::map<std::string, yb::LiveEdges> live{
        {"both", yb::LiveEdges::both}, {"left", yb::LiveEdges::left}, {"right", yb::LiveEdges::right}, {"none", yb::LiveEdges::none}};
    const yb::Store store = yb::Store::open(o.shop);
    yb::FindOrder order = yb::find_order(store.documents().shop);
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
            // A picture lies beside its slab: a key is a name there and leads nowhere else.
            if (p->key.empty() || p->key == "." || p->key == ".." || p->key.find('/') != std::string::npos ||
                p->key.find('\0') != std::string::npos)
                throw BadInput(paths[i] + ": the picture's key ‘" + yb::plain_text(p->key) +
                               "’ is no name of a file in its folder. Write the name alone and put the picture beside the slab");
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

void burl::add_log_verbs(CLI::App& app) {
    static GrowOrder order;
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
    grow->callback([] { run_grow(order); });

    static WantOrder want;
    auto* find = app.add_subcommand("find", "what could be made of a shop's slabs, best first");
    find->add_option("shop", want.shop, "a shop file")->required();
    find->add_option("--length-mm", want.length_mm, "of the top")->check(CLI::Range(50.0, 20000.0));
    find->add_option("--width-mm", want.width_mm, "of the top")->check(CLI::Range(50.0, 5000.0));
    find->add_option("--thickness-mm", want.thickness_mm, "of the top")->check(CLI::Range(3.0, 400.0));
    find->add_option("--live", want.live, "live edges that stay")->check(CLI::IsMember({"both", "left", "right", "none"}));
    find->add_option("--river-mm", want.river_mm, "mean width of a river")->check(CLI::Range(5.0, 3000.0));
    find->add_option("--keep", want.keep, "results")->check(CLI::Range(1, 500));
    find->callback([] { run_find(want); });

    static std::vector<std::string> slab_files;
    auto* sequence = app.add_subcommand("sequence", "the order in which the slabs of a log were sawn, from edges, knots and pictures");
    sequence->add_option("slabs", slab_files, "slabs as JSON, their pictures beside them")->required();
    sequence->callback([] { run_sequence(slab_files); });
}
