#include "core/under/under.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/beam/beam.h"
#include "core/figure/choice.h"
#include "core/wood/cup.h"
#include "core/wood/lag.h"

namespace yb {

namespace {
constexpr double steel_mpa = 200e3;

/// n places from −half to half; one alone in the middle.
std::vector<double> spread(int n, double half) {
    std::vector<double> out;
    for (int i = 0; i < n; ++i) out.push_back(n == 1 ? 0 : -half + 2 * half * i / (n - 1));
    return out;
}
Ring box_around(Vec2 c, double along, double across) {
    return {{c.x - along / 2, c.y - across / 2},
            {c.x + along / 2, c.y - across / 2},
            {c.x + along / 2, c.y + across / 2},
            {c.x - along / 2, c.y + across / 2}};
}
}  // namespace

std::vector<Vec2> holes_of(const LegPlate& p, const UnderChoices& c) {
    std::vector<Vec2> out;
    for (const double du : spread(p.bolts_along, std::max(0.0, p.along_mm / 2 - c.edge_mm)))
        for (const double dv : spread(p.bolts_across, std::max(0.0, p.across_mm / 2 - c.edge_mm)))
            out.push_back({p.u_mm + du, p.v_mm + dv});
    return out;
}

std::vector<Vec2> holes_of(const Channel& ch, const UnderChoices& c) {
    std::vector<Vec2> out;
    for (const double dv : spread(ch.bolts, std::max(0.0, ch.length_mm / 2 - c.edge_mm))) out.push_back({ch.u_mm, ch.v_mm + dv});
    return out;
}

Ring footprint(const LegPlate& p) { return box_around({p.u_mm, p.v_mm}, p.along_mm, p.across_mm); }
Ring footprint(const Channel& c) { return box_around({c.u_mm, c.v_mm}, c.width_mm, c.length_mm); }

UnderChoices starting_under(const WantedTop& t) {
    UnderChoices c;
    const double across = std::floor(t.width_mm * 0.7 / 10) * 10;
    for (const double side : {-1.0, 1.0}) {
        c.plates.push_back({side * std::round(t.length_mm * 0.31), 0, 100, across, 3, 1});
        c.channels.push_back({side * std::round(t.length_mm * 0.16), 0, across, 40, 12, 3, 3});
    }
    return c;
}

Passage through_door(double width, double thick, double height, double door_wide, double door_high) {
    const auto goes = [&](double a, double b) { return (a <= door_wide && b <= door_high) || (b <= door_wide && a <= door_high); };
    return {goes(width, thick), goes(width, height)};
}

double channel_inertia(double width, double depth, double wall) {
    const double walls_area = 2 * wall * depth;
    const double web_width = std::max(0.0, width - 2 * wall);
    const double web_area = web_width * wall;
    const double y = (walls_area * depth / 2 + web_area * wall / 2) / (walls_area + web_area);
    return 2 * wall * depth * depth * depth / 12 + walls_area * (depth / 2 - y) * (depth / 2 - y) + web_width * wall * wall * wall / 12 +
           web_area * (y - wall / 2) * (y - wall / 2);
}

namespace {

class Planner {
  public:
    explicit Planner(const UnderInputs& in) : in_(in), top_(in.top), frame_(in.top.bench) {}

