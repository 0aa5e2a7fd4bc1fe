#include "app/steps/sheets/tiled_pdf.h"

#include <QBuffer>
#include <QPainter>
#include <QPdfWriter>

#include <cmath>

#include "app/ground/session/whole_file.h"

namespace yb {

QString write_tiled_pdf(const QString& path, const std::vector<DrawnPath>& paths, const QString& title, bool letter) {
    Ring all;
    for (const DrawnPath& p : paths) all.insert(all.end(), p.points.begin(), p.points.end());
    if (all.empty()) return QObject::tr("There is nothing to draw.");
    constexpr double margin = 12;   // that printers leave white
    constexpr double overlap = 10;  // of one page on the next
    const QPageSize page(letter ? QPageSize::Letter : QPageSize::A4);
    const QSizeF size = page.size(QPageSize::Millimeter);
    const QSizeF inside(size.width() - 2 * margin, size.height() - 2 * margin);
    const Box b = bounds(all);
    const auto pages = [&](double length, double room) {
        return std::max(1, static_cast<int>(std::ceil((length + 2 - overlap) / (room - overlap))));
    };
    const int columns = pages(b.width(), inside.width());
    const int rows = pages(b.height(), inside.height());
    if (columns * rows > 400)
        return QObject::tr("That would be %1 pages. Draw it as SVG or DXF for a plotter instead.").arg(columns * rows);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setResolution(600);
        pdf.setPageSize(page);
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
        pdf.setTitle(title);
        QPainter p(&pdf);
        p.scale(600 / 25.4, 600 / 25.4);
        for (int row = 0; row < rows; ++row)
            for (int column = 0; column < columns; ++column) {
                if (row + column > 0) pdf.newPage();
                const double x0 = b.low.x - 1 + column * (inside.width() - overlap);
                const double y0 = b.high.y + 1 - row * (inside.height() - overlap);
                const auto px = [&](Vec2 q) { return QPointF(margin + q.x - x0, margin + y0 - q.y); };
                p.save();
                p.setClipRect(QRectF(margin, margin, inside.width(), inside.height()));
                for (const DrawnPath& d : paths) {
                    QPolygonF line;
                    for (const Vec2 q : d.points) line << px(q);
                    p.setBrush(Qt::NoBrush);
                    p.setPen(QPen(Qt::black, d.layer == "joint" || d.layer == "template" || d.layer == "top" ? 0.35 : 0.18,
                                  d.layer == "joint" ? Qt::DashLine : Qt::SolidLine));
                    d.closed ? p.drawPolygon(line) : p.drawPolyline(line);
                }
                p.restore();
                // Crosses at the corners of what the next page repeats.
                p.setPen(QPen(Qt::black, 0.15));
                for (const double cx : {margin + overlap / 2, margin + inside.width() - overlap / 2})
                    for (const double cy : {margin + overlap / 2, margin + inside.height() - overlap / 2}) {
                        p.drawLine(QPointF(cx - 4, cy), QPointF(cx + 4, cy));
                        p.drawLine(QPointF(cx, cy - 4), QPointF(cx, cy + 4));
                    }
                QFont font;
                font.setPointSizeF(3.2);
                font.setPixelSize(3);
                p.setFont(font);
                p.drawText(QRectF(margin, size.height() - margin + 1, inside.width(), 5), Qt::AlignLeft,
                           QObject::tr("%1 · row %2 of %3, column %4 of %5 · lay the crosses on each other")
                               .arg(title)
                               .arg(row + 1)
                               .arg(rows)
                               .arg(column + 1)
                               .arg(columns));
                p.drawLine(QPointF(size.width() - margin - 100, size.height() - margin + 7),
                           QPointF(size.width() - margin, size.height() - margin + 7));
                p.drawText(QRectF(size.width() - margin - 100, size.height() - margin + 2, 100, 5), Qt::AlignRight, QObject::tr("100 mm"));
            }
    }
    return write_whole(path, bytes);
}

}  // namespace yb
