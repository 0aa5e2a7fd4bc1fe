#include "app/steps/join/join_view.h"

#include <algorithm>
#include <cmath>

#include "app/ground/theme/theme.h"
#include "core/shop/edit/edits.h"
#include "core/steps/join/join.h"
#include "core/steps/lay/lay.h"
#include "core/steps/top/top.h"

namespace yb {

QString JoinView::strip_title(const Session& s) const {
    if (!s.plan()->join->rods.empty()) return QObject::tr("how long each rod is: the gap, and both depths");
    if (s.plan()->join->joints.empty()) return QObject::tr("nothing is glued edge to edge in this top");
    return QObject::tr("how far the joints stand open, dry · a tick for each clamp");
}

void JoinView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    const JoinPlan& j = *plan.join;
    if (!j.ready) return;
    draw::dim_outside(p, map, plan.lay->outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6));
    draw::outline(p, map.px(plan.lay->outline));
    const Frame f = plan.placement.frame();
    const auto on_bench = [&](const Ring& ring) { return map.px(f.to_slab(ring)); };
    for (const GluedJoint& g : j.joints) {
        Ring line;
        for (const JointStation& at : plan.makeup->joints.at(g.joint).along) line.push_back({at.u, at.v});
        p.setPen(QPen(c.ink, 1.4, Qt::DashLine));
        p.drawPolyline(on_bench(line));
        // Clamps: a tick over each side of the top where one stands.
        p.setPen(QPen(c.steel, 2.2));
        for (int k = 0; k < g.clamps; ++k) {
            const double u = line.front().x + (line.back().x - line.front().x) * (k + 0.5) / g.clamps;
            const auto cut = cut_at_x(plan.top->above, u);
            if (cut.empty()) continue;
            const QPointF low = map.px(f.to_slab(Vec2{u, cut.front().from}));
            const QPointF high = map.px(f.to_slab(Vec2{u, cut.back().to}));
            p.drawLine(low, low + QPointF(0, 9));
            p.drawLine(high, high - QPointF(0, 9));
        }
    }
    for (const LetIn& l : j.let_in) {
        if (!l.cuts) continue;
        const bool tie = l.kind == LetInKind::bow_tie;
        QColor fill = tie ? c.wood_edge : c.steel;
        fill.setAlpha(tie ? 150 : 70);
        p.setBrush(fill);
        p.setPen(QPen(tie ? c.ink : c.pencil, 1));
        p.drawPolygon(on_bench(l.at));
    }
    // Cauls across, a bar above and one below.
    QColor bar = c.brass;
    bar.setAlpha(90);
    for (const double u : j.across_u) {
        const auto cut = cut_at_x(plan.top->above, std::clamp(u, -s.top()->length_mm / 2 + 1, s.top()->length_mm / 2 - 1));
        if (cut.empty()) continue;
        const double from = cut.front().from - 20;
        const double to = cut.back().to + 20;
        const double half = across_bar_mm / 2;
        p.setBrush(bar);
        p.setPen(QPen(c.brass_dark, 1));
        p.drawPolygon(on_bench({{u - half, from}, {u + half, from}, {u + half, to}, {u - half, to}}));
    }
    // Where a live edge is carved: the line to copy onto the wood.
    for (const CarvedLine& line : j.carved) {
        Ring at(line.line.begin(), line.line.end());
        p.setPen(QPen(c.madder, 1.8));
        p.drawPolyline(on_bench(at));
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.madder, 2.2));
    for (const Clash& k : j.clashes) p.drawEllipse(map.px(f.to_slab(k.at)), 9, 9);
}

