// The slip: one figure large, lines that open in place, mends, and what comes next always in sight.
#include <QMenu>
#include <QRadioButton>
#include <QScrollBar>

#include "app/ground/slow/runner.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/slip/slip.h"
#include "core/shop/edit/mends.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

int stops(const Plan& p) {
    int n = 0;
    for (const Caution& c : p.sheets.cautions) n += c.severity == Severity::stop;
    return n;
}

}  // namespace

TEST_CASE("with nothing opened no slip of any demo job scrolls, and what comes next is in sight", "[app][slip]") {
    Desk desk;
    auto* scroll = desk.find<QScrollArea>("slip");
    // What a framed window leaves of such a screen.
    const QSize framed(1268, 746);
    desk.window->resize(framed);
    REQUIRE(desk.window->size() == framed);
    for (const auto& [id, job] : desk.session().documents().jobs) {
        desk.session().set_job(QString::fromStdString(id));
        for (const char* step : steps_of_work) {
            desk.click(step);
            QTest::qWait(20);  // layouts settle
            INFO(id << " " << step);
            CHECK(scroll->verticalScrollBar()->maximum() == 0);
            CHECK(scroll->horizontalScrollBar()->maximum() == 0);
            const auto& [caption, lines] = desk.window->bench().end_caption();
            INFO(caption.toStdString());
            CHECK_FALSE(caption.contains(QChar(0x2026)));
            CHECK(lines <= 2);
            auto* next = desk.find<QPushButton>(std::string(step) == "step_rack" ? "give_slab" : "next");
            CHECK(next->isVisible());
            CHECK(desk.window->rect().contains(QRect(next->mapTo(desk.window.get(), QPoint(0, 0)), next->size())));
            for (const QLabel* l : scroll->findChildren<QLabel*>()) {
                if (!l->isVisible()) continue;
                INFO(l->objectName().toStdString() << ": " << l->text().toStdString());
                CHECK(l->width() >= l->minimumSizeHint().width());
                if (l->wordWrap()) CHECK(l->height() + 2 >= l->heightForWidth(l->width()));
            }
        }
    }
}

TEST_CASE("a figure opens its working in place, one at a time", "[app][slip]") {
    Desk desk;
    desk.click("step_lay");
    auto* fit = desk.find<QLabel>("work_lay.fit");
    auto* ends = desk.find<QLabel>("work_lay.ends");
    CHECK_FALSE(fit->isVisible());
    desk.click("working_lay.fit");
    CHECK(fit->isVisible());
    CHECK(fit->text().contains("wanted"));
    desk.click("working_lay.ends");
    CHECK(ends->isVisible());
    CHECK_FALSE(fit->isVisible());
    // By keyboard too.
    auto* line = desk.find<QPushButton>("working_lay.ends");
    line->setFocus();
    QTest::keyClick(line, Qt::Key_Space);
    CHECK_FALSE(ends->isVisible());
    QTest::keyClick(desk.window.get(), Qt::Key_W);  // that of the large figure
    CHECK(fit->isVisible());
}

TEST_CASE("a school stands on one line and opens to what each gains and loses", "[app][slip]") {
    Desk desk;
    desk.click("step_flat");
    auto* shims = desk.find<QRadioButton>("choice_flat.aim_as_it_lies");
    CHECK_FALSE(shims->isVisible());
    desk.click("how_flat.aim");
    CHECK(shims->isVisible());
    CHECK(desk.text("gain_flat.aim_as_it_lies").contains("mm"));
    shims->click();
    CHECK(desk.session().job()->flat.aim == FlatAim::as_it_lies);
    CHECK(desk.find<QRadioButton>("choice_flat.aim_as_it_lies")->isVisible());  // what was opened stays open
}

