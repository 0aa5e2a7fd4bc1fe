#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/steps/lay/end_crack.h"
#include "core/steps/lay/lay.h"

namespace yb {

namespace {
/// Square centimetres, of a small one to the tenth: none is nothing.
Quantity area_cm2(double mm2) { return mm2 < 950 ? number(std::max(0.1, std::round(mm2 / 10) / 10)) : count(std::round(mm2 / 100)); }
}  // namespace

std::vector<FlawInside> flaws_inside(const Slab& slab, const Ring& outline) {
    std::vector<FlawInside> out;
    const Box box = bounds(outline);
    for (std::size_t i = 0; i < slab.flaws.size(); ++i) {
        const Flaw& f = slab.flaws[i];
        if (f.outline.size() < 3) continue;
        const Box b = bounds(f.outline);
        if (b.high.x < box.low.x || b.low.x > box.high.x || b.high.y < box.low.y || b.low.y > box.high.y) continue;
        const auto parts = intersection(f.outline, outline);
        double sum = 0;
        for (const Ring& r : parts) sum += area(r);
        if (sum > 0.5) out.push_back({i, sum, centroid(largest(parts))});
    }
    return out;
}

Wish& wish_of(FlawWishes& w, FlawKind kind) {
    switch (kind) {
        case FlawKind::crack: return w.crack;
        case FlawKind::void_: return w.void_;
        case FlawKind::pocket: return w.pocket;
        case FlawKind::knot: return w.knot;
        case FlawKind::soft: return w.soft;
        case FlawKind::insects: return w.insects;
        case FlawKind::pith: return w.pith;
        case FlawKind::scar: return w.scar;
    }
    return w.scar;
}

Wish wish_of(const FlawWishes& w, FlawKind kind) {
    FlawWishes copy = w;
    return wish_of(copy, kind);
}

double against_wishes(const Slab& slab, const FlawWishes& wishes, const Ring& outline) {
    constexpr double least_wide_mm = 10;
    const Box box = bounds(outline);
    double sum = 0;
    for (const Flaw& f : slab.flaws) {
        const Wish wish = wish_of(wishes, f.kind);
        if (wish == Wish::allow || f.outline.size() < 3) continue;
        const Box b = bounds(f.outline);
        if (b.high.x < box.low.x || b.low.x > box.high.x || b.high.y < box.low.y || b.low.y > box.high.y) continue;
        for (const Ring& part : intersection(f.outline, outline)) {
            const Box p = bounds(part);
            const double much = std::max(area(part), least_wide_mm * std::hypot(p.width(), p.height()));
            sum += wish == Wish::avoid ? much : -much / 2;
        }
    }
    return sum;
}

EndCrack end_crack(const Flaw& flaw, const SlabShape& shape, bool cross_cut) {
    constexpr double at_the_end_mm = 25;
    if (flaw.kind != FlawKind::crack || flaw.outline.size() < 3 || cross_cut) return {};
    const Box b = bounds(flaw.outline);
    return {b.low.x<shape.x0 + at_the_end_mm, b.high.x> shape.x1 - at_the_end_mm};
}

void flaw_cautions(const Slab& slab, const SlabShape& shape, const std::vector<FlawInside>& flaws, const Frame& place, const WantedTop& top,
                   std::vector<Caution>& out) {
    const double length_mm = top.length_mm;
    const auto add = [&](const char* key, Severity s, Phrase says, Vec2 at) {
        out.push_back({key, s, step_key::lay, std::move(says), at});
    };
    for (const FlawInside& f : flaws) {
        const Flaw& flaw = slab.flaws[f.index];
        const double x = f.at.x;
        const double hl = length_mm / 2;
        if (const EndCrack crack = end_crack(flaw, shape, slab.cross_cut)) {
            const bool first = crack.at_first;
            // Which end of the top that is: the slab's first end lies to the left unless the top lies end for end on it.
            const bool left = first == (std::cos(place.angle_deg * std::numbers::pi / 180) > 0);
            const Box b = bounds(place.from_slab(flaw.outline));
            const double clear = left ? b.high.x + hl : hl - b.low.x;
            add("lay.end_crack", Severity::watch,
                clear < length_mm / 4
                    ? say("An end crack is left in at {}. A crosscut {} further in clears it and leaves {}; or fill and tie it.", along(x),
                          mm(clear), mm(length_mm - clear))
                    : say("An end crack at {} runs far into the top. To cut it off costs {} of length and leaves {}: lay the top "
                          "elsewhere, "
                          "rip along it, or fill and tie it.",
                          along(x), mm(clear), mm(std::max(0.0, length_mm - clear))),
                f.at);
            if (clear < length_mm) out.back().asks = {{"further_in_mm", clear}};
        } else if (flaw.kind == FlawKind::soft) {
            add("lay.soft", Severity::watch,
                say("Soft wood lies in the top at {}: dig it out or soak it with a penetrating resin before flattening.", along(x)), f.at);
        } else if (flaw.kind == FlawKind::pith) {
            add("lay.pith", Severity::watch,
                say("The pith runs in the top at {}. It tends to split there: keep it off the faces or plan to fill.", along(x)), f.at);
        } else if (wish_of(top.flaws, flaw.kind) == Wish::avoid) {
            add("lay.flaw", Severity::watch,
                say("In the top lies {}, {} cm², at {}, and you want none: look for a place without it, cut clear, or fill.",
                    a_flaw(flaw.kind), area_cm2(f.area_mm2), along(x)),
                f.at);
        } else {
            add("lay.flaw", Severity::note,
                say("In the top lies {}, {} cm², at {}: cut clear, fill, or keep as character.", a_flaw(flaw.kind), area_cm2(f.area_mm2),
                    along(x)),
                f.at);
        }
    }
}

void pith_caution(const Slab& slab, const SlabShape& shape, const Ring& outline, std::vector<Caution>& out) {
    if (!slab.pith_mm || slab.cross_cut || outline.size() < 3) return;
    if (std::any_of(out.begin(), out.end(), [](const Caution& c) { return c.key == "lay.pith"; })) return;
    // It runs below the chalk line; told where it is nearest to a face, of what of it lies in the top.
    const Box box = bounds(outline);
    double least = 1e300;
    Vec2 where;
    for (int i = 1; i < 40; ++i) {
        const Vec2 at{box.low.x + box.width() * i / 40, 0};
        if (!contains(outline, at)) continue;
        const double inside = shape.thickness_at(at) / 2 - std::abs(*slab.pith_mm);
        if (inside < least) least = inside, where = at;
    }
    if (least > 1e299 || least <= 0) return;
    out.push_back(
        {"lay.pith", Severity::watch, step_key::lay,
         say("The pith runs inside this leaf, {} below its nearer face: it tends to split there. Rip it out, or stitch it and plan "
             "to fill.",
             mm(least)),
         where});
}

}  // namespace yb
