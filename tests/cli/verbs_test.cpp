// The verbs that other programs call: cure, pour, sag, tip, under – their keys, their figures against hand cases, their exits.
#include <array>
#include <cstdio>
#include <filesystem>
#include <fstream>

#include <sys/wait.h>
#include <unistd.h>
#include <catch2/catch.hpp>

#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/shop/job/documents.h"
#include "demo/demo.h"
#include "tests/cli/run.h"
#include "tests/everything.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

void refused(const std::string& args, const std::string& says) {
    const Run r = burl(args);
    INFO(args << "\n" << r.out);
    CHECK(r.code == 2);
    CHECK(r.out.find(says) != std::string::npos);
}

struct Folder {
    fs::path at;
    Folder() {
        std::string t = (fs::temp_directory_path() / "yb-verbs-XXXXXX").string();
        at = mkdtemp(t.data());
    }
    ~Folder() { fs::remove_all(at); }
    std::string file(const char* name, const std::string& text) const {
        std::ofstream(at / name) << text;
        return (at / name).string();
    }
    std::string job(const char* id) const {
        return file((std::string(id) + ".json").c_str(),
                    write_job_file(job_file(demo_shop(), id, [](const std::string&) { return std::nullopt; })));
    }
};

const char* rectangle = "x_mm,y_mm\n0,0\n2000,0\n2000,900\n0,900\n";

}  // namespace

TEST_CASE("burl cure follows a pour, wide or between banks", "[cli][cure]") {
    const Json wide = json("cure --class slow-deep --depth-mm 50 --ambient-c 20");
    CHECK(wide.at("peak_c").get<double>() == Approx(51.96).margin(0.05));
    CHECK(wide.at("gel_h").get<double>() == Approx(36.44).margin(0.05));
    CHECK(wide.at("adiabatic_rise_c").get<double>() == Approx(157.9).margin(0.1));
    CHECK(wide.at("energy_error_pct").get<double>() < 0.1);
    const Json river = json("cure --class slow-deep --depth-mm 50 --ambient-c 20 --width-mm 60 --banks-mm 200 --board-mm 18 --h 8");
    CHECK(river.at("peak_c").get<double>() == Approx(28.21).margin(0.08));
    CHECK(json("cure --class slow-deep --depth-mm 40 --ambient-c -10").at("cured_h").is_null());  // not within the time it is followed
    refused("cure --class slow-deep --depth-mm 0 --ambient-c 20", "depth-mm");
    refused("cure --class thick --depth-mm 10 --ambient-c 20", "class");
    refused("cure --class medium --depth-mm ten --ambient-c 20", "depth-mm");
    refused("cure --class medium --depth-mm 10 --ambient-c -40", "ambient-c");
}

TEST_CASE("burl pour adds up", "[cli][pour]") {
    const Folder f;
    const Json p = json("pour " + f.job("job-tarn-river"));
    double lifts = 0;
    double batches = 0;
    for (const Json& l : p.at("lifts")) {
        lifts += l.at("volume_l").get<double>();
        CHECK(l.at("peak_low_c") <= l.at("peak_c"));
        CHECK(l.at("peak_c") <= l.at("peak_high_c"));
        CHECK(l.at("compartment") == p.at("compartments")[0].at("id"));
    }
    for (const Json& b : p.at("batches")) batches += b.at("a_l").get<double>() + b.at("b_l").get<double>();
    CHECK(lifts == Approx(p.at("compartments")[0].at("pour_l").get<double>()));
    CHECK(batches == Approx(p.at("mix_l").get<double>()));
    CHECK(p.at("mix_l").get<double>() == Approx(14.15).margin(0.1));
    CHECK(p.at("form").at("parts").size() == 3);
    CHECK(p.at("floats").size() == 2);
    CHECK(p.at("dams").size() == 2);
    CHECK(json("pour " + f.job("job-reading-table")).at("compartments").empty());
    refused("pour /nowhere/at/all.json", "nowhere");
    refused("pour " + f.file("odd.json", "{"), "odd.json");
}

