#include "app/main_window.h"

#include <QAction>
#include <QApplication>
#include <QDesktopServices>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QMenuBar>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QSaveFile>
#include <QSettings>
#include <QShortcut>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QVBoxLayout>

#include "app/bench/bench.h"
#include "app/fill/fill_view.h"
#include "app/flat/flat_view.h"
#include "app/lay/lay_view.h"
#include "app/rack/rack_row.h"
#include "app/rack/rack_view.h"
#include "app/rack/tape_panel.h"
#include "app/sheets/sheet.h"
#include "app/sheets/sheets_view.h"
#include "app/slip/slip.h"
#include "app/stick/stick.h"
#include "app/theme/theme.h"
#include "app/under/under_view.h"
#include "core/io/json.h"
#include "demo/demo.h"

namespace yb {

namespace {
QPushButton* plain(const QString& text, const QString& name, QWidget* parent) {
    auto* b = new QPushButton(text, parent);
    b->setObjectName(name);
    b->setProperty("plain", true);
    b->setCursor(Qt::PointingHandCursor);
    return b;
}
}  // namespace

MainWindow::MainWindow() {
    setWindowTitle("Young Burl");
    setWindowIcon(QIcon(QStringLiteral(":/icons/young-burl.svg")));
    setMinimumSize(1000, 660);
    resize(1280, 800);
    bench_ = new Bench(session_);
    rack_row_ = new RackRow(session_);
    tape_ = new TapePanel(session_);
    tape_->hide();
    sheet_ = new SheetView(session_);
    slip_ = new Slip(session_);
    stick_ = new Stick(session_);
    steps_.push_back(std::make_unique<RackView>(*bench_, *tape_));
    steps_.push_back(std::make_unique<LayView>());
    steps_.push_back(std::make_unique<FlatView>());
    steps_.push_back(std::make_unique<FillView>());
    steps_.push_back(std::make_unique<UnderView>());
    steps_.push_back(std::make_unique<SheetsStep>([this] { print_sheet(); },
                                                  [this] {
                                                      const QString path = ask_save(tr("Save the sheet"), tr("PDF (*.pdf)"));
                                                      if (!path.isEmpty()) save_pdf(path);
                                                  }));
    auto* work = new QWidget;
    auto* column = new QVBoxLayout(work);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(build_top());
    auto* row = new QHBoxLayout;
    row->setSpacing(0);
    middle_ = new QStackedWidget;
    auto* bench_page = new QWidget;
    auto* bench_column = new QVBoxLayout(bench_page);
    bench_column->setContentsMargins(0, 0, 0, 0);
    bench_column->setSpacing(0);
    bench_column->addWidget(rack_row_);
    bench_column->addWidget(bench_, 3);
    bench_column->addWidget(tape_, 2);
    middle_->addWidget(bench_page);
    middle_->addWidget(sheet_);
    row->addWidget(middle_, 1);
    row->addWidget(slip_);
    column->addLayout(row, 1);
    column->addWidget(stick_);
    pages_ = new QStackedWidget;
    pages_->addWidget(work);
    setCentralWidget(pages_);
    build_menus();
    connect(slip_, &Slip::show_place, this, [this](const Caution& c) {
        if (c.at) session_.set_gauge(c.at->x);
    });
    connect(bench_, &Bench::say, this, [this](const QString& s) { say(s); });
    // The tape table needs the room of the rack above.
    connect(bench_, &Bench::plan_only_changed, this, [this](bool only) { rack_row_->setVisible(!only && session_.step() == Step::rack); });
    connect(tape_, &TapePanel::say, this, [this](const QString& s) { say(s); });
    connect(&session_, &Session::trouble, this, [this](const QString& s) { say(s, true); });
    connect(&session_, &Session::changed, this, &MainWindow::refresh);
    connect(&session_, &Session::step_changed, this, &MainWindow::show_step);
    show_step();
    show_start();
}

MainWindow::~MainWindow() = default;

QWidget* MainWindow::build_top() {
    auto* top = new QWidget;
    top->setFixedHeight(44);
    auto* row = new QHBoxLayout(top);
    row->setContentsMargins(18, 0, 18, 0);
    row->setSpacing(16);
    job_ = plain({}, "job", top);
    job_->setFont(theme::figures(12.5));
    job_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().ink.name()));
    job_->setToolTip(tr("Choose another job"));
    connect(job_, &QPushButton::clicked, this, [this] {
        QMenu menu;
        for (const auto& [id, j] : session_.documents().jobs) {
            const QString key = QString::fromStdString(id);
            menu.addAction(QString::fromStdString(j.name), this, [this, key] { session_.set_job(key); });
        }
        menu.addSeparator();
        menu.addAction(tr("Rename this job"), this, [this] {
            if (!session_.job()) return;
            bool ok = false;
            const QString name = QInputDialog::getText(this, tr("Rename"), tr("Name of the job"), QLineEdit::Normal, QString::fromStdString(session_.job()->name), &ok);
            if (ok && !name.trimmed().isEmpty()) session_.edit_job(tr("Rename the job"), [&](Job& j) { j.name = name.toStdString(); });
        });
        menu.exec(job_->mapToGlobal(QPoint(0, job_->height())));
    });
    const auto quiet = [&](const QString& name, double size) {
        auto* l = new QLabel;
        l->setObjectName(name);
        l->setFont(theme::text(size));
        l->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().pencil.name()));
        return l;
    };
    about_ = quiet("about", 10);
    air_ = quiet("air", 10);
    settles_ = quiet("settles", 11);
    settles_->setFont(theme::figures(11));
    settles_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().ink.name()));
    status_ = quiet("status", 9.5);
    status_->setTextFormat(Qt::PlainText);
    status_->setWordWrap(true);
    try_again_ = plain(tr("try again"), "try_again", top);
    connect(try_again_, &QPushButton::clicked, &session_, &Session::try_again);
    units_ = plain({}, "units", top);
    units_->setToolTip(tr("Millimetres or inches, everywhere (Ctrl+U)"));
    connect(units_, &QPushButton::clicked, this, [this] {
        session_.edit(tr("Units"), [](Documents& d) { d.shop.units = d.shop.units.metric_length() ? Units::imperial() : Units::metric(); });
    });
    undo_ = plain(tr("undo"), "undo", top);
    redo_ = plain(tr("redo"), "redo", top);
    connect(undo_, &QPushButton::clicked, &session_, &Session::undo);
    connect(redo_, &QPushButton::clicked, &session_, &Session::redo);
    auto* find_button = plain(tr("find"), "find", top);
    find_button->setToolTip(tr("Slabs, jobs and figures (Ctrl+F)"));
    connect(find_button, &QPushButton::clicked, this, &MainWindow::find);
    row->addWidget(job_);
    row->addWidget(about_);
    row->addWidget(status_, 1);
    row->addWidget(try_again_);
    row->addWidget(air_);
    row->addWidget(settles_);
    for (QWidget* w : {static_cast<QWidget*>(units_), static_cast<QWidget*>(undo_), static_cast<QWidget*>(redo_), static_cast<QWidget*>(find_button)}) row->addWidget(w);
    return top;
}

