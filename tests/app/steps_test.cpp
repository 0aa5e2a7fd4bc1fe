// The steps of a job, driven.
#include <QClipboard>
#include <QRadioButton>

#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/flat/laid.h"

#include "tests/app/desk.h"

using namespace yb;

TEST_CASE("a slab is typed by tape and draws itself", "[app]") {
    Desk desk;
    desk.click("new_slab");
    REQUIRE(desk.session().slab());
    const char* rows[][3] = {{"300", "310", "52"}, {"1 ft", "320 mm", "2\""}, {"295", "12 5/8\"", "51"}};
    for (int r = 0; r < 3; ++r) {
        desk.cell(r, 1, rows[r][0]);
        desk.cell(r, 2, rows[r][1]);
        desk.cell(r, 5, rows[r][2]);
    }
    const auto& stations = desk.session().slab()->tape.stations;
    REQUIRE(stations.size() == 3);
    CHECK(stations[1].x_mm == 300);
    CHECK(*stations[1].left_mm == Approx(304.8));
    CHECK(*stations[1].thickness_mm == Approx(50.8));
    CHECK(*stations[2].right_mm == Approx(320.675));
    CHECK(desk.text("answer_rack.size").contains("600"));
    CHECK(desk.session().plan()->shape()->usable);

    // A wrong text stays where it was typed and says what is wrong.
    desk.cell(1, 1, "3o4");
    CHECK(desk.find<QTableWidget>("tape_table")->item(1, 1)->text() == "3o4");
    CHECK(desk.text("tape_hint").contains("3o4"));
    CHECK(*desk.session().slab()->tape.stations[1].left_mm == Approx(304.8));
    desk.cell(1, 1, "306");
    CHECK(*desk.session().slab()->tape.stations[1].left_mm == 306);

    // From a spreadsheet.
    auto* t = desk.find<QTableWidget>("tape_table");
    t->setFocus();
    t->setCurrentCell(3, 0);
    QApplication::clipboard()->setText("900\t290\t300\n1200\t285\t301\n");
    QTest::keyClick(t, Qt::Key_V, Qt::ControlModifier);
    QApplication::processEvents();
    CHECK(desk.session().slab()->tape.stations.size() == 5);
    CHECK(*desk.session().slab()->tape.stations[4].right_mm == 301);
}

TEST_CASE("the top is dragged until it is short, and undone after a restart", "[app]") {
    Desk desk;
    desk.click("step_lay");
    CHECK(desk.text("label_lay.fit") == "It fits: narrowest");
    const BenchMap& map = desk.window->bench().map();
    const Placement before = desk.session().job()->first().placement;
    const QPointF mid = map.px(Vec2{before.x_mm + 100, before.y_mm + 150});
    desk.drag(mid, mid + QPointF(400 * map.scale, 0));
    CHECK(desk.session().job()->first().placement.x_mm == Approx(before.x_mm + 400).margin(6));
    CHECK(desk.text("label_lay.fit") == "Short by");
    const Shortfall s = desk.session().plan()->lay->short_at.front();
    CHECK(desk.text("answer_lay.fit").contains(QString::fromStdString(print(mm(s.mm), Units::metric()).number)));
    CHECK(desk.text("note_lay.fit").contains("right end"));
    CHECK(desk.text("caution_lay.short").startsWith("Stop: Short by"));

    desk.restart();
    desk.click("step_lay");
    CHECK(desk.text("label_lay.fit") == "Short by");
    desk.click("undo");
    CHECK(desk.session().job()->first().placement == before);
    CHECK(desk.text("label_lay.fit") == "It fits: narrowest");
    desk.click("redo");
    CHECK(desk.text("label_lay.fit") == "Short by");
    desk.click("lay_best");
    desk.wait();
    CHECK(desk.text("label_lay.fit") == "It fits: narrowest");
}

