#include "app/pages/jobs/jobs_page.h"

#include <algorithm>

#include <QApplication>
#include <QCheckBox>
#include <QContextMenuEvent>
#include <QDate>
#include <QGridLayout>
#include <QInputDialog>
#include <QKeyEvent>
#include <QLabel>
#include <QLocale>
#include <QMenu>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/small_top.h"
#include "core/ground/calendar/calendar.h"
#include "core/shop/edit/job_edits.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/steps.h"
#include "core/shop/ways/ways.h"
#include "core/steps/days/days.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/makeup.h"

namespace yb {

namespace {

QString day(const std::string& iso) {
    const QDate d = QDate::fromString(QString::fromStdString(iso), Qt::ISODate);
    return d.isValid() ? QLocale().toString(d, QStringLiteral("d MMMM yyyy")) : QString();
}

/// The job's story stick, small: hands solid, waiting hatched, from its first day to its last.
void draw_little_stick(QPainter& p, const QRectF& stick, const DaysPlan& days) {
    const auto& c = theme::colours();
    p.setPen(QPen(c.rule, 1));
    p.setBrush(c.paper);
    p.drawRect(stick);
    if (!(days.end_h > 0)) return;
    const auto x = [&](double h) { return stick.left() + stick.width() * std::clamp(h / days.end_h, 0.0, 1.0); };
    p.setPen(Qt::NoPen);
    for (const Operation& o : days.operations) {
        p.setBrush(QBrush(c.faint, Qt::BDiagPattern));
        if (o.waiting_h > 0) p.drawRect(QRectF(QPointF(x(o.hands_end_h), stick.top()), QPointF(x(o.end_h), stick.bottom())));
        p.setBrush(c.wood_edge);
        if (o.hands_on_h > 0)
            p.drawRect(QRectF(QPointF(x(o.start_h), stick.top()), QPointF(std::max(x(o.start_h) + 1.2, x(o.hands_end_h)), stick.bottom())));
    }
}

}  // namespace

JobCard::JobCard(Session& session, TopPicture& tops, JobShown shown, QWidget* parent)
    : QAbstractButton(parent), session_(session), tops_(tops), shown_(std::move(shown)), more_(new QPushButton(QStringLiteral("…"), this)) {
    setObjectName("job_card_" + QString::fromStdString(shown_.id));
    setText(shown_.name);
    const auto said = [&](const Phrase& p) { return QString::fromStdString(yb::render(p, session_.units())); };
    setAccessibleName(shown_.name);
    setAccessibleDescription(tr("%1; next: %2").arg(said(shown_.state.says), said(shown_.state.next)));
    setToolTip(tr("Put it on the bench"));
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    setMinimumWidth(280);
    setFixedHeight(theme::grown(246));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    more_->setObjectName("job_more_" + QString::fromStdString(shown_.id));
    more_->setProperty("plain", true);
    more_->setAccessibleName(tr("More to do with %1").arg(shown_.name));
    more_->setFont(theme::figures(14));
    connect(more_, &QPushButton::clicked, this, [this] { Q_EMIT more(more_->mapToGlobal(QPoint(0, more_->height()))); });
}

void JobCard::resizeEvent(QResizeEvent*) {
    more_->adjustSize();
    more_->move(width() - more_->width() - 6, 4);
}

void JobCard::contextMenuEvent(QContextMenuEvent* e) { Q_EMIT more(e->globalPos()); }

void JobCard::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) return click();
    QAbstractButton::keyPressEvent(e);
}

void JobCard::paintEvent(QPaintEvent*) {
    const auto& c = theme::colours();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const bool on_bench = session_.job_id() == shown_.id;
    p.setPen(QPen(hasFocus() || underMouse() || on_bench ? c.brass : c.rule, hasFocus() || on_bench ? 2.4 : 1.2));
    p.setBrush(c.slip);
    p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 4, 4);
    const QRectF box(3, 3, width() - 6, theme::grown(112));
    p.fillRect(box, c.bench);
    if (shown_.plan && shown_.plan->lay->ready) {
        SmallTop small{shown_.job->top, shown_.job->makeup.kind, shown_.plan->lay->narrowest_mm, shown_.plan->lay->fits, {}, {}};
        for (std::size_t i = 0; i < shown_.plan->leaves.size() && i < shown_.job->leaves.size(); ++i)
            small.leaves.push_back({&shown_.plan->leaves[i].slab(), &shown_.plan->leaves[i].shape(), shown_.job->leaves[i].placement});
        small.joints = joints_of(shown_.job->makeup, small.leaves.size(), shown_.job->top.width_mm);
        p.save();
        p.setClipRect(box);
        draw_small_top(p, box.adjusted(14, 10, -14, -10), tops_, small, devicePixelRatioF());
        p.restore();
    } else {
        p.setPen(c.pencil);
        p.setFont(theme::text(10));
        p.drawText(box, Qt::AlignCenter, tr("nothing to draw yet"));
    }
    double y = box.bottom() + 6;
    const auto line = [&](const QString& text, const QFont& font, const QColor& ink, double left = 0) {
        p.setFont(font);
        p.setPen(ink);
        const double tall = QFontMetricsF(font).height() + 2;
        const QRectF at(14 + left, y, width() - 28 - left, tall);
        p.drawText(at, Qt::AlignLeft | Qt::AlignVCenter, what_fits(text, p.fontMetrics(), at.width()));
        y += tall;
    };
    const auto said = [&](const Phrase& phrase) { return told(yb::render(phrase, session_.units())); };
    line(shown_.name, theme::figures(13), c.ink);
    line(shown_.client.isEmpty() ? tr("for nobody named") : tr("for %1").arg(shown_.client), theme::text(9.5), c.pencil);
    line(said(shown_.state.says), theme::text(10), c.ink);
    const bool stops = shown_.state.stops > 0;
    if (stops) theme::draw_sign(p, Severity::stop, QRectF(14, y + 4, 9, 9));
    line(tr("next: %1").arg(said(shown_.state.next)), theme::text(10, true), stops ? c.madder : c.chalk, stops ? 14 : 0);
    const QString ready = day(shown_.state.ready);
    line(ready.isEmpty() ? tr("no date yet") : tr("ready for %1, %2").arg(told(ready_for()), ready), theme::text(9.5), c.pencil);
    if (shown_.plan) draw_little_stick(p, QRectF(14, y + 3, width() - 28, theme::grown(9)), *shown_.plan->days);
}

