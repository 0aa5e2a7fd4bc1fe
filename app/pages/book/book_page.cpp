#include "app/pages/book/book_page.h"

#include <QApplication>
#include <QComboBox>
#include <QDate>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QLocale>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/slip/side.h"
#include "app/pages/book/book_chart.h"
#include "app/pages/book/book_list.h"
#include "app/pages/book/pace_buttons.h"
#include "core/shop/days/season.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

BookPage::BookPage(Session& session, Pictures& pictures, QWidget* parent)
    : QWidget(parent),
      session_(session),
      pictures_(pictures),
      model_(new BookModel(this)),
      list_(new QListView),
      chart_(new BookChart),
      words_(new QLineEdit),
      from_(new QLineEdit),
      to_(new QLineEdit),
      job_(new QComboBox),
      kind_(new QComboBox),
      plot_(new QComboBox),
      about_(named_label("book_about", theme::text(10.5))),
      title_(named_label("book_title", theme::text(12))),
      hero_(named_label("book_hero", theme::figures(17))),
      more_(named_label("book_more", theme::text(10))),
      photo_(named_label("book_photo", theme::text(9))),
      pace_head_(named_label("book_pace", theme::text(10.5, true))),
      correct_(quiet_button("book_correct", tr("Correct it…"), tr("It stays as it is; a line that names it says what was right"))),
      note_(quiet_button("book_note", tr("Write a note…"), tr("Of what is picked on the bench (N, from anywhere)"))),
      add_photo_(quiet_button("book_add_photo", tr("Bring a photograph…"), tr("Or drop it on the page"))),
      print_(quiet_button("book_print", tr("Print the job's page…"))),
      agree_(quiet_button("book_agree", tr("What is agreed…"), tr("In the plan's own words, dated, for a signature"))),
      signed_(quiet_button("book_signed", tr("The signed paper…"), tr("Its scan or photograph is kept with what was agreed"))),
      paces_(new PaceButtons(session)) {
    setObjectName("book_page");
    const PageFrame frame(this, "book", tr("The book"), about_);
    lay_asks(frame.room);
    lay_lines(frame.room);
    lay_slip(frame.slip);
    frame.slip->addWidget(frame.leave);
    connect(frame.leave, &QPushButton::clicked, this, &BookPage::back);
    listen();
}

/// What is searched for.
void BookPage::lay_asks(QVBoxLayout* room) {
    auto* asks = new QHBoxLayout;
    words_->setObjectName("book_words");
    words_->setPlaceholderText(tr("words that stand in it"));
    words_->setClearButtonEnabled(true);
    words_->setAccessibleName(tr("Search the book"));
    job_->setObjectName("book_job"), job_->setAccessibleName(tr("Of which job"));
    kind_->setObjectName("book_kind"), kind_->setAccessibleName(tr("What kind of line"));
    kind_->addItem(tr("anything"), QString());
    for (const char* k : {book::reading, book::tick, book::note, book::change, book::agreement, book::photo, book::correction})
        kind_->addItem(kind_in_words(k), QString(k));
    from_->setObjectName("book_from"), from_->setPlaceholderText(tr("from YYYY-MM-DD")), from_->setAccessibleName(tr("From this day on"));
    to_->setObjectName("book_to"), to_->setPlaceholderText(tr("to YYYY-MM-DD")), to_->setAccessibleName(tr("Up to this day"));
    for (QLineEdit* l : {from_, to_}) l->setMaximumWidth(theme::grown(124));
    job_->setMaximumWidth(theme::grown(190));
    asks->addWidget(words_, 1);
    asks->addWidget(job_), asks->addWidget(kind_), asks->addWidget(from_), asks->addWidget(to_);
    room->addLayout(asks);
}

void BookPage::lay_lines(QVBoxLayout* room) {
    list_->setObjectName("book_list");
    list_->setModel(model_);
    list_->setItemDelegate(new BookDelegate(list_));
    list_->setUniformItemSizes(true);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setAccessibleName(tr("The lines of the book, the newest first"));
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    room->addWidget(list_, 3);
    auto* plots = new QHBoxLayout;
    plot_->setObjectName("book_plot"), plot_->setAccessibleName(tr("What is drawn"));
    for (const auto& [key, name] : book_plots()) plot_->addItem(told(name), QString(key));
    plots->addWidget(plot_);
    plots->addStretch(1);
    room->addLayout(plots);
    room->addWidget(chart_, 2);
}

/// The line that is picked, what can be written, the maker's pace.
void BookPage::lay_slip(QVBoxLayout* rows) {
    title_->setAlignment(Qt::AlignHCenter);
    for (QLabel* l : {title_, hero_, more_, photo_}) rows->addWidget(l);
    photo_->setAlignment(Qt::AlignCenter);
    rows->addWidget(correct_);
    auto* writing = new QHBoxLayout;
    writing->addWidget(note_), writing->addWidget(add_photo_);
    rows->addLayout(writing);
    auto* papers = new QHBoxLayout;
    papers->addWidget(print_), papers->addWidget(agree_);
    rows->addLayout(papers);
    rows->addWidget(signed_);
    rows->addSpacing(8);
    rows->addWidget(pace_head_);
    paces_->setObjectName("book_paces");
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(paces_);
    scroll->setStyleSheet(QStringLiteral("QScrollArea, #book_paces { background: %1; }").arg(theme::colours().slip.name()));
    rows->addWidget(scroll, 1);
}

