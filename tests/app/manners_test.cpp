// What every screen does: dimensions typed where they stand, find, help, the shop's page, large text, paper.
#include <QFileInfo>
#include <QPrinter>
#include <QRadioButton>

#include <cmath>
#include <csignal>

#include <sys/resource.h>

#include "app/ground/theme/theme.h"
#include "app/pages/shop/shop_page.h"
#include "app/steps/sheets/sheet.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {
void click_dimension(Desk& desk, const char* field) {
    Bench& b = desk.window->bench();
    b.repaint();
    const QPolygonF place = b.dimension_place(field);
    INFO(field);
    REQUIRE_FALSE(place.isEmpty());
    QTest::mouseClick(&b, Qt::LeftButton, {}, place.boundingRect().center().toPoint());
}
}  // namespace

TEST_CASE("a dimension is clicked and typed where it stands", "[app]") {
    Desk desk;
    desk.click("step_lay");
    click_dimension(desk, "top_length");
    desk.type("dimension", "2 m");
    CHECK(desk.session().job()->top.length_mm == 2000);
    CHECK_FALSE(desk.find<QWidget>("bench")->findChild<QLineEdit*>("dimension"));
    click_dimension(desk, "top_width");
    desk.type("dimension", "35\"");
    CHECK(desk.session().job()->top.width_mm == Approx(889));
    // A wrong text stays with its hint; Esc leaves the job as it was.
    click_dimension(desk, "top_width");
    desk.type("dimension", "35 cubits");
    CHECK(desk.text("dimension_hint").contains("cubits"));
    CHECK(desk.find<QLineEdit>("dimension")->text() == "35 cubits");
    QTest::keyClick(desk.find<QLineEdit>("dimension"), Qt::Key_Escape);
    CHECK(desk.session().job()->top.width_mm == Approx(889));
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    CHECK_FALSE(desk.window->findChild<QLineEdit*>("dimension"));
    // G goes from one to the next.
    desk.window->bench().repaint();
    QTest::keyClick(desk.window.get(), Qt::Key_G);
    REQUIRE(desk.find<QLineEdit>("dimension")->accessibleName() == "Length");
    CHECK(desk.window->bench().type_dimension());
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    CHECK(desk.find<QLineEdit>("dimension")->accessibleName() == "Width");
}

TEST_CASE("a leg plate is set by its distance from the end, thickness beside the end view", "[app]") {
    Desk desk;
    desk.click("step_under");
    const double half = desk.session().job()->top.length_mm / 2;
    click_dimension(desk, "plate_2_from_end");
    desk.type("dimension", "400");
    CHECK(desk.session().job()->under.plates.at(1).u_mm == Approx(half - 400));
    click_dimension(desk, "plate_1_from_end");
    desk.type("dimension", "380");
    CHECK(desk.session().job()->under.plates.at(0).u_mm == Approx(380 - half));
    desk.click("step_flat");
    click_dimension(desk, "flat_thickness");
    desk.type("dimension", "1 3/4\"");
    CHECK(desk.session().plan()->flat->thickness_mm == Approx(44.45));
    CHECK(desk.text("answer_flat.thickness").contains(">44."));
}

TEST_CASE("bolts of a plate are counted on the slip", "[app]") {
    Desk desk;
    desk.click("step_under");
    desk.type("plate_bolts_across", "5");
    int on_plate = 0;
    for (const Slot& s : desk.session().plan()->under->slots) on_plate += s.part == Part{"plate", 0};
    CHECK(on_plate == 5);
}

TEST_CASE("find goes to slabs, jobs and figures", "[app]") {
    Desk desk;
    QTest::keyClick(desk.window.get(), Qt::Key_F, Qt::ControlModifier);
    auto* line = desk.find<QLineEdit>("find_line");
    REQUIRE(line->isVisible());
    QTest::keyClicks(line, "shims gain");
    QTest::keyClick(line, Qt::Key_Return);
    CHECK(desk.session().step() == step_key::flat);
    CHECK_FALSE(line->isVisible());
    const QString other = QString::fromStdString(desk.session().documents().slabs.rbegin()->second.name);
    QTest::keyClick(desk.window.get(), Qt::Key_F, Qt::ControlModifier);
    QTest::keyClicks(line, "slab: " + other);
    QTest::keyClick(line, Qt::Key_Return);
    CHECK(desk.session().step() == step_key::rack);
    CHECK(QString::fromStdString(desk.session().slab()->name) == other);
    QTest::keyClick(desk.window.get(), Qt::Key_F, Qt::ControlModifier);
    QTest::keyClicks(line, "no such thing");
    QTest::keyClick(line, Qt::Key_Return);
    CHECK(desk.text("status").contains("no such thing"));
    QTest::keyClick(line, Qt::Key_Escape);
    CHECK_FALSE(line->isVisible());
}

