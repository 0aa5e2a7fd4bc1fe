// Cards run at the bench as a hand runs them: ticked with a key, broken off, taken up again; a thermocouple at its side.
#include <QCheckBox>
#include <QProcess>

#include "app/pages/card/card_page.h"
#include "core/ground/card/card.h"
#include "core/shop/job/job.h"
#include "core/steps/pour/pour.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

const double morning = *utc_seconds("2026-11-26T07:00:00Z");

/// The card of a demo job, by a clock that the test turns.
struct AtTheCard {
    Desk desk;
    double now = morning;
    CardPage* page = nullptr;
    explicit AtTheCard(const char* job = "job-tarn-river", const char* step = "pour") {
        desk.session().set_job(job);
        desk.session().set_step(Step{step});
        desk.click("run_card");
        take();
    }
    void take() {
        page = desk.find<CardPage>("card_page");
        page->set_clock([this] { return now; });
        QApplication::processEvents();
    }
    const CardRun& run() { return desk.session().job()->runs.back(); }
    void key(Qt::Key k) {
        QTest::keyClick(page, k);
        QApplication::processEvents();
    }
};

}  // namespace

TEST_CASE("the pour's card is started, ticked with the space bar, and each tick is in the book", "[app][card]") {
    AtTheCard r;
    REQUIRE(r.page->isVisible());
    CHECK(r.page->read_out().contains("Not started"));
    CHECK_FALSE(r.desk.find<QPushButton>("card_tick")->isVisible());
    r.key(Qt::Key_Space);
    CHECK(r.page->read_out().contains("Set everything out"));
    CHECK(r.desk.find<QPushButton>("card_tick")->isVisible());
    r.now += 400;
    r.key(Qt::Key_Space);
    CHECK(r.page->read_out().contains("leaks"));
    REQUIRE(r.run().ticks.size() == 1);
    CHECK(r.run().ticks[0].at == "2026-11-26T07:06:40Z");
    CHECK(r.run().ticks[0].after_s == 400);
    // One too many is taken back.
    r.key(Qt::Key_Space);
    CHECK(r.run().ticks.size() == 2);
    r.key(Qt::Key_Backspace);
    CHECK(r.run().ticks.size() == 1);
    CHECK(r.page->read_out().contains("leaks"));
    // Escape leads back to the bench; the run goes on.
    r.key(Qt::Key_Escape);
    CHECK_FALSE(r.page->isVisible());
    r.desk.click("run_card");
    CHECK(r.page->read_out().contains("leaks"));
}

TEST_CASE("a window closed in the middle of a card loses nothing: it is taken up where it was", "[app][card]") {
    AtTheCard r("job-seed-cabinet", "join");
    r.key(Qt::Key_Space);
    for (int i = 0; i < 3; ++i) {
        r.now += 60;
        r.key(Qt::Key_Space);
    }
    const auto ticks = r.run().ticks;
    REQUIRE(ticks.size() == 3);
    const QString at = r.page->read_out().section(QStringLiteral(" · "), 0, 0);
    // While it counts against the glue the power goes.
    r.desk.restart();
    r.take();
    CHECK(r.page->isVisible());
    CHECK(r.desk.session().job()->name == "Sorting table, seed library");
    CHECK(r.desk.text("status").contains("broken off"));
    CHECK(r.run().ticks == ticks);
    r.now += 30;
    CHECK(r.page->read_out().startsWith(at));
    CHECK(r.page->read_out().contains("left"));
    // Later than the glue stays open it says what to do.
    r.now += 3600;
    CHECK(r.page->read_out().contains("late by"));
    CHECK(r.page->read_out().contains("skins"));
    // Put away it stays away.
    r.desk.click("card_away");
    CHECK(r.run().over);
    r.desk.restart();
    CHECK_FALSE(r.desk.window->findChild<CardPage*>());
}

TEST_CASE("what is typed beside a tick is kept, and what can't be read is said and not ticked", "[app][card]") {
    AtTheCard r;
    r.key(Qt::Key_Space);
    for (int i = 0; i < 3; ++i) r.key(Qt::Key_Space);
    REQUIRE(r.page->read_out().startsWith("Mix batch 1"));
    REQUIRE(r.desk.find<QLineEdit>("card_mixed")->isVisible());
    QTest::keyClicks(r.desk.find<QLineEdit>("card_mixed"), "a jug full");
    r.desk.click("card_tick");
    CHECK(r.run().ticks.size() == 3);
    CHECK(r.desk.text("card_line").contains("a jug full"));
    CHECK(r.desk.find<QLineEdit>("card_mixed")->text() == "a jug full");  // still there to be mended
    r.desk.find<QLineEdit>("card_mixed")->clear();
    QTest::keyClicks(r.desk.find<QLineEdit>("card_mixed"), "3.0 L");
    QTest::keyClicks(r.desk.find<QLineEdit>("card_air"), "17.5");
    QTest::keyClicks(r.desk.find<QLineEdit>("card_note"), "a skin on part B");
    r.desk.click("card_tick");
    REQUIRE(r.run().ticks.size() == 4);
    CHECK(*r.run().ticks[3].mixed_l == Approx(3));
    CHECK(*r.run().ticks[3].air_c == Approx(17.5));
    CHECK(r.run().ticks[3].note == "a skin on part B");
    CHECK(r.desk.text("card_line").contains("planned"));
    CHECK(r.desk.find<QLineEdit>("card_note")->text().isEmpty());
    // A key in a field is typed, it ticks nothing.
    QTest::keyClick(r.desk.find<QLineEdit>("card_note"), Qt::Key_Space);
    CHECK(r.run().ticks.size() == 4);
}

