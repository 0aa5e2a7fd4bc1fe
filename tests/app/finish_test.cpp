// Skin by hand: faces picked from the side, a finish of its own for one of them, a seam dragged, the sample's picture kept.
#include "app/files/bring.h"
#include "core/ground/picture/picture.h"
#include "core/shop/job/job.h"
#include "core/shop/job/skin_of.h"
#include "core/steps/top/top.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

const SkinPlan& skin(Desk& desk) { return skin_of(*desk.session().plan()); }

const SkinFacePlan& face(Desk& desk, const std::string& key) {
    const SkinFacePlan* f = treated(skin(desk), key);
    INFO(key);
    REQUIRE(f);
    return *f;
}

/// A place in the end view: so far across the top (0 right, 1 left), so far up its thickness.
QPoint at_side(Desk& desk, double across, double up) {
    const Plan& plan = *desk.session().plan();
    const Frame f = plan.placement.frame();
    const double u = f.from_slab({desk.session().gauge_mm(), plan.placement.y_mm}).x;
    const auto above = cut_at_x(plan.top->above, u);
    const double v = above.front().from + (above.back().to - above.front().from) * across;
    return desk.window->bench().map().end_px(f.to_slab({u, v}).y, plan.top->thickness_mm * up).toPoint();
}

}  // namespace

TEST_CASE("faces are picked from the side – one gets a finish of its own, and loses it undone", "[app][skin]") {
    Desk desk;
    desk.click("step_skin");
    Bench& bench = desk.window->bench();
    const auto pick_at = [&](double across, double up) {
        QTest::mouseClick(&bench, Qt::LeftButton, {}, at_side(desk, across, up));
        QApplication::processEvents();
        const Thing* t = desk.session().picked_thing();
        return t && t->kind == "face" ? skin(desk).faces[t->index].face.key : std::string();
    };
    CHECK(pick_at(0.5, 1) == "upper");
    CHECK(pick_at(0, 0.5) == "edge right");
    CHECK(pick_at(1, 0.5) == "edge left");
    CHECK(pick_at(0.5, 0) == "under");
    CHECK(desk.find<QLabel>("slip_title")->text() == "Underside");
    // On the strip: the first grit is its first stretch, the wait of the last coat its last.
    const QRectF strip = bench.map().strip;
    QTest::mouseClick(&bench, Qt::LeftButton, {}, QPointF(strip.left() + 6, strip.center().y()).toPoint());
    CHECK(desk.session().picked() == "grit 1");
    QTest::mouseClick(&bench, Qt::LeftButton, {}, QPointF(strip.right() - 8, strip.center().y()).toPoint());
    CHECK(desk.session().picked() == QString("coat %1").arg(skin(desk).coats));
    CHECK(pick_at(0.5, 0) == "under");
    // What is chosen there is of the underside alone.
    const std::size_t coats = face(desk, "upper").coats.size();
    auto* box = desk.seek<QComboBox>("face_finish");
    desk.reveal(box);
    CHECK(box->currentText() == "As the rest");
    box->setFocus();
    while (box->currentText() != "Soap") {
        const QString before = box->currentText();
        QTest::keyClick(box, Qt::Key_Down);
        REQUIRE(box->currentText() != before);
    }
    Q_EMIT box->activated(box->currentIndex());
    QApplication::processEvents();
    CHECK(face(desk, "under").finish == Finish::soap);
    CHECK(face(desk, "upper").finish == desk.session().skin()->finish);
    CHECK(face(desk, "upper").coats.size() == coats);
    // Each way that was gone past was a revision.
    while (desk.session().can_undo() && !desk.session().skin()->faces.empty()) desk.click("undo");
    CHECK(face(desk, "under").finish == desk.session().skin()->finish);
}

TEST_CASE("a seam between two zones is dragged where it lies, says when it is too far, and goes back to even", "[app][skin][T37]") {
    Desk desk;
    desk.click("step_skin");
    desk.session().edit_shop("a quick finish",
                             [&](Shop& s) { s.finishes.labels.at(finishes.index(desk.session().skin()->finish)).window_min = 9; });
    const auto seams = seams_of(skin(desk), "upper");
    REQUIRE(seams.size() >= 1);
    const Frame f = desk.session().plan()->placement.frame();
    const BenchMap& map = desk.window->bench().map();
    const QPointF from = map.px(f.to_slab({seams[0], -60}));
    desk.drag(from, from + QPointF(150, 0));
    REQUIRE(desk.session().skin()->seams_mm.size() == seams.size());
    CHECK(std::abs(desk.session().skin()->seams_mm[0] - seams[0]) == Approx(150 / map.scale).margin(2 / map.scale));
    // A zone has grown by as much as its neighbour has lost; the larger one can't be wiped in time.
    CHECK(find_caution(skin(desk).cautions, "skin.zone_large"));
    double m2 = 0;
    for (const Zone& z : skin(desk).zones) m2 += z.face == "upper" && z.coat == 1 ? z.m2 : 0;
    CHECK(m2 == Approx(face(desk, "upper").face.m2));
    desk.session().pick({});
    desk.click("even_zones");
    CHECK(desk.session().skin()->seams_mm.empty());
    CHECK(seams_of(skin(desk), "upper") == seams);
    CHECK_FALSE(find_caution(skin(desk).cautions, "skin.zone_large"));
}

TEST_CASE("the sample's picture is kept with the job, goes with its file, and a bad one is said", "[app][skin][hostile]") {
    Desk desk;
    desk.click("step_skin");
    QString said;
    const auto say = [&](const QString& text) { said = text; };
    QImage board(2400, 900, QImage::Format_RGB32);
    board.fill(QColor(150, 110, 60));
    REQUIRE(board.save(desk.dir.filePath("board.png")));
    bring_sample(desk.session(), desk.window->long_work(), desk.dir.filePath("board.png"), say);
    desk.wait();
    const std::string key = desk.session().skin()->sample_picture;
    REQUIRE_FALSE(key.empty());
    CHECK(said.contains("kept"));
    const auto bytes = desk.session().store()->attachment(key);
    REQUIRE(bytes);
    const Picture kept = read_picture(*bytes);
    CHECK(kept.width == 1600);
    CHECK(kept.height == 600);
    CHECK(std::abs(kept.at(800, 300)[0] - 150) < 6);
    // It lies in the plan's corner once it is decoded.
    Bench& bench = desk.window->bench();
    const auto corner = [&] {
        const QImage shot = bench.grab().toImage();
        const QPointF at = bench.map().plan.bottomRight() - QPointF(50, 50);
        const QColor c = shot.pixelColor((at * bench.devicePixelRatioF()).toPoint());
        return std::abs(c.red() - 150) < 8 && std::abs(c.blue() - 60) < 8;
    };
    CHECK(becomes(corner));
    // Started again it is there.
    desk.restart();
    CHECK(desk.session().skin()->sample_picture == key);
    QFile bad(desk.dir.filePath("no.png"));
    REQUIRE(bad.open(QIODevice::WriteOnly));
    bad.write("no picture");
    bad.close();
    bring_sample(desk.session(), desk.window->long_work(), bad.fileName(), say);
    desk.wait();
    CHECK(desk.session().skin()->sample_picture == key);
}
