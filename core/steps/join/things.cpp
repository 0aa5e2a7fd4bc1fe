// What can be picked of a glue-up.
#include "core/steps/join/told.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/ground/figure/choice.h"

namespace yb {

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
