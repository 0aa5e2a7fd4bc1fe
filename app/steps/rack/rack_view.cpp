#include "app/steps/rack/rack_view.h"

#include <QDate>

#include <algorithm>
#include <map>
#include <string_view>

#include "app/files/bring.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/bench.h"
#include "app/steps/rack/tape_panel.h"
#include "core/shop/edit/slab_edits.h"
#include "core/steps/flat/yard.h"
#include "core/steps/rack/looked.h"

namespace yb {

QString RackView::empty_text(const Session& s) const {
    if (s.slabs().empty()) return QObject::tr("The rack is empty.");
    if (!s.slab()) return QObject::tr("Click a slab on the rack.");
    return QObject::tr("Strike a chalk line along the slab and type the tape table below.\nThe slab draws itself as you type.");
}

QString RackView::strip_title(const Session&) const { return QObject::tr("thickness along the middle"); }

void RackView::draw_strip(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const SlabShape& shape = *s.plan()->shape();
    double most = 1;
    for (int i = 0; i <= 40; ++i) most = std::max(most, shape.thickness_at({shape.x0 + (shape.x1 - shape.x0) * i / 40, 0}));
    QColor fill = c.wood;
    fill.setAlpha(150);
    draw::strip_line(
        p, map, shape.x0, shape.x1, 0, most * 1.2,
        [&](double x) {
            return shape.thickness_at({x, 0});
        },
        QPen(c.brass_dark, 1.5), fill);
    p.setFont(theme::figures(9));
    p.setPen(c.ink);
    p.drawText(QRectF(map.strip.right() - 300, map.strip.top() - 4 - theme::grown(16), 300, theme::grown(16)), Qt::AlignRight,
               QObject::tr("%1 at the gauge").arg(in_units(fine(shape.thickness_at({map.gauge_mm, 0})), s)));
}

void RackView::draw_plan(QPainter& p, const BenchMap& map, const Session& s) const {
    const auto& c = theme::colours();
    const SlabShape& shape = *s.plan()->shape();
    // The chalk line and the stations on it.
    p.setPen(QPen(c.chalk, 1, Qt::DashLine));
    p.drawLine(map.px(Vec2{shape.x0, 0}), map.px(Vec2{shape.x1, 0}));
    for (const Station& st : s.plan()->slab()->tape.stations) {
        p.setPen(QPen(c.chalk, 1));
        p.drawLine(map.px(Vec2{st.x_mm, 0}) + QPointF(0, -4), map.px(Vec2{st.x_mm, 0}) + QPointF(0, 4));
    }
    QColor dot = c.chalk;
    dot.setAlpha(120);
    p.setPen(Qt::NoPen);
    p.setBrush(dot);
    const HeightGrid& g = s.plan()->slab()->heights_a;
    for (std::size_t i = 0; i < g.x_mm.size(); ++i)
        for (std::size_t j = 0; j < g.y_mm.size(); ++j)
            if (g.at(i, j)) p.drawEllipse(map.px(Vec2{g.x_mm[i], g.y_mm[j]}), 1.8, 1.8);
}

namespace {

std::string iso_today() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }

/// True when the slab looked at lies face B up in the job.
bool laid_over(const Session& s) {
    if (!s.leaves() || !s.slab()) return false;
    return std::any_of(s.leaves()->begin(), s.leaves()->end(),
                       [&](const Leaf& l) { return l.slab == s.slab()->id && l.placement.turned_over; });
}

}  // namespace

std::vector<Handle> RackView::handles(const BenchMap& map, const Session& s) const {
    std::vector<Handle> out;
    // Flaws are moved as they were measured, face A up; on a slab laid face B up they stay where they are.
    if (!s.plan() || !s.slab() || laid_over(s)) return out;
    const auto& flaws = s.plan()->slab()->flaws;
    for (std::size_t i = 0; i < flaws.size(); ++i)
        out.push_back({QObject::tr("%1 %2").arg(told(name_of(flaws[i].kind))).arg(i + 1), QObject::tr("Move a flaw"),
                       map.px(flaws[i].outline), centroid(flaws[i].outline), Qt::OpenHandCursor, [i](Session& session, Vec2 from, Vec2 to) {
                           session.preview_slab([&](Slab& slab) { move_flaw(slab, i, to - from); });
                       }});
    return out;
}

