#include "core/shop/record/packing.h"

#include <algorithm>
#include <cmath>

#include "core/ground/measure/lift.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

constexpr double board_kg_m3 = 550, foam_kg_m3 = 20;

PackedPart packed(Phrase what, double length, double width, double height, double kg) {
    PackedPart p;
    p.what = std::move(what);
    p.long_mm = std::max(length, width), p.wide_mm = std::min(length, width), p.high_mm = height, p.kg = kg;
    p.people = std::max(1, static_cast<int>(people_to_lift(kg)));
    const auto box = [](double l, double w, double h) { return l * w * h * 1e-9; };
    const double f = 2 * foam_mm, b = 2 * crate_board_mm;
    const double bare = box(p.long_mm, p.wide_mm, p.high_mm), inside = box(p.long_mm + f, p.wide_mm + f, p.high_mm + f);
    p.crate_long_mm = p.long_mm + f + b, p.crate_wide_mm = p.wide_mm + f + b, p.crate_high_mm = p.high_mm + f + b;
    p.crate_kg = (inside - bare) * foam_kg_m3 + (box(p.crate_long_mm, p.crate_wide_mm, p.crate_high_mm) - inside) * board_kg_m3;
    return p;
}

}  // namespace

Packing packing_of(const Plan& plan, const Job& job) {
    Packing out;
    if (!plan.top || !plan.top->ready) return out;
    const UnderPlan& u = *plan.under;
    const Box top = bounds(plan.top->above);
    const double thick = plan.top->thickness_mm + u.stays_mm, kg = u.top_kg > 0 ? u.top_kg : plan.top->mass_kg;
    if (const auto cut = job.makeup.halves_u_mm; cut && *cut > top.low.x && *cut < top.high.x) {
        const double share = (*cut - top.low.x) / top.width();
        out.parts.push_back(packed(say("The top, left half"), *cut - top.low.x, top.height(), thick, kg * share));
        out.parts.push_back(packed(say("The top, right half"), top.high.x - *cut, top.height(), thick, kg * (1 - share)));
    } else {
        out.parts.push_back(packed(say("The top"), top.width(), top.height(), thick, kg));
    }
    if (!u.feet.empty()) {
        const Box feet = bounds(Ring(u.feet.begin(), u.feet.end()));
        out.parts.push_back(packed(say("The base"), feet.width(), feet.height(), std::max(1.0, u.leg_mm), u.base_kg));
    }
    const double holes = static_cast<double>(u.slots.size()), feet = static_cast<double>(u.feet.size());
    const bool screws = job.under.inserts == InsertKind::wood_screw;
    if (holes > 0) {
        out.bag.push_back({screws ? say("screws, two to spare") : say("bolts, two to spare"), holes + 2});
        out.bag.push_back({say("washers, two to spare"), holes + 2});
        if (!screws) {
            out.bag.push_back({say("insert, left over"), 1});
            out.bag.push_back({say("key that fits the bolts"), 1});
        }
    }
    if (feet > 0) out.bag.push_back({say("felt pads, one to spare"), feet + 1});
    out.bag.push_back({say("finish for touching up, a small bottle"), 1});
    out.bag.push_back({say("care sheet"), 1});
    out.route.push_back(say("The narrowest door on the way is {} by {}.", mm(job.under.door_wide_mm), mm(job.under.door_high_mm)));
    if (!u.passage.top_alone) out.route.push_back(say("The top does not go through it: another way in, or halves."));
    else if (!u.passage.assembled) out.route.push_back(say("Put together it does not go through: carry top and base in apart."));
    if (job.under.stair_mm && u.stair_longest_mm)
        out.route.push_back(say("Round the landing of its stair, {} wide, goes what is {} long at most; the top is {}.",
                                mm(*job.under.stair_mm), mm(*u.stair_longest_mm), mm(u.carried_mm)));
    return out;
}

}  // namespace yb
