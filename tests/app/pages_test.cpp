// The pages behind the door: jobs, the shop in its groups, what could be made, the guide, the tour.
#include <QCheckBox>
#include <QListWidget>
#include <QMenu>
#include <QSettings>
#include <QTextBrowser>

#include "app/ground/slow/runner.h"
#include "app/pages/find/find_page.h"
#include "app/pages/guide/guide_page.h"
#include "app/pages/jobs/jobs_page.h"
#include "app/pages/shop/shop_page.h"
#include "app/pages/shop/shop_pictures.h"
#include "app/pages/tour/tour.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/ways/ways.h"
#include "core/steps/pace/pace.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

JobsPage* jobs(Desk& desk) {
    desk.keys("j");
    auto* page = desk.window->findChild<JobsPage*>();
    REQUIRE(page);
    page->wait();
    desk.settle();
    return page;
}

/// What the "…" of a card offers, pressed by its words.
void offered(Desk& desk, const char* card, const QString& words) {
    desk.click(card);
    auto* menu = desk.window->findChild<QMenu*>("job_menu");
    REQUIRE(menu);
    for (QAction* a : menu->actions())
        if (a->text() == words) {
            a->trigger();
            menu->close();
            QTest::qWait(1);
            return;
        }
    FAIL(words.toStdString());
}

}  // namespace

TEST_CASE("the page of jobs tells of each where it stands – a press puts it on the bench", "[app][jobs]") {
    Desk desk;
    JobsPage* page = jobs(desk);
    REQUIRE(page->isVisible());
    const auto cards = page->findChildren<JobCard*>();
    const Documents& docs = desk.session().documents();
    CHECK(cards.size() == std::count_if(docs.jobs.begin(), docs.jobs.end(), [&](const auto& j) {
              return first_of_ways(docs, j.first) == j.first;
          }));  // other ways stand on the page of money
    for (const JobCard* c : cards) {
        CHECK_FALSE(c->accessibleName().isEmpty());
        CHECK(c->accessibleDescription().contains("next:"));
    }
    QTest::mouseClick(desk.find<JobCard>("job_card_job-hall-table"), Qt::LeftButton);
    QTest::qWait(1);
    CHECK_FALSE(page->isVisible());
    CHECK(desk.session().job_id() == "job-hall-table");
    CHECK(desk.find<QPushButton>("job")->text() == desk.session().job_name());
}

TEST_CASE("a job is copied, put away, brought back – undo takes each back", "[app][jobs]") {
    Desk desk;
    const std::size_t before = desk.session().documents().jobs.size();
    JobsPage* page = jobs(desk);
    offered(desk, "job_more_job-hall-table", "Copy it");
    page->wait();
    CHECK(desk.session().documents().jobs.size() == before + 1);
    offered(desk, "job_more_job-hall-table", "Put it away");
    page->wait();
    desk.settle();
    CHECK(desk.session().documents().jobs.at("job-hall-table").put_away);
    CHECK(page->findChild<JobCard*>("job_card_job-hall-table") == nullptr);
    auto* away = desk.find<QCheckBox>("jobs_away");
    REQUIRE(away->isVisible());
    away->click();
    desk.settle();
    REQUIRE(page->findChild<JobCard*>("job_card_job-hall-table"));
    offered(desk, "job_more_job-hall-table", "Bring it back");
    page->wait();
    CHECK_FALSE(desk.session().documents().jobs.at("job-hall-table").put_away);
    desk.session().undo();
    CHECK(desk.session().documents().jobs.at("job-hall-table").put_away);
    desk.session().undo();
    desk.session().undo();
    CHECK(desk.session().documents().jobs.size() == before);
}

TEST_CASE("a job that is delivered gets its number, uses up its slabs, and what it taught is used from then on – undone, all is back",
          "[app][jobs][pace]") {
    Desk desk;
    REQUIRE(desk.session().shop().paces.empty());
    JobsPage* page = jobs(desk);
    const auto day = [&](const char* on) {
        desk.once_asked([&desk, on] { desk.keys(on); });
        offered(desk, "job_more_job-hall-table", "It is delivered…");
        page->wait();
        wait_for_all();
        desk.settle();
    };
    const auto hall = [&]() -> const Job& { return desk.session().documents().jobs.at("job-hall-table"); };
    const std::string slab = hall().first().slab;
    day("soon\n");
    CHECK(hall().record.delivered.empty());
    CHECK(desk.text("status").contains("soon"));
    day("2027-03-05\n");
    CHECK(hall().record.delivered == "2027-03-05");
    CHECK(hall().record.number == "2027-01");
    CHECK(desk.session().documents().slabs.at(slab).retired);
    REQUIRE_FALSE(desk.session().shop().paces.empty());
    CHECK(desk.text("status").contains("Yours from now on"));
    CHECK(pace_of(desk.session().shop().paces, "sand_after") > 1.1);
    const auto book = desk.session().store()->book();
    CHECK(std::any_of(book.begin(), book.end(), [](const BookEntry& e) { return e.what == "Delivered" && e.value == "2027-03-05"; }));
    offered(desk, "job_more_job-hall-table", "It is not delivered after all");
    CHECK(hall().record.delivered.empty());
    CHECK_FALSE(desk.session().documents().slabs.at(slab).retired);
    desk.session().undo();  // that
    desk.session().undo();  // the pace
    desk.session().undo();  // the delivery
    CHECK(desk.session().shop().paces.empty());
    CHECK(hall().record.number.empty());
}

