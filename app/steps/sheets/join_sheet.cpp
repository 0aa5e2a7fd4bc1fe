// The glue-up card: what is done in which minute, clamps, tenons, cauls; bow ties.
#include <map>

#include "app/steps/sheets/sheet_drawing.h"
#include "core/shop/job/plan.h"
#include "core/steps/join/choices.h"
#include "core/steps/join/join.h"
#include "core/steps/lay/choices.h"
#include "core/steps/top/top.h"

namespace yb {

namespace {

/// What is done in which minute, clamps, cauls, the halves' connectors.
void glue_up(Flow& page, const SheetData& d) {
    const JoinPlan& j = *d.plan.join;
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
        page.table({{QObject::tr("what"), 4}, {QObject::tr("from"), 2, true}, {QObject::tr("to"), 2, true}}, rows, Flow::cut_points);
        page.note(QObject::tr("Needed %1 of %2 open at %3. Glue %4, %5 clamps, %6 tenons.")
                      .arg(d.say(hours(j.needed_min / 60)), d.say(hours(j.open_min / 60)), d.say(celsius(j.air_c)), d.say(litres(j.glue_l)))
                      .arg(j.clamps)
                      .arg(j.pieces),
                  12, true);
        if (!j.cauls.empty()) {
            page.note(QObject::tr("Cauls, sawn from the offcut's edge before the glue is opened; cauls across both ends."));
            rows.clear();
            for (std::size_t i = 0; i < j.cauls.size(); ++i)
                rows.push_back({QString::number(i + 1), j.cauls[i].left ? QObject::tr("left edge") : QObject::tr("right edge"),
                                d.say(mm(j.cauls[i].length_mm)), d.say(mm(j.cauls[i].wide_mm))});
            page.table(
                {{QObject::tr("caul"), 1}, {QObject::tr("along the"), 3}, {QObject::tr("long"), 2, true}, {QObject::tr("wide"), 2, true}},
                rows, Flow::cut_points);
        }
    }
    if (j.halves) {
        page.note(QObject::tr("Two halves, joined on site: %1 and %2. Connectors underneath, across the cut; left and "
                              "right as it lies upturned:")
                      .arg(d.say(kg(j.halves->left_kg)), d.say(kg(j.halves->right_kg))),
                  12, true);
        std::vector<std::vector<QString>> rows;
        for (std::size_t i = 0; i < j.halves->connectors.size(); ++i)
            rows.push_back({QString::number(i + 1), beside_line(d, -j.halves->connectors[i].y),
                            i < j.halves->tenons.size() ? beside_line(d, -j.halves->tenons[i].y) : QString()});
        page.table({{QObject::tr("connector"), 2}, {QObject::tr("of the middle line"), 3, true}, {QObject::tr("tenon after it"), 3, true}},
                   rows, Flow::cut_points);
    }
}

void bow_ties(Flow& page, const SheetData& d) {
    std::vector<std::vector<QString>> rows;
    for (std::size_t i = 0; i < d.join().ties.size(); ++i) {
        const BowTie& b = d.join().ties[i];
        // From above as it lies; what is let in from below is set out on the upturned top, its left end still to the left.
        rows.push_back({QString::number(i + 1), d.say(along(b.u_mm + d.top().length_mm / 2)),
                        beside_line(d, b.from_above ? b.v_mm : -b.v_mm), b.from_above ? QObject::tr("above") : QObject::tr("below"),
                        d.say(mm(b.long_mm)), d.say(mm(b.wide_mm)), d.say(fine(b.deep_mm))});
    }
    page.table({{QObject::tr("bow tie"), 1.2},
                {QObject::tr("from the left end"), 2.3, true},
                {QObject::tr("of the middle line"), 2.5, true},
                {QObject::tr("from"), 1.4},
                {QObject::tr("long"), 1.9, true},
                {QObject::tr("wide"), 1.7, true},
                {QObject::tr("deep"), 1.7, true}},
               rows, Flow::cut_points);
    page.note(
        QObject::tr("Left and right of the top's middle line as you look along it from its left end at the face the tie is let into."));
}

}  // namespace

void write_join_sheet(Flow& flow, const SheetData& d) {
    const JoinPlan& j = *d.plan.join;
    if (!j.joints.empty() || j.halves)
        flow.matter(
            QObject::tr("Glue-up"), drawn_high(flow, box_of_top(d)),
            [&](QPainter& p, const QRectF& room) { draw_top_on(p, room, flow, d, {}); }, [&](Flow& page) { glue_up(page, d); });
    if (!d.join().ties.empty())
        flow.matter(
            QObject::tr("Bow ties"), drawn_high(flow, box_of_top(d)),
            [&](QPainter& p, const QRectF& room) { draw_top_on(p, room, flow, d, {.ties = true}); },
            [&](Flow& page) { bow_ties(page, d); });
}

}  // namespace yb
