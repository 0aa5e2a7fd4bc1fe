#include "app/steps/under/under_view.h"

#include <cmath>
#include <numbers>
#include <tuple>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/top_section.h"
#include "app/steps/under/holes.h"
#include "core/material/wood/wood.h"
#include "core/shop/edit/shop_edits.h"
#include "core/steps/lay/lay.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

namespace yb {

QString UnderView::strip_title(const Session& s) const {
    const UnderPlan& u = *s.plan()->under;
    return QObject::tr("from the side and the end, to scale; how far it goes down, twenty times over") +
           (u.ready ? QObject::tr(" · %1 today, %2 to %3 in the room")
                          .arg(in_units(percent(u.day_pct), s), in_units(percent(u.low_pct), s), in_units(percent(u.high_pct), s))
                    : QString());
}

namespace {
QPolygonF on_plan(const Ring& uv, const Frame& f, const BenchMap& map) {
    QPolygonF out;
    for (const Vec2 p : uv) out << map.px(f.to_slab(p));
    return out;
}
/// The base's pieces as they are seen along one direction: the hull of each one's corners.
void draw_base(QPainter& p, const BasePlan& base, const std::function<QPointF(Vec3)>& seen) {
    const auto& c = theme::colours();
    QColor wood = c.wood_edge;
    wood.setAlpha(110);
    p.setPen(QPen(c.ink, 1));
    p.setBrush(wood);
    for (const BasePiece& piece : base.pieces) {
        Ring on_paper;
        for (const Vec3 q : piece.corners) {
            const QPointF at = seen(q);
            on_paper.push_back({at.x(), at.y()});
        }
        QPolygonF shape;
        for (const Vec2 q : convex_hull(std::move(on_paper))) shape << QPointF(q.x, q.y);
        p.drawPolygon(shape);
    }
}

/// A station of the bench as a place along the top.
double station_u(const Plan& plan, double x) { return plan.placement.frame().from_slab({x, plan.placement.y_mm}).x; }
}  // namespace

void UnderView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.under->ready || !s.job()) return;
    const Frame f = s.plan()->placement.frame();
    draw::dim_outside(p, map, f.to_slab(plan.top->above));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6));
    draw::outline(p, map.px(f.to_slab(plan.top->above)));
    const double half = s.top()->length_mm / 2;
    p.setPen(QPen(c.brass, 1.6, Qt::DashDotLine));
    for (const double v : lines_held(*plan.under)) p.drawLine(map.px(f.to_slab({-half, v})), map.px(f.to_slab({half, v})));
    const UnderChoices& u = *s.under();
    p.save();
    p.setOpacity(0.55);
    draw_base(p, plan.under->base, [&](Vec3 q) { return map.px(f.to_slab({q.x, q.y})); });
    p.restore();
    if (u.base == BaseKind::panels) {
        p.setPen(QPen(c.chalk, 1.6));
        p.setBrush(c.slip);
        for (const BaseCorner& q : base_outline(u)) {
            const QPointF at = map.px(f.to_slab({q.u_mm, q.v_mm}));
            p.drawRect(QRectF(at.x() - 5, at.y() - 5, 10, 10));
        }
    }
    QColor steel = c.steel;
    steel.setAlpha(190);
    for (const Channel& ch : u.channels) {
        p.setBrush(steel);
        p.setPen(QPen(c.ink, 1, Qt::DashLine));
        p.drawPolygon(on_plan(footprint(ch), f, map));
    }
    for (const LegPlate& pl : u.plates) {
        p.setBrush(steel);
        p.setPen(QPen(c.ink, 1.3));
        p.drawPolygon(on_plan(footprint(pl), f, map));
    }
    for (const Slot& slot : plan.under->slots) draw_hole(p, map, s, slot);
}

