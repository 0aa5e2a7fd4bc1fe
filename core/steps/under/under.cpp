#include "core/steps/under/under.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include <boost/math/tools/minima.hpp>

#include "core/ground/beam/beam.h"
#include "core/material/wood/cup.h"
#include "core/material/wood/lag.h"
#include "core/steps/under/fixed.h"
#include "core/steps/under/told.h"

namespace yb {

namespace {
constexpr double steel_mpa = 200e3;

}  // namespace

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

double longest_round_bend_mm(double a, double b, double t) {
    if (!(a > 0) || !(b > 0) || t < 0) throw std::invalid_argument("a passage has a width, what goes through it a thickness");
    if (t >= std::min(a, b)) return 0;
    const auto fits = [&](double angle) {
        const double s = std::sin(angle);
        const double c = std::cos(angle);
        return (a * c + b * s - t) / (s * c);
    };
    // One valley between the two walls, where it would be as long as it likes.
    return std::max(0.0, boost::math::tools::brent_find_minima(fits, 1e-4, std::numbers::pi / 2 - 1e-4, 40).second);
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
    explicit Planner(const UnderInputs& in) : in_(in), top_(in.top) {}

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
        // Of an underside that stays as sawn the plates lie where it stands lowest under any of their corners; the others are packed.
        for (const LegPlate& p : in_.choices.plates)
            for (const Vec2 q : footprint(p)) p_.stays_mm = std::max(p_.stays_mm, top_.stays_mm(q));
        p_.leg_mm = top_.wanted.height_mm - top_.thickness_mm - p_.stays_mm - in_.choices.feet_high_mm() -
                    (in_.choices.plate_let_in ? 0 : in_.choices.plate_mm);
        slots();
        pockets();
        base();
        held_flat();
        p_.top_kg = top_.mass_known ? top_.mass_kg : 0;
        if (!top_.mass_known)
            add("under.density", Severity::watch,
                say("The species table has no specific gravity for this wood: the top's weight is not known. Weigh an offcut."));
        p_.wood_left_mm = p_.slots.empty() ? top_.thickness_mm - in_.choices.insert_mm - floor_of(LegPlate{}, in_.choices)
                                           : std::min_element(p_.slots.begin(), p_.slots.end(), [](const Slot& a, const Slot& b) {
                                                 return a.made.above_mm < b.made.above_mm;
                                             })->made.above_mm;
        through_the_year();
        standing();
        tell_under(in_, {species_, day_from_, low_from_, high_from_, leaf_pct_, wide_}, p_);
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
                const double away = travel(s.uv, std::clamp(p_.month_pct[m], 0.0, 30.0), s.held_v_mm);
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
            if (r.mass_kg > 0) at = at + r.balance * r.mass_kg, kg += r.mass_kg;
        if (kg <= 0 || top_.wanted.height_mm <= 0) return;
        // What is made here weighs what its wood does, of the top's own kind; a bought one what was typed.
        p_.base_kg = c.base_kg;
        if (p_.base.volume_l > 0 && species_->specific_gravity_12)
            p_.base_kg = p_.base.volume_l * *species_->specific_gravity_12 * (1 + p_.day_pct / 100);
        p_.tipping = tip({top_.above, p_.top_kg, at * (1 / kg), p_.base_kg, middle, p_.feet, top_.wanted.height_mm});
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
        if (in_.choices.waits) {
            const MoistureRange store = moisture_range(in_.store);
            p_.low_pct = std::min(p_.low_pct, store.low_pct), p_.high_pct = std::min(30.0, std::max(p_.high_pct, store.high_pct));
        }
        bool read = false;
        double leaf_driest = 1e9;
        double leaf_dampest = -1e9;
        for (std::size_t i = 0; i < top_.leaves; ++i) {
            const auto& own = top_.regions[i].moisture_pct;
            read = read || own.has_value();
            const double pct = in_.choices.day_moisture_pct.value_or(own.value_or(shop));
            p_.read_pct = std::max(p_.read_pct, pct);
            leaf_pct_.push_back(std::clamp(pct, 0.0, 30.0));
            leaf_driest = std::min(leaf_driest, leaf_pct_.back()), leaf_dampest = std::max(leaf_dampest, leaf_pct_.back());
            p_.low_pct = std::min(p_.low_pct, leaf_pct_.back());
            p_.high_pct = std::min(30.0, std::max(p_.high_pct, leaf_pct_.back()));
        }
        p_.day_pct = std::clamp(p_.read_pct, 0.0, 30.0);
        low_from_ = p_.low_pct < room.low_pct - 1e-9 ? leaf_driest < p_.low_pct + 1e-9 ? "the day" : in_.store.name : in_.room.name;
        high_from_ = p_.high_pct > room.high_pct + 1e-9 ? leaf_dampest > p_.high_pct - 1e-9 ? "the day" : in_.store.name : in_.room.name;
        day_from_ = in_.choices.day_moisture_pct ? "typed for the day"
                    : read                       ? top_.leaves > 1 ? "meter, the dampest leaf" : "meter, on the slab"
                                                 : "shop air";
        p_.fixed_v_mm = fixed_at(in_.choices.fixed, top_, in_.choices);
        if (leaves_apart(top_)) p_.leaf_fixed_v_mm = fixed_in_leaves(in_.choices.fixed, top_, in_.choices);
        wide_ = top_.widest();
        p_.wood_mm = wide_.wood_mm;
        p_.travel_mm = top_.widens(wide_.u_mm, wide_.low_v, wide_.high_v, p_.low_pct, p_.high_pct);
        for (const Across& a : top_.across(wide_.u_mm))
            if (const Region& r = top_.regions[a.region]; r.wood() && wide_.wood_mm > 0)
                p_.shrink_pct += r.shrinkage(wide_.u_mm, a.from, a.to).value_or(0) * (a.to - a.from) / wide_.wood_mm;
    }

