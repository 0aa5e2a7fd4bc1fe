#include "app/pages/money/money_page.h"

#include <algorithm>

#include <QApplication>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/measure_field.h"
#include "app/kit/slip/lines.h"
#include "app/kit/slip/side.h"
#include "app/pages/book/pace_buttons.h"
#include "app/pages/money/table_picture.h"
#include "core/shop/days/season.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/pace/learned.h"

namespace yb {

namespace {

QTableWidget* ledger(const QString& name, const QString& what) {
    auto* t = new QTableWidget;
    t->setObjectName(name);
    t->setAccessibleName(what);
    t->setFrameShape(QFrame::NoFrame);
    t->setShowGrid(false);
    t->verticalHeader()->hide();
    t->horizontalHeader()->setHighlightSections(false);
    t->setEditTriggers(QAbstractItemView::NoEditTriggers);
    t->setSelectionBehavior(QAbstractItemView::SelectRows);
    t->setFont(theme::text(10.5));
    t->setFocusPolicy(Qt::StrongFocus);
    const auto& c = theme::colours();
    t->setStyleSheet(
        QStringLiteral("QTableWidget { background: %1; border: none; outline: 0; } QTableWidget::item { border-bottom: 1px solid %2; "
                       "padding: 0 6px; } "
                       "QTableWidget::item:selected, QTableWidget::item:focus { border: none; border-bottom: 1px solid %2; background: %3; "
                       "color: %4; } QHeaderView, QHeaderView::section { background: %1; border: none; color: %5; padding: 2px 6px; }")
            .arg(c.paper.name(), c.rule.name(), c.ochre_wash.name(), c.ink.name(), c.pencil.name()));
    t->horizontalHeader()->setFont(theme::text(9.5));
    t->verticalHeader()->setDefaultSectionSize(theme::grown(24));
    return t;
}

QString unit_in_words(const char* unit) { return std::string_view(unit) == "m2" ? QStringLiteral("m²") : told(unit); }

QTableWidgetItem* cell(const QString& text, bool figure = false) {
    auto* i = new QTableWidgetItem(text);
    if (figure) i->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter), i->setFont(theme::figures(10.5));
    return i;
}

}  // namespace

MoneyPage::MoneyPage(Session& session, Pictures& pictures, QWidget* parent)
    : QWidget(parent),
      session_(session),
      pictures_(pictures),
      picture_(new TablePicture(pictures)),
      ways_(ledger("money_ways", tr("Ways of this job side by side"))),
      lines_(ledger("money_lines", tr("What it costs, line by line"))),
      about_(named_label("money_about", theme::text(10.5))),
      offer_(named_label("money_offer", theme::figures(24))),
      offer_note_(named_label("money_offer_note", theme::text(10))),
      figures_(named_label("money_figures", theme::text(10.5))),
      missing_(named_label("money_missing", theme::text(10))),
      paces_(new PaceButtons(session)),
      add_(quiet_button("money_add_way", tr("Another way…"), tr("The job as it stands, copied whole, to be laid out otherwise"))),
      take_(quiet_button("money_take_way", tr("This way is made"), tr("It takes the job's place; the other is kept as a way"))),
      away_(quiet_button("money_put_away", tr("Put this way away"))),
      bench_(quiet_button("money_to_bench", tr("To the bench"), tr("This way is laid on the bench and worked on"))),
      hour_(new MeasureField("money_hour", Kind::number)),
      margin_(new MeasureField("money_margin", Kind::percent)),
      base_(new MeasureField("money_base", Kind::number)),
      not_included_(new QLineEdit),
      extra_(new QLineEdit) {
    setObjectName("money_page");
    const PageFrame frame(this, "money", tr("Money"), about_);
    lay_room(frame.room);
    lay_offer(frame.slip);
    lay_foot(frame.slip);
    frame.slip->addWidget(frame.leave);
    connect(frame.leave, &QPushButton::clicked, this, &MoneyPage::back);
    listen_to_ways();
    listen_to_fields();
    connect(&session_, &Session::changed, this, [this] {
        if (isVisible()) look();
    });
}

