#include "app/kit/bench/step_view.h"

#include <QPainterPath>

#include <algorithm>
#include <optional>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/wood_face.h"

namespace yb {

QString StepView::empty_text(const Session& s) const {
    if (!s.slab()) return QObject::tr("No slab is on the bench yet.\nGo to Rack and choose one for this job.");
    return QObject::tr("The slab has no shape yet.\nGo to Rack and type its tape table.");
}

std::vector<Action> applying(std::vector<Action> all, const Session& s) {
    const QString about = s.about();
    std::erase_if(all, [&](const Action& a) { return !a.strong && (!a.enabled || !a.of.split(' ').contains(about)); });
    return all;
}

namespace draw {

namespace {

/// A dimension's figure: its box about the middle of the line, and how it is turned.
struct Stands {
    QTransform turn;
    QRectF box;
};

std::optional<Stands> stands(QPointF a, QPointF b, const QString& text, double off) {
    const QLineF line(a, b);
    if (line.length() < 4) return {};
    const QLineF n = line.normalVector().unitVector();
    const QPointF middle = (a + b) / 2 + QPointF(n.dx(), n.dy()) * off;
    double angle = -line.angle();
    if (angle < -90 && angle > -270) angle += 180;
    const QFontMetricsF fm(theme::figures(9.5));
    const QRectF box(0, 0, fm.horizontalAdvance(text) + 8, fm.height());
    return Stands{QTransform::fromTranslate(middle.x(), middle.y()).rotate(angle), box.translated(-box.width() / 2, -box.height() / 2)};
}

QRectF box_of(const Label& l) {
    return QFontMetricsF(theme::text(9.5)).boundingRect(QRectF(0, 0, 320, 200), Qt::TextWordWrap, l.text).adjusted(-7, -3, 7, 3);
}

}  // namespace

QPolygonF dimension_place(QPointF a, QPointF b, const QString& text, double off) {
    const auto s = stands(a, b, text, off);
    return s ? s->turn.map(QPolygonF(s->box)) : QPolygonF();
}

QPolygonF dimension(QPainter& p, QPointF a, QPointF b, const QString& text, double off) {
    const auto& c = theme::colours();
    const auto at = stands(a, b, text, off);
    if (!at) return {};
    const QLineF line(a, b);
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
    for (const auto& [end, dir] : {std::pair(a2, t), std::pair(b2, -t)}) {
        p.drawLine(end, end + dir * 7 + n * 3);
        p.drawLine(end, end + dir * 7 - n * 3);
    }
    p.save();
    p.setFont(theme::figures(9.5));
    p.setTransform(at->turn, true);
    p.fillRect(at->box, c.slip);
    p.setPen(c.ink);
    p.drawText(at->box, Qt::AlignCenter, text);
    p.restore();
    return at->turn.map(QPolygonF(at->box));
}

std::vector<QRectF> room_for(const std::vector<Label>& labels, const QRectF& within, std::vector<QRectF> taken) {
    std::vector<std::size_t> order(labels.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return labels[a].weight > labels[b].weight; });
    std::vector<QRectF> out(labels.size());
    for (const std::size_t i : order) {
        const QRectF box = box_of(labels[i]);
        const QPointF at = labels[i].at;
        const double w = box.width();
        const double h = box.height();
        // Beside the place first, then further and further away.
        for (const double far : {12.0, 26.0, 44.0, 66.0, 92.0, 120.0}) {
            const QPointF tries[] = {{far, -far - h},    {far, far},    {-far - w, -far - h}, {-far - w, far},
                                     {-w / 2, -far - h}, {-w / 2, far}, {far, -h / 2},        {-far - w, -h / 2}};
            for (const QPointF& by : tries) {
                const QRectF r(at + by, box.size());
                if (!within.contains(r)) continue;
                if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& t) { return t.intersects(r.adjusted(-3, -2, 3, 2)); }))
                    continue;
                out[i] = r;
                break;
            }
            if (!out[i].isEmpty()) break;
        }
        if (!out[i].isEmpty()) taken.push_back(out[i]);
    }
    return out;
}

