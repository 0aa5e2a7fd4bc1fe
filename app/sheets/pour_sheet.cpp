// The pour: every lift with its parts.
#include <algorithm>

#include "app/sheets/sheets.h"
#include "app/words.h"
#include "core/fill/fill.h"
#include "core/job/plan.h"
#include "core/job/shop.h"

namespace yb {

namespace {

QString resin_name(const SheetData& d, const std::string& key) {
    const auto it = std::find_if(d.shop.resins.begin(), d.shop.resins.end(), [&](const Resin& r) { return r.key == key; });
    return it == d.shop.resins.end() ? QString() : QString::fromStdString(it->label);
}

void lifts(Flow& flow, const SheetData& d, const QString& what, const std::vector<Lift>& all) {
    flow.need(30);
    flow.note(what, 12, true);
    std::vector<std::vector<QString>> rows;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Lift& l = all[i];
        rows.push_back({QString::number(i + 1), d.say(fine(l.depth_mm)), d.say(litres(l.a_l)), d.say(litres(l.b_l)), d.say(kg(l.a_kg)),
                        d.say(kg(l.b_kg)), d.say(hours(l.wait_h))});
    }
    flow.table({{QObject::tr("lift"), 1},
                {QObject::tr("deep"), 1.6, true},
                {QObject::tr("A"), 1.7, true},
                {QObject::tr("B"), 1.7, true},
                {QObject::tr("A, weight"), 1.8, true},
                {QObject::tr("B, weight"), 1.8, true},
                {QObject::tr("wait after"), 1.8, true}},
               rows, 13);
}

}  // namespace

void write_pour_sheet(Flow& flow, const SheetData& d) {
    const FillPlan& fill = *d.plan.fill;
    flow.heading(QObject::tr("Pour"));
    bool any = false;
    for (const RiverFill& r : fill.rivers) {
        any = true;
        lifts(flow, d, QObject::tr("The river, %1 to fill it flush: %2").arg(d.say(litres(r.volume_l)), resin_name(d, r.resin)), r.lifts);
    }
    for (const VoidPlan& v : fill.voids) {
        if (v.gone || v.left_open || v.lifts.empty()) continue;
        any = true;
        lifts(flow, d, QObject::tr("%1 at %2: %3").arg(told(name_of(v.kind)), d.say(along(v.at.x)), resin_name(d, v.resin)), v.lifts);
    }
    if (!any) return flow.note(QObject::tr("nothing to pour"));
    flow.note(QObject::tr("To mix in all: %1, of it %2 to fill everything flush.")
                  .arg(d.say(litres(fill.mixed_l)), d.say(litres(fill.volume_l))));
}

}  // namespace yb
