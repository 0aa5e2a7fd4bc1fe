// What is to be minded of a glue-up.
#include "core/steps/join/teller.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/ground/figure/choice.h"
#include "core/steps/join/depth.h"

namespace yb {

void JoinTeller::glue_up() {
    const auto& c = in_.choices;
    if (p_.joints.empty()) return;
    if (p_.needed_min > p_.open_min) {
        // What is chosen already is not offered again.
        Phrase says = say("The glue skins after {} and this takes {}.", minutes(p_.open_min), minutes(p_.needed_min));
        if (!c.helped) says.then.push_back(say("A helper makes it {}.", minutes(with(true, c.slow_glue, c.two_stages))));
        if (!c.two_stages && p_.joints.size() > 1)
            says.then.push_back(say("Two stages make it {}.", minutes(with(c.helped, c.slow_glue, true))));
        if (!c.slow_glue) says.then.push_back(say("A slower glue leaves {} open.", minutes(open_minutes(c.open_min * 3, p_.air_c))));
        if (says.then.empty()) says.then.push_back(say("Glue it in cooler air, or with fewer pieces."));
        add("join.skins", Severity::stop, std::move(says));
    } else if (p_.needed_min > 0.8 * p_.open_min)
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

void JoinTeller::pieces() {
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

void JoinTeller::clashes() {
    for (const Clash& k : p_.clashes) {
        const bool one = k.one == "knot";
        if (one || k.other == "knot") {
            add("join.knot", Severity::watch,
                say("The {} lands in a knot: it is hard, its grain stands across, and it breaks out. Move it along, or drill it slowly.",
                    one ? k.other : k.one),
                k.at);
            continue;
        }
        add("join.clash", Severity::stop,
            say("Two things want one place: {} and {}, over {} of height. Move one of them along.", k.one, k.other, fine(k.deep_mm)), k.at);
    }
    thin_between();
    for (const LetIn& l : p_.let_in)
        if (l.cuts && l.high_mm > in_.top.thickness_mm - 1e-6 && l.low_mm < 1 && l.kind != LetInKind::patch)
            add("join.surface", Severity::stop, say("This goes right through the top: {}.", l.what), centroid(l.at));
    for (std::size_t i = 0; i < in_.choices.ties.size(); ++i) {
        const BowTie& b = in_.choices.ties[i];
        if (intersection_area(outline_of(b), in_.top.above) < area(outline_of(b)) - 1)
            add("join.tie_out", Severity::stop, say("Bow tie {} runs past the edge of the top.", count(static_cast<double>(i) + 1)),
                Vec2{b.u_mm, b.v_mm});
        if (b.deep_mm < in_.top.thickness_mm / 4)
            add("join.tie_shallow", Severity::watch,
                say("Bow tie {} is {} deep in {}: let it in a third at least, it holds by its sides.", count(static_cast<double>(i) + 1),
                    fine(b.deep_mm), fine(in_.top.thickness_mm)),
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

void JoinTeller::thin_between() {
    for (const WoodLeft& w : wood_left(p_.let_in, in_.top.thickness_mm, thin_between_mm)) {
        const double least = w.above ? thin_between_mm : in_.least_above_mm;
        if (w.left_mm >= least) continue;
        const LetIn& low = p_.let_in[w.below];
        const Severity much = w.left_mm < least / 3 ? Severity::stop : Severity::watch;
        if (w.above)
            add("join.thin", much,
                say("Between {} and {} above it stay {} of wood: one breaks into the other. Move one along, or sink it less.", low.what,
                    p_.let_in[*w.above].what, fine(w.left_mm)),
                w.at);
        // What tenons and inserts leave is told where they are chosen.
        else if (low.kind != LetInKind::insert && low.kind != LetInKind::piece &&
                 (low.kind != LetInKind::tenon || in_.choices.loose != Loose::tenons))
            add("join.thin", much,
                say("Above {} stay {} of wood and you want {}: it may show, or break through. Sink it less.", low.what, fine(w.left_mm),
                    fine(in_.least_above_mm)),
                w.at);
    }
}

void JoinTeller::gaps() {
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

void JoinTeller::others() {
    const auto& c = in_.choices;
    if (c.edge == EdgeShape::carved)
        add("join.carved", Severity::note, say("A carved edge follows the grain lines: draw them on, vary the bevel, burn nothing flat."));
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

void JoinTeller::near_the_rim(const Ring& inside, double low, double high) {
    for (const LetIn& l : p_.let_in) {
        if (!l.cuts || l.high_mm <= low + 0.05 || l.low_mm >= high - 0.05) continue;
        const double out = area(l.at) - (inside.size() > 2 ? intersection_area(l.at, inside) : 0);
        if (out < 4) continue;
        add("join.edge_meets", Severity::stop, say("The shaped edge cuts into {}: move it in, or shape the edge by less.", l.what),
            centroid(l.at));
        return;
    }
}

}  // namespace yb
