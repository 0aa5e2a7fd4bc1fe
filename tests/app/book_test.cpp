// The book by hand: it fills by itself, is searched, corrected, drawn; a note from anywhere; a pace used and put back; photographs; papers.
#include <QListView>
#include <QPlainTextEdit>
#include <QTimer>

#include "app/files/bring.h"
#include "app/pages/book/book_chart.h"
#include "app/pages/book/book_list.h"
#include "app/pages/book/book_page.h"
#include "app/pages/days/today_wall.h"
#include "app/steps/sheets/papers.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/skin_of.h"
#include "core/steps/skin/skin.h"
#include "demo/demo.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

BookPage& book_of(Desk& desk) {
    if (desk.session().store()->book().empty()) desk.session().store()->write(demo_book());
    desk.press(Qt::Key_B);
    auto* page = desk.find<BookPage>("book_page");
    page->wait();
    QApplication::processEvents();
    return *page;
}

QString row_text(Desk& desk, int row) {
    auto* list = desk.find<QListView>("book_list");
    return list->model()->data(list->model()->index(row, 0), Qt::DisplayRole).toString();
}

/// Types into the dialog that comes, and says yes.
void answer(const QString& text) {
    QTimer::singleShot(0, [text] {
        for (int i = 0; i < 200; ++i) {
            if (QWidget* dialog = QApplication::activeModalWidget()) {
                if (auto* line = dialog->findChild<QLineEdit*>())
                    line->setFocus(), line->selectAll(), QTest::keyClick(line, Qt::Key_Delete), QTest::keyClicks(line, text),
                        QTest::keyClick(line, Qt::Key_Return);
                else if (auto* many = dialog->findChild<QPlainTextEdit*>()) {
                    QTest::keyClicks(many, text);
                    for (QPushButton* b : dialog->findChildren<QPushButton*>())
                        if (b->isDefault() || b->text().contains("OK")) return b->click();
                }
                return;
            }
            QApplication::processEvents(QEventLoop::AllEvents, 10);
        }
    });
}

}  // namespace

TEST_CASE("B opens the book – words, kind and dates find a line – a dot of the plot leads to its line", "[app][book]") {
    Desk desk;
    BookPage& page = book_of(desk);
    auto* list = desk.find<QListView>("book_list");
    const int all = list->model()->rowCount();
    CHECK(all == static_cast<int>(demo_book().size()));
    CHECK(desk.text("book_about").contains(QString::number(all)));
    auto* words = desk.find<QLineEdit>("book_words");
    words->setFocus();
    QTest::keyClicks(words, "bubble gun");
    CHECK(list->model()->rowCount() == 1);
    CHECK(row_text(desk, 0).contains("A bubble by the left end"));
    CHECK(desk.text("book_hero").contains("A bubble"));
    words->clear();
    auto* kind = desk.find<QComboBox>("book_kind");
    kind->setCurrentIndex(kind->findData("tick"));
    const int ticks = list->model()->rowCount();
    CHECK(ticks > 15);
    CHECK(ticks < all);
    auto* from = desk.find<QLineEdit>("book_from");
    from->setFocus();
    QTest::keyClicks(from, "2026-09-2");  // half a date asks nothing yet
    CHECK(list->model()->rowCount() == ticks);
    QTest::keyClicks(from, "1");
    CHECK(list->model()->rowCount() < ticks);
    CHECK(list->model()->rowCount() > 0);
    from->clear();
    kind->setCurrentIndex(0);
    // Every plot is drawn of the delivered table.
    auto* job = desk.find<QComboBox>("book_job");
    job->setCurrentIndex(job->findData("job-outflow-side"));
    page.wait();
    auto* chart = desk.find<BookChart>("book_chart");
    for (const auto& [key, name] : book_plots()) {
        page.show_plot(key);
        page.wait();
        INFO(key);
        CHECK_FALSE(chart->chart()->series().isEmpty());
    }
    qint64 id = 0;
    for (const BookLine& l : read_book(desk.session().store()->book()))
        if (id == 0 && l.entry.job == "job-outflow-side" && l.entry.kind == "tick") id = l.entry.id;
    page.pick_line(id);
    CHECK(desk.text("book_more").contains(QString("line %1").arg(id)));
}