void tag(QPainter& p, const Label& label, const QRectF& r) {
    const auto& c = theme::colours();
    p.setFont(theme::text(9.5));
    p.setPen(QPen(label.edge, 1.5));
    p.drawLine(label.at, QPointF(std::clamp(label.at.x(), r.left() + 6, r.right() - 6), std::clamp(label.at.y(), r.top(), r.bottom())));
    p.setBrush(c.slip);
    p.drawRoundedRect(r, 2, 2);
    p.setPen(c.ink);
    p.drawText(r.adjusted(7, 3, -6, -3), Qt::TextWordWrap, label.text);
}

namespace {

/// A line drawn from left to right with as few of its points as it takes to look the same.
QPolygonF straightened(const QPolygonF& line) {
    constexpr double off_px = 0.12;
    constexpr double any = 1e9;
    QPolygonF out{line.front()};
    double least = -any;
    double most = any;
    for (qsizetype i = 1; i < line.size(); ++i) {
        const QPointF run = line[i] - out.back();
        if (const double slope = run.y() / run.x(); slope < least || slope > most) out << line[i - 1], least = -any, most = any;
        const QPointF from_kept = line[i] - out.back();
        least = std::max(least, (from_kept.y() - off_px) / from_kept.x());
        most = std::min(most, (from_kept.y() + off_px) / from_kept.x());
    }
    out << line.back();
    return out;
}

}  // namespace

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
    line = straightened(line);
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
        QColor fill = f.kind == FlawKind::crack || f.kind == FlawKind::void_ ? c.crack : c.flaw;
        if (f.kind == FlawKind::soft) fill = c.soft;
        if (f.kind == FlawKind::knot) fill = c.knot;
        p.setPen(QPen(c.flaw_rim, 1));
        p.setBrush(fill);
        p.drawPolygon(poly);
        if (f.kind == FlawKind::knot) {
            const QPointF mid = map.px(centroid(f.outline));
            for (const double k : {0.66, 0.36}) {
                QPolygonF inner;
                for (const QPointF& q : poly) inner << mid + (q - mid) * k;
                p.setBrush(c.knot_heart);
                p.drawPolygon(inner);
            }
        }
    }
}

namespace {

/// The edges as the light falls on them, so that a slab reads as thick: what faces it is bright, what turns away lies in its own
/// shade; seen where the underside stands out beyond the show face.
void leaning_edges(QPainter& p, const BenchMap& map, const SlabShape& shape, const theme::WoodTone& tone, Vec2 light) {
    const std::size_t n = shape.ring_a.size();
    if (n < 3 || shape.ring_b.size() != n) return;
    // In steps of light that no eye tells apart: neighbours of one step are one piece.
    constexpr int steps = 24;
    const auto lit = [&](int step) {
        const double how = static_cast<double>(step) / steps;
        const QColor base = tone.late.darker(122);
        return how > 0 ? base.lighter(100 + static_cast<int>(24 * how)) : base.darker(100 + static_cast<int>(-60 * how));
    };
    p.save();
    p.setRenderHint(QPainter::Antialiasing, false);  // no seams between the pieces
    p.setPen(Qt::NoPen);
    const QPolygonF a = map.px(shape.ring_a);
    const QPolygonF b = map.px(shape.ring_b);
    int step = 0;
    std::size_t begin = 0, end = 0;  // stretches [begin, end) of one step
    const auto paint = [&] {
        // A piece whose two edges lie on one another is not seen.
        bool seen = false;
        QPolygonF piece;
        for (std::size_t k = begin; k <= end; ++k) {
            const auto at = static_cast<qsizetype>(k % n);
            seen = seen || (a[at] - b[at]).manhattanLength() > 0.4;
            piece << a[at];
        }
        for (std::size_t k = end + 1; k-- > begin;) piece << b[static_cast<qsizetype>(k % n)];
        if (begin == end || !seen) return;
        p.setBrush(lit(step));
        p.drawPolygon(piece);
    };
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 along = shape.ring_a[(i + 1) % n] - shape.ring_a[i];
        const int here =
            length(along) < 1e-6 ? step : static_cast<int>(std::lround(dot(Vec2{along.y, -along.x} * (1 / length(along)), light) * steps));
        if (here != step) {
            paint();
            step = here, begin = i;
        }
        end = i + 1;
    }
    paint();
    p.restore();
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(tone.edge, 1));
    p.drawPolygon(map.px(shape.ring_b));
}

}  // namespace

