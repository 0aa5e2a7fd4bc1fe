#include "core/join/told.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/figure/choice.h"

namespace yb {

namespace {

Quantity minutes(double m) { return hours(m / 60); }

const char* pieces_above(Loose l) {
    return l == Loose::dowels ? "Dowels, wood above them" : l == Loose::biscuits ? "Biscuits, wood above them" : "Tenons, wood above them";
}

class Teller {
  public:
    Teller(const JoinInputs& in, JoinPlan& p) : in_(in), p_(p) {}

    void tell() {
        figures();
        beside();
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
                                  pieces_above(c.loose),
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

    /// What is sawn before the glue is opened; what draws two halves together; the rods of an open river.
    void beside() {
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
                        say("A hollow of {} takes {} N to close joint {}, of the {} N its clamps give: plane it flatter.",
                            fine(c.spring_mm), number(std::round(j.spring_n)), count(static_cast<double>(j.joint) + 1),
                            number(j.clamps * c.clamp_n)));
    }

    /// The rods of an open river: how long each is, in what order they go in, what the wood does at them.
    void rods() {
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
             fine(longest->length_mm),
             say("the shortest {}; drilled {} deep into both banks", fine(shortest->length_mm), fine(in_.how.rod_depth_mm)),
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
                say("Each {} is {} thick and leaves {} of wood above it: sunk a little off it comes through. Take a thinner one.",
                    piece_name(c.loose), fine(c.loose_thick_mm), fine(std::max(0.0, p_.piece_above_mm))),
                p_.piece_at.front());
        if (c.loose_thick_mm > in_.top.thickness_mm / 2)
            add("join.thick", Severity::watch,
                say("The {} of {} are more than half of the {} there is.", pieces_name(c.loose), fine(c.loose_thick_mm),
                    fine(in_.top.thickness_mm)));
    }

    void clashes() {
        for (const Clash& k : p_.clashes) {
            const bool one = k.one == "knot";
            if (one || k.other == "knot") {
                add("join.knot", Severity::watch,
                    say("In a knot lands: {}. It is hard, its grain stands across, and it breaks out. Move it along, or drill it slowly.",
                        one ? k.other : k.one),
                    k.at);
                continue;
            }
            add("join.clash", Severity::stop,
                say("Let in here both: {} and {}, over {} of height. Move one of them along.", k.one, k.other, fine(k.deep_mm)), k.at);
        }
        for (const LetIn& l : p_.let_in)
            if (l.cuts && l.high_mm > in_.top.thickness_mm - 1e-6 && l.low_mm < 1 && l.what.rfind("patch", 0) != 0)
                add("join.surface", Severity::stop, say("This goes right through the top: {}.", l.what), centroid(l.at));
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
            const std::string which = std::to_string(j.joint + 1);
            if (j.take_mm > 0.05) {
                const auto most = std::max_element(j.takes.begin(), j.takes.end(), [](const EdgeTake& a, const EdgeTake& b) {
                    return std::max(a.right_mm, a.left_mm) < std::max(b.right_mm, b.left_mm);
                });
                const bool right = most->right_mm >= most->left_mm;
                add("join.take", Severity::note,
                    say("Joint {}: plane {} off {} at {}, less to where nothing comes off – the working of the joint has it place by "
                        "place.",
                        which, fine(j.take_mm), in_.top.regions.at(right ? j.right : j.left).name,
                        along(most->u_mm + in_.top.wanted.length_mm / 2)),
                    Vec2{most->u_mm, 0});
            }
            if (j.square_mm && std::abs(*j.square_mm) > 0.1) {
                const double each = std::atan2(std::abs(*j.square_mm) / 2, std::max(1.0, in_.top.thickness_mm)) * 180 / std::numbers::pi;
                add("join.square", std::abs(*j.square_mm) > 0.5 ? Severity::stop : Severity::watch,
                    *j.square_mm > 0
                        ? say("Joint {} stands open above by {}: clamped, the top becomes a roof. Tilt the fence {} at each edge, or plane "
                              "one edge with its face up and the other with its face down.",
                              which, fine(*j.square_mm), degrees(each))
                        : say("Joint {} stands open below by {}: clamped, the top sags in the middle. Tilt the fence {} at each edge, or "
                              "plane "
                              "one edge with its face up and the other with its face down.",
                              which, fine(-*j.square_mm), degrees(each)));
            }
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
        if (c.edge == EdgeShape::carved && p_.carved.empty())
            add("join.carved_nothing", Severity::watch,
                say("Nothing is carved: every side keeps its live edge, or the top is no rectangle. Choose another edge."));
        rim();
        if (c.edge != EdgeShape::square && c.edge != EdgeShape::carved && c.edge_mm > in_.top.thickness_mm / 2)
            add("join.edge", Severity::watch,
                say("An edge shaped by {} leaves nothing of the {} there is. Take less.", fine(c.edge_mm), fine(in_.top.thickness_mm)));
        if (!p_.joints.empty())
            add("join.before", Severity::note,
                say("What can't be reached after is done before: mask the glue faces, polish rods, set inserts in square stock, finish "
                    "small parts."));
    }

