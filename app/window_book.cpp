// The window's papers of book and money: notes, photographs, what is agreed, the offer, what is to be bought, the label, today across the
// room.
#include <set>

#include <QBuffer>
#include <QDate>
#include <QFileDialog>
#include <QMenuBar>
#include <QMessageBox>

#include "app/files/bring.h"
#include "app/ground/instruments.h"
#include "app/ground/session/whole_file.h"
#include "app/main_window.h"
#include "app/pages/book/note_dialog.h"
#include "app/pages/days/days_page.h"
#include "app/pages/days/today_wall.h"
#include "app/pages/money/money_page.h"
#include "app/steps/sheets/papers.h"
#include "core/files/io/book_io.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/record/agreement.h"

namespace yb {

namespace {
std::string iso_today() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }
}  // namespace

void MainWindow::write_note() {
    if (!session_.is_open()) return;
    const Thing* thing = session_.picked_thing();
    const QString of = thing ? QString::fromStdString(yb::render(thing->title, session_.units())) : QString();
    bool reading = false;
    QString prompt =
        of.isEmpty() ? tr("What happened? A reading is typed like this: dry film 0.08 mm") : tr("What happened to %1?").arg(of);
    NoteDialog note(session_.path(), this);
    for (;;) {
        if (!note.ask(prompt)) return;  // put aside: it is there again with the next N
        const QString text = note.text().trimmed();
        if (text.isEmpty()) return;
        BookEntry e;
        e.step = std::string(session_.step().key);
        const BookEntry typed = typed_entry(text.toStdString());
        e.kind = typed.kind, e.what = typed.what, e.value = typed.value, e.unit = typed.unit;
        e.of = thing ? thing->key : "";
        reading = e.kind == book::reading;
        const QString wrong = session_.write_book(e);
        if (wrong.isEmpty()) break;
        prompt = tr("%1\nWhat you wrote is still here: try again, or copy it.").arg(wrong);
    }
    note.forget();
    say(reading ? tr("The reading is in the book.") : tr("The note is in the book."));
}

void MainWindow::bring_job_photo(const QString& path) {
    yb::bring_photo_of_job(session_, *work_, path, [this](const QString& text, bool bad) { say(text, bad); });
}

void MainWindow::choose_job_photo() {
    for (const QString& path : QFileDialog::getOpenFileNames(this, tr("Photographs of the job"), {},
                                                             tr("Pictures (*.jpg *.jpeg *.png *.webp)"), nullptr, QFileDialog::ReadOnly))
        bring_job_photo(path);
}

void MainWindow::write_agreement() {
    const auto plan = session_.plan_of_whole();
    const Job* job = session_.job();
    if (!plan || !job || !plan->drawable()) return say(tr("There is nothing to agree to yet: lay a top first."), true);
    const QString path = ask_save(tr("What is agreed"), tr("PDF (*.pdf)"), tr("%1, agreed.pdf").arg(session_.job_name()));
    if (path.isEmpty()) return;
    const std::string on = iso_today();
    const QString wrong = write_agreement_pdf(path, *job, *plan, session_.shop(), on);
    if (!wrong.isEmpty()) return say(wrong, true);
    session_.edit_job(tr("What is agreed"), [&](Job& j) { agree(j, {on, "", to_agree(*plan, j, session_.shop())}); });
    say(tr("What is agreed is saved as %1 and stands in the book. Photograph it once it is signed.").arg(path));
}

void MainWindow::choose_signed() {
    if (const QString path = QFileDialog::getOpenFileName(this, tr("The signed paper"), {}, tr("Pictures (*.jpg *.jpeg *.png *.webp)"),
                                                          nullptr, QFileDialog::ReadOnly);
        !path.isEmpty())
        bring_signed(session_, *work_, path, [this](const QString& text, bool bad) { say(text, bad); });
}

