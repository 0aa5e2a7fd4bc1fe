#include "app/steps/pour/pour_view.h"

#include <QImage>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

#include "app/ground/theme/theme.h"
#include "app/kit/bench/bench.h"
#include "core/material/resin/mix.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/shop.h"
#include "core/steps/flat/flat.h"
#include "core/steps/lay/lay.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

/// How wide the river is at a station of the bench, at its upper face; nothing where none runs.
std::optional<Span1> river_at(const Session& s, double x) {
    const Plan& plan = *s.plan();
    const Frame f = plan.placement.frame();
    for (const Compartment& c : plan.pour->compartments) {
        const Ring ring = f.to_slab(c.above);
        const Box box = bounds(ring);
        if (x < box.low.x || x > box.high.x) continue;
        const auto cut = cut_at_x(ring, std::clamp(x, box.low.x + 0.5, box.high.x - 0.5));
        if (!cut.empty()) return Span1{cut.front().from, cut.back().to};
    }
    return {};
}

/// The divider that a compartment lies right of; −1 for the first of its river.
int divider_of(const Session& s, std::size_t compartment) {
    const auto& all = s.plan()->pour->compartments;
    if (compartment >= all.size() || all[compartment].part == 0 || !s.pour()) return -1;
    int part = 0;
    const auto& dividers = s.pour()->dividers;
    for (std::size_t i = 0; i < dividers.size(); ++i)
        if (dividers[i].river == static_cast<int>(all[compartment].joint) + 1 && ++part == all[compartment].part)
            return static_cast<int>(i);
    return -1;
}

}  // namespace

PourView::PourView(Bench& bench)
    : step_key_(step_key::pour),
      bench_(bench),
      section_(
          &owner_,
          [](const Asked& a, const Work&) {
              return cure(a.kinetics, a.section, {2.5, 90});
          },
          [this](const Asked&, const Cured&) { bench_.touch(); }),
      peaks_(
          &owner_,
          [](const Row& r, const Work& work) {
              std::vector<double> out;
              for (const double w : r.widths) {
                  if (work.stop.stop_requested()) break;
                  Section s = r.section;
                  s.width_mm = w;
                  out.push_back(cure(r.kinetics, s, {4, 0}).peak_c);
              }
              return out;
          },
          [this](const Row&, const std::vector<double>&) { bench_.touch(); }) {
    soon_.setSingleShot(true);
    soon_.setInterval(160);  // when the hand rests
    QObject::connect(&soon_, &QTimer::timeout, &owner_, [this] {
        if (wanted_) section_.ask(*wanted_);
    });
}

QString PourView::strip_title(const Session& s) const {
    if (s.plan()->pour->compartments.empty()) return {};
    return QObject::tr("how hot it gets along the pour · lifts");
}

std::optional<PourView::Asked> PourView::section_here(const Session& s) const {
    const PourPlan& p = *s.plan()->pour;
    const Resin* resin = find_resin(s.shop().resins, s.plan()->pour->resin);
    const auto wide = river_at(s, s.gauge_mm());
    if (!resin || !wide || p.lifts.empty() || !s.pour()) return {};
    Section section = section_of(p.lifts.front().depth_mm, p.air_c, *s.pour());
    section.width_mm = std::max(4.0, std::round(wide->to - wide->from));
    section.banks_mm = 120;
    section.most_h = 240;
    return Asked{kinetics_of(*resin), section};
}

const Cured* PourView::here(const Session& s) const {
    const auto asked = section_here(s);
    if (!asked) return nullptr;
    const Cured* there = section_.at_hand(*asked);
    const bool new_one = !wanted_ || !(*wanted_ == *asked);
    if (!there && (new_one || (!section_.busy() && !soon_.isActive()))) {
        wanted_ = asked;
        soon_.start();
    }
    return there;
}

std::optional<PourView::Row> PourView::row(const Session& s) const {
    const auto asked = section_here(s);
    if (!asked) return {};
    Row r{asked->kinetics, asked->section, widths_along(*s.plan()->pour)};
    if (r.widths.empty()) return {};
    r.section.width_mm = 0;
    return r;
}

QString PourView::end_note(const Session& s) const {
    const Cured* c = here(s);
    if (!c) return s.plan()->pour->compartments.empty() ? QString() : QObject::tr("heat is being followed");
    const QString hottest = QObject::tr("hottest here %1 after %2").arg(in_units(celsius(c->peak_c), s), in_units(hours(c->peak_h), s));
    const auto now = s.dial() ? heat(s) : std::nullopt;
    return now ? QObject::tr("%1, %2 cured").arg(in_units(celsius(now->hottest_c), s), in_units(percent(std::round(now->cured_pct)), s))
               : hottest;
}

