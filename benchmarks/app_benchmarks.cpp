// What the program promises under the hand: a rack of 500 slabs opened and scrolled, a top and a leaf dragged.
#include <ctime>
#include <random>

#include <unistd.h>

#include <QApplication>
#include <QFile>
#include <QPushButton>
#include <QStackedWidget>
#include <QTableWidget>
#include <QTemporaryDir>

#include <benchmark/benchmark.h>

#include "app/ground/slow/runner.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/bench.h"
#include "app/main_window.h"
#include "app/pages/book/book_chart.h"
#include "app/pages/book/book_page.h"
#include "app/pages/days/days_page.h"
#include "app/pages/days/days_sticks.h"
#include "app/pages/money/money_page.h"
#include "app/pages/money/table_picture.h"
#include "app/steps/rack/rack_row.h"
#include "core/shop/days/season.h"
#include "core/shop/edit/skin_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/steps.h"
#include "demo/demo.h"

using namespace yb;

namespace {

/// The demo's slabs over and over, each with an id and a picture of its own.
Documents five_hundred() {
    Documents d = demo_shop();
    std::vector<Slab> some;
    for (const auto& [id, s] : d.slabs) some.push_back(s);
    for (int i = 0; d.slabs.size() < 500; ++i) {
        Slab s = some[static_cast<std::size_t>(i) % some.size()];
        s.id = "more-" + std::to_string(i);
        s.name += " " + std::to_string(i);
        s.tree += " " + std::to_string(i / 8);
        d.slabs[s.id] = s;
    }
    return d;
}

/// Opens a shop and waits for its rack to stand there.
RackRow* open_rack(MainWindow& window, const std::string& path) {
    window.open_shop(QString::fromStdString(path));
    window.show();
    auto* row = window.findChild<RackRow*>("rack_row");
    while (row->shown().size() < 400) QApplication::processEvents(QEventLoop::AllEvents, 5);
    window.grab();
    return row;
}

/// From the file being opened to the rack standing there, painted.
void rack_of_500_opens(benchmark::State& state) {
    QTemporaryDir dir;
    const std::string path = dir.filePath("big.shop").toStdString();
    { Store::create(path, five_hundred(), "big"); }
    for (auto _ : state) {
        MainWindow window;
        open_rack(window, path);
    }
}
BENCHMARK(rack_of_500_opens)->Unit(benchmark::kMillisecond)->Iterations(3);

/// One step of scrolling through the whole row, faces and all, painted.
void rack_of_500_scrolls(benchmark::State& state) {
    QTemporaryDir dir;
    const std::string path = dir.filePath("big.shop").toStdString();
    {
        Store store = Store::create(path, five_hundred(), "big");
        store.attach(demo_pictures());
    }
    MainWindow window;
    RackRow* row = open_rack(window, path);
    window.finish_growing();
    window.grab();
    double at = 0;
    double worst = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        row->scroll_to(at);
        row->repaint();
        QApplication::processEvents();
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
        at = at > 55000 ? 0 : at + 40;
    }
    state.counters["worst_ms"] = worst;
}
BENCHMARK(rack_of_500_scrolls)->Unit(benchmark::kMillisecond)->Iterations(1200);

/// Processor time of this thread: what a frame costs where another program has the processor for a while.
double thread_ms() {
    timespec t{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t);
    return static_cast<double>(t.tv_sec) * 1e3 + static_cast<double>(t.tv_nsec) * 1e-6;
}

/// One move of a drag: planned, slip filled, everything painted.
void drag(benchmark::State& state, const char* job) {
    QTemporaryDir dir;
    MainWindow window;
    window.open_demo(dir.filePath("demo.shop"));
    window.finish_growing();
    window.show();
    window.session().set_job(job);
    window.session().set_step(step_key::lay);
    window.grab();
    window.finish_growing();
    const Placement at = window.session().job()->first().placement;
    int i = 0;
    double worst = 0;
    double worst_cpu = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        const double cpu = thread_ms();
        window.session().preview([&](Job& j) { j.first().placement.x_mm = at.x_mm + (i++ % 60); });
        window.bench().repaint();
        QApplication::processEvents();
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
        worst_cpu = std::max(worst_cpu, thread_ms() - cpu);
    }
    state.counters["worst_ms"] = worst;
    state.counters["worst_cpu_ms"] = worst_cpu;
}
BENCHMARK_CAPTURE(drag, top_of_one_slab, "job-reading-table")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(drag, leaf_of_four, "job-seed-cabinet")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(drag, round_top, "job-round-hall")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(drag, disc, "job-hall-table")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(drag, side_of_a_bench, "job-landing-bench")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(drag, half_of_an_open_river, "job-open-river")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(drag, bank_of_a_river, "job-tarn-river")->Unit(benchmark::kMillisecond)->Iterations(200);

