#include "app/pages/days/days_sticks.h"

#include <algorithm>
#include <cmath>

#include <QDate>
#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "core/shop/job/steps.h"

namespace yb {

namespace {
QDate qdate(const std::string& iso) { return QDate::fromString(QString::fromStdString(iso), Qt::ISODate); }
QString key_of(const JobDays& j, const Operation& o) { return QString::fromStdString(j.id + "/" + o.key); }
double left_of_names() { return theme::grown(190); }
constexpr int least_pitch = 42, most_pitch = 58;
}  // namespace

DaysSticks::DaysSticks(QWidget* parent) : QWidget(parent) {
    setObjectName("days_sticks");
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("All jobs on one rule of dates, and the hours of each day"));
}

QSize DaysSticks::sizeHint() const {
    const int lanes = season_ ? static_cast<int>(season_->jobs.size()) : 4;
    return {640, theme::grown(66) + lanes * theme::grown(least_pitch) + theme::grown(104)};
}

void DaysSticks::show_season(const Season* season) {
    season_ = season;
    loads_.clear();
    if (season_) {
        double first = 1e9;
        double last = 24 * 14;
        for (const JobDays& j : season_->jobs)
            for (const Operation& o : j.operations) first = std::min(first, o.start_h), last = std::max(last, o.end_h);
        first = std::min(first, std::max(0.0, season_->now_h));
        const bool whole = from_h_ <= all_from_h_ && to_h_ >= all_to_h_;
        all_from_h_ = std::floor(std::max(0.0, first) / 24) * 24;
        all_to_h_ = std::min(std::ceil(last / 24 + 1) * 24, all_from_h_ + 24 * 730);
        // What was looked at closely stays so.
        if (whole) from_h_ = all_from_h_, to_h_ = all_to_h_;
        else show_span(from_h_, to_h_);
        loads_ = loads_of(*season_, all_to_h_);
    }
    setMinimumHeight(sizeHint().height());
    lay_out();
    update();
}

void DaysSticks::show_span(double from, double to) {
    const double span = std::clamp(to - from, std::min(24.0, all_to_h_ - all_from_h_), all_to_h_ - all_from_h_);
    from_h_ = std::clamp(from, all_from_h_, all_to_h_ - span);
    to_h_ = from_h_ + span;
    update();
}

void DaysSticks::zoom(double times, double about) {
    const double span = (to_h_ - from_h_) / times;
    const double share = (about - from_h_) / std::max(1.0, to_h_ - from_h_);
    show_span(about - share * span, about + (1 - share) * span);
}

void DaysSticks::wheelEvent(QWheelEvent* e) {
    if (!season_ || !(e->modifiers() & Qt::ControlModifier) || e->angleDelta().y() == 0) return QWidget::wheelEvent(e);
    zoom(std::pow(1.25, e->angleDelta().y() / 120.0), from_h_ + (e->position().x() - rule_.left()) / rule_.width() * (to_h_ - from_h_));
    e->accept();
}

double DaysSticks::x_of(double h) const { return rule_.left() + rule_.width() * (h - from_h_) / std::max(1.0, to_h_ - from_h_); }

void DaysSticks::lay_out() {
    lanes_.clear();
    rule_ = QRectF(left_of_names(), theme::grown(34), std::max(100.0, width() - left_of_names() - 24), theme::grown(12));
    hours_ = QRectF(rule_.left(), height() - theme::grown(96), rule_.width(), theme::grown(70));
    if (!season_) return;
    double y = rule_.bottom() + theme::grown(22);
    const double room = hours_.top() - y - theme::grown(6);
    const double pitch = std::clamp(room / std::max<double>(1, static_cast<double>(season_->jobs.size())), theme::grown(least_pitch) * 1.0,
                                    theme::grown(most_pitch) * 1.0);
    const double tall = theme::grown(22);
    for (const JobDays& j : season_->jobs) {
        double from = 0, to = 0;
        if (!j.operations.empty()) {
            from = j.operations.front().start_h;
            to = j.ready_h;
        }
        lanes_.push_back({QRectF(QPointF(x_of(from), y), QPointF(std::max(x_of(from) + 2, x_of(to)), y + tall)), &j});
        y += pitch;
    }
}