TEST_CASE("N writes a note of what is picked, from any step – it stands in the book at once – a wrong line is corrected, not altered",
          "[app][book]") {
    Desk desk;
    desk.session().set_job("job-reading-table");
    desk.session().set_step(step_key::under);
    desk.pick("plate 1");
    answer("drilled it twice");
    desk.press(Qt::Key_N);
    const auto notes = desk.session().store()->book();
    REQUIRE_FALSE(notes.empty());
    CHECK(notes.back().kind == "note");
    CHECK(notes.back().value == "drilled it twice");
    CHECK(notes.back().step == "under");
    CHECK(notes.back().of == "plate 1");
    CHECK(notes.back().job == "job-reading-table");
    // It stands on the thing itself.
    CHECK(desk.text("slip_book").contains("drilled it twice"));
    BookPage& page = book_of(desk);
    CHECK(row_text(desk, 0).contains("drilled it twice"));
    answer("drilled it once");
    desk.click("book_correct");
    page.wait();
    const auto book = desk.session().store()->book();
    CHECK(book.back().kind == "correction");
    CHECK(book.back().value == "drilled it once");
    CHECK(book.back().of == "#" + std::to_string(notes.back().id));
    const auto lines = read_book(book);
    CHECK(lines[lines.size() - 2].corrected_by == book.back().id);
    CHECK(row_text(desk, 0).contains("drilled it once"));
}

TEST_CASE("an operation that is ticked in Days stands in the book – what was taken teaches a pace that is used, and put back",
          "[app][book][pace]") {
    Desk desk;
    desk.session().edit("Done", [](Documents& d) { tick(d.jobs.at("job-reading-table"), "lay", "2026-11-30T10:15", "Lay"); });
    BookPage& page = book_of(desk);
    CHECK(row_text(desk, 0).contains("Lay"));
    auto* grits = desk.find<QPushButton>("pace_sand_after");
    INFO(grits->text().toStdString());
    CHECK(grits->text().contains("from 1 table: 4.2"));
    CHECK(grits->text().contains("m²/h"));
    CHECK(grits->text().contains("press to use it"));
    CHECK(desk.find<QPushButton>("pace_resin_lost")->text().contains("not sure enough"));
    const auto hours_of = [&] {
        desk.session().set_job("job-hall-table");
        double h = 0;
        for (const Operation& o : desk.session().plan()->days->operations)
            if (o.pace == "sand") h += o.hands_on_h;
        return h;
    };
    const auto told_of = [&] {
        desk.session().set_step(step_key::skin);
        for (const Given& g : figure(skin_of(*desk.session().plan()).figures, "skin.sanding").working.given)
            if (g.from.rfind("yours, from 1 table", 0) == 0) return true;
        return false;
    };
    const double before = hours_of();
    CHECK_FALSE(told_of());
    desk.press(Qt::Key_B);
    page.wait();
    desk.find<QPushButton>("pace_sand_after")->click();
    page.wait();
    CHECK(hours_of() > 1.05 * before);
    CHECK(told_of());
    desk.press(Qt::Key_B);
    page.wait();
    // All that is sure was taken; each is put back by itself.
    for (const char* key : {"pace_sand_after", "pace_sand_felt", "pace_sand_first", "pace_sand"}) {
        auto* b = desk.find<QPushButton>(key);
        if (b->isChecked()) b->click();
        page.wait();
        CHECK_FALSE(desk.find<QPushButton>(key)->isChecked());
    }
    CHECK(hours_of() == Approx(before));
    CHECK_FALSE(told_of());
}

