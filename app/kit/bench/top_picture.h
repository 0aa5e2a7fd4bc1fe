// Slabs drawn once in their own frame and then laid where they belong: the leaves of a top, on the bench and small.
#pragma once

#include <QCache>
#include <QPainter>
#include <QPixmap>

#include "app/kit/bench/bench_map.h"
#include "core/steps/lay/choices.h"
#include "core/material/slab/slab.h"

namespace yb {

class Pictures;

class TopPicture {
  public:
    explicit TopPicture(Pictures& pictures) : pictures_(pictures) {}

    /// Where a slab's own pixels lie on the screen.
    struct Drawn {
        QPixmap pixels;
        Vec2 corner;       ///< on the slab: of the upper left pixel
        double scale = 1;  ///< px per mm
    };
    /// The show face of a slab as laid, its other face and its flaws, at so many px per mm. It stands until the
    /// next is asked for.
    /// @param turned it lies end for end: the light comes from its other side.
    const Drawn& slab(const Slab& slab, const SlabShape& shape, double scale, double ratio, bool small, bool turned);

    /// Draws a leaf where its placement puts it: `top_px` maps the top's frame to the screen.
    template <class F>
    void leaf(QPainter& p, const Slab& s, const SlabShape& shape, const Placement& at, double scale, double ratio, bool small, F top_px,
              bool smooth = true) {
        const Frame f = at.frame();
        const Drawn& d = slab(s, shape, scale, ratio, small, (f.to_slab(Vec2{1, 0}) - f.origin).x < 0);
        const auto px = [&](Vec2 on_slab) { return top_px(f.from_slab(on_slab)); };
        const QPointF o = px(d.corner);
        const QPointF x = (px(d.corner + Vec2{1000, 0}) - o) / (1000 * d.scale);
        const QPointF y = (px(d.corner - Vec2{0, 1000}) - o) / (1000 * d.scale);
        p.save();
        p.setRenderHint(QPainter::SmoothPixmapTransform, smooth);
        p.setTransform(QTransform(x.x(), x.y(), y.x(), y.y(), o.x(), o.y()), true);
        p.drawPixmap(0, 0, d.pixels);
        p.restore();
    }

    /// Pictures arrived, or others are shown: what was drawn is drawn anew.
    void forget() { drawn_.clear(); }

  private:
    struct Kept {
        Slab slab;
        Drawn drawn;
    };
    Pictures& pictures_;
    QCache<QString, Kept> drawn_{16 * 1024};  ///< what was drawn last; a cost is a kilobyte
};

}  // namespace yb
