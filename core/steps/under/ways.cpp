// What each way of making and holding it would do.
#include "core/steps/under/fixed.h"
#include "core/steps/under/teller.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/ground/figure/choice.h"
#include "core/material/wood/lag.h"

namespace yb {

void UnderTeller::choices() {
    std::vector<Phrase> says;
    for (const FixedLine line : fixed_lines.values) {
        const std::vector<double> lines = fixed_in_leaves(line, top_, in_.choices);
        double most = 0;
        for (const Slot& s : p_.slots)
            if (s.part.kind == "plate")
                most = std::max(most, std::abs(top_.widens(s.uv.x, fixed_for(s.uv, top_, lines), s.uv.y, p_.low_pct, p_.high_pct)));
        says.push_back(say("outermost bolt travels {}", fine(most)));
    }
    p_.choices.push_back(choice_of(fixed_lines, in_.choices, std::move(says)));
    std::vector<Phrase> covers;
    for (const double face : {bare_s_m, oiled_s_m, filmed_s_m})
        covers.push_back(say("follows the air {} later", hours(24 * comes_later_days(lag_days(std::max(1.0, top_.thickness_mm), face)))));
    p_.choices.push_back(choice_of(covereds, in_.choices, std::move(covers)));
    if (!top_.cross_cut() && !every_pith_known()) p_.choices.push_back(choice_of(sawns, in_.choices, with_each_sawing()));
    const MoistureRange room = moisture_range(in_.room);
    const MoistureRange store = moisture_range(in_.store);
    p_.choices.push_back(
        choice_of(waitings, in_.choices,
                  {say("{} to {} there", percent(room.low_pct), percent(room.high_pct)),
                   say("{} to {} there: slots and pockets count it in", percent(store.low_pct), percent(store.high_pct))}));
    p_.choices.push_back(choice_of(fixings, in_.choices, with_each_fixing()));
    p_.choices.push_back(choice_of(base_kinds, in_.choices, with_each_base()));
    if (in_.choices.base == BaseKind::frames || in_.choices.base == BaseKind::trestle)
        p_.choices.push_back(choice_of(bar_joints, in_.choices, with_each_bar_joint()));
    if (!p_.base.pieces.empty()) {
        UnderChoices first = in_.choices;
        first.parts_first = true;
        const BasePlan masked = plan_base({first, p_.leg_mm});
        p_.choices.push_back(choice_of(
            parts_finished, in_.choices,
            {say("one finish over all of it; inner corners are hard to reach"),
             say("every face reached; {} glue faces to mask, {} of hands", count(masked.glue_faces), hours(masked.masking.hours()))}));
    }
    p_.choices.push_back(choice_of(insert_kinds, in_.choices,
                                   {say("hold, and come out again"), say("quick, and pull out"), say("hold once; never in end grain")}));
    const double above = top_.thickness_mm - in_.choices.insert_mm - in_.choices.plate_mm;
    const Phrase pocketed = above > 0 ? say("pockets {} deep, {} of wood above", fine(in_.choices.plate_mm), fine(above))
                                      : say("pockets {} deep: the inserts come through", fine(in_.choices.plate_mm));
    p_.choices.push_back(choice_of(plate_places, in_.choices, {say("leg {} shorter", fine(in_.choices.plate_mm)), pocketed}));
}

std::vector<Phrase> UnderTeller::with_each_fixing() const {
    const Slot* furthest = longest();
    std::vector<Phrase> out;
    for (const Fixing way : fixings.values) {
        if (!furthest) {
            out.push_back(say("no holes are laid yet"));
            continue;
        }
        UnderChoices c = in_.choices;
        c.fixing = way;
        const HoleMade m =
            make_hole({furthest->travel_out_mm, furthest->travel_in_mm, furthest->round, top_.thickness_mm, furthest->floor_mm, {}}, c);
        if (!m.fits)
            out.push_back(say("lets go of {}, and it travels {}: too little", fine(std::max(0.0, m.lets_go_mm)),
                              fine(std::max(furthest->travel_out_mm, furthest->travel_in_mm))));
        else if (way == Fixing::slots) out.push_back(say("slots up to {} long", fine(m.opening_mm)));
        else if (way == Fixing::oversize) out.push_back(say("holes up to {}, washers of {}", fine(m.opening_mm), fine(m.washer_mm)));
        else if (way == Fixing::figure_eight) out.push_back(say("swing up to {} to either side", fine(m.lets_go_mm)));
        else out.push_back(say("set back {} on the day", fine(m.gap_mm)));
    }
    return out;
}

std::vector<Phrase> UnderTeller::with_each_sawing() const {
    std::vector<Phrase> out;
    Top other = top_;
    for (const Sawn way : sawns.values) {
        for (Region& r : other.regions) r.sawn = way;
        out.push_back(
            say("moves {} from dry to damp", fine(other.widens(of_.wide.u_mm, of_.wide.low_v, of_.wide.high_v, p_.low_pct, p_.high_pct))));
    }
    return out;
}

std::vector<Phrase> UnderTeller::with_each_bar_joint() const {
    const bool trestle = in_.choices.base == BaseKind::trestle;
    std::vector<Phrase> out;
    for (const BarJoint way : bar_joints.values) {
        UnderChoices c = in_.choices;
        c.corners = way;
        Phrase what = way == BarJoint::mitre      ? trestle ? say("a trestle has no mitres: its posts are lapped")
                                                            : say("no end grain shows; weak by itself: a spline")
                           : way == BarJoint::half_lap ? say("twice the glue face, where the load is")
                                                  : say("holds without glue; ends show above and below");
        if (p_.leg_mm > 0 && !c.plates.empty()) try {
                const BasePlan base = plan_base({c, p_.leg_mm});
                double run = 0;
                for (const BasePart& part : base.parts) run += part.count * part.length_mm;
                what.then.push_back(say("{} of bar", along(run)));
            } catch (const std::invalid_argument&) {
                what = say("can't be built so low or so narrow");
            }
        out.push_back(std::move(what));
    }
    return out;
}

std::vector<Phrase> UnderTeller::with_each_base() const {
    std::vector<Phrase> out;
    for (const BaseKind kind : base_kinds.values) {
        UnderChoices c = in_.choices;
        c.base = kind;
        if (kind == BaseKind::bought) out.push_back(say("its plates and feet as measured"));
        else if (c.plates.empty() || p_.leg_mm <= 0) out.push_back(say("lay plates first"));
        else try {
                const BasePlan base = plan_base({c, p_.leg_mm});
                double pieces = 0;
                for (const BasePart& part : base.parts) pieces += part.count;
                out.push_back(say("{}, {} of wood", counted(pieces, "piece", "pieces"), litres(base.volume_l)));
            } catch (const std::invalid_argument&) {
                out.push_back(say("can't be built so low or so narrow"));
            }
    }
    return out;
}

}  // namespace yb
