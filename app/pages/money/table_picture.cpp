#include "app/pages/money/table_picture.h"

#include <algorithm>
#include <cmath>

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/join/join.h"
#include "core/steps/skin/look.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

QColor dimmed(const QColor& c, double light) {
    return QColor::fromRgbF(static_cast<float>(c.redF() * light), static_cast<float>(c.greenF() * light),
                            static_cast<float>(c.blueF() * light), c.alphaF());
}

/// What the maker calls the colour, where that is a colour's name; else the program's own resin.
QColor resin_colour(const Job& job) {
    const QColor named(QString::fromStdString(job.pour.colour).toLower().remove(' '));
    return named.isValid() ? named : theme::colours().resin;
}

QColor finished(QColor wood, const Job& job) {
    const auto left = left_of_light(look_of(job.skin.finish, job.skin.sheen));
    return QColor::fromRgbF(static_cast<float>(wood.redF() * left[0]), static_cast<float>(wood.greenF() * left[1]),
                            static_cast<float>(wood.blueF() * left[2]));
}

}  // namespace

QImage finished_top(TopPicture& tops, const Plan& plan, const Job& job, double px_mm, Vec2* corner) {
    const Top& top = *plan.top;
    const Box b = bounds(top.above);
    *corner = {b.low.x, b.high.y};
    QImage image(std::max(1, static_cast<int>(std::ceil(b.width() * px_mm))), std::max(1, static_cast<int>(std::ceil(b.height() * px_mm))),
                 QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    const auto px = [&](Vec2 uv) { return QPointF((uv.x - corner->x) * px_mm, (corner->y - uv.y) * px_mm); };
    const auto path_of = [&](const Ring& ring) {
        QPolygonF poly;
        for (const Vec2 q : ring) poly << px(q);
        QPainterPath path;
        path.addPolygon(poly);
        path.closeSubpath();
        return path;
    };
    const QColor resin = resin_colour(job);
    for (const Region& r : top.regions) {
        if (r.kind == RegionKind::air || r.above.size() < 3) continue;
        p.save();
        if (r.kind == RegionKind::leaf && r.index < plan.leaves.size() && r.index < job.leaves.size()) {
            p.setClipPath(path_of(r.above));
            const LeafPlan& l = plan.leaves[r.index];
            tops.leaf(p, l.slab(), l.shape(), job.leaves[r.index].placement, px_mm, 1, px_mm < 0.25, px);
        } else if (r.kind == RegionKind::resin) {
            p.setPen(Qt::NoPen);
            p.setBrush(resin);
            p.drawPath(path_of(r.above));
            if (!r.let_in && r.below.size() > 2) {
                // Where the banks lean in below it they show through its colour, the nearer to the face the clearer.
                p.setClipPath(path_of(r.above));
                const QPainterPath banks = path_of(r.above).subtracted(path_of(r.below));
                QColor wood = finished(theme::colours().wood_edge, job);
                wood.setAlphaF(0.42F);
                p.setBrush(wood);
                p.drawPath(banks);
            }
        } else {
            p.setPen(Qt::NoPen);
            p.setBrush(r.species ? theme::tone_of(r.species->name).early : theme::colours().wood);
            p.drawPath(path_of(r.above));
        }
        p.restore();
    }
    p.setPen(QPen(theme::colours().wood_edge, std::max(0.6, 1.2 * px_mm)));
    p.setBrush(dimmed(theme::colours().wood_edge, 1.15));
    for (const BowTie& t : job.join.ties)
        if (t.from_above) p.drawPath(path_of(outline_of(t)));
    // The finish: wood gives back less light, resin is polished with it.
    const auto left = left_of_light(look_of(job.skin.finish, job.skin.sheen));
    p.setCompositionMode(QPainter::CompositionMode_Multiply);
    p.setPen(Qt::NoPen);
    p.setBrush(QColor::fromRgbF(static_cast<float>(left[0]), static_cast<float>(left[1]), static_cast<float>(left[2])));
    for (const Region& r : top.regions)
        if (r.wood() && r.above.size() > 2) p.drawPath(path_of(r.above));
    p.setCompositionMode(QPainter::CompositionMode_DestinationIn);
    p.setBrush(Qt::black);
    QPainterPath all = path_of(top.above);
    for (const Region& r : top.regions)
        if (r.kind == RegionKind::air && r.above.size() > 2) all = all.subtracted(path_of(r.above));
    QImage mask(image.size(), QImage::Format_ARGB32_Premultiplied);
    mask.fill(Qt::transparent);
    {
        QPainter m(&mask);
        m.setRenderHint(QPainter::Antialiasing);
        m.fillPath(all, Qt::black);
    }
    p.drawImage(0, 0, mask);
    return image;
}

QImage table_picture(const Plan& plan, const Job& job, const QImage& flat, Vec2 corner, double px_mm, const Eye& eye, bool chair,
                     bool ground) {
    const auto& c = theme::colours();
    QImage image(static_cast<int>(eye.width_px), static_cast<int>(eye.height_px), QImage::Format_ARGB32_Premultiplied);
    image.fill(ground ? c.paper : QColor(Qt::transparent));
    const SceneBox room = box_of(plan, job, chair);
    const Camera camera(eye, room.low, room.high);
    const Scene scene = scene_of(plan, job, camera, chair);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    const auto poly = [&](const std::vector<Vec3>& at) {
        QPolygonF out;
        for (const Vec3& q : at) {
            const Vec2 v = camera.px(q);
            out << QPointF(v.x, v.y);
        }
        return out;
    };
    if (ground) {
        p.setPen(Qt::NoPen);
        QColor shade = c.ink;
        shade.setAlpha(26);
        p.setBrush(shade);
        for (const auto& s : scene.shadows) {
            QPolygonF on;
            for (const Vec2 v : s) on << QPointF(v.x, v.y);
            p.drawPolygon(on);
        }
    }
    const QColor base_wood = finished(c.wood_edge.lighter(150), job), chair_wood = c.faint;
    const auto faces = [&](const std::vector<SceneFace>& all) {
        for (const SceneFace& f : all) {
            QColor ink = f.what == SceneFace::What::chair       ? chair_wood
                         : f.what == SceneFace::What::base      ? base_wood
                         : f.what == SceneFace::What::rim_resin ? resin_colour(job)
                                                                : c.wood;
            if (f.what == SceneFace::What::rim_wood) {
                const Region& r = plan.top->regions[f.region];
                ink = finished(r.species ? theme::tone_of(r.species->name).edge : c.wood_edge, job);
            }
            ink = dimmed(ink, f.light);
            p.setBrush(ink);
            p.setPen(QPen(ink, 0.7));
            p.drawPolygon(poly(f.at));
        }
    };
    if (ground) faces(scene.behind);
    faces(scene.rims);
    const auto m = camera.level(scene.top_z);
    // From the flat picture's pixels to the top's frame, then to what is seen.
    const QTransform to_top(1 / px_mm, 0, 0, 0, -1 / px_mm, 0, corner.x, corner.y, 1);
    const QTransform seen(m[0], m[3], m[6], m[1], m[4], m[7], m[2], m[5], m[8]);
    p.save();
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.setTransform(to_top * seen);
    p.drawImage(0, 0, flat);
    p.restore();
    if (ground) {
        // The window's light along the upper face.
        QPolygonF upper;
        for (const Vec2 q : plan.top->above) {
            const Vec2 v = camera.px({q.x, q.y, scene.top_z});
            upper << QPointF(v.x, v.y);
        }
        const double shine = look_of(job.skin.finish, job.skin.sheen).shine;
        QLinearGradient lit(upper.boundingRect().topLeft(), upper.boundingRect().bottomRight());
        QColor clear = c.slip, bright = c.slip;
        clear.setAlpha(0), bright.setAlphaF(static_cast<float>(0.08 + 0.22 * shine));
        lit.setColorAt(0, bright), lit.setColorAt(0.45, clear);
        p.setPen(Qt::NoPen);
        p.setBrush(lit);
        p.drawPolygon(upper);
        faces(scene.before);
    }
    return image;
}

TablePicture::TablePicture(Pictures& pictures, QWidget* parent) : QWidget(parent), tops_(pictures) {
    setObjectName("table_picture");
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(320, 200);
    setCursor(Qt::OpenHandCursor);
    setAccessibleName(tr("The table as it will look; the arrow keys turn it"));
    connect(&pictures, &Pictures::arrived, this, [this](const QString& key) {
        tops_.forget(key);
        flat_ = {};
        update();
    });
}

void TablePicture::show_table(std::shared_ptr<const Plan> plan, std::shared_ptr<const Job> job) {
    plan_ = std::move(plan), job_ = std::move(job);
    if (plan_ && (!plan_->top || !plan_->top->ready)) plan_.reset();
    flat_ = {};
    update();
}

void TablePicture::from_above(bool above) {
    above_ = above;
    update();
}

void TablePicture::with_chair(bool chair) {
    chair_ = chair;
    update();
}

const QImage& TablePicture::flat(double px_mm) {
    if (flat_.isNull() || flat_scale_ < px_mm * 0.99) {
        flat_scale_ = px_mm;
        flat_ = finished_top(tops_, *plan_, *job_, px_mm, &corner_);
    }
    return flat_;
}

QImage TablePicture::picture(QSize size) {
    if (!plan_ || size.isEmpty()) return {};
    const Box b = bounds(plan_->top->above);
    const double px_mm = std::min(1.2, size.width() / std::max(1.0, b.width()));
    const QImage& face = flat(px_mm);
    if (above_) {
        QImage image(size, QImage::Format_ARGB32_Premultiplied);
        image.fill(theme::colours().paper);
        QPainter p(&image);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        const QSizeF fits = QSizeF(face.size()).scaled(QSizeF(size) * 0.92, Qt::KeepAspectRatio);
        p.drawImage(QRectF(QPointF((size.width() - fits.width()) / 2, (size.height() - fits.height()) / 2), fits), face);
        return image;
    }
    Eye eye = eye_;
    eye.width_px = size.width(), eye.height_px = size.height();
    return table_picture(*plan_, *job_, face, corner_, flat_scale_, eye, chair_);
}

void TablePicture::paintEvent(QPaintEvent*) {
    QPainter p(this);
    if (!plan_) {
        p.fillRect(rect(), theme::colours().paper);
        p.setPen(theme::colours().pencil);
        p.setFont(theme::text(11));
        p.drawText(rect(), Qt::AlignCenter, tr("Nothing to show yet: measure, lay and flatten the top first."));
        return;
    }
    p.drawImage(rect(), picture(size()));
}

void TablePicture::turn(double by, double lift) {
    eye_.turn_deg = std::remainder(eye_.turn_deg + by, 360);
    eye_.lift_deg = std::clamp(eye_.lift_deg + lift, 6.0, 80.0);
    update();
}

void TablePicture::mousePressEvent(QMouseEvent* e) { held_ = e->position(); }

void TablePicture::mouseMoveEvent(QMouseEvent* e) {
    const QPointF by = e->position() - held_;
    held_ = e->position();
    turn(-by.x() * 0.4, by.y() * 0.3);
}

void TablePicture::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Left) return turn(-6, 0);
    if (e->key() == Qt::Key_Right) return turn(6, 0);
    if (e->key() == Qt::Key_Up) return turn(0, 4);
    if (e->key() == Qt::Key_Down) return turn(0, -4);
    QWidget::keyPressEvent(e);
}

}  // namespace yb
