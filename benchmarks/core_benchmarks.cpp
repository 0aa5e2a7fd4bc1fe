// What the program promises to be quick at. Run: build/release/benchmarks/burl_benchmarks
#include <filesystem>
#include <random>

#include <benchmark/benchmark.h>

#include "core/flat/tilt.h"
#include "core/job/job.h"
#include "core/store/store.h"
#include "core/job/plan.h"
#include "core/job/prepared.h"
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

void tilt_of_a_million(benchmark::State& state) {
    std::mt19937 random(1);
    const auto u = [&] { return static_cast<double>(random()) / 4294967296.0; };
    std::vector<Vec3> top, bottom;
    for (int i = 0; i < 500000; ++i) {
        const double x = 2400 * u();
        const double y = 900 * (u() - 0.5);
        const double w = 0.00002 * (x - 1200) * y + 8 * x / 2400 * (1 - x / 2400);
        top.push_back({x, y, 55 + w + u()});
        bottom.push_back({x, y, w - u()});
    }
    for (auto _ : state) benchmark::DoNotOptimize(best_tilt(top, bottom));
}
BENCHMARK(tilt_of_a_million)->Unit(benchmark::kMillisecond);

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

}  // namespace
