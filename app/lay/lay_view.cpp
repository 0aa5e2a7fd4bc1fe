#include "app/lay/lay_view.h"

#include "app/job_files.h"
#include "app/theme/theme.h"
#include "core/rack/rack.h"

namespace yb {

QString LayView::strip_title(const Session& s) const {
    const Job* j = s.job();
    return QObject::tr("width of the slab along it · %1 wanted").arg(j ? in_units(mm(j->top.width_mm), s) : QString());
}

void LayView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const LayPlan& lay = s.plan()->lay;
    if (!lay.ready) return;
    const auto& c = theme::colours();
    draw::dim_outside(p, map, lay.outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1, Qt::DashLine));
    for (const auto& [a, b] : lay.rough_cuts) p.drawLine(map.px(a), map.px(b));
    p.setPen(QPen(c.chalk, 2));
    for (const auto& [a, b] : lay.finish_cuts) p.drawLine(map.px(a), map.px(b));
    p.setPen(QPen(c.chalk, 2));
    p.drawPolygon(map.px(lay.outline));
    if (s.job()->top.live != LiveEdges::none) {
        p.setPen(QPen(c.chalk, 1, Qt::DotLine));
        p.drawPolygon(map.px(lay.rectangle));
    }
    for (const Shortfall& f : lay.short_at) {
        p.setPen(QPen(c.madder, 2.4));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(map.px(f.at), 8, 8);
    }
    if (!lay.short_at.empty()) {
        const Shortfall& f = lay.short_at.front();
        draw::tag(p, map.px(f.at), QObject::tr("short by %1 at %2").arg(in_units(mm(f.mm), s), in_units(along(f.at.x), s)), map.plan,
                  c.madder);
    }
}

void LayView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const SlabShape& shape = s.plan()->shape;
    const Job* j = s.job();
    if (!j) return;
    const auto width = [&](double x) {
        const auto cut = cut_at_x(shape.ring_a, std::clamp(x, shape.x0 + 0.01, shape.x1 - 0.01));
        return cut.empty() ? 0.0 : cut.back().to - cut.front().from;
    };
    double most = j->top.width_mm * 1.1;
    double least = j->top.width_mm * 0.9;
    for (int i = 0; i <= 60; ++i) {
        const double w = width(shape.x0 + (shape.x1 - shape.x0) * i / 60);
        most = std::max(most, w + 10);
        least = std::min(least, w - 10);
    }
    QColor fill = c.wood;
    fill.setAlpha(150);
    draw::strip_line(p, map, shape.x0, shape.x1, least, most, width, QPen(c.brass_dark, 1.5), fill);
    const Box b = bounds(s.plan()->lay.outline);
    draw::strip_line(
        p, map, b.low.x, b.high.x, least, most, [&](double) { return j->top.width_mm; }, QPen(c.chalk, 1.5, Qt::DashLine));
    p.setFont(theme::figures(9));
    p.setPen(c.ink);
    p.drawText(QRectF(map.strip.right() - 300, map.strip.top() - 4 - theme::grown(16), 300, theme::grown(16)), Qt::AlignRight,
               QObject::tr("%1 at the gauge").arg(in_units(mm(width(map.gauge_mm)), s)));
}

std::vector<Handle> LayView::handles(const BenchMap& map, const Session& s) const {
    if (!s.plan() || !s.plan()->lay.ready || !s.job()) return {};
    const Placement at = s.job()->placement;
    Handle top{QObject::tr("top"),
               QObject::tr("Move the top"),
               map.px(s.plan()->lay.rectangle),
               {at.x_mm, at.y_mm},
               Qt::OpenHandCursor,
               [](Session& session, Vec2 from, Vec2 to) {
                   session.preview([&](Job& j) {
                       j.placement.x_mm += to.x - from.x;
                       j.placement.y_mm += to.y - from.y;
                   });
               },
               [](Session& session, double degrees) { session.preview([&](Job& j) { j.placement.angle_deg += degrees; }); }};
    // The corners turn it about its middle.
    std::vector<Handle> out{top};
    const Ring& r = s.plan()->lay.rectangle;
    for (std::size_t i = 0; i < r.size(); ++i) {
        const QPointF q = map.px(r[i]);
        const Vec2 middle{at.x_mm, at.y_mm};
        out.push_back({QObject::tr("corner %1").arg(i + 1), QObject::tr("Turn the top"), QPolygonF(QRectF(q.x() - 9, q.y() - 9, 18, 18)),
                       r[i], Qt::CrossCursor, [middle](Session& session, Vec2 from, Vec2 to) {
                           const Vec2 a = from - middle;
                           const Vec2 b = to - middle;
                           const double turn = std::atan2(cross(a, b), dot(a, b)) * 180 / 3.14159265358979;
                           session.preview([&](Job& j) { j.placement.angle_deg += turn; });
                       }});
    }
    return out;
}

namespace {
Field length_field() {
    return job_field("top_length", QObject::tr("Length"), Kind::length, 50, 20000, [](Job& j) -> double& { return j.top.length_mm; });
}
Field width_field() {
    return job_field("top_width", QObject::tr("Width"), Kind::length, 50, 5000, [](Job& j) -> double& { return j.top.width_mm; });
}
}  // namespace