namespace {
/// Each rod where it goes, as long as it is: the gap dark, both depths in the wood light.
void draw_rods(QPainter& p, const BenchMap& map, const Session& s) {
    const auto& c = theme::colours();
    const JoinPlan& j = *s.plan()->join;
    const Frame f = s.plan()->placement.frame();
    double longest = 1;
    for (const Rod& r : j.rods) longest = std::max(longest, r.length_mm);
    const double k = (map.strip.height() - 22) / longest;
    p.setFont(theme::figures(9));
    for (std::size_t i = 0; i < j.rods.size(); ++i) {
        const Rod& r = j.rods[i];
        const double x = map.px(f.to_slab(Vec2{r.u_mm, 0}).x);
        const double middle = map.strip.top() + 4 + longest * k / 2;
        p.setPen(QPen(c.ink, 1));
        p.setBrush(c.wood);
        p.drawRect(QRectF(x - 4, middle - r.length_mm * k / 2, 8, r.length_mm * k));
        p.setBrush(c.steel);
        p.drawRect(QRectF(x - 4, middle - r.gap_mm * k / 2, 8, r.gap_mm * k));
        p.setPen(c.ink);
        p.drawText(QRectF(x - 40, map.strip.bottom() - 16, 80, 15), Qt::AlignCenter, in_units(fine(r.length_mm), s));
    }
}
}  // namespace

void JoinView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    const JoinPlan& j = *plan.join;
    if (!j.ready || !s.join()) return;
    if (!j.rods.empty()) return draw_rods(p, map, s);
    if (j.joints.empty()) return;
    const double most = std::max(1.0, [&] {
        double m = 0;
        for (const GapReading& g : s.join()->gaps) m = std::max(m, g.gap_mm);
        return 1.2 * m;
    }());
    const Frame f = plan.placement.frame();
    const auto x_of = [&](double u) { return map.px(f.to_slab(Vec2{u, 0}).x); };
    const auto y_of = [&](double mm) { return map.strip.bottom() - (map.strip.height() - 8) * mm / most; };
    p.setPen(QPen(c.steel, 1.4));
    for (const GluedJoint& g : j.joints) {
        const auto& along = plan.makeup->joints.at(g.joint).along;
        for (int k = 0; k < g.clamps; ++k) {
            const double u = along.front().u + (along.back().u - along.front().u) * (k + 0.5) / g.clamps;
            p.drawLine(QPointF(x_of(u), map.strip.bottom()), QPointF(x_of(u), map.strip.bottom() - 6));
        }
        // What was read pushed together drawn full, each edge under the straightedge dashed.
        for (const EdgeRead edge : {EdgeRead::together, EdgeRead::right, EdgeRead::left}) {
            std::vector<GapReading> own;
            for (const GapReading& r : s.join()->gaps)
                if (r.joint == static_cast<int>(g.joint) + 1 && r.edge == edge) own.push_back(r);
            std::sort(own.begin(), own.end(), [](const GapReading& a, const GapReading& b) { return a.u_mm < b.u_mm; });
            QPolygonF line;
            for (const GapReading& r : own) line << QPointF(x_of(r.u_mm), y_of(r.gap_mm));
            const QColor colour = edge == EdgeRead::together ? c.madder : edge == EdgeRead::right ? c.chalk : c.brass_dark;
            p.setPen(QPen(colour, 1.8, edge == EdgeRead::together ? Qt::SolidLine : Qt::DashLine));
            p.drawPolyline(line);
            p.setBrush(colour);
            for (const QPointF& q : line) p.drawEllipse(q, 3, 3);
        }
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.steel, 1.4));
    }
}

void JoinView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    const JoinPlan& j = *plan.join;
    if (!j.ready) return;
    const Frame f = plan.placement.frame();
    const double u = f.from_slab(Vec2{s.gauge_mm(), f.origin.y}).x;
    for (const LetIn& l : j.let_in) {
        const Box b = bounds(l.at);
        if (!l.cuts || u < b.low.x || u > b.high.x) continue;
        const auto cut = cut_at_x(l.at, std::clamp(u, b.low.x + 0.01, b.high.x - 0.01));
        if (cut.empty()) continue;
        const double y0 = f.to_slab(Vec2{u, cut.front().from}).y;
        const double y1 = f.to_slab(Vec2{u, cut.back().to}).y;
        QColor fill = c.steel;
        fill.setAlpha(150);
        p.setBrush(fill);
        p.setPen(QPen(c.ink, 1));
        p.drawRect(QRectF(map.end_px(y1, l.high_mm), map.end_px(y0, l.low_mm)).normalized());
    }
}

