// The door: what somebody meets who has nothing yet.
#include <QDir>
#include <QSettings>

#include "app/pages/start/start_card.h"
#include "app/pages/start/start_page.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/pour/pour.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

/// A home of its own, with a folder for documents, and nothing remembered.
struct Home {
    QTemporaryDir dir;
    QByteArray before = qgetenv("HOME");
    Home() {
        qputenv("HOME", dir.path().toUtf8());
        QDir(dir.path()).mkdir("Documents");
        QSettings().remove("recent");
    }
    ~Home() {
        qputenv("HOME", before);
        QSettings().remove("recent");
    }
};

std::string shop_name(const QString& path) { return Store::open(path.toStdString()).documents().shop.name; }

}  // namespace

TEST_CASE("a shop of one's own is named on the start page and open with one Enter", "[app][first]") {
    const Home home;
    Desk desk(false);
    desk.keys("Hill workshop\n");
    REQUIRE(desk.session().is_open());
    CHECK(QFileInfo(desk.session().path()).fileName() == "hill-workshop.shop");
    CHECK(desk.session().path().startsWith(home.dir.path()));
    CHECK(shop_name(desk.session().path()) == "Hill workshop");
    CHECK(desk.text("status").contains("hill-workshop.shop"));
    // The next one of that name gets a file of its own, and the first stays as it is.
    const QString first = desk.session().path();
    desk.window->show_start();
    desk.keys("Hill workshop\n");
    CHECK(QFileInfo(desk.session().path()).fileName() == "hill-workshop-2.shop");
    CHECK(QFile::exists(first));
}

TEST_CASE("names that no file can have are kept as names, and none is asked for", "[app][first]") {
    const Home home;
    const QString folder = QFileInfo(StartPage::place_for("x")).path();
    CHECK(StartPage::place_for("a/b:c") == folder + "/a-b-c.shop");
    CHECK(StartPage::place_for("../../etc").startsWith(folder + "/"));
    CHECK(QFileInfo(StartPage::place_for(QString(300, 'w'))).fileName().size() < 70);
    CHECK(StartPage::place_for(QString::fromUtf8("Tarnhütte")) == folder + QString::fromUtf8("/tarnhütte.shop"));
    CHECK(StartPage::place_for("///") == folder + "/shop.shop");
    Desk desk(false);
    desk.keys("  \n");
    CHECK_FALSE(desk.session().is_open());
    CHECK(desk.find<QLabel>("start_told")->text().contains("Give the shop a name"));
    desk.keys("North / south, at the tarn\n");
    REQUIRE(desk.session().is_open());
    CHECK(shop_name(desk.session().path()) == "North / south, at the tarn");
}

TEST_CASE("a place that can't be written is said on the page", "[app][first]") {
    const Home home;
    Desk desk(false);
    auto* page = desk.window->findChild<StartPage*>();
    REQUIRE(page);
    Q_EMIT page->own("Nowhere", "/proc/nowhere/a.shop");
    CHECK_FALSE(desk.session().is_open());
    CHECK(desk.find<QLabel>("start_told")->isVisible());
    CHECK_FALSE(desk.find<QLabel>("start_told")->text().isEmpty());
}

TEST_CASE("the shops last used stand below with what they hold – one that is gone says so", "[app][first]") {
    const Home home;
    {
        Desk desk(false);
        CHECK_FALSE(desk.window->findChild<RecentCard*>());
    }
    QStringList recent{home.dir.filePath("gone.shop")};
    for (int i = 0; i < 20; ++i) {
        recent << home.dir.filePath(QString("shop-%1.shop").arg(i));
        if (i > 1) continue;
        Documents d;
        d.shop.name = "Shop " + std::to_string(i);
        Slab s;
        s.id = "a", s.name = "Plank", s.tape.stations = {{0, 200, 200, {}, {}, 50, {}}, {1500, 210, 190, {}, {}, 50, {}}};
        d.slabs["a"] = s;
        Store::create(recent.back().toStdString(), d, "New shop");
    }
    QSettings().setValue("recent", recent);
    Desk desk(false);
    const auto cards = desk.window->findChildren<RecentCard*>();
    REQUIRE(cards.size() == 3);
    CHECK(cards[0]->gone());
    CHECK(cards[0]->holds().contains("not where it was"));
    CHECK_FALSE(cards[1]->gone());
    REQUIRE(becomes([&] { return cards[1]->holds().contains("1 slab"); }));
    CHECK(cards[1]->text() == "Shop 0");
    CHECK(desk.find<QPushButton>("start_more")->text().startsWith("18 more"));
    QTest::mouseClick(cards[1], Qt::LeftButton);
    REQUIRE(desk.session().is_open());
    CHECK(desk.session().path() == recent[1]);
}

