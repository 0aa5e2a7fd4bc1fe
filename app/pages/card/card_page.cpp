#include "app/pages/card/card_page.h"

#include <QCheckBox>
#include <QDateTime>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

#include "app/ground/probe.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field.h"
#include "core/shop/job/cards.h"
#include "core/steps/fill/fill.h"
#include "core/steps/pace/pace.h"
#include "core/steps/pour/weigh.h"

namespace yb {

namespace {

constexpr double practice_fast = 60;      ///< a minute of practice is an hour
constexpr double keep_every_s = 20;       ///< readings of a thermocouple are written so often
constexpr double silence_s = 120;         ///< after which a thermocouple that says nothing is told
constexpr double between_readings_s = 5;  ///< of the card's clock

/// "9 d 20:31", "1:05:09", "4:20": days and hours only where there are some, seconds where they matter.
QString clock_text(double s) {
    const auto whole = static_cast<qint64>(std::floor(std::abs(s)));
    const QString sign = s < 0 ? QStringLiteral("−") : QString();
    const qint64 h = whole / 3600;
    if (h >= 48) return QStringLiteral("%1%2 d %3:%4").arg(sign).arg(h / 24).arg(h % 24).arg(whole / 60 % 60, 2, 10, QChar('0'));
    if (h > 0)
        return QStringLiteral("%1%2:%3:%4").arg(sign).arg(h).arg(whole / 60 % 60, 2, 10, QChar('0')).arg(whole % 60, 2, 10, QChar('0'));
    return QStringLiteral("%1%2:%3").arg(sign).arg(whole / 60).arg(whole % 60, 2, 10, QChar('0'));
}

QString said(const Phrase& phrase, const Session& s) { return QString::fromStdString(render(phrase, s.units())); }

}  // namespace

CardPage::CardPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      now_([] { return static_cast<double>(QDateTime::currentMSecsSinceEpoch()) / 1000; }),
      thermocouple_(new Probe(this)),
      heat_(
          this,
          [](const Question& q, const Work& w) {
              Answer a;
              Section one = q.section;
              one.width_mm = 0;
              const Cured c = cure(kinetics_of(q.resin), one, {3, 200});
              for (std::size_t i = 0; i < c.frames.size(); ++i) a.planned.emplace_back(c.frames[i].h, resin_hottest_c(c, one, i));
              w.check();
              a.corrected = corrected_by(q.readings, q.resin, q.section);
              return a;
          },
          [this](const Question&, const Answer&) { refresh(); }),
      start_(new QPushButton(tr("Start"), this)),
      tick_(new QPushButton(tr("Done"), this)),
      untick_(new QPushButton(tr("Take the last back"), this)),
      away_(new QPushButton(tr("Put the card away"), this)),
      wire_(new QPushButton(this)),
      back_(new QPushButton(tr("Back to the bench"), this)),
      practice_(new QCheckBox(tr("practice, an hour in a minute"), this)),
      air_(new QLineEdit(this)),
      mixed_(new QLineEdit(this)),
      note_(new QLineEdit(this)),
      air_word_(new QLabel(tr("shop air"), this)),
      mixed_word_(new QLabel(tr("really mixed"), this)),
      line_(new QLabel(this)),
      board_(new QWidget(this)) {
    setObjectName("card_page");
    setAccessibleName(tr("The card that is run"));
    setFocusPolicy(Qt::StrongFocus);
    start_->setObjectName("card_start");
    tick_->setObjectName("card_tick");
    untick_->setObjectName("card_untick");
    away_->setObjectName("card_away");
    wire_->setObjectName("card_wire");
    back_->setObjectName("card_back");
    practice_->setObjectName("card_practice");
    air_->setObjectName("card_air");
    mixed_->setObjectName("card_mixed");
    note_->setObjectName("card_note");
    line_->setObjectName("card_line");
    line_->setWordWrap(true);
    start_->setProperty("next", true);
    tick_->setProperty("next", true);
    tick_->setToolTip(tr("Space"));
    untick_->setToolTip(tr("Backspace"));
    for (QPushButton* b : {untick_, away_, wire_, back_}) b->setProperty("quiet", true);
    for (QPushButton* b : {start_, tick_}) b->setMinimumSize(theme::grown(220), theme::grown(52)), b->setFont(theme::text(18, true));
    air_->setPlaceholderText(tr("°C"));
    note_->setPlaceholderText(tr("a note"));
    for (QLineEdit* e : {air_, mixed_}) e->setMaximumWidth(theme::grown(110));
    connect(start_, &QPushButton::clicked, this, &CardPage::start);
    connect(tick_, &QPushButton::clicked, this, &CardPage::tick_off);
    connect(untick_, &QPushButton::clicked, this, &CardPage::take_back);
    connect(away_, &QPushButton::clicked, this, &CardPage::put_away);
    connect(back_, &QPushButton::clicked, this, &CardPage::back);
    connect(wire_, &QPushButton::clicked, this, [this] {
        if (thermocouple_->listening()) {
            thermocouple_->let_go();
            return refresh();
        }
        Probe::choose_line(wire_, tr("Thermocouple"), [this](const QString& line) { listen_to(line); });
    });
    connect(thermocouple_, &Probe::temperature, this, &CardPage::take_temperature);
    connect(thermocouple_, &Probe::said, this, [this](const QString& sentence, bool) {
        line_->setText(sentence);
        refresh();
    });
    second_.setInterval(250);
    connect(&second_, &QTimer::timeout, this, [this] {
        if (!unkept_.empty() && now_() - kept_at_ >= keep_every_s) keep_readings();
        listen_for_silence();
        update();
    });
    connect(&session_, &Session::changed, this, [this] {
        if (isVisible()) refresh();
    });

    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 14, 24, 14);
    board_->setAttribute(Qt::WA_TransparentForMouseEvents);
    board_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    column->addWidget(board_, 1);
    auto* written = new QHBoxLayout;
    for (QWidget* w :
         {static_cast<QWidget*>(air_word_), static_cast<QWidget*>(air_), static_cast<QWidget*>(mixed_word_), static_cast<QWidget*>(mixed_)})
        written->addWidget(w);
    written->addWidget(note_, 1);
    column->addLayout(written);
    column->addWidget(line_);
    auto* row = new QHBoxLayout;
    row->addWidget(start_);
    row->addWidget(practice_);
    row->addWidget(tick_);
    row->addWidget(untick_);
    row->addStretch(1);
    row->addWidget(wire_);
    row->addWidget(away_);
    row->addWidget(back_);
    column->addLayout(row);
}

