#include "app/steps/sheets/sheet_drawing.h"

#include <algorithm>
#include <cmath>

#include "app/ground/theme/theme.h"
#include "app/kit/bench/bench_map.h"
#include "core/material/slab/slab.h"
#include "core/shop/job/plan.h"
#include "core/steps/flat/flat.h"
#include "core/steps/join/choices.h"
#include "core/steps/join/join.h"
#include "core/steps/lay/choices.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/choices.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/top/top.h"
#include "core/steps/under/choices.h"

namespace yb {

namespace {

constexpr double beside_mm = 9, below_mm = 12, above_mm = 3;  ///< left free for measures

/// A map that shows all of a box in a room, to scale.
BenchMap map_in(const Box& all, const QRectF& room) {
    BenchMap map;
    map.plan = room.adjusted(beside_mm, above_mm, -beside_mm, -below_mm);
    map.scale = std::min(map.plan.width() / std::max(1.0, all.width()), map.plan.height() / std::max(1.0, all.height()));
    map.x0_mm = all.low.x - (map.plan.width() / map.scale - all.width()) / 2;
    map.y_mid_mm = (all.low.y + all.high.y) / 2;
    return map;
}

/// A number in a ring, at its place.
void number_at(QPainter& p, const Flow& flow, QPointF at, std::size_t n) {
    p.setFont(flow.font(Flow::text_points, true));
    p.setPen(QPen(Qt::black, 0.3));
    p.setBrush(Qt::white);
    p.drawEllipse(at, 3, 3);
    p.drawText(QRectF(at.x() - 4, at.y() - 3, 8, 6), Qt::AlignCenter, QString::number(n));
}

/// How long it is, below it.
void length_below(QPainter& p, const Flow& flow, const QRectF& of, double base, const QString& text) {
    p.setFont(flow.font(Flow::cut_points, true));
    p.setPen(QPen(Qt::black, 0.3));
    p.drawLine(QPointF(of.left(), base), QPointF(of.right(), base));
    for (const double x : {of.left(), of.right()}) p.drawLine(QPointF(x, base - 1.5), QPointF(x, base + 1.5));
    p.drawText(QRectF(of.center().x() - 40, base + 0.5, 80, 7.5), Qt::AlignCenter, text);
}

class TopDrawing {
  public:
    TopDrawing(QPainter& p, const QRectF& room, const Flow& flow, const SheetData& d, const SheetShows& shows)
        : p_(p), flow_(flow), d_(d), shows_(shows), map_(map_in(box_of_top(d), room)) {}

    void draw() {
        wood();
        lines();
        if (shows_.let_in) let_in();
        if (shows_.ties) ties();
        if (shows_.dimensions) dimensions();
    }

  private:
    QPolygonF top(const Ring& uv) const { return map_.px(d_.plan.placement.frame().to_slab(uv)); }

    void wood() {
        const auto& c = theme::colours();
        if (const SlabShape* shape = d_.plan.shape()) {
            p_.setPen(QPen(Qt::black, 0.25));
            p_.setBrush(c.printed_slab);
            p_.drawPolygon(map_.px(shape->ring_a));
        }
        p_.setPen(QPen(Qt::black, 0.4));
        // What is really there: each leaf in two tones in turn, resin in its own, a filled void in resin too.
        for (const Region& r : d_.plan.top->regions) {
            if (r.above.size() < 3) continue;
            switch (r.kind) {
                case RegionKind::leaf: p_.setBrush(r.index % 2 ? c.printed_next_leaf : c.printed_leaf); break;
                case RegionKind::resin: p_.setBrush(c.printed_resin); break;
                case RegionKind::air: p_.setBrush(Qt::white); break;
                case RegionKind::patch: p_.setBrush(c.printed_slab); break;
            }
            p_.drawPolygon(top(r.above));
        }
        if (!d_.plan.top->ready) {
            p_.setBrush(c.printed_leaf);
            p_.drawPolygon(map_.px(d_.plan.lay->outline));
        }
    }

    void lines() {
        p_.setBrush(Qt::NoBrush);
        p_.setPen(QPen(Qt::black, 0.35));
        if (shows_.joints)
            for (const JointPlan& j : d_.plan.makeup->joints) {
                if (j.river) continue;
                Ring line;
                for (const JointStation& s : j.along) line.push_back({s.u, s.v});
                p_.drawPolyline(top(line));
            }
        p_.setPen(QPen(Qt::black, 0.3, Qt::DashLine));
        if (shows_.rough_cuts)
            for (const auto& [q, r] : d_.plan.lay->rough_cuts) p_.drawLine(map_.px(q), map_.px(r));
        if (const auto u = d_.makeup().halves_u_mm) {
            const double half = d_.top().width_mm / 2 + 20;
            p_.setPen(QPen(Qt::black, 0.3));
            p_.drawPolyline(top({{*u, -half}, {*u, half}}));
        }
    }

    void let_in() {
        p_.setBrush(Qt::NoBrush);
        p_.setPen(QPen(Qt::black, 0.3));
        for (const auto& ch : d_.under().channels) p_.drawPolygon(top(footprint(ch)));
        for (const auto& pl : d_.under().plates) p_.drawPolygon(top(footprint(pl)));
    }