QRectF DaysSticks::place(const QString& operation) const {
    for (const Lane& l : lanes_)
        for (const Operation& o : l.job->operations)
            if (key_of(*l.job, o) == operation)
                return {QPointF(x_of(o.start_h), l.wood.top()), QPointF(std::max(x_of(o.start_h) + 3, x_of(o.end_h)), l.wood.bottom())};
    return {};
}

QRectF DaysSticks::date_place(const QString& iso) const {
    if (!season_) return {};
    const double h = 24 * static_cast<double>(qdate(season_->start).daysTo(QDate::fromString(iso, Qt::ISODate)));
    return {QPointF(x_of(h), rule_.top() - theme::grown(20)), QPointF(x_of(h + 24), rule_.bottom())};
}

void DaysSticks::draw_rule(QPainter& p) const {
    const auto& c = theme::colours();
    const int days = static_cast<int>((to_h_ - from_h_) / 24);
    const QDate first = qdate(season_->date(from_h_));
    const double day = rule_.width() / std::max(1, days);
    // Days on which nobody works stand back, those off by name more. Whole pixels of one colour: they are many and tall.
    const auto back = [&](double share) {
        const auto mix = [&](int x, int y) { return static_cast<int>(std::lround(x + (y - x) * share)); };
        return QColor(mix(c.bench.red(), c.wood_edge.red()), mix(c.bench.green(), c.wood_edge.green()),
                      mix(c.bench.blue(), c.wood_edge.blue()));
    };
    const QColor free_day = back(0.07), closed = back(0.18);
    const int top = static_cast<int>(rule_.bottom()), bottom = static_cast<int>(hours_.bottom());
    p.setRenderHint(QPainter::Antialiasing, false);
    for (int d = 0; d < days; ++d) {
        const std::string iso = season_->date(from_h_ + d * 24.0);
        const bool off = is_off(season_->week, iso);
        if (!off && !stretches_on(season_->week, Crew::maker, weekday_of(iso)).empty()) continue;
        const int from = static_cast<int>(std::lround(rule_.left() + d * day)),
                  to = static_cast<int>(std::lround(rule_.left() + (d + 1) * day));
        p.fillRect(QRect(from, top, to - from, bottom - top), off ? closed : free_day);
    }
    p.setRenderHint(QPainter::Antialiasing, true);
    p.setPen(QPen(c.pencil, 1));
    p.drawLine(rule_.bottomLeft(), rule_.bottomRight());
    p.setFont(theme::text(9.5));
    double taken = -1e9;
    for (int d = 0; d < days; ++d) {
        const QDate date = first.addDays(d);
        const double x = rule_.left() + d * day;
        const bool monday = date.dayOfWeek() == 1 || day > 60;
        if (!monday && day < 14) continue;
        p.setPen(QPen(c.pencil, monday ? 1.2 : 0.6));
        p.drawLine(QPointF(x, rule_.bottom() - (monday ? 7 : 3)), QPointF(x, rule_.bottom()));
        if (!monday) continue;
        const QString text = QLocale().toString(date, QStringLiteral("d MMM"));
        const double w = p.fontMetrics().horizontalAdvance(text);
        if (x < taken + 8) continue;
        taken = x + w;
        p.drawText(QPointF(x + 2, rule_.bottom() - 10), text);
    }
}

void DaysSticks::draw_lane(QPainter& p, const Lane& lane) const {
    const auto& c = theme::colours();
    const JobDays& j = *lane.job;
    const double room = left_of_names() - 24;
    p.setFont(theme::text(10.5, true));
    p.setPen(c.ink);
    const QRectF name(12, lane.wood.top() - theme::grown(12), room, theme::grown(34));
    // A long name takes two lines, and the date stands behind it.
    const QString called = QString::fromStdString(j.name);
    const bool two = p.fontMetrics().horizontalAdvance(called) > room;
    p.drawText(name, Qt::AlignLeft | (two ? Qt::AlignTop | Qt::TextWordWrap : Qt::AlignTop), called);
    p.setFont(theme::text(9));
    const bool late = j.late_h() > 0 && !j.operations.empty();
    p.setPen(late ? c.madder : c.pencil);
    const auto day = [&](double h) { return QLocale().toString(qdate(season_->date(h)), QStringLiteral("d MMM")); };
    const QString ready = j.operations.empty() ? tr("no slab yet")
                          : late               ? tr("ready %1, wanted %2").arg(day(j.ready_h), day(*j.wanted_h - 24))
                                               : tr("ready %1").arg(day(j.ready_h));
    p.drawText(QRectF(12, name.top() + theme::grown(two ? 31 : 17), room, theme::grown(15)), Qt::AlignLeft | Qt::AlignVCenter, ready);
    if (j.operations.empty()) return;
    p.save();
    p.setClipRect(QRectF(rule_.left() - 3, 0, rule_.width() + 20, height()));
    draw_stick(p, lane);
    p.restore();
}

