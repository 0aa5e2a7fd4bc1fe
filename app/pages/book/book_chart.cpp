#include "app/pages/book/book_chart.h"

#include <algorithm>
#include <cmath>

#include <QDateTime>
#include <QGraphicsLayout>
#include <QtCharts/QAreaSeries>
#include <QtCharts/QBarCategoryAxis>
#include <QtCharts/QBarSeries>
#include <QtCharts/QBarSet>
#include <QtCharts/QDateTimeAxis>
#include <QtCharts/QLegend>
#include <QtCharts/QLineSeries>
#include <QtCharts/QScatterSeries>
#include <QtCharts/QValueAxis>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "core/ground/calendar/calendar.h"

namespace yb {

BookChart::BookChart(QWidget* parent) : QChartView(parent) {
    setObjectName("book_chart");
    setRenderHint(QPainter::Antialiasing);
    setFrameShape(QFrame::NoFrame);
    setMinimumHeight(theme::grown(220));
    const auto& c = theme::colours();
    chart()->setBackgroundBrush(c.paper);
    chart()->setBackgroundRoundness(0);
    chart()->setPlotAreaBackgroundVisible(false);
    chart()->setMargins({4, 2, 8, 2});
    chart()->layout()->setContentsMargins(0, 0, 0, 0);
    chart()->setTitleFont(theme::figures(12));
    chart()->setTitleBrush(c.ink);
    chart()->legend()->hide();  // what is what stands below the title, in words and marks
}

std::vector<std::pair<double, double>> BookChart::thinned(const std::vector<std::pair<double, double>>& points, int columns) {
    if (columns < 1 || points.size() <= 2 * static_cast<std::size_t>(columns)) return points;
    std::vector<std::pair<double, double>> out;
    const std::size_t each = points.size() / static_cast<std::size_t>(columns) + 1;
    for (std::size_t i = 0; i < points.size(); i += each) {
        const auto from = points.begin() + static_cast<std::ptrdiff_t>(i),
                   to = points.begin() + static_cast<std::ptrdiff_t>(std::min(points.size(), i + each));
        const auto by_y = [](const auto& a, const auto& b) { return a.second < b.second; };
        auto low = std::min_element(from, to, by_y), high = std::max_element(from, to, by_y);
        if (high < low) std::swap(low, high);
        out.push_back(*low);
        if (high != low) out.push_back(*high);
    }
    return out;
}

void BookChart::show_plot(const BookPlot& plot) {
    const auto& c = theme::colours();
    chart()->removeAllSeries();
    for (QAbstractAxis* a : chart()->axes()) {
        chart()->removeAxis(a);
        delete a;
    }
    const QString title = told(plot.title) + (plot.note.empty() ? QString() : QStringLiteral("  –  ") + told(plot.note));
    setAccessibleName(title);
    chart()->setTitle(title);
    if (plot.lines.empty()) return;
    QStringList legend;
    const auto explain = [&](const QString& mark, const QColor& ink, const QString& words) {
        legend << QStringLiteral("<span style='color:%1'>%2</span> %3").arg(ink.name(), mark, words.toHtmlEscaped());
    };
    const auto put_legend = [&] {
        chart()->setTitle(QStringLiteral("%1<br><span style='font-size:small'>%2</span>")
                              .arg(title.toHtmlEscaped(), legend.join(QStringLiteral("&#160;&#160;&#160; "))));
    };
    static const QString shapes[] = {QStringLiteral("●"), QStringLiteral("■"), QStringLiteral("▲"), QStringLiteral("★")};
    const QColor inks[] = {c.chalk, c.brass_dark, c.moss, c.madder};
    // Marks differ by shape as well as by ink.
    constexpr QScatterSeries::MarkerShape marks[] = {QScatterSeries::MarkerShapeCircle, QScatterSeries::MarkerShapeRectangle,
                                                     QScatterSeries::MarkerShapeTriangle, QScatterSeries::MarkerShapeStar};
    double low = 1e300, high = -1e300, left = 1e300, right = -1e300;
    const double start_ms =
        plot.start.empty()
            ? 0
            : static_cast<double>(
                  QDateTime(QDate::fromString(QString::fromStdString(plot.start), Qt::ISODate), QTime(0, 0)).toMSecsSinceEpoch());
    const auto x_of = [&](double x) { return plot.start.empty() ? x : start_ms + x * 86400000.0; };
    const auto seen = [&](double x, double y) {
        low = std::min(low, y), high = std::max(high, y), left = std::min(left, x_of(x)), right = std::max(right, x_of(x));
    };
    const auto dress = [&](QAbstractAxis* a) {
        a->setLabelsFont(theme::text(9));
        a->setLabelsColor(c.pencil);
        a->setLinePenColor(c.faint);
        a->setGridLineVisible(false);
    };
    if (!plot.bars.empty()) {
        auto* bars = new QBarSeries;
        std::size_t n = 0;
        for (const PlotLine& l : plot.lines) {
            auto* set = new QBarSet(told(l.label));
            set->setColor(l.dots ? c.brass : c.rule);
            set->setBorderColor(l.dots ? c.brass_dark : c.faint);
            explain(QStringLiteral("■"), l.dots ? c.brass : c.faint, told(l.label));
            for (const auto& [x, y] : l.points) *set << y, seen(x, y);
            bars->append(set);
            ++n;
        }
        chart()->addSeries(bars);
        auto* names = new QBarCategoryAxis;
        for (const std::string& b : plot.bars) names->append(told(b));
        dress(names);
        names->setLabelsAngle(plot.bars.size() > 5 ? -25 : 0);
        auto* hours = new QValueAxis;
        hours->setRange(0, high * 1.1);
        hours->setLabelFormat(QStringLiteral("%.0f ") + QString::fromStdString(plot.unit));
        dress(hours);
        chart()->addAxis(names, Qt::AlignBottom), chart()->addAxis(hours, Qt::AlignLeft);
        bars->attachAxis(names), bars->attachAxis(hours);
        put_legend();
        return;
    }
    std::vector<QAbstractSeries*> all;
    const int columns = std::max(200, width());
    if (!plot.low.empty()) {
        auto *lower = new QLineSeries, *upper = new QLineSeries;
        for (const auto& [x, y] : plot.low) lower->append(x_of(x), y), seen(x, y);
        for (const auto& [x, y] : plot.high) upper->append(x_of(x), y), seen(x, y);
        auto* band = new QAreaSeries(upper, lower);
        lower->setParent(band), upper->setParent(band);
        explain(QStringLiteral("▒"), c.chalk, tr("how far off it may be"));
        QColor wash = c.chalk;
        wash.setAlpha(28);
        band->setBrush(wash);
        band->setPen(Qt::NoPen);
        all.push_back(band);
    }
    std::size_t i = 0;
    for (const PlotLine& l : plot.lines) {
        QXYSeries* s = nullptr;
        if (l.dots) {
            auto* dots = new QScatterSeries;
            dots->setMarkerShape(marks[i % 4]);
            dots->setMarkerSize(theme::grown(l.points.size() > 200 ? 4 : 8));
            dots->setColor(inks[i % 4]);
            dots->setBorderColor(c.paper);
            s = dots;
            connect(dots, &QXYSeries::clicked, this, [this, ids = l.lines, points = l.points, x_of](const QPointF& at) {
                std::size_t best = 0;
                double near = 1e300;
                for (std::size_t k = 0; k < points.size() && k < ids.size(); ++k)
                    if (const double d = std::abs(x_of(points[k].first) - at.x()) + std::abs(points[k].second - at.y()); d < near)
                        near = d, best = k;
                if (best < ids.size()) Q_EMIT line_picked(ids[best]);
            });
        } else {
            s = new QLineSeries;
            s->setPen(QPen(inks[i % 4], 1.8, i % 2 ? Qt::DashLine : Qt::SolidLine));
        }
        QList<QPointF> points;
        for (const auto& [x, y] : thinned(l.points, columns)) points << QPointF(x_of(x), y), seen(x, y);
        s->replace(points);
        explain(l.dots ? shapes[i % 4] : i % 2 ? QStringLiteral("┄") : QStringLiteral("—"), inks[i % 4], told(l.label));
        all.push_back(s);
        ++i;
    }
    QAbstractAxis* x = nullptr;
    if (plot.start.empty()) {
        auto* hours = new QValueAxis;
        hours->setLabelFormat(QStringLiteral("%.0f h"));
        hours->setRange(left, std::max(right, left + 1));
        x = hours;
    } else {
        auto* dates = new QDateTimeAxis;
        dates->setFormat(right - left > 200.0 * 86400000 ? QStringLiteral("MMM yy") : QStringLiteral("d MMM"));
        dates->setRange(QDateTime::fromMSecsSinceEpoch(static_cast<qint64>(left) - 43200000),
                        QDateTime::fromMSecsSinceEpoch(static_cast<qint64>(std::max(right, left + 86400000)) + 43200000));
        dates->setTickCount(6);
        x = dates;
    }
    auto* y = new QValueAxis;
    const double room = std::max(0.5, (high - low) * 0.12);
    y->setRange(low - room, high + room);
    y->setLabelFormat(((high - low) < 5 ? QStringLiteral("%.1f ") : QStringLiteral("%.0f ")) +
                      (plot.unit == "%" ? QStringLiteral("%%") : QString::fromStdString(plot.unit)));
    y->setTickCount(5);
    dress(x), dress(y);
    chart()->addAxis(x, Qt::AlignBottom), chart()->addAxis(y, Qt::AlignLeft);
    for (QAbstractSeries* s : all) {
        chart()->addSeries(s);
        s->attachAxis(x), s->attachAxis(y);
    }
    put_legend();
}

}  // namespace yb
