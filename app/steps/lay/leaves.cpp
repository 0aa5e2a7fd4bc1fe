#include "app/steps/lay/leaves.h"

#include <cmath>

#include "app/ground/theme/theme.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/snap.h"
#include "core/steps/match/likeness.h"
#include "core/steps/top/top.h"

namespace yb::leaves {

namespace {

double half(const Session& s) { return s.top()->length_mm / 2; }
QPointF px(const BenchMap& map, const Session& s, Vec2 uv) { return map.px(uv + Vec2{half(s), 0}); }

QPolygonF polygon(const BenchMap& map, const Session& s, const Ring& uv) {
    QPolygonF out;
    for (const Vec2 q : uv) out << px(map, s, q);
    return out;
}

const JointPlan* middle_joint(const Session& s) {
    const auto& joints = s.plan()->makeup->joints;
    return joints.empty() ? nullptr : &joints[joints.size() / 2];
}
const Likeness* middle_seam(const Session& s) {
    const auto& seams = *s.plan()->seams;
    return seams.empty() ? nullptr : &seams[seams.size() / 2];
}

}  // namespace

MakeUpInputs inputs(const Plan& plan, const std::vector<Leaf>& leaves, const WantedTop& top, const MakeUpChoices& choices) {
    MakeUpInputs in{{}, top, choices, false, {}};
    for (std::size_t i = 0; i < plan.leaves.size(); ++i)
        in.leaves.push_back({plan.leaves[i].slab(), plan.leaves[i].shape(), leaves[i].placement});
    return in;
}

QString strip_title(const Session& s) {
    if (is_river(s.makeup()->kind))
        return QObject::tr("width of the river along it, dotted below · %1 wanted").arg(in_units(mm(s.makeup()->river_mm), s));
    const Likeness* l = middle_seam(s);
    if (!l || !l->same_tree) return QObject::tr("seam: leaves of two trees show two figures");
    if (!l->pith_known && l->knots.empty()) return QObject::tr("seam: how far the figure drifts · say on the rack where the pith lies");
    return QObject::tr("seam: how far the figure drifts");
}

QString end_note(const Session& s) {
    if (is_river(s.makeup()->kind)) return {};
    const Likeness* l = middle_seam(s);
    if (!l || !l->same_tree) return {};
    return QObject::tr("the shown faces lie %1 apart in the log").arg(in_units(fine(l->apart_mm), s));
}

void draw_plan(QPainter& p, const BenchMap& map, const Session& s) {
    const LayPlan& lay = *s.plan()->lay;
    if (!lay.ready) return;
    const auto& c = theme::colours();
    draw::dim_outside(p, map, lay.outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 2));
    if (s.top()->shape == TopShape::rectangle)
        for (const auto& [a, b] : lay.finish_cuts) p.drawLine(map.px(a), map.px(b));
    draw::outline(p, map.px(lay.outline));
    for (const JointPlan& j : s.plan()->makeup->joints) {
        if (j.along.size() < 2) continue;
        QPolygonF line;
        for (const JointStation& t : j.along) line << px(map, s, {t.u, t.v});
        if (j.river) {
            if (s.makeup()->two_colours) {
                p.setPen(QPen(c.slip, 2.4));
                p.drawPolyline(line);
                p.setPen(QPen(c.ink, 1));
                p.drawPolyline(line);
            }
            for (const Rod& r : j.rods) {
                const double deep = s.makeup()->rod_depth_mm;
                const auto at = [&](double v) { return px(map, s, {r.u_mm, v}); };
                double v = 0;
                for (const JointStation& t : j.along)
                    if (std::abs(t.u - r.u_mm) <= half(s) / 60) v = t.v;
                p.setPen(QPen(c.slip, std::max(3.0, s.makeup()->rod_mm * map.scale) + 2));
                p.drawLine(at(v - r.gap_mm / 2 - deep), at(v + r.gap_mm / 2 + deep));
                p.setPen(QPen(c.ink, std::max(3.0, s.makeup()->rod_mm * map.scale)));
                p.drawLine(at(v - r.gap_mm / 2 - deep), at(v + r.gap_mm / 2 + deep));
            }
            continue;
        }
        p.setPen(QPen(c.slip, 3));
        p.drawPolyline(line);
        p.setPen(QPen(c.chalk, 1.8, Qt::DashLine));
        p.drawPolyline(line);
        // Where it runs through bark or wane.
        p.setPen(QPen(c.madder, 3));
        for (std::size_t k = 0; k + 1 < j.along.size(); ++k)
            if (std::max(j.along[k].lack_right, j.along[k].lack_left) > 0.5)
                p.drawLine(line[static_cast<int>(k)], line[static_cast<int>(k) + 1]);
    }
    p.setBrush(Qt::NoBrush);
    for (const Shortfall& f : lay.short_at) {
        p.setPen(QPen(c.madder, 2.4));
        p.drawEllipse(map.px(f.at), 8, 8);
    }
}

