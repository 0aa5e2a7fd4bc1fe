// Files in and out of the window: scans, photographs, drawings, jobs, the sheet.
#include <QCryptographicHash>
#include <QDateTime>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QMessageBox>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>
#include <QSettings>
#include <QStackedWidget>

#include <algorithm>
#include <array>

#include "app/files/bring.h"
#include "app/files/job_files.h"
#include "app/ground/session/pictures.h"
#include "app/ground/session/whole_file.h"
#include "app/ground/slow/long_work.h"
#include "app/main_window.h"
#include "app/pages/days/days_page.h"
#include "app/pages/photo/photo_page.h"
#include "app/pages/start/start_page.h"
#include "app/steps/sheets/sheet.h"
#include "app/steps/sheets/sheets_view.h"
#include "app/steps/sheets/tiled_pdf.h"
#include "core/files/io/csv.h"
#include "core/files/io/ics.h"
#include "core/ground/file/file.h"
#include "core/ground/file/format_error.h"
#include "core/material/slab/slab.h"
#include "core/shop/edit/edits.h"
#include "core/shop/templates/templates.h"
#include "core/steps/flat/machine.h"
#include "core/steps/lay/lay.h"

namespace yb {

bool MainWindow::save_pdf(const QString& path) {
    const auto plan = session_.plan_of_whole();
    if (!plan) {
        say(tr("There is no job to print yet."), true);
        return false;
    }
    const QString wrong = write_sheet_pdf(path, *session_.job(), *plan, session_.shop());
    say(wrong.isEmpty() ? tr("Saved the sheet as %1").arg(path) : wrong, !wrong.isEmpty());
    return wrong.isEmpty();
}

bool MainWindow::export_gcode(const QString& path, bool first) {
    const auto plan = session_.plan_of_whole();
    const auto leaf = static_cast<std::size_t>(std::max(0, session_.leaf()));
    if (!plan || leaf >= plan->leaves.size()) {
        say(tr("There is no job to flatten yet."), true);
        return false;
    }
    QString wrong;
    try {
        const MachinedSide side =
            machined_side(*plan->leaves[leaf].flat, *plan->leaves[leaf].lay, session_.shop().sled, *session_.flat(), first);
        wrong = write_whole(path, QByteArray::fromStdString(to_gcode(side, session_.shop().sled,
                                                                     {session_.job_name().toStdString(), plan->leaves[leaf].slab().name,
                                                                      first, !session_.units().metric_length()})));
    } catch (const std::invalid_argument& e) {
        wrong = tr("No program was written: %1.").arg(QString::fromUtf8(e.what()));
    }
    say(wrong.isEmpty() ? tr("The program of %1 is saved as %2. Look it through and run it in the air first.")
                              .arg(QString::fromStdString(plan->leaves[leaf].slab().name), path)
                        : wrong,
        !wrong.isEmpty());
    return wrong.isEmpty();
}

void MainWindow::print_sheet() {
    const auto plan = session_.plan_of_whole();
    if (!plan) return say(tr("There is no job to print yet."), true);
    QPrinter printer(QPrinter::HighResolution);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() != QDialog::Accepted) return;
    const QString wrong = yb::print_sheet(printer, *session_.job(), *plan, session_.shop());
    say(wrong.isEmpty() ? tr("The sheet went to the printer.") : wrong, !wrong.isEmpty());
}

bool MainWindow::export_job(const QString& path) {
    const QString wrong = write_job(session_, path);
    say(wrong.isEmpty() ? tr("Exported as %1").arg(path) : wrong, !wrong.isEmpty());
    return wrong.isEmpty();
}

bool MainWindow::import_job(const QString& path) {
    const QString wrong = read_job(session_, path);
    say(wrong.isEmpty() ? tr("Imported %1").arg(session_.job_name()) : wrong, !wrong.isEmpty());
    return wrong.isEmpty();
}

void MainWindow::bring_air(const QString& path) {
    if (!session_.job()) return say(tr("No job is on the bench: its room is what the air is for."), true);
    yb::bring_air(session_, *work_, path, [this](const QString& text, bool bad) { say(text, bad); });
}

void MainWindow::bring_scan(const QString& path) {
    yb::bring_scan(session_, *work_, path, [this](const QString& text) { say(text); });
}

void MainWindow::bring_drawing(const QString& path, std::optional<double> mm_per_unit) {
    bring_outline(path, mm_per_unit, OutlineAs::slab);
}

void MainWindow::bring_free_form(const QString& path, std::optional<double> mm_per_unit) {
    bring_outline(path, mm_per_unit, OutlineAs::free_form);
}

