// Hands that press everything: no button, key or drag brings the program down, and undo takes all of it back.
#include <QCheckBox>
#include <QRadioButton>

#include <random>

#include "app/ground/slow/long_work.h"
#include "core/files/io/json.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/join/choices.h"
#include "core/steps/pour/choices.h"
#include "tests/app/desk.h"
#include "tests/how_much.h"
#include "tests/sane.h"

using namespace yb;

namespace {

/// Undoes until the documents are those of before. @returns false when they never come back.
bool back_to(Desk& desk, const Documents& before) {
    for (int i = 0; i < 200 && !(desk.session().documents() == before); ++i) {
        if (!desk.session().can_undo()) return false;
        desk.session().undo();
    }
    return desk.session().documents() == before;
}

/// What a button of the slip can be pressed for without a file dialog or a page of its own.
bool pressed_here(const QPushButton* b) {
    const QString n = b->objectName();
    return b->isEnabled() && !n.isEmpty() && n != "free_form_file" && n != "find_tops" && n != "next" && n != "look_picture" &&
           n != "sample_picture";
}

/// Fields on the slip that something can be typed into.
QStringList fields_of(Desk& desk) {
    desk.settle();
    QStringList names;
    for (QLineEdit* l : desk.find<QWidget>("slip_page")->findChildren<QLineEdit*>())
        if (l->isEnabled() && !l->objectName().isEmpty()) names << l->objectName();
    return names;
}

}  // namespace

TEST_CASE("every button of every step can be pressed on every job, and undone", "[app][any]") {
    Desk desk;
    const Documents before = desk.session().documents();
    int pressed = 0;
    std::size_t turn = 0;
    for (const auto& [id, job] : before.jobs)
        for (const StepRow& row : steps()) {
            const Step step = row.step;
            if (row.on == StepRow::On::beside) continue;
            desk.session().set_job(QString::fromStdString(id));
            desk.session().set_step(step);
            QStringList names;
            for (QPushButton* b : desk.find<QWidget>("slip_page")->findChildren<QPushButton*>())
                if (pressed_here(b)) names << b->objectName();
            CHECK_FALSE(names.isEmpty());
            for (const QString& name : names) {
                // Each button is there for many jobs: by default it is pressed for every fourth of them.
                if (!in_full() && ++turn % 4 != 0) continue;
                INFO(id << " " << name_of(step) << " " << name.toStdString());
                auto* b = desk.window->findChild<QPushButton*>(name);
                if (!b || !b->isEnabled()) continue;  // what was pressed before took it away
                b->click();
                QApplication::processEvents();
                desk.window->long_work().wait();
                if (desk.window->bench().drawing()) QTest::keyClick(&desk.window->bench(), Qt::Key_Escape);
                CHECK_FALSE(desk.window->bench().drawing());
                ++pressed;
                REQUIRE(back_to(desk, before));
                desk.session().set_job(QString::fromStdString(id));
                desk.session().set_step(step);
            }
        }
    CHECK(pressed > so_many(80, 300));
}

TEST_CASE("every way out of every choice is taken on the slip and marked there", "[app][any]") {
    Desk desk;
    const Documents before = desk.session().documents();
    int taken = 0;
    for (const char* id : {"job-reading-table", "job-seed-cabinet", "job-tarn-river"})
        for (const Step step : {step_key::lay, step_key::flat, step_key::fill, step_key::pour, step_key::join, step_key::under}) {
            desk.session().set_job(id);
            desk.session().set_step(step);
            QStringList names;
            desk.settle();
            for (QRadioButton* r : desk.find<QWidget>("slip_page")->findChildren<QRadioButton*>())
                if (!r->objectName().isEmpty()) names << r->objectName();
            taken += static_cast<int>(names.size());
            for (const QString& name : names) {
                INFO(id << " " << name.toStdString());
                desk.settle();
                auto* r = desk.window->findChild<QRadioButton*>(name);
                REQUIRE(r);
                r->click();
                QApplication::processEvents();
                desk.settle();
                auto* now = desk.window->findChild<QRadioButton*>(name);
                // A make-up that can't be made is said and stays as it was.
                if (now && !now->isChecked()) CHECK_FALSE(desk.text("status").isEmpty());
                REQUIRE(back_to(desk, before));
                desk.session().set_job(id);
                desk.session().set_step(step);
            }
        }
    CHECK(taken > 80);
}

TEST_CASE("a number is typed into every field, kept, and wrong words are not", "[app][any]") {
    Desk desk;
    const Documents before = desk.session().documents();
    int typed = 0;
    for (const char* id : {"job-reading-table", "job-open-river"})
        for (const StepRow& row : steps()) {
            const Step step = row.step;
            if (row.on == StepRow::On::beside) continue;
            desk.session().set_job(id);
            desk.session().set_step(step);
            const QStringList names = fields_of(desk);
            for (const QString& name : names) {
                INFO(id << " " << name_of(step) << " " << name.toStdString());
                desk.settle();
                auto* line = desk.window->findChild<QLineEdit*>(name);
                if (!line) continue;
                const QString was = line->text();
                const Documents documents = desk.session().documents();
                desk.type(name.toLatin1(), "twelve or so");
                line = desk.find<QLineEdit>(name.toLatin1());
                if (line->text() == "twelve or so" && !(desk.session().documents() == documents)) {
                    // It is a field of words: it took them.
                    REQUIRE(back_to(desk, before));
                    continue;
                }
                CHECK(desk.session().documents() == documents);  // nothing was changed by what can't be read
                desk.type(name.toLatin1(), was.isEmpty() ? "31" : was.toUtf8());
                ++typed;
                REQUIRE(back_to(desk, before));
            }
        }
    CHECK(typed > 30);
}

