#include "app/bench/step_view.h"

#include <QPainterPath>

#include "app/bench/wood_face.h"
#include "app/session/pictures.h"
#include "app/theme/theme.h"

namespace yb {

QString StepView::empty_text(const Session& s) const {
    if (!s.slab()) return QObject::tr("No slab is on the bench yet.\nGo to Rack and choose one for this job.");
    return QObject::tr("The slab has no shape yet.\nGo to Rack and type its tape table.");
}

std::vector<PickField> leaf_picks(const Session& s) {
    if (!s.leaves() || s.leaves()->size() < 2) return {};
    const std::vector<Leaf>& leaves = *s.leaves();
    QStringList names;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const auto it = s.slabs().find(leaves[i].slab);
        names << QObject::tr("%1 · %2").arg(i + 1).arg(it == s.slabs().end() ? QObject::tr("not there")
                                                                             : QString::fromStdString(it->second.name));
    }
    return {{"leaf", QObject::tr("Leaf on the bench"), names, [](const Session& now) { return now.leaf(); },
             [](Session& now, int i) { now.set_leaf(i); }}};
}

namespace draw {

QPolygonF dimension(QPainter& p, QPointF a, QPointF b, const QString& text, double off) {
    const auto& c = theme::colours();
    const QLineF line(a, b);
    if (line.length() < 4) return {};
    QPointF n(line.normalVector().unitVector().dx(), line.normalVector().unitVector().dy());
    const QPointF a2 = a + n * off;
    const QPointF b2 = b + n * off;
    p.setPen(QPen(c.pencil, 1));
    if (off != 0) {
        p.drawLine(a + n * (off > 0 ? 3 : -3), a2 + n * (off > 0 ? 4 : -4));
        p.drawLine(b + n * (off > 0 ? 3 : -3), b2 + n * (off > 0 ? 4 : -4));
    }
    p.drawLine(a2, b2);
    const QPointF t = QPointF(line.unitVector().dx(), line.unitVector().dy());
    for (const auto& [at, dir] : {std::pair(a2, t), std::pair(b2, -t)}) {
        p.drawLine(at, at + dir * 7 + n * 3);
        p.drawLine(at, at + dir * 7 - n * 3);
    }
    p.setFont(theme::figures(9.5));
    const QFontMetricsF fm(p.font());
    const QRectF box(0, 0, fm.horizontalAdvance(text) + 8, fm.height());
    p.save();
    p.translate((a2 + b2) / 2);
    double angle = -line.angle();
    if (angle < -90 && angle > -270) angle += 180;
    p.rotate(angle);
    const QRectF r = box.translated(-box.width() / 2, -box.height() / 2);
    p.fillRect(r, c.slip);
    p.setPen(c.ink);
    p.drawText(r, Qt::AlignCenter, text);
    const QPolygonF place = p.transform().map(QPolygonF(r));
    p.restore();
    return place;
}

void tag(QPainter& p, QPointF at, const QString& text, const QRectF& within, const QColor& edge) {
    const auto& c = theme::colours();
    p.setFont(theme::text(9.5));
    const QFontMetricsF fm(p.font());
    QRectF r = fm.boundingRect(QRectF(0, 0, 320, 200), Qt::TextWordWrap, text).adjusted(-8, -4, 8, 4);
    r.moveBottomLeft(at + QPointF(14, -14));
    if (r.right() > within.right()) r.moveRight(std::min(within.right(), at.x() - 14));
    if (r.left() < within.left()) r.moveLeft(within.left());
    if (r.top() < within.top()) r.moveTop(at.y() + 14);
    p.setPen(QPen(edge, 1.5));
    p.drawLine(at, QPointF(std::clamp(at.x(), r.left() + 8, r.right() - 8), r.center().y() > at.y() ? r.top() : r.bottom()));
    p.setBrush(c.slip);
    p.drawRoundedRect(r, 2, 2);
    p.setPen(c.ink);
    p.drawText(r.adjusted(8, 4, -8, -4), Qt::TextWordWrap, text);
}

void strip_line(QPainter& p, const BenchMap& map, double x0, double x1, double low, double high, const std::function<double(double)>& value,
                const QPen& pen, const QBrush& below) {
    if (x1 <= x0 || high <= low) return;
    QPolygonF line;
    const int n = std::max(2, static_cast<int>((x1 - x0) * map.scale / 4));
    for (int i = 0; i <= n; ++i) {
        const double x = x0 + (x1 - x0) * i / n;
        const double t = std::clamp((value(x) - low) / (high - low), -0.05, 1.05);
        line << QPointF(map.px(x), map.strip.bottom() - t * map.strip.height());
    }
    if (below.style() != Qt::NoBrush) {
        QPolygonF area = line;
        area << QPointF(map.px(x1), map.strip.bottom()) << QPointF(map.px(x0), map.strip.bottom());
        p.setPen(Qt::NoPen);
        p.setBrush(below);
        p.drawPolygon(area);
    }
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(line);
}

void picture(QPainter& p, const BenchMap& map, const QImage& image, const FacePicture& place, const Ring& outline) {
    p.save();
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    QPainterPath clip;
    clip.addPolygon(map.px(outline));
    clip.closeSubpath();
    p.setClipPath(clip);
    const double k = place.mm_per_px * map.scale;
    const QPointF corner = map.px(place.corner);
    p.translate(corner);
    p.scale(k, place.mirrored ? -k : k);
    // Shrunk a lot, a picture is first made small whole: single pixels would flicker.
    QImage shown = image;
    while (k * (image.width() / static_cast<double>(shown.width())) < 0.5 && shown.width() > 16)
        shown = shown.scaledToWidth(shown.width() / 2, Qt::SmoothTransformation);
    p.drawImage(QRectF(0, 0, image.width(), image.height()), shown);
    p.restore();
}

void flaws(QPainter& p, const BenchMap& map, const Slab& slab, bool over_picture) {
    const auto& c = theme::colours();
    for (const Flaw& f : slab.flaws) {
        const QPolygonF poly = map.px(f.outline);
        if (f.face == Face::b && !f.through) {
            p.setPen(QPen(c.wood_edge, 1.2, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            p.drawPolygon(poly);
            continue;
        }
        if (over_picture) {
            p.setPen(QPen(c.slip, 2.4));
            p.setBrush(Qt::NoBrush);
            p.drawPolygon(poly);
            p.setPen(QPen(c.madder, 1));
            p.drawPolygon(poly);
            continue;
        }
        QColor fill = f.kind == FlawKind::crack || f.kind == FlawKind::void_ ? QColor(44, 32, 22, 225) : QColor(86, 58, 34, 200);
        if (f.kind == FlawKind::soft) fill = QColor(120, 104, 70, 120);
        if (f.kind == FlawKind::knot) fill = QColor(92, 58, 32, 190);
        p.setPen(QPen(QColor(44, 32, 22), 1));
        p.setBrush(fill);
        p.drawPolygon(poly);
        if (f.kind == FlawKind::knot) {
            const QPointF mid = map.px(centroid(f.outline));
            for (const double k : {0.66, 0.36}) {
                QPolygonF inner;
                for (const QPointF& q : poly) inner << mid + (q - mid) * k;
                p.setBrush(QColor(70, 42, 22, 150));
                p.drawPolygon(inner);
            }
        }
    }
}

void slab(QPainter& p, const BenchMap& map, Pictures& pictures, const Slab& slab, const SlabShape& shape, double ratio, bool small) {
    const WoodTone tone = tone_of(slab.species);
    p.setPen(QPen(tone.edge, 1));
    p.setBrush(tone.late.darker(135));
    p.drawPolygon(map.px(shape.ring_b));
    const auto& shown = slab.picture_a;
    const QImage image = !shown ? QImage() : small ? pictures.thumbnail(shown->key) : pictures.face(shown->key);
    if (image.isNull()) {
        p.drawImage(map.plan.topLeft(), draw_face(slab, shape, map, ratio));
    } else {
        // A small copy has fewer pixels and shows the same length of slab.
        FacePicture place = *shown;
        place.mm_per_px *= static_cast<double>(std::max(place.width_px, image.width())) / image.width();
        picture(p, map, image, place, shape.ring_a);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(tone.edge, 1.6));
    p.drawPolygon(map.px(shape.ring_a));
    flaws(p, map, slab, !image.isNull());
}

QPolygonF fewer(const QPolygonF& polygon) {
    Ring ring;
    for (const QPointF& q : polygon) ring.push_back({q.x(), q.y()});
    QPolygonF out;
    for (const Vec2 q : simplified(ring, 0.25)) out << QPointF(q.x, q.y);
    return out;
}

void dim_outside(QPainter& p, const BenchMap& map, const Ring& keep) {
    // The veil has the bench's own colour: over bare bench it is not seen, so no outline has to be cut.
    QPainterPath veil;
    veil.setFillRule(Qt::OddEvenFill);
    veil.addRect(map.plan.adjusted(0, -10, 0, 10));
    veil.addPolygon(fewer(map.px(keep)));
    QColor colour = theme::colours().bench;
    colour.setAlpha(150);
    p.fillPath(veil, colour);
}

}  // namespace draw

}  // namespace yb
