// What is picked: by click, by key, by ‹ ›; the slip speaks of it, and only what it can do is offered.
#include <QMenu>
#include <QRadioButton>
#include <QSettings>

#include "core/shop/job/job.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/under/under.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

/// The middle of a thing on the bench.
QPoint on_bench(Desk& desk, const Thing& t) { return desk.window->bench().map().px(centroid(t.area)).toPoint(); }

QStringList offered(Desk& desk) {
    QStringList out;
    for (const QPushButton* b : desk.find<QWidget>("slip_page")->findChildren<QPushButton*>())
        if (b->property("quiet").toBool() && !b->objectName().isEmpty() && !b->objectName().startsWith("mend_")) out << b->text();
    out.sort();
    return out;
}

}  // namespace

TEST_CASE("every thing of every step is reached by Tab, and the last Tab goes on", "[app][picked]") {
    Desk desk;
    int reached = 0;
    for (const char* job : {"job-reading-table", "job-tarn-river", "job-seed-cabinet"}) {
        desk.session().set_job(job);
        for (const char* step : steps_of_work) {
            desk.session().set_leaf(0);
            desk.click(step);
            INFO(job << " " << step);
            Bench& bench = desk.window->bench();
            bench.setFocus();
            std::vector<std::string> want;
            // Which reading is worth most is another for each leaf that comes to lie there.
            for (const Thing& t : desk.session().things())
                if (t.kind != "reading") want.push_back(t.key);
            std::vector<std::string> got;
            for (std::size_t i = 0; i < want.size() + 3 && QApplication::focusWidget() == &bench; ++i) {
                QTest::keyClick(&bench, Qt::Key_Tab);
                if (const QString key = desk.session().picked(); !key.isEmpty() && !key.startsWith("reading"))
                    got.push_back(key.toStdString());
            }
            if (!want.empty() && want.front() == "leaf 1" && !desk.session().whole()) want.erase(want.begin());  // it lies there already
            CHECK(got == want);
            CHECK(QApplication::focusWidget() != &bench);
            CHECK(desk.session().picked().isEmpty());
            reached += static_cast<int>(got.size());
        }
    }
    CHECK(reached > 60);
}

TEST_CASE("a click picks what lies there, Esc goes back to the top", "[app][picked]") {
    Desk desk;
    desk.click("step_fill");
    const std::vector<Thing> things = desk.session().things();
    REQUIRE(things.size() == desk.session().plan()->fill->voids.size());
    const double whole = desk.session().plan()->fill->mixed_l;
    CHECK(desk.find<QLabel>("answer_fill.mix")
              ->accessibleName()
              .contains(QString::fromStdString(print(litres(whole), Units::metric()).number)));
    for (const Thing& t : things) {
        QTest::mouseClick(&desk.window->bench(), Qt::LeftButton, {}, on_bench(desk, t));
        QApplication::processEvents();
        INFO(t.key);
        CHECK(desk.session().picked().toStdString() == t.key);
        CHECK(desk.find<QLabel>("slip_title")->text() == QString::fromStdString(render(t.title, Units::metric())));
        CHECK(desk.find<QLabel>("slip_which")->text().startsWith(QString("%1 of %2").arg(t.index + 1).arg(things.size())));
        const VoidPlan& v = desk.session().plan()->fill->voids[t.index];
        double mix = 0;
        for (const Lift& l : v.lifts) mix += l.volume_l;
        CHECK(desk.find<QLabel>("answer_void.mix")
                  ->accessibleName()
                  .contains(QString::fromStdString(print(litres(mix), Units::metric()).number)));
        CHECK(desk.window->findChild<QLabel*>("answer_fill.mix") == nullptr);
        // Its resin is chosen here and nowhere else.
        CHECK(desk.window->findChild<QPushButton*>(QString::fromStdString("how_fill." + v.id)));
    }
    QTest::keyClick(&desk.window->bench(), Qt::Key_Escape);
    CHECK(desk.session().picked().isEmpty());
    CHECK(desk.find<QLabel>("answer_fill.mix"));
    // From the slip too.
    desk.click("slip_after");
    CHECK(desk.session().picked() == "void 1");
    auto* line = desk.find<QPushButton>("working_void.depth");
    line->setFocus();
    QTest::keyClick(line, Qt::Key_Escape);
    CHECK(desk.session().picked().isEmpty());
    // A click on bare bench as well.
    desk.pick("void 2");
    QTest::mouseClick(&desk.window->bench(), Qt::LeftButton, {}, desk.window->bench().map().plan.topLeft().toPoint() + QPoint(3, 3));
    CHECK(desk.session().picked().isEmpty());
}

