#include "app/steps/under/holes.h"

#include <cmath>
#include <numbers>

#include "app/ground/theme/theme.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

/// What holds the top there, in its own frame: the middle of the hole at 0, away from the fixed line to the right.
/// @param k pixels a millimetre, of what would be too small to be seen somewhat more.
void draw_fixing(QPainter& p, const Slot& slot, Fixing by, double k, double r) {
    const auto& c = theme::colours();
    const HoleMade& m = slot.made;
    switch (by) {
        case Fixing::slots: {
            const double len = std::max(8.0, slot.length_mm * k);
            p.drawRoundedRect(QRectF(-len / 2, -r, len, 2 * r), r, r);
            break;
        }
        case Fixing::oversize: {
            const double hole = std::max(r + 1.5, m.opening_mm * k / 2);
            p.drawEllipse(QPointF(), hole, hole);
            p.save();
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(c.ink, 1, Qt::DotLine));
            const double washer = std::max(hole + 2, m.washer_mm * k / 2);
            p.drawEllipse(QPointF(), washer, washer);
            p.restore();
            break;
        }
        case Fixing::figure_eight: {
            // One eye on the top, the other on the base beside it: it stands along the rail and swings across.
            const double eye = std::max(5.0, 9 * k);
            const double apart = std::max(1.6 * eye, eight_mm * k);
            p.drawEllipse(QPointF(0, 0), eye, eye);
            p.drawEllipse(QPointF(0, apart), eye, eye);
            p.setBrush(c.ink);
            p.drawEllipse(QPointF(0, apart), 1.6, 1.6);
            break;
        }
        case Fixing::clips:
        case Fixing::buttons: {
            // The kerf in the wood, and the tongue that stands back from its end.
            const double half = std::max(5.0, (by == Fixing::clips ? 12 : 15) * k);
            const double deep = std::max(5.0, tongue_mm * k);
            const double gap = std::max(2.0, m.gap_mm * k);
            p.drawRect(QRectF(-deep, -half * 1.6, deep + gap, half * 3.2));
            p.setBrush(by == Fixing::clips ? c.steel : c.wood_edge);
            p.drawRect(QRectF(-2.6 * deep, -half, 2.6 * deep, 2 * half));
            p.setBrush(c.ink);
            p.drawEllipse(QPointF(-1.8 * deep, 0), 1.6, 1.6);
            break;
        }
    }
}

}  // namespace

void draw_hole(QPainter& p, const BenchMap& map, const Session& s, const Slot& slot) {
    const auto& c = theme::colours();
    const Frame f = s.plan()->placement.frame();
    const UnderChoices& u = *s.under();
    const QPointF q = map.px(f.to_slab(slot.uv));
    const double r = std::max(3.0, u.bolt_mm * map.scale / 2);
    p.setPen(QPen(c.ink, 1));
    p.setBrush(slot.round ? c.brass : c.slip);
    if (slot.round) return p.drawEllipse(q, r + 1, r + 1);
    // Away from the fixed line, on paper.
    const QPointF ahead = map.px(f.to_slab(slot.uv + slot.way * 100)) - q;
    const QPointF way = ahead / std::max(1e-9, std::hypot(ahead.x(), ahead.y()));
    const QPointF across(-way.y(), way.x());
    const Fixing by = held_by(slot, u);
    const double k = map.scale * 1.5;
    p.save();
    p.translate(q);
    p.rotate(std::atan2(way.y(), way.x()) * 180 / std::numbers::pi);
    draw_fixing(p, slot, by, k, r);
    p.restore();
    p.setBrush(c.ink);
    if (by != Fixing::clips && by != Fixing::buttons) p.drawEllipse(q, 1.6, 1.6);
    if (s.dial()) {
        const auto month = static_cast<std::size_t>(std::lround(*s.dial() * 11));
        const QPointF to = q + way * (12 * slot.month_mm[month] * map.scale);
        p.setPen(QPen(c.madder, 2));
        p.drawLine(q, to);
        p.setBrush(c.madder);
        p.drawEllipse(to, 2.6, 2.6);
        return;
    }
    p.setPen(QPen(c.madder, 1.4));
    const double half = std::max(8.0, slot.length_mm * k) / 2;
    const QPointF tip = q + way * (half + 9);
    p.drawLine(q + way * (half + 1), tip);
    p.drawLine(tip, tip - way * 4 + across * 3);
    p.drawLine(tip, tip - way * 4 - across * 3);
}

}  // namespace yb
