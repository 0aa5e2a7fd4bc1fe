// Slabs drawn once in their own frame and then laid where they belong: the leaves of a top, on the bench and small.
#pragma once

#include <functional>

#include <QCache>
#include <QPainter>
#include <QPixmap>
#include <QTimer>

#include "app/kit/bench/bench_map.h"
#include "core/material/slab/slab.h"
#include "core/steps/lay/choices.h"

namespace yb {

class Pictures;

class TopPicture {
  public:
    explicit TopPicture(Pictures& pictures);
    /// For pages of many tops: a turn of the event loop draws one slab that was not drawn yet, the others are left out, and
    /// `again` asks for the next turn's painting.
    TopPicture(Pictures& pictures, std::function<void()> again);

    /// Where a slab's own pixels lie on the screen.
    struct Drawn {
        QPixmap pixels;
        Vec2 corner;       ///< on the slab: of the upper left pixel
        double scale = 1;  ///< px per mm
    };
    /// The show face of a slab as laid, its other face and its flaws, at so many px per mm. It stands until the
    /// next is asked for.
    /// @param turned it lies end for end: the light comes from its other side.
    /// @returns nullptr where it is not its turn.
    const Drawn* slab(const Slab& slab, const SlabShape& shape, double scale, double ratio, bool small, bool turned);
    /// Everything a painting needs is drawn at once, whoever's turn it is: for pictures of the page.
    void draw_all(const std::function<void()>& painting);

    /// Draws a leaf where its placement puts it: `top_px` maps the top's frame to the screen.
    template <class F>
    void leaf(QPainter& p, const Slab& s, const SlabShape& shape, const Placement& at, double scale, double ratio, bool small, F top_px,
              bool smooth = true) {
        const Frame f = at.frame();
        const Drawn* drawn = slab(s, shape, scale, ratio, small, (f.to_slab(Vec2{1, 0}) - f.origin).x < 0);
        if (!drawn) return;
        const Drawn& d = *drawn;
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

    /// A picture arrived, or all did (empty): what was drawn with it is drawn anew.
    void forget(const QString& picture = {});

  private:
    struct Kept {
        Slab slab;
        Drawn drawn;
    };
    bool its_turn();

    Pictures& pictures_;
    std::function<void()> again_;  ///< none: all is drawn as it is asked for
    QTimer next_;
    bool drew_ = false;                       ///< this turn's slab
    bool behind_ = false;                     ///< another was left out
    QCache<QString, Kept> drawn_{16 * 1024};  ///< what was drawn last; a cost is a kilobyte
};

}  // namespace yb
