#include "app/kit/bench/wood_face.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>
#include <vector>

#include "app/ground/theme/theme.h"
#include "core/ground/geometry/noise.h"

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

/// A face that nobody photographed: rings of a stem cut at the slab's distance from the pith.
class DrawnWood {
  public:
    DrawnWood(const Slab& slab, const SlabShape& shape)
        : tone_(theme::tone_of(slab.species)),
          seed_(seed_of(slab.tree + slab.species)),
          pith_(std::abs(slab.pith_mm.value_or(110))),
          cross_cut_(slab.cross_cut),
          heart_(centroid(shape.ring_a)) {
        for (const Flaw& f : slab.flaws)
            if (f.kind == FlawKind::knot && f.outline.size() > 2)
                knots_.push_back({centroid(f.outline), std::sqrt(area(f.outline) / std::numbers::pi)});
    }

    QRgb at(Vec2 p) const {
        double y = p.y + 14 * noise(p.x / 900, 0.3, seed_) + 5 * noise(p.x / 260, p.y / 200, seed_ + 1);
        double around = 0;
        for (const Knot& k : knots_) {
            const Vec2 d = p - k.at;
            const double r2 = (d.x * d.x / 9 + d.y * d.y) / (k.radius * k.radius);
            around += std::exp(-r2 / 2.2);
            y += d.y * 0.6 * std::exp(-r2 / 3);
        }
        // The stem tapers: rings run out along the face as the arches of flat-sawn wood.
        constexpr double ring = 11;
        const double h = pith_ + 0.028 * p.x + 22 * noise(p.x / 800, 0.7, seed_ + 2);
        const double from_pith = cross_cut_ ? length(p - heart_) : std::sqrt(y * y + h * h);
        const double r = from_pith + 2.2 * noise(p.x / 120, p.y / 30, seed_ + 3) + 26 * around;
        const double years = r / (ring * (1 + 0.25 * noise(r / 60, 0.1, seed_ + 4)));
        const double in_year = years - std::floor(years);
        const double late = std::pow(in_year, 3.2) * (in_year > 0.97 ? (1 - in_year) / 0.03 : 1);
        const double fibre = noise(p.x / 55, p.y / 1.3, seed_ + 5) * 0.035;
        const double patch = noise(p.x / 400, p.y / 140, seed_ + 6) * 0.04;
        const double dark = std::clamp(0.12 + 0.72 * late + 0.6 * std::min(1.0, around) * 0.8, 0.0, 1.0);
        return mix(tone_.early, tone_.late, dark, 1 + fibre + patch);
    }

    /// Whether both draw the same wood at every place.
    bool same_as(const DrawnWood& o) const {
        return seed_ == o.seed_ && pith_ == o.pith_ && cross_cut_ == o.cross_cut_ && tone_.early == o.tone_.early &&
               tone_.late == o.tone_.late && (!cross_cut_ || heart_ == o.heart_) &&
               std::equal(knots_.begin(), knots_.end(), o.knots_.begin(), o.knots_.end(),
                          [](const Knot& x, const Knot& y) { return x.at == y.at && x.radius == y.radius; });
    }

  private:
    struct Knot {
        Vec2 at;
        double radius;
    };
    theme::WoodTone tone_;
    std::uint32_t seed_;
    double pith_;
    bool cross_cut_;
    Vec2 heart_;  ///< of a cross-cut
    std::vector<Knot> knots_;
};

/// Wood that was drawn lately, on a lattice of the slab's own: a slab whose outline is typed or dragged shows the same wood, and
/// only its edge is cut anew. Row J and column I of it lie at (I, −J)/scale on the slab.
struct Lately {
    DrawnWood wood;
    double scale;  ///< device pixels a mm
    QRect where;
    QImage image;
};

/// @param need rows and columns of the lattice.
const Lately& drawn(const DrawnWood& wood, double scale, const QRect& need) {
    constexpr std::size_t most = 8;
    static thread_local std::vector<Lately> all;
    const auto it = std::find_if(all.begin(), all.end(), [&](const Lately& l) { return l.scale == scale && l.wood.same_as(wood); });
    if (it != all.end() && it->where.contains(need)) {
        std::rotate(it, it + 1, all.end());
        return all.back();
    }
    if (it != all.end()) all.erase(it);
    if (all.size() >= most) all.erase(all.begin());
    const QRect where = need.adjusted(-24, -24, 24, 24);
    QImage image(where.size(), QImage::Format_ARGB32_Premultiplied);
    for (int j = 0; j < where.height(); ++j) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(j));
        for (int i = 0; i < where.width(); ++i) line[i] = wood.at({(where.left() + i) / scale, -(where.top() + j) / scale});
    }
    all.push_back({wood, scale, where, std::move(image)});
    return all.back();
}

}  // namespace

