#include <array>
#include <cstdio>
#include <filesystem>
#include <fstream>

#include <sys/wait.h>
#include <unistd.h>
#include <catch2/catch.hpp>

#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/cli/run.h"
#include "tests/everything.h"

using namespace yb;

TEST_CASE("burl answers in JSON", "[cli]") {
    CHECK(json(burl("emc --temp-c 21.1 --rh 50"))["emc_pct"].get<double>() == Approx(9.24).margin(0.005));
    CHECK(json(burl("movement --species 'cherry, black' --width-mm 1000 --from-mc 7 --to-mc 11"))["movement_mm"].get<double>() ==
          Approx(10.01).margin(0.005));
    CHECK(json(burl("movement --species 'cherry, black' --width-mm 1000 --from-mc 7 --to-mc 11 --ring-angle-deg 90"))["movement_mm"]
              .get<double>() == Approx(5.08).margin(0.005));
    const auto dir = std::filesystem::temp_directory_path() / ("yb-cli-" + std::to_string(getpid()));
    std::filesystem::create_directories(dir);
    const std::string d = dir.string();
    std::ofstream(d + "/r.csv")
        << "face,x_mm,y_mm,z_mm\ntop,0,0,50\ntop,1000,0,60\ntop,0,400,50\ntop,9000,0,1\nbottom,0,0,0\nbottom,1000,0,10\nbottom,0,400,0\n";
    const Json f = json(burl("flatten " + d + "/r.csv --within -1,-1,2000,900"));
    CHECK(f["thickness_mm"].get<double>() == Approx(50 / std::sqrt(1.0001)));
    CHECK(f["top_readings"] == 3);
    const Documents demo = demo_shop();
    const Job& job = demo.jobs.at("job-hall-table");
    std::ofstream(d + "/job.json") << write_job_file({job, {demo.slabs.at(job.first().slab)}, {}, demo.shop});
    const Json plan = json(burl("plan " + d + "/job.json"));
    CHECK(plan["flat"]["ready"] == true);
    CHECK(plan["shims"].size() == 4);
    { Store::create(d + "/a.shop", demo, "New"); }
    CHECK(json(burl("check " + d + "/a.shop"))["slabs"] == 23);
    std::filesystem::resize_file(d + "/a.shop", 6000);
    CHECK(burl("check " + d + "/a.shop").code == 2);
    std::ofstream(d + "/bad.csv") << "face,x_mm,y_mm,z_mm\ntop,0,0,fifty\n";
    const Run bad = burl("flatten " + d + "/bad.csv");
    CHECK(bad.code == 2);
    CHECK(bad.out.find("line 2") != std::string::npos);
    std::filesystem::remove_all(dir);
}

TEST_CASE("burl says what is wrong and leaves with 2", "[cli]") {
    CHECK(burl("emc --temp-c 20 --rh 130").code == 2);
    CHECK(burl("emc --rh 50").code == 2);
    CHECK(burl("plan /nowhere.json").code == 2);
    CHECK(burl("check /nowhere.shop").code == 2);
    const Run r = burl("movement --species cherry --width-mm 10 --from-mc 7 --to-mc 8");
    CHECK(r.code == 2);
    CHECK(r.out.find("cherry, black") != std::string::npos);
}

TEST_CASE("burl says its version", "[cli]") {
    const Run r = burl("--version");
    CHECK(r.code == 0);
    CHECK(r.out.rfind("burl 0.", 0) == 0);
}