TEST_CASE("burl sag bends a rectangle as the handbooks have it", "[cli][sag]") {
    const Folder f;
    const std::string outline = f.file("r.csv", rectangle);
    const Json s = json("sag " + outline + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm 400,1600");
    CHECK(s.at("mid_mm").get<double>() == Approx(0.4926).margin(1e-4));
    CHECK(s.at("end_mm").get<double>() == Approx(-0.4737).margin(1e-4));
    CHECK(json("sag " + outline + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm 400,1600 --point-n 0")
              .at("mid_mm")
              .get<double>() == Approx(0.0385).margin(1e-4));
    // Negative places parse, where the outline lies there.
    const std::string left = f.file("l.csv", "x_mm,y_mm\n-500,0\n1500,0\n1500,900\n-500,900\n");
    CHECK(json("sag " + left + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm=-100,1100").at("mid_mm").get<double>() ==
          Approx(0.4926).margin(1e-4));
    refused("sag " + outline + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm 400", "two are wanted");
    refused("sag " + outline + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm 400,2600", "off the wood");
    refused("sag " + outline + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm a,b", "supports-mm");
    refused("sag " + f.file("h.csv", "x,y\n1,2\n") + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm 1,2", "x_mm");
    refused("sag " + f.file("w.csv", "x_mm,y_mm\n1,two\n") + " --thickness-mm 45 --moe-mpa 11600 --density 610 --supports-mm 1,2",
            "line 2");
    refused("sag " + outline + " --thickness-mm nan --moe-mpa 11600 --density 610 --supports-mm 400,1600", "thickness-mm");
}

TEST_CASE("burl tip gives the least push that tips", "[cli][tip]") {
    const Folder f;
    const std::string outline = f.file("r.csv", rectangle);
    const std::string feet = f.file("f.csv", "x_mm,y_mm\n1750,800\n250,100\n250,800\n1750,100\n");
    const Json t = json("tip " + outline + " --mass-kg 60 --feet " + feet + " --height-mm 740 --base-kg 20");
    CHECK(t.at("down_n").get<double>() == Approx(2354).margin(2));
    CHECK(t.at("side_n").get<double>() == Approx(371.2).margin(0.3));
    CHECK(t.at("balance_x_mm").get<double>() == Approx(1000));
    const Json off =
        json("tip " + outline + " --mass-kg 60 --feet " + feet + " --height-mm 740 --base-kg 300 --base-x-mm 2400 --base-y-mm 450");
    CHECK(off.at("down_n").get<double>() == 0);
    CHECK(off.at("side_n").get<double>() == 0);
    const std::string wide = f.file("g.csv", "x_mm,y_mm\n-100,-100\n2100,-100\n2100,1000\n-100,1000\n");
    CHECK(json("tip " + outline + " --mass-kg 60 --feet " + wide + " --height-mm 740").at("down_n").is_null());
    refused("tip " + outline + " --mass-kg 60 --feet " + f.file("two.csv", "x_mm,y_mm\n0,0\n1,1\n") + " --height-mm 740", "three");
    refused("tip " + outline + " --mass-kg 0 --feet " + feet + " --height-mm 740", "mass");
    refused("tip " + outline + " --mass-kg 60 --feet " + f.file("line.csv", "x_mm,y_mm\n0,0\n500,0\n900,0\n") + " --height-mm 740",
            "one line");
}

TEST_CASE("burl under goes through the year", "[cli][under]") {
    const Folder f;
    const Json u = json("under " + f.job("job-reading-table") + " --year");
    REQUIRE(u.at("moisture_pct").size() == 12);
    REQUIRE_FALSE(u.at("holes").empty());
    for (const Json& h : u.at("holes")) {
        REQUIRE(h.at("travel_mm").size() == 12);
        const double bolt = h.at("bolt_mm").get<double>();
        const double inner = h.at("bolt_from_inner_mm").get<double>();
        for (const Json& t : h.at("travel_mm")) {
            if (h.at("round").get<bool>()) continue;
            CHECK(inner + t.get<double>() >= bolt / 2 - 1e-6);
            CHECK(inner + t.get<double>() <= h.at("slot_mm").get<double>() - bolt / 2 + 1e-6);
        }
    }
    refused("under /nowhere.json --year", "nowhere");
}

TEST_CASE("burl days: two jobs on one pair of hands, times as a clock shows them, a calendar beside", "[cli][days]") {
    const fs::path dir = fs::temp_directory_path() / ("burl-days-" + std::to_string(::getpid()));
    fs::create_directories(dir);
    const std::string shop = (dir / "demo.shop").string();
    REQUIRE(burl("demo " + shop).code == 0);
    std::string files;
    for (const char* job : {"job-reading-table", "job-tarn-river"}) {
        const std::string path = (dir / (std::string(job) + ".json")).string();
        REQUIRE(burl("export " + shop + " " + job + " > " + path).code == 0);
        files += " " + path;
    }
    const std::string ics = (dir / "days.ics").string();
    const Json j = json("days" + files + " --today 2026-11-30 --ics " + ics);
    CHECK(j["week"].size() == 5);
    CHECK(j["week"][0]["day"] == "monday");
    CHECK(j["week"][0]["from"] == "08:00");
    std::map<std::string, Json> by_id;
    for (const Json& o : j["operations"]) {
        CHECK(by_id.count(o["id"]) == 0);
        by_id[o["id"]] = o;
    }
    CHECK(by_id.size() > 20);
    std::vector<std::pair<std::string, std::string>> hands;
    for (const auto& [id, o] : by_id) {
        INFO(id);
        const std::string start = o["start"], off = o["hands_end"], end = o["end"];
        CHECK(start.size() == 16);
        CHECK(start <= off);
        CHECK(off <= end);
        for (const Json& a : o["after"]) {
            REQUIRE(by_id.count(a));
            CHECK(by_id[a]["end"].get<std::string>() <= start);
        }
        if (o["hands_on_min"].get<double>() > 1) {
            CHECK(start.substr(11) >= "08:00");
            CHECK(off.substr(11) <= "17:00");
            if (o["who"] != "helper") hands.emplace_back(start, off);
        }
    }
    std::sort(hands.begin(), hands.end());
    for (std::size_t i = 1; i < hands.size(); ++i) CHECK(hands[i - 1].second <= hands[i].first);
    std::ifstream f(ics);
    const std::string text((std::istreambuf_iterator<char>(f)), {});
    CHECK(text.find("BEGIN:VEVENT") != std::string::npos);
    // The whole shop by its file; what is asked wrong is said.
    CHECK(json("days --shop " + shop)["jobs"].size() == 10);
    CHECK(burl("days").code == 2);
    CHECK(burl("days --shop " + shop + files).code == 2);
    const Run bad = burl("days" + files + " --today soon");
    CHECK(bad.code == 2);
    CHECK(bad.out.find("2026-11-30") != std::string::npos);
    fs::remove_all(dir);
}
