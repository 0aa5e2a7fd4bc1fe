// What is carried to the client: parts with their crates, the bag, the way in.
#include "app/steps/sheets/sheets.h"
#include "core/shop/record/packing.h"

namespace yb {

void write_packing_sheet(Flow& flow, const SheetData& d) {
    const Packing all = packing_of(d.plan, d.job);
    if (all.parts.empty()) return;
    flow.matter(QObject::tr("What is carried in"), 0, {}, [&](Flow& page) {
        std::vector<std::vector<QString>> rows;
        for (const PackedPart& p : all.parts)
            rows.push_back(
                {d.say(p.what), QObject::tr("%1 × %2 × %3").arg(d.say(mm(p.long_mm)), d.say(mm(p.wide_mm)), d.say(mm(p.high_mm))),
                 p.kg > 0 ? d.say(kg(p.kg)) : QStringLiteral("–"), p.kg > 0 ? QString::number(p.people) : QStringLiteral("–"),
                 QObject::tr("%1 × %2 × %3").arg(d.say(mm(p.crate_long_mm)), d.say(mm(p.crate_wide_mm)), d.say(mm(p.crate_high_mm))),
                 d.say(kg(p.crate_kg))});
        page.table({{QObject::tr("part"), 1.6},
                    {QObject::tr("size"), 2.4},
                    {QObject::tr("weighs"), 1, true},
                    {QObject::tr("people"), 0.8, true},
                    {QObject::tr("crated, outside"), 2.4},
                    {QObject::tr("crate"), 1, true}},
                   rows, 11);
        page.note(QObject::tr("Weights and hands are estimates: lift with your own judgement, with straps or a hoist where in doubt."));
        rows.clear();
        for (const PackedSmall& s : all.bag) rows.push_back({d.say(s.what), QString::number(s.count)});
        page.table({{QObject::tr("in the bag"), 4}, {QObject::tr("pieces"), 1, true}}, rows, 11);
        for (const Phrase& line : all.route) page.note(d.say(line));
    });
}

}  // namespace yb