TEST_CASE("burl finds tops, puts logs in order and plans several leaves", "[cli]") {
    const auto dir = std::filesystem::temp_directory_path() / ("yb-cli-lay-" + std::to_string(getpid()));
    std::filesystem::create_directories(dir);
    const std::string d = dir.string();
    const Documents demo = demo_shop();
    { Store::create(d + "/a.shop", demo, "New"); }
    const Json found = json(burl("find " + d + "/a.shop --length-mm 1500 --width-mm 600 --thickness-mm 40 --live none --keep 4"));
    REQUIRE(found["found"].size() == 4);
    CHECK(found["found"][0]["fits"] == true);
    for (const Json& f : found["found"]) {
        CHECK(f["placements"].size() == f["slabs"].size());
        CHECK(f["joints"].size() + 1 >= f["slabs"].size());
        CHECK(f["placements"][0].contains("x_mm"));
        CHECK(f["price"].get<double>() > 0);
        CHECK(f["waste_pct"].get<double>() > 0);
        CHECK(f["flaws"].get<int>() >= 0);
        CHECK((f["narrowest_mm"].get<double>() >= 600 - 0.1) == f["fits"].get<bool>());
    }
    CHECK(found["found"][0]["score"].get<double>() >= found["found"][1]["score"].get<double>());
    CHECK(burl("find " + d + "/a.shop --live sometimes").code == 2);
    CHECK(burl("find " + d + "/none.shop").code == 2);

    json(burl("grow --seed 6 --out " + d + "/log --length-mm 1500 --butt-mm 380 --thickness-mm 50 --mm-per-px 4 --fork"));
    std::string files;
    int n = 0;
    for (int i : {3, 1, 4, 2})
        if (std::filesystem::exists(d + "/log/slab-" + std::to_string(i) + ".json"))
            files += " " + d + "/log/slab-" + std::to_string(i) + ".json", ++n;
    REQUIRE(n == 4);
    const Json order = json(burl("sequence" + files));
    std::string told;
    for (const Json& p : order["from_the_lowest"]) told += p["file"].get<std::string>().substr((d + "/log/slab-").size(), 1);
    CHECK((told == "1234" || told == "4321"));
    CHECK(order["exact"] == true);

    const Job& river = demo.jobs.at("job-tarn-river");
    std::ofstream(d + "/river.json") << write_job_file(
        {river, {demo.slabs.at(river.leaves[0].slab), demo.slabs.at(river.leaves[1].slab)}, {}, demo.shop});
    const Json plan = json(burl("plan " + d + "/river.json"));
    CHECK(plan["leaves"].size() == 2);
    CHECK(plan["joints"][0]["river_mean_mm"].get<double>() == Approx(140).margin(5));
    CHECK(plan["cuts"].size() >= 4);
    // A leaf whose slab is not in the file.
    std::ofstream(d + "/half.json") << write_job_file({river, {demo.slabs.at(river.leaves[0].slab)}, {}, demo.shop});
    const Run half = burl("plan " + d + "/half.json");
    CHECK(half.code == 2);
    CHECK(half.out.find("is not in the file") != std::string::npos);
    std::filesystem::remove_all(dir);
}

TEST_CASE("what is the user's ends with 2 and names the file or the option, what can't be written never with 0", "[cli][hostile]") {
    const auto dir = std::filesystem::temp_directory_path() / ("yb-cli-codes-" + std::to_string(getpid()));
    std::filesystem::create_directories(dir / "folder");
    const std::string d = dir.string();
    Store::create(d + "/a.shop", demo_shop(), "New shop");
    std::ofstream(d + "/slab.json") << to_json(demo_shop().slabs.begin()->second).dump();
    // A slab with a picture that is none beside it.
    Slab pictured = demo_shop().slabs.begin()->second;
    pictured.picture_a.emplace();
    pictured.picture_a->key = "junk.png";
    std::ofstream(d + "/pictured.json") << to_json(pictured).dump();
    std::ofstream(d + "/junk.png") << "\x89PNG\r\n\x1a\nand then nothing of the kind";
    std::ofstream(d + "/deep.json") << std::string(100000, '[');
    const auto refused = [&](const std::string& args, const std::string& part) {
        const Run r = burl(args);
        INFO(args);
        INFO(r.out);
        CHECK(r.code == 2);
        CHECK(r.out.find(part) != std::string::npos);
        CHECK(r.out.size() < 600);
    };
    for (const char* verb : {"plan", "flatten", "check", "jobs", "find"}) {
        refused(verb + std::string(" ") + d + "/folder", "folder");
        refused(verb + std::string(" ") + d + "/none", "none");
        refused(verb + std::string(" /dev/zero"), "device");
    }
    refused("emc --temp-c nan --rh 50", "nan");
    refused("emc --temp-c 20 --rh inf", "inf");
    refused("movement --species 'cherry, black' --width-mm nan --from-mc 7 --to-mc 11", "nan");
    refused("find " + d + "/a.shop --length-mm nan", "nan");
    refused("grow --seed 1 --out " + d + "/x --length-mm inf", "inf");
    refused("plan " + d + "/deep.json", "nested");
    refused("sequence " + d + "/slab.json " + d + "/pictured.json", "junk.png");
    refused("sequence " + d + "/slab.json " + d + "/folder", d + "/folder");
    refused("repair " + d + "/a.shop " + d + "/a.shop", "is there already");
    refused("repair " + d + "/none.shop " + d + "/b.shop", "There is no file");
    refused("grow --seed 1 --out /dev/null/x", "/dev/null");
    const std::string odd = d + "/na\xefve.shop";
    std::filesystem::copy_file(d + "/a.shop", odd);
    refused("check '" + odd + "'", "UTF-8");
    CHECK(burl("emc --temp-c 20 --rh 50 > /dev/full").code == 1);
    CHECK(burl("jobs " + d + "/a.shop > /dev/full").code == 1);
    std::filesystem::remove_all(dir);
}

