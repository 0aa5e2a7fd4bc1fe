// Files that older and newer programs wrote.
#include <filesystem>
#include <fstream>
#include <map>
#include <set>
#include <sstream>

#include <catch2/catch.hpp>

#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/files/io/upgrade.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/documents_of.h"
#include "tests/everything.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

std::string kept(const std::string& name) {
    std::ifstream in(std::string(YB_SOURCE) + "/tests/data/" + name, std::ios::binary);
    std::stringstream text;
    text << in.rdbuf();
    return text.str();
}

std::map<std::string, std::vector<double>> figures_of(const Plan& p) {
    std::map<std::string, std::vector<double>> out;
    for (const StepRow& row : steps()) {
        if (!row.says(p)) continue;
        for (const Figure& f : row.says(p)->figures) {
            out[f.key] = {f.value.value};
            if (f.second) out[f.key].push_back(f.second->value);
        }
    }
    if (p.leaves.size() > 1)
        for (std::size_t i = 0; i < p.leaves.size(); ++i)
            for (const Figure& f : p.leaves[i].flat->figures) {
                auto& of = out["leaf " + std::to_string(i + 1) + " " + f.key];
                of = {f.value.value};
                if (f.second) of.push_back(f.second->value);
            }
    return out;
}

std::string refused(const std::function<void()>& what) {
    try {
        what();
    } catch (const FormatError& e) {
        return e.what();
    }
    return {};
}

}  // namespace

TEST_CASE("job files of version 2 plan the figures they did, but for those of a top that was pretended", "[io][upgrade]") {
    const Json was = parse_json(kept("figures-of-version-2.json"));
    REQUIRE(was.size() == 7);
    // What the real top, the real river and its lifts set right; everything else is as it was, to one in a million.
    const std::set<std::string> mended{
        "lay.resin",    "lay.river",  "lay.rods",   "rack.mass",     "rack.width",  "rack.board_feet", "rack.price",
        "under.travel", "under.mass", "days.ready", "days.hands_on", "days.latest", "fill.parts",  // told a resin at a time since
        "fill.rounds",                 // a void right through is advised rounds of a thicker resin
        "fill.mix",     "lay.drift"};  // the finished planes lie elsewhere: both faces share what is too thick
    std::size_t compared = 0;
    for (const auto& [name, figures] : was.items()) {
        const Documents d = documents_of(read_job_file(kept(name + ".json")));
        const auto now = figures_of(plan_job(d.jobs.begin()->second, d));
        const bool whole = d.jobs.begin()->second.leaves.size() > 1;
        for (const auto& [key, values] : figures.items()) {
            INFO(name << " " << key);
            if (mended.count(key)) continue;
            // The rack tells all slabs of a top of several, and of a disc its diameters; what fits tells what the place has.
            if ((whole || name == "job-round-hall") && (key.rfind("rack.", 0) == 0 || key == "lay.fit")) continue;
            if (whole && (key.find("fill.") != std::string::npos || key.rfind("under.", 0) == 0 || key.rfind("days.", 0) == 0)) continue;
            REQUIRE(now.count(key));
            // Beside the time at the router stand the loose chips now.
            REQUIRE(now.at(key).size() == values.size() + (key.find("flat.hours") != std::string::npos ? 1 : 0));
            // Beyond the outermost readings the plane goes on: a little more comes off there than was told.
            const bool beyond = key.find("flat.passes") != std::string::npos || key.find("flat.hours") != std::string::npos;
            if (key.find("flat.off") != std::string::npos) {
                // What is too thick is shared by both faces now: together they give what they did.
                CHECK(now.at(key)[0] + now.at(key)[1] ==
                      Approx(values[0].get<double>() + values[1].get<double>()).epsilon(0.03).margin(0.5));
                ++compared;
                continue;
            }
            for (std::size_t i = 0; i < values.size(); ++i)
                CHECK(now.at(key)[i] == Approx(values[i].get<double>()).epsilon(beyond ? 0.04 : 1e-6).margin(1e-9));
            ++compared;
        }
    }
    CHECK(compared > 80);
}

