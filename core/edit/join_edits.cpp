// Edits of Join: bow ties set, moved, laid over cracks; gaps read.
#include <algorithm>

#include "core/edit/edits.h"
#include "core/fill/fill.h"
#include "core/flat/flat.h"
#include "core/job/job.h"
#include "core/job/plan.h"
#include "core/join/join.h"
#include "core/top/top.h"

namespace yb {

void add_tie(Job& job, Vec2 uv, double thickness) {
    BowTie t;
    t.u_mm = uv.x, t.v_mm = uv.y, t.turn_deg = 90;
    t.deep_mm = std::round(std::min(thickness / 3, 20.0));
    job.join.ties.push_back(t);
}

std::size_t tie_void(Job& job, const Plan& plan, std::size_t which) {
    if (!plan.top->ready || which >= plan.fill->voids.size()) return 0;
    std::size_t added = 0;
    const Ring crack = plan.placement.frame().from_slab(plan.fill->voids[which].outline);
    for (const BowTie& t : ties_over(crack, plan.top->thickness_mm)) {
        if (intersection_area(outline_of(t), plan.top->above) < area(outline_of(t)) - 1) continue;
        const bool there = std::any_of(job.join.ties.begin(), job.join.ties.end(), [&](const BowTie& b) {
            return length(Vec2{b.u_mm - t.u_mm, b.v_mm - t.v_mm}) < t.wide_mm;
        });
        if (!there) job.join.ties.push_back(t), ++added;
    }
    return added;
}

std::size_t tie_cracks(Job& job, const Plan& plan) {
    std::size_t added = 0;
    for (std::size_t i = 0; i < plan.fill->voids.size(); ++i)
        if (plan.fill->voids[i].kind == FlawKind::crack && !plan.fill->voids[i].gone) added += tie_void(job, plan, i);
    return added;
}

void patch_void(Job& job, const Plan& plan, std::size_t which) {
    if (!plan.top->ready || which >= plan.fill->voids.size()) throw Refusal(say("That void is no longer there."));
    // So much sound wood around it that its edge is clean.
    const Ring over = widened(plan.placement.frame().from_slab(plan.fill->voids[which].outline), 6);
    if (intersection_area(over, plan.top->above) < area(over) - 1)
        throw Refusal(say("A patch over it would run past the edge of the top: draw one in Lay, or fill it."));
    add_patch(job, over);
}

void drop_tie(Job& job, std::size_t tie) {
    if (tie < job.join.ties.size()) job.join.ties.erase(job.join.ties.begin() + static_cast<std::ptrdiff_t>(tie));
}

void move_tie(Job& job, std::size_t tie, Vec2 by) {
    if (tie >= job.join.ties.size()) return;
    job.join.ties[tie].u_mm += by.x, job.join.ties[tie].v_mm += by.y;
}

void turn_tie(Job& job, std::size_t tie, double degrees) {
    if (tie < job.join.ties.size()) job.join.ties[tie].turn_deg += degrees;
}

void read_gap(Job& job, int joint, double u, double gap) {
    auto& gaps = job.join.gaps;
    std::erase_if(gaps, [&](const GapReading& r) { return r.joint == joint && std::abs(r.u_mm - u) < 1; });
    gaps.push_back({joint, u, gap});
    std::stable_sort(gaps.begin(), gaps.end(),
                     [](const GapReading& a, const GapReading& b) { return a.joint != b.joint ? a.joint < b.joint : a.u_mm < b.u_mm; });
}

}  // namespace yb
