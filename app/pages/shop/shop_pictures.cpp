#include "app/pages/shop/shop_pictures.h"

#include <algorithm>
#include <cmath>

#include <QMouseEvent>
#include <QPainter>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/shop.h"

namespace yb {

namespace {

void written(QPainter& p, QPointF at, const QString& text, Qt::Alignment how = Qt::AlignCenter) {
    const double w = theme::grown(420);
    const double h = theme::grown(18);
    const double left = how & Qt::AlignLeft ? at.x() : how & Qt::AlignRight ? at.x() - w : at.x() - w / 2;
    p.drawText(QRectF(left, at.y() - h / 2, w, h), how | Qt::AlignVCenter, text);
}

/// A measure between two places, its figure beside its middle.
void measure(QPainter& p, QPointF a, QPointF b, const QString& text, bool beside) {
    const auto& c = theme::colours();
    p.setPen(QPen(c.chalk, 1.2));
    p.drawLine(a, b);
    const QPointF along = b - a;
    const double l = std::max(1.0, std::hypot(along.x(), along.y()));
    const QPointF tick = QPointF(-along.y(), along.x()) / l * 4;
    for (const QPointF& q : {a, b}) p.drawLine(q - tick, q + tick);
    p.setPen(c.ink);
    const QPointF mid = (a + b) / 2;
    beside ? written(p, mid + QPointF(8, 0), text, Qt::AlignLeft) : written(p, mid - QPointF(0, theme::grown(11)), text);
}

}  // namespace

void draw_week(QPainter& p, const QRectF& rect, const Session& session) {
    const auto& c = theme::colours();
    p.setFont(theme::figures(10));
    const Workday& day = session.shop().workday;
    const QRectF room = rect.adjusted(theme::grown(44), theme::grown(24), -16, -theme::grown(28));
    const QStringList names{QObject::tr("Mon"), QObject::tr("Tue"), QObject::tr("Wed"), QObject::tr("Thu"),
                            QObject::tr("Fri"), QObject::tr("Sat"), QObject::tr("Sun")};
    const auto x = [&](double h) { return room.left() + room.width() * h / 24; };
    const double row = room.height() / 7;
    for (int i = 0; i < 7; ++i) {
        const QRectF line(room.left(), room.top() + i * row + row * 0.2, room.width(), row * 0.6);
        p.setPen(QPen(c.rule, 1));
        p.setBrush(Qt::NoBrush);
        p.drawLine(QPointF(line.left(), line.center().y()), QPointF(line.right(), line.center().y()));
        const bool works = i < 5 || (i == 5 && day.saturdays);
        p.setPen(works ? c.ink : c.pencil);
        written(p, QPointF(room.left() - 8, line.center().y()), names[i], Qt::AlignRight);
        if (!works) continue;
        p.setPen(QPen(c.wood_edge, 1));
        p.setBrush(c.wood);
        p.drawRect(QRectF(QPointF(x(day.from_h), line.top()), QPointF(x(day.to_h), line.bottom())));
    }
    p.setPen(c.pencil);
    for (const double h : {0.0, 6.0, 12.0, 18.0, 24.0}) written(p, QPointF(x(h), room.bottom() + theme::grown(12)), QString::number(h));
    p.setPen(c.ink);
    const double week = (day.to_h - day.from_h) * (day.saturdays ? 6 : 5);
    written(p, QPointF(room.center().x(), theme::grown(10)), QObject::tr("%1 a week").arg(in_units(hours(week), session)));
}

void draw_sled(QPainter& p, const QRectF& rect, const Session& session) {
    const auto& c = theme::colours();
    p.setFont(theme::figures(10));
    const Sled& s = session.shop().sled;
    // Heights are drawn larger than widths: a sled is long and low.
    const QRectF room = rect.adjusted(theme::grown(40), theme::grown(30), -theme::grown(96), -theme::grown(44));
    const double wide = s.span_mm + 240;
    const double high = s.rail_mm + s.floor_mm + s.beam_high_mm + 130;
    const double kx = room.width() / wide;
    const double ky = room.height() / high;
    const auto at = [&](double x, double z) { return QPointF(room.center().x() + x * kx, room.bottom() - z * ky); };
    const auto box = [&](double x0, double z0, double x1, double z1) { return QRectF(at(x0, z1), at(x1, z0)).normalized(); };
    const double half = s.span_mm / 2;
    p.setPen(QPen(c.ink, 1.4));
    p.drawLine(at(-wide / 2, 0), at(wide / 2, 0));
    p.setPen(QPen(c.wood_edge, 1.2));
    p.setBrush(c.wood);
    for (const double side : {-1.0, 1.0}) p.drawRect(box(side * half, 0, side * (half + 45), s.rail_mm));
    // The slab on the bench below.
    QColor slab = c.wood;
    slab.setAlpha(110);
    p.setBrush(slab);
    p.drawRect(box(-half * 0.72, 0, half * 0.72, std::max(10.0, s.rail_mm - s.stickout_mm - 4)));
    // Floor, the beams that stiffen it, the router and its cutter.
    p.setBrush(c.slip);
    p.drawRect(box(-half - 90, s.rail_mm, half + 90, s.rail_mm + s.floor_mm));
    p.drawRect(box(-half - 90, s.rail_mm + s.floor_mm, half + 90, s.rail_mm + s.floor_mm + s.beam_high_mm));
    p.setBrush(c.steel);
    p.setPen(QPen(c.ink, 1));
    p.drawRect(box(-s.base_mm / 2, s.rail_mm + s.floor_mm, s.base_mm / 2, s.rail_mm + s.floor_mm + 110));
    const double tip = s.rail_mm + s.floor_mm - std::min(s.reach_mm, s.floor_mm + s.stickout_mm);
    p.drawRect(box(-s.cutter_mm / 2, tip, s.cutter_mm / 2, s.rail_mm + s.floor_mm));
    measure(p, at(-half, s.rail_mm + s.floor_mm + s.beam_high_mm + 60),
            at(-s.base_mm / 2 - 20, s.rail_mm + s.floor_mm + s.beam_high_mm + 60), {}, false);
    measure(p, at(-half, -18 / ky), at(half, -18 / ky), {}, false);
    p.setPen(c.ink);
    written(p, at(0, 0) + QPointF(0, theme::grown(30)), QObject::tr("%1 between the rails").arg(in_units(mm(s.span_mm), session)));
    measure(p, at(half + 100, 0), at(half + 100, s.rail_mm), QObject::tr("rail %1").arg(in_units(fine(s.rail_mm), session)), true);
    p.setPen(c.ink);
    written(p, at(half + 96, s.rail_mm + s.floor_mm / 2) + QPointF(4, -6), QObject::tr("floor %1").arg(in_units(fine(s.floor_mm), session)),
            Qt::AlignLeft);
    written(p, at(s.base_mm / 2, s.rail_mm + s.floor_mm + 96) + QPointF(8, 0),
            QObject::tr("cutter %1, out %2 at most").arg(in_units(fine(s.cutter_mm), session), in_units(fine(s.stickout_mm), session)),
            Qt::AlignLeft);
    p.setPen(c.pencil);
    p.setFont(theme::text(9));
    written(p, QPointF(rect.center().x(), theme::grown(12)), QObject::tr("cut across, heights drawn larger than widths"));
}

void draw_machines(QPainter& p, const QRectF& rect, const Session& session) {
    const auto& c = theme::colours();
    p.setFont(theme::figures(10));
    const FlatTools& t = session.shop().sled.tools;
    struct Mouth {
        QString name;
        double wide = 0, layer = 0;
        bool there = true;
    };
    const Mouth all[] = {{QObject::tr("machine shop"), t.machine_wide_mm, 0, true},
                         {QObject::tr("drum sander"), t.drum_mm, t.drum_layer_mm, t.has_drum},
                         {QObject::tr("planer"), t.planer_mm, t.planer_layer_mm, t.has_planer},
                         {QObject::tr("hand planer"), t.hand_mm, t.hand_layer_mm, t.has_hand}};
    const double most = std::max({t.machine_wide_mm, t.drum_mm, t.planer_mm, 1.0});
    const QRectF room = rect.adjusted(20, theme::grown(16), -20, -10);
    const double row = room.height() / 4;
    for (int i = 0; i < 4; ++i) {
        const Mouth& m = all[i];
        const double w = room.width() * m.wide / most;
        const QRectF mouth(room.center().x() - w / 2, room.top() + i * row + theme::grown(22), w, row - theme::grown(40));
        p.setPen(QPen(m.there ? c.ink : c.pencil, 1.3, m.there ? Qt::SolidLine : Qt::DashLine));
        p.setBrush(m.there ? c.slip : QColor(Qt::transparent));
        p.drawRect(mouth);
        if (m.there) {
            p.setPen(QPen(c.wood_edge, 1));
            p.setBrush(c.wood);
            p.drawRect(
                QRectF(mouth.left() + 4, mouth.bottom() - mouth.height() * 0.42, std::max(4.0, mouth.width() - 8), mouth.height() * 0.34));
        }
        p.setPen(m.there ? c.ink : c.pencil);
        const QString wide = in_units(mm(m.wide), session);
        written(p, QPointF(room.center().x(), room.top() + i * row + theme::grown(10)),
                !m.there      ? QObject::tr("%1: not here").arg(m.name)
                : m.layer > 0 ? QObject::tr("%1: %2 wide, %3 a pass").arg(m.name, wide, in_units(fine(m.layer), session))
                              : QObject::tr("%1: %2 wide, %3 long").arg(m.name, wide, in_units(mm(t.machine_long_mm), session)));
    }
}

void draw_stock(QPainter& p, const QRectF& rect, const Session& session) {
    const auto& c = theme::colours();
    p.setFont(theme::figures(9));
    const Shop& shop = session.shop();
    const QRectF room = rect.adjusted(16, 8, -16, -8);
    const double row = room.height() / 4;
    const auto head = [&](int i, const QString& text) {
        p.setPen(c.pencil);
        written(p, QPointF(room.left(), room.top() + i * row + theme::grown(9)), text, Qt::AlignLeft);
    };
    // Pieces stand side by side, as thick as they are to one another.
    const auto pieces = [&](int i, const QString& name, const std::vector<double>& sizes) {
        head(i, name);
        double sum = 0;
        for (const double s : sizes) sum += std::max(0.0, s);
        const double gap = 14;
        const double k = std::min(2.4, (room.width() - gap * static_cast<double>(sizes.size())) / std::max(1.0, sum));
        double x = room.left();
        for (const double s : sizes) {
            const double w = std::max(1.5, s * k);
            p.setPen(QPen(c.wood_edge, 0.8));
            p.setBrush(c.wood);
            const QRectF piece(x, room.top() + i * row + theme::grown(20), w, row - theme::grown(42));
            p.drawRect(piece);
            p.setPen(c.ink);
            written(p, QPointF(piece.center().x(), piece.bottom() + theme::grown(9)),
                    QString::fromStdString(edit_text(fine(s), session.units())));
            x += std::max(w + gap, double(theme::grown(28)));
        }
    };
    pieces(0, QObject::tr("shims, several of each"), shop.sled.shims_mm);
    pieces(1, QObject::tr("flat boards"), shop.sled.spacers_mm);
    head(2, QObject::tr("guide bushings, outside"));
    double x = room.left();
    for (const double b : shop.bushings_mm) {
        const double d = std::min(row - theme::grown(42), b * 0.9);
        const QPointF mid(x + theme::grown(20), room.top() + 2 * row + theme::grown(20) + (row - theme::grown(42)) / 2);
        p.setPen(QPen(c.ink, 1));
        p.setBrush(c.brass);
        p.drawEllipse(mid, d / 2, d / 2);
        p.setBrush(c.paper);
        p.drawEllipse(mid, d / 4, d / 4);
        p.setPen(c.ink);
        written(p, QPointF(mid.x(), room.top() + 3 * row - theme::grown(12)), QString::fromStdString(edit_text(fine(b), session.units())));
        x += theme::grown(46);
    }
    head(3, QObject::tr("channel sections"));
    x = room.left();
    for (const ChannelSection& s : shop.sections) {
        const double k = 1.1;
        const double y = room.top() + 3 * row + theme::grown(24);
        p.setPen(QPen(c.steel, std::max(2.0, s.wall_mm * k)));
        p.drawPolyline(QPolygonF{QPointF(x + 4, y + s.depth_mm * k), QPointF(x + 4, y), QPointF(x + 4 + s.width_mm * k, y),
                                 QPointF(x + 4 + s.width_mm * k, y + s.depth_mm * k)});
        p.setPen(c.ink);
        written(p, QPointF(x + 4 + s.width_mm * k / 2, room.bottom() - theme::grown(6)),
                QObject::tr("%1 × %2").arg(QString::fromStdString(edit_text(fine(s.width_mm), session.units())),
                                           QString::fromStdString(edit_text(fine(s.depth_mm), session.units()))));
        x += s.width_mm * k + theme::grown(40);
    }
}

namespace {
/// What a bar is called, before it.
void name_before(QPainter& p, const QRectF& room, double names, double y, double row, const QString& name) {
    p.setFont(theme::text(10));
    p.setPen(theme::colours().ink);
    p.drawText(QRectF(room.left(), y - row / 2, names - 8, row), Qt::AlignRight | Qt::AlignVCenter,
               what_fits(name, p.fontMetrics(), int(names - 8)));
}

/// Bars from a common line, each with its name before it and what it is behind it.
void bars(QPainter& p, const QRectF& rect, const std::vector<std::tuple<QString, double, QColor>>& all,
          const std::function<QString(double)>& told_as) {
    const auto& c = theme::colours();
    double most = 1;
    for (const auto& [name, price, colour] : all) most = std::max(most, price);
    const QRectF room = rect.adjusted(16, 10, -16, -10);
    const double row = std::min(double(theme::grown(30)), room.height() / static_cast<double>(all.size()));
    const double names = theme::grown(190);
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto& [name, price, colour] = all[i];
        const double y = room.top() + row * (static_cast<double>(i) + 0.5);
        name_before(p, room, names, y, row, name);
        p.setPen(QPen(c.wood_edge, 0.8));
        p.setBrush(colour);
        const double w = (room.width() - names - theme::grown(60)) * price / most;
        p.drawRect(QRectF(room.left() + names, y - row * 0.3, w, row * 0.6));
        p.setPen(c.ink);
        p.setFont(theme::figures(10));
        written(p, QPointF(room.left() + names + w + 8, y), told_as(price), Qt::AlignLeft);
    }
}
}  // namespace

