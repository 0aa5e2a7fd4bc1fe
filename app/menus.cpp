// The menu bar: for those who look there, and the home of the keys.
#include <QFileDialog>
#include <QMenuBar>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QStackedWidget>

#include "app/files/bring.h"
#include "app/ground/instruments.h"
#include "app/ground/words.h"
#include "app/kit/bench/bench.h"
#include "app/kit/slip/slip.h"
#include "app/kit/step_views.h"
#include "app/main_window.h"
#include "app/pages/find/find_panel.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/templates/templates.h"

namespace yb {

void MainWindow::build_menus() {
    auto* file = menuBar()->addMenu(tr("&File"));
    fill_files(file);
    fill_papers(file);
    fill_edits(menuBar()->addMenu(tr("&Edit")));
    auto* view = menuBar()->addMenu(tr("&View"));
    fill_views(view);
    fill_bench(view);
    fill_units(view);
    fill_help(menuBar()->addMenu(tr("&Help")));
}

/// Shops, jobs and what comes in.
void MainWindow::fill_files(QMenu* file) {
    file->addAction(tr("&New shop…"), QKeySequence::New, this, &MainWindow::new_shop);
    file->addAction(tr("&Open a shop…"), QKeySequence::Open, this, &MainWindow::choose_shop);
    recent_ = file->addMenu(tr("&Recent shops"));
    connect(recent_, &QMenu::aboutToShow, this, [this] {
        recent_->clear();
        for (const QString& path : QSettings().value("recent").toStringList())
            recent_->addAction(path, this, [this, path] { open_shop(path); });
        if (recent_->isEmpty()) recent_->addAction(tr("none yet"))->setEnabled(false);
    });
    file->addAction(tr("Save a &copy…"), QKeySequence::SaveAs, this, &MainWindow::save_copy);
    file->addAction(tr("Go &back to a backup…"), this, &MainWindow::choose_backup);
    file->addSeparator();
    file->addAction(tr("&Export this job…"), this, [this] {
        const QString path = ask_save(tr("Export the job"), tr("Job (*.json)"));
        if (!path.isEmpty()) export_job(path);
    });
    file->addAction(tr("&Import a job…"), this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Import a job"), {}, tr("Job (*.json)"), nullptr, QFileDialog::ReadOnly);
        if (!path.isEmpty()) import_job(path);
    });
    file->addAction(tr("The room's &air from a logger…"), this, [this] {
        const QString path =
            QFileDialog::getOpenFileName(this, tr("The room's air"), {}, tr("Readings (*.csv *.txt)"), nullptr, QFileDialog::ReadOnly);
        if (!path.isEmpty()) bring_air(path);
    });
    auto* machine = file->addMenu(tr("Program for a &machine"));
    for (const bool first : {true, false})
        machine->addAction(first ? tr("First side…") : tr("Second side…"), this, [this, first] {
            const QString path = ask_save(tr("Program for a machine"), tr("RS-274 (*.ngc *.nc)"));
            if (!path.isEmpty()) export_gcode(path, first);
        });
}

/// Slabs in, drawings and papers out.
void MainWindow::fill_papers(QMenu* file) {
    file->addSeparator();
    auto* in = file->addMenu(tr("&Bring a slab in"));
    in->addAction(tr("From a &photograph…"), this, &MainWindow::choose_photo);
    in->addAction(tr("From a &scan…"), this, &MainWindow::choose_scan);
    in->addAction(tr("From a &list…"), this, &MainWindow::choose_list);
    in->addAction(tr("From a &drawing…"), this, [this] { choose_drawing(OutlineAs::slab); });
    file->addAction(tr("&Grow a practice log…"), this, &MainWindow::show_grow);
    auto* out = file->addMenu(tr("&Draw, 1:1"));
    for (const TemplateRow& row : templates())
        out->addAction(tr("%1…").arg(tr(row.label)), this, [this, row] {
            const QString path = ask_save(tr(row.label), tr("Drawings (*.svg *.dxf *.pdf)"));
            if (!path.isEmpty()) export_drawing(path, row.key);
        });
    file->addSeparator();
    file->addAction(tr("What the &shop has…"), QKeySequence(Qt::Key_S), this, &MainWindow::show_shop);
    file->addAction(tr("The label of the finished piece…"), this, &MainWindow::write_label);
    file->addAction(tr("&Print the sheet…"), QKeySequence::Print, this, &MainWindow::print_sheet);
    file->addAction(tr("&Quit"), QKeySequence::Quit, this, &QWidget::close);
}