TEST_CASE("every mend that is offered helps, and one undo takes it back", "[app][slip]") {
    Desk desk;
    int offered = 0;
    const auto ids = desk.session().job_names();
    for (const auto& [id, name] : ids) {
        desk.session().set_job(QString::fromStdString(id));
        for (const char* step : steps_of_work) {
            desk.click(step);
            std::vector<std::string> keys;
            for (const Caution& c : desk.session().plan()->said(desk.session().step()).cautions)
                if (std::find(keys.begin(), keys.end(), c.key) == keys.end()) keys.push_back(c.key);
            for (const std::string& key : keys) {
                INFO(id << " " << step << " " << key);
                const auto before = desk.session().documents();
                const int stops_before = stops(*desk.session().plan());
                const auto told = [&] {
                    int n = 0;
                    for (const Caution& c : desk.session().plan()->said(desk.session().step()).cautions)
                        if (c.key == key) n += 1 + 10 * static_cast<int>(c.severity);
                    return n;
                };
                const int was = told();
                const std::string line = "mind_" + key;
                const std::string mend = "mend_" + key;
                auto* fold = desk.find<QPushButton>(line.c_str());
                if (desk.find<QLabel>(("caution_" + key).c_str())->parentWidget()->isHidden()) desk.click(line.c_str());
                CHECK(desk.find<QLabel>(("caution_" + key).c_str())->isVisible());
                wait_for_all();  // it is looked for beside the work
                auto* button = fold->parentWidget()->findChild<QPushButton*>(QString::fromStdString(mend));
                REQUIRE(button);
                if (button->isHidden()) {
                    desk.click(line.c_str());
                    continue;
                }
                ++offered;
                CHECK_FALSE(button->text().isEmpty());
                button->click();
                QApplication::processEvents();
                CHECK(told() < was);
                CHECK(stops(*desk.session().plan()) <= stops_before);
                CHECK_FALSE(desk.session().documents() == before);
                desk.click("undo");
                CHECK(desk.session().documents() == before);
                CHECK(told() == was);
                // The line that was opened is closed again where it still stands.
                if (auto* again = desk.window->findChild<QPushButton*>(QString::fromStdString(line)))
                    if (auto* says = desk.window->findChild<QLabel*>(QString::fromStdString("caution_" + key)); says && says->isVisible())
                        again->click();
            }
        }
    }
    CHECK(offered >= 12);
}

TEST_CASE("a mend whose matter is gone changes nothing and says so", "[app][slip]") {
    Documents d = demo_shop();
    const Documents before = d;
    CHECK_THROWS_AS(mended(d, "job-reading-table", {"channel_to", say("Move it in"), {7, 100}}), Refusal);
    CHECK(d == before);
    CHECK_THROWS_AS(mended(d, "job-of-nobody", {"usual_plates", say("Lay two"), {}}), Refusal);
    CHECK_THROWS_AS(mended(d, "job-reading-table", {"no such edit", say("Do"), {}}), Refusal);
    CHECK(d == before);
    Desk desk;
    Caution unknown{"lay.nothing", Severity::watch, step_key::lay, say("Nothing is known of this."), {}, {}, {}, {}};
    bool came = false;
    std::optional<Mend> found;
    const auto looking =
        desk.session().look_for_mend(unknown, desk.window.get(), [&](std::optional<Mend> m) { came = true, found = std::move(m); });
    wait_for_all();
    CHECK(came);
    CHECK_FALSE(found);
    desk.session().mend({"channel_to", say("Move it in"), {7, 100}});
    CHECK(desk.text("status").contains("Nothing was changed"));
}

TEST_CASE("the head tells what lies there and goes from leaf to leaf", "[app][slip]") {
    Desk desk;
    desk.session().set_job("job-seed-cabinet");
    desk.click("step_flat");
    CHECK(desk.text("slip_which").contains("leaf 1 of 4"));
    const QString first = desk.text("slip_title");
    desk.click("slip_after");
    CHECK(desk.text("slip_which").contains("leaf 2 of 4"));
    CHECK(desk.text("slip_title") != first);
    desk.click("slip_before");
    CHECK(desk.text("slip_which").contains("leaf 1 of 4"));
    for (int i = 0; i < 4; ++i) desk.click("slip_after");
    CHECK(desk.text("slip_which").contains("1 of 4"));  // past the leaves come the shims of the one that lies there
    CHECK(desk.text("slip_title") == "Shim 1");
    desk.session().set_job("job-reading-table");
    CHECK_FALSE(desk.find<QLabel>("slip_which")->isVisible());  // one slab: there is nothing to go to
}