CardPage::~CardPage() = default;

void CardPage::set_clock(std::function<double()> now) {
    now_ = std::move(now);
    refresh();
}

void CardPage::open(const QString& card) {
    keep_readings();
    card_ = card;
    line_->clear();
    refresh();
    setFocus();
}

void CardPage::wait() {
    if (auto q = question()) heat_.ask(*q);
    wait_for_all();
}

CardPage::Shown CardPage::shown() const {
    Shown s;
    s.run = session_.running(card_.toStdString());
    if (s.run) s.now = card_now(steps_, *s.run, now_());
    return s;
}

void CardPage::refresh() {
    steps_ = session_.card_steps(card_.toStdString());
    // By what the thermocouple has read so far the hours that are left go quicker or slower.
    if (const auto asked = question())
        if (const Answer* a = heat_.at_hand(*asked); a && a->corrected)
            steps_ = at_pace(std::move(steps_), a->corrected->gel_25_h / kinetics_of(asked->resin).gel_25_h);
    const Shown s = shown();
    const bool runs = s.run != nullptr;
    const bool left = s.now && s.now->next < steps_.size();
    start_->setVisible(!runs);
    start_->setEnabled(!steps_.empty());
    practice_->setVisible(!runs);
    tick_->setVisible(runs);
    tick_->setEnabled(left);
    untick_->setVisible(runs);
    untick_->setEnabled(runs && !s.run->ticks.empty());
    away_->setVisible(runs);
    const bool pours = card_ == "pour";
    wire_->setVisible(runs && pours);
    wire_->setText(thermocouple_->listening() ? tr("let go of %1").arg(thermocouple_->name()) : tr("Thermocouple…"));
    for (QWidget* w : {static_cast<QWidget*>(air_), static_cast<QWidget*>(air_word_), static_cast<QWidget*>(note_)}) w->setVisible(runs);
    const bool mixes = left && steps_[s.now->next].mixed_l > 0, leaves = left && steps_[s.now->next].left;
    mixed_->setVisible(mixes || leaves);
    mixed_word_->setVisible(mixes || leaves);
    mixed_word_->setText(leaves ? tr("left over in all") : tr("really mixed"));
    if (mixes || leaves) mixed_->setPlaceholderText(in_units(litres(leaves ? 0 : steps_[s.now->next].mixed_l), session_));
    update();
}

