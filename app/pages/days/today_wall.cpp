#include "app/pages/days/today_wall.h"

#include <cmath>

#include <QDate>
#include <QKeyEvent>
#include <QLocale>
#include <QPainter>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"

namespace yb {

TodayWall::TodayWall(const Season& season, const Units& units, QWidget* parent)
    : QWidget(parent, Qt::Window), season_(season), units_(units) {
    setObjectName("today_wall");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Today"));
    show_day(0);
}

void TodayWall::show_day(int by) {
    by_ = by;
    const std::string day = season_.today.empty() ? season_.start : season_.today;
    today_ = today_of(season_, date_after(day, by * 24.0));
    QStringList said;
    for (const TodayLine& l : today_.hands) said << QStringLiteral("%1: %2").arg(QString::fromStdString(l.job), told(l.label));
    setAccessibleName(said.isEmpty() ? tr("nothing that wants hands") : said.join(QStringLiteral("; ")));
    update();
}

void TodayWall::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Right) return show_day(by_ + 1);
    if (e->key() == Qt::Key_Left) return show_day(by_ - 1);
    close();
}

void TodayWall::paintEvent(QPaintEvent*) {
    const auto& c = theme::colours();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), c.paper);
    const double side = width() * 0.05;
    // As large as lets all of it stand on the wall.
    const std::size_t rows = today_.hands.size() + today_.set_going.size() + today_.order_by.size() + 4;
    const double tall = std::min(height() * 0.12, (height() * 0.9) / static_cast<double>(rows));
    double y = height() * 0.05;
    const auto font = [&](double share, bool slab) {
        QFont f = slab ? theme::figures(12) : theme::text(12);
        f.setPixelSize(std::max(9, static_cast<int>(tall * share)));
        return f;
    };
    const auto line = [&](const QString& left, const QString& text, const QString& right, const QColor& ink, double share) {
        p.setFont(font(share, true));
        p.setPen(c.brass_dark);
        const double column = width() * 0.13;
        p.drawText(QRectF(side, y, column, tall), Qt::AlignLeft | Qt::AlignVCenter, left);
        p.setPen(c.pencil);
        p.setFont(font(share * 0.7, false));
        const double end = QFontMetricsF(p.font()).horizontalAdvance(right);
        p.drawText(QRectF(width() - side - end, y, end, tall), Qt::AlignRight | Qt::AlignVCenter, right);
        p.setPen(ink);
        p.setFont(font(share, false));
        const QRectF at(side + column, y, width() - 2 * side - column - end - 12, tall);
        p.drawText(at, Qt::AlignLeft | Qt::AlignVCenter, p.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(at.width())));
        y += tall;
    };
    const auto clock = [](double h) {
        const int minutes = static_cast<int>(std::lround(h * 60));
        return QStringLiteral("%1:%2").arg(minutes / 60).arg(minutes % 60, 2, 10, QLatin1Char('0'));
    };
    const auto as = [&](Quantity q) { return QString::fromStdString(format(q, units_)); };
    p.setFont(font(0.8, true));
    p.setPen(c.ink);
    p.drawText(QRectF(side, y, width() - 2 * side, tall), Qt::AlignLeft | Qt::AlignVCenter,
               QLocale().toString(QDate::fromString(QString::fromStdString(today_.date), Qt::ISODate), QStringLiteral("dddd d MMMM")));
    y += tall * 1.15;
    if (today_.hands.empty()) line({}, tr("nothing that wants hands"), {}, c.pencil, 0.55);
    for (const TodayLine& l : today_.hands)
        line(clock(l.from_h), QStringLiteral("%1  ·  %2").arg(told(l.label), QString::fromStdString(l.job)), as(hours(l.hands_h)), c.ink,
             0.55);
    if (!today_.set_going.empty()) {
        y += tall * 0.3;
        line({}, tr("Before going home"), {}, c.chalk, 0.5);
        for (const TodayLine& l : today_.set_going)
            line({}, QStringLiteral("%1  ·  %2").arg(told(l.label), QString::fromStdString(l.job)),
                 tr("waits %1").arg(as(hours(l.waits_h))), c.ink, 0.5);
    }
    for (const TodayLine& l : today_.order_by)
        line({}, tr("%1, %2").arg(told(l.label), QString::fromStdString(l.job)),
             tr("by %1").arg(QLocale().toString(QDate::fromString(QString::fromStdString(l.by), Qt::ISODate), QStringLiteral("ddd d MMM"))),
             c.madder, 0.5);
}

}  // namespace yb