void add_labels(const BenchMap& map, const Session& s, std::vector<Label>& out) {
    const Likeness* l = middle_seam(s);
    if (!l || !l->worst_is_knot || l->worst_mm <= 2) return;
    const JointPlan* j = middle_joint(s);
    out.push_back({px(map, s, {l->worst_u_mm, j->along[j->along.size() / 2].v}),
                   QObject::tr("knot drifts %1 here").arg(in_units(fine(l->worst_mm), s)), theme::colours().brass, 1});
}

void draw_strip(QPainter& p, const BenchMap& map, const Session& s) {
    const auto& c = theme::colours();
    const double hl = half(s);
    QColor fill = c.wood;
    fill.setAlpha(150);
    const auto at_gauge = [&](const QString& text) {
        p.setFont(theme::figures(9));
        p.setPen(c.ink);
        p.drawText(QRectF(map.strip.right() - 300, map.strip.top() - 4 - theme::grown(16), 300, theme::grown(16)), Qt::AlignRight, text);
    };
    if (is_river(s.makeup()->kind)) {
        double most = s.makeup()->river_mm * 1.2;
        if (s.makeup()->kind == MakeUp::river) {
            fill = c.resin;
            fill.setAlpha(150);
        }
        for (const JointPlan& j : s.plan()->makeup->joints) most = std::max(most, std::max(j.above.widest_mm, j.below.widest_mm) * 1.1);
        for (const JointPlan& j : s.plan()->makeup->joints) {
            // Between the finished banks, once the leaves are flattened.
            const Top& top = *s.plan()->top;
            const auto edge = [&](std::size_t leaf, bool below) -> const Ring& {
                if (top.ready) return below ? top.regions[leaf].below : top.regions[leaf].above;
                return below ? s.plan()->makeup->leaves[leaf].under : s.plan()->makeup->leaves[leaf].show;
            };
            const auto width = [&](double x, bool below) {
                const auto r = cut_at_x(edge(j.right, below), x - hl);
                const auto l = cut_at_x(edge(j.left, below), x - hl);
                return r.empty() || l.empty() ? 0 : std::max(0.0, l.front().from - r.back().to);
            };
            draw::strip_line(
                p, map, 1, 2 * hl - 1, 0, most, [&](double x) { return width(x, false); }, QPen(c.brass_dark, 1.5), fill);
            draw::strip_line(
                p, map, 1, 2 * hl - 1, 0, most, [&](double x) { return width(x, true); }, QPen(c.ink, 1.2, Qt::DotLine));
            if (&j == &s.plan()->makeup->joints.front())
                at_gauge(QObject::tr("%1 at the gauge, %2 below")
                             .arg(in_units(mm(width(map.gauge_mm, false)), s), in_units(mm(width(map.gauge_mm, true)), s)));
        }
        draw::strip_line(
            p, map, 0, 2 * hl, 0, most, [&](double) { return s.makeup()->river_mm; }, QPen(c.chalk, 1.5, Qt::DashLine));
        return;
    }
    const Likeness* l = middle_seam(s);
    if (!l || l->along.size() < 2) return;
    const auto drift = [&](double x) {
        const double t = std::clamp((x / (2 * hl)), 0.0, 1.0) * static_cast<double>(l->along.size() - 1);
        const auto i = std::min(l->along.size() - 2, static_cast<std::size_t>(t));
        return l->along[i].drift_mm + (l->along[i + 1].drift_mm - l->along[i].drift_mm) * (t - static_cast<double>(i));
    };
    draw::strip_line(p, map, 0, 2 * hl, 0, std::max(10.0, l->worst_mm * 1.15), drift, QPen(c.brass_dark, 1.5), fill);
    at_gauge(QObject::tr("%1 at the gauge").arg(in_units(fine(drift(map.gauge_mm)), s)));
}

