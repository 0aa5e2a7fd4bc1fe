// What of the underside can be picked: plates, channels, holes, the base.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/material/wood/lag.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

Figure travel_of(const char* key, const std::vector<Slot>& slots, const Part& part) {
    double most = 0;
    double at = 0;
    for (const Slot& s : slots)
        if (s.part == part && s.travel_out_mm + s.travel_in_mm >= most)
            most = s.travel_out_mm + s.travel_in_mm, at = std::abs(s.from_fixed_mm);
    return {key,
            "Its outermost hole travels",
            fine(most),
            {},
            say("over the year, {} from the fixed line", mm(at)),
            {"widening of the wood between the hole and the fixed line, driest to dampest",
             {{"from the fixed line", mm(at), "Under"}},
             "Wood Handbook eq. 13-3"}};
}

Figure from_end_of(const char* key, double u, const WantedTop& top) {
    return {key,
            "From the nearer end",
            mm(top.length_mm / 2 - std::abs(u)),
            {},
            {},
            {"half the top's length − its place along", {{"length", mm(top.length_mm), "Lay"}}, ""}};
}

Figure off_middle_of(const char* key, double v) {
    return {key, "Off the middle line", mm(std::abs(v)), {}, {}, {"its place across the top", {}, ""}};
}

/// How far its slot stands off square to the top's length, degrees.
double off_square(const Slot& s) { return std::atan2(std::abs(s.way.x), std::abs(s.way.y)) * 180 / std::numbers::pi; }

/// The cut list, where it is made here.
void made(Thing& t, const UnderPlan& p) {
    const BasePlan& b = p.base;
    if (b.parts.empty()) return;
    double pieces = 0;
    std::vector<Given> cut;
    for (const BasePart& part : b.parts) {
        pieces += part.count;
        cut.push_back({part.name + ", pieces", count(part.count), "cut list"});
        cut.push_back({part.name + ", point to point", fine(part.length_mm), "cut list"});
        cut.push_back({part.name + ", wide", fine(part.width_mm), "cut list"});
        cut.push_back({part.name + ", thick", fine(part.thick_mm), part.layers > 1 ? "laminated" : "of one piece"});
        if (part.first_deg != 0 || part.second_deg != 0) {
            cut.push_back({part.name + ", one end off square", degrees(part.first_deg), "cut list"});
            cut.push_back({part.name + ", the other", degrees(part.second_deg), "cut list"});
        }
    }
    t.figures.push_back({"base.parts",
                         "Pieces, and their wood",
                         count(pieces),
                         litres(b.volume_l),
                         b.notes.empty() ? say("cut list in the working and on the sheet") : b.notes.front(),
                         {"each from its plates, height and bars", cut, "docs/methods.md, Under"}});
    t.figures.push_back({"base.hours",
                         "Hours to make it",
                         hours(b.making.hours()),
                         hours(b.wait_h),
                         say("and in clamps; it goes into the waiting for resin and rest"),
                         {"pieces, slanted ends, joints and glue stages, each at a starting value", {}, "starting values"}});
    if (b.diagonal_mm > 0)
        t.figures.push_back({"base.diagonal",
                             "Diagonals, alike",
                             fine(b.diagonal_mm),
                             fine(b.floor_diagonal_mm),
                             say("of each frame; of the feet on the floor"),
                             {"outer corner to outer corner", {}, "Pythagoras"}});
}

/// What tips it.
void tipping(Thing& t, const UnderPlan& p, const UnderChoices& c, const WantedTop& top) {
    const Tipping& tips = *p.tipping;
    if (tips.down_n)
        t.figures.push_back({"base.down",
                             "Tips under, N down at the rim",
                             number(std::round(*tips.down_n)),
                             {},
                             say("somebody who sits is {} N; an estimate for your judgement", number(c.person_n)),
                             {"weight × balance point inside the feet's edge / rim past it, the worst of all edges",
                              {{"top", kg(p.top_kg), "Under"},
                               {"base", kg(p.base_kg), p.base.volume_l > 0 ? "its wood, of the top's kind" : "set in Under"}},
                              "moments; local codes stand above it"}});
    t.figures.push_back(
        {"base.side",
         "Tips under, N level at the top",
         number(std::round(tips.side_n)),
         {},
         say("racking is not in it"),
         {"weight × balance point inside the feet's edge / height", {{"height", mm(top.height_mm), "wanted top"}}, "moments"}});
}

