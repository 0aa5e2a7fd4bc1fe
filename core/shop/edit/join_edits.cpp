// Edits of Join: bow ties set, moved, laid over cracks; gaps read.
#include <algorithm>

#include "core/shop/edit/edits.h"
#include "core/shop/edit/items.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/join/join.h"
#include "core/steps/top/top.h"

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

std::optional<CutOff> cut_off(const Plan& plan, const Job& job, std::size_t which) {
    if (!plan.top->ready || which >= plan.fill->voids.size() || job.top.shape != TopShape::rectangle) return {};
    const Box b = bounds(plan.placement.frame().from_slab(plan.fill->voids[which].outline));
    const double half = job.top.length_mm / 2;
    constexpr double clear_mm = 5;  // of the saw's cut
    CutOff c;
    c.end = b.low.x + b.high.x > 0 ? 1 : -1;
    c.by_mm = std::ceil((c.end > 0 ? half - b.low.x : b.high.x + half) + clear_mm - 1e-6);
    if (c.by_mm <= 0 || c.by_mm >= half) return {};
    return c;
}

void cut_void_off(Job& job, const Plan& plan, std::size_t which) {
    const auto c = cut_off(plan, job, which);
    if (!c) throw Refusal(say("Cutting it off would leave less than half of the top: fill it, stitch it or patch it."));
    shorten(job, c->by_mm, c->end);
}

void drop_tie(Job& job, std::size_t tie) { drop(job.join.ties, tie); }

void move_tie(Job& job, std::size_t tie, Vec2 by) {
    if (tie >= job.join.ties.size()) return;
    job.join.ties[tie].u_mm += by.x, job.join.ties[tie].v_mm += by.y;
}

void turn_tie(Job& job, std::size_t tie, double degrees) {
    if (tie < job.join.ties.size()) job.join.ties[tie].turn_deg += degrees;
}

namespace {
/// The reading of an edge at a place, added where there is none.
GapReading& reading(Job& job, int joint, double u, EdgeRead edge) {
    auto& gaps = job.join.gaps;
    for (GapReading& r : gaps)
        if (r.joint == joint && r.edge == edge && std::abs(r.u_mm - u) < 1) return r;
    const auto before = [&](const GapReading& r) { return r.joint != joint ? r.joint < joint : r.u_mm <= u; };
    const auto at = std::find_if_not(gaps.begin(), gaps.end(), before);
    return *gaps.insert(at, {joint, u, 0, edge, {}});
}
}  // namespace

std::size_t read_gap(Job& job, int joint, double u, double gap, EdgeRead edge) {
    GapReading& r = reading(job, joint, u, edge);
    r.gap_mm = gap;
    return static_cast<std::size_t>(&r - job.join.gaps.data());
}
std::size_t read_gap(Job& job, int joint, double u, double gap) { return read_gap(job, joint, u, gap, EdgeRead::together); }
void read_square(Job& job, int joint, double u, std::optional<double> square) {
    reading(job, joint, u, EdgeRead::together).square_mm = square;
}

}  // namespace yb
