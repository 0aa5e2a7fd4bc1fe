// What is made for a top, set and read as a hand does it: dividers and colours in a river, gaps along joints and under plates, bases,
// bow ties and patches over voids, drawings that go out.
#include <QComboBox>
#include <QRadioButton>

#include "app/pages/shop/resin_plot.h"
#include "core/material/drawing/drawing.h"
#include "core/shop/job/job.h"
#include "core/shop/templates/templates.h"
#include "core/steps/fill/fill.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

void choose(Desk& desk, const char* name) {
    auto* way = desk.find<QRadioButton>(name);
    desk.reveal(way);
    way->click();
    QApplication::processEvents();
}

Drawing drawn(Desk& desk, const char* what) {
    const QString path = desk.dir.filePath(QString("%1.dxf").arg(what));
    REQUIRE(desk.window->export_drawing(path, what));
    QFile f(path);
    REQUIRE(f.open(QIODevice::ReadOnly));
    return read_dxf(f.readAll().toStdString());
}

}  // namespace

TEST_CASE("a divider is set at the gauge, its compartment picked and given its own pigment", "[app][pour]") {
    Desk desk;
    desk.session().set_job("job-tarn-river");
    desk.click("step_pour");
    const double whole = desk.session().plan()->pour->mix_l;
    desk.session().set_gauge(900);
    desk.click("add_divider");
    REQUIRE(desk.session().pour()->dividers.size() == 1);
    REQUIRE(desk.session().plan()->pour->compartments.size() == 2);
    CHECK(desk.session().plan()->pour->mix_l == Approx(whole).epsilon(0.01));
    // Where one stands no second is set.
    desk.click("add_divider");
    CHECK(desk.session().pour()->dividers.size() == 1);
    CHECK(desk.text("status").contains("slide the gauge along"));
    desk.pick("river 2");
    desk.type("divider_pigment", "7");
    CHECK(desk.session().pour()->dividers[0].pigment_g_kg == 7);
    CHECK(desk.session().plan()->pour->compartments[1].pigment_g_kg == 7);
    CHECK(desk.session().plan()->pour->compartments[0].pigment_g_kg != 7);
    desk.click("drop_divider");
    CHECK(desk.session().plan()->pour->compartments.size() == 1);
    // Off the river it is refused with a word.
    desk.session().set_gauge(-500);
    desk.session().pick({});
    desk.click("add_divider");
    CHECK(desk.session().pour()->dividers.empty());
}

TEST_CASE("the form and the resin are picked and told", "[app][pour]") {
    Desk desk;
    desk.session().set_job("job-tarn-river");
    desk.click("step_pour");
    desk.pick("form 1");
    CHECK(desk.find<QLabel>("answer_form.panels")->text().contains(QString("%1 /").arg(desk.session().plan()->pour->form.sheets.size())));
    const std::size_t panels = desk.session().plan()->pour->form.sheets.size();
    desk.type("pour_panel_long", "1200");
    desk.type("pour_panel_wide", "600");
    CHECK(desk.session().plan()->pour->form.sheets.size() > panels);
    desk.pick("resin 1");
    CHECK(desk.find<QLabel>("answer_resin.buy")->text().contains("18"));  // three kits of six
}

TEST_CASE("a label's times stand beside the model on the shop's page", "[app][shop]") {
    Desk desk;
    desk.click("step_fill");
    desk.click("the_shop");
    desk.click("shelf_medium");
    auto* plot = desk.find<ResinPlot>("medium_plot");
    CHECK(plot->read_out().contains("no times yet"));
    const QImage before = plot->grab().toImage();
    desk.type("medium_cured", "60 h");
    desk.type("medium_recoat_from", "10 h");
    CHECK(plot->read_out().contains("label 60 h"));
    CHECK(plot->grab().toImage() != before);
    desk.type("medium_kit", "3 L");
    for (const Resin& r : desk.session().shop().resins)
        if (r.key == "medium") CHECK(r.kit_l == 3.0);
}

TEST_CASE("gaps are typed along a joint and under a plate's corners", "[app][join][under]") {
    Desk desk;
    desk.session().set_job("job-seed-cabinet");
    desk.click("step_join");
    desk.pick("joint 2");
    desk.session().set_gauge(700);
    desk.click("add_gap");
    REQUIRE(desk.session().join()->gaps.size() == 1);
    CHECK(desk.session().join()->gaps[0].joint == 2);
    desk.type("gap_1", "0.8");
    CHECK(desk.session().join()->gaps[0].gap_mm == Approx(0.8));
    CHECK(desk.session().plan()->join->joints[1].widest_gap_mm == Approx(0.8));
    CHECK(desk.session().plan()->join->joints[1].close_n > 0);
    desk.session().pick({});
    desk.session().set_job("job-reading-table");
    desk.click("step_under");
    desk.pick("plate 1");
    desk.type("plate_gap_1", "0.2");
    desk.type("plate_gap_3", "1.4");
    CHECK(desk.session().plan()->under->shims_mm.at(0)[2] == Approx(1.2));
    CHECK(desk.find<QLabel>("answer_plate.shims")->text().contains("1.2"));
    // Emptied it is not read.
    auto* line = desk.find<QLineEdit>("plate_gap_3");
    line->setFocus();
    line->clear();
    QTest::keyClick(line, Qt::Key_Return);
    QApplication::processEvents();
    CHECK(desk.session().plan()->under->shims_mm.at(0)[2] == 0);
}