JobsPage::JobsPage(Session& session, Pictures& pictures, QWidget* parent)
    : QWidget(parent),
      session_(session),
      tops_(pictures, [this] { paint_cards(); }),
      about_(new QLabel),
      away_(new QCheckBox),
      grid_(new QGridLayout) {
    setObjectName("jobs_page");
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(36, 20, 36, 16);
    all->setSpacing(10);
    auto* head = new QHBoxLayout;
    auto* title = new QLabel(tr("Jobs"));
    title->setFont(theme::figures(20));
    head->addWidget(title);
    about_->setObjectName("jobs_about");
    about_->setFont(theme::text(10.5));
    head->addWidget(about_, 1);
    away_->setObjectName("jobs_away");
    head->addWidget(away_);
    connect(away_, &QCheckBox::toggled, this, [this] { show_jobs(jobs_); });
    auto* made = new QPushButton(tr("A new job"));
    made->setObjectName("jobs_new");
    made->setProperty("quiet", true);
    connect(made, &QPushButton::clicked, this, &JobsPage::new_job);
    head->addWidget(made);
    auto* leave = new QPushButton(tr("Back to the bench"));
    leave->setObjectName("jobs_back");
    leave->setProperty("next", true);
    leave->setMinimumWidth(theme::grown(170));
    connect(leave, &QPushButton::clicked, this, &JobsPage::back);
    head->addWidget(leave);
    all->addLayout(head);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 8, 0);
    grid_->setSpacing(14);
    column->addLayout(grid_);
    column->addStretch(1);
    scroll->setWidget(page);
    all->addWidget(scroll, 1);
    connect(&session_, &Session::changed, this, [this] {
        if (isVisible()) look();
    });
    connect(&pictures, &Pictures::arrived, this, [this](const QString& key) {
        tops_.forget(key);
        paint_cards();
    });
}

void JobsPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    look();
}

void JobsPage::paint_cards() {
    for (JobCard* c : findChildren<JobCard*>()) c->update();
}

void JobsPage::wait() {
    while (busy_) QApplication::processEvents(QEventLoop::AllEvents, 20);
    tops_.draw_all([this] { grab(); });
}

void JobsPage::look() {
    if (looking_) looking_->stop.request_stop();
    busy_ = true;
    looking_ = run_beside(
        this,
        [this, docs = session_.documents()](const Work& w) -> std::function<void()> {
            auto jobs = std::make_shared<std::vector<JobShown>>();
            for (const auto& [id, job] : docs.jobs) {
                w.check();
                if (first_of_ways(docs, id) != id) continue;  // other ways of it stand on the page of money
                JobShown s{
                    id, QString::fromStdString(job.name), QString::fromStdString(job.client), job.put_away, std::make_shared<Job>(job), {},
                    {}};
                const auto ids = job.slabs();
                if (!job.first().slab.empty() &&
                    std::all_of(ids.begin(), ids.end(), [&](const std::string& slab) { return docs.slabs.count(slab); }))
                    s.plan = std::make_shared<Plan>(plan_job(job, docs));
                s.state = state_of(job, s.plan.get());
                jobs->push_back(std::move(s));
            }
            // What is ready first stands first; what has no date after it.
            std::stable_sort(jobs->begin(), jobs->end(), [](const JobShown& a, const JobShown& b) {
                return std::tuple(a.state.ready.empty(), a.state.ready) < std::tuple(b.state.ready.empty(), b.state.ready);
            });
            return [this, jobs] {
                busy_ = false;
                show_jobs(std::move(*jobs));
            };
        },
        [this](const QString& sentence) {
            busy_ = false;
            about_->setText(sentence);
        });
}