void MainWindow::build_menus() {
    auto* file = menuBar()->addMenu(tr("&File"));
    file->addAction(tr("&New shop…"), QKeySequence::New, this, [this] {
        const QString path = ask_save(tr("New shop"), tr("Shop (*.shop)"));
        if (path.isEmpty()) return;
        try {
            session_.create(path, Documents());
            remember(path);
            pages_->setCurrentIndex(0);
        } catch (const StoreError& e) {
            say(QString::fromStdString(e.what()), true);
        }
    });
    file->addAction(tr("&Open a shop…"), QKeySequence::Open, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Open a shop"), {}, tr("Shop (*.shop);;All files (*)"));
        if (!path.isEmpty()) open_shop(path);
    });
    recent_ = file->addMenu(tr("&Recent shops"));
    connect(recent_, &QMenu::aboutToShow, this, [this] {
        recent_->clear();
        for (const QString& path : QSettings().value("recent").toStringList()) recent_->addAction(path, this, [this, path] { open_shop(path); });
        if (recent_->isEmpty()) recent_->addAction(tr("none yet"))->setEnabled(false);
    });
    file->addAction(tr("Save a &copy…"), QKeySequence::SaveAs, this, [this] {
        const QString path = ask_save(tr("Save a copy"), tr("Shop (*.shop)"));
        if (path.isEmpty()) return;
        try {
            session_.save_copy(path);
            say(tr("Saved a copy as %1").arg(path));
        } catch (const StoreError& e) {
            say(QString::fromStdString(e.what()), true);
        }
    });
    file->addSeparator();
    file->addAction(tr("&Export this job…"), this, [this] {
        const QString path = ask_save(tr("Export the job"), tr("Job (*.json)"));
        if (!path.isEmpty()) export_job(path);
    });
    file->addAction(tr("&Import a job…"), this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Import a job"), {}, tr("Job (*.json)"));
        if (!path.isEmpty()) import_job(path);
    });
    file->addSeparator();
    file->addAction(tr("&Print the sheet…"), QKeySequence::Print, this, &MainWindow::print_sheet);
    file->addAction(tr("&Quit"), QKeySequence::Quit, this, &QWidget::close);

    auto* edit = menuBar()->addMenu(tr("&Edit"));
    edit->addAction(tr("&Undo"), QKeySequence::Undo, &session_, &Session::undo);
    edit->addAction(tr("&Redo"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), &session_, &Session::redo);
    edit->addSeparator();
    edit->addAction(tr("Turn o&ver"), QKeySequence(Qt::Key_U), this, [this] { session_.edit_job(tr("Turn over"), [](Job& j) { turn_over(j); }); });
    edit->addAction(tr("&End for end"), QKeySequence(Qt::Key_E), this, [this] { session_.edit_job(tr("End for end"), [](Job& j) { end_for_end(j); }); });
    edit->addAction(tr("Type a &dimension"), QKeySequence(Qt::Key_G), this, &MainWindow::type_dimension);
    edit->addAction(tr("&Find…"), QKeySequence::Find, this, &MainWindow::find);

    auto* view = menuBar()->addMenu(tr("&View"));
    int key = Qt::Key_1;
    for (const Step s : {Step::rack, Step::lay, Step::flat, Step::fill, Step::under})
        view->addAction(QString::fromLatin1(name_of(s)), QKeySequence(key++), this, [this, s] { session_.set_step(s); });
    view->addAction(tr("Sheets"), QKeySequence(Qt::Key_P), this, [this] { session_.set_step(Step::sheets); });
    view->addSeparator();
    const auto gauge = [this](double by) { return [this, by] { session_.set_gauge(session_.gauge_mm() + by); }; };
    view->addAction(tr("Gauge left"), QKeySequence(Qt::Key_Comma), this, gauge(-25));
    view->addAction(tr("Gauge right"), QKeySequence(Qt::Key_Period), this, gauge(25));
    view->addAction(tr("Gauge left, fine"), QKeySequence(Qt::SHIFT | Qt::Key_Comma), this, gauge(-1));
    view->addAction(tr("Gauge right, fine"), QKeySequence(Qt::SHIFT | Qt::Key_Period), this, gauge(1));
    view->addAction(tr("Workings"), QKeySequence(Qt::Key_W), slip_, &Slip::toggle_workings);
    view->addAction(tr("Tape table"), QKeySequence(Qt::Key_T), this, [this] {
        session_.set_step(Step::rack);
        if (auto* b = slip_->findChild<QPushButton*>("type_tape")) b->click();
    });
    view->addSeparator();
    auto* units = view->addMenu(tr("Units"));
    view->addAction(tr("Millimetres or inches"), QKeySequence(Qt::CTRL | Qt::Key_U), units_, &QPushButton::click);
    const auto unit = [&](const QString& text, const std::function<void(Units&)>& set) {
        units->addAction(text, this, [this, set] { session_.edit(tr("Units"), [&](Documents& d) { set(d.shop.units); }); });
    };
    unit(tr("Length in millimetres"), [](Units& u) { u.length = LengthStyle::millimetres; });
    unit(tr("Length in inches, 1/16"), [](Units& u) { u.length = LengthStyle::inches_16; });
    unit(tr("Length in inches, 1/32"), [](Units& u) { u.length = LengthStyle::inches_32; });
    unit(tr("Length in inches, decimal"), [](Units& u) { u.length = LengthStyle::inches_decimal; });
    unit(tr("Length in feet and inches"), [](Units& u) { u.length = LengthStyle::feet_inches; });
    unit(tr("Volume in litres or gallons"), [](Units& u) { u.litres = !u.litres; });
    unit(tr("Mass in kilograms or pounds"), [](Units& u) { u.kilograms = !u.kilograms; });
    unit(tr("Temperature in °C or °F"), [](Units& u) { u.celsius = !u.celsius; });

    auto* help = menuBar()->addMenu(tr("&Help"));
    help->addAction(tr("This step"), QKeySequence::HelpContents, this, [this] { QMessageBox::information(this, QString::fromLatin1(name_of(view_->step())), view_->help()); });
    help->addAction(tr("Keys"), this, [this] {
        QMessageBox::information(this, tr("Keys"),
                                 tr("1–5 steps, P sheets, T tape table\n, . gauge (Shift: fine)\n[ ] pick a thing on the bench, arrows move it, Ctrl+arrows turn it\n"
                                    "U turn over, E end for end, G type a dimension, W workings\nCtrl+Z undo, Ctrl+Shift+Z redo, Ctrl+F find, Ctrl+U units, F1 help"));
    });
    help->addAction(tr("About Young Burl"), this, [this] {
        QMessageBox::about(this, tr("Young Burl"), tr("Slabs into tables. Free software under the GNU General Public License, version 3 or later.\n\n"
                                                      "Loads, tipping and lifting are estimates; the maker's judgement and local codes stand above them."));
    });
}

