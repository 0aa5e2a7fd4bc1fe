#include "core/under/told.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/figure/choice.h"
#include "core/wood/lag.h"

namespace yb {

double fixed_at(FixedLine line, const Top& top) {
    const double left = top.wanted.width_mm / 2;
    return line == FixedLine::middle ? 0 : line == FixedLine::left ? left : -left;
}

namespace {

class Teller {
  public:
    Teller(const UnderInputs& in, const UnderKnown& of, UnderPlan& p) : in_(in), top_(in.top), frame_(in.top.bench), of_(of), p_(p) {}

    void tell() {
        figures();
        cautions();
        choices();
    }

  private:
    const Slot* longest() const {
        const auto it =
            std::max_element(p_.slots.begin(), p_.slots.end(), [](const Slot& a, const Slot& b) { return a.length_mm < b.length_mm; });
        return it == p_.slots.end() ? nullptr : &*it;
    }

    void figures() {
        const std::string handbook = "Wood Handbook FPL-GTR-190, eq. 13-3 and 4-5";
        std::vector<Given> moving{
            {"moisture on the day", percent(p_.day_pct), of_.day_from},
            {"driest", percent(p_.low_pct), of_.low_from},
            {"dampest", percent(p_.high_pct), of_.high_from},
            {"shrinkage across", percent(p_.shrink_pct),
             top_.cross_cut()                 ? "species table, radial: a cross-cut moves from its pith outward"
             : every_pith_known()             ? "species table, ring angle from the pith"
             : in_.choices.sawn == Sawn::flat ? "species table, tangential where the pith is not known: the most it can be"
             : in_.choices.sawn == Sawn::rift ? "species table, half tangential, half radial where the pith is not known"
                                              : "species table, radial where the pith is not known"},
            {"wood across, at its widest", mm(p_.wood_mm), "leaf by leaf; resin and air do not move"}};
        p_.figures.push_back({"under.travel",
                              "The top moves, dry to damp",
                              fine(p_.travel_mm),
                              {},
                              top_.cross_cut() ? say("{} wide at most; a cross-cut moves as much along", mm(of_.wide.width_mm))
                              : p_.wood_mm < of_.wide.width_mm - 1
                                  ? say("{} of {} is wood; nothing to speak of along", mm(p_.wood_mm), mm(of_.wide.width_mm))
                                  : say("{} wide at most; nothing to speak of along", mm(of_.wide.width_mm)),
                              {"ΔD = D (M1 − M0) / (3000/S − 30 + M0)", moving, handbook}});
        if (const Slot* s = longest()) {
            auto given = moving;
            given.push_back({"from the fixed line", mm(std::abs(s->from_fixed_mm)), s->part});
            given.push_back({"bolt", fine(in_.choices.bolt_mm), "the maker's"});
            given.push_back({"play", fine(in_.choices.play_mm), "the maker's"});
            given.push_back({"travel out", fine(s->travel_out_mm), "day to dampest"});
            given.push_back({"travel in", fine(s->travel_in_mm), "day to driest"});
            p_.figures.push_back(holding(*s, std::move(given), handbook));
        }
        p_.figures.push_back(
            {"under.leg",
             "Leg height",
             fine(p_.leg_mm),
             {},
             in_.choices.plate_let_in ? say("plate let in") : say("below the plate"),
             {in_.choices.plate_let_in ? "table height − finished thickness − feet" : "table height − finished thickness − feet − plate",
              {{"table height", mm(top_.wanted.height_mm), "wanted top"},
               {"finished thickness", fine(top_.thickness_mm), "Flat"},
               {"feet", fine(in_.choices.feet_mm), "the maker's"},
               {"plate", fine(in_.choices.plate_mm), "the maker's"}},
              ""}});
        if (p_.top_kg > 0)
            p_.figures.push_back({"under.mass",
                                  "The top weighs about",
                                  kg(p_.top_kg),
                                  {},
                                  say("an estimate for your judgement"),
                                  {"Σ volume × density of all that is there; wood 1000 × G12 × (1 + M/100)", weights(),
                                   "volumes between the finished planes, Simpson's rule; Wood Handbook FPL-GTR-190, table 5-3a"}});
        if (!p_.pockets.empty()) {
            const Pocket& k = p_.pockets.front();
            std::vector<Given> beside;
            if (p_.held) {
                beside.push_back({"cup without anything", fine(p_.held->free_mm), "one face damper"});
                beside.push_back({"cup with the channels", fine(p_.held->held_mm), "their share of the stiffness taken off"});
                beside.push_back(
                    {"cup with bow ties or resin instead", fine(p_.held->free_mm), "they keep a crack shut, and nothing flat"});
                if (p_.held->bolt_n > 0)
                    beside.push_back(
                        {p_.held->bolts > 2 ? "pulls at a channel's middle bolt, N" : "pulls at each of a channel's two bolts, N",
                         number(std::round(p_.held->bolt_n)), p_.held->bolts > 2 ? "48·E·I·δ/L³" : "24·E·I·δ/L³"});
            }
            p_.figures.push_back(
                {"under.channel",
                 "Channel carries, across the grain",
                 percent(k.stiffness_share * 100),
                 {},
                 p_.held ? say("one face {} damper: it cups {} without, {} with them", percent(in_.choices.damper_pct),
                               fine(p_.held->free_mm), fine(p_.held->held_mm))
                         : Phrase(),
                 {"E_s I_s / (E_s I_s + E_T I_w), E_s = 200 GPa, E_T = E_L/15",
                  {{"I of the channel, mm⁴",
                    number(std::round(channel_inertia(in_.choices.channels.front().width_mm, in_.choices.channels.front().depth_mm,
                                                      in_.choices.channels.front().wall_mm))),
                    "its section"},
                   {"E_L, MPa", number(of_.species->moe_mpa.value_or(0)), "species table"},
                   {"thickness", fine(top_.thickness_mm), "Flat"}},
                  "Euler–Bernoulli; how far it helps is disputed: judge for yourself"}});
            auto& given = p_.figures.back().working.given;
            given.insert(given.end(), beside.begin(), beside.end());
        }
    }