namespace {
/// What the form is cut to: inside always, all of it while it is picked.
void form_sizes(QPainter& p, const BenchMap& map, const Session& s) {
    const Form& form = s.plan()->pour->form;
    const Frame f = s.plan()->placement.frame();
    const double l = form.inside_length_mm / 2;
    const double w = form.inside_width_mm / 2;
    const auto at = [&](double u, double v) { return map.px(f.to_slab(form.middle + Vec2{u, v})); };
    const Thing* t = s.picked_thing();
    const bool all = t && t->kind == "form";
    p.save();
    p.setPen(QPen(theme::colours().ink, all ? 1.4 : 1));
    draw::dimension(p, at(-l, -w), at(l, -w), in_units(mm(form.inside_length_mm), s), -16);
    draw::dimension(p, at(-l, -w), at(-l, w), in_units(mm(form.inside_width_mm), s), 16);
    if (all) {
        const double o = form.thick_mm;
        draw::dimension(p, at(-l - o, w + o), at(l + o, w + o), in_units(mm(form.inside_length_mm + 2 * o), s), 14);
        draw::dimension(p, at(l + o, -w - o), at(l + o, w + o), in_units(mm(form.inside_width_mm + 2 * o), s), -16);
        // Its stiffeners or blocks along both sides.
        p.setPen(QPen(theme::colours().wood_edge, 3));
        const int n = std::max(1, static_cast<int>(std::ceil(2 * l / std::max(50.0, form.stiffeners_mm))));
        for (int i = 0; i <= n; ++i)
            for (const double side : {-1.0, 1.0}) {
                const double u = -l + 2 * l * i / n;
                p.drawLine(at(u, side * (w + o)), at(u, side * (w + o + 40)));
            }
    }
    p.restore();
}
}  // namespace

void PourView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.pour->ready) return;
    draw::dim_outside(p, map, plan.lay->outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6));
    draw::outline(p, map.px(plan.lay->outline));
    if (plan.pour->compartments.empty()) return;
    const Frame f = plan.placement.frame();
    const Form& form = plan.pour->form;
    // The form around it, as thick as its sheet.
    const double sheet = s.pour() ? s.pour()->sheet_mm : 18;
    const Vec2 middle = plan.pour->form.middle;
    const auto box = [&](double more) {
        const double l = form.inside_length_mm / 2 + more;
        const double w = form.inside_width_mm / 2 + more;
        return map.px(f.to_slab(Ring{middle + Vec2{-l, -w}, middle + Vec2{l, -w}, middle + Vec2{l, w}, middle + Vec2{-l, w}}));
    };
    p.setPen(QPen(c.wood_edge, std::max(2.0, sheet * map.scale)));
    p.drawPolygon(box(sheet / 2));
    form_sizes(p, map, s);
    p.setPen(QPen(c.slip, 3));
    for (const Dam& d : plan.pour->dams) {
        const double half = d.length_mm / 2;
        p.drawLine(map.px(f.to_slab(d.at + Vec2{0, -half})), map.px(f.to_slab(d.at + Vec2{0, half})));
    }
    // Dividers from bank to bank; each compartment in a tint of its own.
    p.setPen(QPen(c.ink, 2));
    for (const Compartment& k : plan.pour->compartments) {
        const bool far_half = k.half == Compartment::Half::left;
        if (k.part == 0 && !far_half) continue;
        const double u = bounds(k.above).low.x;
        if (k.part > 0)
            for (const Span1 cut : cut_at_x(k.above, u + 0.5))
                p.drawLine(map.px(f.to_slab(Vec2{u, cut.from})), map.px(f.to_slab(Vec2{u, cut.to})));
        if (far_half) {
            const auto middle_line = sides_of(k.above).low;
            p.drawPolyline(map.px(f.to_slab(Ring(middle_line.begin(), middle_line.end()))));
        }
        QColor tint = (k.part % 2 == 1) != far_half ? c.brass : c.moss;
        tint.setAlpha(90);
        p.save();
        p.setPen(Qt::NoPen);
        p.setBrush(tint);
        p.drawPolygon(map.px(f.to_slab(k.above)));
        p.restore();
    }
    // Clamps on blocks, spread along each leaf.
    p.setPen(QPen(c.steel, 1.4));
    p.setBrush(c.slip);
    for (const FloatUp& up : plan.pour->floats)
        for (int k = 0; k < up.clamps; ++k) {
            const Ring& leaf = plan.top->regions[up.leaf].above;
            const Box b = bounds(leaf);
            const double u = b.low.x + b.width() * (k + 0.5) / up.clamps;
            const auto cut = cut_at_x(leaf, u);
            if (cut.empty()) continue;
            const QPointF q = map.px(f.to_slab(Vec2{u, (cut.front().from + cut.back().to) / 2}));
            p.drawRect(QRectF(q.x() - 6, q.y() - 6, 12, 12));
            p.drawLine(q - QPointF(4, 4), q + QPointF(4, 4));
            p.drawLine(q - QPointF(4, -4), q + QPointF(4, -4));
        }
}