TEST_CASE("from nothing to a laid top by what stands next, by the keyboard alone", "[app][first]") {
    const Home home;
    Desk desk(false);
    desk.keys("Hill workshop\n");
    REQUIRE(desk.session().is_open());
    const auto next = [&] {
        desk.press(Qt::Key_Return, Qt::ControlModifier);
        desk.settle();
    };
    next();  // a new slab, its tape table waiting
    REQUIRE(desk.session().slabs().size() == 1);
    desk.keys("210\t200\t\t\t45\n215\t205\t\t\t45\n220\t204\t\t\t45\n216\t200\t\t\t45\n212\t198\t\t\t45\n");
    desk.press(Qt::Key_Escape);
    REQUIRE(desk.session().slabs().begin()->second.tape.stations.size() == 5);
    next();  // a job from it
    REQUIRE(desk.session().job());
    // 1200 long, at its narrowest 410: the top is what the slab gives.
    CHECK(desk.session().top()->length_mm == 1140);
    CHECK(desk.session().top()->width_mm == 410);
    CHECK(desk.session().plan()->lay->fits);
    // On by the same key to the last sheet: what is missing is made on the way.
    std::vector<std::string> went;
    for (int i = 0; i < 12 && !(desk.session().step() == step_key::sheets); ++i) {
        next();
        went.emplace_back(desk.session().step().key);
    }
    CHECK(desk.session().step() == step_key::sheets);
    CHECK(desk.session().job()->under.plates.size() == 2);
    CHECK(std::find(went.begin(), went.end(), "pour") == went.end());  // there is nothing to pour
}

TEST_CASE("next makes what is missing, wherever one stands", "[app][first]") {
    const Home home;
    Desk desk(false);
    desk.keys("Hill workshop\n");
    const auto word = [&] {
        desk.settle();
        return desk.find<QPushButton>("next")->text();
    };
    desk.session().set_step(step_key::flat);
    CHECK(word() == "Next: the first slab");
    desk.click("next");
    CHECK(desk.session().step() == step_key::rack);
    desk.press(Qt::Key_Return, Qt::ControlModifier);  // a new slab
    desk.session().set_step(step_key::under);
    CHECK(word().startsWith("Next: measure"));
    desk.click("next");
    CHECK(desk.session().step() == step_key::rack);
    CHECK(desk.find<QTableWidget>("tape_table")->isVisible());
    desk.keys("210\t200\t\t\t45\n215\t205\t\t\t45\n");
    desk.session().set_step(step_key::pour);
    CHECK(word().startsWith("Next: a job on"));
    desk.click("next");
    REQUIRE(desk.session().job());
    CHECK(desk.session().step() == step_key::lay);
    CHECK(desk.session().plan()->lay->ready);
}

TEST_CASE("a slab fills its list: blanks are clicked and typed, none is said, no caution stands for what is not known",
          "[app][first][looked]") {
    const Home home;
    Desk desk(false);
    desk.keys("Hill workshop\n");
    desk.press(Qt::Key_Return);
    desk.settle();
    CHECK(desk.text("looked_at") == "0 of 9 looked at");
    CHECK(desk.session().plan()->rack.cautions.empty());
    desk.keys("210\t200\t\t\t45\n215\t205\t\t\t45\n");
    CHECK(desk.text("looked_at") == "2 of 9 looked at");
    desk.click("look_moisture");
    CHECK(desk.window->focusWidget()->objectName() == "slab_moisture");
    desk.keys("11\n");
    CHECK(desk.session().slab()->moisture_pct == 11);
    desk.click("look_price");
    desk.keys("240\n");
    desk.click("none_flaws");
    desk.click("none_pith");
    desk.click("look_faces");
    CHECK(desk.text("looked_at") == "7 of 9 looked at");
    CHECK_FALSE(desk.find<QPushButton>("none_flaws")->isVisible());
    desk.click("look_twist");
    CHECK(desk.find<QPushButton>("tape_heights_a")->isChecked());
    desk.keys("1.5\n");
    CHECK(desk.text("looked_at") == "8 of 9 looked at");
    // Taken back, the blank is there again.
    desk.session().undo();
    desk.settle();
    CHECK(desk.text("looked_at") == "7 of 9 looked at");
}

