#include "app/steps/skin/skin_view.h"

#include <QDate>
#include <QLocale>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <map>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/top_section.h"
#include "core/shop/edit/skin_edits.h"
#include "core/shop/job/skin_of.h"
#include "core/steps/lay/lay.h"
#include "core/steps/skin/look.h"
#include "core/steps/top/top.h"

namespace yb {

Step SkinView::step() const { return step_key::skin; }

const SkinPlan* SkinView::plan_of(const Session& s) {
    if (!s.plan() || !s.job()) return nullptr;
    const SkinPlan& p = skin_of(*s.plan());
    return p.ready ? &p : nullptr;
}

int SkinView::coat_shown(const Session& s, const SkinPlan& p) {
    return s.dial() ? 1 + static_cast<int>(std::lround(*s.dial() * std::max(0, p.coats - 1))) : 1;
}

QString SkinView::face_shown(const Session& s, const SkinPlan& p) {
    if (const Thing* t = s.picked_thing()) {
        if (t->kind == "face" && t->index < p.faces.size() && p.faces[t->index].face.key == "under") return QStringLiteral("under");
        if (t->kind == "zone") {
            std::size_t k = 0;
            for (const Zone& z : p.zones)
                if (z.coat == 1 && k++ == t->index) return QString::fromStdString(z.face);
        }
    }
    return QStringLiteral("upper");
}

QString SkinView::strip_title(const Session& s) const {
    const SkinPlan* p = plan_of(s);
    if (!p) return {};
    return QObject::tr("grits, then coats, hands solid and waiting hatched · %1 at the sander, %2 discs")
        .arg(in_units(hours(p->sanding_min / 60), s))
        .arg(static_cast<int>(std::ceil(p->discs)));
}

QString SkinView::end_note(const Session& s) const { return plan_of(s) ? QObject::tr("coats far too thick") : QString(); }

namespace {
/// Wood as it is once a finish is on it: the same wood with so much of its light kept in; paler where the finish is.
void wet(QPainter& p, const QPolygonF& where, const FinishLook& look, double how_much) {
    const auto left = left_of_light(look);
    const bool paler = look.darker < 0;
    QColor c = theme::colours().paper;
    if (paler) c.setAlphaF(static_cast<float>(std::clamp(-look.darker * 2.5 * how_much, 0.0, 1.0)));
    else
        c = QColor::fromRgbF(static_cast<float>(1 - (1 - left[0]) * how_much), static_cast<float>(1 - (1 - left[1]) * how_much),
                             static_cast<float>(1 - (1 - left[2]) * how_much));
    p.setPen(Qt::NoPen);
    p.setBrush(c);
    if (!paler) p.setCompositionMode(QPainter::CompositionMode_Multiply);
    p.drawPolygon(where);
    p.setCompositionMode(QPainter::CompositionMode_SourceOver);
}

/// The window's light on what shines, across the top.
void shine(QPainter& p, const QPolygonF& where, double how_much) {
    if (how_much < 0.05) return;
    const QRectF box = where.boundingRect();
    QLinearGradient light(box.topLeft(), box.bottomRight());
    QColor clear = theme::colours().slip;
    clear.setAlpha(0);
    QColor lit = theme::colours().slip;
    lit.setAlphaF(static_cast<float>(0.32 * how_much));
    light.setColorAt(0.18, clear);
    light.setColorAt(0.30, lit);
    light.setColorAt(0.42, clear);
    p.setBrush(light);
    p.drawPolygon(where);
}
}  // namespace

void SkinView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const SkinPlan* plan = plan_of(s);
    if (!plan) return;
    const auto& c = theme::colours();
    const Frame f = s.plan()->placement.frame();
    const Top& top = *s.plan()->top;
    draw::dim_outside(p, map, f.to_slab(top.above));
    const int coat = coat_shown(s, *plan);
    const std::string face = face_shown(s, *plan).toStdString();
    const std::size_t picked_zone = s.picked_thing() && s.picked_thing()->kind == "zone" ? s.picked_thing()->index : SIZE_MAX;
    const SkinFacePlan* shown = treated(*plan, face);
    const FinishLook look = look_of(shown ? shown->finish : s.skin()->finish, s.skin()->sheen);
    std::size_t k = 0;
    int last = 0;
    for (const Zone& z : plan->zones) last = z.face == face && z.coat == coat ? std::max(last, z.order) : last;
    std::size_t first_coat = 0;
    for (const Zone& z : plan->zones) {
        const std::size_t of_things = z.coat == 1 ? first_coat++ : SIZE_MAX;
        if (z.face != face || z.coat != coat) continue;
        ++k;
        // The earlier it is wiped the longer it is wet already: the first zone stands as finished wood, the last nearly bare.
        p.setRenderHint(QPainter::Antialiasing, false);  // their edges are the seams and the outline
        const QPolygonF ring = draw::fewer(map.px(f.to_slab(z.ring)));
        wet(p, ring, look, last > 1 ? 1.0 - 0.75 * (z.order - 1) / (last - 1) : 1.0);
        p.setRenderHint(QPainter::Antialiasing, true);
        if (of_things != picked_zone) continue;
        p.setPen(QPen(c.brass, 2.6));
        draw::outline(p, ring);
    }
    p.setRenderHint(QPainter::Antialiasing, false);
    p.setPen(Qt::NoPen);
    if (shown) shine(p, draw::fewer(map.px(f.to_slab(top.above))), look.shine);
    // Resin that is taken far enough is clear; left coarser it stays grey.
    if (const SkinFacePlan* glass = treated(*plan, face == "under" ? "resin below" : "resin above"); glass && !glass->grits.empty()) {
        QColor grey = theme::colours().slip;
        grey.setAlphaF(static_cast<float>(std::clamp(0.4 * (1 - glass->grits.back().grit / 800), 0.0, 0.4)));
        for (const Ring& r : glass->face.at) {
            const QPolygonF ring = draw::fewer(map.px(f.to_slab(r)));
            p.setBrush(grey);
            p.drawPolygon(ring);
            shine(p, ring, std::max(look.shine, glass->grits.back().grit >= 400 ? 0.6 : 0.1));
        }
    }
    p.setRenderHint(QPainter::Antialiasing, true);
    p.setPen(QPen(c.chalk, 1.6, Qt::DashLine));
    for (const double u : seams_of(*plan, face))
        for (const auto& part : cut_at_x(face == "under" && top.below.size() > 2 ? top.below : top.above, u))
            p.drawLine(map.px(f.to_slab({u, part.from})), map.px(f.to_slab({u, part.to})));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.8));
    draw::outline(p, map.px(f.to_slab(top.above)));
    draw_sample(p, map, *s.skin());
    if (const Thing* t = s.picked_thing(); t && t->kind == "face" && t->area.size() > 2) {
        p.setPen(QPen(c.brass, 2.6));
        p.setBrush(Qt::NoBrush);
        draw::outline(p, map.px(t->area));
    }
}

