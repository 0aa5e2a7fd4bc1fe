#include "app/under/under_view.h"

#include "app/theme/theme.h"

namespace yb {

QString UnderView::strip_title(const Session& s) const {
    const UnderPlan& u = s.plan()->under;
    return QObject::tr("how far each edge moves, driest to dampest · fixed line in brass") +
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
}  // namespace

void UnderView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.under.ready || !s.job()) return;
    draw::dim_outside(p, map, plan.lay.outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6));
    p.drawPolygon(map.px(plan.lay.outline));
    const Frame f = s.plan()->placement.frame();
    const double half = s.job()->top.length_mm / 2;
    p.setPen(QPen(c.brass, 1.6, Qt::DashDotLine));
    p.drawLine(map.px(f.to_slab({-half, plan.under.fixed_v_mm})), map.px(f.to_slab({half, plan.under.fixed_v_mm})));
    QColor steel = c.steel;
    steel.setAlpha(190);
    const UnderChoices& u = s.job()->under;
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
    for (const Slot& slot : plan.under.slots) {
        const QPointF q = map.px(f.to_slab(slot.uv));
        const double r = std::max(3.0, u.bolt_mm * map.scale / 2);
        p.setPen(QPen(c.ink, 1));
        p.setBrush(slot.round ? c.brass : c.slip);
        if (slot.round) {
            p.drawEllipse(q, r + 1, r + 1);
            continue;
        }
        const double len = std::max(8.0, slot.length_mm * map.scale * 1.5);
        p.drawRoundedRect(QRectF(q.x() - r, q.y() - len / 2, 2 * r, len), r, r);
        p.setBrush(c.ink);
        p.drawEllipse(q, 1.6, 1.6);
        // An arrow each way: how the hole travels away from the fixed line.
        const double dir = slot.from_fixed_mm > 0 ? -1 : 1;
        p.setPen(QPen(c.madder, 1.4));
        const QPointF tip = q + QPointF(0, dir * (len / 2 + 9));
        p.drawLine(q + QPointF(0, dir * (len / 2 + 1)), tip);
        p.drawLine(tip, tip + QPointF(-3, -dir * 4));
        p.drawLine(tip, tip + QPointF(3, -dir * 4));
    }
}

void UnderView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.under.ready || plan.lay.widest_mm <= 0) return;
    const double share = plan.under.travel_mm / plan.lay.widest_mm;
    const Box b = bounds(plan.lay.outline);
    QColor wash = c.madder;
    wash.setAlpha(60);
    draw::strip_line(
        p, map, b.low.x + 1, b.high.x - 1, 0, plan.under.travel_mm * 1.15,
        [&](double x) {
            const auto cut = cut_at_x(plan.lay.outline, x);
            return cut.empty() ? 0 : (cut.back().to - cut.front().from) * share;
        },
        QPen(c.madder, 1.5), wash);
    p.setFont(theme::figures(9));
    p.setPen(c.ink);
    p.drawText(QPointF(map.px(b.low.x) + 6, map.strip.bottom() - 6),
               in_units(fine(plan.under.travel_mm), s) + QObject::tr(" at the widest"));
}

void UnderView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const Plan& plan = *s.plan();
    if (!plan.under.ready || !s.job()) return;
    const Frame f = s.plan()->placement.frame();
    const UnderChoices& u = s.job()->under;
    const double gauge_u = f.from_slab({s.gauge_mm(), s.plan()->placement.y_mm}).x;
    const auto steel = [&](double v, double across, double low, double high) {
        const double y0 = f.to_slab({gauge_u, v - across / 2}).y;
        const double y1 = f.to_slab({gauge_u, v + across / 2}).y;
        const double base = plan.flat.tilt.bottom_at({s.gauge_mm(), (y0 + y1) / 2});
        p.setPen(QPen(c.ink, 1));
        p.setBrush(c.steel);
        p.drawRect(QRectF(map.end_px(y1, base + high), map.end_px(y0, base + low)));
    };
    for (const LegPlate& pl : u.plates)
        if (std::abs(gauge_u - pl.u_mm) < pl.along_mm / 2)
            steel(pl.v_mm, pl.across_mm, u.plate_let_in ? 0 : -u.plate_mm, u.plate_let_in ? u.plate_mm : 0);
    for (const Channel& ch : u.channels)
        if (std::abs(gauge_u - ch.u_mm) < ch.width_mm / 2) steel(ch.v_mm, ch.length_mm, 0, ch.depth_mm);
}

