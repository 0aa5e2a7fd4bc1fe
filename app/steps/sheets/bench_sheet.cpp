// The bench sheet: the top with its dimensions, shims, lanes and layers.
#include <algorithm>
#include <cmath>

#include "app/kit/bench/bench_map.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/step_view.h"
#include "app/steps/sheets/sheets.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/laid.h"
#include "core/steps/flat/choices.h"
#include "core/steps/lay/choices.h"
#include "core/steps/makeup/choices.h"
#include "core/steps/under/choices.h"
#include "core/shop/job/plan.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/makeup.h"
#include "core/material/slab/slab.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

/// What has to find room on the drawing: the slab, or the whole top of several leaves.
Ring drawn_outline(const Plan& plan) {
    const SlabShape* shape = plan.shape();
    Ring all = shape ? shape->ring_a : plan.placement.frame().to_slab(plan.top->above);
    return all.size() < 3 ? plan.lay->outline : all;
}

class Picture {
  public:
    Picture(QPainter& p, const QRectF& room, const Flow& flow, const SheetData& d) : p_(p), flow_(flow), d_(d) {
        all_ = drawn_outline(d.plan);
        const Box a = bounds(all_);
        map_.plan = room.adjusted(9, 3, -9, -12);
        map_.scale = std::min(map_.plan.width() / std::max(1.0, a.width()), map_.plan.height() / std::max(1.0, a.height()));
        map_.x0_mm = a.low.x - (map_.plan.width() / map_.scale - a.width()) / 2;
        map_.y_mid_mm = (a.low.y + a.high.y) / 2;
    }

    void draw() {
        wood();
        lines();
        let_in();
        shims();
        dimensions();
    }

  private:
    QPolygonF top(const Ring& uv) const { return map_.px(d_.plan.placement.frame().to_slab(uv)); }

