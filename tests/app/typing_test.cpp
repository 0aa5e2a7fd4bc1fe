// What is typed arrives: keys sent to the active window, wherever the focus is – after a click, or after the button that says "type
// this". Nothing here opens an editor by a call.
#include <QCheckBox>
#include <QDialog>
#include <QListWidget>

#include "app/pages/jobs/jobs_page.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

Step now(Desk& d) { return d.session().step(); }

/// An empty shop, open on its rack.
struct Bare : Desk {
    Bare() : Desk(false) {
        window->session().create(shop(), Documents());
        window->open_shop(shop());
        QApplication::processEvents();
    }
};

/// What lies in reach of a click on the bench's middle.
void click_bench(Desk& d) {
    Bench& b = d.window->bench();
    QTest::mouseClick(&b, Qt::LeftButton, {}, {b.width() / 2, b.height() - 6});
    QApplication::processEvents();
}

}  // namespace

TEST_CASE("walk: a whole slab is typed after New slab, nothing clicked between", "[app][typing]") {
    Bare d;
    d.click("new_slab");
    d.keys("410\t395\n420\t405\n415\t400\t\t\t52\n");
    const auto& st = d.session().slab()->tape.stations;
    REQUIRE(st.size() == 3);
    CHECK(st[0].left_mm == 410);
    CHECK(st[0].right_mm == 395);
    CHECK(st[1].x_mm == 300);
    CHECK(st[1].right_mm == 405);
    CHECK(st[2].thickness_mm == 52);
    CHECK(now(d) == step_key::rack);
}

TEST_CASE("walk: digits and letters on a picked cell start it, and are no commands", "[app][typing]") {
    Desk d;
    d.click("step_rack");
    d.click("type_tape");
    auto* table = d.find<QTableWidget>("tape_table");
    CHECK(QApplication::focusWidget() == table);
    for (const char* typed : {"4", "T", "U", "E", "O", "M", ","}) {
        INFO(typed);
        QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(1, 1)).center());
        const auto before = d.session().documents();
        d.keys(typed);
        auto* editor = table->findChild<QLineEdit*>();
        REQUIRE(editor);
        CHECK(editor->text() == typed);
        CHECK(now(d) == step_key::rack);
        d.press(Qt::Key_Escape);
        CHECK(d.session().documents() == before);
    }
}

TEST_CASE("walk: heights of a face are typed down their line", "[app][typing]") {
    Bare d;
    d.click("new_slab");
    d.keys("300\t300\t\t\t52\n300\t300\n300\t300\n");
    d.click("heights_grid");
    CHECK(QApplication::focusWidget() == d.find<QTableWidget>("tape_table"));
    d.keys("1.5\n2\n");
    const HeightGrid& g = d.session().slab()->heights_a;
    CHECK(g.at(0, 0) == 1.5);
    CHECK(g.at(1, 0) == 2);
}

TEST_CASE("walk: a flaw's kind and depth are typed in its row", "[app][typing]") {
    Desk d;
    d.click("step_rack");
    d.session().look_at("slab-sycamore-3");
    const auto flaws = d.session().slab()->flaws;
    REQUIRE(!flaws.empty());
    d.click("type_tape");
    d.click("tape_flaws");
    d.cell(0, 2, "21.5");
    CHECK(d.session().slab()->flaws[0].depth_mm == 21.5);
    d.cell(0, 0, "void");
    CHECK(d.session().slab()->flaws[0].kind == FlawKind::void_);
    CHECK(now(d) == step_key::rack);
}

TEST_CASE("walk: a gap read at the gauge is typed at once", "[app][typing]") {
    Desk d;
    d.session().set_job("job-seed-cabinet");
    d.click("step_join");
    d.pick("joint 2");
    d.click("add_gap");
    d.keys("0.85\n");
    REQUIRE(d.session().join()->gaps.size() == 1);
    CHECK(d.session().join()->gaps[0].gap_mm == 0.85);
    CHECK(now(d) == Step{"join"});
}

TEST_CASE("walk: what a slab did over its rest is typed at once, a tab to the next", "[app][typing]") {
    Desk d;
    d.click("step_flat");
    d.click("read_again");
    d.keys("1.5\t2.5\t0.5\t49\n");
    const FlatRound r = d.session().job()->leaves[0].rounds.at(0);
    CHECK(r.bow_mm == 1.5);
    CHECK(r.cup_mm == 2.5);
    CHECK(r.twist_mm == 0.5);
    CHECK(r.thickness_mm == 49);
}

TEST_CASE("walk: shims in stock are typed on the shop's page", "[app][typing]") {
    Desk d;
    d.press(Qt::Key_S);
    d.click("shop_group_stock");
    d.type("shim_stock", "0.4, 1, 2");
    CHECK(d.session().shop().sled.shims_mm == std::vector<double>{0.4, 1, 2});
    d.click("shop_group_sled");
    d.type("sled_cutter", "44");
    CHECK(d.session().shop().sled.cutter_mm == 44);
}

TEST_CASE("walk: a void's depth is typed where the void sends it", "[app][typing]") {
    Desk d;
    d.click("step_fill");
    REQUIRE(!d.session().things().empty());
    d.pick("void 1");
    d.click("void_on_rack");
    CHECK(now(d) == step_key::rack);
    d.keys("33.5\n");
    const auto& flaws = d.session().slab()->flaws;
    CHECK(std::any_of(flaws.begin(), flaws.end(), [](const Flaw& f) { return f.depth_mm == 33.5; }));
}