    UnderPlan run() {
        if (!top_.ready) return p_;
        for (std::size_t i = 0; i < top_.leaves; ++i) {
            const Region& leaf = top_.regions[i];
            if (leaf.species && leaf.species->shrink_tangential_pct) continue;
            add("under.species", Severity::stop,
                say("Which wood this is is not said, or its shrinkage is not known: the movement can't be worked "
                    "out. Choose the species on the rack."));
            if (top_.leaves > 1) p_.cautions.back().of = leaf.name;
            return p_;
        }
        species_ = top_.regions.front().species;
        p_.ready = true;
        seasons();
        p_.leg_mm = top_.wanted.height_mm - top_.thickness_mm - in_.choices.feet_mm - (in_.choices.plate_let_in ? 0 : in_.choices.plate_mm);
        slots();
        pockets();
        base();
        held_flat();
        p_.top_kg = top_.mass_known ? top_.mass_kg : 0;
        if (!top_.mass_known)
            add("under.density", Severity::watch,
                say("The species table has no specific gravity for this wood: the top's weight is not known. Weigh an offcut."));
        p_.wood_left_mm = p_.slots.empty()
                              ? top_.thickness_mm - in_.choices.insert_mm - (in_.choices.plate_let_in ? in_.choices.plate_mm : 0)
                              : std::min_element(p_.slots.begin(), p_.slots.end(), [](const Slot& a, const Slot& b) {
                                    return a.made.above_mm < b.made.above_mm;
                                })->made.above_mm;
        through_the_year();
        standing();
        figures();
        cautions();
        choices();
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    /// Month by month: the wood follows the room's air, the slower the thicker it is and the better it is covered.
    void through_the_year() {
        std::array<double, 12> air{};
        for (std::size_t m = 0; m < 12; ++m) air[m] = equilibrium_moisture(in_.room.months[m].temp_c, in_.room.months[m].rh_pct);
        const double face = in_.choices.covered == Covered::bare ? bare_s_m : in_.choices.covered == Covered::oil ? oiled_s_m : filmed_s_m;
        p_.lag_days = lag_days(std::max(1.0, top_.thickness_mm), face);
        p_.month_pct = lagged(air, p_.lag_days);
        for (Slot& s : p_.slots)
            for (std::size_t m = 0; m < 12; ++m) {
                const double away = travel(s.uv, std::clamp(p_.month_pct[m], 0.0, 30.0));
                s.month_mm[m] = s.round ? 0 : away;
            }
    }

    /// Feet as typed, or at the corners of what the plates cover.
    void standing() {
        const auto& c = in_.choices;
        if (c.plates.empty() || p_.top_kg <= 0) return;
        Box box{{1e300, 1e300}, {-1e300, -1e300}};
        for (const LegPlate& p : c.plates)
            for (const Vec2 q : footprint(p)) {
                box.low = {std::min(box.low.x, q.x), std::min(box.low.y, q.y)};
                box.high = {std::max(box.high.x, q.x), std::max(box.high.y, q.y)};
            }
        const Vec2 middle = lerp(box.low, box.high, 0.5);
        const double l = c.foot_along_mm.value_or(box.width()) / 2;
        const double w = c.foot_across_mm.value_or(box.height()) / 2;
        p_.feet = {middle + Vec2{-l, -w}, middle + Vec2{l, -w}, middle + Vec2{l, w}, middle + Vec2{-l, w}};
        if (!c.foot_along_mm && !c.foot_across_mm && p_.base.feet.size() > 2) p_.feet = p_.base.feet;
        // The balance point of all that is there, each region at its own middle.
        Vec2 at;
        double kg = 0;
        for (const Region& r : top_.regions)
            if (r.mass_kg > 0 && r.above.size() > 2) at = at + centroid(r.above) * r.mass_kg, kg += r.mass_kg;
        if (kg <= 0 || top_.wanted.height_mm <= 0) return;
        p_.tipping = tip({top_.above, p_.top_kg, at * (1 / kg), c.base_kg, middle, p_.feet, top_.wanted.height_mm});
        // As a plank on the two outermost plates.
        if (!species_->moe_mpa || top_.cross_cut()) return;
        double low = 1e300;
        double high = -1e300;
        for (const LegPlate& p : c.plates) low = std::min(low, p.u_mm), high = std::max(high, p.u_mm);
        const Box rim = bounds(top_.above);
        if (high - low < 100 || low < rim.low.x || high > rim.high.x) return;
        const double volume_m3 = area(top_.above) * top_.thickness_mm * 1e-9;
        const Plank plank = plank_of(top_.above, top_.thickness_mm, *species_->moe_mpa, volume_m3 > 0 ? p_.top_kg / volume_m3 : 0);
        p_.sag_mm = 2 * bend(plank, low, high, {{(low + high) / 2, c.person_n}}).at((low + high) / 2);
    }

    void seasons() {
        const MoistureRange room = moisture_range(in_.room);
        const double shop = equilibrium_moisture(in_.shop_air.temp_c, in_.shop_air.rh_pct);
        // Movement stops at fibre saturation.
        p_.low_pct = room.low_pct, p_.high_pct = room.high_pct;
        bool read = false;
        for (std::size_t i = 0; i < top_.leaves; ++i) {
            const auto& own = top_.regions[i].moisture_pct;
            read = read || own.has_value();
            const double pct = in_.choices.day_moisture_pct.value_or(own.value_or(shop));
            p_.read_pct = std::max(p_.read_pct, pct);
            leaf_pct_.push_back(std::clamp(pct, 0.0, 30.0));
            p_.low_pct = std::min(p_.low_pct, leaf_pct_.back());
            p_.high_pct = std::min(30.0, std::max(p_.high_pct, leaf_pct_.back()));
        }
        p_.day_pct = std::clamp(p_.read_pct, 0.0, 30.0);
        day_from_ = in_.choices.day_moisture_pct ? "typed for the day"
                    : read                       ? top_.leaves > 1 ? "meter, the dampest leaf" : "meter, on the slab"
                                                 : "shop air";
        p_.fixed_v_mm = fixed_at(in_.choices.fixed);
        wide_ = top_.widest();
        p_.wood_mm = wide_.wood_mm;
        p_.travel_mm = top_.widens(wide_.u_mm, wide_.low_v, wide_.high_v, p_.low_pct, p_.high_pct);
        for (const Across& a : top_.across(wide_.u_mm))
            if (const Region& r = top_.regions[a.region]; r.wood() && wide_.wood_mm > 0)
                p_.shrink_pct += r.shrinkage(a.from, a.to).value_or(0) * (a.to - a.from) / wide_.wood_mm;
    }

    /// How far a hole travels away from the fixed line from the day to a moisture: only the wood between the two moves.
    double travel(Vec2 uv, double to_pct) const { return top_.widens(uv.x, p_.fixed_v_mm, uv.y, leaf_pct_, to_pct); }

    void slots() {
        const auto& c = in_.choices;
        const auto add_hole = [&](const std::string& part, Vec2 uv) {
            Slot s;
            s.part = part, s.uv = uv, s.from_fixed_mm = uv.y - p_.fixed_v_mm;
            s.travel_out_mm = std::max(0.0, travel(uv, p_.high_pct));
            s.travel_in_mm = std::max(0.0, -travel(uv, p_.low_pct));
            s.round = std::abs(s.from_fixed_mm) < c.bolt_mm;
            const double need = c.bolt_mm + c.play_mm + s.travel_in_mm + s.travel_out_mm;
            s.length_mm = s.round ? c.bolt_mm : std::ceil(need * 2 - 1e-9) / 2;
            s.bolt_from_inner_mm = s.round ? c.bolt_mm / 2 : c.bolt_mm / 2 + c.play_mm / 2 + s.travel_in_mm;
            const bool plate = part.starts_with("plate");
            s.made = make_hole({s.travel_out_mm, s.travel_in_mm, s.round, top_.thickness_mm, plate && c.plate_let_in ? c.plate_mm : 0,
                                species_->specific_gravity_12},
                               c);
            p_.slots.push_back(s);
        };
        for (std::size_t i = 0; i < c.plates.size(); ++i)
            for (const Vec2 h : holes_of(c.plates[i], c)) add_hole("plate " + std::to_string(i + 1), h);
        for (std::size_t i = 0; i < c.channels.size(); ++i)
            for (const Vec2 h : holes_of(c.channels[i], c)) add_hole("channel " + std::to_string(i + 1), h);
    }

    void pockets() {
        const auto& c = in_.choices;
        const double e_across = species_->moe_mpa.value_or(0) / 15;
        for (std::size_t i = 0; i < c.channels.size(); ++i) {
            const Channel& ch = c.channels[i];
            const double left = -travel({ch.u_mm, ch.v_mm + ch.length_mm / 2}, p_.low_pct);
            const double right = -travel({ch.u_mm, ch.v_mm - ch.length_mm / 2}, p_.low_pct);
            Pocket k{i, std::ceil(ch.length_mm + std::max(0.0, left) + std::max(0.0, right) + 2 * c.play_mm), 0};
            const double serves = top_.wanted.length_mm / static_cast<double>(c.channels.size());
            const double wood = e_across * serves * std::pow(std::max(0.0, top_.thickness_mm), 3) / 12;
            const double steel = steel_mpa * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm);
            k.stiffness_share = e_across > 0 ? steel / (steel + wood) : 0;
            p_.pockets.push_back(k);
        }
    }

