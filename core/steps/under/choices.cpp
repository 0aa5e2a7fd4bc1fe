#include "core/steps/under/choices.h"

#include <algorithm>

namespace yb {

namespace {
constexpr Range bolts{1, 12};
constexpr Range place{-10000, 10000};
}  // namespace

namespace {

/// n places from −half to half; one alone in the middle.
std::vector<double> spread(int n, double half) {
    std::vector<double> out;
    for (int i = 0; i < n; ++i) out.push_back(n == 1 ? 0 : -half + 2 * half * i / (n - 1));
    return out;
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

double floor_of(const LegPlate&, const UnderChoices& c) { return c.plate_let_in ? c.plate_mm : 0; }
double floor_of(const Channel& ch, const UnderChoices&) { return ch.depth_mm; }

Ring footprint(const LegPlate& p) { return box_ring({p.u_mm, p.v_mm}, p.along_mm, p.across_mm); }
Ring footprint(const Channel& c) { return box_ring({c.u_mm, c.v_mm}, c.width_mm, c.length_mm); }

void fields(FieldVisitor& v, LegPlate& p) {
    v.number({"u_mm", "Along, from the middle", Kind::length, place, true}, p.u_mm);
    v.number({"v_mm", "Across, from the middle", Kind::length, place, true}, p.v_mm);
    v.number({"along_mm", "Plates, along", Kind::length, {20, 3000}}, p.along_mm);
    v.number({"across_mm", "Plates, across", Kind::length, {20, 3000}}, p.across_mm);
    v.number({"bolts_across", "Bolts across a plate", Kind::count, bolts}, p.bolts_across);
    v.number({"bolts_along", "Rows of bolts", Kind::count, bolts}, p.bolts_along);
    v.numbers({"gaps_mm", "Gaps at its corners", Kind::fine, {0, 60}}, p.gaps_mm);
}

void fields(FieldVisitor& v, Channel& c) {
    v.number({"u_mm", "Along, from the middle", Kind::length, place, true}, c.u_mm);
    v.number({"v_mm", "Across, from the middle", Kind::length, place, true}, c.v_mm);
    v.number({"length_mm", "Channels, long", Kind::length, {50, 3000}}, c.length_mm);
    v.number({"width_mm", "Channels, wide", Kind::fine, {5, 200}}, c.width_mm);
    v.number({"depth_mm", "Channels, deep", Kind::fine, {2, 100}}, c.depth_mm);
    v.number({"wall_mm", "Channels, wall", Kind::fine, {0.5, 20}}, c.wall_mm);
    v.number({"bolts", "Bolts a channel", Kind::count, bolts}, c.bolts);
}

void fields(FieldVisitor& v, ChannelSection& c) {
    v.number({"width_mm", "Wide", Kind::fine, {5, 200}}, c.width_mm);
    v.number({"depth_mm", "Deep", Kind::fine, {2, 100}}, c.depth_mm);
    v.number({"wall_mm", "Wall", Kind::fine, {0.5, 20}}, c.wall_mm);
}

void fields(FieldVisitor& v, BaseCorner& c) {
    v.number({"u_mm", "Along, from the middle", Kind::length, place, true}, c.u_mm);
    v.number({"v_mm", "Across, from the middle", Kind::length, place, true}, c.v_mm);
}

void fields(FieldVisitor& v, UnderChoices& c) {
    v.list({"plates", "Leg plates"}, c.plates);
    v.list({"channels", "Channels"}, c.channels);
    v.school(fixed_lines, c);
    v.number({"bolt_mm", "Bolt", Kind::fine, {2, 40}}, c.bolt_mm);
    v.number({"play_mm", "Play in the slot", Kind::fine, {0, 20}}, c.play_mm);
    v.number({"edge_mm", "Last bolt from its end", Kind::fine, {5, 300}}, c.edge_mm);
    v.number({"insert_mm", "Insert goes in", Kind::fine, {1, 200}}, c.insert_mm);
    v.number({"plate_mm", "Plate thickness", Kind::fine, {0, 50}}, c.plate_mm);
    v.school(plate_places, c);
    v.number({"feet_mm", "Feet", Kind::fine, {0, 200}}, c.feet_mm);
    v.number({"day_moisture_pct", "Moisture on the day", Kind::percent, {0, 30}}, c.day_moisture_pct);
    v.number({"helpers", "People to lift", Kind::count, {1, 20}}, c.helpers);
    v.school(covereds, c);
    v.school(fixings, c);
    v.school(insert_kinds, c);
    v.number({"least_above_mm", "Wood above, at least", Kind::fine, {0, 60}}, c.least_above_mm);
    v.number({"base_kg", "Base weighs", Kind::mass, {0, 1000}}, c.base_kg);
    v.number({"foot_along_mm", "Feet, along", Kind::length, {50, 10000}}, c.foot_along_mm);
    v.number({"foot_across_mm", "Feet, across", Kind::length, {50, 10000}}, c.foot_across_mm);
    v.number({"person_n", "Somebody sits on it, N", Kind::number, {0, 5000}}, c.person_n);
    v.number({"push_n", "Somebody leans on it, N", Kind::number, {0, 5000}}, c.push_n);
    v.school(base_kinds, c);
    v.number({"leg_wide_mm", "Legs, across", Kind::fine, {10, 600}}, c.leg_wide_mm);
    v.number({"leg_thick_mm", "Legs, along", Kind::fine, {10, 600}}, c.leg_thick_mm);
    v.number({"splay_deg", "Legs lean outward", Kind::angle, {0, 35}}, c.splay_deg);
    v.number({"stock_mm", "Thickest stock", Kind::fine, {5, 300}}, c.stock_mm);
    v.number({"knee_mm", "Knees want", Kind::length, {300, 1500}}, c.knee_mm);
    v.number({"door_wide_mm", "Narrowest door, wide", Kind::length, {300, 5000}}, c.door_wide_mm);
    v.number({"door_high_mm", "Narrowest door, high", Kind::length, {1000, 6000}}, c.door_high_mm);
    v.number({"damper_pct", "One face damper by", Kind::percent, {0, 15}}, c.damper_pct);
    v.school(sawns, c);
    v.school(waitings, c);
    v.school(bar_joints, c);
    v.list({"outline", "Corners of the base"}, c.outline);
    v.number({"stair_mm", "Narrowest stair, wide", Kind::length, {300, 5000}}, c.stair_mm);
    v.number({"stair_high_mm", "Clear above the stair", Kind::length, {300, 6000}}, c.stair_high_mm);
    v.number({"feet_travel_mm", "Feet screw out by", Kind::fine, {0, 100}}, c.feet_travel_mm);
    v.number({"notch_mm", "Panels let in by", Kind::fine, {0, 60}}, c.notch_mm);
    v.school(parts_finished, c);
    v.number({"lead_days", "Base comes after, days", Kind::number, {0, 365}}, c.lead_days);
    v.number({"insert_n", "Insert holds, N", Kind::number, {10, 100000}}, c.insert_n);
    v.numbers({"floor_gaps_mm", "Feet above the floor", Kind::fine, {0, 60}}, c.floor_gaps_mm);
}

}  // namespace yb
