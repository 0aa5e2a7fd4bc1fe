#include "app/flat/flat_view.h"

#include <QPainterPath>

#include "app/theme/theme.h"
#include "core/flat/flat.h"
#include "core/lay/lay.h"
#include "core/slab/slab.h"

namespace yb {

namespace {
Field thickness_field() { return job_number("top.thickness_mm", "flat_thickness", QObject::tr("Wanted thickness")); }

/// Where the shims stand now.
std::vector<Vec2> supports_of(const FlatPlan& flat) {
    std::vector<Vec2> out;
    for (const Shim& h : flat.shims) out.push_back({h.at.x_mm, h.at.y_mm});
    return out;
}

/// Across: where the middle of what lies in the top runs.
double middle_y(const Session& s) { return s.plan() && s.plan()->lay->outline.size() > 2 ? centroid(s.plan()->lay->outline).y : 0; }
}  // namespace

QString FlatView::strip_title(const Session&) const {
    return QObject::tr("both faces along the middle, heights drawn taller · blue: finished planes");
}

QString FlatView::end_note(const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready) return {};
    const Vec2 p{s.gauge_mm(), middle_y(s)};
    return QObject::tr("%1 off the show face, %2 off the underside here")
        .arg(in_units(fine(std::max(0.0, f.off_top.at(p))), s), in_units(fine(std::max(0.0, f.off_bottom.at(p))), s));
}

void FlatView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready) return;
    const auto& c = theme::colours();
    const LayPlan& lay = *s.plan()->lay;
    draw::dim_outside(p, map, lay.rough);
    // Tint: the more comes off, the deeper.
    p.save();
    QPainterPath clip;
    clip.addPolygon(map.px(lay.rough));
    p.setClipPath(clip);
    const double most = std::max(1.0, f.face(Face::a).most_off_mm);
    constexpr double cell = 6;
    const QRectF box = clip.boundingRect();
    QImage tint(std::max(1, static_cast<int>(box.width() / cell)), std::max(1, static_cast<int>(box.height() / cell)),
                QImage::Format_ARGB32);
    const double step_x = box.width() / tint.width();
    const double step_y = box.height() / tint.height();
    for (int j = 0; j < tint.height(); ++j)
        for (int i = 0; i < tint.width(); ++i) {
            const double off = f.off_top.at(map.mm_at(box.topLeft() + QPointF((i + 0.5) * step_x, (j + 0.5) * step_y)));
            QColor colour = c.madder;
            colour.setAlphaF(off <= 0.05 ? 0.0F : static_cast<float>(std::min(0.62, 0.05 + 0.55 * off / most)));
            tint.setPixelColor(i, j, colour);
        }
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.drawImage(box, tint);
    QColor lane = c.ink;
    lane.setAlpha(26);
    p.setPen(QPen(lane, 1));
    for (const LanePass& pass : f.face(Face::a).passes)
        if (pass.layer == f.face(Face::a).layers - 1) p.drawLine(map.px(Vec2{pass.x_mm, pass.y.from}), map.px(Vec2{pass.x_mm, pass.y.to}));
    p.restore();
    p.setPen(QPen(c.chalk, 1.6));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(map.px(lay.outline));
    p.setFont(theme::figures(9.5));
    for (std::size_t i = 0; i < f.shims.size(); ++i) {
        const QPointF q = map.px({f.shims[i].at.x_mm, f.shims[i].at.y_mm});
        const QString text = in_units(fine(f.shims[i].height_mm), s);
        const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 14;
        const double tall = theme::grown(22);
        const QRectF r(q.x() - w / 2, q.y() - tall / 2, w, tall);
        p.setPen(QPen(c.chalk, 1.6));
        p.setBrush(c.slip);
        p.drawRoundedRect(r, 2, 2);
        p.setPen(c.ink);
        p.drawText(r, Qt::AlignCenter, text);
    }
}

void FlatView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready || !s.job()) return;
    const auto& c = theme::colours();
    const SlabShape& shape = *s.plan()->shape();
    const double y = middle_y(s);
    const Box b = bounds(s.plan()->lay->rough);
    double low = 1e9;
    double high = -1e9;
    for (int i = 0; i <= 40; ++i) {
        const Vec2 q{b.low.x + b.width() * i / 40, y};
        low = std::min({low, shape.bottom.at(q), f.tilt.bottom_at(q)});
        high = std::max({high, shape.top.at(q), f.tilt.top_at(q)});
    }
    QColor wood = c.wood;
    wood.setAlpha(170);
    const auto line = [&](auto value, const QPen& pen, const QBrush& below = Qt::NoBrush) {
        draw::strip_line(p, map, b.low.x, b.high.x, low - 2, high + 2, value, pen, below);
    };
    line([&](double x) { return shape.top.at({x, y}); }, QPen(c.wood_edge, 1.4), wood);
    QColor bench = c.bench;
    line([&](double x) { return shape.bottom.at({x, y}); }, QPen(c.wood_edge, 1.4), bench);
    line([&](double x) { return f.tilt.top_at({x, y}); }, QPen(c.chalk, 1.6));
    line([&](double x) { return f.tilt.bottom_at({x, y}); }, QPen(c.chalk, 1.6));
}