std::vector<Handle> UnderView::handles(const BenchMap& map, const Session& s) const {
    std::vector<Handle> out;
    if (!s.plan() || !s.plan()->under.ready || !s.job()) return out;
    const Frame f = s.plan()->placement.frame();
    const auto move = [f](auto list, std::size_t i) {
        return [f, list, i](Session& session, Vec2 from, Vec2 to) {
            const Vec2 d = f.from_slab(to) - f.from_slab(from);
            session.preview([&](Job& j) {
                auto& one = (j.under.*list)[i];
                one.u_mm += d.x;
                one.v_mm += d.y;
            });
        };
    };
    const UnderChoices& u = s.job()->under;
    for (std::size_t i = 0; i < u.channels.size(); ++i)
        out.push_back({QObject::tr("channel %1").arg(i + 1), QObject::tr("Move a channel"), on_plan(footprint(u.channels[i]), f, map),
                       f.to_slab({u.channels[i].u_mm, u.channels[i].v_mm}), Qt::OpenHandCursor, move(&UnderChoices::channels, i)});
    for (std::size_t i = 0; i < u.plates.size(); ++i)
        out.push_back({QObject::tr("plate %1").arg(i + 1), QObject::tr("Move a leg plate"), on_plan(footprint(u.plates[i]), f, map),
                       f.to_slab({u.plates[i].u_mm, u.plates[i].v_mm}), Qt::OpenHandCursor, move(&UnderChoices::plates, i)});
    return out;
}

std::vector<Dimension> UnderView::dimensions(const BenchMap& map, const Session& s) const {
    std::vector<Dimension> out;
    if (!s.plan() || !s.plan()->under.ready || !s.job()) return out;
    const Job& job = *s.job();
    const Frame f = s.plan()->placement.frame();
    const double half = job.top.length_mm / 2;
    const double edge = -job.top.width_mm / 2;
    // From the nearer end of the top to the middle of each plate and channel, in two rows below the top.
    const auto from_end = [&](const QString& name, const QString& label, auto list, std::size_t i, double off) {
        const double u = (job.under.*list)[i].u_mm;
        const double end = u < 0 ? -half : half;
        Field field{name,
                    label,
                    Kind::length,
                    [list, i, half, u](const Session& now) -> std::optional<double> {
                        if (!now.job() || i >= (now.job()->under.*list).size()) return {};
                        return half + (u < 0 ? 1 : -1) * (now.job()->under.*list)[i].u_mm;
                    },
                    [list, i, half, u, label](Session& now, std::optional<double> v) {
                        if (v) now.edit_job(label, [&](Job& j) { (j.under.*list)[i].u_mm = (u < 0 ? 1 : -1) * (*v - half); });
                    },
                    0,
                    job.top.length_mm};
        const QPointF a = map.px(f.to_slab({std::min(u, end), edge}));
        const QPointF b = map.px(f.to_slab({std::max(u, end), edge}));
        out.push_back({a, b, off, field});
    };
    for (std::size_t i = 0; i < job.under.plates.size(); ++i)
        from_end(QString("plate_%1_from_end").arg(i + 1), QObject::tr("Plate %1 from the end").arg(i + 1), &UnderChoices::plates, i, -16);
    for (std::size_t i = 0; i < job.under.channels.size(); ++i)
        from_end(QString("channel_%1_from_end").arg(i + 1), QObject::tr("Channel %1 from the end").arg(i + 1), &UnderChoices::channels, i,
                 -38);
    return out;
}