void BookPage::listen() {
    for (QLineEdit* l : {words_, from_, to_}) connect(l, &QLineEdit::textChanged, this, &BookPage::ask);
    connect(kind_, &QComboBox::currentIndexChanged, this, &BookPage::ask);
    connect(job_, &QComboBox::currentIndexChanged, this, [this] {
        ask();
        draw();
    });
    connect(plot_, &QComboBox::currentIndexChanged, this, &BookPage::draw);
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this] {
        fill();
        if (job_shown() != drawn_of_) draw();
    });
    connect(chart_, &BookChart::line_picked, this, &BookPage::pick_line);
    connect(correct_, &QPushButton::clicked, this, &BookPage::correct);
    connect(list_, &QAbstractItemView::activated, this, [this] {
        if (correct_->isEnabled()) correct();
    });
    connect(note_, &QPushButton::clicked, this, &BookPage::note_wanted);
    connect(add_photo_, &QPushButton::clicked, this, &BookPage::photo_wanted);
    connect(print_, &QPushButton::clicked, this, &BookPage::print_wanted);
    connect(agree_, &QPushButton::clicked, this, &BookPage::agreement_wanted);
    connect(signed_, &QPushButton::clicked, this, &BookPage::signed_wanted);
    connect(&pictures_, &Pictures::arrived, this, &BookPage::fill);
    const auto anew = [this] {
        if (isVisible()) look();
    };
    connect(&session_, &Session::changed, this, anew);
    connect(&session_, &Session::book_written, this, anew);
}

void BookPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    list_->setFocus();
    look();
}

void BookPage::wait() {
    while (busy_) QApplication::processEvents(QEventLoop::AllEvents, 20);
}

QString BookPage::job_shown() const {
    // The one that is asked for, that of the line that is picked, the one on the bench.
    if (const QString of = job_->currentData().toString(); !of.isEmpty()) return of;
    const BookLine* l = model_->line(list_->currentIndex());
    return QString::fromStdString(l && session_.documents().jobs.count(l->entry.job) ? l->entry.job : session_.job_id());
}

void BookPage::look() {
    if (!session_.store()) return;
    try {
        auto names = session_.job_names();
        const QString chosen = job_->currentData().toString();
        const QSignalBlocker still(job_);
        job_->clear();
        job_->addItem(tr("all jobs"), QString());
        for (const auto& [id, name] : names) job_->addItem(name, QString::fromStdString(id));
        job_->setCurrentIndex(std::max(0, job_->findData(chosen)));
        model_->show_lines(read_book(session_.store()->book()), std::move(names));
    } catch (const StoreError& e) {
        about_->setText(QString::fromStdString(e.what()));
        return;
    }
    const auto& lines = model_->lines();
    about_->setText(
        lines.empty() ? tr("Nothing is written yet: what is read, ticked and noted comes here by itself.")
                      : tr("%1, the first of %2")
                            .arg(told(yb::render(say("{}", counted(static_cast<double>(lines.size()), "line", "lines")), session_.units())))
                            .arg(QLocale().toString(QDate::fromString(QString::fromStdString(lines.front().entry.at).left(10), Qt::ISODate),
                                                    QStringLiteral("d MMMM yyyy"))));
    if (!list_->currentIndex().isValid() && model_->rowCount() > 0) list_->setCurrentIndex(model_->index(0));
    fill();
    draw();
}

void BookPage::ask() {
    BookAsk a;
    a.words = words_->text().toStdString();
    a.job = job_->currentData().toString().toStdString();
    a.kind = kind_->currentData().toString().toStdString();
    // A date that is still being typed asks nothing yet.
    if (is_date(from_->text().trimmed().toStdString())) a.from = from_->text().trimmed().toStdString();
    if (is_date(to_->text().trimmed().toStdString())) a.to = to_->text().trimmed().toStdString();
    model_->ask(a);
    if (model_->rowCount() > 0) list_->setCurrentIndex(model_->index(0));
    fill();
}

void BookPage::pick_line(qint64 id) {
    for (int row = 0; row < model_->rowCount(); ++row)
        if (model_->line(model_->index(row))->entry.id == id) {
            list_->setCurrentIndex(model_->index(row));
            list_->scrollTo(model_->index(row));
            return;
        }
}