/// The sample in the plan's corner, as a board lies beside the work.
void SkinView::draw_sample(QPainter& p, const BenchMap& map, const SkinChoices& skin) const {
    if (skin.sample_picture.empty()) return;
    const QImage image = pictures_.thumbnail(skin.sample_picture);
    if (image.isNull()) return;
    const auto& c = theme::colours();
    const QSizeF size = QSizeF(image.size()).scaled(QSizeF(theme::grown(110), theme::grown(72)), Qt::KeepAspectRatio);
    const QRectF at(QPointF(map.plan.right() - size.width() - 8, map.plan.bottom() - size.height() - theme::grown(20)), size);
    p.save();
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.drawImage(at, image);
    p.setPen(QPen(skin.sample_signed ? c.moss : c.rule, 1.6));
    p.setBrush(Qt::NoBrush);
    p.drawRect(at);
    p.setFont(theme::text(9));
    p.setPen(c.ink);
    const QDate on = QDate::fromString(QString::fromStdString(skin.sample_on), Qt::ISODate);
    p.drawText(QRectF(at.left() - 60, at.bottom() + 2, at.width() + 60, theme::grown(16)), Qt::AlignRight,
               skin.sample_signed && on.isValid() ? QObject::tr("the sample, signed %1").arg(QLocale().toString(on, QLocale::ShortFormat))
                                                  : QObject::tr("the sample"));
    p.restore();
}