/// How it gets there, and stands on its floor.
void stands(Thing& t, const UnderPlan& p, const UnderChoices& c) {
    if (p.stair_longest_mm)
        t.figures.push_back({"base.stair",
                             "Round the stair's landing goes",
                             mm(*p.stair_longest_mm),
                             {},
                             say("carried in is {}, on edge", mm(p.carried_mm)),
                             {"least over θ of (a·cos θ + a·sin θ − t)/(sin θ·cos θ)",
                              {{"stair and landing, wide", mm(c.stair_mm.value_or(0)), "set in Under"}},
                              "a thing carried level round a square bend; tilted it goes a little further"}});
    if (c.feet_travel_mm > 0 || !p.foot_out_mm.empty()) {
        const auto foot = [&](std::size_t i) { return fine(i < p.foot_out_mm.size() ? p.foot_out_mm[i] : 0); };
        t.figures.push_back({"base.feet",
                             "Feet out by, the most of",
                             fine(p.foot_out_mm.empty() ? 0 : *std::max_element(p.foot_out_mm.begin(), p.foot_out_mm.end())),
                             fine(c.feet_travel_mm / 2),
                             p.foot_out_mm.empty()
                                 ? say("they stand half-way out; how the floor is was not read")
                                 : say("{} left near, {} right near, {} right far, {} left far", foot(0), foot(1), foot(2), foot(3)),
                             {"each gap to the floor − the least of them; half of what they screw", {}, "as read where it stands"}});
    }
}

/// The slots of one part, in the order of its holes.
Figure holes_in(const char* key, const std::vector<Slot>& slots, const Part& part) {
    double longest = 0;
    double n = 0;
    for (const Slot& s : slots)
        if (s.part == part) longest = std::max(longest, s.length_mm), n += 1;
    return {key, "Holes", count(n), {}, say("longest slot {}", fine(longest)), {"bolts across × along", {}, "set in Under"}};
}

}  // namespace

Fixing held_by(const Slot& slot, const UnderChoices& c) {
    return slot.part.kind == "channel" && c.fixing != Fixing::oversize ? Fixing::slots : c.fixing;
}

