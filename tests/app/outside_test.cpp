// The program as it is shipped, in a real window with a window manager, driven from outside: nothing here shares a process with it.
#include <QDir>
#include <QDirIterator>
#include <QElapsedTimer>
#include <QFile>
#include <QFileInfo>
#include <QProcess>
#include <QTemporaryDir>
#include <QThread>

#include <catch2/catch.hpp>

#include "core/files/store/check.h"
#include "core/files/store/store.h"
#include "core/shop/book/book.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"

using namespace yb;

namespace {

/// Waits for something to become so, however slow the machine is.
template <class F>
bool comes_true(F so, int within_ms = 120000) {
    QElapsedTimer t;
    for (t.start(); t.elapsed() < within_ms; QThread::msleep(50))
        if (so()) return true;
    return false;
}

/// A screen of its own with a window manager on it.
struct Screen {
    QProcess server, manager;
    QProcessEnvironment on = QProcessEnvironment::systemEnvironment();

    Screen() {
        server.start("Xvfb", {"-displayfd", "1", "-screen", "0", "1280x800x24", "-nolisten", "tcp", "-noreset"});
        REQUIRE(server.waitForStarted());
        QByteArray number;
        REQUIRE(comes_true([&] {
            server.waitForReadyRead(50);
            number += server.readAllStandardOutput();
            return number.endsWith('\n');
        }));
        on.insert("DISPLAY", ":" + number.trimmed());
        on.insert("QT_QPA_PLATFORM", "xcb");
        manager.setProcessEnvironment(on);
        manager.start("openbox", QStringList());
        REQUIRE(manager.waitForStarted());
        // A window that comes up while the manager does can be left out by both.
        REQUIRE(comes_true([&] { return !hand({"get_num_desktops"}).isEmpty(); }));
    }
    ~Screen() {
        for (QProcess* p : {&manager, &server}) p->terminate(), p->waitForFinished(5000);
    }
    /// What it prints; nothing where it fails.
    QByteArray hand(const QStringList& what) const {
        QProcess p;
        p.setProcessEnvironment(on);
        p.start("xdotool", what);
        return p.waitForFinished(60000) && p.exitCode() == 0 ? p.readAllStandardOutput().trimmed() : QByteArray();
    }
    QString window(const char* name) const {
        return QString::fromLatin1(hand({"search", "--onlyvisible", "--name", name}).split('\n').first());
    }
    /// Characters as they are; a tab and the end of a line by their own keys.
    void type(const QString& text) const {
        QString run;
        for (const QChar c : text) {
            if (c != '\t' && c != '\n') {
                run += c;
                continue;
            }
            if (!run.isEmpty()) hand({"type", "--delay", "25", run});
            run.clear();
            key(c == '\t' ? "Tab" : "Return");
        }
        if (!run.isEmpty()) hand({"type", "--delay", "25", run});
    }
    void key(const char* name) const { hand({"key", name}); }
};

}  // namespace

TEST_CASE("from an empty folder to a slab with five stations in the file, by keys from outside", "[outside][typing]") {
    QTemporaryDir dir;
    Screen screen;
    for (const char* name : {"HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME"}) screen.on.insert(name, dir.filePath("home"));
    const QString shop = dir.filePath("tarn.shop");
    QProcess program;
    program.setProcessEnvironment(screen.on);
    program.start(YOUNG_BURL, QStringList());
    REQUIRE(program.waitForStarted());
    REQUIRE(comes_true([&] { return !screen.window("^Young Burl$").isEmpty(); }));
    screen.hand({"windowactivate", "--sync", screen.window("^Young Burl$")});
    // A key can come before the window is ready for it: it is pressed until what it asks for is there.
    REQUIRE(comes_true([&] {
        screen.key("ctrl+n");
        QThread::msleep(400);
        return !screen.window("New shop").isEmpty();
    }));
    screen.hand({"windowactivate", "--sync", screen.window("New shop")});
    screen.type(shop);
    screen.key("Return");
    REQUIRE(comes_true([&] { return QFile::exists(shop) && screen.window("New shop").isEmpty(); }));
    const auto slabs = [&] {
        try {
            return Store::open(shop.toStdString()).documents().slabs;
        } catch (const StoreError&) {  // it is being written
            return std::map<std::string, Slab>();
        }
    };
    screen.hand({"windowactivate", "--sync", screen.window("^Young Burl$")});
    REQUIRE(comes_true([&] {
        // New slab is what comes next on an empty rack. Pressed again only where it did not arrive: then something else would come next.
        screen.key("ctrl+Return");
        return comes_true([&] { return !slabs().empty(); }, 15000);
    }));
    screen.type("410\t395\n420\t405\n415\t400\n402\t391\n398\t380\n");
    REQUIRE(comes_true([&] {
        const auto all = slabs();
        return !all.empty() && all.begin()->second.tape.stations.size() == 5 && all.begin()->second.tape.stations[4].right_mm.has_value();
    }));
    const auto all = slabs();
    CHECK(all.size() == 1);
    const auto& stations = all.begin()->second.tape.stations;
    const double left[] = {410, 420, 415, 402, 398};
    const double right[] = {395, 405, 400, 391, 380};
    for (std::size_t i = 0; i < 5; ++i) {
        CHECK(stations[i].left_mm == left[i]);
        CHECK(stations[i].right_mm == right[i]);
        CHECK(stations[i].x_mm == 300.0 * static_cast<double>(i));
    }
    screen.key("ctrl+q");
    REQUIRE(program.waitForFinished(20000));
    CHECK(program.exitStatus() == QProcess::NormalExit);
    CHECK(program.exitCode() == 0);
}

