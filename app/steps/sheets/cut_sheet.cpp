// The cut list: every cut in its order, then what to keep of what falls off.
#include "app/ground/words.h"
#include "app/steps/sheets/sheet_drawing.h"
#include "core/shop/job/plan.h"
#include "core/steps/makeup/choices.h"
#include "core/steps/makeup/cuts.h"

namespace yb {

void write_cut_sheet(Flow& flow, const SheetData& d) {
    const CutList& list = *d.plan.cuts;
    if (list.cuts.empty() && list.offcuts.empty()) return;
    flow.matter(
        QObject::tr("Cuts, in working order"), drawn_high(flow, box_of_top(d)),
        [&](QPainter& p, const QRectF& room) { draw_top_on(p, room, flow, d, {.rough_cuts = true}); },
        [&](Flow& page) {
            std::vector<std::vector<QString>> rows;
            for (const Cut& c : list.cuts)
                rows.push_back({QString::number(rows.size() + 1), told(name_of(c.kind)) + " · " + QString::fromStdString(c.slab),
                                d.say(c.set) + (c.after_flat ? QObject::tr("; after both faces are flat") : QString()),
                                c.length_mm > 0 ? d.say(mm(c.length_mm)) : QString()});
            page.table({{{}, 0.6}, {QObject::tr("cut"), 3}, {QObject::tr("set it to"), 5}, {QObject::tr("long"), 2, true}}, rows,
                       Flow::cut_points);
            page.note(QObject::tr("Each kerf is %1 wide and lies on the waste side.").arg(d.say(fine(d.makeup().rip_kerf_mm))));
            if (list.offcuts.empty()) return;
            page.note(QObject::tr("Back to the rack"), 12, true);
            for (const Offcut& o : list.offcuts)
                page.note(QString::fromStdString(o.name) +
                          QObject::tr(": about %1 × %2").arg(d.say(mm(o.length_mm)), d.say(mm(o.width_mm))));
        });
}

}  // namespace yb