void MainWindow::show_start(const QString& trouble, const QString& path, bool damaged) {
    if (start_) {
        pages_->removeWidget(start_);
        start_->deleteLater();
    }
    start_ = new QWidget;
    auto* box = new QVBoxLayout(start_);
    box->setContentsMargins(120, 90, 120, 60);
    box->setSpacing(12);
    auto* title = new QLabel(trouble.isEmpty() ? tr("What is on the bench?") : tr("That shop could not be opened"));
    title->setFont(theme::figures(26, true));
    box->addWidget(title);
    auto* why = new QLabel(trouble.isEmpty() ? tr("Young Burl keeps a shop – its slabs, its jobs – in one file. Everything you type is kept as you type it.") : trouble);
    why->setObjectName("start_text");
    why->setWordWrap(true);
    why->setFont(theme::text(12));
    box->addWidget(why);
    box->addSpacing(20);
    const auto offer = [&](const QString& name, const QString& text, auto run, bool strong = false) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        b->setProperty(strong ? "next" : "quiet", true);
        b->setFixedWidth(420);
        b->setMinimumHeight(38);
        connect(b, &QPushButton::clicked, this, run);
        box->addWidget(b);
    };
    if (damaged) {
        if (const auto backup = newest_backup(path.toStdString())) {
            const QString from = QString::fromStdString(*backup);
            offer("open_backup", tr("Open the backup of %1, as a copy").arg(QFileInfo(from).completeBaseName()), [this, from, path] {
                QString copy = path + ".from-" + QFileInfo(from).completeBaseName() + ".shop";
                for (int i = 2; QFile::exists(copy); ++i) copy = path + QString(".from-%1-%2.shop").arg(QFileInfo(from).completeBaseName()).arg(i);
                if (QFile::copy(from, copy)) open_shop(copy);
                else say(tr("%1 can't be copied here.").arg(from), true);
            }, true);
        }
        offer("open_salvage", tr("Look at what can still be read"), [this, path] {
            const Salvage s = salvage(path.toStdString());
            session_.show_only(s.documents, path);
            pages_->setCurrentIndex(0);
            QString text = tr("Read from a damaged file; it can be looked at and saved as a copy.");
            for (const auto& l : s.lost) text += " " + QString::fromStdString(l) + ".";
            say(text, true);
        });
    }
    offer("start_demo", tr("The demo shop: a small workshop by a tarn"), [this] {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
        QDir().mkpath(folder);
        open_demo(folder + "/demo.shop");
    }, trouble.isEmpty());
    offer("start_empty", tr("An empty rack"), [this] { menuBar()->actions().front()->menu()->actions().front()->trigger(); });
    offer("start_open", tr("A shop you already have"), [this] { menuBar()->actions().front()->menu()->actions().at(1)->trigger(); });
    box->addStretch(1);
    pages_->addWidget(start_);
    pages_->setCurrentWidget(start_);
}

