#include "app/steps/lay/patches.h"

#include <algorithm>
#include <cmath>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/bench.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/patch/match.h"

namespace yb::patches {

namespace {

/// Slabs that a patch could be cut from: those of the top's tree first, then by name.
struct Source {
    const Slab* slab;
    PatchMatch match;
};

/// What a patch may be cut from, what passes best for the wood under it first.
std::vector<Source> sources(const Session& s, std::size_t patch, Pictures& pictures) {
    std::vector<Source> out;
    const Slab* under = nullptr;
    Vec2 where;
    if (s.job() && patch < s.makeup()->patches.size()) {
        const Vec2 middle = centroid(s.makeup()->patches[patch].outline);
        std::size_t leaf = 0;
        if (const Plan* plan = s.plan(); plan && plan->makeup)
            for (std::size_t i = 0; i < plan->makeup->leaves.size() && i < s.leaves()->size(); ++i)
                if (plan->makeup->leaves[i].part.size() > 2 && contains(plan->makeup->leaves[i].part, middle)) leaf = i;
        const Leaf& in = (*s.leaves())[leaf];
        if (const auto it = s.slabs().find(in.slab); it != s.slabs().end()) under = &it->second;
        where = in.placement.frame().to_slab(middle);
    }
    const auto face = [&](const Slab& slab) { return slab.picture_a ? pictures.small(slab.picture_a->key) : nullptr; };
    const PatchMatch unknown{};
    for (const auto& [id, slab] : s.slabs()) {
        if (slab.retired) continue;
        out.push_back({&slab, under ? patch_match(slab, {}, *under, where, face(slab), face(*under)) : unknown});
    }
    std::stable_sort(out.begin(), out.end(), [&](const Source& a, const Source& b) {
        return std::pair(-a.match.score, a.slab->name) < std::pair(-b.match.score, b.slab->name);
    });
    return out;
}

/// "Sycamore 3 · same tree, rings 4° apart".
QString told_of(const Source& from, const Session& s) {
    QStringList why;
    if (from.match.same_tree) why << QObject::tr("same tree");
    else if (from.match.same_wood) why << QObject::tr("same wood");
    else why << QObject::tr("another wood");
    if (from.match.rings_deg) why << QObject::tr("rings %1 apart").arg(in_units(degrees(*from.match.rings_deg), s));
    if (from.match.colour) why << QObject::tr("colour %1 off").arg(in_units(number(std::round(*from.match.colour)), s));
    if (from.match.offcut) why << QObject::tr("an offcut");
    return QObject::tr("%1 · %2").arg(QString::fromStdString(from.slab->name), why.join(QStringLiteral(", ")));
}

/// Where on its slab a patch is cut.
Field place_field(std::size_t i, const QString& name, const QString& label, Kind kind, double Vec2::*side) {
    return {name,
            label,
            kind,
            [i, side](const Session& s) -> std::optional<double> {
                return s.job() && i < s.makeup()->patches.size() ? std::optional(s.makeup()->patches[i].at.*side) : std::nullopt;
            },
            [i, side, label](Session& s, std::optional<double> v) {
                if (v) s.edit_job(label, [&](Job& j) { set_patch_place(j, i, side, *v); });
            },
            -20000,
            20000};
}

}  // namespace

void draw(QPainter& p, const BenchMap& map, const Session& s) {
    const auto& c = theme::colours();
    const Frame f = s.plan()->placement.frame();
    const auto& all = s.makeup()->patches;
    for (std::size_t i = 0; i < all.size(); ++i) {
        // Where no slab is named its wood is not known: plain.
        p.setBrush(i < s.plan()->patches.size() && s.plan()->patches[i] ? QBrush(Qt::NoBrush) : QBrush(c.wood));
        p.setPen(QPen(c.slip, 3));
        p.drawPolygon(map.px(f.to_slab(all[i].outline)));
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.chalk, 1.6));
        p.drawPolygon(map.px(f.to_slab(all[i].outline)));
    }
}

std::vector<Handle> handles(const BenchMap& map, const Session& s) {
    std::vector<Handle> out;
    const Frame f = s.plan()->placement.frame();
    const auto& all = s.makeup()->patches;
    for (std::size_t i = 0; i < all.size(); ++i)
        out.push_back({QObject::tr("patch %1").arg(i + 1), QObject::tr("Move a patch"), map.px(f.to_slab(all[i].outline)),
                       f.to_slab(centroid(all[i].outline)), Qt::OpenHandCursor,
                       [i, f](Session& session, Vec2 from, Vec2 to) {
                           const Vec2 by = f.from_slab(to) - f.from_slab(from);
                           session.preview([&](Job& j) { move_patch(j, i, by); });
                       },
                       [i](Session& session, double degrees) { session.preview([&](Job& j) { turn_patch(j, i, degrees); }); }});
    return out;
}