    void ties() {
        p_.setPen(QPen(Qt::black, 0.35));
        for (std::size_t i = 0; i < d_.join().ties.size(); ++i) {
            const BowTie& b = d_.join().ties[i];
            p_.setBrush(Qt::white);
            p_.drawPolygon(top(outline_of(b)));
            number_at(p_, flow_, map_.px(d_.plan.placement.frame().to_slab({b.u_mm, b.v_mm})) + QPointF(0, -6), i + 1);
        }
    }

    /// Length along the lower side, both end widths at the ends.
    void dimensions() {
        const QRectF rect = map_.px(d_.plan.lay->rectangle).boundingRect();
        length_below(p_, flow_, rect, map_.plan.bottom() + 3, d_.say(mm(d_.top().length_mm)));
        p_.setFont(flow_.font(Flow::cut_points, true));
        p_.setPen(QPen(Qt::black, 0.3));
        const auto end = [&](double x, double w) {
            p_.save();
            p_.translate(x, map_.plan.center().y());
            p_.rotate(-90);
            p_.drawText(QRectF(-30, -3.8, 60, 7.6), Qt::AlignCenter, d_.say(mm(w)));
            p_.restore();
        };
        if (d_.top().shape != TopShape::rectangle) return;
        const Box all = box_of_top(d_);
        const double left = map_.px(Vec2{all.low.x, 0}).x();
        const double right = map_.px(Vec2{all.high.x, 0}).x();
        end(std::max(Flow::margin + 1.0, left - 4.5), d_.plan.lay->width_left_mm);
        end(std::min(map_.plan.right() + 5, right + 4.5), d_.plan.lay->width_right_mm);
    }

    QPainter& p_;
    const Flow& flow_;
    const SheetData& d_;
    const SheetShows& shows_;
    BenchMap map_;
};

}  // namespace

double drawn_high(const Flow& flow, const Box& box) {
    return above_mm + below_mm + (flow.width() - 2 * beside_mm) * box.height() / std::max(1.0, box.width());
}

Box box_of_top(const SheetData& d) {
    const SlabShape* shape = d.plan.shape();
    Ring all = shape ? shape->ring_a : d.plan.placement.frame().to_slab(d.plan.top->above);
    return bounds(all.size() < 3 ? d.plan.lay->outline : all);
}

void draw_top_on(QPainter& p, const QRectF& room, const Flow& flow, const SheetData& d, const SheetShows& shows) {
    TopDrawing(p, room, flow, d, shows).draw();
}

Box box_of_leaf(const LeafPlan& leaf) { return bounds(leaf.shape().ring_a); }

void draw_leaf_on(QPainter& p, const QRectF& room, const Flow& flow, const SheetData& d, const LeafPlan& leaf, bool over) {
    const auto& c = theme::colours();
    const auto seen = [&](Ring ring) {
        for (Vec2& q : ring)
            if (over) q.y = -q.y;
        return ring;
    };
    const Ring slab = seen(leaf.shape().ring_a);
    const Box box = bounds(slab);
    const BenchMap map = map_in(box, room);
    p.setPen(QPen(Qt::black, 0.3));
    p.setBrush(c.printed_slab);
    p.drawPolygon(map.px(slab));
    p.setBrush(c.printed_leaf);
    p.drawPolygon(map.px(seen(leaf.lay->rough)));
    // The chalk line that places are told from.
    p.setPen(QPen(Qt::black, 0.3, Qt::DashDotLine));
    p.drawLine(map.px(Vec2{box.low.x, 0}), map.px(Vec2{box.high.x, 0}));
    for (std::size_t i = 0; i < leaf.flat->shims.size(); ++i)
        number_at(p, flow, map.px(seen({{leaf.flat->shims[i].at.x_mm, leaf.flat->shims[i].at.y_mm}}).front()), i + 1);
    length_below(p, flow, map.px(slab).boundingRect(), map.plan.bottom() + 3, d.say(mm(box.width())));
}

Box box_of_paths(const std::vector<DrawnPath>& paths) {
    Ring all;
    for (const DrawnPath& path : paths) all.insert(all.end(), path.points.begin(), path.points.end());
    return all.empty() ? Box{} : bounds(all);
}

void draw_paths_on(QPainter& p, const QRectF& room, const Flow& flow, const std::vector<DrawnPath>& paths,
                   const std::vector<Vec2>& numbered) {
    const BenchMap map = map_in(box_of_paths(paths), room);
    const auto& c = theme::colours();
    for (const DrawnPath& path : paths) {
        const bool line = path.layer.find("line") != std::string::npos || path.layer == "middle";
        p.setPen(QPen(Qt::black, path.layer == "middle" ? 0.15 : 0.35, line ? Qt::DashDotLine : Qt::SolidLine));
        const bool wood = path.layer == "underside" || path.layer == "top" || path.layer == "form, bottom";
        const bool resin = path.layer == "river";
        p.setBrush(wood                                              ? c.printed_leaf
                   : resin                                           ? c.printed_resin
                   : path.layer == "pocket" || path.layer == "notch" ? c.printed_next_leaf
                                                                     : QColor(Qt::transparent));
        path.closed ? p.drawPolygon(map.px(path.points)) : p.drawPolyline(map.px(path.points));
    }
    // Numbers stand beside what they count, so that it is still seen.
    for (std::size_t i = 0; i < numbered.size(); ++i) number_at(p, flow, map.px(numbered[i]) + QPointF(0, -5), i + 1);
}

}  // namespace yb