/// A demo job's window in a step, all grown and painted.
struct Shown {
    QTemporaryDir dir;
    MainWindow window;
    Shown(const char* job, Step step) {
        window.open_demo(dir.filePath("demo.shop"));
        window.finish_growing();
        window.resize(1280, 800);
        window.show();
        window.session().set_job(job);
        window.session().set_step(step);
        window.grab();
        window.finish_growing();
        window.grab();
    }
};

/// Picking one thing after another, bench and slip painted.
void pick(benchmark::State& state, const char* job, Step step) {
    Shown shown(job, step);
    double worst = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        shown.window.session().pick_next(1);
        shown.window.bench().repaint();
        QApplication::processEvents();
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    }
    state.counters["worst_ms"] = worst;
}
BENCHMARK_CAPTURE(pick, leaf_and_joint_of_four, "job-seed-cabinet", step_key::lay)->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(pick, void_of_a_table, "job-reading-table", Step{"fill"})->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(pick, hole_of_a_table, "job-reading-table", Step{"under"})->Unit(benchmark::kMillisecond)->Iterations(200);

/// A frame of the dial: the removal layer by layer, the hours of a cure, the months of a year.
void turn_dial(benchmark::State& state, const char* job, Step step) {
    Shown shown(job, step);
    double worst = 0;
    int i = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        shown.window.session().set_dial((i++ % 100) / 100.0);
        QApplication::processEvents();  // it is painted when the events are, once
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    }
    state.counters["worst_ms"] = worst;
}
BENCHMARK_CAPTURE(turn_dial, removal, "job-reading-table", Step{"flat"})->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(turn_dial, coats, "job-seed-cabinet", Step{"skin"})->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(turn_dial, year, "job-reading-table", Step{"under"})->Unit(benchmark::kMillisecond)->Iterations(200);

/// A seam between two zones of the finish dragged along a top of four leaves.
void drag_seam(benchmark::State& state) {
    Shown shown("job-seed-cabinet", Step{"skin"});
    Session& session = shown.window.session();
    session.edit_job(QStringLiteral("seams"), [](Job& j) { move_seam(j, {-200, 200}, 0, 0); });
    QApplication::processEvents();
    double worst = 0;
    int i = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        session.preview([&](Job& j) { move_seam(j, {-200, 200}, 0, i++ % 60); });
        shown.window.bench().repaint();
        QApplication::processEvents();
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    }
    state.counters["worst_ms"] = worst;
}
BENCHMARK(drag_seam)->Unit(benchmark::kMillisecond)->Iterations(200);

/// An operation dragged along the rule over all demo jobs: scheduled and painted at each move.
void drag_a_day(benchmark::State& state) {
    Shown shown("job-reading-table", step_key::lay);
    shown.window.show_days();
    auto* page = shown.window.findChild<DaysPage*>();
    page->wait();
    auto* sticks = shown.window.findChild<DaysSticks*>();
    const std::string start = page->season()->start;
    double worst = 0;
    int i = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        Q_EMIT sticks->dragged(QStringLiteral("job-reading-table/flat1"), QString::fromStdString(date_after(start, 24.0 * (i++ % 40))),
                               false);
        sticks->repaint();
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    }
    state.counters["worst_ms"] = worst;
}
BENCHMARK(drag_a_day)->Unit(benchmark::kMillisecond)->Iterations(200);

