// Tops of several leaves, driven: dragged, turned, ripped, found, put in order, drawn 1:1.
#include <QCheckBox>
#include <QFile>
#include <QRadioButton>
#include <QSlider>

#include "app/ground/slow/long_work.h"
#include "app/ground/theme/theme.h"
#include "app/pages/find/find_page.h"
#include "app/pages/log/log_page.h"
#include "app/steps/sheets/sheet.h"
#include "core/material/drawing/drawing.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/pour/pour.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

QPointF of_top(Desk& desk, Vec2 uv) {
    const Bench& b = desk.window->bench();
    return b.map().px(uv + Vec2{desk.session().job()->top.length_mm / 2, 0});
}

/// Picks an entry of a list on the slip as a person would.
void pick(Desk& desk, const char* name, int entry) {
    auto* combo = desk.seek<QComboBox>(name);
    combo->setCurrentIndex(entry);
    QMetaObject::invokeMethod(combo, "activated", Q_ARG(int, entry));
    QApplication::processEvents();
}

}  // namespace

TEST_CASE("a leaf is dragged where it lies and one undo takes it back", "[app][leaves]") {
    Desk desk;
    desk.session().set_job("job-tarn-river");
    desk.click("step_lay");
    REQUIRE(desk.session().whole());
    const Job before = *desk.session().job();
    const QString river = desk.text("answer_lay.river");
    const Vec2 at = centroid(desk.session().plan()->makeup->leaves[1].part);
    const QPointF from = of_top(desk, at);
    const double scale = desk.window->bench().map().scale;
    desk.drag(from, from + QPointF(0, -30));
    const Job after = *desk.session().job();
    CHECK(after.leaves[0] == before.leaves[0]);
    CHECK_FALSE(after.leaves[1].placement == before.leaves[1].placement);
    const double wider = desk.session().plan()->makeup->joints[0].above.mean_mm - 140;
    CHECK(wider == Approx(30 / scale).margin(8));
    CHECK(desk.text("answer_lay.river") != river);
    desk.click("undo");
    CHECK(*desk.session().job() == before);
    // Drawn over the other bank it is said, and the program goes on.
    desk.drag(from, from + QPointF(0, 120));
    CHECK(desk.text("caution_lay.overlap").contains("overlap"));
    desk.click("even_river");
    desk.wait();
    CHECK(desk.session().plan()->makeup->joints[0].above.narrowest_mm > 0);
    CHECK(desk.session().plan()->makeup->joints[0].above.mean_mm == Approx(140).margin(5));
}

TEST_CASE("a rip line is dragged and the loss is shown, best rips bring it back", "[app][leaves]") {
    Desk desk;
    desk.session().set_job("job-seed-cabinet");
    desk.click("step_lay");
    REQUIRE(desk.session().plan()->makeup->joints.size() == 3);
    const double given = figure(desk.session().plan()->lay->figures, "lay.rip").value.value;
    const JointPlan& seam = desk.session().plan()->makeup->joints[1];
    const QPointF on = of_top(desk, {300, seam.along[50].v});
    desk.drag(on, on + QPointF(0, 12));
    const Plan& p = *desk.session().plan();
    CHECK(figure(p.lay->figures, "lay.rip").value.value > given + 10);  // deeper into both leaves
    CHECK(p.makeup->joints[1].worst_mm == 0);
    desk.click("rips_best");
    desk.wait();
    CHECK(figure(desk.session().plan()->lay->figures, "lay.rip").value.value < given + 12);
    // Drawn the other way it runs into the wane.
    desk.drag(on, on + QPointF(0, -14));
    CHECK(desk.text("caution_lay.joint").contains("bark or wane"));
    CHECK(desk.text("label_lay.fit") != "It fits: narrowest");
}

