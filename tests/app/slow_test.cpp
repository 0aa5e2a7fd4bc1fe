// The one runner: results come on the interface's thread, stale ones never, whatever is thrown becomes a sentence.
#include <stdexcept>
#include <thread>

#include <QSignalSpy>

#include "app/application.h"
#include "app/ground/slow/slow.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

TEST_CASE("slow work hands its result back on the interface's thread, and only the last one asked for", "[app][slow]") {
    QObject owner;
    std::vector<std::pair<int, int>> came;
    const auto here = std::this_thread::get_id();
    std::atomic<bool> beside{true};
    Slow<int, int> slow(
        &owner,
        [&](const int& n, const Work& w) {
            if (std::this_thread::get_id() == here) beside = false;
            if (n == 1)
                for (int i = 0; i < 2000; ++i) {
                    w.check();
                    std::this_thread::sleep_for(std::chrono::milliseconds(1));
                }
            return n * n;
        },
        [&](const int& in, const int& out) {
            CHECK(std::this_thread::get_id() == here);
            came.emplace_back(in, out);
        });
    slow.ask(1);
    CHECK(slow.busy());
    slow.ask(7);  // the first is stopped and never comes
    wait_for_all();
    CHECK(came == std::vector<std::pair<int, int>>{{7, 49}});
    CHECK(beside);
    CHECK_FALSE(slow.busy());
    REQUIRE(slow.at_hand(7));
    CHECK(*slow.at_hand(7) == 49);
    CHECK_FALSE(slow.at_hand(1));
    slow.ask(7);  // at hand: nothing is made again
    wait_for_all();
    CHECK(came.size() == 1);
}

TEST_CASE("what slow work throws is told in a sentence, and the next is made all the same", "[app][slow]") {
    QObject owner;
    QStringList told;
    int came = 0;
    Slow<int, int> slow(
        &owner,
        [](const int& n, const Work&) {
            if (n == 0) throw Told("the saw bound in the cut");
            if (n == 4) throw std::runtime_error("TopologyException: side location conflict");
            if (n == 1) throw 42;
            if (n == 2) throw std::bad_alloc();
            return n;
        },
        [&](const int&, const int&) { ++came; }, [&](const QString& s) { told << s; });
    for (const int n : {0, 1, 2, 3, 4}) {
        slow.ask(n);
        wait_for_all();
    }
    REQUIRE(told.size() == 4);
    CHECK(told[0] == "the saw bound in the cut");
    for (const QString& s : told) CHECK(s.size() > 10);
    CHECK_FALSE(told[3].contains("Topology"));  // the text of a library helps nobody
    CHECK(came == 1);
}

TEST_CASE("slow work outlives neither its asker nor its owner", "[app][slow]") {
    int came = 0;
    {
        auto owner = std::make_unique<QObject>();
        Slow<int, int> slow(
            owner.get(), [](const int& n, const Work&) { return n; }, [&](const int&, const int&) { ++came; });
        slow.ask(3);
    }
    auto owner = std::make_unique<QObject>();
    run_beside(owner.get(), [&](const Work&) -> std::function<void()> { return [&came] { ++came; }; }, {});
    owner.reset();
    wait_for_all();
    CHECK(came == 0);
}

TEST_CASE("what an event throws is said on the window, and nothing typed is lost", "[app][slow]") {
    Desk desk;
    desk.session().edit("Name", [](Documents& d) { d.jobs.begin()->second.notes = "typed before"; });
    auto* app = qobject_cast<Application*>(QCoreApplication::instance());
    REQUIRE(app);
    QSignalSpy told(app, &Application::trouble);
    struct Bad : QObject {
        bool event(QEvent* e) override {
            if (e->type() == QEvent::User) throw Told("a drawer stuck");
            return QObject::event(e);
        }
    } bad;
    QCoreApplication::postEvent(&bad, new QEvent(QEvent::User));
    QApplication::processEvents();
    REQUIRE(told.count() == 1);
    CHECK(told[0][0].toString().contains("a drawer stuck"));
    CHECK(desk.session().documents().jobs.begin()->second.notes == "typed before");
    desk.restart();
    CHECK(desk.session().documents().jobs.begin()->second.notes == "typed before");
}

TEST_CASE("no two things of the window are called the same", "[app]") {
    Desk desk;
    std::map<QString, int> seen;
    for (const QWidget* w : desk.window->findChildren<QWidget*>())
        if (const QString n = w->objectName(); !n.isEmpty() && !n.startsWith("qt_")) ++seen[n];
    for (const auto& [name, times] : seen) {
        INFO(name.toStdString());
        CHECK(times == 1);
    }
    CHECK(seen.size() > 30);
}
