#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QElapsedTimer>
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
#include "app/ground/slow/long_work.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/bench.h"
#include "app/looks.h"
#include "app/main_window.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/steps.h"

namespace {

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
        return w.rfind("--screenshots", 0) == 0 || w.rfind("--look", 0) == 0 || w.rfind("--sheet", 0) == 0 || w.rfind("--offer", 0) == 0;
    });
}

/// Everything between the first window and the last. @param made holds the window while it lives.
int run(yb::Application& app, QElapsedTimer& clock, std::unique_ptr<yb::MainWindow>& made) {
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
    options.addOption({"offer", "Save the offer of a job file as PDF, and end.", "file"});
    options.addOption({"job", "The job to put on the bench first.", "id"});
    options.addOption({"time-start", "Print how long the first painted bench and a move of a drag took, and end."});
    options.addOption({"text-size", "Text size in percent, 100 to 200.", "percent"});
    options.addPositionalArgument("shop", "A shop file to open.", "[shop]");
    options.process(app);
    yb::theme::set_text_scale(options.isSet("text-size") ? options.value("text-size").toDouble() / 100
                                                         : QSettings().value("text_scale", 1).toDouble());
    yb::theme::apply(app);
    yb::speak_language(yb::wanted_language());
    made = std::make_unique<yb::MainWindow>();
    yb::MainWindow& window = *made;
    if (options.isSet("look")) {
        const QStringList what = options.value("look").split(',');
        const QStringList px = options.value("window-size").split('x');
        const QSize size = px.size() == 2 ? QSize(px[0].toInt(), px[1].toInt()) : QSize(1280, 800);
        if (what.size() == 3 || what.size() == 4) return yb::take_look(window, what[0], what[1], what[2], what.value(3), size);
        std::fputs("young-burl: --look wants job,step,file, as job-tarn-river,lay,/tmp/lay.png\n", stderr);
        return 2;
    }
    if (options.isSet("screenshots")) return yb::take_screenshots(window, options.value("screenshots"));
    const QStringList files = options.positionalArguments();
    if (options.isSet("offer")) {
        if (files.size() != 1) {
            std::fputs("young-burl: --offer wants a job file beside it, as exported by the program\n", stderr);
            return 2;
        }
        QString told;
        const int code = yb::write_offer_of(window, files.front(), options.value("offer"), &told);
        if (code != 0) std::fprintf(stderr, "young-burl: %s\n", qPrintable(told));
        return code;
    }
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
    return QApplication::exec();
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
    std::unique_ptr<yb::MainWindow> made;
    const int code = run(app, clock, made);
    // What runs beside is told to stop. What does not within a second and a half holds nothing of the maker's: the shop is closed.
    made.reset();
    if (!yb::stop_all(1500)) std::_Exit(code);
    return code;
}
