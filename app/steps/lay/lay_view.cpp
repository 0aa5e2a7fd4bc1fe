#include "app/steps/lay/lay_view.h"

#include "app/ground/session/pictures.h"
#include "app/ground/slow/long_work.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/bench.h"
#include "app/steps/lay/leaves.h"
#include "app/steps/lay/patches.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/slab_edits.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/match/likeness.h"

namespace yb {

namespace {

/// Patches let in, and where a top in two halves is cut.
void draw_extras(QPainter& p, const BenchMap& map, const Session& s) {
    const auto& c = theme::colours();
    const Frame f = s.plan()->placement.frame();
    patches::draw(p, map, s);
    if (const auto u = s.makeup()->halves_u_mm) {
        const double half = s.top()->width_mm / 2 + 30;
        p.setPen(QPen(c.slip, 4));
        p.drawLine(map.px(f.to_slab(Vec2{*u, -half})), map.px(f.to_slab(Vec2{*u, half})));
        p.setPen(QPen(c.madder, 1.8, Qt::DashDotLine));
        p.drawLine(map.px(f.to_slab(Vec2{*u, -half})), map.px(f.to_slab(Vec2{*u, half})));
    }
}

}  // namespace

bool LayView::shows_leaves() const { return true; }

QString LayView::end_note(const Session& s) const { return s.whole() ? leaves::end_note(s) : QString(); }

void LayView::draw_end(QPainter& p, const BenchMap& map, const Session& s) const {
    if (s.whole()) leaves::draw_end(p, map, s);
}

QString LayView::strip_title(const Session& s) const {
    if (s.whole()) return leaves::strip_title(s);
    return QObject::tr("width of the slab along it · %1 wanted").arg(s.top() ? in_units(mm(s.top()->width_mm), s) : QString());
}

void LayView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    if (s.whole()) {
        leaves::draw_plan(p, map, s);
        if (s.plan()->lay->ready) draw_extras(p, map, s);
        return;
    }
    const LayPlan& lay = *s.plan()->lay;
    if (!lay.ready) return;
    const auto& c = theme::colours();
    draw::dim_outside(p, map, lay.outline);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1, Qt::DashLine));
    for (const auto& [a, b] : lay.rough_cuts) p.drawLine(map.px(a), map.px(b));
    p.setPen(QPen(c.chalk, 2));
    if (s.top()->shape == TopShape::rectangle)
        for (const auto& [a, b] : lay.finish_cuts) p.drawLine(map.px(a), map.px(b));
    draw_extras(p, map, s);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 2));
    draw::outline(p, map.px(lay.outline));
    if (s.top()->live != LiveEdges::none) {
        p.setPen(QPen(c.chalk, 1, Qt::DotLine));
        p.drawPolygon(map.px(lay.rectangle));
    }
    for (const Shortfall& f : lay.short_at) {
        p.setPen(QPen(c.madder, 2.4));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(map.px(f.at), 8, 8);
    }
}

std::vector<Label> LayView::labels(const BenchMap& map, const Session& s) const {
    std::vector<Label> out;
    const LayPlan& lay = *s.plan()->lay;
    if (!lay.ready) return out;
    const auto& c = theme::colours();
    if (!lay.short_at.empty()) {
        const Shortfall& f = lay.short_at.front();
        out.push_back({map.px(f.at), QObject::tr("short by %1 at %2").arg(in_units(mm(f.mm), s), in_units(along(f.at.x), s)), c.madder, 2});
    }
    if (s.whole()) leaves::add_labels(map, s, out);
    return out;
}

void LayView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    if (s.whole()) {
        leaves::draw_strip(p, map, s);
        if (matched_ && matched_->leaves == *s.leaves()) leaves::draw_match(p, map, s, matched_->match);
        return;
    }
    const auto& c = theme::colours();
    const SlabShape& shape = *s.plan()->shape();
    if (!s.top()) return;
    const double wanted = s.top()->width_mm;
    const auto width = [&](double x) {
        const auto cut = cut_at_x(shape.ring_a, std::clamp(x, shape.x0 + 0.01, shape.x1 - 0.01));
        return cut.empty() ? 0.0 : cut.back().to - cut.front().from;
    };
    double most = wanted * 1.1;
    double least = wanted * 0.9;
    for (int i = 0; i <= 60; ++i) {
        const double w = width(shape.x0 + (shape.x1 - shape.x0) * i / 60);
        most = std::max(most, w + 10);
        least = std::min(least, w - 10);
    }
    QColor fill = c.wood;
    fill.setAlpha(150);
    draw::strip_line(p, map, shape.x0, shape.x1, least, most, width, QPen(c.brass_dark, 1.5), fill);
    const Box b = bounds(s.plan()->lay->outline);
    draw::strip_line(
        p, map, b.low.x, b.high.x, least, most, [&](double) { return wanted; }, QPen(c.chalk, 1.5, Qt::DashLine));
    p.setFont(theme::figures(9));
    p.setPen(c.ink);
    p.drawText(QRectF(map.strip.right() - 300, map.strip.top() - 4 - theme::grown(16), 300, theme::grown(16)), Qt::AlignRight,
               QObject::tr("%1 at the gauge").arg(in_units(mm(width(map.gauge_mm)), s)));
}