std::vector<Label> SkinView::labels(const BenchMap& map, const Session& s) const {
    std::vector<Label> out;
    const SkinPlan* plan = plan_of(s);
    if (!plan) return out;
    const auto& c = theme::colours();
    const Frame f = s.plan()->placement.frame();
    const int coat = coat_shown(s, *plan);
    const std::string face = face_shown(s, *plan).toStdString();
    int told_of = 0;
    for (const Zone& z : plan->zones) {
        if (z.face != face || z.coat != coat || z.order == told_of) continue;
        told_of = z.order;
        out.push_back(
            {map.px(f.to_slab(centroid(z.ring))),
             QObject::tr("%1 · %2, wiped after %3").arg(z.order).arg(in_units(litres(z.ml / 1000), s), in_units(hours(z.minutes / 60), s)),
             c.chalk, 2});
    }
    for (const SkinFacePlan& one : plan->faces)
        if (one.face.key == "resin above" && !one.grits.empty() && !one.face.at.empty())
            out.push_back(
                {map.px(f.to_slab(centroid(one.face.at.front()))), QObject::tr("resin: up to %1").arg(one.grits.back().grit), c.resin, 1});
    return out;
}

namespace {
/// A stretch of the strip: a grit, the wetting, a coat, its wait.
struct Stretch {
    QString text;
    double h = 0;
    enum { sander, wetting, coat, wait } what = sander;
    QString thing{};  ///< that is picked there
    QRectF box{};
};

std::vector<Stretch> stretches(const SkinPlan& plan, const BenchMap& map, const Session& s) {
    std::vector<Stretch> all;
    std::map<double, double> minutes;
    bool wetted = false;
    for (const SkinFacePlan& f : plan.faces)
        for (const GritStep& g : f.grits) minutes[g.grit] += g.minutes, wetted = wetted || g.wetted;
    std::size_t n = 0;
    for (const auto& [grit, m] : minutes) {
        if (wetted && n + 1 == minutes.size()) all.push_back({QObject::tr("wet it"), dries_h, Stretch::wetting});
        all.push_back({QString::number(grit), m / 60, Stretch::sander, QStringLiteral("grit %1").arg(++n)});
    }
    for (int k = 1; k <= plan.coats; ++k) {
        double m = 0;
        for (const SkinFacePlan& f : plan.faces)
            for (const SkinCoat& one : f.coats) m += one.coat == k ? one.minutes : 0;
        const QString thing = QStringLiteral("coat %1").arg(k);
        all.push_back({QObject::tr("coat %1").arg(k), m / 60, Stretch::coat, thing});
        const bool last = k == plan.coats;
        all.push_back({last ? QObject::tr("%1 to handle").arg(in_units(hours(plan.handle_h), s)) : in_units(hours(plan.recoat_h), s),
                       last ? plan.handle_h : plan.recoat_h, Stretch::wait, thing});
    }
    // Minutes and days on one rule: the square root keeps both to be seen, the order of lengths true.
    double sum = 0;
    for (const Stretch& one : all) sum += 0.25 + std::sqrt(std::max(0.0, one.h));
    const QRectF room(map.strip.left(), map.strip.center().y() - theme::grown(16), map.strip.width(), theme::grown(32));
    double x = room.left();
    for (Stretch& one : all) {
        const double w = room.width() * (0.25 + std::sqrt(std::max(0.0, one.h))) / sum;
        one.box = QRectF(x, room.top(), w - 2, room.height());
        x += w;
    }
    return all;
}
}  // namespace

