// Money by hand: lines and ways side by side, another way, what is typed, the picture, the offer.
#include <QTimer>

#include "app/ground/session/pictures.h"
#include "app/pages/money/money_page.h"
#include "app/pages/money/table_picture.h"
#include "app/steps/sheets/papers.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/ways/ways.h"
#include "core/steps/top/top.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

MoneyPage& money(Desk& desk, const char* job) {
    desk.session().set_job(job);
    desk.press(Qt::Key_C);
    auto* page = desk.find<MoneyPage>("money_page");
    page->wait();
    QApplication::processEvents();
    return *page;
}

}  // namespace

TEST_CASE("C shows what the job costs, line by line, to the last cent – ways stand side by side – one is made", "[app][money]") {
    Desk desk;
    MoneyPage& page = money(desk, "job-tarn-river");
    auto* ways = desk.find<QTableWidget>("money_ways");
    REQUIRE(ways->rowCount() == 2);
    CHECK(ways->item(1, 1)->text() == "narrower river");
    auto* lines = desk.find<QTableWidget>("money_lines");
    // What stands on the page adds up.
    long long sum = 0, overhead = 0, cost = 0;
    for (int r = 0; r < lines->rowCount(); ++r) {
        const long long cents = lines->item(r, 3)->text().remove('.').toLongLong();
        if (lines->item(r, 0)->text() == "Overhead") overhead = cents;
        else if (lines->item(r, 0)->text() == "It costs") cost = cents;
        else sum += cents;
    }
    CHECK(sum + overhead == cost);
    const Plan whole = *desk.session().plan_of_whole();
    const WayLine line = way_line(desk.session().documents(), "job-tarn-river", &whole);
    CHECK(desk.text("money_offer") == QString::fromStdString(in_decimals(line.offer)) + " crowns");
    CHECK(ways->item(0, 2)->text() == QString::fromStdString(in_decimals(line.offer)));
    // Cost, offer and hour open to how they were reached.
    desk.click("working_money.cost");
    CHECK(desk.text("work_money.cost").contains("overhead"));
    // The other way is picked, and made: it is the job now, the first is kept.
    const double wide = desk.session().documents().jobs.at("job-tarn-river").makeup.river_mm;
    ways->setCurrentCell(1, 1);
    desk.click("money_take_way");
    page.wait();
    CHECK(desk.session().documents().jobs.at("job-tarn-river").makeup.river_mm == 110);
    CHECK(desk.session().documents().jobs.at("job-tarn-river-narrow").makeup.river_mm == wide);
    desk.session().undo();
    page.wait();
    CHECK(desk.session().documents().jobs.at("job-tarn-river").makeup.river_mm == wide);
    ways->setCurrentCell(1, 1);
    desk.click("money_put_away");
    page.wait();
    CHECK(ways->rowCount() == 1);
}

TEST_CASE("another way is asked for by name – hour, margin and what else are typed – a currency sign is refused", "[app][money][hostile]") {
    Desk desk;
    MoneyPage& page = money(desk, "job-hall-table");
    QTimer::singleShot(0, [] {
        for (int i = 0; i < 200; ++i) {
            if (QWidget* dialog = QApplication::activeModalWidget()) {
                auto* line = dialog->findChild<QLineEdit*>();
                line->selectAll();
                QTest::keyClicks(line, "rounder corners");
                QTest::keyClick(line, Qt::Key_Return);
                return;
            }
            QApplication::processEvents(QEventLoop::AllEvents, 10);
        }
    });
    desk.click("money_add_way");
    page.wait();
    CHECK(ways_of_job(desk.session().documents(), "job-hall-table").size() == 2);
    const QString offer = desk.text("money_offer");
    desk.type("money_margin", "25");
    page.wait();
    CHECK(desk.session().documents().jobs.at("job-hall-table").money.margin_pct == 25.0);
    CHECK(desk.text("money_offer") != offer);
    desk.type("money_hour", "52,50");
    page.wait();
    CHECK(desk.session().documents().jobs.at("job-hall-table").money.hour == 52.5);
    desk.type("money_extra", "glass; 2; $61");
    page.wait();
    CHECK(desk.session().documents().jobs.at("job-hall-table").money.extra.empty());
    CHECK(desk.text("status").contains("currency sign"));
    CHECK(desk.find<QLineEdit>("money_extra")->text() == "glass; 2; $61");  // what was typed stays
    desk.type("money_extra", "glass; 2; 61,15");
    page.wait();
    REQUIRE(desk.session().documents().jobs.at("job-hall-table").money.extra.size() == 1);
    CHECK(desk.session().documents().jobs.at("job-hall-table").money.extra[0].price == 61.15);
    auto* lines = desk.find<QTableWidget>("money_lines");
    bool there = false;
    for (int r = 0; r < lines->rowCount(); ++r)
        there = there || (lines->item(r, 0)->text() == "glass" && lines->item(r, 3)->text() == "122.30");
    CHECK(there);
}

