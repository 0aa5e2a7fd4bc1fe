#include "core/join/told.h"

#include <algorithm>
#include <cmath>

#include "core/figure/choice.h"

namespace yb {

namespace {

Quantity minutes(double m) { return hours(m / 60); }

class Teller {
  public:
    Teller(const JoinInputs& in, JoinPlan& p) : in_(in), p_(p) {}

    void tell() {
        figures();
        glue_up();
        pieces();
        clashes();
        gaps();
        others();
        choices();
    }

  private:
    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> at = {}) {
        p_.cautions.push_back(
            {std::move(key), s, step_key::join, std::move(says), at ? std::optional(in_.top.bench.to_slab(*at)) : std::nullopt});
    }

    void figures() {
        const auto& c = in_.choices;
        if (p_.joints.empty()) {
            p_.figures.push_back({"join.needed",
                                  "Minutes of glue-up",
                                  minutes(0),
                                  {},
                                  say("nothing is glued edge to edge in this top"),
                                  {"no glued joint", {}, ""}});
            return;
        }
        std::vector<Given> given;
        for (const GlueStep& s : p_.steps) given.push_back({s.what, minutes(s.minutes), "the maker's pace"});
        p_.figures.push_back({"join.needed",
                              "Needed, and open",
                              minutes(p_.needed_min),
                              minutes(p_.open_min),
                              say("open time at {}; counted before the bottle is opened", celsius(p_.air_c)),
                              {"area / pace + tenons + joints set + clamps; open time doubles for 10 °C colder", given,
                               "starting values, yours to change"}});
        double m2 = 0;
        double long_mm = 0;
        for (const GluedJoint& j : p_.joints) m2 += j.m2, long_mm += j.length_mm;
        p_.figures.push_back(
            {"join.glue",
             "Glue",
             litres(p_.glue_l),
             {},
             say("{} of joint, {} long in all", square_metres(m2), along(long_mm)),
             {"area × faces × spread / density",
              {{"spread, g/m²", number(c.spread_g_m2), "the glue's label"}, {"density, kg/L", number(c.glue_kg_l), "the glue's label"}},
              ""}});
        const GluedJoint& one = p_.joints.front();
        p_.figures.push_back(
            {"join.clamps",
             "Clamps, one every",
             count(p_.clamps),
             mm(one.spacing_mm),
             say("{} N each", number(c.clamp_n)),
             {"the lesser of F/(p·t) and twice the distance from clamp to joint; p 0.7 N/mm² for hard woods, 0.35 for soft",
              {{"F, N", number(c.clamp_n), "the maker's"}, {"t", fine(in_.top.thickness_mm), "Flat"}},
              "a 45° spread from each clamp"}});
        if (p_.pieces > 0)
            p_.figures.push_back({"join.pieces",
                                  "Tenons, wood above them",
                                  count(p_.pieces),
                                  fine(p_.piece_above_mm),
                                  say("one every {}", mm(c.pitch_mm)),
                                  {"length / pitch, half a pitch in from the ends; half of the thickness less half a tenon",
                                   {{"pitch", mm(c.pitch_mm), "the maker's"}},
                                   ""}});
    }

    double with(bool helped, bool slow, bool stages) const {
        JoinChoices c = in_.choices;
        c.helped = helped, c.slow_glue = slow, c.two_stages = stages;
        double sum = 0;
        for (const GlueStep& s : glue_sequence(p_, c)) sum += s.minutes;
        return sum;
    }

    void glue_up() {
        const auto& c = in_.choices;
        if (p_.joints.empty()) return;
        if (p_.needed_min > p_.open_min)
            add("join.skins", Severity::stop,
                say("The glue skins after {} and this takes {}: a helper makes it {}, two stages {}, a slower glue leaves {} open.",
                    minutes(p_.open_min), minutes(p_.needed_min), minutes(with(true, c.slow_glue, c.two_stages)),
                    minutes(with(c.helped, c.slow_glue, true)), minutes(open_minutes(c.open_min * 3, p_.air_c))));
        else if (p_.needed_min > 0.8 * p_.open_min)
            add("join.close", Severity::watch,
                say("{} of {} open: there is little to spare. Go through it dry first, everything to hand.", minutes(p_.needed_min),
                    minutes(p_.open_min)));
        const bool live = in_.top.wanted.live != LiveEdges::none;
        if (live && !c.cauls)
            add("join.cauls", Severity::watch,
                say("Clamps find nothing square on live edges: saw cauls from the offcut's edge before the glue is opened."));
        if (!in_.how.ripped)
            add("join.dry", Severity::note,
                say("Dry first: wax paper below, cauls across the ends, tenons in, clamps set to width. Wipe what squeezes out before it "
                    "skins."));
    }

