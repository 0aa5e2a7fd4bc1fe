// Slabs brought in each way: photograph, scan, drawing, grown log; and what is said when a file is wrong.
#include <QCheckBox>
#include <QFile>
#include <QImage>

#include <cmath>

#include "app/ground/slow/long_work.h"
#include "app/pages/photo/photo_page.h"
#include "app/steps/rack/rack_row.h"
#include "app/steps/rack/tape_panel.h"
#include "core/ground/geometry/noise.h"
#include "core/material/drawing/drawing.h"
#include "core/material/scan/scan.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {
QString written(const Desk& desk, const char* name, const std::string& bytes) {
    const QString path = desk.dir.filePath(name);
    QFile f(path);
    REQUIRE(f.open(QIODevice::WriteOnly));
    REQUIRE(f.write(bytes.data(), static_cast<qint64>(bytes.size())) == static_cast<qint64>(bytes.size()));
    return path;
}
}  // namespace

TEST_CASE("a drawing becomes a slab, and the slab a drawing again", "[app]") {
    Desk desk;
    const std::size_t before = desk.session().documents().slabs.size();
    desk.window->bring_drawing(
        written(desk, "offcut.svg", "<svg width='900mm' viewBox='0 0 900 400'><path d='M0 0 H900 V380 L0 400 Z'/></svg>"));
    desk.wait();
    REQUIRE(desk.session().documents().slabs.size() == before + 1);
    CHECK(desk.session().slab()->name == "offcut");
    CHECK(bounds(desk.session().slab()->outline->a).width() == Approx(900));
    CHECK(desk.find<QPushButton>("look_thickness")->property("known") == false);
    // One station with a caliper's reading is enough to lay a top on it.
    desk.click("type_tape");
    desk.cell(0, 5, "52");
    CHECK(desk.session().plan()->shape()->usable);
    const QString out = desk.dir.filePath("back.dxf");
    REQUIRE(desk.window->export_drawing(out, "slab"));
    QFile f(out);
    REQUIRE(f.open(QIODevice::ReadOnly));
    CHECK(bounds(slab_from_drawing(read_dxf(f.readAll().toStdString()), 1).outline.a).width() == Approx(900));
    // What does not close is said, and nothing changes.
    desk.window->bring_drawing(written(desk, "open.svg", "<svg width='9mm' viewBox='0 0 9 9'><path d='M0 0 L9 0 L9 9'/></svg>"));
    desk.wait();
    CHECK(desk.text("status").contains("no line closes"));
    CHECK(desk.session().documents().slabs.size() == before + 1);
    desk.click("undo");
    desk.click("undo");
    CHECK(desk.session().documents().slabs.size() == before);
}

TEST_CASE("a scan becomes a slab in the background", "[app]") {
    Desk desk;
    const std::size_t before = desk.session().documents().slabs.size();
    std::vector<CloudPoint> points;
    Dice d(1, 1);
    while (points.size() < 60000) {
        const double x = d.between(-200, 1600);
        const double y = d.between(-400, 400);
        const bool wood = x > 0 && x < 1400 && std::abs(y) < 260 - 0.03 * x;
        points.push_back(
            {static_cast<float>(x), static_cast<float>(y), static_cast<float>((wood ? 55 + 2 * std::sin(x / 400) : 0) + d.normal(0.2))});
    }
    desk.window->bring_scan(written(desk, "yard.ply", to_ply(points)));
    desk.wait();
    REQUIRE(desk.session().documents().slabs.size() == before + 1);
    const Slab& slab = *desk.session().slab();
    CHECK(slab.name == "yard");
    CHECK(bounds(slab.outline->a).width() == Approx(1400).margin(8));
    CHECK(desk.session().plan()->shape()->usable);
    CHECK(slab.notes.find("one face") != std::string::npos);
    REQUIRE(desk.session().store()->attachment(slab.scan));
    CHECK(read_cloud(*desk.session().store()->attachment(slab.scan)).points.size() > 20000);
    const std::string whole = to_ply(points);
    desk.window->bring_scan(written(desk, "short.ply", whole.substr(0, whole.size() / 2)));
    desk.wait();
    CHECK(desk.text("status").contains("cut short"));
    CHECK(desk.session().documents().slabs.size() == before + 1);
}

