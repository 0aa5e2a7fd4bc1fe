#include "app/pages/days/days_page.h"

#include <algorithm>

#include <QApplication>
#include <QCheckBox>
#include <QDate>
#include <QHBoxLayout>
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
    all->addLayout(beside_slip(), 1);
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
    lay_said(rows);
    lay_doing(rows);
    lay_foot(foot);
    all->addWidget(side);
    listen_to_sticks();
    listen_to_buttons();
    listen_to_fields();
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
        if (const NextUp up = next_up(*season_); up.job) sticks_->pick(QString::fromStdString(up.job->id + "/" + up.operation->key));
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
    QStringList lines;
    for (const MovedJob& m : moved_between(before, now)) {
        const QString days = QString::fromStdString(format(hours(std::abs(m.by_h)), session_.units())),
                      name = QString::fromStdString(m.name);
        lines << (m.by_h > 0 ? tr("%1: %2 later").arg(name, days) : tr("%1: %2 sooner").arg(name, days)) +
                     (m.since.empty() ? tr(", for others come before it or go") : tr(", by %1").arg(told(m.since)));
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
        for (const LabourTerm& t : o->task->terms()) {
            const QString each = QLocale().toString(t.each_min, 'g', 3);
            parts << (t.amount == 1 ? tr("%1, %2 min").arg(told(t.what), each)
                                    : tr("%1 %2, %3 min each").arg(QLocale().toString(t.amount, 'g', 3), told(t.what), each));
        }
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