void draw_prices(QPainter& p, const QRectF& rect, const Session& session) {
    const auto& c = theme::colours();
    const FlatTools& t = session.shop().sled.tools;
    std::vector<std::tuple<QString, double, QColor>> all{{QObject::tr("machine shop, a m²"), t.machine_m2, c.wood},
                                                         {QObject::tr("bought flat, a m²"), t.bought_m2, c.wood}};
    for (const Resin& r : session.shop().resins)
        if (r.price_l) all.emplace_back(QObject::tr("%1, a litre").arg(told(r.label)), *r.price_l, c.resin);
    for (std::size_t i = 0; i < finishes.options.size(); ++i)
        if (const auto price = session.shop().finishes.labels[i].price_l)
            all.emplace_back(QObject::tr("%1, a litre").arg(told(finishes.options[i].label)), *price, c.brass);
    bars(p, rect, all, [](double v) { return QString::number(v, 'g', 6); });
}

void draw_sanders(QPainter& p, const QRectF& rect, const Session& session) {
    const auto& c = theme::colours();
    const Sanding& s = session.shop().sanding;
    const double coarse = s.disc_sander ? s.disc_times : 1;
    bars(p, rect,
         {{QObject::tr("40 or 60, on lanes"), s.felt_min_m2 * coarse, c.wood},
          {QObject::tr("80, on a planed face"), s.planed_min_m2, c.wood},
          {QObject::tr("each grit after"), s.after_min_m2, c.wood},
          {QObject::tr("each on resin"), s.after_min_m2 * s.resin_times, c.resin},
          {QObject::tr("a metre of edge, each"), s.edge_min_m, c.wood}},
         [](double v) { return QObject::tr("%1 min").arg(v, 0, 'g', 3); });
}

