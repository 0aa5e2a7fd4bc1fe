#include "core/steps/join/teller.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/ground/figure/choice.h"

namespace yb {

namespace {

const char* pieces_above(Loose l) {
    return l == Loose::dowels ? "Dowels, wood above them" : l == Loose::biscuits ? "Biscuits, wood above them" : "Tenons, wood above them";
}

}  // namespace

void JoinTeller::add(std::string key, Severity s, Phrase says, std::optional<Vec2> at) {
    p_.cautions.push_back(
        {std::move(key), s, step_key::join, std::move(says), at ? std::optional(in_.top.bench.to_slab(*at)) : std::nullopt});
}

void JoinTeller::figures() {
    const auto& c = in_.choices;
    if (p_.joints.empty() && !p_.rods.empty()) return;  // its rods are what it is about
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
    p_.figures.push_back(
        {"join.needed",
         "Needed, and open",
         minutes(p_.needed_min),
         minutes(p_.open_min),
         say("open time at {}; counted before the bottle is opened", celsius(p_.air_c)),
         {"area / pace + tenons + joints set + clamps; open time doubles for 10 °C colder", given, "starting values, yours to change"}});
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
    p_.figures.push_back({"join.clamps",
                          "Clamps, one every",
                          count(p_.clamps),
                          mm(one.spacing_mm),
                          say("{} N each", number(c.clamp_n)),
                          {"the lesser of F/(p·t) and twice the distance from clamp to joint; p 0.7 N/mm² for hard woods, 0.35 for soft",
                           {{"F, N", number(c.clamp_n), "the maker's"}, {"t", fine(in_.top.thickness_mm), "Flat"}},
                           "a 45° spread from each clamp"}});
    if (p_.pieces > 0)
        p_.figures.push_back({"join.pieces",
                              pieces_above(c.loose),
                              count(p_.pieces),
                              fine(p_.piece_above_mm),
                              say("one every {}", mm(c.pitch_mm)),
                              {"length / pitch, half a pitch in from the ends; half of the thickness less half a tenon",
                               {{"pitch", mm(c.pitch_mm), "the maker's"}},
                               ""}});
}

double JoinTeller::with(bool helped, bool slow, bool stages) const {
    JoinChoices c = in_.choices;
    c.helped = helped, c.slow_glue = slow, c.two_stages = stages;
    double sum = 0;
    for (const GlueStep& s : glue_sequence(p_, c)) sum += s.minutes;
    return sum;
}

void JoinTeller::beside() {
    const auto& c = in_.choices;
    if (!p_.cauls.empty()) {
        double wide = 0;
        std::vector<Given> cut;
        for (const Caul& k : p_.cauls) {
            wide = std::max(wide, k.wide_mm);
            cut.push_back({k.left ? "left edge, long" : "right edge, long", mm(k.length_mm), "cut list"});
            cut.push_back({k.left ? "left edge, wide" : "right edge, wide", mm(k.wide_mm), "cut list"});
        }
        p_.figures.push_back({"join.cauls",
                              "Cauls, the widest",
                              count(static_cast<double>(p_.cauls.size())),
                              mm(wide),
                              say("sawn from the offcut along the edge, before the glue is opened"),
                              {"the outermost of both faces; straight behind", cut, "docs/methods.md, Join"}});
    }
    if (!p_.across_u.empty()) {
        std::vector<Given> at;
        for (const double u : p_.across_u) at.push_back({"a pair at", along(u + in_.top.wanted.length_mm / 2), "from the left end"});
        p_.figures.push_back({"join.across",
                              "Cauls across, in pairs",
                              count(static_cast<double>(p_.across_u.size())),
                              {},
                              say("a bar above and one below, wax paper between; clear of pockets"),
                              {"80 mm in from both ends, one at least every 450 mm between", at, "docs/methods.md, Join"}});
    }
    if (p_.halves) {
        const Halves& h = *p_.halves;
        p_.figures.push_back(
            {"join.halves",
             "Halves weigh",
             kg(h.left_kg),
             kg(h.right_kg),
             say("{} underneath, {} between; an estimate", counted(static_cast<double>(h.connectors.size()), "connector", "connectors"),
                 counted(static_cast<double>(h.tenons.size()), "tenon", "tenons")),
             {"Σ of what lies to either side of the cut", {{"cut, from the middle", mm(h.u_mm), "Lay"}}, ""}});
        add("join.halves", Severity::note,
            say("Cut square to the sides, both halves in one pass; drill the second half's connectors through a guide with a washer of "
                "{} "
                "behind it: they draw the joint tight. Dry together at home first.",
                fine(c.washer_mm)),
            Vec2{h.u_mm, 0});
        for (const std::size_t k : h.not_in_wood)
            add("join.connector", Severity::stop,
                say("Connector {} lands in the river: nothing holds it there. Take another number of them.",
                    count(static_cast<double>(k) + 1)),
                h.connectors[k]);
    }
    if (!p_.rods.empty()) rods();
    if (c.spring == Spring::hollow)
        for (const GluedJoint& j : p_.joints)
            if (j.spring_n > 0.3 * j.clamps * c.clamp_n)
                add("join.spring", Severity::watch,
                    say("A hollow of {} takes {} N to close joint {}, of the {} N its clamps give: plane it flatter.", fine(c.spring_mm),
                        number(std::round(j.spring_n)), count(static_cast<double>(j.joint) + 1), number(j.clamps * c.clamp_n)));
}

void JoinTeller::rods() {
    const auto n = static_cast<double>(p_.rods.size());
    const auto [shortest, longest] =
        std::minmax_element(p_.rods.begin(), p_.rods.end(), [](const Rod& a, const Rod& b) { return a.length_mm < b.length_mm; });
    std::vector<Given> each;
    for (const Rod& rod : p_.rods)
        each.push_back({"rod at", along(rod.u_mm + in_.top.wanted.length_mm / 2), "from the left end"}),
            each.push_back({"its length", fine(rod.length_mm), "gap and both depths"});
    p_.figures.push_back(
        {"join.rods",
         "Rods, the longest",
         count(n),
         fine(std::max(0.0, longest->length_mm)),
         say("the shortest {}; drilled {} deep into both banks", fine(std::max(0.0, shortest->length_mm)), fine(in_.how.rod_depth_mm)),
         {"gap half-way down + 2 × depth", each, "the banks at the finished planes"}});
    // A rod let into both banks: M = F·g/2, it bends for good at 235 N/mm².
    double carry = 0;
    for (const Rod& rod : p_.rods)
        if (rod.gap_mm > 1) carry += 2 * rod_yield_mpa * std::numbers::pi * std::pow(in_.how.rod_mm, 3) / 32 / rod.gap_mm;
    p_.figures.push_back({"join.rods_carry",
                          "Rods bend under, N on one bank",
                          number(std::round(carry / 100) * 100),
                          {},
                          say("all of them together, of mild steel; an estimate for your judgement"),
                          {"Σ 2·σ·W/gap, W = π·d³/32, let in at both ends",
                           {{"σ, N/mm²", number(rod_yield_mpa), "mild steel"}, {"d", fine(in_.how.rod_mm), "Lay"}},
                           "the wood around them gives before, where they are short; local codes stand above it"}});
    add("join.rods", Severity::note,
        say("Rods: carry both banks' marks across with one straight edge, drill square to the joint line – never along its bends – "
            "with "
            "a guide, polish the rods before they go in, then slide both halves on together. What they carry is an "
            "estimate."));
    double most = 0;
    for (const Region& r : in_.top.regions)
        if (r.wood())
            most = std::max(
                most, r.shrinkage(lerp(bounds(r.above).low, bounds(r.above).high, 0.5).x, bounds(r.above).low.y, bounds(r.above).high.y)
                              .value_or(0) *
                          bounds(r.above).height() / 100 * 4 / 30);
    if (most > 0.5)
        add("join.rods_move", Severity::watch,
            say("A leaf moves about {} across when its moisture changes by 4 %: glue each rod at one bank only, snug in the other, "
                "and "
                "{} longer bored there.",
                fine(most), fine(std::ceil(most))));
}

void JoinTeller::rim() {
    const ShapedRim& r = p_.rim;
    const double t = in_.top.thickness_mm;
    if (in_.choices.edge != EdgeShape::square) {
        std::vector<Given> given{{"upper face draws in by", fine(r.above_mm), "the edge's shape"},
                                 {"underside draws in by", fine(r.below_mm), "the edge's shape"},
                                 {"weighs less by", kg(r.kg), "wood's density; an estimate"}};
        p_.figures.push_back({"join.rim",
                              "Straight left of the rim",
                              fine(std::max(0.0, r.flat_mm)),
                              litres(r.litres),
                              say("{} come off round it; the underside draws in {}", litres(r.litres), fine(r.below_mm)),
                              {"thickness − what the shape takes; section taken × length round the rim", given, "docs/methods.md, Join"}});
        // A bevel as high as it is asked for underneath; a rounded or chamfered edge the same above.
        const double high = in_.choices.edge == EdgeShape::carved ? t : in_.choices.edge_mm;
        near_the_rim(widened(in_.top.below.size() > 2 ? in_.top.below : in_.top.above, -r.below_mm), 0, high);
        near_the_rim(widened(in_.top.above, -r.above_mm), t - high, t);
        if (r.flat_mm > 0 && r.flat_mm < 6 && t > 12)
            add("join.rim_thin", Severity::watch,
                say("The shaped edge leaves {} standing straight: a rim so thin chips and dents. Take less off.", fine(r.flat_mm)));
    }
    if (in_.top.below.size() < 3 || in_.top.cross_cut()) return;
    const Sides above = sides_of(in_.top.above);
    const Sides below = sides_of(in_.top.below);
    double worst = 0;
    Vec2 where;
    for (const bool left : {false, true}) {
        const auto& a = left ? above.high : above.low;
        const auto& b = left ? below.high : below.low;
        if (a.size() < 2 || b.size() < 2) continue;
        for (int i = 1; i < 60; ++i) {
            const double u = in_.top.wanted.length_mm * (i / 60.0 - 0.5);
            const Vec2 q{u, height_at(a, u)};
            if (const double lean = std::abs(q.y - height_at(b, u)); lean > worst) worst = lean, where = q;
        }
    }
    constexpr double blunt_mm = 6;
    if (worst > 1.5 * t)
        add("join.feather", Severity::watch,
            say("The live edge at {} leans {} over {} of thickness and runs out thin: it chips, and catches sleeves. Break it back {} "
                "following the grain, so that {} stands.",
                along(in_.top.bench.to_slab(where).x), mm(worst), fine(t), mm(worst * blunt_mm / std::max(1.0, t)), fine(blunt_mm)),
            where);
}

void JoinTeller::choices() {
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
            p_.choices.push_back(choice_of(join_cauls, c,
                                           {say("{} along the edges, sawn before the glue is opened",
                                                counted(static_cast<double>(cauls_for(in_.top, c.caul_mm).size()), "caul", "cauls")),
                                            say("clamps slip on bark and round edges")}));
    }
    if (!p_.joints.empty()) {
        double most = 0;
        for (const GluedJoint& j : p_.joints) most = std::max(most, j.spring_n);
        p_.choices.push_back(choice_of(join_springs, c,
                                       {say("closed by clamps all along"),
                                        most > 0 ? say("the ends stay shut; {} N close the middle", number(std::round(most)))
                                                 : say("{} hollow in the middle: the ends stay shut as they dry", fine(c.spring_mm))}));
    }
    std::vector<Phrase> edges{say("nothing off"), say("soft to the hand"), say("crisp, and shows the thickness"),
                              say("makes it look thinner"), say("where the live edge was cut away, along the grain")};
    for (std::size_t i = 1; i < edges.size(); ++i) {
        JoinInputs other = in_;
        other.choices.edge = join_edges.values[i];
        JoinPlan with;
        shape_rim(other, with);
        edges[i].then.push_back(say("{} straight left, {} off", fine(std::max(0.0, with.rim.flat_mm)), litres(with.rim.litres)));
    }
    p_.choices.push_back(choice_of(join_edges, c, std::move(edges)));
    if (p_.bark_mm > 0) {
        p_.choices.push_back(choice_of(join_barks, c,
                                       {say("{} to draw off and brush, about {}; what is below stays as it grew", along(p_.bark_mm),
                                            hours(p_.bark_mm / 1000 * bark_off_h_m)),
                                        say("{} that falls off within the years, in the dry first", along(p_.bark_mm))}));
        if (c.bark_kept)
            add("join.bark", Severity::watch,
                say("{} of bark stays on: it falls off later, the more the drier the room. Run thin glue under its edge, oil it, and "
                    "write down that the client agreed.",
                    along(p_.bark_mm)));
    }
    if (!p_.joints.empty()) {
        std::vector<Phrase> bars;
        for (const CaulsAcross way : join_acrosses.values) {
            const auto n = static_cast<double>(cauls_across(in_.top.wanted.length_mm, way, across_bar_mm, {}).size());
            bars.push_back(n > 0 ? say("{}, {} more and {} of the open time; the faces stay level", counted(n, "pair", "pairs"),
                                       counted(2 * n, "clamp", "clamps"),
                                       minutes(2 * n * in_.choices.clamp_s / 60 * (in_.choices.helped ? 0.6 : 1)))
                                 : say("the faces are held level by tenons and eye"));
        }
        p_.choices.push_back(choice_of(join_acrosses, c, std::move(bars)));
    }
}

void tell_join(const JoinInputs& in, JoinPlan& plan) { JoinTeller(in, plan).tell(); }

}  // namespace yb
