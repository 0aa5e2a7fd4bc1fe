#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QPushButton>
#include <QElapsedTimer>
#include <QPainter>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <memory>
#include <string_view>

#include "app/application.h"
#include "app/bench/bench.h"
#include "app/bring/long_work.h"
#include "app/card/card_page.h"
#include "app/find/find_page.h"
#include "app/main_window.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/edit/edits.h"
#include "core/job/steps.h"

namespace {

/// A card in the midst of it, by a clock of its own.
void run_card(yb::MainWindow& window, const QString& card) {
    yb::CardPage* page = window.show_card(card);
    double now = 1795680000;
    page->set_clock([&now] { return now; });
    page->start();
    for (const double took : {780.0, 260.0, 350.0, 370.0, 190.0}) {
        now += took;
        page->tick_off();
    }
    now += 140;
    page->set_clock([at = now] { return at; });
}

/// One picture of one step of one of the demo's jobs, for a look while working on it.
int take_look(yb::MainWindow& window, const QString& job, const QString& step, const QString& path, const QString& thing, QSize size) {
    QTemporaryDir dir;
    window.open_demo(dir.filePath("demo.shop"));
    window.finish_growing();
    window.resize(size);
    window.show();
    window.session().set_job(job);
    if (step == "find") window.show_find_tops();
    else if (step == "log") window.show_log();
    if (const yb::StepRow* row = yb::find_step(step.toLower().toStdString())) window.session().set_step(row->step);
    window.session().pick(thing);
    if (step == "card") run_card(window, thing);
    if (auto* page = window.findChild<yb::FindPage*>(); page && step == "find") page->wait();
    if (auto* order = window.findChild<QPushButton*>("log_order"); order && step == "log") {
        order->click();
        window.long_work().wait();
    }
    window.grab();
    window.finish_growing();
    return window.grab().save(path) ? 0 : 1;
}

/// Pictures of every main view from the demo data.
int take_screenshots(yb::MainWindow& window, const QString& folder) {
    QTemporaryDir dir;
    window.open_demo(dir.filePath("demo.shop"));
    window.finish_growing();
    QDir().mkpath(folder);
    window.resize(1280, 800);
    window.show();
    const auto shoot = [&](const QString& name) {
        window.grab();
        window.finish_growing();  // pictures asked for by the first painting
        return window.grab().save(folder + "/" + name + ".png");
    };
    bool ok = true;
    // Steps that the reading table has no use for are shown of a job that has.
    const auto job_for = [](yb::Step step) {
        return step.key == "pour" ? "job-tarn-river" : step.key == "join" ? "job-seed-cabinet" : "job-reading-table";
    };
    for (const yb::StepRow& row : yb::steps()) {
        window.session().set_job(job_for(row.step));
        window.session().set_step(row.step);
        window.session().set_gauge(row.step.key == "pour" ? 900 : 1400);
        if (row.step.key == "pour") {
            // Its heat comes beside the work, once the hand has rested.
            window.grab();
            for (QElapsedTimer t =
                     [] {
                         QElapsedTimer e;
                         e.start();
                         return e;
                     }();
                 t.elapsed() < 1500;)
                QApplication::processEvents(QEventLoop::AllEvents, 50);
        }
        ok = shoot(QString::fromUtf8(row.step.key.data(), static_cast<int>(row.step.key.size()))) && ok;
    }
    for (const auto& [job, name] :
         {std::pair("job-seed-cabinet", "boards"), std::pair("job-tarn-river", "river"), std::pair("job-round-hall", "round")}) {
        window.session().set_job(job);
        window.session().set_step(yb::step_key::lay);
        ok = shoot(name) && ok;
    }
    window.session().set_job("job-tarn-river");
    run_card(window, "pour");
    ok = shoot("card") && ok;
    window.session().undo();
    window.show_find_tops();
    if (auto* page = window.findChild<yb::FindPage*>()) page->wait();
    ok = shoot("find") && ok;
    window.show_log();
    if (auto* b = window.findChild<QPushButton*>("log_order")) b->click();
    window.long_work().wait();
    ok = shoot("log") && ok;
    if (auto* b = window.findChild<QPushButton*>("log_back")) b->click();
    window.session().set_job("job-reading-table");
    window.session().set_step(yb::step_key::rack);
    window.session().look_at("slab-sycamore-3");
    if (auto* b = window.findChild<QPushButton*>("type_tape")) b->click();
    ok = shoot("tape") && ok;
    Q_EMIT window.session().shop_wanted();
    ok = shoot("shop") && ok;
    window.show_grow();
    ok = shoot("grow") && ok;
    // A photograph of one of the demo's own slabs, as a phone would have it.
    if (const auto bytes = window.session().store()->attachment("slab-sycamore-log-4/a")) {
        QImage wood = QImage::fromData(QByteArray::fromStdString(*bytes));
        QImage photo(wood.width() + 300, wood.height() + 320, QImage::Format_RGB32);
        photo.fill(QColor("#77797c"));
        QPainter p(&photo);
        p.setPen(Qt::NoPen);
        p.setCompositionMode(QPainter::CompositionMode_SourceOver);
        for (int y = 0; y < wood.height(); ++y)
            for (int x = 0; x < wood.width(); ++x)
                if (const QColor c = wood.pixelColor(x, y);
                    std::abs(c.red() - 228) + std::abs(c.green() - 220) + std::abs(c.blue() - 203) > 24)
                    photo.setPixelColor(x + 150, y + 160, c);
        p.end();
        photo.save(dir.filePath("sycamore from the yard.png"));
        window.bring_photo(dir.filePath("sycamore from the yard.png"));
        window.long_work().wait();
        QApplication::processEvents();
        if (auto* b = window.findChild<QPushButton*>("photo_find")) b->click();
        window.long_work().wait();
        ok = shoot("photograph") && ok;
    }
    window.show_start();
    ok = shoot("start") && ok;
    return ok ? 0 : 1;
}

/// Without a display Qt gives up before a window could say so.
void tell_fatal(QtMsgType type, const QMessageLogContext&, const QString&) {
    if (type != QtFatalMsg) return;  // what leads up to it
    std::fputs(
        "young-burl: there is no display to show a window on. Start it from a desktop, or over ssh with -X; for pictures and sheets "
        "without one use --screenshots, --look or --sheet.\n",
        stderr);
    std::_Exit(2);
}

/// Pictures and sheets need no display.
bool draws_only(int argc, char** argv) {
    return std::any_of(argv + 1, argv + argc, [](const char* word) {
        const std::string_view w(word);
        return w.rfind("--screenshots", 0) == 0 || w.rfind("--look", 0) == 0 || w.rfind("--sheet", 0) == 0;
    });
}

}  // namespace

