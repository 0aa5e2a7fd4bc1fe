#include "app/bench/wood_face.h"

#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <cstdint>

#include "app/theme/theme.h"
#include "core/tree/noise.h"

namespace yb {

namespace {

std::uint32_t seed_of(const std::string& s) {
    std::uint32_t h = 2166136261U;
    for (const char c : s) h = (h ^ static_cast<std::uint8_t>(c)) * 16777619U;
    return h;
}

QRgb mix(const QColor& a, const QColor& b, double t, double light) {
    const auto channel = [&](int x, int y) { return std::clamp(static_cast<int>((x + (y - x) * t) * light), 0, 255); };
    return qRgb(channel(a.red(), b.red()), channel(a.green(), b.green()), channel(a.blue(), b.blue()));
}

}  // namespace

WoodTone tone_of(const std::string& s) {
    const auto has = [&](const char* w) { return s.find(w) != std::string::npos; };
    if (has("walnut")) return {QColor("#A07A58"), QColor("#6B4A33"), QColor("#3D2A1C")};
    if (has("cherry") || has("redwood") || has("cedar")) return {QColor("#CE9A72"), QColor("#A86F4B"), QColor("#5A3825")};
    if (has("butternut") || has("chestnut") || has("oak") || has("elm")) return {QColor("#CFAE80"), QColor("#A98353"), QColor("#5C4630")};
    if (has("maple") || has("birch") || has("basswood") || has("poplar")) return {QColor("#E3CDA4"), QColor("#C9A675"), QColor("#6B5438")};
    if (has("hackberry") || has("ash")) return {QColor("#DCC79C"), QColor("#B59B6C"), QColor("#635136")};
    return {QColor("#DDBF8F"), QColor("#BC9260"), QColor("#5C4630")};
}

QImage draw_face(const Slab& slab, const SlabShape& shape, const BenchMap& map, double ratio) {
    QImage image((map.plan.size() * ratio).toSize(), QImage::Format_ARGB32_Premultiplied);
    image.setDevicePixelRatio(ratio);
    image.fill(Qt::transparent);
    const WoodTone tone = tone_of(slab.species);
    const std::uint32_t seed = seed_of(slab.tree + slab.species);
    const double pith = std::abs(slab.pith_mm.value_or(110));
    const double ring = 11;
    struct Knot {
        Vec2 at;
        double radius;
    };
    std::vector<Knot> knots;
    for (const Flaw& f : slab.flaws)
        if (f.kind == FlawKind::knot && f.outline.size() > 2) knots.push_back({centroid(f.outline), std::sqrt(area(f.outline) / 3.14159)});
    const QPolygonF outline = map.px(shape.ring_a);
    const Vec2 heart = centroid(shape.ring_a);  // of a cross-cut
    const QRectF box = outline.boundingRect();
    for (int j = 0; j < image.height(); ++j) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(j));
        const double ypx = map.plan.top() + j / ratio;
        if (ypx < box.top() - 2 || ypx > box.bottom() + 2) continue;
        for (int i = 0; i < image.width(); ++i) {
            const Vec2 p = map.mm_at(QPointF(map.plan.left() + i / ratio, ypx));
            double y = p.y + 14 * noise(p.x / 900, 0.3, seed) + 5 * noise(p.x / 260, p.y / 200, seed + 1);
            double around = 0;
            for (const Knot& k : knots) {
                const Vec2 d = p - k.at;
                const double r2 = (d.x * d.x / 9 + d.y * d.y) / (k.radius * k.radius);
                around += std::exp(-r2 / 2.2);
                y += d.y * 0.6 * std::exp(-r2 / 3);
            }
            // The stem tapers: rings run out along the face as the arches of flat-sawn wood.
            const double h = pith + 0.028 * p.x + 22 * noise(p.x / 800, 0.7, seed + 2);
            const double from_pith = slab.cross_cut ? length(p - heart) : std::sqrt(y * y + h * h);
            const double r = from_pith + 2.2 * noise(p.x / 120, p.y / 30, seed + 3) + 26 * around;
            const double years = r / (ring * (1 + 0.25 * noise(r / 60, 0.1, seed + 4)));
            const double in_year = years - std::floor(years);
            const double late = std::pow(in_year, 3.2) * (in_year > 0.97 ? (1 - in_year) / 0.03 : 1);
            const double fibre = noise(p.x / 55, p.y / 1.3, seed + 5) * 0.035;
            const double patch = noise(p.x / 400, p.y / 140, seed + 6) * 0.04;
            const double dark = std::clamp(0.12 + 0.72 * late + 0.6 * std::min(1.0, around) * 0.8, 0.0, 1.0);
            line[i] = mix(tone.early, tone.late, dark, 1 + fibre + patch);
        }
    }
    QImage mask(image.size(), QImage::Format_ARGB32_Premultiplied);
    mask.setDevicePixelRatio(ratio);
    mask.fill(Qt::transparent);
    {
        QPainter m(&mask);
        m.setRenderHint(QPainter::Antialiasing);
        m.translate(-map.plan.topLeft());
        m.setBrush(Qt::black);
        m.setPen(Qt::NoPen);
        m.drawPolygon(outline);
    }
    QPainter p(&image);
    p.setCompositionMode(QPainter::CompositionMode_DestinationIn);
    p.drawImage(0, 0, mask);
    return image;
}

void draw_end_grain(QPainter& painter, const Slab& slab, const SlabShape& shape, const BenchMap& map, const QPolygonF& section) {
    const WoodTone tone = tone_of(slab.species);
    painter.save();
    QPainterPath clip;
    clip.addPolygon(section);
    painter.setClipPath(clip, Qt::IntersectClip);
    painter.setBrush(tone.early);
    painter.setPen(Qt::NoPen);
    painter.drawPolygon(section);
    if (slab.cross_cut) {  // its fibres stand upright
        QColor fibre = tone.late;
        fibre.setAlpha(110);
        painter.setPen(QPen(fibre, 1));
        const QRectF box = section.boundingRect();
        // From face to face, however the end view lies.
        if (map.end_on_edge)
            for (double y = box.top() + 3; y < box.bottom(); y += 5) painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
        else
            for (double x = box.left() + 3; x < box.right(); x += 5) painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
        painter.restore();
        return;
    }
    const double thickness = shape.thickness_at({map.gauge_mm, 0});
    const double pith = std::abs(slab.pith_mm.value_or(110));
    // The pith lies below the middle of the slab, under the chalk line.
    const QPointF centre = map.end_px(0, thickness / 2 - pith);
    QColor line = tone.late;
    line.setAlpha(150);
    painter.setPen(QPen(line, 1));
    painter.setBrush(Qt::NoBrush);
    for (double r = 11; r < 1400; r += 11) {
        const double k = r * map.end_scale;
        if (map.end_on_edge) painter.drawEllipse(centre, k * map.end_rise, k);
        else painter.drawEllipse(centre, k, k * map.end_rise);
    }
    painter.restore();
}

}  // namespace yb