TEST_CASE("the make-up is chosen, each with its numbers", "[app][leaves]") {
    Desk desk;
    desk.session().set_job("job-tarn-river");
    desk.click("step_lay");
    CHECK(desk.text("gain_lay.makeup_book").contains("given up at the rips"));
    CHECK(desk.text("gain_lay.makeup_open_river").contains("river"));
    desk.find<QRadioButton>("choice_lay.makeup_book")->click();
    QApplication::processEvents();
    CHECK(desk.session().job()->makeup.kind == MakeUp::book);
    CHECK(desk.text("label_lay.drift").contains("Seam drifts"));
    CHECK_FALSE(desk.window->findChild<QLineEdit*>("river_width"));
    // Same line or each its own: more width, no mirror.
    const double same = figure(desk.session().plan()->lay->figures, "lay.rip").value.value;
    desk.find<QRadioButton>("choice_makeup.line_own")->click();
    CHECK(figure(desk.session().plan()->lay->figures, "lay.rip").value.value <= same + 0.5);
    // A rip marked before the faces are flat is a stop.
    desk.click("rips_made");
    CHECK(desk.text("caution_lay.rip_order").startsWith("Stop"));
    desk.click("faces_flat");
    CHECK_FALSE(find_caution(desk.session().plan()->lay->cautions, "lay.rip_order"));
    // A curved joint asks for bushings.
    pick(desk, "joint_kind", 1);
    CHECK(desk.text("label_lay.bushings").contains("Bushings"));
    desk.type("joint_cutter", "11");
    CHECK(desk.text("caution_lay.bushings").contains("bushings"));
    const QString file = desk.dir.filePath("joint.svg");
    REQUIRE(desk.window->export_drawing(file, "joint"));
    QFile f(file);
    REQUIRE(f.open(QIODevice::ReadOnly));
    const Drawing d = read_svg(f.readAll().toStdString());
    CHECK(d.paths.size() >= 3);
    const QString pdf = desk.dir.filePath("joint.pdf");
    REQUIRE(desk.window->export_drawing(pdf, "joint"));
    CHECK(text_of_pdf(pdf).contains("lay the crosses on each other"));
}

TEST_CASE("a leaf is turned, taken off and added from the rack", "[app][leaves]") {
    Desk desk;
    desk.session().set_job("job-open-river");
    desk.click("step_lay");
    desk.pick("leaf 2");
    CHECK(desk.session().leaf() == 1);
    const Placement before = desk.session().job()->leaves[1].placement;
    desk.click("turn_over");
    CHECK(desk.session().job()->leaves[1].placement.turned_over != before.turned_over);
    desk.click("turn_over");
    CHECK(desk.session().job()->leaves[1].placement.x_mm == Approx(before.x_mm).margin(1e-6));
    // Flat and Fill show the leaf picked, on its own slab.
    desk.click("step_flat");
    CHECK(desk.session().plan()->slab()->id == desk.session().job()->leaves[1].slab);
    CHECK(desk.text("label_flat.thickness") == "Finishes at");
    desk.pick("leaf 1");
    CHECK(desk.session().plan()->slab()->id == desk.session().job()->leaves[0].slab);
    desk.click("step_under");
    CHECK(desk.session().whole());
    desk.click("step_lay");
    desk.click("take_off");
    CHECK_FALSE(desk.session().job()->several());
    desk.click("step_rack");
    desk.session().look_at("slab-sycamore-log-4");
    desk.click("add_leaf");
    REQUIRE(desk.session().job()->leaves.size() == 2);
    CHECK(desk.session().step() == step_key::lay);
    CHECK(desk.session().job()->makeup.kind == MakeUp::book);
    desk.click("step_rack");
    desk.click("add_leaf");
    CHECK(desk.text("status").contains("already"));
}