TEST_CASE("a base is chosen and drawn, what can't be built is said", "[app][under]") {
    Desk desk;
    desk.click("step_under");
    const QImage frames = desk.window->bench().grab().toImage();
    choose(desk, "choice_under.base_cross");
    CHECK(desk.session().job()->under.base == BaseKind::cross);
    CHECK(desk.window->bench().grab().toImage() != frames);
    choose(desk, "choice_under.base_trestle");
    desk.pick("base 1");
    CHECK(desk.find<QLabel>("answer_base.parts")->text().contains("7 /"));  // two bearers, feet, posts and a stretcher
    desk.type("under_leg_wide", "500");
    desk.session().pick({});
    CHECK(desk.session().plan()->under->base.parts.empty());
    CHECK(desk.text("headline_under.base").contains("can't be built"));
    choose(desk, "choice_under.fixing_buttons");
    CHECK(desk.find<QLabel>("answer_under.gap"));
}

TEST_CASE("a void is stitched or patched from Fill", "[app][fill]") {
    Desk desk;
    desk.click("step_fill");
    const auto voids = desk.session().plan()->fill->voids;
    std::size_t crack = voids.size();
    for (std::size_t i = 0; i < voids.size(); ++i)
        if (voids[i].kind == FlawKind::crack && !voids[i].gone) crack = i;
    REQUIRE(crack < voids.size());
    desk.pick(("void " + std::to_string(crack + 1)).c_str());
    desk.click("void_ties");
    const std::size_t ties = desk.session().join()->ties.size();
    if (ties == 0) CHECK(desk.text("status").contains("No bow tie"));
    else CHECK(desk.text("status").contains("laid across"));
    const std::size_t patches = desk.session().makeup()->patches.size();
    std::size_t inner = voids.size();
    for (std::size_t i = 0; i < voids.size(); ++i)
        if (!voids[i].runs_out && !voids[i].gone) inner = i;
    REQUIRE(inner < voids.size());
    desk.pick(("void " + std::to_string(inner + 1)).c_str());
    desk.click("void_patch");
    CHECK(desk.session().makeup()->patches.size() == patches + 1);
    desk.click("undo");
    CHECK(desk.session().makeup()->patches.size() == patches);
}

TEST_CASE("every drawing of the menu goes out, or says why there is none", "[app][drawing]") {
    Desk desk;
    desk.session().set_job("job-reading-table");
    desk.click("step_under");
    CHECK(drawn(desk, "drilling").paths.size() > desk.session().plan()->under->slots.size());
    CHECK(drawn(desk, "plates").paths.size() == desk.session().job()->under.plates.size() * 4);
    CHECK_FALSE(desk.window->export_drawing(desk.dir.filePath("form.dxf"), "form"));
    CHECK(desk.text("status").contains("Nothing is poured"));
    desk.session().set_job("job-tarn-river");
    desk.click("step_pour");
    CHECK(drawn(desk, "form").paths.size() >= 6);
    CHECK(drawn(desk, "panels").paths.size() >= 6);
    desk.session().set_job("job-seed-cabinet");
    desk.click("step_join");
    CHECK(drawn(desk, "cauls").paths.size() == desk.session().plan()->join->cauls.size());
    const QString pdf = desk.dir.filePath("drilling.pdf");
    REQUIRE(desk.window->export_drawing(pdf, "drilling"));
    CHECK(QFileInfo(pdf).size() > 1000);
    CHECK_FALSE(desk.window->export_drawing(desk.dir.filePath("x.svg"), "the moon"));
    for (const TemplateRow& row : templates()) CHECK_FALSE(QString(row.label).isEmpty());
}

TEST_CASE("a logger's file sets the months of the room, a bad one is said and changes nothing", "[app][under]") {
    Desk desk;
    desk.click("step_under");
    const Climate before = desk.session().job()->room;
    const auto write = [&](const char* name, const char* text) {
        QFile f(desk.dir.filePath(name));
        REQUIRE(f.open(QIODevice::WriteOnly));
        f.write(text);
        return f.fileName();
    };
    desk.window->bring_air(write("bad.csv", "at,temp_c,rh_pct\n2026-01-05,20,140\n"));
    desk.wait();
    CHECK(desk.text("status").contains("line 2"));
    CHECK(desk.session().job()->room == before);
    desk.window->bring_air(write("hall.csv", "at,temp_c,rh_pct\n2026-01-05,17,31\n2026-08-05,24,66\n"));
    desk.wait();
    CHECK(desk.session().job()->room.months[0].rh_pct == 31);
    CHECK(desk.session().job()->room.months[7].rh_pct == 66);
    CHECK(desk.session().job()->room.months[3] == before.months[3]);
    CHECK(desk.session().plan()->under->travel_mm > 0);
    desk.click("undo");
    CHECK(desk.session().job()->room == before);
}