TEST_CASE("a job file of version 1 opens with its one slab as the first leaf", "[io][upgrade]") {
    const JobFile f = read_job_file(kept("job-of-version-1.json"));
    REQUIRE(f.slabs.size() == 1);
    REQUIRE(f.job.leaves.size() == 1);
    CHECK(f.job.leaves[0].slab == f.slabs[0].id);
    const Documents d = documents_of(f);
    CHECK(plan_job(f.job, d).top->ready);
}

TEST_CASE("a shop of schema 2 opens, is brought up, and writes what it read", "[io][upgrade][store]") {
    std::string t = (fs::temp_directory_path() / "yb-upgrade-XXXXXX").string();
    const fs::path folder = mkdtemp(t.data());
    const std::string path = (folder / "old.shop").string();
    fs::copy_file(std::string(YB_SOURCE) + "/tests/data/demo-v2.shop", path);
    Documents first;
    {
        const Store s = Store::open(path);
        CHECK_FALSE(s.read_only());
        first = s.documents();
        CHECK(first.jobs.size() == 7);
        CHECK(first.slabs.size() > 5);
        for (const auto& [id, job] : first.jobs)
            if (!job.leaves.empty()) CHECK(plan_job(job, first).rack.ready);
    }
    CHECK(Store::open(path).documents() == first);
    fs::remove_all(folder);
}

TEST_CASE("what is written is read back the same, and says its version", "[io][upgrade]") {
    const Documents& d = demo_shop();
    CHECK(to_json(d.shop).at("v") == version_of(Body::shop));
    CHECK(shop_from_json(to_json(d.shop)) == d.shop);
    for (const auto& [id, s] : d.slabs) {
        CHECK(to_json(s).at("v") == version_of(Body::slab));
        CHECK(slab_from_json(to_json(s)) == s);
    }
    for (const auto& [id, j] : d.jobs) {
        CHECK(to_json(j).at("v") == version_of(Body::job));
        CHECK(job_from_json(to_json(j)) == j);
    }
}

TEST_CASE("fields that nobody knows are kept and written back where they stood", "[io][upgrade]") {
    const Documents& d = demo_shop();
    Json j = to_json(d.jobs.at("job-tarn-river"));
    j["v"] = 99;
    j["moonlight"] = {{"phase", 3}, {"notes", {"a", "b"}}};
    j["top"]["glow"] = true;
    Job read = job_from_json(j);
    CHECK_FALSE(read.kept.empty());
    // A known value changes beside them.
    read.top.length_mm = 1777;
    const Json back = to_json(read);
    CHECK(nlohmann::json(back.at("moonlight")) == nlohmann::json(j.at("moonlight")));  // in whatever order
    CHECK(back.at("top").at("glow") == true);
    CHECK(back.at("top").at("length_mm") == 1777);
    CHECK(job_from_json(back) == read);
    // It plans as it does without them.
    CHECK(plan_job(job_from_json(j), d).top->mass_kg == plan_job(d.jobs.at("job-tarn-river"), d).top->mass_kg);
    Json slab = to_json(d.slabs.begin()->second);
    slab["smell"] = "of almonds";
    CHECK(to_json(slab_from_json(slab)).at("smell") == "of almonds");
    Json shop = to_json(d.shop);
    shop["stove"] = 7;
    CHECK(to_json(shop_from_json(shop)).at("stove") == 7);
}

TEST_CASE("a version that is none is refused with its place and how to mend it", "[io][upgrade][hostile]") {
    for (const Json& v : {Json("three"), Json(0), Json(-2), Json(2.5), Json(nullptr), Json::array()}) {
        Json j = to_json(Job{});
        j["v"] = v;
        const std::string why = refused([&] { job_from_json(j); });
        INFO(v.dump() << ": " << why);
        CHECK(why.find("v") != std::string::npos);
        CHECK(why.size() > 20);
    }
}

