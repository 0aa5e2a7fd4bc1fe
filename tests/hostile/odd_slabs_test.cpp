// Slabs as nobody measures them, typed or in a file: shaped, planned and told, never walked off.
#include <catch2/catch.hpp>

#include <cmath>
#include <filesystem>
#include <fstream>

#include "core/files/io/job_file.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/rack/rack.h"
#include "demo/demo.h"
#include "tests/cli/run.h"
#include "tests/planks.h"
#include "tests/sane.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

HeightGrid grid(std::vector<double> x, std::vector<double> y, double gap) {
    HeightGrid g{std::move(x), std::move(y), {}};
    g.gap_mm.assign(g.x_mm.size() * g.y_mm.size(), gap);
    return g;
}

void planned(const Slab& slab, const char* what) {
    INFO(what);
    const Job j = on(slab, {1200, 400, 40, 740, LiveEdges::both, 0, TopShape::rectangle, {}});
    Plan p;
    REQUIRE_NOTHROW(p = plan_job(j, slab, Shop()));
    for (const StepRow& row : steps()) sane(p.said(row.step), row.name);
}

}  // namespace

TEST_CASE("a slab whose two faces share no station, or whose heights lie off the wood, is planned", "[hostile][slab]") {
    Slab s = plank("p", 2000, 600, 50);
    s.heights_a = grid({0, 500}, {-100, 100}, 2);
    s.heights_b = grid({90000, 100000}, {-100, 100}, 2);
    planned(s, "face B far off the wood");
    s.heights_b = grid({0, 500}, {5000, 5200}, 2);
    planned(s, "face B beside the wood");
    s.heights_a = grid({-30000}, {0}, 2), s.heights_b = grid({30000}, {0}, 2);
    planned(s, "one place each, far apart");
    // No caliper reading lies where both were read.
    for (Station& st : s.tape.stations) st.thickness_mm.reset();
    planned(s, "no thickness");
    s = plank("p", 2000, 600, 50);
    s.tape.stations.front().x_mm = 100000;
    s.heights_a = s.heights_b = grid({100, 500}, {-100, 100}, 1);
    planned(s, "a first station at 100 m");
    s.tape.stations.back().x_mm = 100001;
    planned(s, "both stations at 100 m");
    s = plank("p", 2000, 600, 50);
    s.outline = TracedOutline{box(0, -300, 900, 300), box(1100, -300, 2000, 300), 0, "traced"};
    s.heights_a = s.heights_b = grid({100, 500}, {-100, 100}, 1);
    planned(s, "faces beside one another");
}

TEST_CASE("rings that cross themselves a thousand times and lists of hundreds are planned within what a plan may take", "[hostile][slab]") {
    Slab s = plank("p", 2000, 600, 50);
    Ring knot;
    for (int i = 0; i < 1500; ++i) knot.push_back({1000 + 400 * std::cos(i * 2.3), 250 * std::sin(i * 3.1)});
    s.flaws.push_back({"k", FlawKind::void_, Face::a, knot, false, 20.0, 1, ""});
    Job j = on(s, {1200, 400, 40, 740, LiveEdges::both, 0, TopShape::rectangle, {}});
    for (int i = 0; i < 900; ++i) {
        j.makeup.patches.push_back({"p" + std::to_string(i), box(-500 + i, -50, -400 + i, 50), 10, "", {}, 0});
        j.join.ties.push_back({-500.0 + i, 0, i * 7.0, 110, 45, 14, i % 2 == 0});
        j.join.gaps.push_back({1, i * 1.0, 0.2, EdgeRead::together, {}});
    }
    Documents d;
    d.slabs["p"] = s;
    const Plan p = plan_job(j, d);
    for (const StepRow& row : steps()) sane(p.said(row.step), row.name);
    bool told = false;
    for (const StepRow& row : steps())
        for (const Caution& c : p.said(row.step).cautions) told = told || c.key == "plan.many";
    CHECK(told);
    // All of it is kept.
    CHECK(j.makeup.patches.size() == 900);
}

TEST_CASE("a store's air of less than nothing is planned as quickly as any", "[hostile]") {
    Documents d = demo_shop();
    for (Month& m : d.shop.store.months) m = {-400, -1};
    for (Month& m : d.shop.air.months) m.rh_pct = 400;
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        for (const StepRow& row : steps()) sane(p.said(row.step), row.name);
    }
}

TEST_CASE("a job whose slab is not in the file ends with 2 and says which leaf", "[hostile][cli]") {
    const fs::path dir = fs::temp_directory_path() / "yb-odd-slabs";
    fs::create_directories(dir);
    const Documents& d = demo_shop();
    JobFile f = job_file(d, "job-tarn-river", [](const std::string&) { return std::nullopt; });
    f.job.leaves[1].slab.clear();
    const fs::path path = dir / "job.json";
    std::ofstream(path) << write_job_file(f);
    const auto ran = burl("plan " + path.string());
    CHECK(ran.code == 2);
    CHECK(ran.out.find("job.leaves[1]") != std::string::npos);
    CHECK(ran.out.find("map::at") == std::string::npos);
    for (const char* verb : {"pour", "under --year"}) CHECK(burl(std::string(verb) + " " + path.string()).code == 2);
    fs::remove_all(dir);
}

TEST_CASE("a shop with bytes that are no text is checked and repaired with our own words", "[hostile][cli][store]") {
    const fs::path dir = fs::temp_directory_path() / "yb-odd-bytes";
    fs::remove_all(dir);
    fs::create_directories(dir);
    const fs::path shop = dir / "a.shop";
    REQUIRE(burl("demo " + shop.string()).code == 0);
    // A name in a body is turned into bytes that are no UTF-8, wherever it stands.
    std::ifstream in(shop, std::ios::binary);
    std::string bytes((std::istreambuf_iterator<char>(in)), {});
    in.close();
    int turned = 0;
    for (std::size_t at = bytes.find("slab-sycamore"); at != std::string::npos; at = bytes.find("slab-sycamore", at + 1))
        if (turned < 400) bytes[at] = '\xff', bytes[at + 1] = '\xfe', ++turned;
    REQUIRE(turned > 0);
    std::ofstream(shop, std::ios::binary) << bytes;
    const auto checked = burl("check " + shop.string());
    CHECK(checked.code == 2);
    CHECK(checked.out.find("json.exception") == std::string::npos);
    const auto repaired = burl("repair " + shop.string() + " " + (dir / "b.shop").string());
    CHECK(repaired.code != 1);
    CHECK(repaired.out.find("json.exception") == std::string::npos);
    if (repaired.code == 0) CHECK(repaired.out.find("\"whole\": false") != std::string::npos);
    fs::remove_all(dir);
}
