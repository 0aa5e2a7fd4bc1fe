// What the program promises to be quick at. Run: build/release/benchmarks/burl_benchmarks
#include <algorithm>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <random>

#include <benchmark/benchmark.h>
#include <fmt/format.h>

#include "core/files/store/check.h"
#include "core/files/store/store.h"
#include "core/ground/cure/cure.h"
#include "core/material/drawing/drawing.h"
#include "core/shop/book/book.h"
#include "core/shop/days/season.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/prepared.h"
#include "core/shop/ways/costs.h"
#include "core/shop/ways/ways.h"
#include "core/steps/days/schedule.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/machine.h"
#include "core/steps/flat/tilt.h"
#include "core/steps/join/join.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/pour/pour.h"
#include "core/steps/skin/skin.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "demo/demo.h"

namespace {

using namespace yb;

/// A replan after a drag: about 200 edge points and 500 height readings.
void replan(benchmark::State& state) {
    Documents d = demo_shop();
    Job j = d.jobs.at("job-reading-table");
    SlabRecipe r;
    r.id = j.first().slab, r.species = "sycamore, American", r.length_mm = 2720, r.width_mm = 1010, r.station_mm = 54;
    r.grid_x_mm = 106, r.grid_y_mm = 80;
    Slab slab = make_slab(r);
    slab.flaws = d.slabs.at(j.first().slab).flaws;
    const auto prepared = prepare(slab, false);
    state.counters["edge_points"] = static_cast<double>(prepared->shape.ring_a.size());
    state.counters["readings"] = static_cast<double>(slab.heights_a.gap_mm.size() + slab.heights_b.gap_mm.size());
    for (auto _ : state) {
        j.first().placement.x_mm += 0.01;
        benchmark::DoNotOptimize(plan_job(j, JobSlabs{{prepared}}, d.shop, {whole_top, step_key::lay, nullptr}));
    }
}
BENCHMARK(replan)->Unit(benchmark::kMillisecond);

/// Every make-up of the demo, a leaf moved: as while it is dragged, and in full once the hand is still.
void replan_of(benchmark::State& state, const char* id, bool dragged) {
    const Documents& d = demo_shop();
    Job j = d.jobs.at(id);
    JobSlabs slabs;
    for (const Leaf& l : j.leaves) slabs.leaves.push_back(prepare(d.slabs.at(l.slab), l.placement.turned_over));
    Plan before = plan_job(j, slabs, d.shop, {});
    for (auto _ : state) {
        j.leaves.back().placement.x_mm += 0.01;
        before = plan_job(j, slabs, d.shop, {whole_top, dragged ? std::optional(step_key::lay) : std::nullopt, &before});
    }
}
BENCHMARK_CAPTURE(replan_of, one_dragged, "job-reading-table", true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, one_still, "job-reading-table", false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, round_dragged, "job-round-hall", true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, round_still, "job-round-hall", false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, disc_dragged, "job-hall-table", true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, disc_still, "job-hall-table", false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, bench_dragged, "job-landing-bench", true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, bench_still, "job-landing-bench", false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, boards_dragged, "job-seed-cabinet", true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, boards_still, "job-seed-cabinet", false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, river_dragged, "job-tarn-river", true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, river_still, "job-tarn-river", false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, open_river_dragged, "job-open-river", true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(replan_of, open_river_still, "job-open-river", false)->Unit(benchmark::kMillisecond);

/// So many readings, half of them on each face.
void tilt_of_readings(benchmark::State& state) {
    std::mt19937 random(1);
    const auto u = [&] { return static_cast<double>(random()) / 4294967296.0; };
    std::vector<Vec3> top, bottom;
    for (int64_t i = 0; i < state.range(0) / 2; ++i) {
        const double x = 2400 * u();
        const double y = 900 * (u() - 0.5);
        const double w = 0.00002 * (x - 1200) * y + 8 * x / 2400 * (1 - x / 2400);
        top.push_back({x, y, 55 + w + u()});
        bottom.push_back({x, y, w - u()});
    }
    for (auto _ : state) benchmark::DoNotOptimize(best_tilt(top, bottom));
}
BENCHMARK(tilt_of_readings)->Arg(1000000)->Arg(5000000)->Unit(benchmark::kMillisecond);

void open_ten_thousand_revisions(benchmark::State& state) {
    const auto path = std::filesystem::temp_directory_path() / "yb-benchmark.shop";
    std::filesystem::remove(path);
    {
        Store s = Store::create(path.string(), demo_shop(), "New");
        for (int i = 0; i < 10000; ++i) {
            Documents d = s.documents();
            d.jobs.begin()->second.notes = std::to_string(i);
            s.append("edit", d);
        }
    }
    { Store::open(path.string()); }  // the day's backup is made once
    for (auto _ : state) benchmark::DoNotOptimize(Store::open(path.string()));
    std::filesystem::remove_all(path.string() + ".backups");
    std::filesystem::remove(path);
}
BENCHMARK(open_ten_thousand_revisions)->Unit(benchmark::kMillisecond)->Iterations(3);

/// A shop of one gigabyte, most of it pictures, looked through whole; beside it the file merely read.
void check_a_gigabyte(benchmark::State& state) {
    const std::string path = (std::filesystem::temp_directory_path() / "yb-gigabyte.shop").string();
    std::filesystem::remove(path);
    {
        Store store = Store::create(path, demo_shop(), "New shop");
        std::string picture(4 << 20, '\0');
        for (int i = 0; i < 256; ++i) {
            for (std::size_t k = 0; k < picture.size(); k += 8) picture[k] = static_cast<char>((k >> 3) * 31 + static_cast<std::size_t>(i));
            store.attach("picture-" + std::to_string(i), picture);
        }
    }
    const double mb = static_cast<double>(std::filesystem::file_size(path)) / 1048576;
    for (auto _ : state)
        if (!check_shop(path).ok) state.SkipWithError("it is damaged");
    state.counters["MB"] = mb;
    const auto begun = std::chrono::steady_clock::now();
    std::ifstream in(path, std::ios::binary);
    std::string piece(1 << 20, '\0');
    while (in.read(piece.data(), static_cast<std::streamsize>(piece.size()))) benchmark::DoNotOptimize(piece.data());
    state.counters["s_to_read_it"] = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    std::filesystem::remove(path);
}
BENCHMARK(check_a_gigabyte)->Unit(benchmark::kMillisecond)->Iterations(1)->UseRealTime();

/// A DXF drawing whose outline is 20 000 loose lines in no order.
void drawing_of_loose_lines(benchmark::State& state) {
    constexpr int n = 20000;
    std::vector<std::string> lines;
    for (int i = 0; i < n; ++i) {
        const auto at = [](int k) { return Vec2{1500 * std::cos(2 * M_PI * (k % n) / n), 400 * std::sin(2 * M_PI * (k % n) / n)}; };
        lines.push_back(
            fmt::format("0\nLINE\n8\n0\n10\n{:.4f}\n20\n{:.4f}\n11\n{:.4f}\n21\n{:.4f}\n", at(i).x, at(i).y, at(i + 1).x, at(i + 1).y));
    }
    std::mt19937 dice(5);
    std::shuffle(lines.begin(), lines.end(), dice);
    std::string bytes = "0\nSECTION\n2\nENTITIES\n";
    for (const std::string& line : lines) bytes += line;
    bytes += "0\nENDSEC\n0\nEOF\n";
    std::size_t points = 0;
    for (auto _ : state) points = slab_from_drawing(read_dxf(bytes), 1).outline.a.size();
    if (points != n) state.SkipWithError("it was not joined");
}
BENCHMARK(drawing_of_loose_lines)->Unit(benchmark::kMillisecond)->Iterations(3);

/// Least wood off a piece: 500 readings decide, 1 000 places a face are summed.
void aim_least_wood(benchmark::State& state) {
    std::mt19937 random(1);
    const auto u = [&] { return static_cast<double>(random()) / 4294967296.0; };
    std::vector<Vec3> top, bottom;
    WeighedFace all_top, all_bottom;
    for (int i = 0; i < 1000; ++i) {
        const Vec3 p{2400 * u(), 900 * (u() - 0.5), 0};
        const double w = 12 * (p.x / 2400 - 0.5) * p.y / 450 + 9 * p.x / 2400 * (1 - p.x / 2400);
        all_top.places.push_back({p.x, p.y, 55 + w + u()}), all_top.weight.push_back(1);
        all_bottom.places.push_back({p.x, p.y, w - u()}), all_bottom.weight.push_back(1);
        if (i % 4 == 0) top.push_back(all_top.places.back()), bottom.push_back(all_bottom.places.back());
    }
    for (auto _ : state) benchmark::DoNotOptimize(least_wood(top, bottom, all_top, all_bottom, 42));
}
BENCHMARK(aim_least_wood)->Unit(benchmark::kMillisecond);

void aim_one_tilt_for_four(benchmark::State& state) {
    std::mt19937 random(2);
    const auto u = [&] { return static_cast<double>(random()) / 4294967296.0; };
    std::vector<SlabReadings> four(4);
    for (SlabReadings& s : four)
        for (int i = 0; i < 125; ++i) {
            const double x = 2400 * u();
            const double y = 400 * (u() - 0.5);
            s.top.push_back({x, y, 55 + 0.004 * x + 3 * u()});
            s.bottom.push_back({x, y, 0.004 * x - 3 * u()});
        }
    for (auto _ : state) benchmark::DoNotOptimize(shared_tilt(four));
}
BENCHMARK(aim_one_tilt_for_four)->Unit(benchmark::kMillisecond);

/// A pour followed in one dimension until it is cured or 120 h have gone by.
void cure_one_dimension(benchmark::State& state) {
    Section s;
    s.depth_mm = 40, s.air_c = 20, s.most_h = 120;
    for (auto _ : state) benchmark::DoNotOptimize(cure({40, 300, 1100}, s));
}
BENCHMARK(cure_one_dimension)->Unit(benchmark::kMillisecond);

/// … in two: 600 by 80 mm with its banks, about 2 mm, 72 h.
void cure_two_dimensions(benchmark::State& state) {
    Section s;
    s.depth_mm = 62, s.board_mm = 18, s.air_c = 20, s.width_mm = 200, s.banks_mm = 200, s.most_h = 72;
    for (auto _ : state) benchmark::DoNotOptimize(cure({40, 300, 1100}, s, {1.6, 0}));
}
BENCHMARK(cure_two_dimensions)->Unit(benchmark::kMillisecond);

/// The lifts of a warm river, asked anew each time.
void lifts_found(benchmark::State& state) {
    double depth = 60;
    for (auto _ : state) benchmark::DoNotOptimize(forecast_lifts(starting_resins()[0], depth += 0.001, 25, {}));
}
BENCHMARK(lifts_found)->Unit(benchmark::kMillisecond);

/// The finish of a top of four leaves with its base, by itself: 3 ms are promised. With every choice, and as while something is dragged.
void skin(benchmark::State& state, bool quick) {
    const Documents& d = demo_shop();
    const Job& j = d.jobs.at("job-seed-cabinet");
    const Plan plan = plan_job(j, d);
    SkinInputs in{*plan.top, j.skin, plan.shop_air, j.room};
    in.base = plan.under->base, in.sled_step_mm = plan.flat->step_mm, in.quick = quick;
    for (auto _ : state) benchmark::DoNotOptimize(plan_skin(in));
}
BENCHMARK_CAPTURE(skin, still, false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(skin, dragged, true)->Unit(benchmark::kMillisecond);

/// The days of a year: ten jobs of sixty operations on one pair of hands, as laid on the rule and tried for the soonest.
void season(benchmark::State& state, Rule rule) {
    const Documents& d = demo_shop();
    std::vector<Net> jobs;
    for (int j = 0; j < 10; ++j) {
        Net n;
        n.job = "j" + std::to_string(j);
        n.from_h = j * 24 * 14;
        for (int i = 0; i < 60; ++i) {
            Operation o;
            o.key = "o" + std::to_string(i);
            o.hands_on_h = 0.5 + (i * 7 + j) % 5, o.waiting_h = i % 3 == 0 ? 24 : 0;
            if (i > 0) o.after = {"o" + std::to_string(i - 1 - (i % 4 == 0 && i > 3 ? 2 : 0))};
            o.at = i % 5 == 0 ? Place::clamps : Place::none, o.keeps = true;
            n.operations.push_back(std::move(o));
        }
        jobs.push_back(std::move(n));
    }
    for (auto _ : state) {
        const Hands hands("2026-11-30", d.shop.workday);
        benchmark::DoNotOptimize(schedule(jobs, hands, 0, rule));
    }
}
BENCHMARK_CAPTURE(season, ranks, Rule::ranks)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(season, soonest, Rule::soonest)->Unit(benchmark::kMillisecond);

/// What a job's plan pays for its days.
void days_of_a_job(benchmark::State& state) {
    const Documents& d = demo_shop();
    const Plan plan = plan_job(d.jobs.at("job-seed-cabinet"), d);
    std::vector<Operation> operations = plan.days->operations;
    for (Operation& o : operations) o.after.clear();
    for (auto _ : state) benchmark::DoNotOptimize(plan_days(operations, "2026-11-30", d.shop.workday, &d.shop.air));
}
BENCHMARK(days_of_a_job)->Unit(benchmark::kMillisecond);

/// What could give to one of all demo jobs: six changes, what each touches planned anew.
void what_could_give(benchmark::State& state) {
    const Documents& d = demo_shop();
    const auto plans = plans_of(d);
    std::map<std::string, const Plan*> bare;
    for (const auto& [id, plan] : plans) bare[id] = plan.get();
    for (auto _ : state) benchmark::DoNotOptimize(what_ifs(d, bare, {"2026-11-30", Rule::ranks, {}}, "job-reading-table"));
}
BENCHMARK(what_could_give)->Unit(benchmark::kMillisecond)->Iterations(3);

/// The money of a plan; what every school of a step costs; two ways held side by side.
void money_of_a_plan(benchmark::State& state) {
    const Documents& d = demo_shop();
    const Job& job = d.jobs.at("job-tarn-river");
    const Plan plan = plan_job(job, d);
    for (auto _ : state) benchmark::DoNotOptimize(money_of(plan, job, d.shop));
}
BENCHMARK(money_of_a_plan)->Unit(benchmark::kMillisecond);

void what_choices_cost(benchmark::State& state, const char* job, const char* step) {
    const Documents& d = demo_shop();
    const Plan plan = plan_job(d.jobs.at(job), d);
    for (auto _ : state) benchmark::DoNotOptimize(choice_costs(d, job, plan, Step{step}));
}
BENCHMARK_CAPTURE(what_choices_cost, skin, "job-reading-table", "skin")->Unit(benchmark::kMillisecond)->Iterations(3);
BENCHMARK_CAPTURE(what_choices_cost, join, "job-seed-cabinet", "join")->Unit(benchmark::kMillisecond)->Iterations(3);
BENCHMARK_CAPTURE(what_choices_cost, lay, "job-tarn-river", "lay")->Unit(benchmark::kMillisecond)->Iterations(3);
BENCHMARK_CAPTURE(what_choices_cost, under, "job-tarn-river", "under")->Unit(benchmark::kMillisecond)->Iterations(3);

void two_ways(benchmark::State& state) {
    const Documents& d = demo_shop();
    for (auto _ : state) benchmark::DoNotOptimize(compare_ways(d, "job-tarn-river"));
}
BENCHMARK(two_ways)->Unit(benchmark::kMillisecond)->Iterations(5);

/// A book of fifty thousand lines: read and followed, searched.
std::vector<BookEntry> long_book() {
    std::vector<BookEntry> all;
    for (int i = 0; i < 50000; ++i)
        all.push_back({i + 1, "2026-03-02T12:00:00+01:00", "job-" + std::to_string(i % 40), "rack", i % 50 == 49 ? "correction" : "reading",
                       "moisture", std::to_string(8 + i % 7), "%",
                       i % 50 == 49 ? "#" + std::to_string(i) : "slab " + std::to_string(i % 300)});
    return all;
}
void book_opened(benchmark::State& state) {
    const std::string path = "/tmp/burl-benchmark-book.shop";
    std::remove(path.c_str());
    {
        Store s = Store::create(path, Documents(), "New shop");
        s.write(long_book());
    }
    for (auto _ : state) benchmark::DoNotOptimize(read_book(Store::open(path).book()));
    std::remove(path.c_str());
}
BENCHMARK(book_opened)->Unit(benchmark::kMillisecond)->Iterations(5);
void book_searched(benchmark::State& state) {
    const auto lines = read_book(long_book());
    for (auto _ : state) benchmark::DoNotOptimize(search(lines, {"moisture slab 217", "", "", "", ""}));
}
BENCHMARK(book_searched)->Unit(benchmark::kMillisecond);
void entry_written(benchmark::State& state) {
    const std::string path = "/tmp/burl-benchmark-entry.shop";
    std::remove(path.c_str());
    Store s = Store::create(path, demo_shop(), "New shop");
    for (auto _ : state) s.write({0, "", "job-hall-table", "", "note", "", "a note", "", ""});
    std::remove(path.c_str());
}
BENCHMARK(entry_written)->Unit(benchmark::kMillisecond)->Iterations(50);

/// Glue-up and clashes of four leaves with forty tenons.
void joined(benchmark::State& state) {
    static const Documents docs = demo_shop();
    Job job = docs.jobs.at("job-seed-cabinet");
    job.join.pitch_mm = 160;
    const Plan plan = plan_job(job, docs);
    for (auto _ : state) benchmark::DoNotOptimize(plan_join({*plan.top, *plan.makeup, job.makeup, job.join, job.under, 18, 8}));
}
BENCHMARK(joined)->Unit(benchmark::kMillisecond);

/// Twelve months of every hole, tipping and sag.
void under_planned(benchmark::State& state) {
    static const Documents docs = demo_shop();
    Job job = docs.jobs.at("job-seed-cabinet");
    for (LegPlate& p : job.under.plates) p.bolts_across = 10, p.bolts_along = 2;
    const Plan plan = plan_job(job, docs);
    for (auto _ : state) benchmark::DoNotOptimize(plan_under({*plan.top, job.under, job.room, plan.shop_air}));
}
BENCHMARK(under_planned)->Unit(benchmark::kMillisecond);

/// A base with its cut list, and how sixty holes are made.
void base_and_holes(benchmark::State& state) {
    BaseInputs in;
    in.leg_mm = 680;
    in.choices.base = BaseKind::frames;
    in.choices.splay_deg = 5;
    in.choices.plates = {{-600, 0, 100, 620, 3, 1}, {600, 0, 100, 620, 3, 1}};
    for (auto _ : state) {
        benchmark::DoNotOptimize(plan_base(in));
        for (int i = 0; i < 60; ++i) benchmark::DoNotOptimize(make_hole({0.1 * i, 0.05 * i, false, 40, 0, 0.5}, in.choices));
    }
}
BENCHMARK(base_and_holes)->Unit(benchmark::kMillisecond);

/// The program of one side of a table of 3 m.
void program_of_a_side(benchmark::State& state) {
    static const Documents docs = demo_shop();
    const Job& job = docs.jobs.at("job-reading-table");
    const Plan plan = plan_job(job, docs);
    for (auto _ : state) {
        const MachinedSide side = machined_side(*plan.flat, *plan.lay, docs.shop.sled, job.flat, true);
        benchmark::DoNotOptimize(to_gcode(side, docs.shop.sled, {"job", "slab", true, false}));
    }
}
BENCHMARK(program_of_a_side)->Unit(benchmark::kMillisecond);

}  // namespace