    /// How far a hole travels away from the fixed line from the day to a moisture: only the wood between the two moves.
    double travel(Vec2 uv, double to_pct, double held_v) const {
        if (!top_.cross_cut()) return top_.widens(uv.x, held_v, uv.y, leaf_pct_, to_pct);
        // A cross-cut goes outward from where it is held, along as much as across.
        const double radial = species_->shrink_radial_pct.value_or(*species_->shrink_tangential_pct);
        return movement(length(uv - Vec2{0, held_v}), radial, leaf_pct_.front(), std::clamp(to_pct, 0.0, 30.0));
    }

    double held_at(Vec2 hole) const { return p_.leaf_fixed_v_mm.empty() ? p_.fixed_v_mm : fixed_for(hole, top_, p_.leaf_fixed_v_mm); }

    void slots() {
        const auto& c = in_.choices;
        // A channel is bolted through slots of its own, whatever clips or buttons hold the top to its base.
        UnderChoices bolted = c;
        if (bolted.fixing != Fixing::oversize) bolted.fixing = Fixing::slots;
        const auto add_hole = [&](Part part, Vec2 uv, double held_v, double floor) {
            Slot s;
            s.part = part, s.uv = uv, s.held_v_mm = held_v, s.floor_mm = floor, s.from_fixed_mm = uv.y - held_v;
            if (top_.cross_cut()) s.from_fixed_mm = std::copysign(length(uv - Vec2{0, held_v}), s.from_fixed_mm);
            s.travel_out_mm = std::max(0.0, travel(uv, p_.high_pct, held_v));
            s.travel_in_mm = std::max(0.0, -travel(uv, p_.low_pct, held_v));
            s.round = std::abs(s.from_fixed_mm) < c.bolt_mm;
            s.way = way_of(uv, held_v);
            const double need = c.bolt_mm + c.play_mm + s.travel_in_mm + s.travel_out_mm;
            s.length_mm = s.round ? c.bolt_mm : std::ceil(need * 2 - 1e-9) / 2;
            s.bolt_from_inner_mm = s.round ? c.bolt_mm / 2 : c.bolt_mm / 2 + c.play_mm / 2 + s.travel_in_mm;
            s.made = make_hole({s.travel_out_mm, s.travel_in_mm, s.round, top_.thickness_mm, floor, species_->specific_gravity_12},
                               part.kind == "channel" ? bolted : c);
            p_.slots.push_back(s);
        };
        for (std::size_t i = 0; i < c.plates.size(); ++i)
            for (const Vec2 h : holes_of(c.plates[i], c)) add_hole({"plate", i}, h, held_at(h), floor_of(c.plates[i], c));
        // A channel hangs on the top alone: it is held at its own middle, wherever the base is.
        for (std::size_t i = 0; i < c.channels.size(); ++i)
            for (const Vec2 h : holes_of(c.channels[i], c)) add_hole({"channel", i}, h, c.channels[i].v_mm, floor_of(c.channels[i], c));
    }