void paint_face(QPainter& p, const Slab& slab, const SlabShape& shape, const BenchMap& map, double ratio) {
    const QPolygonF outline = map.px(shape.ring_a);
    const double scale = map.scale * ratio;
    // Where the picture's first pixel lies on the wood's lattice, and what of it the outline needs.
    const Vec2 first = map.mm_at(map.plan.topLeft());
    const QPoint at(static_cast<int>(std::lround(first.x * scale)), static_cast<int>(std::lround(-first.y * scale)));
    const QRectF box = outline.boundingRect().translated(-map.plan.topLeft()).adjusted(-2, -2, 2, 2);
    const QRect need =
        QRectF(box.topLeft() * ratio, box.size() * ratio).toAlignedRect().intersected({QPoint(0, 0), (map.plan.size() * ratio).toSize()});
    if (need.isEmpty()) return;
    const Lately& wood = drawn(DrawnWood(slab, shape), scale, need.translated(at));
    QBrush brush(wood.image);
    const QPoint corner = wood.where.topLeft() - at;
    brush.setTransform(QTransform(1 / ratio, 0, 0, 1 / ratio, map.plan.left() + corner.x() / ratio, map.plan.top() + corner.y() / ratio));
    p.save();
    p.setPen(Qt::NoPen);
    p.setBrush(brush);
    p.setClipRect(map.plan, Qt::IntersectClip);
    p.drawPolygon(outline);
    p.restore();
}

QImage draw_face(const Slab& slab, const SlabShape& shape, const BenchMap& map) {
    QImage image(map.plan.size().toSize(), QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    p.translate(-map.plan.topLeft());
    paint_face(p, slab, shape, map, 1);
    return image;
}

QRgb FaceLine::at(double across) const {
    if (colours.empty()) return theme::colours().wood_unseen.rgb();
    const auto i = static_cast<std::ptrdiff_t>(std::lround((across - from) / step));
    return colours[static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(i, 0, static_cast<std::ptrdiff_t>(colours.size()) - 1))];
}

FaceLine face_line(const Slab& slab, const SlabShape& shape, const std::function<Vec2(double across)>& at, double from, double to,
                   const QImage& picture) {
    FaceLine out{from, 1.5, {}};
    const auto n = static_cast<std::size_t>(std::clamp((to - from) / out.step + 1, 2.0, 4000.0));
    out.colours.reserve(n);
    if (picture.isNull() || !slab.picture_a) {
        const DrawnWood wood(slab, shape);
        for (std::size_t i = 0; i < n; ++i) out.colours.push_back(wood.at(at(from + static_cast<double>(i) * out.step)));
        return out;
    }
    const FacePicture& place = *slab.picture_a;
    // A small copy has fewer pixels and shows the same length of slab.
    const double mm_per_px = place.mm_per_px * static_cast<double>(std::max(place.width_px, picture.width())) / picture.width();
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 p = at(from + static_cast<double>(i) * out.step);
        const double down = (place.mirrored ? p.y - place.corner.y : place.corner.y - p.y) / mm_per_px;
        const int col = std::clamp(static_cast<int>((p.x - place.corner.x) / mm_per_px), 0, picture.width() - 1);
        out.colours.push_back(picture.pixel(col, std::clamp(static_cast<int>(down), 0, picture.height() - 1)));
    }
    return out;
}

void draw_end_grain(QPainter& painter, const Slab& slab, const SlabShape& shape, const BenchMap& map, const QPolygonF& section,
                    const FaceLine& line, const std::function<Vec2(double across)>& at) {
    const QRectF box = section.boundingRect();
    const QSize size(static_cast<int>(std::ceil(box.width())) + 1, static_cast<int>(std::ceil(box.height())) + 1);
    if (box.width() > 4000 || box.height() > 4000) return;
    QImage image(size, QImage::Format_RGB32);
    // Where the chalk line, and the pith with it, is met across; the pith lies below the middle of the slab.
    const double a0 = at(0).y;
    const double slope = at(1).y - a0;
    const double heart = std::abs(slope) > 1e-9 ? -a0 / slope : 0;
    const double top = shape.top.at(at(heart));
    const double centre = top - shape.thickness_at(at(heart)) / 2 - slab.pith_mm.value_or(110);
    const double reach = top - centre;
    const theme::WoodTone tone = theme::tone_of(slab.species);
    // The face about the heart, on the whole.
    double sum[3] = {};
    for (int k = -20; k <= 20; ++k) {
        const QRgb c = line.at(heart + 2.0 * k);
        sum[0] += qRed(c), sum[1] += qGreen(c), sum[2] += qBlue(c);
    }
    const QColor core = QColor(static_cast<int>(sum[0] / 41), static_cast<int>(sum[1] / 41), static_cast<int>(sum[2] / 41)).lighter(104);
    for (int j = 0; j < size.height(); ++j) {
        auto* row = reinterpret_cast<QRgb*>(image.scanLine(j));
        for (int i = 0; i < size.width(); ++i) {
            const Vec2 p = map.end_mm_at({box.left() + i, box.top() + j});
            if (slab.cross_cut) {
                row[i] = line.at(p.x);
                continue;
            }
            const double dy = p.x - heart;
            const double dz = p.y - centre;
            const double out2 = dy * dy + dz * dz - reach * reach;  // of where this ring comes out on the face, from the heart, squared
            if (out2 >= 0) {
                row[i] = line.at(heart + (dy < 0 ? -1 : 1) * std::sqrt(out2));
                continue;
            }
            // It does not come out there: the colour of the face's middle, darker towards the end of each year.
            const double years = std::sqrt(dy * dy + dz * dz) / 9;
            const double in = years - std::floor(years);
            row[i] = mix(core, tone.late, 0.55 * in * in * in, 1);
        }
    }
    painter.save();
    QPainterPath clip;
    clip.addPolygon(section);
    painter.setClipPath(clip, Qt::IntersectClip);
    painter.drawImage(box.topLeft(), image);
    painter.restore();
}

}  // namespace yb