TEST_CASE("walk: a plate's gaps are typed one after the other", "[app][typing]") {
    Desk d;
    d.click("step_under");
    d.pick("plate 1");
    d.type("plate_gap_1", "0.2");
    d.type("plate_gap_3", "1.4");
    CHECK(d.session().plan()->under->shims_mm.at(0)[2] == Approx(1.2));
    CHECK(now(d) == step_key::under);
}

TEST_CASE("walk: find is typed, walked and gone", "[app][typing]") {
    Desk d;
    d.press(Qt::Key_F, Qt::ControlModifier);
    d.keys("tarn 5");
    CHECK(d.find<QLineEdit>("find_line")->text() == "tarn 5");
    CHECK(now(d) == step_key::rack);
    for (int i = 0; i < 6; ++i) d.press(Qt::Key_Backspace);
    d.keys("tarn");
    REQUIRE(d.find<QListWidget>("find_list")->count() > 0);
    d.keys("\n");
    CHECK(d.session().job_name().contains("tarn", Qt::CaseInsensitive));
}

TEST_CASE("walk: a note on a card is typed, with a space in it", "[app][typing]") {
    Desk d;
    d.session().set_job("job-tarn-river");
    d.click("step_pour");
    d.click("run_card");
    d.click("card_start");
    d.into("card_note");
    d.keys("a skin on 5 of them");
    CHECK(d.find<QLineEdit>("card_note")->text() == "a skin on 5 of them");
}

TEST_CASE("walk: a note that is put aside is there again – Ctrl and Enter keep it", "[app][typing][book]") {
    Desk d;
    const auto n = [&](const std::function<void()>& hands) {
        d.once_asked(hands);
        d.press(Qt::Key_N);
        QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    };
    const std::size_t before = d.session().store()->book().size();
    n([&] { d.keys("dry film 0.0"), d.press(Qt::Key_Escape); });
    CHECK(d.session().store()->book().size() == before);
    n([&] { d.keys("8 mm"), d.press(Qt::Key_Return, Qt::ControlModifier); });
    const auto book = d.session().store()->book();
    REQUIRE(book.size() == before + 1);
    CHECK(book.back().kind == "reading");
    CHECK(book.back().what == "dry film");
    CHECK(book.back().value == "0.08");
    // The next begins empty.
    n([&] { d.keys("all dry\nand flat"), d.press(Qt::Key_Return, Qt::ControlModifier); });
    CHECK(d.session().store()->book().back().value == "all dry\nand flat");
}

TEST_CASE("walk: the meter's booklet is typed on the shop's page – a wood nobody knows is said and nothing is lost",
          "[app][typing][shop]") {
    Desk d;
    d.press(Qt::Key_S);
    auto* line = d.find<QLineEdit>("shop_meter");
    REQUIRE(line->isVisible());
    QTest::mouseClick(line, Qt::LeftButton);
    d.keys("hackberry 1.05 -0.3; butternut 0.98\n");
    REQUIRE(d.session().shop().meter.size() == 2);
    CHECK(d.session().shop().meter[0] == MeterWood{"hackberry", 1.05, -0.3});
    line->selectAll();
    d.keys("granite 1\n");
    CHECK(d.session().shop().meter.size() == 2);
    CHECK(d.text("status").contains("granite"));
    CHECK(d.text("status").contains("hackberry 1.05 -0.3"));
}

TEST_CASE("walk: a job is renamed in its dialog", "[app][typing]") {
    Desk d;
    bool typed = false;
    d.click("job");
    auto* page = d.window->findChild<JobsPage*>();
    REQUIRE(page);
    page->wait();
    d.settle();
    d.click(("job_more_" + d.session().job_id()).c_str());
    auto* menu = d.window->findChild<QMenu*>("job_menu");
    REQUIRE(menu);
    menu->close();
    d.once_asked([&] {
        typed = true;
        d.keys("Hall table 2\n");
    });
    for (QAction* a : menu->actions())
        if (a->text().startsWith("Rename")) a->trigger();
    CHECK(typed);
    CHECK(d.session().job_name() == "Hall table 2");
}

TEST_CASE("walk: G types the dimension, digits and all", "[app][typing]") {
    Desk d;
    d.click("step_lay");
    click_bench(d);
    d.press(Qt::Key_Escape);
    d.press(Qt::Key_G);
    d.keys("1432\n");
    const WantedTop& top = *d.session().top();
    CHECK((top.length_mm == 1432 || top.width_mm == 1432));
    CHECK(now(d) == step_key::lay);
}

TEST_CASE("walk: a filter of the rack and a pick of the wood take letters", "[app][typing]") {
    Desk d;
    d.click("step_rack");
    d.into("rack_filter");
    d.keys("butternut 4");
    CHECK(d.find<QLineEdit>("rack_filter")->text() == "butternut 4");
    CHECK(now(d) == step_key::rack);
    auto* wood = d.seek<QComboBox>("slab_species");
    d.reveal(wood);
    wood->setFocus();
    const auto before = d.session().step();
    d.keys("h");
    CHECK(d.session().step() == before);
    CHECK(wood->currentText().startsWith('h', Qt::CaseInsensitive));
}

TEST_CASE("while nothing takes characters, single keys are commands", "[app][typing]") {
    Desk d;
    click_bench(d);
    d.keys("2");
    CHECK(now(d) == step_key::lay);
    d.keys("3");
    CHECK(now(d) == step_key::flat);
    d.keys("t");
    CHECK(now(d) == step_key::rack);
    CHECK(QApplication::focusWidget() == d.find<QTableWidget>("tape_table"));
}