void shadow(QPainter& p, const BenchMap& map, const SlabShape& shape) {
    // Soft as it is, a third of the pixels each way holds it.
    constexpr double coarse = 3;
    const QRectF all = map.px(shape.ring_a).boundingRect().united(map.px(shape.ring_b).boundingRect()).adjusted(-2, -2, 12, 12);
    QImage soft((all.size() / coarse).toSize() + QSize(1, 1), QImage::Format_ARGB32_Premultiplied);
    soft.fill(Qt::transparent);
    {
        QPainter s(&soft);
        s.scale(1 / coarse, 1 / coarse);
        s.translate(-all.topLeft());
        s.setPen(Qt::NoPen);
        s.setBrush(theme::colours().shadow);
        for (const Ring* ring : {&shape.ring_a, &shape.ring_b}) {
            const QPolygonF edge = fewer(map.px(*ring));
            for (int k = 1; k <= 6; ++k) s.drawPolygon(edge.translated(k * 0.9, k * 1.2));
        }
    }
    p.save();
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.drawImage(QRectF(all.topLeft(), QSizeF(soft.size()) * coarse), soft);
    p.restore();
}

void slab(QPainter& p, const BenchMap& map, Pictures& pictures, const Slab& slab, const SlabShape& shape, double ratio, bool small,
          Vec2 light) {
    const theme::WoodTone tone = theme::tone_of(slab.species);
    const QPolygonF below = map.px(shape.ring_b);
    p.setPen(Qt::NoPen);
    p.setBrush(tone.late.darker(135));
    p.setRenderHint(QPainter::Antialiasing, false);
    p.drawPolygon(below);
    p.setRenderHint(QPainter::Antialiasing, true);
    p.setPen(QPen(tone.edge, 1));
    outline(p, below);
    leaning_edges(p, map, shape, tone, light);
    const auto& shown = slab.picture_a;
    const QImage image = !shown ? QImage() : small ? pictures.thumbnail(shown->key) : pictures.face(shown->key);
    if (image.isNull()) {
        p.setRenderHint(QPainter::Antialiasing, false);  // its edge is below the outline
        paint_face(p, slab, shape, map, ratio);
        p.setRenderHint(QPainter::Antialiasing, true);
    } else {
        // A small copy has fewer pixels and shows the same length of slab.
        FacePicture place = *shown;
        place.mm_per_px *= static_cast<double>(std::max(place.width_px, image.width())) / image.width();
        picture(p, map, image, place, shape.ring_a);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(tone.edge, 1.2));
    outline(p, map.px(shape.ring_a));
    flaws(p, map, slab, !image.isNull());
}

QPolygonF fewer(const QPolygonF& polygon) {
    Ring ring;
    for (const QPointF& q : polygon) ring.push_back({q.x(), q.y()});
    QPolygonF out;
    for (const Vec2 q : simplified(ring, 0.25)) out << QPointF(q.x, q.y);
    return out;
}

void outline(QPainter& p, const QPolygonF& all) {
    constexpr double longest = 40;
    const QPolygonF polygon = fewer(all);
    QPen flat = p.pen();
    flat.setCapStyle(Qt::FlatCap);
    p.save();
    p.setPen(flat);
    QPolygonF piece;
    double run = 0;
    for (qsizetype i = 0; i <= polygon.size() && !polygon.isEmpty(); ++i) {
        const QPointF to = polygon[i % polygon.size()];
        if (piece.isEmpty()) {
            piece << to;
            continue;
        }
        const QPointF from = piece.last();
        const double side = std::hypot(to.x() - from.x(), to.y() - from.y());
        const int parts = std::max(1, static_cast<int>(std::ceil(side / longest)));
        for (int k = 1; k <= parts; ++k) {
            piece << from + (to - from) * (static_cast<double>(k) / parts);
            if ((run += side / parts) < longest) continue;
            p.drawPolyline(piece);
            // Ends are cut square, and the next piece reaches a little under this one: no seam, no knob.
            piece = {piece.last() - (to - from) * (0.4 / std::max(0.4, side)), piece.last()};
            run = 0;
        }
    }
    if (piece.size() > 1) {
        // Round the corner where it began.
        const QPointF way = polygon[1] - polygon[0];
        piece << polygon[0] + way * (1 / std::max(1.0, std::hypot(way.x(), way.y())));
        p.drawPolyline(piece);
    }
    p.restore();
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
