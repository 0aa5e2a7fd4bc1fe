// Every number of every demo job – the job's own, its slabs', its shop's – made odd: nought, negative, tiny, huge, absent, doubled. It is
// read or refused with a sentence; what is read is planned – how quickly, benchmarks/ tells – and no figure of the plan is nan or infinite.
#include <cmath>
#include <cstdlib>

#include <catch2/catch.hpp>

#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/documents_of.h"
#include "tests/everything.h"
#include "tests/how_much.h"
#include "tests/sane.h"

using namespace yb;

namespace {

using Pointer = Json::json_pointer;

void numbers_of(const Json& j, const Pointer& at, std::vector<Pointer>& out) {
    if (j.is_number()) out.push_back(at);
    if (j.is_object())
        for (const auto& [key, value] : j.items()) numbers_of(value, at / key, out);
    if (j.is_array())
        for (std::size_t i = 0; i < j.size(); ++i) numbers_of(j[i], at / i, out);
}

constexpr int ways = 8;
/// The same document with one number made odd.
Json odd(const Json& whole, const Pointer& at, int way) {
    Json j = whole;
    Json& n = j[at];
    switch (way) {
        case 0: n = 0; break;
        case 1: n = -1; break;
        case 2: n = 1e-9; break;
        case 3: n = 1e9; break;
        case 4: n = 1e300; break;
        case 5: n = nullptr; break;
        case 6: n = n.is_number_integer() ? Json(n.get<std::int64_t>() * 2) : Json(n.get<double>() * 2); break;
        default: n = 4294967297.0; break;
    }
    return j;
}

}  // namespace

TEST_CASE("no number of any demo job, however odd, makes a plan that fails or a figure that is none", "[hostile][odd]") {
    const Documents& demo = demo_shop();
    const bool all = in_full();  // every number in every way: minutes
    std::size_t read = 0;
    std::size_t refused = 0;
    std::size_t turn = 0;
    for (const auto& [id, job] : demo.jobs) {
        const Json whole = parse_json(write_job_file(job_file(demo, id, [](const std::string&) { return std::nullopt; })));
        std::vector<Pointer> numbers;
        for (const char* part : {"job", "shop"}) numbers_of(whole[part], Pointer("/" + std::string(part)), numbers);
        std::vector<Pointer> of_slabs;
        numbers_of(whole["slabs"], Pointer("/slabs"), of_slabs);
        const std::size_t every = all ? 7 : 211;
        for (std::size_t i = turn % every; i < of_slabs.size(); i += every) numbers.push_back(of_slabs[i]);
        for (const Pointer& at : numbers) {
            ++turn;
            // The same number stands in every job: by default it is tried in every ninth of them.
            if (!all && turn % 9 != 0) continue;
            for (int way = 0; way < ways; ++way) {
                // By itself every number is made odd in one way, another one in each job.
                if (!all && way != static_cast<int>((turn + turn / ways) % ways)) continue;
                INFO(id << " " << at.to_string() << " way " << way);
                JobFile f;
                try {
                    f = read_job_file(odd(whole, at, way).dump());
                } catch (const FormatError& e) {
                    CHECK_FALSE(std::string(e.what()).empty());
                    ++refused;
                    continue;
                }
                ++read;
                Plan p;
                REQUIRE_NOTHROW(p = plan_job(f.job, documents_of(f)));
                for (const StepRow& row : steps()) sane(p.said(row.step), row.name);
                for (const StepRow& row : steps()) CHECK_FALSE(find_caution(p.said(row.step).cautions, "plan.failed"));
                CHECK(finite(to_json(p, Units::metric())));
            }
        }
    }
    CHECK(read > so_many<std::size_t>(200, 500));
    CHECK(refused > 10);
}

TEST_CASE("resins without times, masses without densities, no rest and no allowance: planned, told, and every figure a number",
          "[hostile][odd]") {
    Documents d = demo_shop();
    for (Resin& r : d.shop.resins) {
        r.pot_life_h = r.recoat_from_h = r.recoat_to_h = r.sand_h = r.cured_h = std::nullopt;
        r.by_mass = true, r.density_a = r.density_b = 0;
    }
    for (auto& [id, job] : d.jobs) {
        INFO(id);
        job.flat.rest_h = job.flat.allowance_mm = 0;
        Plan p;
        REQUIRE_NOTHROW(p = plan_job(job, d));
        bool told = false;
        for (const StepRow& row : steps()) {
            sane(p.said(row.step), row.name);
            CHECK_FALSE(find_caution(p.said(row.step).cautions, "plan.failed"));
            for (const Caution& c : p.said(row.step).cautions) told = told || render(c.says, {}).find("ensity") != std::string::npos;
        }
        CHECK(told);  // a density of nothing is told with its field
        CHECK(finite(to_json(p, Units::metric())));
        for (const Operation& o : p.days->operations) CHECK(std::isfinite(o.end_h));
        // Without a label's times the simulation has them, and nothing comes before the gel.
        for (const PourLift& l : p.pour->lifts) {
            CHECK(l.clock.hard_h >= l.clock.shave_from_h);
            CHECK(l.clock.shave_from_h > 0);
        }
    }
}
