// The glue-up card: what is done in which minute, clamps, tenons, cauls; bow ties.
#include <map>

#include "app/steps/sheets/sheets.h"
#include "core/steps/join/choices.h"
#include "core/steps/lay/choices.h"
#include "core/shop/job/plan.h"
#include "core/steps/join/join.h"
#include "core/steps/top/top.h"

namespace yb {

void write_join_sheet(Flow& flow, const SheetData& d) {
    const JoinPlan& j = *d.plan.join;
    if (j.joints.empty() && d.join().ties.empty() && !j.halves) return;
    flow.heading(QObject::tr("Glue-up"));
    if (!j.joints.empty()) {
        static const std::map<std::string, const char*> names{{"spread", "spread the glue"},
                                                              {"pieces", "glue and set the tenons"},
                                                              {"set", "bring the joints together"},
                                                              {"across", "cauls across, in pairs"},
                                                              {"clamp", "clamps"}};
        std::vector<std::vector<QString>> rows;
        double at = 0;
        for (const GlueStep& s : j.steps) {
            rows.push_back({QObject::tr(names.at(s.what)), d.say(hours(at / 60)), d.say(hours((at + s.minutes) / 60))});
            at += s.minutes;
        }
        flow.table({{QObject::tr("what"), 4}, {QObject::tr("from"), 2, true}, {QObject::tr("to"), 2, true}}, rows, Flow::cut_points);
        flow.note(QObject::tr("Needed %1 of %2 open at %3. Glue %4, %5 clamps, %6 tenons.")
                      .arg(d.say(hours(j.needed_min / 60)), d.say(hours(j.open_min / 60)), d.say(celsius(j.air_c)), d.say(litres(j.glue_l)))
                      .arg(j.clamps)
                      .arg(j.pieces),
                  12, true);
        if (!j.cauls.empty()) {
            flow.note(QObject::tr("Cauls, sawn from the offcut's edge before the glue is opened; cauls across both ends."));
            rows.clear();
            for (std::size_t i = 0; i < j.cauls.size(); ++i)
                rows.push_back({QString::number(i + 1), j.cauls[i].left ? QObject::tr("left edge") : QObject::tr("right edge"),
                                d.say(mm(j.cauls[i].length_mm)), d.say(mm(j.cauls[i].wide_mm))});
            flow.table(
                {{QObject::tr("caul"), 1}, {QObject::tr("along the"), 3}, {QObject::tr("long"), 2, true}, {QObject::tr("wide"), 2, true}},
                rows, Flow::cut_points);
        }
    }
    if (j.halves) {
        flow.note(QObject::tr("Two halves, joined on site: %1 and %2. Connectors underneath, across the cut:")
                      .arg(d.say(kg(j.halves->left_kg)), d.say(kg(j.halves->right_kg))),
                  12, true);
        std::vector<std::vector<QString>> rows;
        for (std::size_t i = 0; i < j.halves->connectors.size(); ++i)
            rows.push_back({QString::number(i + 1), d.say(mm(j.halves->connectors[i].y)),
                            i < j.halves->tenons.size() ? d.say(mm(j.halves->tenons[i].y)) : QString()});
        flow.table({{QObject::tr("connector"), 2}, {QObject::tr("off the middle"), 3, true}, {QObject::tr("tenon after it"), 3, true}},
                   rows, Flow::cut_points);
    }
    if (d.join().ties.empty()) return;
    std::vector<std::vector<QString>> rows;
    for (std::size_t i = 0; i < d.join().ties.size(); ++i) {
        const BowTie& b = d.join().ties[i];
        rows.push_back({QString::number(i + 1), d.say(along(b.u_mm + d.top().length_mm / 2)), d.say(mm(b.v_mm)), d.say(mm(b.long_mm)),
                        d.say(mm(b.wide_mm)), d.say(fine(b.deep_mm))});
    }
    flow.table({{QObject::tr("bow tie"), 1.4},
                {QObject::tr("along"), 2, true},
                {QObject::tr("across"), 2, true},
                {QObject::tr("long"), 2, true},
                {QObject::tr("wide"), 2, true},
                {QObject::tr("deep"), 2, true}},
               rows, Flow::cut_points);
}

}  // namespace yb