void MainWindow::fill_edits(QMenu* edit) {
    edit->addAction(tr("&Undo"), QKeySequence::Undo, &session_, &Session::undo);
    edit->addAction(tr("&Redo"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), &session_, &Session::redo);
    edit->addSeparator();
    edit->addAction(tr("Turn o&ver"), QKeySequence(Qt::Key_U), this, [this] { session_.turn(true); });
    edit->addAction(tr("&End for end"), QKeySequence(Qt::Key_E), this, [this] { session_.turn(false); });
    edit->addAction(tr("&Open like a book"), QKeySequence(Qt::Key_O), this, [this] {
        const auto* leaves = session_.leaves();
        if (!leaves || leaves->size() < 2) return say(tr("A book wants two leaves: look at its sister on the rack and add it to the top."));
        std::vector<std::string> ids;
        for (const Leaf& l : *leaves) ids.push_back(l.slab);
        session_.make_up(tr("Open like a book"), made_of(MakeUp::book, ids.size()), ids);
    });
    edit->addAction(tr("Write a &note…"), QKeySequence(Qt::Key_N), this, &MainWindow::write_note);
    edit->addAction(tr("Listen to an &instrument…"), this, &MainWindow::listen_to_instrument);
    edit->addAction(tr("Let go of all instruments"), this, [this] { instruments().let_go_all(); });
    edit->addAction(tr("Type a &dimension"), QKeySequence(Qt::Key_G), this, &MainWindow::type_dimension);
    edit->addAction(tr("&Find…"), QKeySequence::Find, this, [this] { find_->open(); });
}

/// The steps and the pages.
void MainWindow::fill_views(QMenu* view) {
    for (const StepViewRow& row : step_views())
        view->addAction(told(name_of(row.step)), QKeySequence(row.key), this, [this, s = row.step] { session_.set_step(s); });
    view->addAction(tr("&Find what could be made"), QKeySequence(Qt::Key_F), this, &MainWindow::show_find_tops);
    view->addAction(tr("All &jobs"), QKeySequence(Qt::Key_J), this, &MainWindow::show_jobs);
    view->addAction(tr("All &days"), QKeySequence(Qt::Key_D), this, &MainWindow::show_days);
    view->addAction(tr("The &book"), QKeySequence(Qt::Key_B), this, &MainWindow::show_book);
    view->addAction(tr("&Money and ways"), QKeySequence(Qt::Key_C), this, &MainWindow::show_money);
    view->addAction(tr("Today, across the room"), QKeySequence(Qt::Key_F11), this, &MainWindow::look_across_the_room);
    view->addAction(tr("&The log put back together"), QKeySequence(Qt::Key_L), this, &MainWindow::show_log);
}