void draw_finishes(QPainter& p, const QRectF& rect, const Session& session) {
    const auto& c = theme::colours();
    const auto& labels = session.shop().finishes.labels;
    double most = 1;
    for (const FinishClass& l : labels) most = std::max(most, l.recoat_h * (l.coats - 1) + l.handle_h);
    const QRectF room = rect.adjusted(16, 10, -16, -10);
    const double row = std::min(double(theme::grown(26)), room.height() / static_cast<double>(labels.size()));
    const double names = theme::grown(190);
    const double scale = (room.width() - names - theme::grown(70)) / most;
    for (std::size_t i = 0; i < labels.size(); ++i) {
        const FinishClass& l = labels[i];
        const double y = room.top() + row * (static_cast<double>(i) + 0.5);
        name_before(p, room, names, y, row, told(finishes.options[i].label));
        double x = room.left() + names;
        for (int k = 0; k < l.coats; ++k) {
            const double w = (k + 1 < l.coats ? l.recoat_h : l.handle_h) * scale;
            p.setPen(QPen(c.wood_edge, 0.8));
            p.setBrush(QBrush(c.wood_edge, Qt::BDiagPattern));
            p.drawRect(QRectF(x, y - row * 0.3, w, row * 0.6));
            p.fillRect(QRectF(x, y - row * 0.3, 3, row * 0.6), c.brass);
            x += w;
        }
        p.setPen(c.ink);
        p.setFont(theme::figures(10));
        written(p, QPointF(x + 8, y), QString::fromStdString(format(hours(l.recoat_h * (l.coats - 1) + l.handle_h), session.units())),
                Qt::AlignLeft);
    }
}