void JobsPage::show_jobs(std::vector<JobShown> jobs) {
    jobs_ = std::move(jobs);
    std::string had_focus;
    for (JobCard* c : findChildren<JobCard*>()) {
        if (c->hasFocus()) had_focus = c->shown().id;
        grid_->removeWidget(c);
        c->hide();
        c->setObjectName({});
        c->deleteLater();
    }
    const auto away = std::count_if(jobs_.begin(), jobs_.end(), [](const JobShown& j) { return j.away; });
    const auto here = static_cast<std::ptrdiff_t>(jobs_.size()) - away;
    about_->setText(jobs_.empty() ? tr("None yet: a new job starts from a slab on the rack.")
                    : here == 1   ? tr("one on the bench")
                                  : tr("%1 of them, the one that is ready first stands first").arg(here));
    away_->setText(tr("put away: %1").arg(away));
    away_->setVisible(away > 0);
    constexpr int columns = 4;
    int n = 0;
    for (const JobShown& j : jobs_) {
        if (j.away && !away_->isChecked()) continue;
        auto* card = new JobCard(session_, tops_, j);
        connect(card, &JobCard::clicked, this, [this, id = j.id] { open(id); });
        connect(card, &JobCard::more, this, [this, card](const QPoint& at) { offer(*card, at); });
        grid_->addWidget(card, n / columns, n % columns);
        if (j.id == had_focus || (had_focus.empty() && j.id == session_.job_id())) card->setFocus();
        ++n;
    }
    for (int i = 0; i < columns; ++i) grid_->setColumnStretch(i, 1);
}

void JobsPage::open(const std::string& id) {
    session_.set_job(QString::fromStdString(id));
    Q_EMIT back();
}

void JobsPage::new_job() {
    if (!session_.slab() || !session_.plan() || !session_.plan()->shape() || !session_.plan()->shape()->usable) {
        session_.set_step(step_key::rack);
        Q_EMIT session_.news(tr("A job starts from a slab that is measured: choose one on the rack, then “New job from this slab”."));
        Q_EMIT back();
        return;
    }
    session_.new_job();
    Q_EMIT back();
}

void JobsPage::offer(const JobCard& card, const QPoint& at) {
    const std::string id = card.shown().id;
    const QString name = card.shown().name;
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName("job_menu");
    const auto edit_it = [this, id](const QString& label, const std::function<void(Job&)>& change) {
        session_.edit(label, [&](Documents& d) {
            if (const auto it = d.jobs.find(id); it != d.jobs.end()) change(it->second);
        });
    };
    menu->addAction(tr("Put it on the bench"), this, [this, id] { open(id); });
    menu->addAction(tr("Rename…"), this, [this, edit_it, name] {
        bool ok = false;
        const QString typed = QInputDialog::getText(this, tr("Rename"), tr("Name of the job"), QLineEdit::Normal, name, &ok);
        if (ok) edit_it(tr("Rename the job"), [&](Job& j) { rename_job(j, typed.toStdString()); });
    });
    menu->addAction(tr("Whom it is for…"), this, [this, edit_it, client = card.shown().client] {
        bool ok = false;
        const QString typed = QInputDialog::getText(this, tr("The client"), tr("Whom it is for"), QLineEdit::Normal, client, &ok);
        if (ok) edit_it(tr("The client"), [&](Job& j) { set_client(j, typed.trimmed().toStdString()); });
    });
    menu->addAction(tr("Copy it"), this, [this, id] { session_.edit(tr("Copy a job"), [&](Documents& d) { copy_job(d, id); }); });
    if (card.shown().job->record.delivered.empty())
        menu->addAction(tr("It is delivered…"), this, [this, id] {
            bool ok = false;
            const QString on =
                QInputDialog::getText(this, tr("Delivered"), tr("On which day? It gets its number in the book, and its slabs are used up."),
                                      QLineEdit::Normal, QDate::currentDate().toString(Qt::ISODate), &ok)
                    .trimmed();
            if (!ok) return;
            if (!is_date(on.toStdString())) return Q_EMIT session_.trouble(tr("“%1” is no day: type it as 2026-11-30.").arg(on));
            session_.edit(tr("Delivered"), [&](Documents& d) {
                if (d.jobs.count(id)) deliver(d, id, on.toStdString());
            });
        });
    else
        menu->addAction(tr("It is not delivered after all"), this, [this, id] {
            session_.edit(tr("Not delivered after all"), [&](Documents& d) {
                if (d.jobs.count(id)) deliver(d, id, {});
            });
        });
    if (card.shown().away)
        menu->addAction(tr("Bring it back"), this, [edit_it] { edit_it(tr("Bring a job back"), [](Job& j) { put_away(j, false); }); });
    else menu->addAction(tr("Put it away"), this, [edit_it] { edit_it(tr("Put a job away"), [](Job& j) { put_away(j, true); }); });
    menu->popup(at);
}

}  // namespace yb