TEST_CASE("what is left over of the mix is asked at its end, and goes to the book", "[app][card][book]") {
    AtTheCard r;
    r.key(Qt::Key_Space);
    auto* mixed = r.desk.find<QLineEdit>("card_mixed");
    for (int i = 0; i < 200 && !r.page->read_out().startsWith("Bubbles"); ++i) r.now += 300, r.key(Qt::Key_Space);
    // Of several lifts the last one asks.
    for (int i = 0; i < 200 && !mixed->isVisible(); ++i) r.now += 3600, r.key(Qt::Key_Space);
    while (r.page->read_out().startsWith("Mix") || r.page->read_out().startsWith("Pour")) r.now += 300, r.key(Qt::Key_Space);
    REQUIRE(mixed->isVisible());
    QTest::keyClicks(mixed, "180 ml");
    r.desk.click("card_tick");
    REQUIRE(r.run().ticks.back().left_l);
    CHECK(*r.run().ticks.back().left_l == Approx(0.18));
    CHECK_FALSE(r.run().ticks.back().mixed_l);
    const auto book = r.desk.session().store()->book();
    CHECK(std::any_of(book.begin(), book.end(),
                      [](const BookEntry& e) { return e.what == "left over" && e.value == "0.18" && e.unit == "l"; }));
}

TEST_CASE("lanes and sanding are run from cards – the next card of the lanes is the one that was not run", "[app][card]") {
    AtTheCard r("job-hall-table", "flat");
    CHECK(r.page->read_out().contains("Not started"));
    r.key(Qt::Key_Space);
    r.now += 300, r.key(Qt::Key_Space);
    CHECK(r.page->read_out().contains("Set layer 1"));
    r.now += 90, r.key(Qt::Key_Space);
    CHECK(r.page->read_out().contains("lanes"));
    while (r.desk.find<QPushButton>("card_tick")->isEnabled()) r.now += 60, r.key(Qt::Key_Space);
    r.desk.click("card_away");
    CHECK(r.run().card == "flat_one");
    CHECK(r.run().over);
    r.desk.click("card_back");
    r.desk.click("run_card");
    r.take();
    r.key(Qt::Key_Space);
    CHECK(r.run().card == "flat_two");
    r.desk.click("card_back");
    r.desk.session().set_step(step_key::skin);
    r.desk.click("run_sand");
    r.take();
    r.key(Qt::Key_Space);
    CHECK(r.run().card == "sand");
    r.now += 200, r.key(Qt::Key_Space);
    CHECK(r.page->read_out().contains("Underside · grit"));
}

TEST_CASE("practice runs an hour in a minute", "[app][card]") {
    AtTheCard r;
    r.desk.find<QCheckBox>("card_practice")->click();
    r.desk.click("card_start");
    CHECK(r.run().fast == 60);
    r.now += 20;
    r.key(Qt::Key_Space);
    CHECK(r.run().ticks[0].after_s == 1200);
}

TEST_CASE("a thermocouple's readings go into the run, and the model is set against them", "[app][card]") {
    AtTheCard r;
    QProcess played;
    const QString values = r.desk.dir.filePath("warm.txt");
    QFile file(values);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("18.5\n19.0\n19.5\n20.0\n");
    file.close();
    played.start(STAND_IN, {"thermocouple", values});
    REQUIRE(played.waitForStarted());
    REQUIRE(played.waitForReadyRead(5000));
    const QString line = QString::fromUtf8(played.readLine()).trimmed();
    r.key(Qt::Key_Space);
    CHECK_FALSE(r.page->listen_to("/dev/no-such-line"));
    CHECK(r.desk.text("card_line").contains("can't be opened"));
    REQUIRE(r.page->listen_to(line));
    CHECK(r.desk.text("card_line").contains("Listening"));
    for (int i = 0; i < 4; ++i) {
        r.now += 600;
        played.write("\n");
        CHECK(becomes([&] { return r.run().readings.size() == static_cast<std::size_t>(i) + 1; }));
    }
    // It drops out: said once, nothing lost.
    r.now += 300;
    CHECK(becomes([&] { return r.desk.text("card_line").contains("Nothing has come from the thermocouple"); }));
    CHECK(r.run().readings.size() == 4);
    r.key(Qt::Key_Escape);  // written at the latest when the page is left
    REQUIRE(r.run().readings.size() == 4);
    CHECK(r.run().readings[0].after_s == 600);
    CHECK(r.run().readings[3].temp_c == 20);
    played.kill();
    played.waitForFinished();
}