    /// Its base, the shims of its plates, room for knees, the door.
    void base() {
        const auto& c = in_.choices;
        try {
            if (p_.leg_mm > 0) p_.base = plan_base({c, p_.leg_mm});
        } catch (const std::invalid_argument& e) {
            p_.base_wrong = e.what();
        }
        // The top rests where nothing hangs off it: every other corner is packed by its own gap.
        double least = 1e300;
        for (const LegPlate& p : c.plates)
            for (const auto& gap : p.gaps_mm) least = gap ? std::min(least, *gap) : least;
        for (const LegPlate& p : c.plates) {
            std::array<double, 4> shim{};
            for (std::size_t k = 0; k < std::min<std::size_t>(4, p.gaps_mm.size()); ++k) shim[k] = p.gaps_mm[k] ? *p.gaps_mm[k] - least : 0;
            if (least < 1e300) p_.shims_mm.push_back(shim);
        }
        p_.clear_mm = p_.leg_mm + c.feet_mm;
        if (c.base == BaseKind::trestle) p_.clear_mm = std::max(0.0, p_.clear_mm - c.leg_wide_mm);
        p_.end_overhang_mm = top_.wanted.length_mm / 2;
        for (const LegPlate& p : c.plates)
            p_.end_overhang_mm = std::min(p_.end_overhang_mm, top_.wanted.length_mm / 2 - std::abs(p.u_mm) - p.along_mm / 2);
        p_.passage = through_door(wide_.width_mm, top_.thickness_mm, std::max(1.0, top_.wanted.height_mm), c.door_wide_mm, c.door_high_mm);
    }