    void pieces() {
        const auto& c = in_.choices;
        if (p_.pieces == 0) return;
        if (p_.piece_above_mm < in_.least_above_mm)
            add("join.through", p_.piece_above_mm < 3 ? Severity::stop : Severity::watch,
                say("A tenon {} thick leaves {} of wood above it: sunk a little off it comes through. Take a thinner one.",
                    fine(c.loose_thick_mm), fine(p_.piece_above_mm)),
                p_.piece_at.front());
        if (c.loose_thick_mm > in_.top.thickness_mm / 2)
            add("join.thick", Severity::watch,
                say("Tenons of {} are more than half of the {} there is.", fine(c.loose_thick_mm), fine(in_.top.thickness_mm)));
    }

    void clashes() {
        for (const Clash& k : p_.clashes)
            add("join.clash", Severity::stop,
                say("A {} meets {} and shares {} of height with it. Move one of them along.", k.one, k.other, fine(k.deep_mm)), k.at);
        for (const LetIn& l : p_.let_in)
            if (l.cuts && l.high_mm > in_.top.thickness_mm - 1e-6 && l.low_mm < 1 && l.what.rfind("patch", 0) != 0)
                add("join.surface", Severity::stop, say("A {} goes through the top.", l.what), centroid(l.at));
        for (std::size_t i = 0; i < in_.choices.ties.size(); ++i) {
            const BowTie& b = in_.choices.ties[i];
            if (intersection_area(outline_of(b), in_.top.above) < area(outline_of(b)) - 1)
                add("join.tie_out", Severity::stop, say("Bow tie {} runs past the edge of the top.", count(static_cast<double>(i) + 1)),
                    Vec2{b.u_mm, b.v_mm});
            if (b.deep_mm < in_.top.thickness_mm / 4)
                add("join.tie_shallow", Severity::watch,
                    say("Bow tie {} is {} deep in {}: let it in a third at least, it holds by its sides.",
                        count(static_cast<double>(i) + 1), fine(b.deep_mm), fine(in_.top.thickness_mm)),
                    Vec2{b.u_mm, b.v_mm});
            // Its own grain runs along it: across the crack it holds, along the crack it splits.
            const double turned = std::abs(std::remainder(b.turn_deg - 90, 180));
            if (turned > 35)
                add("join.tie_along", Severity::watch,
                    say("Bow tie {} lies along the top's grain: a crack runs along it too and is held only across.",
                        count(static_cast<double>(i) + 1)),
                    Vec2{b.u_mm, b.v_mm});
        }
    }

    void gaps() {
        for (const GluedJoint& j : p_.joints) {
            if (j.widest_gap_mm <= 0) continue;
            const double there = j.clamps * in_.choices.clamp_n;
            if (j.close_n > 0.2 * there || j.widest_gap_mm > 0.5)
                add("join.gap", j.close_n > there ? Severity::stop : Severity::watch,
                    say("Joint {} stands open by {} dry. Closing it takes {} N of the {} N its clamps give, and stays in the joint: take "
                        "that much "
                        "off where it touches.",
                        count(static_cast<double>(j.joint) + 1), fine(j.widest_gap_mm), number(std::round(j.close_n)), number(there)));
        }
    }

    void others() {
        const auto& c = in_.choices;
        if (c.edge == EdgeShape::carved)
            add("join.carved", Severity::note,
                say("A carved edge follows the grain lines: draw them on, vary the bevel, burn nothing flat."));
        if (c.edge != EdgeShape::square && c.edge_mm > in_.top.thickness_mm / 2)
            add("join.edge", Severity::watch,
                say("An edge shaped by {} leaves nothing of the {} there is. Take less.", fine(c.edge_mm), fine(in_.top.thickness_mm)));
        if (!p_.joints.empty())
            add("join.before", Severity::note,
                say("What can't be reached after is done before: mask the glue faces, polish rods, set inserts in square stock, finish "
                    "small parts."));
    }