void SkinView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const SkinPlan* plan = plan_of(s);
    if (!plan) return;
    const auto& c = theme::colours();
    p.setFont(theme::figures(10));
    for (const Stretch& one : stretches(*plan, map, s)) {
        p.setPen(QPen(c.wood_edge, 0.8));
        p.setBrush(one.what == Stretch::sander    ? QBrush(c.wood)
                   : one.what == Stretch::coat    ? QBrush(c.wood_edge)
                   : one.what == Stretch::wetting ? QBrush(c.resin)
                                                  : QBrush(c.faint, Qt::BDiagPattern));
        p.drawRect(one.box);
        const QString text = what_fits(one.text, p.fontMetrics(), one.box.width() - 4);
        if (one.what == Stretch::wait && !text.isEmpty()) {
            const double tw = p.fontMetrics().horizontalAdvance(text) + 6;
            p.fillRect(QRectF(one.box.center().x() - tw / 2, one.box.center().y() - theme::grown(8), tw, theme::grown(16)), c.bench);
        }
        p.setPen(one.what == Stretch::coat ? c.slip : c.ink);
        p.drawText(one.box, Qt::AlignCenter, text);
        if (one.thing.isEmpty() || one.thing != s.picked()) continue;
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.brass, 2.4));
        p.drawRect(one.box.adjusted(-1, -2, 1, 2));
    }
}

/// The section with every coat that is on by then, on the faces that get it.
void SkinView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    const SkinPlan* plan = plan_of(s);
    if (!plan) return;
    const Frame f = s.plan()->placement.frame();
    const double u = f.from_slab({s.gauge_mm(), s.plan()->placement.y_mm}).x;
    const Top& top = *s.plan()->top;
    const auto above = cut_at_x(top.above, u);
    const auto below = cut_at_x(top.below.size() > 2 ? top.below : top.above, u);
    if (above.empty() || below.empty()) return;
    const int coat = coat_shown(s, *plan);
    const auto treated = [&](const char* key) {
        return std::any_of(plan->faces.begin(), plan->faces.end(),
                           [&](const SkinFacePlan& one) { return one.face.key == key && !one.left_out; });
    };
    const auto at = [&](double v, double z) { return map.end_px(f.to_slab({u, v}).y, z); };
    p.setPen(QPen(theme::colours().wood_edge, 1.5 + 1.5 * coat, Qt::SolidLine, Qt::RoundCap));
    const double t = top.thickness_mm;
    if (treated("upper")) p.drawLine(at(above.front().from, t), at(above.back().to, t));
    if (treated("under")) p.drawLine(at(below.front().from, 0), at(below.back().to, 0));
    for (const bool left : {false, true})
        if (treated(left ? "edge left" : "edge right") || treated("rim"))
            p.drawLine(at(left ? above.back().to : above.front().from, t), at(left ? below.back().to : below.front().from, 0));
}

std::vector<Handle> SkinView::handles(const BenchMap& map, const Session& s) const {
    std::vector<Handle> out;
    const SkinPlan* plan = plan_of(s);
    if (!plan) return out;
    const Frame f = s.plan()->placement.frame();
    const std::string face = face_shown(s, *plan).toStdString();
    const std::vector<double> seams = seams_of(*plan, face);
    const Box box = bounds(s.plan()->top->above);
    for (std::size_t i = 0; i < seams.size(); ++i) {
        const double near = 5 / map.scale;
        const Ring strip{
            {seams[i] - near, box.low.y}, {seams[i] + near, box.low.y}, {seams[i] + near, box.high.y}, {seams[i] - near, box.high.y}};
        out.push_back({QStringLiteral("seam %1").arg(i + 1), QObject::tr("Move a seam between zones"), map.px(f.to_slab(strip)),
                       f.to_slab(Vec2{seams[i], (box.low.y + box.high.y) / 2}), Qt::SizeHorCursor,
                       [f, seams, i](Session& session, Vec2 from, Vec2 to) {
                           session.preview([&](Job& job) { move_seam(job, seams, i, (f.from_slab(to) - f.from_slab(from)).x); });
                       }});
    }
    return out;
}