void MainWindow::bring_outline(const QString& path, std::optional<double> mm_per_unit, OutlineAs as) {
    yb::bring_drawing(session_, *work_, path, mm_per_unit, as, [this, path, as](const QString& why) {
        const QStringList units{tr("millimetres"), tr("centimetres"), tr("inches"), tr("feet"), tr("pixels of 1/96 inch")};
        bool ok = false;
        const QString unit = QInputDialog::getItem(this, why, tr("One unit of it is one of"), units, 0, false, &ok);
        constexpr std::array mm{1.0, 10.0, 25.4, 304.8, 25.4 / 96};
        if (ok) bring_outline(path, mm[static_cast<std::size_t>(units.indexOf(unit))], as);
    });
}

bool MainWindow::export_drawing(const QString& path, const char* what) {
    const auto row = find_template(what);
    if (!row) return false;
    const Plan* plan = session_.plan();
    std::vector<DrawnPath> paths;
    std::string title = session_.job_name().toStdString();
    if (plan && plan->drawable()) {
        // Of a top of several the slab is the leaf that was picked.
        const std::size_t leaf =
            plan->leaves.empty() ? 0 : std::min(plan->leaves.size() - 1, static_cast<std::size_t>(std::max(0, session_.leaf())));
        if (plan->slab() || !plan->leaves.empty()) paths = row->draw({*plan, session_.job(), session_.shop(), leaf});
        if (std::string_view(what) == "slab" && !paths.empty()) title = plan->slab() ? plan->slab()->name : plan->leaves[leaf].slab().name;
    }
    if (paths.empty()) {
        say(tr(row->nothing), true);
        return false;
    }
    const QString wrong =
        path.endsWith(".pdf", Qt::CaseInsensitive)
            ? write_tiled_pdf(path, paths, QString::fromStdString(title), session_.shop().letter)
            : write_whole(path,
                          QByteArray::fromStdString(path.endsWith(".dxf", Qt::CaseInsensitive) ? to_dxf(paths) : to_svg(paths, title)));
    say(wrong.isEmpty() ? tr("Drawn 1:1 in millimetres as %1").arg(path) : wrong, !wrong.isEmpty());
    return wrong.isEmpty();
}

void MainWindow::bring_photo(const QString& path) {
    if (!photo_) {
        photo_ = new PhotoPage(session_, *work_);
        pages_->addWidget(photo_);
        connect(photo_, &PhotoPage::back, this, [this] { pages_->setCurrentIndex(0); });
        connect(photo_, &PhotoPage::say, this, &MainWindow::say);
        connect(photo_, &PhotoPage::taken, this, [this](const QString& key) { pictures_->forget(key.toStdString()); });
        connect(photo_, &PhotoPage::opened, this, [this] { pages_->setCurrentWidget(photo_); });
    }
    photo_->open(path);
}

QString MainWindow::choose_picture(const QString& title) {
    return QFileDialog::getOpenFileName(this, title, {}, tr("Pictures (*.jpg *.jpeg *.png *.webp *.tif *.tiff *.bmp);;All files (*)"),
                                        nullptr, QFileDialog::ReadOnly);
}

void MainWindow::choose_photo() {
    if (const QString path = choose_picture(tr("Slab from a photograph")); !path.isEmpty()) bring_photo(path);
}

void MainWindow::choose_sample() {
    if (const QString path = choose_picture(tr("The sample board's picture")); !path.isEmpty())
        bring_sample(session_, *work_, path, [this](const QString& text) { say(text); });
}

void MainWindow::choose_days_off() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Days off from a calendar"), {}, tr("Calendars (*.ics);;All files (*)"),
                                                      nullptr, QFileDialog::ReadOnly);
    if (path.isEmpty()) return;
    bring_days_off(session_, *work_, path, [this](const QString& text, bool bad) { say(text, bad); });
}

namespace {
QString write_calendar_to(const QString& path, const Season& season) {
    const std::string stamp = QDateTime::currentDateTimeUtc().toString(QStringLiteral("yyyy-MM-ddTHH:mm:ssZ")).toStdString();
    return write_whole(path,
                       QByteArray::fromStdString(to_ics(season, {stamp, QSettings().value(QStringLiteral("calendar_waits")).toBool()})));
}
}  // namespace

void MainWindow::write_calendar() {
    const Season* season = days_ ? days_->season() : nullptr;
    if (!season) return;
    const QString path = ask_save(tr("Write a calendar"), tr("Calendars (*.ics)"), QStringLiteral("days.ics"));
    if (path.isEmpty()) return;
    const auto keep =
        QMessageBox::question(this, tr("Write a calendar"),
                              tr("Shall it be kept up to date? It is then written anew whenever the days change while they are open."));
    const auto waits = QMessageBox::question(this, tr("Write a calendar"), tr("Shall what waits stand in it too, as days of its own?"));
    QSettings().setValue(QStringLiteral("calendar_waits"), waits == QMessageBox::Yes);
    const QString wrong = write_calendar_to(path, *season);
    if (wrong.isEmpty() && keep == QMessageBox::Yes) keep_calendar(path);
    say(wrong.isEmpty() ? tr("The calendar is saved as %1.").arg(path) : wrong, !wrong.isEmpty());
}