namespace {
/// A chair as one sees it from its side, its seat 450 mm over the floor: for the eye to measure by. Which way it looks: 1 to the right.
void draw_chair(QPainter& p, const std::function<QPointF(double, double)>& at, double x, double way) {
    p.setPen(QPen(theme::colours().pencil, 1.2));
    p.setBrush(Qt::NoBrush);
    const auto line = [&](double x0, double z0, double x1, double z1) { p.drawLine(at(x + way * x0, z0), at(x + way * x1, z1)); };
    line(0, 0, 0, 900);
    line(0, 450, 400, 450);
    line(400, 450, 400, 0);
    line(0, 220, 400, 220);
}

/// The table from its side, or its end. @param at places of (along or across, up), mm, on paper.
void draw_standing(QPainter& p, const Session& s, bool side, const std::function<QPointF(double, double)>& at) {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    const UnderPlan& under = *plan.under;
    const Top& top = *plan.top;
    const UnderChoices& u = *s.under();
    const Box rim = bounds(top.above);
    const double tall = top.wanted.height_mm;
    const double t = top.thickness_mm;
    const double feet = u.feet_high_mm();
    const double low = side ? rim.low.x : rim.low.y;
    const double high = side ? rim.high.x : rim.high.y;
    draw_base(p, under.base, [&](Vec3 q) { return at(side ? q.x : q.y, q.z + feet); });
    // Feet under the base, plates between it and the top.
    p.setPen(QPen(c.ink, 1));
    p.setBrush(c.steel);
    const auto box = [&](double from, double to, double z0, double z1) { p.drawRect(QRectF(at(from, z1), at(to, z0)).normalized()); };
    for (const Vec2 q : under.base.feet) {
        const double x = side ? q.x : q.y;
        box(x - 15, x + 15, 0, feet);
    }
    QColor leg = c.steel;
    leg.setAlpha(120);
    const Box feet_box = under.feet.empty() ? Box{} : bounds(Ring(under.feet.begin(), under.feet.end()));
    for (const LegPlate& pl : u.plates) {
        const double middle = side ? pl.u_mm : pl.v_mm;
        const double half = (side ? pl.along_mm : pl.across_mm) / 2;
        p.setBrush(c.steel);
        if (!u.plate_let_in) box(middle - half, middle + half, tall - t - u.plate_mm, tall - t);
        if (!under.base.pieces.empty()) continue;
        // Bought: its legs under the plates, to where its feet stand.
        double from = middle - half;
        double to = middle + half;
        double foot_from = from;
        double foot_to = to;
        if (const bool set = side ? u.foot_along_mm.has_value() : u.foot_across_mm.has_value(); set && !under.feet.empty()) {
            const double f0 = side ? feet_box.low.x : feet_box.low.y;
            const double f1 = side ? feet_box.high.x : feet_box.high.y;
            if (!side || u.plates.size() < 2) foot_from = f0, foot_to = f1;
            else if (middle < (f0 + f1) / 2) foot_from = f0;
            else foot_to = f1;
        }
        p.setBrush(leg);
        p.drawPolygon(QPolygonF{at(from, tall - t - u.plate_mm), at(to, tall - t - u.plate_mm), at(foot_to, 0), at(foot_from, 0)});
    }
    p.setPen(QPen(c.wood_edge, 1.2));
    p.setBrush(c.wood);
    box(low, high, tall - t, tall);
    draw_chair(p, at, side ? low - 420 : high + 420, side ? 1 : -1);
    if (under.tipping) {
        const QPointF foot = at(side ? under.tipping->balance.x : under.tipping->balance.y, 0);
        p.setPen(QPen(c.brass_dark, 1.2));
        p.setBrush(c.brass);
        p.drawPolygon(QPolygonF{foot, foot + QPointF(-5, -9), foot + QPointF(5, -9)});
    }
    if (!side || !under.sag_mm || *under.sag_mm < 0.05 || u.plates.size() < 2) return;
    double p0 = 1e300;
    double p1 = -1e300;
    for (const LegPlate& pl : u.plates) p0 = std::min(p0, pl.u_mm), p1 = std::max(p1, pl.u_mm);
    QPolygonF bent;
    for (int i = 0; i <= 30; ++i) bent << at(p0 + (p1 - p0) * i / 30, tall - t - 20 * *under.sag_mm * std::sin(std::numbers::pi * i / 30));
    p.setPen(QPen(c.madder, 1.4));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(bent);
    p.setFont(theme::figures(9));
    p.setPen(c.ink);
    p.drawText(at((p0 + p1) / 2, tall - t - 20 * *under.sag_mm) + QPointF(6, 12), in_units(fine(*under.sag_mm), s));
}
}  // namespace