TEST_CASE("the window opens within the screen it is on, its frame counted", "[app][window]") {
    const QMargins frame(4, 34, 4, 4);
    const auto whole = [&](const QRect& r) { return r.marginsAdded(frame); };
    for (const QRect& screen : {QRect(0, 0, 1280, 800), QRect(0, 0, 1024, 600), QRect(0, 0, 3840, 2160), QRect(1920, 40, 1100, 700)}) {
        INFO(screen.width() << " x " << screen.height());
        const QRect first = MainWindow::fitted({0, 0, 1280, 800}, screen, frame);
        CHECK(screen.contains(whole(first)));
        CHECK(first.width() == std::min(1280, screen.width() - 8));
        // Left on a screen that is gone, or larger than this one.
        CHECK(screen.contains(whole(MainWindow::fitted({5000, -300, 1600, 1000}, screen, frame))));
    }
    // Where it fits it stays.
    CHECK(MainWindow::fitted({200, 150, 1280, 800}, {0, 0, 3840, 2160}, frame) == QRect(200, 150, 1280, 800));
}

TEST_CASE("at 1024 by 600 all of it is there: the slip may scroll, what comes next stays in sight", "[app][window]") {
    Desk desk;
    desk.window->resize(1016, 562);
    QApplication::processEvents();
    CHECK(desk.window->width() <= 1016);
    CHECK(desk.window->height() <= 562);
    for (const char* step : {"step_lay", "step_flat", "step_fill", "step_pour", "step_join", "step_under"}) {
        desk.click(step);
        QTest::qWait(20);
        INFO(step);
        auto* next = desk.find<QPushButton>("next");
        CHECK(desk.window->rect().contains(QRect(next->mapTo(desk.window.get(), QPoint(0, 0)), next->size())));
        CHECK(desk.find<QPushButton>("step_sheets")->isVisible());
    }
}

TEST_CASE("at 150 % text and at 4K no text is cut and what comes next stays in sight", "[app][window]") {
    struct Scale {
        explicit Scale(double s) { theme::set_text_scale(s); }
        ~Scale() { theme::set_text_scale(1); }
    };
    for (const auto& [scale, size] :
         {std::pair(1.5, QSize(1280, 800)), std::pair(1.5, QSize(1100, 700)), std::pair(1.0, QSize(3840, 2160))}) {
        const Scale as(scale);
        Desk desk;
        desk.window->resize(size);
        for (const char* job : {"job-reading-table", "job-seed-cabinet"}) {
            desk.session().set_job(job);
            for (const char* step : steps_of_work) {
                desk.click(step);
                QTest::qWait(20);
                INFO(scale << " " << size.width() << " " << job << " " << step);
                CHECK(desk.window->width() <= size.width());
                CHECK(desk.window->height() <= size.height());
                auto* next = desk.find<QPushButton>(std::string(step) == "step_rack" ? "give_slab" : "next");
                CHECK(desk.window->rect().contains(QRect(next->mapTo(desk.window.get(), QPoint(0, 0)), next->size())));
                CHECK(next->width() >= next->minimumSizeHint().width());
                for (const QLabel* l : desk.find<QWidget>("slip_page")->findChildren<QLabel*>()) {
                    if (!l->isVisible()) continue;
                    INFO(l->objectName().toStdString() << ": " << l->text().toStdString());
                    CHECK(l->width() >= l->minimumSizeHint().width());
                    if (l->wordWrap()) CHECK(l->height() + 2 >= l->heightForWidth(l->width()));
                }
                // The wood is there, and the gauge's flag below the rule.
                const BenchMap& map = desk.window->bench().map();
                CHECK(map.plan.height() > 60);
                CHECK(map.scale > 0.05);
            }
        }
    }
}