void MainWindow::open_shop(const QString& path) {
    try {
        session_.open(path);
        remember(path);
        pages_->setCurrentIndex(0);
        if (session_.read_only()) say(tr("Open for reading only: the file or its folder can't be written. Save a copy to change it."), true);
        else say({});
    } catch (const StoreError& e) {
        show_start(QString::fromStdString(e.what()), path, e.kind() == StoreError::Kind::damaged);
    }
}

void MainWindow::open_demo(const QString& path) {
    if (QFile::exists(path)) return open_shop(path);
    try {
        session_.create(path, demo_shop());
        pages_->setCurrentIndex(0);
    } catch (const StoreError& e) {
        show_start(QString::fromStdString(e.what()), path);
    }
}

void MainWindow::remember(const QString& path) {
    QSettings settings;
    QStringList list = settings.value("recent").toStringList();
    list.removeAll(path);
    list.prepend(path);
    while (list.size() > 8) list.removeLast();
    settings.setValue("recent", list);
}

void MainWindow::say(const QString& text, bool trouble) {
    status_->setText(text);
    status_->setToolTip(text);
    status_->setStyleSheet(QStringLiteral("color: %1").arg((trouble ? theme::colours().madder : theme::colours().pencil).name()));
}

void MainWindow::show_step() {
    const Step s = session_.step();
    view_ = steps_[static_cast<std::size_t>(s)].get();
    rack_row_->setVisible(s == Step::rack);
    tape_->hide();
    bench_->set_plan_only(false);
    middle_->setCurrentIndex(s == Step::sheets ? 1 : 0);
    bench_->set_step_view(view_);
    slip_->set_step_view(view_);
    if (!session_.unsaved() && session_.is_open()) say({});
}