    /// With channels and without.
    void held_flat() {
        const auto& c = in_.choices;
        if (c.channels.empty() || !species_->moe_mpa || wide_.width_mm <= 0 || top_.thickness_mm <= 0) return;
        const auto free = face_cup_mm(*species_, wide_.width_mm, top_.thickness_mm, (p_.low_pct + p_.high_pct) / 2, c.damper_pct);
        if (!free) return;
        HeldFlat h;
        h.free_mm = std::abs(*free);
        const double wood = *species_->moe_mpa / 15 * top_.wanted.length_mm * std::pow(top_.thickness_mm, 3) / 12;
        double steel = 0;
        for (const Channel& ch : c.channels) steel += steel_mpa * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm);
        h.share = steel / (steel + wood);
        h.held_mm = h.free_mm * (1 - h.share);
        // Bent by what cup is left, as a beam on its outer bolts drawn in the middle.
        const double bend = 8 * h.held_mm / (wide_.width_mm * wide_.width_mm);
        for (const Channel& ch : c.channels) {
            const double span = std::max(1.0, ch.length_mm - 2 * c.edge_mm);
            const double down = bend * span * span / 8;
            h.bolt_n =
                std::max(h.bolt_n, 48 * steel_mpa * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm) * down / std::pow(span, 3));
        }
        p_.held = h;
    }

    const Slot* longest() const {
        const auto it =
            std::max_element(p_.slots.begin(), p_.slots.end(), [](const Slot& a, const Slot& b) { return a.length_mm < b.length_mm; });
        return it == p_.slots.end() ? nullptr : &*it;
    }