TEST_CASE("an edge is read under the straightedge, and what is to be planed off is told on the slip", "[app][join]") {
    Desk desk;
    desk.session().set_job("job-opened-pair");
    desk.click("step_join");
    desk.pick("joint 1");
    const Span1 all = desk.session().plan()->stations();
    int n = 0;
    for (const double share : {0.1, 0.5, 0.9}) {
        desk.session().set_gauge(all.from + (all.to - all.from) * share);
        desk.click("add_right_gap");
        ++n;
    }
    REQUIRE(desk.session().join()->gaps.size() == 3);
    desk.type("gap_1", "0");
    desk.type("gap_2", "0.8");
    desk.type("gap_3", "0");
    CHECK(desk.session().plan()->join->joints[0].take_mm == Approx(0.8).margin(0.02));
    CHECK(desk.find<QLabel>("answer_joint.take")->text().contains("0.8"));
    // Out of square is typed where both were read together.
    desk.click("add_gap");
    desk.type("square_4", "0.6");
    const Caution* c = find_caution(desk.session().plan()->join->cautions, "join.square");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
}

TEST_CASE("the rods' card is run from Join, and a closed river has none", "[app][join][card]") {
    Desk desk;
    desk.session().set_job("job-open-river");
    desk.click("step_join");
    desk.click("run_card");
    CHECK(desk.find<QWidget>("card_page")->isVisible());
    desk.session().set_job("job-tarn-river");
    desk.click("step_join");
    desk.settle();
    const auto* none = desk.window->findChild<QPushButton*>("run_card");
    CHECK((!none || !none->isEnabled()));
}

TEST_CASE("a void is cut off with its end from Fill, and undone", "[app][fill]") {
    Desk desk;
    desk.session().set_job("job-reading-table");
    desk.click("step_fill");
    const double before = desk.session().top()->length_mm;
    // The end crack: the first void of it.
    std::size_t crack = 0;
    const auto& voids = desk.session().plan()->fill->voids;
    for (std::size_t i = 0; i < voids.size(); ++i)
        if (voids[i].kind == FlawKind::crack) crack = i + 1;
    REQUIRE(crack > 0);
    desk.pick(("void " + std::to_string(crack)).c_str());
    CHECK(desk.find<QPushButton>("void_off")->text().contains("shorter"));
    desk.click("void_off");
    CHECK(desk.session().top()->length_mm < before);
    for (const VoidPlan& v : desk.session().plan()->fill->voids) CHECK(v.kind != FlawKind::crack);
    desk.session().undo();
    CHECK(desk.session().top()->length_mm == before);
}

TEST_CASE("a base of panels is dragged by its corners, grown and lessened", "[app][under]") {
    Desk desk;
    desk.session().set_job("job-hall-table");
    desk.click("step_under");
    const auto outline = [&] { return desk.session().job()->under.outline; };
    const auto was = outline();
    REQUIRE(was.size() == 5);
    Bench& bench = desk.window->bench();
    const BenchMap& map = bench.map();
    const Frame f = desk.session().plan()->placement.frame();
    const QPointF at = map.px(f.to_slab({was[2].u_mm, was[2].v_mm}));
    desk.drag(at, at + QPointF(-30, 0));
    CHECK(outline()[2].u_mm == Approx(was[2].u_mm - 30 / map.scale).margin(3));
    CHECK(outline()[1] == was[1]);
    desk.pick("base 1");
    desk.click("add_corner");
    CHECK(outline().size() == 6);
    CHECK(desk.session().plan()->under->base.parts.size() == 6);
    desk.click("drop_corner");
    CHECK(outline().size() == 5);
    desk.type("corner_1_v", "-300");
    CHECK(outline()[0].v_mm == -300);
    desk.type("floor_gap_2", "2.5");
    desk.type("floor_gap_1", "0");
    REQUIRE(desk.session().plan()->under->foot_out_mm.size() == 4);
    CHECK(desk.session().plan()->under->foot_out_mm[1] == Approx(2.5));
    desk.type("under_stair", "700");
    CHECK(desk.session().plan()->under->stair_longest_mm);
}

TEST_CASE("a channel takes a section of the list, and the list what is kept on it", "[app][under]") {
    Desk desk;
    desk.session().set_job("job-reading-table");
    desk.click("step_under");
    desk.pick("channel 1");
    desk.settle();
    auto* pick = desk.find<QComboBox>("channel_section");
    const int n = pick->count();
    REQUIRE(n >= 4);
    pick->setCurrentIndex(2);
    Q_EMIT pick->activated(2);
    QApplication::processEvents();
    const Channel c = desk.session().job()->under.channels[0];
    CHECK(c.width_mm == desk.session().shop().sections[2].width_mm);
    CHECK(c.depth_mm == desk.session().shop().sections[2].depth_mm);
    desk.type("channel_width", "55");
    desk.click("keep_section");
    CHECK(desk.session().shop().sections.size() == static_cast<std::size_t>(n) + 1);
    desk.click("drop_section");
    CHECK(desk.session().shop().sections.size() == static_cast<std::size_t>(n));
}