std::vector<Field> RackView::fields(const Session& now) const {
    if (const Thing* t = now.picked_thing()) {
        const std::string path = "flaws[" + std::to_string(t->index) + "].";
        std::vector<Field> out{of(slab_number(path + "depth_mm", "flaw_depth"), "flaw"),
                               of(slab_number(path + "floor_share", "flaw_floor"), "flaw")};
        if (t->index < now.plan()->slab()->flaws.size() && now.plan()->slab()->flaws[t->index].kind == FlawKind::insects) {
            out.push_back(of(slab_number(path + "holes", "flaw_holes"), "flaw"));
            out.push_back(of(slab_number(path + "hole_mm", "flaw_hole"), "flaw"));
        }
        return out;
    }
    // A new reading keeps the one before: drying is forecast from them.
    Field moisture = slab_number("moisture_pct", "slab_moisture", QObject::tr("Moisture today"));
    moisture.set = [](Session& s, std::optional<double> v) {
        s.edit_slab(QObject::tr("Moisture"), [&](Slab& slab) { read_moisture(slab, v, iso_today()); });
    };
    std::vector<Field> out{moisture,
                           slab_number("pith_mm", "slab_pith", QObject::tr("Middle to pith")),
                           slab_number("tape.lean_left_mm", "lean_left", QObject::tr("Lean, left edge")),
                           slab_number("tape.lean_right_mm", "lean_right", QObject::tr("Lean, right edge")),
                           slab_number("sequence", "slab_sequence", QObject::tr("Number in the log")),
                           slab_number("price", "slab_price", QObject::tr("Price"))};
    out.push_back(slab_number("settle_days", "slab_settle", QObject::tr("Days to settle")));
    // Six readings with a straightedge and two sticks, while nobody read the face more closely.
    if (now.slab() && (!now.slab()->heights_a.has_readings() || yard_reading(now.slab()->heights_a))) {
        const auto yard = [&](const QString& name, const QString& label, double YardReading::*what) {
            Field f;
            f.name = name, f.label = label, f.kind = Kind::fine, f.low = -300, f.high = 300, f.may_be_empty = true;
            f.get = [what](const Session& s) {
                const auto r = s.slab() ? yard_reading(s.slab()->heights_a) : std::nullopt;
                return r ? std::optional((*r).*what) : std::nullopt;
            };
            f.set = [what](Session& s, std::optional<double> v) {
                s.edit_slab(QObject::tr("A reading at the yard"), [&](Slab& slab) { read_at_yard(slab, what, v); });
            };
            out.push_back(std::move(f));
        };
        yard("yard_bow_left", QObject::tr("Bow, left edge"), &YardReading::bow_left_mm);
        yard("yard_bow_right", QObject::tr("Bow, right edge"), &YardReading::bow_right_mm);
        yard("yard_cup_from", QObject::tr("Cup, left end"), &YardReading::cup_from_mm);
        yard("yard_cup_middle", QObject::tr("Cup, middle"), &YardReading::cup_middle_mm);
        yard("yard_cup_to", QObject::tr("Cup, right end"), &YardReading::cup_to_mm);
        yard("yard_twist", QObject::tr("Twist, sticks at both ends"), &YardReading::twist_mm);
    }
    return out;
}

std::vector<TextField> RackView::texts() const {
    const auto text = [](const QString& name, const QString& label, const std::string& (*now)(const Slab&),
                         void (*set)(Slab&, const std::string&)) {
        return TextField{
            name, label, [now](const Session& s) { return s.slab() ? QString::fromStdString(now(*s.slab())) : QString(); },
            [set, label](Session& s, const QString& v) { s.edit_slab(label, [&](Slab& slab) { set(slab, v.trimmed().toStdString()); }); }};
    };
    return {text(
                "slab_name", QObject::tr("Name"), [](const Slab& s) -> const std::string& { return s.name; }, name_slab),
            text(
                "slab_tree", QObject::tr("Tree"), [](const Slab& s) -> const std::string& { return s.tree; }, set_tree),
            text(
                "slab_sawn", QObject::tr("Sawn on"), [](const Slab& s) -> const std::string& { return s.sawn_on; }, set_sawn_on),
            text(
                "slab_came", QObject::tr("Came on"), [](const Slab& s) -> const std::string& { return s.came_on; }, set_came_on)};
}

