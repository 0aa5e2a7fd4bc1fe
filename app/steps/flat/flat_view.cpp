#include "app/steps/flat/flat_view.h"

#include <array>

#include <QDate>
#include <QPainterPath>

#include <cmath>

#include "app/ground/theme/theme.h"
#include "core/material/slab/slab.h"
#include "core/shop/job/cards.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/laid.h"
#include "core/steps/flat/next_reading.h"
#include "core/steps/lay/lay.h"

namespace yb {

namespace {
Field thickness_field() { return job_number("top.thickness_mm", "flat_thickness", QObject::tr("Wanted thickness")); }

/// Where the shims stand now.
std::vector<Vec2> supports_of(const FlatPlan& flat) {
    std::vector<Vec2> out;
    for (const Shim& h : flat.shims) out.push_back({h.at.x_mm, h.at.y_mm});
    return out;
}

/// Which of the two faces the drawing is about: the one that is picked, otherwise the first that is cut.
std::size_t face_shown(const Session& s) {
    const Thing* t = s.picked_thing();
    return t && t->kind == "face" ? t->index : 0;
}

/// How far down a face is cut where the dial stands, mm above its finished plane.
double level_at(const FacePlan& f, double highest, double dial) {
    if (f.levels_mm.empty()) return highest;
    const double at = dial * static_cast<double>(f.levels_mm.size());
    const auto done = static_cast<std::size_t>(at);
    if (done >= f.levels_mm.size()) return 0;
    const double from = done == 0 ? highest : f.levels_mm[done - 1];
    return from + (f.levels_mm[done] - from) * (at - static_cast<double>(done));
}

/// Across: where the middle of what lies in the top runs.
double middle_y(const Session& s) { return s.plan() && s.plan()->lay->outline.size() > 2 ? centroid(s.plan()->lay->outline).y : 0; }
}  // namespace

namespace {
/// The rounds that were read of the leaf, the picked one last, each with how strongly it is drawn.
struct DrawnRound {
    const FlatRound* round;
    QColor ink;
    double width;
};
std::vector<DrawnRound> rounds_of(const Session& s) {
    std::vector<DrawnRound> out;
    if (!s.leaves()) return out;
    const auto leaf = static_cast<std::size_t>(std::max(0, s.leaf()));
    if (leaf >= s.leaves()->size()) return out;
    const auto& all = (*s.leaves())[leaf].rounds;
    const Thing* t = s.picked_thing();
    const std::size_t picked = t && t->kind == "round" ? t->index : all.size();
    for (std::size_t i = 0; i < all.size(); ++i)
        if (i != picked) out.push_back({&all[i], theme::colours().pencil, 1});
    if (picked < all.size()) out.push_back({&all[picked], theme::colours().madder, 2});
    return out;
}
constexpr double rounds_taller = 10;  ///< what it moved is drawn so many times over

/// How unsure the show face is between its readings, as rings that grow with it.
void unsure(QPainter& p, const BenchMap& map, const Session& s) {
    const Ring& outline = s.plan()->lay->outline;
    const HeightGrid& grid = s.plan()->slab()->heights_a;
    const Box box = bounds(outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(theme::colours().chalk, 1));
    constexpr int along = 18;
    constexpr int across = 6;
    for (int i = 0; i <= along; ++i)
        for (int j = 0; j <= across; ++j) {
            const Vec2 at{box.low.x + box.width() * i / along, box.low.y + box.height() * j / across};
            if (!contains(outline, at)) continue;
            if (const auto sigma = unsure_mm(grid, at)) {
                const double r = std::min(12.0, 1.645 * *sigma * 8);  // eight pixels a millimetre
                p.drawEllipse(map.px(at), r, r);
            }
        }
}
}  // namespace

const QImage& FlatView::heights_of(const FlatPlan& plan, const Ring& rough, std::size_t face, const BenchMap& map,
                                   const QRectF& box) const {
    const Surface& off = plan.faces[face].face == Face::a ? plan.off_top : plan.off_bottom;
    const QString where = QStringLiteral("%1 %2 %3 %4 %5").arg(face).arg(box.x()).arg(box.y()).arg(box.width()).arg(box.height());
    if (heights_for_ == std::pair<const void*, QString>(&plan, where)) return heights_;
    heights_for_ = {&plan, where};
    // A place for each pixel, what lies beside the piece left at 0: nothing is clipped or scaled when the dial is turned.
    const int w = std::max(1, static_cast<int>(std::ceil(box.width())));
    const int h = std::max(1, static_cast<int>(std::ceil(box.height())));
    QImage inside(w, h, QImage::Format_Grayscale8);
    inside.fill(0);
    {
        QPainter cut(&inside);
        cut.setPen(Qt::NoPen);
        cut.setBrush(Qt::white);
        cut.translate(-box.topLeft());
        cut.drawPolygon(map.px(rough));
    }
    // Heights every few pixels, straight between them: the readings stand much further apart.
    constexpr int every = 4;
    const int across = w / every + 2;
    std::vector<double> known;
    for (int j = 0; j < h / every + 2; ++j)
        for (int i = 0; i < across; ++i) known.push_back(off.at(map.mm_at(box.topLeft() + QPointF(i * every + 0.5, j * every + 0.5))));
    const auto height = [&](int i, int j) {
        const double* row = known.data() + (j / every) * across + i / every;
        const double x = (i % every) / static_cast<double>(every);
        const double y = (j % every) / static_cast<double>(every);
        return (1 - y) * ((1 - x) * row[0] + x * row[1]) + y * ((1 - x) * row[across] + x * row[across + 1]);
    };
    highest_ = 0.1;
    for (int j = 0; j < h; ++j)
        for (int i = 0; i < w; ++i)
            if (inside.constScanLine(j)[i] != 0) highest_ = std::max(highest_, height(i, j));
    heights_ = QImage(w, h, QImage::Format_Grayscale8);
    for (int j = 0; j < h; ++j) {
        uchar* line = heights_.scanLine(j);
        const uchar* there = inside.constScanLine(j);
        for (int i = 0; i < w; ++i)
            line[i] = there[i] == 0 ? 0 : static_cast<uchar>(std::clamp(height(i, j) / highest_ * 254 + 1, 1.0, 255.0));
    }
    return heights_;
}

/// The face as it is cut down to where the dial stands: what is fresh is light, what still stands keeps its tint.
void FlatView::draw_removal(QPainter& p, const BenchMap& map, const Session& s, std::size_t face) const {
    const FlatPlan& f = *s.plan()->flat;
    const auto& c = theme::colours();
    const QRectF box = map.px(s.plan()->lay->rough).boundingRect();
    const QImage& heights = heights_of(f, s.plan()->lay->rough, face, map, box);
    const double level = level_at(f.faces[face], highest_, *s.dial());
    std::array<QRgb, 256> table{};
    for (int i = 1; i < 256; ++i) {
        const double z = (i - 1) / 254.0 * highest_;
        QColor colour = z > level + 1e-9 ? c.slip : c.madder;
        colour.setAlphaF(z <= 0 ? 0.0F : z > level + 1e-9 ? 0.72F : static_cast<float>(0.1 + 0.5 * z / highest_));
        table[static_cast<std::size_t>(i)] = qPremultiply(colour.rgba());
    }
    if (removal_.size() != heights.size()) removal_ = QImage(heights.size(), QImage::Format_ARGB32_Premultiplied);
    for (int j = 0; j < heights.height(); ++j) {
        const uchar* from = heights.constScanLine(j);
        auto* to = reinterpret_cast<QRgb*>(removal_.scanLine(j));
        for (int i = 0; i < heights.width(); ++i) to[i] = table[from[i]];
    }
    p.drawImage(box.topLeft().toPoint(), removal_);
}

std::optional<Dial> FlatView::dial(const Session& s) const {
    if (!s.plan() || !s.plan()->flat->ready) return {};
    const FacePlan& f = s.plan()->flat->faces[face_shown(s)];
    if (f.layers == 0) return {};
    const QString which = f.face == Face::a ? QObject::tr("show face") : QObject::tr("underside");
    if (!s.dial()) return Dial{QObject::tr("%1, layer by layer").arg(which), f.layers};
    const int done = std::min(f.layers, static_cast<int>(*s.dial() * f.layers + 1e-9));
    return Dial{done == 0          ? QObject::tr("%1 before").arg(which)
                : done == f.layers ? QObject::tr("%1 finished").arg(which)
                                   : QObject::tr("%1 after layer %2 of %3").arg(which).arg(done).arg(f.layers),
                f.layers};
}

QString FlatView::strip_title(const Session&) const {
    return QObject::tr("both faces along the middle, heights drawn taller · blue: finished planes");
}

QString FlatView::end_note(const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready) return {};
    const Vec2 p{s.gauge_mm(), middle_y(s)};
    return QObject::tr("%1 off the show face, %2 off the underside here")
        .arg(in_units(fine(std::max(0.0, f.off_top.at(p))), s), in_units(fine(std::max(0.0, f.off_bottom.at(p))), s));
}