TEST_CASE("in the tape a figure in another unit is told as it was understood, and what can't be is said at its cell",
          "[app][first][tape]") {
    const Home home;
    Desk desk(false);
    desk.keys("Hill workshop\n");
    desk.press(Qt::Key_Return);
    desk.keys("8 1/4 in\t");
    CHECK(desk.text("tape_hint").contains("209"));
    CHECK(desk.session().slabs().begin()->second.tape.stations.at(0).left_mm == Approx(209.55));
    auto* table = desk.find<QTableWidget>("tape_table");
    CHECK(table->horizontalHeaderItem(1)->text().endsWith("mm"));
    desk.keys("wide\t");
    auto* said = desk.find<QLabel>("tape_at_cell");
    REQUIRE(said->isVisible());
    CHECK(said->text().contains("wide"));
    CHECK(std::abs(said->geometry().left() - table->visualItemRect(table->item(0, 2)).left()) < 60);
    CHECK(table->item(0, 2)->text() == "wide");
    table->setCurrentCell(0, 2);
    desk.keys("200\t");
    CHECK_FALSE(said->isVisible());
    desk.window->session().edit_shop("inches", [](Shop& s) { s.units = Units::imperial(); });
    CHECK(table->horizontalHeaderItem(1)->text().endsWith("in"));
}

TEST_CASE("a stock list and whatever is dropped is brought in by its kind", "[app][first]") {
    const Home home;
    Desk desk(false);
    const auto written = [&](const char* name, const QByteArray& bytes) {
        QFile f(desk.dir.filePath(name));
        REQUIRE(f.open(QIODevice::WriteOnly));
        f.write(bytes);
        return f.fileName();
    };
    // Dropped on the start page: a shop is opened for it.
    CHECK(desk.window->bring_file(
        written("list.csv", "name,wood,length,width,thickness\nA,butternut,2200,500,52\nB,butternut,2100,480,54\n")));
    desk.wait();
    REQUIRE(desk.session().is_open());
    CHECK(desk.session().slabs().size() == 2);
    CHECK(desk.session().plan()->shape()->usable);
    CHECK_FALSE(desk.window->bring_file(written("song.mp3", "la")));
    CHECK(desk.window->bring_file(written("bad.csv", "name,length\nA,very\n")));
    desk.wait();
    CHECK(desk.window->said().contains("line 2"));
    CHECK(desk.session().slabs().size() == 2);
    desk.session().undo();
    CHECK(desk.session().slabs().empty());
}

TEST_CASE("an empty rack shows the ways in where the slabs will stand, and nothing that acts on none", "[app][first]") {
    const Home home;
    Desk desk(false);
    desk.keys("Hill workshop\n");
    auto* ways = desk.window->findChild<QWidget*>("ways_in");
    REQUIRE(ways);
    CHECK(ways->isVisible());
    for (const char* name : {"way_tape", "way_photograph", "way_scan", "way_drawing", "way_log"}) {
        auto* card = desk.window->findChild<StartCard*>(name);
        REQUIRE(card);
        CHECK(desk.window->rect().contains(QRect(card->mapTo(desk.window.get(), QPoint(0, 0)), card->size())));
        CHECK_FALSE(card->accessibleDescription().isEmpty());
    }
    for (const char* name : {"retire_slab", "copy_slab", "split_slab", "draw_flaw", "type_tape"})
        CHECK_FALSE(desk.window->findChild<QPushButton*>(name));
    // The tape is what Enter takes, and the bench is there as soon as there is a slab.
    desk.press(Qt::Key_Return);
    REQUIRE(desk.session().slabs().size() == 1);
    CHECK_FALSE(ways->isVisible());
    desk.keys("200\t190\n");
    CHECK(desk.session().slabs().begin()->second.tape.stations.at(0).left_mm == 200);
    // Undone, the rack is empty again.
    while (desk.session().can_undo()) desk.session().undo();
    QApplication::processEvents();
    CHECK(ways->isVisible());
}

TEST_CASE("six readings at the yard are typed, and the slip says what the slab finishes at", "[app][rack]") {
    Desk desk;
    desk.session().edit_slab("No heights", [](Slab& s) { s.heights_a = s.heights_b = {}; });
    desk.click("step_rack");
    CHECK_FALSE(desk.window->findChild<QLabel*>("label_rack.yard"));
    desk.type("yard_bow_left", "6");
    desk.type("yard_twist", "1/2 in");
    desk.settle();
    const Figure* said = nullptr;
    for (const Figure& f : desk.session().plan()->rack.figures)
        if (f.key == "rack.yard") said = &f;
    REQUIRE(said);
    CHECK(desk.text("label_rack.yard").contains("The whole slab finishes at about"));
    CHECK(desk.find<QLineEdit>("yard_twist")->text().startsWith("12.7"));
    // Emptied, an edge counts as straight; undo brings the reading back.
    desk.type("yard_bow_left", "");
    CHECK(desk.find<QLineEdit>("yard_bow_left")->text().startsWith("0"));
    desk.session().undo();
    desk.settle();
    CHECK(desk.find<QLineEdit>("yard_bow_left")->text().startsWith("6"));
}
