#include "app/pages/days/days_page.h"

#include <algorithm>

#include <QApplication>
#include <QCheckBox>
#include <QDate>
#include <QDateTime>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/measure_field.h"
#include "app/kit/slip/lines.h"
#include "app/kit/slip/side.h"
#include "app/pages/days/days_sticks.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/rates.h"
#include "core/shop/money/money.h"
#include "core/steps/pace/pace.h"

namespace yb {

namespace {

QDate date_of(const std::string& iso) { return QDate::fromString(QString::fromStdString(iso), Qt::ISODate); }

QString clock(double h) {
    const int minutes = static_cast<int>(std::lround(h * 60));
    return QStringLiteral("%1:%2").arg(minutes / 60).arg(minutes % 60, 2, 10, QLatin1Char('0'));
}

/// A button's words on as many lines as its width asks for.
void wrap(QPushButton* b, const QString& text) {
    const QFontMetrics metrics(b->font());
    const int wide = theme::grown(212);
    QStringList lines{QString()};
    for (const QString& paragraph : text.split('\n')) {
        if (!lines.last().isEmpty()) lines << QString();
        for (const QString& word : paragraph.split(' ')) {
            const QString longer = lines.last().isEmpty() ? word : lines.last() + ' ' + word;
            if (metrics.horizontalAdvance(longer) > wide && !lines.last().isEmpty()) lines << word;
            else lines.last() = longer;
        }
    }
    b->setText(lines.join('\n'));
    b->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Minimum);
}

constexpr const char* weekdays[] = {"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"};

}  // namespace

