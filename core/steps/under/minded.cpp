// What is to be minded of a base.
#include "core/steps/under/teller.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <stdexcept>

#include "core/ground/figure/choice.h"
#include "core/material/wood/lag.h"

namespace yb {

void UnderTeller::cautions() {
    const auto& c = in_.choices;
    if (c.plates.empty()) add("under.no_plates", Severity::watch, say("No leg plates are laid yet. Lay two, a fifth in from each end."));
    inside_checks();
    clash_checks();
    wood_left();
    moisture_and_slots();
    loads();
    fits();
    if (top_.cross_cut()) cross_cut();
    if (p_.leg_mm < 300)
        add("under.leg", Severity::stop,
            say("The leg comes out at {}: check the table height of {}.", fine(p_.leg_mm), mm(top_.wanted.height_mm)));
    lifting();
}

void UnderTeller::inside_checks() {
    const auto& c = in_.choices;
    const auto check = [&](const Ring& uv, Vec2 mid, const std::string& what) {
        if (intersection_area(uv, top_.below) < area(uv) - 1)
            add("under.outside", Severity::stop,
                say("{} at {} stands past the edge of the top. Move it in or take a smaller one.", what, along(frame_.to_slab(mid).x)),
                mid);
    };
    for (std::size_t i = 0; i < c.plates.size(); ++i)
        check(footprint(c.plates[i]), {c.plates[i].u_mm, c.plates[i].v_mm}, "Plate " + std::to_string(i + 1));
    for (std::size_t i = 0; i < c.channels.size(); ++i) {
        const Channel& ch = c.channels[i];
        check(footprint(ch), {ch.u_mm, ch.v_mm}, "Channel " + std::to_string(i + 1));
        const double end = top_.wanted.length_mm / 2 - std::abs(ch.u_mm);
        if (end < 200 && end >= 0)  // past it is told above
            add("under.channel_end", Severity::watch,
                say("Channel {} lies {} from the end. Keep it a few hand-widths in, or the end splits.", count(static_cast<double>(i + 1)),
                    mm(end)),
                Vec2{ch.u_mm, ch.v_mm});
    }
}

Ring UnderTeller::pocket(std::size_t channel) const {
    Channel c = in_.choices.channels[channel];
    for (const Pocket& k : p_.pockets)
        if (k.channel == channel) c.length_mm = k.length_mm;
    return footprint(c);
}

void UnderTeller::clash_checks() {
    const auto& c = in_.choices;
    for (std::size_t i = 0; i < c.channels.size(); ++i) {
        for (std::size_t j = 0; j < c.plates.size(); ++j)
            if (intersection_area(pocket(i), footprint(c.plates[j])) > 1)
                add("under.clash", Severity::stop,
                    say("Channel {} runs under plate {}. Slide one along; leave a finger's width between.",
                        count(static_cast<double>(i + 1)), count(static_cast<double>(j + 1))),
                    Vec2{c.channels[i].u_mm, c.channels[i].v_mm});
        for (std::size_t j = i + 1; j < c.channels.size(); ++j)
            if (intersection_area(pocket(i), pocket(j)) > 1)
                add("under.clash", Severity::stop,
                    say("The pockets of channels {} and {} meet: slide one along.", count(static_cast<double>(i + 1)),
                        count(static_cast<double>(j + 1))),
                    Vec2{c.channels[i].u_mm, c.channels[i].v_mm});
    }
    not_in_wood();
}

const Region* UnderTeller::instead_of_wood(const Slot& s) const {
    for (const Region& r : top_.regions) {
        const Ring& ring = r.below.empty() ? r.above : r.below;
        if (r.wood() || ring.size() < 3 || r.low_mm >= s.floor_mm + in_.choices.insert_mm || !contains(ring, s.uv)) continue;
        return &r;
    }
    return nullptr;
}

void UnderTeller::not_in_wood() {
    // Part by part and kind by kind, at the first of its holes.
    struct Where {
        double holes = 0, in_void = 0, in_air = 0, in_resin = 0;
        Vec2 void_at, air_at, resin_at;
    };
    std::map<std::string, Where> parts;
    for (const Slot& s : p_.slots) {
        Where& w = parts[key_of(s.part)];
        ++w.holes;
        const Region* r = instead_of_wood(s);
        if (!r) continue;
        const auto one = [&](double& count, Vec2& at) {
            if (count++ == 0) at = s.uv;
        };
        if (r->let_in) one(w.in_void, w.void_at);
        else if (r->kind == RegionKind::air) one(w.in_air, w.air_at);
        else one(w.in_resin, w.resin_at);
    }
    const auto x = [&](Vec2 uv) { return along(frame_.to_slab(uv).x); };
    const auto holes = [](double n) { return counted(n, "hole", "holes"); };
    for (const auto& [part, w] : parts) {
        if (w.in_air + w.in_resin == w.holes) {
            const Vec2 at = w.in_air > 0 ? w.air_at : w.resin_at;
            add("under.all_in_river", Severity::stop,
                say("All of {} lies in the river, at {}: nothing holds it there. Make it reach the wood on both sides, or move it.", part,
                    x(at)),
                at);
            continue;
        }
        if (w.in_void > 0)
            add("under.hole_in_void", Severity::watch,
                say("{} of {} in a void, at {}. Inserts do not hold there: move it.", holes(w.in_void), part, x(w.void_at)), w.void_at);
        if (w.in_air > 0)
            add("under.hole_in_river", Severity::stop,
                say("{} of {} in the open river, at {}. Move the plate, or take one that reaches both leaves.", holes(w.in_air), part,
                    x(w.air_at)),
                w.air_at);
        if (w.in_resin > 0)
            add("under.hole_in_resin", Severity::watch,
                say("{} of {} in the river's resin, at {}: an insert can crack it. Move it into the wood.", holes(w.in_resin), part,
                    x(w.resin_at)),
                w.resin_at);
    }
}

void UnderTeller::cross_cut() {
    if (of_.species->shrink_radial_pct) {
        const double round = std::numbers::pi * of_.wide.width_mm;
        const double opens = movement(round, *of_.species->shrink_radial_pct, p_.day_pct, p_.low_pct) -
                             movement(round, *of_.species->shrink_tangential_pct, p_.day_pct, p_.low_pct);
        if (opens > 0.5)
            add("under.rim_crack", opens > 4 ? Severity::stop : Severity::watch,
                say("A cross-cut shrinks more around than towards its pith: from {} to {} a crack of up to {} opens at the rim. Dry it "
                    "further first, or saw it open from rim to pith and let in a wedge.",
                    percent(p_.day_pct), percent(p_.low_pct), fine(opens)),
                Vec2{0, -of_.wide.width_mm / 2});
    }
    add("under.cross_cut", Severity::watch,
        say("A cross-cut moves outward from its middle, along as much as across: holes off the middle want room in both directions, "
            "{} at the rim. It breaks more easily than a slab: mind spans and edges.",
            fine(p_.travel_mm / 2)));
    if (!p_.slots.empty())
        add("under.end_grain", Severity::stop,
            say("The underside of a cross-cut is end grain: screws and inserts pull out. Bolt into plugs let in across, or through."),
            p_.slots.front().uv);
}

void UnderTeller::wood_left() {
    const auto& c = in_.choices;
    if (p_.slots.empty()) return;
    const Slot& s =
        *std::min_element(p_.slots.begin(), p_.slots.end(), [](const Slot& a, const Slot& b) { return a.made.above_mm < b.made.above_mm; });
    if (s.made.above_mm < 0.05)
        add("under.through", Severity::stop,
            s.floor_mm > 0
                ? say("Drilled {} deep from the floor of its pocket, a hole of {} comes through the show face: {} of wood are there. "
                      "Take a shorter insert or a shallower pocket.",
                      fine(s.made.stop_mm), key_of(s.part), fine(std::max(0.0, top_.thickness_mm - s.floor_mm)))
                : say("Drilled {} deep, a hole of {} comes through the show face: {} of wood are there. Take a shorter insert.",
                      fine(s.made.stop_mm), key_of(s.part), fine(top_.thickness_mm)),
            s.uv);
    else if (s.made.above_mm < c.least_above_mm)
        add("under.through", s.made.above_mm < 3 ? Severity::stop : Severity::watch,
            s.floor_mm > 0
                ? say("Drilled {} deep from the floor of its pocket, a hole of {} leaves {} of wood above; you want {}. Drill to a "
                      "stop "
                      "and take a shorter insert.",
                      fine(s.made.stop_mm), key_of(s.part), fine(s.made.above_mm), fine(c.least_above_mm))
                : say("Drilled {} deep, a hole of {} leaves {} of wood above; you want {}. Drill to a stop and take a shorter insert.",
                      fine(s.made.stop_mm), key_of(s.part), fine(s.made.above_mm), fine(c.least_above_mm)),
            s.uv);
    for (const Channel& ch : c.channels)
        if (ch.depth_mm > top_.thickness_mm / 2) {
            add("under.deep_channel", Severity::watch,
                say("A channel pocket {} deep takes more than half of the {} there is.", fine(ch.depth_mm), fine(top_.thickness_mm)),
                Vec2{ch.u_mm, ch.v_mm});
            break;
        }
}

void UnderTeller::moisture_and_slots() {
    const MoistureRange room = moisture_range(in_.room);
    const double driest = std::min(room.low_pct, equilibrium_moisture(in_.shop_air.temp_c, in_.shop_air.rh_pct));
    if (p_.read_pct > 0 && p_.read_pct < driest - 1.5)
        add("under.dry", Severity::watch,
            say("The wood is said to hold {}; neither shop nor room dries it below {}. Check the meter, its wood and its batteries: it "
                "will widen {} where it goes.",
                percent(p_.read_pct), percent(driest),
                fine(top_.widens(of_.wide.u_mm, of_.wide.low_v, of_.wide.high_v, of_.leaf_pct, driest))));
    if (p_.day_pct > room.high_pct + 2)
        add("under.wet", Severity::stop,
            say("The wood reads {}; in the room it settles between {} and {}. Let it dry before the last flattening: it "
                "will shrink {} across.",
                percent(p_.read_pct), percent(room.low_pct), percent(room.high_pct),
                fine(-top_.widens(of_.wide.u_mm, of_.wide.low_v, of_.wide.high_v, of_.leaf_pct, (room.low_pct + room.high_pct) / 2))));
    for_the_client();
    if (const Slot* s = longest(); s && !s->round) {
        const double travel = s->travel_in_mm + s->travel_out_mm;
        const double place = travel > 0 ? s->travel_in_mm / travel : 0.5;
        if (place < 0.3 || place > 0.7)
            add("under.bolt_place", Severity::watch,
                say("At {} today the bolts do not sit in the middle: the outermost goes {} from its slot's inner end, {} long.",
                    percent(p_.day_pct), fine(s->bolt_from_inner_mm), fine(s->length_mm)),
                s->uv);
        add("under.tighten", Severity::note,
            in_.choices.fixing == Fixing::clips || in_.choices.fixing == Fixing::buttons
                ? say("On the fixed line do the bolts up tight; elsewhere set each tongue back from its kerf's end as told, screwed home "
                      "to the "
                      "base: it slides in the kerf.")
            : in_.choices.fixing == Fixing::figure_eight
                ? say("On the fixed line do the bolts up tight; the figure-eights' screws snug, so that each swings as the top moves.")
            : p_.leaf_fixed_v_mm.empty()
                ? say("On the fixed line do the bolts up tight; outside it snug, with washer and thread lock, so that the top can slide.")
                : say("Each half moves by itself and has a fixed line of its own: there do the bolts up tight; outside it snug, with "
                      "washer "
                      "and thread lock, so that it can slide."),
            s->uv);
    }
    if (!in_.choices.channels.empty() || !in_.choices.plates.empty())
        add("under.metal", Severity::note,
            say("Steel: cutting and drilling want eyes and a clamp, no gloves at a turning drill; sparks away from dust and resin. Welding "
                "and "
                "its fumes belong to a fabricator or a trained welder; local rules apply."));
    bool anchored = false;
    for (const Slot& s : p_.slots) anchored = anchored || (s.round && s.part.kind == "plate" && !instead_of_wood(s));
    // A bolt more in the middle is no help where the middle is a river.
    bool wood_there = false;
    for (const LegPlate& p : in_.choices.plates) {
        Slot there;
        there.uv = {p.u_mm, p_.fixed_v_mm};
        wood_there = wood_there || !instead_of_wood(there);
    }
    for (std::size_t i = 0; i < p_.leaf_fixed_v_mm.size() && !in_.choices.plates.empty(); ++i) {
        const Ring& ring = top_.regions[i].below.empty() ? top_.regions[i].above : top_.regions[i].below;
        if (std::none_of(p_.slots.begin(), p_.slots.end(), [&](const Slot& s) { return s.part.kind == "plate" && contains(ring, s.uv); }))
            add("under.leaf_loose", Severity::stop,
                say("No bolt of a plate reaches {}: rods line the halves up, they don't hold them. Take plates that reach both.",
                    top_.regions[i].name),
                centroid(ring));
    }
    if (!in_.choices.plates.empty() && !anchored)
        add("under.no_fixed", Severity::watch,
            wood_there ? say("No hole sits on the fixed line: the top can wander. Take an odd number of bolts across, or move a plate.")
                       : say("The fixed line runs where no wood is: no bolt holds the top there. Fix it at the outermost bolts of one "
                             "leaf: left or "
                             "right."));
}

void UnderTeller::for_the_client() {
    if (of_.wide.width_mm <= 0) return;
    const auto [dry, damp] = std::minmax_element(p_.month_pct.begin(), p_.month_pct.end());
    const auto wider = [&](double pct) {
        return top_.widens(of_.wide.u_mm, of_.wide.low_v, of_.wide.high_v, of_.leaf_pct, std::clamp(pct, 0.0, 30.0));
    };
    const double least = wider(*dry);
    const double most = wider(*damp);
    if (most - least < 0.5) return;
    const char* when_least = month_name(static_cast<int>(dry - p_.month_pct.begin()));
    const char* when_most = month_name(static_cast<int>(damp - p_.month_pct.begin()));
    constexpr double none = 0.05;  // what is told to a tenth is nothing
    if (least < -none && most > none)
        add("under.client", Severity::note,
            say("To tell the client: in {} it is {} narrower than the day it is put together, in {} {} wider, every year. That is the "
                "wood, and no fault; the base lets it.",
                when_least, fine(-least), when_most, fine(most)));
    else if (least >= -none && most > none)
        add("under.client", Severity::note,
            least > none
                ? say("To tell the client: in its room it is always wider than the day it is put together, by {} in {} and by {} in "
                      "{}, "
                      "every year. That is the wood, and no fault; the base lets it.",
                      fine(least), when_least, fine(most), when_most)
                : say("To tell the client: in {} it is {} wider than the day it is put together, in {} as wide as then, every year. "
                      "That is the wood, and no fault; the base lets it.",
                      when_most, fine(most), when_least));
    else
        add("under.client", Severity::note,
            most < -none
                ? say("To tell the client: in its room it is always narrower than the day it is put together, by {} in {} and by {} in "
                      "{}, every year. That is the wood, and no fault; the base lets it.",
                      fine(-most), when_most, fine(-least), when_least)
                : say("To tell the client: in {} it is {} narrower than the day it is put together, in {} as wide as then, every year. "
                      "That is the wood, and no fault; the base lets it.",
                      when_least, fine(-least), when_most));
}

void UnderTeller::bolts_apart() {
    const auto& c = in_.choices;
    const auto look = [&](const std::string& what, const std::vector<Vec2>& holes) {
        double least = 1e300;
        Vec2 at;
        for (std::size_t i = 0; i < holes.size(); ++i)
            for (std::size_t j = 0; j < i; ++j)
                if (const double d = length(holes[i] - holes[j]); d < least) least = d, at = holes[i];
        if (least >= 4 * c.bolt_mm) return;
        if (least < c.bolt_mm)
            add("under.bolts_near", Severity::stop,
                say("Bolts of {} come to lie in one place: it is too short for so many with {} from its ends. Fewer bolts, or a longer "
                    "one.",
                    what, mm(c.edge_mm)),
                at);
        else
            add("under.bolts_near", Severity::watch,
                say("Bolts of {} stand {} apart, nearer than four times their diameter: the wood between them splits. Fewer bolts, or "
                    "a "
                    "longer one.",
                    what, mm(least)),
                at);
    };
    for (std::size_t i = 0; i < c.plates.size(); ++i) look("plate " + std::to_string(i + 1), holes_of(c.plates[i], c));
    for (std::size_t i = 0; i < c.channels.size(); ++i) look("channel " + std::to_string(i + 1), holes_of(c.channels[i], c));
}

void UnderTeller::few_bolts() {
    for (std::size_t i = 0; i < in_.choices.channels.size(); ++i) {
        const Channel& ch = in_.choices.channels[i];
        const auto which = count(static_cast<double>(i) + 1);
        if (ch.bolts == 1)
            add("under.few_bolts", Severity::watch,
                say("Channel {} hangs on one bolt and stiffens nothing: three hold it, in the middle and near both ends.", which),
                Vec2{ch.u_mm, ch.v_mm});
        else if (ch.bolts == 2)
            add("under.few_bolts", Severity::note,
                say("Channel {} has two bolts and none in its middle: nothing there is done up tight, and a hollow top is drawn at its "
                    "ends alone. Three are better.",
                    which),
                Vec2{ch.u_mm, ch.v_mm});
    }
}

void UnderTeller::slots_on_plates() {
    const auto& c = in_.choices;
    if (c.fixing != Fixing::slots) return;
    for (const Slot& s : p_.slots) {
        if (s.round) continue;
        const bool plate = s.part.kind == "plate";
        const std::size_t which = s.part.index;
        const double middle = plate ? c.plates.at(which).v_mm : c.channels.at(which).v_mm;
        const double half = (plate ? c.plates.at(which).across_mm : c.channels.at(which).length_mm) / 2;
        const double away = s.from_fixed_mm > 0 ? 1 : -1;
        const double outer = s.uv.y + away * (s.length_mm - s.bolt_from_inner_mm);
        const double inner = s.uv.y - away * s.bolt_from_inner_mm;
        const double left = half - std::max(std::abs(outer - middle), std::abs(inner - middle));
        if (left < 3) {
            add("under.slot_off", Severity::stop,
                say("A slot of {} leaves {} of steel at its end: {} from there to the bolt is too little. Set the last bolt further "
                    "in.",
                    key_of(s.part), fine(std::max(0.0, left)), fine(c.edge_mm)),
                s.uv);
            return;
        }
    }
}

}  // namespace yb