std::vector<Label> JoinView::labels(const BenchMap& map, const Session& s) const {
    std::vector<Label> out;
    const Frame f = s.plan()->placement.frame();
    for (const Clash& k : s.plan()->join->clashes)
        out.push_back({map.px(f.to_slab(k.at)),
                       QObject::tr("%1 meets %2").arg(QString::fromStdString(k.one), QString::fromStdString(k.other)),
                       theme::colours().madder, 1});
    return out;
}

std::vector<Handle> JoinView::handles(const BenchMap& map, const Session& s) const {
    std::vector<Handle> out;
    if (!s.plan() || !s.plan()->join->ready || !s.join()) return out;
    const Frame f = s.plan()->placement.frame();
    for (std::size_t i = 0; i < s.join()->ties.size(); ++i) {
        const BowTie& b = s.join()->ties[i];
        out.push_back({QStringLiteral("bow tie %1").arg(i + 1), QObject::tr("Move a bow tie"), map.px(f.to_slab(outline_of(b))),
                       f.to_slab(Vec2{b.u_mm, b.v_mm}), Qt::OpenHandCursor,
                       [f, i](Session& session, Vec2 from, Vec2 to) {
                           session.preview([&](Job& job) { move_tie(job, i, f.from_slab(to) - f.from_slab(from)); });
                       },
                       [i](Session& session, double degrees) { session.preview([&](Job& job) { turn_tie(job, i, degrees); }); }});
    }
    return out;
}

std::vector<Field> JoinView::fields(const Session& s) const {
    std::vector<Field> out;
    if (s.plan() && !s.plan()->join->joints.empty())
        for (const char* what : {"pitch_mm", "loose_long_mm", "loose_wide_mm", "loose_thick_mm", "spread_g_m2", "open_min", "spread_m2_min",
                                 "piece_s", "set_min", "clamp_s", "clamp_n"})
            out.push_back(job_number(std::string("join.") + what));
    out.push_back(job_number("join.edge_mm"));
    if (s.plan() && !s.plan()->join->rods.empty()) out.push_back(job_number("join.washer_mm"));
    if (s.plan() && !s.plan()->join->cauls.empty()) out.push_back(job_number("join.caul_mm"));
    if (s.makeup() && s.makeup()->halves_u_mm)
        for (const char* what : {"connectors", "washer_mm"}) out.push_back(job_number(std::string("join.") + what));
    for (const char* what : {"bit_mm"}) out.push_back(of(job_number(std::string("join.") + what), "tie"));
    out.push_back(of(job_number("join.spring_mm"), "joint"));
    const Thing* t = s.picked_thing();
    // What a feeler gauge read along this joint, at the places where it was read.
    if (t && t->kind == "joint" && s.job() && t->index < s.plan()->join->joints.size()) {
        const auto joint = static_cast<int>(s.plan()->join->joints[t->index].joint) + 1;
        const auto& gaps = s.join()->gaps;
        for (std::size_t i = 0; i < gaps.size(); ++i)
            if (gaps[i].joint == joint) {
                const QString place = in_units(along(gaps[i].u_mm + s.top()->length_mm / 2), s);
                const QString what = gaps[i].edge == EdgeRead::together ? QObject::tr("Gap at %1")
                                     : gaps[i].edge == EdgeRead::right  ? QObject::tr("Right edge, hollow at %1")
                                                                        : QObject::tr("Left edge, hollow at %1");
                const std::string path = "join.gaps[" + std::to_string(i) + "].";
                out.push_back(of(job_number(path + "gap_mm", QString("gap_%1").arg(i + 1), what.arg(place)), "joint"));
                if (gaps[i].edge == EdgeRead::together)
                    out.push_back(of(job_number(path + "square_mm", QString("square_%1").arg(i + 1),
                                                QObject::tr("Open above (+) or below at %1").arg(place)),
                                     "joint"));
            }
    }
    if (t && t->kind == "tie")
        for (const char* what : {"u_mm", "v_mm", "turn_deg", "long_mm", "wide_mm", "deep_mm"})
            out.push_back(
                of(job_number("join.ties[" + std::to_string(t->index) + "]." + what, "tie_" + QString::fromLatin1(what).section('_', 0, 0)),
                   "tie"));
    return out;
}