bool CardPage::change_run(const QString& label, const std::function<void(CardRun&)>& change) {
    return session_.edit_job(label, [&](Job& j) {
        if (CardRun* run = run_of(j, card_.toStdString())) change(*run);
    });
}

void CardPage::start() {
    if (steps_.empty() || shown().run) return;
    session_.edit_job(tr("Start a card"),
                      [&](Job& j) { start_card(j, card_.toStdString(), now_(), practice_->isChecked() ? practice_fast : 1); });
    refresh();
    setFocus();
}

void CardPage::tick_off() {
    const Shown s = shown();
    if (!s.now || s.now->next >= steps_.size()) return;
    // What can't be read is said, and nothing is ticked: it would be lost.
    std::optional<double> air;
    std::optional<double> mixed;
    const auto read = [&](QLineEdit* edit, Kind kind, std::optional<double>& into) {
        if (edit->isHidden() || edit->text().trimmed().isEmpty()) return true;
        const auto got = parse(edit->text().toStdString(), kind, session_.units());
        if (const auto* e = std::get_if<ParseError>(&got)) {
            line_->setText(tr("“%1”: %2").arg(edit->text(), QString::fromStdString(e->sentence())));
            edit->setFocus();
            edit->selectAll();
            return false;
        }
        into = std::get<double>(got);
        return true;
    };
    if (!read(air_, Kind::temperature, air) || !read(mixed_, Kind::volume, mixed)) return;
    keep_readings();
    const CardStep step = steps_[s.now->next];
    const double now = now_();
    const QString note = note_->text().trimmed();
    if (!change_run(tr("Tick: %1").arg(said(step.says, session_)), [&](CardRun& run) {
            if (!yb::tick(steps_, run, now)) return;
            run.ticks.back().air_c = air;
            (step.left ? run.ticks.back().left_l : run.ticks.back().mixed_l) = mixed;
            run.ticks.back().note = note.toStdString();
        }))
        return;
    line_->setText(mixed && step.mixed_l > 0 && std::abs(*mixed / step.mixed_l - 1) > 0.03
                       ? tr("%1 were mixed, %2 planned: the rest of it is kept in mind, the pigment is not – it goes by weight.")
                             .arg(in_units(litres(*mixed), session_), in_units(litres(step.mixed_l), session_))
                       : QString());
    mixed_->clear();
    note_->clear();
    refresh();
    setFocus();
}

void CardPage::take_back() {
    change_run(tr("Take a tick back"), [](CardRun& run) { untick(run); });
    refresh();
    setFocus();
}

void CardPage::put_away() {
    keep_readings();
    change_run(tr("Put the card away"), [](CardRun& run) { run.over = true; });
    refresh();
}

void CardPage::listen_for_silence() {
    if (!thermocouple_->listening() || silent_ || now_() - heard_at_ < silence_s) return;
    silent_ = true;
    keep_readings();
    line_->setText(
        tr("Nothing has come from the thermocouple for two minutes: look at its wire and its plug. What it read is kept; the "
           "card goes on by the simulation."));
    refresh();
}

bool CardPage::listen_to(const QString& line) {
    const QString wrong = thermocouple_->listen(line);
    heard_at_ = now_();
    silent_ = false;
    line_->setText(wrong.isEmpty() ? tr("Listening: what it reads is drawn against what was simulated.") : wrong);
    refresh();
    return wrong.isEmpty();
}

