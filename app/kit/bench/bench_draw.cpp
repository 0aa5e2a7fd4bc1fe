// What the bench draws: stations, slab or leaves, dimensions, the end view, the gauge.
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <array>
#include <cmath>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/bench.h"
#include "app/kit/bench/top_section.h"
#include "app/kit/bench/wood_face.h"
#include "core/material/slab/slab.h"
#include "core/shop/job/steps.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/patch/patch.h"

namespace yb {

double Bench::station_step() const {
    const bool metric = session_.units().metric_length();
    const double pixels = theme::grown(70);
    static constexpr std::array metric_steps{50.0, 100.0, 200.0, 250.0, 500.0, 1000.0, 2000.0};
    static constexpr std::array inch_steps{76.2, 152.4, 304.8, 609.6, 1219.2};
    const auto pick = [&](const auto& steps) {
        for (const double s : steps)
            if (s * map_.scale >= pixels) return s;
        return steps.back();
    };
    return metric ? pick(metric_steps) : pick(inch_steps);
}

void Bench::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const bool drawable = session_.plan() && session_.plan()->drawable() && view_;
    if (session_.previewing() || !drawable) {
        draw_work(p);
    } else {
        // What is picked or under the hand changes nothing below it.
        const double ratio = devicePixelRatioF();
        if (work_.isNull() || work_.size() != size() * ratio) stale_ = true, work_ = QPixmap(size() * ratio);
        if (std::exchange(stale_, false)) {
            work_.setDevicePixelRatio(ratio);
            QPainter q(&work_);
            q.setRenderHint(QPainter::Antialiasing);
            draw_work(q);
        }
        p.drawPixmap(0, 0, work_);
    }
    if (!drawable) return;
    draw_handles(p);
    draw_outline_so_far(p);
    draw_gauge(p);
}

void Bench::touch() {
    stale_ = true;
    update();
}

void Bench::draw_work(QPainter& p) {
    const auto& c = theme::colours();
    const Plan* plan = session_.plan();
    // A step that looks at one slab has nothing to draw while none is chosen, whatever the job's top is.
    const bool one = view_ && row_of(view_->step()).on == StepRow::On::leaf;
    if (!plan || !plan->drawable() || !view_ || (one && !plan->shape())) {
        p.fillRect(rect(), c.bench);
        p.setPen(c.pencil);
        p.setFont(theme::figures(15, true));
        p.drawText(rect(), Qt::AlignCenter, view_ ? view_->empty_text(session_) : QString());
        return;
    }
    draw_still(p);
    if (session_.whole()) draw_leaves(p);
    draw_patches(p);
    view_->draw_plan(p, map_, session_);
    if (!only() && (plan->whole() || plan->shape()->usable)) {
        p.setFont(theme::text(10));
        p.setPen(c.pencil);
        const QRectF dial = dial_line();
        // What stands there at the gauge is told at the line's other end.
        const double until = dial.isEmpty() ? map_.strip.right() - theme::grown(130)
                                            : dial.left() - p.fontMetrics().horizontalAdvance(view_->dial(session_)->says) - 26;
        p.drawText(QPointF(map_.strip.left(), map_.strip.top() - 7),
                   what_fits(view_->strip_title(session_), p.fontMetrics(), until - map_.strip.left()));
        draw_dial(p);
        p.setPen(QPen(c.rule, 1));
        p.drawLine(map_.strip.bottomLeft(), map_.strip.bottomRight());
        p.setRenderHint(QPainter::Antialiasing, !session_.previewing());  // under the hand quick, at rest fine
        view_->draw_strip(p, map_, session_);
        draw_section(p);
        p.setRenderHint(QPainter::Antialiasing);
    }
    // The gauge's line lies below the figures, its brass above them.
    p.setPen(QPen(c.brass, 1.6));
    p.drawLine(QPointF(map_.px(map_.gauge_mm), flag().bottom()),
               QPointF(map_.px(map_.gauge_mm), only() ? map_.plan.bottom() : map_.strip.bottom() + 6));
    draw_dimensions(p);
}