namespace {
/// A size that all plates, or all channels, share.
template <class Part>
Field part_field(const QString& name, const QString& label, Kind kind, double low, double high, std::vector<Part> UnderChoices::*list,
                 double Part::*size) {
    return {name,
            label,
            kind,
            [=](const Session& s) -> std::optional<double> {
                if (!s.job() || (s.job()->under.*list).empty()) return {};
                return (s.job()->under.*list).front().*size;
            },
            [=](Session& s, std::optional<double> v) {
                if (v)
                    s.edit_job(label, [&](Job& j) {
                        for (Part& p : j.under.*list) p.*size = *v;
                    });
            },
            low,
            high};
}
/// A number of bolts that all plates, or all channels, share.
template <class Part>
Field bolts_field(const QString& name, const QString& label, std::vector<Part> UnderChoices::*list, int Part::*number) {
    return {name,
            label,
            Kind::count,
            [=](const Session& s) -> std::optional<double> {
                if (!s.job() || (s.job()->under.*list).empty()) return {};
                return (s.job()->under.*list).front().*number;
            },
            [=](Session& s, std::optional<double> v) {
                if (v)
                    s.edit_job(label, [&](Job& j) {
                        for (Part& p : j.under.*list) p.*number = static_cast<int>(std::lround(*v));
                    });
            },
            1,
            12};
}
}  // namespace

std::vector<Field> UnderView::fields(const Session&) const {
    std::vector<Field> out{
        {"under_day", QObject::tr("Moisture on the day"), Kind::percent,
         [](const Session& s) -> std::optional<double> { return s.job() ? s.job()->under.day_moisture_pct : std::nullopt; },
         [](Session& s, std::optional<double> v) {
             s.edit_job(QObject::tr("Moisture on the day"), [&](Job& j) { j.under.day_moisture_pct = v; });
         },
         0, 30, true},
        job_field("under_bolt", QObject::tr("Bolt"), Kind::fine, 2, 40, [](Job& j) -> double& { return j.under.bolt_mm; }),
        job_field("under_play", QObject::tr("Play in the slot"), Kind::fine, 0, 20, [](Job& j) -> double& { return j.under.play_mm; }),
        job_field("under_insert", QObject::tr("Insert goes in"), Kind::fine, 1, 200, [](Job& j) -> double& { return j.under.insert_mm; }),
        job_field("under_plate", QObject::tr("Plate thickness"), Kind::fine, 0, 50, [](Job& j) -> double& { return j.under.plate_mm; }),
        job_field("under_feet", QObject::tr("Feet"), Kind::fine, 0, 200, [](Job& j) -> double& { return j.under.feet_mm; }),
        part_field("plate_across", QObject::tr("Plates, across"), Kind::length, 20, 3000, &UnderChoices::plates, &LegPlate::across_mm),
        part_field("plate_along", QObject::tr("Plates, along"), Kind::length, 20, 3000, &UnderChoices::plates, &LegPlate::along_mm),
        bolts_field("plate_bolts_across", QObject::tr("Bolts across a plate"), &UnderChoices::plates, &LegPlate::bolts_across),
        bolts_field("plate_bolts_along", QObject::tr("Rows of bolts"), &UnderChoices::plates, &LegPlate::bolts_along),
        part_field("channel_length", QObject::tr("Channels, long"), Kind::length, 50, 3000, &UnderChoices::channels, &Channel::length_mm),
        part_field("channel_width", QObject::tr("Channels, wide"), Kind::fine, 5, 200, &UnderChoices::channels, &Channel::width_mm),
        part_field("channel_depth", QObject::tr("Channels, deep"), Kind::fine, 2, 100, &UnderChoices::channels, &Channel::depth_mm),
        bolts_field("channel_bolts", QObject::tr("Bolts a channel"), &UnderChoices::channels, &Channel::bolts),
        job_field("under_edge", QObject::tr("Last bolt from its end"), Kind::fine, 5, 300,
                  [](Job& j) -> double& { return j.under.edge_mm; }),
        {"under_helpers", QObject::tr("People to lift"), Kind::count,
         [](const Session& s) -> std::optional<double> { return s.job() ? std::optional<double>(s.job()->under.helpers) : std::nullopt; },
         [](Session& s, std::optional<double> v) {
             if (v) s.edit_job(QObject::tr("People to lift"), [&](Job& j) { j.under.helpers = static_cast<int>(*v); });
         },
         1, 20}};
    // The months of the room, each typed over as one likes.
    for (std::size_t m = 0; m < 12; ++m) {
        const QString month = QString::fromLatin1(month_name(static_cast<int>(m)));
        out.push_back(job_field(QString("room_rh_%1").arg(m + 1), QObject::tr("%1, humidity").arg(month), Kind::percent, 0, 100,
                                [m](Job& j) -> double& { return j.room.months[m].rh_pct; }));
        out.push_back(job_field(QString("room_c_%1").arg(m + 1), QObject::tr("%1, air").arg(month), Kind::temperature, -40, 60,
                                [m](Job& j) -> double& { return j.room.months[m].temp_c; }));
    }
    return out;
}