/// The client's picture, the ways side by side, what this one costs.
void MoneyPage::lay_room(QVBoxLayout* room) {
    auto* upper = new QHBoxLayout;
    upper->addWidget(picture_, 3);
    auto* turns = new QVBoxLayout;
    auto* above = quiet_button("money_above", tr("From above"));
    above->setCheckable(true);
    auto* chair = quiet_button("money_chair", tr("A chair beside it"));
    chair->setCheckable(true), chair->setChecked(true);
    auto* save = quiet_button("money_save_picture", tr("Save the picture…"));
    for (QPushButton* b : {above, chair, save}) turns->addWidget(b);
    turns->addStretch(1);
    upper->addLayout(turns);
    room->addLayout(upper, 4);
    ways_->setColumnCount(10);
    ways_->setHorizontalHeaderLabels({tr("offer"), tr("way"), tr("price"), tr("ready"), tr("thick"), tr("weighs"), tr("hours"), tr("resin"),
                                      tr("waste"), tr("to mind")});
    ways_->setMaximumHeight(theme::grown(190));
    room->addWidget(ways_, 1);
    auto* doing = new QHBoxLayout;
    for (QPushButton* b : {add_, bench_, take_, away_}) doing->addWidget(b);
    doing->addStretch(1);
    room->addLayout(doing);
    lines_->setColumnCount(5);
    lines_->setHorizontalHeaderLabels({tr("what"), tr("how much"), tr("price"), tr("sum"), tr("really")});
    room->addWidget(lines_, 4);
    connect(above, &QPushButton::toggled, picture_, &TablePicture::from_above);
    connect(chair, &QPushButton::toggled, picture_, &TablePicture::with_chair);
    connect(save, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, tr("The client's picture"), {}, tr("Pictures (*.png)"), nullptr, QFileDialog::ReadOnly);
        if (path.isEmpty()) return;
        const QImage image = picture_->picture({1600, 1000});
        const bool ok = !image.isNull() && image.save(path);
        Q_EMIT say(ok ? tr("The picture is saved as %1.").arg(path) : tr("%1 can't be written: choose another place.").arg(path), !ok);
    });
}

/// What it is offered for, and what the job has of its own.
void MoneyPage::lay_offer(QVBoxLayout* rows) {
    auto* offered_for = named_label("money_offered_for", theme::text(12));
    offered_for->setText(tr("Offered for"));
    offered_for->setAlignment(Qt::AlignHCenter);
    rows->addWidget(offered_for);
    rows->addWidget(offer_);
    rows->addWidget(offer_note_);
    for (int i = 0; i < 3; ++i) {
        workings_.push_back(new FigureLine(false));
        rows->addWidget(workings_.back());
    }
    for (QLabel* l : {figures_, missing_}) rows->addWidget(l);
    const auto field = [&](const QString& name, QWidget* w) {
        auto* row = new QHBoxLayout;
        auto* l = new QLabel(name);
        l->setFont(theme::text(10.5));
        row->addWidget(l, 1);
        row->addWidget(w, 1);
        rows->addLayout(row);
    };
    for (MeasureField* f : {hour_, margin_, base_}) f->allow_empty(true);
    hour_->set_range(0, 1e6), margin_->set_range(0, 95), base_->set_range(0, 1e7);
    field(tr("The maker's hour"), hour_);
    field(tr("Margin"), margin_);
    field(tr("The base, bought"), base_);
    not_included_->setObjectName("money_not_included"), not_included_->setAccessibleName(tr("Not included in the offer"));
    not_included_->setPlaceholderText(tr("delivery beyond the valley"));
    field(tr("Not included"), not_included_);
    extra_->setObjectName("money_extra"), extra_->setAccessibleName(tr("What else is paid: what, how many, each"));
    extra_->setPlaceholderText(tr("glass; 1; 120"));
    field(tr("What else"), extra_);
}