std::vector<Label> PourView::labels(const BenchMap& map, const Session& s) const {
    std::vector<Label> out;
    const Plan& plan = *s.plan();
    const Frame f = plan.placement.frame();
    for (std::size_t i = 0; i < plan.pour->compartments.size(); ++i) {
        const Compartment& c = plan.pour->compartments[i];
        const auto lifts =
            std::count_if(plan.pour->lifts.begin(), plan.pour->lifts.end(), [&](const PourLift& l) { return l.compartment == i; });
        out.push_back({map.px(f.to_slab(centroid(c.above))),
                       lifts == 1 ? QObject::tr("%1 in one lift").arg(in_units(litres(c.pour_l), s))
                                  : QObject::tr("%1 in %2 lifts").arg(in_units(litres(c.pour_l), s)).arg(lifts),
                       theme::colours().chalk, c.pour_l});
    }
    return out;
}

void PourView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (plan.pour->compartments.empty()) return;
    const Box top = bounds(plan.lay->outline);
    // Lifts lie below, as deep as they are poured.
    const QRectF side(map.px(top.low.x), map.strip.top() + 4, map.px(top.high.x) - map.px(top.low.x), map.strip.height() - 8);
    QColor resin = c.resin;
    resin.setAlpha(90);
    p.setPen(QPen(c.chalk, 1));
    p.setBrush(resin);
    p.drawRect(side);
    p.setPen(QPen(c.slip, 1));
    const auto n = static_cast<double>(plan.pour->lifts.size());
    for (double i = 1; i < n; ++i) {
        const double y = side.bottom() - side.height() * i / n;
        p.drawLine(QPointF(side.left(), y), QPointF(side.right(), y));
    }
    const auto asked = row(s);
    if (!asked) return;
    const std::vector<double>* peaks = peaks_.at_hand(*asked);
    if (!peaks) return peaks_.ask(*asked);
    if (peaks->size() != asked->widths.size() || !s.pour()) return;
    const double limit = s.pour()->peak_limit_c;
    const double low = plan.pour->air_c;
    const double high = std::max(limit + 5, *std::max_element(peaks->begin(), peaks->end()) + 5);
    const auto y_of = [&](double t) { return side.bottom() - side.height() * (t - low) / (high - low); };
    p.setPen(QPen(c.madder, 1.2, Qt::DashLine));
    p.drawLine(QPointF(side.left(), y_of(limit)), QPointF(side.right(), y_of(limit)));
    p.setFont(theme::figures(9));
    p.drawText(QPointF(side.right() + 4, y_of(limit) + 4), in_units(celsius(limit), s));
    std::vector<Vec2> by_width;
    for (std::size_t i = 0; i < peaks->size(); ++i) by_width.push_back({asked->widths[i], (*peaks)[i]});
    QPolygonF line;
    double hottest = low;
    for (int i = 0; i <= 120; ++i) {
        const double x = top.low.x + top.width() * i / 120;
        if (const auto wide = river_at(s, x)) {
            const double t = height_at(by_width, wide->to - wide->from);
            hottest = std::max(hottest, t);
            line << QPointF(map.px(x), y_of(t));
        }
    }
    p.setPen(QPen(theme::heat(0.75), 2.2));
    p.drawPolyline(line);
    if (!line.isEmpty()) {
        p.setPen(c.ink);
        p.drawText(line.first() + QPointF(4, -5), QObject::tr("%1 at most").arg(in_units(celsius(hottest), s)));
    }
}

std::optional<Dial> PourView::dial(const Session& s) const {
    if (!s.plan() || s.plan()->pour->compartments.empty()) return {};
    const Cured* c = here(s);
    if (!c || c->frames.size() < 2) return {};
    if (!s.dial()) return Dial{QObject::tr("through the hours"), static_cast<int>(c->frames.size()) - 1};
    const auto k = static_cast<std::size_t>(std::lround(*s.dial() * static_cast<double>(c->frames.size() - 1)));
    return Dial{QObject::tr("after %1").arg(in_units(hours(c->frames[k].h), s)), static_cast<int>(c->frames.size()) - 1};
}

