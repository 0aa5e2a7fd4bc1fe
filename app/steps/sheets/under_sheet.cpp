// Under: every hole with its slot, where the bolt sits, every pocket.
#include "app/steps/sheets/sheets.h"
#include "core/steps/lay/choices.h"
#include "core/shop/job/plan.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

/// What is drilled, with its stop: in the order of the holes. Tight on the fixed line first, then from it outward.
void drilling(Flow& flow, const SheetData& d) {
    std::vector<std::vector<QString>> rows;
    for (const Slot& s : d.plan.under->slots)
        rows.push_back({QString::fromStdString(s.part), d.say(fine(s.made.drill_mm)), d.say(fine(s.made.stop_mm)),
                        d.say(fine(s.made.above_mm)), s.made.washer_mm > 0 ? d.say(fine(s.made.washer_mm)) : QStringLiteral("–")});
    flow.table({{QObject::tr("drill for"), 2},
                {QObject::tr("drill"), 1.6, true},
                {QObject::tr("stop at"), 1.6, true},
                {QObject::tr("wood above"), 1.8, true},
                {QObject::tr("washer"), 1.6, true}},
               rows, Flow::cut_points);
    flow.note(QObject::tr("Tighten on the fixed line first, hard; then from it outward, snug, so that the top can slide."));
    rows.clear();
    for (std::size_t i = 0; i < d.plan.under->shims_mm.size(); ++i) {
        const auto& at = d.plan.under->shims_mm[i];
        rows.push_back(
            {QObject::tr("plate %1").arg(i + 1), d.say(fine(at[0])), d.say(fine(at[1])), d.say(fine(at[2])), d.say(fine(at[3]))});
    }
    if (!rows.empty())
        flow.table({{QObject::tr("pack under"), 2},
                    {QObject::tr("left near"), 1.6, true},
                    {QObject::tr("right near"), 1.6, true},
                    {QObject::tr("right far"), 1.6, true},
                    {QObject::tr("left far"), 1.6, true}},
                   rows, Flow::cut_points);
}

/// The base's cut list.
void base(Flow& flow, const SheetData& d) {
    const BasePlan& b = d.plan.under->base;
    if (b.parts.empty()) return;
    flow.heading(QObject::tr("Base"));
    std::vector<std::vector<QString>> rows;
    for (const BasePart& p : b.parts) {
        const QString ends = p.first_deg == 0 && p.second_deg == 0
                                 ? QObject::tr("square")
                                 : QObject::tr("%1, %2").arg(d.say(degrees(p.first_deg)), d.say(degrees(p.second_deg)));
        rows.push_back({QObject::tr(p.name.c_str()), QString::number(p.count), d.say(fine(p.length_mm)),
                        QObject::tr("%1 × %2").arg(d.say(fine(p.width_mm)), d.say(fine(p.thick_mm))), ends,
                        p.layers > 1 ? QString::number(p.layers) : QStringLiteral("–")});
    }
    flow.table({{QObject::tr("part"), 3},
                {QObject::tr("pieces"), 1, true},
                {QObject::tr("point to point"), 1.8, true},
                {QObject::tr("wide × thick"), 2.4, true},
                {QObject::tr("ends off square"), 2, true},
                {QObject::tr("layers"), 1, true}},
               rows, 12);
    for (const BasePart& p : b.parts)
        if (!p.note.empty()) flow.note(QObject::tr("%1: %2").arg(QObject::tr(p.name.c_str()), d.say(p.note)));
    for (const Phrase& note : b.notes) flow.note(d.say(note));
    rows.clear();
    for (std::size_t i = 0; i < b.outline.size(); ++i)
        rows.push_back({QString::number(i + 1), d.say(along(b.outline[i].x + d.top().length_mm / 2)), d.say(mm(b.outline[i].y))});
    if (!rows.empty())
        flow.table({{QObject::tr("corner"), 1}, {QObject::tr("from the left end"), 2, true}, {QObject::tr("off the middle line"), 2, true}},
                   rows, Flow::cut_points);
}