TEST_CASE("the client's picture: its silhouette is the projected outline, resin has its colour, it turns with hand and keys",
          "[app][money][picture]") {
    Desk desk;
    money(desk, "job-tarn-river");
    auto* shown = desk.find<TablePicture>("table_picture");
    const QImage whole = shown->picture({1600, 1000});
    REQUIRE(whole.size() == QSize(1600, 1000));
    const Plan plan = *desk.session().plan_of_whole();
    const Job job = *desk.session().job();
    // The upper face alone, in one ink, against its outline drawn by the projection.
    const double px_mm = 0.6;
    const Box b = bounds(plan.top->above);
    QImage flat(static_cast<int>(std::ceil(b.width() * px_mm)), static_cast<int>(std::ceil(b.height() * px_mm)),
                QImage::Format_ARGB32_Premultiplied);
    flat.fill(Qt::transparent);
    {
        QPainter p(&flat);
        p.setRenderHint(QPainter::Antialiasing);
        QPolygonF ring;
        for (const Vec2 q : plan.top->above) ring << QPointF((q.x - b.low.x) * px_mm, (b.high.y - q.y) * px_mm);
        p.setBrush(Qt::red);
        p.setPen(Qt::NoPen);
        p.drawPolygon(ring);
    }
    const Eye eye{-28, 32, 1600, 1000};
    const QImage seen = table_picture(plan, job, flat, {b.low.x, b.high.y}, px_mm, eye, false, false);
    const SceneBox room = box_of(plan, job, false);
    const Camera camera(eye, room.low, room.high);
    QPolygonF outline;
    for (const Vec2 q : plan.top->above) {
        const Vec2 v = camera.px({q.x, q.y, room.high.z});
        outline << QPointF(v.x, v.y);
    }
    const auto inside = [&](double x, double y) { return outline.containsPoint({x, y}, Qt::OddEvenFill); };
    int off = 0, reds = 0;
    for (int y = 2; y < seen.height() - 2; y += 3)
        for (int x = 2; x < seen.width() - 2; x += 3) {
            const bool red = qRed(seen.pixel(x, y)) > 128 && qGreen(seen.pixel(x, y)) < 100 && qAlpha(seen.pixel(x, y)) > 128;
            reds += red;
            // A pixel off is allowed at the edge: what is two pixels inside or outside must be so.
            const bool all_in = inside(x + 0.5 - 1.2, y + 0.5) && inside(x + 0.5 + 1.2, y + 0.5) && inside(x + 0.5, y + 0.5 - 1.2) &&
                                inside(x + 0.5, y + 0.5 + 1.2);
            const bool all_out = !inside(x + 0.5 - 1.2, y + 0.5) && !inside(x + 0.5 + 1.2, y + 0.5) && !inside(x + 0.5, y + 0.5 - 1.2) &&
                                 !inside(x + 0.5, y + 0.5 + 1.2);
            if (all_in && !red) ++off;
            if (all_out && red) ++off;
        }
    CHECK(reds > 5000);
    CHECK(off == 0);
    // In the middle of the river resin has the colour that it is called.
    Job blue = job;
    blue.pour.colour = "steel blue";
    Pictures pictures(desk.session());
    TopPicture tops(pictures);
    Vec2 corner;
    const QImage above = finished_top(tops, plan, blue, px_mm, &corner);
    const Region* river = nullptr;
    for (const Region& r : plan.top->regions)
        if (r.kind == RegionKind::resin && !r.let_in) river = &r;
    REQUIRE(river);
    const Vec2 mid = centroid(river->above);
    const QColor ink = above.pixelColor(static_cast<int>((mid.x - corner.x) * px_mm), static_cast<int>((corner.y - mid.y) * px_mm));
    CHECK(std::abs(ink.red() - QColor("steelblue").red()) <= 2);
    CHECK(std::abs(ink.blue() - QColor("steelblue").blue()) <= 2);
    // Dragged, and by the keys.
    const double before = shown->eye().turn_deg;
    QTest::mousePress(shown, Qt::LeftButton, {}, {200, 120});
    QTest::mouseMove(shown, {240, 130});
    QTest::mouseRelease(shown, Qt::LeftButton, {}, {240, 130});
    shown->setFocus();
    QTest::keyClick(shown, Qt::Key_Right);
    CHECK(shown->eye().turn_deg != before);
    CHECK(shown->picture({1600, 1000}) != whole);
    desk.click("money_above");
    CHECK_FALSE(shown->picture({800, 500}).isNull());
}