TEST_CASE("a photograph is turned, made small, kept once and named in the book – what is none is said", "[app][book][hostile]") {
    Desk desk;
    desk.session().set_job("job-reading-table");
    QImage wood(3000, 1200, QImage::Format_RGB32);
    wood.fill(Qt::darkYellow);
    REQUIRE(wood.save(desk.dir.filePath("before.png")));
    for (int i = 0; i < 2; ++i) {
        desk.window->bring_job_photo(desk.dir.filePath("before.png"));
        desk.window->long_work().wait();
    }
    const Job& job = desk.session().documents().jobs.at("job-reading-table");
    REQUIRE(job.record.photos.size() == 1);
    CHECK(job.record.photos[0].about == "before");
    const auto bytes = desk.session().store()->attachment(job.record.photos[0].key);
    REQUIRE(bytes);
    CHECK(QImage::fromData(QByteArray::fromStdString(*bytes)).width() == 1600);
    CHECK(desk.session().store()->book().back().kind == "photo");
    QFile none(desk.dir.filePath("none.jpg"));
    REQUIRE(none.open(QIODevice::WriteOnly));
    none.write("no picture at all");
    none.close();
    desk.window->bring_job_photo(none.fileName());
    desk.window->long_work().wait();
    CHECK(desk.session().documents().jobs.at("job-reading-table").record.photos.size() == 1);
    CHECK(desk.text("status").contains("none.jpg"));
    // One of 80 MB is not read at all, and says what to do.
    QFile huge(desk.dir.filePath("huge.jpg"));
    REQUIRE(huge.open(QIODevice::WriteOnly));
    REQUIRE(huge.resize(80'000'000));
    huge.close();
    desk.window->bring_job_photo(huge.fileName());
    desk.window->long_work().wait();
    CHECK(desk.text("status").contains("64 MB"));
    CHECK(desk.session().documents().jobs.at("job-reading-table").record.photos.size() == 1);
}

TEST_CASE("agreement, the job's page and the label are written – a place that can't be written says so", "[app][book][papers]") {
    Desk desk;
    desk.session().set_job("job-outflow-side");
    const auto plan = desk.session().plan_of_whole();
    REQUIRE(plan);
    const Job& job = *desk.session().job();
    const Shop& shop = desk.session().shop();
    const auto pdf_text = [&](const QString& path) {
        QProcess p;
        p.start("pdftotext", {"-layout", path, "-"});
        REQUIRE(p.waitForFinished());
        return QString::fromUtf8(p.readAllStandardOutput());
    };
    const QString a = desk.dir.filePath("agreed.pdf");
    CHECK(write_agreement_pdf(a, job, *plan, shop, "2026-11-30").isEmpty());
    CHECK(pdf_text(a).contains("1150"));
    CHECK(pdf_text(a).contains("the client"));
    const QString b = desk.dir.filePath("book.pdf");
    CHECK(write_book_pdf(b, job, read_book(demo_book()), shop).isEmpty());
    CHECK(pdf_text(b).contains("A bubble by the left end"));
    const QString l = desk.dir.filePath("label.pdf");
    CHECK(write_label_pdf(l, job, *plan, shop).isEmpty());
    CHECK(pdf_text(l).contains("2026-01"));
    CHECK_FALSE(write_label_pdf("/nowhere/at/all.pdf", job, *plan, shop).isEmpty());
}

TEST_CASE("F11 shows today across the room, the arrows go to tomorrow, any other key closes it", "[app][days]") {
    Desk desk;
    desk.press(Qt::Key_F11);
    QPointer<TodayWall> wall;
    for (QWidget* w : QApplication::topLevelWidgets())
        if (auto* t = qobject_cast<TodayWall*>(w)) wall = t;
    REQUIRE(wall);
    const QString today = wall->accessibleName();
    QTest::keyClick(wall.data(), Qt::Key_Right);
    QTest::keyClick(wall.data(), Qt::Key_Left);
    CHECK(wall->accessibleName() == today);
    wall->grab();
    QTest::keyClick(wall.data(), Qt::Key_Escape);
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    CHECK_FALSE(wall);
}

TEST_CASE("ten thousand points are thinned to the width, their highest and lowest kept", "[app][book]") {
    std::vector<std::pair<double, double>> many;
    for (int i = 0; i < 10000; ++i) many.emplace_back(i, std::sin(i * 0.01) * (i == 5000 ? 40 : 1));
    const auto few = BookChart::thinned(many, 500);
    CHECK(few.size() <= 1000);
    const auto by = [](const auto& a, const auto& b) { return a.second < b.second; };
    CHECK(std::max_element(few.begin(), few.end(), by)->second == std::max_element(many.begin(), many.end(), by)->second);
    CHECK(std::min_element(few.begin(), few.end(), by)->second == std::min_element(many.begin(), many.end(), by)->second);
    for (std::size_t i = 1; i < few.size(); ++i) CHECK(few[i].first > few[i - 1].first);
    CHECK(BookChart::thinned(few, 5000) == few);
}
