// Two programs on one shop: the window and another hand that writes into the same file.
#include "core/files/store/store.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

TEST_CASE("what another program does is shown, and what both do is kept", "[app][two]") {
    Desk desk;
    Store other = Store::open(desk.shop().toStdString());
    Documents d = other.documents();
    rename_job(d.jobs.at("job-reading-table"), "Reading table for the seed library, second");
    other.append("Rename the job", d);
    // Seen by itself within a moment.
    desk.session().set_job("job-reading-table");
    for (int i = 0; i < 60 && desk.session().job()->name != "Reading table for the seed library, second"; ++i) QTest::qWait(50);
    CHECK(desk.find<QPushButton>("job")->text() == "Reading table for the seed library, second");
    CHECK(desk.text("status").contains("Another program"));
    // Both write before either looks: the other the slab's note, the window the top's length.
    desk.click("step_lay");
    d = other.documents();
    d.slabs.at(d.jobs.at("job-reading-table").first().slab).notes = "chalked at the yard";
    d.jobs.at("job-reading-table").under.helpers = 3;
    other.append("A note", d);
    desk.type("top_length", "1750");
    CHECK(desk.session().top()->length_mm == 1750);
    CHECK(desk.session().job()->under.helpers == 3);
    other.catch_up();
    CHECK(other.documents() == desk.session().documents());
    CHECK(other.documents().jobs.at("job-reading-table").top.length_mm == 1750);
    // Undo first shows what came in between, and takes nothing back of it.
    d = other.documents();
    d.shop.name = "The tarn workshop, both of us";
    other.append("Name the shop", d);
    desk.click("undo");
    CHECK(desk.text("status").contains("Nothing was taken back"));
    CHECK(desk.session().shop().name == "The tarn workshop, both of us");
    CHECK(desk.session().top()->length_mm == 1750);
    CHECK(desk.session().undo_label() == "Name the shop");
    desk.click("undo");
    desk.click("undo");
    CHECK(desk.session().top()->length_mm != 1750);
    CHECK(desk.session().job()->under.helpers == 3);
}

TEST_CASE("a drag is not disturbed by another program's edit, which comes with its end", "[app][two]") {
    Desk desk;
    desk.session().set_job("job-reading-table");
    desk.click("step_lay");
    Store other = Store::open(desk.shop().toStdString());
    const Placement before = desk.session().job()->first().placement;
    desk.session().preview([](Job& j) { move_top(j, {12, 0}); });
    Documents d = other.documents();
    d.shop.name = "Meanwhile";
    other.append("Name the shop", d);
    QTest::qWait(1700);
    CHECK(desk.session().previewing());
    CHECK(desk.session().shop().name != "Meanwhile");
    desk.session().keep("Move the top");
    CHECK(desk.session().shop().name == "Meanwhile");
    CHECK(desk.session().job()->first().placement.x_mm == Approx(before.x_mm + 12));
}