std::vector<Dimension> LayView::dimensions(const BenchMap& map, const Session& s) const {
    if (!s.plan() || !s.plan()->lay.ready) return {};
    const QPolygonF r = map.px(s.plan()->lay.rectangle);
    const double below = map.px(bounds(s.plan()->shape.ring_a).low).y() - std::max(r[0].y(), r[1].y());
    return {{r[0], r[1], -std::max(18.0, below + 16), length_field()}, {(r[0] * 7 + r[1]) / 8, (r[3] * 7 + r[2]) / 8, 0, width_field()}};
}

std::vector<Field> LayView::fields() const {
    using J = Job;
    std::vector<Field> f{
        length_field(),
        width_field(),
        job_field("top_thickness", QObject::tr("Thickness"), Kind::fine, 3, 400, [](J& j) -> double& { return j.top.thickness_mm; }),
        job_field("top_height", QObject::tr("Table height"), Kind::length, 100, 2000, [](J& j) -> double& { return j.top.height_mm; }),
        {"top_seats", QObject::tr("Seats"), Kind::count,
         [](const Session& s) -> std::optional<double> { return s.job() ? std::optional<double>(s.job()->top.seats) : std::nullopt; },
         [](Session& s, std::optional<double> v) {
             s.edit_job(QObject::tr("Seats"), [&](J& j) { j.top.seats = static_cast<int>(v.value_or(0)); });
         },
         0, 60, true},
        job_field("top_oversize", QObject::tr("Over, each end"), Kind::length, 0, 500,
                  [](J& j) -> double& { return j.placement.oversize_mm; }),
        job_field("top_x", QObject::tr("Middle, along"), Kind::length, -20000, 20000, [](J& j) -> double& { return j.placement.x_mm; }),
        job_field("top_y", QObject::tr("Middle, across"), Kind::length, -5000, 5000, [](J& j) -> double& { return j.placement.y_mm; }),
        job_field("top_angle", QObject::tr("Turned"), Kind::angle, -360, 360, [](J& j) -> double& { return j.placement.angle_deg; })};
    return f;
}

std::vector<TextField> LayView::texts() const {
    return {
        {"job_client", QObject::tr("For"), [](const Session& s) { return s.job() ? QString::fromStdString(s.job()->client) : QString(); },
         [](Session& s, const QString& v) { s.edit_job(QObject::tr("Client"), [&](Job& j) { j.client = v.toStdString(); }); }},
        {"job_start", QObject::tr("Begins on"),
         [](const Session& s) { return s.job() ? QString::fromStdString(s.job()->start) : QString(); },
         [](Session& s, const QString& v) {
             const std::string date = v.trimmed().toStdString();
             if (!is_date(date)) {
                 Q_EMIT s.trouble(QObject::tr("‘%1’ is not a date. Write it as 2026-11-30; the job still begins on %2.")
                                      .arg(v, QString::fromStdString(s.job() ? s.job()->start : "")));
                 return;
             }
             s.edit_job(QObject::tr("First day"), [&](Job& j) { j.start = date; });
         }}};
}

std::vector<Action> LayView::actions(Session& session) {
    Session* s = &session;
    return {{"lay_best", QObject::tr("Slide it to where it fits best"), QObject::tr("Tries places and small turns"),
             [s] {
                 if (!s->plan() || !s->job()) return;
                 const Plan& plan = *s->plan();
                 const Placement best = best_placement({plan.slab, plan.shape, s->job()->top, s->job()->placement});
                 s->edit_job(QObject::tr("Slide to the best fit"), [&](Job& j) { j.placement = best; });
             }},
            {"turn_over", QObject::tr("Turn over"), QObject::tr("The other face becomes the show face (U)"),
             [s] { s->edit_job(QObject::tr("Turn over"), [](Job& j) { turn_over(j); }); }},
            {"end_for_end", QObject::tr("End for end"), QObject::tr("Turns the top half round (E)"),
             [s] { s->edit_job(QObject::tr("End for end"), [](Job& j) { end_for_end(j); }); }},
            {"cuts_done", QObject::tr("The rough cuts are made"), QObject::tr("Its offcuts go back to the rack as slabs of the same tree"),
             [s] {
                 if (!s->job() || !s->plan() || !s->documents().slabs.count(s->job()->slab)) return;
                 if (s->job()->cuts_done) {
                     Q_EMIT s->trouble(QObject::tr("The offcuts of this job are on the rack already."));
                     return;
                 }
                 const auto pieces = offcuts_of(s->documents().slabs.at(s->job()->slab), s->plan()->lay);
                 const std::string id = s->job()->id;
                 s->edit(QObject::tr("Rough cuts made"), [&](Documents& d) {
                     d.jobs[id].cuts_done = true;
                     for (Slab piece : pieces) {
                         piece.id = fresh_id("slab", d);
                         d.slabs[piece.id] = piece;
                     }
                 });
             }},
            {"next", QObject::tr("Next: flatten it"), {}, [s] { s->set_step(Step::flat); }, true, true}};
}

QString LayView::help() const {
    return QObject::tr(
        "Drag the top over the slab; drag a corner to turn it. Pick it with ] and move it with the arrows. "
        "Type its size on the slip in any unit. U turns the slab over, E turns the top end for end.");
}

}  // namespace yb