TEST_CASE("what could be made is found and taken", "[app][leaves]") {
    Desk desk;
    desk.click("step_lay");
    desk.click("find_tops");
    auto* page = desk.find<FindPage>("find_page");
    page->wait();
    CHECK(desk.text("find_about").contains("best first"));
    auto* first = desk.find<Ticket>("ticket_1");
    CHECK(first->found().fits);
    const Found best = first->found();
    // Another size and other wishes: the search begins anew.
    desk.type("find_length", "1.2 m");
    desk.find<QCheckBox>("find_rivers")->click();
    desk.find<QSlider>("weigh_money")->setValue(10);
    QTest::qWait(200);
    page->wait();
    for (int i = 1; i <= 5; ++i)
        if (auto* t = desk.window->findChild<Ticket*>(QStringLiteral("ticket_%1").arg(i))) CHECK(t->found().kind != MakeUp::river);
    auto* ticket = desk.find<Ticket>("ticket_1");
    const Found found = ticket->found();
    QTest::mouseClick(ticket, Qt::LeftButton);
    QApplication::processEvents();
    REQUIRE(desk.session().job()->leaves.size() == found.slabs.size());
    CHECK(desk.session().job()->first().slab == found.slabs[0]);
    CHECK(desk.session().job()->top.length_mm == 1200);
    CHECK(desk.session().plan()->lay->fits == found.fits);
    desk.click("undo");
    CHECK(desk.session().job()->first().slab == "slab-sycamore-3");
}

TEST_CASE("a log is put back together and its slabs numbered", "[app][leaves]") {
    Desk desk;
    desk.session().edit("forget the numbers", [](Documents& d) {
        for (auto& [id, s] : d.slabs) s.sequence.reset();
    });
    desk.session().look_at("slab-butternut-log-3");
    desk.window->show_log();
    CHECK(desk.find<QComboBox>("log_tree")->currentText() == "the ferry-lane butternut");
    desk.click("log_order");
    desk.wait();
    CHECK(desk.text("log_about").contains("4 slabs in order"));
    CHECK(desk.text("log_row_1").contains("Ferry butternut 1"));
    CHECK(desk.text("log_row_4").contains("Ferry butternut 4"));
    desk.find<QCheckBox>("pin_place_slab-butternut-log-3")->click();
    desk.click("log_order");
    desk.wait();
    CHECK(desk.text("log_row_3").contains("Ferry butternut 3"));
    desk.click("log_write");
    CHECK(desk.session().documents().slabs.at("slab-butternut-log-3").sequence == 3);
    CHECK(desk.session().documents().slabs.at("slab-butternut-log-4").sequence == 4);
    desk.click("undo");
    CHECK_FALSE(desk.session().documents().slabs.at("slab-butternut-log-3").sequence);
}

TEST_CASE("a slab that is not of the log is named and gets no number", "[app][leaves]") {
    Desk desk;
    desk.session().edit("forget the numbers, and mix one up", [](Documents& d) {
        for (auto& [id, s] : d.slabs) s.sequence.reset();
        d.slabs.at("slab-sycamore-3").tree = "the ferry-lane butternut";
    });
    desk.session().look_at("slab-butternut-log-3");
    desk.window->show_log();
    desk.click("log_order");
    desk.wait();
    CHECK(desk.text("log_about").contains("4 slabs in order"));
    CHECK(desk.text("log_about").contains("was parted by the saw from"));
    CHECK(desk.text("log_row_5").contains(QString::fromStdString(desk.session().documents().slabs.at("slab-sycamore-3").name)));
    desk.click("log_write");
    CHECK_FALSE(desk.session().documents().slabs.at("slab-sycamore-3").sequence);
    CHECK(desk.session().documents().slabs.at("slab-butternut-log-4").sequence);
}