TEST_CASE("only what the picked thing can do is offered, on the slip and on the right-click alike", "[app][picked]") {
    Desk desk;
    for (const char* job : {"job-reading-table", "job-tarn-river", "job-seed-cabinet"}) {
        desk.session().set_job(job);
        for (const char* step : steps_of_work) {
            desk.click(step);
            const std::vector<Thing> things = desk.session().things();
            for (const Thing& t : things) {
                if (t.area.size() < 3) continue;
                INFO(job << " " << step << " " << t.key);
                desk.pick(t.key.c_str());
                const QStringList slip = offered(desk);
                Bench& bench = desk.window->bench();
                // Where it lies it may be covered by a smaller thing; that one is then what the click is about.
                const QPoint at = on_bench(desk, t);
                QContextMenuEvent e(QContextMenuEvent::Mouse, at, bench.mapToGlobal(at));
                QApplication::sendEvent(&bench, &e);
                QApplication::processEvents();
                auto* menu = bench.findChild<QMenu*>("bench_menu");
                QStringList on_menu;
                if (menu)
                    for (const QAction* a : menu->actions()) on_menu << a->text();
                on_menu.sort();
                CHECK(on_menu == offered(desk));
                if (desk.session().picked().toStdString() == t.key) CHECK(on_menu == slip);
                if (menu) menu->close();
                QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
                desk.session().pick({});
            }
        }
    }
}

TEST_CASE("what is done to a picked thing is done to it alone, one undo brings it back", "[app][picked]") {
    Desk desk;
    desk.click("step_under");
    const auto plates = desk.session().job()->under.plates;
    REQUIRE(plates.size() == 2);
    desk.pick("plate 1");
    CHECK(desk.find<QLabel>("answer_plate.travel"));
    desk.click("drop_plate");
    CHECK(desk.session().job()->under.plates == std::vector<LegPlate>{plates[1]});
    CHECK(desk.session().picked().isEmpty());
    desk.click("undo");
    CHECK(desk.session().job()->under.plates == plates);
    // A hole says its slot and its way.
    desk.pick("channel 2");
    REQUIRE(desk.session().pick_next(1));
    REQUIRE(desk.session().picked() == "hole 1");
    QTest::qWait(200);  // the gauge follows when the hand rests
    const Slot& slot = desk.session().plan()->under->slots.front();
    CHECK(desk.find<QLabel>("answer_hole.travel")
              ->accessibleName()
              .contains(QString::fromStdString(print(fine(slot.travel_out_mm), Units::metric()).number)));
    CHECK(desk.session().gauge_mm() == Approx(desk.session().plan()->placement.frame().to_slab(slot.uv).x).margin(1));
    // A shim goes, a flaw goes, a patch is let in over a flaw.
    desk.click("step_flat");
    const std::size_t shims = desk.session().plan()->flat->shims.size();
    desk.pick("shim 2");
    desk.click("shim_away");
    CHECK(desk.session().plan()->flat->shims.size() == shims - 1);
    desk.click("undo");
    CHECK(desk.session().plan()->flat->shims.size() == shims);
    desk.click("step_rack");
    const auto flaws = desk.session().slab()->flaws;
    const std::string flaw = desk.session().things().at(1).key;
    desk.pick(flaw.c_str());
    desk.type("flaw_depth", "17");
    CHECK(desk.session().slab()->flaws[1].depth_mm == Approx(17));
    desk.pick(flaw.c_str());
    desk.click("flaw_away");
    CHECK(desk.session().slab()->flaws.size() == flaws.size() - 1);
    desk.click("undo");
    desk.click("undo");
    CHECK(desk.session().slab()->flaws == flaws);
    desk.click("step_lay");
    desk.pick(flaw.c_str());
    desk.click("patch_over");
    REQUIRE(desk.session().job()->makeup.patches.size() == 1);
    CHECK(area(desk.session().job()->makeup.patches[0].outline) > area(flaws[1].outline));
    desk.pick("patch 1");
    desk.click("patch_away");
    CHECK(desk.session().job()->makeup.patches.empty());
}

TEST_CASE("a step with nothing to pick says nothing of it and loses no key", "[app][picked]") {
    Desk desk;
    desk.session().edit_slab("clean", [](Slab& slab) { slab.flaws.clear(); });
    for (const char* step : {"step_rack", "step_fill"}) {
        desk.click(step);
        INFO(step);
        REQUIRE(desk.session().things().empty());
        CHECK_FALSE(desk.find<QPushButton>("slip_after")->isVisible());
        Bench& bench = desk.window->bench();
        bench.setFocus();
        QTest::keyClick(&bench, Qt::Key_Tab);
        CHECK(QApplication::focusWidget() != &bench);  // nobody is held
        CHECK_FALSE(desk.session().pick_next(1));
        desk.session().pick("nothing of that name");
        CHECK(desk.session().picked().isEmpty());
        CHECK(desk.session().about() == "top");
    }
    desk.click("step_sheets");
    CHECK(desk.session().things().empty());
}