namespace {
/// The more comes off, the deeper.
void draw_tint(QPainter& p, const BenchMap& map, const Surface& comes_off, const QRectF& box, double most_off_mm) {
    const double most = std::max(1.0, most_off_mm);
    constexpr double cell = 6;
    QImage tint(std::max(1, static_cast<int>(box.width() / cell)), std::max(1, static_cast<int>(box.height() / cell)),
                QImage::Format_ARGB32);
    const double step_x = box.width() / tint.width();
    const double step_y = box.height() / tint.height();
    for (int j = 0; j < tint.height(); ++j)
        for (int i = 0; i < tint.width(); ++i) {
            const double off = comes_off.at(map.mm_at(box.topLeft() + QPointF((i + 0.5) * step_x, (j + 0.5) * step_y)));
            QColor colour = theme::colours().madder;
            colour.setAlphaF(off <= 0.05 ? 0.0F : static_cast<float>(std::min(0.62, 0.05 + 0.55 * off / most)));
            tint.setPixelColor(i, j, colour);
        }
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.drawImage(box, tint);
}
}  // namespace

void FlatView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready) return;
    const auto& c = theme::colours();
    const LayPlan& lay = *s.plan()->lay;
    draw::dim_outside(p, map, lay.rough);
    const std::size_t shown = face_shown(s);
    const FacePlan& face = f.faces[shown];
    const Surface& comes_off = face.face == Face::a ? f.off_top : f.off_bottom;
    if (s.dial()) draw_removal(p, map, s, shown);
    p.save();
    if (!s.dial()) {
        QPainterPath clip;
        clip.addPolygon(draw::fewer(map.px(lay.rough)));
        p.setClipPath(clip);
        draw_tint(p, map, comes_off, clip.boundingRect(), face.most_off_mm);
    }
    // Lanes of the layer that is being cut; every eighth says which way the router is fed.
    const int layer = s.dial() ? std::min(face.layers - 1, static_cast<int>(*s.dial() * face.layers)) : face.layers - 1;
    QColor lane = c.ink;
    lane.setAlpha(s.dial() ? 60 : 26);
    int n = 0;
    QList<QLineF> lanes;
    QList<QLineF> arrows;
    for (const LanePass& pass : face.passes) {
        if (pass.layer != layer) continue;
        const QPointF a = map.px(pass.from);
        const QPointF b = map.px(pass.to);
        lanes << QLineF(a, b);
        if (n++ % 8 != 4) continue;
        const QPointF along = (b - a) / std::max(1.0, std::hypot(b.x() - a.x(), b.y() - a.y()));
        const QPointF across(-along.y(), along.x());
        const QPointF tip = (a + b) / 2 + along * 6;
        arrows << QLineF(tip, tip - along * 9 + across * 4) << QLineF(tip, tip - along * 9 - across * 4);
    }
    p.setPen(QPen(lane, 1));
    p.setRenderHint(QPainter::Antialiasing, !s.dial());  // played, they are drawn quickly
    p.drawLines(lanes);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(c.chalk, 1.3));
    p.drawLines(arrows);
    p.restore();
    // The place where one more reading is worth most.
    if (const Thing* t = s.picked_thing(); t && t->kind == "reading") {
        const QPointF q = map.px(centroid(t->area));
        p.setPen(QPen(c.brass, 2));
        p.drawLine(q - QPointF(9, 0), q + QPointF(9, 0));
        p.drawLine(q - QPointF(0, 9), q + QPointF(0, 9));
        unsure(p, map, s);
    }
    p.setPen(QPen(c.chalk, 1.6));
    p.setBrush(Qt::NoBrush);
    draw::outline(p, map.px(lay.outline));
    p.setFont(theme::figures(9.5));
    for (std::size_t i = 0; i < f.shims.size(); ++i) {
        const QPointF q = map.px({f.shims[i].at.x_mm, f.shims[i].at.y_mm});
        const QString text = in_units(fine(laid_mm(f.shims[i])), s);
        const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 14;
        const double tall = theme::grown(22);
        const QRectF r(q.x() - w / 2, q.y() - tall / 2, w, tall);
        p.setPen(QPen(c.chalk, 1.6));
        p.setBrush(c.slip);
        p.drawRoundedRect(r, 2, 2);
        p.setPen(c.ink);
        p.drawText(r, Qt::AlignCenter, text);
    }
}

