// Under: every hole with its slot, where the bolt sits, every pocket.
#include "app/steps/sheets/sheet_drawing.h"
#include "core/shop/job/plan.h"
#include "core/shop/templates/templates.h"
#include "core/steps/lay/choices.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

/// What is drilled, with its stop: in the order of the holes. Tight on the fixed line first, then from it outward.
void drilling(Flow& flow, const SheetData& d) {
    std::vector<std::vector<QString>> rows;
    for (const Slot& s : d.plan.under->slots)
        rows.push_back({QString::number(rows.size() + 1), QString::fromStdString(key_of(s.part)), d.say(fine(s.made.drill_mm)),
                        d.say(fine(s.made.stop_mm)), d.say(fine(s.made.above_mm)),
                        s.made.washer_mm > 0 ? d.say(fine(s.made.washer_mm)) : QStringLiteral("–")});
    flow.table({{{}, 0.7},
                {QObject::tr("drill for"), 2},
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
        rows.push_back({QString::number(i + 1), d.say(along(b.outline[i].x + d.top().length_mm / 2)), beside_line(d, b.outline[i].y)});
    if (!rows.empty())
        flow.table({{QObject::tr("corner"), 1}, {QObject::tr("from the left end"), 2, true}, {QObject::tr("of the middle line"), 2, true}},
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

QString opening(const Slot& s, const SheetData& d) {
    switch (held_by(s, d.under())) {
        case Fixing::slots: return QObject::tr("slot %1").arg(d.say(fine(s.made.opening_mm)));
        case Fixing::oversize: return QObject::tr("hole %1").arg(d.say(fine(s.made.opening_mm)));
        case Fixing::figure_eight: return QObject::tr("figure-eight");
        case Fixing::clips: return QObject::tr("clip");
        case Fixing::buttons: return QObject::tr("button");
    }
    return {};
}

QString beside(const Slot& s, const SheetData& d) {
    switch (held_by(s, d.under())) {
        case Fixing::slots: return QObject::tr("%1 in").arg(d.say(fine(s.bolt_from_inner_mm)));
        case Fixing::oversize: return QObject::tr("middle");
        case Fixing::figure_eight: return QObject::tr("straight");
        case Fixing::clips:
        case Fixing::buttons: return QObject::tr("%1 back").arg(d.say(fine(s.made.gap_mm)));
    }
    return {};
}

}  // namespace

namespace {

/// Every hole with its opening and where what holds the top stands in it on the day.
void holes(Flow& page, const SheetData& d) {
    const UnderPlan& under = *d.plan.under;
    page.note(
        QObject::tr("The top lies upturned, its left end to the left; left and right of the fixed line are as you see it so. At %1 on "
                    "the day; room %2 to %3.")
            .arg(d.say(percent(under.day_pct)), d.say(percent(under.low_pct)), d.say(percent(under.high_pct))));
    std::vector<std::vector<QString>> rows;
    for (std::size_t i = 0; i < under.slots.size(); ++i) {
        const Slot& s = under.slots[i];
        rows.push_back({QString::number(i + 1), QString::fromStdString(key_of(s.part)), d.say(along(s.uv.x + d.top().length_mm / 2)),
                        beside_line(d, -s.from_fixed_mm), s.round ? QObject::tr("round") : opening(s, d),
                        s.round ? QObject::tr("tight") : beside(s, d)});
    }
    page.table({{{}, 0.7},
                {QObject::tr("hole of"), 1.9},
                {QObject::tr("from the left end"), 2.1, true},
                {QObject::tr("of the line"), 2.5, true},
                {QObject::tr("opening"), 2.7, true},
                {QObject::tr("on the day"), 2.1, true}},
               rows, Flow::cut_points);
    std::vector<std::vector<QString>> pockets;
    for (const Pocket& k : under.pockets)
        pockets.push_back({QObject::tr("channel %1").arg(k.channel + 1), QObject::tr("pocket %1 long").arg(d.say(mm(k.length_mm)))});
    switch (d.under().fixing) {
        case Fixing::slots:
            page.note(QObject::tr("On the day each bolt stands so far in from its slot's inner end, the one nearer the line."));
            break;
        case Fixing::oversize:
            page.note(QObject::tr("On the day each bolt stands in the middle of its hole, under a washer that covers it."));
            break;
        case Fixing::figure_eight:
            page.note(QObject::tr("On the day each figure-eight stands straight along the rail, free to swing."));
            break;
        case Fixing::clips:
        case Fixing::buttons: page.note(QObject::tr("On the day each tongue stands so far back from the end of its kerf.")); break;
    }
    if (!pockets.empty()) page.table({{{}, 1}, {{}, 3}}, pockets, Flow::cut_points);
}

}  // namespace

void write_under_sheet(Flow& flow, const SheetData& d) {
    const UnderPlan& under = *d.plan.under;
    if (!under.slots.empty()) {
        const auto underside = drawn_drilling(d.plan, d.job);
        std::vector<Vec2> at;
        for (const Slot& s : under.slots) at.push_back({s.uv.x, -s.uv.y});
        const auto draw = [&](QPainter& p, const QRectF& room) { draw_paths_on(p, room, flow, underside, at); };
        const double high = drawn_high(flow, box_of_paths(underside));
        flow.matter(QObject::tr("The underside, set out"), high, draw, [&](Flow& page) { holes(page, d); });
        flow.matter(QObject::tr("The underside, drilled"), high, draw, [&](Flow& page) { drilling(page, d); });
    }
    if (under.base.parts.empty() && under.foot_out_mm.empty() && !under.stair_longest_mm) return;
    const auto from_above = drawn_base(d.plan);
    flow.matter(
        QObject::tr("The base"), from_above.empty() ? 0 : drawn_high(flow, box_of_paths(from_above)),
        [&](QPainter& p, const QRectF& room) { draw_paths_on(p, room, flow, from_above, {}); },
        [&](Flow& page) {
            if (!under.base.parts.empty()) base(page, d);
            standing(page, d);
        });
}

}  // namespace yb