/// The table from the side, and from its end beside it, on one floor and to one scale: feet, base, top, a chair to measure it by, how far
/// it goes down twenty times over, its balance point.
void UnderView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    const Top& top = *plan.top;
    if (!plan.under->ready || !top.ready || !s.job() || top.wanted.height_mm <= 0) return;
    const Box rim = bounds(top.above);
    const double tall = std::max(900.0, top.wanted.height_mm) + 20;
    constexpr double chair_mm = 650;
    const QRectF room = map.strip.adjusted(0, 4, 0, -3);
    const double wide = rim.width() + 2 * chair_mm + rim.height() + 500;
    const double k = std::min(room.height() / tall, room.width() / wide);
    const double floor = room.bottom() - 2;
    const double left = room.center().x() - wide * k / 2;
    p.setPen(QPen(c.pencil, 1.4));
    p.drawLine(QPointF(left, floor), QPointF(left + wide * k, floor));
    const double side_middle = left + (chair_mm + rim.width() / 2) * k;
    const double rim_middle = (rim.low.x + rim.high.x) / 2;
    draw_standing(p, s, true, [&](double x, double z) { return QPointF(side_middle + (x - rim_middle) * k, floor - z * k); });
    const double end_middle = left + (2 * chair_mm + rim.width() + 250 + rim.height() / 2) * k;
    const double v_middle = (rim.low.y + rim.high.y) / 2;
    // Left of the top is to the left.
    draw_standing(p, s, false, [&](double v, double z) { return QPointF(end_middle - (v - v_middle) * k, floor - z * k); });
    p.setFont(theme::figures(9));
    p.setPen(c.pencil);
    p.drawText(QPointF(left + wide * k + 8, floor), QObject::tr("1 to %1").arg(std::lround(p.device()->logicalDpiX() / 25.4 / k)));
}

void UnderView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.under->ready || !s.job()) return;
    const Frame f = s.plan()->placement.frame();
    const UnderChoices& u = *s.under();
    const double gauge_u = station_u(plan, s.gauge_mm());
    // The top stands finished on the line of the bench; steel hangs under it or is let in.
    const auto steel = [&](double v, double across, double low, double high) {
        const double y0 = f.to_slab({gauge_u, v - across / 2}).y;
        const double y1 = f.to_slab({gauge_u, v + across / 2}).y;
        p.setPen(QPen(c.ink, 1));
        p.setBrush(c.steel);
        p.drawRect(QRectF(map.end_px(y1, high), map.end_px(y0, low)).normalized());
    };
    for (const LegPlate& pl : u.plates)
        if (std::abs(gauge_u - pl.u_mm) < pl.along_mm / 2)
            steel(pl.v_mm, pl.across_mm, u.plate_let_in ? 0 : -u.plate_mm, u.plate_let_in ? u.plate_mm : 0);
    for (const Channel& ch : u.channels)
        if (std::abs(gauge_u - ch.u_mm) < ch.width_mm / 2) steel(ch.v_mm, ch.length_mm, 0, ch.depth_mm);
}

std::optional<Dial> UnderView::dial(const Session& s) const {
    if (!s.plan() || !s.plan()->under->ready || s.plan()->under->slots.empty()) return {};
    if (!s.dial()) return Dial{QObject::tr("through the year"), 11};
    const auto month = static_cast<int>(std::lround(*s.dial() * 11));
    return Dial{QObject::tr("%1: the wood holds %2 · ways twelve times over")
                    .arg(told(month_name(month)), in_units(percent(s.plan()->under->month_pct[static_cast<std::size_t>(month)]), s)),
                11};
}

