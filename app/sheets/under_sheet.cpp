// Under: every hole with its slot, where the bolt sits, every pocket.
#include "app/sheets/sheets.h"
#include "core/job/job.h"
#include "core/job/plan.h"
#include "core/under/under.h"

namespace yb {

void write_under_sheet(Flow& flow, const SheetData& d) {
    const UnderPlan& under = *d.plan.under;
    flow.heading(QObject::tr("Slots"));
    if (under.slots.empty()) return flow.note(QObject::tr("no plates or channels laid"));
    flow.note(QObject::tr("at %1 on the day; room %2 to %3. Distances are told from the fixed line.")
                  .arg(d.say(percent(under.day_pct)), d.say(percent(under.low_pct)), d.say(percent(under.high_pct))));
    std::vector<std::vector<QString>> rows;
    for (const Slot& s : under.slots)
        rows.push_back({QString::fromStdString(s.part), d.say(along(s.uv.x + d.job.top.length_mm / 2)), d.say(mm(s.from_fixed_mm)),
                        s.round ? QObject::tr("round") : d.say(fine(s.length_mm)),
                        s.round ? QObject::tr("tight") : d.say(fine(s.bolt_from_inner_mm))});
    flow.table({{QObject::tr("hole"), 2},
                {QObject::tr("from the left end"), 2, true},
                {QObject::tr("from line"), 1.8, true},
                {QObject::tr("slot"), 1.6, true},
                {QObject::tr("bolt, inner end"), 2, true}},
               rows, Flow::cut_points);
    std::vector<std::vector<QString>> pockets;
    for (const Pocket& k : under.pockets)
        pockets.push_back({QObject::tr("channel %1").arg(k.channel + 1), QObject::tr("pocket %1 long").arg(d.say(mm(k.length_mm)))});
    if (!pockets.empty()) flow.table({{{}, 1}, {{}, 3}}, pockets, Flow::cut_points);
}

}  // namespace yb
