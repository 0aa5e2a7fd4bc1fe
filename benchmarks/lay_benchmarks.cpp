// Laying tops: what could be made of 500 slabs, the order of ten, exact widths.
#include <benchmark/benchmark.h>

#include <cmath>

#include "core/material/tree/saw.h"
#include "core/shop/find/find.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/match/sequence.h"
#include "demo/demo.h"

using namespace yb;

namespace {

void find_over_500(benchmark::State& state) {
    Documents d = demo_shop();
    std::vector<Slab> some;
    for (const auto& [id, s] : d.slabs) some.push_back(s);
    d.jobs.clear();
    for (int i = 0; d.slabs.size() < 500; ++i) {
        Slab s = some[static_cast<std::size_t>(i) % some.size()];
        s.id = "more-" + std::to_string(i);
        s.tree += " " + std::to_string(i / 15);  // as many trees as a yard has: six, four, three slabs of each
        d.slabs[s.id] = s;
    }
    FindOrder o;
    o.top = {1900, 850, 42, 740, state.range(0) ? LiveEdges::none : LiveEdges::both, 0};
    o.boards = o.rivers = state.range(1) != 0;
    double first = 0;
    std::size_t found = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        first = 0;
        const auto all = find_tops(d, o, {}, [&](const std::vector<Found>&) {
            if (first == 0) first = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
        });
        found = all.size();
    }
    state.counters["first_ms"] = first;
    state.counters["kept"] = static_cast<double>(found);
}
BENCHMARK(find_over_500)->ArgNames({"sawn", "boards_and_rivers"})->Args({0, 0})->Args({1, 0})->Args({0, 1})->Unit(benchmark::kMillisecond);

void order_of_ten(benchmark::State& state) {
    SawPlan saw;
    saw.thickness_mm = 44;
    const GrownLog log(drawn_recipe(5, "sycamore, American", 2400, 600));
    auto sawn = make_slabs(log, saw, {}, {4, true});
    if (sawn.size() > 10) sawn.resize(10);
    std::vector<SlabShape> shapes;
    for (const SawnSlab& s : sawn) shapes.push_back(shape_of(s.slab));
    std::vector<SequenceItem> items;
    const bool pictures = state.range(0) != 0;
    for (std::size_t i = 0; i < sawn.size(); ++i)
        items.push_back(
            {&sawn[i].slab, &shapes[i], pictures ? &sawn[i].face_a : nullptr, pictures ? &sawn[i].face_b : nullptr, {}, {}, {}});
    for (auto _ : state) benchmark::DoNotOptimize(put_in_order(items));
    state.counters["slabs"] = static_cast<double>(sawn.size());
}
BENCHMARK(order_of_ten)->ArgName("pictures")->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

/// Narrowest, widest and end widths between two edges of so many corners in all.
void exact_widths(benchmark::State& state) {
    const auto n = static_cast<int>(state.range(0)) / 2;
    Ring outline;
    for (int i = 0; i < n; ++i) outline.push_back({2400.0 * i / (n - 1), -400 + 20 * std::sin(i * 0.7)});
    for (int i = n; i-- > 0;) outline.push_back({2400.0 * i / (n - 1) + 0.3, 400 + 20 * std::sin(i * 1.1)});
    for (auto _ : state) {
        const Sides s = sides_of(outline);
        benchmark::DoNotOptimize(apart(s.low, s.high));
    }
}
BENCHMARK(exact_widths)->ArgName("corners")->Arg(2000)->Unit(benchmark::kMicrosecond);

}  // namespace

BENCHMARK_MAIN();
