#include "core/steps/join/join.h"

#include <algorithm>
#include <cmath>

#include "core/ground/figure/choice.h"
#include "core/steps/fill/fill.h"
#include "core/steps/join/depth.h"
#include "core/steps/join/told.h"
#include "core/steps/under/under.h"

namespace yb {

const char* piece_name(Loose l) { return l == Loose::dowels ? "dowel" : l == Loose::biscuits ? "biscuit" : "tenon"; }
const char* pieces_name(Loose l) { return l == Loose::dowels ? "dowels" : l == Loose::biscuits ? "biscuits" : "tenons"; }
const char* pieces_title(Loose l) { return l == Loose::dowels ? "Dowels" : l == Loose::biscuits ? "Biscuits" : "Tenons"; }

double open_minutes(double at_20, double temp_c) { return at_20 * std::pow(2, (20 - temp_c) / 10); }

double clamp_pressure(double specific_gravity) { return specific_gravity < 0.45 ? 0.35 : 0.7; }

double clamp_spacing(double clamp_n, double pressure, double thickness, double distance) {
    return std::min(clamp_n / (pressure * thickness), 2 * distance);
}

Ring outline_of(const BowTie& t) {
    const Frame f{{t.u_mm, t.v_mm}, t.turn_deg};
    const double l = t.long_mm / 2;
    const double w = t.wide_mm / 2;
    return f.to_slab(Ring{{-l, -w}, {0, -w / 2}, {l, -w}, {l, w}, {0, w / 2}, {-l, w}});
}

std::vector<BowTie> ties_over(const Ring& crack, double thickness) {
    std::vector<BowTie> out;
    if (crack.size() < 3) return out;
    // A crack is long and narrow: its own direction is that of its two points that lie furthest apart.
    Vec2 from = crack.front();
    Vec2 to = crack.front();
    for (const Vec2 a : crack)
        for (const Vec2 b : crack)
            if (length(a - b) > length(from - to)) from = a, to = b;
    const double run = length(to - from);
    if (run < 60) return out;
    constexpr double apart = 150;
    const int n = std::max(1, static_cast<int>(std::floor(run / apart)));
    const double turn = std::atan2(to.y - from.y, to.x - from.x) * 180 / std::numbers::pi;
    for (int i = 0; i < n; ++i) {
        const Vec2 at = lerp(from, to, (i + 0.5) / n);
        // Its waist lies on the crack's own middle there.
        const Frame along{at, turn};
        const auto cut = cut_at_x(along.from_slab(crack), 0);
        Vec2 middle = at;
        double gap = 0;
        if (!cut.empty()) middle = along.to_slab(Vec2{0, (cut.front().from + cut.back().to) / 2}), gap = cut.back().to - cut.front().from;
        BowTie t;
        t.u_mm = middle.x, t.v_mm = middle.y;
        t.turn_deg = turn + 90;
        t.long_mm = std::round(std::max(80.0, gap + 70) / 5) * 5;
        t.wide_mm = std::round(t.long_mm * 0.4);
        t.deep_mm = std::round(std::min(thickness / 3, 20.0));
        out.push_back(t);
    }
    return out;
}

namespace {

/// How many of the joints are glued at once; in two stages half of them, the larger half, first.
std::size_t first_stage(const JoinPlan& p, const JoinChoices& c) { return c.two_stages ? (p.joints.size() + 1) / 2 : p.joints.size(); }

class Planner {
  public:
    explicit Planner(const JoinInputs& in) : in_(in) {}