TEST_CASE("a line leaves out what does not fit and cuts nothing", "[app][words]") {
    const QFontMetrics fm(theme::text(10));
    const QString line = QStringLiteral("one · two · three");
    CHECK(what_fits(line, fm, 1e4) == line);
    CHECK(what_fits(line, fm, fm.horizontalAdvance("one · two") + 1) == "one · two");
    CHECK(what_fits(line, fm, 3).isEmpty());
}

TEST_CASE("every action of the slip is on the right-click too, and does the same", "[app][slip]") {
    Desk desk;
    auto& bench = desk.window->bench();
    const auto menu = [&] {
        const QPoint at = bench.map().plan.center().toPoint();
        QContextMenuEvent e(QContextMenuEvent::Mouse, at, bench.mapToGlobal(at));
        QApplication::sendEvent(&bench, &e);
        return bench.findChild<QMenu*>("bench_menu");
    };
    for (const char* step : steps_of_work) {
        desk.click(step);
        INFO(step);
        // The click picks what lies there first: the slip is about that then.
        QMenu* m = menu();
        QStringList slip;
        for (const QPushButton* b : desk.find<QWidget>("slip_page")->findChildren<QPushButton*>())
            if (b->property("quiet").toBool() && b->isEnabled() && !b->objectName().isEmpty() && !b->objectName().startsWith("mend_"))
                slip << b->text();
        slip.sort();
        REQUIRE((m || slip.isEmpty()));
        if (!m) continue;
        QStringList offered;
        for (const QAction* a : m->actions()) offered << a->text();
        offered.sort();
        CHECK(offered == slip);
        m->close();
        QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    }
    desk.click("step_under");
    const auto channels = desk.session().job()->under.channels.size();
    QMenu* m = menu();
    REQUIRE(m);
    for (QAction* a : m->actions())
        if (a->text() == desk.find<QPushButton>("add_channel")->text()) a->trigger();
    CHECK(desk.session().job()->under.channels.size() == channels + 1);
    m->close();
    desk.click("undo");
    CHECK(desk.session().job()->under.channels.size() == channels);
}

TEST_CASE("the wood has the room: plan and end view with their labels' margins", "[app][slip]") {
    // Measured: the box around the wood on the plan with 46 px for its dimensions, and the box of the end view as it was given
    // room across the wood's width, over the bench.
    Desk desk;
    for (const auto& [id, job] : desk.session().documents().jobs) {
        desk.session().set_job(QString::fromStdString(id));
        desk.click("step_lay");
        const Bench& bench = desk.window->bench();
        const BenchMap& map = bench.map();
        const Plan& plan = *desk.session().plan();
        Box box{{1e9, 1e9}, {-1e9, -1e9}};
        const auto take = [&](const Ring& r) {
            const Box b = bounds(r);
            box.low = {std::min(box.low.x, b.low.x), std::min(box.low.y, b.low.y)};
            box.high = {std::max(box.high.x, b.high.x), std::max(box.high.y, b.high.y)};
        };
        if (plan.shape()) take(plan.shape()->ring_a), take(plan.shape()->ring_b);
        for (const LeafPart& l : plan.makeup->leaves) take(l.show), take(l.under);
        const double across = box.height() * map.scale;
        const double on_plan = std::min(box.width() * map.scale, map.plan.width()) * (across + 46);
        const double at_end = map.end_on_edge ? map.end.width() * across : box.height() * map.end_scale * map.end.height();
        const double share = (on_plan + at_end) / (bench.width() * bench.height());
        UNSCOPED_INFO(id << ": " << share);
        CHECK(share > 0.45);
    }
}