std::vector<Thing> under_things(const UnderPlan& p, const UnderChoices& c, const WantedTop& top, const Frame& to_bench) {
    std::vector<Thing> out;
    for (std::size_t i = 0; i < c.plates.size(); ++i) {
        const LegPlate& plate = c.plates[i];
        Thing t{key_of({"plate", i}), "plate", i, say("Plate {}", count(static_cast<double>(i) + 1))};
        t.area = to_bench.to_slab(footprint(plate));
        t.choices = {plate_places.choice, insert_kinds.choice};
        t.figures = {travel_of("plate.travel", p.slots, {"plate", i}),
                     from_end_of("plate.from_end", plate.u_mm, top),
                     off_middle_of("plate.off_middle", plate.v_mm),
                     holes_in("plate.holes", p.slots, {"plate", i}),
                     {"plate.size", "Across and along", mm(plate.across_mm), mm(plate.along_mm), {}, {"as set", {}, "the maker's"}}};
        if (i < p.shims_mm.size()) {
            const auto& at = p.shims_mm[i];
            t.figures.push_back(
                {"plate.shims",
                 "Pack its corners, the most",
                 fine(*std::max_element(at.begin(), at.end())),
                 {},
                 say("{} left near, {} right near, {} right far, {} left far", fine(at[0]), fine(at[1]), fine(at[2]), fine(at[3])),
                 {"its gap − the least of all gaps", {}, "as read with the base stood under the top"}});
        }
        out.push_back(std::move(t));
    }
    for (std::size_t i = 0; i < c.channels.size(); ++i) {
        const Channel& channel = c.channels[i];
        Thing t{key_of({"channel", i}), "channel", i, say("Channel {}", count(static_cast<double>(i) + 1))};
        t.area = to_bench.to_slab(footprint(channel));
        t.figures = {travel_of("channel.travel", p.slots, {"channel", i}), from_end_of("channel.from_end", channel.u_mm, top),
                     off_middle_of("channel.off_middle", channel.v_mm), holes_in("channel.holes", p.slots, {"channel", i})};
        for (const Pocket& pocket : p.pockets)
            if (pocket.channel == i) {
                t.figures.push_back({"channel.pocket",
                                     "Its pocket is long",
                                     mm(pocket.length_mm),
                                     {},
                                     say("{} across, {} deep", fine(channel.width_mm), fine(channel.depth_mm)),
                                     {"channel + widening or shrinking of the wood it lies in + play",
                                      {{"channel", mm(channel.length_mm), "set in Under"}},
                                      "Wood Handbook eq. 13-3"}});
                t.figures.push_back({"channel.share",
                                     "Carries of the stiffness across",
                                     percent(100 * pocket.stiffness_share),
                                     {},
                                     {},
                                     {"E·I of the steel / (E·I of the steel + of the wood it serves)", {}, "docs/methods.md, Under"}});
            }
        out.push_back(std::move(t));
    }
    for (std::size_t i = 0; i < p.slots.size(); ++i) {
        const Slot& s = p.slots[i];
        Thing t{key_of({"hole", i}), "hole", i, say("Hole {}, in {}", count(static_cast<double>(i) + 1), key_of(s.part))};
        const double reach = std::max(c.bolt_mm, s.length_mm) / 2;
        const auto corner = [&](double a, double b) { return to_bench.to_slab(s.uv + Vec2{a * c.bolt_mm / 2, b * reach}); };
        t.area = {corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)};
        t.figures = {{"hole.slot",
                      s.round ? "A round hole" : "Slot, long",
                      fine(s.round ? c.bolt_mm : s.length_mm),
                      {},
                      s.round ? say("on the fixed line: done up tight") : say("{} of bolt and play in it", fine(c.bolt_mm + c.play_mm)),
                      {"bolt + play + travel away + travel back, in steps of 0.5 mm",
                       {{"bolt", fine(c.bolt_mm), "set in Under"}, {"play", fine(c.play_mm), "set in Under"}},
                       "docs/methods.md, Under"}},
                     {"hole.travel",
                      "Travels out and back",
                      fine(s.travel_out_mm),
                      fine(s.travel_in_mm),
                      say("from the assembly day"),
                      {"widening between it and the fixed line, day to dampest; day to driest", {}, "Wood Handbook eq. 13-3"}},
                     {"hole.way",
                      "Off square to the top",
                      degrees(off_square(s)),
                      {},
                      say("square to its leaf's grain: cut the slot so"),
                      {"angle of the grain against the top's length", {}, "Lay"}},
                     {"hole.from_fixed", "From the fixed line", mm(std::abs(s.from_fixed_mm)), {}, {}, {"across the top", {}, ""}},
                     {"hole.bolt",
                      "Bolt from the inner end",
                      fine(s.bolt_from_inner_mm),
                      {},
                      say("of the slot, on the day"),
                      {"half the bolt + half the play + travel back", {}, "docs/methods.md, Under"}},
                     {"hole.drill",
                      "Drill, and its stop",
                      fine(s.made.drill_mm),
                      fine(s.made.stop_mm),
                      s.made.above_mm < 0.05 ? say("comes through the show face")
                      : s.floor_mm > 0       ? say("from the floor of its pocket; leaves {} of wood above", fine(s.made.above_mm))
                                             : say("leaves {} of wood above", fine(s.made.above_mm)),
                      {"for what goes in; a little deeper than it, where the wood above allows",
                       {{"goes in", fine(c.insert_mm), "set in Under"}, {"stays above, at least", fine(c.least_above_mm), "set in Under"}},
                       "docs/methods.md, Under; finished thickness from Flat"}}};
        t.choices = {insert_kinds.choice};
        if (s.made.washer_mm > 0)
            t.figures.push_back({"hole.washer",
                                 "Washer, at least",
                                 fine(s.made.washer_mm),
                                 {},
                                 c.fixing == Fixing::oversize ? say("it covers the hole wherever the bolt stands")
                                                              : say("it bridges the slot; along it the slot stays open"),
                                 {"what it covers + 3 mm to either side", {}, ""}});
        if (s.made.pull_n)
            t.figures.push_back({"hole.pull",
                                 "Pulls out at about, N",
                                 number(std::round(*s.made.pull_n / 10) * 10),
                                 {},
                                 s.made.insert_decides
                                     ? say("the insert lets go before the wood; divide by five for what lasts. An estimate")
                                     : say("straight out of side grain; divide by five for what lasts. An estimate"),
                                 {"125.4·G^1.5·D^0.75·L, D outside the thread; screws 108.25·G²·D·L",
                                  {{"goes in", fine(c.insert_mm), "set in Under"}},
                                  "Wood Handbook FPL-GTR-190, eq. 8-9 and 8-3"}});
        out.push_back(std::move(t));
    }
    if (p.tipping || !p.base.parts.empty()) {
        Thing t{"base 1", "base", 0, say("The base")};
        made(t, p);
        if (p.tipping) tipping(t, p, c, top);
        if (p.sag_mm)
            t.figures.push_back(
                {"base.sag",
                 "Goes down between the plates",
                 fine(*p.sag_mm),
                 {},
                 say("with {} N on it, years of load counted twice", number(c.person_n)),
                 {"E·I·y'' = M for the real width, own weight and a person midway, doubled", {}, "Euler and Bernoulli; an estimate"}});
        stands(t, p, c);
        t.choices = {bar_joints.choice};
        t.figures.push_back({"base.lag",
                             "The wood follows the air later by",
                             hours(24 * comes_later_days(p.lag_days)),
                             {},
                             {},
                             {"atan(ω·τ)/ω, ω one turn a year; τ = L²/(π²·D) + (L/2)·R_f",
                              {{"τ", hours(24 * p.lag_days), "thickness and finish"}},
                              "docs/methods.md, Under"}});
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