DaysPage::DaysPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      sticks_(new DaysSticks),
      about_(named_label("days_about", theme::text(10.5), false)),
      title_(named_label("days_title", theme::text(12))),
      which_(named_label("days_which", theme::text(9.5))),
      hero_(named_label("days_hero", theme::text(20), false)),
      hero_note_(named_label("days_hero_note", theme::text(10))),
      figures_(named_label("days_figures", theme::text(10.5))),
      mind_(named_label("days_mind", theme::text(10.5))),
      today_line_(named_label("days_today", theme::text(10.5))),
      home_line_(named_label("days_home", theme::text(10.5))),
      given_(named_label("days_given", theme::text(10))),
      moved_(named_label("days_moved", theme::text(10))),
      done_(quiet_button("days_done", tr("Done"), tr("Hands are off it now (Enter)"))),
      unpin_(quiet_button("days_unpin", tr("Whenever it can"), tr("It is not kept for a day any more"))),
      sooner_(quiet_button("days_sooner", tr("Its turn sooner"), tr("This job before the one above it (Alt+↑)"))),
      later_(quiet_button("days_later", tr("Its turn later"), tr("This job after the one below it (Alt+↓)"))),
      own_(quiet_button("days_own", tr("Mine after it…"), tr("A drawing with the client, a call: what no step knows of"))),
      again_(quiet_button("days_again", tr("Once more after it"), tr("A second leak, another coat of filler"))),
      split_(quiet_button("days_split", tr("Split in two"), tr("Half of it now, half of it when there is time"))),
      helped_(quiet_button("days_helped", tr("Give it to the helper"))),
      drop_(quiet_button("days_drop", tr("Take it away"))),
      gives_(quiet_button("days_gives", tr("What could give"), tr("Each way to be ready sooner is planned, and said with what it gains"))),
      wanted_(new QLineEdit),
      fetched_(new QPushButton),
      hands_(new MeasureField("days_hands", Kind::hours)),
      waits_(new MeasureField("days_waits", Kind::hours)),
      air_(new MeasureField("days_air", Kind::temperature)),
      took_(new MeasureField("days_took", Kind::hours)),
      ways_(new QVBoxLayout) {
    setObjectName("days_page");
    auto* all = new QHBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(0);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(20, 12, 20, 10);
    auto* title = new QLabel(tr("Days"));
    title->setFont(theme::figures(20));
    head->addWidget(title);
    head->addSpacing(14);
    head->addWidget(about_, 1);
    left->addLayout(head);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(sticks_);
    left->addWidget(scroll, 1);
    auto* today_box = new QWidget;
    today_box->setObjectName("days_today_box");
    auto* today_rows = new QVBoxLayout(today_box);
    today_rows->setContentsMargins(20, 10, 20, 12);
    today_rows->setSpacing(6);
    today_rows->addWidget(today_line_);
    today_rows->addWidget(home_line_);
    left->addWidget(today_box);
    all->addLayout(left, 1);

    auto* side = side_slip("days_side");
    auto* side_rows = new QVBoxLayout(side);
    side_rows->setContentsMargins(0, 0, 0, 0);
    side_rows->setSpacing(0);
    // What is said of an operation scrolls where it is long; who helps and the way back stay.
    auto* upper = new QWidget;
    auto* rows = new QVBoxLayout(upper);
    rows->setContentsMargins(18, 14, 16, 6);
    rows->setSpacing(6);
    auto* upper_scroll = new QScrollArea;
    upper_scroll->setWidgetResizable(true);
    upper_scroll->setFrameShape(QFrame::NoFrame);
    upper_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    upper_scroll->setWidget(upper);
    upper->setObjectName("days_upper");
    upper_scroll->setStyleSheet(QStringLiteral("QScrollArea, #days_upper { background: %1; }").arg(theme::colours().slip.name()));
    side_rows->addWidget(upper_scroll, 1);
    auto* foot = new QVBoxLayout;
    foot->setContentsMargins(18, 6, 16, 14);
    foot->setSpacing(6);
    side_rows->addLayout(foot);
    title_->setAlignment(Qt::AlignHCenter);
    which_->setAlignment(Qt::AlignHCenter);
    hero_->setFont(theme::figures(20));
    for (QLabel* l : {title_, which_, hero_, hero_note_}) rows->addWidget(l);
    const auto named_field = [&](const QString& name, MeasureField* field, double most) {
        auto* row = new QHBoxLayout;
        auto* label = new QLabel(name);
        label->setFont(theme::text(10.5));
        row->addWidget(label, 1);
        row->addWidget(field, 1);
        field->allow_empty(true);
        field->set_range(0, most);
        rows->addLayout(row);
        return label;
    };
    named_field(tr("Hands on it"), hands_, 2000);
    named_field(tr("Then it waits"), waits_, 20000);
    air_name_ = named_field(tr("Air it is done in"), air_, 50);
    air_->set_range(-20, 50);
    named_field(tr("It really took"), took_, 2000);
    rows->addWidget(figures_);
    moved_->hide();
    rows->addWidget(moved_);
    rows->addWidget(mind_);
    auto* doing = new QHBoxLayout;
    doing->addWidget(done_);
    doing->addWidget(unpin_);
    rows->addLayout(doing);
    auto* turns = new QHBoxLayout;
    turns->addWidget(sooner_);
    turns->addWidget(later_);
    rows->addLayout(turns);
    auto* more = new QHBoxLayout;
    more->addWidget(own_);
    more->addWidget(again_);
    rows->addLayout(more);
    auto* hands_row = new QHBoxLayout;
    hands_row->addWidget(split_);
    hands_row->addWidget(helped_);
    rows->addLayout(hands_row);
    rows->addWidget(drop_);
    auto* want = new QHBoxLayout;
    auto* want_name = new QLabel(tr("Wanted on"));
    want_name->setFont(theme::text(10.5));
    want->addWidget(want_name);
    wanted_->setObjectName("days_wanted");
    wanted_->setPlaceholderText(tr("YYYY-MM-DD"));
    wanted_->setAccessibleName(tr("The day the client wants it"));
    want->addWidget(wanted_);
    rows->addLayout(want);
    fetched_->setObjectName("days_fetched");
    fetched_->setCheckable(true);
    fetched_->setProperty("quiet", true);
    rows->addWidget(fetched_);
    given_->hide();
    rows->addWidget(given_);
    rows->addWidget(gives_);
    rows->addLayout(ways_);
    rows->addStretch(1);
    auto* helper_name = new QLabel(tr("A helper is there on"));
    helper_name->setFont(theme::text(10));
    foot->addWidget(helper_name);
    auto* days = new QHBoxLayout;
    days->setSpacing(3);
    for (int d = 0; d < 7; ++d) {
        auto* b = quiet_button(QStringLiteral("days_helper_%1").arg(d + 1), told(weekdays[d]).left(2), told(weekdays[d]));
        b->setCheckable(true);
        b->setAccessibleName(tr("A helper on %1").arg(told(weekdays[d])));
        b->setMinimumWidth(10);
        days->addWidget(b);
        helper_.push_back(b);
        connect(b, &QPushButton::clicked, this,
                [this, d](bool there) { session_.edit_shop(tr("When a helper is there"), [&](Shop& s) { helper_on(s, d, there); }); });
    }
    foot->addLayout(days);
    auto* files = new QVBoxLayout;
    const auto plain = [&](const QString& name, const QString& text, void (DaysPage::*wanted)()) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        b->setProperty("plain", true);
        connect(b, &QPushButton::clicked, this, wanted);
        files->addWidget(b);
    };
    plain("days_off_in", tr("Days off from a calendar…"), &DaysPage::days_off_wanted);
    plain("days_calendar", tr("Write a calendar…"), &DaysPage::calendar_wanted);
    keep_ = new QPushButton;
    keep_->setObjectName("days_keep");
    keep_->setProperty("plain", true);
    keep_->hide();
    connect(keep_, &QPushButton::clicked, this, &DaysPage::calendar_let_go);
    files->addWidget(keep_);
    plain("days_print", tr("Print today and the week…"), &DaysPage::week_sheet_wanted);
    foot->addLayout(files);
    auto* leave = new QPushButton(tr("Back to the bench"));
    leave->setObjectName("days_back");
    leave->setProperty("next", true);
    connect(leave, &QPushButton::clicked, this, &DaysPage::back);
    foot->addWidget(leave);
    all->addWidget(side);

    connect(sticks_, &DaysSticks::picked_changed, this, &DaysPage::fill);
    connect(sticks_, &DaysSticks::dragged, this, [this](const QString& operation, const QString& iso, bool let_go) {
        const std::string id = operation.section('/', 0, 0).toStdString(), key = operation.section('/', 1).toStdString();
        if (let_go) {
            session_.edit(tr("Kept for a day"), [&](Documents& d) {
                if (const auto it = d.jobs.find(id); it != d.jobs.end()) pin(it->second, key, iso.toStdString());
            });
        } else {
            Documents moved = session_.documents();
            if (const auto it = moved.jobs.find(id); it != moved.jobs.end()) pin(it->second, key, iso.toStdString());
            lay_out(moved);
        }
    });
    connect(sticks_, &DaysSticks::date_clicked, this, [this](const QString& iso) {
        const std::string day = iso.toStdString();
        const bool off = is_off(session_.shop().workday, day);
        session_.edit_shop(off ? tr("A day worked") : tr("A day off"), [&](Shop& s) { day_off(s, day, !off); });
    });
    const auto tick_now = [this] {
        const JobDays* job = nullptr;
        const Operation* o = picked(&job);
        if (!o) return;
        const bool done = o->done_h.has_value();
        const QString now = fixed_today_.isEmpty()
                                ? QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm"))
                                : fixed_today_ + QStringLiteral("T") + QTime(8, 0).addSecs(3600 * 4).toString(QStringLiteral("HH:mm"));
        edit(done ? tr("Not done after all") : tr("Done"),
             [&](Job& j) { tick(j, o->key, done ? std::string() : now.toStdString(), o->label); });
    };
    connect(sticks_, &DaysSticks::tick_wanted, this, tick_now);
    connect(done_, &QPushButton::clicked, this, tick_now);
    connect(unpin_, &QPushButton::clicked, this, [this] {
        if (const Operation* o = picked()) edit(tr("Whenever it can"), [&](Job& j) { pin(j, o->key, {}); });
    });
    const auto turn = [this](int by) {
        const JobDays* job = nullptr;
        if (picked(&job)) session_.edit(tr("Whose turn it is"), [&](Documents& d) { move_turn(d, job->id, by); });
    };
    connect(sticks_, &DaysSticks::turn_wanted, this, turn);
    connect(sooner_, &QPushButton::clicked, this, [turn] { turn(-1); });
    connect(later_, &QPushButton::clicked, this, [turn] { turn(1); });
    connect(own_, &QPushButton::clicked, this, [this] {
        const Operation* o = picked();
        if (!o) return;
        bool ok = false;
        const QString name =
            QInputDialog::getText(this, tr("Something of your own"), tr("What is it? It takes an hour; the job's own list has its hours."),
                                  QLineEdit::Normal, {}, &ok);
        if (!ok || name.trimmed().isEmpty()) return;
        edit(tr("Something of mine"), [&](Job& j) { add_own(j, {name.trimmed().toStdString(), o->key, {}, 1, 0, Who::maker}); });
    });
    connect(again_, &QPushButton::clicked, this, [this] {
        if (const Operation* o = picked())
            edit(tr("Once more"), [&, name = tr("%1, once more").arg(told(o->label)).toStdString()](Job& j) { again_after(j, *o, name); });
    });
    connect(split_, &QPushButton::clicked, this, [this] {
        const JobDays* job = nullptr;
        const Operation* o = picked(&job);
        if (!o) return;
        std::string next;
        for (const Operation& other : job->operations)
            if (next.empty() && std::find(other.after.begin(), other.after.end(), o->key) != other.after.end()) next = other.key;
        edit(tr("Split in two"), [&, name = tr("%1, second half").arg(told(o->label)).toStdString()](Job& j) { split(j, *o, name, next); });
    });
    connect(helped_, &QPushButton::clicked, this, [this] {
        if (const Operation* o = picked())
            edit(tr("Who does it"), [key = o->key, to = o->who != Who::helper](Job& j) { give_to_helper(j, key, to); });
    });
    const auto hours_typed = [this](bool hands) {
        return [this, hands](std::optional<double> v) {
            const JobDays* job = nullptr;
            const Operation* o = picked(&job);
            if (!o) return;
            edit(tr("How long it takes"), [&, key = o->key](Job& j) {
                const auto& known = j.days.changes;
                const auto it = std::find_if(known.begin(), known.end(), [&](const OpChange& c) { return c.key == key; });
                const auto kept = it == known.end() ? std::optional<double>() : hands ? it->wait_h : it->hands_h;
                set_hours(j, key, hands ? v : kept, hands ? kept : v);
            });
        };
    };
    connect(hands_, &MeasureField::committed, this, hours_typed(true));
    connect(waits_, &MeasureField::committed, this, hours_typed(false));
    connect(air_, &MeasureField::committed, this, [this](std::optional<double> v) {
        if (const Operation* o = picked()) edit(tr("The air it is done in"), [&, key = o->key](Job& j) { set_air(j, key, v); });
    });
    connect(took_, &MeasureField::committed, this, [this](std::optional<double> v) {
        if (const Operation* o = picked()) edit(tr("How long it really took"), [&, key = o->key](Job& j) { set_took(j, key, v); });
    });
    connect(drop_, &QPushButton::clicked, this, [this] {
        if (const Operation* o = picked()) edit(tr("Taken away"), [key = o->key](Job& j) { drop_own(j, key); });
    });
    connect(wanted_, &QLineEdit::editingFinished, this, [this] {
        const JobDays* job = nullptr;
        if (!picked(&job)) return;
        const std::string day = wanted_->text().trimmed().toStdString();
        if (!day.empty() && !is_date(day)) {
            given_->setText(tr("‘%1’ is not a date: write it as 2026-12-18.").arg(wanted_->text().trimmed()));
            given_->show();
            return;
        }
        given_->hide();
        if (session_.documents().jobs.at(job->id).days.wanted != day) edit(tr("The day it is wanted"), [&](Job& j) { want_on(j, day); });
    });
    connect(fetched_, &QPushButton::clicked, this, [this](bool on) {
        if (picked()) edit(tr("Who brings it"), [on](Job& j) { j.days.collected = on; });
    });
    connect(gives_, &QPushButton::clicked, this, &DaysPage::ask_what_gives);
    connect(&session_, &Session::changed, this, [this] {
        if (isVisible()) look();
    });
}

void DaysPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    sticks_->setFocus();
    look();
}

void DaysPage::wait() {
    while (busy_ || (asking_ && !asking_->done)) QApplication::processEvents(QEventLoop::AllEvents, 20);
}

void DaysPage::show_kept(const QString& path) {
    keep_->setVisible(!path.isEmpty());
    keep_->setText(tr("%1 is kept up to date: leave it").arg(path.section('/', -1)));
    keep_->setToolTip(path);
}

void DaysPage::set_today(const QString& iso) {
    fixed_today_ = iso;
    if (plans_) lay_out(session_.documents());
}

std::string DaysPage::today() const {
    return (fixed_today_.isEmpty() ? QDate::currentDate().toString(Qt::ISODate) : fixed_today_).toStdString();
}

void DaysPage::look() {
    if (looking_) looking_->stop.request_stop();
    busy_ = true;
    looking_ = run_beside(
        this,
        [this, docs = session_.documents()](const Work& w) -> std::function<void()> {
            auto plans = std::make_shared<Plans>();
            plans->by_job = plans_of(docs, {}, w);
            return [this, plans] {
                busy_ = false;
                plans_ = plans;
                const auto before = std::move(still_);
                lay_out(session_.documents());
                if (before) tell_moved(*before, *season_);
                still_ = std::make_unique<Season>(*season_);
                Q_EMIT settled();
            };
        },
        [this](const QString& sentence) {
            busy_ = false;
            about_->setText(tr("The days could not be worked out: %1.").arg(sentence));
        });
}