TEST_CASE("labels and dimensions step aside for one another, the gauge and the rule", "[app][picked]") {
    Desk desk;
    int seen = 0;
    for (const auto& [id, name] : desk.session().job_names()) {
        desk.session().set_job(QString::fromStdString(id));
        for (const char* step : steps_of_work) {
            desk.click(step);
            Bench& bench = desk.window->bench();
            for (const double share : {0.2, 0.5, 0.8}) {
                const Span1 all = desk.session().plan()->stations();
                desk.session().set_gauge(all.from + (all.to - all.from) * share);
                bench.repaint();
                const auto& places = bench.label_places();
                for (std::size_t i = 0; i < places.size(); ++i) {
                    if (places[i].isEmpty()) continue;
                    ++seen;
                    INFO(id << " " << step << " label " << i);
                    CHECK(QRectF(bench.rect()).contains(places[i]));
                    CHECK_FALSE(
                        places[i].intersects(QRectF(bench.map().px(bench.map().gauge_mm) - 32, bench.map().ruler.bottom(), 64, 33)));
                    for (std::size_t j = i + 1; j < places.size(); ++j) CHECK_FALSE(places[i].intersects(places[j]));
                }
            }
        }
    }
    CHECK(seen > 40);
    // Four voids close together: each has its label, none on another.
    std::vector<Label> labels;
    for (int i = 0; i < 4; ++i) labels.push_back({QPointF(300 + 12 * i, 200), "240 mL · 2 lifts of 12 mm", Qt::black, 1.0 * i});
    const auto room = draw::room_for(labels, {0, 0, 900, 500}, {});
    for (std::size_t i = 0; i < 4; ++i) {
        CHECK_FALSE(room[i].isEmpty());
        for (std::size_t j = i + 1; j < 4; ++j) CHECK_FALSE(room[i].intersects(room[j]));
    }
    // Where nothing is free it is left out.
    CHECK(draw::room_for(labels, {0, 0, 900, 500}, {QRectF(0, 0, 900, 500)}).front().isEmpty());
}

TEST_CASE("the bench's splits are dragged and a double click gives them back", "[app][picked]") {
    QSettings().remove("bench/plan");
    QSettings().remove("bench/end_below");
    QSettings().remove("bench/end_beside");
    Desk desk;
    desk.session().set_job("job-landing-bench");
    desk.click("step_lay");
    Bench& bench = desk.window->bench();
    const QRectF plan = bench.map().plan;
    REQUIRE_FALSE(bench.map().end_on_edge);
    const QPointF split(plan.center().x() + 60, plan.bottom() + 5);
    desk.drag(split, split - QPointF(0, 60));
    CHECK(bench.map().plan.height() == Approx(plan.height() - 60).margin(4));
    const double strip = bench.map().strip.height();
    const QPointF lower(plan.center().x() + 60, bench.map().strip.bottom() + 8);
    desk.drag(lower, lower - QPointF(0, 30));
    CHECK(bench.map().strip.height() < strip - 20);
    // Kept when the program starts again.
    const double left = bench.map().plan.height();
    desk.restart();
    desk.session().set_job("job-landing-bench");
    desk.click("step_lay");
    CHECK(desk.window->bench().map().plan.height() == Approx(left).margin(1));
    Bench& again = desk.window->bench();
    QTest::mouseDClick(&again, Qt::LeftButton, {}, QPointF(plan.center().x() + 60, again.map().plan.bottom() + 5).toPoint());
    CHECK(again.map().plan.height() == Approx(plan.height()).margin(1));
    CHECK_FALSE(QSettings().contains("bench/plan"));
    // By keyboard.
    again.more_for_plan(true);
    CHECK(again.map().plan.height() > plan.height() + 10);
    again.share_room();
    // At the side of a squat top it is the end view's width.
    desk.session().set_job("job-hall-table");
    QApplication::processEvents();
    REQUIRE(again.map().end_on_edge);
    const double wide = again.map().end.width();
    const QPointF side(again.map().plan.right() + 12, again.map().plan.center().y());
    desk.drag(side, side + QPointF(40, 0));
    CHECK(again.map().end.width() < wide - 20);
    again.share_room();
    CHECK(again.map().end.width() == Approx(wide).margin(1));
}