std::vector<PickField> UnderView::picks(const Session&) const {
    QStringList names;
    for (const Climate& c : generic_climates()) names << QString::fromStdString(c.name);
    const auto index = [](const Climate& now) {
        const auto& all = generic_climates();
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i] == now) return static_cast<int>(i);
        return -1;
    };
    return {{"room", QObject::tr("Room"), names, [index](const Session& s) { return s.job() ? index(s.job()->room) : -1; },
             [](Session& s, int i) {
                 s.edit_job(QObject::tr("Room"), [&](Job& j) { j.room = generic_climates().at(static_cast<std::size_t>(i)); });
             }},
            {"shop_air", QObject::tr("Shop"), names, [index](const Session& s) { return index(s.shop().air); },
             [](Session& s, int i) {
                 s.edit(QObject::tr("Shop air"), [&](Documents& d) { d.shop.air = generic_climates().at(static_cast<std::size_t>(i)); });
             }}};
}

std::vector<Action> UnderView::actions(Session& session) {
    Session* s = &session;
    const auto at_gauge = [s] { return s->plan()->placement.frame().from_slab({s->gauge_mm(), s->plan()->placement.y_mm}).x; };
    return {{"lay_plates", QObject::tr("Lay two plates and two channels"), QObject::tr("A fifth in from each end, to start from"),
             [s] {
                 s->edit_job(QObject::tr("Lay plates and channels"), [](Job& j) {
                     const UnderChoices fresh = starting_under(j.top);
                     j.under.plates = fresh.plates;
                     j.under.channels = fresh.channels;
                 });
             }},
            {"add_channel",
             QObject::tr("Add a channel at the gauge"),
             {},
             [s, at_gauge] {
                 if (!s->job() || !s->plan()) return;
                 const double u = at_gauge();
                 s->edit_job(QObject::tr("Add a channel"), [&](Job& j) {
                     j.under.channels.push_back({u, 0, std::floor(j.top.width_mm * 0.07) * 10, 40, 12, 3, 3});
                 });
             }},
            {"drop_channel",
             QObject::tr("Take the last channel away"),
             {},
             [s] {
                 s->edit_job(QObject::tr("Take a channel away"), [](Job& j) {
                     if (!j.under.channels.empty()) j.under.channels.pop_back();
                 });
             }},
            {"next", QObject::tr("Next: the bench sheet"), {}, [s] { s->set_step(Step::sheets); }, true, true}};
}

QString UnderView::help() const {
    return QObject::tr(
        "Drag plates and channels where they lie. White slots grow with the distance from the brass line; the "
        "brass hole is round and done up tight. Choose the room and type its months over if you know them.");
}

}  // namespace yb
