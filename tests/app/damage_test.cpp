// Damaged shops and odd values, as the maker meets them.
#include <QPlainTextEdit>

#include <SQLiteCpp/SQLiteCpp.h>

#include "app/ground/slow/runner.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {
void spoil(Desk& desk, const char* statement) {
    desk.window = nullptr;
    SQLite::Database(desk.shop().toStdString(), SQLite::OPEN_READWRITE).exec(statement);
}
}  // namespace

TEST_CASE("a damaged shop is not opened: its backup is offered, and a new file of all that is whole", "[app][damage]") {
    Desk desk;
    desk.restart();
    wait_for_all();  // today's backup is made beside the work
    desk.session().edit_job("Name", [](Job& j) { j.name = "Written after the backup"; });
    spoil(desk, "UPDATE change SET body = replace(body, 'Written', 'Writhen') WHERE body LIKE '%Written after%'");
    desk.restart();
    CHECK_FALSE(desk.session().is_open());
    CHECK(desk.text("start_text").contains("damaged"));
    CHECK(desk.text("start_text").contains("does not fit its checksum"));
    wait_for_all();
    desk.click("open_repair");
    desk.wait();
    wait_for_all();
    CHECK(desk.text("start_text").contains("a-repaired.shop"));
    const QString lost = desk.find<QPlainTextEdit>("repair_lost")->toPlainText();
    CHECK(lost.contains("no backup has it"));
    CHECK(desk.find<QPushButton>("open_backup")->isEnabled());
    desk.click("open_repaired");
    CHECK(desk.session().is_open());
    CHECK(desk.session().path().endsWith("a-repaired.shop"));
    CHECK(desk.session().documents().slabs.size() == 23);
    CHECK(desk.session().job()->name != "Written after the backup");
    CHECK_FALSE(desk.session().read_only());
    // And the backup, as a copy.
    desk.window->open_shop(desk.shop());
    wait_for_all();
    desk.click("open_backup");
    CHECK(desk.session().is_open());
    CHECK(desk.session().path().contains(".from-"));
    CHECK(desk.session().documents().slabs.size() == 23);
}

TEST_CASE("damage beside what is shown is told while the work goes on, and repaired from there", "[app][damage]") {
    Desk desk;
    desk.session().edit_job("Name", [](Job& j) { j.name = "Foremost"; });
    desk.session().edit_job("Name", [](Job& j) { j.name = "Second"; });
    // An older revision's body: nothing that is shown.
    spoil(desk, "UPDATE change SET body = replace(body, 'Foremost', 'Forem0st') WHERE body LIKE '%Foremost%'");
    desk.restart();
    REQUIRE(desk.session().is_open());
    CHECK(desk.session().job()->name == "Second");
    wait_for_all();
    CHECK(desk.text("status").contains("damaged"));
    CHECK(desk.find<QPushButton>("mend")->isVisible());
    desk.click("mend");
    desk.wait();
    wait_for_all();
    desk.click("open_repaired");
    CHECK(desk.session().job()->name == "Second");
    wait_for_all();
    CHECK_FALSE(desk.find<QPushButton>("mend")->isVisible());
    CHECK_FALSE(desk.text("status").contains("damaged"));
}

TEST_CASE("no odd value in the tape table makes a shop that can't be opened", "[app][damage]") {
    Desk desk;
    desk.session().set_step(step_key::rack);
    desk.session().look_at("slab-sycamore-3");
    desk.click("type_tape");
    for (const char* odd : {"99999999999", "-1", "0", "1e300", "nan", "1e-9", "", "abc"}) {
        INFO(odd);
        desk.cell(1, 1, odd);
        REQUIRE(desk.session().is_open());
        CHECK(desk.session().plan());
    }
    desk.cell(1, 1, "99999999999");
    desk.restart();
    REQUIRE(desk.session().is_open());
    CHECK(desk.session().plan());
    CHECK(desk.session().slabs().count("slab-sycamore-3"));
    desk.session().undo();
    CHECK(desk.session().is_open());
}
