// Days by hand: sticks of all jobs, an operation ticked, dragged, moved before others, a date clicked shut, what could give.
#include "app/files/bring.h"
#include "app/pages/days/days_page.h"
#include "app/pages/days/days_sticks.h"
#include "core/shop/days/season.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

DaysPage& days(Desk& desk) {
    desk.press(Qt::Key_D);
    auto* page = desk.find<DaysPage>("days_page");
    page->set_today("2026-11-30");
    page->wait();
    QApplication::processEvents();
    return *page;
}

const Operation& op(const DaysPage& page, const QString& key) {
    for (const JobDays& j : page.season()->jobs)
        for (const Operation& o : j.operations)
            if (QString::fromStdString(j.id + "/" + o.key) == key) return o;
    FAIL(key.toStdString());
    throw 0;
}

double ready(const DaysPage& page, const std::string& job) {
    for (const JobDays& j : page.season()->jobs)
        if (j.id == job) return j.ready_h;
    FAIL(job);
    throw 0;
}

}  // namespace

TEST_CASE("D shows all jobs – Monday is ticked through and Tuesday moves – one undo takes a tick back", "[app][days]") {
    Desk desk;
    DaysPage& page = days(desk);
    // The delivered one and other ways of a job are on no rule of dates.
    REQUIRE(page.season()->jobs.size() == job_order(desk.session().documents()).size());
    CHECK(desk.find<QLabel>("days_about")->text().contains(QString("%1 jobs").arg(page.season()->jobs.size())));
    auto* sticks = desk.find<DaysSticks>("days_sticks");
    // What comes first over all jobs is looked at; the slip tells when, how long, what then waits.
    const QString first = sticks->picked();
    REQUIRE_FALSE(first.isEmpty());
    CHECK(op(page, first).start_h == page.season()->now_h + 8);
    CHECK(desk.find<QLabel>("days_hero")->text().contains("8:00"));
    CHECK(desk.find<QLabel>("days_today")->text().contains("8:00"));
    // Enter ticks it, at noon of that day: it stands there.
    sticks->setFocus();
    desk.press(Qt::Key_Return);
    page.wait();
    REQUIRE(op(page, first).done_h);
    CHECK(*op(page, first).done_h == Approx(12));
    CHECK(desk.find<QPushButton>("days_done")->text() == "Not done after all");
    desk.session().undo();
    page.wait();
    CHECK_FALSE(op(page, first).done_h);
    // The keys go operation by operation and job by job.
    desk.press(Qt::Key_Right);
    CHECK(sticks->picked() != first);
    CHECK(sticks->picked().section('/', 0, 0) == first.section('/', 0, 0));
    desk.press(Qt::Key_Down);
    CHECK(sticks->picked().section('/', 0, 0) != first.section('/', 0, 0));
}