TEST_CASE("the offer of two ways: prices, days and pictures, none of the maker's own figures – prices that are missing are named",
          "[app][money][papers]") {
    Desk desk;
    MoneyPage& page = money(desk, "job-tarn-river");
    auto* ways = desk.find<QTableWidget>("money_ways");
    ways->item(1, 0)->setCheckState(Qt::Checked);
    const auto offered = page.offered();
    REQUIRE(offered.size() == 2);
    std::vector<OfferedWay> all;
    for (const auto& w : offered) all.push_back({w.job.get(), w.plan.get(), w.name, w.picture});
    const QString path = desk.dir.filePath("offer.pdf");
    REQUIRE(write_offer_pdf(path, all, desk.session().shop(), "2026-11-30").isEmpty());
    QProcess p;
    p.start("pdftotext", {"-layout", path, "-"});
    REQUIRE(p.waitForFinished());
    const QString text = QString::fromUtf8(p.readAllStandardOutput());
    for (const auto& w : offered)
        CHECK(text.contains(QString::fromStdString(in_decimals(money_of(*w.plan, *w.job, desk.session().shop()).offer))));
    CHECK(text.contains("narrower river"));
    CHECK(text.contains("30 December 2026"));
    CHECK(text.contains("grows and shrinks"));
    const Money own = money_of(*offered[0].plan, *offered[0].job, desk.session().shop());
    for (const Cents c : {own.cost, own.margin, own.overhead, *own.hour_earns})
        CHECK_FALSE(text.contains(QString::fromStdString(in_decimals(c))));
    CHECK_FALSE(text.contains("Not in these sums"));
    Shop bare = desk.session().shop();
    bare.money.prices = {};
    REQUIRE(write_offer_pdf(path, all, bare, "2026-11-30").isEmpty());
    p.start("pdftotext", {"-layout", path, "-"});
    REQUIRE(p.waitForFinished());
    CHECK(QString::fromUtf8(p.readAllStandardOutput()).contains("Not in these sums"));
    CHECK_FALSE(write_offer_pdf(path, {}, bare, "2026-11-30").isEmpty());
    const QString buy = desk.dir.filePath("buy.pdf");
    CHECK(write_shopping_pdf(buy, *offered[0].job, *offered[0].plan, desk.session().shop()).isEmpty());
}