void DaysSticks::draw_stick(QPainter& p, const Lane& lane) const {
    const auto& c = theme::colours();
    const JobDays& j = *lane.job;
    const bool late = j.late_h() > 0;
    // The stick itself: a strip of wood, waiting hatched along it, hands let in solid; what is made aside stands out below its edge.
    p.setPen(Qt::NoPen);
    p.setBrush(c.wood);
    p.drawRoundedRect(lane.wood, 3, 3);
    for (const Operation& o : j.operations) {
        const double top = o.aside ? lane.wood.bottom() - lane.wood.height() * 0.3 : lane.wood.top();
        const double bottom = o.aside ? lane.wood.bottom() + theme::grown(5) : lane.wood.bottom();
        const double a = x_of(o.start_h), b = x_of(o.hands_end_h), e = x_of(o.end_h);
        if (e > b + 1 && !o.aside) p.fillRect(QRectF(QPointF(b, top), QPointF(e, bottom)), QBrush(c.wood_edge, Qt::BDiagPattern));
        if (o.hands_on_h > 0) {
            QColor ink = o.done_h ? c.ink : c.wood_edge;
            if (!o.done_h && !o.decides) ink.setAlpha(190);
            p.fillRect(QRectF(QPointF(a, top), QPointF(std::max(a + 1.5, b), bottom)), ink);
        }
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(late ? c.madder : c.wood_edge, 1.2));
    p.drawRoundedRect(lane.wood, 3, 3);
    // Marks of the steps, named where the name has room.
    p.setFont(theme::figures(9.5));
    std::vector<Step> seen;
    double taken = -1e9;
    for (const Operation& o : j.operations) {
        if (o.aside || std::find(seen.begin(), seen.end(), o.step) != seen.end()) continue;
        seen.push_back(o.step);
        const double x = x_of(o.start_h);
        p.setPen(QPen(c.ink, 1.4));
        p.drawLine(QPointF(x, lane.wood.top() - 5), QPointF(x, lane.wood.bottom()));
        const QString text = told(name_of(o.step));
        if (x < taken + 4) continue;
        p.drawText(QPointF(x + 3, lane.wood.top() - 4), text);
        taken = x + p.fontMetrics().horizontalAdvance(text) + 3;
    }
    // The day it is wanted: a notch of its own.
    if (j.wanted_h && *j.wanted_h <= to_h_) {
        const double x = x_of(*j.wanted_h);
        p.setPen(QPen(late ? c.madder : c.moss, 2));
        p.drawLine(QPointF(x, lane.wood.top() - 8), QPointF(x, lane.wood.bottom() + 8));
    }
    for (const Operation& o : j.operations) {
        if (key_of(j, o) != picked_) continue;
        QRectF at = place(picked_).adjusted(-2, -3, 2, o.aside ? theme::grown(7) : 3);
        p.setPen(QPen(c.brass, 2.2));
        p.drawRoundedRect(at, 3, 3);
        // How far it can slip before the end moves: a thread from it.
        if (o.slack_h() > 0.5 && !o.done_h) {
            const double to = x_of(std::min(o.latest_h, to_h_));
            p.setPen(QPen(c.brass, 1.2));
            p.drawLine(QPointF(at.left() + 2, at.bottom() + 4), QPointF(to, at.bottom() + 4));
            p.drawLine(QPointF(to, at.bottom() + 1), QPointF(to, at.bottom() + 7));
        }
    }
}

