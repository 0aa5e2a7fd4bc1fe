#include "app/kit/bench/top_section.h"

#include <algorithm>
#include <optional>

#include "app/ground/theme/theme.h"
#include "app/kit/bench/wood_face.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

/// Where a ring of the top is met at the gauge, across on the bench.
std::optional<Span1> met(const Ring& uv, const Top& top, double x) {
    if (uv.size() < 3) return {};
    const auto cut = cut_at_x(top.bench.to_slab(uv), x);
    if (cut.empty()) return {};
    return Span1{cut.front().from, cut.back().to};
}

/// A region between two heights; where it shows on one face only it is drawn as wide there as here.
QPolygonF section(const BenchMap& map, const Region& r, const Top& top) {
    auto above = met(r.above, top, map.gauge_mm);
    auto below = met(r.below, top, map.gauge_mm);
    if (!above && !below) return {};
    if (!above) above = below;
    if (!below) below = above;
    return {{map.end_px(above->from, r.high_mm), map.end_px(above->to, r.high_mm), map.end_px(below->to, r.low_mm),
             map.end_px(below->from, r.low_mm)}};
}

}  // namespace

void draw_top_section(QPainter& p, const BenchMap& map, const Top& top) {
    const auto& c = theme::colours();
    for (const Region& r : top.regions) {
        const QPolygonF cut = section(map, r, top);
        if (cut.isEmpty()) continue;
        switch (r.kind) {
            case RegionKind::leaf:
            case RegionKind::patch: {
                const theme::WoodTone tone = theme::tone_of(r.species ? r.species->name : std::string());
                p.setPen(QPen(r.kind == RegionKind::patch ? c.chalk : tone.edge, 1.4));
                p.setBrush(r.kind == RegionKind::patch ? tone.early.lighter(106) : tone.early);
                p.drawPolygon(cut);
                break;
            }
            case RegionKind::resin: {
                QColor resin = c.resin;
                resin.setAlpha(215);
                p.setPen(QPen(c.chalk, 1.2));
                p.setBrush(resin);
                p.drawPolygon(cut);
                break;
            }
            case RegionKind::air:
                p.setPen(QPen(c.pencil, 1, Qt::DashLine));
                p.setBrush(r.let_in ? c.bench : c.none);
                p.drawPolygon(cut);
                break;
        }
    }
}

}  // namespace yb
