// `burl skin`.
#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "cli/job_alone.h"
#include "core/shop/job/skin_of.h"

namespace burl {

namespace {

using yb::Json;

void run_skin(const std::string& path) {
    const JobAlone f = read_job_alone(path);
    const yb::Plan plan = f.plan();
    const yb::SkinPlan& p = yb::skin_of(plan);
    if (!p.ready) throw BadInput(path + ": the top is not there yet: measure, lay and flatten it first");
    Json faces = Json::array();
    for (const yb::SkinFacePlan& one : p.faces) {
        if (one.left_out) continue;
        Json grits = Json::array();
        for (const yb::GritStep& g : one.grits) grits.push_back({{"grit", g.grit}, {"minutes", g.minutes}});
        Json coats = Json::array();
        for (const yb::SkinCoat& c : one.coats) {
            Json coat{{"ml", c.mix_ml}, {"a_ml", nullptr}, {"b_ml", nullptr}, {"zones", c.zones}, {"recoat_h", c.recoat_h}};
            if (c.b_ml > 0) coat["a_ml"] = c.a_ml, coat["b_ml"] = c.b_ml;
            coats.push_back(coat);
        }
        faces.push_back({{"key", one.face.key}, {"area_m2", one.face.m2}, {"grits", grits}, {"coats", coats}});
    }
    Json zones = Json::array();
    for (const yb::Zone& z : p.zones) {
        Json ring = Json::array();
        for (const yb::Vec2 q : z.ring) ring.push_back({q.x, q.y});
        zones.push_back({{"face", z.face}, {"coat", z.coat}, {"order", z.order}, {"ring", ring}, {"minutes", z.minutes}});
    }
    print({{"faces", faces},
           {"ml_in_all", p.ml_in_all},
           {"hands_on_min", p.sanding_min + p.coating_min},
           {"days", p.days()},
           {"zones", zones}});
}

}  // namespace

void add_skin_verbs(CLI::App& app) {
    auto* skin = app.add_subcommand("skin", "sanding and finish of a job: areas, grits, coats, zones that can be wiped in time");
    auto path = std::make_shared<std::string>();
    skin->add_option("job", *path, "a job exported as JSON")->required();
    skin->callback([path] { run_skin(*path); });
}

}  // namespace burl