void DaysSticks::draw_hours(QPainter& p) const {
    const auto& c = theme::colours();
    double most = 1;
    for (const DayLoad& l : loads_) most = std::max(most, l.there_h);
    const auto y = [&](double h) { return hours_.bottom() - hours_.height() * 0.86 * h / most; };
    p.setFont(theme::text(9.5));
    p.setPen(c.pencil);
    p.drawText(QRectF(12, hours_.top(), left_of_names() - 24, hours_.height()), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap,
               tr("the maker's hours, %1 at most a day").arg(QLocale().toString(most, 'f', most == std::round(most) ? 0 : 1)));
    p.setPen(QPen(c.pencil, 1));
    p.drawLine(hours_.bottomLeft(), hours_.bottomRight());
    p.setClipRect(QRectF(rule_.left(), 0, rule_.width(), height()));
    for (std::size_t d = 0; d < loads_.size(); ++d) {
        const double h = static_cast<double>(d) * 24;
        if (h < from_h_ - 23 || h > to_h_ || loads_[d].hands_h <= 0.01) continue;
        const bool full = loads_[d].hands_h > 0.95 * loads_[d].there_h;
        const QRectF bar(QPointF(x_of(h) + 0.5, y(loads_[d].hands_h)), QPointF(std::max(x_of(h) + 1.5, x_of(h + 24) - 1), hours_.bottom()));
        p.fillRect(bar, full ? c.wood_edge : c.brass);
    }
    p.setClipping(false);
}

void DaysSticks::draw_today(QPainter& p) const {
    if (season_->today.empty()) return;
    const auto& c = theme::colours();
    const double x = x_of(season_->now_h);
    if (x < rule_.left() - 1 || x > rule_.right() + 1) return;
    p.setPen(QPen(c.madder, 1.4));
    p.drawLine(QPointF(x, rule_.top() - 4), QPointF(x, hours_.top() - 2));
    // The string hangs true: a plumb bob at its end.
    p.setBrush(c.madder);
    p.setPen(Qt::NoPen);
    p.drawPolygon(QPolygonF{{x - 4, hours_.top() - 2}, {x + 4, hours_.top() - 2}, {x, hours_.top() + 8}});
    p.setFont(theme::text(9.5));
    p.setPen(c.madder);
    p.drawText(QPointF(x + 8, hours_.top() + theme::grown(8)),
               tr("today, %1").arg(QLocale().toString(qdate(season_->today), QStringLiteral("ddd d MMM"))));
}

void DaysSticks::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const auto& c = theme::colours();
    p.fillRect(rect(), c.bench);
    if (!season_) return;
    lay_out();
    p.setRenderHint(QPainter::Antialiasing);
    draw_rule(p);
    for (const Lane& l : lanes_) draw_lane(p, l);
    draw_hours(p);
    draw_today(p);
    if (hasFocus() && picked_.isEmpty()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.brass, 1));
        p.drawRect(rect().adjusted(1, 1, -2, -2));
    }
}

QString DaysSticks::at(QPointF where) const {
    QString best;
    double least = 1e18;
    for (const Lane& l : lanes_)
        for (const Operation& o : l.job->operations) {
            const QRectF box = place(key_of(*l.job, o)).adjusted(-1, -2, 1, o.aside ? theme::grown(7) : 2);
            if (!box.contains(where)) continue;
            // Hands lie above waiting; what stands out below is taken there.
            const bool below = where.y() > l.wood.bottom() - l.wood.height() * 0.3;
            const double size = box.width() + (o.aside != below ? 1e6 : 0) + (where.x() > x_of(o.hands_end_h) + 2 ? 1e4 : 0);
            if (size < least) least = size, best = key_of(*l.job, o);
        }
    return best;
}

void DaysSticks::pick(const QString& operation) {
    if (operation == picked_) return;
    picked_ = operation;
    update();
    Q_EMIT picked_changed(picked_);
}

void DaysSticks::mousePressEvent(QMouseEvent* e) {
    if (e->button() != Qt::LeftButton || !season_) return;
    setFocus();
    const QPointF where = e->position();
    if (QRectF(rule_.left(), rule_.top() - theme::grown(22), rule_.width(), rule_.height() + theme::grown(22)).contains(where)) {
        const double h = from_h_ + (where.x() - rule_.left()) / rule_.width() * (to_h_ - from_h_);
        Q_EMIT date_clicked(QString::fromStdString(season_->date(h)));
        return;
    }
    held_ = at(where);
    moved_ = false;
    panning_ = held_.isEmpty();
    pan_x_ = where.x();
    held_at_ = where.x() - place(held_).left();
    pick(held_);
}