    void pockets() {
        const auto& c = in_.choices;
        const double e_across = species_->moe_mpa.value_or(0) / 15;
        for (std::size_t i = 0; i < c.channels.size(); ++i) {
            const Channel& ch = c.channels[i];
            const double left = -travel({ch.u_mm, ch.v_mm + ch.length_mm / 2}, p_.low_pct, ch.v_mm);
            const double right = -travel({ch.u_mm, ch.v_mm - ch.length_mm / 2}, p_.low_pct, ch.v_mm);
            Pocket k{i, std::ceil(ch.length_mm + std::max(0.0, left) + std::max(0.0, right) + 2 * c.play_mm), 0};
            const double serves = top_.wanted.length_mm / static_cast<double>(c.channels.size());
            const double wood = e_across * serves * std::pow(std::max(0.0, top_.thickness_mm), 3) / 12;
            const double steel = steel_mpa * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm);
            k.stiffness_share = e_across > 0 && ch.bolts > 1 ? steel / (steel + wood) : 0;  // on one bolt it only hangs there
            p_.pockets.push_back(k);
        }
    }

    /// Its base, the shims of its plates, room for knees, the door.
    void base() {
        const auto& c = in_.choices;
        try {
            if (p_.leg_mm > 0) p_.base = plan_base({c, p_.leg_mm, in_.labour});
        } catch (const std::invalid_argument& e) {
            p_.base_wrong = e.what();
        }
        carrying();
        // The top rests where nothing hangs off it: every other corner is packed by its own gap.
        double least = 1e300;
        for (const LegPlate& p : c.plates)
            for (const auto& gap : p.gaps_mm) least = gap ? std::min(least, *gap) : least;
        for (const LegPlate& p : c.plates) {
            std::array<double, 4> shim{};
            for (std::size_t k = 0; k < std::min<std::size_t>(4, p.gaps_mm.size()); ++k) shim[k] = p.gaps_mm[k] ? *p.gaps_mm[k] - least : 0;
            // What was read at the corners stands for itself; else what stays below the plane says it.
            if (least > 1e299 && p_.stays_mm > 0) {
                const Ring corners = footprint(p);
                for (std::size_t k = 0; k < std::min<std::size_t>(4, corners.size()); ++k)
                    shim[k] = p_.stays_mm - top_.stays_mm(corners[k]);
            }
            if (least < 1e300 || p_.stays_mm > 0) p_.shims_mm.push_back(shim);
        }
        p_.clear_mm = p_.leg_mm + c.feet_high_mm();
        if (c.base == BaseKind::trestle) p_.clear_mm = std::max(0.0, p_.clear_mm - c.leg_wide_mm);
        p_.end_overhang_mm = top_.wanted.length_mm / 2;
        for (const LegPlate& p : c.plates)
            p_.end_overhang_mm = std::min(p_.end_overhang_mm, top_.wanted.length_mm / 2 - std::abs(p.u_mm) - p.along_mm / 2);
        carried();
        // On the floor it is the lowest foot that stands: what hangs is screwed out or packed.
        double lowest = 1e300;
        for (const auto& gap : c.floor_gaps_mm) lowest = gap ? std::min(lowest, *gap) : lowest;
        for (const auto& gap : c.floor_gaps_mm) p_.foot_out_mm.push_back(gap ? *gap - lowest : 0);
        if (lowest > 1e299) p_.foot_out_mm.clear();
        p_.passage = through_door(wide_.width_mm, top_.thickness_mm + top_.most_stays_mm, std::max(1.0, top_.wanted.height_mm),
                                  c.door_wide_mm, c.door_high_mm);
    }

    /// What of the base comes up to each plate: pieces that reach the top, seen from above.
    void carrying() {
        std::vector<Ring> reach;
        for (const BasePiece& piece : p_.base.pieces) {
            Ring from_above;
            double high = 0;
            for (const Vec3& q : piece.corners) high = std::max(high, q.z);
            for (const Vec3& q : piece.corners)
                if (q.z > high - 1) from_above.push_back({q.x, q.y});
            if (high < p_.leg_mm - 1 || from_above.size() < 2) continue;
            // A hair of width, so that an upright sheet's edge is an area.
            Ring hull = convex_hull(from_above);
            if (hull.size() < 3) hull = box_ring(lerp(from_above.front(), from_above.back(), 0.5), 1, 1);
            reach.push_back(std::move(hull));
        }
        if (reach.empty()) return;
        for (std::size_t i = 0; i < in_.choices.plates.size(); ++i) {
            const Ring plate = footprint(in_.choices.plates[i]);
            const Box b = bounds(plate);
            Carries c{i, 1e300, {}};
            for (const Ring& r : reach) {
                if (intersection_area(plate, r) > 1) {
                    c.misses_mm = 0, c.nearest = centroid(plate);
                    break;
                }
                for (const Vec2 q : r) {
                    const Vec2 inside{std::clamp(q.x, b.low.x, b.high.x), std::clamp(q.y, b.low.y, b.high.y)};
                    if (const double d = length(q - inside); d < c.misses_mm) c.misses_mm = d, c.nearest = centroid(r);
                }
            }
            p_.carries.push_back(c);
        }
    }

    /// What goes in through door and stair: the top, or its longer half.
    void carried() {
        const auto& c = in_.choices;
        p_.carried_mm = top_.wanted.length_mm;
        if (in_.halves_u_mm && std::abs(*in_.halves_u_mm) < p_.carried_mm / 2)
            p_.carried_mm = p_.carried_mm / 2 + std::abs(*in_.halves_u_mm);
        if (c.stair_mm && *c.stair_mm > 0)
            p_.stair_longest_mm = longest_round_bend_mm(*c.stair_mm, *c.stair_mm, std::max(0.0, top_.thickness_mm));
    }

    /// Which way a hole goes: square to the grain of the leaf it is drilled into; of a cross-cut outward from its middle.
    Vec2 way_of(Vec2 uv, double held_v) const {
        if (const Vec2 out = uv - Vec2{0, held_v}; top_.cross_cut()) return length(out) > 1 ? out * (1 / length(out)) : Vec2{0, 1};
        const double side = uv.y < held_v ? -1 : 1;
        for (std::size_t i = 0; i < top_.leaves; ++i) {
            const Region& leaf = top_.regions[i];
            if (leaf.above.size() < 3 || !contains(leaf.above, uv)) continue;
            // The grain runs along its slab, the top lies turned on it.
            const Frame f = leaf.placed.frame();
            const Vec2 across = f.from_slab(Vec2{0, 1}) - f.from_slab(Vec2{0, 0});
            return across * (across.y < 0 ? -side : side);
        }
        return {0, side};
    }

    /// Cup at the widest place with one face damper, over what the room does: leaf by leaf; resin between them stays flat.
    std::optional<double> damp_face_cup_mm() const {
        const MoistureRange room = moisture_range(in_.room);
        std::vector<Arc> across;
        for (const Across& a : top_.across(wide_.u_mm)) {
            const Region& r = top_.regions[a.region];
            if (r.let_in && !across.empty()) {  // a filled void or a piece let in bends with the wood around it
                across.back().width_mm += a.to - a.from;
                continue;
            }
            const auto bent = r.wood() && r.species ? face_curvature(*r.species, top_.thickness_mm, (room.low_pct + room.high_pct) / 2,
                                                                     in_.choices.damper_pct)
                                                    : std::optional(0.0);
            if (!bent) return {};
            across.push_back({a.to - a.from, *bent});
        }
        return hollow_mm(across);
    }

    /// With channels and without.
    void held_flat() {
        const auto& c = in_.choices;
        if (c.channels.empty() || !species_->moe_mpa || wide_.width_mm <= 0 || top_.thickness_mm <= 0) return;
        const auto free = damp_face_cup_mm();
        if (!free) return;
        HeldFlat h;
        h.free_mm = std::abs(*free);
        const double wood = *species_->moe_mpa / 15 * top_.wanted.length_mm * std::pow(top_.thickness_mm, 3) / 12;
        double steel = 0;
        for (const Channel& ch : c.channels)
            if (ch.bolts > 1) steel += steel_mpa * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm);
        h.share = steel / (steel + wood);
        h.held_mm = h.free_mm * (1 - h.share);
        // Bent by what cup is left, as a beam on its outer bolts drawn in the middle.
        const double bend = 8 * h.held_mm / (wide_.width_mm * wide_.width_mm);
        for (const Channel& ch : c.channels) {
            const double span = ch.length_mm - 2 * c.edge_mm;
            if (ch.bolts < 2 || span < 4 * c.bolt_mm) continue;  // told on their own
            const double down = bend * span * span / 8;
            const double middle = 48 * steel_mpa * channel_inertia(ch.width_mm, ch.depth_mm, ch.wall_mm) * down / std::pow(span, 3);
            const double pulls = ch.bolts > 2 ? middle : middle / 2;  // two alone press it against the pocket's floor between them
            if (pulls <= h.bolt_n) continue;
            h.bolt_n = pulls, h.bolts = ch.bolts, h.holds_n.reset();
            const Part part{"channel", static_cast<std::size_t>(&ch - c.channels.data())};
            for (const Slot& s : p_.slots)
                if (s.part == part && s.made.pull_n) h.holds_n = std::min(h.holds_n.value_or(1e300), lasting_share * *s.made.pull_n);
        }
        p_.held = h;
    }

    void add(std::string key, Severity s, Phrase says) { p_.cautions.push_back({std::move(key), s, step_key::under, std::move(says), {}}); }

    const UnderInputs& in_;
    const Top& top_;
    const Species* species_ = nullptr;  ///< of the first leaf: the stiffness across, and a cross-cut's rim
    std::string day_from_, low_from_, high_from_;
    std::vector<double> leaf_pct_;  ///< moisture of each leaf on the day, 30 % at most
    Top::Widest wide_;
    UnderPlan p_;
};

}  // namespace

UnderPlan plan_under(const UnderInputs& in) { return Planner(in).run(); }

}  // namespace yb