TEST_CASE("from an empty home to a printed sheet by what the screen says, counted", "[outside][first]") {
    QTemporaryDir dir;
    Screen screen;
    QDir(dir.path()).mkpath("home/Documents");
    for (const char* name : {"HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME"}) screen.on.insert(name, dir.filePath("home"));
    const QString shop = dir.filePath("home/Documents/my-workshop.shop");
    QProcess program;
    program.setProcessEnvironment(screen.on);
    program.start(YOUNG_BURL, QStringList());
    REQUIRE(program.waitForStarted());
    REQUIRE(comes_true([&] { return !screen.window("^Young Burl$").isEmpty(); }));
    screen.hand({"windowactivate", "--sync", screen.window("^Young Burl$")});
    int presses = 0;  // beside the numbers themselves
    const auto press = [&](const char* key) {
        screen.key(key);
        ++presses;
    };
    const auto documents = [&]() -> std::optional<Documents> {
        try {
            return Store::open(shop.toStdString()).documents();
        } catch (const StoreError&) {  // it is being written, or not there yet
            return {};
        }
    };
    const auto slab = [&]() -> std::optional<Slab> {
        const auto d = documents();
        return d && d->slabs.size() == 1 ? std::optional(d->slabs.begin()->second) : std::nullopt;
    };
    // The name that is offered will do. Pressed until it has arrived: a key can come before the window is ready for it.
    REQUIRE(comes_true([&] {
        screen.key("Return");
        return comes_true([&] { return documents().has_value(); }, 3000);
    }));
    ++presses;
    press("Return");  // the tape
    REQUIRE(comes_true([&] { return slab().has_value(); }));
    const auto typed = [&](const char* number) { screen.hand({"type", "--delay", "25", number}); };
    const char* edges[][2] = {{"310", "295"}, {"320", "305"}, {"315", "300"}, {"302", "291"}, {"298", "280"}};
    for (int i = 0; i < 5; ++i) {
        typed(edges[i][0]);
        press("Tab");
        typed(edges[i][1]);
        if (i == 0) {
            for (int k = 0; k < 3; ++k) press("Tab");
            typed("52");
        }
        press("Return");
    }
    REQUIRE(comes_true([&] { return slab()->tape.stations.size() == 5 && slab()->tape.stations[4].right_mm.has_value(); }));
    press("ctrl+Prior");  // flaws
    const auto flaw = [&](const char* letter, const char* along, std::size_t n) {
        screen.hand({"type", letter});
        presses += static_cast<int>(qstrlen(letter));
        for (int k = 0; k < 4; ++k) press("Tab");
        typed(along);
        press("Return");
        REQUIRE(comes_true(
            [&] { return slab()->flaws.size() == n && std::abs(centroid(slab()->flaws[n - 1].outline).x - std::atof(along)) < 1; }));
    };
    flaw("c", "150", 1);
    flaw("k", "700", 2);
    CHECK(slab()->flaws[0].kind == FlawKind::crack);
    CHECK(slab()->flaws[1].kind == FlawKind::knot);
    // A job, laid; then whatever the button says, to the sheet.
    press("ctrl+Return");
    REQUIRE(comes_true([&] { return documents()->jobs.size() == 1; }));
    const QString sheet = dir.filePath("home/Documents/" + QString::fromStdString(documents()->jobs.begin()->second.name) + ".pdf");
    while (screen.window("Save the sheet").isEmpty() && presses < 60) {
        press("ctrl+Return");
        comes_true([&] { return !screen.window("Save the sheet").isEmpty(); }, 1200);
    }
    REQUIRE_FALSE(screen.window("Save the sheet").isEmpty());
    screen.hand({"windowactivate", "--sync", screen.window("Save the sheet")});
    press("Return");
    REQUIRE(comes_true([&] { return QFile::exists(sheet) && QFileInfo(sheet).size() > 1000; }));
    WARN("keys beside the numbers: " << presses);
    CHECK(presses <= 40);
    CHECK(documents()->jobs.begin()->second.under.plates.size() == 2);  // what was missing was made
    screen.key("ctrl+q");
    REQUIRE(program.waitForFinished(20000));
}