TEST_CASE("numbers out of their range are read, kept, planned with and told with the field to mend", "[io][upgrade]") {
    const Documents& d = demo_shop();
    Json j = to_json(d.jobs.at("job-reading-table"));
    j["under"]["edge_mm"] = 9e6;
    const Job read = job_from_json(j);
    CHECK(read.under.edge_mm == 9e6);
    CHECK(to_json(read).at("under").at("edge_mm") == 9e6);
    const Plan p = plan_job(read, d);
    bool told = false;
    for (const StepRow& row : steps())
        if (row.says(p))
            for (const Caution& c : row.says(p)->cautions) told = told || (c.key == "plan.range" && c.field == "under.edge_mm");
    CHECK(told);
    // Working hours the wrong way round open too.
    Json shop = to_json(d.shop);
    shop["workday"]["from_h"] = 18;
    shop["workday"]["to_h"] = 17;
    CHECK_NOTHROW(shop_from_json(shop));
    // A count beyond counting is no number at all.
    j["top"]["seats"] = 9e18;
    CHECK_FALSE(refused([&] { job_from_json(j); }).empty());
}

TEST_CASE("an unknown name in an item that has none here keeps the item's other unknown fields", "[io][upgrade]") {
    const std::string text =
        R"({"v": 2, "id": "s", "name": "s", "tape": {"stations": [{"x_mm": 0, "id": "first", "by": "laser"}, {"x_mm": 9}]}})";
    const Slab once = slab_from_json(parse_json(text));
    const Json written = to_json(once);
    CHECK(written["tape"]["stations"][0]["by"] == "laser");
    CHECK(written["tape"]["stations"][0]["id"] == "first");
    CHECK(slab_from_json(parse_json(written.dump())) == once);
}

TEST_CASE("JSON is read alike by the quick reader and by the one that gives places", "[io]") {
    for (const char* text : {"0",
                             "-0",
                             "-0.0",
                             "1e308",
                             "4.9e-324",
                             "0.1",
                             "123456789012345678",
                             "-9223372036854775808",
                             "18446744073709551615",
                             "18446744073709551616",
                             R"({"a": 1, "b": 2, "a": 3})",
                             R"("\u00e9\ud83d\ude00 \\ \" \n")",
                             "[]",
                             "{}",
                             "[[],{}]",
                             " [1 , 2.50 ] ",
                             "true",
                             "null",
                             R"({"deep": {"er": [{"x_mm": 1.25}, null, false]}})",
                             "1.7976931348623157e308",
                             "3.0000000000000004"}) {
        INFO(text);
        const Json quick = parse_json(text);
        const Json plain = Json::parse(text);
        CHECK(quick == plain);
        CHECK(quick.dump() == plain.dump());
    }
    const Documents& d = demo_shop();
    for (const auto& [id, job] : d.jobs) CHECK((parse_json(to_json(job).dump()).dump() == to_json(job).dump()));
    for (const auto& [id, slab] : d.slabs) CHECK((parse_json(to_json(slab).dump()).dump() == to_json(slab).dump()));
    for (const char* wrong : {"", "[1,", "{\"a\" 1}", "nul", "01", "[1 2]", "\"\xff\"", "1e999", "[1]]"}) {
        INFO(wrong);
        CHECK_THROWS_AS(parse_json(wrong), FormatError);
    }
}

TEST_CASE("a job of version 3 rests as it did", "[io][upgrade]") {
    Json j = to_json(demo_shop().jobs.at("job-reading-table"));
    CHECK(j.at("v") == 4);
    for (const bool both : {true, false}) {
        Json was = j;
        was["v"] = 3;
        was["flat"].erase("rests");
        was["flat"]["both_faces_to_air"] = both;
        was["makeup"]["hollow_mm"] = both ? 0.0 : 0.6;
        const Job now = job_from_json(was);
        CHECK(now.flat.rests == (both ? Rests::to_air : Rests::face_down));
        CHECK_FALSE(to_json(now)["flat"].contains("both_faces_to_air"));
        // The hollow that only the cut list knew is the one that the clamps close.
        CHECK((now.join.spring == Spring::hollow) == !both);
        if (!both) CHECK(now.join.spring_mm == 0.6);
    }
    // Without anything else of the glue-up, or with what is none, it is read, or refused with a sentence.
    for (const Json& join : {Json(), Json::object(), Json({{"spring", 4}}), Json(7)}) {
        Json was = j;
        was["v"] = 3;
        was["makeup"]["hollow_mm"] = 0.6;
        if (join.is_null()) was.erase("join");
        else was["join"] = join;
        if (join.is_number()) CHECK_THROWS_AS(job_from_json(was), FormatError);
        else CHECK(job_from_json(was).join.spring == Spring::hollow);
    }
}