void DaysPage::lay_out(const Documents& docs) {
    if (!plans_) return;
    std::map<std::string, const Plan*> plans = plans_->bare();
    std::erase_if(plans, [&](const auto& one) { return !docs.jobs.count(one.first); });
    auto next = std::make_unique<Season>(season_of(docs, plans, {today(), Rule::ranks, {}}));
    sticks_->show_season(next.get());
    season_ = std::move(next);
    std::size_t operations = 0;
    for (const JobDays& j : season_->jobs) operations += j.operations.size();
    about_->setText(season_->jobs.empty()
                        ? tr("No job is on the go.")
                        : tr("%1, %2 operations, all done %3")
                              .arg(season_->jobs.size() == 1 ? tr("1 job") : tr("%1 jobs").arg(season_->jobs.size()))
                              .arg(operations)
                              .arg(QLocale().toString(date_of(season_->date(season_->end_h)), QStringLiteral("d MMMM yyyy"))));
    if (sticks_->picked().isEmpty() || !picked()) {
        // What comes next over all jobs is looked at first.
        const JobDays* job = nullptr;
        const Operation* next_op = nullptr;
        for (const JobDays& j : season_->jobs)
            for (const Operation& o : j.operations)
                if (!o.done_h && o.hands_on_h > 0 && (!next_op || o.start_h < next_op->start_h)) next_op = &o, job = &j;
        if (next_op) sticks_->pick(QString::fromStdString(job->id + "/" + next_op->key));
    }
    fill();
    fill_today();
}