    /// The hole that travels furthest, as what holds it there asks for it.
    Figure holding(const Slot& s, std::vector<Given> given, const std::string& handbook) const {
        const HoleMade& m = s.made;
        switch (in_.choices.fixing) {
            case Fixing::slots: break;
            case Fixing::oversize:
                return {"under.hole",
                        "Largest hole, and its washer",
                        fine(m.opening_mm),
                        fine(m.washer_mm),
                        say("round, in the plate; the washer covers it wherever the bolt stands"),
                        {"hole = bolt + play + 2 × the further travel; washer = hole + 2 × that + 6 mm", std::move(given), handbook}};
            case Fixing::figure_eight:
                return {"under.swing",
                        "Swings, furthest, of what it may",
                        fine(std::max(s.travel_out_mm, s.travel_in_mm)),
                        fine(m.lets_go_mm),
                        say("in a round recess; free to swing across"),
                        {"its holes' distance × sin 45°", std::move(given), handbook}};
            case Fixing::clips:
            case Fixing::buttons:
                return {"under.gap",
                        "Set back on the day, furthest",
                        fine(m.gap_mm),
                        {},
                        say("then {} of way outward before the tongue holds less than {}", fine(std::max(0.0, m.lets_go_mm)),
                            fine(tongue_holds_mm)),
                        {"travel in + 1 mm, up to the next half", std::move(given), handbook}};
        }
        return {"under.slot",
                "Longest slot",
                fine(s.length_mm),
                {},
                say("bolt {} from its inner end on the day", fine(s.bolt_from_inner_mm)),
                {"slot = bolt + play + travel in + travel out", std::move(given), handbook}};
    }

    bool every_pith_known() const {
        return std::all_of(top_.regions.begin(), top_.regions.begin() + static_cast<std::ptrdiff_t>(top_.leaves),
                           [](const Region& r) { return r.pith_mm.has_value(); });
    }