/// The client's picture: at 1600 px from nothing, and turned as the page shows it.
void client_picture(benchmark::State& state, bool turning) {
    Shown shown("job-tarn-river", step_key::lay);
    shown.window.show_money();
    shown.window.findChild<MoneyPage*>()->wait();
    wait_for_all();
    auto* picture = shown.window.findChild<TablePicture*>();
    picture->repaint();
    double worst = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        if (turning) {
            QKeyEvent right(QEvent::KeyPress, Qt::Key_Right, Qt::NoModifier);
            QApplication::sendEvent(picture, &right);
            picture->repaint();
        } else {
            benchmark::DoNotOptimize(picture->picture({1600, 1000}));
        }
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    }
    state.counters["worst_ms"] = worst;
}
BENCHMARK_CAPTURE(client_picture, large, false)->Unit(benchmark::kMillisecond)->Iterations(5);
BENCHMARK_CAPTURE(client_picture, turning, true)->Unit(benchmark::kMillisecond)->Iterations(60);

/// Ten thousand points of a plot, painted at each size.
void plot_of_many(benchmark::State& state) {
    BookChart chart;
    chart.resize(900, 300);
    chart.show();
    BookPlot plot;
    plot.key = "moisture", plot.unit = "%", plot.start = "2026-03-02";
    PlotLine line{"readings", {}, false};
    for (int i = 0; i < 10000; ++i) line.points.emplace_back(i * 0.02, 12 + 3 * std::sin(i * 0.003));
    plot.lines = {line};
    chart.show_plot(plot);
    QApplication::processEvents();
    int i = 0;
    for (auto _ : state) {
        chart.resize(900 + i++ % 2, 300);
        chart.repaint();
        chart.viewport()->repaint();
    }
}
BENCHMARK(plot_of_many)->Unit(benchmark::kMillisecond)->Iterations(60);

/// A page of the program opened from the bench, the first time and again, painted; what it works out beside comes later.
void open_page(benchmark::State& state, void (MainWindow::*page)()) {
    Shown shown("job-reading-table", step_key::lay);
    double worst = 0;
    double first = 0;
    int i = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        (shown.window.*page)();
        QApplication::processEvents();
        const double took = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
        (i++ == 0 ? first : worst) = i == 1 ? took : std::max(worst, took);
        state.PauseTiming();
        shown.window.findChild<QStackedWidget*>("pages")->setCurrentIndex(0);
        wait_for_all();
        QApplication::processEvents();
        state.ResumeTiming();
    }
    state.counters["first_ms"] = first;
    state.counters["worst_ms"] = worst;
}
BENCHMARK_CAPTURE(open_page, jobs, &MainWindow::show_jobs)->Unit(benchmark::kMillisecond)->Iterations(10);
BENCHMARK_CAPTURE(open_page, book, &MainWindow::show_book)->Unit(benchmark::kMillisecond)->Iterations(10);
BENCHMARK_CAPTURE(open_page, money, &MainWindow::show_money)->Unit(benchmark::kMillisecond)->Iterations(10);
BENCHMARK_CAPTURE(open_page, shop, &MainWindow::show_shop)->Unit(benchmark::kMillisecond)->Iterations(10);
BENCHMARK_CAPTURE(open_page, find, &MainWindow::show_find_tops)->Unit(benchmark::kMillisecond)->Iterations(10);
BENCHMARK_CAPTURE(open_page, log, &MainWindow::show_log)->Unit(benchmark::kMillisecond)->Iterations(10);
BENCHMARK_CAPTURE(open_page, guide, &MainWindow::show_guide)->Unit(benchmark::kMillisecond)->Iterations(10);
BENCHMARK_CAPTURE(open_page, grow, &MainWindow::show_grow)->Unit(benchmark::kMillisecond)->Iterations(10);