TEST_CASE("the top is typed in any unit and nudged by keys", "[app]") {
    Desk desk;
    desk.click("step_lay");
    desk.type("top_length", "6' 6\"");
    CHECK(desk.session().job()->top.length_mm == Approx(1981.2));
    desk.type("top_width", "wide");
    CHECK(desk.find<QLineEdit>("top_width")->text() == "wide");
    CHECK(desk.text("top_width_hint").contains("‘wide’ is not a number"));
    CHECK(desk.session().job()->top.width_mm == 930);
    desk.type("top_width", "900");
    CHECK(desk.session().job()->top.width_mm == 900);
    const double x = desk.session().job()->first().placement.x_mm;
    Bench& b = desk.window->bench();
    b.setFocus();
    QTest::keyClick(&b, Qt::Key_BracketRight);
    CHECK(b.picked() == "top");
    QTest::keyClick(&b, Qt::Key_Right, Qt::ShiftModifier);
    CHECK(desk.session().job()->first().placement.x_mm == Approx(x + 10));
    const double a = desk.session().job()->first().placement.angle_deg;
    QTest::keyClick(&b, Qt::Key_Left, Qt::ControlModifier);
    CHECK(desk.session().job()->first().placement.angle_deg == Approx(a + 0.1));
    desk.click("units");
    CHECK(desk.text("answer_lay.rough").contains("″"));
    CHECK(desk.find<QLineEdit>("top_length")->text() == "78″");
}

TEST_CASE("a shim is moved and tells its new height", "[app]") {
    Desk desk;
    desk.click("step_flat");
    const Shim before = desk.session().plan()->flat->shims.at(0);
    const BenchMap& map = desk.window->bench().map();
    const QPointF at = map.px(Vec2{before.at.x_mm, before.at.y_mm});
    desk.drag(at, at + QPointF(60, -30));
    const Shim after = desk.session().plan()->flat->shims.at(0);
    CHECK(after.at.x_mm == Approx(before.at.x_mm + 60 / map.scale).margin(5));
    CHECK(after.height_mm != Approx(before.height_mm).margin(0.01));
    REQUIRE(desk.session().documents().jobs.at("job-reading-table").first().supports.size() == 4);
    auto* radio = desk.find<QRadioButton>("choice_flat.finish_thickest");
    radio->click();
    CHECK(desk.session().plan()->flat->thickness_mm == Approx(desk.session().plan()->flat->most_mm));
    QTest::keyClick(desk.window.get(), Qt::Key_W);
    CHECK(desk.find<QLabel>("work_flat.thickness")->isVisible());
    CHECK(desk.text("work_flat.thickness").contains("Source"));
}

TEST_CASE("the gauge goes where a caution points", "[app]") {
    Desk desk;
    desk.click("step_lay");
    desk.session().set_gauge(2000);
    desk.click("show_lay.end_crack");
    CHECK(desk.session().gauge_mm() == Approx(find_caution(desk.session().plan()->lay->cautions, "lay.end_crack")->at->x));
}

TEST_CASE("a void is drawn on the face and filled", "[app]") {
    Desk desk;
    QMetaObject::invokeMethod(desk.find<QComboBox>("flaw_kind"), "activated", Q_ARG(int, static_cast<int>(FlawKind::void_)));
    desk.click("draw_flaw");
    Bench& b = desk.window->bench();
    REQUIRE(b.drawing());
    for (const Vec2 p : {Vec2{1900, -200}, Vec2{2000, -200}, Vec2{2000, -120}, Vec2{1900, -120}})
        QTest::mouseClick(&b, Qt::LeftButton, {}, b.map().px(p).toPoint());
    QTest::keyClick(&b, Qt::Key_Return);
    REQUIRE(desk.session().slab()->flaws.size() == 4);
    CHECK(area(desk.session().slab()->flaws.back().outline) == Approx(8000).epsilon(0.15));
    CHECK_FALSE(desk.session().slab()->flaws.back().through);
    desk.click("step_fill");
    CHECK(desk.text("label_fill.mix") == "Resin to mix");
    // Drawn last it is the last void; what it is filled with stands on its own slip.
    desk.pick(("void " + std::to_string(desk.session().plan()->fill->voids.size())).c_str());
    CHECK(desk.text("slip_title").contains("void"));
    CHECK(desk.find<QRadioButton>("choice_fill.flaw-1_open"));
    CHECK(desk.text("label_void.mix") == "Resin to mix");
}

TEST_CASE("a plate is dragged past the edge and the program says so", "[app]") {
    Desk desk;
    desk.click("step_under");
    const BenchMap& map = desk.window->bench().map();
    const LegPlate plate = desk.session().job()->under.plates.at(0);
    const QPointF at = map.px(desk.session().job()->first().placement.frame().to_slab({plate.u_mm, plate.v_mm + 60}));
    desk.drag(at, at + QPointF(0, -260 * map.scale));
    CHECK(desk.session().job()->under.plates.at(0).v_mm > 200);
    CHECK(desk.text("caution_under.outside").contains("stands past the edge"));
}