std::map<std::string, const Plan*> DaysPage::Plans::bare() const {
    std::map<std::string, const Plan*> out;
    for (const auto& [id, plan] : by_job) out[id] = plan.get();
    return out;
}

void DaysPage::tell_moved(const Season& before, const Season& now) {
    const auto shift = days_between(before.start, now.start).value_or(0) * 24;
    const auto old = [&](const std::string& id) -> const JobDays* {
        for (const JobDays& j : before.jobs)
            if (j.id == id) return &j;
        return nullptr;
    };
    QStringList lines;
    for (const JobDays& j : now.jobs) {
        const JobDays* was = old(j.id);
        if (!was || j.operations.empty() || was->operations.empty()) continue;
        const double by = j.ready_h + shift - was->ready_h;
        if (std::abs(by) < 1) continue;
        // The first that lasts otherwise, came or went; else it stands behind another job.
        QString since;
        const auto find = [](const JobDays& in, const std::string& key) -> const Operation* {
            for (const Operation& o : in.operations)
                if (o.key == key) return &o;
            return nullptr;
        };
        for (const Operation& o : j.operations) {
            const Operation* then = find(*was, o.key);
            const bool other = !then || std::abs(o.hands_on_h - then->hands_on_h) > 0.01 ||
                               std::abs(o.waiting_h - then->waiting_h) > 0.01 || o.done_h.has_value() != then->done_h.has_value() ||
                               (o.not_before_h > 0) != (then->not_before_h > 0);
            if (other && since.isEmpty()) since = told(o.label);
        }
        for (const Operation& o : was->operations)
            if (since.isEmpty() && !find(j, o.key)) since = told(o.label);
        const QString days = QString::fromStdString(format(hours(std::abs(by)), session_.units()));
        lines << (by > 0 ? tr("%1: %2 later").arg(QString::fromStdString(j.name), days)
                         : tr("%1: %2 sooner").arg(QString::fromStdString(j.name), days)) +
                     (since.isEmpty() ? tr(", for others come before it or go") : tr(", by %1").arg(since));
    }
    moved_->setText(lines.mid(0, 3).join('\n') + (lines.size() > 3 ? tr("\nand %1 more").arg(lines.size() - 3) : QString()));
    moved_->setVisible(!lines.isEmpty());
}