void MainWindow::write_book() {
    const Job* job = session_.job();
    if (!job || !session_.store()) return;
    const QString path = ask_save(tr("The job's page of the book"), tr("PDF (*.pdf);;CSV (*.csv);;JSON (*.json)"),
                                  tr("%1, book.pdf").arg(session_.job_name()));
    if (path.isEmpty()) return;
    try {
        const auto lines = read_book(session_.store()->book());
        std::vector<BookEntry> own;
        for (const std::size_t i : search(lines, {"", job->id, "", "", ""})) own.push_back(lines[i].entry);
        const auto is = [&](const char* ending) { return path.endsWith(QLatin1String(ending), Qt::CaseInsensitive); };
        const QString wrong =
            is(".csv")    ? write_whole(path, QByteArray::fromStdString(book_csv(own)))
            : is(".json") ? write_whole(path, QByteArray::fromStdString(book_json(own).dump(1, ' ', false, Json::error_handler_t::replace)))
                          : write_book_pdf(path, *job, lines, session_.shop());
        say(wrong.isEmpty() ? tr("The page is saved as %1.").arg(path) : wrong, !wrong.isEmpty());
    } catch (const StoreError& e) {
        say(QString::fromStdString(e.what()), true);
    }
}

void MainWindow::write_offer() {
    if (!money_) return;
    const auto ways = money_->offered();
    std::vector<OfferedWay> all;
    for (const auto& w : ways) all.push_back({w.job.get(), w.plan.get(), w.name, w.picture});
    if (all.empty()) return say(tr("No way is on the offer: tick one in the table of ways."), true);
    const QString path = ask_save(tr("Print the offer"), tr("PDF (*.pdf)"), tr("%1, offer.pdf").arg(session_.job_name()));
    if (path.isEmpty()) return;
    const QString wrong = write_offer_pdf(path, all, session_.shop(), iso_today());
    say(wrong.isEmpty() ? tr("The offer is saved as %1.").arg(path) : wrong, !wrong.isEmpty());
}

void MainWindow::write_shopping() {
    const auto plan = session_.plan_of_whole();
    const Job* job = session_.job();
    if (!plan || !job || !plan->drawable()) return say(tr("There is nothing to buy for yet: lay a top first."), true);
    const QString path =
        ask_save(tr("What is to be bought"), tr("PDF (*.pdf);;CSV (*.csv)"), tr("%1, to buy.pdf").arg(session_.job_name()));
    if (path.isEmpty()) return;
    const QString wrong = path.endsWith(".csv", Qt::CaseInsensitive)
                              ? write_whole(path, QByteArray::fromStdString(shopping_csv(shopping_list(*plan, *job, session_.shop()))))
                              : write_shopping_pdf(path, *job, *plan, session_.shop());
    say(wrong.isEmpty() ? tr("What is to be bought is saved as %1.").arg(path) : wrong, !wrong.isEmpty());
}

void MainWindow::write_label() {
    const auto plan = session_.plan_of_whole();
    if (!plan || !session_.job() || !plan->drawable()) return say(tr("There is no finished piece to label yet."), true);
    const QString path = ask_save(tr("The label of the finished piece"), tr("PDF (*.pdf)"), tr("%1, label.pdf").arg(session_.job_name()));
    if (path.isEmpty()) return;
    // The number finds everything again.
    if (session_.job()->record.number.empty())
        session_.edit(tr("Its number in the book"),
                      [id = session_.job_id()](Documents& d) { give_number(d, id, iso_today().substr(0, 4)); });
    const QString wrong = write_label_pdf(path, *session_.job(), *plan, session_.shop());
    say(wrong.isEmpty() ? tr("The label is saved as %1; the number finds everything again in the book.").arg(path) : wrong,
        !wrong.isEmpty());
}

Instruments& MainWindow::instruments() {
    if (!instruments_) {
        instruments_ = new Instruments(session_, this);
        connect(instruments_, &Instruments::said, this, &MainWindow::say);
    }
    return *instruments_;
}

void MainWindow::listen_to_instrument() {
    QWidget* below = menuBar();
    Probe::choose_line(below, tr("Instrument"), [this](const QString& line) {
        const QString wrong = instruments().listen(line);
        say(wrong.isEmpty() ? tr("Listening to %1: what it reads goes where the cursor is.").arg(line) : wrong, !wrong.isEmpty());
    });
}

void MainWindow::look_across_the_room() {
    show_days();
    if (!days_) return;
    days_->wait();
    if (const Season* season = days_->season()) (new TodayWall(*season, session_.units(), this))->showFullScreen();
}

}  // namespace yb