void CardPage::take_temperature(double c) {
    heard_at_ = now_();
    if (silent_) line_->setText(tr("The thermocouple reads again."));
    silent_ = false;
    const CardRun* run = session_.running(card_.toStdString());
    if (!run) return;
    const auto at = card_clock(*run, now_());
    if (!at) return;
    const double last = !unkept_.empty() ? unkept_.back().after_s : !run->readings.empty() ? run->readings.back().after_s : -1e300;
    if (*at - last < between_readings_s) return;
    unkept_.push_back({*at, c});
    if (kept_at_ < -1e200) kept_at_ = now_() - keep_every_s;
    if (now_() - kept_at_ >= keep_every_s) keep_readings();
    update();
}

void CardPage::keep_readings() {
    if (unkept_.empty()) return;
    const auto readings = std::move(unkept_);
    unkept_.clear();
    kept_at_ = now_();
    change_run(tr("Thermocouple"), [&](CardRun& run) { run.readings.insert(run.readings.end(), readings.begin(), readings.end()); });
}

std::optional<CardPage::Question> CardPage::question() const {
    const CardRun* run = session_.running(card_.toStdString());
    if (!run || card_ != "pour" || !session_.plan() || session_.plan()->pour->lifts.empty() || !session_.pour() || !session_.job())
        return {};
    const auto readings = readings_since_pour(*run, unkept_);
    if (!readings) return {};
    return Question{*readings, river_resin(session_.shop().resins, session_.fill()->river),
                    section_of(session_.plan()->pour->lifts.front().depth_mm, session_.plan()->pour->air_c, *session_.pour())};
}

QString CardPage::read_out() const {
    const Shown s = shown();
    if (steps_.empty()) return tr("There is nothing to run: this job has no work of that kind.");
    if (!s.run) return tr("Not started: %1 steps.").arg(steps_.size());
    if (!s.now) return tr("Its start can't be read.");
    if (s.now->next >= steps_.size()) return tr("All is done. %1 since the start.").arg(clock_text(s.now->elapsed_s));
    const CardStep& step = steps_[s.now->next];
    QString out = said(step.says, session_);
    if (s.now->wait_s) out += tr(" · wait %1").arg(clock_text(*s.now->wait_s));
    else if (s.now->left_s && *s.now->left_s < 0)
        out += tr(" · late by %1. %2").arg(clock_text(-*s.now->left_s), said(step.late, session_));
    else if (s.now->left_s) out += tr(" · %1 left").arg(clock_text(*s.now->left_s));
    return out;
}