const Operation* DaysPage::picked(const JobDays** job) const {
    if (!season_) return nullptr;
    const std::string all = sticks_->picked().toStdString();
    for (const JobDays& j : season_->jobs)
        for (const Operation& o : j.operations)
            if (j.id + "/" + o.key == all) {
                if (job) *job = &j;
                return &o;
            }
    return nullptr;
}

void DaysPage::edit(const QString& label, const std::function<void(Job&)>& change) {
    const JobDays* job = nullptr;
    if (!picked(&job)) return;
    session_.edit(label, [&, id = job->id](Documents& d) {
        if (const auto it = d.jobs.find(id); it != d.jobs.end()) change(it->second);
    });
}

void DaysPage::fill() {
    const JobDays* job = nullptr;
    const Operation* o = picked(&job);
    const Units& units = session_.units();
    const auto as = [&](Quantity q) { return QString::fromStdString(format(q, units)); };
    for (QWidget* w : std::initializer_list<QWidget*>{title_, which_, hero_, hero_note_, figures_, done_, sooner_, later_, own_, again_,
                                                      split_, helped_, hands_, waits_, air_, took_, wanted_})
        w->setEnabled(o != nullptr);
    for (int d = 0; d < 7; ++d)
        helper_[static_cast<std::size_t>(d)]->setChecked(!stretches_on(session_.shop().workday, Crew::helper, d).empty());
    QStringList minds;
    if (season_)
        for (const Caution& c : season_->cautions) minds << QStringLiteral("• ") + told(yb::render(c.says, units));
    mind_->setText(minds.join('\n'));
    mind_->setVisible(!minds.isEmpty());
    drop_->setVisible(o && index_of(o->key, own_operation));
    unpin_->setVisible(o && o->not_before_h > 0);
    if (!o) {
        title_->setText(season_ && season_->jobs.empty() ? tr("No job is on the go") : QString());
        for (QLabel* l : {which_, hero_, hero_note_, figures_}) l->clear();
        return;
    }
    title_->setText(told(o->label));
    which_->setText(QString::fromStdString(job->name));
    const double day = std::floor(o->start_h / 24) * 24;
    hero_->setText(o->hands_on_h > 0
                       ? QStringLiteral("%1 %2").arg(QLocale().toString(date_of(season_->date(o->start_h)), QStringLiteral("ddd d MMM")),
                                                     clock(o->start_h - day))
                       : QLocale().toString(date_of(season_->date(o->start_h)), QStringLiteral("ddd d MMM")));
    hero_note_->setText(
        o->done_h    ? tr("done")
        : o->decides ? tr("the day it is ready hangs on it")
        : o->latest_h < o->start_h
            ? tr("too late for the day it is wanted by %1").arg(as(hours(o->start_h - o->latest_h)))
            : tr("not later than %1").arg(QLocale().toString(date_of(season_->date(o->latest_h)), QStringLiteral("ddd d MMM"))));
    QStringList lines;
    const auto hundredths = [](double h) { return std::round(h * 100) / 100; };
    hands_->show_value(hundredths(o->hands_on_h), units);
    waits_->show_value(hundredths(o->waiting_h), units);
    std::optional<double> took;
    for (const OpDone& d : session_.documents().jobs.at(job->id).days.done)
        if (d.key == o->key) took = d.took_h;
    for (QWidget* w : {static_cast<QWidget*>(air_name_), static_cast<QWidget*>(air_)}) w->setVisible(o->in_air);
    if (o->in_air) air_->show_value(air_of(*season_, session_.documents().jobs.at(job->id), *o, session_.shop().air), units);
    took_->setEnabled(o->done_h.has_value());
    took_->show_value(took, units);
    helped_->setText(o->who == Who::helper ? tr("Back to the maker") : tr("Give it to the helper"));
    lines << tr("over: %1").arg(QLocale().toString(date_of(season_->date(o->end_h)), QStringLiteral("ddd d MMM")));
    if (!o->done_h && !o->decides && o->slack_h() > 0.05) lines << tr("can slip by %1").arg(as(hours(o->slack_h())));
    if (o->lacks) lines << tr("alone: nobody else is there");
    else if (o->who == Who::both) lines << tr("two pairs of hands");
    else if (o->who == Who::helper) lines << tr("the helper");
    if (o->at == Place::form) lines << tr("takes the form");
    if (o->at == Place::clamps) lines << tr("takes the clamps");
    if (o->at == Place::spray) lines << tr("takes the clean corner: no dust");
    if (o->in_one_go) lines << tr("not to be left once it is begun");
    if (o->task && o->hands_on_h > 0 && session_.documents().jobs.count(job->id)) {
        QStringList parts;
        for (const LabourTerm& t : o->task->terms())
            parts << (t.amount == 1 ? tr("%1 %2 min").arg(told(t.what)).arg(QLocale().toString(t.each_min, 'g', 3))
                                    : tr("%1 × %2 %3 min")
                                          .arg(QLocale().toString(t.amount, 'g', 3), told(t.what), QLocale().toString(t.each_min, 'g', 3)));
        lines << tr("made of: %1").arg(parts.join(QStringLiteral(" · ")));
    }
    if (o->aside) lines << tr("goes into the waiting of the top");
    if (o->paced != 1)
        for (const PaceFigure& f : session_.shop().paces)
            if (f.key == o->pace)
                lines << QString::fromStdString(yb::render(yours(f, session_.shop(), session_.documents().jobs.at(job->id)), units));
    if (o->air != AirWait::none && o->waiting_h > 0) lines << tr("it waits at the %1 of that month").arg(as(celsius(o->air_c)));
    QStringList after;
    for (const std::string& k : o->after)
        for (const Operation& b : job->operations)
            if (b.key == k) after << told(b.label);
    if (!after.isEmpty()) lines << tr("after: %1").arg(after.join(QStringLiteral(", ")));
    if (o->not_before_h > 0)
        lines << tr("kept for %1 or later").arg(QLocale().toString(date_of(season_->date(o->not_before_h)), QStringLiteral("ddd d MMM")));
    figures_->setText(lines.join('\n'));
    done_->setText(o->done_h ? tr("Not done after all") : tr("Done"));
    const bool fetched = session_.documents().jobs.at(job->id).days.collected;
    fetched_->setChecked(fetched);
    fetched_->setText(fetched ? tr("The client fetches it") : tr("Carried in and set up"));
    if (!wanted_->hasFocus()) wanted_->setText(QString::fromStdString(session_.documents().jobs.at(job->id).days.wanted));
    sticks_->setAccessibleDescription(tr("%1, %2: %3").arg(which_->text(), title_->text(), hero_->text()));
}