void DaysSticks::mouseMoveEvent(QMouseEvent* e) {
    if (!season_) return;
    if (panning_ && (e->buttons() & Qt::LeftButton)) {
        const double by = (pan_x_ - e->position().x()) / rule_.width() * (to_h_ - from_h_);
        pan_x_ = e->position().x();
        return show_span(from_h_ + by, to_h_ + by);
    }
    if (held_.isEmpty() || !(e->buttons() & Qt::LeftButton)) {
        setCursor(at(e->position()).isEmpty() ? Qt::ArrowCursor : Qt::OpenHandCursor);
        return;
    }
    const double x = e->position().x() - held_at_;
    if (!moved_ && std::abs(x - place(held_).left()) < 6) return;
    moved_ = true;
    setCursor(Qt::ClosedHandCursor);
    const double h = from_h_ + (x - rule_.left()) / rule_.width() * (to_h_ - from_h_);
    Q_EMIT dragged(held_, QString::fromStdString(season_->date(std::max(0.0, h))), false);
}

void DaysSticks::mouseReleaseEvent(QMouseEvent* e) {
    if (!season_) return;
    if (!held_.isEmpty() && moved_) {
        const double h = from_h_ + (e->position().x() - held_at_ - rule_.left()) / rule_.width() * (to_h_ - from_h_);
        Q_EMIT dragged(held_, QString::fromStdString(season_->date(std::max(0.0, h))), true);
    }
    held_.clear();
    moved_ = panning_ = false;
    setCursor(Qt::ArrowCursor);
}

void DaysSticks::step(int jobs, int operations) {
    if (!season_ || lanes_.empty()) return;
    int lane = 0, op = -1;
    for (int i = 0; i < static_cast<int>(lanes_.size()); ++i)
        for (int k = 0; k < static_cast<int>(lanes_[static_cast<std::size_t>(i)].job->operations.size()); ++k)
            if (key_of(*lanes_[static_cast<std::size_t>(i)].job,
                       lanes_[static_cast<std::size_t>(i)].job->operations[static_cast<std::size_t>(k)]) == picked_)
                lane = i, op = k;
    lane = std::clamp(lane + jobs, 0, static_cast<int>(lanes_.size()) - 1);
    const JobDays& j = *lanes_[static_cast<std::size_t>(lane)].job;
    if (j.operations.empty()) return;
    op = std::clamp(jobs != 0 ? 0 : op + operations, 0, static_cast<int>(j.operations.size()) - 1);
    const Operation& o = j.operations[static_cast<std::size_t>(op)];
    // What is gone to is in sight.
    if (o.start_h < from_h_ || o.start_h > to_h_) {
        const double span = to_h_ - from_h_;
        show_span(o.start_h - span / 3, o.start_h + 2 * span / 3);
    }
    pick(key_of(j, o));
}

void DaysSticks::keyPressEvent(QKeyEvent* e) {
    const bool with = e->modifiers() & Qt::AltModifier;
    switch (e->key()) {
        case Qt::Key_Right: return step(0, 1);
        case Qt::Key_Left: return step(0, -1);
        case Qt::Key_Down: return with ? Q_EMIT turn_wanted(1) : step(1, 0);
        case Qt::Key_Up: return with ? Q_EMIT turn_wanted(-1) : step(-1, 0);
        case Qt::Key_Return:
        case Qt::Key_Enter: return picked_.isEmpty() ? void() : Q_EMIT tick_wanted(picked_);
        case Qt::Key_Plus:
        case Qt::Key_Equal:
        case Qt::Key_Minus: {
            const QRectF there = place(picked_);
            const double about =
                there.isEmpty() ? (from_h_ + to_h_) / 2 : from_h_ + (there.left() - rule_.left()) / rule_.width() * (to_h_ - from_h_);
            return zoom(e->key() == Qt::Key_Minus ? 1 / 1.6 : 1.6, std::clamp(about, from_h_, to_h_));
        }
        case Qt::Key_Escape:
            if (!picked_.isEmpty()) return pick({});
            break;
        default: break;
    }
    QWidget::keyPressEvent(e);
}

bool DaysSticks::event(QEvent* e) {
    if (e->type() == QEvent::ToolTip && season_) {
        const auto* help = static_cast<QHelpEvent*>(e);
        const QString key = at(help->pos());
        for (const Lane& l : lanes_)
            for (const Operation& o : l.job->operations)
                if (key_of(*l.job, o) == key) {
                    QToolTip::showText(help->globalPos(),
                                       QStringLiteral("%1 · %2").arg(
                                           told(o.label), QLocale().toString(qdate(season_->date(o.start_h)), QStringLiteral("ddd d MMM"))),
                                       this);
                    return true;
                }
        QToolTip::hideText();
        return true;
    }
    return QWidget::event(e);
}

}  // namespace yb
