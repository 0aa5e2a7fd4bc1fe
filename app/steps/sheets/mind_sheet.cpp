// Everything that is to be minded, worst first.
#include "app/ground/words.h"
#include "app/steps/sheets/sheets.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"

namespace yb {

void write_mind_sheet(Flow& flow, const SheetData& d) {
    const auto& all = d.plan.sheets.cautions;
    if (all.empty()) return;
    flow.matter(QObject::tr("What is to be minded, worst first"), 0, {}, [&](Flow& page) {
        for (const Caution& c : all)
            page.caution(c.severity, told(name_of(c.severity)) + ": " + QString::fromStdString(render(c, d.shop.units)));
    });
}

}  // namespace yb
