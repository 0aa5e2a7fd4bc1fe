#include "app/lay/patches.h"

#include <algorithm>
#include <cmath>

#include "app/bench/bench.h"
#include "app/theme/theme.h"
#include "core/fields/walk.h"
#include "core/lay/lay.h"

namespace yb::patches {

namespace {

/// Slabs that a patch could be cut from: those of the top's tree first, then by name.
std::vector<const Slab*> sources(const Session& s) {
    std::vector<const Slab*> out;
    for (const auto& [id, slab] : s.documents().slabs)
        if (!slab.retired) out.push_back(&slab);
    const auto first = s.job() ? s.documents().slabs.find(s.job()->first().slab) : s.documents().slabs.end();
    const std::string tree = first == s.documents().slabs.end() ? std::string() : first->second.tree;
    std::stable_sort(out.begin(), out.end(), [&](const Slab* a, const Slab* b) {
        return std::pair(a->tree != tree, a->name) < std::pair(b->tree != tree, b->name);
    });
    return out;
}

/// A declared number of a patch; nothing is set where the patch has gone meanwhile.
Field patch_number(const std::string& path, const QString& name, const QString& label) {
    Field f = job_number("makeup.patches[]" + path.substr(path.find(']') + 1), name, label);
    f.get = [path](const Session& s) -> std::optional<double> {
        if (!s.job()) return {};
        Job copy = *s.job();
        return number_at(walk_of(copy), path).value;
    };
    f.set = [path, label](Session& s, std::optional<double> v) {
        if (v) s.edit_job(label, [&](Job& j) { set_number(walk_of(j), path, v); });
    };
    return f;
}

/// Where on its slab a patch is cut.
Field place_field(std::size_t i, const QString& name, const QString& label, Kind kind, double Vec2::*side) {
    return {name,
            label,
            kind,
            [i, side](const Session& s) -> std::optional<double> {
                return s.job() && i < s.job()->makeup.patches.size() ? std::optional(s.job()->makeup.patches[i].at.*side) : std::nullopt;
            },
            [i, side, label](Session& s, std::optional<double> v) {
                if (v)
                    s.edit_job(label, [&](Job& j) {
                        if (i < j.makeup.patches.size()) j.makeup.patches[i].at.*side = *v;
                    });
            },
            -20000,
            20000};
}

}  // namespace

void draw(QPainter& p, const BenchMap& map, const Session& s) {
    const auto& c = theme::colours();
    const Frame f = s.plan()->placement.frame();
    const auto& all = s.job()->makeup.patches;
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
    const auto& all = s.job()->makeup.patches;
    for (std::size_t i = 0; i < all.size(); ++i)
        out.push_back(
            {QObject::tr("patch %1").arg(i + 1), QObject::tr("Move a patch"), map.px(f.to_slab(all[i].outline)),
             f.to_slab(centroid(all[i].outline)), Qt::OpenHandCursor,
             [i, f](Session& session, Vec2 from, Vec2 to) {
                 const Vec2 by = f.from_slab(to) - f.from_slab(from);
                 session.preview([&](Job& j) { move_patch(j, i, by); });
             },
             [i](Session& session, double degrees) { session.preview([&](Job& j) { j.makeup.patches[i].turn_deg += degrees; }); }});
    return out;
}

std::vector<Field> fields(const Job& job) {
    std::vector<Field> out;
    const auto& all = job.makeup.patches;
    if (!all.empty()) out.push_back(job_number("makeup.cutter_mm", "patch_cutter", QObject::tr("Cutter for patches")));
    for (std::size_t i = 0; i < all.size(); ++i) {
        const std::string path = "makeup.patches[" + std::to_string(i) + "].";
        const auto name = [&](const char* what) { return QStringLiteral("patch_%1_%2").arg(i + 1).arg(what); };
        const auto label = [&](const QString& what) { return QObject::tr("Patch %1, %2").arg(i + 1).arg(what); };
        out.push_back(patch_number(path + "depth_mm", name("deep"), label(QObject::tr("let in"))));
        if (all[i].slab.empty()) continue;
        out.push_back(place_field(i, name("x"), label(QObject::tr("along its slab")), Kind::along, &Vec2::x));
        out.push_back(place_field(i, name("y"), label(QObject::tr("across its slab")), Kind::length, &Vec2::y));
        out.push_back(patch_number(path + "turn_deg", name("turn"), label(QObject::tr("grain turned"))));
    }
    return out;
}

std::vector<PickField> picks(const Session& s) {
    std::vector<PickField> out;
    if (!s.job()) return out;
    const auto from = sources(s);
    QStringList names{QObject::tr("not said")};
    for (const Slab* slab : from) names << QString::fromStdString(slab->name);
    for (std::size_t i = 0; i < s.job()->makeup.patches.size(); ++i)
        out.push_back({QStringLiteral("patch_%1_from").arg(i + 1), QObject::tr("Patch %1 from").arg(i + 1), names,
                       [i](const Session& now) {
                           if (!now.job() || i >= now.job()->makeup.patches.size()) return -1;
                           const auto all = sources(now);
                           const std::string& id = now.job()->makeup.patches[i].slab;
                           const auto it = std::find_if(all.begin(), all.end(), [&](const Slab* slab) { return slab->id == id; });
                           return id.empty() ? 0 : it == all.end() ? -1 : static_cast<int>(it - all.begin()) + 1;
                       },
                       [i](Session& now, int k) {
                           const auto all = sources(now);
                           const Slab* slab = k > 0 ? all.at(static_cast<std::size_t>(k) - 1) : nullptr;
                           const Plan plan = *now.plan();
                           bool found = true;
                           now.edit_job(QObject::tr("What a patch is cut from"), [&](Job& j) {
                               if (i >= j.makeup.patches.size()) return;
                               if (slab) found = cut_patch_from(j, i, *slab, plan);
                               else j.makeup.patches[i].slab.clear();
                           });
                           if (!found)
                               Q_EMIT now.trouble(
                                   QObject::tr("No clean place of that size was found on it; the piece lies in its middle. "
                                               "Type another place, or choose another slab."));
                       }});
    return out;
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
            {"patch_away", QObject::tr("Take the last patch away"), {}, [s] {
                 s->edit_job(QObject::tr("Take a patch away"), [](Job& j) { drop_patch(j, j.makeup.patches.size() - 1); });
             }}};
}

}  // namespace yb::patches
