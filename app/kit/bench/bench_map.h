// Where millimetres of the slab lie on the screen: one scale for the plan and the strip, one for the end view.
#pragma once

#include <QPointF>
#include <QPolygonF>
#include <QRectF>

#include "core/ground/geometry/geometry.h"

namespace yb {

struct BenchMap {
    QRectF ruler, plan, strip, end;  ///< px
    double scale = 0.3;              ///< px per mm on plan and strip
    double x0_mm = 0;                ///< slab station at plan.left()
    double y_mid_mm = 0;             ///< slab y in the plan's middle
    double end_scale = 0.5;          ///< px per mm across, end view
    double end_rise = 1;             ///< how much heights are exaggerated there
    double end_base_px = 0;          ///< where the bench is drawn in the end view: a height, or where it stands on edge a place along
    bool end_on_edge = false;        ///< the end view stands at the plan's side on the same heights across
    double gauge_mm = 0;

    double px(double x_mm) const { return plan.left() + (x_mm - x0_mm) * scale; }
    double mm_at(double x_px) const { return x0_mm + (x_px - plan.left()) / scale; }
    QPointF px(Vec2 p) const { return {px(p.x), plan.center().y() - (p.y - y_mid_mm) * scale}; }
    Vec2 mm_at(QPointF p) const { return {mm_at(p.x()), y_mid_mm - (p.y() - plan.center().y()) / scale}; }
    QPolygonF px(const Ring& ring) const {
        QPolygonF out;
        for (const Vec2 p : ring) out << px(p);
        return out;
    }
    /// A place in the end view: y across (left of the slab on the left, or above where it stands on edge), z up from the bench.
    QPointF end_px(double y_mm, double z_mm) const {
        if (end_on_edge) return {end_base_px + z_mm * end_scale * end_rise, plan.center().y() - (y_mm - y_mid_mm) * end_scale};
        return {end.center().x() - (y_mm - y_mid_mm) * end_scale, end_base_px - z_mm * end_scale * end_rise};
    }
    /// The place across and its height, back from the end view.
    Vec2 end_mm_at(QPointF p) const {
        if (end_on_edge) return {y_mid_mm - (p.y() - plan.center().y()) / end_scale, (p.x() - end_base_px) / (end_scale * end_rise)};
        return {y_mid_mm - (p.x() - end.center().x()) / end_scale, (end_base_px - p.y()) / (end_scale * end_rise)};
    }
};

}  // namespace yb