void Bench::draw_dial(QPainter& p) {
    const QRectF line = dial_line();
    if (line.isEmpty()) return;
    const auto& c = theme::colours();
    const auto dial = view_->dial(session_);
    p.setFont(theme::text(10));
    p.setPen(c.ink);
    p.drawText(QRectF(line.left() - 310, line.top() - 4, 300, line.height() + 8), Qt::AlignRight | Qt::AlignVCenter, dial->says);
    p.setPen(QPen(c.pencil, 1.4));
    const double y = line.center().y();
    p.drawLine(QPointF(line.left(), y), QPointF(line.right(), y));
    if (dial->stops > 1 && dial->stops <= 24)
        for (int i = 0; i <= dial->stops; ++i) {
            const double x = line.left() + line.width() * i / dial->stops;
            p.drawLine(QPointF(x, y - 2.5), QPointF(x, y + 2.5));
        }
    const double x = line.left() + line.width() * session_.dial().value_or(0);
    p.setPen(QPen(c.chalk, 1.4));
    p.setBrush(session_.dial() ? c.chalk : c.slip);
    p.drawEllipse(QPointF(x, y), 5.5, 5.5);
}

void Bench::draw_still(QPainter& p) {
    const StillKey key{session_.slab_version(), size(), map_.scale,        map_.x0_mm,
                       devicePixelRatioF(),     0,      pictures_version_, session_.units()};
    if (!(key == still_for_)) {
        still_for_ = key;
        still_ = QPixmap(size() * key.ratio);
        still_.setDevicePixelRatio(key.ratio);
        still_.fill(theme::colours().bench);
        QPainter q(&still_);
        q.setRenderHint(QPainter::Antialiasing);
        draw_ruler(q);
        if (!session_.whole()) draw_slab(q);
    }
    p.drawPixmap(0, 0, still_);
}

QRectF Bench::flag() const {
    const double w = std::max(64.0, QFontMetricsF(theme::figures(10)).horizontalAdvance(in_units(along(map_.gauge_mm), session_)) + 14);
    return {map_.px(map_.gauge_mm) - w / 2, map_.ruler.bottom() + 13, w,
            1.0 * theme::grown(20)};  // below the rule: its numbers stay in sight
}

/// Dimensions first, each pushed further out while its figure would lie on another's, then labels where they find room.
void Bench::draw_dimensions(QPainter& p) {
    dimensions_.clear();
    std::vector<QRectF> taken{flag()};
    // The strip's title keeps its line.
    if (!only()) taken.emplace_back(map_.strip.left(), map_.strip.top() - theme::grown(19), map_.strip.width(), theme::grown(16));
    for (Dimension& d : view_->dimensions(map_, session_)) {
        const auto value = d.field.get(session_);
        if (!value) continue;
        if (only() && !map_.plan.contains((d.a + d.b) / 2)) continue;
        const QString text = in_units({*value, d.field.kind}, session_);
        const double step = (d.off < 0 ? -1 : 1) * theme::grown(19);
        const auto free = [&](double off) {
            const QRectF box = draw::dimension_place(d.a, d.b, text, off).boundingRect();
            return std::none_of(taken.begin(), taken.end(), [&](const QRectF& t) { return t.intersects(box); });
        };
        // Further out, else on the other side of what it measures.
        double off = d.off;
        for (const double tried : {d.off, d.off + step, d.off + 2 * step, d.off + 3 * step, step - d.off, -d.off - step, -d.off - 2 * step})
            if (free(tried)) {
                off = tried;
                break;
            }
        d.off = off;
        const QPolygonF place = draw::dimension(p, d.a, d.b, text, d.off);
        if (place.isEmpty()) continue;
        taken.push_back(place.boundingRect());
        dimensions_.emplace_back(place, d);
    }
    const std::vector<Label> labels = view_->labels(map_, session_);
    label_places_ = draw::room_for(labels, QRectF(rect()).adjusted(4, map_.ruler.bottom(), -4, map_.plan.bottom() + 14 - height()), taken);
    for (std::size_t i = 0; i < labels.size(); ++i)
        if (!label_places_[i].isEmpty()) draw::tag(p, labels[i], label_places_[i]);
}

void Bench::draw_ruler(QPainter& p) {
    const auto& c = theme::colours();
    const Plan& plan = *session_.plan();
    p.setPen(QPen(c.pencil, 1));
    const double y = map_.ruler.bottom();
    const double x0 = map_.px(plan.stations().from);
    const double x1 = map_.px(plan.stations().to);
    p.drawLine(QPointF(x0, y), QPointF(x1, y));
    p.setFont(theme::figures(9, true));
    const double step = station_step();
    const int minor = 5;
    for (int i = 0;; ++i) {
        const double x = plan.stations().from + i * step / minor;
        if (x > plan.stations().to + 0.5) break;
        const bool major = i % minor == 0;
        p.drawLine(QPointF(map_.px(x), y), QPointF(map_.px(x), y - (major ? 8 : 4)));
        if (!major) continue;
        const QString text = QString::fromStdString(print(along(x), session_.units()).number);
        p.drawText(QRectF(map_.px(x) - 60, y - 10 - theme::grown(16), 120, theme::grown(16)), Qt::AlignCenter, text);
    }
    if (session_.units().metric_length()) p.drawText(QPointF(x1 + 24, y - 12), "m");
}