void DaysPage::fill_today() {
    const Today t = today_of(*season_, today());
    const auto as = [&](Quantity q) { return QString::fromStdString(format(q, session_.units())); };
    QStringList hands;
    for (const TodayLine& l : t.hands)
        hands << QStringLiteral("<b>%1</b> %2: %3")
                     .arg(clock(l.from_h), QString::fromStdString(l.job).toHtmlEscaped(), told(l.label).toHtmlEscaped());
    today_line_->setText(QStringLiteral("<b>%1</b>  %2")
                             .arg(tr("Today"), hands.isEmpty() ? tr("nothing that wants hands") : hands.join(QStringLiteral("  ·  "))));
    QStringList home;
    for (const TodayLine& l : t.set_going)
        home << tr("%1 of %2 waits for %3").arg(told(l.label), QString::fromStdString(l.job), as(hours(l.waits_h))).toHtmlEscaped();
    for (const TodayLine& l : t.order_by)
        home << tr("%1 for %2, by %3")
                    .arg(told(l.label), QString::fromStdString(l.job), QLocale().toString(date_of(l.by), QStringLiteral("ddd d MMM")))
                    .toHtmlEscaped();
    home_line_->setText(
        QStringLiteral("<b>%1</b>  %2")
            .arg(tr("Before going home"), home.isEmpty() ? tr("nothing that waits over the night") : home.join(QStringLiteral("  ·  "))));
}

