// The pour: every lift with its parts.
#include <algorithm>
#include <cmath>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/steps/sheets/sheet_drawing.h"
#include "core/material/resin/mix.h"
#include "core/material/slab/slab.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/templates/templates.h"
#include "core/steps/fill/fill.h"
#include "core/steps/pour/choices.h"
#include "core/steps/pour/pour.h"

namespace yb {

namespace {

QString resin_name(const SheetData& d, const std::string& key) {
    const Resin* r = find_resin(d.shop.resins, key);
    return r ? QString::fromStdString(r->label) : QString();
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

double net(const PourPlan& p) {
    double sum = 0;
    for (const Compartment& c : p.compartments) sum += c.net_l;
    return sum;
}

void lines(Flow& flow, const SheetData& d, const QString& head, const std::vector<Phrase>& all) {
    if (all.empty()) return;
    flow.need(20);
    flow.note(head, 12, true);
    for (const Phrase& p : all) flow.note(QStringLiteral("☐  ") + d.say(p));
}

/// The panels that the form is cut from, each part where it lies.
void panels(Flow& flow, const SheetData& d) {
    const auto& sheets = d.plan.pour->form.sheets;
    const double l = std::max(d.pour().panel_long_mm, d.pour().panel_wide_mm);
    const double w = std::min(d.pour().panel_long_mm, d.pour().panel_wide_mm);
    for (std::size_t i = 0; i < sheets.size(); ++i) {
        const double k = std::min(flow.width() * 0.62, 110.0) / l;
        flow.drawing(w * k + 10, [&](QPainter& p, const QRectF& box) {
            const QPointF low(box.left(), box.bottom() - 3);
            p.setFont(flow.font(10));
            p.setPen(QPen(Qt::black, 0.3));
            p.drawText(QRectF(box.left(), box.top(), box.width(), 5), Qt::AlignLeft | Qt::AlignVCenter,
                       QObject::tr("panel %1, %2 × %3").arg(i + 1).arg(d.say(mm(l)), d.say(mm(w))));
            p.setBrush(Qt::NoBrush);
            p.drawRect(QRectF(low.x(), low.y() - w * k, l * k, w * k));
            p.setPen(QPen(Qt::black, 0.2));
            for (const NestedPart& part : sheets[i].parts) {
                const QRectF at(low.x() + part.x_mm * k, low.y() - (part.y_mm + part.width_mm) * k, part.length_mm * k, part.width_mm * k);
                p.setBrush(theme::colours().printed_panel);
                p.drawRect(at);
                if (at.height() > 4)
                    p.drawText(at, Qt::AlignCenter, QObject::tr("%1 × %2").arg(d.say(mm(part.length_mm)), d.say(mm(part.width_mm))));
            }
        });
    }
}

/// A label to cut out for each colour's sample cup.
void labels(Flow& flow, const SheetData& d) {
    const PourPlan& p = *d.plan.pour;
    const Resin* resin = find_resin(d.shop.resins, p.resin);
    if (!resin) return;
    flow.need(40);
    flow.note(QObject::tr("Labels for the sample cups"), 12, true);
    for (std::size_t i = 0; i < p.compartments.size(); ++i)
        flow.drawing(27, [&](QPainter& painter, const QRectF& box) {
            const QRectF label(box.left(), box.top() + 1, std::min(box.width(), 110.0), 24);
            painter.setPen(QPen(Qt::black, 0.25, Qt::DashLine));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(label);
            painter.setPen(Qt::black);
            painter.setFont(flow.font(12));
            const QRectF text = label.adjusted(3, 2, -3, -2);
            painter.drawText(text, Qt::AlignLeft | Qt::AlignTop, d.job_name());
            painter.setFont(flow.font(11));
            painter.drawText(text.adjusted(0, 6, 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, d.say(label_of(p, i, *resin)));
            painter.drawText(text, Qt::AlignLeft | Qt::AlignBottom, QObject::tr("poured on ________ at ____ °C"));
        });
}

/// The river's card: lifts with their heat, batches, form, clamps.
void river(Flow& flow, const SheetData& d) {
    const PourPlan& p = *d.plan.pour;
    flow.need(40);
    flow.note(QObject::tr("The river: %1 to mix of %2, %3 stays in the top")
                  .arg(d.say(litres(p.mix_l)), resin_name(d, p.resin), d.say(litres(net(p)))),
              12, true);
    std::vector<std::vector<QString>> rows;
    for (std::size_t i = 0; i < p.lifts.size(); ++i) {
        const PourLift& l = p.lifts[i];
        rows.push_back({QString::number(i + 1), d.say(fine(l.depth_mm)), d.say(litres(l.mix_l)), d.say(celsius(l.peak_high_c)),
                        d.say(hours(l.peak_h)),
                        QObject::tr("%1 to %2").arg(d.say(hours(l.clock.next_from_h)), d.say(hours(l.clock.next_to_h)))});
    }
    flow.table({{QObject::tr("lift"), 1},
                {QObject::tr("deep"), 1.6, true},
                {QObject::tr("to mix"), 1.6, true},
                {QObject::tr("hottest"), 1.6, true},
                {QObject::tr("after"), 1.6, true},
                {QObject::tr("the next goes in"), 3, true}},
               rows, 13);
    rows.clear();
    for (std::size_t i = 0; i < p.batches.size(); ++i) {
        const Batch& b = p.batches[i];
        rows.push_back({QString::number(i + 1), QString::number(b.lift + 1), d.say(litres(b.a_l)), d.say(litres(b.b_l)),
                        d.say(kg(b.a_g / 1000)), d.say(kg(b.b_g / 1000)), QObject::tr("%1 g").arg(b.pigment_g, 0, 'f', 1)});
    }
    flow.table({{QObject::tr("batch"), 1},
                {QObject::tr("lift"), 1},
                {QObject::tr("A"), 1.7, true},
                {QObject::tr("B"), 1.7, true},
                {QObject::tr("A, weight"), 1.8, true},
                {QObject::tr("B, weight"), 1.8, true},
                {QObject::tr("pigment"), 1.6, true}},
               rows, Flow::cut_points);
    if (p.shopping.kits > 0)
        flow.note(QObject::tr("To buy: %1 kits, %2; %3 stays on the shelf.")
                      .arg(p.shopping.kits)
                      .arg(d.say(litres(p.shopping.buys_l)), d.say(litres(p.shopping.remains_l))));
    for (const FloatUp& f : p.floats)
        if (f.clamps > 0)
            flow.note(QObject::tr("Hold %1 down: %2 clamps, it lifts with %3 N.")
                          .arg(QString::fromStdString(d.plan.leaves.at(f.leaf).slab().name))
                          .arg(f.clamps)
                          .arg(std::lround(f.force_n)));
}

/// The form: its parts, the panels they are cut from, what seals it.
void form(Flow& flow, const SheetData& d) {
    const PourPlan& p = *d.plan.pour;
    std::vector<std::vector<QString>> rows;
    for (const FormPart& f : p.form.parts)
        rows.push_back({QObject::tr(f.name.c_str()), QString::number(f.count), d.say(mm(f.length_mm)), d.say(mm(f.width_mm))});
    flow.table({{QObject::tr("form"), 3}, {QObject::tr("pieces"), 1, true}, {QObject::tr("long"), 2, true}, {QObject::tr("wide"), 2, true}},
               rows, Flow::cut_points);
    flow.note(QObject::tr("Tape %1 m, %2 rolls; caulk %3; %4 screws; a stiffener or block every %5 along the sides.")
                  .arg(p.form.tape_m, 0, 'f', 0)
                  .arg(p.form.rolls)
                  .arg(d.say(along(p.form.caulk_m * 1000)))
                  .arg(p.form.screws)
                  .arg(d.say(mm(std::floor(p.form.stiffeners_mm / 10) * 10))));
    panels(flow, d);
}

/// What is set out before the bottle is opened, where it leaks, a label for each cup.
void set_out(Flow& flow, const SheetData& d) {
    lines(flow, d, QObject::tr("Set out"), d.plan.pour->set_out);
    lines(flow, d, QObject::tr("Where it leaks"), d.plan.pour->leaks);
    labels(flow, d);
}

}  // namespace

void write_pour_sheet(Flow& flow, const SheetData& d) {
    const FillPlan& fill = *d.plan.fill;
    if (!d.plan.pour->lifts.empty()) {
        flow.matter(
            QObject::tr("The river"), drawn_high(flow, box_of_top(d)),
            [&](QPainter& p, const QRectF& room) { draw_top_on(p, room, flow, d, {}); }, [&](Flow& page) { river(page, d); });
        const auto from_above = drawn_form(d.plan, d.job);
        flow.matter(
            QObject::tr("The form"), from_above.empty() ? 0 : drawn_high(flow, box_of_paths(from_above)),
            [&](QPainter& p, const QRectF& room) { draw_paths_on(p, room, flow, from_above, {}); }, [&](Flow& page) { form(page, d); });
        flow.matter(QObject::tr("Before the bottle is opened"), 0, {}, [&](Flow& page) { set_out(page, d); });
    }
    const bool any =
        std::any_of(fill.voids.begin(), fill.voids.end(), [](const VoidPlan& v) { return !v.gone && !v.left_open && !v.lifts.empty(); });
    if (!any) return;
    flow.matter(
        QObject::tr("Voids to fill"), drawn_high(flow, box_of_top(d)),
        [&](QPainter& p, const QRectF& room) { draw_top_on(p, room, flow, d, {.dimensions = false}); },
        [&](Flow& page) {
            for (const VoidPlan& v : fill.voids)
                if (!v.gone && !v.left_open && !v.lifts.empty())
                    lifts(page, d, QObject::tr("%1 at %2: %3").arg(told(name_of(v.kind)), d.say(along(v.at.x)), resin_name(d, v.resin)),
                          v.lifts);
            if (fill.mixed_l > 0)
                page.note(QObject::tr("To mix for voids: %1, of it %2 to fill everything flush.")
                              .arg(d.say(litres(fill.mixed_l)), d.say(litres(fill.volume_l))));
        });
}

}  // namespace yb