std::vector<Handle> UnderView::handles(const BenchMap& map, const Session& s) const {
    std::vector<Handle> out;
    if (!s.plan() || !s.plan()->under->ready || !s.job()) return out;
    const Frame f = s.plan()->placement.frame();
    const auto move = [f](void (*by)(Job&, std::size_t, Vec2), std::size_t i) {
        return [f, by, i](Session& session, Vec2 from, Vec2 to) {
            session.preview([&](Job& j) { by(j, i, f.from_slab(to) - f.from_slab(from)); });
        };
    };
    const UnderChoices& u = *s.under();
    for (std::size_t i = 0; i < u.channels.size(); ++i)
        out.push_back({QObject::tr("channel %1").arg(i + 1), QObject::tr("Move a channel"), on_plan(footprint(u.channels[i]), f, map),
                       f.to_slab({u.channels[i].u_mm, u.channels[i].v_mm}), Qt::OpenHandCursor, move(move_channel, i)});
    if (u.base == BaseKind::panels) {
        const auto corners = base_outline(u);
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const Vec2 at{corners[i].u_mm, corners[i].v_mm};
            const QPointF q = map.px(f.to_slab(at));
            out.push_back({QObject::tr("corner %1").arg(i + 1), QObject::tr("Move a corner of the base"),
                           QPolygonF(QRectF(q.x() - 7, q.y() - 7, 14, 14)), f.to_slab(at), Qt::OpenHandCursor, move(move_base_corner, i)});
        }
    }
    for (std::size_t i = 0; i < u.plates.size(); ++i)
        out.push_back({QObject::tr("plate %1").arg(i + 1), QObject::tr("Move a leg plate"), on_plan(footprint(u.plates[i]), f, map),
                       f.to_slab({u.plates[i].u_mm, u.plates[i].v_mm}), Qt::OpenHandCursor, move(move_plate, i)});
    return out;
}

std::vector<Dimension> UnderView::dimensions(const BenchMap& map, const Session& s) const {
    std::vector<Dimension> out;
    if (!s.plan() || !s.plan()->under->ready || !s.job()) return out;
    const WantedTop& top = *s.top();
    const Frame f = s.plan()->placement.frame();
    const double half = top.length_mm / 2;
    const double edge = -top.width_mm / 2;
    // From the nearer end of the top to the middle of each plate and channel, in two rows below the top.
    const auto from_end = [&](const QString& name, const QString& label, double u, double off, auto at,
                              void (*set)(Job&, std::size_t, double), std::size_t i) {
        Field field{name,
                    label,
                    Kind::length,
                    [at, i](const Session& now) -> std::optional<double> {
                        if (!now.job()) return {};
                        const auto there = at(*now.under(), i);
                        return there ? std::optional(from_end_mm(*now.job(), *there)) : std::nullopt;
                    },
                    [set, i, label](Session& now, std::optional<double> v) {
                        if (v) now.edit_job(label, [&](Job& j) { set(j, i, *v); });
                    },
                    0,
                    top.length_mm};
        const double end = u < 0 ? -half : half;
        const QPointF a = map.px(f.to_slab({std::min(u, end), edge}));
        const QPointF b = map.px(f.to_slab({std::max(u, end), edge}));
        out.push_back({a, b, off, field});
    };
    const auto plate = [](const UnderChoices& j, std::size_t i) {
        return i < j.plates.size() ? std::optional(j.plates[i].u_mm) : std::nullopt;
    };
    const auto channel = [](const UnderChoices& j, std::size_t i) {
        return i < j.channels.size() ? std::optional(j.channels[i].u_mm) : std::nullopt;
    };
    for (std::size_t i = 0; i < s.under()->plates.size(); ++i)
        from_end(QString("plate_%1_from_end").arg(i + 1), QObject::tr("Plate %1 from the end").arg(i + 1), s.under()->plates[i].u_mm, -16,
                 plate, set_plate_from_end, i);
    for (std::size_t i = 0; i < s.under()->channels.size(); ++i)
        from_end(QString("channel_%1_from_end").arg(i + 1), QObject::tr("Channel %1 from the end").arg(i + 1), s.under()->channels[i].u_mm,
                 -38, channel, set_channel_from_end, i);
    return out;
}