std::vector<PickField> RackView::picks(const Session&) const {
    QStringList names;
    for (const Species& s : all_species()) names << told(s.name);
    QStringList flaws;
    for (int k = 0; k <= static_cast<int>(FlawKind::scar); ++k) flaws << told(name_of(static_cast<FlawKind>(k)));
    return {{"flaw_kind", QObject::tr("Flaw to draw"), flaws, [this](const Session&) { return static_cast<int>(kind_); },
             [this](Session&, int i) { kind_ = static_cast<FlawKind>(i); }},
            {"slab_species", QObject::tr("Wood"), names,
             [](const Session& s) {
                 if (!s.slab()) return -1;
                 const auto& all = all_species();
                 for (std::size_t i = 0; i < all.size(); ++i)
                     if (all[i].name == s.slab()->species) return static_cast<int>(i);
                 return -1;
             },
             [](Session& s, int i) {
                 s.edit_slab(QObject::tr("Wood"),
                             [&](Slab& slab) { set_species(slab, all_species().at(static_cast<std::size_t>(i)).name); });
             }},
            {"slab_dried",
             QObject::tr("Dried"),
             {QObject::tr("not said"), QObject::tr("in the air"), QObject::tr("in a kiln")},
             [](const Session& s) { return s.slab() ? static_cast<int>(s.slab()->dried) : -1; },
             [](Session& s, int i) {
                 s.edit_slab(QObject::tr("How it was dried"), [&](Slab& slab) { set_dried(slab, static_cast<Dried>(i)); });
             }},
            {"slab_cut",
             QObject::tr("Sawn"),
             {QObject::tr("along the log"), QObject::tr("across it: a disc")},
             [](const Session& s) { return s.slab() ? static_cast<int>(s.slab()->cross_cut) : -1; },
             [](Session& s, int i) { s.edit_slab(QObject::tr("How it was sawn"), [&](Slab& slab) { set_cross_cut(slab, i == 1); }); }}};
}

void RackView::type_tape(std::optional<TapeSheet> sheet) {
    bench_.set_plan_only(true);
    tape_.show();
    tape_.begin_typing(sheet);
}

std::vector<Action> RackView::actions(Session& session) {
    Session* s = &session;
    const bool some = session.slab(), has_job = session.job();
    const bool measured = some && session.plan() && session.plan()->shape() && session.plan()->shape()->usable;
    const auto draw_flaw = [this, s] {
        if (!s->slab()) return;
        const FlawKind kind = kind_;
        bench_.draw_outline(
            [s, kind](const Ring& ring) {
                s->edit_slab(QObject::tr("Draw a %1").arg(told(name_of(kind))),
                             [&, over = laid_over(*s)](Slab& slab) { add_flaw(slab, kind, ring, over); });
            },
            pen_of(kind) > 0);
    };
    std::vector<Action> out{
        {"type_tape", QObject::tr("Type the tape table"), QObject::tr("Opens or closes the table below the plan (T)"),
         [this] {
             if (!tape_.isVisible()) return type_tape();
             tape_.hide();
             bench_.set_plan_only(false);
             bench_.setFocus();
         },
         some, some && !measured},
        {"heights_grid", QObject::tr("Lay a grid for heights"),
         QObject::tr("A reading every 200 mm along and 150 mm across, on both faces"),
         [this, s] {
             const Slab* slab = s->slab();
             if (!slab || !s->plan() || s->plan()->shape()->ring_a.empty()) return;
             s->edit_slab(QObject::tr("Lay a grid for heights"), lay_height_grid);
             type_tape(TapeSheet::heights_a);
         },
         some},
        {"draw_flaw", QObject::tr("Draw it on the plan"), QObject::tr("The flaw picked above, over the picture or the bare slab"),
         draw_flaw, some},
        {"flaw_away", QObject::tr("Take this flaw away"), QObject::tr("It leaves the slab's record; undo brings it back"),
         [s] {
             const Thing* t = s->picked_thing();
             if (!t) return;
             s->edit_slab(QObject::tr("Take a flaw away"), [i = t->index](Slab& slab) { drop_flaw(slab, i); });
             s->pick({});
         },
         true, false, "flaw"},
        {"new_slab",
         QObject::tr("New slab"),
         {},
         [this, s] {
             std::string id;
             s->edit(QObject::tr("New slab"), [&](Documents& d) { id = add_slab(d, {}); });
             s->look_at(QString::fromStdString(id));
             type_tape(TapeSheet::edges);
         },
         true,
         !some},
        {"copy_slab", QObject::tr("Copy this slab"), QObject::tr("A second one like it"),
         [s] {
             if (!s->slab()) return;
             std::string id = s->slab()->id;
             s->edit(QObject::tr("Copy a slab"), [&](Documents& d) { id = copy_slab(d, id); });
             s->look_at(QString::fromStdString(id));
         },
         some},
        {"split_slab", QObject::tr("Cut it in two at the gauge"), QObject::tr("Two shorter slabs of the same tree; this one is retired"),
         [s] {
             const Slab* slab = s->slab();
             if (!slab || !s->plan() || s->plan()->shape()->ring_a.empty()) return;
             try {
                 std::string left;
                 s->edit(QObject::tr("Cut a slab in two"), [&](Documents& d) { left = split_slab(d, slab->id, s->gauge_mm()); });
                 s->look_at(QString::fromStdString(left));
             } catch (const std::invalid_argument& e) {
                 Q_EMIT s->trouble(QObject::tr("It was not cut: %1.").arg(QString::fromUtf8(e.what())));
             }
         },
         some},
        {"retire_slab", QObject::tr("Retire this slab"), QObject::tr("It leaves the rack and stays in the record; undo brings it back"),
         [s] {
             if (!s->slab()) return;
             const std::string id = s->slab()->id;
             s->edit_slab(QObject::tr("Retire a slab"), retire);
             for (const auto& [other, slab] : s->slabs())
                 if (!slab.retired && other != id) return s->look_at(QString::fromStdString(other));
         },
         some},
        {"new_job", QObject::tr("New job from this slab"), {}, [s] { s->new_job(); }, measured, measured && !has_job},
        {"add_leaf", QObject::tr("Add it to this job's top"), QObject::tr("As another leaf: opened like a book with a sister, or a river"),
         [s] {
             const Slab* slab = s->slab();
             if (!slab || !s->job()) return;
             if (s->uses(slab->id)) {
                 Q_EMIT s->trouble(QObject::tr("%1 is in this top already.").arg(QString::fromStdString(slab->name)));
                 return;
             }
             std::vector<std::string> ids;
             for (const Leaf& l : *s->leaves())
                 if (!l.slab.empty()) ids.push_back(l.slab);
             ids.push_back(slab->id);
             s->make_up(QObject::tr("Add a leaf"), made_of(s->makeup()->kind, ids.size()), ids);
             s->set_step(step_key::lay);
         },
         some && has_job},
        {"give_slab", QObject::tr("Next: lay this job's top on it"), QObject::tr("The slab you look at becomes the job's"),
         [s] {
             const Slab* slab = s->slab();
             if (!slab || !s->job()) return;
             if (!s->uses(slab->id)) s->edit_job(QObject::tr("Choose the slab"), [&](Job& j) { give_slab(j, *slab); });
             s->set_step(step_key::lay);
         },
         some && has_job, measured && has_job}};
    // Without a slab there is nothing that most of them could act on.
    if (!some) std::erase_if(out, [](const Action& a) { return !a.enabled; });
    return out;
}

