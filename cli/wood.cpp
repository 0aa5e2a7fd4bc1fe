// Verbs of wood: emc, movement, flatten.
#include <cmath>
#include <iostream>

#include <fmt/format.h>
#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "core/files/io/csv.h"
#include "core/ground/file/file.h"
#include "core/material/wood/wood.h"
#include "core/steps/flat/tilt.h"

namespace {

using burl::BadInput;
using burl::of_file;
using burl::print;
using yb::Json;

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

}  // namespace

void burl::add_wood_verbs(CLI::App& app) {
    static double temp_c = 0;
    static double rh = 0;
    auto* emc = app.add_subcommand("emc", "what wood settles to in this air");
    emc->add_option("--temp-c", temp_c, "air temperature, °C")->required();
    emc->add_option("--rh", rh, "relative humidity, %")->required();
    emc->callback([] { run_emc(temp_c, rh); });

    static std::string species;
    static double width = 0;
    static double from = 0;
    static double to = 0;
    static double ring = 0;
    auto* move = app.add_subcommand("movement", "how much a width of wood moves between two moistures");
    move->add_option("--species", species, "a name of the species table")->required();
    move->add_option("--width-mm", width, "width across the grain")->required()->check(CLI::PositiveNumber);
    move->add_option("--from-mc", from, "moisture it starts from, %")->required();
    move->add_option("--to-mc", to, "moisture it goes to, %")->required();
    move->add_option("--ring-angle-deg", ring, "between ring tangent and width: 0 flat-sawn, 90 quarter-sawn")
        ->check(CLI::Range(0.0, 90.0));
    move->callback([] { run_movement(species, width, from, to, ring); });

    static std::string file;
    static std::string within;
    auto* flatten = app.add_subcommand("flatten", "the tilt that leaves the thickest slab");
    flatten->add_option("readings", file, "CSV with face,x_mm,y_mm,z_mm; face is top or bottom")->required();
    flatten->add_option("--within", within, "X0,Y0,X1,Y1: only readings in this rectangle, mm");
    flatten->callback([] {
        of_file(file, [](const std::string& path) {
            run_flatten(path, within);
            return 0;
        });
    });
}