/// What a change comes to: the day, what it gains, hours of hands and money.
QString DaysPage::comes_to(const WhatIf& w, const std::string& id) const {
    const auto as = [&](Quantity q) { return QString::fromStdString(format(q, session_.units())); };
    const auto it = w.ready_h.find(id);
    QStringList parts{
        tr("ready %1")
            .arg(QLocale().toString(date_of(season_->date(it == w.ready_h.end() ? w.end_h : it->second)), QStringLiteral("ddd d MMM"))),
        (w.gains_h >= 0 ? tr("%1 sooner") : tr("%1 later")).arg(as(hours(std::abs(w.gains_h))))};
    if (std::abs(w.hands_h) > 0.05)
        parts << (w.hands_h > 0 ? tr("%1 more of your hands") : tr("%1 less of your hands")).arg(as(hours(std::abs(w.hands_h))));
    if (w.money != 0)
        parts << QStringLiteral("%1%2 %3")
                     .arg(w.money > 0 ? QStringLiteral("+") : QString(), QString::fromStdString(in_decimals(w.money)),
                          QString::fromStdString(session_.shop().money.currency))
                     .trimmed();
    return parts.join(QStringLiteral(" · "));
}

void DaysPage::offer(const WhatIf& w, const std::string& id) {
    auto* row = new QWidget;
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    auto* tick = new QCheckBox;
    tick->setObjectName("gives_with_" + QString::fromStdString(w.key));
    tick->setAccessibleName(tr("%1, together with others").arg(told(yb::render(w.says, session_.units()))));
    line->addWidget(tick);
    auto* b = quiet_button("gives_" + QString::fromStdString(w.key),
                           QStringLiteral("%1\n%2").arg(told(yb::render(w.says, session_.units())), comes_to(w, id)), tr("Take it"));
    wrap(b, b->text());
    line->addWidget(b, 1);
    ways_->addWidget(row);
    connect(b, &QPushButton::clicked, this, [this, key = w.key, id] { take(key, id); });
    connect(tick, &QCheckBox::toggled, this, [this, key = w.key, id](bool on) {
        on ? void(together_.push_back(key)) : void(std::erase(together_, key));
        try_together(id);
    });
}

void DaysPage::take(const std::string& key, const std::string& id) {
    session_.edit(tr("What could give"), [&](Documents& d) { take_what_if(d, key, id); });
    clear(ways_);
    given_->hide();
}

void DaysPage::try_together(const std::string& id) {
    if (auto* before = findChild<QPushButton*>("gives_together")) before->hide(), before->setObjectName({}), before->deleteLater();
    if (together_.size() < 2 || !plans_) return;
    std::string keys;
    for (const std::string& k : together_) keys += (keys.empty() ? "" : "+") + k;
    if (asking_) asking_->stop.request_stop();
    asking_ = run_beside(
        this,
        [this, docs = session_.documents(), plans = plans_, ask = SeasonAsk{today(), Rule::ranks, {}}, id,
         keys](const Work& w) -> std::function<void()> {
            const auto made = std::make_shared<WhatIf>(what_if(docs, plans->bare(), ask, id, keys, w));
            return [this, made, id, keys] {
                auto* b = quiet_button("gives_together", tr("Together: %1").arg(comes_to(*made, id)), tr("Take them all"));
                b->setProperty("next", true);
                wrap(b, b->text());
                ways_->addWidget(b);
                connect(b, &QPushButton::clicked, this, [this, keys, id] { take(keys, id); });
            };
        },
        [this](const QString& sentence) { given_->setText(sentence); });
}

void DaysPage::ask_what_gives() {
    if (!plans_) return;
    clear(ways_);
    const JobDays* job = nullptr;
    picked(&job);
    given_->setText(tr("Each is being planned…"));
    given_->show();
    if (asking_) asking_->stop.request_stop();
    asking_ = run_beside(
        this,
        [this, docs = session_.documents(), plans = plans_, ask = SeasonAsk{today(), Rule::ranks, {}},
         id = job ? job->id : std::string()](const Work& w) -> std::function<void()> {
            auto all = std::make_shared<std::vector<WhatIf>>(what_ifs(docs, plans->bare(), ask, id, w));
            return [this, all, id] {
                clear(ways_);
                given_->setText(all->empty() ? tr("Nothing of what can be changed makes it sooner.")
                                             : tr("Each by itself; tick two or three to see them together:"));
                together_.clear();
                for (const WhatIf& w_if : *all) offer(w_if, id);
            };
        },
        [this](const QString& sentence) { given_->setText(sentence); });
}

}  // namespace yb