int main(int argc, char** argv) {
    QElapsedTimer clock;
    clock.start();
    if (draws_only(argc, argv) && !qEnvironmentVariableIsSet("QT_QPA_PLATFORM") && !qEnvironmentVariableIsSet("DISPLAY") &&
        !qEnvironmentVariableIsSet("WAYLAND_DISPLAY"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    qInstallMessageHandler(tell_fatal);
    yb::Application app(argc, argv);
    qInstallMessageHandler(nullptr);
    QApplication::setOrganizationName("young-burl");
    QApplication::setApplicationName("young-burl");
    QApplication::setApplicationVersion(YB_VERSION);
    QGuiApplication::setDesktopFileName("young-burl");
    QCommandLineParser options;
    options.setApplicationDescription("Slabs into tables.");
    options.addHelpOption();
    options.addVersionOption();
    options.addOption({"demo", "Open the demo shop."});
    options.addOption({"screenshots", "Save pictures of every view of the demo shop in a folder, and end.", "folder"});
    options.addOption(
        {"look", "Save a picture of one step of one of the demo's jobs, a thing picked or none, and end.", "job,step,file[,thing]"});
    options.addOption({"window-size", "The window's size for --look.", "1280x800"});
    options.addOption({"sheet", "Save the sheet of the shop's first job as PDF, and end.", "file"});
    options.addOption({"job", "The job to put on the bench first.", "id"});
    options.addOption({"time-start", "Print how long the first painted bench and a move of a drag took, and end."});
    options.addOption({"text-size", "Text size in percent, 100 to 200.", "percent"});
    options.addPositionalArgument("shop", "A shop file to open.", "[shop]");
    options.process(app);
    yb::theme::set_text_scale(options.isSet("text-size") ? options.value("text-size").toDouble() / 100
                                                         : QSettings().value("text_scale", 1).toDouble());
    yb::theme::apply(app);
    yb::speak_language(yb::wanted_language());
    auto made = std::make_unique<yb::MainWindow>();
    yb::MainWindow& window = *made;
    if (options.isSet("look")) {
        const QStringList what = options.value("look").split(',');
        const QStringList px = options.value("window-size").split('x');
        const QSize size = px.size() == 2 ? QSize(px[0].toInt(), px[1].toInt()) : QSize(1280, 800);
        if (what.size() == 3 || what.size() == 4) return take_look(window, what[0], what[1], what[2], what.value(3), size);
        std::fputs("young-burl: --look wants job,step,file, as job-tarn-river,lay,/tmp/lay.png\n", stderr);
        return 2;
    }
    if (options.isSet("screenshots")) return take_screenshots(window, options.value("screenshots"));
    const QStringList files = options.positionalArguments();
    if (options.isSet("demo")) {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
        QDir().mkpath(folder);
        window.open_demo(files.isEmpty() ? folder + "/demo.shop" : files.front());
    } else if (!files.isEmpty()) {
        window.open_shop(files.front());
    }
    if (options.isSet("sheet")) {
        if (!window.session().is_open() && !files.isEmpty()) {
            std::fprintf(stderr, "young-burl: %s\n", qPrintable(window.said()));
            return 2;
        }
        if (options.isSet("job")) window.session().set_job(options.value("job"));
        const bool saved = window.save_pdf(options.value("sheet"));
        if (!saved) std::fprintf(stderr, "young-burl: %s\n", qPrintable(window.said()));
        return saved ? 0 : 1;
    }
    window.open_where_it_was();
    window.show();
    if (options.isSet("job")) window.session().set_job(options.value("job"));
    if (options.isSet("time-start")) {
        window.session().set_step(yb::step_key::lay);
        window.grab();
        if (options.isSet("job")) window.finish_growing();  // with its pictures
        QApplication::processEvents();
        std::printf("%lld ms to the first painted bench\n", static_cast<long long>(clock.elapsed()));
        constexpr int moves = 100;
        window.session().preview([](yb::Job&) {});
        window.bench().repaint();
        QApplication::processEvents();
        double planned = 0;
        double painted = 0;
        double worst = 0;
        for (int i = 0; i < moves; ++i) {
            clock.restart();
            window.session().preview([&](yb::Job& j) { move_top(j, {static_cast<double>(i), 0}); });
            const double plan_ms = static_cast<double>(clock.nsecsElapsed()) / 1e6;
            window.bench().repaint();
            QApplication::processEvents();  // slip and top line paint too
            const double all_ms = static_cast<double>(clock.nsecsElapsed()) / 1e6;
            planned += plan_ms / moves;
            painted += (all_ms - plan_ms) / moves;
            worst = std::max(worst, all_ms);
        }
        std::printf("a move of a drag: %.1f ms to plan it and fill the slip, %.1f ms to paint; worst move %.1f ms\n", planned, painted,
                    worst);
        return 0;
    }
    const int code = QApplication::exec();
    // What runs beside is told to stop. What does not within a second and a half holds nothing of the maker's: the shop is closed.
    made.reset();
    if (!yb::stop_all(1500)) std::_Exit(code);
    return code;
}