void Bench::draw_slab(QPainter& p) {
    const Plan& plan = *session_.plan();
    draw::shadow(p, map_, *plan.shape());
    draw::slab(p, map_, pictures_, *plan.slab(), *plan.shape(), devicePixelRatioF(), false, draw::from_the_window);
}

/// The leaves of a whole top, each where it lies.
void Bench::draw_leaves(QPainter& p) {
    const Plan& plan = *session_.plan();
    const double half = session_.top()->length_mm / 2;
    const auto water_of = [&](const JointPlan& j) {
        QPolygonF water;
        for (const Vec2 q : j.water) water << map_.px(q + Vec2{half, 0});
        return water;
    };
    for (const JointPlan& j : plan.makeup->joints) {
        if (!j.river || session_.makeup()->kind != MakeUp::river) continue;
        p.setPen(Qt::NoPen);
        p.setBrush(theme::colours().resin.darker(125));
        p.drawPolygon(water_of(j));
    }
    const auto px = [&](Vec2 uv) { return map_.px(uv + Vec2{half, 0}); };
    const auto leaf = [&](std::size_t i) {
        tops_.leaf(p, plan.leaves[i].slab(), plan.leaves[i].shape(), (*session_.leaves())[i].placement, map_.scale, devicePixelRatioF(),
                   false, px,
                   !session_.previewing());  // under the hand quick, at rest fine
    };
    const bool river = is_river(session_.makeup()->kind);
    const QPolygonF top = draw::fewer(map_.px(plan.lay->outline));
    p.save();
    if (!river) {
        // What lies inside the top is drawn below, each leaf's own part.
        QPainterPath outside;
        outside.addRect(QRectF(rect()));
        outside.addPolygon(top);
        outside.closeSubpath();
        p.setClipPath(outside);
    }
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) leaf(i);
    p.restore();
    if (river) {
        // Clear enough to see the banks go down below it.
        QColor resin = theme::colours().resin;
        resin.setAlpha(135);
        p.setPen(Qt::NoPen);
        p.setBrush(resin);
        for (const JointPlan& j : plan.makeup->joints)
            if (j.river && session_.makeup()->kind == MakeUp::river) p.drawPolygon(water_of(j));
        return;
    }
    // Outside the top whole slabs, inside it only what each has in it.
    p.setPen(Qt::NoPen);
    p.setBrush(theme::colours().bench);
    p.drawPolygon(top);
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) {
        QPolygonF part;
        for (const Vec2 q : plan.makeup->leaves[i].part) part << px(q);
        QPainterPath clip;
        clip.addPolygon(draw::fewer(part));
        clip.closeSubpath();
        p.save();
        p.setRenderHint(QPainter::Antialiasing, false);  // else the bench shines through between two leaves
        p.setClipPath(clip);
        leaf(i);
        p.restore();
    }
}

/// The wood of each patch where it is let in, as it lies on the slab it is cut from.
void Bench::draw_patches(QPainter& p) {
    const Plan& plan = *session_.plan();
    if (!session_.job() || !plan.lay->ready) return;
    const Frame top = plan.placement.frame();
    for (std::size_t i = 0; i < std::min(plan.patches.size(), session_.makeup()->patches.size()); ++i) {
        if (!plan.patches[i]) continue;
        const Patch& patch = session_.makeup()->patches[i];
        QPainterPath clip;
        clip.addPolygon(map_.px(top.to_slab(patch.outline)));
        clip.closeSubpath();
        p.save();
        p.setClipPath(clip);
        tops_.leaf(
            p, plan.patches[i]->up, plan.patches[i]->shape_up, on_patch_slab(patch), map_.scale, devicePixelRatioF(), false,
            [&](Vec2 uv) { return map_.px(top.to_slab(uv)); }, true);
        p.restore();
    }
}

QPolygonF Bench::section() const {
    const Plan& plan = *session_.plan();
    const SlabShape& shape = *plan.shape();
    const double x = std::clamp(map_.gauge_mm, shape.x0 + 0.01, shape.x1 - 0.01);
    return section_of(
        shape,
        [x](double y) {
            return Vec2{x, y};
        },
        cut_at_x(shape.ring_a, x), cut_at_x(shape.ring_b, x));
}