/// How it gets there and stands: stair, feet.
void standing(Flow& flow, const SheetData& d) {
    const UnderPlan& u = *d.plan.under;
    if (u.stair_longest_mm)
        flow.note(QObject::tr("Round the stair's landing goes %1, carried level on edge; carried in is %2.")
                      .arg(d.say(mm(*u.stair_longest_mm)), d.say(mm(u.carried_mm))));
    if (u.foot_out_mm.size() < 4) return;
    flow.note(QObject::tr("Feet out, or packed: left near %1, right near %2, right far %3, left far %4.")
                  .arg(d.say(fine(u.foot_out_mm[0])), d.say(fine(u.foot_out_mm[1])), d.say(fine(u.foot_out_mm[2])),
                       d.say(fine(u.foot_out_mm[3]))));
}

/// What holds a hole: slots by themselves in channels, in plates as the maker holds the top.
Fixing held_by(const Slot& s, const SheetData& d) {
    return s.part.starts_with("channel ") && d.under().fixing != Fixing::oversize ? Fixing::slots : d.under().fixing;
}

QString opening(const Slot& s, const SheetData& d) {
    switch (held_by(s, d)) {
        case Fixing::slots: return QObject::tr("slot %1").arg(d.say(fine(s.made.opening_mm)));
        case Fixing::oversize: return QObject::tr("hole %1").arg(d.say(fine(s.made.opening_mm)));
        case Fixing::figure_eight: return QObject::tr("figure-eight");
        case Fixing::clips: return QObject::tr("clip");
        case Fixing::buttons: return QObject::tr("button");
    }
    return {};
}

QString beside(const Slot& s, const SheetData& d) {
    switch (held_by(s, d)) {
        case Fixing::slots: return QObject::tr("bolt %1 from the inner end").arg(d.say(fine(s.bolt_from_inner_mm)));
        case Fixing::oversize: return QObject::tr("in the middle, washer %1").arg(d.say(fine(s.made.washer_mm)));
        case Fixing::figure_eight: return QObject::tr("straight; swings %1").arg(d.say(fine(s.made.lets_go_mm)));
        case Fixing::clips:
        case Fixing::buttons: return QObject::tr("set back %1").arg(d.say(fine(s.made.gap_mm)));
    }
    return {};
}

}  // namespace

void write_under_sheet(Flow& flow, const SheetData& d) {
    const UnderPlan& under = *d.plan.under;
    flow.heading(QObject::tr("Slots"));
    if (under.slots.empty()) return flow.note(QObject::tr("no plates or channels laid"));
    flow.note(QObject::tr("at %1 on the day; room %2 to %3. Distances are told from the fixed line.")
                  .arg(d.say(percent(under.day_pct)), d.say(percent(under.low_pct)), d.say(percent(under.high_pct))));
    std::vector<std::vector<QString>> rows;
    for (const Slot& s : under.slots)
        rows.push_back({QString::fromStdString(s.part), d.say(along(s.uv.x + d.top().length_mm / 2)), d.say(mm(s.from_fixed_mm)),
                        s.round ? QObject::tr("round") : opening(s, d), s.round ? QObject::tr("tight") : beside(s, d)});
    flow.table({{QObject::tr("hole"), 2},
                {QObject::tr("from the left end"), 2, true},
                {QObject::tr("from line"), 1.8, true},
                {QObject::tr("opening"), 2.2, true},
                {QObject::tr("on the day"), 2.4, true}},
               rows, Flow::cut_points);
    std::vector<std::vector<QString>> pockets;
    for (const Pocket& k : under.pockets)
        pockets.push_back({QObject::tr("channel %1").arg(k.channel + 1), QObject::tr("pocket %1 long").arg(d.say(mm(k.length_mm)))});
    if (!pockets.empty()) flow.table({{{}, 1}, {{}, 3}}, pockets, Flow::cut_points);
    drilling(flow, d);
    base(flow, d);
    standing(flow, d);
}

}  // namespace yb
