// What can be picked in Flat: shims, the two faces, what was read after a rest.
#include <algorithm>
#include <cmath>

#include "core/steps/flat/flat.h"
#include "core/steps/flat/laid.h"
#include "core/steps/flat/machine.h"

namespace yb {

namespace {

/// "12 + 3 + 0.5": a phrase for each piece of a stack.
Phrase stack_says(const std::vector<double>& stack) {
    if (stack.empty()) return say("nothing under it");
    Phrase out = say("{}", fine(stack.front()));
    for (std::size_t i = 1; i < stack.size(); ++i) out.then.push_back(say("+ {}", fine(stack[i])));
    return out;
}

Thing shim_thing(const Shim& h, std::size_t i, const Stacking& stacks) {
    Thing t{"shim " + std::to_string(i + 1), "shim", i, say("Shim {}", count(static_cast<double>(i) + 1))};
    const Vec2 at{h.at.x_mm, h.at.y_mm};
    t.area = {at + Vec2{-30, -20}, at + Vec2{30, -20}, at + Vec2{30, 20}, at + Vec2{-30, 20}};
    t.figures = {{"shim.height",
                  "Shim, high",
                  fine(laid_mm(h)),
                  {},
                  stack_says(h.stack_mm),
                  {"height of the tilted underside above the bench at the support, with the whole slab raised; stacks of all shims chosen "
                   "together, fewest pieces",
                   {{"wanted there", fine(h.height_mm), "this plan"},
                    {"pieces come to", fine(h.stands_mm), "shim stock, the shop's page"},
                    {"whole slab raised", fine(stacks.raised_mm), "this plan"},
                    {"pieces under all shims", count(stacks.pieces), "this plan"}},
                   "the tilt Flat chose"}},
                 {"shim.along", "From the left end", along(h.at.x_mm), {}, {}, {"where it was set", {}, ""}},
                 {"shim.across", "Off the chalk line", mm(std::abs(h.at.y_mm)), {}, {}, {"where it was set", {}, ""}}};
    return t;
}

}  // namespace

Phrase stacks_say(const Stacking& s) {
    if (s.pieces == 0) return {};
    const Counted pieces = counted(s.pieces, "piece", "pieces");
    Phrase out = s.raised_mm > 0 ? say("{} in all, with the whole slab {} higher; each shim's nearest stack would take {}.", pieces,
                                       fine(s.raised_mm), count(s.alone))
                                 : say("{} in all.", pieces);
    const bool rocks = s.rocks_mm >= 0.05;
    const bool loses = s.loses_mm >= 0.05;
    out.then.push_back(rocks && loses ? say("It rocks by {} and gives up {}.", fine(s.rocks_mm), fine(s.loses_mm))
                       : rocks        ? say("It rocks by {} and gives up nothing.", fine(s.rocks_mm))
                       : loses        ? say("It does not rock, and gives up {}.", fine(s.loses_mm))
                                      : say("It does not rock and gives up nothing."));
    return out;
}

namespace {

Thing face_thing(const FlatPlan& p, std::size_t i, const Sled& sled) {
    const FacePlan& f = p.faces[i];
    Thing t{"face " + std::to_string(i + 1), "face", i, f.face == Face::a ? say("Show face") : say("Underside")};
    const double loose = f.removed_l * sled.loose;
    t.figures = {
        {"face.hours",
         "Router time",
         hours(f.hours),
         {},
         f.last_hours > 0 ? say("{} of it after the rest", hours(f.last_hours)) : Phrase(),
         {"length cut / feed + passes × turn + layers × setting",
          {{"feed, mm/s", number(sled.feed_mm_s), "shop"},
           {"turn, s", number(sled.turn_s), "shop"},
           {"setting a layer, s", number(sled.layer_s), "shop"}},
          "the maker's pace"}},
        {"face.layers",
         "Layers, after the rest",
         count(f.layers),
         count(f.last_layers),
         say("{} at a time", fine(sled.depth_mm)),
         {"ceil((highest − allowance) / depth) + ceil(allowance / depth)",
          {{"comes off at most", fine(f.most_off_mm), "inside the top"}},
          ""}},
        {"face.passes",
         "Lane passes, skipped",
         count(f.passes_cut),
         count(f.passes_all - f.passes_cut),
         say("{} a layer", counted(f.lanes, "lane", "lanes")),
         {"lanes = ceil(cover / (cutter × (1 − overlap))) + 1",
          {{"lanes", count(f.lanes), ""}},
          "lanes with no wood above the layer are skipped"}},
        {"face.path",
         "Path, looks at the cutter",
         along(f.cut_mm),
         count(std::floor(f.cut_mm / 1000 / sled.edge_m)),
         say("one every {} of cut", along(sled.edge_m * 1000)),
         {"Σ lanes with wood in them, half a cutter more at both ends", {}, ""}},
        {"face.stickout",
         "Bit stands out, board under it",
         fine(f.stickout_mm),
         fine(std::max(0.0, f.spacer_mm)),
         f.spacer_mm < 0 ? say("no board at hand lifts it enough") : say("{} is the limit", fine(sled.stickout_mm)),
         {"sled's floor + rails − finished plane",
          {{"floor", fine(sled.floor_mm), "shop"},
           {"rails", mm(sled.rail_mm), "shop"},
           {"plane above the bench", fine(f.plane_mm), "this plan"}},
          "the shank rule: 25 mm on a 12.7 mm shank"}},
        {"face.hold",
         "Hold-downs, no higher than",
         fine(std::max(0.0, f.plane_mm - 3)),
         {},
         say("{} below the last pass; the wood reaches {}", fine(3), fine(f.highest_mm)),
         {"finished plane above the bench − 3 mm: clear of the cutter", {{"plane above the bench", fine(f.plane_mm), "this plan"}}, ""}},
        {"face.speed",
         "Cutter turns at most",
         number(most_rpm(sled.cutter_mm)),
         {},
         say("a minute; {} loose chips", litres(std::round(loose))),
         {"35 m/s at its rim; what is stamped on the cutter stands above it",
          {{"cutter", fine(sled.cutter_mm), "shop"}},
          "starting value"}}};
    return t;
}

Thing round_thing(const RoundPlan& plan, const FlatRound& r) {
    const std::size_t i = plan.round;
    Thing t{"round " + std::to_string(i + 1), "round", i, say("Read on {}", r.on)};
    t.figures = {{"round.thickest",
                  "Flat again it comes to",
                  fine(plan.thickest_mm),
                  {},
                  say("{} off the show face, {} off the underside at most", fine(plan.off_show_mm), fine(plan.off_under_mm)),
                  {"the best tilt over bow·u² + cup·v² + twist/4·u·v on both faces",
                   {{"bow", fine(r.bow_mm), "straightedge along"},
                    {"cup", fine(r.cup_mm), "straightedge across"},
                    {"twist", fine(r.twist_mm), "winding sticks"},
                    {"thick", fine(r.thickness_mm), "caliper"}},
                   "docs/methods.md, Flattening"}},
                 {"round.did", "Bow, cup", fine(r.bow_mm), fine(r.cup_mm), {}, {"as read", {}, ""}},
                 {"round.twist", "Twist", fine(r.twist_mm), {}, {}, {"as read", {}, ""}}};
    if (plan.mm_a_day)
        t.figures.push_back({"round.speed",
                             "Moves a day",
                             fine(*plan.mm_a_day),
                             {},
                             plan.days_more      ? say("rests in about {}", hours(24 * *plan.days_more))
                             : plan.still_moving ? say("it has not come to rest")
                                                 : say("it has come to rest"),
                             {"the quickest of bow, cup and twist since the round before, over its days", {}, ""}});
    double tallest = 0;
    for (const Shim& s : plan.shims) tallest = std::max(tallest, s.height_mm);
    t.figures.push_back({"round.shims", "Tallest new shim", fine(tallest), {}, {}, {"under its supports for the show face", {}, ""}});
    return t;
}

}  // namespace

std::vector<Thing> flat_things(const FlatPlan& p, const Sled& sled, const std::vector<FlatRound>& rounds) {
    std::vector<Thing> out;
    for (std::size_t i = 0; i < p.shims.size(); ++i) out.push_back(shim_thing(p.shims[i], i, p.stacks));
    for (std::size_t i = 0; i < 2; ++i)
        if (p.faces[i].layers > 0) out.push_back(face_thing(p, i, sled));
    for (const RoundPlan& r : p.rounds)
        if (r.round < rounds.size()) out.push_back(round_thing(r, rounds[r.round]));
    return out;
}

}  // namespace yb