void MoneyPage::lay_foot(QVBoxLayout* rows) {
    rows->addWidget(paces_);
    rows->addStretch(1);
    auto* offer = quiet_button("money_write_offer", tr("Print the offer…"));
    auto* shopping = quiet_button("money_shopping", tr("What is to be bought…"));
    auto* prices = quiet_button("money_prices", tr("Prices and rates of the shop…"));
    for (QPushButton* b : {offer, shopping, prices}) rows->addWidget(b);
    connect(offer, &QPushButton::clicked, this, &MoneyPage::offer_wanted);
    connect(shopping, &QPushButton::clicked, this, &MoneyPage::shopping_wanted);
    connect(prices, &QPushButton::clicked, this, [this] { Q_EMIT session_.shop_wanted(QStringLiteral("money")); });
}

const MoneyPage::Planned* MoneyPage::shown() const {
    const int row = std::max(0, ways_->currentRow());
    return row < static_cast<int>(planned_.size()) ? &planned_[static_cast<std::size_t>(row)] : nullptr;
}

void MoneyPage::edit(const QString& label, const std::function<void(Job&)>& change) {
    if (const Planned* w = shown())
        session_.edit(label, [id = w->line.job, change](Documents& d) {
            if (const auto it = d.jobs.find(id); it != d.jobs.end()) change(it->second);
        });
}

void MoneyPage::listen_to_ways() {
    connect(add_, &QPushButton::clicked, this, &MoneyPage::add_way);
    connect(ways_, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
        if (row != before && !filling_) fill_lines();
    });
    connect(ways_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* i) {
        if (filling_ || i->column() != 0 || i->row() >= static_cast<int>(planned_.size())) return;
        const std::string& id = planned_[static_cast<std::size_t>(i->row())].line.job;
        i->checkState() == Qt::Checked ? void(on_offer_.insert(id)) : void(on_offer_.erase(id));
    });
    connect(take_, &QPushButton::clicked, this, [this] {
        if (const Planned* w = shown()) session_.edit(tr("This way is made"), [id = w->line.job](Documents& d) { take_way(d, id); });
    });
    connect(away_, &QPushButton::clicked, this, [this] {
        if (const Planned* w = shown())
            session_.edit(tr("A way put away"), [id = w->line.job](Documents& d) { put_way_away(d, id, true); });
    });
    connect(bench_, &QPushButton::clicked, this, [this] {
        if (const Planned* w = shown()) {
            session_.set_job(QString::fromStdString(w->line.job));
            Q_EMIT back();
        }
    });
}

void MoneyPage::listen_to_fields() {
    connect(hour_, &MeasureField::committed, this,
            [this](std::optional<double> v) { edit(tr("The maker's hour"), [v](Job& j) { set_job_hour(j, v); }); });
    connect(margin_, &MeasureField::committed, this,
            [this](std::optional<double> v) { edit(tr("Margin"), [v](Job& j) { set_job_margin(j, v); }); });
    connect(base_, &MeasureField::committed, this,
            [this](std::optional<double> v) { edit(tr("The base, bought"), [v](Job& j) { set_base_price(j, v); }); });
    connect(not_included_, &QLineEdit::editingFinished, this, [this] {
        const std::string text = not_included_->text().trimmed().toStdString();
        if (const Planned* w = shown(); w && w->job->money.not_included != text)
            edit(tr("Not included"), [text](Job& j) { set_not_included(j, text); });
    });
    connect(extra_, &QLineEdit::returnPressed, this, [this] {
        const QString typed = extra_->text();
        const auto read = read_extra(typed.toStdString());
        if (std::holds_alternative<std::string>(read)) return Q_EMIT say(QString::fromStdString(std::get<std::string>(read)), true);
        edit(tr("What else is paid"), [e = std::get<ExtraCost>(read)](Job& j) { set_extra(j, e); });
        extra_->clear();
    });
}

void MoneyPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    ways_->setFocus();
    look();
}

void MoneyPage::wait() {
    while (busy_) QApplication::processEvents(QEventLoop::AllEvents, 20);
}

void MoneyPage::look() {
    if (looking_) looking_->stop.request_stop();
    const std::string id = session_.job_id();
    if (id.empty() || !session_.documents().jobs.count(id)) {
        planned_.clear();
        fill();
        return;
    }
    busy_ = true;
    looking_ = run_beside(
        this,
        [this, docs = session_.documents(), id](const Work& w) -> std::function<void()> {
            const auto ids = ways_of_job(docs, id);
            auto all = std::make_shared<std::vector<Planned>>(ids.size());
            in_parallel(
                ids.size(),
                [&](std::size_t i) {
                    Planned& p = (*all)[i];
                    p.job = std::make_shared<Job>(docs.jobs.at(ids[i]));
                    if (can_be_planned(docs, *p.job)) p.plan = std::make_shared<Plan>(plan_job(*p.job, docs));
                    p.line = way_line(docs, ids[i], p.plan.get());
                    if (!p.plan) return;
                    p.money = money_of(*p.plan, *p.job, docs.shop);
                    if (p.job->days.done.empty()) return;
                    p.learned = learned_hours(docs, {{ids[i], p.plan}});
                    const RealHours real = hours_taken(p.learned, ids[i]);
                    if (!real.empty()) p.real = money_of(*p.plan, *p.job, docs.shop, &real);
                },
                w);
            return [this, all] {
                busy_ = false;
                planned_ = std::move(*all);
                fill();
            };
        },
        [this](const QString& sentence) {
            busy_ = false;
            about_->setText(sentence);
        });
}

void MoneyPage::fill() {
    about_->setText(planned_.empty() ? tr("No job is on the bench.") : QString::fromStdString(planned_.front().job->name));
    fill_ways();
    fill_lines();
}

void MoneyPage::fill_ways() {
    filling_ = true;
    const auto as = [&](Quantity q) { return QString::fromStdString(format(q, session_.units())); };
    const std::string on_bench = session_.job_id();
    int at = std::clamp(ways_->currentRow(), 0, std::max(0, static_cast<int>(planned_.size()) - 1));
    ways_->setRowCount(static_cast<int>(planned_.size()));
    for (int row = 0; row < ways_->rowCount(); ++row) {
        const WayLine& l = planned_[static_cast<std::size_t>(row)].line;
        if (l.job == on_bench && ways_->currentRow() < 0) at = row;
        auto* check = cell({});
        check->setFlags(check->flags() | Qt::ItemIsUserCheckable);
        check->setCheckState(on_offer_.count(l.job) || (on_offer_.empty() && row == 0) ? Qt::Checked : Qt::Unchecked);
        ways_->setItem(row, 0, check);
        if (planned_.size() > 1 && l.planned) {
            // Each with its picture.
            picture_->show_table(planned_[static_cast<std::size_t>(row)].plan, planned_[static_cast<std::size_t>(row)].job);
            check->setIcon(QIcon(QPixmap::fromImage(picture_->picture({theme::grown(120), theme::grown(64)}))));
        }
        auto* name = cell(told(l.name) + (l.job == on_bench ? tr("  (on the bench)") : QString()));
        if (!l.shares.empty()) {
            QStringList slabs;
            for (const std::string& s : l.shares) slabs << QString::fromStdString(s);
            name->setToolTip(tr("Takes wood that another way takes too: %1. One of them is made.").arg(slabs.join(QStringLiteral(", "))));
        }
        ways_->setItem(row, 1, name);
        const QString none = QStringLiteral("–");
        const auto figure = [&](int column, const QString& text) { ways_->setItem(row, column, cell(l.planned ? text : none, true)); };
        figure(2, QString::fromStdString(in_decimals(l.offer)) + (l.missing ? QStringLiteral(" +?") : QString()));
        figure(3, QLocale().toString(QDate::fromString(QString::fromStdString(l.ready), Qt::ISODate), QStringLiteral("d MMM yy")));
        figure(4, as(mm(l.thickness_mm)));
        figure(5, as(kg(l.weight_kg)));
        figure(6, as(hours(l.hands_h)));
        figure(7, l.resin_l > 0 ? as(litres(l.resin_l)) : none);
        figure(8, as(percent(l.waste_pct)));
        figure(9, tr("%1 stop, %2 watch").arg(l.stops).arg(l.watches));
    }
    ways_->setIconSize(QSize(theme::grown(100), theme::grown(52)));
    ways_->verticalHeader()->setDefaultSectionSize(theme::grown(planned_.size() > 1 ? 54 : 26));
    ways_->setMinimumHeight(ways_->horizontalHeader()->sizeHint().height() +
                            std::min(3, ways_->rowCount()) * ways_->verticalHeader()->defaultSectionSize() + 4);
    ways_->resizeColumnsToContents();
    ways_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    if (ways_->rowCount() > 0) ways_->setCurrentCell(at, 1);
    filling_ = false;
}

