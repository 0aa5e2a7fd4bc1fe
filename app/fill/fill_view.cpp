#include "app/fill/fill_view.h"

#include "app/theme/theme.h"

namespace yb {

QString FillView::strip_title(const Session&) const { return QObject::tr("voids along the top, to depth · a line for each lift"); }

void FillView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.fill.ready) return;
    draw::dim_outside(p, map, plan.lay.outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6));
    p.drawPolygon(map.px(plan.lay.outline));
    for (const VoidPlan& v : plan.fill.voids) {
        QColor resin = v.left_open || v.gone ? QColor(Qt::transparent) : c.chalk;
        resin.setAlpha(v.left_open || v.gone ? 0 : 170);
        p.setBrush(resin);
        p.setPen(QPen(c.chalk, 1.6));
        p.drawPolygon(map.px(plan.slab.flaws[v.flaw].outline));
        const QString text = v.gone        ? QObject::tr("planed away")
                             : v.left_open ? QObject::tr("left open")
                             : v.lifts.empty()
                                 ? QObject::tr("how deep?")
                                 : (v.lifts.size() == 1 ? QObject::tr("%1 · %2 lift of %3") : QObject::tr("%1 · %2 lifts of %3"))
                                       .arg(in_units(litres(v.volume_l), s))
                                       .arg(v.lifts.size())
                                       .arg(in_units(fine(v.lifts.front().depth_mm), s));
        draw::tag(p, map.px(v.at), text, map.plan, c.chalk);
    }
}

void FillView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.fill.ready) return;
    const Box top = bounds(plan.lay.outline);
    const double thickness = std::max(1.0, plan.flat.thickness_mm);
    const double k = (map.strip.height() - 8) / thickness;
    p.setPen(QPen(c.wood_edge, 1.2));
    p.setBrush(c.wood);
    const QRectF side(map.px(top.low.x), map.strip.top() + 4, map.px(top.high.x) - map.px(top.low.x), thickness * k);
    p.drawRect(side);
    for (const VoidPlan& v : plan.fill.voids) {
        if (v.gone) continue;
        const Flaw& f = plan.slab.flaws[v.flaw];
        const Box b = bounds(f.outline);
        const double a0 = map.px(std::max(b.low.x, top.low.x));
        const double a1 = map.px(std::min(b.high.x, top.high.x));
        const double inset = (a1 - a0) / 2 * (1 - f.floor_share);
        const bool above = f.face == Face::a;
        const double mouth = above ? side.top() : side.bottom();
        const double floor = mouth + (above ? 1 : -1) * v.depth_mm * k;
        QColor resin = c.chalk;
        resin.setAlpha(v.left_open ? 40 : 170);
        p.setBrush(resin);
        p.setPen(QPen(c.chalk, 1.2));
        p.drawPolygon(QPolygonF{{a0, mouth}, {a1, mouth}, {a1 - inset, floor}, {a0 + inset, floor}});
        p.setPen(QPen(c.slip, 1));
        for (std::size_t i = 1; i < v.lifts.size(); ++i) {
            const double t = static_cast<double>(i) / static_cast<double>(v.lifts.size());
            const double y = floor + (mouth - floor) * t;
            p.drawLine(QPointF(a0 + inset * (1 - t), y), QPointF(a1 - inset * (1 - t), y));
        }
    }
}

std::vector<PickField> FillView::picks(const Session& s) const { return leaf_picks(s); }

std::vector<Field> FillView::fields(const Session&) const {
    return {job_field("fill_overfill", QObject::tr("Overfill"), Kind::fine, 0, 20, [](Job& j) -> double& { return j.fill.overfill_mm; }),
            job_field("fill_reserve", QObject::tr("Reserve"), Kind::percent, 0, 200, [](Job& j) -> double& { return j.fill.reserve_pct; })};
}

std::vector<Action> FillView::actions(Session& session) {
    Session* s = &session;
    return {{"draw_more", QObject::tr("Draw another flaw on the slab"), QObject::tr("Goes to Rack, where flaws are drawn"),
             [s] { s->set_step(Step::rack); }},
            {"the_shop", QObject::tr("The resins of the shop"), QObject::tr("Opens the shop's page"), [s] { Q_EMIT s->shop_wanted(); }},
            {"next", QObject::tr("Next: the underside"), {}, [s] { s->set_step(Step::under); }, true, true}};
}

QString FillView::help() const {
    return QObject::tr(
        "Each void inside the top is filled with the class of resin advised for its depth and width, or what you "
        "choose on the slip. Volumes are what is left after flattening. Flaws are drawn and changed in Rack.");
}

}  // namespace yb