namespace {
/// The form cut across: its bottom under the top, its sides beside it, how high they stand.
void form_section(QPainter& p, const BenchMap& map, const Session& s) {
    const Plan& plan = *s.plan();
    if (plan.pour->lifts.empty()) return;
    const Form& form = plan.pour->form;
    const Frame f = plan.placement.frame();
    const double u = f.from_slab(Vec2{s.gauge_mm(), f.to_slab(form.middle).y}).x;
    if (std::abs(u - form.middle.x) > form.inside_length_mm / 2) return;
    const double w = form.inside_width_mm / 2;
    const auto y_of = [&](double v) { return f.to_slab(form.middle + Vec2{u - form.middle.x, v}).y; };
    const auto& c = theme::colours();
    QColor board = c.wood_edge;
    board.setAlpha(150);
    p.setPen(QPen(c.ink, 0.8));
    p.setBrush(board);
    const auto box = [&](double v0, double v1, double z0, double z1) {
        p.drawRect(QRectF(map.end_px(y_of(v0), z1), map.end_px(y_of(v1), z0)).normalized());
    };
    // The blanks as they go in: what is sawn off after stands beside the finished top.
    const Top& top = *plan.top;
    const auto section = [&](const Ring& above, const Ring& below) {
        QPolygonF cut;
        const auto a = cut_at_x(above, u);
        const auto b = cut_at_x(below, u);
        if (a.empty() || b.empty()) return cut;
        const auto px = [&](double v, double z) { return map.end_px(f.to_slab(Vec2{u, v}).y, z); };
        cut << px(a.front().from, top.thickness_mm) << px(a.back().to, top.thickness_mm) << px(b.back().to, 0) << px(b.front().from, 0);
        return cut;
    };
    QPainterPath sawn;
    for (const Blank& b : top.blanks) sawn.addPolygon(section(b.above, b.below)), sawn.closeSubpath();
    QPainterPath finished;
    finished.addPolygon(section(top.above, top.below));
    p.save();
    p.setPen(QPen(c.wood_edge, 0.8, Qt::DashLine));
    QColor wood = c.wood;
    wood.setAlpha(110);
    p.setBrush(wood);
    p.drawPath(sawn.subtracted(finished));
    p.restore();
    const double t = form.thick_mm;
    box(-w, w, -t, 0);
    box(-w - t, -w, -t, form.side_mm);
    box(w, w + t, -t, form.side_mm);
    p.setBrush(Qt::NoBrush);
    if (const Thing* picked = s.picked_thing(); picked && picked->kind == "form") {
        p.setPen(QPen(c.ink, 1));
        draw::dimension(p, map.end_px(y_of(w + t), 0), map.end_px(y_of(w + t), form.side_mm), in_units(mm(form.side_mm), s), 14);
    }
}
}  // namespace

std::optional<HeatSection> PourView::heat(const Session& s) const {
    const Cured* c = here(s);
    const auto wide = river_at(s, s.gauge_mm());
    if (!c || !wide || s.plan()->pour->lifts.empty()) return {};
    return heat_section(*c, s.dial(), s.plan()->pour->air_c, s.plan()->pour->lifts.front().depth_mm, (wide->to - wide->from) / 2);
}

/// Heat over the section at the hour of the dial, at its hottest while nobody has turned it.
void PourView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    form_section(p, map, s);
    const auto now = heat(s);
    if (!now) return;
    const auto wide = river_at(s, s.gauge_mm());
    const double half = here(s)->x.back();
    const double middle = (wide->from + wide->to) / 2;
    // It lies at the bottom of the top: the first lift. On edge heights run to the right, across runs up.
    const QRectF where =
        QRectF(map.end_px(middle + half, s.plan()->pour->lifts.front().depth_mm), map.end_px(middle - half, 0)).normalized();
    p.save();
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.drawImage(where, map.end_on_edge ? now->heat.transformed(QTransform().rotate(90)) : now->heat);
    p.restore();
}