ShopPicture::ShopPicture(Session& session, const QString& name, Draw draw, QWidget* parent)
    : QWidget(parent), session_(session), draw_(std::move(draw)) {
    setObjectName(name);
    setMinimumSize(theme::grown(300), theme::grown(220));
    connect(&session, &Session::changed, this, [this] { update(); });
}

void ShopPicture::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    draw_(p, QRectF(rect()), session_);
}

namespace {
constexpr double most_c = 35, least_c = 0;  ///< what is plotted; what lies beyond stands at its end
constexpr double most_rh = 90, least_rh = 20;
}  // namespace

AirPicture::AirPicture(Session& session, QWidget* parent)
    : ShopPicture(
          session, "shop_air_year", [this](QPainter& p, const QRectF&, const Session&) { draw_air(p); }, parent),
      air_(session.shop().air) {
    setMouseTracking(true);
    setToolTip(tr("Drag a month's point up or down"));
    connect(&session, &Session::changed, this, [this] {
        if (month_ < 0) air_ = session_.shop().air;
    });
}

QRectF AirPicture::plot() const {
    return QRectF(rect()).adjusted(theme::grown(52), theme::grown(26), -theme::grown(56), -theme::grown(44));
}

QPointF AirPicture::point(int month, bool humidity) const {
    const Month& m = air_.months.at(static_cast<std::size_t>(month));
    const QRectF r = plot();
    const double share = humidity ? (m.rh_pct - least_rh) / (most_rh - least_rh) : (m.temp_c - least_c) / (most_c - least_c);
    return {r.left() + r.width() * (month + 0.5) / 12, r.bottom() - r.height() * std::clamp(share, 0.0, 1.0)};
}