void FlatView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready || !s.job()) return;
    const auto& c = theme::colours();
    const SlabShape& shape = *s.plan()->shape();
    const double y = middle_y(s);
    const Box b = bounds(s.plan()->lay->rough);
    double low = 1e9;
    double high = -1e9;
    for (int i = 0; i <= 40; ++i) {
        const Vec2 q{b.low.x + b.width() * i / 40, y};
        low = std::min({low, shape.bottom.at(q), f.tilt.bottom_at(q)});
        high = std::max({high, shape.top.at(q), f.tilt.top_at(q)});
    }
    QColor wood = c.wood;
    wood.setAlpha(170);
    const auto line = [&](auto value, const QPen& pen, const QBrush& below = Qt::NoBrush) {
        draw::strip_line(p, map, b.low.x, b.high.x, low - 2, high + 2, value, pen, below);
    };
    line([&](double x) { return shape.top.at({x, y}); }, QPen(c.wood_edge, 1.4), wood);
    QColor bench = c.bench;
    line([&](double x) { return shape.bottom.at({x, y}); }, QPen(c.wood_edge, 1.4), bench);
    line([&](double x) { return f.tilt.top_at({x, y}); }, QPen(c.chalk, 1.6));
    line([&](double x) { return f.tilt.bottom_at({x, y}); }, QPen(c.chalk, 1.6));
    // How it moved since it was roughed: each reading's bow, ten times over, from the finished face.
    const auto rounds = rounds_of(s);
    for (const DrawnRound& r : rounds)
        line(
            [&](double x) {
                const double u = b.width() > 0 ? 2 * (x - b.low.x) / b.width() - 1 : 0;
                return f.tilt.top_at({x, y}) + rounds_taller * moved_at(*r.round, u, 0);
            },
            QPen(r.ink, r.width, Qt::DashLine));
    if (rounds.empty()) return;
    p.setFont(theme::figures(9));
    p.setPen(rounds.back().ink);
    p.drawText(QPointF(map.px(b.high.x) + 4, map.strip.top() + 10),
               QObject::tr("%1, ×10").arg(QString::fromStdString(rounds.back().round->on)));
}