/// The gauge, the room of the drawings, the things on the bench.
void MainWindow::fill_bench(QMenu* view) {
    view->addSeparator();
    const auto gauge = [this](double by) { return [this, by] { session_.set_gauge(session_.gauge_mm() + by); }; };
    view->addAction(tr("Gauge left"), QKeySequence(Qt::Key_Comma), this, gauge(-25));
    view->addAction(tr("Gauge right"), QKeySequence(Qt::Key_Period), this, gauge(25));
    view->addAction(tr("Gauge left, fine"), QKeySequence(Qt::SHIFT | Qt::Key_Comma), this, gauge(-1));
    view->addAction(tr("Gauge right, fine"), QKeySequence(Qt::SHIFT | Qt::Key_Period), this, gauge(1));
    view->addAction(tr("Workings"), QKeySequence(Qt::Key_W), slip_, &Slip::toggle_workings);
    view->addAction(tr("More room for the plan"), QKeySequence(Qt::ALT | Qt::Key_Down), this, [this] { bench_->more_for_plan(true); });
    view->addAction(tr("Less room for the plan"), QKeySequence(Qt::ALT | Qt::Key_Up), this, [this] { bench_->more_for_plan(false); });
    view->addAction(tr("Share the room as it was"), bench_, &Bench::share_room);
    view->addAction(tr("First thing to mind"), QKeySequence(Qt::Key_M), slip_, &Slip::open_first_to_mind);
    view->addAction(tr("Next thing on the bench"), QKeySequence(Qt::ALT | Qt::Key_BracketRight), this, [this] { session_.pick_next(1); });
    view->addAction(tr("Thing before it"), QKeySequence(Qt::ALT | Qt::Key_BracketLeft), this, [this] { session_.pick_next(-1); });
    view->addAction(tr("What comes next"), QKeySequence(Qt::CTRL | Qt::Key_Return), slip_, &Slip::press_next);
    view->addAction(tr("Tape table"), QKeySequence(Qt::Key_T), this, [this] {
        session_.set_step(step_key::rack);
        session_.pick({});
        if (auto* b = slip_->findChild<QPushButton*>("type_tape")) b->click();
    });
}

/// Units, the size of letters, the words.
void MainWindow::fill_units(QMenu* view) {
    view->addSeparator();
    auto* units = view->addMenu(tr("Units"));
    view->addAction(tr("Millimetres or inches"), QKeySequence(Qt::CTRL | Qt::Key_U), units_, &QPushButton::click);
    const auto unit = [&](const QString& text, const std::function<void(Shop&)>& set) {
        units->addAction(text, this, [this, set] { session_.edit_shop(tr("Units"), set); });
    };
    for (const auto& [text, style] :
         {std::pair(tr("Length in millimetres"), LengthStyle::millimetres), std::pair(tr("Length in inches, 1/16"), LengthStyle::inches_16),
          std::pair(tr("Length in inches, 1/32"), LengthStyle::inches_32),
          std::pair(tr("Length in inches, decimal"), LengthStyle::inches_decimal),
          std::pair(tr("Length in feet and inches"), LengthStyle::feet_inches)})
        unit(text, [style = style](Shop& s) { set_length_style(s, style); });
    unit(tr("Volume in litres or gallons"), other_volume_unit);
    unit(tr("Mass in kilograms or pounds"), other_mass_unit);
    unit(tr("Temperature in °C or °F"), other_temperature_unit);

    auto* size = view->addMenu(tr("Text size"));
    for (const int percent : {100, 125, 150, 200})
        size->addAction(tr("%1 %").arg(percent), this, [this, percent] {
            QSettings().setValue("text_scale", percent / 100.0);
            say(tr("Text is %1 % large when the program starts the next time.").arg(percent));
        });

    auto* language = view->addMenu(tr("Words"));
    for (const auto& [name, key] : {std::pair(tr("British"), "en_GB"), std::pair(tr("American"), "en_US")})
        language->addAction(name, this, [this, key = QString(key)] {
            QSettings().setValue("language", key);
            say(tr("The words are chosen; they are spoken when the program starts the next time."));
        });
}

void MainWindow::fill_help(QMenu* help) {
    help->addAction(tr("The &guide"), QKeySequence::HelpContents, this, &MainWindow::show_guide);
    help->addAction(tr("A &tour of five stops"), this, &MainWindow::take_tour);
    help->addAction(tr("This step, and the &keys"), QKeySequence(Qt::SHIFT | Qt::Key_F1), this, [this] {
        pages_->setCurrentIndex(0);
        slip_->toggle_help();
    });
    help->addAction(tr("About Young Burl"), this, [this] {
        QMessageBox::about(this, tr("Young Burl"),
                           tr("Slabs into tables. Free software under the GNU General Public License, version 3 or later.\n\n"
                              "Loads, tipping and lifting are estimates; the maker's judgement and local codes stand above them."));
    });
}

}  // namespace yb