QString SkinView::side_thing(const BenchMap& map, const Session& s, QPointF at) const {
    const SkinPlan* plan = plan_of(s);
    if (!plan) return {};
    if (map.strip.contains(at)) {
        for (const Stretch& one : stretches(*plan, map, s))
            if (one.box.contains(at)) return one.thing;
        return {};
    }
    const Frame f = s.plan()->placement.frame();
    const double u = f.from_slab({s.gauge_mm(), s.plan()->placement.y_mm}).x;
    const Top& top = *s.plan()->top;
    const auto above = cut_at_x(top.above, u);
    const auto below = cut_at_x(top.below.size() > 2 ? top.below : top.above, u);
    if (above.empty() || below.empty()) return {};
    const auto px = [&](double v, double z) { return map.end_px(f.to_slab({u, v}).y, z); };
    const double t = top.thickness_mm;
    struct Line {
        const char* key;
        QPointF a, b;
    };
    const Line sides[] = {{"upper", px(above.front().from, t), px(above.back().to, t)},
                          {"under", px(below.front().from, 0), px(below.back().to, 0)},
                          {"edge right", px(above.front().from, t), px(below.front().from, 0)},
                          {"edge left", px(above.back().to, t), px(below.back().to, 0)}};
    const auto far = [&](const Line& one) {
        const QPointF way = one.b - one.a;
        const double k = std::clamp(QPointF::dotProduct(at - one.a, way) / std::max(1e-9, QPointF::dotProduct(way, way)), 0.0, 1.0);
        return QLineF(at, one.a + way * k).length();
    };
    const Line& nearest =
        *std::min_element(std::begin(sides), std::end(sides), [&](const Line& a, const Line& b) { return far(a) < far(b); });
    constexpr double reach = 14;
    if (far(nearest) > reach) return {};
    for (const std::string& key : {std::string(nearest.key), std::string("rim")})
        for (std::size_t i = 0; i < plan->faces.size(); ++i)
            if (plan->faces[i].face.key == key) return QStringLiteral("face %1").arg(i + 1);
    return {};
}

std::optional<Dial> SkinView::dial(const Session& s) const {
    const SkinPlan* plan = plan_of(s);
    if (!plan || plan->coats < 2) return {};
    return Dial{s.dial() ? QObject::tr("coat %1 of %2").arg(coat_shown(s, *plan)).arg(plan->coats) : QObject::tr("coat by coat"),
                plan->coats};
}

std::vector<Field> SkinView::fields(const Session& s) const {
    if (!plan_of(s)) return {};
    std::vector<Field> out;
    for (const char* path :
         {"skin.first_grit", "skin.stop_grit", "skin.resin_grit", "skin.coats", "skin.thirst", "skin.rags_pct", "skin.wait_h"})
        out.push_back(job_number(path));
    return out;
}