TEST_CASE("N, B and C from outside: a reading into the book, corrected there, the maker's hour on the page of money", "[outside][book]") {
    QTemporaryDir dir;
    Screen screen;
    for (const char* name : {"HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME"}) screen.on.insert(name, dir.filePath("home"));
    const QString shop = dir.filePath("tarn.shop");
    Store::create(shop.toStdString(), demo_shop(), "New shop");
    const auto book = [&]() -> std::vector<BookEntry> {
        try {
            return Store::open(shop.toStdString()).book();
        } catch (const StoreError&) {  // it is being written
            return {};
        }
    };
    QProcess program;
    program.setProcessEnvironment(screen.on);
    program.start(YOUNG_BURL, {shop});
    REQUIRE(program.waitForStarted());
    REQUIRE(comes_true([&] { return !screen.window("^Young Burl$").isEmpty(); }));
    const QString window = screen.window("^Young Burl$");
    screen.hand({"windowactivate", "--sync", window});
    const auto until = [&](const char* key, const char* name) {
        return comes_true([&] {
            screen.key(key);
            return comes_true([&] { return !screen.window(name).isEmpty(); }, 3000);
        });
    };
    REQUIRE(until("n", "A note into the book"));
    screen.type("dry film 0.08 mm");
    screen.key("ctrl+Return");
    REQUIRE(comes_true([&] { return book().size() == 1; }));
    CHECK(book().back().kind == "reading");
    // In the book the newest line is chosen; what is wrong with it is said by keys alone.
    screen.hand({"windowactivate", "--sync", window});
    REQUIRE(comes_true([&] {
        if (screen.window("Correct it").isEmpty()) screen.key("b");
        QThread::msleep(300);
        screen.key("Return");
        return comes_true([&] { return !screen.window("Correct it").isEmpty(); }, 3000);
    }));
    screen.key("ctrl+a");
    screen.type("0.09\n");
    REQUIRE(comes_true([&] { return book().size() == 2; }));
    CHECK(book().back().kind == "correction");
    CHECK(book().back().value == "0.09");
    screen.key("ctrl+q");
    REQUIRE(program.waitForFinished(20000));
    CHECK(program.exitStatus() == QProcess::NormalExit);
}