void FlatView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    const FlatPlan& f = *s.plan()->flat;
    if (!f.ready) return;
    const auto& c = theme::colours();
    const auto cut = cut_at_x(s.plan()->shape()->ring_a, s.gauge_mm());
    if (cut.empty()) return;
    const double y0 = cut.front().from;
    const double y1 = cut.back().to;
    const double x = s.gauge_mm();
    p.setPen(QPen(c.chalk, 1.6, Qt::DashLine));
    p.drawLine(map.end_px(y0, f.tilt.top_at({x, y0})), map.end_px(y1, f.tilt.top_at({x, y1})));
    p.drawLine(map.end_px(y0, f.tilt.bottom_at({x, y0})), map.end_px(y1, f.tilt.bottom_at({x, y1})));
    for (const DrawnRound& r : rounds_of(s)) {
        const Box b = bounds(s.plan()->lay->rough);
        QPolygonF line;
        for (int i = 0; i <= 24; ++i) {
            const double y = y0 + (y1 - y0) * i / 24;
            const double u = b.width() > 0 ? 2 * (x - b.low.x) / b.width() - 1 : 0;
            const double v = b.height() > 0 ? 2 * (y - b.low.y) / b.height() - 1 : 0;
            line << map.end_px(y, f.tilt.top_at({x, y}) + std::max(1.0, rounds_taller / map.end_rise) * moved_at(*r.round, u, v));
        }
        p.setPen(QPen(r.ink, r.width, Qt::DashLine));
        p.drawPolyline(line);
    }
    // Where the dial stands the layer's level, parallel to the finished plane.
    if (s.dial()) {
        const std::size_t shown = face_shown(s);
        const FacePlan& face = f.faces[shown];
        const double level = level_at(face, highest_, *s.dial());
        const bool top = face.face == Face::a;
        const auto z = [&](double y) { return top ? f.tilt.top_at({x, y}) + level : f.tilt.bottom_at({x, y}) - level; };
        p.setPen(QPen(c.madder, 1.8));
        p.drawLine(map.end_px(y0, z(y0)), map.end_px(y1, z(y1)));
    }
    QColor tint = c.madder;
    tint.setAlpha(110);
    p.setPen(Qt::NoPen);
    p.setBrush(tint);
    constexpr int n = 60;
    for (int i = 0; i < n; ++i) {
        const double a = y0 + (y1 - y0) * i / n;
        const double b = y0 + (y1 - y0) * (i + 1) / n;
        const Vec2 q{x, (a + b) / 2};
        const SlabShape& shape = *s.plan()->shape();
        const double over = f.off_top.at(q);
        const double under = f.off_bottom.at(q);
        if (over > 0) p.drawRect(QRectF(map.end_px(b, shape.top.at(q)), map.end_px(a, shape.top.at(q) - over)).normalized());
        if (under > 0) p.drawRect(QRectF(map.end_px(b, shape.bottom.at(q) + under), map.end_px(a, shape.bottom.at(q))).normalized());
    }
}

