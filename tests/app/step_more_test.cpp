// A step of its own, added at run time, walks through the window: slip, stick, menu, sheet.
#include <QMenuBar>

#include "app/kit/step_views.h"
#include "app/steps/sheets/flow.h"
#include "app/steps/sheets/sheet.h"
#include "app/steps/sheets/sheets.h"
#include "core/shop/job/plan.h"
#include "tests/app/desk.h"
#include "tests/wax_row.h"

using namespace yb;

namespace {

int written = 0;

class WaxView : public StepView {
  public:
    Step step() const override { return wax; }
    QString help() const override { return "Wax it with a pad."; }
};

}  // namespace

TEST_CASE("a step added as a row and a view is on the slip, the stick, the keys and the sheet", "[app][rows]") {
    const StepMore more(wax_row());
    const StepViewMore view({wax, Qt::Key_9, [](const StepParts&) -> std::unique_ptr<StepView> { return std::make_unique<WaxView>(); },
                             [](Flow& flow, const SheetData& d) {
                                 ++written;
                                 flow.heading(QString("Wax ") + d.say(d.plan.more.at("wax")->figures.front().value));
                             }});
    Desk desk;
    desk.session().set_job("job-reading-table");
    // What comes next leads there from the step before, and on from it.
    desk.session().set_step(Step{"skin"});
    desk.settle();
    CHECK(desk.find<QPushButton>("next")->text().contains("wax it"));
    desk.click("next");
    REQUIRE(desk.session().step() == wax);
    desk.settle();
    bool said = false;
    for (const QWidget* w : desk.find<QWidget>("slip_page")->findChildren<QWidget*>())
        said = said || w->accessibleName().contains("Wax for this top");
    CHECK(said);
    CHECK(desk.find<QPushButton>("next")->text().contains("the bench sheet"));
    desk.keys("1");
    CHECK(desk.session().step() == step_key::rack);
    desk.keys("9");
    CHECK(desk.session().step() == wax);
    CHECK(desk.session().pick_next(1));
    CHECK(desk.session().picked() == "wax 1");
    // The stick has its operation and is ready for what it says.
    CHECK(desk.session().plan()->days->operations.back().label == "Wax");
    CHECK(desk.window->grab().toImage().width() > 500);
    written = 0;
    QTemporaryDir dir;
    CHECK(desk.window->save_pdf(dir.filePath("sheet.pdf")));
    CHECK(written > 0);
}