TEST_CASE("burl repair puts what is whole into a new shop and lists what is not", "[cli][damage]") {
    const auto dir = std::filesystem::temp_directory_path() / ("yb-cli-repair-" + std::to_string(getpid()));
    std::filesystem::create_directories(dir);
    const std::string d = dir.string();
    { Store::create(d + "/a.shop", demo_shop(), "New shop"); }
    const Json whole = json(burl("repair " + d + "/a.shop " + d + "/b.shop"));
    CHECK(whole["whole"] == true);
    CHECK(whole["lost"].empty());
    CHECK(json(burl("check " + d + "/b.shop"))["ok"] == true);
    std::filesystem::resize_file(d + "/a.shop", std::filesystem::file_size(d + "/a.shop") - 8 * 4096);
    const Run check = burl("check " + d + "/a.shop");
    CHECK(check.code == 2);
    CHECK(parse_json(check.out)["ok"] == false);
    const Json part = json(burl("repair " + d + "/a.shop " + d + "/c.shop"));
    CHECK(part["whole"] == false);
    CHECK_FALSE(part["lost"].empty());
    CHECK(part["newest_backup"].is_null());
    CHECK(json(burl("check " + d + "/c.shop"))["ok"] == true);
    std::filesystem::remove_all(dir);
}

TEST_CASE("burl flatten on poor readings: what they don't fix is not tilted and said, what is absurd is refused with its line",
          "[cli][flat]") {
    const auto dir = std::filesystem::temp_directory_path() / ("yb-cli-poor-" + std::to_string(getpid()));
    std::filesystem::create_directories(dir);
    const std::string path = (dir / "r.csv").string();
    const auto write = [&](const std::string& rows) { std::ofstream(path) << "face,x_mm,y_mm,z_mm\n" << rows; };
    write("top,0,0,50\ntop,1000,0,60\nbottom,0,0,0\nbottom,1000,0,10\n");
    const Json line = json(burl("flatten " + path));
    CHECK(line["thickness_mm"].get<double>() == Approx(50 / std::sqrt(1.0001)).margin(1e-4));
    CHECK(line["tilt_along_mm_per_m"].get<double>() == Approx(10).margin(1e-3));
    CHECK(line["tilt_across_mm_per_m"].get<double>() == Approx(0).margin(1e-3));
    CHECK(line["tilt_fixed"] == false);
    CHECK(line["said"].dump().find("tilt across") != std::string::npos);
    write("top,500,0,50\nbottom,500,0,0\n");
    CHECK(json(burl("flatten " + path))["thickness_mm"].get<double>() == Approx(50).margin(1e-4));
    // The top at one end, the bottom at the other: level.
    write("top,0,-300,50\ntop,0,300,50\nbottom,2000,-300,0\nbottom,2000,300,0\n");
    const Json ends = json(burl("flatten " + path));
    CHECK(ends["thickness_mm"].get<double>() == Approx(50).margin(1e-4));
    CHECK(ends["tilt_along_mm_per_m"].get<double>() == Approx(0).margin(1e-6));
    const auto refused = [&](const std::string& rows, const std::string& part) {
        write(rows);
        const Run r = burl("flatten " + path);
        INFO(r.out);
        CHECK(r.code == 2);
        CHECK(r.out.find(part) != std::string::npos);
    };
    refused("top,0,0,50\ntop,1e300,0,50\nbottom,0,0,0\n", "line 3");
    refused("top,0,0,50\nbottom,0,0,1e9\n", "line 3");
    refused("top,0,0,0\ntop,900,0,3\nbottom,0,0,50\nbottom,900,0,52\n", "line 2");
    refused("top,0,0,50\n", "1 top and 0 bottom");
    std::filesystem::remove_all(dir);
}