namespace {
/// How the base stands on its floor, and the corners of an outline of one's own.
void base_fields(std::vector<Field>& out, const Session& now) {
    for (Field& f : four_corners(
             "floor_gap", QObject::tr("Foot above the floor"), 0, 60,
             [](const Session&s) { return s.job() ? &s.under()->floor_gaps_mm : nullptr; },
             [](Session&s, std::size_t k, std::optional<double> v) {
                 s.edit_job(QObject::tr("A foot above the floor"), [&](Job& j) { set_floor_gap(j, k, v); });
             },
             "base"))
        out.push_back(std::move(f));
    if (now.under()->base != BaseKind::panels) return;
    const auto corners = base_outline(*now.under());
    for (std::size_t i = 0; i < corners.size(); ++i)
        for (const auto& [name, label, side] : {std::tuple{"u", QObject::tr("Corner %1, along").arg(i + 1), &BaseCorner::u_mm},
                                                {"v", QObject::tr("Corner %1, across").arg(i + 1), &BaseCorner::v_mm}})
            out.push_back(of(Field{QString("corner_%1_%2").arg(i + 1).arg(name), label, Kind::length,
                                   [i, side = side](const Session& s) -> std::optional<double> {
                                       if (!s.job()) return {};
                                       const auto all = base_outline(*s.under());
                                       return i < all.size() ? std::optional(all[i].*side) : std::nullopt;
                                   },
                                   [i, side = side](Session& s, std::optional<double> v) {
                                       if (v)
                                           s.edit_job(QObject::tr("A corner of the base"),
                                                      [&](Job& j) { set_base_corner(j, i, side, *v); });
                                   },
                                   -10000, 10000},
                             "base"));
}
}  // namespace