    void figures() {
        const std::string handbook = "Wood Handbook FPL-GTR-190, eq. 13-3 and 4-5";
        std::vector<Given> moving{{"moisture on the day", percent(p_.day_pct), day_from_},
                                  {"driest", percent(p_.low_pct), in_.room.name},
                                  {"dampest", percent(p_.high_pct), in_.room.name},
                                  {"shrinkage across", percent(p_.shrink_pct),
                                   top_.cross_cut()     ? "species table, radial: a cross-cut moves from its pith outward"
                                   : every_pith_known() ? "species table, ring angle from the pith"
                                                        : "species table, tangential where the pith is not known: the most it can be"},
                                  {"wood across, at its widest", mm(p_.wood_mm), "leaf by leaf; resin and air do not move"}};
        p_.figures.push_back({"under.travel",
                              "The top moves, dry to damp",
                              fine(p_.travel_mm),
                              {},
                              top_.cross_cut() ? say("{} wide at most; a cross-cut moves as much along", mm(wide_.width_mm))
                              : p_.wood_mm < wide_.width_mm - 1
                                  ? say("{} of {} is wood; nothing to speak of along", mm(p_.wood_mm), mm(wide_.width_mm))
                                  : say("{} wide at most; nothing to speak of along", mm(wide_.width_mm)),
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
                   {"E_L, MPa", number(species_->moe_mpa.value_or(0)), "species table"},
                   {"thickness", fine(top_.thickness_mm), "Flat"}},
                  "Euler–Bernoulli; how far it helps is disputed: judge for yourself"}});
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
            if (end < 200)
                add("under.channel_end", Severity::watch,
                    say("Channel {} lies {} from the end. Keep it a few hand-widths in, or the end splits.",
                        count(static_cast<double>(i + 1)), mm(end)),
                    Vec2{ch.u_mm, ch.v_mm});
        }
    }

    void clash_checks() {
        const auto& c = in_.choices;
        for (std::size_t i = 0; i < c.channels.size(); ++i) {
            for (std::size_t j = 0; j < c.plates.size(); ++j)
                if (intersection_area(footprint(c.channels[i]), footprint(c.plates[j])) > 1)
                    add("under.clash", Severity::stop,
                        say("Channel {} runs under plate {}. Slide one along; leave a finger's width between.",
                            count(static_cast<double>(i + 1)), count(static_cast<double>(j + 1))),
                        Vec2{c.channels[i].u_mm, c.channels[i].v_mm});
            for (std::size_t j = i + 1; j < c.channels.size(); ++j)
                if (intersection_area(footprint(c.channels[i]), footprint(c.channels[j])) > 1)
                    add("under.clash", Severity::stop,
                        say("Channels {} and {} lie over each other.", count(static_cast<double>(i + 1)),
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
            if (r.wood() || ring.size() < 3 || r.low_mm >= in_.choices.insert_mm || !contains(ring, s.uv)) continue;
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
        if (species_->shrink_radial_pct) {
            const double round = 3.14159265358979 * wide_.width_mm;
            const double opens = movement(round, *species_->shrink_radial_pct, p_.day_pct, p_.low_pct) -
                                 movement(round, *species_->shrink_tangential_pct, p_.day_pct, p_.low_pct);
            if (opens > 0.5)
                add("under.rim_crack", opens > 4 ? Severity::stop : Severity::watch,
                    say("A cross-cut shrinks more around than towards its pith: from {} to {} a crack of up to {} opens at the rim. Dry it "
                        "further first, or saw it open from rim to pith and let in a wedge.",
                        percent(p_.day_pct), percent(p_.low_pct), fine(opens)),
                    Vec2{0, -wide_.width_mm / 2});
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
        if (p_.wood_left_mm < c.least_above_mm)
            add("under.through", p_.wood_left_mm < 3 ? Severity::stop : Severity::watch,
                say("Insert and bolt go {} deep and leave {} of wood above; you want {}. Drill to a stop and take a shorter one.",
                    fine(c.insert_mm), fine(p_.wood_left_mm), fine(c.least_above_mm)));
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
        if (p_.day_pct > room.high_pct + 2)
            add("under.wet", Severity::stop,
                say("The wood reads {}; in the room it settles between {} and {}. Let it dry before the last flattening: it "
                    "will shrink {} across.",
                    percent(p_.read_pct), percent(room.low_pct), percent(room.high_pct),
                    fine(-top_.widens(wide_.u_mm, wide_.low_v, wide_.high_v, leaf_pct_, (room.low_pct + room.high_pct) / 2))));
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
        for (const Slot& s : p_.slots) anchored = anchored || s.round;
        if (!p_.slots.empty() && !anchored)
            add("under.no_fixed", Severity::watch,
                say("No hole sits on the fixed line: the top can wander. Take an odd number of bolts across, or move a plate."));
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
                    mm(c.door_wide_mm), mm(c.door_high_mm), mm(wide_.width_mm)));
        else if (!p_.passage.assembled && !c.plates.empty())
            add("under.door", Severity::note,
                say("Put together it does not go through a door of {} by {}: carry top and base in apart, bolts in a bag with the book.",
                    mm(c.door_wide_mm), mm(c.door_high_mm)));
        if (p_.held && p_.held->bolt_n > 3000)
            add("under.held", Severity::watch,
                say("Held back, the cup pulls {} N at a channel's middle bolt: more bolts, or a lighter channel that gives. An estimate.",
                    number(std::round(p_.held->bolt_n))));
    }

    /// A slot has to end before its plate does.
    void slots_on_plates() {
        const auto& c = in_.choices;
        if (c.fixing != Fixing::slots) return;
        for (const Slot& s : p_.slots) {
            if (s.round || !s.part.starts_with("plate ")) continue;
            const LegPlate& plate = c.plates.at(std::stoul(s.part.substr(6)) - 1);
            const double away = s.from_fixed_mm > 0 ? 1 : -1;
            const double outer = s.uv.y + away * (s.length_mm - s.bolt_from_inner_mm);
            const double inner = s.uv.y - away * s.bolt_from_inner_mm;
            const double left = plate.across_mm / 2 - std::max(std::abs(outer - plate.v_mm), std::abs(inner - plate.v_mm));
            if (left < 3) {
                add("under.slot_off", Severity::stop,
                    say("A slot of {} leaves {} of steel at its end: {} from the plate's end to the bolt is too little. Set the last bolt "
                        "further "
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
                say("About {} for each of {} to lift. Get {} people or a hoist, and mind feet and fingers. An estimate; "
                    "your judgement and local rules stand above it.",
                    kg(each), count(people), count(std::ceil(p_.top_kg / 25))));
    }

    void choices() {
        std::vector<Phrase> says;
        for (const FixedLine line : fixed_lines.values) {
            const double v = fixed_at(line);
            double most = 0;
            for (const Slot& s : p_.slots) most = std::max(most, std::abs(top_.widens(s.uv.x, v, s.uv.y, p_.low_pct, p_.high_pct)));
            says.push_back(say("outermost bolt travels {}", fine(most)));
        }
        p_.choices.push_back(choice_of(fixed_lines, in_.choices, std::move(says)));
        std::vector<Phrase> covers;
        for (const double face : {bare_s_m, oiled_s_m, filmed_s_m})
            covers.push_back(say("follows the air {} later", hours(24 * lag_days(std::max(1.0, top_.thickness_mm), face))));
        p_.choices.push_back(choice_of(covereds, in_.choices, std::move(covers)));
        p_.choices.push_back(choice_of(fixings, in_.choices, with_each_fixing()));
        p_.choices.push_back(choice_of(base_kinds, in_.choices, with_each_base()));
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
            const HoleMade m = make_hole({furthest->travel_out_mm, furthest->travel_in_mm, furthest->round, top_.thickness_mm, 0, {}}, c);
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
                    out.push_back(say("{} pieces, {} of wood", count(pieces), litres(base.volume_l)));
                } catch (const std::invalid_argument&) {
                    out.push_back(say("can't be built so low or so narrow"));
                }
        }
        return out;
    }

    double fixed_at(FixedLine line) const {
        const double left = top_.wanted.width_mm / 2;
        return line == FixedLine::middle ? 0 : line == FixedLine::left ? left : -left;
    }

    const UnderInputs& in_;
    const Top& top_;
    Frame frame_;
    const Species* species_ = nullptr;  ///< of the first leaf: the stiffness across, and a cross-cut's rim
    std::string day_from_;
    std::vector<double> leaf_pct_;  ///< moisture of each leaf on the day, 30 % at most
    Top::Widest wide_;
    UnderPlan p_;
};

}  // namespace

UnderPlan plan_under(const UnderInputs& in) { return Planner(in).run(); }

}  // namespace yb