void AirPicture::draw_air(QPainter& p) {
    const auto& c = theme::colours();
    const QRectF r = plot();
    p.setPen(QPen(c.rule, 1));
    p.setFont(theme::figures(9));
    for (const double rh : {20.0, 40.0, 60.0, 80.0}) {
        const double y = r.bottom() - r.height() * (rh - least_rh) / (most_rh - least_rh);
        p.setPen(QPen(c.rule, 1));
        p.drawLine(QPointF(r.left(), y), QPointF(r.right(), y));
        p.setPen(c.pencil);
        written(p, QPointF(r.left() - 8, y), in_units(percent(rh), session_), Qt::AlignRight);
    }
    for (const double t : {0.0, 10.0, 20.0, 30.0}) {
        p.setPen(c.pencil);
        written(p, QPointF(r.right() + 8, r.bottom() - r.height() * (t - least_c) / (most_c - least_c)), in_units(celsius(t), session_),
                Qt::AlignLeft);
    }
    for (int m = 0; m < 12; ++m) {
        const double x = point(m, true).x();
        p.setPen(c.pencil);
        written(p, QPointF(x, r.bottom() + theme::grown(11)), told(month_name(m)).left(3));
        const Month& at = air_.months[static_cast<std::size_t>(m)];
        p.setPen(c.ink);
        written(p, QPointF(x, r.bottom() + theme::grown(30)), QString::number(equilibrium_moisture(at.temp_c, at.rh_pct), 'f', 1));
    }
    for (const bool humidity : {true, false}) {
        QPolygonF line;
        for (int m = 0; m < 12; ++m) line << point(m, humidity);
        const QColor ink = humidity ? c.chalk : c.madder;
        p.setPen(QPen(ink, 1.8));
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(line);
        p.setBrush(c.slip);
        for (int m = 0; m < 12; ++m) {
            const bool held = m == month_ && humidity == humidity_;
            p.setBrush(held ? ink : c.slip);
            // Round for the damp, square for the warmth: never colour alone.
            if (humidity) p.drawEllipse(line[m], 5, 5);
            else p.drawRect(QRectF(line[m] - QPointF(4.5, 4.5), QSizeF(9, 9)));
            if (!held) continue;
            const Month& at = air_.months[static_cast<std::size_t>(m)];
            p.setPen(c.ink);
            written(p, line[m] - QPointF(0, theme::grown(16)), in_units(humidity ? percent(at.rh_pct) : celsius(at.temp_c), session_));
            p.setPen(QPen(ink, 1.8));
        }
        p.setPen(ink);
        p.setFont(theme::text(9));
        written(p,
                humidity ? QPointF(r.left() - theme::grown(40), theme::grown(11)) : QPointF(r.right() + theme::grown(44), theme::grown(11)),
                humidity ? tr("humidity, round") : tr("warmth, square"), humidity ? Qt::AlignLeft : Qt::AlignRight);
        p.setFont(theme::figures(9));
    }
    p.setPen(c.pencil);
    p.setFont(theme::text(9));
    written(p, QPointF(r.center().x(), theme::grown(11)), tr("below: what wood settles at, %"));
}