/// A slab cut across: `at` tells the place on it for a place across the end view.
QPolygonF Bench::section_of(const SlabShape& shape, const std::function<Vec2(double)>& at, const std::vector<Span1>& a,
                            const std::vector<Span1>& b) const {
    QPolygonF out;
    if (a.empty() || b.empty()) return out;
    constexpr int n = 24;
    for (int i = 0; i <= n; ++i) {
        const double y = a.front().from + (a.back().to - a.front().from) * i / n;
        out << map_.end_px(y, shape.top.at(at(y)));
    }
    for (int i = n; i >= 0; --i) {
        const double y = b.front().from + (b.back().to - b.front().from) * i / n;
        out << map_.end_px(y, shape.bottom.at(at(y)));
    }
    return out;
}

void Bench::draw_grain(QPainter& p, const Slab& slab, const SlabShape& shape, const QPolygonF& cut, const std::function<Vec2(double)>& at) {
    double from = 1e9;
    double to = -1e9;
    for (const QPointF& q : cut) {
        const double across = map_.end_mm_at(q).x;
        from = std::min(from, across), to = std::max(to, across);
    }
    const QImage picture = slab.picture_a ? pictures_.face(slab.picture_a->key) : QImage();
    draw_end_grain(p, slab, shape, map_, cut, face_line(slab, shape, at, from, to, picture), at);
}

/// The leaves of a whole top cut across at the gauge, as thick as they are now.
void Bench::draw_leaf_sections(QPainter& p) {
    const Plan& plan = *session_.plan();
    const double u = map_.gauge_mm - session_.top()->length_mm / 2;
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) {
        const LeafPlan& l = plan.leaves[i];
        const LeafPart& part = plan.makeup->leaves[i];
        const Frame f = (*session_.leaves())[i].placement.frame();
        const QPolygonF cut = section_of(
            l.shape(),
            [&](double v) {
                return f.to_slab({u, v});
            },
            cut_at_x(part.show, u), cut_at_x(part.under, u));
        if (cut.isEmpty()) continue;
        const theme::WoodTone tone = theme::tone_of(l.slab().species);
        p.setPen(QPen(tone.edge, 1.4));
        p.setBrush(tone.early);
        if (!session_.previewing()) {  // under the hand quick, at rest fine
            draw_grain(p, l.slab(), l.shape(), cut, [&](double v) { return f.to_slab({u, v}); });
            p.setBrush(Qt::NoBrush);
        }
        p.drawPolygon(draw::fewer(cut));
    }
}

void Bench::draw_section(QPainter& p) {
    const auto& c = theme::colours();
    const Plan& plan = *session_.plan();
    p.setFont(theme::text(10));
    p.setPen(c.pencil);
    QString title = tr("end view at %1").arg(in_units(along(map_.gauge_mm), session_));
    if (map_.end_rise != 1) title += tr(" · heights ×%1").arg(map_.end_rise);
    const QString note = view_->end_note(session_);
    if (!note.isEmpty()) title += " · " + note;
    if (map_.end_on_edge) {
        const QRectF room(map_.end.left(), map_.strip.top() - theme::grown(20), map_.end.width() + 36,
                          height() - map_.strip.top() + theme::grown(20) - 2);
        const QString dot = QStringLiteral(" · ");
        const double most = std::min(room.height(), 2.2 * p.fontMetrics().lineSpacing());
        const auto tall = [&] { return p.boundingRect(room, Qt::AlignLeft | Qt::TextWordWrap, title).height(); };
        while (title.contains(dot) && tall() > most) title = title.section(dot, 0, -2);
        p.drawText(room, Qt::AlignLeft | Qt::TextWordWrap, title);
        end_caption_ = {title, static_cast<int>(std::lround(tall() / p.fontMetrics().lineSpacing()))};
    } else {
        title = what_fits(title, p.fontMetrics(), width() - map_.end.left() - 8);
        p.drawText(QPointF(map_.end.left(), map_.end.top() - 4), title);
        end_caption_ = {title, 1};
    }
    if (session_.whole() && view_->shows_leaves()) {
        draw_leaf_sections(p);
        return view_->draw_end(p, map_, session_);
    }
    if (view_->shows_finished() || session_.whole()) {
        draw_top_section(p, map_, *plan.top);
        return view_->draw_end(p, map_, session_);
    }
    const QPolygonF cut = section();
    if (cut.isEmpty()) return;
    const StillKey key{session_.slab_version(), size(), map_.end_scale, map_.end_base_px, devicePixelRatioF(), map_.end_rise, 0, {}};
    if (!(key == end_for_) || end_gauge_ != map_.gauge_mm) {
        end_for_ = key;
        end_gauge_ = map_.gauge_mm;
        end_grain_ = QPixmap((map_.end.size() * key.ratio).toSize().expandedTo({1, 1}));
        end_grain_.setDevicePixelRatio(key.ratio);
        end_grain_.fill(Qt::transparent);
        QPainter q(&end_grain_);
        q.setRenderHint(QPainter::Antialiasing);
        q.translate(-map_.end.topLeft());
        const double x = std::clamp(map_.gauge_mm, plan.shape()->x0 + 0.01, plan.shape()->x1 - 0.01);
        draw_grain(q, *plan.slab(), *plan.shape(), cut, [x](double y) { return Vec2{x, y}; });
    }
    p.drawPixmap(map_.end.topLeft(), end_grain_);
    p.setPen(QPen(theme::tone_of(plan.slab()->species).edge, 1.4));
    p.setBrush(Qt::NoBrush);
    draw::outline(p, cut);
    view_->draw_end(p, map_, session_);
}