std::vector<Handle> LayView::handles(const BenchMap& map, const Session& s) const {
    if (!s.plan() || !s.plan()->lay->ready || !s.job()) return {};
    if (s.whole()) {
        std::vector<Handle> all = leaves::handles(map, s);
        for (Handle& h : patches::handles(map, s)) all.push_back(std::move(h));  // they lie on top of everything
        return all;
    }
    const Placement at = s.leaves()->front().placement;
    Handle top{QObject::tr("top"),
               QObject::tr("Move the top"),
               map.px(s.plan()->lay->rectangle),
               {at.x_mm, at.y_mm},
               Qt::OpenHandCursor,
               [](Session& session, Vec2 from, Vec2 to) { session.preview([&](Job& j) { move_top(j, to - from); }); },
               [](Session& session, double degrees) { session.preview([&](Job& j) { turn_top(j, degrees); }); }};
    // The corners turn it about its middle.
    std::vector<Handle> out{top};
    const Box box = bounds(outline_of(*s.top()));
    Ring r;
    for (const Vec2 q : {box.low, Vec2{box.high.x, box.low.y}, box.high, Vec2{box.low.x, box.high.y}}) r.push_back(at.frame().to_slab(q));
    for (std::size_t i = 0; i < r.size(); ++i) {
        const QPointF q = map.px(r[i]);
        const Vec2 middle{at.x_mm, at.y_mm};
        out.push_back({QObject::tr("corner %1").arg(i + 1), QObject::tr("Turn the top"), QPolygonF(QRectF(q.x() - 9, q.y() - 9, 18, 18)),
                       r[i], Qt::CrossCursor, [middle](Session& session, Vec2 from, Vec2 to) {
                           const Vec2 a = from - middle;
                           const Vec2 b = to - middle;
                           const double turn = degrees_between(a, b);
                           session.preview([&](Job& j) { turn_top(j, turn); });
                       }});
    }
    for (Handle& h : patches::handles(map, s)) out.push_back(std::move(h));
    return out;
}

namespace {
Field length_field() { return job_number("top.length_mm"); }
Field width_field() { return job_number("top.width_mm"); }
}  // namespace

std::vector<Dimension> LayView::dimensions(const BenchMap& map, const Session& s) const {
    if (!s.plan() || !s.plan()->lay->ready || !s.job()) return {};
    if (s.whole()) return leaves::dimensions(map, s, length_field(), width_field());
    const Box box = bounds(outline_of(*s.top()));
    const Frame f = s.leaves()->front().placement.frame();
    QPolygonF r;
    for (const Vec2 q : {box.low, Vec2{box.high.x, box.low.y}, box.high, Vec2{box.low.x, box.high.y}}) r << map.px(f.to_slab(q));
    const double below = map.px(bounds(s.plan()->shape()->ring_a).low).y() - std::max(r[0].y(), r[1].y());
    return {{r[0], r[1], -std::max(18.0, below + 16), length_field()}, {(r[0] * 7 + r[1]) / 8, (r[3] * 7 + r[2]) / 8, 0, width_field()}};
}