void BookPage::fill() {
    const BookLine* l = model_->line(list_->currentIndex());
    correct_->setEnabled(l && l->entry.kind != book::change && !session_.read_only());
    photo_->clear();
    const Job* on_bench = session_.job();
    signed_->setEnabled(on_bench && !on_bench->record.agreed.empty());
    if (!l) {
        title_->setText(model_->lines().empty() ? QString() : tr("No line has all of that"));
        hero_->clear(), more_->clear();
        return;
    }
    const BookEntry& e = l->entry;
    title_->setText(kind_in_words(e.kind));
    hero_->setText(said_of(e));
    QStringList more;
    more << QString::fromStdString(e.at).left(16).replace('T', ' ');
    if (const QString job = model_->job_name(e.job); !job.isEmpty()) more << job;
    if (const QString of = told_of(e); !of.isEmpty()) more << tr("of %1").arg(of);
    more << tr("line %1").arg(e.id);
    if (l->corrected_by) {
        for (const BookLine& by : model_->lines())
            if (by.entry.id == l->corrected_by)
                more << (by.entry.value.empty()
                             ? tr("corrected by line %1: it did not happen").arg(by.entry.id)
                             : tr("corrected by line %1: %2")
                                   .arg(by.entry.id)
                                   .arg(QString::fromStdString(by.entry.value + (by.entry.unit.empty() ? "" : " " + by.entry.unit))));
    }
    more_->setText(more.join('\n'));
    if (e.kind == book::photo && !e.value.empty()) photo_->setPixmap(beside_the_first(e));
}

/// A photograph; of a thing that was photographed before, the first of it beside: before and after.
QPixmap BookPage::beside_the_first(const BookEntry& e) {
    std::vector<std::string> keys;
    for (const BookLine& l : model_->lines())
        if (keys.empty() && l.entry.kind == book::photo && l.entry.job == e.job && l.entry.of == e.of && l.entry.id < e.id &&
            l.entry.value != e.value)
            keys.push_back(l.entry.value);
    keys.push_back(e.value);
    const int wide = theme::grown(262) / static_cast<int>(keys.size()), tall = theme::grown(180);
    QPixmap both(wide * static_cast<int>(keys.size()), tall);
    both.fill(theme::colours().slip);
    QPainter p(&both);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    for (std::size_t i = 0; i < keys.size(); ++i) {
        const QImage image = pictures_.thumbnail(keys[i]);
        if (image.isNull()) continue;
        const QSizeF size = QSizeF(image.size()).scaled(wide - 4, tall, Qt::KeepAspectRatio);
        p.drawImage(QRectF(QPointF(wide * (static_cast<double>(i) + 0.5) - size.width() / 2, (tall - size.height()) / 2), size), image);
    }
    return both;
}

void BookPage::correct() {
    const BookLine* l = model_->line(list_->currentIndex());
    if (!l) return;
    const BookEntry wrong = l->entry;
    QString right = QString::fromStdString(wrong.value), prompt = tr("What was right instead? Leave it empty where it did not happen.");
    for (;;) {
        bool ok = false;
        right = QInputDialog::getText(this, tr("Correct it"), prompt, QLineEdit::Normal, right, &ok);
        if (!ok) return;
        const QString failed = session_.write_book(correcting(wrong, right.trimmed().toStdString(), {}));
        if (failed.isEmpty()) return;
        prompt = tr("%1\nWhat you wrote is still here: try again, or copy it.").arg(failed);
    }
}

void BookPage::show_plot(const QString& key) { plot_->setCurrentIndex(std::max(0, plot_->findData(key))); }

void BookPage::draw() {
    if (looking_) looking_->stop.request_stop();
    busy_ = true;
    drawn_of_ = job_shown();
    const std::string id = drawn_of_.toStdString();
    looking_ = run_beside(
        this,
        [this, docs = session_.documents(), lines = model_->lines(), id,
         key = plot_->currentData().toString().toStdString()](const Work& w) -> std::function<void()> {
            std::shared_ptr<const Plan> plan;
            if (const auto it = docs.jobs.find(id); it != docs.jobs.end() && can_be_planned(docs, it->second)) {
                Shop starting = docs.shop;  // hours are planned by the starting values: what was taken stands beside them
                starting.paces.clear();
                plan = std::make_shared<Plan>(plan_job(it->second, docs, whole_top, &starting));
            }
            w.check();
            auto plot = std::make_shared<BookPlot>(plot_of(key, lines, docs, id, plan.get()));
            auto learned = std::make_shared<Learned>(learned_paces(docs, w));
            return [this, plan, plot, learned] {
                busy_ = false;
                plan_ = plan;
                learned_ = *learned;
                chart_->show_plot(*plot);
                fill_paces();
            };
        },
        [this](const QString& sentence) {
            busy_ = false;
            about_->setText(sentence);
        });
}

void BookPage::fill_paces() {
    std::size_t odd = 0;
    for (const Took& t : learned_.took) odd += t.outlier;
    pace_head_->setText(learned_.figures.empty() ? tr("No pace is learned yet: tick operations off in Days, and type how long they took.")
                        : odd > 0                ? tr("Your pace, from what you ticked; far off and hardly counted: %1").arg(odd)
                                                 : tr("Your pace, from what you ticked"));
    paces_->show_learned(learned_);
}

}  // namespace yb