std::vector<Handle> FlatView::handles(const BenchMap& map, const Session& s) const {
    std::vector<Handle> out;
    if (!s.plan() || !s.plan()->flat->ready || !s.job()) return out;
    const auto& shims = s.plan()->flat->shims;
    const std::vector<Vec2> standing = supports_of(*s.plan()->flat);
    for (std::size_t i = 0; i < shims.size(); ++i) {
        const Vec2 at{shims[i].at.x_mm, shims[i].at.y_mm};
        const QPointF q = map.px(at);
        out.push_back({QObject::tr("shim %1").arg(i + 1), QObject::tr("Move a shim"), QPolygonF(QRectF(q.x() - 34, q.y() - 16, 68, 32)), at,
                       Qt::OpenHandCursor, [standing, i](Session& session, Vec2 from, Vec2 to) {
                           session.preview_leaf([&](Leaf& leaf) { move_support(leaf, standing, i, to - from); });
                       }});
    }
    return out;
}

std::vector<Dimension> FlatView::dimensions(const BenchMap& map, const Session& s) const {
    if (!s.plan() || !s.plan()->flat->ready) return {};
    // The finished thickness, beside the end view.
    const Tilt& t = s.plan()->flat->tilt;
    const auto cut = cut_at_x(s.plan()->shape()->ring_a, s.gauge_mm());
    if (cut.empty()) return {};
    const Vec2 q{s.gauge_mm(), cut.front().from};
    return {{map.end_px(q.y, t.bottom_at(q)), map.end_px(q.y, t.top_at(q)), -26, thickness_field()}};
}

std::vector<Field> FlatView::fields(const Session& s) const {
    std::vector<Field> out{thickness_field(), job_number("flat.rest_h"), job_number("flat.allowance_mm")};
    const Thing* t = s.picked_thing();
    if (!t || t->kind != "round") return out;
    const auto leaf = static_cast<std::size_t>(std::max(0, s.leaf()));
    for (const char* what : {"bow_mm", "cup_mm", "twist_mm", "thickness_mm"})
        out.push_back(of(job_number("leaves[" + std::to_string(leaf) + "].rounds[" + std::to_string(t->index) + "]." + what,
                                    "round_" + QString::fromLatin1(what).remove("_mm")),
                         "round"));
    return out;
}