TEST_CASE("a practice log is grown, turned and sawn", "[app]") {
    Desk desk;
    const std::size_t before = desk.session().documents().slabs.size();
    desk.window->show_grow();
    QApplication::processEvents();
    desk.type("grow_length", "1.2 m");
    desk.type("grow_butt", "400");
    const QString about = desk.text("grow_about");
    CHECK(about.contains("slabs of 60"));
    // Dragging near its middle shifts the cuts, further out it turns the log.
    auto* end = desk.find<QWidget>("log_end");
    QTest::mousePress(end, Qt::LeftButton, {}, QPoint(end->width() / 2 + 180, end->height() / 2));
    QMouseEvent move(QEvent::MouseMove, QPointF(end->width() / 2.0, end->height() / 2.0 - 180), end->mapToGlobal(QPointF(0, 0)),
                     Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(end, &move);
    CHECK(std::abs(desk.find<QLineEdit>("grow_turn")->text().remove("°").toDouble()) == Approx(90).margin(3));
    desk.click("grow_saw");
    desk.wait();
    const std::size_t made = desk.session().documents().slabs.size() - before;
    CHECK(made >= 3);
    CHECK(desk.session().step() == step_key::rack);
    const Slab& slab = *desk.session().slab();
    CHECK(slab.sequence == 1);
    REQUIRE(slab.picture_a);
    CHECK(desk.session().store()->has_attachment(slab.picture_a->key));
    desk.click("undo");
    CHECK(desk.session().documents().slabs.size() == before);
}

TEST_CASE("a photograph becomes a slab, a second one its other face", "[app]") {
    Desk desk;
    const std::size_t before = desk.session().documents().slabs.size();
    // A brown slab on a grey floor, straight from above, 1 mm a pixel; a frame of 900 × 500 around it.
    const auto photo = [&](const char* name, int extra) {
        QImage image(1100, 640, QImage::Format_RGB32);
        Dice d(4, 4);
        for (int y = 0; y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x) {
                const int edge = 150 - extra + (x / 20) % 3;
                const bool wood = x > 120 && x < 980 && y > edge && y < 640 - edge;
                const auto n = [&] { return static_cast<int>(d.normal(5)); };
                image.setPixel(x, y, wood ? qRgb(176 + n(), 128 + n(), 82 + n()) : qRgb(98 + n(), 100 + n(), 104 + n()));
            }
        const QString path = desk.dir.filePath(name);
        REQUIRE(image.save(path, "PNG"));
        return path;
    };
    desk.window->bring_photo(written(desk, "words.jpg", "not a picture at all"));
    desk.wait();
    CHECK(desk.text("status").contains("as a picture"));
    desk.window->bring_photo(photo("bench.png", 0));
    desk.wait();
    QApplication::processEvents();
    auto* page = desk.find<PhotoPage>("photo_page");
    PhotoCanvas& canvas = page->canvas();
    desk.type("photo_width", "900");
    desk.type("photo_height", "500");
    const Vec2 frame[] = {{100, 70}, {1000, 70}, {1000, 570}, {100, 570}};
    for (std::size_t i = 0; i < 4; ++i) {
        const QPointF to = canvas.shown(frame[i]);
        QTest::mousePress(&canvas, Qt::LeftButton, {}, canvas.shown(canvas.corners[i]).toPoint());
        QMouseEvent move(QEvent::MouseMove, to, canvas.mapToGlobal(to), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&canvas, &move);
        QTest::mouseRelease(&canvas, Qt::LeftButton, {}, to.toPoint());
    }
    desk.click("photo_find");
    desk.wait();
    CHECK(desk.text("photo_about").contains("the edge within"));
    desk.click("photo_take");
    REQUIRE(desk.session().documents().slabs.size() == before + 1);
    const std::string id = desk.session().slab()->id;
    CHECK(bounds(desk.session().slab()->outline->a).width() == Approx(860).margin(4));
    CHECK(bounds(desk.session().slab()->outline->a).height() == Approx(338).margin(5));
    REQUIRE(desk.session().store()->has_attachment(desk.session().slab()->picture_a->key));
    // The other face is 12 mm wider on each side.
    desk.window->bring_photo(photo("below.png", 12));
    desk.wait();
    for (std::size_t i = 0; i < 4; ++i) canvas.corners[i] = frame[i];
    desk.click("photo_find");
    desk.wait();
    desk.click("photo_other");
    const Slab& slab = desk.session().documents().slabs.at(id);
    REQUIRE(slab.picture_b);
    CHECK(slab.picture_b->mirrored);
    const auto a = cut_at_x(slab.outline->a, 400);
    const auto b = cut_at_x(slab.outline->b, 400);
    CHECK((b[0].to - b[0].from) - (a[0].to - a[0].from) == Approx(24).margin(4));
}

TEST_CASE("the rack is filtered, sorted and walked through by keys", "[app]") {
    Desk desk;
    auto* row = desk.find<RackRow>("rack_row");
    CHECK(row->shown().size() == 21);
    auto* filter = desk.find<QLineEdit>("rack_filter");
    filter->setFocus();
    QTest::keyClicks(filter, "butternut length>2.4m");
    CHECK(row->shown().size() == 4);
    CHECK(desk.text("rack_count") == "4 of 21 slabs");
    filter->setText("butternut length>2.4m colour>3");
    CHECK(desk.text("rack_count").contains("colour"));
    CHECK(row->shown().size() == 4);  // what was shown stays
    filter->setText("butternut");
    desk.find<QWidget>("rack_order");
    QMetaObject::invokeMethod(desk.window->findChild<QObject*>("rack_order"), "setCurrentIndex", Q_ARG(int, 3));
    CHECK(row->shown().front() == "slab-butternut-5");  // the shortest
    const QRectF place = row->place_of(row->shown().at(1));
    QTest::mouseClick(row, Qt::LeftButton, {}, place.center().toPoint());
    CHECK(QString::fromStdString(desk.session().slab()->id) == row->shown().at(1));
    QTest::keyClick(row, Qt::Key_Right);
    CHECK(QString::fromStdString(desk.session().slab()->id) == row->shown().at(2));
}

TEST_CASE("a slab is copied, cut in two and retired, and all of it undone", "[app]") {
    Desk desk;
    const auto before = desk.session().documents();
    desk.click("copy_slab");
    CHECK(desk.session().documents().slabs.size() == before.slabs.size() + 1);
    CHECK(desk.session().slab()->name == "Sycamore 3 (copy)");
    desk.session().set_gauge(1300);
    desk.click("split_slab");
    CHECK(desk.session().slab()->name == "Sycamore 3 (copy), left");
    CHECK(desk.session().plan()->shape()->x1 == Approx(1300));
    auto* row = desk.find<RackRow>("rack_row");
    CHECK(row->shown().size() == 23);  // the two pieces, without what they were cut from
    desk.click("retire_slab");
    CHECK(row->shown().size() == 22);
    for (int i = 0; i < 3; ++i) desk.click("undo");
    CHECK(desk.session().documents() == before);
}

TEST_CASE("offcuts go back to the rack once", "[app]") {
    Desk desk;
    desk.click("step_lay");
    desk.type("top_length", "1.8 m");
    desk.click("lay_best");
    desk.wait();
    const std::size_t before = desk.session().documents().slabs.size();
    desk.click("cuts_done");
    const std::size_t after = desk.session().documents().slabs.size();
    CHECK(after > before);
    desk.click("cuts_done");
    CHECK(desk.session().documents().slabs.size() == after);
    CHECK(desk.text("status").contains("already"));
}

TEST_CASE("a new reading of moisture keeps the one before", "[app]") {
    Desk desk;
    desk.type("slab_moisture", "9.1");
    const Slab& s = *desk.session().slab();
    CHECK(*s.moisture_pct == 9.1);
    REQUIRE(s.moisture_log.size() == 1);
    CHECK(s.moisture_log[0].pct == 9.5);
    CHECK(s.moisture_log[0].on == "2026-11-20");
}

TEST_CASE("the tape repeats the last lean and takes every so far", "[app]") {
    Desk desk;
    desk.click("new_slab");
    desk.cell(0, 1, "300");
    desk.cell(0, 2, "300");
    desk.cell(0, 3, "312");
    desk.cell(1, 1, "310");
    CHECK(*desk.session().slab()->tape.stations.at(1).other_left_mm == 322);
    desk.cell(2, 1, "305");
    desk.cell(1, 0, "every 1 ft");
    CHECK(desk.session().slab()->tape.stations.at(1).x_mm == Approx(304.8));
    CHECK(desk.session().slab()->tape.stations.at(2).x_mm == Approx(609.6));
    desk.cell(1, 0, "every so often");
    CHECK(desk.text("tape_hint").contains("every so often"));
    CHECK(desk.session().slab()->tape.stations.at(1).x_mm == Approx(304.8));
}

TEST_CASE("a flaw is painted over the slab in one stroke", "[app]") {
    Desk desk;
    Bench& b = desk.window->bench();
    const std::size_t before = desk.session().slab()->flaws.size();
    const auto paint = [&](FlawKind kind, std::initializer_list<Vec2> line) {
        QMetaObject::invokeMethod(desk.find<QComboBox>("flaw_kind"), "activated", Q_ARG(int, static_cast<int>(kind)));
        desk.click("draw_flaw");
        REQUIRE(b.drawing());
        std::vector<QPointF> at;
        for (auto p = line.begin(); p + 1 != line.end(); ++p)
            for (int i = 0; i < 12; ++i) at.push_back(b.map().px(lerp(*p, *(p + 1), i / 12.0)));
        QTest::mousePress(&b, Qt::LeftButton, {}, at.front().toPoint());
        for (const QPointF& q : at) {
            QMouseEvent move(QEvent::MouseMove, q, b.mapToGlobal(q), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(&b, &move);
        }
        QTest::mouseRelease(&b, Qt::LeftButton, {}, at.back().toPoint());
        QApplication::processEvents();
    };
    paint(FlawKind::soft, {{1000, 100}, {1150, 100}, {1150, 200}, {1000, 200}, {1000, 105}});
    REQUIRE(desk.session().slab()->flaws.size() == before + 1);
    const Flaw soft = desk.session().slab()->flaws.back();
    CHECK(soft.kind == FlawKind::soft);
    CHECK(area(soft.outline) == Approx(15000).epsilon(0.12));
    // A crack is a line: as long as it was painted and a pen wide, through the slab.
    paint(FlawKind::crack, {{300, -200}, {700, -200}});
    const Flaw crack = desk.session().slab()->flaws.back();
    CHECK(crack.through);
    CHECK(bounds(crack.outline).width() == Approx(370).margin(45));
    CHECK(bounds(crack.outline).height() == Approx(3).margin(4));
    desk.click("undo");
    CHECK(desk.session().slab()->flaws.size() == before + 1);
}

TEST_CASE("a depth gauge fills the heights, one press after the other", "[app]") {
    Desk desk;
    desk.session().look_at("slab-butternut-5");  // no heights yet
    desk.click("heights_grid");
    const HeightGrid before = desk.session().slab()->heights_a;
    REQUIRE(before.x_mm.size() > 3);
    QProcess gauge;
    gauge.start(STAND_IN, {"gauge"});
    REQUIRE(gauge.waitForReadyRead());
    const QString line = QString::fromUtf8(gauge.readLine()).trimmed();
    REQUIRE(line.startsWith("/dev/"));
    auto* panel = desk.find<TapePanel>("tape_panel");
    CHECK_FALSE(panel->listen_to_probe("/dev/no-such-line"));
    CHECK(desk.text("tape_hint").contains("can't be opened"));
    REQUIRE(panel->listen_to_probe(line));
    QTRY_COMPARE_WITH_TIMEOUT(desk.find<QPushButton>("tape_probe")->text().contains("stand-in"), true, 3000);
    desk.find<QTableWidget>("tape_table")->setCurrentCell(0, 1);
    gauge.write("3.25\n4.5\n");
    QTRY_VERIFY_WITH_TIMEOUT(desk.session().slab()->heights_a.at(1, 0).has_value(), 3000);
    CHECK(*desk.session().slab()->heights_a.at(0, 0) == Approx(3.25));
    CHECK(*desk.session().slab()->heights_a.at(1, 0) == Approx(4.5));
    // A dial on the sled rises where the wood is higher: the same bump, the other sign.
    auto* upward = desk.find<QCheckBox>("tape_upward");
    REQUIRE(upward->isVisible());
    upward->click();
    gauge.write("1.5\n");
    QTRY_VERIFY_WITH_TIMEOUT(desk.session().slab()->heights_a.at(2, 0).has_value(), 3000);
    CHECK(*desk.session().slab()->heights_a.at(2, 0) == Approx(-1.5));
    desk.click("undo");
    upward->click();
    desk.find<QTableWidget>("tape_table")->setCurrentCell(2, 1);
    gauge.write("R 7.00 mm*00\n");  // garbled on the way
    QTRY_VERIFY_WITH_TIMEOUT(desk.text("tape_hint").contains("garbled"), 3000);
    CHECK_FALSE(desk.session().slab()->heights_a.at(2, 0).has_value());
    gauge.write("E battery is low\n");
    QTRY_VERIFY_WITH_TIMEOUT(desk.text("tape_hint").contains("battery"), 3000);
    desk.click("undo");
    CHECK_FALSE(desk.session().slab()->heights_a.at(1, 0).has_value());
    desk.click("tape_probe");  // let go
    CHECK(desk.find<QPushButton>("tape_probe")->text().contains("depth gauge"));
    gauge.closeWriteChannel();
    CHECK(gauge.waitForFinished());
}

TEST_CASE("a scan's whole cloud is what flattening works on", "[app]") {
    Desk desk;
    // A groove narrower than the 20 mm cells: the coarse heights hardly see it.
    std::vector<CloudPoint> points;
    Dice d(2, 2);
    while (points.size() < 400000) {
        const double x = d.between(-100, 1300);
        const double y = d.between(-250, 250);
        const bool wood = x > 0 && x < 1200 && std::abs(y) < 200;
        const bool ridge = wood && std::abs(x - 600) < 7;
        points.push_back(
            {static_cast<float>(x), static_cast<float>(y), static_cast<float>((wood ? 50 : 0) - (ridge ? 4 : 0) + d.normal(0.05))});
    }
    desk.window->bring_scan(written(desk, "grooved.ply", to_ply(points)));
    desk.wait();
    REQUIRE(desk.session().slab()->name == "grooved");
    CHECK_FALSE(desk.session().slab()->scan.empty());
    const auto nodes = [&] { return desk.session().plan()->shape()->top.z().size(); };
    QTRY_VERIFY_WITH_TIMEOUT(nodes() > 3000, 5000);  // the fine heights are there
    const SlabShape& fine = *desk.session().plan()->shape();
    double deepest = 1e9;
    for (double x = 570; x < 630; x += 2) deepest = std::min(deepest, fine.top.at({x, 0}));
    CHECK(deepest < fine.top.at({400, 0}) - 2.5);
    // A height typed by hand counts for more than the cloud.
    desk.click("type_tape");
    desk.find<TapePanel>("tape_panel")->show_sheet(TapePanel::Sheet::heights_a);
    desk.cell(5, 3, "1.5");
    CHECK(desk.session().slab()->scan.empty());
    CHECK(nodes() < 3000);
}

TEST_CASE("two known lengths give the scale of a photograph taken straight from above", "[app]") {
    Desk desk;
    QImage image(1000, 560, QImage::Format_RGB32);
    Dice d(6, 6);
    for (int y = 0; y < image.height(); ++y)
        for (int x = 0; x < image.width(); ++x) {
            const bool wood = x > 100 && x < 900 && y > 130 && y < 430;
            const auto n = [&] { return static_cast<int>(d.normal(5)); };
            image.setPixel(x, y, wood ? qRgb(170 + n(), 122 + n(), 80 + n()) : qRgb(98 + n(), 100 + n(), 104 + n()));
        }
    const QString path = desk.dir.filePath("above.png");
    REQUIRE(image.save(path, "PNG"));
    desk.window->bring_photo(path);
    desk.wait();
    QApplication::processEvents();
    desk.click("known_lengths");
    PhotoCanvas& canvas = desk.find<PhotoPage>("photo_page")->canvas();
    CHECK(canvas.known == PhotoCanvas::Known::lengths);
    // 800 px along are 1600 mm, 300 px across are 600.
    canvas.corners = {Vec2{100, 280}, Vec2{900, 280}, Vec2{500, 130}, Vec2{500, 430}};
    desk.type("photo_width", "1.6 m");
    desk.type("photo_height", "600");
    desk.click("photo_find");
    desk.wait();
    desk.click("photo_take");
    CHECK(bounds(desk.session().slab()->outline->a).width() == Approx(1600).margin(8));
    CHECK(bounds(desk.session().slab()->outline->a).height() == Approx(600).margin(8));
    // What is typed of it on the rack: the day it was sawn, its number in the log, its price a board foot.
    desk.type("slab_sawn", "30 March");
    CHECK(desk.text("status").contains("not a date"));
    desk.type("slab_sawn", "2025-03-30");
    CHECK(desk.session().slab()->sawn_on == "2025-03-30");
    desk.type("slab_sequence", "4");
    CHECK(desk.session().slab()->sequence == 4);
    desk.click("type_tape");
    desk.cell(0, 5, "50");
    desk.type("slab_price", "200");
    CHECK(desk.text("label_rack.price").contains("board foot"));
}

TEST_CASE("a job travels with its slabs and their pictures", "[app]") {
    Desk desk;
    desk.window->finish_growing();
    desk.session().set_job("job-tarn-river");
    const QString file = desk.dir.filePath("river.json");
    REQUIRE(desk.window->export_job(file));
    const Job job = *desk.session().job();
    // Into a shop that has neither the slabs nor the pictures.
    Desk other(false);
    other.session().create(other.dir.filePath("b.shop"), Documents());
    REQUIRE(other.window->import_job(file));
    REQUIRE(other.session().job()->leaves.size() == 2);
    CHECK(other.session().job()->leaves == job.leaves);
    for (const Leaf& l : job.leaves) {
        const Slab& s = other.session().documents().slabs.at(l.slab);
        REQUIRE(s.picture_a);
        CHECK(other.session().store()->has_attachment(s.picture_a->key));
        CHECK(other.session().store()->attachment(s.picture_a->key) == desk.session().store()->attachment(s.picture_a->key));
    }
}
