#include "app/kit/stick/stick.h"

#include <QDate>
#include <QLocale>
#include <QPainter>

#include <algorithm>
#include <cmath>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/step_view.h"
#include "core/steps/days/days.h"

namespace yb {

namespace {
QString short_day(const std::string& iso) {
    if (iso.empty()) return {};
    return QLocale(QLocale::English).toString(QDate::fromString(QString::fromStdString(iso), Qt::ISODate), "ddd d MMM");
}
}  // namespace

Stick::Stick(Session& session, QWidget* parent) : QWidget(parent), session_(session), sheets_(new QPushButton(tr("Sheets"), this)) {
    setObjectName("stick");
    setFixedHeight(theme::grown(112));
    sheets_->setObjectName("step_sheets");
    sheets_->setProperty("plain", true);
    sheets_->setToolTip(tr("The bench sheet (P)"));
    connect(sheets_, &QPushButton::clicked, this, [this] { session_.set_step(step_key::sheets); });
    connect(&session, &Session::changed, this, &Stick::rebuild);
    rebuild();
}

void Stick::rebuild() {
    if (session_.previewing()) return;  // the days follow when the drag is kept
    std::vector<Mark> next;
    next.push_back({step_key::rack, tr("Rack"), {}, 0, 0, 0, false, false, Severity::note, nullptr});
    const Plan* plan = session_.plan();
    if (plan && session_.job()) {
        for (const Caution& c : plan->rack.cautions)
            if (c.severity != Severity::note) next[0].knot = true, next[0].worst = std::max(next[0].worst, c.severity);
        for (std::size_t i = 0; i < plan->days->operations.size(); ++i) {
            const Operation& o = plan->days->operations[i];
            Mark m{o.step, told(o.label), short_day(plan->days->date(o.start_h)), 0, 0, 0, o.knot, o.unmet, o.worst, nullptr};
            m.operation = i;
            m.aside = o.aside;
            next.push_back(m);
        }
    }
    // Every step can be reached, also where this job has nothing to do in it: before the first mark of a later step.
    for (const StepRow& row : steps()) {
        const Step s = row.step;
        if (row.on == StepRow::On::beside) continue;
        if (std::any_of(next.begin(), next.end(), [&](const Mark& m) { return m.step == s; })) continue;
        const auto later = std::find_if(next.begin(), next.end(), [&](const Mark& m) { return before(s, m.step); });
        next.insert(later, {s, told(row.name), {}, 0, 0, 0, false, false, Severity::note, nullptr});
    }
    // A step is named at its first mark behind the names of those before it, so that names stand in the order of work; where it has none
    // there, at its first.
    auto from = next.begin();
    for (const StepRow& row : steps()) {
        const auto is = [&](const Mark& m) { return m.step == row.step; };
        auto named = std::find_if(from, next.end(), is);
        if (named == next.end()) named = std::find_if(next.begin(), next.end(), is);
        if (named == next.end()) continue;
        named->main = true;
        if (named >= from) from = named + 1;
    }
    QStringList names;
    for (const Mark& m : next) names << m.label;
    if (names != built_for_) {
        for (Mark& m : marks_) {
            m.button->hide();
            m.button->deleteLater();
        }
        for (Mark& m : next) {
            m.button = new QPushButton(this);
            m.button->setObjectName((m.main ? "step_" : "mark_") + (m.main ? QString::fromLatin1(name_of(m.step)).toLower() : m.label));
            m.button->setProperty("plain", true);
            const Step s = m.step;
            connect(m.button, &QPushButton::clicked, this, [this, s] { session_.set_step(s); });
            m.button->show();
        }
        built_for_ = names;
    } else {
        for (std::size_t i = 0; i < next.size(); ++i) next[i].button = marks_[i].button;
    }
    marks_ = std::move(next);
    lay_out();
}

void Stick::lay_out() {
    wood_ = QRectF(20, 18 + theme::grown(22), std::max(200, width() - 40 - theme::grown(150)), 34);
    std::vector<double> weight(marks_.size(), 1.0);
    std::vector<double> hands(marks_.size(), 0.0);
    const Plan* plan = session_.plan();
    const bool timed = plan && session_.job();
    double sum = 0;
    // Steps are named in full: each has the room its name needs, what is left is shared by how long things take.
    const QFontMetrics metrics(theme::figures(10));
    const auto name_of_mark = [](const Mark& m) { return m.main ? told(name_of(m.step)) : m.label; };
    const auto needs = [&](const Mark& m) { return m.main ? metrics.horizontalAdvance(name_of_mark(m)) + 14.0 : 12.0; };
    double taken = 0;
    for (const Mark& m : marks_) taken += needs(m);
    for (std::size_t i = 0; i < marks_.size(); ++i) {
        if (timed && marks_[i].operation && *marks_[i].operation < plan->days->operations.size()) {
            const Operation& o = plan->days->operations[*marks_[i].operation];
            const double days = std::max(0.0, o.end_h - o.start_h) / 24;
            // Hours and fortnights on one stick: the square root keeps both to be seen, the order of lengths true.
            weight[i] = std::max(0.85, std::sqrt(days) * 1.1);
            hands[i] = o.end_h > o.start_h ? (o.hands_end_h - o.start_h) / (o.end_h - o.start_h) : 1;
        }
        sum += weight[i];
    }
    double x = wood_.left() + 12;
    for (std::size_t i = 0; i < marks_.size(); ++i) {
        Mark& m = marks_[i];
        const double w = needs(m) + std::max(0.0, wood_.width() - 24 - taken) * weight[i] / sum;
        m.x = x;
        m.hands_x = x + w * hands[i];
        m.end_x = x + w;
        x += w;
        const bool here = m.step == session_.step();
        // What this job has no use for is faint, and says so.
        const bool idle = timed && !m.operation && m.step != step_key::rack;
        const QString ink = QStringLiteral("color: %1;")
                                .arg((here   ? theme::colours().brass_dark
                                      : idle ? theme::colours().pencil
                                             : theme::colours().ink)
                                         .name());
        if (m.button->styleSheet() != ink) {
            m.button->setFont(theme::figures(10));
            m.button->setStyleSheet(ink);
        }
        // Operations are lesser marks: named while their step is at hand, where the name has room.
        const int room = static_cast<int>(w) - 5;
        const int text = metrics.horizontalAdvance(name_of_mark(m)) + 4;
        const bool named = m.main || (here && text <= room);
        m.button->setGeometry(static_cast<int>(m.x) + 4, 14, m.main ? std::max(text, room) : std::max(10, room), theme::grown(22));
        m.button->setText(named ? name_of_mark(m) : QString());
        m.button->setAccessibleName(m.label);
        m.button->setToolTip(idle ? tr("%1: this job has nothing to do there").arg(m.label)
                                  : m.label + (m.day.isEmpty() ? QString() : " · " + m.day));
    }
    sheets_->setFont(theme::figures(11));
    sheets_->setGeometry(width() - theme::grown(150), theme::grown(82), theme::grown(90), theme::grown(22));
    update();
}

void Stick::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    p.fillRect(rect(), c.paper);
    p.setPen(QPen(c.wood_edge, 1));
    p.setBrush(c.wood);
    p.drawRoundedRect(wood_, 4, 4);
    p.setPen(QPen(c.wood_edge.lighter(170), 0.7));
    for (int i = 1; i < 5; ++i) {
        const double y = wood_.top() + i * wood_.height() / 5;
        p.drawLine(QPointF(wood_.left() + 6, y), QPointF(wood_.right() - 6, y + (i % 2 ? 2 : -2)));
    }
    QString day;
    double free_from = 0;
    for (const Mark& m : marks_) {
        const bool here = m.step == session_.step();
        QColor solid = c.wood_edge;
        solid.setAlpha(60);
        p.setPen(Qt::NoPen);
        p.fillRect(QRectF(m.x, wood_.top() + 1, m.hands_x - m.x, wood_.height() - 2), solid);
        p.save();
        p.setClipRect(QRectF(m.hands_x + 2, wood_.top() + 1, std::max(0.0, m.end_x - m.hands_x - 4), wood_.height() - 2));
        p.setPen(QPen(c.wood_edge.lighter(140), 0.9));
        if (!m.day.isEmpty())
            for (double x = m.hands_x; x < m.end_x + 30; x += 8) p.drawLine(QPointF(x, wood_.bottom()), QPointF(x - 14, wood_.top()));
        p.restore();
        p.setPen(QPen(here ? c.brass : c.ink, here ? 2.6 : 1.3));
        p.drawLine(QPointF(m.x, m.main ? wood_.top() - 8 : wood_.top() + wood_.height() * 0.6), QPointF(m.x, wood_.bottom()));
        if (m.unmet) {
            p.setBrush(c.paper);
            p.setPen(QPen(c.ink, 1));
            p.drawPolygon(QPolygonF{{m.x - 7, wood_.top()}, {m.x + 7, wood_.top()}, {m.x, wood_.top() + 11}});
        }
        if (m.knot) {
            const QPointF at(m.x + 15, wood_.center().y());
            p.setPen(QPen(theme::ink_of(m.worst).darker(140), 1));
            p.setBrush(theme::ink_of(m.worst));
            if (m.worst == Severity::stop) p.drawRect(QRectF(at.x() - 6, at.y() - 6, 12, 12));
            else p.drawEllipse(at, 8, 5.5);
            p.setBrush(theme::ink_of(m.worst).darker(160));
            p.drawEllipse(at, 3, 2);
        }
        p.setPen(c.pencil);
        p.setFont(theme::text(9));
        // A day is written where it begins, if the one before leaves room.
        if (m.day.isEmpty() || m.day == day || m.x < free_from || m.aside) continue;  // what goes into the waiting has a day out of turn
        day = m.day;
        free_from = m.x + p.fontMetrics().horizontalAdvance(day) + 6;
        p.drawText(QPointF(m.x, wood_.bottom() + theme::grown(17)), day);
    }
    const Plan* plan = session_.plan();
    if (!plan || !session_.job()) return;
    p.setFont(theme::text(9.5));
    p.setPen(c.pencil);
    p.drawText(QPointF(width() - theme::grown(148), theme::grown(26)), tr("ready for %1").arg(told(ready_for())));
    p.setFont(theme::figures(14));
    p.setPen(c.ink);
    p.drawText(
        QPointF(width() - theme::grown(148), theme::grown(52)),
        plan->days->ready.empty()
            ? tr("not dated")
            : QLocale(QLocale::English).toString(QDate::fromString(QString::fromStdString(plan->days->ready), Qt::ISODate), "d MMM yyyy"));
    double hands = 0;
    for (const Operation& o : plan->days->operations) hands += o.hands_on_h;
    p.setFont(theme::text(9));
    p.setPen(c.pencil);
    p.drawText(QPointF(width() - theme::grown(148), theme::grown(72)), tr("%1 hands-on").arg(in_units(hours(hands), session_)));
}

}  // namespace yb