TEST_CASE("the shop's page: a resin from its label, boards at hand", "[app]") {
    Desk desk;
    desk.click("step_fill");
    desk.click("the_shop");
    REQUIRE(desk.find<QWidget>("shop_page")->isVisible());
    const std::size_t before = desk.session().shop().resins.size();
    desk.click("shop_group_resins");
    desk.click("add_resin");
    desk.type("own-1_label", "Amber casting");
    desk.type("own-1_deepest", "1\"");
    desk.type("own-1_gel", "20 h");
    REQUIRE(desk.session().shop().resins.size() == before + 1);
    CHECK(desk.session().shop().resins.back().label == "Amber casting");
    CHECK(desk.session().shop().resins.back().deepest_mm == Approx(25.4));
    desk.click("shop_group_stock");
    desk.type("sled_boards", "18; 1/4\", 9 mm");
    CHECK(desk.session().shop().sled.spacers_mm == std::vector<double>{6.35, 9, 18});
    desk.type("sled_boards", "18, nine");
    CHECK(desk.text("status").contains("nine"));
    CHECK(desk.session().shop().sled.spacers_mm.size() == 3);
    desk.click("shop_back");
    // The new class can be chosen for a void and sets its lifts.
    const std::string flaw = desk.session().plan()->slab()->flaws.at(desk.session().plan()->fill->voids.front().flaw).id;
    desk.pick("void 1");
    auto* radio = desk.find<QRadioButton>(("choice_fill." + flaw + "_own-1").c_str());
    radio->click();
    CHECK(desk.session().plan()->fill->voids.front().resin == "own-1");
    for (const Lift& l : desk.session().plan()->fill->voids.front().lifts) CHECK(l.depth_mm <= 25.4 + 1e-9);
    // Taken away again, the void goes back to what is advised.
    desk.click("the_shop");
    desk.click("shop_group_resins");
    desk.click("shelf_own-1");
    desk.click("drop_own-1");
    CHECK(desk.session().shop().resins.size() == before);
    CHECK(desk.session().plan()->fill->voids.front().resin == desk.session().plan()->fill->voids.front().advised);
}

TEST_CASE("board texts", "[app]") {
    CHECK(std::get<0>(read_boards("6, 9,", Units::metric())) == std::vector<double>{6, 9});
    CHECK(std::get<0>(read_boards("", Units::metric())).empty());
    CHECK(std::get<1>(read_boards("6, -2", Units::metric())).contains("-2"));
    CHECK(std::get<0>(read_boards("1/2, 6 mm", Units::imperial())) == std::vector<double>{6, 12.7});
}

TEST_CASE("help for the step opens on the slip", "[app]") {
    Desk desk;
    desk.click("step_flat");
    auto* help = desk.find<QLabel>("step_help");
    CHECK_FALSE(help->isVisible());
    QTest::keyClick(desk.window.get(), Qt::Key_F1, Qt::ShiftModifier);
    CHECK(help->isVisible());
    CHECK(help->text().contains("shims"));
    CHECK(help->text().contains("Ctrl+Z"));
    QTest::keyClick(desk.window.get(), Qt::Key_F1, Qt::ShiftModifier);
    CHECK_FALSE(help->isVisible());
}

TEST_CASE("a flaw is renamed, moved to the other face and taken away in the table", "[app]") {
    Desk desk;
    desk.click("type_tape");
    desk.click("tape_flaws");
    const std::size_t n = desk.session().slab()->flaws.size();
    REQUIRE(n > 1);
    desk.cell(0, 0, "sof");
    CHECK(desk.session().slab()->flaws[0].kind == FlawKind::soft);
    desk.cell(0, 1, "b");
    CHECK(desk.session().slab()->flaws[0].face == Face::b);
    desk.cell(0, 2, "12");
    CHECK(*desk.session().slab()->flaws[0].depth_mm == 12);
    desk.cell(0, 0, "unicorn");
    CHECK(desk.text("tape_hint").contains("unicorn"));
    CHECK(desk.session().slab()->flaws[0].kind == FlawKind::soft);
    auto* t = desk.find<QTableWidget>("tape_table");
    t->setCurrentCell(1, 0);
    QTest::keyClick(t, Qt::Key_Delete);
    CHECK(desk.session().slab()->flaws.size() == n - 1);
    desk.click("undo");
    CHECK(desk.session().slab()->flaws.size() == n);
}

TEST_CASE("the sheet goes to a printer as it goes to PDF", "[app]") {
    Desk desk;
    QPrinter printer(QPrinter::HighResolution);
    printer.setOutputFormat(QPrinter::PdfFormat);
    const QString path = desk.dir.filePath("printed.pdf");
    printer.setOutputFileName(path);
    CHECK(print_sheet(printer, *desk.session().job(), *desk.session().plan(), desk.session().shop()).isEmpty());
    const QString text = text_of_pdf(path);
    CHECK(text.contains("Reading table, seed library"));
    CHECK(text.contains(QString::fromStdString(format(fine(desk.session().plan()->under->leg_mm), Units::metric()))));
    // A page a matter: the top, cuts, flattening, voids, the underside twice, the base, what is to be minded.
    CHECK(text.count('\f') == 13);
    printer.setOutputFileName("/nowhere/printed.pdf");
    CHECK_FALSE(print_sheet(printer, *desk.session().job(), *desk.session().plan(), desk.session().shop()).isEmpty());
}