std::vector<Field> UnderView::fields(const Session& now) const {
    std::vector<Field> out{job_number("under.day_moisture_pct", "under_day"),
                           job_number("under.bolt_mm"),
                           job_number("under.play_mm"),
                           job_number("under.insert_mm"),
                           job_number("under.plate_mm"),
                           job_number("under.feet_mm"),
                           of(job_number("under.plates[].across_mm", "plate_across"), "plate"),
                           of(job_number("under.plates[].along_mm", "plate_along"), "plate"),
                           of(job_number("under.plates[].bolts_across", "plate_bolts_across"), "plate"),
                           of(job_number("under.plates[].bolts_along", "plate_bolts_along"), "plate"),
                           of(job_number("under.channels[].length_mm", "channel_length"), "channel"),
                           of(job_number("under.channels[].width_mm", "channel_width"), "channel"),
                           of(job_number("under.channels[].depth_mm", "channel_depth"), "channel"),
                           of(job_number("under.channels[].wall_mm", "channel_wall"), "channel"),
                           of(job_number("under.channels[].bolts", "channel_bolts"), "channel"),
                           job_number("under.edge_mm"),
                           job_number("under.helpers")};
    out.push_back(of(job_number("under.insert_n"), "hole"));
    if (now.job() && now.under()->base == BaseKind::pedestal) out.push_back(of(job_number("under.notch_mm"), "base"));
    // What it stands on, where it is made here; what it has to go through.
    for (const char* path :
         {"under.leg_wide_mm", "under.leg_thick_mm", "under.splay_deg", "under.stock_mm", "under.foot_along_mm", "under.foot_across_mm",
          "under.base_kg", "under.knee_mm", "under.door_wide_mm", "under.door_high_mm", "under.stair_mm", "under.stair_high_mm",
          "under.feet_travel_mm", "under.person_n", "under.push_n", "under.lead_days"})
        out.push_back(of(job_number(path), "base"));
    if (const Thing* t = now.picked_thing(); t && t->kind == "base" && now.job()) base_fields(out, now);
    // How far the plate's corners hang below the top, the base stood under it.
    if (const Thing* t = now.picked_thing(); t && t->kind == "plate") {
        for (Field& f : four_corners(
                 "plate_gap", QObject::tr("Gap"), 0, 60,
                 [i = t->index](const Session&s) {
                     return s.job() && i < s.under()->plates.size() ? &s.under()->plates[i].gaps_mm : nullptr;
                 },
                 [i = t->index](Session&s, std::size_t k, std::optional<double> v) {
                     s.edit_job(QObject::tr("A gap under a plate"), [&](Job& j) { set_plate_gap(j, i, k, v); });
                 },
                 "plate"))
            out.push_back(std::move(f));
    }
    out.push_back(of(job_number("under.least_above_mm"), "hole"));
    out.push_back(of(job_number("under.damper_pct"), "channel"));
    // The months of the room, each typed over as one likes.
    for (int m = 0; m < 12; ++m) {
        const std::string path = "room.months[" + std::to_string(m) + "].";
        const QString month = told(month_name(m));
        out.push_back(job_number(path + "rh_pct", QString("room_rh_%1").arg(m + 1), QObject::tr("%1, humidity").arg(month)));
        out.push_back(job_number(path + "temp_c", QString("room_c_%1").arg(m + 1), QObject::tr("%1, air").arg(month)));
    }
    return out;
}

namespace {
/// The section of a channel, of those on the maker's list.
PickField section_pick(const Session& now, std::size_t channel) {
    QStringList names;
    const std::vector<ChannelSection> sections = now.shop().sections;
    for (const ChannelSection& c : sections)
        names << QObject::tr("%1 × %2, wall %3")
                     .arg(in_units(fine(c.width_mm), now), in_units(fine(c.depth_mm), now), in_units(fine(c.wall_mm), now));
    return {"channel_section",
            QObject::tr("Section"),
            names,
            [channel, sections](const Session& s) {
                if (!s.job() || channel >= s.under()->channels.size()) return -1;
                const Channel& c = s.under()->channels[channel];
                const auto it = std::find(sections.begin(), sections.end(), ChannelSection{c.width_mm, c.depth_mm, c.wall_mm});
                return it == sections.end() ? -1 : static_cast<int>(it - sections.begin());
            },
            [channel, sections](Session& s, int i) {
                s.edit_job(QObject::tr("A channel's section"),
                           [&](Job& j) { set_section(j, channel, sections.at(static_cast<std::size_t>(i))); });
            },
            "channel"};
}
}  // namespace

std::vector<PickField> UnderView::picks(const Session& of_now) const {
    QStringList names;
    for (const Climate& c : generic_climates()) names << told(c.name);
    const auto index = [](const Climate& now) {
        const auto& all = generic_climates();
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i] == now) return static_cast<int>(i);
        return -1;
    };
    std::vector<PickField> out{
        {"room", QObject::tr("Room"), names, [index](const Session& s) { return s.room() ? index(*s.room()) : -1; },
         [](Session& s, int i) {
             s.edit_job(QObject::tr("Room"), [&](Job& j) { set_room(j, generic_climates().at(static_cast<std::size_t>(i))); });
         }},
        {"store_air", QObject::tr("Store"), names, [index](const Session& s) { return index(s.shop().store); },
         [](Session& s, int i) {
             s.edit_shop(QObject::tr("Store air"),
                         [&](Shop& shop) { set_store_air(shop, generic_climates().at(static_cast<std::size_t>(i))); });
         }},
        {"shop_air", QObject::tr("Shop"), names, [index](const Session& s) { return index(s.shop().air); },
         [](Session& s, int i) {
             s.edit_shop(QObject::tr("Shop air"),
                         [&](Shop& shop) { set_shop_air(shop, generic_climates().at(static_cast<std::size_t>(i))); });
         }}};
    if (const Thing* t = of_now.picked_thing(); t && t->kind == "channel") out.push_back(section_pick(of_now, t->index));
    return out;
}