std::vector<PickField> LayView::picks(const Session& s) const {
    std::vector<PickField> out{{"top_shape",
                                QObject::tr("Shape"),
                                {QObject::tr("rectangle"), QObject::tr("round"), QObject::tr("oval"), QObject::tr("free form")},
                                [](const Session& now) { return now.job() ? static_cast<int>(now.top()->shape) : 0; },
                                [](Session& now, int i) {
                                    now.edit_job(QObject::tr("Shape of the top"),
                                                 [&](Job& j) { set_top_shape(j, static_cast<TopShape>(i)); });
                                }}};
    QStringList flaws;
    for (int k = 0; k <= static_cast<int>(FlawKind::scar); ++k) flaws << told(name_of(static_cast<FlawKind>(k)));
    out.push_back({"flaw_wished", QObject::tr("Of its flaws"), flaws, [this](const Session&) { return static_cast<int>(wished_); },
                   [this](Session&, int i) { wished_ = static_cast<FlawKind>(i); }});
    out.push_back({"flaw_wish",
                   QObject::tr("… in the top"),
                   {QObject::tr("as it comes"), QObject::tr("keep it out"), QObject::tr("have it in")},
                   [this](const Session& now) { return now.job() ? static_cast<int>(wish_of(now.top()->flaws, wished_)) : 0; },
                   [this](Session& now, int i) {
                       now.edit_job(QObject::tr("Flaws in the top"), [&](Job& j) { set_flaw_wish(j, wished_, static_cast<Wish>(i)); });
                   }});
    for (PickField& f : patches::picks(s, pictures_)) out.push_back(std::move(f));
    if (s.job() && (s.leaves()->size() > 1) && !is_river(s.makeup()->kind))
        out.push_back({"joint_kind",
                       QObject::tr("Middle joint"),
                       {QObject::tr("straight"), QObject::tr("follows the edge")},
                       [](const Session& now) {
                           const auto joints = joints_of(*now.makeup(), now.leaves()->size(), now.top()->width_mm);
                           return joints.empty() || !joints[joints.size() / 2].curved ? 0 : 1;
                       },
                       [](Session& now, int i) {
                           now.edit_job(QObject::tr("Straight or curved joint"), [&](Job& j) { set_middle_joint_curved(j, i == 1); });
                       }});
    return out;
}

std::vector<Field> LayView::fields(const Session& now) const {
    std::vector<Field> f{length_field(),
                         width_field(),
                         job_number("top.thickness_mm"),
                         job_number("top.height_mm"),
                         job_number("top.seats"),
                         job_number("leaves[0].placement.oversize_mm", "top_oversize"),
                         job_number("leaves[0].placement.x_mm", "top_x"),
                         job_number("leaves[0].placement.y_mm", "top_y"),
                         job_number("leaves[0].placement.angle_deg", "top_angle")};
    f.push_back(
        {"top_halves", QObject::tr("In two halves, cut at"), Kind::along,
         [](const Session& s) -> std::optional<double> {
             if (!s.job() || !s.makeup()->halves_u_mm) return {};
             return *s.makeup()->halves_u_mm + s.top()->length_mm / 2;
         },
         [](Session& s, std::optional<double> v) { s.edit_job(QObject::tr("Two halves"), [&](Job& j) { set_halves_from_left(j, v); }); }, 1,
         20000, true});
    if (now.job() && (now.leaves()->size() > 1)) {
        const Field halves = f.back();
        f.pop_back();
        f.resize(f.size() - 3);  // where each leaf lies is dragged
        f.push_back(halves);
        for (Field& more : leaves::fields(*now.makeup())) f.push_back(std::move(more));
    }
    for (Field& more : patches::fields(now)) f.push_back(std::move(more));
    return f;
}

std::vector<TextField> LayView::texts() const {
    return {{"job_client", QObject::tr("For"), [](const Session& s) { return s.client(); },
             [](Session& s, const QString& v) { s.edit_job(QObject::tr("Client"), [&](Job& j) { set_client(j, v.toStdString()); }); }},
            {"job_start", QObject::tr("Begins on"), [](const Session& s) { return s.first_day(); },
             [](Session& s, const QString& v) {
                 s.edit_job(QObject::tr("First day"), [&](Job& j) { set_first_day(j, v.trimmed().toStdString()); });
             }}};
}