void AirPicture::mousePressEvent(QMouseEvent* e) {
    double least = 14;
    for (int m = 0; m < 12; ++m)
        for (const bool humidity : {true, false})
            if (const QPointF d = point(m, humidity) - e->position(); std::hypot(d.x(), d.y()) < least)
                least = std::hypot(d.x(), d.y()), month_ = m, humidity_ = humidity;
    update();
}

void AirPicture::mouseMoveEvent(QMouseEvent* e) {
    if (month_ < 0 || !(e->buttons() & Qt::LeftButton)) {
        bool near_one = false;
        for (int m = 0; m < 12 && !near_one; ++m)
            for (const bool humidity : {true, false})
                if (const QPointF d = point(m, humidity) - e->position(); std::hypot(d.x(), d.y()) < 14) near_one = true;
        setCursor(near_one ? Qt::SizeVerCursor : Qt::ArrowCursor);
        return;
    }
    const QRectF r = plot();
    const double share = std::clamp((r.bottom() - e->position().y()) / r.height(), 0.0, 1.0);
    Month& m = air_.months[static_cast<std::size_t>(month_)];
    if (humidity_) m.rh_pct = std::round(least_rh + share * (most_rh - least_rh));
    else m.temp_c = std::round((least_c + share * (most_c - least_c)) * 2) / 2;
    update();
}

void AirPicture::mouseReleaseEvent(QMouseEvent*) {
    if (month_ < 0) return;
    month_ = -1;
    if (air_ != session_.shop().air) session_.edit_shop(tr("The shop's air"), [&](Shop& s) { set_shop_air(s, air_); });
    update();
}

}  // namespace yb