std::vector<Action> JoinView::actions(Session& session) {
    Session* s = &session;
    const auto gauge_uv = [s] { return s->plan()->placement.frame().from_slab(Vec2{s->gauge_mm(), centroid(s->plan()->lay->outline).y}); };
    const bool rods = session.plan() && !session.plan()->join->rods.empty();
    const auto read_at = [s, gauge_uv](EdgeRead edge) {
        return [s, gauge_uv, edge] {
            const Thing* t = s->picked_thing();
            if (!t || t->index >= s->plan()->join->joints.size()) return;
            const int joint = static_cast<int>(s->plan()->join->joints[t->index].joint) + 1;
            std::size_t at = 0;
            s->edit_job(QObject::tr("A gap read"), [&](Job& j) { at = read_gap(j, joint, gauge_uv().x, 0.1, edge); });
            Q_EMIT s->typing_wanted(QString("gap_%1").arg(at + 1));
        };
    };
    return {{"run_card", rods ? QObject::tr("Run the card of the rods") : QObject::tr("Run the glue-up's card"),
             QObject::tr("In large type, with its clock; every tick goes to the book"),
             [s, rods] { Q_EMIT s->card_wanted(rods ? QStringLiteral("rods") : QStringLiteral("glue")); },
             rods || (session.plan() && !session.plan()->join->joints.empty())},
            {"add_tie",
             QObject::tr("A bow tie at the gauge"),
             {},
             [s, gauge_uv] {
                 s->edit_job(QObject::tr("Add a bow tie"),
                             [uv = gauge_uv(), t = s->plan()->top->thickness_mm](Job& j) { add_tie(j, uv, t); });
             }},
            {"tie_cracks", QObject::tr("Bow ties over the cracks"), QObject::tr("One every 150 mm across each crack of the top"),
             [s] {
                 std::size_t n = 0;
                 const auto plan = s->plan_of_whole();
                 if (!plan) return;
                 s->edit_job(QObject::tr("Bow ties over the cracks"), [&](Job& j) { n = tie_cracks(j, *plan); });
                 if (n == 0) Q_EMIT s->news(QObject::tr("No crack of this top wants another bow tie."));
             }},
            {"add_gap", QObject::tr("A gap read at the gauge"), QObject::tr("Pushed together dry, with a feeler gauge"),
             read_at(EdgeRead::together), session.plan() && session.whole(), false, "joint"},
            {"add_right_gap", QObject::tr("The right edge read at the gauge"), QObject::tr("A straightedge along it, a feeler gauge below"),
             read_at(EdgeRead::right), session.plan() && session.whole(), false, "joint"},
            {"add_left_gap", QObject::tr("The left edge read at the gauge"), QObject::tr("A straightedge along it, a feeler gauge below"),
             read_at(EdgeRead::left), session.plan() && session.whole(), false, "joint"},
            {"tie_away",
             QObject::tr("Take this bow tie away"),
             {},
             [s] {
                 const Thing* t = s->picked_thing();
                 if (!t) return;
                 s->edit_job(QObject::tr("Take a bow tie away"), [i = t->index](Job& j) { drop_tie(j, i); });
                 s->pick({});
             },
             true,
             false,
             "tie"}};
}

QString JoinView::help() const {
    return QObject::tr(
        "The glue-up counted before the bottle is opened: needed minutes against open ones, clamps and tenons where they stand. Bow ties "
        "are "
        "moved where they lie. Whatever is let in is checked against all the rest, in height too: rings mark what meets.");
}

}  // namespace yb
