// The dial beside the strip: layers cut, hours of a cure, months of a year; and what the new steps are worked with.
#include "app/ground/slow/runner.h"
#include "core/shop/job/job.h"
#include "core/steps/flat/flat.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"
#include "tests/app/desk.h"

using namespace yb;

TEST_CASE("the dial cuts layer after layer, by hand and by key, and another step has none of it", "[app][dial]") {
    Desk desk;
    desk.click("step_flat");
    Bench& bench = desk.window->bench();
    const QRectF line = bench.dial_place();
    REQUIRE_FALSE(line.isEmpty());
    CHECK_FALSE(desk.session().dial());
    const QImage before = bench.grab().toImage();
    desk.drag(line.center(), QPointF(line.right(), line.center().y()));
    REQUIRE(desk.session().dial());
    CHECK(*desk.session().dial() == Approx(1));
    CHECK(bench.grab().toImage() != before);
    bench.setFocus();
    QTest::keyClick(&bench, Qt::Key_PageUp);
    const int layers = desk.session().plan()->flat->faces[0].layers;
    CHECK(*desk.session().dial() == Approx(1 - 1.0 / layers));
    // The other face has its own layers.
    desk.pick("face 2");
    CHECK(desk.find<QLabel>("answer_face.layers")->text().contains(QString::number(desk.session().plan()->flat->faces[1].layers)));
    desk.click("step_lay");
    CHECK_FALSE(desk.session().dial());
    CHECK(bench.dial_place().isEmpty());
    // Played, it comes to the end by itself.
    desk.click("step_flat");
    desk.click("play_layers");
    REQUIRE(desk.session().dial());
    CHECK(becomes([&] { return desk.session().dial() && *desk.session().dial() >= 1; }));
}

TEST_CASE("a slab that was read again after its rest says what it did, and one undo takes it back", "[app][rounds][T16]") {
    Desk desk;
    desk.click("step_flat");
    desk.click("read_again");
    REQUIRE(desk.session().job()->leaves[0].rounds.size() == 1);
    CHECK(desk.session().picked() == "round 1");
    desk.type("round_cup", "2.5");
    desk.type("round_thickness", "50");
    const FlatRound r = desk.session().job()->leaves[0].rounds[0];
    CHECK(r.cup_mm == Approx(2.5));
    CHECK(r.thickness_mm == Approx(50));
    desk.pick("round 1");
    CHECK(desk.find<QLabel>("answer_round.thickest")->text().contains("47.5"));
    desk.click("round_away");
    CHECK(desk.session().job()->leaves[0].rounds.empty());
    desk.click("undo");
    CHECK(desk.session().job()->leaves[0].rounds.size() == 1);
}

TEST_CASE("the heat of a river comes beside the work and the dial goes through its hours", "[app][pour]") {
    Desk desk;
    desk.session().set_job("job-tarn-river");
    desk.click("step_pour");
    Bench& bench = desk.window->bench();
    bench.repaint();
    CHECK(becomes([&] { return !bench.dial_place().isEmpty(); }));
    const QImage hottest = bench.grab().toImage();
    bench.setFocus();
    QTest::keyClick(&bench, Qt::Key_PageDown);
    REQUIRE(desk.session().dial());
    CHECK(bench.grab().toImage() != hottest);
    // A limit typed lower makes more lifts of it, or says that none will do.
    const auto lifts = desk.session().plan()->pour->lifts.size();
    desk.type("pour_lifts", "3");
    CHECK(desk.session().plan()->pour->lifts.size() == 3);
    CHECK(lifts == 1);
    desk.click("undo");
    CHECK(desk.session().plan()->pour->lifts.size() == lifts);
    wait_for_all();
}

TEST_CASE("bow ties are laid over cracks, picked, typed and taken away", "[app][join]") {
    Desk desk;
    desk.click("step_join");
    desk.click("add_tie");
    REQUIRE(desk.session().job()->join.ties.size() == 1);
    desk.pick("bow tie 1");
    desk.type("tie_deep", "18");
    CHECK(desk.session().job()->join.ties[0].deep_mm == Approx(18));
    // Dragged where it lies.
    const BowTie was = desk.session().job()->join.ties[0];
    const Frame f = desk.session().plan()->placement.frame();
    const QPointF at = desk.window->bench().map().px(f.to_slab({was.u_mm, was.v_mm}));
    desk.drag(at, at + QPointF(60, 0));
    CHECK(desk.session().job()->join.ties[0].u_mm > was.u_mm + 50);
    desk.click("undo");
    desk.pick("bow tie 1");
    desk.click("tie_away");
    CHECK(desk.session().job()->join.ties.empty());
    desk.click("tie_cracks");
    const auto laid = desk.session().job()->join.ties.size();
    if (laid > 0) {
        desk.click("undo");
        CHECK(desk.session().job()->join.ties.empty());
    }
    desk.session().set_job("job-seed-cabinet");
    desk.click("step_join");
    CHECK(desk.text("headline_join.skins").contains("glue"));
    const QString pdf = desk.dir.filePath("glue.pdf");
    REQUIRE(desk.window->save_pdf(pdf));
    CHECK(text_of_pdf(pdf).contains("Glue-up"));
}

TEST_CASE("through the year every hole stands where the month has it", "[app][under]") {
    Desk desk;
    desk.click("step_under");
    Bench& bench = desk.window->bench();
    const QRectF line = bench.dial_place();
    REQUIRE_FALSE(line.isEmpty());
    const QImage still = bench.grab().toImage();
    desk.drag(line.center(), QPointF(line.left() + line.width() * 7 / 11, line.center().y()));
    CHECK(bench.grab().toImage() != still);
    desk.pick("base 1");
    CHECK(
        desk.find<QLabel>("answer_base.side")->text().contains(QString::number(std::round(desk.session().plan()->under->tipping->side_n))));
}