std::vector<PickField> SkinView::picks(const Session& s) const {
    const SkinPlan* plan = plan_of(s);
    if (!plan) return {};
    std::vector<PickField> out{
        {"skin_figured",
         QObject::tr("Figure"),
         {QObject::tr("plain"), QObject::tr("figured: one grit finer")},
         [](const Session& now) { return now.skin() ? static_cast<int>(now.skin()->figured) : -1; },
         [](Session& now, int i) { now.edit_job(QObject::tr("Figured wood"), [&](Job& j) { set_figured(j, i == 1); }); }}};
    if (const Thing* t = s.picked_thing(); t && t->kind == "face" && t->index < plan->faces.size()) {
        const std::string key = plan->faces[t->index].face.key;
        QStringList ways;
        for (const OptionName& o : face_finishes.options) ways << told(o.label);
        out.push_back({"face_finish", QObject::tr("Its finish"), ways,
                       [key](const Session& now) {
                           const FaceChoice* f = now.skin() ? choice_of_face(*now.skin(), key) : nullptr;
                           return static_cast<int>(f ? face_finishes.index(f->finish) : 0);
                       },
                       [key](Session& now, int i) {
                           now.edit_job(QObject::tr("A finish of its own"),
                                        [&](Job& j) { finish_face(j, key, face_finishes.values.at(static_cast<std::size_t>(i))); });
                       },
                       "face"});
    }
    return out;
}

std::vector<Action> SkinView::actions(Session& session) {
    Session* s = &session;
    const SkinPlan* plan = plan_of(session);
    std::vector<Action> out;
    if (!plan) return out;
    out.push_back({"run_sand", QObject::tr("Run the sanding's card"), QObject::tr("Grit by grit; its ticks teach your pace"),
                   [s] { Q_EMIT s->card_wanted(QStringLiteral("sand")); }});
    out.push_back({"run_finish", QObject::tr("Run the finish day's card"), QObject::tr("Zone by zone, its window running down"),
                   [s] { Q_EMIT s->card_wanted(QStringLiteral("finish")); }});
    const bool signed_now = session.skin()->sample_signed;
    out.push_back({"sign_sample", signed_now ? QObject::tr("The sample is not signed") : QObject::tr("The sample board is signed"),
                   QObject::tr("A board from the same wood, seen by the client, decides"), [s, signed_now] {
                       s->edit_job(QObject::tr("The sample board"), [&](Job& j) {
                           sign_sample(j, signed_now ? std::string() : QDate::currentDate().toString(Qt::ISODate).toStdString());
                       });
                   }});
    out.push_back(
        {"sample_picture",
         session.skin()->sample_picture.empty() ? QObject::tr("Keep the sample's picture…") : QObject::tr("Another picture of the sample…"),
         QObject::tr("A photograph of the board, kept with the job"), [s] { Q_EMIT s->sample_wanted(); }});
    if (!session.skin()->seams_mm.empty())
        out.push_back({"even_zones", QObject::tr("Zones as large as the window asks"),
                       QObject::tr("Instead of where their seams were moved"),
                       [s] { s->edit_job(QObject::tr("Even zones"), [](Job& j) { even_zones(j); }); }});
    if (const Thing* t = session.picked_thing(); t && t->kind == "face" && t->index < plan->faces.size()) {
        const SkinFacePlan& f = plan->faces[t->index];
        const std::string key = f.face.key;
        out.push_back({"face_out",
                       f.left_out ? QObject::tr("Treat it as the rest") : QObject::tr("Leave it out"),
                       {},
                       [s, key, out_now = f.left_out] {
                           s->edit_job(QObject::tr("A face left out"), [&](Job& j) { leave_face_out(j, key, !out_now); });
                       },
                       true,
                       false,
                       "face"});
        if (f.face.kind == SkinFace::Kind::pocket)
            out.push_back(
                {"face_sealed", f.sealed ? QObject::tr("Do not seal it") : QObject::tr("Seal it with one coat"),
                 QObject::tr("Against damp, not sanded"),
                 [s, key, sealed = f.sealed] { s->edit_job(QObject::tr("Seal a pocket"), [&](Job& j) { seal_face(j, key, !sealed); }); },
                 true, false, "face"});
    }
    return out;
}

QString SkinView::help() const {
    return QObject::tr(
        "Zones are as large as can be wiped in time, in their order. Choose the finish; pick a face to leave it out. The dial goes coat by "
        "coat. Run the card on the day.");
}

}  // namespace yb
