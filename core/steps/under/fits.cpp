// Whether it stands, carries, goes through the door and can be lifted.
#include "core/steps/under/teller.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/ground/figure/choice.h"
#include "core/ground/measure/lift.h"
#include "core/material/wood/lag.h"

namespace yb {

void UnderTeller::loads() {
    const auto& c = in_.choices;
    if (c.inserts == InsertKind::hammer_in && !p_.slots.empty())
        add("under.hammer_in", Severity::watch, say("Hammer-in inserts pull out of wood: take screw-in ones, or machine bolts through."),
            p_.slots.front().uv);
    if (p_.sag_mm && *p_.sag_mm > 3)
        add("under.sags", *p_.sag_mm > 8 ? Severity::stop : Severity::watch,
            say("Between its plates it goes down {} in the years with somebody on it. Move the plates in, or thicken it. An estimate.",
                fine(*p_.sag_mm)));
    if (!p_.tipping) return;
    const Tipping& t = *p_.tipping;
    if (!t.stands) {
        add("under.falls", Severity::stop,
            say("Its balance point lies outside the feet: it falls by itself. Spread the feet or move the base."), t.balance);
        return;
    }
    if (t.down_n && *t.down_n < c.person_n)
        add("under.tips", *t.down_n < c.person_n / 2 ? Severity::stop : Severity::watch,
            say("{} N pressed down at its rim tip it: somebody who sits there is {} N. Spread the feet. An estimate; local codes stand "
                "above it.",
                number(std::round(*t.down_n)), number(c.person_n)),
            t.down_at);
    if (t.side_n < c.push_n)
        add("under.rocks", t.side_n < c.push_n / 2 ? Severity::stop : Severity::watch,
            say("A level push of {} N at the top tips it; one who leans on it gives {} N. Feet wider apart, or a heavier base. An "
                "estimate; racking is not in it.",
                number(std::round(t.side_n)), number(c.push_n)),
            t.balance + t.side_towards * 50);
}

void UnderTeller::fits() {
    const auto& c = in_.choices;
    for (const Slot& s : p_.slots)
        if (!s.made.fits) {
            add("under.reach", Severity::stop,
                say("The hole {} from the fixed line travels {} out and {} in; what holds it there lets go of {}. Take slots or "
                    "oversize "
                    "holes, or the fixed line nearer.",
                    mm(std::abs(s.from_fixed_mm)), fine(s.travel_out_mm), fine(s.travel_in_mm), fine(std::max(0.0, s.made.lets_go_mm))),
                s.uv);
            break;
        }
    slots_on_plates();
    if (p_.base.feet.size() > 2) {
        const Box feet = bounds(Ring(p_.base.feet.begin(), p_.base.feet.end()));
        const Box rim = bounds(top_.above);
        const double past = std::max({rim.low.x - feet.low.x, feet.high.x - rim.high.x, rim.low.y - feet.low.y, feet.high.y - rim.high.y});
        if (past > 1)
            add("under.feet_out", Severity::watch,
                say("The feet stand {} past the top: shins find them. Less lean, or the plates further in.", mm(past)));
    }
    standing_level();
    if (p_.stair_longest_mm) stair();
    if (!p_.base_wrong.empty())
        add("under.base", Severity::stop,
            say("The base can't be built like this: {}. Change its bars, the plates or the table's height.", p_.base_wrong));
    double most = 0;
    std::size_t where = 0;
    for (std::size_t i = 0; i < p_.shims_mm.size(); ++i)
        for (const double shim : p_.shims_mm[i])
            if (shim > most) most = shim, where = i;
    if (most > 0.3)
        add("under.gaps", most > 3 ? Severity::stop : Severity::watch,
            say("The plates do not lie in one plane: it would rock, or the bolts would bend it. Pack the corners – the most, {}, at "
                "plate "
                "{}; the plate tells all four.",
                fine(most), count(static_cast<double>(where) + 1)),
            Vec2{c.plates[where].u_mm, c.plates[where].v_mm});
    if (!c.plates.empty() && p_.leg_mm >= 300 && p_.clear_mm < c.knee_mm)
        add("under.knees", Severity::watch,
            say("{} are clear below the top and its base; knees want {}. Thinner bars, plates let in, or a higher table.", mm(p_.clear_mm),
                mm(c.knee_mm)));
    if (!p_.passage.top_alone)
        add("under.door", Severity::stop,
            say("The top goes through no door of {} by {}, flat or on its edge: {} wide. Another way in, or halves joined on site.",
                mm(c.door_wide_mm), mm(c.door_high_mm), mm(of_.wide.width_mm)));
    else if (!p_.passage.assembled && !c.plates.empty())
        add("under.door", Severity::note,
            say("Put together it does not go through a door of {} by {}: carry top and base in apart, bolts in a bag with the book.",
                mm(c.door_wide_mm), mm(c.door_high_mm)));
    if (constexpr double unknown_n = 3000; p_.held && p_.held->bolt_n > p_.held->holds_n.value_or(unknown_n)) {
        const Quantity pulls = number(std::round(p_.held->bolt_n));
        const bool middle = p_.held->bolts > 2;
        Phrase says = middle
                          ? say("Held back, the cup pulls {} N at a channel's middle bolt: more bolts, or a lighter channel that gives. An "
                                "estimate.",
                                pulls)
                          : say("Held back, the cup pulls {} N at each of a channel's two bolts: more bolts, or a lighter channel that "
                                "gives. An estimate.",
                                pulls);
        if (p_.held->holds_n) {
            const Quantity holds = number(std::round(*p_.held->holds_n / 10) * 10);
            says =
                middle
                    ? say("Held back, the cup pulls {} N at a channel's middle bolt, and for years {} N hold there: a longer insert, more "
                          "bolts, or a lighter channel. An estimate.",
                          pulls, holds)
                    : say("Held back, the cup pulls {} N at each of a channel's two bolts, and for years {} N hold there: a longer "
                          "insert, more bolts, or a lighter channel. An estimate.",
                          pulls, holds);
        }
        add("under.held", Severity::watch, std::move(says));
    }
    bolts_apart();
    few_bolts();
    for (const Carries& k : p_.carries)
        if (k.misses_mm > 1)
            add("under.misses", Severity::stop,
                say("The base carries nothing at plate {}: its nearest part stands {} beside it. Bring the base under the plate, or "
                    "the "
                    "plate over the base.",
                    count(static_cast<double>(k.plate) + 1), mm(k.misses_mm)),
                Vec2{c.plates[k.plate].u_mm, c.plates[k.plate].v_mm});
}

void UnderTeller::standing_level() {
    const double most = p_.foot_out_mm.empty() ? 0 : *std::max_element(p_.foot_out_mm.begin(), p_.foot_out_mm.end());
    if (most < 0.3) return;
    const double reach = in_.choices.feet_travel_mm / 2;  // they stand half-way out
    if (most <= reach)
        add("under.floor", Severity::note,
            say("It rocks on its floor: screw the feet out, the most by {}; the base tells each.", fine(most)));
    else if (reach > 0)
        add("under.floor", Severity::watch,
            say("A foot hangs {} and they screw out by {} from where they stand: pack the rest, or cut the longer legs.", fine(most),
                fine(reach)));
    else
        add("under.floor", most > 3 ? Severity::stop : Severity::watch,
            say("It rocks on its floor: a foot hangs {}. Pack it, cut the longer legs, or take feet that screw.", fine(most)));
}

void UnderTeller::stair() {
    const auto& c = in_.choices;
    const double on_edge = of_.wide.width_mm;
    if (on_edge > c.stair_high_mm)
        add("under.stair", Severity::stop,
            say("On edge the top is {} high and the stair has {}: it can't be carried up so. Another way in, or halves joined on site.",
                mm(on_edge), mm(c.stair_high_mm)));
    else if (p_.carried_mm > *p_.stair_longest_mm)
        add("under.stair", Severity::stop,
            say("Round the landing of a stair {} wide goes {}, carried level on edge, and this is {}. Halves joined on site, another "
                "way in – or tilted, as you judge it there.",
                mm(*c.stair_mm), mm(*p_.stair_longest_mm), mm(p_.carried_mm)));
}

void UnderTeller::lifting() {
    if (p_.top_kg <= 0) return;
    const int people = std::max(1, in_.choices.helpers);
    const double each = p_.top_kg / people;
    if (each > one_lifts_kg)
        add("under.lift", each > 45 ? Severity::stop : Severity::watch,
            say("About {} for each of {} to lift. Get {} or a hoist, and mind feet and fingers. An estimate; "
                "your judgement and local rules stand above it.",
                kg(each), count(people), counted(people_to_lift(p_.top_kg), "person", "people")));
}

}  // namespace yb