TEST_CASE("the sheet goes to PDF with its numbers", "[app]") {
    Desk desk;
    desk.session().set_step(step_key::sheets);
    const QString pdf = desk.dir.filePath("sheet.pdf");
    REQUIRE(desk.window->save_pdf(pdf));
    const QString text = text_of_pdf(pdf);
    const Plan& p = *desk.session().plan();
    const auto has = [&](Quantity q) { return text.contains(QString::fromStdString(format(q, Units::metric()))); };
    CHECK(text.contains("Reading table, seed library"));
    CHECK(has(fine(p.flat->thickness_mm)));
    CHECK(has(fine(p.under->leg_mm)));
    CHECK(has(kg(p.under->top_kg)));
    for (const Shim& s : p.flat->shims) CHECK(has(fine(laid_mm(s))));
    for (const Slot& s : p.under->slots)
        if (!s.round) CHECK(has(fine(s.length_mm)));
    for (const VoidPlan& v : p.fill->voids)
        for (const Lift& l : v.lifts) CHECK(has(litres(l.a_l)));
    CHECK(text.contains("Stop:"));
    // A page a matter: the top, cuts, flattening, voids, the underside twice, the base, what is to be minded.
    CHECK(text.count('\f') == 13);
    CHECK_FALSE(desk.window->save_pdf("/nowhere/sheet.pdf"));
    CHECK(desk.text("status").contains("can't be written"));
}

TEST_CASE("a full disk keeps what was typed and takes it later", "[app]") {
    Desk desk;
    desk.click("step_lay");
    desk.session().store()->limit_pages(1);
    for (int i = 0; i < 200 && !desk.session().unsaved(); ++i)
        desk.session().edit_job("notes", [&](Job& j) { j.notes = std::string(20000 + static_cast<std::size_t>(i), 'x'); });
    REQUIRE(desk.session().unsaved());
    CHECK(desk.text("status").contains("full"));
    desk.type("top_length", "1900");
    CHECK(desk.session().job()->top.length_mm == 1900);
    desk.session().store()->limit_pages(1000000);
    desk.click("try_again");
    CHECK_FALSE(desk.session().unsaved());
    desk.restart();
    CHECK(desk.session().job()->top.length_mm == 1900);
}

TEST_CASE("a job goes out and comes in", "[app]") {
    Desk desk;
    const QString path = desk.dir.filePath("job.json");
    REQUIRE(desk.window->export_job(path));
    const Job before = *desk.session().job();
    const std::size_t jobs = desk.session().documents().jobs.size();
    REQUIRE(desk.window->import_job(path));
    CHECK(desk.session().documents().jobs.size() == jobs + 1);
    CHECK(desk.session().job()->top == before.top);
    QFile f(path);
    REQUIRE(f.open(QIODevice::WriteOnly));
    f.write("{ \"format\": \"young-burl job\"");
    f.close();
    CHECK_FALSE(desk.window->import_job(path));
    CHECK(desk.text("status").contains("cut short"));
    CHECK(desk.session().documents().jobs.size() == jobs + 1);
}

TEST_CASE("the program for a machine is written for each side of the leaf in hand", "[app][gcode]") {
    Desk desk;
    const auto program = [&](const QString& path) {
        QFile f(path);
        REQUIRE(f.open(QIODevice::ReadOnly));
        return QString::fromUtf8(f.readAll());
    };
    const QString file = desk.dir.filePath("first.ngc");
    REQUIRE(desk.window->export_gcode(file, true));
    CHECK(program(file).startsWith("(Reading table, seed library, Sycamore 3: first side"));
    CHECK(program(file).contains("\nG21\n"));
    CHECK(desk.text("status").contains("run it in the air first"));
    desk.session().set_job("job-tarn-river");
    desk.session().set_leaf(1);
    desk.session().edit_shop("units", other_units);
    REQUIRE(desk.window->export_gcode(file, false));
    CHECK(program(file).contains(QString::fromStdString(desk.session().slabs().at(desk.session().job()->leaves[1].slab).name)));
    CHECK(program(file).contains("second side"));
    CHECK(program(file).contains("\nG20\n"));
    // What can't be made is said, and no file is left of it.
    desk.session().edit_shop("a cutter as wide as the slab", [](Shop& s) { s.sled.cutter_mm = 1500; });
    const QString none = desk.dir.filePath("none.ngc");
    CHECK_FALSE(desk.window->export_gcode(none, true));
    CHECK(desk.text("status").contains("wider than the piece"));
    CHECK_FALSE(QFile::exists(none));
}