TEST_CASE("a round top, a patch and two halves", "[app][leaves]") {
    Desk desk;
    desk.session().set_job("job-round-hall");
    desk.click("step_lay");
    CHECK(desk.text("label_lay.fit").contains("clear of the bark"));
    desk.type("top_length", "1.1 m");
    CHECK(desk.text("label_lay.fit") == "Short by");
    desk.click("undo");
    desk.click("patch");
    Bench& b = desk.window->bench();
    const Placement at = desk.session().job()->first().placement;
    for (const Vec2 d : {Vec2{-60, -30}, Vec2{60, -30}, Vec2{60, 30}, Vec2{-60, 30}})
        QTest::mouseClick(&b, Qt::LeftButton, {}, b.map().px(Vec2{at.x_mm, at.y_mm} + d).toPoint());
    QTest::keyClick(&b, Qt::Key_Return);
    REQUIRE(desk.session().job()->makeup.patches.size() == 1);
    CHECK(area(desk.session().job()->makeup.patches[0].outline) == Approx(7200).epsilon(0.1));
    CHECK(desk.text("label_lay.patches").contains("Bushings"));
    const Vec2 lay = centroid(desk.session().job()->makeup.patches[0].outline);
    const QPointF on = b.map().px(desk.session().plan()->placement.frame().to_slab(lay));
    desk.drag(on, on + QPointF(40, 0));
    CHECK(centroid(desk.session().job()->makeup.patches[0].outline).x == Approx(lay.x + 40 / b.map().scale).margin(6));
    CHECK(desk.session().job()->first().placement == at);  // the top stayed
    desk.type("top_halves", "430");
    CHECK(std::any_of(desk.session().plan()->cuts->cuts.begin(), desk.session().plan()->cuts->cuts.end(),
                      [](const Cut& c) { return c.set.pattern.find("halves") != std::string::npos; }));
    // Cut from a slab: its wood shows in it, its place and depth can be typed, the rack holds it back.
    auto* from = desk.seek<QComboBox>("patch_1_from");
    CHECK(from->itemText(1).contains("same"));  // what passes best for the wood under it stands first
    from->setCurrentIndex(from->findText("Tarn sycamore 4", Qt::MatchStartsWith));
    CHECK(from->currentText().contains("another wood"));
    Q_EMIT from->activated(from->currentIndex());
    QApplication::processEvents();
    const auto patch = [&]() -> const Patch& { return desk.session().job()->makeup.patches.at(0); };
    CHECK(patch().slab == "slab-sycamore-log-4");
    CHECK_FALSE(find_caution(desk.session().plan()->lay->cautions, "lay.patch_off"));
    CHECK(find_caution(desk.session().plan()->lay->cautions, "lay.patch_wood"));  // sycamore in maple
    const auto colour = [&] {
        const QPoint middle = b.map().px(desk.session().plan()->placement.frame().to_slab(centroid(patch().outline))).toPoint();
        QApplication::processEvents();
        return b.grab().toImage().copy(QRect(middle - QPoint(8, 4), QSize(16, 8)));
    };
    const QImage there = colour();
    const double x = patch().at.x;
    desk.type("patch_1_x", QString::number(x + 300).toLatin1());
    CHECK(patch().at.x == Approx(x + 300));
    CHECK(colour() != there);  // other wood of the same slab
    desk.type("patch_1_deep", "44");
    CHECK(desk.text("caution_lay.patch_deep").contains("leaves"));
    desk.click("undo");
    desk.type("patch_1_y", "0");
    desk.type("patch_1_turn", "30");
    CHECK(desk.text("caution_lay.patch_grain").contains("turned by 30"));
    desk.click("patch_away");
    CHECK(desk.session().job()->makeup.patches.empty());
}