TEST_CASE("the shop's page: a group at a time, what was changed is marked and given back", "[app][shop]") {
    Desk desk;
    desk.keys("s");
    for (const char* group : {"air", "hands", "sled", "machines", "stock", "resins", "money"}) {
        INFO(group);
        desk.click((std::string("shop_group_") + group).c_str());
        CHECK(desk.find<QPushButton>((std::string("shop_group_") + group).c_str())->isChecked());
        int seen = 0;
        for (const ShopPicture* p : desk.window->findChildren<ShopPicture*>()) seen += p->isVisible();
        CHECK(seen == (std::string(group) == "resins" ? 0 : 1));
    }
    desk.click("shop_group_sled");
    const double was = desk.session().shop().sled.cutter_mm;
    auto* back = desk.find<QPushButton>("sled_cutter_back");
    CHECK_FALSE(back->isEnabled());
    desk.type("sled_cutter", "2 in");
    CHECK(desk.session().shop().sled.cutter_mm == Approx(50.8));
    CHECK(back->isEnabled());
    CHECK(back->text().contains("38"));
    desk.click("sled_cutter_back");
    CHECK(desk.session().shop().sled.cutter_mm == was);
    CHECK_FALSE(back->isEnabled());
}

TEST_CASE("a machine that is not there is no way to flatten any more, and a job that has it says so", "[app][shop]") {
    Desk desk;
    desk.session().set_job("job-hall-table");
    const auto has_way = [&](const char* key) {
        for (const Choice& c : desk.session().plan()->said(step_key::flat).choices)
            if (c.key == "flat.by")
                for (const Option& o : c.options)
                    if (o.key == key) return true;
        return false;
    };
    CHECK(has_way("drum_sander"));
    desk.session().choose("by", "flat.by", "drum_sander");
    desk.keys("s");
    desk.click("shop_group_machines");
    auto* combo = desk.find<QComboBox>("has_drum");
    combo->setFocus();
    QTest::keyClick(combo, Qt::Key_Up);  // "not here"
    CHECK_FALSE(desk.session().shop().sled.tools.has_drum);
    CHECK(find_caution(desk.session().plan()->said(step_key::flat).cautions, "flat.no_tool"));
    CHECK(has_way("drum_sander"));  // chosen: it stays in the list and says why
    desk.session().choose("by", "flat.by", "sled");
    CHECK_FALSE(has_way("drum_sander"));
}

TEST_CASE("the year's air is a line whose points are dragged", "[app][shop]") {
    Desk desk;
    desk.keys("s");
    auto* air = desk.find<AirPicture>("shop_air_year");
    const double before = desk.session().shop().air.months[4].rh_pct;
    const QPoint from = air->point(4, true).toPoint();
    QTest::mousePress(air, Qt::LeftButton, {}, from);
    for (int i = 1; i <= 6; ++i) QTest::mouseMove(air, from - QPoint(0, 5 * i)), QTest::qWait(1);
    QTest::mouseRelease(air, Qt::LeftButton, {}, from - QPoint(0, 30));
    CHECK(desk.session().shop().air.months[4].rh_pct > before + 2);
    CHECK(desk.find<QLineEdit>("shop_rh_5")->text().startsWith(QString::number(desk.session().shop().air.months[4].rh_pct)));
    desk.session().undo();
    CHECK(desk.session().shop().air.months[4].rh_pct == before);
}

TEST_CASE("placements are pinned side by side, three at most – one press makes it the job's", "[app][find]") {
    Desk desk;
    desk.keys("f");
    auto* page = desk.window->findChild<FindPage*>();
    REQUIRE(page);
    page->wait();
    desk.settle();
    const auto pins = [&] {
        int n = 0;
        for (const Ticket* t : page->findChildren<Ticket*>()) n += t->pinned() && t->isVisible();
        return n;
    };
    CHECK(pins() == 0);
    desk.click("pin_ticket_1");
    desk.click("pin_ticket_2");
    desk.click("pin_ticket_2");  // the same once more is no other
    CHECK(pins() == 2);
    desk.click("pin_ticket_3");
    desk.click("pin_ticket_4");
    CHECK(pins() == 3);
    auto* pinned = desk.find<Ticket>("pinned_4");
    const auto slabs = pinned->found().slabs;
    desk.click("let_go_pinned_3");
    CHECK(pins() == 2);
    QTest::mouseClick(pinned, Qt::LeftButton, {}, QPoint(30, 60));
    CHECK(desk.session().step() == step_key::lay);
    for (const std::string& s : slabs) CHECK(desk.session().uses(s));
}