TEST_CASE("odd values typed into every field are kept, told or refused – the shop opens with each", "[app][any]") {
    const bool all = in_full();
    constexpr std::array odd{"0", "-1", "1e-9", "0,000000001", "1000000000", "1e9", "1e300", "", "nan", "99999999999", "4294967297"};
    Desk desk;
    const Documents before = desk.session().documents();
    std::size_t typed = 0;
    int kept = 0;
    for (const char* id : {"job-reading-table", "job-tarn-river"})
        for (const StepRow& row : steps()) {
            const Step step = row.step;
            if (row.on == StepRow::On::beside) continue;
            desk.session().set_job(id);
            desk.session().set_step(step);
            const QStringList names = fields_of(desk);
            for (const QString& name : names)
                for (std::size_t way = 0; way < odd.size(); ++way) {
                    if (!all && (way + typed) % 7 != 0) continue;  // each field gets its share of them
                    ++typed;
                    desk.settle();
                    if (!desk.window->findChild<QLineEdit*>(name)) continue;
                    INFO(id << " " << name_of(step) << " " << name.toStdString() << " ‘" << odd[way] << "’");
                    desk.type(name.toLatin1(), odd[way]);
                    REQUIRE(desk.session().is_open());
                    REQUIRE(desk.session().plan());
                    CHECK(finite(to_json(*desk.session().plan(), desk.session().units())));
                    if (!(desk.session().documents() == before)) {
                        ++kept;
                        CHECK(Store::open(desk.shop().toStdString()).documents() == desk.session().documents());
                    }
                    REQUIRE(back_to(desk, before));
                    desk.session().set_job(id);
                    desk.session().set_step(step);
                }
        }
    CHECK(typed > 100);
    CHECK(kept > 10);
}

TEST_CASE("keys pressed at random lose nothing: undo brings everything back", "[app][any]") {
    for (unsigned seed = 1; seed <= so_many(2U, 6U); ++seed) {
        INFO("seed " << seed);
        Desk desk;
        const Documents before = desk.session().documents();
        std::mt19937 dice(seed);
        const auto jobs = before.jobs;
        desk.session().set_job(
            QString::fromStdString(std::next(jobs.begin(), static_cast<long>(seed) % static_cast<long>(jobs.size()))->first));
        constexpr std::array keys{Qt::Key_1,      Qt::Key_2,        Qt::Key_3,      Qt::Key_4,
                                  Qt::Key_5,      Qt::Key_6,        Qt::Key_7,      Qt::Key_BracketRight,
                                  Qt::Key_Left,   Qt::Key_Right,    Qt::Key_Up,     Qt::Key_Down,
                                  Qt::Key_U,      Qt::Key_E,        Qt::Key_O,      Qt::Key_W,
                                  Qt::Key_Comma,  Qt::Key_Period,   Qt::Key_Escape, Qt::Key_BracketLeft,
                                  Qt::Key_Return, Qt::Key_T,        Qt::Key_P,      Qt::Key_G,
                                  Qt::Key_Tab,    Qt::Key_Backspace};
        for (int i = 0; i < 120; ++i) {
            const Qt::Key key = keys[dice() % keys.size()];
            const bool arrow = key == Qt::Key_Left || key == Qt::Key_Right;  // with letters Ctrl opens dialogs
            const auto modifiers = dice() % 5 == 0 ? Qt::ShiftModifier : arrow && dice() % 2 ? Qt::ControlModifier : Qt::NoModifier;
            QWidget* at = dice() % 3 ? static_cast<QWidget*>(&desk.window->bench()) : desk.window.get();
            if (dice() % 6 == 0) at->setFocus();
            QTest::keyClick(at, key, modifiers);
            QApplication::processEvents();
        }
        desk.window->long_work().wait();
        // Whatever came of it is in the file; and all of it can be undone.
        CHECK_FALSE(desk.session().unsaved());
        const Documents there = desk.session().documents();
        CHECK(Store::open(desk.shop().toStdString()).documents() == there);
        CHECK(back_to(desk, before));
    }
}

TEST_CASE("everything on the bench can be dragged far and wide, and comes back", "[app][any]") {
    Desk desk;
    const Documents before = desk.session().documents();
    std::mt19937 dice(7);
    std::uniform_real_distribution<double> far(-500, 500);
    int dragged = 0;
    for (const auto& [id, job] : before.jobs)
        for (const Step step : {step_key::lay, step_key::flat, step_key::under}) {
            desk.session().set_job(QString::fromStdString(id));
            desk.session().set_step(step);
            Bench& b = desk.window->bench();
            b.setFocus();
            // As many things as the keys find.
            QStringList seen;
            for (int i = 0; i < 20; ++i) {
                QTest::keyClick(&b, Qt::Key_BracketRight);
                if (b.picked().isEmpty() || seen.contains(b.picked())) break;
                seen << b.picked();
            }
            for (int i = 0; i < 6; ++i) {
                INFO(id << " " << name_of(step) << " " << i);
                const QRectF plan = b.map().plan;
                const QPointF from(plan.left() + plan.width() * (i + 0.5) / 6, plan.center().y() + far(dice) / 6);
                desk.drag(from, from + QPointF(far(dice), far(dice)));
                CHECK_FALSE(desk.session().previewing());
                const Plan* p = desk.session().plan();
                REQUIRE(p);
                for (const Figure& f : p->said(step).figures) CHECK(std::isfinite(f.value.value));
                dragged += !(desk.session().documents() == before);
                REQUIRE(back_to(desk, before));
                desk.session().set_job(QString::fromStdString(id));
                desk.session().set_step(step);
            }
        }
    CHECK(dragged > 20);
}