std::vector<Action> UnderView::actions(Session& session) {
    Session* s = &session;
    const bool panels = session.job() && session.under()->base == BaseKind::panels;
    const bool bare = session.job() && session.under()->plates.empty() && session.plan() && session.plan()->top->ready;
    const auto at_gauge = [s] { return s->plan()->placement.frame().from_slab({s->gauge_mm(), s->plan()->placement.y_mm}).x; };
    const auto list = [s](const QString& label, void (*how)(Shop&, const Channel&)) {
        return [s, label, how] {
            const Thing* t = s->picked_thing();
            if (!t || !s->job() || t->index >= s->under()->channels.size()) return;
            s->edit_shop(label, [how, c = s->under()->channels[t->index]](Shop& shop) { how(shop, c); });
        };
    };
    const auto drop = [s](const QString& label, void (*how)(Job&, std::size_t)) {
        return [s, label, how] {
            const Thing* t = s->picked_thing();
            if (!t) return;
            s->edit_job(label, [how, i = t->index](Job& j) { how(j, i); });
            s->pick({});
        };
    };
    return {
        {"lay_plates", QObject::tr("Lay two plates and two channels"), QObject::tr("A fifth in from each end, to start from"),
         [s] { s->edit_job(QObject::tr("Lay plates and channels"), lay_plates); }, session.job() != nullptr, bare},
        {"add_channel",
         QObject::tr("Add a channel at the gauge"),
         {},
         [s, at_gauge] {
             if (!s->job() || !s->plan()) return;
             const double u = at_gauge();
             s->edit_job(QObject::tr("Add a channel"), [&](Job& j) { add_channel(j, u); });
         }},
        {"add_plate",
         QObject::tr("Add a plate at the gauge"),
         {},
         [s, at_gauge] {
             if (!s->job() || !s->plan()) return;
             const double u = at_gauge();
             s->edit_job(QObject::tr("Add a plate"), [&](Job& j) { add_plate(j, u); });
         }},
        {"keep_section",
         QObject::tr("Keep its section on the list"),
         {},
         list(QObject::tr("Keep a section"), keep_section),
         true,
         false,
         "channel"},
        {"drop_section",
         QObject::tr("Take its section off the list"),
         {},
         list(QObject::tr("A section off the list"), drop_section),
         true,
         false,
         "channel"},
        {"drop_channel",
         QObject::tr("Take this channel away"),
         {},
         drop(QObject::tr("Take a channel away"), drop_channel),
         true,
         false,
         "channel"},
        {"drop_plate", QObject::tr("Take this plate away"), {}, drop(QObject::tr("Take a plate away"), drop_plate), true, false, "plate"},
        {"add_corner", QObject::tr("A corner more, at the longest panel"), QObject::tr("Midway along it; drag it where it is wanted"),
         [s] { s->edit_job(QObject::tr("A corner of the base more"), add_base_corner); }, panels, false, "base"},
        {"drop_corner",
         QObject::tr("The last corner away"),
         {},
         [s] {
             if (!s->job()) return;
             s->edit_job(QObject::tr("A corner of the base less"),
                         [last = base_outline(*s->under()).size() - 1](Job& j) { drop_base_corner(j, last); });
         },
         panels,
         false,
         "base"}};
}

QString UnderView::help() const {
    return QObject::tr(
        "Drag plates and channels where they lie. White slots grow with the distance from the brass line; the "
        "brass hole is round and done up tight. Choose the room and type its months over if you know them.");
}

}  // namespace yb