    /// What each region weighs; fillings of the same resin in one line.
    std::vector<Given> weights() const {
        std::vector<Given> out;
        double fillings_kg = 0;
        double fillings_l = 0;
        for (const Region& r : top_.regions) {
            if (r.kind == RegionKind::resin && r.let_in) fillings_kg += r.mass_kg, fillings_l += r.volume_l;
            else if (r.mass_kg > 0)
                out.push_back({r.name, kg(r.mass_kg),
                               format(litres(r.volume_l), Units::metric()) + " at " + std::to_string(std::lround(r.kg_m3)) + " kg/m³"});
        }
        if (fillings_kg > 0) out.push_back({"fillings", kg(fillings_kg), format(litres(fillings_l), Units::metric()) + " of resin"});
        return out;
    }

    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> uv = {}) {
        p_.cautions.push_back(
            {std::move(key), s, step_key::under, std::move(says), uv ? std::optional(frame_.to_slab(*uv)) : std::nullopt});
    }

    void cautions() {
        const auto& c = in_.choices;
        if (c.plates.empty())
            add("under.no_plates", Severity::watch, say("No leg plates are laid yet. Lay two, a fifth in from each end."));
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

    void inside_checks() {
        const auto& c = in_.choices;
        const auto check = [&](const Ring& uv, Vec2 mid, const std::string& what) {
            if (intersection_area(uv, top_.below) < area(uv) - 1)
                add("under.outside", Severity::stop,
                    say("The {} at {} stands past the edge of the top. Move it in or take a smaller one.", what,
                        along(frame_.to_slab(mid).x)),
                    mid);
        };
        for (std::size_t i = 0; i < c.plates.size(); ++i)
            check(footprint(c.plates[i]), {c.plates[i].u_mm, c.plates[i].v_mm}, "plate " + std::to_string(i + 1));
        for (std::size_t i = 0; i < c.channels.size(); ++i) {
            const Channel& ch = c.channels[i];
            check(footprint(ch), {ch.u_mm, ch.v_mm}, "channel " + std::to_string(i + 1));
            const double end = top_.wanted.length_mm / 2 - std::abs(ch.u_mm);
            if (end < 200 && end >= 0)  // past it is told above
                add("under.channel_end", Severity::watch,
                    say("Channel {} lies {} from the end. Keep it a few hand-widths in, or the end splits.",
                        count(static_cast<double>(i + 1)), mm(end)),
                    Vec2{ch.u_mm, ch.v_mm});
        }
    }

    /// A channel's pocket from below: longer than the channel.
    Ring pocket(std::size_t channel) const {
        Channel c = in_.choices.channels[channel];
        for (const Pocket& k : p_.pockets)
            if (k.channel == channel) c.length_mm = k.length_mm;
        return footprint(c);
    }

    void clash_checks() {
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
        for (const Slot& s : p_.slots) not_in_wood(s);
    }

    /// Inserts hold in wood: a hole in the open river has nothing, one in resin or in a void that reaches it holds badly.
    void not_in_wood(const Slot& s) {
        const double x = frame_.to_slab(s.uv).x;
        for (const Region& r : top_.regions) {
            const Ring& ring = r.below.empty() ? r.above : r.below;
            if (r.wood() || ring.size() < 3 || r.low_mm >= s.floor_mm + in_.choices.insert_mm || !contains(ring, s.uv)) continue;
            if (r.let_in)
                add("under.hole_in_void", Severity::watch,
                    say("A hole of {} lands in a void at {}. Inserts do not hold there: move it.", s.part, along(x)), s.uv);
            else if (r.kind == RegionKind::air)
                add("under.hole_in_river", Severity::stop,
                    say("A hole of {} lands in the open river at {}. Move the plate, or take one that reaches both leaves.", s.part,
                        along(x)),
                    s.uv);
            else
                add("under.hole_in_resin", Severity::watch,
                    say("A hole of {} lands in the river's resin at {}: an insert can crack it. Move it into the wood.", s.part, along(x)),
                    s.uv);
        }
    }

    /// Wood Handbook: round the rings it shrinks more than towards the pith; the difference opens at the rim.
    void cross_cut() {
        if (of_.species->shrink_radial_pct) {
            const double round = 3.14159265358979 * of_.wide.width_mm;
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

    void wood_left() {
        const auto& c = in_.choices;
        if (p_.slots.empty()) return;
        const Slot& s = *std::min_element(p_.slots.begin(), p_.slots.end(),
                                          [](const Slot& a, const Slot& b) { return a.made.above_mm < b.made.above_mm; });
        if (s.made.above_mm < 0.05)
            add("under.through", Severity::stop,
                s.floor_mm > 0
                    ? say("Drilled {} deep from the floor of its pocket, a hole of {} comes through the show face: {} of wood are there. "
                          "Take a shorter insert or a shallower pocket.",
                          fine(s.made.stop_mm), s.part, fine(std::max(0.0, top_.thickness_mm - s.floor_mm)))
                    : say("Drilled {} deep, a hole of {} comes through the show face: {} of wood are there. Take a shorter insert.",
                          fine(s.made.stop_mm), s.part, fine(top_.thickness_mm)),
                s.uv);
        else if (s.made.above_mm < c.least_above_mm)
            add("under.through", s.made.above_mm < 3 ? Severity::stop : Severity::watch,
                s.floor_mm > 0
                    ? say("Drilled {} deep from the floor of its pocket, a hole of {} leaves {} of wood above; you want {}. Drill to a "
                          "stop "
                          "and take a shorter insert.",
                          fine(s.made.stop_mm), s.part, fine(s.made.above_mm), fine(c.least_above_mm))
                    : say("Drilled {} deep, a hole of {} leaves {} of wood above; you want {}. Drill to a stop and take a shorter insert.",
                          fine(s.made.stop_mm), s.part, fine(s.made.above_mm), fine(c.least_above_mm)),
                s.uv);
        for (const Channel& ch : c.channels)
            if (ch.depth_mm > top_.thickness_mm / 2) {
                add("under.deep_channel", Severity::watch,
                    say("A channel pocket {} deep takes more than half of the {} there is.", fine(ch.depth_mm), fine(top_.thickness_mm)),
                    Vec2{ch.u_mm, ch.v_mm});
                break;
            }
    }

    void moisture_and_slots() {
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
                say("On the fixed line do the bolts up tight; outside it snug, with washer and thread lock, so that the top can slide."),
                s->uv);
        }
        bool anchored = false;
        for (const Slot& s : p_.slots) anchored = anchored || (s.round && s.part.starts_with("plate "));
        if (!in_.choices.plates.empty() && !anchored)
            add("under.no_fixed", Severity::watch,
                say("No hole sits on the fixed line: the top can wander. Take an odd number of bolts across, or move a plate."));
    }

    /// How wide it gets through the year, in words for who is to live with it.
    void for_the_client() {
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

    void loads() {
        const auto& c = in_.choices;
        if (c.inserts == InsertKind::hammer_in && !p_.slots.empty())
            add("under.hammer_in", Severity::watch,
                say("Hammer-in inserts pull out of wood: take screw-in ones, or machine bolts through."), p_.slots.front().uv);
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

    /// What holds it lets it go far enough; the base can be built; it stands without rocking; knees, doors.
    void fits() {
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
            const double past =
                std::max({rim.low.x - feet.low.x, feet.high.x - rim.high.x, rim.low.y - feet.low.y, feet.high.y - rim.high.y});
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
                say("{} are clear below the top and its base; knees want {}. Thinner bars, plates let in, or a higher table.",
                    mm(p_.clear_mm), mm(c.knee_mm)));
        if (!p_.passage.top_alone)
            add("under.door", Severity::stop,
                say("The top goes through no door of {} by {}, flat or on its edge: {} wide. Another way in, or halves joined on site.",
                    mm(c.door_wide_mm), mm(c.door_high_mm), mm(of_.wide.width_mm)));
        else if (!p_.passage.assembled && !c.plates.empty())
            add("under.door", Severity::note,
                say("Put together it does not go through a door of {} by {}: carry top and base in apart, bolts in a bag with the book.",
                    mm(c.door_wide_mm), mm(c.door_high_mm)));
        if (p_.held && p_.held->bolt_n > 3000)
            add("under.held", Severity::watch,
                p_.held->bolts > 2
                    ? say("Held back, the cup pulls {} N at a channel's middle bolt: more bolts, or a lighter channel that gives. An "
                          "estimate.",
                          number(std::round(p_.held->bolt_n)))
                    : say("Held back, the cup pulls {} N at each of a channel's two bolts: more bolts, or a lighter channel that gives. An "
                          "estimate.",
                          number(std::round(p_.held->bolt_n))));
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

    /// Bolts of one part nearer to one another than four of their diameters – a starting value – split the wood between them; a part
    /// that is shorter than twice the bolts' distance from its ends has two in one place.
    void bolts_apart() {
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

    /// A channel on one bolt hangs there; on two it has no middle one to be held tight at.
    void few_bolts() {
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

    /// Feet that hang above the floor: legs of unequal length, or a floor that is not flat.
    void standing_level() {
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

    void stair() {
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

    /// A slot has to end before its plate does.
    void slots_on_plates() {
        const auto& c = in_.choices;
        if (c.fixing != Fixing::slots) return;
        for (const Slot& s : p_.slots) {
            if (s.round) continue;
            const bool plate = s.part.starts_with("plate ");
            const std::size_t which = std::stoul(s.part.substr(s.part.find(' '))) - 1;
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
                        s.part, fine(std::max(0.0, left)), fine(c.edge_mm)),
                    s.uv);
                return;
            }
        }
    }

    void lifting() {
        if (p_.top_kg <= 0) return;
        const int people = std::max(1, in_.choices.helpers);
        const double each = p_.top_kg / people;
        if (each > 25)
            add("under.lift", each > 45 ? Severity::stop : Severity::watch,
                say("About {} for each of {} to lift. Get {} or a hoist, and mind feet and fingers. An estimate; "
                    "your judgement and local rules stand above it.",
                    kg(each), count(people), counted(std::ceil(p_.top_kg / 25), "person", "people")));
    }

    void choices() {
        std::vector<Phrase> says;
        for (const FixedLine line : fixed_lines.values) {
            const double v = fixed_at(line, top_);
            double most = 0;
            for (const Slot& s : p_.slots)
                if (s.part.starts_with("plate ")) most = std::max(most, std::abs(top_.widens(s.uv.x, v, s.uv.y, p_.low_pct, p_.high_pct)));
            says.push_back(say("outermost bolt travels {}", fine(most)));
        }
        p_.choices.push_back(choice_of(fixed_lines, in_.choices, std::move(says)));
        std::vector<Phrase> covers;
        for (const double face : {bare_s_m, oiled_s_m, filmed_s_m})
            covers.push_back(
                say("follows the air {} later", hours(24 * comes_later_days(lag_days(std::max(1.0, top_.thickness_mm), face)))));
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
        p_.choices.push_back(
            choice_of(insert_kinds, in_.choices,
                      {say("hold, and come out again"), say("quick, and pull out"), say("hold once; never in end grain")}));
        p_.choices.push_back(choice_of(plate_places, in_.choices,
                                       {say("leg {} shorter", fine(in_.choices.plate_mm)),
                                        say("pockets {} deep, {} of wood above", fine(in_.choices.plate_mm),
                                            fine(top_.thickness_mm - in_.choices.insert_mm - in_.choices.plate_mm))}));
    }

    /// What each way of holding the top asks for at the hole that travels furthest.
    std::vector<Phrase> with_each_fixing() const {
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

    /// How much the top would move, sawn so.
    std::vector<Phrase> with_each_sawing() const {
        std::vector<Phrase> out;
        Top other = top_;
        for (const Sawn way : sawns.values) {
            for (Region& r : other.regions) r.sawn = way;
            out.push_back(say("moves {} from dry to damp",
                              fine(other.widens(of_.wide.u_mm, of_.wide.low_v, of_.wide.high_v, p_.low_pct, p_.high_pct))));
        }
        return out;
    }

    std::vector<Phrase> with_each_bar_joint() const {
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

    std::vector<Phrase> with_each_base() const {
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

    const UnderInputs& in_;
    const Top& top_;
    Frame frame_;
    const UnderKnown& of_;
    UnderPlan& p_;
};

}  // namespace

void tell_under(const UnderInputs& in, const UnderKnown& of, UnderPlan& plan) { Teller(in, of, plan).tell(); }

}  // namespace yb