TEST_CASE("a disk that takes no more is said, and the old file stays whole", "[app]") {
    Desk desk;
    const QString job = desk.dir.filePath("job.json");
    const QString pdf = desk.dir.filePath("sheet.pdf");
    REQUIRE(desk.window->export_job(job));
    REQUIRE(desk.window->save_pdf(pdf));
    const auto size_of = [](const QString& path) { return QFileInfo(path).size(); };
    const qint64 job_size = size_of(job);
    const qint64 pdf_size = size_of(pdf);
    // The kernel refuses every byte of a file past this size.
    rlimit before{};
    REQUIRE(getrlimit(RLIMIT_FSIZE, &before) == 0);
    const auto old_signal = std::signal(SIGXFSZ, SIG_IGN);
    rlimit small = before;
    small.rlim_cur = 1000;
    REQUIRE(setrlimit(RLIMIT_FSIZE, &small) == 0);
    const bool exported = desk.window->export_job(job);
    const QString said_job = desk.text("status");
    const bool saved = desk.window->save_pdf(pdf);
    const QString said_pdf = desk.text("status");
    setrlimit(RLIMIT_FSIZE, &before);
    std::signal(SIGXFSZ, old_signal);
    CHECK_FALSE(exported);
    CHECK(said_job.contains("can't be written"));
    CHECK_FALSE(saved);
    CHECK(said_pdf.contains("written"));
    CHECK(size_of(job) == job_size);
    CHECK(size_of(pdf) == pdf_size);
}

TEST_CASE("text half as large again cuts nothing off", "[app]") {
    theme::set_text_scale(1.5);
    theme::apply(*qApp);
    {
        Desk desk;
        for (const char* step : {"step_rack", "step_lay", "step_flat", "step_fill", "step_pour", "step_join", "step_under"}) {
            desk.click(step);
            auto* slip = desk.find<QScrollArea>("slip");
            INFO(step);
            QTest::qWait(30);  // layouts settle
            CHECK(slip->widget()->minimumSizeHint().width() <= slip->viewport()->width());
            for (const QLabel* l : slip->findChildren<QLabel*>()) {
                if (!l->isVisible()) continue;
                INFO(l->objectName().toStdString() << ": " << l->text().toStdString());
                CHECK(l->width() >= l->minimumSizeHint().width());
                if (l->wordWrap()) CHECK(l->height() + 2 >= l->heightForWidth(l->width()));
            }
            const Bench& b = desk.window->bench();
            CHECK(b.map().plan.height() > 100);
        }
        // The marks of the stick stand side by side.
        QRect before;
        for (const QPushButton* b : desk.find<QWidget>("stick")->findChildren<QPushButton*>()) {
            if (!b->isVisible() || b->objectName() == "step_sheets") continue;
            CHECK_FALSE(before.intersects(b->geometry()));
            before = b->geometry();
        }
        CHECK(desk.find<QPushButton>("step_sheets")->geometry().bottom() <= desk.find<QWidget>("stick")->height());
    }
    theme::set_text_scale(1);
    theme::apply(*qApp);
}

TEST_CASE("inks stand out from their papers", "[app]") {
    const auto luminance = [](const QColor& c) {
        const auto linear = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
        return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
    };
    const auto contrast = [&](const QColor& a, const QColor& b) {
        const double x = luminance(a) + 0.05;
        const double y = luminance(b) + 0.05;
        return std::max(x, y) / std::min(x, y);
    };
    const auto& c = theme::colours();
    for (const QColor& paper : {c.paper, c.slip})
        for (const QColor& ink : {c.ink, c.pencil, c.chalk, c.madder, c.brass_dark}) {
            INFO(ink.name().toStdString() << " on " << paper.name().toStdString());
            CHECK(contrast(ink, paper) >= 4.5);
        }
    for (const QColor& ink : {c.ink, c.pencil, c.chalk}) {
        INFO(ink.name().toStdString() << " on the bench");
        CHECK(contrast(ink, c.bench) >= 4.0);
    }
    for (const QColor& wash : {c.madder_wash, c.ochre_wash, c.moss_wash}) CHECK(contrast(c.ink, wash) >= 4.5);
}

TEST_CASE("what was typed and not entered is kept when the program is closed or another step is gone to", "[app]") {
    Desk desk;
    desk.click("step_lay");
    const auto begin = [&](const char* name, const char* what) {
        auto* line = desk.find<QLineEdit>(name);
        line->setFocus();
        line->selectAll();
        QTest::keyClicks(line, what);
    };
    begin("top_length", "1.85 m");
    desk.session().set_step(step_key::flat);  // by a key elsewhere: the slip is built anew
    QApplication::processEvents();
    CHECK(desk.session().job()->top.length_mm == 1850);
    desk.session().set_step(step_key::lay);
    begin("top_width", "77 cm");
    desk.window->close();
    desk.restart();
    CHECK(desk.session().job()->top.width_mm == 770);
    CHECK(desk.session().job()->top.length_mm == 1850);
    // A word too, and a cell of the tape table.
    desk.click("step_lay");
    begin("job_client", "the boat club");
    desk.window->close();
    desk.restart();
    CHECK(desk.session().job()->client == "the boat club");
}