/// A reading typed into the tape of a slab of forty stations, to the slab drawn anew: a revision in the file and a plan with it.
void type_a_cell(benchmark::State& state) {
    Shown shown("job-reading-table", step_key::rack);
    Session& s = shown.window.session();
    s.edit(QStringLiteral("forty"), [](Documents& d) {
        Slab slab;
        slab.id = "forty", slab.name = "Forty", slab.species = "butternut";
        for (int i = 0; i < 40; ++i) slab.tape.stations.push_back({60.0 * i, 200.0 + i % 3, 210.0 - i % 2, {}, {}, 52, {}});
        d.slabs["forty"] = slab;
    });
    s.look_at("forty");
    shown.window.findChild<QPushButton*>("type_tape")->click();
    QApplication::processEvents();
    auto* table = shown.window.findChild<QTableWidget*>("tape_table");
    double worst = 0;
    double worst_all = 0;
    int i = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        const auto since = [&] { return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count(); };
        table->item(i % 40, 1)->setText(QString::number(200 + i % 7));
        shown.window.bench().repaint();
        worst = std::max(worst, since());  // the slab is redrawn; what the slip says follows
        QApplication::processEvents();
        worst_all = std::max(worst_all, since());
        ++i;
    }
    state.counters["worst_ms"] = worst;
    state.counters["worst_with_slip_ms"] = worst_all;
}
BENCHMARK(type_a_cell)->Unit(benchmark::kMillisecond)->Iterations(200);

/// Opening and closing a line of the slip: a working, a school with what each of its ways gains here, a caution with its mend.
void open_line(benchmark::State& state, const char* job, Step step, const char* line) {
    Shown shown(job, step);
    auto* button = shown.window.findChild<QPushButton*>(line);
    if (!button) return state.SkipWithError("that line is not on the slip");
    double worst = 0;
    for (auto _ : state) {
        const auto begin = std::chrono::steady_clock::now();
        button->click();
        QApplication::processEvents();
        worst = std::max(worst, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    }
    state.counters["worst_ms"] = worst;
}
BENCHMARK_CAPTURE(open_line, working, "job-reading-table", step_key::lay, "working_lay.fit")
    ->Unit(benchmark::kMillisecond)
    ->Iterations(200);
BENCHMARK_CAPTURE(open_line, aim, "job-reading-table", Step{"flat"}, "how_flat.aim")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(open_line, make_up, "job-seed-cabinet", step_key::lay, "how_lay.makeup")->Unit(benchmark::kMillisecond)->Iterations(200);
BENCHMARK_CAPTURE(open_line, caution_with_mend, "job-seed-cabinet", step_key::lay, "mind_lay.taper")
    ->Unit(benchmark::kMillisecond)
    ->Iterations(200);

/// Memory the system gives this process now, MB.
double resident_mb() {
    QFile statm("/proc/self/statm");
    return statm.open(QIODevice::ReadOnly)
               ? statm.readAll().split(' ').value(1).toDouble() * static_cast<double>(sysconf(_SC_PAGESIZE)) / 1e6
               : 0;
}

/// Random hands: jobs, steps, pages, window sizes, things picked, values typed, undo. What it holds at the start, at worst, and
/// at the end of each half: it levels off where they are alike.
void memory_under_random_hands(benchmark::State& state) {
    Shown shown("job-reading-table", step_key::rack);
    Session& s = shown.window.session();
    std::mt19937 dice(7);
    std::vector<std::string> jobs;
    for (const auto& [id, job] : s.documents().jobs) jobs.push_back(id);
    const double start = resident_mb();
    double worst = start, half = 0;
    int moves = 0;
    for (auto _ : state) {
        if (dice() % 6 == 0) s.set_job(QString::fromStdString(jobs[dice() % jobs.size()]));
        if (dice() % 2 == 0) s.set_step(steps()[dice() % steps().size()].step);
        if (dice() % 20 == 0) shown.window.resize(static_cast<int>(1000 + dice() % 500), static_cast<int>(700 + dice() % 300));
        s.pick_next(1);
        if (s.job() && dice() % 3 == 0) s.edit_job("Moved", [&](Job& j) { j.top.length_mm += static_cast<double>(dice() % 21) - 10; });
        if (dice() % 4 == 0) s.undo();
        shown.window.grab();
        QApplication::processEvents();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);  // as the program's own loop does
        worst = std::max(worst, resident_mb());
        if (++moves == state.max_iterations / 2) half = resident_mb();
    }
    state.counters["start_MB"] = start, state.counters["half_MB"] = half;
    state.counters["end_MB"] = resident_mb(), state.counters["worst_MB"] = worst;
}
BENCHMARK(memory_under_random_hands)->Unit(benchmark::kMillisecond)->Iterations(8000);  // some twenty minutes

}  // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    yb::theme::apply(app);  // as the program is dressed
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
