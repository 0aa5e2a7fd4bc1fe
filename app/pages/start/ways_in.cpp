#include "app/pages/start/ways_in.h"

#include <cmath>

#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>

#include "app/ground/theme/theme.h"
#include "app/pages/start/start_card.h"

namespace yb {

namespace {

/// The outline of a slab in a box, an edge with a swing in it.
QPolygonF outline(const QRectF& box) {
    QPolygonF out;
    constexpr int n = 24;
    for (int i = 0; i <= n; ++i) out << QPointF(box.left() + box.width() * i / n, box.top() + 5 * std::sin(i * 0.55));
    for (int i = n; i >= 0; --i) out << QPointF(box.left() + box.width() * i / n, box.bottom() + 5 * std::sin(i * 0.4 + 1));
    return out;
}

QRectF inside(const QRectF& box) { return box.adjusted(30, box.height() * 0.24, -30, -box.height() * 0.24); }

/// A chalk line and stations across it, with the distances to both edges.
void draw_tape(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    const QRectF in = inside(box);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(c.wood_edge, 1.4));
    p.setBrush(c.wood);
    p.drawPolygon(outline(in));
    p.setPen(QPen(c.slip, 1.6, Qt::DashLine));
    p.drawLine(QPointF(in.left(), in.center().y()), QPointF(in.right(), in.center().y()));
    p.setPen(QPen(c.chalk, 1.4));
    for (int i = 0; i < 5; ++i) {
        const double x = in.left() + in.width() * (i + 0.5) / 5;
        p.drawLine(QPointF(x, in.top() + 4), QPointF(x, in.bottom() - 2));
        p.setBrush(c.chalk);
        p.drawEllipse(QPointF(x, in.center().y()), 2.2, 2.2);
    }
}

/// A picture askew, its four marks, the outline in it.
void draw_photograph(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF in = box.adjusted(box.width() * 0.18, 14, -box.width() * 0.18, -14);
    p.setPen(QPen(c.ink, 1.2));
    p.setBrush(c.photo_ground);
    p.drawRect(in);
    p.setPen(QPen(c.slip, 1.4));
    p.setBrush(c.wood);
    p.save();
    p.translate(in.center());
    p.rotate(-7);
    p.drawPolygon(outline(QRectF(-in.width() * 0.38, -in.height() * 0.2, in.width() * 0.76, in.height() * 0.4)));
    p.restore();
    p.setPen(QPen(c.brass, 2));
    for (const QPointF& q : {in.topLeft() + QPointF(14, 12), in.topRight() + QPointF(-14, 12), in.bottomLeft() + QPointF(14, -12),
                             in.bottomRight() + QPointF(-14, -12)}) {
        p.drawLine(q - QPointF(6, 0), q + QPointF(6, 0));
        p.drawLine(q - QPointF(0, 6), q + QPointF(0, 6));
    }
}

/// Points over a slab.
void draw_scan(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF in = inside(box);
    QPainterPath slab;
    slab.addPolygon(outline(in));
    p.setPen(Qt::NoPen);
    p.setBrush(c.wood_edge);
    for (double x = in.left(); x < in.right(); x += 6)
        for (double y = in.top() - 8; y < in.bottom() + 8; y += 5)
            if (slab.contains(QPointF(x, y))) p.drawEllipse(QPointF(x + 1.5 * std::sin(y), y + std::sin(x * 0.7)), 1.1, 1.1);
}

/// An outline with its points.
void draw_drawing(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    p.setRenderHint(QPainter::Antialiasing);
    const QPolygonF line = outline(inside(box));
    p.setPen(QPen(c.chalk, 1.8));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(line);
    p.setBrush(c.slip);
    p.setPen(QPen(c.chalk, 1));
    for (int i = 0; i < line.size(); i += 6) p.drawRect(QRectF(line[i] - QPointF(2.5, 2.5), QSizeF(5, 5)));
}

/// A page with a line a slab.
void draw_list(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF page = box.adjusted(box.width() * 0.26, 10, -box.width() * 0.26, -10);
    p.setPen(QPen(c.ink, 1.2));
    p.setBrush(c.slip);
    p.drawRect(page);
    const double row = page.height() / 6;
    for (int i = 0; i < 5; ++i) {
        const double y = page.top() + row * (i + 0.75);
        p.setPen(QPen(c.wood_edge, 1));
        p.setBrush(c.wood);
        p.drawRect(QRectF(page.left() + 10, y, page.width() * (0.34 - 0.05 * (i % 3)), row * 0.55));
        p.setPen(QPen(c.pencil, 1.2));
        for (const double from : {0.5, 0.72})
            p.drawLine(QPointF(page.left() + page.width() * from, y + row * 0.3),
                       QPointF(page.left() + page.width() * (from + 0.16), y + row * 0.3));
    }
}

/// The end of a log, where the saw will go.
void draw_log_end(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    p.setRenderHint(QPainter::Antialiasing);
    const double r = box.height() * 0.42;
    p.setPen(QPen(c.wood_edge, 2.4));
    p.setBrush(c.wood);
    p.drawEllipse(box.center(), r * 1.05, r);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.brass, 0.9));
    for (double ring = 6; ring < r - 2; ring += 7) p.drawEllipse(box.center() + QPointF(3, 2), ring * 1.05, ring);
    p.setPen(QPen(c.chalk, 1.3, Qt::DashLine));
    for (int k = -2; k <= 2; ++k) {
        const double y = box.center().y() + k * r * 0.36;
        p.drawLine(QPointF(box.center().x() - r * 1.3, y), QPointF(box.center().x() + r * 1.3, y));
    }
}

}  // namespace