void Bench::draw_gauge(QPainter& p) {
    const auto& c = theme::colours();
    const double x = map_.px(map_.gauge_mm);
    const double y = map_.ruler.bottom();
    p.setBrush(c.brass);
    p.setPen(QPen(c.brass_dark, 1));
    p.drawRoundedRect(QRectF(x - 32, y + 1, 64, 12), 1.5, 1.5);
    p.setBrush(c.slip);
    p.setPen(Qt::NoPen);
    for (const double d : {-22.0, 22.0}) p.drawEllipse(QPointF(x + d, y + 7), 2, 2);
    const QString text = in_units(along(map_.gauge_mm), session_);
    p.setFont(theme::figures(10));
    const QRectF label = flag();
    p.setBrush(c.slip);
    p.setPen(QPen(c.brass, 1));
    p.drawRoundedRect(label, 2, 2);
    p.setPen(c.ink);
    p.drawText(label, Qt::AlignCenter, text);
}

void Bench::draw_handles(QPainter& p) {
    const auto& c = theme::colours();
    // What the slip speaks of, whoever has the keys.
    const Thing* picked = session_.picked_thing();
    p.setBrush(Qt::NoBrush);
    std::vector<Handle> handles;
    if (picked || hasFocus() || !hover_.isEmpty()) handles = view_->handles(map_, session_);
    // Round what it is dragged by where that is larger: a small thing's mark would lie on its own figure.
    const auto outline = [&](const Thing& t) {
        const QPolygonF own = area_of(t);
        for (const Handle& h : handles)
            if (h.name == QString::fromStdString(t.key) && h.area.boundingRect().contains(own.boundingRect())) return h.area;
        return own;
    };
    for (const Thing& t : session_.things()) {
        const bool is = &t == picked;
        if ((!is && QString::fromStdString(t.key) != hover_) || t.area.size() < 3) continue;
        const QPolygonF round = outline(t);
        p.setPen(QPen(is ? c.slip : c.none, 4.5));
        p.drawPolygon(round);
        p.setPen(QPen(is ? c.brass : c.chalk, is ? 2.4 : 1.4, is ? Qt::SolidLine : Qt::DotLine));
        p.drawPolygon(round);
    }
    if (!hasFocus() && hover_.isEmpty()) return;
    for (const Handle& h : handles) {
        const bool held = hasFocus() && h.name == picked_ && !picked;
        if (!held && h.name != hover_) continue;
        p.setPen(QPen(held ? c.brass : c.chalk, held ? 2.2 : 1.4, held ? Qt::SolidLine : Qt::DotLine));
        p.drawPolygon(h.area);
    }
}

void Bench::draw_outline_so_far(QPainter& p) {
    if (!drawn_) return;
    const auto& c = theme::colours();
    QPolygonF line = map_.px(points_);
    for (const QPointF& q : line) {
        p.setBrush(c.chalk);
        p.setPen(Qt::NoPen);
        p.drawEllipse(q, 3.5, 3.5);
    }
    if (!points_.empty()) line << mouse_;
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6, Qt::DashLine));
    p.drawPolyline(line);
}

}  // namespace yb
