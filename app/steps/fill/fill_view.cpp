#include "app/steps/fill/fill_view.h"

#include "app/ground/theme/theme.h"
#include "core/shop/edit/edits.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/lay.h"
#include "core/steps/pour/choices.h"

namespace yb {

QString FillView::strip_title(const Session&) const { return QObject::tr("voids along the top, to depth · a line for each lift"); }

void FillView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.fill->ready) return;
    draw::dim_outside(p, map, plan.lay->outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6));
    draw::outline(p, map.px(plan.lay->outline));
    for (const VoidPlan& v : plan.fill->voids) {
        QColor resin = v.left_open || v.gone ? c.none : c.chalk;
        resin.setAlpha(v.left_open || v.gone ? 0 : 125);
        p.setBrush(resin);
        p.setPen(QPen(c.chalk, 1.6));
        p.drawPolygon(map.px(v.outline));
    }
}

std::vector<Label> FillView::labels(const BenchMap& map, const Session& s) const {
    std::vector<Label> out;
    const Plan& plan = *s.plan();
    if (!plan.fill->ready) return out;
    const QColor chalk = theme::colours().chalk;
    const auto lifts = [&](const std::vector<Lift>& all, double flush_l) {
        const QString much = QString::fromStdString(render(say("{}", litres(flush_l)), s.units()));  // "less than" for next to nothing
        return all.size() == 1 ? much
                               : QObject::tr("%1 · %2 lifts of %3")
                                     .arg(much)
                                     .arg(all.size())
                                     .arg(in_units(fine(all.empty() ? 0 : all.front().depth_mm), s));
    };
    for (const VoidPlan& v : plan.fill->voids)
        out.push_back({map.px(v.at),
                       v.gone            ? QObject::tr("planed away")
                       : v.left_open     ? QObject::tr("left open")
                       : v.lifts.empty() ? QObject::tr("how deep?")
                                         : lifts(v.lifts, v.volume_l),
                       chalk, v.volume_l});
    return out;
}

void FillView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.fill->ready) return;
    const Box top = bounds(plan.lay->outline);
    const double thickness = std::max(1.0, plan.flat->thickness_mm);
    const double k = (map.strip.height() - 8) / thickness;
    p.setPen(QPen(c.wood_edge, 1.2));
    p.setBrush(c.wood);
    const QRectF side(map.px(top.low.x), map.strip.top() + 4, map.px(top.high.x) - map.px(top.low.x), thickness * k);
    p.drawRect(side);
    for (const VoidPlan& v : plan.fill->voids) {
        if (v.gone) continue;
        const Box b = bounds(v.outline);
        const double a0 = map.px(std::max(b.low.x, top.low.x));
        const double a1 = map.px(std::min(b.high.x, top.high.x));
        const double inset = (a1 - a0) / 2 * (1 - v.floor_share);
        const bool above = v.face == Face::a;
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

std::vector<Field> FillView::fields(const Session&) const {
    return {job_number("fill.overfill_mm"), job_number("fill.reserve_pct"), job_number("fill.tape_mm"), job_number("fill.pigment_g_kg")};
}

std::vector<Action> FillView::actions(Session& session) {
    Session* s = &session;
    return {{"draw_more", QObject::tr("Draw another flaw on the slab"), QObject::tr("Goes to Rack, where flaws are drawn"),
             [s] { s->set_step(step_key::rack); }},
            {"the_shop", QObject::tr("The resins of the shop"), QObject::tr("Opens the shop's page"),
             [s] { Q_EMIT s->shop_wanted(QStringLiteral("resins")); }, true, false, "top void"},
            {"void_on_rack", QObject::tr("Its depth and outline, on the rack"), QObject::tr("Goes to Rack with this flaw picked"),
             [s] {
                 const Thing* t = s->picked_thing();
                 if (!t || t->index >= s->plan()->fill->voids.size()) return;
                 const VoidPlan v = s->plan()->fill->voids[t->index];
                 const std::string slab = (*s->leaves())[v.leaf].slab;
                 s->set_step(step_key::rack);
                 s->look_at(QString::fromStdString(slab));
                 if (v.flaw < s->things().size()) s->pick(QString::fromStdString(s->things()[v.flaw].key));
                 Q_EMIT s->typing_wanted("flaw_depth");
             },
             true, false, "void"},
            {"void_ties", QObject::tr("Bow ties over it"), QObject::tr("Stitched across, in Join"),
             [s] {
                 const Thing* t = s->picked_thing();
                 const auto plan = s->plan_of_whole();
                 if (!t || !plan) return;
                 std::size_t n = 0;
                 s->edit_job(QObject::tr("Bow ties over a void"), [&, i = t->index](Job& j) { n = tie_void(j, *plan, i); });
                 Q_EMIT s->news(
                     n == 0 ? QObject::tr("No bow tie finds room across it.")
                            : QObject::tr("%n bow tie(s) laid across it: they are moved and sized in Join.", nullptr, static_cast<int>(n)));
             },
             true, false, "void"},
            {"void_patch", QObject::tr("A patch over it"), QObject::tr("Let in over it; where it is cut from is chosen in Lay"),
             [s] {
                 const Thing* t = s->picked_thing();
                 const auto plan = s->plan_of_whole();
                 if (t && plan) s->edit_job(QObject::tr("A patch over a void"), [&, i = t->index](Job& j) { patch_void(j, *plan, i); });
             },
             true, false, "void"},
            {"void_off",
             [s] {
                 const Thing* t = s->picked_thing();
                 const auto plan = s->plan_of_whole();
                 const auto off = t && plan && s->job() ? cut_off(*plan, *s->job(), t->index) : std::nullopt;
                 return off ? QObject::tr("Cut it off · %1 shorter").arg(in_units(mm(off->by_mm), *s)) : QObject::tr("Cut it off");
             }(),
             QObject::tr("The top ends short of it; the other end stays where it is on the wood"),
             [s] {
                 const Thing* t = s->picked_thing();
                 const auto plan = s->plan_of_whole();
                 if (!t || !plan) return;
                 s->edit_job(QObject::tr("A void cut off"), [&, i = t->index](Job& j) { cut_void_off(j, *plan, i); });
                 s->pick({});
             },
             true, false, "void"}};
}

QString FillView::help() const {
    return QObject::tr(
        "Each void inside the top is filled with the class of resin advised for its depth and width, or what you "
        "choose on the slip. Volumes are what is left after flattening. Flaws are drawn and changed in Rack.");
}

}  // namespace yb
