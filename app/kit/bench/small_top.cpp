#include "app/kit/bench/small_top.h"

#include <algorithm>

#include <QPainterPath>

#include "app/ground/theme/theme.h"
#include "core/steps/lay/lay.h"

namespace yb {

void draw_small_top(QPainter& p, const QRectF& box, TopPicture& tops, const SmallTop& small, double ratio) {
    if (box.width() < 4 || box.height() < 4) return;
    const auto& c = theme::colours();
    const WantedTop& top = small.top;
    const double scale = std::min(box.width() / std::max(1.0, top.length_mm * 1.04),
                                  box.height() / std::max(1.0, std::max(top.width_mm, small.across_mm) * 1.25));
    const auto px = [&](Vec2 uv) { return QPointF(box.center().x() + uv.x * scale, box.center().y() - uv.y * scale); };
    QPolygonF outline;
    for (const Vec2 q : outline_of(top)) outline << px(q);
    p.save();
    QPainterPath clip;  // a sawn top ends at its outline, live edges run out
    if (top.live == LiveEdges::none || top.shape != TopShape::rectangle) {
        clip.addPolygon(outline);
        clip.closeSubpath();
    } else {
        clip.addRect(QRectF(px({-top.length_mm / 2, 0}).x(), box.top() - 8, top.length_mm * scale, box.height() + 16));
    }
    p.setClipPath(clip, Qt::IntersectClip);
    if (small.kind == MakeUp::river) {
        const double across = std::max(20.0, small.across_mm - 16);
        p.fillRect(QRectF(px({-top.length_mm / 2, 0}).x(), px({0, across / 2}).y(), top.length_mm * scale, across * scale), c.resin);
    }
    for (std::size_t i = 0; i < small.leaves.size(); ++i) {
        const SmallTop::Leaf& l = small.leaves[i];
        // Of glued leaves only what lies on its side of the joint.
        p.save();
        if (!is_river(small.kind) && small.leaves.size() > 1 && small.joints.size() + 1 >= small.leaves.size()) {
            const double low = i == 0 ? -1e4 : small.joints[i - 1].v_mm;
            const double high = i + 1 == small.leaves.size() ? 1e4 : small.joints[i].v_mm;
            p.setClipRect(QRectF(px({-top.length_mm / 2, high}), px({top.length_mm / 2, low})), Qt::IntersectClip);
        }
        tops.leaf(p, *l.slab, *l.shape, l.at, scale, ratio, true, px);
        p.restore();
    }
    p.restore();
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(small.fits ? c.moss : c.madder, 1.4, small.fits ? Qt::SolidLine : Qt::DashLine));
    p.drawPolygon(outline);
}

}  // namespace yb
