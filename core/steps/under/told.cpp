#include "core/steps/under/teller.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>
#include <stdexcept>

#include "core/ground/figure/choice.h"
#include "core/material/wood/lag.h"

namespace yb {

const Slot* UnderTeller::longest() const {
    const auto it =
        std::max_element(p_.slots.begin(), p_.slots.end(), [](const Slot& a, const Slot& b) { return a.length_mm < b.length_mm; });
    return it == p_.slots.end() ? nullptr : &*it;
}

void UnderTeller::figures() {
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
        given.push_back({"from the fixed line", mm(std::abs(s->from_fixed_mm)), key_of(s->part)});
        given.push_back({"bolt", fine(in_.choices.bolt_mm), "the maker's"});
        given.push_back({"play", fine(in_.choices.play_mm), "the maker's"});
        given.push_back({"travel out", fine(s->travel_out_mm), "day to dampest"});
        given.push_back({"travel in", fine(s->travel_in_mm), "day to driest"});
        p_.figures.push_back(holding(*s, std::move(given), handbook));
    }
    p_.figures.push_back({"under.leg",
                          "Leg height",
                          fine(p_.leg_mm),
                          {},
                          in_.choices.plate_let_in ? say("plate let in") : say("below the plate"),
                          {in_.choices.plate_let_in ? "table height − finished thickness − what stays below it − feet"
                                                    : "table height − finished thickness − what stays below it − feet − plate",
                           {{"table height", mm(top_.wanted.height_mm), "wanted top"},
                            {"finished thickness", fine(top_.thickness_mm), "Flat"},
                            {"stays below it, under a plate", fine(p_.stays_mm), "Flat, where the underside is left"},
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
            beside.push_back({"cup with bow ties or resin instead", fine(p_.held->free_mm), "they keep a crack shut, and nothing flat"});
            if (p_.held->bolt_n > 0)
                beside.push_back({p_.held->bolts > 2 ? "pulls at a channel's middle bolt, N" : "pulls at each of a channel's two bolts, N",
                                  number(std::round(p_.held->bolt_n)), p_.held->bolts > 2 ? "48·E·I·δ/L³" : "24·E·I·δ/L³"});
        }
        p_.figures.push_back(
            {"under.channel",
             "Channel carries, across the grain",
             percent(k.stiffness_share * 100),
             {},
             p_.held ? say("one face {} damper: it cups {} without, {} with them", percent(in_.choices.damper_pct), fine(p_.held->free_mm),
                           fine(p_.held->held_mm))
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

Figure UnderTeller::holding(const Slot& s, std::vector<Given> given, const std::string& handbook) const {
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

bool UnderTeller::every_pith_known() const {
    return std::all_of(top_.regions.begin(), top_.regions.begin() + static_cast<std::ptrdiff_t>(top_.leaves),
                       [](const Region& r) { return r.pith_mm.has_value(); });
}

std::vector<Given> UnderTeller::weights() const {
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

void UnderTeller::add(std::string key, Severity s, Phrase says, std::optional<Vec2> uv) {
    p_.cautions.push_back({std::move(key), s, step_key::under, std::move(says), uv ? std::optional(frame_.to_slab(*uv)) : std::nullopt});
}

void tell_under(const UnderInputs& in, const UnderKnown& of, UnderPlan& plan) { UnderTeller(in, of, plan).tell(); }

}  // namespace yb