    void choices() {
        const auto& c = in_.choices;
        if (!p_.joints.empty()) {
            const auto needs = [&](double m, double open) { return say("{} of {} open", minutes(m), minutes(open)); };
            p_.choices.push_back(choice_of(
                join_hands, c,
                {needs(with(false, c.slow_glue, c.two_stages), p_.open_min), needs(with(true, c.slow_glue, c.two_stages), p_.open_min)}));
            p_.choices.push_back(choice_of(
                join_glues, c,
                {needs(p_.needed_min, open_minutes(c.open_min, p_.air_c)), needs(p_.needed_min, open_minutes(3 * c.open_min, p_.air_c))}));
            p_.choices.push_back(
                choice_of(join_stages, c,
                          {needs(with(c.helped, c.slow_glue, false), p_.open_min),
                           say("{} of {} open, a night between", minutes(with(c.helped, c.slow_glue, true)), minutes(p_.open_min))}));
            double m2 = 0;
            for (const GluedJoint& j : p_.joints) m2 += j.m2;
            const double one = m2 * c.spread_g_m2 / 1000 / c.glue_kg_l;
            p_.choices.push_back(
                choice_of(join_faces, c, {say("{} of glue", litres(one)), say("{} of glue, and twice the spreading", litres(2 * one))}));
            p_.choices.push_back(choice_of(
                join_looses, c,
                {say("clamped flat by eye and cauls; quickest"), say("strong and true; {} to set", minutes(p_.pieces * c.piece_s / 60)),
                 say("true, drilled with a guide"), say("quick, for height only")}));
            if (in_.top.wanted.live != LiveEdges::none)
                p_.choices.push_back(choice_of(
                    join_cauls, c,
                    {say("two, as long as the top, sawn before the glue is opened"), say("clamps slip on bark and round edges")}));
        }
        p_.choices.push_back(choice_of(join_edges, c,
                                       {say("nothing off"), say("soft to the hand"), say("crisp, and shows the thickness"),
                                        say("makes it look thinner"), say("where the live edge was cut away")}));
    }

    const JoinInputs& in_;
    JoinPlan& p_;
};

}  // namespace

void tell_join(const JoinInputs& in, JoinPlan& plan) { Teller(in, plan).tell(); }

std::vector<Thing> join_things(const JoinPlan& p, const JoinChoices& choices, const MakeUpPlan& makeup, const Frame& to_bench) {
    std::vector<Thing> out;
    for (std::size_t i = 0; i < p.joints.size(); ++i) {
        const GluedJoint& j = p.joints[i];
        Thing t{"joint " + std::to_string(i + 1), "joint", i, say("Joint {}", count(static_cast<double>(j.joint) + 1))};
        Ring line;
        for (const JointStation& s : makeup.joints.at(j.joint).along) line.push_back({s.u, s.v});
        t.area = to_bench.to_slab(pen_outline(line, 12));
        t.figures = {{"joint.length", "Long", mm(j.length_mm), {}, say("{} to glue", square_metres(j.m2)), {"along its line", {}, ""}},
                     {"joint.glue", "Glue", litres(j.glue_l), {}, {}, {"area × faces × spread / density", {}, ""}},
                     {"joint.clamps",
                      "Clamps, one every",
                      count(j.clamps),
                      mm(j.spacing_mm),
                      {},
                      {"the lesser of F/(p·t) and twice the distance", {}, ""}},
                     {"joint.pieces", "Tenons", count(j.pieces), {}, {}, {"length / pitch", {}, ""}}};
        if (j.widest_gap_mm > 0)
            t.figures.push_back({"joint.gap",
                                 "Stands open dry, N to close",
                                 fine(j.widest_gap_mm),
                                 number(std::round(j.close_n)),
                                 {},
                                 {"384·E·I·δ/(5·L³), both leaves bent edgewise", {}, "Euler and Bernoulli; an estimate"}});
        out.push_back(std::move(t));
    }
    for (std::size_t i = 0; i < choices.ties.size(); ++i) {
        const BowTie& b = choices.ties[i];
        Thing t{"bow tie " + std::to_string(i + 1), "tie", i, say("Bow tie {}", count(static_cast<double>(i) + 1))};
        t.area = to_bench.to_slab(outline_of(b));
        t.figures = {{"tie.size", "Long and wide", mm(b.long_mm), mm(b.wide_mm), {}, {"as set", {}, "the maker's"}},
                     {"tie.deep",
                      "Let in",
                      fine(b.deep_mm),
                      {},
                      b.from_above ? say("from above") : say("from underneath"),
                      {"as set", {}, "the maker's"}},
                     {"tie.bushings",
                      "Bushings differ by",
                      fine(12),
                      {},
                      say("with a cutter of 6: twice its diameter"),
                      {"inlay from one template: twice the cutter's diameter; corners of half of it are squared by hand", {}, ""}}};
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
