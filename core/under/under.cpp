#include "core/under/under.h"

#include <algorithm>
#include <cmath>

namespace yb {

namespace {
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
    explicit Planner(const UnderInputs& in) : in_(in), frame_(in.placement.frame()) {}

    UnderPlan run() {
        species_ = find_species(in_.slab.species);
        if (!in_.flat.ready) return p_;
        if (!species_ || !species_->shrink_tangential_pct) {
            add("under.species", Severity::stop,
                say("Which wood this is is not said, or its shrinkage is not known: the movement can't be worked "
                    "out. Choose the species on the rack."));
            return p_;
        }
        p_.ready = true;
        seasons();
        slots();
        pockets();
        weight();
        p_.leg_mm = in_.top.height_mm - in_.flat.thickness_mm - in_.choices.feet_mm - (in_.choices.plate_let_in ? 0 : in_.choices.plate_mm);
        p_.wood_left_mm = in_.flat.thickness_mm - in_.choices.insert_mm - (in_.choices.plate_let_in ? in_.choices.plate_mm : 0);
        figures();
        cautions();
        choices();
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    void seasons() {
        const MoistureRange room = moisture_range(in_.room);
        const double shop = equilibrium_moisture(in_.shop_air.temp_c, in_.shop_air.rh_pct);
        p_.day_pct = in_.choices.day_moisture_pct.value_or(in_.slab.moisture_pct.value_or(shop));
        day_from_ = in_.choices.day_moisture_pct ? "typed for the day" : in_.slab.moisture_pct ? "meter, on the slab" : "shop air";
        // Movement stops at fibre saturation.
        p_.day_pct = std::clamp(p_.day_pct, 0.0, 30.0);
        p_.low_pct = std::min(room.low_pct, p_.day_pct);
        p_.high_pct = std::min(30.0, std::max(room.high_pct, p_.day_pct));
        const double left = in_.top.width_mm / 2;
        p_.fixed_v_mm = in_.choices.fixed == FixedLine::middle ? 0 : in_.choices.fixed == FixedLine::left ? left : -left;
        p_.shrink_pct = shrink(-in_.lay.widest_mm / 2, in_.lay.widest_mm / 2);
        p_.travel_mm = movement(in_.lay.widest_mm, p_.shrink_pct, p_.low_pct, p_.high_pct);
    }

    /// Mean shrinkage between two lines of the top; the pith is taken under the chalk line.
    double shrink(double v0, double v1) const {
        if (in_.slab.cross_cut) return species_->shrink_radial_pct.value_or(*species_->shrink_tangential_pct);
        const double y0 = frame_.to_slab({0, v0}).y;
        const double y1 = frame_.to_slab({0, v1}).y;
        return shrinkage_across(*species_, in_.slab.pith_mm, y0, y1);
    }

    double travel(double v, double to_pct) const {
        const double d = std::abs(v - p_.fixed_v_mm);
        return movement(d, shrink(p_.fixed_v_mm, v), p_.day_pct, to_pct);
    }

    void slots() {
        const auto& c = in_.choices;
        const auto add_hole = [&](const std::string& part, Vec2 uv) {
            Slot s{part, uv, uv.y - p_.fixed_v_mm, 0, 0, 0, 0, false};
            s.travel_out_mm = std::max(0.0, travel(uv.y, p_.high_pct));
            s.travel_in_mm = std::max(0.0, -travel(uv.y, p_.low_pct));
            s.round = std::abs(s.from_fixed_mm) < c.bolt_mm;
            const double need = c.bolt_mm + c.play_mm + s.travel_in_mm + s.travel_out_mm;
            s.length_mm = s.round ? c.bolt_mm : std::ceil(need * 2 - 1e-9) / 2;
            s.bolt_from_inner_mm = s.round ? c.bolt_mm / 2 : c.bolt_mm / 2 + c.play_mm / 2 + s.travel_in_mm;
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
            const double left = -travel(ch.v_mm + ch.length_mm / 2, p_.low_pct);
            const double right = -travel(ch.v_mm - ch.length_mm / 2, p_.low_pct);
            Pocket k{i, std::ceil(ch.length_mm + std::max(0.0, left) + std::max(0.0, right) + 2 * c.play_mm), 0};
            const double serves = in_.top.length_mm / static_cast<double>(c.channels.size());
            const double wood = e_across * serves * std::pow(std::max(0.0, in_.flat.thickness_mm), 3) / 12;
            const double steel = 200e3 * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm);
            k.stiffness_share = e_across > 0 ? steel / (steel + wood) : 0;
            p_.pockets.push_back(k);
        }
    }