    JoinPlan run() {
        if (!in_.top.ready) return p_;
        p_.ready = true;
        p_.air_c = in_.air_c;
        p_.open_min = open_minutes(in_.choices.open_min * (in_.choices.slow_glue ? 3 : 1), in_.air_c);
        if (!is_river(in_.how.kind))
            for (std::size_t i = 0; i < in_.makeup.joints.size(); ++i) joint(i);
        // The second stage takes the first one's clamps.
        int first = 0;
        for (std::size_t i = 0; i < first_stage(p_, in_.choices); ++i) first += p_.joints[i].clamps;
        p_.clamps = std::max(first, p_.clamps - first);
        if (!p_.joints.empty()) across();
        p_.steps = sequence(in_.choices);
        for (const GlueStep& s : p_.steps) p_.needed_min += s.minutes;
        JoinChoices alone = in_.choices;
        alone.helped = false;
        for (const GlueStep& s : sequence(alone)) p_.alone_min += s.minutes;
        if (!p_.joints.empty() && in_.choices.cauls) p_.cauls = cauls_for(in_.top, in_.choices.caul_mm);
        if (in_.how.halves_u_mm) p_.halves = halves_at(in_.top, *in_.how.halves_u_mm, in_.choices.connectors);
        let_in();
        knots();
        clashes();
        shape_rim(in_, p_);
        p_.bark_mm = live_edges_mm(in_.top);
        for (const RiverRun& r : in_.top.rivers) p_.rods.insert(p_.rods.end(), r.rods.begin(), r.rods.end());
        std::sort(p_.rods.begin(), p_.rods.end(), [](const Rod& a, const Rod& b) { return a.u_mm < b.u_mm; });
        tell_join(in_, p_);
        sort_by_severity(p_.cautions);
        return p_;
    }

  private:
    double gravity_of(std::size_t leaf) const {
        const Region& r = in_.top.regions.at(leaf);
        return r.species && r.species->specific_gravity_12 ? *r.species->specific_gravity_12 : 0.5;
    }

    /// How wide a leaf is across the joint, at its middle.
    double width_of(std::size_t leaf) const {
        const Box b = bounds(in_.top.regions.at(leaf).above);
        return std::max(1.0, area(in_.top.regions.at(leaf).above) / std::max(1.0, b.width()));
    }

    void joint(std::size_t i) {
        const JointPlan& j = in_.makeup.joints[i];
        if (j.along.size() < 2) return;
        const auto& c = in_.choices;
        GluedJoint g;
        g.joint = i, g.right = j.right, g.left = j.left;
        for (std::size_t k = 1; k < j.along.size(); ++k)
            g.length_mm += std::hypot(j.along[k].u - j.along[k - 1].u, j.along[k].v - j.along[k - 1].v);
        g.m2 = g.length_mm * in_.top.thickness_mm * 1e-6;
        g.glue_l = g.m2 * (c.both_faces ? 2 : 1) * c.spread_g_m2 / 1000 / c.glue_kg_l;
        if (c.loose != Loose::none) {
            // Half a pitch in from each end, evenly.
            g.pieces = std::max(1, static_cast<int>(std::floor(g.length_mm / c.pitch_mm + 1e-3)));
            for (int k = 0; k < g.pieces; ++k) {
                const double u = j.along.front().u + (j.along.back().u - j.along.front().u) * (k + 0.5) / g.pieces;
                const auto at = std::find_if(j.along.begin() + 1, j.along.end() - 1, [&](const JointStation& s) { return s.u >= u; });
                const JointStation& b = *at;
                const JointStation& a = *(at - 1);
                const double t = b.u > a.u ? (u - a.u) / (b.u - a.u) : 0;
                const Vec2 middle{u, a.v + (b.v - a.v) * t};
                p_.piece_at.push_back(middle);
                const double low = in_.top.thickness_mm / 2 - c.loose_thick_mm / 2;
                p_.let_in.push_back({LetInKind::piece, piece_name(in_.choices.loose), box_ring(middle, c.loose_wide_mm, c.loose_long_mm),
                                     low, low + c.loose_thick_mm});
            }
            p_.piece_above_mm = in_.top.thickness_mm / 2 - c.loose_thick_mm / 2;
        }
        const double distance = std::min(width_of(j.right), width_of(j.left));
        const double pressure = std::max(clamp_pressure(gravity_of(j.right)), clamp_pressure(gravity_of(j.left)));
        g.spacing_mm = clamp_spacing(c.clamp_n, pressure, std::max(1.0, in_.top.thickness_mm), distance);
        g.clamps = static_cast<int>(std::ceil(g.length_mm / g.spacing_mm - 1e-9));
        for (const GapReading& r : c.gaps)
            if (r.joint == static_cast<int>(i) + 1 && r.edge == EdgeRead::together) g.widest_gap_mm = std::max(g.widest_gap_mm, r.gap_mm);
        take_from_edges(in_, g);
        if (g.widest_gap_mm > 0 || c.spring == Spring::hollow) {
            // Both leaves bend edgewise as beams of their width under an even load.
            const auto stiff = [&](std::size_t leaf) {
                const Region& r = in_.top.regions.at(leaf);
                const double e = r.species && r.species->moe_mpa ? *r.species->moe_mpa : 10000;
                return e * in_.top.thickness_mm * std::pow(width_of(leaf), 3) / 12;
            };
            const double ei = stiff(j.right) * stiff(j.left) / (stiff(j.right) + stiff(j.left));
            const auto closes = [&](double gap) { return 384 * ei * gap / (5 * std::pow(g.length_mm, 3)); };
            g.close_n = closes(g.widest_gap_mm);
            if (c.spring == Spring::hollow) g.spring_n = closes(c.spring_mm);
        }
        p_.glue_l += g.glue_l, p_.clamps += g.clamps, p_.pieces += g.pieces;
        p_.joints.push_back(g);
    }

