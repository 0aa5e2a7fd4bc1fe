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

std::size_t tie_cracks(Job& job, const Plan& plan) {
    std::size_t added = 0;
    if (!plan.top->ready) return 0;
    const Frame bench = plan.placement.frame();
    for (const VoidPlan& v : plan.fill->voids) {
        if (v.kind != FlawKind::crack || v.gone) continue;
        Ring crack;
        for (const Vec2 q : v.outline) crack.push_back(bench.from_slab(q));
        for (const BowTie& t : ties_over(crack, plan.top->thickness_mm)) {
            if (intersection_area(outline_of(t), plan.top->above) < area(outline_of(t)) - 1) continue;
            const bool there = std::any_of(job.join.ties.begin(), job.join.ties.end(), [&](const BowTie& b) {
                return length(Vec2{b.u_mm - t.u_mm, b.v_mm - t.v_mm}) < t.wide_mm;
            });
            if (!there) job.join.ties.push_back(t), ++added;
        }
    }
    return added;
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
    std::stable_sort(gaps.begin(), gaps.end(), [](const GapReading& a, const GapReading& b) {
        return a.joint != b.joint ? a.joint < b.joint : a.u_mm < b.u_mm;
    });
}

}  // namespace yb
