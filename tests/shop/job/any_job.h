// Jobs by lot: mostly within reason, now and then far out of it, every school in any of its ways.
#pragma once

#include <algorithm>
#include <cmath>
#include <random>

#include "core/ground/fields/walk.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/everything.h"

namespace yb {

struct Dice {
    std::mt19937 engine;
    double between(double a, double b) { return std::uniform_real_distribution<double>(a, b)(engine); }
    /// Mostly within reason, now and then far out of it.
    double wild(double a, double b) { return one_in(8) ? between(a - 20 * (b - a), b + 20 * (b - a)) : between(a, b); }
    int upto(int n) { return std::uniform_int_distribution<int>(0, n)(engine); }
    bool one_in(int n) { return upto(n - 1) == 0; }
};

inline Job any_job(Dice& dice, const Documents& d) {
    Job j;
    j.id = "any";
    j.start = dice.one_in(9) ? "whenever" : "2026-12-07";
    std::vector<const Slab*> all;
    for (const auto& [id, s] : d.slabs) all.push_back(&s);
    j.top = {std::max(50.0, dice.wild(300, 2600)), std::max(50.0, dice.wild(200, 1300)),
             std::max(3.0, dice.wild(20, 60)),     std::max(100.0, dice.wild(300, 1000)),
             static_cast<LiveEdges>(dice.upto(3)), dice.upto(10),
             static_cast<TopShape>(dice.upto(3)),  {}};
    if (j.top.shape == TopShape::free)
        for (int i = 0; i < 9; ++i) j.top.free_form.push_back(Vec2{std::cos(i * 0.698), std::sin(i * 0.698)} * dice.between(100, 500));
    const int leaves = 1 + (dice.one_in(2) ? 0 : dice.upto(3));
    j.leaves.resize(static_cast<std::size_t>(leaves));
    for (Leaf& l : j.leaves) {
        l.slab = all[static_cast<std::size_t>(dice.upto(static_cast<int>(all.size()) - 1))]->id;
        l.placement = {dice.wild(200, 2000), dice.wild(-300, 300), dice.wild(-5, 5), dice.one_in(2), std::max(0.0, dice.wild(0, 60))};
        if (dice.one_in(4))
            for (int i = dice.upto(5); i > 0; --i) l.supports.push_back({dice.wild(0, 2000), dice.wild(-300, 300)});
    }
    MakeUpChoices& m = j.makeup;
    m.kind = made_of(static_cast<MakeUp>(dice.upto(5)), j.leaves.size());
    for (int i = dice.upto(leaves); i > 0; --i) m.joints.push_back({dice.wild(-400, 400), dice.wild(-3, 3), dice.one_in(3)});
    m.mill_kerf_mm = std::max(0.0, dice.wild(0, 10));
    m.rip_kerf_mm = std::max(0.0, dice.wild(0, 5));
    m.same_line = dice.one_in(2);
    m.river_mm = std::max(5.0, dice.wild(20, 300));
    m.two_colours = dice.one_in(2);
    m.least_radius_mm = std::max(20.0, dice.wild(100, 2000));
    m.cutter_mm = std::max(3.0, dice.wild(6, 20));
    m.rod_pitch_mm = std::max(40.0, dice.wild(100, 800));
    m.rod_depth_mm = std::max(10.0, dice.wild(30, 150));
    if (dice.one_in(3)) m.halves_u_mm = dice.wild(-500, 500);
    for (int i = dice.upto(2); i > 0; --i) {
        const double u = dice.wild(-400, 400);
        const double v = dice.wild(-200, 200);
        m.patches.push_back({"patch-" + std::to_string(i),
                             {{u, v}, {u + 80, v}, {u + 80, v + 40}, {u, v + 40}},
                             std::max(1.0, dice.wild(2, 20)),
                             dice.one_in(3)   ? ""
                             : dice.one_in(4) ? "gone"
                                              : all[static_cast<std::size_t>(dice.upto(5))]->id,
                             {dice.wild(0, 2000), dice.wild(-200, 200)},
                             dice.wild(-180, 180)});
    }
    m.faces_flat = dice.one_in(2), m.ripped = dice.one_in(2);
    j.flat.aim = static_cast<FlatAim>(dice.upto(4));
    j.flat.finish = static_cast<FinishTo>(dice.upto(1));
    j.flat.first = static_cast<FirstFace>(dice.upto(1));
    j.flat.allowance_mm = dice.between(0, 4);
    j.flat.rest_h = dice.one_in(3) ? 0 : dice.between(1, 100);
    if (!dice.one_in(3)) j.under = starting_under(j.top);
    for (LegPlate& p : j.under.plates) p.u_mm += dice.wild(-100, 100), p.v_mm += dice.wild(-100, 100);
    j.under.fixed = static_cast<FixedLine>(dice.upto(2));
    j.under.plate_let_in = dice.one_in(2);
    if (dice.one_in(3)) j.under.day_moisture_pct = dice.between(0, 60);
    for (int i = dice.upto(3); i > 0; --i)
        j.under.channels.push_back(
            {dice.wild(-500, 500), dice.wild(-50, 50), dice.between(100, 700), 40, dice.between(5, 25), 3, 1 + dice.upto(3)});
    for (int i = dice.upto(2); i > 0; --i)
        j.join.ties.push_back(
            {dice.wild(-500, 500), dice.wild(-200, 200), dice.wild(-90, 90), 110, 45, dice.between(4, 30), dice.one_in(2)});
    for (int i = dice.upto(2); i > 0; --i)
        j.join.gaps.push_back({1 + dice.upto(2), dice.wild(-500, 500), dice.between(0, 3), static_cast<EdgeRead>(dice.upto(2)), {}});
    for (int i = dice.upto(1); i > 0; --i) j.pour.dividers.push_back({1, dice.wild(-400, 400), "moss", dice.between(0, 10)});
    // Every school of every step takes any of its ways; every number of pouring, joining and the base anything that a shop could meet.
    const FieldWalk walk = walk_of(j);
    for (const FieldLine& line : describe(walk)) {
        if (line.path.rfind("makeup.kind", 0) == 0 || line.path.rfind("top.", 0) == 0) continue;  // laid above
        if (const OptionAt at = option_at(walk, line.path); at.there && dice.one_in(2))
            set_option(walk, line.path, static_cast<std::size_t>(dice.upto(static_cast<int>(at.school.options.size()) - 1)));
        const bool step = line.path.rfind("pour.", 0) == 0 || line.path.rfind("join.", 0) == 0 || line.path.rfind("under.", 0) == 0;
        if (!step || line.path.find('[') != std::string::npos || !dice.one_in(5)) continue;
        if (const NumberAt at = number_at(walk, line.path); at.there) {
            const double middle = at.value.value_or((at.field.range.low + at.field.range.high) / 2);
            set_number(walk, line.path, std::clamp(middle * dice.between(0.3, 2.5), at.field.range.low, at.field.range.high));
        }
    }
    return j;
}

}  // namespace yb