TEST_CASE("doors of the shell: dates that are none, keys that lead out of the folder, layers of nothing, leaves by the hundred",
          "[cli][hostile]") {
    const auto dir = std::filesystem::temp_directory_path() / ("yb-cli-doors-" + std::to_string(getpid()));
    std::filesystem::create_directories(dir);
    const std::string d = dir.string();
    Store::create(d + "/a.shop", demo_shop(), "New shop");
    const auto refused = [&](const std::string& args, const std::string& part) {
        const Run r = burl(args);
        INFO(args);
        INFO(r.out);
        CHECK(r.code == 2);
        CHECK(r.out.find(part) != std::string::npos);
        CHECK(r.out.size() < 600);
    };
    for (const char* day : {"2026-99-99", "2026-02-30", "yesterday", "2026-1-1"})
        for (const char* option : {"--from", "--to"}) refused("book " + d + "/a.shop " + option + " " + day, day);
    CHECK(burl("book " + d + "/a.shop --from 2026-02-28").code == 0);

    Slab slab = demo_shop().slabs.begin()->second;
    slab.picture_a.emplace();
    for (const char* key : {"/etc/passwd", "../a.png", "..", "folder/a.png"}) {
        slab.picture_a->key = key;
        std::ofstream(d + "/out.json") << to_json(slab).dump();
        refused("sequence " + d + "/out.json " + d + "/out.json", "no name of a file in its folder");
    }

    Json job = json("export " + d + "/a.shop job-round-hall");
    const auto planned = [&](const char* name, const Json& j) {
        std::ofstream(d + "/" + name) << j.dump();
        return d + "/" + name;
    };
    for (const double depth : {1e-6, 1e-3, 0.1}) {
        Json thin = job;
        thin["shop"]["sled"]["depth_mm"] = depth;
        const std::string path = planned("thin.json", thin);
        refused("gcode " + path + " --side first", "Depth a layer");
        refused("surface " + path + " --side first --when after --step-mm 20", "Depth a layer");
        CHECK(burl("plan " + path + " > /dev/null").code == 0);
    }
    Json fine = job;
    fine["shop"]["sled"]["depth_mm"] = 0.2, fine["shop"]["sled"]["cutter_mm"] = 3, fine["shop"]["sled"]["overlap"] = 0.95;
    refused("gcode " + planned("fine.json", fine) + " --side first", "passes");

    for (const int leaves : {8, 30, 500}) {
        Json many = job;
        for (int i = 1; i < leaves; ++i) many["job"]["leaves"].push_back(job["job"]["leaves"][0]);
        const std::string path = planned("many.json", many);
        const Run r = burl("plan " + path);
        INFO(r.out.substr(0, 300));
        CHECK(r.code == 0);
        for (const char* library : {"Exception", "Topology", "GEOS", "json.", "std::"}) CHECK(r.out.find(library) == std::string::npos);
        CHECK((r.out.find("plan is made with the first 24") != std::string::npos) == (leaves > 24));
    }
    std::filesystem::remove_all(dir);
}