    /// Bars across, clear of what is sunk into the underside: there they would press on nothing.
    void across() {
        std::vector<Span1> sunk;
        for (const Channel& c : in_.under.channels) sunk.push_back({c.u_mm - c.width_mm / 2, c.u_mm + c.width_mm / 2});
        if (in_.under.plate_let_in)
            for (const LegPlate& p : in_.under.plates) sunk.push_back({p.u_mm - p.along_mm / 2, p.u_mm + p.along_mm / 2});
        p_.across_u = cauls_across(in_.top.wanted.length_mm, in_.choices.across, across_bar_mm, sunk);
    }

    /// What is let in from below and above: plates, pockets, inserts, rods, bow ties, fillings, patches.
    void let_in() {
        const auto& u = in_.under;
        const double t = in_.top.thickness_mm;
        // From the floor it is drilled at.
        const auto insert = [&](std::string what, Vec2 at, double floor) {
            p_.let_in.push_back(
                {LetInKind::insert, std::move(what), box_ring(at, u.bolt_mm + 4, u.bolt_mm + 4), floor, floor + u.insert_mm});
        };
        for (std::size_t i = 0; i < u.plates.size(); ++i) {
            if (u.plate_let_in)
                p_.let_in.push_back({LetInKind::plate, "plate " + std::to_string(i + 1), footprint(u.plates[i]), 0, u.plate_mm});
            for (const Vec2 h : holes_of(u.plates[i], u)) insert("insert of plate " + std::to_string(i + 1), h, floor_of(u.plates[i], u));
        }
        for (std::size_t i = 0; i < u.channels.size(); ++i) {
            const Channel& c = u.channels[i];
            p_.let_in.push_back({LetInKind::pocket, "pocket of channel " + std::to_string(i + 1), footprint(c), 0, c.depth_mm});
            for (const Vec2 h : holes_of(c, u)) insert("insert of channel " + std::to_string(i + 1), h, floor_of(c, u));
        }
        const auto notches = notches_of(u);
        for (std::size_t i = 0; i < notches.size(); ++i)
            p_.let_in.push_back({LetInKind::notch, "notch of panel " + std::to_string(i + 1), notches[i], 0, u.notch_mm});
        for (const RiverRun& r : in_.top.rivers)
            for (const Rod& rod : r.rods) {
                const double high = t / 2 + in_.how.rod_mm / 2;
                const JointPlan& j = in_.makeup.joints.at(r.joint);
                double v = 0;
                for (const JointStation& s : j.along)
                    if (s.u <= rod.u_mm) v = s.v;
                p_.let_in.push_back(
                    {LetInKind::rod, "rod", box_ring({rod.u_mm, v}, in_.how.rod_mm, rod.length_mm), high - in_.how.rod_mm, high});
            }
        for (std::size_t i = 0; i < in_.choices.ties.size(); ++i) {
            const BowTie& b = in_.choices.ties[i];
            p_.let_in.push_back({LetInKind::bow_tie, "bow tie " + std::to_string(i + 1), outline_of(b), b.from_above ? t - b.deep_mm : 0,
                                 b.from_above ? t : b.deep_mm});
        }
        if (p_.halves) {
            for (std::size_t i = 0; i < p_.halves->connectors.size(); ++i)
                p_.let_in.push_back({LetInKind::connector, "connector " + std::to_string(i + 1),
                                     box_ring(p_.halves->connectors[i], connector_long_mm, connector_wide_mm), 0, connector_deep * t});
            for (const Vec2 q : p_.halves->tenons) {
                const double low = t / 2 - in_.choices.loose_thick_mm / 2;
                p_.let_in.push_back({LetInKind::tenon, "tenon of the halves",
                                     box_ring(q, in_.choices.loose_long_mm, in_.choices.loose_wide_mm), low,
                                     low + in_.choices.loose_thick_mm});
            }
        }
        for (const Region& r : in_.top.regions) {
            if (!r.let_in) continue;
            const Ring& face = r.above.size() > 2 ? r.above : r.below;
            if (r.kind == RegionKind::patch)
                p_.let_in.push_back({LetInKind::patch, "patch " + std::to_string(r.index + 1), face, r.low_mm, r.high_mm});
            else if (face.size() > 2)
                p_.let_in.push_back({r.kind == RegionKind::resin ? LetInKind::filled : LetInKind::open,
                                     r.kind == RegionKind::resin ? "filled " + r.name : "open " + r.name, face, r.low_mm, r.high_mm,
                                     false});
        }
    }