void MainWindow::refresh() {
    const Job* j = session_.job();
    const Units& u = session_.units();
    job_->setText(j ? QString::fromStdString(j->name) : tr("No job yet"));
    const Slab* slab = session_.slab();
    about_->setText(slab ? QString::fromStdString(slab->name) + (j ? QString(" · %1 × %2").arg(in_units(mm(j->top.length_mm), session_), in_units(mm(j->top.width_mm), session_)) : QString())
                         : QString());
    if (const Plan* p = session_.plan()) {
        air_->setText(tr("shop air %1 %2 → wood settles at").arg(in_units(celsius(p->shop_air.temp_c), session_), in_units(percent(p->shop_air.rh_pct), session_)));
        settles_->setText(in_units(percent(p->shop_settles_pct), session_));
    }
    units_->setText(u.metric_length() ? tr("mm · inch") : tr("inch · mm"));
    undo_->setEnabled(session_.can_undo());
    redo_->setEnabled(session_.can_redo());
    undo_->setToolTip(session_.can_undo() ? tr("Undo: %1 (Ctrl+Z)").arg(session_.undo_label()) : tr("Nothing to undo"));
    redo_->setToolTip(session_.can_redo() ? tr("Redo: %1 (Ctrl+Shift+Z)").arg(session_.redo_label()) : tr("Nothing to redo"));
    try_again_->setVisible(session_.unsaved());
}

bool MainWindow::save_pdf(const QString& path) {
    if (!session_.plan() || !session_.job()) {
        say(tr("There is no job to print yet."), true);
        return false;
    }
    const QString wrong = write_sheet_pdf(path, *session_.job(), *session_.plan(), session_.shop());
    say(wrong.isEmpty() ? tr("Saved the sheet as %1").arg(path) : wrong, !wrong.isEmpty());
    return wrong.isEmpty();
}