void MoneyPage::fill_lines() {
    const int row = std::max(0, ways_->currentRow());
    const Planned* w = row < static_cast<int>(planned_.size()) ? &planned_[static_cast<std::size_t>(row)] : nullptr;
    take_->setEnabled(w && !w->job->way_of.empty());
    away_->setEnabled(w && !w->job->way_of.empty());
    for (QWidget* f : std::initializer_list<QWidget*>{add_, bench_, hour_, margin_, base_, not_included_, extra_})
        f->setEnabled(w != nullptr);
    paces_->hide();
    picture_->show_table(w ? w->plan : nullptr, w ? w->job : nullptr);
    if (!w || !w->plan) {
        lines_->setRowCount(0);
        offer_->setText(w ? QStringLiteral("–") : QString());
        offer_note_->setText(w ? tr("Its slab is not measured and laid yet.") : QString());
        figures_->clear(), missing_->clear();
        for (FigureLine* l : workings_) l->stand_for({});
        return;
    }
    const Money& m = w->money;
    const auto sum = [](Cents c) { return QString::fromStdString(in_decimals(c)); };
    const QString currency = QString::fromStdString(session_.shop().money.currency);
    offer_->setText(currency.isEmpty() ? sum(m.offer) : QStringLiteral("%1 %2").arg(sum(m.offer), currency));
    offer_->setAlignment(Qt::AlignHCenter);
    offer_note_->setAlignment(Qt::AlignHCenter);
    offer_note_->setText(m.tax ? tr("%1 of it is tax").arg(sum(m.tax)) : QString());
    for (std::size_t i = 0; i < workings_.size(); ++i) {
        workings_[i]->stand_for(i < m.figures.size() ? QString::fromStdString(m.figures[i].key) : QString());
        if (i < m.figures.size()) workings_[i]->show(m.figures[i], session_.units(), false);
    }
    QStringList lines{tr("margin %1").arg(sum(m.margin)),
                      tr("%1 of your hands").arg(QString::fromStdString(format(hours(m.hands_h), session_.units())))};
    paces_->setVisible(w->real.has_value());
    if (w->real) {
        // Where it lost and where it earned: the two that differ most.
        std::vector<std::pair<Cents, std::string>> off;
        for (const MoneyLine& l : m.lines)
            for (const MoneyLine& o : w->real->lines)
                if (o.key == l.key && o.sum != l.sum) off.emplace_back(o.sum - l.sum, l.what);
        std::sort(off.begin(), off.end(), [](const auto& a, const auto& b) { return std::llabs(a.first) > std::llabs(b.first); });
        for (std::size_t i = 0; i < std::min<std::size_t>(2, off.size()); ++i)
            lines << (off[i].first > 0 ? tr("lost %1 on: %2") : tr("earned %1 on: %2"))
                         .arg(sum(std::llabs(off[i].first)), told(off[i].second));
        paces_->show_learned(w->learned, true);
    }
    if (w->real)
        lines << tr("really: cost %1, an hour earned %2")
                     .arg(sum(w->real->cost), w->real->hour_earns ? sum(*w->real->hour_earns) : QStringLiteral("–"));
    figures_->setText(lines.join('\n'));
    QStringList gone;
    for (const std::string& s : m.missing) gone << told(s);
    missing_->setText(gone.isEmpty() ? QString() : tr("No price, and in no sum: %1").arg(gone.join(QStringLiteral(", "))));
    const Units& u = session_.units();
    hour_->show_value(w->job->money.hour ? w->job->money.hour : session_.shop().money.hour, u);
    margin_->show_value(w->job->money.margin_pct.value_or(session_.shop().money.margin_pct), u);
    base_->show_value(w->job->money.base_price, u);
    if (!not_included_->hasFocus()) not_included_->setText(QString::fromStdString(w->job->money.not_included));
    lines_->setRowCount(static_cast<int>(m.lines.size()) + 2);
    int r = 0;
    const auto put = [&](const QString& what, const QString& amount, const QString& price, const QString& total, const QString& real) {
        lines_->setItem(r, 0, cell(what));
        lines_->setItem(r, 1, cell(amount, true));
        lines_->setItem(r, 2, cell(price, true));
        lines_->setItem(r, 3, cell(total, true));
        lines_->setItem(r, 4, cell(real, true));
        ++r;
    };
    for (std::size_t i = 0; i < m.lines.size(); ++i) {
        const MoneyLine& l = m.lines[i];
        QString real;
        if (w->real)
            for (const MoneyLine& o : w->real->lines)
                if (o.key == l.key && o.sum != l.sum) real = sum(o.sum);
        put(told(l.what), QStringLiteral("%1 %2").arg(QLocale::c().toString(l.amount, 'g', 6), unit_in_words(l.unit)),
            l.price ? QLocale::c().toString(*l.price, 'g', 8) : tr("no price"), l.price ? sum(l.sum) : QStringLiteral("–"), real);
    }
    put(tr("Overhead"), QString(), QString(), sum(m.overhead), {});
    put(tr("It costs"), QString(), QString(), sum(m.cost), w->real ? sum(w->real->cost) : QString());
    lines_->resizeColumnsToContents();
    lines_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
}