WaysIn::WaysIn(QWidget* parent) : QWidget(parent) {
    setObjectName("ways_in");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(36, 30, 36, 24);
    auto* head = new QLabel(tr("The rack is empty: how does the first slab come in?"));
    head->setObjectName("ways_in_head");
    head->setFont(theme::figures(18, true));
    box->addWidget(head);
    auto* body = new QLabel(
        tr("Slabs stand here with what is known of each, to choose by. Nothing has to be complete: type what you have, the rest later."));
    body->setWordWrap(true);
    body->setFont(theme::text(11));
    box->addWidget(body);
    box->addSpacing(12);
    auto* grid = new QGridLayout;
    grid->setSpacing(20);
    constexpr int high = 104;
    auto* tape_card =
        new StartCard("way_tape", tr("Measure it with a tape"), tr("A chalk line, both edges at each station."), draw_tape, high);
    tape_card->set_next(true);
    auto* photo =
        new StartCard("way_photograph", tr("Photograph it"), tr("With something of known size beside it."), draw_photograph, high);
    auto* scan_card = new StartCard("way_scan", tr("Bring a scan"), tr("Points as PLY, XYZ or CSV."), draw_scan, high);
    auto* drawing_card = new StartCard("way_drawing", tr("Bring a drawing"), tr("A closed outline as SVG or DXF."), draw_drawing, high);
    auto* list_card =
        new StartCard("way_list", tr("Bring a stock list"), tr("A line a slab, as CSV from a yard or a spreadsheet."), draw_list, high);
    auto* log_card = new StartCard("way_log", tr("Grow a log"), tr("Yours by its measures, or one to practise on."), draw_log_end, high);
    connect(tape_card, &QAbstractButton::clicked, this, &WaysIn::tape);
    connect(photo, &QAbstractButton::clicked, this, &WaysIn::photograph);
    connect(scan_card, &QAbstractButton::clicked, this, &WaysIn::scan);
    connect(drawing_card, &QAbstractButton::clicked, this, &WaysIn::drawing);
    connect(list_card, &QAbstractButton::clicked, this, &WaysIn::list);
    connect(log_card, &QAbstractButton::clicked, this, &WaysIn::log);
    int i = 0;
    for (StartCard* card : {tape_card, photo, scan_card, drawing_card, list_card, log_card}) {
        card->setMinimumHeight(high + theme::grown(84));
        grid->addWidget(card, i / 3, i % 3);
        ++i;
    }
    box->addLayout(grid);
    setFocusProxy(tape_card);
    box->addStretch(1);
}

}  // namespace yb