    void weight() {
        if (!species_->specific_gravity_12) {
            add("under.density", Severity::watch,
                say("The species table has no specific gravity for this wood: the top's weight is not known. Weigh an offcut."));
            return;
        }
        const Vec2 c = centroid(in_.lay.outline);
        const double raw = std::max(1e-6, in_.shape.thickness_at(c));
        const double low = std::clamp((in_.flat.tilt.bottom_at(c) - in_.shape.bottom.at(c)) / raw, 0.0, 1.0);
        const double high = std::clamp((in_.flat.tilt.top_at(c) - in_.shape.bottom.at(c)) / raw, 0.0, 1.0);
        if (high <= low) return;
        gross_l_ = volume_m3(in_.shape, in_.lay.region, in_.flat.thickness_mm / (high - low), low, high) * 1000;
        const double voids = in_.fill.volume_l + in_.fill.open_l;
        density_ = density(*species_->specific_gravity_12, p_.day_pct);
        p_.top_kg = std::max(0.0, gross_l_ - voids) * density_ / 1000 + in_.fill.mass_kg;
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
                                   in_.slab.cross_cut ? "species table, radial: a cross-cut moves from its pith outward"
                                   : in_.slab.pith_mm ? "species table, ring angle from the pith"
                                                      : "species table, tangential: the most it can be"}};
        p_.figures.push_back({"under.travel",
                              "The top moves, dry to damp",
                              fine(p_.travel_mm),
                              {},
                              in_.slab.cross_cut ? say("{} wide at most; a cross-cut moves as much along", mm(in_.lay.widest_mm))
                                                 : say("{} wide at most; nothing to speak of along", mm(in_.lay.widest_mm)),
                              {"ΔD = D (M1 − M0) / (3000/S − 30 + M0)", moving, handbook}});
        if (const Slot* s = longest()) {
            auto given = moving;
            given.push_back({"from the fixed line", mm(std::abs(s->from_fixed_mm)), s->part});
            given.push_back({"bolt", fine(in_.choices.bolt_mm), "the maker's"});
            given.push_back({"play", fine(in_.choices.play_mm), "the maker's"});
            given.push_back({"travel out", fine(s->travel_out_mm), "day to dampest"});
            given.push_back({"travel in", fine(s->travel_in_mm), "day to driest"});
            p_.figures.push_back({"under.slot",
                                  "Longest slot",
                                  fine(s->length_mm),
                                  {},
                                  say("bolt {} from its inner end on the day", fine(s->bolt_from_inner_mm)),
                                  {"slot = bolt + play + travel in + travel out", given, handbook}});
        }
        p_.figures.push_back(
            {"under.leg",
             "Leg height",
             fine(p_.leg_mm),
             {},
             in_.choices.plate_let_in ? say("plate let in") : say("below the plate"),
             {in_.choices.plate_let_in ? "table height − finished thickness − feet" : "table height − finished thickness − feet − plate",
              {{"table height", mm(in_.top.height_mm), "wanted top"},
               {"finished thickness", fine(in_.flat.thickness_mm), "Flat"},
               {"feet", fine(in_.choices.feet_mm), "the maker's"},
               {"plate", fine(in_.choices.plate_mm), "the maker's"}},
              ""}});
        if (p_.top_kg > 0)
            p_.figures.push_back({"under.mass",
                                  "The top weighs about",
                                  kg(p_.top_kg),
                                  {},
                                  say("an estimate for your judgement"),
                                  {"(volume − voids) × 1000 × G12 × (1 + M/100) + resin",
                                   {{"volume", litres(gross_l_), "outline between the finished planes, Simpson's rule"},
                                    {"voids", litres(in_.fill.volume_l + in_.fill.open_l), "Fill"},
                                    {"density, kg/m³", number(std::round(density_)), "species table"},
                                    {"resin", kg(in_.fill.mass_kg), "Fill"}},
                                   "Wood Handbook FPL-GTR-190, table 5-3a"}});
        if (!p_.pockets.empty()) {
            const Pocket& k = p_.pockets.front();
            p_.figures.push_back(
                {"under.channel",
                 "Channel carries, across the grain",
                 percent(k.stiffness_share * 100),
                 {},
                 say("pocket {} for a {} channel", mm(k.length_mm), mm(in_.choices.channels.front().length_mm)),
                 {"E_s I_s / (E_s I_s + E_T I_w), E_s = 200 GPa, E_T = E_L/15",
                  {{"I of the channel, mm⁴",
                    number(std::round(channel_inertia(in_.choices.channels.front().width_mm, in_.choices.channels.front().depth_mm,
                                                      in_.choices.channels.front().wall_mm))),
                    "its section"},
                   {"E_L, MPa", number(species_->moe_mpa.value_or(0)), "species table"},
                   {"thickness", fine(in_.flat.thickness_mm), "Flat"}},
                  "Euler–Bernoulli; how far it helps is disputed: judge for yourself"}});
        }
    }

    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> uv = {}) {
        p_.cautions.push_back({std::move(key), s, Step::under, std::move(says), uv ? std::optional(frame_.to_slab(*uv)) : std::nullopt});
    }

    Ring on_slab(const Ring& uv) const { return frame_.to_slab(uv); }

    void cautions() {
        const auto& c = in_.choices;
        if (c.plates.empty())
            add("under.no_plates", Severity::watch, say("No leg plates are laid yet. Lay two, a fifth in from each end."));
        inside_checks();
        clash_checks();
        wood_left();
        moisture_and_slots();
        if (in_.slab.cross_cut) cross_cut();
        if (p_.leg_mm < 300)
            add("under.leg", Severity::stop,
                say("The leg comes out at {}: check the table height of {}.", fine(p_.leg_mm), mm(in_.top.height_mm)));
        lifting();
    }

    void inside_checks() {
        const auto& c = in_.choices;
        const auto check = [&](const Ring& uv, Vec2 mid, const std::string& what) {
            const Ring on = on_slab(uv);
            const double in = intersection_area(on, in_.lay.outline);
            if (in < area(on) - 1)
                add("under.outside", Severity::stop,
                    say("The " + what + " at {} stands past the edge of the top. Move it in or take a smaller one.",
                        along(frame_.to_slab(mid).x)),
                    mid);
        };
        for (std::size_t i = 0; i < c.plates.size(); ++i)
            check(footprint(c.plates[i]), {c.plates[i].u_mm, c.plates[i].v_mm}, "plate " + std::to_string(i + 1));
        for (std::size_t i = 0; i < c.channels.size(); ++i) {
            const Channel& ch = c.channels[i];
            check(footprint(ch), {ch.u_mm, ch.v_mm}, "channel " + std::to_string(i + 1));
            const double end = in_.top.length_mm / 2 - std::abs(ch.u_mm);
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
        for (const Slot& s : p_.slots)
            for (const Ring& gap : in_.gaps) {
                if (!contains(gap, frame_.to_slab(s.uv))) continue;
                add("under.hole_in_river", Severity::stop,
                    say("A hole of " + s.part + " lands in the open river at {}. Move the plate, or take one that reaches both leaves.",
                        along(frame_.to_slab(s.uv).x)),
                    s.uv);
            }
        for (const Slot& s : p_.slots)
            for (const VoidPlan& v : in_.fill.voids) {
                if (!contains(in_.slab.flaws[v.flaw].outline, frame_.to_slab(s.uv))) continue;
                add("under.hole_in_void", Severity::watch,
                    say("A hole of " + s.part + " lands in a void at {}. Inserts do not hold there: move it.",
                        along(frame_.to_slab(s.uv).x)),
                    s.uv);
            }
    }

    /// Wood Handbook: round the rings it shrinks more than towards the pith; the difference opens at the rim.
    void cross_cut() {
        if (species_->shrink_radial_pct) {
            const double round = 3.14159265358979 * in_.lay.widest_mm;
            const double opens = movement(round, *species_->shrink_radial_pct, p_.day_pct, p_.low_pct) -
                                 movement(round, *species_->shrink_tangential_pct, p_.day_pct, p_.low_pct);
            if (opens > 0.5)
                add("under.rim_crack", opens > 4 ? Severity::stop : Severity::watch,
                    say("A cross-cut shrinks more around than towards its pith: from {} to {} a crack of up to {} opens at the rim. Dry it "
                        "further first, or saw it open from rim to pith and let in a wedge.",
                        percent(p_.day_pct), percent(p_.low_pct), fine(opens)),
                    Vec2{0, -in_.lay.widest_mm / 2});
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
        if (p_.wood_left_mm < 8)
            add("under.through", p_.wood_left_mm < 3 ? Severity::stop : Severity::watch,
                say("Insert and bolt go {} deep and leave {} of wood above. Drill to a stop and take a shorter one.", fine(c.insert_mm),
                    fine(p_.wood_left_mm)));
        for (const Channel& ch : c.channels)
            if (ch.depth_mm > in_.flat.thickness_mm / 2) {
                add("under.deep_channel", Severity::watch,
                    say("A channel pocket {} deep takes more than half of the {} there is.", fine(ch.depth_mm),
                        fine(in_.flat.thickness_mm)),
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
                    percent(p_.day_pct), percent(room.low_pct), percent(room.high_pct),
                    fine(-movement(in_.lay.widest_mm, p_.shrink_pct, p_.day_pct, (room.low_pct + room.high_pct) / 2))));
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
        Choice c{"under.fixed", "Fixed line", {}};
        const auto option = [&](const char* key, const char* label, FixedLine line) {
            UnderChoices other = in_.choices;
            const double left = in_.top.width_mm / 2;
            const double v = line == FixedLine::middle ? 0 : line == FixedLine::left ? left : -left;
            double most = 0;
            const auto reach = [&](Vec2 h) {
                const double d = std::abs(h.y - v);
                const double s = shrink(v, h.y);
                most = std::max(most, movement(d, s, p_.low_pct, p_.high_pct));
            };
            for (const LegPlate& p : other.plates)
                for (const Vec2 h : holes_of(p, other)) reach(h);
            for (const Channel& ch : other.channels)
                for (const Vec2 h : holes_of(ch, other)) reach(h);
            c.options.push_back({key, label, say("outermost bolt travels {}", fine(most)), in_.choices.fixed == line});
        };
        option("middle", "In the middle: both edges move", FixedLine::middle);
        option("left", "Left edge: it stays at a wall", FixedLine::left);
        option("right", "Right edge: it stays at a wall", FixedLine::right);
        p_.choices.push_back(std::move(c));
        p_.choices.push_back({"under.let_in",
                              "Plates",
                              {{"on", "Under the wood", say("leg {} shorter", fine(in_.choices.plate_mm)), !in_.choices.plate_let_in},
                               {"in", "Let in flush",
                                say("pockets {} deep, {} of wood above", fine(in_.choices.plate_mm),
                                    fine(in_.flat.thickness_mm - in_.choices.insert_mm - in_.choices.plate_mm)),
                                in_.choices.plate_let_in}}});
    }

    const UnderInputs& in_;
    Frame frame_;
    const Species* species_ = nullptr;
    std::string day_from_;
    double gross_l_ = 0, density_ = 0;
    UnderPlan p_;
};

}  // namespace

UnderPlan plan_under(const UnderInputs& in) { return Planner(in).run(); }

}  // namespace yb