    /// The rim: what shaping it leaves, what is let in too near to it, where a live edge runs out thin.
    void rim() {
        const ShapedRim& r = p_.rim;
        const double t = in_.top.thickness_mm;
        if (in_.choices.edge != EdgeShape::square) {
            std::vector<Given> given{{"upper face draws in by", fine(r.above_mm), "the edge's shape"},
                                     {"underside draws in by", fine(r.below_mm), "the edge's shape"},
                                     {"weighs less by", kg(r.kg), "wood's density; an estimate"}};
            p_.figures.push_back(
                {"join.rim",
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
                    along(where.x + in_.top.wanted.length_mm / 2), mm(worst), fine(t), mm(worst * blunt_mm / std::max(1.0, t)),
                    fine(blunt_mm)),
                where);
    }

    /// What is let in and does not lie inside a face that was drawn in, between two heights.
    void near_the_rim(const Ring& inside, double low, double high) {
        for (const LetIn& l : p_.let_in) {
            if (!l.cuts || l.high_mm <= low + 0.05 || l.low_mm >= high - 0.05) continue;
            const double out = area(l.at) - (inside.size() > 2 ? intersection_area(l.at, inside) : 0);
            if (out < 4) continue;
            add("join.edge_meets", Severity::stop, say("The shaped edge cuts into the {}: move it in, or shape the edge by less.", l.what),
                centroid(l.at));
            return;
        }
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
                bars.push_back(
                    n > 0 ? say("{}, {} more; the faces stay level", counted(n, "pair", "pairs"), counted(2 * n, "clamp", "clamps"))
                          : say("the faces are held level by tenons and eye"));
            }
            p_.choices.push_back(choice_of(join_acrosses, c, std::move(bars)));
        }
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
        t.choices = {join_springs.choice, join_looses.choice, join_faces.choice};
        t.figures = {{"joint.length", "Long", mm(j.length_mm), {}, say("{} to glue", square_metres(j.m2)), {"along its line", {}, ""}},
                     {"joint.glue", "Glue", litres(j.glue_l), {}, {}, {"area × faces × spread / density", {}, ""}},
                     {"joint.clamps",
                      "Clamps, one every",
                      count(j.clamps),
                      mm(j.spacing_mm),
                      {},
                      {"the lesser of F/(p·t) and twice the distance", {}, ""}},
                     {"joint.pieces", pieces_title(choices.loose), count(j.pieces), {}, {}, {"length / pitch", {}, ""}}};
        if (!j.takes.empty()) {
            std::vector<Given> places;
            for (const EdgeTake& e : j.takes) {
                if (e.right_mm > 0.005)
                    places.push_back(
                        {"right leaf, at " + std::to_string(std::lround(e.u_mm)) + " mm from the middle", fine(e.right_mm), "gauge"});
                if (e.left_mm > 0.005)
                    places.push_back(
                        {"left leaf, at " + std::to_string(std::lround(e.u_mm)) + " mm from the middle", fine(e.left_mm), "gauge"});
            }
            t.figures.push_back({"joint.take",
                                 "To plane off, the most",
                                 fine(j.take_mm),
                                 {},
                                 say("down to the straight line that takes least"),
                                 {"the lowest line over all gaps, half-way along, less each gap", places, "upper hull of the readings"}});
        }
        if (j.square_mm)
            t.figures.push_back({"joint.square",
                                 "Open above (+) or below (−)",
                                 fine(*j.square_mm),
                                 {},
                                 say("both edges together, over the thickness"),
                                 {"as read with the try square, the worst place", {}, "gauge"}});
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
        t.figures = {
            {"tie.size", "Long and wide", mm(b.long_mm), mm(b.wide_mm), {}, {"as set", {}, "the maker's"}},
            {"tie.deep",
             "Let in",
             fine(b.deep_mm),
             {},
             b.from_above ? say("from above") : say("from underneath"),
             {"as set", {}, "the maker's"}},
            {"tie.bushings",
             "Bushings differ by",
             fine(2 * choices.bit_mm),
             {},
             say("with a cutter of {}; its corners, {} round, are squared with a chisel", fine(choices.bit_mm), fine(choices.bit_mm / 2)),
             {"inlay from one template: twice the cutter's diameter", {{"cutter", fine(choices.bit_mm), "the maker's"}}, ""}}};
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
