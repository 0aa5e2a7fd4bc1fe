// How quickly slabs get in: growing, photographs, scans, and a rack of five hundred.
// Run: build/release/benchmarks/slabs_in_benchmarks
#include <benchmark/benchmark.h>

#include "core/ground/geometry/noise.h"
#include "core/material/scan/scan.h"
#include "core/material/tree/saw.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/rack/rack.h"
#include "demo/demo.h"
#include "vision/photo.h"

namespace {

using namespace yb;

/// A 3 m log sawn into eight slabs with faces at 1 px/mm.
void grow_eight_slabs(benchmark::State& state) {
    SawPlan saw;
    saw.thickness_mm = 58;
    std::size_t n = 0;
    for (auto _ : state) n = make_slabs(GrownLog(drawn_recipe(7, "sycamore, American", 3000, 620)), saw, {}, {1, true}).size();
    state.counters["slabs"] = static_cast<double>(n);
}
BENCHMARK(grow_eight_slabs)->Unit(benchmark::kMillisecond)->Iterations(2)->UseRealTime();

/// Twelve megapixels: a brown slab on a grey floor, to outline and face.
void photograph_of_twelve_megapixels(benchmark::State& state) {
    Picture photo(4000, 3000);
    Dice d(1, 1);
    for (int y = 0; y < photo.height; ++y)
        for (int x = 0; x < photo.width; ++x) {
            const int edge = 900 + static_cast<int>(60 * noise(x / 400.0, 1, 3));
            const bool wood = x > 300 && x < 3700 && y > edge && y < 3000 - edge;
            const double n = 8 * (hash01(x, y, 9) - 0.5);
            photo.at(x, y)[0] = static_cast<std::uint8_t>((wood ? 176 : 98) + n);
            photo.at(x, y)[1] = static_cast<std::uint8_t>((wood ? 128 : 100) + n);
            photo.at(x, y)[2] = static_cast<std::uint8_t>((wood ? 82 : 104) + n);
        }
    PhotoOrder order;
    order.known = KnownRectangle{{Vec2{200, 700}, Vec2{3800, 700}, Vec2{3800, 2300}, Vec2{200, 2300}}, 2700, 1200};
    for (auto _ : state) benchmark::DoNotOptimize(slab_from_photo(photo, order).outline.a.size());
}
BENCHMARK(photograph_of_twelve_megapixels)->Unit(benchmark::kMillisecond)->Iterations(2)->UseRealTime();

/// Five million points in a binary PLY, to a slab.
void scan_of_five_million(benchmark::State& state) {
    std::vector<CloudPoint> points;
    Dice d(1, 1);
    while (points.size() < 5'000'000) {
        const double x = d.between(-200, 2600);
        const double y = d.between(-600, 600);
        const bool wood = x > 0 && x < 2400 && std::abs(y) < 420 - 0.03 * x;
        points.push_back({static_cast<float>(x), static_cast<float>(y),
                          static_cast<float>((wood ? 55 + 2 * std::sin(x / 400) : 0) + 0.3 * (d.roll() - 0.5))});
    }
    const std::string bytes = to_ply(points);
    for (auto _ : state) benchmark::DoNotOptimize(slab_from_scan(read_cloud(bytes)).used);
}
BENCHMARK(scan_of_five_million)->Unit(benchmark::kMillisecond)->Iterations(2)->UseRealTime();

/// Everything the rack tells of five hundred slabs.
void rack_of_five_hundred(benchmark::State& state) {
    Documents d = demo_shop();
    const Slab one = d.slabs.at("slab-sycamore-log-4");
    for (int i = 0; i < 485; ++i) {
        Slab s = one;
        s.id = "more-" + std::to_string(i);
        d.slabs[s.id] = s;
    }
    const WantedTop top = d.jobs.begin()->second.top;
    const auto taken = taken_slabs(d);
    state.counters["slabs"] = static_cast<double>(d.slabs.size());
    for (auto _ : state) benchmark::DoNotOptimize(rack_of({d.slabs, taken, d.shop.air, 10, &top, "2026-11-24"}).size());
}
BENCHMARK(rack_of_five_hundred)->Unit(benchmark::kMillisecond)->Iterations(3)->UseRealTime();

}  // namespace

BENCHMARK_MAIN();