void FlatView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready) return;
    const auto& c = theme::colours();
    const auto cut = cut_at_x(s.plan()->shape()->ring_a, s.gauge_mm());
    if (cut.empty()) return;
    const double y0 = cut.front().from;
    const double y1 = cut.back().to;
    const double x = s.gauge_mm();
    p.setPen(QPen(c.chalk, 1.6, Qt::DashLine));
    p.drawLine(map.end_px(y0, f.tilt.top_at({x, y0})), map.end_px(y1, f.tilt.top_at({x, y1})));
    p.drawLine(map.end_px(y0, f.tilt.bottom_at({x, y0})), map.end_px(y1, f.tilt.bottom_at({x, y1})));
    QColor tint = c.madder;
    tint.setAlpha(110);
    p.setPen(Qt::NoPen);
    p.setBrush(tint);
    constexpr int n = 60;
    for (int i = 0; i < n; ++i) {
        const double a = y0 + (y1 - y0) * i / n;
        const double b = y0 + (y1 - y0) * (i + 1) / n;
        const Vec2 q{x, (a + b) / 2};
        const SlabShape& shape = *s.plan()->shape();
        const double over = f.off_top.at(q);
        const double under = f.off_bottom.at(q);
        if (over > 0) p.drawRect(QRectF(map.end_px(b, shape.top.at(q)), map.end_px(a, shape.top.at(q) - over)).normalized());
        if (under > 0) p.drawRect(QRectF(map.end_px(b, shape.bottom.at(q) + under), map.end_px(a, shape.bottom.at(q))).normalized());
    }
}

std::vector<Handle> FlatView::handles(const BenchMap& map, const Session& s) const {
    std::vector<Handle> out;
    if (!s.plan() || !s.plan()->flat->ready || !s.job()) return out;
    const auto& shims = s.plan()->flat->shims;
    const std::vector<Vec2> standing = supports_of(*s.plan()->flat);
    for (std::size_t i = 0; i < shims.size(); ++i) {
        const Vec2 at{shims[i].at.x_mm, shims[i].at.y_mm};
        const QPointF q = map.px(at);
        out.push_back({QObject::tr("shim %1").arg(i + 1), QObject::tr("Move a shim"), QPolygonF(QRectF(q.x() - 28, q.y() - 14, 56, 28)), at,
                       Qt::OpenHandCursor, [standing, i](Session& session, Vec2 from, Vec2 to) {
                           session.preview_leaf([&](Leaf& leaf) { move_support(leaf, standing, i, to - from); });
                       }});
    }
    return out;
}

std::vector<Dimension> FlatView::dimensions(const BenchMap& map, const Session& s) const {
    if (!s.plan() || !s.plan()->flat->ready) return {};
    // The finished thickness, beside the end view.
    const Tilt& t = s.plan()->flat->tilt;
    const auto cut = cut_at_x(s.plan()->shape()->ring_a, s.gauge_mm());
    if (cut.empty()) return {};
    const Vec2 q{s.gauge_mm(), cut.front().from};
    return {{map.end_px(q.y, t.bottom_at(q)), map.end_px(q.y, t.top_at(q)), -26, thickness_field()}};
}

std::vector<Field> FlatView::fields(const Session&) const {
    return {thickness_field(), job_number("flat.rest_h"), job_number("flat.allowance_mm")};
}

std::vector<Action> FlatView::actions(Session& session) {
    Session* s = &session;
    return {
        {"shim_add",
         QObject::tr("Add a shim at the gauge"),
         {},
         [s] {
             if (!s->plan() || !s->plan()->flat->ready) return;
             auto now = supports_of(*s->plan()->flat);
             now.push_back({s->gauge_mm(), middle_y(*s)});
             s->edit_leaf(QObject::tr("Add a shim"), [&](Leaf& leaf) { set_supports(leaf, now); });
         }},
        {"shim_away",
         QObject::tr("Take this shim away"),
         {},
         [s] {
             const Thing* t = s->picked_thing();
             if (!t || s->plan()->flat->shims.size() < 2)
                 return Q_EMIT s->trouble(QObject::tr("The last shim stays: it says where it stands."));
             s->edit_leaf(QObject::tr("Take a shim away"),
                          [now = supports_of(*s->plan()->flat), i = t->index](Leaf& leaf) { drop_support(leaf, now, i); });
             s->pick({});
         },
         true,
         false,
         "shim"},
        {"shim_reset",
         QObject::tr("Shims back to four"),
         {},
         [s] { s->edit_leaf(QObject::tr("Shims back to four"), [](Leaf& leaf) { set_supports(leaf, {}); }); }},
        {"the_shop", QObject::tr("The sled, its boards and pace"), QObject::tr("Opens the shop's page"), [s] { Q_EMIT s->shop_wanted(); }},
        {"next", QObject::tr("Next: fill the voids"), {}, [s] { s->set_step(step_key::fill); }, true, true}};
}

QString FlatView::help() const {
    return QObject::tr(
        "The tint shows how much comes off the show face. Drag the shims to where your supports stand; "
        "each tells its height for the tilt that keeps the most wood. Choose on the slip where the twist goes.");
}

}  // namespace yb