namespace {
/// Where each thing to look at is written down.
const std::map<std::string_view, const char*>& typed_at() {
    static const std::map<std::string_view, const char*> all{
        {"moisture", "slab_moisture"}, {"pith", "slab_pith"}, {"price", "slab_price"}, {"wood", "slab_species"}, {"tree", "slab_tree"}};
    return all;
}
}  // namespace

QString RackView::about(const Session& s) const {
    if (s.slab()) return {};
    return QObject::tr("All your slabs stand here, to scale, with what is known of each.\nChoose one, look it over, lay a top on it.");
}

std::vector<Look> RackView::looks(Session& session) {
    std::vector<Look> out;
    if (!session.slab() || !session.plan() || !session.plan()->shape() || session.picked_thing()) return out;
    Session* s = &session;
    for (const LookedAt& l : looked_at(*session.slab(), *session.plan()->shape())) {
        Look look{l.key, QObject::tr(l.label), QString::fromStdString(yb::render(l.says, session.units())), l.known, l.counted, {}, {}};
        const std::string_view key = l.key;
        if (key == "edges" || key == "thickness") look.write = [this] { type_tape(TapeSheet::edges); };
        else if (key == "twist")
            look.write = [this, s] {
                if (s->slab() && s->slab()->heights_a.x_mm.empty()) s->edit_slab(QObject::tr("Lay a grid for heights"), lay_height_grid);
                type_tape(TapeSheet::heights_a);
            };
        else if (key == "flaws") look.write = [this] { type_tape(TapeSheet::flaws); };
        else if (key == "picture") look.write = [s] { Q_EMIT s->picture_wanted(); };
        else if (key == "faces")
            look.write = [s] {
                s->edit_slab(QObject::tr("Both faces looked at"), [](Slab& b) { set_looked(b, &Slab::faces_looked, !b.faces_looked); });
            };
        else look.write = [s, field = typed_at().at(key)] { Q_EMIT s->typing_wanted(field); };
        if (key == "flaws" && l.or_none && !l.known)
            look.none = [s] { s->edit_slab(QObject::tr("No flaws found"), [](Slab& b) { set_looked(b, &Slab::no_flaws, true); }); };
        if (key == "pith" && l.or_none && !l.known)
            look.none = [s] { s->edit_slab(QObject::tr("The pith can't be told"), [](Slab& b) { set_looked(b, &Slab::no_pith, true); }); };
        out.push_back(std::move(look));
    }
    return out;
}

QString RackView::help() const {
    return QObject::tr(
        "Click a slab on the rack to look at it. Type its tape table: stations along the chalk line, the distance to both "
        "edges, the thickness, and the gaps under a straightedge. Draw cracks and voids on the plan.");
}

}  // namespace yb