namespace {
/// Where the settings keep which calendar follows a shop.
QString kept_key(const QString& shop) {
    return QStringLiteral("calendar/") + QString::fromLatin1(QCryptographicHash::hash(shop.toUtf8(), QCryptographicHash::Sha1).toHex());
}
}  // namespace

void MainWindow::keep_calendar(const QString& path) {
    QSettings settings;
    path.isEmpty() ? settings.remove(kept_key(session_.path())) : settings.setValue(kept_key(session_.path()), path);
    if (days_) days_->show_kept(path);
}

void MainWindow::write_kept_calendar() {
    const QString path = QSettings().value(kept_key(session_.path())).toString();
    days_->show_kept(path);
    if (path.isEmpty() || !days_->season()) return;
    // What can't be written is said, and not tried again: the file's place may be gone for good.
    if (const QString wrong = write_calendar_to(path, *days_->season()); !wrong.isEmpty()) say(wrong, true), keep_calendar({});
}

void MainWindow::write_week() {
    const Season* season = days_ ? days_->season() : nullptr;
    if (!season) return;
    const QString path = ask_save(tr("Print today and the week"), tr("PDF (*.pdf)"), QStringLiteral("days.pdf"));
    if (path.isEmpty()) return;
    const QString wrong = write_week_pdf(path, *season, season->today, session_.shop());
    say(wrong.isEmpty() ? tr("The days are saved as %1.").arg(path) : wrong, !wrong.isEmpty());
}

void MainWindow::choose_list() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("A list of slabs"), {}, tr("Lists (*.csv *.tsv *.txt)"), nullptr, QFileDialog::ReadOnly);
    if (!path.isEmpty()) bring_slabs(path);
}

void MainWindow::bring_slabs(const QString& path) {
    bring_list(session_, *work_, path, [this](const QString& text) { say(text); });
}

namespace {
constexpr const char* list_words[] = {"name", "wood", "length", "width", "thickness"};

/// A table of slabs has words at its head; points have none, or x, y and z.
bool is_list(const QString& path) {
    QFile f(path);
    if (!f.open(QIODevice::ReadOnly)) return true;  // which then says why
    const QString head = QString::fromUtf8(f.readLine(4096)).toLower();
    return std::any_of(std::begin(list_words), std::end(list_words), [&](const char* w) { return head.contains(QLatin1String(w)); });
}
}  // namespace

bool MainWindow::bring_file(const QString& path) {
    const QString ending = QFileInfo(path).suffix().toLower();
    const auto is = [&](std::initializer_list<const char*> all) {
        return std::any_of(all.begin(), all.end(), [&](const char* one) { return ending == QLatin1String(one); });
    };
    if (is({"shop"})) {
        open_shop(path);
        return true;
    }
    if (!is({"jpg", "jpeg", "png", "ply", "xyz", "svg", "dxf", "csv", "tsv", "json"})) return false;
    // Without a shop there is nowhere for it to stand: one is opened for it.
    if (!session_.is_open()) own_shop(tr("My workshop"), StartPage::place_for(tr("My workshop")));
    if (!session_.is_open()) return true;
    pages_->setCurrentIndex(0);
    if (is({"jpg", "jpeg", "png"})) bring_photo(path);
    else if (is({"ply", "xyz"})) bring_scan(path);
    else if (is({"svg", "dxf"})) bring_drawing(path);
    else if (is({"json"})) import_job(path);
    else if (is_list(path)) bring_slabs(path);
    else bring_scan(path);
    return true;
}

void MainWindow::choose_scan() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Slab from a scan"), {}, tr("Point clouds (*.ply *.xyz *.csv *.txt *.asc);;All files (*)"),
                                     nullptr, QFileDialog::ReadOnly);
    if (!path.isEmpty()) bring_scan(path);
}

void MainWindow::choose_drawing(OutlineAs as) {
    const QString title = as == OutlineAs::slab ? tr("Slab from a drawing") : tr("Free form from a drawing");
    const QString path =
        QFileDialog::getOpenFileName(this, title, {}, tr("Drawings (*.svg *.dxf);;All files (*)"), nullptr, QFileDialog::ReadOnly);
    if (!path.isEmpty()) bring_outline(path, {}, as);
}

}  // namespace yb