TEST_CASE("an operation is dragged to a later day, kept there, and let go again", "[app][days]") {
    Desk desk;
    DaysPage& page = days(desk);
    auto* sticks = desk.find<DaysSticks>("days_sticks");
    const QString key = "job-reading-table/flat1";
    sticks->pick(key);
    sticks->setFocus();
    for (int i = 0; i < 5; ++i) desk.press(Qt::Key_Plus);  // hours are wide enough for a hand
    const double before = op(page, key).start_h;
    const double end = ready(page, "job-reading-table");
    const QRectF place = sticks->place(key);
    const QPointF from{place.center().x(), place.top() + 6};
    const double by = sticks->x_of(before + 24 * 4) - sticks->x_of(before);
    QTest::mousePress(sticks, Qt::LeftButton, {}, from.toPoint());
    REQUIRE(sticks->picked() == key);
    for (int i = 1; i <= 5; ++i) {
        const QPointF at = from + QPointF(by * i / 5, 0);
        QMouseEvent move(QEvent::MouseMove, at, sticks->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(sticks, &move);
    }
    // While it is held the rest has moved, and nothing is written yet.
    CHECK(op(page, key).start_h > before + 24 * 2);
    CHECK(desk.session().documents().jobs.at("job-reading-table").days.pins.empty());
    QTest::mouseRelease(sticks, Qt::LeftButton, {}, (from + QPointF(by, 0)).toPoint());
    page.wait();
    REQUIRE(desk.session().documents().jobs.at("job-reading-table").days.pins.size() == 1);
    CHECK(op(page, key).start_h > before + 24 * 2);
    CHECK(ready(page, "job-reading-table") > end);
    // Which operation did it is said.
    CHECK(desk.find<QLabel>("days_moved")->text().contains("later, by"));
    desk.click("days_unpin");
    page.wait();
    CHECK(op(page, key).start_h == Approx(before));
    CHECK(ready(page, "job-reading-table") == Approx(end));
}

TEST_CASE("hours are typed, an operation is split, done once more, given to the helper and taken away", "[app][days]") {
    Desk desk;
    DaysPage& page = days(desk);
    auto* sticks = desk.find<DaysSticks>("days_sticks");
    sticks->pick("job-reading-table/lay");
    desk.type("days_hands", "7");
    page.wait();
    CHECK(op(page, "job-reading-table/lay").hands_on_h == Approx(7));
    desk.click("days_split");
    page.wait();
    CHECK(op(page, "job-reading-table/lay").hands_on_h == Approx(3.5));
    CHECK(op(page, "job-reading-table/own 1").hands_on_h == Approx(3.5));
    CHECK(op(page, "job-reading-table/rough").start_h >= op(page, "job-reading-table/own 1").end_h - 1e-6);
    sticks->pick("job-reading-table/own 1");
    CHECK(desk.find<QLabel>("days_title")->text().contains("second half"));
    desk.click("days_helper_1");
    page.wait();
    desk.click("days_helped");
    page.wait();
    CHECK(op(page, "job-reading-table/own 1").who == Who::helper);
    CHECK(weekday_of(page.season()->date(op(page, "job-reading-table/own 1").start_h)) == 0);
    desk.click("days_drop");
    page.wait();
    CHECK(desk.session().documents().jobs.at("job-reading-table").days.own.empty());
    sticks->pick("job-reading-table/level");
    desk.click("days_again");
    page.wait();
    CHECK(op(page, "job-reading-table/own 1").start_h >= op(page, "job-reading-table/level").end_h - 1e-6);
}

TEST_CASE("a date is clicked shut, a job's turn comes first, a date that is wanted says what could give", "[app][days]") {
    Desk desk;
    DaysPage& page = days(desk);
    auto* sticks = desk.find<DaysSticks>("days_sticks");
    const QString first = sticks->picked();
    const double start = op(page, first).start_h;
    QTest::mouseClick(sticks, Qt::LeftButton, {}, sticks->date_place("2026-11-30").center().toPoint());
    page.wait();
    CHECK(is_off(desk.session().shop().workday, "2026-11-30"));
    CHECK(op(page, first).start_h == Approx(start + 24));
    QTest::mouseClick(sticks, Qt::LeftButton, {}, sticks->date_place("2026-11-30").center().toPoint());
    page.wait();
    CHECK_FALSE(is_off(desk.session().shop().workday, "2026-11-30"));
    // The last job's turn first.
    const std::string last = page.season()->jobs.back().id;
    const double was = page.season()->jobs.back().ready_h;
    sticks->pick(QString::fromStdString(last + "/" + page.season()->jobs.back().operations.front().key));
    for (std::size_t i = 0; i < page.season()->jobs.size(); ++i) {
        desk.click("days_sooner");
        page.wait();
    }
    CHECK(page.season()->jobs.front().id == last);
    CHECK(ready(page, last) <= was + 1e-6);
    // Wanted sooner than it can be: said, with what could give; pressed, it is sooner.
    sticks->pick("job-reading-table/flat1");
    desk.type("days_wanted", "soon");
    CHECK(desk.find<QLabel>("days_given")->text().contains("2026-12-18"));
    desk.type("days_wanted", "2026-12-04");
    page.wait();
    CHECK(desk.find<QLabel>("days_mind")->text().contains("Reading table"));
    const double late = ready(page, "job-reading-table");
    desk.click("days_gives");
    page.wait();
    QApplication::processEvents();
    QPushButton* way = nullptr;
    for (QPushButton* b : page.findChildren<QPushButton*>())
        if (b->objectName().startsWith("gives_") && b->isVisible() && !way) way = b;
    REQUIRE(way);
    QTest::mouseClick(way, Qt::LeftButton);
    page.wait();
    CHECK(ready(page, "job-reading-table") < late);
}

TEST_CASE("a calendar that is kept is written anew when the days change, and left when its place is gone", "[app][days][hostile]") {
    Desk desk;
    const QString path = desk.dir.filePath("kept.ics");
    DaysPage& page = days(desk);
    desk.window->keep_calendar(path);
    const auto text = [&] {
        QFile f(path);
        return f.open(QIODevice::ReadOnly) ? f.readAll() : QByteArray();
    };
    CHECK(text().isEmpty());
    const auto change = [&](const char* day) {
        desk.session().edit_shop("a day off", [&](Shop& s) { day_off(s, day, true); });
        page.wait();
    };
    change("2026-12-01");
    const QByteArray first = text();
    CHECK(first.contains("BEGIN:VEVENT"));
    CHECK(desk.find<QPushButton>("days_keep")->text().contains("kept.ics"));
    change("2026-12-02");
    CHECK(text() != first);
    desk.click("days_keep");
    const QByteArray left = text();
    change("2026-12-03");
    CHECK(text() == left);
    desk.window->keep_calendar("/nowhere/at/all.ics");
    change("2026-12-04");
    CHECK(desk.find<QPushButton>("days_keep")->isHidden());
}

TEST_CASE("days off come in from a calendar – a bad one is said – the helper's days are set", "[app][days][hostile]") {
    Desk desk;
    DaysPage& page = days(desk);
    QFile f(desk.dir.filePath("holidays.ics"));
    REQUIRE(f.open(QIODevice::WriteOnly));
    const QByteArray year = QByteArray::number(QDate::currentDate().year() + 1);
    f.write("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:" + year +
            "0501\r\nSUMMARY:May\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n");
    f.close();
    QString said;
    bool wrong = false;
    const auto say = [&](const QString& text, bool bad) { said = text, wrong = bad; };
    LongWork& work = desk.window->long_work();
    bring_days_off(desk.session(), work, f.fileName(), say);
    desk.wait();
    CHECK_FALSE(wrong);
    CHECK(is_off(desk.session().shop().workday, (year + "-05-01").toStdString()));
    bring_days_off(desk.session(), work, f.fileName(), say);
    desk.wait();
    CHECK(desk.session().shop().workday.off.size() == 1);
    QFile bad(desk.dir.filePath("bad.ics"));
    REQUIRE(bad.open(QIODevice::WriteOnly));
    bad.write("no calendar");
    bad.close();
    bring_days_off(desk.session(), work, bad.fileName(), say);
    desk.wait();
    CHECK(desk.text("status").contains("bad.ics"));
    page.wait();
    desk.click("days_helper_6");
    CHECK_FALSE(stretches_on(desk.session().shop().workday, Crew::helper, 5).empty());
    desk.click("days_helper_6");
    CHECK(stretches_on(desk.session().shop().workday, Crew::helper, 5).empty());
}