std::vector<Field> PourView::fields(const Session& s) const {
    if (s.plan() && s.plan()->pour->compartments.empty()) return {};
    std::vector<Field> out;
    for (const char* path : {"pour.peak_limit_c", "pour.lifts", "pour.cup_l", "pour.pot_l", "pour.after_mm", "fill.overfill_mm",
                             "fill.reserve_pct", "pour.cup_loss_pct", "pour.soak_ml_m2", "pour.pigment_g_kg", "pour.second_pct",
                             "pour.clamp_n", "pour.slope_mm_m", "pour.night_c"})
        out.push_back(job_number(path));
    for (const char* path : {"pour.sheet_mm", "pour.rim_mm", "pour.bearers_mm", "pour.tape_mm", "pour.roll_m", "pour.panel_long_mm",
                             "pour.panel_wide_mm", "pour.kerf_mm", "pour.overhang_mm"})
        out.push_back(of(job_number(path), "top form"));
    for (Field& f : four_corners(
             "form_corner", QObject::tr("Corner high by"), -100, 100,
             [](const Session&now) { return now.pour() ? &now.pour()->corners_mm : nullptr; },
             [](Session&now, std::size_t k, std::optional<double> v) {
                 now.edit_job(QObject::tr("A corner of the form"), [&](Job& j) { set_form_corner(j, k, v); });
             },
             "form"))
        out.push_back(std::move(f));
    // A compartment right of a divider: how much of its own colour.
    if (const Thing* t = s.picked_thing(); t && t->kind == "river")
        if (const int d = divider_of(s, t->index); d >= 0) {
            const std::string path = "pour.dividers[" + std::to_string(d) + "].";
            out.push_back(of(job_number(path + "pigment_g_kg", "divider_pigment"), "river"));
            out.push_back(of(job_number(path + "u_mm", "divider_u"), "river"));
        }
    return out;
}

std::vector<Action> PourView::actions(Session& session) {
    Session* s = &session;
    return {{"run_card", QObject::tr("Run the card of the day"), QObject::tr("In large type, with its clock; every tick goes to the book"),
             [s] { Q_EMIT s->card_wanted(QStringLiteral("pour")); }, session.plan() && !session.plan()->pour->lifts.empty()},
            {"the_shop", QObject::tr("The resins of the shop"), QObject::tr("Opens the shop's page"),
             [s] { Q_EMIT s->shop_wanted(QStringLiteral("resins")); }, true, false, "top river lift"},
            {"hottest", QObject::tr("Where it is hottest"), QObject::tr("The gauge goes to the widest place"),
             [s] {
                 double best = 0;
                 double at = s->gauge_mm();
                 const Span1 all = s->plan()->stations();
                 for (double x = all.from; x <= all.to; x += 10)
                     if (const auto wide = river_at(*s, x); wide && wide->to - wide->from > best) best = wide->to - wide->from, at = x;
                 s->set_gauge(at);
             },
             session.plan() && !session.plan()->pour->compartments.empty(), false, "top river lift"},
            {"add_divider", QObject::tr("A divider at the gauge"), QObject::tr("What lies right of it is poured in a colour of its own"),
             [s] {
                 // In the river that runs at the gauge.
                 const auto wide = river_at(*s, s->gauge_mm());
                 if (!wide)
                     return (void)Q_EMIT s->trouble(QObject::tr("No river runs at the gauge: move it to where the divider is to stand."));
                 const Frame f = s->plan()->placement.frame();
                 const Vec2 at = f.from_slab({s->gauge_mm(), (wide->from + wide->to) / 2});
                 int river = 1;
                 for (const Compartment& c : s->plan()->pour->compartments) {
                     if (!contains(c.above, at)) continue;
                     river = static_cast<int>(c.joint) + 1;
                     const Box box = bounds(c.above);
                     if (at.x - box.low.x < 20 || box.high.x - at.x < 20)
                         return (void)Q_EMIT s->trouble(
                             QObject::tr("Too near to the end of the river, or to another divider: slide the gauge along."));
                 }
                 s->edit_job(QObject::tr("A divider"), [&](Job& j) { add_divider(j, river, at.x); });
             },
             session.plan() && !session.plan()->pour->compartments.empty(), false, "top river"},
            {"drop_divider",
             QObject::tr("Take the divider at its left away"),
             {},
             [s] {
                 const Thing* t = s->picked_thing();
                 const int d = t ? divider_of(*s, t->index) : -1;
                 if (d < 0) return;
                 s->edit_job(QObject::tr("Take a divider away"), [&](Job& j) { drop_divider(j, static_cast<std::size_t>(d)); });
                 s->pick({});
             },
             session.picked_thing() && divider_of(session, session.picked_thing()->index) >= 0,
             false,
             "river"}};
}

QString PourView::help() const {
    return QObject::tr(
        "A river from what it holds to what is mixed: lifts that stay below the limit you set, batches for your cups, the form and its "
        "clamps. The end view shows the heat at the gauge; the dial goes through the hours. Without a river there is nothing to pour "
        "here.");
}

}  // namespace yb