TEST_CASE("before there is a job, what is wanted is typed, looked for and made one in a press", "[app][find]") {
    Desk desk;
    desk.session().edit("no jobs", [](Documents& d) { d.jobs.clear(); });
    desk.session().set_job({});
    REQUIRE_FALSE(desk.session().job());
    desk.keys("f");
    auto* page = desk.window->findChild<FindPage*>();
    REQUIRE(page);
    desk.type("find_length", "1.4 m");
    desk.type("find_width", "600");
    page->wait();
    desk.settle();
    auto* first = desk.find<Ticket>("ticket_1");
    CHECK(first->found().fits);
    const std::string slab = first->found().slabs.front();
    QTest::mouseClick(first, Qt::LeftButton, {}, QPoint(60, 60));
    REQUIRE(desk.session().job());
    CHECK(desk.session().top()->length_mm == 1400);
    CHECK(desk.session().top()->width_mm == 600);
    CHECK(desk.session().uses(slab));
}

TEST_CASE("F1 opens the guide at the step, the page and the caution it is asked from – it is searched", "[app][guide]") {
    Desk desk;
    const auto guide = [&] { return desk.window->findChild<GuidePage*>(); };
    desk.click("step_under");
    desk.press(Qt::Key_F1);
    REQUIRE(guide());
    CHECK(guide()->isVisible());
    CHECK(guide()->shown() == "under.md");
    desk.press(Qt::Key_Escape);
    CHECK_FALSE(guide()->isVisible());
    desk.keys("f");
    desk.press(Qt::Key_F1);
    CHECK(guide()->shown() == "leaves.md");
    CHECK(desk.find<QTextBrowser>("guide_paper")->textCursor().selectedText().startsWith("What could be made"));
    // Back where it was asked from.
    desk.click("guide_back");
    CHECK(desk.window->findChild<FindPage*>()->isVisible());
    desk.click("find_back");
    desk.press(Qt::Key_F1);
    desk.keys("boils");
    auto* list = desk.find<QListWidget>("guide_list");
    REQUIRE(list->count() >= 1);
    CHECK(list->item(0)->text().contains("boils"));
    CHECK(guide()->shown() == guide()->search("boils").front().page);
    desk.type("guide_words", "zebra crossing");
    CHECK(list->item(0)->text().contains("Nothing"));
    // Every step and page has its place; every place is there.
    for (const StepRow& row : steps()) {
        guide()->open_at(QString::fromStdString(std::string(row.step.key)));
        CHECK_FALSE(guide()->shown().isEmpty());
    }
    for (const char* topic : {"find", "log", "shop", "jobs", "grow", "photo", "start", "rack", "lay", "fill", "sheets"}) {
        INFO(topic);
        guide()->open_at(topic);
        CHECK(desk.find<QTextBrowser>("guide_paper")->textCursor().hasSelection());
    }
}

TEST_CASE("a tour of five stops, offered once and left at any time", "[app][tour]") {
    QSettings().remove("tour_offered");
    Desk desk;
    auto* offer = desk.find<QPushButton>("tour_offer");
    REQUIRE(offer->isVisible());
    desk.click("tour_offer");
    auto* tour = desk.find<Tour>("tour");
    REQUIRE(tour->isVisible());
    CHECK_FALSE(offer->isVisible());
    QStringList titles;
    for (int i = 0; i < 5; ++i) {
        CHECK(tour->stop() == i);
        titles << desk.find<QLabel>("tour_title")->text();
        // The note stands inside the window.
        CHECK(tour->rect().contains(desk.find<QWidget>("tour_note")->geometry()));
        QTest::keyClick(desk.find<QPushButton>("tour_next"), Qt::Key_Space);
        QTest::qWait(1);
    }
    titles.removeDuplicates();
    CHECK(titles.size() == 5);
    CHECK(desk.window->findChild<Tour*>() == nullptr);
    desk.window->take_tour();
    REQUIRE(desk.window->findChild<Tour*>());
    QTest::keyClick(desk.find<QPushButton>("tour_next"), Qt::Key_Escape);
    QTest::qWait(1);
    CHECK(desk.window->findChild<Tour*>() == nullptr);
    Desk again;
    CHECK_FALSE(again.find<QPushButton>("tour_offer")->isVisible());
}