void MoneyPage::add_way() {
    const int row = std::max(0, ways_->currentRow());
    if (row >= static_cast<int>(planned_.size())) return;
    bool ok = false;
    const QString name =
        QInputDialog::getText(this, tr("Another way"), tr("What is it called? It begins as a copy of the way that is picked."),
                              QLineEdit::Normal, tr("narrower river"), &ok);
    if (!ok || name.trimmed().isEmpty()) return;
    session_.edit(tr("Another way"), [&, id = planned_[static_cast<std::size_t>(row)].line.job](Documents& d) {
        yb::add_way(d, id, name.trimmed().toStdString());
    });
}

std::vector<MoneyPage::Offered> MoneyPage::offered() {
    std::vector<Offered> out;
    const int at = std::max(0, ways_->currentRow());
    for (int row = 0; row < static_cast<int>(planned_.size()); ++row) {
        const Planned& w = planned_[static_cast<std::size_t>(row)];
        if (!w.plan || !ways_->item(row, 0) || ways_->item(row, 0)->checkState() != Qt::Checked) continue;
        picture_->show_table(w.plan, w.job);
        out.push_back({w.job, w.plan, told(w.line.name), picture_->picture({1600, 1000})});
    }
    if (at < static_cast<int>(planned_.size()))
        picture_->show_table(planned_[static_cast<std::size_t>(at)].plan, planned_[static_cast<std::size_t>(at)].job);
    return out;
}

}  // namespace yb