std::vector<Action> FlatView::actions(Session& session) {
    Session* s = &session;
    return {{"shim_add",
             QObject::tr("Add a shim at the gauge"),
             {},
             [s] {
                 if (!s->plan() || !s->plan()->flat->ready) return;
                 auto now = supports_of(*s->plan()->flat);
                 now.push_back({s->gauge_mm(), middle_y(*s)});
                 s->edit_leaf(QObject::tr("Add a shim"), [&](Leaf& leaf) { set_supports(leaf, now); });
             }},
            {"shim_away",
             QObject::tr("Take this shim away"),
             {},
             [s] {
                 const Thing* t = s->picked_thing();
                 if (!t || s->plan()->flat->shims.size() < 2)
                     return Q_EMIT s->trouble(QObject::tr("The last shim stays: it says where it stands."));
                 s->edit_leaf(QObject::tr("Take a shim away"),
                              [now = supports_of(*s->plan()->flat), i = t->index](Leaf& leaf) { drop_support(leaf, now, i); });
                 s->pick({});
             },
             true,
             false,
             "shim"},
            {"shim_reset",
             QObject::tr("Shims back to four"),
             {},
             [s] { s->edit_leaf(QObject::tr("Shims back to four"), [](Leaf& leaf) { set_supports(leaf, {}); }); }},
            {"run_card", QObject::tr("Run the card of the lanes"),
             QObject::tr("Layer by layer; what is done is passed over: first face, second, after the rest"),
             [s] {
                 Q_EMIT s->card_wanted(QString::fromStdString(next_card(*s->job(), {"flat_one", "flat_two", "flat_last"})));
             },
             s->plan() && s->plan()->flat->ready && (s->plan()->flat->work.by == FlatBy::sled || !s->plan()->flat->work.possible)},
            {"play_layers", QObject::tr("Play the layers"), QObject::tr("Cuts one layer after the other on the plan"),
             [this, s] {
                 s->set_dial(0);
                 play_.disconnect();
                 QObject::connect(&play_, &QTimer::timeout, s, [this, s] {
                     if (!s->dial() || *s->dial() >= 1) return play_.stop();
                     s->set_dial(*s->dial() + 1.0 / 240);  // four seconds, whatever there is to cut
                 });
                 play_.start(16);
             },
             true, false, "top face"},
            {"read_again", QObject::tr("It was read again"), QObject::tr("After a rest: what it did meanwhile is typed"),
             [s] {
                 s->edit_leaf(QObject::tr("Read it again"), [thick = s->plan()->flat->thickness_mm](Leaf& leaf) {
                     leaf.rounds.push_back({QDate::currentDate().toString(Qt::ISODate).toStdString(), 0, 0, 0,
                                            leaf.rounds.empty() ? thick + 2 : leaf.rounds.back().thickness_mm});
                 });
                 const auto& leaf = (*s->leaves())[static_cast<std::size_t>(std::max(0, s->leaf()))];
                 s->pick(QStringLiteral("round %1").arg(leaf.rounds.size()));
                 Q_EMIT s->typing_wanted("round_bow");
             },
             true, false, "top round"},
            {"round_away",
             QObject::tr("Take this reading away"),
             {},
             [s] {
                 const Thing* t = s->picked_thing();
                 if (!t) return;
                 s->edit_leaf(QObject::tr("Take a reading away"), [i = t->index](Leaf& leaf) {
                     if (i < leaf.rounds.size()) leaf.rounds.erase(leaf.rounds.begin() + static_cast<std::ptrdiff_t>(i));
                 });
                 s->pick({});
             },
             true,
             false,
             "round"},
            {"the_shop", QObject::tr("The sled, its boards and pace"), QObject::tr("Opens the shop's page"),
             [s] { Q_EMIT s->shop_wanted(QStringLiteral("sled")); }}};
}

QString FlatView::help() const {
    return QObject::tr(
        "The tint shows how much comes off the show face. Drag the shims to where your supports stand; "
        "each tells its height for the tilt that keeps the most wood, and what to lay together for it. Choose on the slip where the "
        "twist goes. The dial cuts layer after layer; arrows on the lanes say which way to feed.");
}

}  // namespace yb