    void wood() {
        const auto& c = theme::colours();
        p_.setPen(QPen(Qt::black, 0.25));
        p_.setBrush(c.printed_slab);
        p_.drawPolygon(map_.px(all_));
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
        for (const JointPlan& j : d_.plan.makeup->joints) {
            if (j.river) continue;
            Ring line;
            for (const JointStation& s : j.along) line.push_back({s.u, s.v});
            p_.drawPolyline(top(line));
        }
        p_.setPen(QPen(Qt::black, 0.3, Qt::DashLine));
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

    void shims() {
        p_.setFont(flow_.font(11, true));
        const auto& all = d_.plan.flat->shims;
        for (std::size_t i = 0; i < all.size(); ++i) {
            const QPointF q = map_.px({all[i].at.x_mm, all[i].at.y_mm});
            p_.setBrush(Qt::white);
            p_.drawEllipse(q, 3, 3);
            p_.drawText(QRectF(q.x() - 3, q.y() - 2.3, 6, 4.6), Qt::AlignCenter, QString::number(i + 1));
        }
    }

    /// Length along the lower side, both end widths at the ends.
    void dimensions() {
        const QRectF rect = map_.px(d_.plan.lay->rectangle).boundingRect();
        p_.setFont(flow_.font(Flow::cut_points, true));
        p_.setPen(QPen(Qt::black, 0.3));
        const double base = map_.plan.bottom() + 3;
        p_.drawLine(QPointF(rect.left(), base), QPointF(rect.right(), base));
        for (const double x : {rect.left(), rect.right()}) p_.drawLine(QPointF(x, base - 1.5), QPointF(x, base + 1.5));
        p_.drawText(QRectF(map_.plan.center().x() - 40, base + 0.5, 80, 7.5), Qt::AlignCenter, d_.say(mm(d_.top().length_mm)));
        const auto end = [&](double x, double w) {
            p_.save();
            p_.translate(x, map_.plan.center().y());
            p_.rotate(-90);
            p_.drawText(QRectF(-30, -3.8, 60, 7.6), Qt::AlignCenter, d_.say(mm(w)));
            p_.restore();
        };
        if (d_.top().shape != TopShape::rectangle) return;
        const QRectF wood = map_.px(all_).boundingRect();
        end(std::max(Flow::margin + 1.0, wood.left() - 4.5), d_.plan.lay->width_left_mm);
        end(std::min(map_.plan.right() + 5, wood.right() + 4.5), d_.plan.lay->width_right_mm);
    }

    QPainter& p_;
    const Flow& flow_;
    const SheetData& d_;
    BenchMap map_;
    Ring all_;
};

void big_figures(Flow& flow, const SheetData& d) {
    const LayPlan& lay = *d.plan.lay;
    const UnderPlan& under = *d.plan.under;
    std::vector<std::pair<QString, QString>> all{
        {lay.short_at.empty() ? QObject::tr("narrowest") : QObject::tr("short by"),
         lay.short_at.empty() ? d.say(mm(lay.narrowest_mm)) : d.say(mm(lay.short_at.front().mm))},
        {QObject::tr("finishes at"), d.say(fine(d.plan.flat->thickness_mm))},
        {QObject::tr("rough-cut to"), d.say(mm(lay.rough_length_mm))},
        {QObject::tr("leg height"), under.ready ? d.say(fine(under.leg_mm)) : QObject::tr("not known")},
        {QObject::tr("top weighs"), under.top_kg > 0 ? d.say(kg(under.top_kg)) : QObject::tr("not known")}};
    flow.figures(all);
}

/// "12 + 3 + 0.5 mm", the pieces of the stock that are laid together.
QString stack_text(const SheetData& d, const std::vector<double>& stack) {
    if (stack.empty()) return QObject::tr("nothing");
    QStringList out;
    for (const double piece : stack) out << d.say(fine(piece));
    return out.join(" + ");
}

/// The shim map: of several leaves one after another.
void shims(Flow& flow, const SheetData& d) {
    for (const LeafPlan& l : d.plan.leaves) {
        if (l.flat->shims.empty()) continue;
        const QString under =
            d.flat().first == FirstFace::show ? QObject::tr("Shims under the underside") : QObject::tr("Shims under the show face");
        flow.heading(d.several() ? QObject::tr("%1: %2").arg(QString::fromStdString(l.slab().name), under) : under);
        std::vector<std::vector<QString>> rows;
        for (std::size_t i = 0; i < l.flat->shims.size(); ++i) {
            const Shim& s = l.flat->shims[i];
            rows.push_back({QString::number(i + 1), d.say(along(s.at.x_mm)), d.say(mm(s.at.y_mm)), d.say(fine(laid_mm(s))),
                            stack_text(d, s.stack_mm)});
        }
        flow.table({{QObject::tr("shim"), 0.7},
                    {QObject::tr("along"), 1.6, true},
                    {QObject::tr("across"), 1.7, true},
                    {QObject::tr("height"), 1.7, true},
                    {QObject::tr("laid together of"), 4, true}},
                   rows, d.several() ? 13 : Flow::cut_points);
        if (const Phrase says = stacks_say(l.flat->stacks); !says.empty()) flow.note(d.say(says));
    }
}

/// The sled's own parts, where it has yet to be built.
void sled(Flow& flow, const SheetData& d) {
    if (!d.shop.sled.to_build) return;
    double longest = 0;
    for (const LeafPlan& l : d.plan.leaves) longest = std::max(longest, bounds(l.lay->rough).width());
    flow.heading(QObject::tr("The sled, to be built"));
    std::vector<std::vector<QString>> rows;
    for (const SledPart& part : sled_parts(d.shop.sled, longest))
        rows.push_back({QObject::tr(part.name), QString::number(part.count), d.say(mm(part.length_mm)), d.say(mm(part.width_mm)),
                        d.say(fine(part.thick_mm))});
    flow.table({{QObject::tr("part"), 3},
                {QObject::tr("pieces"), 1, true},
                {QObject::tr("long"), 2, true},
                {QObject::tr("wide"), 2, true},
                {QObject::tr("thick"), 2, true}},
               rows, Flow::cut_points);
}

void lanes(Flow& flow, const SheetData& d) {
    flow.heading(d.several() ? QObject::tr("Lanes and layers, each leaf") : QObject::tr("Lanes and layers"));
    std::vector<std::vector<QString>> rows;
    for (const LeafPlan& l : d.plan.leaves)
        for (const FacePlan& f : l.flat->faces)
            rows.push_back({(d.several() ? QString::fromStdString(l.slab().name) + ", " : QString()) +
                                (f.face == Face::a ? QObject::tr("show face") : QObject::tr("underside")),
                            QObject::tr("%1 of %2").arg(f.layers).arg(d.say(fine(d.shop.sled.depth_mm))), QString::number(f.lanes),
                            QObject::tr("%1, %2 skipped").arg(f.passes_cut).arg(f.passes_all - f.passes_cut), d.say(hours(f.hours)),
                            d.say(fine(f.most_off_mm)),
                            f.spacer_mm < 0   ? QObject::tr("none reaches")
                            : f.spacer_mm > 0 ? d.say(fine(f.spacer_mm))
                                              : QObject::tr("none needed")});
    flow.table({{QObject::tr("face"), 3.4},
                {QObject::tr("layers"), 2, true},
                {QObject::tr("lanes"), 1.1, true},
                {QObject::tr("passes"), 2.6, true},
                {QObject::tr("time"), 1.6, true},
                {QObject::tr("off at most"), 1.7, true},
                {QObject::tr("board under it"), 2, true}},
               rows);
    double removed_l = 0;
    for (const LeafPlan& l : d.plan.leaves)
        for (const FacePlan& f : l.flat->faces) removed_l += f.removed_l;
    flow.note(QObject::tr("Chips: about %1 loose, %2 bags.")
                  .arg(d.say(litres(removed_l * d.shop.sled.loose)))
                  .arg(static_cast<int>(std::ceil(removed_l * d.shop.sled.loose / d.shop.sled.bag_l - 1e-9))));
    flow.note(QObject::tr("Rough all, rest %1, then the last %2 of each face.")
                  .arg(d.say(hours(d.flat().rest_h)), d.say(fine(d.flat().allowance_mm))));
}

}  // namespace

void write_bench_sheet(Flow& flow, const SheetData& d) {
    // As large as the wood fills the page's width, and no higher than the page and what is to be read with it allow.
    const Box wood = bounds(drawn_outline(d.plan));
    const double wanted = 15 + (flow.width() - 18) * wood.height() / std::max(1.0, wood.width());
    flow.drawing(std::clamp(wanted, 50.0, std::max(50.0, std::min(flow.room_for(32), d.look.drawing_mm))),
                 [&](QPainter& p, const QRectF& room) { Picture(p, room, flow, d).draw(); });
    big_figures(flow, d);
    flow.rule();
    shims(flow, d);
    lanes(flow, d);
    sled(flow, d);
}

}  // namespace yb