namespace {

/// Works out beside where the leaves go, and puts them there; leaves that were moved meanwhile stay where they are.
void place_beside(Session& s, LongWork& work, const QString& label,
                  std::function<std::vector<Placement>(const Plan&, const MakeUpInputs&)> where) {
    const std::vector<Leaf> before = *s.leaves();
    work.run(
        label,
        [plan = *s.plan(), before, top = *s.top(), choices = *s.makeup(), where](const Work&) {
            return where(plan, leaves::inputs(plan, before, top, choices));
        },
        [&s, before, label, begun = s.begun()](const std::vector<Placement>& all) {
            bool moved = false;
            s.edit_begun(begun, label, [&](Job& j) {
                moved = leaves_of(j) != before;
                if (!moved) set_placements(j, all);
            });
            if (moved) Q_EMIT s.news(QObject::tr("The leaves were moved meanwhile; they stay where they are."));
        });
}

/// A leaf taken off: what is left is laid anew as what it can be.
void take_off(Session& s) {
    if (!s.job() || !(s.leaves()->size() > 1)) return;
    std::vector<std::string> ids;
    for (std::size_t i = 0; i < s.leaves()->size(); ++i)
        if (static_cast<int>(i) != s.leaf()) ids.push_back((*s.leaves())[i].slab);
    s.make_up(QObject::tr("Take a leaf off"), made_of(s.makeup()->kind, ids.size()), ids);
}

/// Both faces of every leaf photographed: their likeness along the seam, and the slide that betters it.
void match_pictures(Session& s, LongWork& work, Pictures& pictures, std::function<void(const SeamMatch&)> keep) {
    const auto k = s.plan()->makeup->joints.size() / 2;
    if (!s.whole() || k >= s.plan()->seams->size()) {
        Q_EMIT s.trouble(QObject::tr("There is no seam to compare along: lay two leaves of one tree together."));
        return;
    }
    const Plan plan = *s.plan();
    const std::vector<Leaf> leaves = *s.leaves();
    const JointPlan seam = plan.makeup->joints[k];
    std::vector<std::function<std::optional<Picture>()>> read;
    for (const std::size_t i : {seam.right, seam.left}) {
        const auto& place = plan.leaves[i].slab().picture_a;
        if (!place || !pictures.has(place->key)) {
            Q_EMIT s.trouble(QObject::tr("%1 has no picture of the face that shows. Photograph it, and its likeness can be compared.")
                                 .arg(QString::fromStdString(plan.leaves[i].slab().name)));
            return;
        }
        read.push_back(pictures.pixels(place->key));
    }
    work.run(
        QObject::tr("Comparing the faces"),
        [plan, leaves, seam, read, mirrored = (*plan.seams)[k].mirrored](const Work& w) {
            std::vector<Picture> shown;
            for (const auto& one : read) shown.push_back(one().value_or(Picture()));
            const auto side = [&](std::size_t i) {
                return SeamSide{plan.leaves[i].slab(), plan.leaves[i].shape(), nullptr, leaves[i].placement};
            };
            return match_seam(side(seam.right), {&shown[0], *plan.leaves[seam.right].slab().picture_a}, side(seam.left),
                              {&shown[1], *plan.leaves[seam.left].slab().picture_a}, seam, mirrored, 120, w);
        },
        [&s, left = seam.left, keep, leaves, begun = s.begun()](const SeamMatch& m) {
            if (!s.still_open(begun, QObject::tr("Compared faces"))) return;
            if (m.windows.empty()) {
                Q_EMIT s.trouble(QObject::tr("The faces show too little beside the seam to be compared."));
                return;
            }
            if (std::abs(m.slide_mm) >= 2 && m.slid_mean > m.mean + 0.02) {
                bool moved = false;
                s.edit_begun(begun, QObject::tr("Slide along the seam"), [&](Job& j) {
                    moved = leaves_of(j) != leaves;
                    if (!moved) move_leaf(j, left, {m.slide_mm, 0});
                });
                if (moved) return Q_EMIT s.news(QObject::tr("The leaves were moved meanwhile; they stay where they are."));
                Q_EMIT s.news(
                    QObject::tr("The left leaf was slid by %1: knots and figure meet better there (likeness %2, before %3). Undo takes "
                                "it back.")
                        .arg(in_units(mm(m.slide_mm), s))
                        .arg(m.slid_mean, 0, 'f', 2)
                        .arg(m.mean, 0, 'f', 2));
            } else {
                Q_EMIT s.news(QObject::tr("The figure meets as well as it can along the seam (likeness %1); no slide betters it.")
                                  .arg(m.mean, 0, 'f', 2));
            }
            if (s.begun().job == begun.job) keep(m);
        });
}

}  // namespace