void draw_match(QPainter& p, const BenchMap& map, const Session& s, const SeamMatch& match) {
    const auto& c = theme::colours();
    if (match.windows.size() < 2) return;
    const double wide = (match.windows[1].u - match.windows[0].u) * map.scale * 0.8;
    for (const SeamStation& w : match.windows) {
        const double tall = std::clamp(w.drift_mm, 0.0, 1.0) * map.strip.height() * 0.5;
        QColor fill = w.drift_mm > 0.25 ? c.moss : w.drift_mm > 0.08 ? c.ochre : c.madder;
        fill.setAlpha(150);
        p.setPen(Qt::NoPen);
        p.setBrush(fill);
        p.drawRect(QRectF(map.px(w.u + half(s)) - wide / 2, map.strip.top(), wide, std::max(2.0, tall)));
    }
    p.setFont(theme::text(9));
    p.setPen(c.pencil);
    p.drawText(QPointF(map.px(match.windows.front().u + half(s)) - wide / 2, map.strip.top() + map.strip.height() * 0.5 + 12),
               QObject::tr("bars: how well the pictures agree there"));
}

namespace {

/// The river as it will be poured, between the finished planes of the leaves beside it.
void draw_river_end(QPainter& p, const BenchMap& map, const Session& s, double u) {
    const Plan& plan = *s.plan();
    if (!plan.top->ready) return;
    const auto height = [&](std::size_t leaf, double v, bool top) {
        const Vec2 on_slab = (*s.leaves())[leaf].placement.frame().to_slab({u, v});
        const Tilt& tilt = plan.leaves[leaf].flat->tilt;
        return top ? tilt.top_at(on_slab) : tilt.bottom_at(on_slab);
    };
    const auto& c = theme::colours();
    QColor resin = c.resin;
    resin.setAlpha(190);
    for (const Region& r : plan.top->regions) {
        if (r.kind != RegionKind::resin || r.let_in || r.index + 1 >= plan.leaves.size()) continue;
        if (r.above.size() < 3 || r.below.size() < 3) continue;
        const auto above = cut_at_x(r.above, u);
        const auto below = cut_at_x(r.below, u);
        if (above.empty() || below.empty()) continue;
        const std::size_t low = r.index;
        const std::size_t high = r.index + 1;
        p.setPen(Qt::NoPen);
        p.setBrush(resin);
        p.drawPolygon(QPolygonF{map.end_px(above.front().from, height(low, above.front().from, true)),
                                map.end_px(above.back().to, height(high, above.back().to, true)),
                                map.end_px(below.back().to, height(high, below.back().to, false)),
                                map.end_px(below.front().from, height(low, below.front().from, false))});
    }
    p.setBrush(Qt::NoBrush);
}

}  // namespace

void draw_end(QPainter& p, const BenchMap& map, const Session& s) {
    const auto& c = theme::colours();
    const double u = map.gauge_mm - half(s);
    draw_river_end(p, map, s, u);
    for (std::size_t i = 0; i < s.plan()->leaves.size(); ++i) {
        const LeafPlan& l = s.plan()->leaves[i];
        const auto w = wood_at(s.plan()->makeup->leaves[i], u, false);
        if (!w || !l.flat->ready) continue;
        const Frame f = (*s.leaves())[i].placement.frame();
        p.setPen(QPen(c.madder, 1.4, Qt::DashLine));
        for (const bool top : {true, false}) {
            const auto z = [&](double v) {
                return top ? l.flat->tilt.top_at(f.to_slab({u, v})) : l.flat->tilt.bottom_at(f.to_slab({u, v}));
            };
            p.drawLine(map.end_px(w->from, z(w->from)), map.end_px(w->to, z(w->to)));
        }
    }
    for (const JointPlan& j : s.plan()->makeup->joints) {
        if (j.river) continue;
        for (std::size_t k = 0; k + 1 < j.along.size(); ++k)
            if (j.along[k].u <= u && u < j.along[k + 1].u) {
                p.setPen(QPen(c.chalk, 1.6, Qt::DashLine));
                p.drawLine(map.end_px(j.along[k].v, -4), map.end_px(j.along[k].v, 80));
            }
    }
}