void CardPage::draw_now(QPainter& p, const QRectF& box) const {
    const auto& c = theme::colours();
    const Shown s = shown();
    p.setPen(c.pencil);
    p.setFont(theme::text(13));
    const QString name = told(card_name(card_.toStdString()));
    const QString head = s.run && s.run->fast > 1
                             ? tr("%1 · %2 · practice, %3 times as fast").arg(name, session_.job_name(), QString::number(s.run->fast))
                             : tr("%1 · %2").arg(name, session_.job_name());
    p.drawText(QRectF(box.left(), box.top(), box.width(), 26), Qt::AlignLeft | Qt::AlignVCenter, head);
    const QRectF rest = box.adjusted(0, 34, 0, 0);
    p.setPen(c.ink);
    if (!s.run || !s.now || s.now->next >= steps_.size()) {
        p.setFont(theme::figures(26));
        QRectF read;
        p.drawText(rest, Qt::AlignLeft | Qt::TextWordWrap,
                   steps_.empty() ? read_out()
                   : !s.run ? tr("%1 steps. Start when everything lies ready: the clock runs from then, and every tick goes to the book.")
                                  .arg(steps_.size())
                            : read_out(),
                   &read);
        if (!s.run) draw_set_out(p, rest.adjusted(0, read.height() + 18, 0, 0));
        return;
    }
    const CardStep& step = steps_[s.now->next];
    const bool late = s.now->left_s && *s.now->left_s < 0;
    p.setFont(theme::figures(34));
    QRectF used;
    p.drawText(QRectF(rest.left(), rest.top(), rest.width(), rest.height() * 0.45), Qt::AlignLeft | Qt::TextWordWrap,
               said(step.says, session_), &used);
    double y = used.bottom() + 8;
    p.setFont(theme::text(18));
    p.setPen(c.pencil);
    p.drawText(QRectF(rest.left(), y, rest.width(), rest.height() * 0.2), Qt::AlignLeft | Qt::TextWordWrap, said(step.more, session_),
               &used);
    if (!step.more.empty()) y = used.bottom() + 14;
    // One clock: until it may begin, until it has to be done, or how long it has taken.
    const QString word = s.now->wait_s ? tr("not before") : late ? tr("late by") : s.now->left_s ? tr("left") : tr("since the last tick");
    const double shows = s.now->wait_s ? *s.now->wait_s : s.now->left_s ? std::abs(*s.now->left_s) : s.now->in_step_s;
    const QColor ink = late ? c.madder : s.now->left_s && !s.now->wait_s && *s.now->left_s < 120 ? c.ochre : c.chalk;
    p.setPen(ink);
    p.setFont(theme::figures(64, true));
    p.drawText(QRectF(rest.left(), y, rest.width(), theme::grown(86)), Qt::AlignLeft | Qt::AlignVCenter, clock_text(shows), &used);
    if (late) theme::draw_sign(p, Severity::stop, QRectF(used.right() + 14, used.center().y() - 14, 28, 28));
    p.setFont(theme::text(15));
    p.drawText(QRectF(used.right() + (late ? 52 : 16), y, rest.width(), theme::grown(86)), Qt::AlignLeft | Qt::AlignVCenter, word);
    y += theme::grown(92);
    if (late) {
        p.setFont(theme::text(16, true));
        p.drawText(QRectF(rest.left(), y, rest.width(), rest.bottom() - y), Qt::AlignLeft | Qt::TextWordWrap, said(step.late, session_));
        return;
    }
    p.setFont(theme::text(15));
    p.setPen(c.pencil);
    const double off = s.now->elapsed_s - s.now->planned_s;
    QString plan = tr("%1 since the start").arg(clock_text(s.now->elapsed_s));
    if (step.takes_s > 0)
        plan += (pace_of(session_.shop().paces, step.pace) == 1 ? tr(" · planned %1 for this") : tr(" · %1 for this at your pace"))
                    .arg(clock_text(step.takes_s));
    if (std::abs(off) > 60)
        plan += off > 0 ? tr(" · %1 behind the plan").arg(clock_text(off)) : tr(" · %1 ahead of it").arg(clock_text(-off));
    p.drawText(QRectF(rest.left(), y, rest.width(), rest.bottom() - y), Qt::AlignLeft | Qt::TextWordWrap, plan);
}

/// What has to lie ready, and where a form leaks: before the clock runs.
void CardPage::draw_set_out(QPainter& p, const QRectF& box) const {
    if (card_ != "pour" || !session_.plan()) return;
    const auto& c = theme::colours();
    const PourPlan& plan = *session_.plan()->pour;
    double y = box.top();
    const auto list = [&](const QString& head, const std::vector<Phrase>& lines) {
        if (lines.empty() || y > box.bottom() - 40) return;
        p.setFont(theme::text(14, true));
        p.setPen(c.pencil);
        p.drawText(QRectF(box.left(), y, box.width(), theme::grown(24)), Qt::AlignLeft | Qt::AlignVCenter, head);
        y += theme::grown(26);
        p.setFont(theme::text(14));
        p.setPen(c.ink);
        for (const Phrase& line : lines) {
            const QString text = said(line, session_);
            const QRectF room(box.left() + 16, y, box.width() - 16, 1000);
            const double high = p.boundingRect(room, Qt::AlignLeft | Qt::TextWordWrap, text).height();
            if (y + high > box.bottom()) return;
            p.drawText(QRectF(box.left(), y, 16, high), Qt::AlignLeft, QStringLiteral("·"));
            p.drawText(room, Qt::AlignLeft | Qt::TextWordWrap, text);
            y += high + 3;
        }
        y += 10;
    };
    list(tr("Set out"), plan.set_out);
    list(tr("Where it leaks"), plan.leaks);
}