    /// Live knots: wood, but hard, and across the grain; what is drilled or cut into one breaks out.
    void knots() {
        for (std::size_t i = 0; i < std::min(in_.slabs.size(), in_.top.leaves); ++i)
            for (const Flaw& f : in_.slabs[i]->flaws) {
                if (f.kind != FlawKind::knot || f.outline.size() < 3 || f.through || f.depth_mm || f.loose) continue;
                const Ring at = in_.top.regions[i].placed.frame().from_slab(f.outline);
                if (intersection_area(at, in_.top.above) > 4)
                    p_.let_in.push_back({LetInKind::knot, "knot", at, 0, in_.top.thickness_mm, false});
            }
    }

    void clashes() {
        const auto meet = [](const LetIn& a, const LetIn& b) { return std::min(a.high_mm, b.high_mm) - std::max(a.low_mm, b.low_mm); };
        std::vector<Box> boxes;
        for (const LetIn& l : p_.let_in) boxes.push_back(bounds(l.at));
        for (std::size_t i = 0; i < p_.let_in.size(); ++i)
            for (std::size_t j = i + 1; j < p_.let_in.size(); ++j) {
                const LetIn& a = p_.let_in[i];
                const LetIn& b = p_.let_in[j];
                if (!a.cuts && !b.cuts) continue;
                if (boxes[i].low.x > boxes[j].high.x || boxes[j].low.x > boxes[i].high.x || boxes[i].low.y > boxes[j].high.y ||
                    boxes[j].low.y > boxes[i].high.y)
                    continue;
                const double deep = meet(a, b);
                if (deep <= 0.05 || belong_together(a.kind, b.kind)) continue;
                const auto over = intersection(a.at, b.at);
                double shared = 0;
                for (const Ring& r : over) shared += area(r);
                if (shared < 4) continue;
                p_.clashes.push_back({a.what, b.what, centroid(largest(over)), deep});
            }
    }

    std::vector<GlueStep> sequence(const JoinChoices& c) const { return glue_sequence(p_, c); }

    const JoinInputs& in_;
    JoinPlan p_;
};

}  // namespace

std::vector<GlueStep> glue_sequence(const JoinPlan& p, const JoinChoices& c) {
    if (p.joints.empty()) return {};
    double m2 = 0;
    double pieces = 0;
    double clamps = 0;
    double n = 0;
    for (std::size_t i = 0; i < first_stage(p, c); ++i) {
        const GluedJoint& j = p.joints[i];
        m2 += j.m2 * (c.both_faces ? 2 : 1), pieces += j.pieces, clamps += j.clamps, n += 1;
    }
    // One joint alone in two stages gains nothing: it is as long as it is.
    const double hands = c.helped ? 0.6 : 1;                   // two pairs of hands are not twice as quick
    const auto bars = static_cast<double>(p.across_u.size());  // each pair takes a clamp at either end
    std::vector<GlueStep> out{{"spread", m2, m2 / c.spread_m2_min * hands},
                              {"pieces", pieces, pieces * c.piece_s / 60 * hands},
                              {"set", n, n * c.set_min},
                              {"clamp", clamps, clamps * c.clamp_s / 60 * hands}};
    // Laid on snug before the clamps pull: after them the faces have stepped.
    if (bars > 0) out.insert(out.end() - 1, {"across", bars, bars * 2 * c.clamp_s / 60 * hands});
    return out;
}

JoinPlan plan_join(const JoinInputs& in) { return Planner(in).run(); }

}  // namespace yb
