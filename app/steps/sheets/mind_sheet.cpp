// Everything that is to be minded, worst first.
#include "app/steps/sheets/sheets.h"
#include "app/ground/words.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"

namespace yb {

void write_mind_sheet(Flow& flow, const SheetData& d) {
    const auto& all = d.plan.sheets.cautions;
    if (all.empty()) return;
    flow.heading(QObject::tr("Mind"));
    for (const Caution& c : all)
        flow.caution(c.severity, told(name_of(c.severity)) + ": " + QString::fromStdString(render(c, d.shop.units)), d.look.mind_points);
}

}  // namespace yb
