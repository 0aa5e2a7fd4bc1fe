#include "core/steps/under/fixed.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <optional>

#include "core/steps/under/under.h"

namespace yb {

namespace {

/// The leaf that is wood at a place of the underside.
std::optional<std::size_t> leaf_at(const Top& top, Vec2 uv) {
    for (std::size_t i = 0; i < top.leaves; ++i) {
        const Region& r = top.regions[i];
        const Ring& ring = r.below.empty() ? r.above : r.below;
        if (ring.size() > 2 && contains(ring, uv)) return i;
    }
    return {};
}

}  // namespace

double fixed_at(FixedLine line, const Top& top, const UnderChoices& c) {
    if (line == FixedLine::middle) return 0;
    const double side = line == FixedLine::left ? 1 : -1;
    std::optional<double> outermost;
    for (const LegPlate& p : c.plates)
        for (const Vec2 hole : holes_of(p, c))
            if (leaf_at(top, hole)) outermost = outermost ? std::max(*outermost, side * hole.y) : side * hole.y;
    return side * outermost.value_or(top.wanted.width_mm / 2);
}

bool leaves_apart(const Top& top) {
    return std::any_of(top.regions.begin(), top.regions.end(), [](const Region& r) { return r.kind == RegionKind::air && !r.let_in; });
}

std::vector<double> fixed_in_leaves(FixedLine line, const Top& top, const UnderChoices& c) {
    const double common = fixed_at(line, top, c);
    std::vector<double> out(top.leaves, common);
    if (!leaves_apart(top)) return out;
    std::vector<std::optional<double>> nearest(top.leaves);
    for (const LegPlate& p : c.plates)
        for (const Vec2 hole : holes_of(p, c))
            if (const auto i = leaf_at(top, hole); i && (!nearest[*i] || std::abs(hole.y - common) < std::abs(*nearest[*i] - common)))
                nearest[*i] = hole.y;
    for (std::size_t i = 0; i < top.leaves; ++i) out[i] = nearest[i].value_or(common);
    return out;
}

double fixed_for(Vec2 uv, const Top& top, const std::vector<double>& of_leaf) {
    if (std::adjacent_find(of_leaf.begin(), of_leaf.end(), std::not_equal_to<>()) == of_leaf.end()) return of_leaf.at(0);
    if (const auto i = leaf_at(top, uv)) return of_leaf.at(*i);
    return *std::min_element(of_leaf.begin(), of_leaf.end(), [&](double a, double b) { return std::abs(a - uv.y) < std::abs(b - uv.y); });
}

std::vector<double> lines_held(const UnderPlan& p) { return p.leaf_fixed_v_mm.empty() ? std::vector{p.fixed_v_mm} : p.leaf_fixed_v_mm; }

}  // namespace yb