void CardPage::draw_list(QPainter& p, const QRectF& box) const {
    const auto& c = theme::colours();
    const Shown s = shown();
    const std::size_t next = s.now ? s.now->next : 0;
    const double row = theme::grown(34);
    const auto room = static_cast<std::size_t>(std::max(1.0, std::floor(box.height() / row)));
    // What comes is in sight, and the last few that were done.
    std::size_t first = 0;
    if (steps_.size() > room && next > 3) first = std::min(next - 3, steps_.size() - room);
    const auto begins = planned_starts(steps_);
    for (std::size_t k = 0; k < room && first + k < steps_.size(); ++k) {
        const std::size_t i = first + k;
        const QRectF line(box.left(), box.top() + static_cast<double>(k) * row, box.width(), row);
        const CardTick* done = nullptr;
        if (s.run)
            for (const CardTick& t : s.run->ticks)
                if (t.step == steps_[i].key) done = &t;
        if (s.run && i == next) p.fillRect(line, c.slip);
        p.setPen(QPen(c.rule, 1));
        p.drawLine(line.bottomLeft(), line.bottomRight());
        const QRectF mark(line.left() + 6, line.center().y() - 6, 12, 12);
        p.setPen(QPen(done ? c.moss : c.faint, 2));
        if (done)
            p.drawPolyline(
                QPolygonF{{mark.left(), mark.center().y()}, {mark.center().x() - 1, mark.bottom() - 1}, {mark.right(), mark.top()}});
        else p.drawRect(mark);
        p.setFont(theme::text(12, s.run && i == next));
        p.setPen(done ? c.pencil : c.ink);
        const QString when = clock_text(done ? done->after_s : begins[i]);
        const double w = QFontMetricsF(p.font()).horizontalAdvance(QStringLiteral("000:00:00"));
        p.drawText(QRectF(line.left() + 26, line.top(), line.width() - 34 - w, row), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(said(steps_[i].says, session_), Qt::ElideRight, line.width() - 34 - w));
        p.drawText(QRectF(line.right() - w - 4, line.top(), w, row), Qt::AlignRight | Qt::AlignVCenter, when);
    }
}

void CardPage::draw_heat(QPainter& p, const QRectF& box, const Question& asked) const {
    const Answer* a = heat_.at_hand(asked);
    if (!a) return heat_.ask(asked);
    if (a->planned.empty()) return;
    const auto& c = theme::colours();
    double last_h = a->planned.back().first;
    for (std::size_t i = 0; i < a->planned.size(); ++i)
        if (a->planned[i].second > a->planned.front().second + 2) last_h = a->planned[i].first;
    if (!asked.readings.empty()) last_h = std::max(last_h, asked.readings.back().after_s / 3600);
    last_h = std::max(1.0, last_h * 1.1);
    double low = 1e300;
    double high = -1e300;
    for (const auto& [h, t] : a->planned) low = std::min(low, t), high = std::max(high, t);
    for (const CardReading& r : asked.readings) low = std::min(low, r.temp_c), high = std::max(high, r.temp_c);
    low -= 2, high += 3;
    const QRectF plot = box.adjusted(46, 8, -8, -22);
    const auto at = [&](double h, double t) {
        return QPointF(plot.left() + plot.width() * h / last_h, plot.bottom() - plot.height() * (t - low) / (high - low));
    };
    p.setPen(QPen(c.rule, 1));
    p.drawLine(plot.bottomLeft(), plot.bottomRight());
    p.drawLine(plot.bottomLeft(), plot.topLeft());
    p.setFont(theme::figures(10));
    p.setPen(c.pencil);
    p.drawText(QRectF(box.left(), plot.top() - 8, 42, 16), Qt::AlignRight | Qt::AlignVCenter, in_units(celsius(high), session_));
    p.drawText(QRectF(box.left(), plot.bottom() - 8, 42, 16), Qt::AlignRight | Qt::AlignVCenter, in_units(celsius(low), session_));
    p.drawText(QRectF(plot.left(), plot.bottom() + 2, plot.width(), 18), Qt::AlignRight, in_units(hours(last_h), session_));
    p.save();
    p.setClipRect(plot.adjusted(-1, -1, 1, 1));
    QPolygonF line;
    for (const auto& [h, t] : a->planned) line << at(h, t);
    p.setPen(QPen(c.pencil, 1.6, Qt::DashLine));
    p.drawPolyline(line);
    line.clear();
    for (const CardReading& r : asked.readings) line << at(r.after_s / 3600, r.temp_c);
    p.setPen(QPen(theme::heat(0.75), 2.4));
    p.drawPolyline(line);
    p.restore();
    p.setPen(c.ink);
    p.setFont(theme::text(11));
    const QString words = a->corrected && a->corrected->gel_h
                              ? tr("read, against the simulation (dashed): by it the pour gels %1 after it went in")
                                    .arg(in_units(hours(*a->corrected->gel_h), session_))
                              : tr("dashed: as simulated, in the middle of the pour");
    p.drawText(QRectF(plot.left(), plot.bottom() + 2, plot.width() * 0.8, 20), Qt::AlignLeft, words);
}