std::vector<Handle> handles(const BenchMap& map, const Session& s) {
    std::vector<Handle> out;
    if (!s.plan() || !s.plan()->lay->ready || !s.job()) return out;
    const MakeUpInputs in = inputs(*s.plan(), *s.leaves(), *s.top(), *s.makeup());
    const MakeUpPlan& plan = *s.plan()->makeup;
    const double within = 7 / map.scale;
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) {
        const auto places = std::make_shared<SnapPlaces>(snap_places(in, plan, i));
        const Vec2 middle = centroid(plan.leaves[i].show);
        Handle h{QObject::tr("leaf %1").arg(i + 1),
                 QObject::tr("Move a leaf"),
                 polygon(map, s, plan.leaves[i].show),
                 middle + Vec2{half(s), 0},
                 Qt::OpenHandCursor,
                 [i, places, within](Session& session, Vec2 from, Vec2 to) {
                     const bool far = length(to - from) > 12;  // a step of the keys is taken as it is
                     const Vec2 by = far ? snapped(*places, to - from, within) : to - from;
                     session.preview([&](Job& j) { move_leaf(j, i, by); });
                 },
                 [i, middle](Session& session, double degrees) { session.preview([&](Job& j) { turn_leaf(j, i, middle, degrees); }); }};
        out.push_back(std::move(h));
    }
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) {
        // An end of a leaf turns it about its middle.
        const Box b = bounds(plan.leaves[i].show);
        const Vec2 middle = centroid(plan.leaves[i].show);
        for (const bool left : {true, false}) {
            const double u = left ? b.low.x + 60 : b.high.x - 60;
            const auto w = wood_at(plan.leaves[i], u, false);
            if (!w) continue;
            const QPointF q = px(map, s, {u, (w->from + w->to) / 2});
            out.push_back({QObject::tr("%1 end of leaf %2").arg(left ? QObject::tr("left") : QObject::tr("right")).arg(i + 1),
                           QObject::tr("Turn a leaf"), QPolygonF(QRectF(q.x() - 9, q.y() - 9, 18, 18)),
                           Vec2{u + half(s), (w->from + w->to) / 2}, Qt::CrossCursor,
                           [i, middle, shift = half(s)](Session& session, Vec2 from, Vec2 to) {
                               const Vec2 a = from - Vec2{shift, 0} - middle;
                               const Vec2 b2 = to - Vec2{shift, 0} - middle;
                               const double turn = degrees_between(a, b2);
                               session.preview([&](Job& j) { turn_leaf(j, i, middle, turn); });
                           }});
        }
    }
    for (std::size_t k = 0; k < plan.joints.size(); ++k) {
        const JointPlan& j = plan.joints[k];
        if (j.river || j.along.size() < 2) continue;
        QPolygonF band;
        for (const JointStation& t : j.along) band << px(map, s, {t.u, t.v}) + QPointF(0, 7);
        for (auto t = j.along.rbegin(); t != j.along.rend(); ++t) band << px(map, s, {t->u, t->v}) - QPointF(0, 7);
        const auto upper = [&](std::size_t i) { return shows_upper(in.leaves[i].slab, in.leaves[i].placement); };
        const bool book = upper(j.right) != upper(j.left);
        const bool same = book && s.makeup()->same_line;
        out.push_back({QObject::tr("joint %1").arg(k + 1), QObject::tr("Move a rip line"), band,
                       Vec2{half(s), j.along[j.along.size() / 2].v}, Qt::SizeVerCursor, [k, same](Session& session, Vec2 from, Vec2 to) {
                           session.preview([&](Job& job) { move_joint(job, k, to.y - from.y, same); });
                       }});
    }
    return out;
}

std::vector<Dimension> dimensions(const BenchMap& map, const Session& s, const Field& length, const Field& width) {
    if (!s.plan() || !s.plan()->lay->ready) return {};
    const Box b = bounds(s.plan()->lay->rectangle);
    const Box all = bounds(s.plan()->lay->outline);
    const QPointF low = map.px(Vec2{b.low.x, all.low.y});
    const QPointF high = map.px(Vec2{b.high.x, all.low.y});
    return {{low, high, -22, length}, {map.px({b.low.x + b.width() / 8, b.low.y}), map.px({b.low.x + b.width() / 8, b.high.y}), 0, width}};
}

std::vector<Field> fields(const MakeUpChoices& makeup) {
    if (makeup.kind == MakeUp::river) return {job_number("makeup.river_mm", "river_width")};
    if (makeup.kind == MakeUp::open_river)
        return {job_number("makeup.river_mm", "river_width"), job_number("makeup.rod_pitch_mm", "rod_pitch"),
                job_number("makeup.rod_depth_mm", "rod_depth"), job_number("makeup.rod_mm", "rod_thick")};
    std::vector<Field> out{job_number("makeup.mill_kerf_mm", "mill_kerf"), job_number("makeup.rip_kerf_mm", "rip_kerf")};
    for (const Joint& j : makeup.joints)
        if (j.curved) {
            out.push_back(job_number("makeup.least_radius_mm", "least_radius"));
            out.push_back(job_number("makeup.cutter_mm", "joint_cutter"));
            break;
        }
    return out;
}

}  // namespace yb::leaves