std::vector<Field> fields(const Session& now) {
    std::vector<Field> out;
    if (!now.job()) return out;
    const MakeUpChoices& makeup = *now.makeup();
    const Thing* picked = now.picked_thing();
    const auto& all = makeup.patches;
    if (!all.empty()) out.push_back(job_number("makeup.cutter_mm", "patch_cutter", QObject::tr("Cutter for patches")));
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (!picked || picked->kind != "patch" || picked->index != i) continue;
        const std::string path = "makeup.patches[" + std::to_string(i) + "].";
        const auto name = [&](const char* what) { return QStringLiteral("patch_%1_%2").arg(i + 1).arg(what); };
        const auto label = [&](const QString& what) { return QObject::tr("Patch %1, %2").arg(i + 1).arg(what); };
        out.push_back(job_number(path + "depth_mm", name("deep"), label(QObject::tr("let in"))));
        if (all[i].slab.empty()) continue;
        out.push_back(place_field(i, name("x"), label(QObject::tr("along its slab")), Kind::along, &Vec2::x));
        out.push_back(place_field(i, name("y"), label(QObject::tr("across its slab")), Kind::length, &Vec2::y));
        out.push_back(job_number(path + "turn_deg", name("turn"), label(QObject::tr("grain turned"))));
    }
    for (Field& f : out) f.of = "patch";
    return out;
}

std::vector<PickField> picks(const Session& s, Pictures& pictures) {
    const Thing* picked = s.picked_thing();
    if (!s.job() || !picked || picked->kind != "patch" || picked->index >= s.makeup()->patches.size()) return {};
    QStringList names{QObject::tr("not said")};
    // In the order that is shown: pictures that arrive meanwhile may make another.
    std::vector<std::string> ids{""};
    for (const Source& from : sources(s, picked->index, pictures)) names << told_of(from, s), ids.push_back(from.slab->id);
    const std::size_t i = picked->index;
    return {{QStringLiteral("patch_%1_from").arg(i + 1), QObject::tr("Patch %1 from").arg(i + 1), names,
             [i, ids](const Session& now) {
                 if (!now.job() || i >= now.makeup()->patches.size()) return -1;
                 const auto it = std::find(ids.begin(), ids.end(), now.makeup()->patches[i].slab);
                 return it == ids.end() ? -1 : static_cast<int>(it - ids.begin());
             },
             [i, ids](Session& now, int k) {
                 const auto slab = now.slabs().find(ids.at(static_cast<std::size_t>(k)));
                 const Plan plan = *now.plan();
                 bool found = true;
                 now.edit_job(QObject::tr("What a patch is cut from"), [&](Job& j) {
                     if (slab != now.slabs().end()) found = cut_patch_from(j, i, slab->second, plan);
                     else patch_from_nothing(j, i);
                 });
                 if (!found)
                     Q_EMIT now.trouble(
                         QObject::tr("No clean place of that size was found on it; the piece lies in its middle. "
                                     "Type another place, or choose another slab."));
             },
             "patch"}};
}

std::vector<Action> actions(Session& session, Bench& bench) {
    Session* s = &session;
    return {{"patch", QObject::tr("Draw a patch to let in"),
             QObject::tr("Paint around it on the top: a piece let into the show face over a flaw"),
             [s, &bench] {
                 if (!s->job() || !s->plan() || !s->plan()->lay->ready) return;
                 bench.draw_outline([s](const Ring& ring) {
                     const Ring uv = s->plan()->placement.frame().from_slab(ring);
                     s->edit_job(QObject::tr("Draw a patch"), [&](Job& j) { add_patch(j, uv); });
                 });
             }},
            {"patch_over", QObject::tr("Let a patch in over it"),
             QObject::tr("8 mm wider than the flaw all around; what it is cut from is chosen after"),
             [s] {
                 const Thing* t = s->picked_thing();
                 if (!t || !s->job() || !s->plan()->lay->ready) return;
                 const Ring uv = s->plan()->placement.frame().from_slab(widened(t->area, 8));
                 s->edit_job(QObject::tr("Let a patch in"), [&](Job& j) { add_patch(j, simplified(uv, 0.5)); });
             },
             true, false, "flaw"},
            {"patch_away",
             QObject::tr("Take this patch away"),
             {},
             [s] {
                 const Thing* t = s->picked_thing();
                 if (!t) return;
                 s->edit_job(QObject::tr("Take a patch away"), [i = t->index](Job& j) { drop_patch(j, i); });
                 s->pick({});
             },
             true,
             false,
             "patch"}};
}

}  // namespace yb::patches