std::vector<Action> LayView::actions(Session& session) {
    Session* s = &session;
    const auto marked = [s](const QString& label, bool MakeUpChoices::*what) {
        return [s, label, what] { s->edit_job(label, [&](Job& j) { mark_done(j, what); }); };
    };
    const auto several = [s] { return s->whole(); };
    std::vector<Action> all{
        {"find_tops", QObject::tr("Find what could be made"), QObject::tr("From the whole rack, for the size you want (F)"),
         [s] { Q_EMIT s->find_wanted(); }},
        {"rips_best", QObject::tr("Find the best rip lines"),
         QObject::tr("Straight, clean of bark and rot on both leaves, the least width lost"),
         [s, this] {
             if (!s->whole() || is_river(s->makeup()->kind)) {
                 Q_EMIT s->trouble(QObject::tr("Rip lines want two leaves or more that are glued."));
                 return;
             }
             place_beside(*s, work_, QObject::tr("Best rip lines"),
                          [](const Plan& plan, const MakeUpInputs& in) { return best_rips(in, *plan.makeup); });
         },
         several() && !is_river(session.makeup()->kind), false, "top joint"},
        {"even_river", QObject::tr("Even the river"), QObject::tr("Slides and turns both banks"),
         [s, this] {
             if (!s->whole() || !is_river(s->makeup()->kind)) {
                 Q_EMIT s->trouble(QObject::tr("There is no river in this top."));
                 return;
             }
             place_beside(*s, work_, QObject::tr("Even the river"),
                          [](const Plan& plan, const MakeUpInputs& in) { return evened_river(in, plan); });
         },
         several() && is_river(session.makeup()->kind), false, "top river"},
        {"match_pictures", QObject::tr("Compare the faces along the seam"),
         QObject::tr("By their pictures; slides the left leaf where that betters it"),
         [s, this] {
             if (!s->plan()) return;
             match_pictures(*s, work_, pictures_, [this, s](const SeamMatch& m) {
                 matched_ = Matched{m, *s->leaves()};
                 bench_.touch();
             });
         },
         several() && !is_river(session.makeup()->kind), false, "top joint"},
        {"faces_flat", QObject::tr("Both faces are flat"), QObject::tr("Marks it, or takes the mark away: before that no rip"),
         marked(QObject::tr("Faces flat"), &MakeUpChoices::faces_flat), several()},
        {"rips_made", QObject::tr("The joints are ripped"), QObject::tr("Marks it, or takes the mark away"),
         marked(QObject::tr("Joints ripped"), &MakeUpChoices::ripped), several(), false, "top joint"},
        {"take_off", QObject::tr("Take this leaf off"), QObject::tr("It goes back to the rack"), [s] { take_off(*s); }, several(), false,
         "leaf"}};
    for (Action& a : patches::actions(session, bench_)) all.push_back(std::move(a));
    const std::vector<Action> rest{
        {"free_form", QObject::tr("Draw a free form"),
         QObject::tr("Paint around the top you want; its length and width can be typed after"),
         [s, this] {
             if (!s->job() || !s->plan() || !s->plan()->lay->ready) return;
             bench_.draw_outline([s](const Ring& ring) {
                 const Ring uv = s->plan()->placement.frame().from_slab(ring);
                 s->edit_job(QObject::tr("Draw a free form"), [&](Job& j) { set_free_form(j, uv); });
             });
         }},
        {"free_form_file", QObject::tr("Free form from a drawing"), QObject::tr("SVG or DXF: its largest closed line becomes the top"),
         [s] { Q_EMIT s->form_wanted(); }},
        {"lay_best", QObject::tr("Slide it to where it fits best"), QObject::tr("Tries places and small turns"),
         [s, this] {
             if (!s->plan() || !s->job() || (s->leaves()->size() > 1)) return;
             place_beside(*s, work_, QObject::tr("Slide to the best fit"), [](const Plan& plan, const MakeUpInputs& in) {
                 return std::vector{best_placement({*plan.slab(), *plan.shape(), in.top, in.leaves.front().placement})};
             });
         },
         !several()},
        {"turn_over", QObject::tr("Turn over"), QObject::tr("The other face becomes the show face (U)"), [s] { s->turn(true); }, true,
         false, several() ? "leaf" : "top"},
        {"end_for_end", QObject::tr("End for end"), QObject::tr("Turns the top half round (E)"), [s] { s->turn(false); }, true, false,
         several() ? "leaf" : "top"},
        {"cuts_done", QObject::tr("The rough cuts are made"), QObject::tr("Its offcuts go back to the rack as slabs of the same tree"),
         [s] {
             if (!s->job() || !s->plan()) return;
             if (s->cuts_done()) {
                 Q_EMIT s->news(QObject::tr("The offcuts of this job are on the rack already."));
                 return;
             }
             for (const Leaf& l : *s->leaves())
                 if (!s->slabs().count(l.slab)) return;
             s->edit(QObject::tr("Rough cuts made"), [id = s->job_id(), plan = *s->plan()](Documents& d) { make_rough_cuts(d, id, plan); });
         }}};
    all.insert(all.end(), rest.begin(), rest.end());
    return all;
}

QString LayView::help() const {
    return QObject::tr(
        "Drag the top over the slab; drag a corner to turn it. Pick it with ] and move it with the arrows. "
        "Type its size on the slip in any unit. U turns the slab over, E turns the top end for end. "
        "Of several leaves drag each where it lies, and the joint between them; O opens them like a book, F finds what else could be "
        "made.");
}

}  // namespace yb
