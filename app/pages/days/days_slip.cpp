// Days' slip: what is said of an operation, what can be done with it, and what listens.
#include <QDateTime>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <algorithm>
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/measure_field.h"
#include "app/kit/slip/side.h"
#include "app/pages/days/days_page.h"
#include "app/pages/days/days_sticks.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

namespace {
constexpr const char* weekdays[] = {"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"};
}

QLayout* DaysPage::beside_slip() {
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
    return left;
}

/// What is said of the picked operation, and its hours.
void DaysPage::lay_said(QVBoxLayout* rows) {
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
}

/// What can be done with it.
void DaysPage::lay_doing(QVBoxLayout* rows) {
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
}

/// Who helps, files, the way back.
void DaysPage::lay_foot(QVBoxLayout* foot) {
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
}

void DaysPage::tick_now() {
    const JobDays* job = nullptr;
    const Operation* o = picked(&job);
    if (!o) return;
    const bool done = o->done_h.has_value();
    const QString now = fixed_today_.isEmpty()
                            ? QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm"))
                            : fixed_today_ + QStringLiteral("T") + QTime(8, 0).addSecs(3600 * 4).toString(QStringLiteral("HH:mm"));
    edit(done ? tr("Not done after all") : tr("Done"),
         [&](Job& j) { tick(j, o->key, done ? std::string() : now.toStdString(), o->label); });
}

void DaysPage::turn(int by) {
    const JobDays* job = nullptr;
    if (picked(&job)) session_.edit(tr("Whose turn it is"), [&](Documents& d) { move_turn(d, job->id, by); });
}

void DaysPage::listen_to_sticks() {
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
    connect(sticks_, &DaysSticks::tick_wanted, this, &DaysPage::tick_now);
    connect(sticks_, &DaysSticks::turn_wanted, this, &DaysPage::turn);
}

void DaysPage::listen_to_buttons() {
    connect(done_, &QPushButton::clicked, this, &DaysPage::tick_now);
    connect(sooner_, &QPushButton::clicked, this, [this] { turn(-1); });
    connect(later_, &QPushButton::clicked, this, [this] { turn(1); });
    connect(unpin_, &QPushButton::clicked, this, [this] {
        if (const Operation* o = picked()) edit(tr("Whenever it can"), [&](Job& j) { pin(j, o->key, {}); });
    });
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
    connect(drop_, &QPushButton::clicked, this, [this] {
        if (const Operation* o = picked()) edit(tr("Taken away"), [key = o->key](Job& j) { drop_own(j, key); });
    });
}

void DaysPage::listen_to_fields() {
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
}

}  // namespace yb
