// The first page, and flattening: shims, lanes and layers, a leaf a page.
#include <algorithm>
#include <cmath>

#include "app/steps/sheets/sheet_drawing.h"
#include "core/material/slab/slab.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/steps/flat/choices.h"
#include "core/steps/flat/flat.h"
#include "core/steps/flat/laid.h"
#include "core/steps/lay/choices.h"
#include "core/steps/lay/lay.h"
#include "core/steps/under/under.h"

namespace yb {

QString beside_line(const SheetData& d, double left_mm) {
    if (std::abs(left_mm) < 0.5) return QObject::tr("on it");
    return left_mm > 0 ? QObject::tr("%1 left").arg(d.say(mm(left_mm))) : QObject::tr("%1 right").arg(d.say(mm(-left_mm)));
}

namespace {

void big_figures(Flow& flow, const SheetData& d) {
    const LayPlan& lay = *d.plan.lay;
    const UnderPlan& under = *d.plan.under;
    std::vector<std::pair<QString, QString>> all{
        {lay.short_at.empty() ? QObject::tr("narrowest") : QObject::tr("short by"),
         lay.short_at.empty() ? d.say(mm(lay.narrowest_mm)) : d.say(mm(lay.short_at.front().mm))},
        {QObject::tr("finishes at"), d.say(fine(d.plan.flat->thickness_mm))},
        {QObject::tr("rough-cut to"), d.say(mm(lay.rough_length_mm))},
        {QObject::tr("leg height"), under.ready ? d.say(fine(under.leg_mm)) : QObject::tr("not known")},
        {QObject::tr("top weighs"), under.top_kg > 0 ? d.say(kg(under.top_kg)) : QObject::tr("not known")}};
    flow.figures(all);
}

/// "12 + 3 + 0.5 mm", the pieces of the stock that are laid together.
QString stack_text(const SheetData& d, const std::vector<double>& stack) {
    if (stack.empty()) return QObject::tr("nothing");
    QStringList out;
    for (const double piece : stack) out << d.say(fine(piece));
    return out.join(" + ");
}

/// The shim map of a leaf. @param over it lies on its show face: seen so, left and right are exchanged.
void shims(Flow& flow, const SheetData& d, const LeafPlan& l, bool over, bool face_b_up) {
    if (l.flat->shims.empty()) return;
    const bool show_first = !over;
    flow.note(show_first ? QObject::tr("Shims, the underside down") : QObject::tr("Shims, the show face down"), 12, true);
    std::vector<std::vector<QString>> rows;
    for (std::size_t i = 0; i < l.flat->shims.size(); ++i) {
        const Shim& s = l.flat->shims[i];
        if (laid_mm(s) < 0.05) continue;  // it lies on the bench there: nothing is laid
        rows.push_back({QString::number(i + 1), d.say(along(s.at.x_mm)), beside_line(d, over ? -s.at.y_mm : s.at.y_mm),
                        d.say(fine(laid_mm(s))), stack_text(d, s.stack_mm)});
    }
    if (rows.empty()) return flow.note(QObject::tr("None: it lies on the bench as it is."));
    flow.table({{QObject::tr("shim"), 0.8},
                {QObject::tr("from the left end"), 2, true},
                {QObject::tr("of the chalk line"), 2.2, true},
                {QObject::tr("height"), 1.7, true},
                {QObject::tr("laid together of"), 3.6, true}},
               rows, Flow::cut_points);
    flow.note(QObject::tr("Left and right of the chalk line as you look along it from the left end, face %1 up.")
                  .arg(face_b_up ? QStringLiteral("B") : QStringLiteral("A")));
    if (const Phrase says = stacks_say(l.flat->stacks); !says.empty()) flow.note(d.say(says));
}

/// The sled's own parts, where it has yet to be built.
void sled(Flow& flow, const SheetData& d) {
    double longest = 0;
    for (const LeafPlan& l : d.plan.leaves) longest = std::max(longest, bounds(l.lay->rough).width());
    std::vector<std::vector<QString>> rows;
    for (const SledPart& part : sled_parts(d.shop.sled, longest))
        rows.push_back({QObject::tr(part.name), QString::number(part.count), d.say(mm(part.length_mm)), d.say(mm(part.width_mm)),
                        d.say(fine(part.thick_mm))});
    flow.table({{QObject::tr("part"), 3},
                {QObject::tr("pieces"), 1, true},
                {QObject::tr("long"), 2, true},
                {QObject::tr("wide"), 2, true},
                {QObject::tr("thick"), 2, true}},
               rows, Flow::cut_points);
}

/// Lanes and layers of both faces of a leaf.
void lanes(Flow& flow, const SheetData& d, const LeafPlan& l) {
    flow.note(QObject::tr("Lanes and layers"), 12, true);
    std::vector<std::vector<QString>> rows;
    for (const FacePlan& f : l.flat->faces)
        rows.push_back({f.face == Face::a ? QObject::tr("show face") : QObject::tr("underside"),
                        QObject::tr("%1 of %2").arg(f.layers).arg(d.say(fine(d.shop.sled.depth_mm))), QString::number(f.lanes),
                        QObject::tr("%1, %2 skipped").arg(f.passes_cut).arg(f.passes_all - f.passes_cut), d.say(hours(f.hours)),
                        d.say(fine(f.most_off_mm)),
                        f.spacer_mm < 0   ? QObject::tr("none reaches")
                        : f.spacer_mm > 0 ? d.say(fine(f.spacer_mm))
                                          : QObject::tr("none needed")});
    flow.table({{QObject::tr("face"), 2.2},
                {QObject::tr("layers"), 2, true},
                {QObject::tr("lanes"), 1.1, true},
                {QObject::tr("passes"), 2.8, true},
                {QObject::tr("time"), 1.6, true},
                {QObject::tr("off at most"), 1.8, true},
                {QObject::tr("board under it"), 2.2, true}},
               rows);
    double removed_l = 0;
    for (const FacePlan& f : l.flat->faces) removed_l += f.removed_l;
    flow.note(QObject::tr("Chips: about %1 loose, %2 bags.")
                  .arg(d.say(litres(removed_l * d.shop.sled.loose)))
                  .arg(static_cast<int>(std::ceil(removed_l * d.shop.sled.loose / d.shop.sled.bag_l - 1e-9))));
    flow.note(QObject::tr("Rough all, rest %1, then the last %2 of each face.")
                  .arg(d.say(hours(d.flat().rest_h)), d.say(fine(d.flat().allowance_mm))));
}

}  // namespace

void write_first_sheet(Flow& flow, const SheetData& d) {
    flow.matter(
        QObject::tr("The top"), drawn_high(flow, box_of_top(d)),
        [&](QPainter& p, const QRectF& room) { draw_top_on(p, room, flow, d, {.rough_cuts = true, .let_in = true}); },
        [&](Flow& page) {
            big_figures(page, d);
            page.rule();
            page.note(QObject::tr("What is on which page"), 12, true);
            std::vector<std::vector<QString>> rows;
            for (const auto& [title, at] : page.contents()) rows.push_back({title, QString::number(at)});
            page.table({{{}, 6}, {{}, 1, true}}, rows, 13);
        });
}

void write_bench_sheet(Flow& flow, const SheetData& d) {
    const bool over = d.flat().first != FirstFace::show;
    for (std::size_t i = 0; i < d.plan.leaves.size(); ++i) {
        const LeafPlan& l = d.plan.leaves[i];
        flow.matter(
            d.several() ? QObject::tr("Flatten %1").arg(QString::fromStdString(l.slab().name)) : QObject::tr("Flatten"),
            drawn_high(flow, box_of_leaf(l)), [&](QPainter& p, const QRectF& room) { draw_leaf_on(p, room, flow, d, l, over); },
            [&](Flow& page) {
                shims(page, d, l, over, d.face_b_up(i) != over);
                lanes(page, d, l);
            });
    }
    if (d.shop.sled.to_build) flow.matter(QObject::tr("The sled, to be built"), 0, {}, [&](Flow& page) { sled(page, d); });
}

}  // namespace yb