void MainWindow::print_sheet() {
    if (!session_.plan() || !session_.job()) return say(tr("There is no job to print yet."), true);
    QPrinter printer(QPrinter::HighResolution);
    printer.setPageSize(QPageSize(session_.shop().letter ? QPageSize::Letter : QPageSize::A4));
    printer.setFullPage(true);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() != QDialog::Accepted) return;
    QPainter p(&printer);
    const double k = printer.resolution() / 25.4;
    p.scale(k, k);
    draw_sheet(p, sheet_size_mm(session_.shop()), *session_.job(), *session_.plan(), session_.shop());
}

bool MainWindow::export_job(const QString& path) {
    const Job* j = session_.job();
    if (!j || !session_.documents().slabs.count(j->slab)) {
        say(tr("The job has no slab yet: there is nothing to export."), true);
        return false;
    }
    QSaveFile file(path);
    const std::string text = write_job_file({*j, session_.documents().slabs.at(j->slab), session_.shop()});
    if (!file.open(QIODevice::WriteOnly) || file.write(text.data(), static_cast<qint64>(text.size())) < 0 || !file.commit()) {
        say(tr("%1 can't be written: %2.").arg(path, file.errorString()), true);
        return false;
    }
    say(tr("Exported as %1").arg(path));
    return true;
}

bool MainWindow::import_job(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) {
        say(tr("%1 can't be read: %2.").arg(path, file.errorString()), true);
        return false;
    }
    try {
        JobFile f = read_job_file(file.readAll().toStdString());
        // A slab or job of that name that differs stays; the newcomer gets a name of its own.
        const Documents& now = session_.documents();
        if (now.slabs.count(f.slab.id) && !(now.slabs.at(f.slab.id) == f.slab)) f.slab.id = fresh_id("slab", now);
        f.job.slab = f.slab.id;
        if (now.jobs.count(f.job.id)) f.job.id = fresh_id("job", now);
        session_.edit(tr("Import a job"), [&](Documents& d) {
            d.slabs[f.slab.id] = f.slab;
            d.jobs[f.job.id] = f.job;
        });
        session_.set_job(QString::fromStdString(f.job.id));
        say(tr("Imported %1").arg(QString::fromStdString(f.job.name)));
        return true;
    } catch (const FormatError& e) {
        say(tr("%1: %2. Nothing was changed.").arg(QFileInfo(path).fileName(), QString::fromStdString(e.what())), true);
        return false;
    }
}

void MainWindow::find() {
    QStringList names;
    std::vector<std::function<void()>> go;
    for (const auto& [id, j] : session_.documents().jobs) {
        names << tr("Job: %1").arg(QString::fromStdString(j.name));
        go.emplace_back([this, key = QString::fromStdString(id)] { session_.set_job(key); });
    }
    for (const auto& [id, s] : session_.documents().slabs) {
        names << tr("Slab: %1").arg(QString::fromStdString(s.name));
        go.emplace_back([this, key = QString::fromStdString(id)] {
            session_.set_step(Step::rack);
            session_.look_at(key);
        });
    }
    if (const Plan* p = session_.plan())
        for (const auto& [step, list] : {std::pair(Step::lay, &p->lay.figures), std::pair(Step::flat, &p->flat.figures), std::pair(Step::fill, &p->fill.figures),
                                         std::pair(Step::under, &p->under.figures)})
            for (const Figure& f : *list) {
                names << QString::fromLatin1(name_of(step)) + ": " + QString::fromStdString(f.label) + "  " + in_units(f.value, session_);
                go.emplace_back([this, to = step] { session_.set_step(to); });
            }
    bool ok = false;
    const QString picked = QInputDialog::getItem(this, tr("Find"), tr("Slab, job or figure"), names, 0, true, &ok);
    if (!ok) return;
    for (int i = 0; i < names.size(); ++i)
        if (names[i].contains(picked, Qt::CaseInsensitive)) return go[static_cast<std::size_t>(i)]();
    say(tr("Nothing is called “%1”.").arg(picked));
}

void MainWindow::type_dimension() {
    session_.set_step(Step::lay);
    if (auto* line = slip_->findChild<QLineEdit*>("top_length")) {
        line->setFocus();
        line->selectAll();
    }
}

QString MainWindow::ask_save(const QString& title, const QString& filter) { return QFileDialog::getSaveFileName(this, title, {}, filter); }

}  // namespace yb