TEST_CASE("Ctrl+V and Shift+Insert in a note with nothing on the clipboard, from outside: the window lives, killed the note is there",
          "[outside][beside]") {
    QTemporaryDir dir;
    Screen screen;
    for (const char* name : {"HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME"}) screen.on.insert(name, dir.filePath("home"));
    const QString shop = dir.filePath("tarn.shop");
    { Store::create(shop.toStdString(), demo_shop(), "New shop"); }
    const auto lines = [&] {
        try {
            return Store::open(shop.toStdString()).book();
        } catch (const StoreError&) {  // it is being written
            return std::vector<BookEntry>();
        }
    };
    const auto note_opens = [&] {
        return comes_true([&] {
            if (!screen.window("A note into the book").isEmpty()) return true;
            screen.hand({"windowactivate", "--sync", screen.window("^Young Burl$")});
            screen.key("n");
            QThread::msleep(400);
            return !screen.window("A note into the book").isEmpty();
        });
    };
    for (const bool killed : {true, false}) {
        QProcess program;
        program.setProcessEnvironment(screen.on);
        program.start(YOUNG_BURL, {shop});
        REQUIRE(program.waitForStarted());
        REQUIRE(comes_true([&] { return !screen.window("^Young Burl$").isEmpty(); }));
        REQUIRE(note_opens());
        screen.hand({"windowactivate", "--sync", screen.window("A note into the book")});
        if (killed) {
            screen.type("a bubble");
            screen.key("ctrl+v");
            screen.key("shift+Insert");
            screen.type(" by the knot");
            // Kept from letter to letter.
            REQUIRE(comes_true([&] {
                for (QDirIterator f(dir.filePath("home"), {"*.conf"}, QDir::Files, QDirIterator::Subdirectories); f.hasNext();) {
                    QFile conf(f.next());
                    if (conf.open(QIODevice::ReadOnly) && conf.readAll().contains("a bubble by the knot")) return true;
                }
                return false;
            }));
            CHECK(program.state() == QProcess::Running);
            program.kill();
            REQUIRE(program.waitForFinished(20000));
            continue;
        }
        screen.key("ctrl+Return");
        REQUIRE(comes_true([&] { return !lines().empty() && lines().back().value == "a bubble by the knot"; }));
        screen.hand({"windowactivate", "--sync", screen.window("^Young Burl$")});
        screen.key("ctrl+q");
        REQUIRE(program.waitForFinished(20000));
        CHECK(program.exitStatus() == QProcess::NormalExit);
    }
}

TEST_CASE("two programs on two screens tick at the same moment, from outside: both ticks stand, undo crosses", "[outside][beside][two]") {
    QTemporaryDir dir;
    const QString shop = dir.filePath("tarn.shop");
    { Store::create(shop.toStdString(), demo_shop(), "New shop"); }
    const auto ticks = [&] {
        std::size_t n = 0;
        try {
            const Store s = Store::open(shop.toStdString());
            for (const auto& [id, j] : s.documents().jobs) n += j.days.done.size();
        } catch (const StoreError&) {  // it is being written
        }
        return n;
    };
    const std::size_t before = ticks();
    Screen screens[2];
    QProcess programs[2];
    for (int i = 0; i < 2; ++i) {
        for (const char* name : {"HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME"})
            screens[i].on.insert(name, dir.filePath(QString("home %1").arg(i)));
        programs[i].setProcessEnvironment(screens[i].on);
        programs[i].start(YOUNG_BURL, {shop});
        REQUIRE(programs[i].waitForStarted());
        REQUIRE(comes_true([&] { return !screens[i].window("^Young Burl$").isEmpty(); }));
        screens[i].hand({"windowactivate", "--sync", screens[i].window("^Young Burl$")});
        screens[i].key("d");
    }
    QThread::msleep(4000);  // both have their days; each tick is pressed until it is there
    for (int k = 0; k < 4; ++k) screens[1].key("Right");
    // Each ticks by turns without waiting for the other.
    for (int turn = 0; turn < 3; ++turn)
        for (const Screen& s : screens) s.key("Return"), s.key("Right");
    REQUIRE(comes_true([&] { return ticks() >= before + 4; }));
    QThread::msleep(2500);  // each has seen the other's
    const std::size_t both = ticks();
    {
        const Store s = Store::open(shop.toStdString());
        std::size_t ticked = 0;
        for (const BookEntry& e : s.book()) {
            INFO(e.what << " " << e.value);
            CHECK(e.kind != book::correction);
            ticked += e.kind == book::tick;
        }
        CHECK(ticked >= both - before);
    }
    // The one takes back what the other did last, and brings it back.
    screens[0].key("ctrl+z");
    REQUIRE(comes_true([&] { return ticks() == both - 1; }));
    QThread::msleep(2500);
    screens[1].key("ctrl+shift+z");
    REQUIRE(comes_true([&] { return ticks() == both; }));
    for (int i = 0; i < 2; ++i) {
        screens[i].key("ctrl+q");
        REQUIRE(programs[i].waitForFinished(20000));
        CHECK(programs[i].exitStatus() == QProcess::NormalExit);
    }
    CHECK(check_shop(shop.toStdString()).ok);
}