void CardPage::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme::colours().paper);
    const QRectF board = QRectF(board_->geometry());
    const double split = board.left() + board.width() * 0.6;
    const auto heat = question();
    const double plot = heat ? std::min(170.0, board.height() * 0.3) : 0;
    draw_now(p, QRectF(board.left(), board.top(), split - board.left() - 24, board.height() - plot));
    if (heat) draw_heat(p, QRectF(board.left(), board.bottom() - plot + 8, split - board.left() - 24, plot - 12), *heat);
    draw_list(p, QRectF(split, board.top(), board.right() - split, board.height()));
}

void CardPage::take_mass(double g) {
    const Shown s = shown();
    const Plan* plan = session_.plan();
    if (!isVisible() || !s.now || !plan || s.now->next >= steps_.size()) return;
    const std::string& key = steps_[s.now->next].key;
    const auto batch = index_of(key, mix_step);
    if (!batch || *batch >= plan->pour->batches.size()) return;
    if (weighed_for_ != key) weighed_for_ = key, first_poured_g_.reset();
    in_cup_g_ = g;
    try {
        const Weighed w = weighed(plan->pour->batches[*batch], g, first_poured_g_);
        const auto grams = [](double v) { return QObject::tr("%1 g").arg(std::round(v)); };
        const QString part = w.second ? tr("part B") : tr("part A");
        QString text = w.to_go_g >= 0
                           ? tr("In the cup %1: %2 of %3 to go, stop at %4.").arg(grams(g), grams(w.to_go_g), part, grams(w.stop_at_g))
                           : tr("In the cup %1: %2 of %3 too much.").arg(grams(g), grams(-w.to_go_g), part);
        if (!w.second) text += tr(" Part B will be %1; press Enter when it is begun.").arg(grams(w.second_g));
        if (w.off) text += tr(" The mix no longer holds its ratio: do not pour it, mix another.");
        line_->setText(text);
    } catch (const std::invalid_argument&) {
        line_->setText(tr("This batch is not weighed: it has no part A."));
    }
}

void CardPage::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Space) shown().run ? tick_off() : start();
    else if (e->key() == Qt::Key_Backspace) take_back();
    else if (e->key() == Qt::Key_Escape) Q_EMIT back();
    else if ((e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) && in_cup_g_ > 0 && !weighed_for_.empty()) {
        first_poured_g_ = in_cup_g_;
        take_mass(in_cup_g_);
    } else QWidget::keyPressEvent(e);
}

void CardPage::showEvent(QShowEvent*) {
    second_.start();
    refresh();
    setFocus();
}

void CardPage::hideEvent(QHideEvent*) {
    keep_readings();
    second_.stop();
}

}  // namespace yb
