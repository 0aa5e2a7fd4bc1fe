// Sanding, the finish with its zones, and the care card for the client.
#include <cmath>

#include "app/ground/words.h"
#include "app/steps/sheets/sheet_drawing.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/skin_of.h"

namespace yb {

namespace {

void sanding(Flow& page, const SheetData& d, const SkinPlan& p) {
    std::vector<std::vector<QString>> rows;
    for (const SkinFacePlan& f : p.faces) {
        if (f.left_out || f.grits.empty()) continue;
        QStringList grits;
        for (const GritStep& g : f.grits) grits << (g.wetted ? QObject::tr("wet, %1").arg(g.grit) : QString::number(g.grit));
        rows.push_back({d.say(f.face.name), d.say(square_metres(f.face.m2)), grits.join(" · "), d.say(hours(f.sanding_min / 60))});
    }
    page.table({{QObject::tr("face"), 2.6},
                {QObject::tr("area"), 1.6, true},
                {QObject::tr("grits, in their order"), 4},
                {QObject::tr("minutes"), 1.6, true}},
               rows, 13);
    page.note(
        QObject::tr("Underside first. Pencil all over before each grit and sand until it is gone. Look along the light. %1 discs in all.")
            .arg(static_cast<int>(std::ceil(p.discs))));
}

void finish(Flow& page, const SheetData& d, const SkinPlan& p) {
    std::vector<std::vector<QString>> rows;
    for (const char* face : {"under", "upper"})
        for (int coat = 1; coat <= p.coats; ++coat) {
            int told = 0;
            for (const Zone& z : p.zones) {
                if (z.face != face || z.coat != coat || z.order == told) continue;
                told = z.order;
                QString where = std::string(face) == "under" ? QObject::tr("underside") : QObject::tr("upper face");
                if (const SkinFacePlan* f = treated(p, face); f && p.used.size() > 1)
                    where = QObject::tr("%1: %2").arg(where, yb::told(finishes.options[finishes.index(f->finish)].label));
                rows.push_back(
                    {QString::number(coat), where, QString::number(z.order), d.say(litres(z.ml / 1000)), d.say(hours(z.minutes / 60))});
            }
        }
    page.table({{QObject::tr("coat"), 1},
                {QObject::tr("face"), 2.4},
                {QObject::tr("zone"), 1},
                {QObject::tr("mix"), 1.6, true},
                {QObject::tr("wiped after"), 2, true}},
               rows, Flow::cut_points);
    page.note(QObject::tr("Next coat from %1; handled after %2, cured after %3, at %4.")
                  .arg(d.say(hours(p.recoat_h)), d.say(hours(p.handle_h)), d.say(hours(p.cure_h)), d.say(celsius(p.air_c))));
    for (const Caution& c : p.cautions)
        if (c.key == "skin.rags" || c.key == "skin.spray") page.caution(c.severity, d.say(c.says));
}

}  // namespace

void write_skin_sheet(Flow& flow, const SheetData& d) {
    const SkinPlan& p = skin_of(d.plan);
    if (!p.ready) return;
    flow.matter(QObject::tr("Sanding"), 0, {}, [&](Flow& page) { sanding(page, d, p); });
    std::vector<DrawnPath> zones{{d.plan.top->above, true, "top"}};
    std::vector<Vec2> numbered;
    for (const Zone& z : p.zones)
        if (z.face == "upper" && z.coat == 1) {
            zones.push_back({z.ring, true, "zone"});
            if (static_cast<int>(numbered.size()) < z.order) numbered.push_back(centroid(z.ring));
        }
    flow.matter(
        QObject::tr("The finish"), drawn_high(flow, box_of_paths(zones)),
        [&](QPainter& painter, const QRectF& room) { draw_paths_on(painter, room, flow, zones, numbered); },
        [&](Flow& page) { finish(page, d, p); });
    flow.matter(QObject::tr("Care, for whoever lives with it"), 0, {}, [&](Flow& page) {
        for (const Phrase& line : care_of(p)) page.note(d.say(line), 13);
    });
}

}  // namespace yb