TEST_CASE("a free form comes out of a drawing, over one slab and over four", "[app][leaves]") {
    Desk desk;
    QFile file(desk.dir.filePath("form.svg"));
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write(
        "<svg xmlns='http://www.w3.org/2000/svg' width='1000mm' height='600mm' viewBox='0 0 1000 600'>"
        "<path d='M 50 300 C 50 60 950 60 950 300 C 950 540 50 540 50 300 Z'/></svg>");
    file.close();
    desk.click("step_lay");
    for (const char* job : {"job-reading-table", "job-seed-cabinet"}) {
        INFO(job);
        desk.session().set_job(job);
        desk.window->bring_free_form(file.fileName());
        desk.wait();
        const WantedTop& top = desk.session().job()->top;
        CHECK(top.shape == TopShape::free);
        CHECK(top.length_mm == Approx(900).margin(1));
        CHECK(top.width_mm == Approx(360).margin(2));
        const LayPlan& lay = *desk.session().plan()->lay;
        // A form narrower than the leaves it was laid over leaves joints outside of it: told, and no fit.
        bool outside = false;
        if (desk.session().whole())
            for (const JointPlan& j : desk.session().plan()->makeup->joints) outside |= std::abs(j.along[j.along.size() / 2].v) > 180;
        CHECK(outside == (std::string(job) == "job-seed-cabinet"));
        CHECK(lay.fits == !outside);
        CHECK((find_caution(lay.cautions, "lay.joint_out") != nullptr) == outside);
        // A Bézier oval: its area by Green's theorem, 3/20 of the control polygon's cross products, both halves.
        CHECK(area(lay.outline) == Approx(3.0 / 5 * 900 * 480).epsilon(0.002));
        if (!desk.session().whole()) continue;
        double parts = 0;
        for (const LeafPart& l : desk.session().plan()->makeup->leaves) parts += area(l.part);
        CHECK(parts == Approx(area(lay.outline)).epsilon(0.002));  // the leaves fill it
    }
    QFile open(desk.dir.filePath("open.svg"));
    REQUIRE(open.open(QIODevice::WriteOnly));
    open.write(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='60mm' viewBox='0 0 100 60'><path d='M 5 5 L 60 5 L 50 40'/></svg>");
    open.close();
    const WantedTop before = desk.session().job()->top;
    desk.window->bring_free_form(open.fileName());
    desk.wait();
    CHECK(desk.text("status").contains("no line closes"));
    CHECK(desk.session().job()->top == before);
}

TEST_CASE("the faces are compared along the seam and the sheet carries the cut list", "[app][leaves]") {
    Desk desk;
    desk.window->finish_growing();
    desk.session().set_job("job-seed-cabinet");
    desk.click("step_lay");
    const auto before = desk.session().job()->leaves;
    desk.click("match_pictures");
    desk.wait();
    const QString said = desk.text("status");
    CHECK(said.contains("likeness"));
    // Slid or left as they were, never turned.
    for (std::size_t i = 0; i < before.size(); ++i) {
        CHECK(desk.session().job()->leaves[i].placement.angle_deg == before[i].placement.angle_deg);
        CHECK(desk.session().job()->leaves[i].placement.turned_over == before[i].placement.turned_over);
    }
    CHECK(desk.text("label_lay.cuts").contains("Cuts"));
    desk.click("working_lay.cuts");
    CHECK(desk.text("work_lay.cuts").contains("Rip"));
    const QString pdf = desk.dir.filePath("sheet.pdf");
    REQUIRE(desk.window->save_pdf(pdf));
    const QString text = text_of_pdf(pdf);
    CHECK(text.contains("Cuts, in working order"));
    CHECK(text.contains("after both faces are flat"));
    CHECK(text.contains("rail"));
    CHECK(text.contains("Ferry butternut 2"));
}

TEST_CASE("a free form is painted on the slab", "[app][leaves]") {
    Desk desk;
    desk.click("step_lay");
    desk.click("free_form");
    Bench& b = desk.window->bench();
    REQUIRE(b.drawing());
    for (const Vec2 q : {Vec2{700, -300}, Vec2{1900, -350}, Vec2{2000, 100}, Vec2{1300, 380}, Vec2{750, 250}})
        QTest::mouseClick(&b, Qt::LeftButton, {}, b.map().px(q).toPoint());
    QTest::keyClick(&b, Qt::Key_Return);
    const WantedTop top = desk.session().job()->top;
    CHECK(top.shape == TopShape::free);
    CHECK(top.length_mm == Approx(1300).margin(8));
    CHECK(top.width_mm == Approx(730).margin(8));
    // It lies where it was painted.
    const Box box = bounds(desk.session().plan()->lay->rectangle);
    CHECK(box.low.x == Approx(700).margin(8));
    CHECK(box.high.y == Approx(380).margin(8));
    CHECK(desk.session().plan()->lay->fits);
    desk.type("top_length", "2.9 m");
    CHECK_FALSE(desk.session().plan()->lay->fits);
}

TEST_CASE("from what there is to a cut list, with nothing typed but the wanted size", "[app][leaves]") {
    Desk desk;
    desk.click("new_job");
    desk.click("step_lay");
    desk.window->activateWindow();
    QTest::keyClick(&desk.window->bench(), Qt::Key_F);
    auto* page = desk.find<FindPage>("find_page");
    REQUIRE(page->isVisible());
    desk.type("find_length", "1.9 m");
    desk.type("find_width", "840");
    QTest::qWait(200);
    page->wait();
    // The best that is made of two slabs or more.
    Ticket* several = nullptr;
    for (int i = 1; i <= 24 && !several; ++i)
        if (auto* t = desk.window->findChild<Ticket*>(QStringLiteral("ticket_%1").arg(i)); t && t->found().slabs.size() > 1) several = t;
    REQUIRE(several);
    const Found found = several->found();
    REQUIRE(found.fits);
    several->click();
    QApplication::processEvents();
    const Plan& p = *desk.session().plan();
    CHECK(p.lay->fits);
    CHECK(p.lay->narrowest_mm >= 840 - 0.1);
    CHECK(p.cuts->cuts.size() >= 8);
    const QString pdf = desk.dir.filePath("cuts.pdf");
    REQUIRE(desk.window->save_pdf(pdf));
    const QString text = text_of_pdf(pdf);
    CHECK(text.contains("Cuts, in working order"));
    for (const std::string& id : found.slabs) CHECK(text.contains(QString::fromStdString(desk.session().documents().slabs.at(id).name)));
    CHECK(text.simplified().contains("1900 mm from the other"));
}

TEST_CASE("all that is to be minded and every cut is on paper, however many pages that takes", "[app][leaves]") {
    Desk desk;
    desk.session().set_job("job-seed-cabinet");
    desk.click("step_sheets");
    auto* view = desk.find<SheetView>("sheet_view");
    view->repaint();
    CHECK(view->pages() >= 3);
    CHECK(view->page() == 0);
    const QImage first = view->grab().toImage();
    QTest::mouseClick(view, Qt::LeftButton);
    CHECK(view->page() == 1);
    CHECK(view->grab().toImage() != first);
    view->setFocus();
    QTest::keyClick(view, Qt::Key_PageUp);
    CHECK(view->page() == 0);
    QTest::keyClick(view, Qt::Key_PageUp);
    CHECK(view->page() == 0);
    for (int i = 0; i < view->pages() + 1; ++i) QTest::keyClick(view, Qt::Key_PageDown);
    CHECK(view->page() == view->pages() - 1);
    for (const char* id : {"job-seed-cabinet", "job-reading-table"}) {
        desk.session().set_job(id);
        const QString pdf = desk.dir.filePath("all.pdf");
        REQUIRE(desk.window->save_pdf(pdf));
        const QString text = text_of_pdf(pdf).simplified();
        for (const Caution& c : desk.session().plan()->sheets.cautions) {
            const QString begin = QString::fromStdString(render(c.says, desk.session().units())).left(40);
            INFO(id << " " << begin.toStdString());
            CHECK(text.contains(begin));
        }
        for (const Cut& c : desk.session().plan()->cuts->cuts) {
            // A cut stands in large letters: its sentence goes over several lines.
            const QString begin = QString::fromStdString(render(c.set, desk.session().units())).left(16);
            INFO(begin.toStdString());
            CHECK(text.contains(begin));
        }
    }
}

TEST_CASE("templates of patches are drawn 1:1, grown by what the larger bushing exceeds the cutter", "[app][leaves]") {
    Desk desk;
    desk.click("step_lay");
    const QString file = desk.dir.filePath("patches.svg");
    CHECK_FALSE(desk.window->export_drawing(file, "patches"));
    CHECK(desk.text("status").contains("no patch"));
    desk.session().edit_job("Patch", [](Job& j) {
        j.makeup.patches.push_back({"patch-1", {{0, 0}, {120, 0}, {120, 40}, {0, 40}}, 8, "", {}, 0});
        j.makeup.cutter_mm = 12;  // the smallest pair that differs by 24: 16 and 40
    });
    REQUIRE(desk.window->export_drawing(file, "patches"));
    QFile f(file);
    REQUIRE(f.open(QIODevice::ReadOnly));
    const Drawing d = read_svg(f.readAll().toStdString());
    REQUIRE(d.paths.size() == 2);
    CHECK(area(d.paths[0].points) == Approx(4800).epsilon(1e-3));
    const Box opening = bounds(d.paths[1].points);
    CHECK(opening.width() * d.mm_per_unit.value_or(1) == Approx(120 + 2 * 14).margin(0.05));
    CHECK(opening.height() * d.mm_per_unit.value_or(1) == Approx(40 + 2 * 14).margin(0.05));
    const QString dxf = desk.dir.filePath("patches.dxf");
    REQUIRE(desk.window->export_drawing(dxf, "patches"));
    QFile g(dxf);
    REQUIRE(g.open(QIODevice::ReadOnly));
    CHECK(read_dxf(g.readAll().toStdString()).paths.size() == 2);
}

TEST_CASE("a slab is marked as a cross-cut on the rack, and Under knows", "[app]") {
    Desk desk;
    desk.click("step_under");
    CHECK_FALSE(find_caution(desk.session().plan()->under->cautions, "under.end_grain"));
    desk.click("step_rack");
    pick(desk, "slab_cut", 1);
    CHECK(desk.session().slab()->cross_cut);
    desk.click("step_under");
    CHECK(desk.text("caution_under.end_grain").contains("end grain"));
    CHECK(desk.text("note_under.travel").contains("as much along"));
    desk.click("undo");
    CHECK_FALSE(find_caution(desk.session().plan()->under->cautions, "under.end_grain"));
}

TEST_CASE("the river's litres stand in Pour, in the sheet and under, and an open one has none", "[app]") {
    Desk desk;
    desk.session().set_job("job-tarn-river");
    desk.click("step_pour");
    const Plan& p = *desk.session().plan();
    REQUIRE(p.pour->compartments.size() == 1);
    const double holds = p.top->river_l();
    CHECK(desk.text("answer_pour.mix").contains(QString::number(p.pour->mix_l, 'f', 1)));
    // What is to be mixed is more than the river holds: what is planed off, soaks in and stays in the cup.
    CHECK(p.pour->mix_l > holds);
    const QString pdf = desk.dir.filePath("river.pdf");
    REQUIRE(desk.window->save_pdf(pdf));
    CHECK(text_of_pdf(pdf).contains("river", Qt::CaseInsensitive));
    CHECK(text_of_pdf(pdf).contains("batch"));
    // Moving a bank apart in Lay makes the river wider, so Pour asks for more.
    const double before = p.pour->mix_l;
    desk.session().edit("Apart", [](Documents& d) { move_leaf(d.jobs.at("job-tarn-river"), 1, {0, 10}); });
    CHECK(desk.session().plan()->pour->mix_l > before);
    desk.click("undo");
    CHECK(desk.session().plan()->pour->mix_l == Approx(before));
    desk.session().set_job("job-open-river");
    CHECK(desk.session().plan()->pour->compartments.empty());
    CHECK(desk.text("note_pour.mix").contains("no river"));
}

TEST_CASE("good news is not written in the colour of trouble", "[app]") {
    Desk desk;
    auto* line = desk.find<QLabel>("status");
    Q_EMIT desk.session().trouble("The file can't be written.");
    CHECK(line->text() == "The file can't be written.");
    CHECK(line->styleSheet().contains(theme::colours().madder.name()));
    Q_EMIT desk.session().news("Kept.");
    CHECK(line->text() == "Kept.");
    CHECK_FALSE(line->styleSheet().contains(theme::colours().madder.name()));
}
